"""Springback, cones, folding up in space and the order of bends, against worked figures and properties."""

from math import radians
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.studies.sheet.bend_order import Obstacle, Search
from keel.studies.sheet.bends import bend_allowance
from keel.studies.sheet.cones import frustum_flat, tapered_wall_flat
from keel.studies.sheet.folding import Turn, turn_matrix
from keel.studies.sheet.springback import bend_to_deg, left_of_bent, radius_left_mm, yield_of_strip

BEAM = [(0.0, 0.0), (-30.0, 200.0), (-90.0, 305.0), (-170.0, 305.0), (-220.0, 230.0), (-220.0, 140.0), (-70.0, 0.0)]


class Springback(TestCase):
    """How far to bend."""

    WORKED = (
        # thickness, tool's radius, K, E, yield, wanted; left/bent, bend to, radius left
        (2.0, 2.0, 0.42, 200, 210, 90.0, 0.9955270133, 90.40437758, 2.012760359),
        (2.5, 3.0, 0.40, 70, 193, 90.0, 0.9867660577, 91.20702855, 3.053645714),
        (1.5, 2.0, 0.45, 193, 210, 45.0, 0.9941787857, 45.26348847, 2.015662925),
        (2.0, 12.0, 0.40, 70, 193, 120.0, 0.9470848346, 126.7045946, 12.71515675),
    )

    def test_worked(self) -> None:
        """Three metals, four tools; and a strip's yield, which gives the next angle on the same tool."""
        for t, r, k, e, y, wanted, share, to, radius in self.WORKED:
            left = left_of_bent(r + k * t, t, e, y)
            self.assertAlmostEqual(left / share, 1, places=6)
            self.assertAlmostEqual(bend_to_deg(wanted, left), to, places=4)
            self.assertAlmostEqual(radius_left_mm(r, t, k, left), radius, places=4)
        strip = 94.6 / 96.0
        self.assertAlmostEqual(yield_of_strip(strip, 3.0 + 0.4 * 2.5, 2.5, 70) / 212.6803125, 1, places=4)
        self.assertAlmostEqual(bend_to_deg(60.0, strip), 60.88794926, places=6)

    @given(st.floats(0.5, 20), st.floats(0.8, 4), st.floats(40, 500))
    def test_a_strip_says_the_yield_it_was_bent_with(self, radius: float, thick: float, yields: float) -> None:
        """Back and forth, as long as it isn't flat again; then no angle would do."""
        left = left_of_bent(radius, thick, 70, yields)
        if left > 1e-6:
            self.assertAlmostEqual(yield_of_strip(left, radius, thick, 70) / yields, 1, places=5)
        self.assertEqual(left_of_bent(1000, 1.0, 70, 300), 0.0)
        with self.assertRaisesRegex(ValueError, "springs back flat"):
            bend_to_deg(90, 0.0)


class Cones(TestCase):
    """What tapers, flat."""

    def test_a_frustum(self) -> None:
        """Slant, radii, angle, chords, box and area."""
        flat = frustum_flat(380, 220, 260, 2.5)
        for found, expected in (
            (flat.slant_mm, 272.0294102),
            (flat.outer_radius_mm, 642.0073492),
            (flat.inner_radius_mm, 369.977939),
            (flat.angle_rad, radians(105.8709056)),
            (flat.outer_chord_mm, 1024.588545),
            (flat.inner_chord_mm, 590.4529887),
            (flat.wide_mm, 1024.588545),
            (flat.deep_mm, 419.0163351),
        ):
            self.assertAlmostEqual(found, expected, places=5)
        self.assertAlmostEqual(flat.area_mm2 / 254339.6437, 1, places=8)

    def test_a_wall_between_rectangles(self) -> None:
        """Slanting bends: where each corner lies on the flat, and how far it is bent."""
        flat = tapered_wall_flat((0, 0, 460, 320), (60, 40, 340, 260), 280)
        bottoms = [0.0, 449.986709, 686.1153265, 794.8591707, 739.3262529]
        bottom_ups = [0.0, 95.45659601, 311.4271403, 758.3888572, 1073.533419]
        tops = [0.0, 273.9049533, 436.2433778, 502.435283, 464.256402]
        top_ups = [289.1366459, 347.2406609, 495.7204101, 767.7840638, 984.4459503]
        np.testing.assert_allclose(flat.bottom, np.column_stack([bottoms, bottom_ups]), atol=1e-5)
        np.testing.assert_allclose(flat.top, np.column_stack([tops, top_ups]), atol=1e-5)
        bends = [88.30196933, 86.80647898, 85.26556071, 87.48376678]
        np.testing.assert_allclose(np.degrees(flat.turns), bends, atol=1e-6)
        self.assertAlmostEqual(flat.area_mm2 / 370170.2628, 1, places=8)


class Folding(TestCase):
    """Panels in space."""

    LINES = {
        "left": ("base", (60.0, 40.0), (60.0, 240.0), 90.0),
        "lip": ("left", (18.0, 40.0), (18.0, 240.0), 60.0),
        "right": ("base", (390.0, 240.0), (350.0, 40.0), 75.0),
        "back": ("base", (60.0, 240.0), (390.0, 240.0), 90.0),
    }
    SPOTS = (
        ("base", 64.0, 40.0, 64.0, 40.0, 0.0),
        ("base", 346.0, 40.0, 346.0, 40.0, 0.0),
        ("left", 22.0, 44.0, 57.98451302, 44.0, 40.01548698),
        ("left", 22.0, 232.0, 57.98451302, 232.0, 40.01548698),
        ("lip", 0.0, 48.0, 74.34986089, 48.0, 54.36110098),
        ("lip", 0.0, 228.0, 74.34986089, 228.0, 54.36110098),
        ("right", 430.0, 40.0, 374.6519179, 51.06961642, 77.07701222),
        ("right", 446.0, 225.0, 405.6180718, 233.0763856, 57.18648003),
        ("back", 66.0, 300.0, 66.0, 242.015487, 62.01548698),
        ("back", 380.0, 300.0, 380.0, 242.015487, 62.01548698),
    )

    def test_a_tray_in_space(self) -> None:
        """A lip on a wall, a slanting bend line: places of the far face, folded."""
        placed = {"base": np.eye(4)}
        for name, (parent, start, end, angle) in self.LINES.items():
            turn = Turn(start, end, bend_allowance(angle, 3.0, 2.0, 0.4), radians(angle), 5.0)
            placed[name] = placed[parent] @ turn_matrix(turn)
        for panel, u, v, *expected in self.SPOTS:
            found = placed[panel] @ np.array([u, v, 0.0, 1.0])
            np.testing.assert_allclose(found[:3], expected, atol=1e-5)

    @given(st.floats(5, 170), st.floats(0.5, 8), st.floats(0.8, 4))
    @settings(max_examples=40)
    def test_a_bend_is_many_small_turns(self, angle: float, radius: float, thick: float) -> None:
        """Made of small turns of its neutral line, which knows no deduction, the child comes to lie there too."""
        k, many = 0.4, 4000
        allowance = bend_allowance(angle, radius, thick, k)
        matrix = turn_matrix(Turn((0.0, 1.0), (0.0, 0.0), allowance, radians(angle), radius + thick))
        far = matrix @ np.array([allowance / 2 + 10, 0.0, 0.0, 1.0])
        # The neutral line lies (1 − K) t over the far face and turns towards the reader.
        steps = radians(angle) * (np.arange(many) + 0.5) / many
        x = -allowance / 2 + allowance / many * np.cos(steps).sum()
        z = (1 - k) * thick + allowance / many * np.sin(steps).sum()
        turned = radians(angle)
        x += 10 * np.cos(turned) + (1 - k) * thick * np.sin(turned)
        z += 10 * np.sin(turned) - (1 - k) * thick * np.cos(turned)
        np.testing.assert_allclose(far[[0, 2]], [x, z], atol=1e-4)


class Orders(TestCase):
    """What a folder can make."""

    folder = [Obstacle.of(BEAM, 1.0)]

    def test_closed_wrappers(self) -> None:
        """A square wrapper under the smallest closed box has no order; over it every order is one."""
        for side, count in ((300.0, 0), (310.0, 24)):
            search = Search(self.folder, [side / 2, side, side, side, side / 2], [90.0] * 4)
            self.assertEqual(search.count(), count)
            self.assertEqual(len(list(search.orders())), count)

    def test_legs_of_a_u(self) -> None:
        """The longest alike legs whose second bend clears the beam, by halving; beyond some bases any length does."""
        worked = ((100.0, 28.13678852), (160.0, 84.13678856), (210.0, 130.8034552), (240.0, None), (320.0, None))
        for base, longest in worked:

            def clears(leg: float, base: float = base) -> bool:
                return Search(self.folder, [leg, base, leg], [90.0, 90.0]).way_of(frozenset({0}), 1) is not None

            if longest is None:
                self.assertTrue(clears(2000.0))
                continue
            low, high = 1.0, 1000.0
            while high - low > 1e-3:
                middle = (low + high) / 2
                low, high = (middle, high) if clears(middle) else (low, middle)
            self.assertAlmostEqual(low, longest, delta=0.02)

    def test_lips_before_their_sides(self) -> None:
        """A channel with lips: six orders of twenty-four."""
        search = Search(self.folder, [20.0, 150.0, 270.0, 150.0, 20.0], [90.0] * 4)
        found = [[bent.bend + 1 for bent in order] for order in search.orders()]
        self.assertEqual(found, [[1, 2, 4, 3], [1, 4, 2, 3], [1, 4, 3, 2], [4, 1, 2, 3], [4, 1, 3, 2], [4, 3, 1, 2]])
