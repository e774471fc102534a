"""Where runs lie: distances by hand and against solids, ways round, and what is found of each."""

import csv
import io
import itertools
import json
from collections.abc import Callable
from typing import Any, ClassVar
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.vehicle import Vehicle
from keel.design.workshop import Workshop
from keel.evaluation import Evaluation, evaluate
from keel.findings.patch import apply
from keel.formats.document import read_design
from keel.formats.lines import hoses_csv
from keel.routes.around import is_clear, pulled_tight, way_round
from keel.routes.nearness import near_bar, near_boxes, near_line, near_plane, pieces_in_box
from keel.solid.proximity import nearest
from keel.solid.shapes import block, drawn_out
from keel.solid.solids import mesh_of
from keel.stations.lines.board_ways import board_ways
from keel.stations.lines.through_ways import through_ways
from keel.studies.lines.clamps import CLAMPS, between
from keel.studies.lines.crossings import CROSSINGS
from keel.studies.lines.hoses import HOSES
from keel.studies.lines.joint_places import JOINT_PLACES
from keel.studies.lines.pushed import PUSHED
from keel.studies.lines.route_gaps import ROUTE_GAPS
from keel.studies.lines.slack import SLACKS
from keel.studies.lines.surroundings import line_mesh
from keel.tests.line_samples import WAYS, Item, flares, joint, part, run

place = st.integers(-150, 150).map(float)
spot = st.tuples(place, place, place)
lines_drawn = st.lists(spot, min_size=2, max_size=5, unique=True).map(lambda points: np.array(points))
boxes = st.tuples(spot, st.tuples(*[st.integers(1, 80).map(float)] * 3))


class Nearness(TestCase):
    """How near a line comes, against what shares nothing with it."""

    def test_by_hand(self) -> None:
        """Past a corner, across a face, through, along."""
        low, high = np.array([[0.0, 0.0, 0.0]]), np.array([[10.0, 10.0, 10.0]])
        for line, wanted in (
            ([[13.0, 14.0, -5.0], [13.0, 14.0, 30.0]], 5.0),
            ([[-20.0, 5.0, 17.0], [40.0, 5.0, 17.0]], 7.0),
            ([[-20.0, 5.0, 5.0], [40.0, 5.0, 5.0]], 0.0),
            ([[20.0, 0.0, 0.0], [0.0, 20.0, 0.0]], 0.0),
            ([[24.0, 0.0, 5.0], [0.0, 24.0, 5.0]], 8**0.5),
        ):
            self.assertAlmostEqual(near_boxes(np.array(line), low, high)[0].distance, wanted)

    @settings(max_examples=150, deadline=None)
    @given(lines_drawn, boxes)
    def test_boxes_against_surfaces(self, line: np.ndarray, box: Any) -> None:
        """The same distance as between triangles; nothing where it goes in."""
        low = np.array(box[0])
        high = low + np.array(box[1])
        near = near_boxes(line, low[None], high[None])[0]
        self.assertAlmostEqual(near.distance, float(np.linalg.norm(near.on_line - near.on_other)))
        solid = block(tuple(low), tuple(high))
        if near.distance > 0:
            self.assertAlmostEqual(near.distance, nearest(line_mesh(line), mesh_of(solid)).distance, places=6)
        else:
            self.assertTrue(len(pieces_in_box(line, low, high)))

    @settings(max_examples=60, deadline=None)
    @given(lines_drawn, spot, st.integers(0, 2), st.integers(5, 80), st.integers(5, 80))
    def test_bars_against_surfaces(self, line: np.ndarray, middle: Any, axis: int, run_mm: int, radius: int) -> None:
        """A round bar lies in its own polygon and in that of its tangents."""
        near = near_bar(line, np.array(middle), axis, float(run_mm), float(radius)).distance
        turns = np.linspace(0, 2 * np.pi, 400, endpoint=False)
        ring = radius * np.stack([np.cos(turns), np.sin(turns)], axis=1)
        across = np.array([middle[way] for way in range(3) if way != axis])
        solid = mesh_of(drawn_out(ring + across, axis, middle[axis], middle[axis] + run_mm))
        if near > 0.05:
            apart = nearest(line_mesh(line), solid).distance
            self.assertTrue(near - 1e-6 <= apart <= near + radius * (1 - np.cos(np.pi / 400)) + 1e-6)

    @settings(max_examples=150, deadline=None)
    @given(lines_drawn, lines_drawn)
    def test_lines_either_way(self, line: np.ndarray, other: np.ndarray) -> None:
        """No pair of places along both is nearer, and it is the same seen from the other."""
        near = near_line(line, other)
        self.assertAlmostEqual(near.distance, near_line(other, line).distance, places=6)
        share = np.linspace(0, 1, 21)[:, None]
        mine = np.vstack([a + share * (b - a) for a, b in itertools.pairwise(line)])
        theirs = np.vstack([a + share * (b - a) for a, b in itertools.pairwise(other)])
        apart = np.linalg.norm(mine[:, None] - theirs[None], axis=2).min()
        self.assertLessEqual(near.distance, float(apart) + 1e-9)

    def test_a_plane(self) -> None:
        """Beyond it there is nothing between."""
        line, up = np.array([[0.0, 0.0, 0.0], [10.0, 0.0, 6.0]]), np.array([0.0, 0.0, 1.0])
        self.assertAlmostEqual(near_plane(line, up, 8.0).distance, 2.0)
        self.assertEqual(near_plane(line, up, 5.0).distance, 0.0)


class Round(TestCase):
    """Ways round boxes."""

    def test_a_wall_is_gone_round(self) -> None:
        """Over the nearest edge: 40 up, 100 along, 40 down."""
        low, high = np.array([[40.0, -500.0, -500.0]]), np.array([[60.0, 500.0, 40.0]])
        way = way_round(np.zeros(3), np.array([100.0, 0.0, 0.0]), low, high, turn_mm=10.0)
        assert way is not None
        np.testing.assert_allclose(way, [[0, 0, 0], [0, 0, 40], [100, 0, 40], [100, 0, 0]])

    def test_none(self) -> None:
        """From inside a box there is no way; nor out of one that is shut."""
        low, high = np.array([[-10.0, -10.0, -10.0]]), np.array([[10.0, 10.0, 10.0]])
        self.assertIsNone(way_round(np.zeros(3), np.array([50.0, 0.0, 0.0]), low, high, turn_mm=1.0))
        walls = [([-20, -20, s * 15 - 5], [20, 20, s * 15 + 5]) for s in (-1, 1)]
        walls += [([-20, s * 15 - 5, -20], [20, s * 15 + 5, 20]) for s in (-1, 1)]
        walls += [([s * 15 - 5, -20, -20], [s * 15 + 5, 20, 20]) for s in (-1, 1)]
        lows, highs = (np.array([wall[side] for wall in walls], dtype=float) for side in (0, 1))
        self.assertIsNone(way_round(np.zeros(3), np.array([100.0, 0.0, 0.0]), lows, highs, turn_mm=1.0))

    @settings(max_examples=60, deadline=None)
    @given(st.lists(boxes, min_size=1, max_size=6))
    def test_clear_and_no_longer_when_pulled(self, drawn: list[Any]) -> None:
        """Every straight is clear, before and after it is pulled tight; tight it is no longer."""
        lows = np.array([low for low, _ in drawn])
        highs = lows + np.array([size for _, size in drawn])
        start, end = np.array([-400.0, 0.0, 0.0]), np.array([400.0, 30.0, 10.0])
        way = way_round(start, end, lows, highs, turn_mm=20.0)
        assert way is not None
        tight = pulled_tight(way, lows, highs)
        for one in (way, tight):
            np.testing.assert_allclose([one[0], one[-1]], [start, end])
            for a, b in itertools.pairwise(one):
                self.assertTrue(is_clear(a, b, lows, highs))
        self.assertLessEqual(_long(tight), _long(way) + 1e-9)
        self.assertGreaterEqual(_long(tight), float(np.linalg.norm(end - start)) - 1e-9)


def _long(points: np.ndarray) -> float:
    return float(np.linalg.norm(np.diff(points, axis=0), axis=1).sum())


SHELL: Item = {"length_mm": 600, "width_mm": 400, "height_mm": 300, "metal": "5052-H32", "thickness_mm": 3}
BAY: Item = {"length_mm": 700.0, "width_mm": 500.0, "height_mm": 400.0}
TAIL = [joint(name, "8 mm", standard="hose tail") for name in ("in", "out")]
A, B = (
    part(key, "sensor", x, z=100.0, across_mm=20.0, joints=flares("in", "out"))
    for key, x in (("a", 1000.0), ("b", 2000.0))
)
HOSE = run("hose", "a.out", "b.in", 8.7)
"""From x = 1010 to 1990 at y = 200, z = 100; 15.7 mm outside, so 7.85 from its middle to its skin."""
HALF = 8.7 / 2 + 3.5


def keep_out(kind: str, x: float, y: float, z: float, size: tuple[float, float, float]) -> Item:
    """A box of the bay."""
    sizes = dict(zip(("length_mm", "width_mm", "height_mm"), size, strict=True))
    return {"id": "it", "name": "it", "clearance": {"kind": kind}, "x_mm": x, "y_mm": y, "z_mm": z} | sizes


def laid(
    runs: list[Item] | None = None, *, bay: Item | None = None, parts: list[Item] | None = None, **lines: Any
) -> Design:
    """A tank, and a hose that lies ahead of it."""
    drawn = {"parts": parts or [A, B], "runs": runs or [HOSE]} | lines
    document = {"shell": SHELL, "bay": BAY | (bay or {}), "lines": drawn, "mount": {"vehicle": "v"}}
    document["ports"] = [
        {"id": "back", "name": "back", "role": "return", "face": "front", "x_mm": 600, "y_mm": 200, "z_mm": 100}
    ]
    return read_design(json.dumps(document))


def hose(**changed: Any) -> list[Item]:
    """That hose with something changed."""
    return [HOSE | changed]


def at(*places: tuple[float, float, float]) -> list[Item]:
    """Corners."""
    return [dict(zip(("x_mm", "y_mm", "z_mm"), one, strict=True)) for one in places]


def standing(*keep_outs: Item) -> Design:
    """The hose with neighbours."""
    named = [one | {"id": one["id"] if n == 0 or one["id"] != "it" else f"it-{n}"} for n, one in enumerate(keep_outs)]
    return laid(bay={"keep_outs": named})


def workshop(**vehicle: Any) -> Workshop:
    """A workshop that has the vehicle."""
    known = Vehicle.model_validate({"id": "v", "name": "v"} | vehicle, strict=False)
    return Workshop().model_copy(update={"vehicles": [known]})


PANEL: Item = {"id": "wall", "name": "wall", "axis": "x", "at_mm": 1500.0, "a_mm": 0.0, "b_mm": 0.0}
PANEL |= {"long_mm": 400.0, "wide_mm": 300.0, "thickness_mm": 2.0}
GAP: Item = {"name": "gap", "a_mm": 180.0, "b_mm": 80.0, "long_mm": 40.0, "wide_mm": 40.0}
WALLED = workshop(panels=[PANEL])
Said = Callable[[], tuple[Design, Workshop]]


def seen(design: Design, shop: Workshop | None = None, *, remedies: bool = False) -> Evaluation:
    """All that is said of it."""
    return evaluate(design, shop or Workshop(), showing=Showing(remedies=remedies))


def ways(design: Design, shop: Workshop | None = None) -> set[str]:
    """Codes of what is found of where things lie."""
    return {one.code for one in seen(design, shop).findings if one.code in WAYS}


def _alone(design: Design) -> Said:
    return lambda: (design, Workshop())


def _in(shop: Workshop, design: Design | None = None) -> Said:
    return lambda: (design or laid(), shop)


C, D = (one | {"id": key, "name": key, "y_mm": 218.0} for key, one in (("c", A), ("d", B)))
OVER: Item = {"z_mm": 311.0}
"""3.15 mm over the tank's lid, 300 mm up."""
ASLANT = at((1400.0, 100.0, 100.0), (1600.0, 300.0, 100.0))
FITTING = part("fitting", "bulkhead", 1500.0, z=100.0, long_mm=55.0, across_mm=20.0, joints=flares("in", "out"))
FITTED, BEYOND = {"part": "fitting", "port": "in"}, run("beyond", "fitting.out", "b.in", 8.7)
HOT, METAL = "exhaust, bare", "hard metal"
RAIL = keep_out(METAL, 900.0, 190.0, 0.0, (1200.0, 20.0, 80.0))
"""Something to clamp to, 12 mm under the hose."""
FOUND: dict[str, Said] = {
    "lines.heat": _alone(standing(RAIL, keep_out(HOT, 1400.0, 307.0, 90.0, (100.0, 50.0, 20.0)))),
    "lines.moving": _alone(
        standing(RAIL, keep_out("moving at full travel", 1400.0, 232.0, 90.0, (100.0, 50.0, 20.0)))
    ),
    "lines.low": _in(workshop(ground_mm=-40.0)),
    "lines.rear": _in(workshop(rearmost_mm=800.0)),
    "lines.rub": _alone(standing(RAIL | {"height_mm": 88.0})),
    "lines.through": _alone(standing(RAIL, keep_out(METAL, 1400.0, 150.0, 90.0, (100.0, 100.0, 20.0)))),
    "lines.rub_tank": _alone(laid(parts=[A | OVER | {"x_mm": -100.0}, B | OVER | {"x_mm": 700.0}])),
    "lines.rub_line": _alone(laid([HOSE, run("other", "c.out", "d.in", 8.7)], parts=[A, B, C, D])),
    "lines.edge": _in(workshop(panels=[PANEL | {"axis": "z", "at_mm": 100.0, "a_mm": 1200.0, "b_mm": 215.0}])),
    "lines.no_hole": _in(WALLED),
    "lines.hole_tight": _in(workshop(panels=[PANEL | {"gaps": [GAP | {"a_mm": 190.0, "long_mm": 18.0}]}])),
    "lines.hole_wide": _in(
        workshop(panels=[PANEL | {"gaps": [GAP]}]), laid([HOSE | {"end": FITTED}, BEYOND], parts=[A, B, FITTING])
    ),
    "lines.slanted": _in(WALLED, laid(hose(corners=ASLANT, passes=[{"panel": "wall"}]))),
    "lines.unclamped": _alone(laid()),
    "lines.askew": _alone(laid(parts=[A | {"connections": TAIL, "heading_deg": 90.0}, B])),
    "lines.tube_askew": _alone(laid(hose(kind="tube", corners=at((1500.0, 300.0, 100.0))))),
    "lines.no_slack": _alone(
        laid([run("hose", "tank.back", "b.in", 8.7)], tank_off_mm=900.0)
    ),
    "lines.over_hot": _alone(standing(keep_out(HOT, 1950.0, 190.0, -200.0, (50.0, 20.0, 50.0)))),
    "lines.unseen": _alone(
        standing(
            *(keep_out(METAL, *low, size) for low, size in (
                ((1940.0, 150.0, 60.0), (100.0, 100.0, 10.0)), ((1940.0, 150.0, 130.0), (100.0, 100.0, 10.0)),
                ((1940.0, 150.0, 60.0), (100.0, 10.0, 80.0)), ((1940.0, 240.0, 60.0), (100.0, 10.0, 80.0)),
                ((2030.0, 150.0, 60.0), (10.0, 100.0, 80.0)), ((1930.0, 150.0, 60.0), (10.0, 100.0, 80.0)),
            ))
        )
    ),
    "lines.part_in": _alone(standing(keep_out(METAL, 1995.0, 195.0, 90.0, (30.0, 10.0, 20.0)))),
}  # fmt: skip
"""What brings each finding up; without it none of them is there."""


class Found(TestCase):
    """One hose that lies well, and what is found where something is wrong."""

    def test_nothing_where_nothing_is_wrong(self) -> None:
        """Along a rail, clear of it."""
        self.assertEqual(ways(standing(RAIL)), set())

    def test_each_comes_up(self) -> None:
        """By the one thing that brings it; and each of the codes does."""
        for code, change in FOUND.items():
            with self.subTest(code):
                self.assertIn(code, ways(*change()))
        self.assertEqual(set(FOUND), WAYS)

    REMEDIED: ClassVar[list[str]] = [
        "lines.heat", "lines.moving", "lines.rub", "lines.through", "lines.rub_line", "lines.edge", "lines.no_hole",
        "lines.askew", "lines.tube_askew", "lines.no_slack",
    ]  # fmt: skip

    def test_remedies_settle(self) -> None:
        """What is offered is gone once it is taken."""
        for code in self.REMEDIED:
            design, shop = FOUND[code]()
            with self.subTest(code):
                finding = next(one for one in seen(design, shop, remedies=True).findings if one.code == code)
                self.assertTrue(finding.remedies)
                for remedy in finding.remedies:
                    keys = {one.key for one in seen(apply(design, remedy.patch), shop).findings}
                    self.assertNotIn(finding.key, keys)


class Laid(TestCase):
    """The figures, by hand."""

    def test_gaps(self) -> None:
        """From skin to skin; a typed distance and the house's."""
        design = standing(RAIL, keep_out(HOT, 1400.0, 300.0, 90.0, (100.0, 50.0, 20.0)) | {"id": "hot", "name": "hot"})
        gaps = {gap.beside: gap for gap in TankAnalysis(Asked(design, Workshop()))[ROUTE_GAPS]}
        self.assertAlmostEqual(gaps["hot"].gap_mm, 100.0 - HALF)
        self.assertEqual((gaps["hot"].danger, gaps["hot"].needed_mm), ("heat", 100.0))
        self.assertAlmostEqual(gaps["it"].gap_mm, 20.0 - HALF)
        self.assertEqual((gaps["it"].danger, gaps["it"].needed_mm), ("metal", 5.0))

    def test_a_sleeve_may_touch(self) -> None:
        """It takes rubbing, not heat."""
        hot = keep_out(HOT, 1400.0, 250.0, 90.0, (100.0, 50.0, 20.0)) | {"id": "hot", "name": "hot"}
        design = laid(hose(sleeved=True), bay={"keep_outs": [RAIL | {"height_mm": 90.0}, hot]})
        self.assertEqual(ways(design), {"lines.heat"})

    def test_people_count_as_what_moves(self) -> None:
        """A line through a seat is a stop."""
        person = {"id": "p", "name": "driver", "kind": "person", "x_mm": 1300.0, "y_mm": 215.0, "z_mm": 0.0}
        self.assertIn("lines.moving", ways(standing(RAIL), workshop(parts=[person])))

    def test_clamps(self) -> None:
        """980 mm between ends: four pieces of 245; with a grommet in the middle two of each side."""
        self.assertEqual(between([0.0, 980.0], 300.0), [245.0, 490.0, 735.0])
        self.assertEqual(between([0.0, 300.0], 300.0), [])
        tank = TankAnalysis(Asked(standing(RAIL), Workshop()))
        self.assertEqual([one.fixed_to for one in tank[CLAMPS]], ["it", "it", "it"])
        self.assertAlmostEqual(tank[CLAMPS][0].off_mm, 20.0 - HALF)
        passed = laid(hose(passes=[{"panel": "wall"}]))
        held = [one.along_mm for one in TankAnalysis(Asked(passed, WALLED))[CLAMPS]]
        np.testing.assert_allclose(held, [491 / 2, 491 + 489 / 2])

    def test_crossings(self) -> None:
        """A gap of 40 with the run in its middle leaves 12.15 to its edge; holes of its own by way."""
        shop = workshop(panels=[PANEL | {"gaps": [GAP]}])
        (one,) = TankAnalysis(Asked(laid(), shop))[CROSSINGS]
        self.assertEqual((one.hole, one.way, one.sealed), ("gap", "grommet", False))
        self.assertAlmostEqual(one.edge_mm, 20.0 - HALF)
        self.assertEqual(ways(laid(), shop), {"lines.unclamped"})
        sealed = workshop(panels=[PANEL | {"gaps": [GAP | {"sealed": True}]}])
        self.assertIn("lines.no_hole", ways(laid(), sealed))
        (one,) = TankAnalysis(Asked(laid(hose(passes=[{"panel": "wall"}])), WALLED))[CROSSINGS]
        self.assertAlmostEqual(one.hole_mm, 2 * HALF + 6)
        small = laid(hose(passes=[{"panel": "wall", "hole_mm": 18.0}]))
        self.assertIn("lines.hole_tight", ways(small, WALLED))

    def test_slack(self) -> None:
        """The tank 300 mm up: its ends are 1390 apart along and 300 over each other; half of what an engine moves."""
        design = laid([run("hose", "tank.back", "b.in", 8.7)], tank_off_mm=300.0)
        (one,) = TankAnalysis(Asked(design, Workshop()))[SLACKS]
        self.assertAlmostEqual(one.needs_mm, float(np.hypot(1390.0, 300.0)))
        self.assertAlmostEqual(one.has_mm, 1390.0 * 1.03)
        self.assertFalse(one.is_short)
        rigid = laid([run("hose", "tank.back", "b.in", 8.7, kind="tube")], tank_off_mm=300.0)
        self.assertIn("lines.no_slack", ways(rigid))
        engine = laid(hose(moves_mm=20.0))
        (one,) = TankAnalysis(Asked(engine, Workshop()))[SLACKS]
        self.assertAlmostEqual(one.needs_mm, 990.0)
        self.assertAlmostEqual(one.has_mm, 980.0 * 1.03 + 10.0)

    def test_what_drips_and_who_sees_it(self) -> None:
        """30 mm aside of what is hot it still drips on it; a cover that comes off doesn't hide for good."""
        for aside, over in ((25.0, "it"), (35.0, "")):
            hot = keep_out(HOT, 1950.0, 200.0 + aside, -200.0, (50.0, 20.0, 50.0))
            places = {one.side: one for one in TankAnalysis(Asked(standing(hot), Workshop()))[JOINT_PLACES]}
            self.assertEqual(places["end"].over, over)
            self.assertEqual(places["start"].over, "")
            self.assertGreater(places["end"].sees, 0.9)
        lid = PANEL | {"axis": "z", "at_mm": 130.0, "a_mm": 1500.0, "b_mm": 0.0, "long_mm": 1000.0, "wide_mm": 400.0}
        tank = TankAnalysis(Asked(laid(), workshop(panels=[lid | {"closes": True}])))
        seen_end = tank[JOINT_PLACES][1]
        self.assertLess(seen_end.sees, 0.7)
        self.assertEqual(seen_end.sees_open, 1.0)

    def test_a_fitting_parts_the_run(self) -> None:
        """Two hoses with their own ends and corners, the fitting square to the sheet, as wide as its thread."""
        design = laid(hose(corners=at((1200.0, 200.0, 100.0), (1800.0, 200.0, 100.0))))
        finding = next(one for one in seen(design, WALLED, remedies=True).findings if one.code == "lines.no_hole")
        remedy = next(one for one in finding.remedies if "in two" in one.label.plain())
        after = apply(design, remedy.patch)
        self.assertEqual([[spot.x_mm for spot in one.corners] for one in after.lines.runs], [[1200.0], [1800.0]])
        fitting = after.lines.parts[-1]
        self.assertEqual((fitting.x_mm, fitting.heading_deg, fitting.does.kind), (1501.0, 0.0, "bulkhead"))
        (one,) = TankAnalysis(Asked(after, WALLED))[CROSSINGS]
        self.assertEqual((one.way, one.id), ("bulkhead fitting", fitting.id))
        self.assertAlmostEqual(one.hole_mm, 9 / 16 * 25.4 + 0.5)
        self.assertEqual(ways(after, WALLED), {"lines.unclamped"})
        upright = PANEL | {"axis": "z", "at_mm": 200.0, "a_mm": 900.0, "long_mm": 1200.0, "wide_mm": 400.0}
        over = laid(hose(corners=at((1200.0, 200.0, 300.0), (1800.0, 200.0, 300.0))))
        again = seen(over, workshop(panels=[upright]), remedies=True)
        first = next(one for one in again.findings if one.code == "lines.no_hole")
        taken = apply(over, next(one for one in first.remedies if "in two" in one.label.plain()).patch)
        self.assertTrue(taken.lines.parts[-1].upright)
        through = TankAnalysis(Asked(taken, workshop(panels=[upright])))[CROSSINGS]
        self.assertEqual([one.way for one in through], [None, "bulkhead fitting"])
        self.assertAlmostEqual(through[1].off_square_deg, 0.0)


class Sides(TestCase):
    """Ways through and places of parts, side by side."""

    def test_who_sits_behind_decides(self) -> None:
        """Nobody: grommets, no joint. Somebody: metal all through, room or not; with three lines a board."""
        person = {"id": "p", "name": "driver", "kind": "person", "x_mm": 2500.0, "y_mm": 100.0, "z_mm": 0.0}
        three = [run(f"h{n}", f"a{n}.out", f"b{n}.in", 8.7) for n in range(3)]
        parts = [one | {"id": f"{one['id']}{n}", "y_mm": 120.0 + 60 * n} for n in range(3) for one in (A, B)]
        strut = {"id": "s", "name": "strut", "kind": "structure", "x_mm": 1510.0, "y_mm": 0.0, "z_mm": 0.0}
        strut |= {"width_mm": 400.0, "height_mm": 400.0}
        for vehicle, design, wanted in (
            ({}, laid(), "grommet"),
            ({"parts": [person]}, laid(), "bulkhead fitting"),
            ({"parts": [person]}, laid(three, parts=parts), "removable board"),
            ({"parts": [person, strut]}, laid(), "bulkhead fitting"),
        ):
            found = through_ways(TankAnalysis(Asked(design, workshop(panels=[PANEL], **vehicle))))
            self.assertEqual([one.way for one in found if one.favoured], [wanted])
        found = through_ways(TankAnalysis(Asked(laid(), WALLED)))
        self.assertEqual([(one.joints, one.holes) for one in found], [(0, 1), (2, 1), (2, 1)])
        self.assertAlmostEqual(found[0].cut_cm2, np.pi / 4 * (2 * HALF + 6) ** 2 / 100)
        self.assertAlmostEqual(found[0].gives_mm, 0.03 * 980.0)
        self.assertAlmostEqual(found[1].gives_mm, 0.03 * 489.0)
        fitted = laid([HOSE | {"end": FITTED}, BEYOND], parts=[A, B, FITTING])
        drawn = through_ways(TankAnalysis(Asked(fitted, WALLED)))
        self.assertEqual([one.chosen for one in drawn], [False, True, False])
        self.assertAlmostEqual(drawn[1].gives_mm or 0.0, 0.03 * 462.5)

    def test_a_board(self) -> None:
        """Two filters between three hoses: four joints apart, two with the board off; 12 cm of hose between them."""
        filters = [
            part(key, "filter", x, z=100.0, joints=flares("in", "out")) for key, x in (("f", 1300.0), ("g", 1600.0))
        ]
        end = part("end", "delivery nozzle", 2000.0, z=100.0, joints=flares("in"))
        runs = [run("one", "tank.back", "f.in"), run("two", "f.out", "g.in"), run("three", "g.out", "end.in")]
        design = laid(runs, parts=[*filters, end])
        apart, board = board_ways(TankAnalysis(Asked(design, Workshop())))
        self.assertEqual((apart.undone, board.undone, board.favoured), (4, 2, True))
        self.assertAlmostEqual(apart.hose_m, 0.28 * 1.03)
        self.assertAlmostEqual(board.hose_m, 0.12)
        self.assertEqual(board.board_mm, (20.0 + 120.0 + 20.0 + 60.0, 50.0 + 30.0 + 30.0))
        fuels = [{"cell": "a", "fuel": "avgas 100"}, {"cell": "b", "fuel": "kerosene"}]
        self.assertEqual(
            board_ways(TankAnalysis(Asked(laid(runs, parts=[*filters, end], fuels=fuels), Workshop()))), []
        )


class PushedOn(TestCase):
    """Hoses on tails and tubes."""

    def joints(self, standard: str, size: str, **end: Any) -> list[Any]:
        """Of a hose with such a tail at its first part."""
        tailed = A | {"connections": [joint("out", size, standard=standard)]}
        design = laid(
            hose(bore_mm=8.0, hose="nitrile hose", start={"part": "a", "port": "out"} | end), parts=[tailed, B]
        )
        return TankAnalysis(Asked(design, Workshop()))[PUSHED]

    def test_by_hand(self) -> None:
        """Half as far again as it is thick, 20 mm at least; the clamp between bead and end, by its own half width."""
        (tail,) = self.joints("hose tail", "8 mm")
        self.assertEqual((tail.least_mm, tail.pushed_mm, tail.has_bead), (20.0, 20.0, True))
        self.assertEqual((tail.clamp_from_mm, tail.clamp_to_mm, tail.clamp_for_mm), (7.5, 8.5, 15.0))
        (thick,) = self.joints("plain tube", "3/4 in")
        self.assertAlmostEqual(thick.least_mm, 1.5 * 19.05)
        self.assertEqual((thick.has_bead, thick.needs_bead), (False, False))
        self.assertAlmostEqual(thick.clamp_to_mm, 1.5 * 19.05 - 7.5)
        (short,) = self.joints("hose tail", "8 mm", pushed_mm=16.0)
        self.assertLess(short.clamp_to_mm, short.clamp_from_mm)
        self.assertEqual(self.joints("37° flare", "-6"), [])

    def test_as_csv(self) -> None:
        """A row a hose: its cut length, both ends; a length that is read again is the same."""
        tank = TankAnalysis(Asked(laid(), Workshop()))
        (row,) = csv.DictReader(io.StringIO(hoses_csv(tank[HOSES].cut).decode("utf-8-sig")))
        self.assertEqual((row["hose"], row["first_end_deg"], row["clocking_deg"]), ("hose", "0", ""))
        self.assertAlmostEqual(float(row["cut_mm"]), 980 * 1.03 - 2 * float(row["first_takes_mm"]), places=1)
