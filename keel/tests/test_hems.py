"""Hems: how long their sheet is, where the finished edge comes to lie, and what bends them."""

from math import pi
from unittest import TestCase

from manifold3d import Manifold, OpType

from keel.analysis.tank import TankAnalysis
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.studies.sheet.bending import BENDINGS
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.hems import is_hem
from keel.studies.sheet.parts import FlatPart
from keel.tests.test_let_in import metal, tank
from keel.tests.test_pots import POT

PLATE = {"kind": "baffle", "id": "b", "name": "baffle", "at_mm": 200, "corner_mm": 0, "top_gap_mm": 80, "hem_mm": 15}
PLATE |= {"notches": [{"at_mm": 200, "wide_mm": 60, "high_mm": 30}]}


def part_of(made: TankAnalysis) -> FlatPart:
    """The one that stands inside."""
    (part,) = (one for one in made[FLATS].parts if one.feature)
    return part


class Lengths(TestCase):
    """3 mm of 5052: an inside radius of 3, so 6 of each leg are round, over half a turn of π (3 + 0.4 · 3)."""

    def test_a_baffles_upper_edge(self) -> None:
        """Folded up the finished edge is where a plain one's is; the sheet is longer by round and leg."""
        plain, hemmed = (part_of(tank(PLATE | {"hem_mm": deep})) for deep in (0, 15))
        extra = pi * (3 + 0.4 * 3) + 15 - 2 * 6
        self.assertAlmostEqual(hemmed.width_mm - plain.width_mm, extra, places=2)
        tops = [Manifold.batch_boolean(metal(part), OpType.Add).bounding_box() for part in (plain, hemmed)]
        self.assertAlmostEqual(tops[1][5], tops[0][5], delta=0.05)
        self.assertAlmostEqual(tops[1][0], tops[0][0], places=6)

    def test_a_pots_rim(self) -> None:
        """A hem a side, none over the corners; these are still bent from the free ends inward, hems first."""
        made = tank(POT | {"hem_mm": 15})
        part = part_of(made)
        self.assertEqual([is_hem(bend) for bend in sorted(part.bends, key=lambda b: b.order)], [True] * 4 + [False] * 3)
        self.assertAlmostEqual(part.width_mm, 150 + pi * 4.2 + 15 - 12, places=2)
        hems = [bend for bend in part.bends if is_hem(bend)]
        for corner in (bend for bend in part.bends if not is_hem(bend)):
            self.assertAlmostEqual(max(corner.start[1], corner.end[1]), 150 - 6, places=6)
            self.assertFalse(any(hem.start[0] - 7 < corner.start[0] < hem.end[0] + 7 for hem in hems))
        (bent,) = (one for one in made[BENDINGS].parts if one.name == part.name)
        self.assertEqual([step.bend_to_deg == 180 for step in bent.steps], [True] * 4 + [False] * 3)
        self.assertTrue(bent.orders)

    def test_too_short(self) -> None:
        """A hem that is all round, or shorter than the brake bends, is a stop; one as long as it asks isn't."""
        for feature in (PLATE, POT):
            design = tank(feature | {"hem_mm": 8.0}).design
            stop = next(one for one in evaluate(design).findings if one.code == "hem.short")
            self.assertEqual(stop.title.values["deep_mm"], 8.0)
            (remedy,) = stop.remedies
            self.assertNotIn("hem.short", {one.code for one in evaluate(apply(design, remedy.patch)).findings})

    def test_none_where_the_edge_is_welded(self) -> None:
        """Without room over it a baffle has no free edge: nothing is turned."""
        part = part_of(tank(PLATE | {"top_gap_mm": 0}))
        self.assertFalse(any(is_hem(bend) for bend in part.bends))
