"""The mount in the order of work: matched in place, welded out of the vehicle, masked, made good, bolted down last."""

from typing import Any
from unittest import TestCase

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.studies.build.mount_work import FEET, MASK, MATCH, MOUNTED
from keel.studies.build.operation import AllDone, Looked, Operation, Traveller
from keel.studies.build.traveller import TRAVELLER
from keel.studies.mount.bolt_list import bolt_list
from keel.tests.samples import box
from keel.tests.test_mount import HELD, SHELL, foot

FEET_ON: dict[str, Any] = {
    "feet": [foot(n, x, y, weld_mm=60.0, match_made=True) for n, (x, y) in enumerate([(-20, -180), (920, 180)])]
}


def order(mount: dict[str, Any], metal: str = "mild steel", **more: Any) -> Traveller:
    shell = box().model_dump() | SHELL | {"metal": metal}
    document = Design.model_validate({"shell": shell, "mount": mount} | more)
    return TankAnalysis(Asked(document, Workshop()))[TRAVELLER]


def places(made: Traveller) -> dict[str, int]:
    return {one.id: place for place, one in enumerate(made.operations)}


def needed_by(made: Traveller, wanted: str) -> set[str]:
    """All that has to be done before an operation, however far back."""
    operations = {one.id: one for one in made.operations}
    found: set[str] = set()
    queue: list[Operation] = [operations[wanted]]
    while queue:
        for name in queue.pop().needs:
            if name not in found and name in operations:
                found.add(name)
                queue.append(operations[name])
    return found


class InOrder(TestCase):
    def test_marked_in_place_welded_out_proved_painted_bolted_down(self) -> None:
        made = order(HELD | FEET_ON)
        at = places(made)
        self.assertLess(at[MATCH], at[FEET])
        self.assertLess(at[FEET], at["prove:tank"])
        self.assertLess(at["prove:tank"], at[MASK])
        self.assertLess(at[MASK], at["cover:outside"])
        self.assertLess(at["cover:outside"], at[MOUNTED])
        self.assertLessEqual({MATCH}, needed_by(made, FEET))
        self.assertLessEqual({"prove:tank", "cover:outside", MASK, "bend:strap-s1"}, needed_by(made, MOUNTED))

    def test_heat_at_the_feet_comes_before_the_leak_test_wherever_it_stands(self) -> None:
        made = order(HELD | FEET_ON)
        self.assertIn(FEET, needed_by(made, "prove:tank"))

    def test_the_tank_is_out_before_its_feet_are_welded(self) -> None:
        gate = next(one for one in order(FEET_ON).gates if one.id == "mount-out")
        self.assertEqual((gate.before, gate.firm), ([FEET], False))
        self.assertIsInstance(gate.conditions[0], Looked)

    def test_nobody_passes_cut_structure_that_is_not_made_good(self) -> None:
        cut = {"id": "web", "name": "frame web", "reinforcement": "doubler plate, plug-welded"}
        made = order(HELD | {"cuts": [cut]})
        gate = next(one for one in made.gates if one.id == "mount-structure")
        self.assertEqual((gate.before, gate.firm), ([MOUNTED], True))
        self.assertEqual([one.operations for one in gate.conditions if isinstance(one, AllDone)], [("look:cut-web",)])
        self.assertTrue(all(one.photo for one in gate.conditions if isinstance(one, Looked)))
        self.assertIn("look:cut-web", needed_by(made, MOUNTED))

    def test_bare_metal_needs_no_masking(self) -> None:
        self.assertNotIn(MASK, places(order(HELD, metal="5083-H111")))

    def test_a_tank_that_nothing_holds_has_none_of_it(self) -> None:
        kinds = {one.id for one in order({}).operations}
        self.assertFalse(kinds & {MATCH, FEET, MASK, MOUNTED, "look:mount"})
        self.assertFalse([one for one in order({}).gates if one.id.startswith("mount")])

    def test_who_lifts_it_is_told_what_it_weighs(self) -> None:
        mounting = next(one for one in order(HELD).operations if one.id == MOUNTED)
        said = next(one for one in mounting.cautions if "mass_kg" in one.values)
        mass = float(said.values["mass_kg"])
        self.assertEqual(said.values["people"], max(1, -(-mass // 25)))
        self.assertEqual(mounting.counts[0].expected, 4 + 16)

    def test_as_many_bolts_are_counted_in_as_are_on_the_list(self) -> None:
        """Straps, feet and stops, and both ends of each bearer."""
        rail = {"along": "y", "low_mm": -260.0, "high_mm": 260.0, "bolts": {"size": "M8", "count": 3}}
        rails = [{"id": f"b{n}", "name": f"rail {n}", "at_mm": at} | rail for n, at in enumerate((200.0, 700.0))]
        mount = HELD | FEET_ON | {"bearers": rails}
        listed = bolt_list(Design.model_validate({"mount": mount}).mount)
        fit = next(one for one in order(mount).operations if one.id == MOUNTED)
        self.assertEqual([count.expected for count in fit.counts], [sum(row.count for row in listed)])
        self.assertEqual(fit.amount, len(listed))

    def test_a_strap_is_cut_as_long_as_it_lies(self) -> None:
        made = order(HELD)
        cut = next(one for one in made.operations if one.id == "cut:strap-s1")
        self.assertAlmostEqual(float(cut.title.values["cut_mm"]), 1160.428 + 2 * 55 + 25, delta=0.1)
