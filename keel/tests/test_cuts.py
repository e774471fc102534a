"""What wells and sumps take and hold, by another reckoning; how far places lie off an outline with true arcs."""

import json
from math import hypot, pi
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely import Point as Spot
from shapely import Polygon

from keel.design.features import Sump, Well
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.box import Cuboid
from keel.solid.cuts import recess_cut, sump_solid, weld_of, well_piece
from keel.solid.faults import GeometryError
from keel.solid.section import section_of
from keel.solid.true_outline import off_arc, off_outline
from keel.studies.mount.outline import fine_ring
from keel.tests.samples import lengths
from keel.tests.wild import Wild

BODY = Cuboid((10.0, -20.0, 30.0), (910.0, 480.0, 430.0))
FACES = {"roof": (2, 1), "floor": (2, 0), "front": (0, 1), "rear": (0, 0), "left": (1, 1), "right": (1, 0)}


@st.composite
def wells(draw: st.DrawFn) -> Well:
    """Wells well inside their faces."""
    long, wide = draw(lengths(60, 200)), draw(lengths(60, 200))
    return Well(
        id="w", name="w", a_mm=100.0, b_mm=90.0, long_mm=long, wide_mm=wide, deep_mm=draw(lengths(20, 120)),
        slope_mm=draw(st.sampled_from([0.0, 0.0, 5.0, 12.0, 20.0])), form=draw(st.sampled_from(["box", "round"])),
        face=draw(st.sampled_from(list(FACES))), folded=draw(st.booleans()),
    )  # fmt: skip


def below_face(solid: Any, face: str, far: float) -> Any:
    """What of a solid is further than so far below a face of the body."""
    axis, high = FACES[face]
    normal = [0.0, 0.0, 0.0]
    normal[axis] = -1.0 if high else 1.0
    at = BODY.high[axis] - far if high else BODY.low[axis] + far
    return solid.trim_by_plane(normal, -at if high else at)


class Wells(TestCase):
    @settings(max_examples=60, deadline=None)
    @given(wells(), st.sampled_from([0.0, 1.5, 4.0]), st.sampled_from([0.0, 3.0]), st.sampled_from([0.0, 3.0, 8.0]))
    def test_its_piece_is_what_is_cut(self, well: Well, wall: float, from_face: float, bend: float) -> None:
        cut = below_face(recess_cut(well, BODY, wall, bend), well.face, from_face)
        piece, volume = well_piece(well, BODY, wall, from_face, bend)
        # A circle's chords hold as much as the circle: of a cone cut at a height that is nearly so.
        self.assertAlmostEqual(volume, cut.volume(), delta=2e-3 * volume)
        bounds = cut.bounding_box()
        for axis in range(3):
            self.assertAlmostEqual(piece.low[axis], bounds[axis], delta=0.6)
            self.assertAlmostEqual(piece.high[axis], bounds[axis + 3], delta=0.6)

    @settings(max_examples=40, deadline=None)
    @given(wells(), st.sampled_from([1.0, 3.0]))
    def test_its_metal_lies_a_wall_off_everywhere(self, well: Well, wall: float) -> None:
        assume(not well.folded)
        inner, outer = recess_cut(well, BODY, 0.0, 0.0), recess_cut(well, BODY, wall, 0.0)
        inner, outer = below_face(inner, well.face, 2.0), below_face(outer, well.face, 2.0 - 1e-6)
        self.assertLess((inner - outer).volume(), 1e-3 * inner.volume())
        # The nearest places of what lies round it: the sides and the bottom are each a wall thick.
        around = below_face(recess_cut(well, BODY, wall + 50.0, 0.0), well.face, 2.0) - outer
        chords = 0.2 if well.form == "round" else 1e-3
        self.assertAlmostEqual(float(around.min_gap(inner, 100.0)), wall, delta=chords)

    def test_a_box_well_is_welded_along_mouth_corners_and_foot(self) -> None:
        well = Well(id="w", name="w", a_mm=100, b_mm=90, long_mm=120, wide_mm=80, deep_mm=50, slope_mm=10, folded=False)
        piece, _ = well_piece(well, BODY, 0.0, 0.0, 0.0)
        corners = 4 * hypot(50.0, hypot(10.0, 10.0))
        self.assertAlmostEqual(weld_of(well, BODY, piece), 2 * (120 + 80) + corners + 2 * (100 + 60))
        folded = well.model_copy(update={"folded": True})
        self.assertAlmostEqual(weld_of(folded, BODY, piece), 2 * (120 + 80) + corners)
        beside = well.model_copy(update={"a_mm": 0.0})
        self.assertAlmostEqual(weld_of(well, BODY, piece) - weld_of(beside, BODY, piece), 80.0)

    def test_a_round_one_along_its_rims_and_one_line(self) -> None:
        well = Well(id="w", name="w", a_mm=100, b_mm=90, long_mm=120, wide_mm=80, deep_mm=50, form="round")
        self.assertAlmostEqual(weld_of(well, BODY, BODY), 2 * pi * 120 + 50)


class Sumps(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.floats(60, 200), st.floats(60, 200), st.floats(20, 100), st.floats(0, 20), st.sampled_from([0.0, 2.0]))
    def test_its_room_is_a_prismatoid(self, long: float, wide: float, deep: float, slope: float, wall: float) -> None:
        sump = Sump(
            id="s", name="s", a_mm=50, b_mm=60, long_mm=long, wide_mm=wide, deep_mm=deep, slope_mm=slope, folded=False
        )
        room = sump_solid(sump, BODY, wall, 0.0, 0.0)
        out = wall * hypot(1.0, slope / deep)

        def area(w: float) -> float:
            lean = 2 * (slope * w / deep + out)
            return (long - lean) * (wide - lean)

        low = deep - wall
        wanted = low / 6 * (area(0.0) + 4 * area(low / 2) + area(low))
        self.assertAlmostEqual(room.volume(), wanted, delta=1e-6 * wanted)
        self.assertAlmostEqual(room.bounding_box()[2], BODY.low[2] - low)


class Outlines(TestCase):
    def test_off_an_outline_is_off_its_fine_ring(self) -> None:
        rng, seen = np.random.default_rng(7), 0
        for seed in range(7000, 7080):
            try:
                document = read_design(json.dumps(Wild(seed).document()))
                assert document.shell is not None
                section = section_of(document.shell.model_copy(update={"features": ()}))
            except (GeometryError, UnreadableDesignError):
                continue
            if not section.edges:
                continue
            low, high = section.extents
            places = rng.uniform(np.array(low) - 60, np.array(high) + 60, (40, 2))
            rim = Polygon(fine_ring(section)).exterior
            wanted = [rim.distance(Spot(place)) for place in places]
            np.testing.assert_allclose(off_outline(places, section.edges, section.radii), wanted, atol=0.02)
            seen += 1
        self.assertGreater(seen, 20)

    @settings(max_examples=60, deadline=None)
    @given(st.floats(-pi, pi), st.floats(-6.2, 6.2), st.floats(5, 80), st.integers(0, 10**6))
    def test_off_an_arc_is_off_its_many_places(self, start: float, turn: float, radius: float, seed: int) -> None:
        assume(abs(turn) > 0.05)
        places = np.random.default_rng(seed).uniform(-120, 120, (12, 2))
        angles = start + np.linspace(0.0, turn, 4001)
        on = np.column_stack([np.cos(angles), np.sin(angles)]) * radius
        wanted = np.linalg.norm(places[:, None] - on[None], axis=2).min(axis=1)
        found = off_arc(places, (0.0, 0.0), radius, start, turn)
        np.testing.assert_allclose(found, wanted, atol=0.08)
