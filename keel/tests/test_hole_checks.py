"""Holes judged before they are cut."""

from math import pi
from typing import Any
from unittest import TestCase

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.studies.sheet.hole_checks import HOLE_CHECKS, HoleCheck
from keel.tests.test_let_in import WELL, R, T, tank


def port(name: str, x: float, y: float, hole: float = 40, ring: float = 70) -> dict[str, Any]:
    """A boss on the roof."""
    seat = {"hole_mm": hole, "outer_mm": ring}
    return {"id": name, "name": name, "role": "spare", "x_mm": x, "y_mm": y, "seat": seat}


def checks(of: TankAnalysis) -> dict[str, HoleCheck]:
    """By port."""
    return {one.port: one for one in of[HOLE_CHECKS]}


def codes(of: TankAnalysis) -> set[tuple[str, str]]:
    """Findings on holes."""
    return {(one.code, one.subject) for one in evaluate(of.design).findings if one.code.startswith("hole.")}


class Gaps(TestCase):
    """A box of 600 × 400 × 300; its lid is half of the wrapper either side of the seam, y = 200."""

    def test_from_bends_edges_and_each_other(self) -> None:
        """By hand: the bend's zone begins where the flat of the lid ends, the seam is an edge of the flat."""
        made = tank(scheme="wrapper and pans", ports=[port("a", 150, 60), port("b", 250, 60, hole=30)])
        found = checks(made)
        self.assertAlmostEqual(found["a"].bend_mm or 0, 60 - (R + T) - 20, delta=0.01)
        self.assertAlmostEqual(found["a"].edge_mm, 140 - 20, delta=0.01)
        self.assertAlmostEqual(found["a"].other_mm or 0, 100 - 20 - 15, delta=0.01)
        self.assertEqual(codes(made), set())

    def test_beside_a_bend(self) -> None:
        """Nearer to the zone than twice the sheet a hole is drawn oval; one in it says so with no gap at all."""
        near = tank(scheme="wrapper and pans", ports=[port("a", 150, R + T + 20 + 2 * T - 0.5)])
        self.assertIn(("hole.bend", "a"), codes(near))
        clear = tank(scheme="wrapper and pans", ports=[port("a", 150, R + T + 20 + 2 * T + 0.5)])
        self.assertNotIn(("hole.bend", "a"), codes(clear))
        over = evaluate(tank(scheme="wrapper and pans", ports=[port("a", 150, 10)]).design).findings
        self.assertEqual([one.title.values["gap_mm"] for one in over if one.code == "hole.bend"], [0])

    def test_beside_a_seam_and_in_each_other(self) -> None:
        """Half way up a side the wrapper closes: its edge is a seam; two holes that meet leave nothing to weld to."""
        sheet = {"scheme": "wrapper and pans", "seam": "side"}
        found: dict[float, set[str]] = {}
        for up in (150.0, 180.0, 198.0):
            at = [port(face, 150, 0) | {"face": face, "z_mm": up} for face in ("left", "right")]
            found[up] = {code for code, _ in codes(tank(ports=at, sheet=sheet))}
        self.assertEqual(found, {150.0: {"hole.runs_out"}, 180.0: {"hole.edge"}, 198.0: set()})
        both = tank(ports=[port("a", 300, 200), port("b", 330, 200)])
        self.assertEqual(codes(both), {("hole.runs_out", "a"), ("hole.runs_out", "b")})
        self.assertAlmostEqual(checks(tank(WELL, ports=[port("a", 160, 150)]))["a"].edge_mm, 40 - T - 20, delta=0.01)

    def test_a_patch(self) -> None:
        """A disc over the hole and the land round it: 40 and twice 12; its seam at the shop's own times and prices."""
        prices = {"weld_per_m": 50, "hours_per_m": 1.5}
        design = tank(ports=[port("a", 300, 200)]).design
        workshop = Workshop.model_validate({"prices": prices})
        (found,) = TankAnalysis(Asked(design, workshop))[HOLE_CHECKS]
        self.assertEqual(found.patch_mm, 64)
        self.assertAlmostEqual(found.patch_weld_mm, pi * 64)
        self.assertAlmostEqual(found.patch_minutes or 0, 0.064 * pi * 90)
        self.assertAlmostEqual(found.patch_money or 0, 0.064 * pi * 50)
        (unpriced,) = TankAnalysis(Asked(design, Workshop()))[HOLE_CHECKS]
        self.assertIsNone(unpriced.patch_money)
