"""Plates of round features: a strip rolled round a well, a sump or a relief, its discs, and cones."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import cos, degrees, hypot, pi, sin

import numpy as np
from manifold3d import Manifold
from shapely.geometry import Point, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from keel.design.features import Relief, Sump, Well
from keel.solid.box import Cuboid
from keel.solid.facets import sump_frame, well_frame
from keel.solid.planes import cut_by, polygons_of
from keel.solid.polyhedron import Array
from keel.solid.shapes import mesh_of
from keel.studies.sheet.cones import Sector, frustum_flat
from keel.studies.sheet.parts import Spot

AROUND = 72
"""Round a whole turn a strip is looked at along so many lines."""
DISC_CHORDS = 48
"""A disc's quarter has so many."""
HALVINGS = 24
HAIR_MM = 0.01
CHORD_MM = 0.25
"""Further off a round than the chords that the tank has for it [mm]."""
SAME_MM = 1e-6
ARC_RAD = pi / 180
"""A sector's arcs are drawn in chords of no more than this."""


@dataclass(frozen=True)
class Tube:
    """A round feature's space: a cylinder about an axis, from one place along it to another [mm].

    `frame`, shape (3, 4), has the axis as its third direction; `ends` says which of its ends have a disc. `down` is
    true of a sump, whose sheet lies within the cylinder; that of a recess lies round it.
    """

    frame: Array
    radius: float
    span: tuple[float, float]
    ends: tuple[bool, bool]
    down: bool

    @property
    def sign(self) -> float:
        """Outward is towards the sheet (1), or away from it (−1)."""
        return -1.0 if self.down else 1.0

    def middle(self, thick: float) -> float:
        """Radius of the sheet's middle [mm]."""
        return self.radius + self.sign * thick / 2


def tube_of(feature: Well | Sump | Relief, body: Cuboid, thick: float) -> Tube:
    """A round feature without slope as a tube.

    Parameters
    ----------
    feature : Well, Sump or Relief
        A round one.
    body : Cuboid
        The body without features [mm].
    thick : float
        Of the feature's sheet [mm].
    """
    match feature:
        case Well():
            return Tube(well_frame(feature, body), feature.long_mm / 2, (-feature.deep_mm, thick), (True, False), False)
        case Sump():
            return Tube(
                sump_frame(feature, body),
                feature.long_mm / 2,
                (thick - feature.deep_mm, body.size[2]),
                (True, False),
                True,
            )
    axis = "xyz".index(feature.form)
    low = [low + at for low, at in zip(body.low, (feature.x_mm, feature.y_mm, feature.z_mm), strict=True)]
    size = feature.length_mm, feature.width_mm, feature.height_mm
    first, second = [i for i in range(3) if i != axis]
    frame = np.zeros((3, 4))
    frame[first, 0] = 1.0
    frame[second, 1] = -1.0 if axis == 1 else 1.0
    frame[axis, 2] = 1.0
    radius = min(size[first], size[second]) / 2
    frame[first, 3], frame[second, 3] = low[first] + size[first] / 2, low[second] + size[second] / 2
    return Tube(frame, radius, (low[axis], low[axis] + size[axis]), (True, True), False)


def discs(tube: Tube, thick: float, outer: Manifold, plain: Manifold | None) -> Iterator[tuple[str, Array, Polygon]]:
    """The discs that close a tube: name, where (u, v, w) lies, shape (4, 4), and what of them the tank has.

    Parameters
    ----------
    tube : Tube
        Any.
    thick : float
        Of its sheet [mm].
    outer : Manifold
        The tank as seen from outside.
    plain : Manifold or None
        Of a sump, the body without it.
    """
    for end, name in enumerate(("bottom", "far end") if not all(tube.ends) else ("near end", "far end")):
        if not tube.ends[end]:
            continue
        out = -1.0 if end == 0 else 1.0
        at = tube.span[end] - (thick if tube.down else 0.0)
        matrix = np.eye(4)
        # Its inside looks out of a recess, into a sump.
        inward = tube.frame[:, 2] * out * tube.sign
        matrix[:3, 2] = inward
        matrix[:3, 0] = tube.frame[:, 0]
        matrix[:3, 1] = np.cross(inward, tube.frame[:, 0])
        matrix[:3, 3] = tube.frame @ np.array([0.0, 0.0, at, 1.0])
        # It passes behind the strip round a recess, and under that of a sump.
        shape: BaseGeometry = Point(0.0, 0.0).buffer(tube.radius + (0.0 if tube.down else thick), DISC_CHORDS)
        for w in (HAIR_MM, thick - HAIR_MM):
            room = cut_by(outer, matrix, w)
            # The tank's own chords stand within the round by less than this.
            shape = shape.intersection(room.buffer(CHORD_MM) if tube.down else room)
            shape = shape if plain is None else shape.difference(cut_by(plain, matrix, w))
        for piece in polygons_of(shape):
            yield name, matrix, piece


@dataclass(frozen=True)
class Strip:
    """A rolled strip: where its flat begins round the tube [rad]; its shapes from there, u along its middle [mm]."""

    begins: float
    shapes: list[Polygon]


def strip(tube: Tube, thick: float, outer: Manifold, plain: Manifold | None) -> Strip:
    """The sheet round a tube, flat.

    Parameters
    ----------
    tube, thick, outer, plain
        As for `discs`.

    Returns
    -------
    Strip
        Where the tank has both of its faces; v counts along the tube's axis from its frame [mm]. It closes where the
        tank has none of it, else where its frame's first direction points.

    References
    ----------
    Rolled sheet keeps the length of its middle.
    """
    looks = _Looks(tube, thick, outer, plain)
    turns = [2 * pi * n / AROUND for n in range(AROUND)]
    there = [bool(looks.at(turn)) for turn in turns]
    begins = 0.0 if all(there) else turns[max(range(AROUND), key=lambda n: _gap_after(there, n))]
    middle, quads = tube.middle(thick), []
    for near, far in pairwise(np.linspace(0.0, 2 * pi, AROUND + 1)):
        a, b = (looks.at(begins + tube.sign * turn) for turn in (near, far))
        if bool(a) != bool(b):
            edge = looks.edge(begins, *((far, near) if b else (near, far)))
            near, far = (edge, far) if b else (near, edge)
            a = b = a or b
        for low_a, high_a in a:
            for low_b, high_b in b:
                if max(low_a, low_b) < min(high_a, high_b):
                    corners = [(near, low_a), (far, low_b), (far, high_b), (near, high_a)]
                    quads.append(Polygon([(turn * middle, v) for turn, v in corners]))
    whole = unary_union([quad.buffer(HAIR_MM, join_style="mitre") for quad in quads])
    return Strip(begins, polygons_of(whole.buffer(-HAIR_MM, join_style="mitre")))


def _gap_after(there: Sequence[bool], place: int) -> int:
    """How far it is from a place to the nearest line that the tank has, either way; 0 where it has this one."""
    around = len(there)
    return min(min((n - place) % around, (place - n) % around) for n in range(around) if there[n]) if any(there) else 0


class _Looks:
    """The tank along lines beside a tube's axis."""

    def __init__(self, tube: Tube, thick: float, outer: Manifold, plain: Manifold | None) -> None:
        self._tube, self._thick = tube, thick
        self._outer = _across(outer, tube)
        self._plain = None if plain is None else _across(plain, tube)
        self._seen: dict[float, list[tuple[float, float]]] = {}

    def at(self, turn: float) -> list[tuple[float, float]]:
        """From where to where both faces of the sheet are in the tank, at a turn round the axis [rad]."""
        turn %= 2 * pi
        if turn not in self._seen:
            tube, found = self._tube, [self._tube.span]
            for w in (CHORD_MM, self._thick - CHORD_MM):
                radius = tube.radius + tube.sign * w
                spot = np.array([radius * cos(turn + 1e-7), radius * sin(turn + 1e-7)])
                found = _shared(found, _stretches(self._outer, spot))
                if self._plain is not None:
                    found = _less(found, _stretches(self._plain, spot))
            self._seen[turn] = [one for one in found if one[1] - one[0] > SAME_MM]
        return self._seen[turn]

    def edge(self, begins: float, inside: float, outside: float) -> float:
        """The last turn that has anything, on the way to one that has nothing."""
        for _ in range(HALVINGS):
            middle = (inside + outside) / 2
            if self.at(begins + self._tube.sign * middle):
                inside = middle
            else:
                outside = middle
        return inside


def _across(solid: Manifold, tube: Tube) -> Array:
    """A solid's triangles as the tube's frame has them, shape (m, 3, 3)."""
    turn, origin = tube.frame[:, :3], tube.frame[:, 3]
    return np.asarray((mesh_of(solid).corners - origin) @ turn)


def _stretches(triangles: Array, spot: Array) -> list[tuple[float, float]]:
    """Where the line through a spot of the first two axes along the third runs within a closed surface."""
    a, b, c = (triangles[:, n, :2] - spot for n in range(3))
    crosses = [p[:, 0] * q[:, 1] - p[:, 1] * q[:, 0] for p, q in ((b, c), (c, a), (a, b))]
    hit = np.all(np.array(crosses) > 0, axis=0) | np.all(np.array(crosses) < 0, axis=0)
    weights = np.array(crosses)[:, hit]
    heights = np.sort(np.einsum("nm,mn->m", weights, triangles[hit, :, 2]) / weights.sum(axis=0))
    return [(float(low), float(high)) for low, high in zip(heights[::2], heights[1::2], strict=False)]


def _shared(one: list[tuple[float, float]], other: list[tuple[float, float]]) -> list[tuple[float, float]]:
    return [(max(a, c), min(b, d)) for a, b in one for c, d in other if max(a, c) < min(b, d)]


def _less(one: list[tuple[float, float]], other: list[tuple[float, float]]) -> list[tuple[float, float]]:
    for c, d in other:
        one = [part for a, b in one for part in ((a, min(b, c)), (max(a, d), b)) if part[0] < part[1]]
    return one


def cone_of(feature: Well | Sump, thick: float) -> Sector:
    """The side of a round well or sump that narrows, between a flat face and its bottom.

    Parameters
    ----------
    feature : Well or Sump
        Round, with a slope.
    thick : float
        Of its sheet [mm].

    Returns
    -------
    Sector
        Edges square to the sheet: neither reaches past the face it begins at or into the bottom.
    """
    lean = feature.slope_mm / feature.deep_mm
    steep = hypot(1.0, lean)
    past, mouth, foot = thick * lean / steep, feature.long_mm / 2, feature.long_mm / 2 - feature.slope_mm
    if isinstance(feature, Sump):
        return frustum_flat(2 * (mouth - lean * past), 2 * (foot + lean * thick), feature.deep_mm - thick - past, thick)
    more = thick / steep
    return frustum_flat(2 * (mouth + more), 2 * (foot + lean * past + more), feature.deep_mm - past, thick)


def sector_outline(flat: Sector) -> list[Spot]:
    """A sector's outline counter-clockwise, its middle line upward [mm]."""
    count = 1 + int(flat.angle_rad / ARC_RAD)
    turns = np.linspace(-flat.angle_rad / 2, flat.angle_rad / 2, count + 1)
    outer = [(-flat.outer_radius_mm * sin(turn), flat.outer_radius_mm * cos(turn)) for turn in turns]
    inner = [(-flat.inner_radius_mm * sin(turn), flat.inner_radius_mm * cos(turn)) for turn in turns[::-1]]
    return [(float(x), float(y)) for x, y in [*outer, *inner]]


def turned_deg(shape: Polygon, middle: float) -> float:
    """Through how much a strip is rolled [°]."""
    low, _, high, _ = shape.bounds
    return degrees((high - low) / middle)
