"""Baffles that cross are lapped: they slide into each other, and stay whole."""

from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import TankAnalysis
from keel.solid.compartments import compartments
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.unfold import INNER_PARTS
from keel.tests.test_let_in import R, T, metal, tank

ACROSS: dict[str, Any] = {"kind": "baffle", "id": "across", "name": "across", "axis": "x", "at_mm": 300}
ALONG: dict[str, Any] = {"kind": "baffle", "id": "along", "name": "along", "axis": "y", "at_mm": 180}


def inner(of: TankAnalysis) -> dict[str, FlatPart]:
    """Parts that stand inside."""
    return {part.name.removeprefix("inside-"): part for part in of[INNER_PARTS]}


class Crossing(TestCase):
    """Two baffles square to each other."""

    @settings(max_examples=20, deadline=None)
    @given(st.floats(60, 520), st.floats(60, 320), st.floats(0, 60), st.floats(0, 60), st.booleans())
    def test_they_slide_in(self, x: float, y: float, low: float, lower: float, turned: bool) -> None:
        """The later one comes down onto the earlier without touching it; in place neither runs into the other."""
        one = ACROSS | {"at_mm": x, "top_gap_mm": low, "flange_mm": 0}
        two = ALONG | {"at_mm": y, "top_gap_mm": lower, "flange_mm": 0, "thickness_mm": 2}
        made = inner(tank(*((two, one) if turned else (one, two))))
        first, second = (metal(made["across" if one != turned else "along"])[0] for one in (True, False))
        for up in (0.0, 1.0, 40.0, 150.0, 280.0):
            self.assertLess((first ^ second.translate((0, 0, up))).volume(), 1e-6, f"{up:g} mm up")
        self.assertGreater((first ^ second.translate((0, 0, -5.0))).volume(), 5.0, "it doesn't rest on the other")

    def test_slots_and_flanges(self) -> None:
        """Half way up, as wide as the other's sheet and the gap; one's flanges stop where the other's go through."""
        made = inner(tank(ACROSS, ALONG))
        flat, plain = (Polygon(one["across"].outline) for one in (made, inner(tank(ACROSS))))
        reach, gone = (plain.bounds[3] - 293.0) / 2, plain.difference(flat)
        # Its flanges are gone, above and below, over the other's sheet and flange; the slot goes on through one.
        # Beside the gap the edge is slit off as deep as the bend reaches; one slit is the slot's own side.
        slits = T + R
        self.assertAlmostEqual(gone.area, 3.5 * 293.0 / 2 + 2 * 23.5 * reach + 3 * slits, delta=0.1)
        self.assertAlmostEqual(gone.intersection(box(0, reach + 147, 999, reach + 280)).area, 3.5 * 133, delta=0.1)
        other = Polygon(inner(tank(ALONG))["along"].outline).difference(Polygon(made["along"].outline))
        self.assertAlmostEqual(other.area, 3.5 * 293.0 / 2 + 2 * 3.5 * reach + 3.5 * slits, delta=0.1)
        self.assertEqual(sorted(made), ["across", "along"], "neither is cut in two")

    def test_the_tank_knows_no_openings_at_the_crossing(self) -> None:
        """Four rooms; between two of them no opening where the plates cross, only at the shell's corners."""
        of = tank(ACROSS, ALONG)
        rooms, openings = compartments(of[SOLIDS])
        self.assertEqual(len(rooms), 4)
        for opening in openings:
            for place in opening.ring:
                near = abs(place[0] - 301.5) < 45 and abs(place[1] - 181.5) < 45
                self.assertFalse(near, f"{opening.baffle} opens at the crossing")

    def test_a_partition_stays_tight(self) -> None:
        """A baffle that meets a partition is two plates: what parts the cells has no slot."""
        made = inner(tank(ACROSS | {"kind": "partition"}, ALONG))
        self.assertEqual(sorted(made), ["across", "along-piece-1", "along-piece-2"])
