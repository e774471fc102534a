"""Seams as they are walked: every corner, end and crossing is looked at, in its place; whose cell a seam shuts."""

import json
from itertools import combinations, pairwise
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.solid.polyhedron import Array
from keel.studies.proof.bearing import WALL_PANELS
from keel.studies.proof.decay import PressureReading, corrected_kpa
from keel.studies.proof.seam_paths import BESIDE_MM
from keel.studies.proof.series import all_corrected_kpa, series_of
from keel.studies.proof.walk import NEAR_MM, TURN_DEG, WALK, WalkSeam
from keel.tests.wild import Wild

BOX: dict[str, Any] = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 300.0, "thickness_mm": 2.0}
SHARP = BOX | {"bend_radius_mm": 0.0, "metal": "mild steel"}
WALL: dict[str, Any] = {"kind": "partition", "id": "wall", "name": "wall", "at_mm": 300.0}


def analysed(shell: dict[str, Any], **more: Any) -> TankAnalysis:
    return TankAnalysis(Asked(Design.model_validate({"shell": shell} | more), Workshop()))


def places_of(seam: WalkSeam) -> list[Array]:
    """Its lines as arrays."""
    return [np.array([(spot.x, spot.y, spot.z) for spot in line]) for line in seam.lines]


def along(seam: WalkSeam, at_mm: float) -> list[Array]:
    """Places so far along a seam: two where one line ends and the next begins."""
    before, found = 0.0, []
    for line in places_of(seam):
        steps = np.linalg.norm(np.diff(line, axis=0), axis=1)
        whole = float(steps.sum())
        if before - 0.5 <= at_mm <= before + whole + 0.5:
            far = np.concatenate([[0.0], np.cumsum(steps)])
            found.append(np.array([np.interp(at_mm - before, far, line[:, axis]) for axis in range(3)]))
        before += whole
    return found


def off_seam(seam: WalkSeam, place: Array) -> float:
    """How far a place is off a seam, counted every millimetre."""
    least = np.inf
    for line in places_of(seam):
        for a, b in pairwise(line):
            steps = np.linspace(0, 1, max(2, int(np.linalg.norm(b - a))))[:, None]
            least = min(least, float(np.linalg.norm(a + steps * (b - a) - place, axis=1).min()))
    return least


class Spots(TestCase):
    """Where to look first."""

    def holds(self, seams: list[WalkSeam]) -> None:
        """Each spot lies on its seam at its own place; in order; none twice; every sharp corner is one."""
        for seam in seams:
            spots = [np.array([spot.place.x, spot.place.y, spot.place.z]) for spot in seam.spots]
            self.assertEqual([spot.at_mm for spot in seam.spots], sorted(spot.at_mm for spot in seam.spots))
            for spot, place in zip(seam.spots, spots, strict=True):
                near = min(float(np.linalg.norm(there - place)) for there in along(seam, spot.at_mm))
                self.assertLess(near, 0.1, (seam.name, spot.why.plain()))
            for one, other in combinations(spots, 2):
                self.assertGreater(float(np.linalg.norm(one - other)), NEAR_MM)
            for corner in self.corners(seam):
                near = min(float(np.linalg.norm(corner - place)) for place in spots)
                self.assertLessEqual(near, NEAR_MM + 0.1, (seam.name, corner))

    def corners(self, seam: WalkSeam) -> list[Array]:
        """Vertices between long straights that turn by more than a corner does."""
        found = []
        for line in places_of(seam):
            ways = np.diff(line, axis=0)
            long = np.linalg.norm(ways, axis=1)
            for n in range(1, len(ways)):
                if min(long[n - 1], long[n]) > 2 * NEAR_MM:
                    turn = np.degrees(np.arccos(np.clip(ways[n - 1] @ ways[n] / long[n - 1] / long[n], -1, 1)))
                    if turn > TURN_DEG + 1:
                        found.append(line[n])
        return found

    def test_a_box(self) -> None:
        """Its four corners at each end, where stitches start and stop."""
        seams = analysed(SHARP)[WALK]
        self.holds(seams)
        ends = [seam for seam in seams if any("Corner" in spot.why.plain() for spot in seam.spots)]
        self.assertTrue(ends)
        for seam in ends:
            self.assertGreaterEqual(len(seam.spots), 4, seam.name)

    def test_a_partition_crosses_the_seams_that_it_passes(self) -> None:
        """Where it meets the closing seam of the wrapper is looked at, at its own station."""
        seams = analysed(SHARP | {"features": [WALL]})[WALK]
        self.holds(seams)
        crossings = [(seam, spot) for seam in seams for spot in seam.spots if "Crossing" in spot.why.plain()]
        self.assertTrue(crossings)
        by_wall = [spot for seam, spot in crossings if "wall" in spot.why.plain()]
        self.assertTrue(by_wall)
        for spot in by_wall:
            self.assertAlmostEqual(spot.place.x, 301.0, delta=BESIDE_MM)
        for seam, spot in crossings:
            place = np.array([spot.place.x, spot.place.y, spot.place.z])
            other = next(one for one in seams if one is not seam and one.name in spot.why.plain())
            self.assertLess(off_seam(other, place), 2 * BESIDE_MM + 1)

    @settings(max_examples=25)
    @given(st.integers(0, 5000))
    def test_any_tank(self, seed: int) -> None:
        """Whatever its seams."""
        try:
            design = read_design(json.dumps(Wild(seed).document()))
            seams = TankAnalysis(Asked(design, Workshop()))[WALK]
        except (UnreadableDesignError, GeometryError):
            assume(False)
        self.holds(seams)
        for seam in seams:
            length = sum(float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum()) for line in places_of(seam))
            self.assertAlmostEqual(seam.length_mm, length, delta=0.2 + 0.01 * length)


class Shutting(TestCase):
    """Which cells a seam, and a part of the wall, shut."""

    def setUp(self) -> None:
        """A box with a wall at 300."""
        self.tank = analysed(SHARP | {"features": [WALL]})
        cells = sorted(self.tank[SOLIDS].cells, key=lambda cell: float(cell.mesh.points[:, 0].mean()))
        self.rear, self.front = (cell.name for cell in cells)

    def test_seams(self) -> None:
        """Those behind the wall the rear cell, those before it the front one, the wall's own both."""
        for seam in self.tank[WALK]:
            xs = np.vstack(places_of(seam))[:, 0]
            wanted = {self.rear} if xs.max() < 270 else {self.front} if xs.min() > 330 else {self.rear, self.front}
            self.assertEqual(set(seam.cells), wanted, seam.name)

    def test_walls(self) -> None:
        """A field of lid, floor or side belongs to the cell inside it; the partition to both."""
        for panel in self.tank[WALL_PANELS]:
            if panel.what == "partition":
                self.assertEqual(set(panel.cells), {self.rear, self.front})
                continue
            xs = [corner.x for corner in panel.corners]
            middle = sum(xs) / len(xs)
            self.assertEqual(panel.cells, [self.rear if middle < 300 else self.front], panel.name)


class Rows(TestCase):
    """Readings brought into order and to one temperature."""

    @given(st.lists(st.tuples(st.integers(0, 30), st.floats(1, 30), st.floats(5, 35), st.floats(95, 104)), max_size=12))
    def test_in_order_once_each(self, read: list[tuple[int, float, float, float]]) -> None:
        """Of two at one moment the first that was read; each corrected as it is alone."""
        rows = [PressureReading(float(minute), *more) for minute, *more in read]
        series = series_of(rows)
        first: dict[float, PressureReading] = {}
        for row in rows:
            first.setdefault(row.minute, row)
        self.assertEqual(list(series.minute), sorted(first))
        self.assertEqual(list(series.gauge_kpa), [first[minute].gauge_kpa for minute in sorted(first)])
        if not rows:
            return
        start = first[min(first)]
        for minute, found in zip(series.minute, all_corrected_kpa(series), strict=True):
            alone = corrected_kpa(start, first[float(minute)])
            self.assertAlmostEqual(float(found), alone, delta=1e-9)
            end = first[float(minute)]
            by_hand = (
                (end.gauge_kpa + end.barometer_kpa) * (start.temperature_c + 273.15) / (end.temperature_c + 273.15)
            )
            self.assertAlmostEqual(alone, by_hand - start.barometer_kpa, delta=1e-9)
