"""Ways to make a shell of sheet: a worked box's weld, bends and parts; what can't be made; what is favoured."""

import json
from math import hypot, pi
from typing import Any, get_args
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.sheet import BoxScheme, SheetScheme
from keel.design.shell import BoxShell
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.formats.document import read_design
from keel.solid.box import box_solid
from keel.solid.build import build
from keel.stations.sheet.schemes import Scheme, schemes
from keel.studies.sheet.fold_proof import FOLD_PROOF
from keel.studies.sheet.unfold import SHEET
from keel.tests.samples import box, shells

BOX = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0, "thickness_mm": 3.0, "bend_radius_mm": 6.0}
STEP = [(0, 0), (480, 0), (480, 140), (900, 140), (900, 380), (0, 380)]
PRICED = {"metal_per_kg": {"5052-H32": 9.0}, "weld_per_m": 30.0, "hours_per_m": 0.5, "per_hour": 40.0}


def compared(shell: dict[str, Any], shop: dict[str, Any] | None = None, **sheet: Any) -> dict[str, Scheme]:
    """Ways to make a shell, by what they are called."""
    design = read_design(json.dumps({"shell": shell, "sheet": sheet}))
    found = evaluate(design, Workshop.model_validate(shop or {}), Showing(results=("sheet.schemes",)))
    return {scheme.title: scheme for scheme in found.sheet.schemes}


class Worked(TestCase):
    """800 by 400 by 350: every edge is bent or welded, each seam counted once."""

    def test_weld_and_bends(self) -> None:
        """To what corner radii and lips cost."""
        found = compared(BOX)
        for title, weld, floor, bends, parts in (
            ("wrapper lengthwise, two pans", 3800, 800, 12, 3),
            ("wrapper lengthwise, closed at a corner, two pans", 3800, 800, 11, 3),
            ("wrapper lengthwise, two flat ends", 3800, 800, 4, 3),
            ("two U’s, rear and front up from the floor", 3800, 1600, 4, 2),
            ("two U’s, right and left up from the floor", 3800, 800, 4, 2),
            ("tray and lid", 3800, 0, 4, 2),
            ("six flat plates", 6200, 2400, 0, 6),
        ):
            scheme = found[title]
            self.assertAlmostEqual(scheme.weld_m * 1000 / weld, 1, delta=0.015, msg=title)
            self.assertAlmostEqual(scheme.floor_m * 1000, floor, delta=0.015 * floor + 1e-9, msg=title)
            self.assertEqual((scheme.bends, scheme.parts), (bends, parts), title)
            self.assertAlmostEqual(scheme.floor_m + scheme.side_m + scheme.top_m + scheme.inside_m, scheme.weld_m)
        self.assertEqual([scheme.title for scheme in found.values() if scheme.chosen], ["wrapper lengthwise, two pans"])

    def test_each_can_be_taken(self) -> None:
        """Its patch makes the design so, and then it is the one that is drawn."""
        for title, scheme in compared(BOX).items():
            document = {"shell": BOX | dict(scheme.patch.get("shell") or {}), "sheet": scheme.patch.get("sheet")}
            again = compared(document["shell"], **dict(document["sheet"] or {}))  # type: ignore[call-overload]
            chosen = [one for one in again.values() if one.chosen]
            self.assertEqual(len(chosen), 1, title)
            self.assertAlmostEqual(chosen[0].weld_m, scheme.weld_m, msg=title)
            self.assertEqual(chosen[0].bends, scheme.bends, title)

    def test_the_one_that_is_drawn(self) -> None:
        """Whatever seam and parts, just one way is the design's own; two pieces are two whatever is welded now."""
        for scheme in get_args(BoxScheme):
            for seam in ("lid", "floor", "side", "corner butt", "corner open"):
                chosen = [one.title for one in compared(BOX, scheme=scheme, seam=seam).values() if one.chosen]
                self.assertEqual(len(chosen), 1, (scheme, seam, chosen))
        for joint in ("bend", "weld"):
            corners = [{"across_mm": a, "up_mm": u, "joint": joint} for a, u in STEP]
            shell = {"kind": "profile", "wrap_axis": "y", "run_mm": 500.0, "thickness_mm": 2.0, "bend_radius_mm": 4.0}
            self.assertEqual(compared(shell | {"corners": corners})["wrapper in two pieces, two flat ends"].bends, 4)

    def test_a_sketch_shows_what_is_bent(self) -> None:
        """Twelve edges of a box, bent and welded as each way has it, and a seam where a wrapper closes."""
        found = compared(BOX)
        for title, bent, welded in (
            ("wrapper lengthwise, two flat ends", 4, 9),
            ("two U’s, rear and front up from the floor", 4, 8),
            ("tray and lid", 4, 8),
            ("six flat plates", 0, 12),
        ):
            joints = [edge.joint for edge in found[title].sketch]
            self.assertEqual((joints.count("bend"), joints.count("weld")), (bent, welded), title)


class Judged(TestCase):
    """What a shop can't make, and what it favours."""

    def test_a_tray_deeper_than_the_fingers(self) -> None:
        """347 mm of wall on a brake of 100: named with both, and by how much the tank would have to be lower."""
        tray = compared(BOX)["tray and lid"]
        (stop,) = tray.stops
        self.assertAlmostEqual(float(stop.values["deep_mm"]), 347)
        self.assertEqual(stop.values["fingers_mm"], 100)
        assert tray.remedy is not None
        self.assertIn("247 mm lower", tray.remedy.plain())
        deep = compared(BOX, {"brake": {"fingers_mm": 347}})["tray and lid"]
        self.assertEqual(deep.stops, [])
        self.assertTrue(deep.favoured, "no weld at the floor, and as little as any")

    def test_a_box_that_cannot_be_closed(self) -> None:
        """Under the smallest closed box a wrapper has no last bend; two U's are open, and can be made."""
        found = compared(BOX, {"brake": {"smallest_closed_box_mm": 360}})
        for title, scheme in found.items():
            self.assertEqual(bool(scheme.stops), title.startswith("wrapper") or title == "tray and lid", title)
        self.assertIn("closes from 360 mm", found["wrapper lengthwise, two pans"].stops[0].plain())

    def test_ends_of_another_sheet(self) -> None:
        """What is bent up from the floor is of its sheet."""
        found = compared(BOX | {"ends_thickness_mm": 4.0})
        for title, scheme in found.items():
            self.assertEqual("ends are" in str(scheme.stops), False)
            self.assertEqual(bool(scheme.stops), title.startswith(("two U", "tray")), title)

    def test_in_money_where_it_is_priced(self) -> None:
        """9 a kilogram, 30 a metre, 40 an hour of bends of 5 min: by hand for two U's; the least of all is favoured."""
        found = compared(BOX, {"prices": PRICED | {"minutes_per_bend": 5.0}})
        two = found["two U’s, right and left up from the floor"]
        assert two.mass_kg is not None and two.minutes is not None and two.money is not None
        self.assertAlmostEqual(two.minutes, 3.8 * 30 + 4 * 5)
        self.assertAlmostEqual(two.money, 9 * two.mass_kg + 30 * 3.8 + 4 * 5 / 60 * 40)
        least = min(one.money or 1e9 for one in found.values() if not one.stops)
        (best,) = [one for one in found.values() if one.favoured]
        self.assertLessEqual((best.money or 0) / least, 1.01)
        assert best.why is not None
        self.assertIn("costs least", best.why.plain())

    def test_profiles(self) -> None:
        """A step: a wrapper anywhere, in two pieces, or six plates and two ends."""
        corners = [{"across_mm": a, "up_mm": u} for a, u in STEP]
        shell = {"kind": "profile", "wrap_axis": "y", "run_mm": 500.0, "thickness_mm": 2.0, "bend_radius_mm": 4.0}
        found = compared(shell | {"corners": corners})
        self.assertEqual(found["wrapper closed at the lid, two flat ends"].bends, 6)
        self.assertEqual(found["wrapper in two pieces, two flat ends"].bends, 4)
        self.assertEqual((found["flat plates"].bends, found["flat plates"].parts), (0, 8))
        around = 2 * (900 + 380)
        self.assertAlmostEqual(found["flat plates"].weld_m * 1000, 6 * 500 + 2 * around, delta=1)

    def test_rolled(self) -> None:
        """A shell that is rolled has a seam along it and one round each end; dished ends are set beside flat ones."""
        drum = {"kind": "cylinder", "diameter_mm": 300.0, "run_mm": 500.0, "thickness_mm": 2.0}
        flat = compared(drum)
        self.assertEqual(list(flat), ["rolled shell, two flat ends"])
        found = compared(drum | {"dish_mm": 40.0})
        self.assertEqual([one.chosen for one in found.values()], [True, False])
        self.assertAlmostEqual(found["rolled shell, two flat ends"].weld_m, flat["rolled shell, two flat ends"].weld_m)
        self.assertAlmostEqual(flat["rolled shell, two flat ends"].weld_m, 0.5 + 2 * pi * 0.296, delta=0.02)
        self.assertFalse(any(one.favoured for one in flat.values()), "there is nothing to compare it with")
        self.assertEqual(len([one for one in found.values() if one.favoured]), 1)


class FoldsUp(TestCase):
    """Whichever way it is made."""

    @given(shells(), st.sampled_from(get_args(BoxScheme)), st.sampled_from(["lid", "floor", "side", "corner butt"]))
    @settings(max_examples=60, deadline=None)
    def test_every_scheme(self, shell: BoxShell, scheme: BoxScheme, seam: Any) -> None:
        """No place of any part lies off the outside as drawn; and what it holds is the sum by hand."""
        design = Design(shell=shell, sheet=SheetScheme(scheme=scheme, seam=seam))
        tank = TankAnalysis(Asked(design))
        for piece in tank[FOLD_PROOF].pieces if shell.bend_radius_mm else ():
            self.assertLess(piece.off_mm, 1e-3, f"{piece.name} of {scheme}, {seam}")
        making = design.sheet.making
        by_hand = box_solid(shell, 20.0, making).volume_mm3
        self.assertAlmostEqual(build(shell, making).brimful_l * 1e6 / by_hand, 1, delta=5e-6)

    def test_what_is_bent_holds_more_pressure(self) -> None:
        """A floor bent up at both ends has two edges that can't turn; six plates have none."""
        joints = {}
        for scheme in get_args(BoxScheme):
            design = Design(shell=box(bend_radius_mm=6.0), sheet=SheetScheme(scheme=scheme))
            panels = {panel.name: panel for panel in evaluate(design).shell.panels}
            joints[scheme] = [[edge.joint for edge in panels[name].edges] for name in ("floor", "rear and front")]
        bend, weld, flange = "bend", "weld on one side", "flange"
        self.assertEqual(joints["wrapper and pans"], [[weld, weld, bend, bend], [flange] * 4])
        self.assertEqual(joints["wrapper and flat ends"], [[weld, weld, bend, bend], [weld] * 4])
        self.assertEqual(joints["two U's"], [[bend, bend, weld, weld], [weld, weld, bend, weld]])
        self.assertEqual(joints["tray and lid"], [[bend] * 4, [weld, weld, bend, weld]])
        self.assertEqual(joints["flat plates"], [[weld] * 4, [weld] * 4])

    def test_masses_are_those_of_the_flats(self) -> None:
        """Area times thickness times density, part by part."""
        for scheme in get_args(BoxScheme):
            made = TankAnalysis(Asked(Design(shell=box(bend_radius_mm=6.0), sheet=SheetScheme(scheme=scheme))))[SHEET]
            kg = sum(part.area_mm2 * part.thickness_mm * part.quantity for part in made.parts) * 2680e-9
            self.assertAlmostEqual(made.mass_kg or 0, kg)


class Heat(TestCase):
    """How near welds come to what is hot."""

    def test_by_hand(self) -> None:
        """A box 100 off a silencer beside its right side: welded corners are 100 off, bent ones further."""
        shell = {"length_mm": 600, "width_mm": 400, "height_mm": 300, "thickness_mm": 3, "bend_radius_mm": 4.5}
        shell |= {"x_mm": 50, "y_mm": 150, "z_mm": 20}
        silencer = {"kind": "box", "id": "s", "name": "silencer", "x_mm": 200, "y_mm": 0, "z_mm": 120}
        silencer |= {"length_mm": 200, "width_mm": 50, "height_mm": 100, "clearance": {"kind": "exhaust, shielded"}}
        bay = {"length_mm": 900, "width_mm": 700, "height_mm": 500, "keep_outs": [silencer]}
        document = {"bay": bay, "shell": shell, "sheet": {"scheme": "flat plates"}}
        found = {one.title: one.heat_mm for one in schemes(TankAnalysis(Asked(read_design(json.dumps(document)))))}
        # Plates: seams along the right side's lower and upper edges, 100 across and 100 below or above.
        self.assertAlmostEqual(found["six flat plates"] or 0, hypot(100, 100), delta=0.2)
        # Pans: their seams stand at the ends, 150 along beyond the silencer, and 100 across.
        self.assertAlmostEqual(found["wrapper lengthwise, two pans"] or 0, hypot(150, 100), delta=0.2)
        del bay["keep_outs"]
        cold = schemes(TankAnalysis(Asked(read_design(json.dumps(document)))))
        self.assertEqual({one.heat_mm for one in cold}, {None})
