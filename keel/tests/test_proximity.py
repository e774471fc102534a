"""Nearest places, least pushes and crossings of solids, against sampling and by hand."""

from math import dist
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import Manifold
from shapely.geometry import Polygon

from keel.solid.box import Cuboid
from keel.solid.envelope import Envelope
from keel.solid.polyhedron import Mesh
from keel.solid.proximity import crosses, least_push, nearest
from keel.solid.shapes import block, bounds_of, drawn_out, manifold_of, mesh_of, slice_rings
from keel.solid.way_out import push_out_of_box

PLACE = st.tuples(*[st.floats(-150, 150)] * 3)
TURN = st.tuples(*[st.floats(-180, 180)] * 3)
SIZE = st.tuples(*[st.floats(10, 120)] * 3)


def turned(
    size: tuple[float, float, float], turn: tuple[float, float, float], at: tuple[float, float, float]
) -> Manifold:
    """A box turned and moved."""
    return Manifold.cube(list(size), True).rotate(list(turn)).translate(list(at))


def spots(mesh: Mesh, count: int, seed: int) -> np.ndarray:
    """Places spread over a mesh's faces, shape (count, 3)."""
    chance = np.random.default_rng(seed)
    a, b, c = np.moveaxis(mesh.corners, 1, 0)
    weight = np.linalg.norm(np.cross(b - a, c - a), axis=1)
    pick = chance.choice(len(a), count, p=weight / weight.sum())
    u, v = chance.random((2, count))
    flip = u + v > 1
    u, v = np.where(flip, 1 - u, u), np.where(flip, 1 - v, v)
    return a[pick] + u[:, None] * (b - a)[pick] + v[:, None] * (c - a)[pick]


class Nearest(TestCase):
    """The nearest places of two surfaces."""

    @given(SIZE, TURN, PLACE, SIZE, TURN)
    @settings(max_examples=80)
    def test_no_sampled_pair_is_nearer(
        self,
        size: tuple[float, float, float],
        turn: tuple[float, float, float],
        at: tuple[float, float, float],
        other: tuple[float, float, float],
        other_turn: tuple[float, float, float],
    ) -> None:
        """The found places are that far apart, whichever comes first; no pair of hundreds sampled is nearer."""
        a, b = turned(size, turn, (0, 0, 0)), turned(other, other_turn, at)
        if not (a ^ b).is_empty():
            return
        first, second = mesh_of(a), mesh_of(b)
        found, back = nearest(first, second), nearest(second, first)
        self.assertAlmostEqual(found.distance, dist(found.start, found.end), places=6)
        self.assertAlmostEqual(found.distance, back.distance, places=6)
        apart = np.linalg.norm(spots(first, 300, 1)[:, None] - spots(second, 300, 2)[None], axis=2)
        self.assertLessEqual(found.distance, apart.min() + 1e-9)

    def test_by_hand(self) -> None:
        """Face to face, edge to edge askew, corner to corner."""
        cube = mesh_of(block((0, 0, 0), (10, 10, 10)))
        for low, distance in (((15, 2, 3), 5.0), ((13, 14, 0), 5.0), ((12, 13, 16), 7.0)):
            high = (low[0] + 4, low[1] + 4, low[2] + 4)
            self.assertAlmostEqual(nearest(cube, mesh_of(block(low, high))).distance, distance, places=9)
        edge = mesh_of(Manifold.cube([20, 20, 20], True).rotate([45, 0, 0]).translate([5, 5, 10 + 10 * 2**0.5 + 3]))
        self.assertAlmostEqual(nearest(cube, edge).distance, 3, places=6)


class Pushes(TestCase):
    """The least push that brings two solids apart."""

    @given(SIZE, PLACE, SIZE)
    @settings(max_examples=60)
    def test_boxes_by_their_overlap(
        self, size: tuple[float, float, float], at: tuple[float, float, float], other: tuple[float, float, float]
    ) -> None:
        """For two upright boxes it is the least of the six ways out, and having gone it they are clear."""
        a, b = turned(size, (0, 0, 0), (0, 0, 0)), turned(other, (0, 0, 0), at)
        box, far = bounds_of(a), bounds_of(b)
        ways = [min(box.high[i] - far.low[i], far.high[i] - box.low[i]) for i in range(3)]
        push = least_push([a], b)
        if min(ways) <= 1e-3:
            return
        self.assertAlmostEqual(push.mm, min(ways), places=5)
        self.assertLess(float((a.translate(list(push.way * (push.mm + 1e-6))) ^ b).volume()), 1e-2)

    @given(SIZE, TURN, PLACE)
    @settings(max_examples=40)
    def test_any_solids_are_clear_after_it(
        self, size: tuple[float, float, float], turn: tuple[float, float, float], at: tuple[float, float, float]
    ) -> None:
        """Turned boxes and an L that they may sit in: after the push nothing is shared."""
        corner = block((-100, -100, -100), (100, 100, 100)) - block((0, 0, -100), (100, 100, 100))
        thing = turned(size, turn, at)
        push = least_push([thing], corner)
        self.assertLess(float((thing.translate(list(push.way * (push.mm + 1e-5))) ^ corner).volume()), 1e-2)
        if push.mm:
            self.assertGreater(float((thing ^ corner).volume()), 0)


def shared_mm3(parts: list[Manifold], solid: Manifold, off: np.ndarray) -> float:
    """What parts, moved so far, share with a solid [mm³]."""
    return sum(float((part.translate(list(off)) ^ solid).volume()) for part in parts)


class WaysOut(TestCase):
    """The way out of a box, from the triangles in its shadow, against booleans."""

    @given(SIZE, TURN, PLACE, SIZE, PLACE, st.booleans())
    @settings(max_examples=80)
    def test_the_least_way_out(
        self,
        size: tuple[float, float, float],
        turn: tuple[float, float, float],
        at: tuple[float, float, float],
        other: tuple[float, float, float],
        other_at: tuple[float, float, float],
        pierced: bool,
    ) -> None:
        """A turned box and an L-shaped tank, a shaft through it: gone so far it is clear, gone less along any axis not.

        It is longer than the steps of `least_push` only where those leave a corner behind.
        """
        tank = block((-100, -100, -100), (100, 100, 100)) - block((0, 0, -100), (100, 100, 100))
        parts = [tank - Manifold.cube([60, 60, 300], True) if pierced else tank, turned(size, turn, at)]
        box = bounds_of(turned(other, (0, 0, 0), other_at))
        solid = block(box.low, box.high)
        found = push_out_of_box(parts, Envelope(parts, box, mesh_of(parts[0]), []).mesh, box)
        steps = least_push(parts, solid)
        if found.mm > steps.mm + 1e-3:  # a corner of less than a thousandth of a cubic millimetre is none to it
            self.assertGreater(shared_mm3(parts, solid, steps.way * steps.mm), 0)
        self.assertLess(shared_mm3(parts, solid, found.way * found.mm), 1e-2)
        if found.mm < 0.1:
            return
        self.assertTrue(np.all(found.middle > box.low) and np.all(found.middle < box.high))
        for way in np.vstack([np.eye(3), -np.eye(3)]):
            for share in (0.3, 0.6, 0.9):
                self.assertGreater(shared_mm3(parts, solid, way * found.mm * share), 0)

    def test_a_tank_that_fills_the_shadow(self) -> None:
        """No surface crosses the box's shadow between floor and lid: out by the nearer of them."""
        tank = block((0, 0, 0), (400, 400, 300))
        push = push_out_of_box([tank], mesh_of(tank), Cuboid((150, 150, 120), (250, 250, 140)))
        self.assertAlmostEqual(push.mm, 140, places=6)
        np.testing.assert_array_equal(push.way, [0, 0, 1])
        self.assertEqual(push_out_of_box([tank], mesh_of(tank), Cuboid((0, 0, 300), (9, 9, 310))).mm, 0)


class Crossing(TestCase):
    """Whether surfaces pass through each other."""

    def test_edges_through_faces(self) -> None:
        """Overlapping boxes cross, one inside another and one beside another don't."""
        cube = mesh_of(block((0, 0, 0), (10, 10, 10)))
        for low, high, expected in (
            ((5, 5, 5), (15, 15, 15), True),
            ((2, 2, 2), (4, 4, 4), False),
            ((20, 0, 0), (30, 10, 10), False),
            ((4, 4, -5), (6, 6, 15), True),
        ):
            other = mesh_of(block(low, high))
            self.assertEqual(crosses(cube, other) or crosses(other, cube), expected, low)


class Shapes(TestCase):
    """Solids drawn out and cut."""

    @given(st.sampled_from([0, 1, 2]), st.floats(-50, 50), st.floats(5, 100), st.floats(0.05, 0.95))
    @settings(max_examples=30)
    def test_a_slice_is_the_outline(self, axis: int, start: float, run: float, share: float) -> None:
        """An L drawn out along any axis, cut anywhere, gives the L back, the right way round and unmirrored."""
        ring = np.array([(0.0, 0.0), (40.0, 0.0), (40.0, 10.0), (15.0, 10.0), (15.0, 60.0), (0.0, 60.0)])
        solid = drawn_out(ring, axis, start, start + run)
        box = bounds_of(solid)
        self.assertAlmostEqual(box.low[axis], start, places=9)
        self.assertAlmostEqual(box.size[axis], run, places=9)
        rings = slice_rings(solid, axis, start + share * run)
        self.assertEqual(len(rings), 1)
        self.assertAlmostEqual(Polygon(rings[0]).symmetric_difference(Polygon(ring)).area, 0, places=6)
        x, y = rings[0].T
        self.assertGreater(float(x @ np.roll(y, -1) - y @ np.roll(x, -1)), 0)

    def test_there_and_back(self) -> None:
        """A mesh made of a solid makes the same solid again."""
        solid = turned((30, 20, 10), (10, 20, 30), (1, 2, 3))
        self.assertAlmostEqual(float(manifold_of(mesh_of(solid)).volume()), 6000, places=6)
