"""Several brakes, what is sent out, the shop's own strips, and what cuts each part."""

import json
from math import pi
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Brake, Cutter, TestStrip, Workshop
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.formats.document import read_design
from keel.reference.test_strip import k_from_strip
from keel.studies.cost.work import bends_of
from keel.studies.sheet.bending import BENDINGS, Bending
from keel.studies.sheet.bends import bend_deduction, flat_length
from keel.studies.sheet.cutting import CUTTING, Cutting
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.studies.sheet.springback import left_of_bent, yield_of_strip
from keel.studies.sheet.unfold import SHEET
from keel.tests.test_let_in import STEP, WELL, R, T, tank
from keel.tests.test_pots import POT

HOLE = {"at_mm": 200, "up_mm": 150, "diameter_mm": 60}
PANS = tank(scheme="wrapper and pans").design


def shop(**settings: Any) -> Workshop:
    """A workshop with some settings."""
    return Workshop.model_validate(settings)


def bent(design: Design, workshop: Workshop) -> dict[str, Bending]:
    """How each part is bent."""
    return {part.name: part for part in TankAnalysis(Asked(design, workshop))[BENDINGS].parts}


def codes(design: Design, workshop: Workshop) -> set[str]:
    """Findings by code."""
    return {finding.code for finding in evaluate(design, workshop).findings}


class Brakes(TestCase):
    """A box of 600 × 400 × 300: its bends are 634 long over the lips."""

    def test_the_first_that_can(self) -> None:
        """What the usual brake is too short for goes to another; without one there is a stop that names the usual."""
        short, long = {"name": "short", "width_mm": 500.0}, {"name": "long", "width_mm": 1000.0}
        self.assertIn("brake.width", codes(PANS, shop(brake=short)))
        both = shop(brake=short, more_brakes=[long])
        self.assertNotIn("brake.width", codes(PANS, both))
        self.assertEqual({one.machine for one in bent(PANS, both).values()}, {"long", "short"})
        self.assertEqual(bent(PANS, both)["wrapper"].machine, "long")
        self.assertEqual(bent(PANS, shop(brake=long, more_brakes=[short]))["wrapper"].machine, "long")

    def test_what_is_bent_of_a_feature(self) -> None:
        """A folded well is judged by its walls and bends, on the brake that takes it; else it is welded of plates."""
        deep = tank(WELL | {"deep_mm": 120, "folded": True}, scheme="flat plates").design
        found = {one.code: one for one in evaluate(deep, shop(brake={"width_mm": 150.0})).findings}
        self.assertEqual(found["brake.deep"].subject, "let-in-w-folded")
        self.assertAlmostEqual(found["brake.feature"].title.values["bend_mm"], 166 - 2 * (R + T), places=6)
        (remedy,) = found["brake.deep"].remedies
        welded = apply(deep, remedy.patch)
        self.assertFalse({"brake.deep", "brake.feature"} & codes(welded, shop(brake={"width_mm": 150.0})))
        other = {"name": "pan brake", "fingers_mm": 200.0}
        able = shop(brake={"width_mm": 150.0}, more_brakes=[other])
        self.assertFalse({"brake.deep", "brake.feature"} & codes(deep, able))
        self.assertEqual(bent(deep, able)["let-in-w-folded"].machine, "pan brake")
        parts, figures = ((one[SHEET], one[BARE_SOLIDS]) for one in (tank(WELL | {"folded": True}), tank(WELL)))
        self.assertEqual(bends_of(*parts) - bends_of(*figures), 4)

    def test_edges_too_short_and_sheet_too_thick_of_a_feature(self) -> None:
        """A shallow folded well, a roof step of 10, a plate's short flange, a well of thick sheet: each is a stop."""
        plate = {"kind": "baffle", "id": "b", "name": "plate", "at_mm": 300, "flange_mm": 9, "holes": [HOLE]}
        for feature, name, leg in (
            (WELL | {"deep_mm": 9, "folded": True}, "let-in-w-folded", 9 + T),
            (STEP | {"drop_mm": 10, "folded": True}, "let-in-t-folded", 10),
            (plate, "inside-b", 9),
        ):
            design, workshop = tank(feature).design, shop(brake={"shortest_flange_mm": 14.0})
            (stop,) = (one for one in evaluate(design, workshop).findings if one.code == "brake.leg")
            self.assertEqual(stop.subject, name)
            self.assertAlmostEqual(stop.title.values["leg_mm"], leg, delta=T + 0.01)
            (remedy,) = stop.remedies
            self.assertNotIn("brake.leg", codes(apply(design, remedy.patch), workshop))
        for flange, sent, severity in ((13.0, (), "stop"), (13.0, ("end-pan",), "caution"), (14.0, (), None)):
            sheet = {"scheme": "wrapper and pans", "flange_mm": flange, "sent_out": list(sent)}
            found = evaluate(tank(sheet=sheet).design, shop(brake={"shortest_flange_mm": 14.0})).findings
            self.assertEqual(next((one.severity for one in found if one.code == "pan.flange"), None), severity)
        thick = tank(WELL | {"folded": True}, shell={"features_thickness_mm": 6.0}).design
        self.assertIn("brake.thick", codes(thick, shop()))
        self.assertNotIn("brake.thick", codes(tank(WELL, shell={"features_thickness_mm": 6.0}).design, shop()))

    def test_a_pot_too_small_for_the_brake(self) -> None:
        """It is rolled, or bent elsewhere; the ways to make the shell aren't crossed out for its sake."""
        small = tank(POT | {"long_mm": 120, "wide_mm": 110, "doors": []}, scheme="flat plates").design
        workshop = shop(brake={"smallest_closed_box_mm": 180.0})
        seen = evaluate(small, workshop)
        stop = next(one for one in seen.findings if one.code == "brake.order")
        self.assertEqual((stop.subject, len(stop.remedies)), ("inside-pot", 2))
        for remedy in stop.remedies:
            self.assertNotIn("brake.order", codes(apply(small, remedy.patch), workshop))
        self.assertTrue(any(not scheme.stops for scheme in seen.sheet.schemes or ()))

    def test_each_size_counts(self) -> None:
        """Thickness by yield, sharpest angle, deepest pan, smallest closed box: all on the same machine."""
        good = {"name": "good", "width_mm": 1250.0}
        for limit, code in (
            ({"thickest_steel_mm": 2.0}, "brake.thick"),
            ({"most_angle_deg": 80.0}, "brake.angle"),
            ({"fingers_mm": 15.0}, "brake.deep"),
            ({"smallest_closed_box_mm": 400.0}, "brake.closed_box"),
        ):
            poor = good | limit | {"name": "poor"}
            self.assertIn(code, codes(PANS, shop(brake=poor)), limit)
            self.assertNotIn(code, codes(PANS, shop(brake=poor, more_brakes=[good])), limit)

    def test_sent_out(self) -> None:
        """Of a part that somebody else makes nothing is asked of this shop's brakes; the others are still judged."""
        poor = shop(brake={"width_mm": 500.0})
        out = apply(PANS, {"sheet": {"sent_out": ["wrapper"]}})
        self.assertNotIn("brake.width", codes(out, poor))
        self.assertEqual(set(bent(out, poor)), {"end-pan"})
        self.assertIn("brake.deep", codes(out, shop(brake={"width_mm": 500.0, "fingers_mm": 15.0})))
        self.assertNotIn("brake.closed_box", codes(out, shop(brake={"smallest_closed_box_mm": 400.0})))

    def test_a_beam_as_measured(self) -> None:
        """A thin beam closes what a thick one of the usual shape doesn't; its corners come before the smallest box."""
        corners = [{"across_mm": x, "up_mm": y} for x, y in ((0.0, 0.0), (-5.0, 120.0), (-20.0, 120.0), (-20.0, 0.0))]
        usual = Brake(smallest_closed_box_mm=700)
        thin = usual.model_copy(update={"beam": Brake.model_validate({"beam": corners}).beam})
        self.assertIsNotNone(bent(PANS, Workshop(brake=usual))["wrapper"].stuck)
        self.assertIsNone(bent(PANS, Workshop(brake=thin))["wrapper"].stuck)

    def test_what_cannot_be(self) -> None:
        """Impossible machines are refused by field, value and limit."""
        for wrong, field in (
            ({"width_mm": 100.0, "shortest_flange_mm": 120.0}, "shortest_flange_mm"),
            ({"width_mm": 0.0}, "width_mm"),
            ({"most_angle_deg": 190.0}, "most_angle_deg"),
            ({"beam": [{"across_mm": 0.0, "up_mm": 0.0}, {"across_mm": 5.0, "up_mm": 9.0}]}, "beam"),
            ({"beam": [{"across_mm": float(n), "up_mm": 0.0} for n in range(4)]}, "beam"),
        ):
            with self.assertRaises(ValidationError) as refused:
                Brake.model_validate(wrong)
            (error,) = refused.exception.errors()
            self.assertEqual((error.get("ctx", {}).get("field") or error["loc"][-1]), field)


class Strips(TestCase):
    """A strip of 3 mm 5052: 200 flat, bent once by 90° round 4.5."""

    def strip(self, **more: Any) -> dict[str, Any]:
        """With legs that make K 0.37."""
        deduction = bend_deduction(90, R, T, 0.37)
        leg = (200 + deduction) / 2
        made = {"metal": "5052-H32", "thickness_mm": T, "radius_mm": R, "flat_mm": 200.0}
        return made | {"leg_a_mm": leg, "leg_b_mm": leg} | more

    def test_k_of_the_strip_decides_the_flat(self) -> None:
        """The wrapper is its legs less the strip's own deduction at four bends; other sheets keep the table's."""
        with_strip = shop(strips=[self.strip()])
        self.assertAlmostEqual(with_strip.k_for("5052-H32", T), 0.37)
        self.assertEqual(with_strip.k_for("5052-H32", 2.0), 0.40)
        self.assertEqual(with_strip.k_for("mild steel", T), 0.42)
        legs = [200.0, 300.0, 400.0, 300.0, 200.0]
        for workshop, k in ((with_strip, 0.37), (Workshop(), 0.40)):
            wrapper = TankAnalysis(Asked(PANS, workshop))[FLATS].parts[0]
            expected = flat_length(legs, [bend_deduction(90, R, T, k)] * 4)
            self.assertAlmostEqual(max(wrapper.length_mm, wrapper.width_mm), expected, places=6)

    def test_springback_of_the_strip(self) -> None:
        """On the same tool by its share; on another radius by the yield that it shows."""
        same = bent(PANS, shop(strips=[self.strip(bent_to_deg=93.0)]))["wrapper"].steps[0]
        self.assertAlmostEqual(same.bend_to_deg or 0, 93.0)
        other = self.strip(bent_to_deg=94.0) | {"radius_mm": 2.0}
        leg = (200 + bend_deduction(90, 2.0, T, 0.37)) / 2
        workshop = shop(strips=[other | {"leg_a_mm": leg, "leg_b_mm": leg}])
        shown = yield_of_strip(90 / 94, 2.0 + 0.37 * T, T, 70)
        left = left_of_bent(R + 0.37 * T, T, 70, shown)
        self.assertAlmostEqual(bent(PANS, workshop)["wrapper"].steps[0].bend_to_deg or 0, 90 / left, places=6)

    def test_strips_that_cannot_be(self) -> None:
        """K outside its range, more left than was bent, no radius: by field and limit."""
        self.assertAlmostEqual(TestStrip.model_validate(self.strip()).k, 0.37)
        for wrong, field in (
            ({"leg_a_mm": 110.0}, "leg_a_mm"),
            ({"bent_to_deg": 88.0}, "bent_to_deg"),
            ({"radius_mm": 0.0}, "radius_mm"),
        ):
            with self.assertRaises(ValidationError) as refused:
                TestStrip.model_validate(self.strip() | wrong)
            (error,) = refused.exception.errors()
            self.assertEqual((error.get("ctx", {}).get("field") or error["loc"][-1]), field)
        self.assertAlmostEqual(k_from_strip(200, (102.0, 102.0), 90, 3, 4.5), ((15 - 4) / (pi / 2) - 4.5) / 3)


class Means(TestCase):
    """Of flat plates, one with a well's mouth, one with a round hole."""

    def cut(self, *cutters: dict[str, Any]) -> dict[str, Cutting]:
        """What cuts each part."""
        port = {
            "id": "p",
            "name": "p",
            "role": "spare",
            "x_mm": 480,
            "y_mm": 90,
            "seat": {"hole_mm": 40, "outer_mm": 70},
        }
        design = tank(WELL, ports=[port]).design
        return {one.name: one for one in TankAnalysis(Asked(design, shop(cutters=list(cutters))))[CUTTING]}

    def test_by_outline_thickness_and_length(self) -> None:
        """A shear cuts what has straight edges all round, as long and as thick as it takes; a nibbler the rest."""
        shear = {"name": "shear", "cuts": "straight edges", "thickest_steel_mm": 3.0, "longest_mm": 500.0, "loud": True}
        nibbler = {"name": "nibbler", "thickest_steel_mm": 3.0}
        found = self.cut(shear, nibbler)
        self.assertEqual(found["let-in-w-bottom"].by, ["shear", "nibbler"])
        lid = next(one for name, one in found.items() if one.holes_by)
        self.assertEqual((lid.by, lid.holes_by, lid.loud), (["nibbler"], ["nibbler"], False))
        self.assertEqual(next(one.by for one in self.cut(shear | {"thickest_steel_mm": 2.0}).values()), [])
        self.assertTrue(self.cut(shear)["let-in-w-bottom"].loud)
        self.assertEqual(self.cut(), {})

    def test_holes(self) -> None:
        """By a cutter of that size; without one by what cuts any outline; else it is said which is left."""
        punch = {"name": "punch", "cuts": "round holes", "from_mm": 20.0, "to_mm": 60.0, "thickest_steel_mm": 3.0}
        nibbler = {"name": "nibbler"}

        def lid(*means: dict[str, Any]) -> Cutting:
            return next(one for one in self.cut(*means).values() if one.holes_by or one.holes_left_mm)

        self.assertEqual(lid(nibbler, punch).holes_by, ["punch"])
        self.assertEqual(lid(punch | {"to_mm": 30.0}).holes_left_mm, [40])
        self.assertEqual(lid(nibbler, punch | {"from_mm": 41.0}).holes_by, ["nibbler"])
        with self.assertRaises(ValidationError):
            Cutter.model_validate(punch | {"to_mm": 10.0})

    def test_nothing_cuts_it(self) -> None:
        """A part that none of the listed means cuts is remarked on; one that is sent out isn't."""
        design = tank(WELL).design
        poor = shop(cutters=[{"name": "snips", "cuts": "straight edges", "thickest_steel_mm": 1.0}])
        self.assertIn("cut.none", codes(design, poor))
        names = [part.name for part in TankAnalysis(Asked(design, poor))[FLATS].parts]
        self.assertNotIn("cut.none", codes(apply(design, {"sheet": {"sent_out": names}}), poor))


class More(TestCase):
    """What more machines do."""

    @settings(max_examples=12, deadline=None)
    @given(st.lists(st.tuples(st.integers(200, 1300), st.integers(10, 60), st.integers(100, 500)), max_size=3))
    def test_another_brake_never_stops_anything(self, others: list[tuple[int, int, int]]) -> None:
        """Whatever is added, no stop comes up that wasn't there, and no part that could be bent no longer can."""
        usual = {"width_mm": 700.0, "fingers_mm": 25.0, "smallest_closed_box_mm": 250.0}
        more = [
            {"name": f"b{n}", "width_mm": float(w), "fingers_mm": float(f), "smallest_closed_box_mm": float(c)}
            for n, (w, f, c) in enumerate(others)
        ]
        alone, many = shop(brake=usual), shop(brake=usual, more_brakes=more)
        stops = [{f.key for f in evaluate(PANS, one).findings if f.severity == "stop"} for one in (alone, many)]
        self.assertLessEqual(stops[1], stops[0])
        for name, part in bent(PANS, alone).items():
            if part.stuck is None:
                self.assertIsNone(bent(PANS, many)[name].stuck)

    def test_a_split_is_offered_with_its_price(self) -> None:
        """A wedge that no order closes is parted at its corners; each offer leaves nothing stuck and has a price."""
        corners = [(0, 0), (560, 0), (560, 100), (0, 220)]
        shell = {"kind": "profile", "shape": "wedge", "wrap_axis": "y", "run_mm": 400, "thickness_mm": 2}
        shell |= {"bend_radius_mm": 4, "corners": [{"across_mm": a, "up_mm": b} for a, b in corners]}
        design = read_design(json.dumps({"shell": shell}))
        prices = {
            "weld_per_m": 40,
            "hours_per_m": 0.7,
            "per_hour": 38,
            "minutes_per_bend": 6,
            "metal_per_kg": {"5052-H32": 7},
        }
        poor = shop(brake={"smallest_closed_box_mm": 90.0}, prices=prices)
        (stuck,) = [f for f in evaluate(design, poor).findings if f.code == "brake.order"]
        self.assertGreaterEqual(len(stuck.remedies), 2)
        for remedy in stuck.remedies:
            after = apply(design, remedy.patch)
            self.assertNotIn("brake.order", codes(after, poor))
            assert remedy.change is not None
            self.assertIsNotNone(remedy.change.money)
            welded = sum(corner["joint"] == "weld" for corner in remedy.patch["shell"]["corners"])
            # One welded corner takes the place of the closing seam, a second is a seam more.
            self.assertAlmostEqual(remedy.change.weld_m, 0.4 * (welded - 1), places=6)
