"""Liquid in a polyhedron at any attitude, against worked cases and properties."""

from math import cos, radians, sin
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from keel.design.shell import BoxShell
from keel.solid.box import box_solid
from keel.solid.polyhedron import Array, Mesh, Waterline, prism
from keel.studies.attitude import Attitude, felt
from keel.studies.level import volume_below
from keel.studies.liquid import box_mesh, fill_at
from keel.tests.samples import box, shells

G = 9.80665
FLANGE = 20.0
attitudes = st.builds(
    Attitude,
    pitch_deg=st.floats(-60, 60),
    roll_deg=st.floats(-60, 60),
    forward_g=st.floats(-2, 2),
    left_g=st.floats(-2, 2),
)


def inside(outer: list[tuple[float, float]], wall: float) -> Array:
    """A profile with every edge moved in by the wall, counter-clockwise."""
    ring = np.array(Polygon(outer).buffer(-wall, join_style="mitre").exterior.coords)[:-1]
    return ring if Polygon(ring).exterior.is_ccw else ring[::-1]


class WedgeTank(TestCase):
    """A buggy's wedge tank in 3 mm: profile in x–z, 640 wide."""

    PROFILE = [(0.0, 0.0), (520.0, 0.0), (560.0, 60.0), (560.0, 190.0), (230.0, 345.0), (0.0, 345.0)]

    def setUp(self) -> None:
        """Its inside as a mesh."""
        self.mesh = prism(inside(self.PROFILE, 3), 1, 3, 637)

    def check(self, line: Waterline, levels: list[float], litres: list[float], areas: list[float]) -> None:
        """Volumes and free surfaces at levels."""
        for level, volume, area in zip(levels, litres, areas, strict=True):
            self.assertAlmostEqual(line.volume(level) / 1e6, volume, delta=1e-6 * volume)
            self.assertAlmostEqual(line.surface(level) / 1e6, area, delta=1e-5 * area)

    def check_fills(self, line: Waterline, levels: list[float], centroids: list[list[float]]) -> None:
        """Levels and centroids at 5, 40 and 80 L."""
        for litres, level, centroid in zip((5, 40, 80), levels, centroids, strict=True):
            found = line.level(litres * 1e6)
            self.assertAlmostEqual(found, level, delta=1e-3)
            np.testing.assert_allclose(line.centroid(found), centroid, atol=0.01)

    def test_on_the_level(self) -> None:
        """Volumes, surfaces, levels, centroids."""
        self.assertAlmostEqual(self.mesh.volume_mm3 / 1e6, 102.373988, delta=1e-4)
        line = Waterline(self.mesh, -felt(Attitude()))
        self.check(
            line,
            [30, 54, 57, 120, 187, 260, 330],
            [9.99300241, 18.2612923, 19.3119466, 41.4396402, 64.9700021, 86.8259252, 101.027878],
            [0.33944008, 0.34958408, 0.35085208, 0.351236, 0.348664142, 0.250128271, 0.15564182],
        )
        self.check_fills(
            line,
            [15.1532387, 115.901217, 234.469082],
            [[263.230935, 320, 10.6011305], [275.320384, 320, 61.6353318], [272.683973, 320, 119.029473]],
        )

    def test_nose_up_banked_braking_and_turning(self) -> None:
        """Pitch 6°, roll −4°, braking at 3 m/s² in a left turn of 2 m/s²."""
        moving = Attitude(pitch_deg=6.0, roll_deg=-4.0, forward_g=-3.0 / G, left_g=2.0 / G)
        line = Waterline(self.mesh, -felt(moving))
        self.check(
            line,
            [30, 80, 150, 250, 350, 420],
            [0.206163097, 3.87760434, 21.7121294, 56.6417294, 84.20521, 97.3818983],
            [0.0206163097, 0.143556847, 0.337041688, 0.325374659, 0.225705372, 0.140120565],
        )
        self.check_fills(
            line,
            [87.1807055, 201.515319, 332.079093],
            [
                [423.511717, 169.459273, 28.3173918],
                [320.575072, 280.432294, 68.8652376],
                [281.232529, 306.559772, 120.653962],
            ],
        )


class RoundTank(TestCase):
    """A lying cylinder, 380 outside in 2.5 mm, 900 long, as a fine polygon."""

    def test_nose_up(self) -> None:
        """8° nose up: within what chords cost."""
        turn = np.linspace(0, 2 * np.pi, 512, endpoint=False)
        ring = 190 + 187.5 * np.column_stack([np.cos(turn), np.sin(turn)])
        line = Waterline(prism(ring, 0, 2.5, 897.5), -felt(Attitude(pitch_deg=8.0)))
        for level, litres in zip(
            (40, 100, 187.5, 300, 450), (0.744181907, 7.07822266, 29.7186663, 66.4784582, 97.8032282), strict=True
        ):
            self.assertAlmostEqual(line.volume(level) / 1e6, litres, delta=0.03)
        for litres, level in ((4, 79.1550181), (30, 188.398852), (80, 344.998623)):
            self.assertAlmostEqual(line.level(litres * 1e6), level, delta=0.2)


class Properties(TestCase):
    """What holds for every box and attitude."""

    @given(shells(), st.sampled_from([0, 1]))
    def test_the_mesh_holds_what_the_shell_holds(self, shell: BoxShell, sharp: int) -> None:
        """The chords enclose just what the quarter rounds do, and the level sum agrees to a drop."""
        solid = box_solid(shell, FLANGE, sharp)
        mesh = box_mesh(solid)
        self.assertAlmostEqual(mesh.volume_mm3, solid.volume_mm3, delta=1e-9 * solid.volume_mm3)
        line = Waterline(mesh, np.array([0.0, 0.0, 1.0]))
        half = solid.inner.size[2] / 2
        self.assertAlmostEqual(
            line.volume(half) / 1e6, volume_below(solid, half), delta=1e-4 + 2e-3 * solid.radius**2 / 1e6
        )

    @given(shells(), attitudes, st.floats(0.01, 0.99))
    def test_level_and_volume_are_inverse(self, shell: BoxShell, attitude: Attitude, share: float) -> None:
        """A level found for a volume holds it, to 1e-9."""
        line = Waterline(box_mesh(box_solid(shell, FLANGE)), -felt(attitude))
        volume = line.mesh.volume_mm3 * share
        self.assertAlmostEqual(line.volume(line.level(volume)), volume, delta=1e-9 * line.mesh.volume_mm3)

    @given(shells(), attitudes, st.floats(0.02, 0.98))
    def test_below_and_above_make_the_whole(self, shell: BoxShell, attitude: Attitude, share: float) -> None:
        """Turn the direction round: what was above is now below; both centroids balance about the whole's."""
        mesh, up = box_mesh(box_solid(shell, FLANGE)), -felt(attitude)
        line, turned = Waterline(mesh, up), Waterline(mesh, -up)
        level = line.depth * share
        wet, dry = line.volume(level), turned.volume(line.depth - level)
        self.assertAlmostEqual(wet + dry, mesh.volume_mm3, delta=1e-9 * mesh.volume_mm3)
        self.assertAlmostEqual(
            line.surface(level), turned.surface(line.depth - level), delta=1e-6 * mesh.volume_mm3 ** (2 / 3)
        )
        if min(wet, dry) > 1e-3 * mesh.volume_mm3:
            sum_of_moments = wet * line.centroid(level) + dry * turned.centroid(line.depth - level)
            whole = line.centroid(line.depth)
            np.testing.assert_allclose(sum_of_moments / mesh.volume_mm3, whole, atol=1e-5)

    @given(shells(), attitudes, st.floats(0.05, 0.95), st.floats(-3, 3))
    def test_turning_tank_and_gravity_together_changes_nothing(
        self, shell: BoxShell, attitude: Attitude, share: float, angle: float
    ) -> None:
        """A rotation about any upright axis of both leaves level and volume alone."""
        mesh, up = box_mesh(box_solid(shell, FLANGE)), -felt(attitude)
        c, s = cos(angle), sin(angle)
        turn = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]]) @ np.array([[1, 0, 0], [0, c, -s], [0, s, c]])
        line, turned = Waterline(mesh, up), Waterline(Mesh(mesh.points @ turn.T, mesh.triangles), turn @ up)
        volume = mesh.volume_mm3 * share
        self.assertAlmostEqual(line.level(volume), turned.level(volume), delta=1e-6 * line.depth)

    @given(shells(), attitudes, st.floats(0.03, 0.97))
    def test_the_drawn_surface_is_the_surface(self, shell: BoxShell, attitude: Attitude, share: float) -> None:
        """One rim, all of it in the plane at the level, enclosing the area of the free surface."""
        solid = box_solid(shell, FLANGE)
        fill = fill_at(solid, share, attitude)
        line = Waterline(box_mesh(solid), -felt(attitude))
        self.assertEqual(len(fill.surface), 1)
        rim = np.array([[p.x, p.y, p.z] for p in fill.surface[0]])
        np.testing.assert_allclose(rim @ line.up - line.lowest, fill.level_mm, atol=1e-6)
        area = (
            np.linalg.norm(sum(np.cross(rim[i] - rim[0], rim[(i + 1) % len(rim)] - rim[0]) for i in range(len(rim))))
            / 2
        )
        self.assertAlmostEqual(area, line.surface(fill.level_mm), delta=1e-4 * area + 1)

    def test_which_way_it_runs(self) -> None:
        """Nose up to the rear, right side down to the right, braking forward, a left turn to the right."""
        solid = box_solid(box(), FLANGE)
        level = fill_at(solid, 0.5, Attitude()).centroid
        assert level is not None
        for change, axis, way in (
            ({"pitch_deg": 10.0}, "x", -1),
            ({"roll_deg": 10.0}, "y", -1),
            ({"forward_g": -0.5}, "x", 1),
            ({"left_g": 0.5}, "y", -1),
        ):
            moved = fill_at(solid, 0.5, Attitude(**change)).centroid
            assert moved is not None
            self.assertGreater((getattr(moved, axis) - getattr(level, axis)) * way, 5)
        slope = fill_at(solid, 0.5, Attitude(left_g=0.5)).slope_deg
        self.assertAlmostEqual(np.tan(radians(slope)), 0.5, places=9)
