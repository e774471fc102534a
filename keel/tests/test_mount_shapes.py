"""The section that a strap lies on, straps and mounts on random tanks, the nearest safe place, and a moving film."""

import json
from math import hypot, pi
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LineString, MultiPoint, Polygon
from shapely import Point as Spot

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.formats.document import read_design
from keel.solid.faults import GeometryError
from keel.solid.polygon import ShapeError
from keel.solid.section import section_of
from keel.solid.shapes import slice_rings
from keel.solid.taut import NoBandError, band_over
from keel.studies.mount.bolt_list import BOLTS_LISTED
from keel.studies.mount.loads import MOUNT_LOADS
from keel.studies.mount.near_seams import NEAR_SEAMS
from keel.studies.mount.outline import fine_ring, outline_at
from keel.studies.mount.protection import PROTECTION
from keel.studies.mount.straps import STRAPS
from keel.studies.proof.seam_paths import SEAM_PATHS
from keel.tests.samples import box
from keel.tests.wild import Wild

CYLINDER: dict[str, Any] = {
    "kind": "cylinder",
    "axis": "x",
    "diameter_mm": 400.0,
    "run_mm": 600.0,
    "metal": "mild steel",
}


def analysed(shell: dict[str, Any], **more: Any) -> TankAnalysis:
    whole = shell if "kind" in shell else box().model_dump() | shell
    return TankAnalysis(Asked(Design.model_validate({"shell": whole} | more), Workshop()))


def round_about(ring: np.ndarray[Any, Any]) -> float:
    closed = np.vstack([ring, ring[:1]])
    return float(np.linalg.norm(np.diff(closed, axis=0), axis=1).sum())


class Outlines(TestCase):
    """Its rounds are true arcs, not the solid's chords of the same area."""

    def test_a_rounded_box_is_as_long_round_as_arcs_are(self) -> None:
        tank = analysed({"bend_radius_mm": 17.0, "wrap_axis": "x"})
        ring = fine_ring(tank[SOLIDS].section)
        self.assertAlmostEqual(round_about(ring), 2 * (400 + 350) - 8 * 20 + 2 * pi * 20, delta=1e-3)

    def test_a_round_tank_is_a_circle(self) -> None:
        tank = analysed(CYLINDER)
        self.assertAlmostEqual(round_about(fine_ring(tank[SOLIDS].section)), pi * 400, delta=0.02)
        outline = outline_at(tank[SOLIDS], 0, 300.0)
        self.assertAlmostEqual(outline.area, pi * 200**2, delta=10.0)

    def test_a_bowed_side_is_its_arc(self) -> None:
        corners = [{"across_mm": 0.0, "up_mm": 0.0}, {"across_mm": 400.0, "up_mm": 0.0, "bow_mm": 60.0}]
        corners += [{"across_mm": 400.0, "up_mm": 300.0}, {"across_mm": 0.0, "up_mm": 300.0}]
        shell: dict[str, Any] = {"kind": "profile", "wrap_axis": "x", "run_mm": 500.0, "corners": corners}
        tank = analysed(shell | {"bend_radius_mm": 0.0})
        radius = (150**2 + 60**2) / (2 * 60)
        arc = 2 * radius * np.arcsin(150 / radius)
        self.assertAlmostEqual(round_about(fine_ring(tank[SOLIDS].section)), 400 + 300 + 400 + arc, delta=0.01)

    def test_a_recess_is_cut_out_of_it_and_a_sump_hangs_from_it(self) -> None:
        well = {"kind": "well", "id": "w", "name": "well", "face": "roof", "a_mm": 200.0, "b_mm": 100.0}
        well |= {"long_mm": 200.0, "wide_mm": 100.0, "deep_mm": 80.0}
        sump = {"kind": "sump", "id": "s", "name": "sump", "a_mm": 200.0, "b_mm": 150.0}
        sump |= {"long_mm": 150.0, "wide_mm": 120.0, "deep_mm": 60.0}
        plain = analysed({"bend_radius_mm": 17.0, "wrap_axis": "x"})
        made = analysed({"bend_radius_mm": 17.0, "wrap_axis": "x", "features": [well, sump]})
        there, beside = (outline_at(made[SOLIDS], 0, at) for at in (275.0, 600.0))
        whole = outline_at(plain[SOLIDS], 0, 275.0)
        self.assertAlmostEqual(there.area, whole.area - 100 * 80 + 120 * 60, delta=20.0)
        self.assertAlmostEqual(beside.area, whole.area, delta=0.01)
        self.assertAlmostEqual(there.bounds[1], -60.0, delta=0.01)

    def test_over_a_dish_it_is_the_dishs_circle(self) -> None:
        tank = analysed(CYLINDER | {"dish_mm": 40.0})
        sphere = (200**2 + 40**2) / (2 * 40)
        for up in (10.0, 20.0, 30.0):
            radius = (sphere**2 - (sphere - 40 + up) ** 2) ** 0.5
            low, _, high, _ = outline_at(tank[SOLIDS], 0, -up).bounds
            self.assertAlmostEqual(high - low, 2 * radius, delta=4.0)

    def test_beside_the_tank_there_is_nothing(self) -> None:
        self.assertTrue(outline_at(analysed({})[SOLIDS], 0, 900.0).is_empty)

    @settings(max_examples=40, deadline=None)
    @given(st.integers(0, 10**6), st.floats(0.1, 0.9))
    def test_it_is_the_solids_slice_to_within_its_chords(self, seed: int, share: float) -> None:
        try:
            tank = TankAnalysis(Asked(read_design(json.dumps(Wild(seed).document())), Workshop()))
            solids = tank[SOLIDS]
        except (GeometryError, ShapeError):
            return
        for axis in (0, 1):
            low, high = solids.bounds.low[axis], solids.bounds.high[axis]
            at = low + share * (high - low)
            outline = outline_at(solids, axis, at)
            slices = [Polygon(ring) for ring in slice_rings(solids.outer, axis, at) if len(ring) > 2]
            if not slices:
                self.assertTrue(outline.is_empty)
                continue
            filled = MultiPoint([spot for one in slices for spot in one.exterior.coords]).convex_hull
            self.assertLess(outline.convex_hull.hausdorff_distance(filled), 0.6)


class OnRandomTanks(TestCase):
    """Whatever is drawn: no crash, a band that is as short as it can be, a load that is carried or said not to be."""

    @settings(max_examples=60, deadline=None)
    @given(st.integers(0, 10**6))
    def test_a_strap_is_the_shortest_way_round(self, seed: int) -> None:
        rng = np.random.default_rng(seed)
        try:
            solids = TankAnalysis(Asked(read_design(json.dumps(Wild(seed).document())), Workshop()))[SOLIDS]
        except (GeometryError, ShapeError):
            return
        low, high = solids.bounds.low, solids.bounds.high
        outline = outline_at(solids, 0, low[0] + float(rng.uniform(0.1, 0.9)) * (high[0] - low[0]))
        if outline.is_empty:
            return
        pad = float(rng.uniform(0.5, 10))
        start = (outline.bounds[0] - float(rng.uniform(15, 150)), outline.bounds[1] - float(rng.uniform(0, 100)))
        end = (outline.bounds[2] + float(rng.uniform(15, 150)), outline.bounds[1] - float(rng.uniform(0, 100)))
        band = band_over(outline, pad, start, end)
        # It is no shorter than straight, passes outside the metal, and nowhere cuts into its pads.
        self.assertGreater(band.long_mm, hypot(end[0] - start[0], end[1] - start[1]))
        line = LineString(band.line)
        self.assertLess(line.intersection(outline.buffer(pad - 0.11)).length, 0.05)
        # Every tent over the tank is longer: a rope over a higher ridge.
        ridge = (outline.bounds[2] + outline.bounds[0]) / 2, outline.bounds[3] + pad
        corners = [start, (outline.bounds[0] - pad, ridge[1]), (outline.bounds[2] + pad, ridge[1]), end]
        self.assertLess(band.long_mm, LineString(corners).length + 1e-6)
        self.assertAlmostEqual(sum(run.long_mm for run in band.runs), band.long_mm, places=6)

    def test_fifty_wild_mounts_are_worked_out_to_the_end(self) -> None:
        held = carried = 0
        for seed in range(50):
            document = Wild(seed).document()
            if not document["mount"]:
                continue
            try:
                tank = TankAnalysis(Asked(read_design(json.dumps(document)), Workshop()))
                checked = tank[MOUNT_LOADS]
            except (GeometryError, ShapeError):
                continue
            rows, kept = tank[BOLTS_LISTED], tank[PROTECTION]
            mount = tank.design.mount
            self.assertEqual(
                len(rows), 2 * (len(mount.straps) + len(mount.bearers)) + len(mount.feet) + len(mount.stops)
            )
            self.assertTrue(all(one.drill_mm >= one.hole_mm for one in kept.holes))
            held += 1
            for case in checked.cases:
                carried += len(case.by)
                if case.is_held and case.by:
                    total = np.sum([[one.force.x, one.force.y, one.force.z] for one in case.by], axis=0)
                    # What it sits on bears the rest of an upright load; lengthwise and sideways they bear it all.
                    axis = 0 if case.way in ("forward", "rearward") else 1
                    if case.way not in ("up", "down"):
                        self.assertAlmostEqual(abs(float(total[axis])) / case.load_n, 1.0, delta=0.06)
            for check in checked.mounts:
                reserves = [link.reserve for link in check.links]
                self.assertEqual(reserves, sorted(reserves))
                self.assertTrue(all(one > 0 for one in reserves))
        self.assertGreater(held, 10)
        self.assertGreater(carried, 50)

    def test_straps_of_wild_mounts_lie_or_say_why_not(self) -> None:
        lie, problems = 0, set[str]()
        for seed in range(80):
            try:
                tank = TankAnalysis(Asked(read_design(json.dumps(Wild(seed).document())), Workshop()))
                paths = tank[STRAPS]
            except (GeometryError, ShapeError):
                continue
            for strap, path in zip(tank.design.mount.straps, paths, strict=True):
                if path.problem:
                    problems.add(path.problem)
                    continue
                lie += 1
                self.assertAlmostEqual(path.cut_mm, path.path_mm + 2 * strap.loop_mm + strap.take_up_mm, places=6)
                self.assertEqual(len(path.marks), len([run for run in path.runs if run.is_bend]))
                outline = outline_at(tank[SOLIDS], "xy".index(path.axis), path.at_mm)
                for spot in path.line:
                    across = spot.y if path.axis == "x" else spot.x
                    self.assertGreater(outline.distance(Spot(across, spot.z)), strap.pad_mm - 0.11)
        self.assertGreater(lie, 5)
        self.assertLessEqual(len(problems), 4)


class SafePlaces(TestCase):
    """Looked for again by sampling the whole face."""

    def test_no_nearer_place_is_safe(self) -> None:
        hole: dict[str, Any] = {
            "id": "h",
            "name": "hole",
            "x_mm": 785.0,
            "y_mm": 60.0,
            "z_mm": 350.0,
            "across_mm": 10.0,
        }
        tank = analysed({"bend_radius_mm": 4.5}, mount={"new_work": [hole]})
        near = tank[NEAR_SEAMS][0]
        assert near.safe is not None
        starts = np.vstack([line.points[:-1] for seam in tank[SEAM_PATHS] for line in seam.lines])
        ends = np.vstack([line.points[1:] for seam in tank[SEAM_PATHS] for line in seam.lines])
        steps = np.linspace(0, 1, 60)[:, None, None]
        along = (starts + steps * (ends - starts)).reshape(-1, 3)

        def off(x: float, y: float) -> float:
            return float(np.linalg.norm(along - (x, y, 350.0), axis=1).min())

        self.assertGreaterEqual(off(near.safe.x, near.safe.y), near.needed_mm + 5.0 - 0.5)
        reach = hypot(near.safe.x - 785.0, near.safe.y - 60.0)
        for x in np.arange(785.0 - reach, 785.0 + reach, 10.0):
            for y in np.arange(60.0 - reach, 60.0 + reach, 10.0):
                inside = 30 <= x <= 770 and 30 <= y <= 370
                if inside and hypot(x - 785.0, y - 60.0) < reach - 10.0:
                    self.assertLess(off(float(x), float(y)), near.needed_mm + 5.0 + 3.0)

    def test_a_place_over_the_tank_is_judged_on_it(self) -> None:
        def off(z_mm: float) -> float:
            hole = {"id": "h", "name": "hole", "x_mm": 780.0, "y_mm": 200.0, "z_mm": z_mm, "across_mm": 10.0}
            return analysed({"bend_radius_mm": 4.5}, mount={"new_work": [hole]})[NEAR_SEAMS][0].off_mm

        self.assertAlmostEqual(off(390.0), off(350.0))


class SectionsByHand(TestCase):
    def test_a_sections_corners_follow_its_seam(self) -> None:
        shell = box(bend_radius_mm=10.0, wrap_axis="x")
        welded = fine_ring(section_of(shell, "corner butt"))
        bent = fine_ring(section_of(shell, "lid"))
        self.assertGreater(round_about(welded), round_about(bent))

    def test_places_inside_the_pads_are_refused(self) -> None:
        square = Polygon([(0, 0), (100, 0), (100, 100), (0, 100)])
        for start in ((50.0, 50.0), (-3.0, 50.0)):
            with self.assertRaises(NoBandError):
                band_over(square, 5.0, start, (200.0, -20.0))
