"""A strap's way round the tank: worked figures, an independent hull, and what stops it."""

import io
from itertools import pairwise
from math import hypot
from typing import Any
from unittest import TestCase

import numpy as np
from ezdxf.filemanagement import read
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely import MultiPoint, Polygon
from shapely.affinity import rotate, translate

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.mount import Strap
from keel.design.workshop import Workshop
from keel.formats.mount import strap_dxf
from keel.solid.taut import Band, NoBandError, band_over, tension
from keel.studies.mount.straps import STRAPS, StrapPath

BEAM: dict[str, Any] = {"length_mm": 900.0, "width_mm": 400.0, "height_mm": 350.0, "y_mm": -200.0, "wrap_axis": "x"}
ROUNDED = BEAM | {"thickness_mm": 3.0, "bend_radius_mm": 17.0}


def strap(at: float = 450.0, ends: tuple[float, float] = (-262.0, 262.0), up: float = -25.0, **more: Any) -> Any:
    """A strap across the tank."""
    ends_at = {name: {"out_mm": out, "z_mm": up} for name, out in zip(("low", "high"), ends, strict=True)}
    return (
        {"id": "s", "name": "strap", "at_mm": at, "pad_mm": 6.0, "loop_mm": 65.0, "take_up_mm": 30.0} | ends_at | more
    )


def laid(shell: dict[str, Any], **more: Any) -> StrapPath:
    """A strap on a tank."""
    asked = Design.model_validate({"shell": shell, "mount": {"straps": [strap(**more)]}})
    return TankAnalysis(Asked(asked, Workshop()))[STRAPS][0]


def hull_length(outline: Polygon, pad: float, start: tuple[float, float], end: tuple[float, float]) -> float | None:
    """From one end to the other round the hull of everything; None where either isn't a corner of that."""
    body = outline.buffer(pad, quad_segs=300)
    hull = MultiPoint([*body.exterior.coords, start, end]).convex_hull.exterior
    ring = list(hull.coords)[:-1]
    ring = ring[::-1] if hull.is_ccw else ring
    if start not in ring or end not in ring:
        return None
    turned = ring[ring.index(start) :] + ring[: ring.index(start)]
    stretch = turned[: turned.index(end) + 1]
    return float(sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(stretch)))


class WorkedFigures(TestCase):
    def test_box_with_rounded_corners(self) -> None:
        path = laid(ROUNDED)
        self.assertAlmostEqual(path.path_mm, 1160.428056, delta=0.05)
        self.assertAlmostEqual(path.cut_mm, 1320.428056, delta=0.05)
        straight = [run.long_mm for run in path.runs if not run.is_bend]
        bends = [run.long_mm for run in path.runs if run.is_bend]
        for found, wanted in zip(straight, (363.4184915, 360.0, 363.4184915), strict=True):
            self.assertAlmostEqual(found, wanted, delta=0.05)
        for found in bends:
            self.assertAlmostEqual(found, 36.79553636, delta=0.05)
        for lean in path.leans_deg:
            self.assertAlmostEqual(lean, 81.08572839, delta=0.01)
        self.assertFalse(path.handed)
        self.assertIsNone(path.bridged_at)

    def test_two_stations_on_a_wedge(self) -> None:
        # Seen from the front each section is a box of its own height; the wedge's own rounds run across.
        for height, wanted in ((321.5555556, 1104.284226), (225.5555556, 916.0848434)):
            self.assertAlmostEqual(laid(ROUNDED | {"height_mm": height}).path_mm, wanted, delta=0.05)

    def test_uneven_anchors_over_a_relief(self) -> None:
        shell = BEAM | {"length_mm": 900.0, "width_mm": 430.0, "height_mm": 260.0, "y_mm": 0.0}
        shell |= {"thickness_mm": 3.0, "bend_radius_mm": 15.0}
        relief = {"kind": "well", "id": "r", "name": "relief", "face": "roof", "a_mm": 200.0, "b_mm": 240.0}
        shell |= {"features": [relief | {"long_mm": 500.0, "wide_mm": 90.0, "deep_mm": 70.0}]}
        ends = {"low": {"out_mm": -38.0, "z_mm": -15.0}, "high": {"out_mm": 472.0, "z_mm": 40.0}}
        path = laid(shell, pad_mm=5.0, loop_mm=55.0, take_up_mm=25.0, **ends)
        self.assertAlmostEqual(path.path_mm, 930.6969787, delta=0.02)
        self.assertAlmostEqual(path.cut_mm, 1065.696979, delta=0.02)
        self.assertAlmostEqual(path.bridged_mm, 75.0, delta=0.02)
        for found, wanted in zip(path.leans_deg, (82.72394702, 79.72323502), strict=True):
            self.assertAlmostEqual(found, wanted, delta=0.005)
        self.assertTrue(path.handed)
        leans = path.leans_deg[0], path.leans_deg[1]
        for load, pull in ((3167.355663, 1602.989909), (2402.821537, 1216.06131)):
            self.assertAlmostEqual(tension(load, leans), pull, delta=pull * 1e-5)


class AgainstAHull(TestCase):
    """The same by another way: the convex hull of the finely padded outline and both anchors."""

    @settings(max_examples=200, deadline=None)
    @given(st.integers(0, 10**9))
    def test_random_sections(self, seed: int) -> None:
        rng = np.random.default_rng(seed)
        corners = rng.uniform(-200, 200, (int(rng.integers(4, 14)), 2)) * [1.0, 0.8]
        outline, pad = MultiPoint(corners).convex_hull, float(rng.uniform(0, 12))
        start = (float(rng.uniform(-450, 50)), float(rng.uniform(-300, 250)))
        end = (float(rng.uniform(-50, 450)), float(rng.uniform(-300, 250)))
        assume(isinstance(outline, Polygon))
        try:
            band = band_over(outline, pad, start, end)
        except NoBandError:
            return
        wanted = hull_length(outline, pad, start, end)
        if wanted is not None:
            self.assertAlmostEqual(band.long_mm, wanted, delta=0.05)

    @settings(max_examples=60, deadline=None)
    @given(st.floats(-40, 40), st.floats(-500, 500), st.floats(1, 15))
    def test_where_it_stands_in_the_plane_changes_nothing(self, turned: float, moved: float, pad: float) -> None:
        outline = Polygon([(-150, 0), (160, 20), (120, 220), (-90, 240)])

        def length(degrees: float, off: float) -> Band:
            ends = MultiPoint([(-230, -40), (260, 10)])
            both = [translate(rotate(shape, degrees, origin=(0, 100)), off, -off) for shape in (outline, ends)]
            (a, b) = ((spot.x, spot.y) for spot in both[1].geoms)
            return band_over(both[0], pad, a, b)

        plain, other = length(0.0, 0.0), length(turned, moved)
        self.assertAlmostEqual(plain.long_mm, other.long_mm, delta=1e-6)
        self.assertAlmostEqual(sum(r.angle_deg for r in plain.runs), sum(r.angle_deg for r in other.runs), delta=1e-6)

    def test_tucked_under_it_goes_round_the_lower_corners_too(self) -> None:
        square = Polygon([(-100, 0), (100, 0), (100, 100), (-100, 100)])
        band = band_over(square, 0.0, (-40.0, -30.0), (40.0, -30.0))
        self.assertAlmostEqual(band.long_mm, 2 * hypot(60, 30) + 400, places=6)
        self.assertEqual(len([run for run in band.runs if run.is_bend]), 4)

    def test_marks_stand_where_the_runs_end(self) -> None:
        path = laid(ROUNDED, ends=(-240.0, 300.0))
        at, marks = 65.0, iter(path.marks)
        for run in path.runs:
            if run.is_bend:
                mark = next(marks)
                self.assertAlmostEqual(mark.start_mm, at, places=6)
                self.assertAlmostEqual(mark.end_mm - mark.start_mm, run.long_mm, places=6)
            at += run.long_mm
        self.assertAlmostEqual(at + 30.0 + 65.0, path.cut_mm, places=6)


class WhatStopsIt(TestCase):
    def test_an_anchor_inside_the_tank(self) -> None:
        self.assertIn("inside the tank", laid(ROUNDED, ends=(-150.0, 262.0), up=100.0).problem)

    def test_a_strap_that_misses_the_tank(self) -> None:
        self.assertIn("clears the tank", laid(ROUNDED, up=500.0).problem)

    def test_a_station_beside_the_tank(self) -> None:
        self.assertEqual(laid(ROUNDED, at=1200.0).problem, "it passes beside the tank")

    def test_ends_the_wrong_way_round(self) -> None:
        with self.assertRaisesRegex(ValueError, "not beyond the right one"):
            Strap.model_validate(strap(ends=(100.0, -100.0)))


class OtherStraps(TestCase):
    def test_under_a_tank_that_hangs_is_over_one_upside_down(self) -> None:
        hung = laid(ROUNDED, passes="under", up=375.0)
        self.assertAlmostEqual(hung.path_mm, laid(ROUNDED).path_mm, places=6)
        self.assertLess(min(spot.z for spot in hung.line), 0.0)

    def test_lengthwise_it_goes_over_the_ends(self) -> None:
        path = laid(ROUNDED, across="x", at=0.0, ends=(-30.0, 930.0), up=-25.0)
        self.assertEqual((path.axis, path.problem), ("y", ""))
        self.assertEqual({round(spot.y, 6) for spot in path.line}, {0.0})
        self.assertGreater(path.path_mm, 900 + 2 * 350)

    def test_an_existing_one_reaches_where_its_anchors_say(self) -> None:
        fresh = laid(ROUNDED)
        short = laid(ROUNDED, existing_mm=fresh.cut_mm - 60.0).existing
        assert short is not None and short.anchors_up_mm is not None
        self.assertAlmostEqual(short.short_by_mm, 60.0 - 0.8 * 30.0, places=6)
        self.assertGreater(short.anchors_up_mm, 0)
        moved = laid(ROUNDED, up=-25.0 + short.anchors_up_mm)
        self.assertAlmostEqual(moved.path_mm + 2 * 65.0 + 15.0, fresh.cut_mm - 60.0, delta=0.01)
        long = laid(ROUNDED, existing_mm=fresh.cut_mm + 50.0).existing
        assert long is not None
        self.assertAlmostEqual(long.short_by_mm, -50.0, places=6)
        fits = laid(ROUNDED, existing_mm=fresh.cut_mm - 10.0).existing
        assert fits is not None
        self.assertEqual((fits.short_by_mm, fits.anchors_up_mm), (0.0, 0.0))

    def test_its_strip_reads_back(self) -> None:
        made = Strap.model_validate(strap())
        path = laid(ROUNDED)
        drawing = read(io.StringIO(strap_dxf(made, path).decode()))
        space = drawing.modelspace()
        outline = next(iter(space.query("LWPOLYLINE")))
        xs = [float(point[0]) for point in outline.get_points()]
        self.assertAlmostEqual(max(xs) - min(xs), path.cut_mm, places=6)
        bends = sorted(float(line.dxf.start.x) for line in space.query('LINE[layer=="BEND_UP"]'))
        self.assertEqual(len(bends), 4)
        self.assertAlmostEqual(bends[0], 65.0 + path.runs[0].long_mm, places=6)
