"""The order of work that a design asks for."""

from contextlib import suppress
from typing import Any
from unittest import TestCase

from pydantic import ValidationError

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.sheet import SheetScheme
from keel.design.workshop import Workshop
from keel.log.plan import prerequisites
from keel.solid.faults import GeometryError
from keel.studies.build.operation import AllDone, FlushedClean, Looked, MeasurementsAgree, Traveller
from keel.studies.build.port_work import HOT_KINDS
from keel.studies.build.traveller import TRAVELLER
from keel.tests.samples import box, design
from keel.tests.wild import Wild

WALL = {"kind": "partition", "id": "wall", "name": "wall", "at_mm": 380.0}
BAFFLES = [
    {"kind": "baffle", "id": name, "name": name, "axis": axis, "at_mm": at}
    for name, axis, at in (("across", "x", 300.0), ("along", "y", 200.0))
]
MODULE: dict[str, Any] = {
    "id": "module",
    "name": "module",
    "role": "pickup",
    "x_mm": 150.0,
    "y_mm": 120.0,
    "hangs_mm": 300.0,
    "hangs_across_mm": 60.0,
    "stop_deg": 90.0,
    "seat": {"kind": "flange", "hole_mm": 100.0, "outer_mm": 150.0, "bolt_circle_mm": 125.0, "bolts": 8}
    | {"torque_nm": 10.0, "seal": "fluoroelastomer"},
    "hanger": {"made_for_mm": 400.0},
}
VENT: dict[str, Any] = {"id": "vent", "name": "vent", "role": "vent", "x_mm": 500.0, "y_mm": 200.0}
VENT |= {"seat": {"hole_mm": 20.0, "outer_mm": 30.0}}


def traveller(of: Design, workshop: Workshop | None = None) -> Traveller:
    """The order of work of a design."""
    return TankAnalysis(Asked(of, workshop or Workshop()))[TRAVELLER]


def with_features(*features: dict[str, Any], **more: Any) -> Design:
    """A box with features."""
    return Design.model_validate({"shell": box().model_dump() | {"features": features}} | more)


def place(work: Traveller) -> dict[str, int]:
    """Where each operation stands in the order."""
    return {operation.id: at for at, operation in enumerate(work.operations)}


class Order(TestCase):
    """What comes before what."""

    def test_any_design(self) -> None:
        """Names are unique, what an operation needs stands before it, gates stand before something that is there."""
        for seed in range(25):
            with self.subTest(seed=seed), suppress(GeometryError, ValidationError):
                self.judge(traveller(Design.model_validate(Wild(seed).document())))

    def judge(self, work: Traveller) -> None:
        """One order of work."""
        order = place(work)
        self.assertEqual(len(order), len(work.operations))
        for name, needs in prerequisites(work).items():
            for need in needs:
                self.assertLess(order[need], order[name], f"{need} before {name}")
        for gate in work.gates:
            self.assertTrue(set(gate.before) <= set(order), gate.id)
        heat = [at for at, one in enumerate(work.operations) if one.kind in HOT_KINDS]
        fitted = [at for at, one in enumerate(work.operations) if one.kind in ("fit", "trim")]
        if heat and fitted:
            self.assertLess(max(heat), min(fitted))

    def test_a_wrapper_with_ends(self) -> None:
        """Bosses in while flat, crossed plates joined first, looked at before the last end."""
        work = traveller(with_features(*BAFFLES, ports=[VENT]))
        wanted = ["prepare:sheet", "deburr:edges", "seat:vent", "bend:wrapper", "join:crossed", "tack:body"]
        wanted += ["weld:closing-seam", "weld:inside-along", "weld:rear-pan", "clean:front-pan", "look:front-pan"]
        wanted += ["close:front-pan", "plug:in", "dress:seams", "prove:tank", "fit:vent", "plug:out"]
        order = place(work)
        self.assertEqual(sorted(wanted, key=order.__getitem__), wanted)

    def test_each_end_of_two_cells_shuts_one(self) -> None:
        """Behind a partition nobody looks from the other end."""
        gates = {gate.id: gate for gate in traveller(with_features(WALL)).gates}
        self.assertEqual(gates["inside:rear-pan"].before, ["weld:rear-pan"])
        self.assertEqual(gates["inside:front-pan"].before, ["close:front-pan"])
        along = traveller(with_features(WALL | {"axis": "y", "at_mm": 200.0}))
        self.assertEqual([gate.id for gate in along.gates if "inside" in gate.id], ["inside:front-pan"])

    def test_every_scheme_closes_once(self) -> None:
        """All seams of the shell are in one weld each, whatever it is made of."""
        for scheme in ("wrapper and pans", "wrapper and flat ends", "two U's", "tray and lid", "flat plates"):
            drawn = Design(shell=box(), sheet=SheetScheme(scheme=scheme))
            work = traveller(drawn)
            welds = [one for one in work.operations if one.kind in ("weld", "close")]
            dressed = next(one for one in work.operations if one.kind == "dress")
            self.assertAlmostEqual(sum(one.amount for one in welds), dressed.amount, 9, scheme)
            self.assertEqual(len([one for one in welds if one.kind == "close"]), 1)

    def test_what_cannot_be_made(self) -> None:
        """No order of work where the shell can't be unfolded."""
        self.assertEqual(traveller(design(box(width_mm=8, height_mm=8))).operations, [])


class Hidden(TestCase):
    """What is looked at before it is out of sight."""

    def test_hanger(self) -> None:
        """Measured twice before it is cut; swarf out, seal first, stop, pull, pinch before it goes in."""
        gates = {gate.id: gate for gate in traveller(with_features(ports=[MODULE])).gates}
        cut = gates["measure:module"].conditions[0]
        assert isinstance(cut, MeasurementsAgree)
        self.assertAlmostEqual(cut.planned_mm, 350 - 2 * 3 + 3)
        names = [one.check for one in gates["fit:module"].conditions if isinstance(one, Looked)]
        self.assertEqual(names, [f"{name}:module" for name in ("caps", "dry", "gasket", "stop", "pull", "pinch")])
        self.assertIn(FlushedClean("swarf:module"), gates["fit:module"].conditions)
        photos = [one.check for one in gates["fit:module"].conditions if isinstance(one, Looked) and one.photo]
        self.assertEqual(photos, ["stop:module", "pinch:module"])

    def test_goods(self) -> None:
        """What is welded in has to be here before it is, what is fitted before that; a flange's ring is sheet."""
        work = traveller(with_features(ports=[MODULE, VENT]))
        self.assertEqual([item.id for item in work.goods][:3], ["seat:vent", "fitting:module", "seal:module"])
        self.assertEqual(next(item.quantity for item in work.goods if item.id == "screws:module"), 8)
        gates = {gate.id: gate for gate in work.gates}
        self.assertIn("seat:module", gates["goods:seats"].before)
        self.assertIn("fit:vent", gates["goods:fitted"].before)
        self.assertEqual(traveller(design()).operations[0].id, "prepare:sheet")

    def test_star_order(self) -> None:
        """Screws counted, three passes across the ring, none left."""
        fit = next(one for one in traveller(with_features(ports=[MODULE])).operations if one.id == "fit:module")
        said = [step.plain() for step in fit.steps]
        self.assertEqual(said[0], "8 screws and washers counted onto the bench")
        self.assertEqual(said[1], "Pass 1, bolts 1, 5, 2, 6, 3, 7, 4, 8: 3.0 N·m")
        self.assertEqual(len(said), 5)

    def test_what_opening_again_costs(self) -> None:
        """Said before the last end: its seam, and twice its weld by the shop's rate."""
        rated = Workshop.model_validate({"rates": {"weld_min_per_m": 20.0}})
        work = traveller(design(), rated)
        why = work.gates[0].why
        self.assertAlmostEqual(float(why.values["seam_m"]), 2 * (0.4 + 0.35) - 4 * 0.003, delta=0.2)
        self.assertAlmostEqual(float(why.values["again_min"]), 40 * float(why.values["seam_m"]))
        self.assertTrue(all(isinstance(one, AllDone | FlushedClean | Looked) for one in work.gates[0].conditions))


class Changes(TestCase):
    """Which operations a change of the design touches."""

    def touched(self, before: Design, after: Design) -> set[str]:
        """Operations that are there in both and whose basis differs."""
        was = {one.id: one.basis for one in traveller(before).operations}
        return {one.id for one in traveller(after).operations if one.id in was and one.basis != was[one.id]}

    def test_a_port_moved(self) -> None:
        """The sheet with its hole, and what is fitted there; not the ends."""
        moved = self.touched(with_features(ports=[VENT]), with_features(ports=[VENT | {"x_mm": 520.0}]))
        self.assertTrue({"seat:vent", "bend:wrapper", "fit:vent", "deburr:edges"} <= moved, moved)
        self.assertNotIn("bend:end-pan", moved)

    def test_brief_alone(self) -> None:
        """What says nothing about metal touches nothing."""
        self.assertEqual(self.touched(with_features(), with_features(brief={"target_l": 80.0})), set())


class Rates(TestCase):
    """Planned minutes by what the workshop typed."""

    def test_by_metre_and_piece(self) -> None:
        """A rate a metre of seam, a price list's minutes a bend; what isn't typed isn't guessed."""
        rated = Workshop.model_validate({"rates": {"weld_min_per_m": 20.0}, "prices": {"minutes_per_bend": 6.0}})
        work = {one.id: one for one in traveller(design(), rated).operations}
        self.assertEqual(work["bend:end-pan"].minutes, 6.0 * 4 * 2)
        self.assertAlmostEqual(work["weld:closing-seam"].minutes or 0, 20 * work["weld:closing-seam"].amount)
        self.assertIsNone(work["cut:no-means-typed"].minutes)
        self.assertEqual(work["weld:closing-seam"].by, "")
        trades = Workshop.model_validate({"rates": {"by": {"weld": "coded welder"}}})
        welds = [one.by for one in traveller(design(), trades).operations if one.kind == "weld"]
        self.assertEqual(set(welds), {"coded welder"})
