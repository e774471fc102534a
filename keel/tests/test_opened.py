"""Flats with something cut out of them, moved and turned over; a solid where any plane cuts it."""

from math import cos, pi, sin
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import Manifold
from shapely import affinity
from shapely.geometry import MultiPolygon, Point, Polygon, box

from keel.solid.planes import cut_by, polygons_of
from keel.solid.polyhedron import Array
from keel.studies.sheet.lying import lying
from keel.studies.sheet.model import flat_part
from keel.studies.sheet.opened import moved, opened_part, turned_over
from keel.studies.sheet.parts import Bend, Bore, FlatPart, Mark, Place, rectangle

LONG, WIDE, T = 300.0, 120.0, 2.0
COORDINATE = st.integers(-600, 3400).map(lambda tenths: tenths / 10)
SIZE = st.integers(50, 2000).map(lambda tenths: tenths / 10)


def part() -> FlatPart:
    """A plate of 300 × 120 with a bend across it at 200, a mark along it, two holes, lying somewhere in space."""
    bend = Bend((200.0, 0.0), (200.0, WIDE), "up", 90, 3.0, 1, 4.0)
    matrix = np.eye(4)
    matrix[:3, :3] = turn(0.4, -0.7)
    matrix[:3, 3] = 10, 20, 30
    made = flat_part(
        "5052-H32",
        name="plate",
        title="Plate",
        quantity=1,
        thickness_mm=T,
        outline=rectangle(LONG, WIDE),
        bends=[bend],
        marks=[Mark((20.0, 60.0), (180.0, 60.0), "wall")],
        note="",
        places=[Place("plate", (50.0, 60.0), matrix.ravel().tolist())],
    )
    bores = [Bore("a", "a", (40.0, 30.0), 20.0), Bore("b", "b", (260.0, 90.0), 30.0)]
    return FlatPart(**{name: getattr(made, name) for name in made.__slots__} | {"bores": bores})


def turn(about_z: float, about_x: float) -> Array:
    """Two turns, one after the other."""
    a = np.array([[cos(about_z), -sin(about_z), 0], [sin(about_z), cos(about_z), 0], [0, 0, 1]])
    b = np.array([[1, 0, 0], [0, cos(about_x), -sin(about_x)], [0, sin(about_x), cos(about_x)]])
    return np.asarray(a @ b)


def where(flat: FlatPart) -> dict[str, Array]:
    """Where a part's holes' middles lie in the tank once its bend is made, on its inside and outside; by port."""
    piece = lying(flat, flat.places[0])
    found = {}
    for bore in flat.bores:
        panel = next(p for p in piece.panels if Polygon(p.outline).buffer(1e-6).covers(Point(bore.middle)))
        ends = np.array([[*bore.middle, piece.outside, 1.0]]) @ panel.matrix.T
        found[bore.port] = ends[0, :3]
    return found


class Moved(TestCase):
    """A part elsewhere on its flat, or over."""

    @given(st.floats(-500, 500), st.floats(-500, 500))
    def test_it_lies_where_it_lay(self, u: float, v: float) -> None:
        """Moved about on its flat, every hole is where it was in the tank; moved back it is the same part."""
        flat = part()
        there = moved(flat, u, v)
        for port, place in where(there).items():
            np.testing.assert_allclose(place, where(flat)[port], atol=1e-9)
        back = moved(there, -u, -v)
        np.testing.assert_allclose(back.outline, flat.outline, atol=1e-9)
        self.assertIs(moved(flat, 0.0, 0.0), flat)

    def test_turned_over(self) -> None:
        """Seen from the other side up is down; the outside that was far is near, and twice over it is as it was."""
        flat = part()
        over = turned_over(flat)
        self.assertEqual([bend.direction for bend in over.bends], ["down"])
        self.assertEqual(over.bores[0].middle, (LONG - 40.0, 30.0))
        self.assertTrue(over.places[0].turned)
        self.assertTrue(Polygon(over.outline).exterior.is_ccw)
        for port, place in where(over).items():
            np.testing.assert_allclose(place, where(flat)[port], atol=1e-9)
        again = turned_over(over)
        self.assertEqual((again.bends, again.marks), (flat.bends, flat.marks))
        np.testing.assert_allclose(again.places[0].matrix, flat.places[0].matrix, atol=1e-9)


class Opened(TestCase):
    """A part with something cut out of it."""

    @settings(max_examples=60, deadline=None)
    @given(COORDINATE, COORDINATE, SIZE, SIZE, st.floats(0, 90))
    def test_nothing_is_lost(self, u: float, v: float, long: float, wide: float, deg: float) -> None:
        """Its pieces and what was cut out are together what it was, by area and mass; each from its own datum edges."""
        opening = affinity.rotate(box(u, v, u + long, v + wide), deg)
        flat = part()
        pieces = opened_part(flat, opening)
        left = Polygon(flat.outline).difference(opening)
        self.assertAlmostEqual(sum(one.area_mm2 for one in pieces), left.area, delta=2.0)
        self.assertAlmostEqual(
            sum(one.mass_kg for one in pieces) * flat.area_mm2, flat.mass_kg * left.area, delta=2.0 * flat.mass_kg
        )
        for number, one in enumerate(pieces):
            sheet = Polygon(one.outline, one.holes)
            self.assertTrue(sheet.is_valid)
            self.assertTrue(sheet.exterior.is_ccw)
            np.testing.assert_allclose(sheet.bounds, (0, 0, one.length_mm, one.width_mm), atol=1e-6)
            self.assertEqual(one.name, "plate" if number == 0 else f"plate-piece-{number + 1}")
            for bend in one.bends:
                middle = (bend.start[0] + bend.end[0]) / 2, (bend.start[1] + bend.end[1]) / 2
                self.assertTrue(sheet.buffer(1e-6).covers(Point(middle)), "a bend over air")
        if pieces:
            self.assertEqual(max(one.area_mm2 for one in pieces), pieces[0].area_mm2)

    @settings(max_examples=30, deadline=None)
    @given(st.floats(10, 180), st.floats(4, 60))
    def test_each_piece_lies_where_it_lay(self, at: float, wide: float) -> None:
        """Parted right across, both pieces' holes are where they were in the tank, on whichever side the base is."""
        flat = part()
        pieces = opened_part(flat, box(at, -10, at + wide, WIDE + 10))
        self.assertEqual(len(pieces), 2)
        kept = {bore.port for one in pieces for bore in one.bores}
        self.assertEqual(kept, {bore.port for bore in flat.bores if not at < bore.middle[0] < at + wide})
        for one in pieces:
            for port, place in where(one).items():
                np.testing.assert_allclose(place, where(flat)[port], atol=1e-6)

    def test_lines_stop_at_it(self) -> None:
        """A window over bend and mark: both go on beyond it, and none of it is left where it takes all."""
        (one,) = opened_part(part(), box(150, 40, 230, 80))
        self.assertEqual(sorted((bend.start[1], bend.end[1]) for bend in one.bends), [(0.0, 40.0), (80.0, WIDE)])
        self.assertEqual([(mark.start[0], mark.end[0]) for mark in one.marks], [(20.0, 150.0)])
        self.assertEqual([len(one.holes), len(one.outline)], [1, 4])
        self.assertEqual(opened_part(part(), box(-1, -1, LONG + 1, WIDE + 1)), [])
        self.assertEqual(opened_part(part(), None), [part()])


class Planes(TestCase):
    """A solid where a plane cuts it."""

    @settings(max_examples=40, deadline=None)
    @given(st.floats(-3, 3), st.floats(-3, 3), st.floats(-40, 40))
    def test_a_sphere_by_any_plane(self, about_z: float, about_x: float, w: float) -> None:
        """A disc about the middle, as large as its distance leaves."""
        ball = Manifold.sphere(50, 256).translate((7, -3, 11))
        matrix = np.eye(4)
        matrix[:3, :3] = turn(about_z, about_x)
        matrix[:3, 3] = 7, -3, 11
        (disc,) = polygons_of(cut_by(ball, matrix, w))
        self.assertAlmostEqual(disc.area / (pi * (50**2 - w**2)), 1, delta=3e-3)
        self.assertLess(Point(0, 0).distance(disc.centroid), 0.1)

    def test_holes_and_pieces(self) -> None:
        """A tube is a ring, two blocks are two shapes, beside a solid there is nothing."""
        tube = Manifold.cylinder(40, 20, 20, 64) - Manifold.cylinder(40, 10, 10, 64)
        (ring,) = polygons_of(cut_by(tube, np.eye(4), 20.0))
        self.assertEqual(len(ring.interiors), 1)
        blocks = Manifold.cube((5, 5, 5)) + Manifold.cube((5, 5, 5)).translate((9, 0, 0))
        self.assertEqual(len(polygons_of(cut_by(blocks, np.eye(4), 2.0))), 2)
        self.assertTrue(cut_by(blocks, np.eye(4), 9.0).is_empty)
        self.assertEqual(polygons_of(MultiPolygon()), [])
