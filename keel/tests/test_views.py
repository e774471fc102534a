"""What the drawing is given: silhouettes, edges seen and hidden, cuts with what is in them."""

from unittest import TestCase

import numpy as np
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from shapely.geometry import MultiPolygon, Polygon

from keel.analysis.showing import Showing
from keel.design.attitude import Attitude, specific_force
from keel.design.document import Design
from keel.design.features import Partition
from keel.design.shell import CylinderShell
from keel.evaluation import evaluate
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.polyhedron import Waterline
from keel.solid.solids import AnyShell
from keel.studies.drawing.views import Ring, cut, views
from keel.tests.samples import PILOT, SADDLE, STEP, any_shells, box, well

SLOW = settings(suppress_health_check=[HealthCheck.filter_too_much, HealthCheck.too_slow], max_examples=8)


def area(rings: list[Ring]) -> float:
    """Area of rings, one inside another a hole."""
    total: Polygon | MultiPolygon = Polygon()
    for ring in rings:
        total = total.symmetric_difference(Polygon(ring).buffer(0))
    return float(total.area)


class Silhouettes(TestCase):
    """The shell from outside."""

    def test_sizes_and_holes(self) -> None:
        """A saddle's end view is its profile, its plan a rectangle; a cylinder on end is a circle."""
        seen = {view.name: view for view in views(build(SADDLE))}
        self.assertAlmostEqual(area(seen["end"].silhouette), 1100 * 420 - 300 * 220, delta=1)
        self.assertAlmostEqual(area(seen["plan"].silhouette), 1100 * 600, delta=1)
        standing = {view.name: view for view in views(build(CylinderShell(diameter_mm=200, run_mm=300)))}
        self.assertAlmostEqual(area(standing["plan"].silhouette), np.pi * 1e4, delta=5)
        self.assertAlmostEqual(area(standing["elevation"].silhouette), 200 * 300, delta=60)

    def test_a_well_is_seen_from_above_and_hidden_from_the_side(self) -> None:
        """Its mouth and bottom show in the plan; in elevation and end view its edges are dashed."""
        tank = build(box(800, 400, 350, features=(well(100, 100, 120, 80, 60),)))
        seen = {view.name: view for view in views(tank)}
        plan = np.array(seen["plan"].seen).reshape(-1, 2, 2)
        mouth = [line for line in plan if line[:, 0].min() > 50 and line[:, 0].max() < 300]
        self.assertGreaterEqual(len(mouth), 4)
        for name, depth in (("elevation", 290.0), ("end", 290.0)):
            hidden = np.array(seen[name].hidden).reshape(-1, 2, 2)  # type: ignore[index]
            bottom = [line for line in hidden if np.allclose(line[:, 1], depth)]
            self.assertTrue(bottom, name)
            shown = np.array(seen[name].seen).reshape(-1, 2, 2)  # type: ignore[index]
            self.assertFalse([line for line in shown if np.allclose(line[:, 1], depth)], name)


class Cuts(TestCase):
    """The shell cut open."""

    @given(any_shells(), st.floats(0.02, 0.98), st.floats(-40, 40), st.floats(-40, 40))
    @SLOW
    def test_the_fuel_in_every_cut_adds_up(self, shell: AnyShell, share: float, pitch: float, roll: float) -> None:
        """Cut in many thin slices along x, the fuel's areas sum to the fuel; none lies outside the metal."""
        try:
            solids = build(shell)
        except GeometryError:
            return
        attitude = Attitude(pitch_deg=pitch, roll_deg=roll)
        lines = [Waterline(cell.mesh, -specific_force(attitude)) for cell in solids.cells]
        levels = np.array([line.level(line.mesh.volume_mm3 * share) for line in lines])
        low, high = solids.bounds.low[0], solids.bounds.high[0]
        count = 24
        places = low + (np.arange(count) + 0.5) * (high - low) / count
        cuts = [cut(solids, "x", float(at), levels, attitude) for at in places]
        found = sum(area(one.fuel) for one in cuts) * (high - low) / count
        held = sum(line.mesh.volume_mm3 for line in lines) * share
        whole = sum(area(one.inner) for one in cuts) * (high - low) / count
        self.assertAlmostEqual(found, held, delta=0.08 * sum(line.mesh.volume_mm3 for line in lines))
        self.assertLessEqual(found, whole + 1)
        for one in cuts:
            self.assertLessEqual(area(one.inner), area(one.outer) + 1)

    def test_stations(self) -> None:
        """Through the hump, through a lobe, beyond the ends: held inside the shell."""
        solids, level = build(SADDLE), np.array([300.0])
        lobe = cut(solids, "y", 200, level, Attitude())
        hump = cut(solids, "y", 550, level, Attitude())
        self.assertAlmostEqual(area(lobe.fuel), 592 * 300, delta=1)
        self.assertAlmostEqual(area(hump.fuel), 592 * (304 - 224), delta=1)
        self.assertAlmostEqual(area(hump.outer), 600 * 200, delta=1)
        self.assertAlmostEqual(cut(solids, "y", 9000, level, Attitude()).at_mm, 1099.99, places=6)

    def test_cells_have_each_their_surface(self) -> None:
        """A tilted two-cell tank: two pieces of fuel in the lengthwise cut, apart by the wall."""
        wall = Partition(id="p", name="wall", axis="x", at_mm=300, thickness_mm=4)
        seen = evaluate(
            Design(shell=box(800, 400, 350, features=(wall,))),
            None,
            Showing(fill_fraction=0.5, attitude=Attitude(pitch_deg=8.0), remedies=False),
        )
        assert seen.shell.geometry is not None and seen.shell.fill is not None
        fuel = seen.shell.cuts[1].fuel
        self.assertEqual(len(fuel), 2)
        ends = sorted((min(x for x, _ in ring), max(x for x, _ in ring)) for ring in fuel)
        self.assertAlmostEqual(ends[1][0] - ends[0][1], 4, delta=0.02)
        self.assertEqual(len(seen.shell.fill.cells), 2)
        self.assertAlmostEqual(sum(cell.volume_l for cell in seen.shell.fill.cells), seen.shell.fill.volume_l, places=9)

    def test_pools_are_cut_where_they_lie(self) -> None:
        """The pilot boat's three pools in a right turn: sump, floor strip and on the relief, each where it is."""
        solids = build(PILOT)
        from keel.design.ports import Port
        from keel.studies.liquid.draining import drained

        turn = Attitude(left_g=-0.3)
        pickup = Port(id="p", name="p", role="pickup", x_mm=170, y_mm=300, z_mm=-50)
        held = drained(solids, (pickup,), turn)
        at_sump = cut(solids, "x", 170, np.array([100.0]), turn, held[0].pools)
        away = cut(solids, "x", 800, np.array([100.0]), turn, held[0].pools)
        self.assertEqual(len(at_sump.left), 3)
        self.assertEqual(len(away.left), 2)
        lows = sorted(min(z for ring in left.rings for _, z in ring) for left in at_sump.left)
        np.testing.assert_allclose(lows, [-55, 5, 75], atol=0.02)

    def test_wetted_area_of_a_step(self) -> None:
        """Floor, ledge and walls below a level, by hand."""
        line = Waterline(build(STEP).cells[0].mesh, np.array([0.0, 0.0, 1.0]))
        floor, low = 476 * 496, 100.0
        self.assertAlmostEqual(line.wetted(low), floor + low * 2 * (476 + 496), delta=1e-3)
        # Above the ledge: its floor counts too, and the longer walls.
        high = 200.0
        walls = 140 * 2 * (476 + 496) + (high - 140) * 2 * (896 + 496)
        self.assertAlmostEqual(line.wetted(high), floor + 420 * 496 + walls, delta=1e-3)
