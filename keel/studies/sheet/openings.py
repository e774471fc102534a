"""What features cut out of the shell's own parts, carried to their flats."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from math import cos

import numpy as np
from manifold3d import Manifold
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from keel.analysis.study import study
from keel.design.features import Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell
from keel.solid.box import Cuboid, cuboid_round
from keel.solid.cuts import recess_cut, sump_solid
from keel.solid.facets import BEYOND_MM
from keel.solid.planes import cuts_by
from keel.solid.polyhedron import Array
from keel.solid.shapes import bounds_of, mesh_of
from keel.solid.sides import meet
from keel.solid.solids import Solids
from keel.studies.sheet.folding import Panel
from keel.studies.sheet.lying import Lying, panel_places, zone_places
from keel.studies.sheet.shell_parts import BARE_SOLIDS, PIECES
from keel.studies.sheet.tabs import TABS, Tab

HAIR_MM = 0.01
"""So far inside a sheet's two faces its openings are looked for."""
STEP_MM = 2.0
"""Across a turn's zone an opening is looked at in steps no wider than this."""
HALVINGS = 24
ABOUT = 7
"""The box round a zone is that of so many lines across it."""
LEAST_MM2 = 1.0
SMOOTH_MM = 0.005
FLUSH_MM = 1e-6


@dataclass(frozen=True)
class Taking:
    """The space that a feature takes out of the shell's own sheet: a convex solid, its plates in it."""

    feature: str
    solid: Manifold

    @cached_property
    def half_spaces(self) -> tuple[Array, Array]:
        """Outward normals, shape (n, 3), and how far out each face lies, shape (n,) [mm]."""
        a, b, c = mesh_of(self.solid).corners.transpose(1, 0, 2)
        normals = np.cross(b - a, c - a)
        long = np.linalg.norm(normals, axis=1)
        normals = normals[long > 0] / long[long > 0, None]
        planes = np.column_stack([normals, np.einsum("ij,ij->i", normals, a[long > 0])])
        _, first = np.unique(planes.round(6), axis=0, return_index=True)
        return planes[first, :3], planes[first, 3]


@dataclass(frozen=True)
class Opening:
    """What is cut out of one piece of one part, in u and v of its flat."""

    part: str
    piece: str
    shape: BaseGeometry


def takings(solids: Solids) -> list[Taking]:
    """What every feature takes out of the shell's own sheet.

    Parameters
    ----------
    solids : Solids
        The shell as built, without a bag.

    Returns
    -------
    list of Taking
        Recesses with their plates, which reach the outside; of a sump what is clear inside it: its plates stand
        under the floor.
    """
    shell, body, found = solids.shell, solids.body, list[Taking]()
    wall = shell.feature_wall_mm
    for feature in shell.features:
        match feature:
            case Well() | RoofStep() | Relief():
                past = _past_the_lips(feature, body) if isinstance(feature, Relief) else feature
                found.append(Taking(feature.id, recess_cut(past, body, wall, shell.fold_mm)))
            case Sump():
                flat = isinstance(shell, BoxShell)
                up = solids.inner_body.low[2] - body.low[2] if flat else body.size[2] / 2
                found.append(Taking(feature.id, sump_solid(feature, body, wall, up, shell.fold_mm + wall)))
    return found


def _past_the_lips(relief: Relief, body: Cuboid) -> Relief:
    """A box relief that reaches the end of the body goes on past whatever the wrapper stands out there."""
    if relief.form != "box":
        return relief
    low, size = [relief.x_mm, relief.y_mm, relief.z_mm], [relief.length_mm, relief.width_mm, relief.height_mm]
    for axis in range(3):
        high = low[axis] + size[axis]
        if high >= body.size[axis] - FLUSH_MM:
            high += BEYOND_MM
        if low[axis] <= FLUSH_MM:
            low[axis] -= BEYOND_MM
        size[axis] = high - low[axis]
    places = dict(zip(("x_mm", "y_mm", "z_mm", "length_mm", "width_mm", "height_mm"), (*low, *size), strict=True))
    return relief.model_copy(update=places)


def openings(pieces: Sequence[Lying], solids: Solids, tabs: Sequence[Tab]) -> list[Opening]:
    """Carry what features take, and slots for tabs, to the flats of the shell's parts.

    Parameters
    ----------
    pieces : sequence of Lying
        The shell's own, where they lie.
    solids : Solids
        The shell as built.
    tabs : sequence of Tab
        Of plates that stand inside.

    Returns
    -------
    list of Opening
        One a piece that anything is cut out of. The edge of an opening is square to the sheet: the wider of what is
        met at its two faces.
    """
    taken, found = [*takings(solids), *(Taking(tab.plate, tab.slot) for tab in tabs)], list[Opening]()
    for piece in pieces if taken else ():
        sheet = _Sheet(piece)
        # A hair wider and back: what only touches across a bend's edge is one opening.
        shapes = [shape.buffer(HAIR_MM, join_style="mitre") for taking in taken for shape in sheet.opened(taking)]
        shape = unary_union(shapes).buffer(-HAIR_MM, join_style="mitre").intersection(Polygon(piece.part.outline))
        if shape.area > LEAST_MM2:
            found.append(Opening(piece.part.name, piece.place.name, shape.simplify(SMOOTH_MM)))
    return found


class _Sheet:
    """A piece's panels and zones, each with the box that it lies in."""

    def __init__(self, piece: Lying) -> None:
        self._piece, self._faces = piece, (HAIR_MM, piece.part.thickness_mm - HAIR_MM)
        self._boxes = [self._box(panel) for panel in piece.panels]

    def _box(self, panel: Panel) -> Cuboid:
        corners = np.array(panel.outline)
        return cuboid_round(np.vstack([panel_places(panel, corners, w) for w in (0.0, self._piece.part.thickness_mm)]))

    @cached_property
    def _flats(self) -> list[BaseGeometry]:
        """Every panel without the zones of turns."""
        turns = [panel.turn for panel in self._piece.panels if panel.turn is not None]
        lines = [(LineString([turn.start, turn.end]), turn.zone_mm / 2) for turn in turns]
        zones = unary_union([line.buffer(half, cap_style="square") for line, half in lines])
        return [Polygon(panel.outline).difference(zones) for panel in self._piece.panels]

    def opened(self, taking: Taking) -> list[BaseGeometry]:
        """What a feature takes out of it."""
        about, found = bounds_of(taking.solid), list[BaseGeometry]()
        near = [meet(box, about) for box in self._boxes]
        for number, panel in enumerate(self._piece.panels):
            if near[number]:
                cuts = cuts_by(taking.solid, panel.matrix, self._faces)
                found += [cut.intersection(self._flats[number]) for cut in cuts]
        for zone in self._zones:
            found += zone.opened(taking) if meet(zone.about, about) else []
        return [shape for shape in found if not shape.is_empty]

    @cached_property
    def _zones(self) -> "list[_Zone]":
        hung = [panel for panel in self._piece.panels if panel.turn is not None]
        return [_Zone(self._piece, panel, w) for panel in hung for w in self._faces]


class _Zone:
    """A turn's zone, looked at along lines beside its axis: on each a convex solid takes one stretch."""

    def __init__(self, piece: Lying, panel: Panel, w: float) -> None:
        assert panel.turn is not None and panel.parent is not None
        self._turn, self._matrix, self._w = panel.turn, piece.panels[panel.parent].matrix, w
        start, end = np.array(panel.turn.start), np.array(panel.turn.end)
        self._along = (end - start) / np.linalg.norm(end - start)
        self._left = np.array([-self._along[1], self._along[0]])
        self._edge, self._long = start - self._left * panel.turn.zone_mm / 2, float(np.linalg.norm(end - start))

    @cached_property
    def about(self) -> Cuboid:
        """The box that it lies in, a hair larger."""
        across = np.linspace(0.0, self._turn.zone_mm, ABOUT)
        spots = np.array([self._spot(float(place), end) for place in across for end in (0.0, self._long)])
        bulge = (1 - cos(abs(self._turn.angle) / (ABOUT - 1) / 2)) * self._turn.far_mm + HAIR_MM
        box = cuboid_round(zone_places(self._matrix, self._turn, spots, self._w))
        return box.grown((bulge,) * 3, (bulge,) * 3)

    def opened(self, taking: Taking) -> list[BaseGeometry]:
        """What is cut out of it, strip by strip."""
        count = 1 + int(self._turn.zone_mm // STEP_MM)
        places = [self._turn.zone_mm * n / count for n in range(count + 1)]
        stretches = [self._stretch(place, taking) for place in places]
        strips = []
        for n in range(count):
            near, far, a, b = places[n], places[n + 1], stretches[n], stretches[n + 1]
            if a is None and b is None:
                continue
            if a is None:
                near = self._edge_between(far, near, taking)
                a = self._stretch(near, taking)
            elif b is None:
                far = self._edge_between(near, far, taking)
                b = self._stretch(far, taking)
            assert a is not None and b is not None
            corners = [self._spot(near, a[0]), self._spot(near, a[1]), self._spot(far, b[1]), self._spot(far, b[0])]
            strips.append(Polygon(corners).convex_hull)
        return [strip for strip in strips if strip.area > 0]

    def _spot(self, across: float, along: float) -> tuple[float, float]:
        place = self._edge + across * self._left + along * self._along
        return float(place[0]), float(place[1])

    def _edge_between(self, inside: float, outside: float, taking: Taking) -> float:
        """The last place across, on the way from one that is taken to one that isn't, that is taken."""
        for _ in range(HALVINGS):
            middle = (inside + outside) / 2
            if self._stretch(middle, taking) is None:
                outside = middle
            else:
                inside = middle
        return inside

    def _stretch(self, across: float, taking: Taking) -> tuple[float, float] | None:
        """From where to where the line so far across is taken; None where it isn't."""
        normals, offsets = taking.half_spaces
        ends = np.array([self._spot(across, 0.0), self._spot(across, self._long)])
        first, last = zone_places(self._matrix, self._turn, ends, self._w)
        rises = normals @ (last - first) / self._long
        room = offsets - normals @ first
        level = np.abs(rises) < 1e-12
        if np.any(room[level] < 0):
            return None
        with np.errstate(divide="ignore"):
            stops = room / np.where(level, 1.0, rises)
        low = float(np.max(stops[~level & (rises < 0)], initial=-HAIR_MM))
        high = float(np.min(stops[~level & (rises > 0)], initial=self._long + HAIR_MM))
        return (low, high) if low < high else None


OPENINGS = study(openings, PIECES, BARE_SOLIDS, TABS)
