"""What each kind of feature takes from a shell or adds to it, and what it costs in weld."""

from dataclasses import dataclass
from functools import lru_cache
from math import pi

import numpy as np
from manifold3d import CrossSection, Manifold

from keel.design.features import Feature, Relief, RoofStep, Sump, Well
from keel.solid.box import Cuboid
from keel.solid.facets import BEYOND_MM, FACE_AXIS, Fold, bent, fold_of, sump_frame, tapered, well_frame
from keel.solid.polyhedron import Array
from keel.solid.rings import circle
from keel.solid.shapes import block, drawn_out

ABOVE_MM = 1.0
"""How far a recess runs on past its mouth [mm]."""


def _ring(long: float, wide: float, round_: bool) -> Array:
    """A rectangle or a circle about the origin [mm]."""
    if round_:
        return circle(long / 2)
    return np.array([(-long / 2, -wide / 2), (long / 2, -wide / 2), (long / 2, wide / 2), (-long / 2, wide / 2)])


def _frustum(low: Array, low_w: float, high: Array, high_w: float) -> Manifold:
    """The solid between two rings at two heights."""
    return Manifold.hull_points(np.vstack([_at(low, low_w), _at(high, high_w)]))


def _at(ring: Array, w: float) -> Array:
    """A ring at a height, shape (k, 3)."""
    places = np.empty((len(ring), 3))
    places[:, :2], places[:, 2] = ring, w
    return places


Recess = Well | Relief | RoofStep


def recess_cut(feature: Recess, body: Cuboid, wall: float, bend_mm: float) -> Manifold:
    """The space that a recess takes, grown by a wall into the tank.

    Parameters
    ----------
    feature : Well, Relief or RoofStep
        What is let in or cut off.
    body : Cuboid
        The body without features [mm].
    wall : float
        How far it is grown [mm].
    bend_mm : float
        Inside radius that its sides are bent to, where they are [mm].

    Returns
    -------
    Manifold
        Convex, running on past its mouth.
    """
    match feature:
        case Well():
            return _recess(_sizes(feature, bend_mm), wall).transform(well_frame(feature, body))
        case Relief():
            space = _relief_space(feature, body, wall)
        case RoofStep():
            space = _step_space(feature, body, wall)
    fold = fold_of(feature, body)
    return bent(space, fold, wall, bend_mm + wall) if fold else space


@dataclass(frozen=True)
class _Sizes:
    """What makes two wells alike, wherever they are [mm]: a bend of 0 is sharp."""

    long: float
    wide: float
    deep: float
    slope: float
    bend: float
    round: bool

    @property
    def lean(self) -> float:
        return self.slope / self.deep

    def steep(self, wall: float) -> float:
        """How far a wall so thick, on a side that leans, reaches level."""
        return wall * float(np.sqrt(1 + self.lean**2))

    def across(self, w: float, more: float) -> tuple[float, float]:
        """How long and wide it is at a height, every side moved out."""
        out = 2 * (more + self.lean * w)
        return self.long + out, self.wide + out

    def ring(self, w: float, more: float) -> Array:
        """Its section at a height, every side moved out."""
        return _ring(*self.across(w, more), self.round)


def _sizes(feature: Well | Sump, bend_mm: float) -> _Sizes:
    round_ = feature.form == "round"
    wide = feature.long_mm if round_ else feature.wide_mm
    bend = bend_mm if feature.folded and not round_ else 0.0
    return _Sizes(feature.long_mm, wide, feature.deep_mm, feature.slope_mm, bend, round_)


@lru_cache(maxsize=512)
def _recess(sizes: _Sizes, wall: float) -> Manifold:
    """A recess from w = −deep up through its mouth at w = 0, grown by a wall but at the mouth.

    A side that leans in by `slope` over the depth moves out by wall · √(1 + (slope/deep)²) at any height, and
    leans on for a little above the mouth. While one thing is dragged, the others keep their recess.
    """
    more, low = sizes.steep(wall), -sizes.deep - wall
    space = _frustum(sizes.ring(low, more), low, sizes.ring(ABOVE_MM, more), ABOVE_MM)
    return bent(space, _fold(sizes), wall, sizes.bend + wall) if sizes.bend else space


def _fold(sizes: _Sizes) -> Fold:
    return tapered(sizes.long, sizes.wide, sizes.deep, sizes.slope)


def well_piece(well: Well, body: Cuboid, wall: float, from_face: float, bend_mm: float) -> tuple[Cuboid, float]:
    """What of a well lies further than so far below its face: the box round it, and its volume [mm³]."""
    axis, high = FACE_AXIS[well.face]
    sizes = _sizes(well, bend_mm)
    half, volume = _piece(sizes, wall, from_face)
    low_end, high_end = list(body.low), list(body.high)
    first, second = [i for i in range(3) if i != axis]
    for way, middle, out in (
        (first, well.a_mm + sizes.long / 2, half[0]),
        (second, well.b_mm + sizes.wide / 2, half[1]),
    ):
        low_end[way], high_end[way] = body.low[way] + middle - out, body.low[way] + middle + out
    reach = well.deep_mm + wall
    if high:
        low_end[axis], high_end[axis] = body.high[axis] - reach, body.high[axis] - from_face
    else:
        low_end[axis], high_end[axis] = body.low[axis] + from_face, body.low[axis] + reach
    return Cuboid((low_end[0], low_end[1], low_end[2]), (high_end[0], high_end[1], high_end[2])), volume


@lru_cache(maxsize=512)
def _piece(sizes: _Sizes, wall: float, from_face: float) -> tuple[tuple[float, float], float]:
    """Half the size of a well's piece where it is widest; a prismatoid holds depth/6 · (top + 4 · middle + bottom)."""
    more, low = sizes.steep(wall), -(sizes.deep + wall)
    reach = sizes.ring(-from_face, more).max(axis=0)
    half = float(reach[0]), float(reach[1])
    if sizes.bend:
        return half, float(_recess(sizes, wall).trim_by_plane([0.0, 0.0, -1.0], from_face).volume())
    levels = (sizes.across(w, more) for w in (-from_face, (low - from_face) / 2, low))
    top, middle, bottom = (a * b * (pi / 4 if sizes.round else 1.0) for a, b in levels)
    return half, float((-from_face - low) / 6 * (top + 4 * middle + bottom))


def sump_solid(sump: Sump, body: Cuboid, wall: float, up: float, radius_mm: float) -> Manifold:
    """A sump let down, shrunk by a wall.

    Parameters
    ----------
    sump : Sump
        The sump.
    body : Cuboid
        The body without features [mm].
    wall : float
        How far it is shrunk [mm].
    up : float
        How far it runs up above the body's underside [mm].
    radius_mm : float
        Outside radius that its sides are bent to, where they are [mm].

    Returns
    -------
    Manifold
        Its space.
    """
    sizes, deep = _sizes(sump, radius_mm), sump.deep_mm - wall
    less = -sizes.steep(wall)
    mouth = sizes.ring(0.0, less)
    solid = _frustum(sizes.ring(-deep, less), -deep, mouth, 0.0)
    solid = bent(solid, _fold(sizes), -wall, sizes.bend - wall) if sizes.bend else solid
    if up > 0:
        solid += Manifold.extrude(CrossSection([mouth]), up)
    return solid.transform(sump_frame(sump, body))


def _relief_space(relief: Relief, body: Cuboid, wall: float) -> Manifold:
    low = [body.low[0] + relief.x_mm - wall, body.low[1] + relief.y_mm - wall, body.low[2] + relief.z_mm - wall]
    size = [relief.length_mm + 2 * wall, relief.width_mm + 2 * wall, relief.height_mm + 2 * wall]
    if relief.form == "box":
        return Manifold.cube(size).translate(low)
    axis = "xyz".index(relief.form)
    first, second = [i for i in range(3) if i != axis]
    radius = min(size[first], size[second]) / 2
    middle = np.array([low[first] + size[first] / 2, low[second] + size[second] / 2])
    return drawn_out(middle + circle(radius), axis, low[axis], low[axis] + size[axis])


def _step_space(step: RoofStep, body: Cuboid, wall: float) -> Manifold:
    """What a lowered roof takes off: a box that runs on past the faces it is made in."""
    low = [v - BEYOND_MM for v in body.low]
    high = [v + BEYOND_MM for v in body.high]
    low[2] = body.high[2] - step.drop_mm - wall
    axis, far = FACE_AXIS[step.side]
    if far:
        low[axis] = body.high[axis] - step.reach_mm - wall
    else:
        high[axis] = body.low[axis] + step.reach_mm + wall
    return block((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def weld_of(feature: Feature, body: Cuboid, box: Cuboid) -> float:
    """Weld a feature adds [mm].

    Parameters
    ----------
    feature : Feature
        Any; what a plate adds that stands inside is its own affair.
    body, box : Cuboid
        The body without features, and the box round the feature's space [mm].

    Returns
    -------
    float
        Its mouth, the corners where its sides meet, and the edge round its base where that isn't bent.
    """
    length, width, height = box.size
    match feature:
        case Well() | Sump():
            if feature.form == "round":
                return 2 * pi * feature.long_mm + feature.deep_mm
            mouth = 2 * (feature.long_mm + feature.wide_mm)
            slant = float(np.hypot(feature.deep_mm, np.sqrt(2) * feature.slope_mm))
            foot = 0.0 if feature.folded else mouth - 8 * feature.slope_mm
            return mouth - _open_edges(feature, body) + 4 * slant + foot
        case Relief():
            return 2 * (length + width + height) - _bent_edges(feature, body, box)
        case RoofStep():
            return 2 * (width if feature.side in ("front", "rear") else length) - _bent_edges(feature, body, box)
        case _:
            return 0.0


def _bent_edges(feature: Relief | RoofStep, body: Cuboid, box: Cuboid) -> float:
    """Length of the edges that are bent instead of welded [mm]."""
    fold = fold_of(feature, body)
    along = [np.abs(np.cross(fold.base.normal, side.normal)) for side in fold.sides] if fold else []
    return float(sum(way @ np.array(box.size) for way in along))


def _open_edges(feature: Well | Sump, body: Cuboid) -> float:
    """Length of a well's mouth that runs along the edge of its face and needs no seam of its own [mm]."""
    axis = FACE_AXIS[feature.face][0] if isinstance(feature, Well) else 2
    first, second = [i for i in range(3) if i != axis]
    a, b = body.size[first], body.size[second]
    along = sum(feature.wide_mm for edge in (feature.a_mm, a - feature.a_mm - feature.long_mm) if edge <= 1e-6)
    return along + sum(feature.long_mm for edge in (feature.b_mm, b - feature.b_mm - feature.wide_mm) if edge <= 1e-6)
