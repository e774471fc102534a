"""Baffles that are offered: where the fewest stand, and how they are opened, worked out with plain polygons."""

from math import acos, ceil, pi
from typing import Any
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from keel.design.document import Design
from keel.design.features import Baffle, Partition, Pot
from keel.design.ports import Port, Seat
from keel.design.shell import CylinderShell
from keel.design.workshop import HouseRules
from keel.solid.build import build
from keel.studies.inside.baffle_layout import opened_plates, runs_kept, suggested_array, with_array
from keel.studies.inside.plate_placement import taken_by
from keel.tests import samples

RULES = HouseRules()
SHARE = (RULES.clear_least + RULES.clear_most) / 2


def array(shell: Any, *ports: Port, rules: HouseRules = RULES) -> list[Baffle]:
    """What is offered for a shell."""
    return suggested_array(Design(shell=shell, ports=ports), build(shell), rules)


def places(plates: list[Baffle], axis: str) -> list[float]:
    """Where those along an axis stand."""
    return [plate.at_mm for plate in plates if plate.axis == axis]


def what_is_left(plate: Baffle, wide: float, high: float) -> Polygon:
    """A plate of a rectangular section: corners off, a gap over it, notches in its foot."""
    c = plate.corner_mm
    corners = [(c, 0), (wide - c, 0), (wide, c), (wide, high - c), (wide - c, high), (c, high), (0, high - c), (0, c)]
    left = Polygon(corners) if c else box(0, 0, wide, high)
    left = left.intersection(box(0, 0, wide, high - plate.top_gap_mm))
    for notch in plate.notches:
        middle = notch.at_mm - 3
        left = left.difference(box(middle - notch.wide_mm / 2, 0, middle + notch.wide_mm / 2, notch.high_mm))
    return left


class Places(TestCase):
    """Where plates stand."""

    @given(st.integers(200, 1800), st.integers(150, 1200), st.integers(150, 600))
    @settings(max_examples=40, deadline=None)
    def test_the_fewest(self, length: int, width: int, most: int) -> None:
        """As few as the run allows, evenly to a millimetre; one fewer would be too few."""
        # Runs that are just as long as allowed are decided by how places are rounded.
        assume((length - 1) % most and (width - 1) % most)
        shell = samples.box(length, width, 300)
        rules = HouseRules(free_run_mm=most)
        plates = array(shell, rules=rules)
        for axis, size in (("x", length), ("y", width)):
            stand = places(plates, axis)
            self.assertEqual(len(stand), ceil((size - 1) / most - 1e-6) - 1)
            for n, at in enumerate(stand, start=1):
                self.assertAlmostEqual(at, size * n / (len(stand) + 1), delta=0.51)
        solids, design = build(shell), Design(shell=shell)
        stands = [(plate.axis, plate.at_mm) for plate in plates]
        self.assertTrue(runs_kept(design, solids, stands, most + 1))
        if stands:
            self.assertFalse(runs_kept(design, solids, stands[1:], most))

    def test_off_what_stands_and_hangs(self) -> None:
        """A hanger's half and 15 mm; a seat's half and 18; a pot's sides and 15; a wall with room for a brush."""
        pot = Pot(id="t", name="pot", a_mm=500, b_mm=100, long_mm=150, wide_mm=120, high_mm=120)
        wall = Partition(id="w", name="wall", axis="x", at_mm=900)
        shell = samples.box(1200, 400, 300, features=(pot, wall))
        hung = Port(id="h", name="h", x_mm=200, y_mm=200, hangs_mm=100, hangs_across_mm=80)
        seated = Port(id="s", name="s", x_mm=350, y_mm=300, seat=Seat(hole_mm=40, outer_mm=90))
        taken = taken_by(Design(shell=shell, ports=(hung, seated)), build(shell), 25.0)
        spans = (
            (145, 200 - 40 - 15),
            (200, 200 - 40 - 15),
            (250, 200 + 40 + 15),
            (360, 350 + 45 + 18),
            (580, 500 + 150 + 15),
            (890, 900 - 25 - 6),
        )
        for wanted, clear in spans:
            found = taken.clear_place("x", wanted)
            self.assertLess(abs(found - clear), 5.01, f"{wanted}: {found}, {clear}")
            self.assertTrue(all(not low < found < high for low, high in taken.along["x"]))
        self.assertEqual(taken.clear_place("x", 100), 100, "nothing is there")

    def test_its_own_plates_give_way(self) -> None:
        """Others in the place of those that stand; what else there is stays, and no id is used twice."""
        old = Baffle(id="baffle-1", name="old", axis="x", at_mm=111)
        wall = Partition(id="wall", name="wall", axis="x", at_mm=600)
        shell = samples.box(1000, 300, 300, features=(old, wall))
        plates = array(shell)
        self.assertNotIn(111, places(plates, "x"))
        features = with_array(shell, plates)
        self.assertEqual(features[0]["id"], "wall")
        ids = [feature["id"] for feature in features]
        self.assertEqual(len(set(ids)), len(ids))
        self.assertNotIn("baffle-1", ids)


class Openings(TestCase):
    """How far they are opened."""

    @given(st.integers(150, 700), st.integers(150, 600))
    @settings(max_examples=30, deadline=None)
    def test_by_the_middle_of_the_rule(self, wide: int, high: int) -> None:
        """Corners, and a notch where they don't do, open a rectangle by the share between least and most."""
        shell = samples.box(800, wide + 6, high + 6)
        (plate,) = opened_plates(Design(shell=shell), build(shell), RULES, [("x", 400.0)])
        open_share = 1 - what_is_left(plate, wide, high).area / (wide * high)
        self.assertAlmostEqual(open_share, SHARE, delta=0.35 * SHARE)
        self.assertTrue(RULES.clear_least <= open_share <= RULES.clear_most, open_share)

    def test_the_legs_by_hand(self) -> None:
        """Four halves of a square make up 11.5 per cent of 400 by 300: legs of 83 mm."""
        shell = samples.box(806, 406, 306)
        (plate,) = opened_plates(Design(shell=shell), build(shell), RULES, [("x", 400.0)])
        self.assertAlmostEqual(plate.corner_mm, (SHARE * 400 * 300 / 2) ** 0.5, delta=0.51)
        self.assertEqual((plate.top_gap_mm, plate.notches), (0, ()))

    def test_a_round_section_has_no_corners(self) -> None:
        """Half of it by a gap that follows the roof, a crescent; half by its foot, a segment."""
        shell = CylinderShell(axis="x", diameter_mm=404, run_mm=800, thickness_mm=2)
        (plate,) = opened_plates(Design(shell=shell), build(shell), RULES, [("x", 400.0)])
        self.assertEqual(plate.corner_mm, 0)
        r, off = 200.0, plate.top_gap_mm
        both = 2 * r**2 * acos(off / 2 / r) - off / 2 * (4 * r**2 - off**2) ** 0.5
        self.assertAlmostEqual(1 - both / (pi * r**2), SHARE / 2, delta=0.02 * SHARE)
        (foot,) = plate.notches
        low = r**2 * acos(1 - foot.high_mm / r) - (r - foot.high_mm) * (2 * r * foot.high_mm - foot.high_mm**2) ** 0.5
        self.assertAlmostEqual(low / (pi * r**2), SHARE / 2, delta=0.05 * SHARE)
