"""The way out of a box: how far a tank has to move along an axis until nothing of it is in the box's shadow and height.

Along an axis the box casts a shadow, a column. What of the tank lies in the column takes up spans of the axis: those of
its triangles, clipped to the column, and what lies between two of them where the tank fills the column from wall to
wall. A push parts the two when it brings every span out of the box's own: the least one follows from the spans alone,
exactly, and the box round what the two share does too.
"""

from collections.abc import Sequence

import numpy as np
from manifold3d import Manifold

from keel.compiled import compiled
from keel.solid.box import Cuboid
from keel.solid.polyhedron import Array, Mesh
from keel.solid.proximity import NO_PUSH, Push
from keel.solid.shapes import holds

HAIR_MM = 1e-5
"""Solids that share less than this along an axis only touch [mm]."""
Span = tuple[float, float]
MOST_CORNERS = 7
"""A triangle that is clipped on four sides has no more."""


def push_out_of_box(parts: Sequence[Manifold], surface: Mesh, box: Cuboid) -> Push:
    """The least straight push along a vehicle axis that brings a tank clear of an upright box.

    Parameters
    ----------
    parts : sequence of Manifold
        The tank in closed parts, which may overlap.
    surface : Mesh
        The surfaces of all of them together [mm].
    box : Cuboid
        What stays.

    Returns
    -------
    Push
        Axis, way and distance [mm].

    References
    ----------
    Derivation in the head of this module; clipping after Sutherland and Hodgman, "Reentrant polygon clipping", 1974.
    """
    low, high = np.array(box.low), np.array(box.high)
    shared, ways = np.empty((2, 3)), []
    for axis in range(3):
        spans = _spans(parts, surface, low, high, axis)
        met = [span for span in spans if span[0] < high[axis] - HAIR_MM and span[1] > low[axis] + HAIR_MM]
        if not met:
            return NO_PUSH
        shared[:, axis] = max(met[0][0], low[axis]), min(met[-1][1], high[axis])
        ways.append((_least(spans, low[axis], high[axis]), np.eye(3)[axis]))
        ways.append((_least([(-end, -start) for start, end in spans], -high[axis], -low[axis]), -np.eye(3)[axis]))
    mm, way = min(ways, key=lambda found: found[0])
    return Push(mm, way, shared.mean(axis=0))


def _spans(parts: Sequence[Manifold], surface: Mesh, low: Array, high: Array, axis: int) -> list[Span]:
    """What the tank takes up of an axis inside the box's shadow, rising and apart [mm]."""
    spans: list[Span] = []
    for start, end in clipped_spans(surface.corners, axis, low + HAIR_MM, high - HAIR_MM).tolist():
        if spans and _fills(parts, low, high, axis, (spans[-1][1] + start) / 2):
            spans[-1] = (spans[-1][0], end)
        else:
            spans.append((start, end))
    return spans


def _fills(parts: Sequence[Manifold], low: Array, high: Array, axis: int, at: float) -> bool:
    """Whether the tank fills the column at a height where no surface is: then its middle is inside."""
    spot = (low + high) / 2
    spot[axis] = at
    for part in parts:
        box = np.array(part.bounding_box())
        if np.all(spot >= box[:3]) and np.all(spot <= box[3:]) and holds(part, spot):
            return True
    return False


def _least(spans: Sequence[Span], low: float, high: float) -> float:
    """How far spans have to rise until none overlaps a height: each that does has to leave it by the top [mm]."""
    pushed = 0.0
    while True:
        met = [a for a, b in spans if a + pushed < high - HAIR_MM and b + pushed > low + HAIR_MM]
        if not met:
            return pushed
        pushed = float(high) - min(met)


@compiled
def clipped_spans(corners: Array, axis: int, low: Array, high: Array) -> Array:
    """What triangles take up of an axis inside a column: spans, shape (m, 2), rising and apart.

    Parameters
    ----------
    corners : ndarray, shape (n, 3, 3)
        Triangles [mm].
    axis : int
        Along which the column runs.
    low, high : ndarray, shape (3,)
        The column's walls; along the axis they don't count [mm].
    """
    spans = np.empty((len(corners), 2))
    ring, after = np.empty((MOST_CORNERS, 3)), np.empty((MOST_CORNERS, 3))
    found = 0
    for n in range(len(corners)):
        if _is_beside(corners[n], axis, low, high):
            continue
        count = 3
        ring[:3] = corners[n]
        for side in range(6):
            across = side // 2
            if across != axis:
                sign, wall = (-1.0, high[across]) if side % 2 else (1.0, low[across])
                count = _cut_off(ring, count, across, sign, wall, after)
                ring, after = after, ring
        if count:
            spans[found, 0], spans[found, 1] = ring[:count, axis].min(), ring[:count, axis].max()
            found += 1
    return _joined(spans[:found])


@compiled
def _is_beside(corners: Array, axis: int, low: Array, high: Array) -> bool:
    """Whether all of a triangle lies beyond one of a column's walls."""
    for across in range(3):
        if across != axis:
            a, b, c = corners[0, across], corners[1, across], corners[2, across]
            if max(a, b, c) < low[across] or min(a, b, c) > high[across]:
                return True
    return False


@compiled
def _cut_off(ring: Array, count: int, across: int, sign: float, wall: float, after: Array) -> int:
    """A ring as far as it lies beyond a wall, into `after`; how many corners that has."""
    kept = 0
    for i in range(count):
        j = i + 1 if i + 1 < count else 0
        here, there = sign * (ring[i, across] - wall), sign * (ring[j, across] - wall)
        if here >= 0.0:
            after[kept] = ring[i]
            kept += 1
        if (here < 0.0) != (there < 0.0):
            after[kept] = ring[i] + (here / (here - there)) * (ring[j] - ring[i])
            kept += 1
    return kept


@compiled
def _joined(spans: Array) -> Array:
    """Spans that overlap or touch as one, rising, shape (m, 2)."""
    joined, count = np.empty_like(spans), 0
    for n in np.argsort(spans[:, 0]):
        if count and spans[n, 0] <= joined[count - 1, 1]:
            joined[count - 1, 1] = max(joined[count - 1, 1], spans[n, 1])
        else:
            joined[count] = spans[n]
            count += 1
    return joined[:count]
