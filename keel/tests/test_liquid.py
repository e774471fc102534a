"""Liquid in any shell at any attitude, against worked cases and properties."""

from fractions import Fraction
from itertools import pairwise
from math import cos, radians, sin
from unittest import TestCase

import numpy as np
from hypothesis import HealthCheck, given, reject, settings
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.design.attitude import Attitude, specific_force
from keel.design.document import Design
from keel.design.features import Partition, Relief
from keel.design.ports import Port
from keel.design.shell import BoxShell, Corner, CylinderShell, ProfileShell
from keel.evaluation import evaluate
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.polyhedron import Array, Mesh, Waterline
from keel.solid.pools import NotInsideError, Pools
from keel.solid.solids import AnyShell
from keel.studies.liquid.fill_level import fill_at
from keel.studies.liquid.strapping import strapping_table
from keel.tests.samples import PILOT, SADDLE, STEP, WEDGE, any_shells, box, profile

G = 9.80665
UP = np.array([0.0, 0.0, 1.0])
LEVEL = Attitude()
attitudes = st.builds(
    Attitude,
    pitch_deg=st.floats(-60, 60),
    roll_deg=st.floats(-60, 60),
    forward_g=st.floats(-1.5, 1.5),
    left_g=st.floats(-1.5, 1.5),
)
SLOW = settings(suppress_health_check=[HealthCheck.filter_too_much, HealthCheck.too_slow])


def mesh(shell: AnyShell) -> Mesh:
    """The inside of a shell of one cell; a drawn shell that can't be made, or falls into two, is passed over."""
    try:
        cells = build(shell).cells
    except GeometryError:
        reject()
    if len(cells) != 1:
        reject()
    return cells[0].mesh


def waterline(shell: AnyShell, attitude: Attitude = LEVEL) -> Waterline:
    """A shell's inside as the fuel sees it."""
    return Waterline(mesh(shell), -specific_force(attitude))


def stranded(shell: AnyShell, at: list[float], attitude: Attitude = LEVEL) -> list[float]:
    """Litres that stay for a pickup, its own pool first."""
    pools = Pools(waterline(shell, attitude)).stranded(np.array(at))
    return [pool.volume_mm3 / 1e6 for pool in pools]


def trapped(shell: AnyShell, at: list[float], attitude: Attitude = LEVEL) -> float:
    """Litres of air that can't get out by a vent."""
    pools = Pools(Waterline(mesh(shell), specific_force(attitude))).stranded(np.array(at))
    return sum(pool.volume_mm3 for pool in pools) / 1e6


class WorkedCase(TestCase):
    """Checks shared by the worked tanks."""

    def check(self, line: Waterline, levels: list[float], litres: list[float], areas: list[float], rel: float) -> None:
        """Volumes and free surfaces at levels."""
        for level, volume, area in zip(levels, litres, areas, strict=True):
            self.assertAlmostEqual(line.volume(level) / 1e6, volume, delta=rel * max(volume, 1))
            self.assertAlmostEqual(line.surface(level) / 1e6, area, delta=10 * rel * area)

    def check_fills(
        self, line: Waterline, fills: list[float], levels: list[float], centroids: list[list[float]], within: float
    ) -> None:
        """Levels and centroids at fills [L]."""
        found = line.levels(np.array(fills) * 1e6)
        np.testing.assert_allclose(found, levels, atol=within)
        for level, centroid in zip(found, centroids, strict=False):
            np.testing.assert_allclose(line.centroid(float(level)), centroid, atol=max(0.01, 1.5 * within))


class PilotTank(WorkedCase):
    """A box with well, sump and relief in 5 mm."""

    def test_on_the_level(self) -> None:
        """Inner volume, strapping, surfaces, levels, centroids."""
        self.assertAlmostEqual(build(PILOT).brimful_l, 370.878, places=9)
        line = waterline(PILOT)
        self.check(
            line,
            [20, 50, 75, 140, 250, 420, 500, 590],
            [0.798, 1.995, 11.286, 50.844, 127.338, 245.556, 300.621, 358.104],
            [0.0399, 0.0399, 0.5928, 0.6954, 0.6954, 0.6954, 0.6387, 0.6387],
            1e-9,
        )
        self.check_fills(
            line,
            [1.5, 30, 150, 320],
            [37.593985, 106.568826, 282.588438, 530.341318],
            [
                [170.0, 300.0, -36.2030075],
                [542.681, 267.793, 24.0323168],
                [568.5362, 297.3916, 117.692131],
                [573.00655, 304.089812, 241.142616],
            ],
            1e-3,
        )

    def test_what_stays(self) -> None:
        """On the level the last of the sump; in a right turn three pools: sump, floor strip, on the relief."""
        self.assertAlmostEqual(sum(stranded(PILOT, [170, 300, -50])), 0.1995, places=9)
        turning = stranded(PILOT, [170, 300, -50], Attitude(left_g=-2.941995 / G))
        np.testing.assert_allclose(turning, [0.3927875, 2.8899, 1.3851], rtol=1e-6)


class WedgeTank(WorkedCase):
    """A buggy's wedge tank in 3 mm: profile in x–z, 640 wide."""

    def test_on_the_level(self) -> None:
        """Volumes, surfaces, levels, centroids."""
        self.assertAlmostEqual(build(WEDGE).brimful_l, 102.373988, delta=1e-4)
        line = waterline(WEDGE)
        self.check(
            line,
            [30, 54, 57, 120, 187, 260, 330],
            [9.99300241, 18.2612923, 19.3119466, 41.4396402, 64.9700021, 86.8259252, 101.027878],
            [0.33944008, 0.34958408, 0.35085208, 0.351236, 0.348664142, 0.250128271, 0.15564182],
            1e-6,
        )
        self.check_fills(
            line,
            [5, 40, 80],
            [15.1532387, 115.901217, 234.469082],
            [[263.230935, 320, 10.6011305], [275.320384, 320, 61.6353318], [272.683973, 320, 119.029473]],
            1e-3,
        )

    def test_nose_up_banked_braking_and_turning(self) -> None:
        """Pitch 6°, roll −4°, braking at 3 m/s² in a left turn of 2 m/s²."""
        line = waterline(WEDGE, Attitude(pitch_deg=6.0, roll_deg=-4.0, forward_g=-3.0 / G, left_g=2.0 / G))
        self.check(
            line,
            [30, 80, 150, 250, 350, 420],
            [0.206163097, 3.87760434, 21.7121294, 56.6417294, 84.20521, 97.3818983],
            [0.0206163097, 0.143556847, 0.337041688, 0.325374659, 0.225705372, 0.140120565],
            1e-6,
        )
        self.check_fills(
            line,
            [5, 40, 80],
            [87.1807055, 201.515319, 332.079093],
            [
                [423.511717, 169.459273, 28.3173918],
                [320.575072, 280.432294, 68.8652376],
                [281.232529, 306.559772, 120.653962],
            ],
            1e-3,
        )


class RoundTanks(WorkedCase):
    """A D-tank, a lying and a standing cylinder: within what chords cost."""

    D = ProfileShell(
        shape="D",
        corners=(
            Corner(across_mm=0, up_mm=0),
            Corner(across_mm=170, up_mm=0, bow_mm=160),
            Corner(across_mm=170, up_mm=320),
            Corner(across_mm=0, up_mm=320),
        ),
        run_mm=720,
        thickness_mm=3,
        bend_radius_mm=0,
    )
    LYING = CylinderShell(axis="x", diameter_mm=380, run_mm=900, thickness_mm=2.5)

    def test_d_tank(self) -> None:
        """Level, and braking at half a g."""
        self.assertAlmostEqual(build(self.D).brimful_l, 65.0857829, delta=1e-5)
        self.check(
            waterline(self.D),
            [20, 80, 157, 240, 300],
            [3.12460231, 15.0897576, 32.5428914, 51.2901098, 62.9805699],
            [0.173992013, 0.216922444, 0.231336, 0.214397457, 0.165506028],
            4e-4,
        )
        braking = waterline(self.D, Attitude(forward_g=-0.5))
        self.check_fills(braking, [8, 30, 60], [61.1391119, 150.329758, 296.62225], [], 0.2)
        np.testing.assert_allclose(braking.centroid(braking.level(30e6)), [181.489368, 360, 88.7228131], atol=0.3)

    def test_lying_cylinder(self) -> None:
        """Level and 8° nose up, and what stays for a pickup at the front."""
        self.assertAlmostEqual(build(self.LYING).brimful_l, 98.849722, delta=1e-5)
        flat, nose_up = waterline(self.LYING), waterline(self.LYING, Attitude(pitch_deg=8.0))
        self.check_fills(flat, [4, 30, 80], [31.602339, 128.641858, 282.890784], [[450, 190, 21.365402]], 0.2)
        for level, litres in zip(
            (40, 100, 187.5, 300, 450), (0.744181907, 7.07822266, 29.7186663, 66.4784582, 97.8032282), strict=True
        ):
            self.assertAlmostEqual(nose_up.volume(level) / 1e6, litres, delta=0.03)
        left = sum(stranded(self.LYING, [860, 190, 7.5], Attitude(pitch_deg=8.0)))
        self.assertAlmostEqual(left, 11.9911126, delta=1e-3 * 11.99)

    def test_standing_cylinder(self) -> None:
        """Capacity and a level."""
        pot = CylinderShell(axis="z", diameter_mm=152.4, run_mm=310, thickness_mm=1.5)
        self.assertAlmostEqual(build(pot).brimful_l, 5.38182351, delta=1e-6)
        self.assertAlmostEqual(waterline(pot).volume(100) / 1e6, 1.75303698, delta=1e-6)

    def test_dished_ends_hold_their_caps(self) -> None:
        """Two caps of a sphere over the rims, a wall smaller inside, whichever way it lies."""
        for axis in ("x", "y", "z"):
            tank = CylinderShell(axis=axis, diameter_mm=300, run_mm=500, thickness_mm=2, dish_mm=60)  # type: ignore[arg-type]
            ball, depth = (150**2 + 60**2) / 120 - 2, (150**2 + 60**2) / 120 - 60
            rise = ball - depth
            caps = 2 * np.pi * rise**2 * (3 * ball - rise) / 3
            self.assertAlmostEqual(build(tank).brimful_l, (np.pi * 148**2 * 500 + caps) / 1e6, delta=2e-4)


class Stranding(TestCase):
    """Fuel that stays, against worked cases."""

    def test_step_tank(self) -> None:
        """On the level, braking at 0.6 g (most stays on the ledge), launching at 0.4 g."""
        at = [440.0, 250.0, 7.0]
        self.assertAlmostEqual(sum(stranded(STEP, at)), 1.18048, places=6)
        np.testing.assert_allclose(stranded(STEP, at, Attitude(forward_g=-0.6)), [0.3194405, 26.1425067], rtol=1e-5)
        self.assertAlmostEqual(sum(stranded(STEP, at, Attitude(forward_g=0.4))), 20.1326648, places=5)

    def test_saddle_tank(self) -> None:
        """The other lobe stands at the hump's top; rolled, at the edge where it spills."""
        at = [300.0, 150.0, 9.0]
        np.testing.assert_allclose(stranded(SADDLE, at), [1.16032, 51.05408], rtol=1e-9)
        self.assertAlmostEqual(sum(stranded(SADDLE, at, Attitude(roll_deg=3.0))), 49.5743652, places=5)
        self.assertAlmostEqual(sum(stranded(SADDLE, at, Attitude(roll_deg=-3.0))), 60.4634314, places=5)

    def test_the_drawing_shows_it_where_it_is(self) -> None:
        """Both lobes hold the same: the cut hatches the one without the pickup, and no face of the hump."""
        for y, low, high in ((150.0, 704.0, 1096.0), (950.0, 4.0, 396.0)):
            pickup = Port(id="p", name="p", role="pickup", x_mm=300, y_mm=y)
            seen = evaluate(Design(shell=SADDLE, ports=(pickup,)), None, Showing(remedies=False))
            assert seen.shell.geometry is not None
            other = next(left for left in seen.shell.cuts[0].left if left.litres > 10)
            across = [place[0] for ring in other.rings for place in ring]
            self.assertAlmostEqual(min(across), low, delta=0.02)
            self.assertAlmostEqual(max(across), high, delta=0.02)
            faces = np.array(next(pool for pool in seen.shell.drained[0].pools if not pool.own).faces).reshape(-1, 3)
            self.assertGreaterEqual(faces[:, 1].min(), low - 0.02)
            self.assertLessEqual(faces[:, 1].max(), high + 0.02)

    def test_a_pickup_in_each_lobe(self) -> None:
        """Both lobes are drawn down; only what lies below each inlet stays."""
        pools = Pools(waterline(SADDLE)).stranded(np.array([300.0, 150.0, 9.0]), np.array([300.0, 900.0, 9.0]))
        total = sum(pool.volume_mm3 for pool in pools) / 1e6
        self.assertAlmostEqual(total, 2 * 1.16032, places=6)

    def test_corner(self) -> None:
        """A box at 0.8 g to the left, with the pickup in the middle and at the left."""
        tank = box(600, 450, 300)
        turn = Attitude(left_g=0.8)
        self.assertAlmostEqual(sum(stranded(tank, [300, 225, 8])), 1.31868, places=9)
        self.assertAlmostEqual(sum(stranded(tank, [300, 225, 8], turn)), 12.3784997, places=6)
        self.assertAlmostEqual(sum(stranded(tank, [300, 400, 8], turn)), 38.332602, places=6)

    def test_the_g_that_uncovers_a_pickup(self) -> None:
        """Raise a left turn slowly: the first g at which the surface stands at the inlet."""
        tank, at = box(600, 450, 300), np.array([300.0, 225.0, 8.0])
        whole = build(tank).brimful_l * 1e6
        for fill, expected in ((0.08, 0.377394618), (0.15, 0.748872179), (0.25, 1.27888263), (0.4, 3.1981982)):
            low, high = 0.0, 6.0
            for _ in range(60):
                middle = (low + high) / 2
                line = waterline(tank, Attitude(left_g=middle))
                covered = line.level(whole * fill) > float(at @ line.up) - line.lowest
                low, high = (middle, high) if covered else (low, middle)
            self.assertAlmostEqual(low, expected, delta=1e-6 * expected)

    def test_air(self) -> None:
        """A vent not at the highest point, 5° nose up: flush, dipped, and dipped on the level."""
        tank, nose_up = box(1000, 500, 400, thickness_mm=2.0), Attitude(pitch_deg=5.0)
        self.assertAlmostEqual(trapped(tank, [600, 250, 398], nose_up), 3.43692146, places=6)
        self.assertAlmostEqual(trapped(tank, [600, 250, 380], nose_up), 7.90869302, places=6)
        self.assertAlmostEqual(trapped(tank, [600, 250, 380]), 8.892288, places=6)

    def test_a_point_outside_says_so(self) -> None:
        """In the metal, over the lid, beside the tank."""
        for at in ([300, 225, 1], [300, 225, 400], [-50, 225, 50]):
            with self.assertRaises(NotInsideError):
                stranded(box(600, 450, 300), [float(v) for v in at])

    def test_what_hangs_in_is_no_pool(self) -> None:
        """A well that dips into the fuel splits nothing off."""
        tank = box(600, 450, 300, features=PILOT.features[:1])
        for attitude in (LEVEL, Attitude(pitch_deg=20.0), Attitude(roll_deg=-25.0, forward_g=0.3)):
            line = waterline(tank, attitude)
            lowest = line.mesh.points[int(np.argmin(line.heights))]
            inside = lowest + 1e-3 * (line.mesh.points.mean(axis=0) - lowest)
            self.assertEqual(len(stranded(tank, list(inside), attitude)), 1)


def turned_up(up: np.ndarray) -> np.ndarray:
    """A rotation that takes a direction to straight up."""
    across = np.cross(up, np.eye(3)[int(np.argmin(np.abs(up)))])
    across /= np.linalg.norm(across)
    return np.array([across, np.cross(up, across), up])


def exactly_below(solid: Mesh, up: np.ndarray, plane: float) -> float:
    """Volume below a plane, tetrahedra about a place on it, in fractions."""
    n = [Fraction(float(v)) for v in up]
    square = sum(a * a for a in n)
    foot = [a * Fraction(plane) / square for a in n]
    places = [[Fraction(float(v)) - o for v, o in zip(p, foot, strict=True)] for p in solid.points]
    heights = [sum(a * b for a, b in zip(p, n, strict=True)) for p in places]
    total = Fraction(0)
    for triangle in solid.triangles:
        under: list[list[Fraction]] = []
        for i, j in zip(triangle, np.roll(triangle, -1), strict=True):
            if heights[i] <= 0:
                under.append(places[i])
            if heights[i] * heights[j] < 0:
                part = heights[i] / (heights[i] - heights[j])
                under.append([x + part * (y - x) for x, y in zip(places[i], places[j], strict=True)])
        for b, c in pairwise(under[1:]):
            a = under[0]
            total += a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2])
            total += a[2] * (b[0] * c[1] - b[1] * c[0])
    return float(total / 6)


class Properties(TestCase):
    """What holds for every shell and attitude."""

    @given(any_shells(), attitudes, st.floats(0.02, 0.98))
    @settings(SLOW, max_examples=500)
    def test_volume_is_that_of_the_trimmed_solid(self, shell: AnyShell, attitude: Attitude, share: float) -> None:
        """The closed form against a boolean trim by the plane and the trimmed mesh's own volume.

        The solid is turned until the plane is level: the modeller finds a leaning plane's angle to 1e-8 only. What a
        plane all but touches the trim moves by its tolerance; so much of the surface is left to it.
        """
        line = waterline(shell, attitude)
        level = line.depth * share
        turned = build(shell).cells[0].solid.transform(np.column_stack([turned_up(line.up), np.zeros(3)]))
        trimmed = turned.trim_by_plane([0.0, 0.0, -1.0], -(line.lowest + level))
        moved = trimmed.get_tolerance() * turned.surface_area()
        whole = line.mesh.volume_mm3
        self.assertAlmostEqual(line.volume(level), float(trimmed.volume()), delta=1e-9 * whole + moved)

    @given(any_shells(), attitudes, st.floats(0.02, 0.98))
    @settings(SLOW, max_examples=60)
    def test_volume_in_whole_fractions(self, shell: AnyShell, attitude: Attitude, share: float) -> None:
        """The same calculated triangle by triangle without rounding."""
        line = waterline(shell, attitude)
        level = line.depth * share
        exact = exactly_below(line.mesh, line.up, line.lowest + level)
        self.assertAlmostEqual(line.volume(level), exact, delta=1e-12 * line.mesh.volume_mm3)

    @given(any_shells(), attitudes, st.lists(st.floats(0.01, 0.99), min_size=1, max_size=5))
    @settings(SLOW, max_examples=60)
    def test_level_and_volume_are_inverse(self, shell: AnyShell, attitude: Attitude, shares: list[float]) -> None:
        """Levels found for volumes hold them, to 1e-9."""
        line = waterline(shell, attitude)
        volumes = np.array(shares) * line.mesh.volume_mm3
        np.testing.assert_allclose(line.volumes(line.levels(volumes)), volumes, atol=1e-9 * line.mesh.volume_mm3)

    @given(any_shells(), attitudes, st.floats(0.02, 0.98))
    @settings(SLOW, max_examples=60)
    def test_below_and_above_make_the_whole(self, shell: AnyShell, attitude: Attitude, share: float) -> None:
        """Turn the direction round: what was above is now below; both centroids balance about the whole's."""
        line = waterline(shell, attitude)
        turned = Waterline(line.mesh, -line.up)
        level, whole = line.depth * share, line.mesh.volume_mm3
        wet, dry = line.volume(level), turned.volume(line.depth - level)
        self.assertAlmostEqual(wet + dry, whole, delta=1e-9 * whole)
        self.assertAlmostEqual(line.surface(level), turned.surface(line.depth - level), delta=1e-6 * whole ** (2 / 3))
        if min(wet, dry) > 1e-3 * whole:
            moments = wet * line.centroid(level) + dry * turned.centroid(line.depth - level)
            np.testing.assert_allclose(moments / whole, line.centroid(line.depth), atol=1e-4)

    @given(any_shells(), attitudes, st.floats(0.05, 0.95), st.floats(-3, 3))
    @settings(SLOW, max_examples=60)
    def test_turning_tank_and_gravity_together_changes_nothing(
        self, shell: AnyShell, attitude: Attitude, share: float, angle: float
    ) -> None:
        """A rotation of both leaves level, volume and what is stranded alone."""
        line = waterline(shell, attitude)
        c, s = cos(angle), sin(angle)
        turn = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]]) @ np.array([[1, 0, 0], [0, c, -s], [0, s, c]])
        turned = Waterline(Mesh(line.mesh.points @ turn.T, line.mesh.triangles), turn @ line.up)
        volume = line.mesh.volume_mm3 * share
        self.assertAlmostEqual(line.level(volume), turned.level(volume), delta=1e-6 * line.depth)
        at = _inside(line)
        left = sum(pool.volume_mm3 for pool in Pools(line).stranded(at))
        again = sum(pool.volume_mm3 for pool in Pools(turned).stranded(turn @ at))
        self.assertAlmostEqual(left, again, delta=1e-6 * line.mesh.volume_mm3)

    @given(any_shells(), attitudes)
    @settings(SLOW, max_examples=60)
    def test_stranded_is_at_least_what_lies_lower_in_its_own_pool(self, shell: AnyShell, attitude: Attitude) -> None:
        """Never more than the whole; all pools apart from each other hold no more than the plane does."""
        line = waterline(shell, attitude)
        at = _inside(line)
        pools = Pools(line).stranded(at)
        whole = line.mesh.volume_mm3
        self.assertLessEqual(sum(pool.volume_mm3 for pool in pools), whole * (1 + 1e-9))
        level = float(at @ line.up) - line.lowest
        self.assertGreaterEqual(sum(pool.volume_mm3 for pool in pools), line.volume(level) - 1e-6 * whole)
        seen = np.concatenate([pool.triangles for pool in pools])
        self.assertEqual(len(seen), len(set(seen.tolist())))

    @given(st.floats(60, 500), st.floats(2, 6), attitudes, st.floats(0.05, 0.95))
    @settings(max_examples=40)
    def test_cells_add_up(self, at: float, thick: float, attitude: Attitude, share: float) -> None:
        """Both cells and the wall between them make the tank, at every level plane too."""
        plain = box(600, 400, 300)
        wall = Partition(id="p", name="wall", axis="x", at_mm=at, thickness_mm=thick)
        parted = build(plain.model_copy(update={"features": (wall,)}))
        self.assertEqual(len(parted.cells), 2)
        metal = thick * 394 * 294 / 1e6
        self.assertAlmostEqual(parted.brimful_l + metal, build(plain).brimful_l, places=9)
        whole = waterline(plain, attitude)
        plane = whole.lowest + share * whole.depth
        slab = build(box(thick, 394, 294, thickness_mm=0.3, measured="inside", x_mm=at - 0.3, y_mm=2.7, z_mm=2.7))
        lines = [Waterline(cell.mesh, whole.up) for cell in (*parted.cells, *slab.cells)]
        held = sum(line.volume(plane - line.lowest) for line in lines)
        self.assertAlmostEqual(held, whole.volume(share * whole.depth), delta=1e-6 * whole.mesh.volume_mm3)

    @given(any_shells(), st.tuples(*[st.floats(-50, 250)] * 3), st.tuples(*[st.floats(20, 200)] * 3))
    @settings(SLOW, max_examples=60)
    def test_a_relief_never_adds_volume(
        self, shell: AnyShell, at: tuple[float, float, float], size: tuple[float, float, float]
    ) -> None:
        """Whatever is cut away, less is left; and its cost in the list is what went."""
        cut = Relief(
            id="cut", name="cut", x_mm=at[0], y_mm=at[1], z_mm=at[2],
            length_mm=size[0], width_mm=size[1], height_mm=size[2],
        )  # fmt: skip
        before = mesh(shell).volume_mm3 / 1e6
        try:
            after = build(shell.model_copy(update={"features": (*shell.features, cut)}))
        except GeometryError:
            return
        self.assertLessEqual(after.brimful_l, before + 1e-9)
        self.assertAlmostEqual(after.body_inner_l + sum(c.litres for c in after.costs), after.inner.volume() / 1e6, 6)

    @given(any_shells(), attitudes, st.floats(0.03, 0.97))
    @settings(SLOW, max_examples=40)
    def test_the_drawn_surface_is_the_surface(self, shell: AnyShell, attitude: Attitude, share: float) -> None:
        """All rims lie in the plane at the level; the triangles between them have the area of the free surface."""
        mesh(shell)
        fill, line = fill_at(build(shell), share, attitude), waterline(shell, attitude)
        for rim in fill.surface:
            places = np.array(rim).reshape(-1, 3)
            np.testing.assert_allclose(places @ line.up - line.lowest, fill.level_mm, atol=0.02)
        corners = np.array(fill.sheet).reshape(-1, 3, 3)
        area = np.linalg.norm(np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]), axis=1).sum() / 2
        self.assertAlmostEqual(area, line.surface(fill.level_mm), delta=1e-4 * area + 20)

    @given(any_shells(), st.floats(3, 60))
    @settings(SLOW, max_examples=30)
    def test_strapping_rises_to_brimful_at_any_pitch(self, shell: AnyShell, pitch: float) -> None:
        """Rows rise from zero by the pitch to the whole depth and the brimful volume."""
        line = waterline(shell)
        rows = strapping_table(line, pitch)
        volumes = [row.volume_l for row in rows]
        self.assertEqual(volumes[0], 0)
        self.assertTrue(all(b >= a - 1e-9 for a, b in pairwise(volumes)))
        self.assertAlmostEqual(volumes[-1] * 1e6, line.mesh.volume_mm3, delta=1e-9 * line.mesh.volume_mm3)
        self.assertAlmostEqual(rows[1].level_mm, min(pitch, line.depth), places=6)
        self.assertAlmostEqual(rows[-1].level_mm, line.depth, places=6)

    def test_which_way_it_runs(self) -> None:
        """Nose up to the rear, right side down to the right, braking forward, a left turn to the right."""
        solids = build(box())
        level = fill_at(solids, 0.5, LEVEL).centroid
        assert level is not None
        for change, axis, way in (
            ({"pitch_deg": 10.0}, "x", -1),
            ({"roll_deg": 10.0}, "y", -1),
            ({"forward_g": -0.5}, "x", 1),
            ({"left_g": 0.5}, "y", -1),
        ):
            moved = fill_at(solids, 0.5, Attitude(**change)).centroid
            assert moved is not None
            self.assertGreater((getattr(moved, axis) - getattr(level, axis)) * way, 5)
        slope = fill_at(solids, 0.5, Attitude(left_g=0.5)).slope_deg
        self.assertAlmostEqual(np.tan(radians(slope)), 0.5, places=9)

    def test_fuel_that_floats_is_refused(self) -> None:
        """Dropping away at 1 g nothing presses the fuel anywhere."""
        with self.assertRaisesRegex(ValueError, "float"):
            Attitude(up_g=-1.0)

    def test_a_box_as_a_profile_is_the_box(self) -> None:
        """The same rectangle, bent round, holds the same to the last digit either way."""
        plain = BoxShell(length_mm=500, width_mm=300, height_mm=250, thickness_mm=3, bend_radius_mm=6, wrap_axis="y")
        drawn = profile([(0, 0), (500, 0), (500, 250), (0, 250)], 300, 3.0, bend_radius_mm=6.0)
        self.assertAlmostEqual(build(plain).brimful_l, build(drawn).brimful_l, places=9)


def _inside(line: Waterline) -> Array:
    """A point in the liquid's space: the middle of the surface at a third of the volume, or near it."""
    level = line.level(line.mesh.volume_mm3 / 3)
    pools = Pools(line)
    for share in (0.5, 0.3, 0.15, 0.05, 0.01):
        for loop in line.outline(level * share * 2):
            at = np.asarray(loop.mean(axis=0))
            try:
                pools.start_of(at)
            except NotInsideError:
                continue
            return at
    return reject()
