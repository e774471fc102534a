"""Tubes and hoses in space: worked cases, and tables that are carried out."""

import csv
import io
from typing import Any, ClassVar
from unittest import TestCase

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from keel.analysis.tank import TankAnalysis
from keel.design.workshop import Workshop
from keel.formats.lines import bends_csv
from keel.routes.hose import clocking, cut_length, s_route
from keel.routes.rounded import rounded
from keel.routes.tube import bend_table, carried_out
from keel.studies.lines.hoses import HOSES, HoseCut
from keel.studies.lines.tubes import TUBES
from keel.tests.line_samples import PARTS, RUNS, Item, analysed, codes, plumbed, replaced

coordinate = st.integers(-400, 400).map(float)
corners = st.lists(st.tuples(coordinate, coordinate, coordinate), min_size=3, max_size=7, unique=True)


class Tubes(TestCase):
    """Bend tables."""

    def test_two_bends_square_to_each_other(self) -> None:
        """The table that is given to every apprentice."""
        points = np.array([[0, 0, 0], [300, 0, 0], [300, 200, 0], [300, 200, 150]], float)
        table = bend_table(points, 25.0, 8.0)
        np.testing.assert_allclose(table.straights_mm, [275, 150, 125])
        np.testing.assert_allclose([bend.angle_deg for bend in table.bends], [90, 90])
        self.assertAlmostEqual(table.bends[1].rotation_deg, 90.0)
        self.assertAlmostEqual(table.cut_mm, 628.54, places=2)
        self.assertEqual((table.rough_mm - table.cut_mm, table.least_grip_mm), (10.0, 16.0))

    def test_three_bends_out_of_plane(self) -> None:
        """Springback from a strip, a straight that is too short for the bender."""
        points = np.array([[0, 0, 0], [240, 0, 0], [240, 76, 30], [420, 156, 30], [420, 156, -200]], float)
        strip = list(zip([0, 30, 60, 90, 120], [0.0, 1.1, 1.9, 2.6, 3.2], strict=True))
        table = bend_table(points, 30.0, 10.0, bender_grip_mm=34.0, springback=strip)
        np.testing.assert_allclose(table.straights_mm, [210.0, 31.54600748, 146.8163707, 200.0], atol=1e-6)
        np.testing.assert_allclose([bend.angle_deg for bend in table.bends], [90.0, 67.80426814, 90.0], atol=1e-7)
        turned = [bend.rotation_deg for bend in table.bends]
        np.testing.assert_allclose(turned, [0.0, -170.731873, 66.63722733], atol=1e-6)
        np.testing.assert_allclose([bend.set_deg for bend in table.bends], [92.6, 69.88636773, 92.6], atol=1e-7)
        np.testing.assert_allclose([bend.feed_mm for bend in table.bends], [210.0, 288.6698973, 470.9884997], atol=1e-6)
        np.testing.assert_allclose([table.cut_mm, table.rough_mm], [718.1123895, 728.1123895], atol=1e-6)
        self.assertEqual(table.short, [False, True, False, False])

    @settings(max_examples=500, deadline=None)
    @given(corners, st.integers(5, 60))
    def test_a_table_carried_out_meets_the_way(self, points: list[tuple[float, ...]], radius: int) -> None:
        """Fed, turned and bent: the same corners, whatever the way."""
        given_points = np.array(points)
        steps = np.diff(given_points, axis=0)
        ways = steps / np.linalg.norm(steps, axis=1)[:, None]
        turns = (ways[:-1] * ways[1:]).sum(axis=1)
        assume((turns > -0.999).all())
        way = rounded(given_points, float(radius))
        table = bend_table(given_points, float(radius), 8.0)
        normal = np.cross(way.ways[0], way.ways[1]) if len(way.angles) else np.array([0.0, 0.0, 1.0])
        normal = normal / np.linalg.norm(normal)
        made = carried_out(table, float(radius), way.corners[0], way.ways[0], normal)
        np.testing.assert_allclose(made, way.corners, atol=1e-6)

    @settings(max_examples=50, deadline=None)
    @given(corners)
    def test_arcs_are_as_long_as_they_are_drawn(self, points: list[tuple[float, ...]]) -> None:
        """Chords of a small radius add up to straights and arcs, a thousandth short at most."""
        given_points = np.array(points)
        steps = np.diff(given_points, axis=0)
        ways = steps / np.linalg.norm(steps, axis=1)[:, None]
        assume(((ways[:-1] * ways[1:]).sum(axis=1) > -0.9).all())
        way = rounded(given_points, 1.0)
        assume((way.straights_mm > 0).all())
        drawn = float(np.linalg.norm(np.diff(way.line(), axis=0), axis=1).sum())
        self.assertLessEqual(drawn, way.length_mm + 1e-9)
        self.assertGreater(drawn, way.length_mm - 1e-3 * float(way.angles.sum()) - 1e-9)

    def test_what_is_no_way(self) -> None:
        """One point, or back on itself."""
        for points in ([[0, 0, 0], [0, 0, 0]], [[0, 0, 0], [100, 0, 0], [0, 0, 0]]):
            with self.assertRaises(ValueError):
                rounded(np.array(points, float), 10.0)


class Hoses(TestCase):
    """Cut lengths and elbows."""

    def test_round_two_corners(self) -> None:
        """Length less fittings with slack and movement; elbows clocked by carrying a direction along."""
        points = np.array([[0, 0, 0], [260, 0, 0], [260, 310, 0], [260, 310, 190]], float)
        way = rounded(points, 85.0)
        self.assertAlmostEqual(way.length_mm, 687.0353756, places=6)
        np.testing.assert_allclose(way.straights_mm, [175.0, 140.0, 105.0])
        self.assertAlmostEqual(cut_length(way.length_mm, [31.0, 38.5], 18.0), 647.1464368, places=6)
        turned = clocking(way.ways, np.array([0, -0.6, -0.8]), np.array([1.0, -1.0, 0.0]))
        self.assertAlmostEqual(turned, -98.13010235, places=7)

    def test_an_s_between_offset_ports(self) -> None:
        """Two arcs, and the run at which the card's radius is just kept."""
        found = s_route(240.0, 96.0, 150.0)
        shown = (found.radius_mm, found.angle_deg, found.length_mm, found.least_run_mm)
        np.testing.assert_allclose(shown, [174.0, 43.60281897, 264.8324385, 219.9636334], rtol=1e-9)
        with self.assertRaises(ValueError):
            s_route(240.0, 0.0, 150.0)

    @settings(max_examples=100, deadline=None)
    @given(corners, st.floats(-179, 179))
    def test_an_elbow_turned_further_is_clocked_further(self, points: list[tuple[float, ...]], by: float) -> None:
        """Turning the last port about the hose turns the clocking by as much."""
        given_points = np.array(points)
        steps = np.diff(given_points, axis=0)
        ways = steps / np.linalg.norm(steps, axis=1)[:, None]
        assume(((ways[:-1] * ways[1:]).sum(axis=1) > -0.99).all())
        first = np.cross(ways[0], [0.36, 0.48, 0.8])
        last = np.cross(ways[-1], [0.48, 0.6, 0.64])
        assume(np.linalg.norm(first) > 0.1 and np.linalg.norm(last) > 0.1)
        angle = np.radians(by)
        turned = np.cos(angle) * last + np.sin(angle) * np.cross(ways[-1], last)
        more = clocking(ways, first, turned) - clocking(ways, first, last)
        self.assertAlmostEqual((more - by + 180) % 360 - 180, 0.0, places=6)


class TubesOfALine(TestCase):
    """A tube of the document, by the shop's own bender."""

    CORNERS: ClassVar = [{"x_mm": x, "y_mm": y, "z_mm": z} for x, y, z in ((1250, 200, 420), (1350, 240, 420))]
    BENDER: ClassVar = {"name": "lever", "outside_mm": 9.5, "radius_mm": 20.0, "grip_mm": 25.0}
    STRIP: ClassVar = [{"angle_deg": 30.0, "back_deg": 1.0}, {"angle_deg": 90.0, "back_deg": 4.0}]

    def tank(self, corners: list[Item], *benders: Item, **more: Any) -> TankAnalysis:
        """The hose to the rail as a tube."""
        runs = replaced(RUNS, "to-rail", kind="tube", outside_mm=9.53, corners=corners, **more)
        return analysed(plumbed(runs=runs), Workshop.model_validate({"benders": list(benders)}, strict=False))

    def test_by_the_shops_bender(self) -> None:
        """Radius, grip and springback are the bender's; another outside isn't its."""
        tube = self.tank(self.CORNERS, self.BENDER | {"springback": self.STRIP})[TUBES][0]
        self.assertEqual((tube.bender, tube.radius_mm, tube.least_grip_mm), ("lever", 20.0, 25.0))
        for bend in tube.bends:
            self.assertAlmostEqual(bend.set_deg - bend.angle_deg, np.interp(bend.angle_deg, [30, 90], [1, 4]))
        self.assertLess(tube.off_mm, 1e-6)
        other = self.tank(self.CORNERS, self.BENDER | {"outside_mm": 8.0})[TUBES][0]
        self.assertEqual((other.bender, other.radius_mm), ("", 3 * 9.53))
        self.assertEqual(self.tank(self.CORNERS, self.BENDER, radius_mm=31.0)[TUBES][0].radius_mm, 31.0)

    def test_what_is_found(self) -> None:
        """A straight shorter than the grip, bends in each other, back on itself, no strip."""
        close = [*self.CORNERS, {"x_mm": 1350, "y_mm": 230, "z_mm": 400}]
        for corners, wanted in (
            (self.CORNERS, {"lines.springback"}),
            (close, {"lines.springback", "lines.short_straight"}),
        ):
            design = plumbed(runs=replaced(RUNS, "to-rail", kind="tube", outside_mm=9.53, corners=corners))
            self.assertEqual(codes(design), wanted)

    def test_the_table_as_csv(self) -> None:
        """Cut, bent, trimmed, squared, in that order."""
        tube = self.tank(self.CORNERS, self.BENDER)[TUBES][0]
        rows = list(csv.DictReader(io.StringIO(bends_csv(tube).decode("utf-8-sig"))))
        done = [row["do"] for row in rows]
        self.assertEqual(done, ["cut rough", *["bend"] * len(tube.bends), "trim", "square both ends"])
        self.assertAlmostEqual(float(rows[0]["feed_mm"]), tube.rough_mm, places=3)


class HosesOfALine(TestCase):
    """A hose of the document, by its card."""

    CARD: ClassVar = {"name": "lined", "bore_mm": 7.9, "least_radius_mm": 60.0, "per_m": 20.0}

    def hose(self, *cards: Item, parts: list[Item] = PARTS, **more: Any) -> HoseCut:
        """The hose to the rail."""
        runs = replaced(RUNS, "to-rail", bore_mm=7.9, **more)
        shop = Workshop.model_validate({"hoses": cards}, strict=False)
        return next(one for one in analysed(plumbed(parts, runs), shop)[HOSES].cut if one.id == "to-rail")

    def test_cut_length(self) -> None:
        """Way, slack, half the movement, less two -6 ends; what an end takes can be typed."""
        plain = self.hose(self.CARD)
        self.assertAlmostEqual(plain.cut_mm, plain.route_mm * 1.03 - 2 * 31.0)
        self.assertAlmostEqual(self.hose(self.CARD, moves_mm=40.0).cut_mm, plain.cut_mm + 20.0)
        end = {"part": "rail", "port": "in", "takes_mm": 44.0}
        self.assertAlmostEqual(self.hose(self.CARD, end=end).cut_mm, plain.cut_mm - 13.0)

    def test_elbows_and_their_clocking(self) -> None:
        """A hose that leaves its port sideways takes a 90° elbow; two are clocked against each other."""
        over = [{"x_mm": 1250, "y_mm": 200, "z_mm": 600}, {"x_mm": 1350, "y_mm": 200, "z_mm": 600}]
        found = self.hose(self.CARD, corners=over)
        self.assertEqual([end.elbow_deg for end in found.ends], [90.0, 90.0])
        self.assertAlmostEqual(found.clocking_deg or 0.0, 0.0)
        aside = [{"x_mm": 1250, "y_mm": 200, "z_mm": 600}, {"x_mm": 1350, "y_mm": 700, "z_mm": 300}]
        self.assertNotAlmostEqual(self.hose(self.CARD, corners=aside).clocking_deg or 0.0, 0.0)

    def test_what_is_found(self) -> None:
        """Tighter than it may bend, corners in each other, shorter than its ends."""
        bent = [{"x_mm": 1250, "y_mm": 200, "z_mm": 500}, {"x_mm": 1350, "y_mm": 200, "z_mm": 500}]
        for changed, wanted in (
            ({"corners": bent, "radius_mm": 30.0}, {"lines.kink"}),
            ({"corners": bent}, {"lines.crowded"}),
            ({"start": {"part": "first", "port": "out", "takes_mm": 190.0}}, {"lines.short_hose"}),
        ):
            line = plumbed(runs=replaced(RUNS, "to-rail", bore_mm=7.9, **changed))
            self.assertEqual(codes(line), wanted, changed)

    def test_what_has_to_be_bought(self) -> None:
        """All pieces of one hose together, at its price."""
        shop = Workshop.model_validate({"hoses": [self.CARD]}, strict=False)
        runs = [one | {"bore_mm": 7.9} if one["id"] in ("to-rail", "after") else one for one in RUNS]
        found = analysed(plumbed(runs=runs), shop)[HOSES]
        bought = next(one for one in found.buy if one.name == "lined")
        pieces = [one for one in found.cut if one.stock == "lined"]
        self.assertEqual((bought.pieces, len(pieces)), (2, 2))
        self.assertAlmostEqual(bought.metres, sum(one.cut_mm for one in pieces) / 1e3)
        self.assertAlmostEqual(bought.price or 0.0, 20.0 * bought.metres)
