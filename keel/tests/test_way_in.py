"""The way in: boxes tilted round a corner to the millimetre, ways that touch nothing, what stops the others."""

from itertools import pairwise
from math import radians
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import Manifold, OpType
from shapely import Polygon, unary_union
from shapely import box as rectangle_of

from keel.analysis.parts import ENVELOPE, SOLIDS
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.solid.shapes import block
from keel.solid.tilting.convex import convex_pieces, forbidden
from keel.solid.tilting.corner import Corner, rod_limit_mm
from keel.solid.tilting.gaps import depth, frames_of, nearest
from keel.solid.tilting.scene import TURNS, Piece, pieces_of, rectangle, spans_of
from keel.solid.tilting.search import Pose, Search, StoppedError
from keel.studies.mount.holding_solids import stop_solid
from keel.studies.mount.way_in import WayIn, way_in
from keel.tests.samples import box

LENGTHS = [640.0, 300.0, 560.0, 760.0, 784.0, 788.6]
THICK = [105.0, 260.0, 150.0, 75.0, 120.0, 120.0]
FAR = 5000.0
EVER = (-1e4, 1e4)


def round_the_corner(
    long: float, thick: float, play: float = 0.0, widths: tuple[float, float] = (420.0, 310.0)
) -> Search:
    """A box in one corridor that has to get into the other."""
    first, second = widths
    walls = [
        rectangle("outer wall of the first", (-FAR, -FAR), (FAR, 0.0), EVER),
        rectangle("outer wall of the second", (second, -FAR), (FAR, FAR), EVER),
        rectangle("inner corner", (-FAR, first), (0.0, FAR), EVER),
    ]
    middle = (-1500.0, first / 2)
    half = (long / 2 + play, thick / 2 + play)
    low, high = np.subtract(middle, half), np.add(middle, half)
    moving = [rectangle("box", low, high, (0.0, 10.0))]
    return Search(moving, walls, middle, (-2500, -600, 900, 3000), rectangle_of(-600, 2000, 900, 3000))


class RoundACorner(TestCase):
    """Six boxes, one refused by two millimetres, one that only slides."""

    corner = Corner(420.0, 310.0)

    def test_in_closed_form(self) -> None:
        limits = [816.9601149, 499.7688017, 725.9033826, 877.4900985, 786.6489465, 786.6489465]
        leans = [41.00512429, 35.60180185, 40.22205435, 41.3971463, 40.77475177, 40.77475177]
        needed = [291.1871381, 272.5009078, 298.1833858, 333.6529257, 417.9949336, 421.4780049]
        for long, thick, limit, lean, width in zip(LENGTHS, THICK, limits, leans, needed, strict=True):
            found, angle = self.corner.longest_mm(thick)
            self.assertAlmostEqual(found, limit, delta=0.05)
            self.assertAlmostEqual(angle, lean, delta=0.2)
            self.assertAlmostEqual(self.corner.first_needed_mm(long, thick), width, delta=0.05)
        passes = [self.corner.passes(*one) for one in zip(LENGTHS, THICK, strict=True)]
        self.assertEqual(passes, [True, True, True, True, True, False])
        slides = [self.corner.slides(*one) for one in zip(LENGTHS, THICK, strict=True)]
        self.assertEqual(slides, [False, True, False, False, False, False])
        roomy = [self.corner.passes(*one, 10.0) for one in zip(LENGTHS, THICK, strict=True)]
        self.assertEqual(roomy, [True, True, True, True, False, False])
        self.assertAlmostEqual(rod_limit_mm(420.0, 310.0), 1028.448296, delta=0.05)

    def test_by_search(self) -> None:
        for play in (0.0, 10.0):
            for long, thick in zip(LENGTHS, THICK, strict=True):
                with self.subTest(long=long, thick=thick, play=play):
                    search = round_the_corner(long, thick, play)
                    self.assertEqual(search.found().passes, self.corner.passes(long, thick, play))

    @settings(max_examples=12, deadline=None)
    @given(st.floats(250, 600), st.floats(250, 600), st.floats(40, 200), st.sampled_from([-2.0, 2.0]))
    def test_two_millimetres_either_way_decide(self, first: float, second: float, thick: float, more: float) -> None:
        corner = Corner(first, second)
        long = corner.longest_mm(thick)[0] + more
        if corner.slides(long, thick) or long < thick:
            return
        self.assertEqual(round_the_corner(long, thick, widths=(first, second)).found().passes, more < 0)

    def test_the_way_touches_nothing(self) -> None:
        search = round_the_corner(784.0, 120.0)
        frames = frames_of(search.found().way)
        near = nearest(search.moving, search.fixed, search.middle, frames)
        assert near is not None
        self.assertGreater(near.gap_mm, -0.05)
        self.assertLess(near.gap_mm, 3.0)

    def test_it_stops_when_it_is_told_to(self) -> None:
        search = round_the_corner(784.0, 120.0)

        def enough(share: float) -> None:
            self.assertLessEqual(share, 1.0)
            raise StoppedError

        search.go_on = enough
        with self.assertRaises(StoppedError):
            search.found()


class Pieces(TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.integers(0, 10**9))
    def test_convex_pieces_cover_their_outline_and_no_more(self, seed: int) -> None:
        rng = np.random.default_rng(seed)
        angles = np.sort(rng.uniform(0, 2 * np.pi, int(rng.integers(4, 14))))
        if np.diff(angles, append=angles[0] + 2 * np.pi).max() > 3.0:
            return
        radii = rng.uniform(40, 200, len(angles))
        outline = Polygon(np.column_stack([radii * np.cos(angles), radii * np.sin(angles)]))
        if not outline.is_valid or outline.area < 100:
            return
        pieces = [Polygon(ring) for ring in convex_pieces(outline)]
        whole = unary_union(pieces)
        self.assertLess(outline.symmetric_difference(whole).area, 2e-3 * outline.area)
        for piece in pieces:
            self.assertLess(piece.convex_hull.area - piece.area, 1e-3 * outline.area)

    @settings(max_examples=60, deadline=None)
    @given(st.integers(0, 10**9))
    def test_forbidden_places_are_those_of_overlap(self, seed: int) -> None:
        rng = np.random.default_rng(seed)
        a, b = (np.array(Polygon(rng.uniform(-100, 100, (9, 2))).convex_hull.exterior.coords)[:-1] for _ in range(2))
        a, b = (ring if Polygon(ring).exterior.is_ccw else ring[::-1] for ring in (a, b))
        taken = forbidden([a], [b], np.ones((1, 1), dtype=bool))[0]
        for place in rng.uniform(-260, 260, (40, 2)):
            overlap = Polygon(a).intersection(Polygon(b + place)).area
            self.assertEqual(
                overlap > 1e-6, taken.buffer(-1e-6).contains(Polygon(b[:3] * 1e-9 + place).centroid), place
            )

    @settings(max_examples=40, deadline=None)
    @given(st.floats(-150, 150), st.floats(-150, 150))
    def test_depth_is_the_least_push_apart(self, u: float, v: float) -> None:
        a = np.array([(0.0, 0.0), (100.0, 0.0), (100.0, 80.0), (0.0, 80.0)])
        wanted = max(0.0, min(100 - abs(u), 80 - abs(v)))
        self.assertAlmostEqual(depth(a, a + np.array([u, v])), wanted, places=6)

    def test_a_solid_is_enclosed_seen_along_each_axis(self) -> None:
        solid = block((0, 0, 0), (300, 200, 100)) - block((100, 50, 40), (200, 150, 101))
        for axis in range(3):
            rows = np.array(TURNS[axis])
            first, second = int(np.argmax(rows[0])), int(np.argmax(rows[1]))
            self.assertAlmostEqual(float(np.linalg.det(rows)), 1.0)
            size = (300, 200, 100)
            whole = unary_union([Polygon(piece.ring) for piece in pieces_of("it", solid, axis)])
            self.assertAlmostEqual(whole.area, size[first] * size[second], delta=1.0)

    def test_shifts_are_parted_where_what_meets_changes(self) -> None:
        moving = [Piece("it", np.zeros((3, 2)), 0.0, 100.0)]
        fixed = [Piece("post", np.zeros((3, 2)), 150.0, 160.0)]
        spans = spans_of(moving, fixed, 400.0)
        free = [span for span in spans if not span.meets.any()]
        self.assertIn((0.0, 0.0), [(span.low, span.high) for span in free])
        taken = [(span.low, span.high) for span in spans if span.meets.any()]
        self.assertEqual(taken, [(50.0, 160.0)])


BAY: dict[str, Any] = {"length_mm": 700.0, "width_mm": 500.0, "height_mm": 500.0}


def asked(bay: dict[str, Any], shell: dict[str, Any], play: float = 0.0, **more: Any) -> WayIn:
    """The way into a bay."""
    document = Design.model_validate({"bay": BAY | bay, "shell": box().model_dump() | shell} | more)
    tank = TankAnalysis(Asked(document, Workshop()))
    assert document.bay is not None
    found = way_in(document.bay, tank[ENVELOPE], tank[SOLIDS], {}, document.mount, play)
    assert found is not None
    return found


def turned(solid: Manifold, way: WayIn, number: int) -> Manifold:
    """A solid at a frame of a way, by the solid modeller's own turning."""
    frame = way.frames[number]
    middle = {way.across: way.middle[0], way.up: way.middle[1], way.tilts_about: 0.0}
    at = np.array([middle[axis] for axis in "xyz"])
    angles = [frame.angle_deg if axis == way.tilts_about else 0.0 for axis in "xyz"]
    moved = solid.translate(list(-at)).rotate(angles).translate(list(at))
    return moved.translate([frame.x_mm, frame.y_mm, frame.z_mm])


class IntoABay(TestCase):
    """A slot in the roof at the front end: a long tank has to be tilted in and levelled under the roof."""

    opening: dict[str, Any] = {"side": "roof", "a_mm": 20.0, "b_mm": 10.0, "long_mm": 330.0, "wide_mm": 480.0}
    tank: dict[str, Any] = {"length_mm": 640.0, "width_mm": 400.0, "height_mm": 120.0, "x_mm": 30.0, "y_mm": 50.0}

    tank |= {"z_mm": 20.0, "bend_radius_mm": 0.0}

    def found(self, **more: Any) -> WayIn:
        return asked({"opening": self.opening}, self.tank | more)

    def test_it_is_tilted_in(self) -> None:
        way = self.found()
        self.assertTrue(way.passes)
        self.assertEqual(way.tilts_about, "y")
        self.assertGreater(way.most_deg, 15.0)
        self.assertEqual(way.off, [])

    def test_every_frame_is_free_by_another_reckoning(self) -> None:
        way = self.found()
        document = Design.model_validate(
            {
                "bay": BAY | {"opening": self.opening},
                "shell": box().model_dump() | self.tank,
            }
        )
        solid = TankAnalysis(Asked(document, Workshop()))[ENVELOPE].solid
        o, roof = self.opening, 500.0
        hole = block((o["a_mm"], o["b_mm"], roof - 1), (o["a_mm"] + o["long_mm"], o["b_mm"] + o["wide_mm"], roof + 9))
        panel = block((-900, -900, roof), (1600, 1400, roof + 2)) - hole
        around = block((-900, -900, -900), (1600, 1400, roof)) - block((0, 0, 0), (700, 500, roof + 1))
        stands = Manifold.batch_boolean([panel, around], OpType.Add)
        for number in range(0, len(way.frames), 3):
            shared = float((turned(solid, way, number) ^ stands).volume())
            self.assertLess(shared, 40.0, way.frames[number])
        last = turned(solid, way, len(way.frames) - 1).bounding_box()
        self.assertGreater(last[2], roof)

    def test_too_long_is_refused_with_what_is_lacking(self) -> None:
        way = self.found(height_mm=330.0)
        self.assertFalse(way.passes)
        self.assertLess(way.room_mm, -1.0)
        self.assertTrue(way.fixed)
        less = -way.room_mm
        size = {"length_mm": 640.0 - 2 * less, "height_mm": 330.0 - 2 * less, "width_mm": 400.0 - 2 * less}
        smaller = self.found(x_mm=30.0 + less, z_mm=20.0 + less, **size)
        self.assertTrue(smaller.passes)

    def test_a_keep_out_in_the_way_is_named(self) -> None:
        post = {"kind": "box", "id": "post", "name": "post", "x_mm": 60.0, "y_mm": 200.0, "z_mm": 250.0}
        post |= {"length_mm": 260.0, "width_mm": 60.0, "height_mm": 240.0}
        way = asked({"opening": self.opening, "keep_outs": [post]}, self.tank)
        self.assertFalse(way.passes)
        self.assertIn("post", (way.moving, way.fixed))

    def test_what_comes_off_is_taken_off_only_where_it_must_be(self) -> None:
        neck = {"id": "n", "name": "tall hose", "role": "vent", "x_mm": 320.0, "y_mm": 200.0, "z_mm": 118.0}
        neck |= {"stands_mm": 260.0, "across_mm": 60.0, "seat": {"kind": "flange", "hole_mm": 40.0, "outer_mm": 90.0}}
        low = {
            "id": "l",
            "name": "drain plug",
            "role": "drain",
            "x_mm": 40.0,
            "y_mm": 40.0,
            "z_mm": 0.0,
            "face": "floor",
        }
        way = asked({"opening": self.opening}, self.tank, ports=[neck, low])
        self.assertTrue(way.passes)
        self.assertEqual(way.off, ["tall hose"])

    def test_a_bar_over_the_tank_is_off_and_one_under_it_may_stay(self) -> None:
        bar = {"along": "y", "low_mm": 20.0, "high_mm": 480.0, "at_mm": 200.0}
        under = bar | {"id": "under", "name": "cradle bar", "stands": "under", "outer_mm": 15.0}
        over = bar | {"id": "over", "name": "cage bar", "stands": "over"}
        way = asked({"opening": self.opening}, self.tank, mount={"bearers": [under, over]})
        self.assertTrue(way.passes)
        self.assertEqual(way.off, ["cage bar"])
        self.assertNotIn("cradle bar", (way.moving, way.fixed))

    def test_it_passes_the_stops_that_stay(self) -> None:
        stops = [
            {"id": "f", "name": "front stop", "side": "front", "x_mm": 672.0, "y_mm": 250.0, "z_mm": 60.0},
            {"id": "r", "name": "rear stop", "side": "rear", "x_mm": 28.0, "y_mm": 250.0, "z_mm": 60.0},
            {"id": "l", "name": "left stop", "side": "left", "x_mm": 350.0, "y_mm": 452.0, "z_mm": 60.0},
        ]
        stops = [stop | {"base_mm": 20.0, "arm_mm": 30.0} for stop in stops]
        for play in (0.0, 3.0):
            way = asked({"opening": self.opening}, self.tank, play, mount={"stops": stops})
            self.assertTrue(way.passes)
            document = Design.model_validate({"shell": box().model_dump() | self.tank, "mount": {"stops": stops}})
            solid = TankAnalysis(Asked(document, Workshop()))[ENVELOPE].solid
            for stop in document.mount.stops:
                if stop.name in way.off:
                    continue
                met = [(turned(solid, way, n) ^ stop_solid(stop)).volume() for n in range(0, len(way.frames), 2)]
                self.assertLess(max(met), 60.0, (stop.name, play))

    def test_a_welded_foot_goes_in_with_it(self) -> None:
        foot = {"id": "f", "name": "left foot", "x_mm": 200.0, "z_mm": 30.0, "weld_mm": 60.0}
        ways = {
            y: asked({"opening": self.opening}, self.tank, mount={"feet": [foot | {"y_mm": y}]}) for y in (470.0, 485.0)
        }
        self.assertTrue(ways[470.0].passes)
        self.assertIn("left foot", {piece.name for piece in ways[470.0].pieces})
        # Its washer reaches beyond the opening there.
        self.assertFalse(ways[485.0].passes)
        self.assertEqual(ways[485.0].moving, "left foot")

    def test_without_an_opening_there_is_nothing_to_search(self) -> None:
        document = Design.model_validate({"bay": BAY, "shell": box().model_dump() | self.tank})
        tank = TankAnalysis(Asked(document, Workshop()))
        assert document.bay is not None
        self.assertIsNone(way_in(document.bay, tank[ENVELOPE], tank[SOLIDS], {}, document.mount))

    def test_frames_are_close_together(self) -> None:
        frames = frames_of([Pose(0, 0, 0, 0), Pose(100, 0, 0, 0), Pose(100, 0, 0, 33), Pose(100, 0, 50, 33)])
        for a, b in pairwise(frames):
            self.assertLessEqual(abs(b.angle_deg - a.angle_deg), 1.0 + 1e-9)
            self.assertLessEqual(np.hypot(b.u - a.u, b.v - a.v), 8.0 + 1e-9)
        self.assertEqual((frames[-1].across, radians(frames[-1].angle_deg)), (50.0, radians(33.0)))
