"""Plates of wells, sumps, reliefs and roof steps, and what they cut out of the shell's parts."""

import json
from collections.abc import Iterator
from itertools import combinations, pairwise
from math import pi
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import CrossSection, Manifold, OpType
from shapely.geometry import LineString, Polygon
from shapely.geometry.polygon import orient
from shapely.ops import unary_union

from keel.analysis.tank import Asked, TankAnalysis
from keel.evaluation import evaluate
from keel.formats.document import read_design
from keel.solid.faults import GeometryError
from keel.solid.planes import polygons_of
from keel.solid.polyhedron import Array
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.folding import Turn
from keel.studies.sheet.let_in import LET_IN
from keel.studies.sheet.lying import Lying, lying, panel_places, zone_places
from keel.studies.sheet.machines import bend_mm
from keel.studies.sheet.openings import OPENINGS, takings
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.shell_parts import BARE_SOLIDS, PIECES

T, R = 3.0, 4.5
SIZE = {"length_mm": 600, "width_mm": 400, "height_mm": 300}
WELL = {
    "kind": "well",
    "id": "w",
    "name": "well",
    "a_mm": 200,
    "b_mm": 120,
    "long_mm": 160,
    "wide_mm": 120,
    "deep_mm": 60,
}
SUMP = WELL | {"kind": "sump", "id": "s", "name": "sump"}
RELIEF = {"kind": "relief", "id": "r", "name": "axle", "x_mm": 0, "y_mm": -5, "z_mm": -5}
RELIEF |= {"length_mm": 100, "width_mm": 500, "height_mm": 85}
STEP = {"kind": "roof step", "id": "t", "name": "step", "side": "front", "reach_mm": 150, "drop_mm": 90}


def tank(*features: dict[str, Any], scheme: str = "flat plates", **more: Any) -> TankAnalysis:
    """A box of 600 × 400 × 300 in 3 mm sheet."""
    shell = SIZE | {"thickness_mm": T, "bend_radius_mm": R, "features": list(features)} | more.pop("shell", {})
    return TankAnalysis(Asked(read_design(json.dumps({"shell": shell, "sheet": {"scheme": scheme}} | more))))


def metal(part: FlatPart) -> list[Manifold]:
    """A flat part as solids, one for each place where a piece of it lies: panels and bends."""
    return [Manifold.batch_boolean(list(_folded(lying(part, place))), OpType.Add) for place in part.places]


def _folded(piece: Lying) -> Iterator[Manifold]:
    sheet, thick = Polygon(piece.part.outline, piece.part.holes), piece.part.thickness_mm
    turns = [panel.turn for panel in piece.panels if panel.turn is not None]
    zones = [LineString([turn.start, turn.end]).buffer(turn.zone_mm / 2, cap_style="flat") for turn in turns]
    for panel in piece.panels:
        for flat in polygons_of(Polygon(panel.outline).intersection(sheet).difference(unary_union(zones))):
            rings = [np.array(ring.coords)[:-1] for ring in (orient(flat).exterior, *orient(flat).interiors)]
            yield Manifold.extrude(CrossSection(rings), thick).transform(panel.matrix[:3])
        if panel.turn is not None and panel.parent is not None:
            yield from _bend(panel.turn, piece.panels[panel.parent].matrix, thick)


def _bend(turn: Turn, matrix: Array, thick: float, strips: int = 12) -> Iterator[Manifold]:
    start, along = np.array(turn.start), np.array(turn.end) - np.array(turn.start)
    left = np.array([-along[1], along[0]]) / np.linalg.norm(along) * turn.zone_mm
    lines = [start + left * (n / strips - 0.5) for n in range(strips + 1)]
    for near, far in pairwise(lines):
        flat = np.array([near, near + along, far, far + along])
        yield Manifold.hull_points(np.vstack([zone_places(matrix, turn, flat, w) for w in (0.0, thick)]))


def plates(of: TankAnalysis) -> dict[str, FlatPart]:
    """Features' plates by the ends of their names."""
    return {part.name.removeprefix("let-in-"): part for part in of[LET_IN]}


class WhatFillsTheWall(TestCase):
    """All plates together, in space, against the metal of the solid that the litres are counted in."""

    def assert_fills(self, *features: dict[str, Any], gap: float = 0.0, chords: float = 0.0) -> None:
        """Nothing runs into anything else, nothing stands outside the metal but `chords`, all is there but `gap`."""
        plain, made = tank(), tank(*features)
        missing = []
        for one in (plain, made):
            solids = [solid for part in one[FLATS].parts for solid in metal(part)]
            shell = one[BARE_SOLIDS].outer - one[BARE_SOLIDS].inner
            for a, b in combinations(solids, 2):
                self.assertLess((a ^ b).volume(), 1.0 + chords, "runs into another")
            self.assertLess(sum((solid - shell).volume() for solid in solids), 1.0 + chords, "stands outside")
            missing.append(shell.volume() - sum(solid.volume() for solid in solids))
        # What is missing of the plain box is open corners and the ends' gap; a cut takes some of that away.
        self.assertLess(missing[1], missing[0] + gap + 5.0)

    def test_each_kind(self) -> None:
        """Straight sides meet without a gap, wherever the mouth is."""
        self.assert_fills(WELL)
        self.assert_fills(WELL | {"face": "rear", "a_mm": 100, "b_mm": 90})
        self.assert_fills(WELL | {"a_mm": 0})
        self.assert_fills(SUMP)
        self.assert_fills(RELIEF | {"y_mm": 100, "width_mm": 90})
        self.assert_fills(STEP)
        self.assert_fills(WELL, SUMP | {"a_mm": 300, "b_mm": 200}, STEP | {"drop_mm": 40, "reach_mm": 100})

    @settings(max_examples=25, deadline=None)
    @given(
        st.sampled_from(("roof", "left", "front", "floor")),
        st.floats(20, 120),
        st.floats(20, 80),
        st.floats(40, 120),
        st.floats(20, 90),
        st.floats(0, 15),
    )
    def test_recesses_at_random(self, face: str, a: float, b: float, wide: float, deep: float, slope: float) -> None:
        """Sides that lean stand clear of each other and of the bottom: only a wedge at each edge is left open."""
        well = WELL | {"face": face, "a_mm": a, "b_mm": b, "long_mm": 150, "wide_mm": wide, "deep_mm": deep}
        wedge = T**2 * slope / deep * 12 * (150 + wide + deep)
        self.assert_fills(well | {"slope_mm": slope}, gap=wedge)
        self.assert_fills(
            SUMP | {"a_mm": a + 50, "b_mm": b, "long_mm": 150, "wide_mm": wide, "slope_mm": slope}, gap=wedge
        )

    def test_bent_up(self) -> None:
        """Sides bent up from one sheet fill the wall too, round at its bends; corners stay open as deep as these."""
        open_corner = T * (T + R) ** 2
        for feature, bends in (
            (WELL, 4),
            (WELL | {"slope_mm": 12}, 4),
            (WELL | {"face": "rear", "a_mm": 100, "b_mm": 90}, 4),
            (WELL | {"a_mm": 0}, 3),
            (SUMP, 4),
            (SUMP | {"slope_mm": 12}, 4),
            (RELIEF, 1),
            (RELIEF | {"y_mm": 100, "width_mm": 90}, 3),
            (RELIEF | {"x_mm": 250, "z_mm": 200, "height_mm": 150}, 2),
            (STEP, 1),
        ):
            wedge = T**2 * feature.get("slope_mm", 0) / 60 * 12 * 340
            made = tank(feature | {"folded": True})
            (part,) = plates(made).values()
            # Rounds are chords within a tenth: so much for each millimetre of a bend.
            chords = 0.3 * sum(bend_mm(bend) for bend in part.bends)
            self.assert_fills(feature | {"folded": True}, gap=8 * open_corner + wedge, chords=chords)
            self.assertEqual(len(part.bends), bends, feature)
            cost, welded = (one[BARE_SOLIDS].costs[0] for one in (made, tank(feature)))
            self.assertLess(cost.weld_mm, welded.weld_mm)

    def test_a_folded_wells_size(self) -> None:
        """Outside legs less two deductions either way; litres are more than a sharp one's by four rounds."""
        part = plates(tank(WELL | {"folded": True}))["w-folded"]
        deduction = 2 * (R + T) - pi / 2 * (R + 0.4 * T)
        self.assertAlmostEqual(part.length_mm, 166 + 2 * 63 - 2 * deduction, places=3)
        self.assertAlmostEqual(part.width_mm, 126 + 2 * 63 - 2 * deduction, places=3)
        self.assertEqual({bend.direction for bend in part.bends}, {"down"})
        sharp, bent = (tank(WELL | {"folded": one})[BARE_SOLIDS].inner.volume() for one in (False, True))
        self.assertAlmostEqual((bent - sharp) / ((1 - pi / 4) * (R + T) ** 2 * 2 * (166 + 126 - R - T)), 1, delta=0.02)

    def test_no_room_for_bends(self) -> None:
        """A bend that the bottom or the depth can't take is named with its room."""
        for change, field in (({"deep_mm": 4}, "deep_mm"), ({"wide_mm": 8}, "wide_mm"), ({"slope_mm": 59}, "wide_mm")):
            with self.assertRaises(GeometryError) as refused:
                tank(WELL | {"folded": True} | change)[BARE_SOLIDS]
            self.assertEqual(refused.exception.fault.field, f"shell.features.0.{field}")

    def test_sizes(self) -> None:
        """A bottom passes behind the sides, sides square to x behind those square to y; a sump's stand between."""
        well, sump = plates(tank(WELL)), plates(tank(SUMP))
        self.assertEqual(
            {name: (round(part.length_mm, 6), round(part.width_mm, 6)) for name, part in well.items()},
            {
                "w-bottom": (166, 126),
                "w-rear-side": (126, 60),
                "w-front-side": (126, 60),
                "w-right-side": (160, 60),
                "w-left-side": (160, 60),
            },
        )
        self.assertEqual(
            {name: (round(part.length_mm, 6), round(part.width_mm, 6)) for name, part in sump.items()},
            {
                "s-bottom": (160, 120),
                "s-rear-side": (120, 57),
                "s-front-side": (120, 57),
                "s-right-side": (154, 57),
                "s-left-side": (154, 57),
            },
        )


class Round(TestCase):
    """Strips, discs and cones."""

    def test_a_well_and_a_sump(self) -> None:
        """Round a recess the sheet lies outside its size, round a sump inside; both are as long as their middle."""
        well, sump = (plates(tank(one | {"form": "round", "long_mm": 120})) for one in (WELL, SUMP))
        side = well["w-side"]
        self.assertAlmostEqual(side.length_mm, pi * 123, delta=0.01)
        self.assertAlmostEqual(side.width_mm, 60, delta=1e-6)
        self.assertEqual([(roll.direction, roll.radius_mm) for roll in side.rolls], [("down", 61.5)])
        self.assertAlmostEqual(well["w-bottom"].length_mm, 126)
        hung = sump["s-side"]
        self.assertAlmostEqual(hung.length_mm, pi * 117, delta=0.01)
        self.assertAlmostEqual(hung.width_mm, 57, delta=1e-6)
        self.assertEqual([(roll.direction, roll.radius_mm) for roll in hung.rolls], [("up", 58.5)])
        self.assertAlmostEqual(sump["s-bottom"].length_mm, 120, delta=0.01)

    def test_a_shaft_along_the_floor(self) -> None:
        """Half a circle cut along the floor is a strip of half its circumference, less what its square edges take."""
        shaft = RELIEF | {"form": "x", "x_mm": -10, "y_mm": 140, "z_mm": -60, "length_mm": 700, "width_mm": 120}
        made = tank(shaft | {"height_mm": 120})
        (part,) = plates(made).values()
        self.assertAlmostEqual(part.length_mm, pi * 61.5, delta=0.01)
        self.assertAlmostEqual(part.width_mm, 600, delta=1e-6)
        slots = [one for one in made[FLATS].parts if one.name.startswith("wrapper-1")]
        self.assertEqual(len(slots), 2, "the floor falls apart along the shaft")
        self.assertAlmostEqual(sum(one.length_mm for one in slots), 400 - 126 - 2 * T, delta=0.1)
        self.assertAlmostEqual(sum(one.area_mm2 for one in slots), sum(one.length_mm for one in slots) * 600, delta=1)

    def test_a_shaft_through_a_drum(self) -> None:
        """Upright through a lying drum of 300 a tube of 80: at every turn as high as the drum is at both its faces."""
        drum = {"kind": "cylinder", "axis": "x", "diameter_mm": 300, "run_mm": 600, "thickness_mm": T}
        shaft = RELIEF | {"form": "z", "x_mm": 260, "y_mm": 110, "z_mm": -10, "length_mm": 80, "width_mm": 80}
        document = {"shell": drum | {"features": [shaft | {"height_mm": 320}]}}
        made = TankAnalysis(Asked(read_design(json.dumps(document))))
        (strip,) = plates(made).values()
        self.assertAlmostEqual(strip.length_mm, pi * 83, delta=0.01)
        # The face further out across the drum is the lower one: 40 where it looks along the drum, 43 across it.
        turns = np.linspace(0, 2 * pi, 721)
        high = np.min([2 * np.sqrt(150**2 - (r * np.sin(turns)) ** 2) for r in (40.25, 42.75)], axis=0)
        self.assertAlmostEqual(strip.area_mm2 / (np.trapezoid(high, turns) * 41.5), 1, delta=2e-4)
        self.assertAlmostEqual(strip.width_mm, 300, delta=0.3)
        # Both mouths are in the drum's sheet, as wide as the tube's outside: one a hole, the other across its seam.
        wrapper = made[FLATS].parts[0]
        (hole,) = (Polygon(ring).area for ring in wrapper.holes)
        self.assertGreater(hole, pi * 43**2 * 0.995)
        self.assertLess(hole, pi * 43**2 * 1.03)
        self.assertAlmostEqual((pi * 297 * 600 - wrapper.area_mm2) / (2 * hole), 1, delta=1e-3)

    @settings(max_examples=15, deadline=None)
    @given(st.floats(20, 90), st.floats(-40, 60), st.sampled_from("xy"))
    def test_a_groove_anywhere(self, radius: float, middle: float, axis: str) -> None:
        """A cylinder cut along the floor at any height: its strip has the share of the circle that is in the box."""
        wide, start = 2 * radius, 200 - radius
        groove = RELIEF | {"form": axis, "z_mm": middle - radius, "height_mm": wide}
        groove |= {"x_mm": -10, "length_mm": 700, "y_mm": start, "width_mm": wide}
        if axis == "y":
            groove |= {"x_mm": start, "length_mm": wide, "y_mm": -10, "width_mm": 500}
        if middle + radius < T + 2 or middle > radius - 5:
            return
        made = plates(tank(groove))
        # Both faces in the box: the outer one leaves it sooner below the middle, the inner one above.
        share = min(2 * np.arccos(np.clip(-middle / r, -1, 1)) for r in (radius + 0.25, radius + T - 0.25))
        long = sum(part.length_mm for name, part in made.items() if "side" in name)
        self.assertAlmostEqual(long, share * (radius + T / 2), delta=0.6)

    def test_a_cone(self) -> None:
        """A side that narrows is a sector; where it doesn't come out of a flat face it is said to be missing."""
        cone = WELL | {"form": "round", "long_mm": 120, "slope_mm": 15}
        side = plates(tank(cone))["w-side"]
        steep = np.hypot(1, 15 / 60)
        # The sheet's middle between mouth and bottom: the mean of its two circles times its slant.
        past = T * 0.25 / steep
        mean = 60 - (60 - past) * 0.125 + T / 2 / steep
        self.assertAlmostEqual(side.area_mm2, 2 * pi * mean * (60 - past) * steep, delta=3)
        found = evaluate(tank(cone | {"a_mm": -20}).design).findings
        self.assertEqual([f.title.values["names"] for f in found if f.code == "sheet.features"], ["well"])
        self.assertNotIn("sheet.features", {f.code for f in evaluate(tank(WELL, SUMP, RELIEF, STEP).design).findings})


class Openings(TestCase):
    """What is cut out of parts that are bent."""

    def off_the_space(self, piece: Lying, spots: Array, normals: Array, offsets: Array) -> Array:
        """How far each spot of a flat, folded up, lies off the space that is taken: at the nearer of its faces [mm]."""
        found = np.full(len(spots), np.inf)
        for w in (0.01, piece.part.thickness_mm - 0.01):
            for panel in piece.panels:
                inside = [Polygon(panel.outline).buffer(0.01).covers(Polygon([s, s + 1e-9, s]).centroid) for s in spots]
                ways = [panel_places(panel, spots, w)]
                if panel.turn is not None and panel.parent is not None:
                    start, end = np.array(panel.turn.start), np.array(panel.turn.end)
                    left = np.array([-(end - start)[1], (end - start)[0]]) / np.linalg.norm(end - start)
                    near = np.abs((spots - start) @ left) <= panel.turn.zone_mm / 2 + 0.01
                    zone = np.max(
                        zone_places(piece.panels[panel.parent].matrix, panel.turn, spots, w) @ normals.T - offsets,
                        axis=1,
                    )
                    found = np.where(near, np.minimum(found, np.abs(zone)), found)
                for places in ways:
                    off = np.abs(np.max(places @ normals.T - offsets, axis=1))
                    found = np.where(inside, np.minimum(found, off), found)
        return found

    @settings(max_examples=12, deadline=None)
    @given(
        st.sampled_from(("wrapper and pans", "two U's", "tray and lid", "wrapper and flat ends")),
        st.floats(-30, 30),
        st.floats(40, 200),
        st.floats(60, 160),
    )
    def test_edges_lie_on_what_is_taken(self, scheme: str, low: float, at: float, wide: float) -> None:
        """A relief through a bend: folded up, every edge of its opening lies on the space that it takes."""
        relief = RELIEF | {
            "x_mm": at,
            "y_mm": low - 60,
            "z_mm": -20,
            "length_mm": wide,
            "width_mm": 150,
            "height_mm": 90,
        }
        made = tank(relief, scheme=scheme)
        pieces = {(piece.part.name, piece.place.name): piece for piece in made[PIECES]}
        (taking,) = takings(made[BARE_SOLIDS])
        normals, offsets = taking.half_spaces
        self.assertTrue(made[OPENINGS])
        for opening in made[OPENINGS]:
            piece = pieces[opening.part, opening.piece]
            edge = Polygon(piece.part.outline).exterior
            for ring in (one.exterior for one in getattr(opening.shape, "geoms", [opening.shape])):
                spots = np.array(ring.coords)[:-1]
                free = np.array([edge.distance(Polygon([s, s + 1e-9, s]).centroid) > 0.02 for s in spots])
                if free.any():
                    self.assertLess(np.max(self.off_the_space(piece, spots[free], normals, offsets)), 0.05)

    def test_holes_and_bend_lines(self) -> None:
        """A well is a hole in the lid; a relief through a bend takes its line away; a step parts the wrapper."""
        lid = next(one for one in tank(WELL, scheme="two U's")[FLATS].parts if one.holes)
        (hole,) = (Polygon(ring) for ring in lid.holes)
        self.assertAlmostEqual(hole.area, 166 * 126, delta=1.0)
        plain = sum(len(one.bends) for one in tank(scheme="wrapper and pans")[FLATS].parts)
        through = RELIEF | {"x_mm": 200, "width_mm": 60, "y_mm": -10, "z_mm": -10}
        cut = tank(through, scheme="wrapper and pans")[FLATS].parts
        lines = [bend for one in cut for bend in one.bends]
        self.assertEqual(len(lines), plain + 1, "the bend goes on at either side of the relief")
        across = tank(STEP, scheme="wrapper and pans", shell={"wrap_axis": "y"})[FLATS].parts
        self.assertEqual([one.name for one in across if one.name.startswith("wrapper")], ["wrapper", "wrapper-piece-2"])

    def test_a_port_on_a_wells_bottom(self) -> None:
        """Its hole is in the plate that lies there."""
        port = {
            "id": "p",
            "name": "sender",
            "role": "spare",
            "x_mm": 280,
            "y_mm": 180,
            "seat": {"hole_mm": 40, "outer_mm": 70},
        }
        made = tank(WELL, ports=[port])[FLATS].parts
        self.assertEqual([one.name for one in made if one.bores], ["let-in-w-bottom"])
        self.assertFalse(any(one.holes_not_drawn for one in made))
