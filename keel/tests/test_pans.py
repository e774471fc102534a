"""Bases with flanges, flat: a worked pan with four unequal ones, U's, and trays that fold up."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon

from keel.studies.sheet.bends import bend_deduction
from keel.studies.sheet.pans import Flange, Pan, Side
from keel.studies.sheet.parts import polygon_area

UNEQUAL: dict[Side, Flange] = {"left": Flange(30), "right": Flange(45), "front": Flange(25), "back": Flange(38)}


class Worked(TestCase):
    """420 by 260 of 2 mm, bent to 3 mm."""

    pan = Pan(420, 260, UNEQUAL, 2.0, 3.0, 0.4, clearance_mm=1.0)

    def test_the_flat(self) -> None:
        """Size, bend lines, twelve corners, area and length round it."""
        np.testing.assert_allclose(self.pan.size_mm, (486.9380521, 314.9380521), atol=1e-6)
        lines = [self.pan.line(side) for side in ("left", "right", "front", "back")]  # type: ignore[arg-type]
        np.testing.assert_allclose(lines, (27.98451302, 443.9535391, 22.98451302, 278.9535391), atol=1e-6)
        u = [31, 440.9380521, 440.9380521, 486.9380521, 486.9380521, 440.9380521, 440.9380521, 31, 31, 0, 0, 31]
        v = [0, 0, 26, 26, 275.9380521, 275.9380521, 314.9380521, 314.9380521, 275.9380521, 275.9380521, 26, 26]
        outline = self.pan.outline()
        np.testing.assert_allclose(outline, np.column_stack([u, v]), atol=1e-6)
        self.assertAlmostEqual(polygon_area(outline) / 148350.3216, 1, places=8)
        self.assertAlmostEqual(Polygon(outline).length, 1603.752208, places=5)
        self.assertAlmostEqual(self.pan.gap_mm("left", "front"), 3.030973958, places=8)

    def test_holes_carried_to_the_flat(self) -> None:
        """From the base and three walls; one of them lies in a bend and is stretched."""
        for face, along, up, across, middle, off in (
            ("base", 140, 90, 52, (165.969026, 110.969026), 59.0),
            ("right", 70, 24, 10.5, (465.9380521, 90.96902604), 13.75),
            ("back", 305, 20, 8.4, (330.969026, 296.9380521), 10.8),
            ("left", 200, 9, 9, (21.0, 220.969026), -0.5),
        ):
            spot = self.pan.spot(face, along, up)  # type: ignore[arg-type]
            np.testing.assert_allclose(spot, middle, atol=1e-6)
            self.assertAlmostEqual(self.pan.clear_of_bends_mm(face, spot, across), off, places=6)  # type: ignore[arg-type]

    def test_bend_lines_end_in_the_notches(self) -> None:
        """Each runs from notch to notch; the order is as given, numbered where none is."""
        bends = self.pan.bends("up", {"left": 3, "right": 4, "front": 1, "back": 2})
        self.assertEqual([bend.order for bend in bends], [1, 2, 3, 4])
        np.testing.assert_allclose([bends[0].start, bends[0].end], [(31, 22.98451302), (440.9380521, 22.98451302)])
        np.testing.assert_allclose([bends[2].start[1], bends[2].end[1]], [26, 275.9380521])


class Shapes(TestCase):
    """Plates, U's and trays."""

    def test_a_plate_and_a_u(self) -> None:
        """Without flanges a rectangle; with two a longer one, whose lines run right across."""
        plain = Pan(300, 200, {}, 2, 3, 0.4)
        self.assertEqual(plain.outline(), [(0, 0), (300, 0), (300, 200), (0, 200)])
        u = Pan(300, 200, {"left": Flange(100), "right": Flange(120)}, 2, 3, 0.4)
        taken = bend_deduction(90, 3, 2, 0.4)
        self.assertAlmostEqual(u.size_mm[0], 300 + 100 + 120 - 2 * taken)
        self.assertEqual(len(u.outline()), 4)
        self.assertEqual([(bend.start[1], bend.end[1]) for bend in u.bends("up")], [(0, 200), (0, 200)])

    @given(st.floats(60, 600), st.floats(60, 600), st.floats(20, 300), st.floats(1, 4), st.floats(1, 3))
    @settings(max_examples=50)
    def test_a_trays_walls_stop_at_each_other(self, long: float, wide: float, high: float, t: float, r: float) -> None:
        """Closed corners: one outline; each wall stops a thickness short of its neighbours' outsides."""
        flanges: dict[Side, Flange] = {side: Flange(high) for side in ("left", "right", "front", "back")}
        tray = Pan(long, wide, flanges, t, r * t, 0.4, corners="closed")
        shape = Polygon(tray.outline())
        self.assertTrue(shape.is_valid)
        self.assertEqual(len(tray.outline()), 28)
        self.assertAlmostEqual(shape.bounds[2] - shape.bounds[0], tray.size_mm[0])
        rim = [u for u, v in tray.outline() if v == 0]
        self.assertAlmostEqual(max(rim) - min(rim), long - 2 * t)
        for side in flanges:
            first, last = tray.ends(side)
            self.assertGreater(last - first, 0)
