"""Flat sides of what is let into a shell, let down from it or cut off it, and which of them are bent from one sheet."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import acos, cos, hypot, sin

import numpy as np
from manifold3d import Manifold

from keel.design.features import Relief, RoofStep, Sump, Well
from keel.solid.box import END_NAMES, Cuboid
from keel.solid.polyhedron import Array
from keel.solid.rings import chords
from keel.solid.shapes import frame_along

BEYOND_MM = 50.0
"""How far a roof step runs on past the faces it is made in [mm]."""
SAME_MM = 1e-6
FACE_AXIS: dict[str, tuple[int, bool]] = {
    "rear": (0, False),
    "front": (0, True),
    "right": (1, False),
    "left": (1, True),
    "floor": (2, False),
    "roof": (2, True),
}

Faced = Well | Sump | Relief | RoofStep


@dataclass(frozen=True)
class Facet:
    """One plane of a feature's space: n · x = offset, the space where it is less [mm].

    `rank` says behind which others its plate passes: behind those of a lower one.
    """

    name: str
    normal: Array
    offset: float
    rank: int

    def moved(self, by: float) -> float:
        """Its offset moved outward [mm]."""
        return self.offset + by

    def angle(self, other: "Facet") -> float:
        """How far a sheet is turned from one to the other [rad]."""
        return acos(max(-1.0, min(1.0, float(self.normal @ other.normal))))


@dataclass(frozen=True)
class Fold:
    """A base and the sides that are bent up from it."""

    base: Facet
    sides: list[Facet]


def is_flat_sided(feature: Faced) -> bool:
    """Whether a feature has flat sides, rather than a round one.

    Parameters
    ----------
    feature : Well, Sump, Relief or RoofStep
        Any.

    Returns
    -------
    bool
        True for boxes and roof steps.
    """
    return isinstance(feature, RoofStep) or feature.form == "box"


def facets_of(feature: Faced, body: Cuboid) -> list[Facet]:
    """The planes between which a feature's space lies, as it is seen from outside.

    Parameters
    ----------
    feature : Well, Sump, Relief or RoofStep
        With flat sides.
    body : Cuboid
        The body without features: what its places count from [mm].

    Returns
    -------
    list of Facet
        In vehicle axes, none at a mouth.
    """
    match feature:
        case Well() | Sump():
            frame = well_frame(feature, body) if isinstance(feature, Well) else sump_frame(feature, body)
            return _tapered(feature.long_mm, feature.wide_mm, feature.deep_mm, feature.slope_mm, frame)
        case Relief():
            low = [low + at for low, at in zip(body.low, (feature.x_mm, feature.y_mm, feature.z_mm), strict=True)]
            size = feature.length_mm, feature.width_mm, feature.height_mm
            return _cuboid(low, [a + b for a, b in zip(low, size, strict=True)])
    return _step(feature, body)


def fold_of(feature: Faced, body: Cuboid) -> Fold | None:
    """Which of a feature's sides are bent up from one sheet, and from which base.

    Parameters
    ----------
    feature : Well, Sump, Relief or RoofStep
        Any.
    body : Cuboid
        The body without features [mm].

    Returns
    -------
    Fold or None
        None where it is welded of plates, is round, or has one side only. The base of a relief is the side that most
        others stand on: one that faces no other.
    """
    if not feature.folded or not is_flat_sided(feature):
        return None
    facets = [facet for facet in facets_of(feature, body) if _is_within(facet, body)]
    alone = [facet for facet in facets if not any(facet.normal @ other.normal < -0.5 for other in facets)]
    if not alone:
        return None
    base = max(alone, key=lambda facet: facet.rank)
    sides = [facet for facet in facets if facet is not base and facet.angle(base) > SAME_MM]
    return Fold(base, sides) if sides else None


def bends_of(feature: Faced, body: Cuboid) -> int:
    """How many edges of a feature are bent instead of welded: as `fold_of` has it."""
    fold = fold_of(feature, body)
    return len(fold.sides) if fold else 0


def _is_within(facet: Facet, body: Cuboid) -> bool:
    """Whether a side square to an axis lies within the body; one that leans does."""
    axis = int(np.argmax(np.abs(facet.normal)))
    if abs(facet.normal[axis]) < 1 - SAME_MM:
        return True
    at = facet.offset * facet.normal[axis]
    return body.low[axis] + SAME_MM < at < body.high[axis] - SAME_MM or facet.name == "bottom"


def bent(space: Manifold, fold: Fold, moved_mm: float, radius_mm: float) -> Manifold:
    """A feature's space with its base's edges rounded as they are bent.

    Parameters
    ----------
    space : Manifold
        Convex, its planes moved outward already.
    fold : Fold
        Which of its edges are bent; in the space's own axes.
    moved_mm : float
        How far its planes were moved outward [mm].
    radius_mm : float
        Of the rounds there [mm]; 0 leaves them sharp.

    Returns
    -------
    Manifold
        Convex; rounds are chords of the same area.
    """
    if radius_mm <= SAME_MM:
        return space
    for side in fold.sides:
        for normal, offset in _round(fold.base, side, moved_mm, radius_mm):
            space = space.trim_by_plane([float(-value) for value in normal], -offset)
    return space


def _round(base: Facet, side: Facet, moved: float, radius: float) -> list[tuple[Array, float]]:
    """Planes of the chords round the edge between two sides: normals outward, and offsets."""
    turn, out = base.angle(side), base.normal
    over = side.normal - float(side.normal @ out) * out
    over /= np.linalg.norm(over)
    up = base.moved(moved) - radius
    along = (side.moved(moved) - radius - cos(turn) * up) / sin(turn)
    spots = chords((up, along), radius, 0.0, turn)
    planes = []
    for (a, b), (c, d) in pairwise(spots):
        long = hypot(c - a, d - b)
        normal = ((d - b) * out - (c - a) * over) / long
        planes.append((normal, ((d - b) * a - (c - a) * b) / long))
    return planes


def well_frame(well: Well, body: Cuboid) -> Array:
    """Turns a recess about its mouth's middle into its place in the body.

    Parameters
    ----------
    well : Well
        Whose mouth it is.
    body : Cuboid
        The body without features [mm].

    Returns
    -------
    ndarray, shape (3, 4)
        A rigid motion; the third direction leads out of the mouth.
    """
    axis, high = FACE_AXIS[well.face]
    wide = well.long_mm if well.form == "round" else well.wide_mm
    first, second = [i for i in range(3) if i != axis]
    frame = frame_along(axis, 1.0 if high else -1.0)
    frame[first, 3] = body.low[first] + well.a_mm + well.long_mm / 2
    frame[second, 3] = body.low[second] + well.b_mm + wide / 2
    frame[axis, 3] = body.high[axis] if high else body.low[axis]
    return frame


def sump_frame(sump: Sump, body: Cuboid) -> Array:
    """Turns what hangs about its mouth's middle into its place under the body.

    Parameters
    ----------
    sump : Sump
        Whose mouth it is.
    body : Cuboid
        The body without features [mm].

    Returns
    -------
    ndarray, shape (3, 4)
        The third direction leads up.
    """
    wide = sump.long_mm if sump.form == "round" else sump.wide_mm
    middle = body.low[0] + sump.a_mm + sump.long_mm / 2, body.low[1] + sump.b_mm + wide / 2, body.low[2]
    return np.hstack([np.eye(3), np.array(middle)[:, None]])


def tapered(long: float, wide: float, deep: float, slope: float) -> Fold:
    """Four sides bent up from a bottom, about the middle of a mouth from which w leads out [mm]."""
    facets = _tapered(long, wide, deep, slope, np.eye(3, 4))
    return Fold(facets[0], facets[1:])


def _tapered(long: float, wide: float, deep: float, slope: float, frame: Array) -> list[Facet]:
    """A bottom and four sides about a mouth's middle; `frame`, shape (3, 4), has w out of the mouth."""
    lean = slope / deep
    steep = hypot(1.0, lean)
    found = [_turned("bottom", np.array([0.0, 0.0, -1.0]), deep, 2, frame)]
    for way, half in ((0, long / 2), (1, wide / 2)):
        for sign in (-1.0, 1.0):
            normal = np.array([0.0, 0.0, -lean]) / steep
            normal[way] = sign / steep
            named = frame[:, :3] @ np.eye(3)[way] * sign
            axis = int(np.argmax(np.abs(named)))
            name = f"{END_NAMES[axis][int(named[axis] > 0)]} side"
            found.append(_turned(name, normal, half / steep, 1 - way, frame))
    return found


def _turned(name: str, normal: Array, offset: float, rank: int, frame: Array) -> Facet:
    out = frame[:, :3] @ normal
    return Facet(name, out, offset + float(out @ frame[:, 3]), rank)


def _cuboid(low: Sequence[float], high: Sequence[float]) -> list[Facet]:
    found = []
    for axis, rank in ((2, 2), (0, 1), (1, 0)):
        for end, (at, sign) in enumerate(((low[axis], -1.0), (high[axis], 1.0))):
            found.append(Facet(f"{END_NAMES[axis][end]} side", sign * np.eye(3)[axis], sign * at, rank))
    return found


def _step(step: RoofStep, body: Cuboid) -> list[Facet]:
    """A lowered roof and the riser up to the roof that is left."""
    low, high = [v - BEYOND_MM for v in body.low], [v + BEYOND_MM for v in body.high]
    axis, far = FACE_AXIS[step.side]
    if far:
        low[axis] = body.high[axis] - step.reach_mm
    else:
        high[axis] = body.low[axis] + step.reach_mm
    low[2] = body.high[2] - step.drop_mm
    names = {"lower side": "lowered roof", f"{END_NAMES[axis][0 if far else 1]} side": "riser"}
    return [replace(facet, name=names[facet.name]) for facet in _cuboid(low, high) if facet.name in names]
