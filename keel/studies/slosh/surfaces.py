"""Surfaces: how high fuel stands in pieces of a tank that share one, compiled."""

from typing import NamedTuple

import numpy as np

from keel.compiled import compiled
from keel.solid.polyhedron import Array, Index
from keel.studies.slosh.state import Rooms

LEVEL_STEPS = 60
LEVEL_MM = 1e-6
"""A bracket about a level that is this narrow is the level [mm]."""


class View(NamedTuple):
    """A tank seen along each piece's direction; changed in place."""

    heights: Array
    """Of all points [mm]."""
    falls: Array
    """Of each triangle its lowest, middle and highest corner [mm] and its area as seen from below [mm²]."""
    spans: Array
    """Lowest and highest place of each piece, shape (pieces, 2) [mm]."""


@compiled
def view_of(rooms: Rooms) -> View:
    """Room for what is seen of a tank.

    Parameters
    ----------
    rooms : Rooms
        The tank's bodies of fuel.

    Returns
    -------
    View
        Arrays to be filled in.
    """
    return View(np.empty(len(rooms.points)), np.empty((len(rooms.triangles), 4)), np.empty((len(rooms.capacity), 2)))


@compiled
def see(rooms: Rooms, ups: Array, view: View) -> None:
    """See every piece along its own upward direction."""
    points, triangles, area_vectors = rooms.points, rooms.triangles, rooms.area_vectors
    heights, falls = view.heights, view.falls
    for i in range(len(rooms.capacity)):
        x, y, z, low, top = ups[i, 0], ups[i, 1], ups[i, 2], np.inf, -np.inf
        for p in range(rooms.point_at[i], rooms.point_at[i + 1]):
            h = points[p, 0] * x + points[p, 1] * y + points[p, 2] * z
            heights[p] = h
            low, top = min(low, h), max(top, h)
        for t in range(rooms.triangle_at[i], rooms.triangle_at[i + 1]):
            a, b, c = heights[triangles[t, 0]], heights[triangles[t, 1]], heights[triangles[t, 2]]
            falls[t, 0], falls[t, 2] = min(a, b, c), max(a, b, c)
            falls[t, 1] = a + b + c - falls[t, 0] - falls[t, 2]
            falls[t, 3] = -(area_vectors[t, 0] * x + area_vectors[t, 1] * y + area_vectors[t, 2] * z)
        view.spans[i, 0], view.spans[i, 1] = low, top


@compiled
def under(falls: Array, first: int, last: int, level: float) -> tuple[float, float]:
    """Volume below a plane and area of its free surface, over a run of triangles: the sums of `solid.polyhedron`.

    Parameters
    ----------
    falls : ndarray
        Heights of the corners, shape (n, 3) [mm].
    first : int
        Number of the first triangle.
    last : int
        One past the last.
    level : float
        Height of the plane [mm].

    Returns
    -------
    (float, float)
        Volume [mm³] and area [mm²].
    """
    volume, surface = 0.0, 0.0
    for t in range(first, last):
        low = falls[t, 0]
        if low >= level:
            continue
        middle, top, facing = falls[t, 1], falls[t, 2], falls[t, 3]
        if level >= top:
            volume += facing * (level - (low + middle + top) / 3)
            surface += facing
        elif level < middle:
            over, bottom = level - low, (middle - low) * (top - low)
            volume += facing * over * over * over / (3 * bottom)
            surface += facing * over * over / bottom
        else:
            rest, bottom = top - level, (top - middle) * (top - low)
            volume += facing * (level - (low + middle + top) / 3 + rest * rest * rest / (3 * bottom))
            surface += facing * (1 - rest * rest / bottom)
    return volume, surface


@compiled
def level_of(
    rooms: Rooms,
    view: View,
    group: Index,
    wanted: int,
    total: float,
    guess: float,
    exact: float,
    volumes: Array,
) -> tuple[float, float]:
    """Level below which a volume lies in the pieces of a group, and the surface there: Newton's method in a bracket.

    What each piece of the group holds then goes into `volumes`; their sum is `total` to the last digit.
    """
    lowest, low, top = _reach(view.spans, group, wanted)
    level, surface, volume = min(max(guess, low), top), 0.0, 0.0
    if total <= exact:
        level = low
    for _ in range(LEVEL_STEPS):
        volume, surface = _held(rooms.triangle_at, view, group, wanted, level, volumes)
        off = volume - total
        if off > 0:
            top = level
        else:
            low = level
        if abs(off) <= exact or top - low < LEVEL_MM:
            break
        level = level - off / surface if surface > 1e-9 else (low + top) / 2
        if not low < level < top:
            level = (low + top) / 2
    volumes[lowest] += total - volume
    return level, surface


@compiled
def _reach(spans: Array, group: Index, wanted: int) -> tuple[int, float, float]:
    """The lowest piece of a group, and its lowest and highest place."""
    lowest, low, top = wanted, np.inf, -np.inf
    for i in range(len(group)):
        if group[i] == wanted:
            lowest = i if spans[i, 0] < low else lowest
            low, top = min(low, spans[i, 0]), max(top, spans[i, 1])
    return lowest, low, top


@compiled
def _held(
    triangle_at: Index, view: View, group: Index, wanted: int, level: float, volumes: Array
) -> tuple[float, float]:
    """Put down what the pieces of a group hold under a level; the sum, and the surface."""
    volume, surface = 0.0, 0.0
    for i in range(len(group)):
        if group[i] == wanted:
            volumes[i] = 0.0
            if view.spans[i, 0] < level:
                volumes[i], face = under(view.falls, triangle_at[i], triangle_at[i + 1], level)
                volume, surface = volume + volumes[i], surface + face
    return volume, surface
