"""What came out otherwise than planned, and what has to follow."""

import json
from math import atan2, degrees, hypot, radians, sin
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.sheet import SheetScheme
from keel.design.shell import BoxShell
from keel.evaluation import evaluate
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.stations.sheet.as_built import Departure, PartChange, departures, parts_changed
from keel.studies.cost.figures import FIGURES
from keel.studies.sheet.as_bent import as_bent
from keel.tests.samples import STEP
from keel.tests.test_let_in import SIZE, WELL, R, T

PORT = {"id": "p", "name": "pump", "role": "pickup", "x_mm": 280, "y_mm": 90, "seat": {"hole_mm": 40, "outer_mm": 70}}


def built(*entries: tuple[str, float], cut: tuple[str, ...] = (), **shell: Any) -> Design:
    """A box of 600 × 400 × 300 but for what is said, with sizes that were planned otherwise."""
    log = [{"id": f"b{n}", "of": of, "name": of, "planned_mm": mm} for n, (of, mm) in enumerate(entries)]
    sheet = {"scheme": "wrapper and pans", "as_built": log, "cut": list(cut)}
    body = SIZE | {"thickness_mm": T, "bend_radius_mm": R, "features": [WELL]} | shell
    return read_design(json.dumps({"shell": body, "sheet": sheet, "ports": [PORT]}))


def seen(design: Design) -> tuple[list[Departure], dict[str, PartChange]]:
    """Departures, and parts that change."""
    tank = TankAnalysis(Asked(design))
    return departures(tank), {part.name: part for part in parts_changed(tank)}


class Sides(TestCase):
    """A side that came out longer."""

    def test_a_longer_side(self) -> None:
        """592 where 600 were planned: the wrapper is shorter along its axis, the pans stay as they are."""
        (one,), parts = seen(built(("shell.length_mm", 600.0), length_mm=592.0))
        self.assertEqual((one.planned_mm, one.built_mm), (600.0, 592.0))
        self.assertAlmostEqual(one.brimful_l or 0, -8 * 394 * 294 / 1e6, delta=0.02)
        self.assertEqual(list(parts), ["wrapper"])
        was, now = parts["wrapper"].was_mm or (0, 0), parts["wrapper"].is_mm or (0, 0)
        self.assertAlmostEqual(abs(min(was) - min(now)), 8.0, places=6)
        self.assertFalse(parts["wrapper"].moved)

    @settings(max_examples=20, deadline=None)
    @given(st.sampled_from(("length_mm", "width_mm", "height_mm")), st.floats(-20, 20))
    def test_litres_are_those_of_the_two_tanks(self, field: str, off: float) -> None:
        """Planned and built worked out apart differ by what is said; built as planned nothing changes."""
        design = built((f"shell.{field}", SIZE[field] + off))
        (one,), parts = seen(design)
        planned = built(**{field: SIZE[field] + off})
        apart = TankAnalysis(Asked(design))[FIGURES].brimful_l - TankAnalysis(Asked(planned))[FIGURES].brimful_l
        self.assertAlmostEqual(one.brimful_l or 0.0, apart, places=9)
        if abs(off) < 0.001:
            self.assertEqual(parts, {})
        elif abs(off) > 0.2:
            self.assertIn("wrapper", parts)


class Openings(TestCase):
    """A hole or a well that came out elsewhere or larger."""

    def test_a_hole(self) -> None:
        """Cut 44 where 40 were planned: the part that has it is another, of the same size, and no other is."""
        design = built(("ports.p.seat.hole_mm", 36.0))
        (one,), parts = seen(design)
        self.assertEqual((one.built_mm, one.brimful_l), (40.0, 0.0))
        self.assertEqual({name: part.moved for name, part in parts.items()}, {"wrapper": True})

    def test_a_well_let_in_too_deep(self) -> None:
        """Its own plates change, and the litres; the wrapper's opening doesn't."""
        (one,), parts = seen(built(("features.w.deep_mm", 50.0)))
        self.assertAlmostEqual(one.brimful_l or 0, -10 * 166 * 126 / 1e6, delta=1e-6)
        sides = {"let-in-w-rear-side", "let-in-w-front-side", "let-in-w-right-side", "let-in-w-left-side"}
        self.assertEqual(set(parts), sides)

    def test_what_is_cut_already(self) -> None:
        """A stop names the part; cut parts that stay as they were don't come up."""
        design = built(("shell.length_mm", 600.0), length_mm=592.0, cut=("wrapper", "end-pan"))
        stops = [f.subject for f in evaluate(design).findings if f.code == "built.cut"]
        self.assertEqual(stops, ["wrapper"])
        fine = built(("shell.length_mm", 600.0), length_mm=592.0, cut=("end-pan",))
        self.assertNotIn("built.cut", {f.code for f in evaluate(fine).findings})


class What(TestCase):
    """What can be typed."""

    def test_paths(self) -> None:
        """Sizes only; one that is gone meanwhile says nothing; others are refused by field."""
        (gone,), parts = seen(built(("features.gone.deep_mm", 50.0)))
        self.assertEqual((gone.built_mm, gone.brimful_l, parts), (None, None, {}))
        (broken,), parts = seen(built(("shell.height_mm", 2.0)))
        self.assertEqual((broken.brimful_l, parts), (None, {}))
        for path in ("brief.target_l", "shell.metal", "shell.__class___mm.x", "ports.p.name"):
            with self.assertRaises(UnreadableDesignError) as refused:
                built((path, 1.0))
            self.assertIn("sheet.as_built.0.of", str(refused.exception))

    def test_a_profiles_corner(self) -> None:
        """An angle that came out wrong is typed as where its corner lies."""
        corners = [(0, 0), (500, 0), (500, 206), (0, 300)]
        shell = {"kind": "profile", "shape": "wedge", "wrap_axis": "y", "run_mm": 400, "thickness_mm": 2}
        shell |= {"bend_radius_mm": 4, "corners": [{"across_mm": a, "up_mm": b} for a, b in corners]}
        log = [{"id": "b", "of": "shell.corners.2.up_mm", "name": "front edge", "planned_mm": 200.0}]
        design = read_design(json.dumps({"shell": shell, "sheet": {"as_built": log}}))
        (one,), parts = seen(design)
        self.assertAlmostEqual(one.brimful_l or 0, 6 / 2 * 496 * 396 / 1e6, delta=0.02)
        self.assertEqual(set(parts), {"wrapper", "end"})


class Bends(TestCase):
    """A bend of the section that came out otherwise."""

    @settings(max_examples=60, deadline=None)
    @given(st.floats(80, 900), st.floats(80, 600), st.integers(0, 3), st.floats(70, 110))
    def test_four_sides(self, wide: float, high: float, corner: int, angle: float) -> None:
        """Pulled together a box leans: every side as long, the angle as measured, the area by its sine."""
        shell = built(width_mm=wide, height_mm=high, features=[]).shell
        assert isinstance(shell, BoxShell)
        answer = as_bent(shell, "lid", corner, angle)
        assert answer.built is not None
        was, now = ([(one.across_mm, one.up_mm) for one in shape.corners] for shape in (answer.planned, answer.built))
        for n in range(4):
            sides = [hypot(p[(n + 1) % 4][0] - p[n][0], p[(n + 1) % 4][1] - p[n][1]) for p in (was, now)]
            self.assertAlmostEqual(sides[1], sides[0], places=4)
        here, before, after = now[corner], now[corner - 1], now[(corner + 1) % 4]
        ways = [atan2(p[1] - here[1], p[0] - here[0]) for p in (before, after)]
        self.assertAlmostEqual(degrees(ways[0] - ways[1]) % 360, angle, places=4)
        self.assertAlmostEqual(Polygon(now).area, wide * high * sin(radians(angle)), delta=0.01 * wide)
        self.assertEqual(now[0], was[0], "the floor stays where it is")

    def test_the_seam_stands_open(self) -> None:
        """By the chord that the bend's distance from it turns through; of six sides nothing more can be said."""
        shell = built(features=[]).shell
        assert isinstance(shell, BoxShell)
        for corner, off in ((0, hypot(200, 300)), (3, 200.0)):
            self.assertAlmostEqual(as_bent(shell, "lid", corner, 88).gap_mm, 2 * off * sin(radians(1)), places=6)
        self.assertEqual(as_bent(shell, "lid", 0, 90).gap_mm, 0.0)
        step = as_bent(STEP, "lid", 1, 85)
        self.assertIsNone(step.built)
        self.assertGreater(step.gap_mm, 10)

    def test_parts_follow(self) -> None:
        """Taken as bent, the ends are no rectangles any more, and the litres go by the sine."""
        shell = built(features=[]).shell
        assert isinstance(shell, BoxShell)
        answer = as_bent(shell, "lid", 0, 84)
        assert answer.built is not None
        plan, now = (TankAnalysis(Asked(Design(shell=one)))[FIGURES] for one in (answer.planned, answer.built))
        self.assertAlmostEqual(now.brimful_l / plan.brimful_l, sin(radians(84)), delta=1e-3)

    def test_a_cut_part_that_is_needed_no_more(self) -> None:
        """Pans that were cut are no parts of a section that leans: a stop, gone where nothing of it was cut."""
        shell = built(features=[]).shell
        assert isinstance(shell, BoxShell)
        leaning = as_bent(shell, "lid", 0, 87).built
        for cut, found in ((("end-pan",), ["end-pan"]), (("wrapper",), [])):
            design = Design(shell=leaning, sheet=SheetScheme(cut=cut))
            self.assertEqual([one.subject for one in evaluate(design).findings if one.code == "built.cut"], found)

    def test_what_has_no_angle(self) -> None:
        """A corner that isn't there, a rolled side, an angle that can't be."""
        shell = built(features=[]).shell
        assert isinstance(shell, BoxShell)
        for corner, angle, field in ((4, 88.0, "corner"), (0, 3.0, "built_deg"), (0, 178.0, "built_deg")):
            with self.assertRaises(GeometryError) as refused:
                as_bent(shell, "lid", corner, angle)
            self.assertEqual(refused.exception.fault.field, field)
        rolled = STEP.model_copy(
            update={"corners": (STEP.corners[0].model_copy(update={"bow_mm": 30}), *STEP.corners[1:])}
        )
        with self.assertRaises(GeometryError):
            as_bent(rolled, "lid", 0, 88)
