"""Where fuel lies once it has come to rest in a direction, piece by piece, from where it lay before: compiled.

All questions are asked at a handful of levels, those of the sills and of the inlets: what each piece holds below each
of them is worked out once a direction and serves every fill.
"""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from keel.solid.compartments import Opening
from keel.solid.polyhedron import Array, Index
from keel.studies.slosh.kernel import compiled
from keel.studies.slosh.state import Rooms

MOST_MOVES = 400
LEVEL_STEPS = 60
EXACT = 1e-8
"""Surfaces hold their volume to this share of it."""
LEVEL_MM = 1e-3
"""Sides of a door that stand no farther apart than this are level [mm]."""


class Links(NamedTuple):
    """The ways between pieces, those between the same two as one: only the lowest of their sills matters."""

    rings: Array
    ring_at: Index
    sides: Index
    doors: Index


def links_of(openings: Sequence[Opening]) -> Links:
    """What openings join, with the corners of all their rings."""
    rings = dict[tuple[int, int, int], list[Array]]()
    for way in openings:
        turned = way.first > way.second
        key = (way.second, way.first, -way.way) if turned else (way.first, way.second, way.way)
        rings.setdefault(key, []).append(way.ring)
    sizes = [sum(len(ring) for ring in some) for some in rings.values()]
    keys = np.array(list(rings), dtype=np.int64).reshape(-1, 3)
    return Links(
        rings=np.vstack([ring for some in rings.values() for ring in some]) if rings else np.zeros((0, 3)),
        ring_at=np.concatenate([[0], np.cumsum(sizes)]).astype(np.int64),
        sides=np.ascontiguousarray(keys[:, :2]),
        doors=np.ascontiguousarray(keys[:, 2]),
    )


class Seen(NamedTuple):
    """A tank seen along one direction; changed in place."""

    up: Array
    triangles: Index
    """Corners by their place in all points."""
    heights: Array
    facing: Array
    spans: Array
    """Lowest and highest place of each piece, shape (pieces, 2)."""
    levels: Array
    """Heights of the openings' sills, then of the inlets."""
    held: Array
    """What each piece holds below each of those levels, shape (pieces, levels) [mm³]."""


def seen_of(rooms: Rooms, links: Links, inlets: Array) -> Seen:
    """Room for what is seen of a tank along any direction."""
    offsets = np.repeat(rooms.point_at[:-1], np.diff(rooms.triangle_at))
    levels, pieces = len(links.doors) + len(inlets), len(rooms.capacity)
    return Seen(
        up=np.array([0.0, 0.0, 1.0]),
        triangles=rooms.triangles + offsets[:, None],
        heights=np.empty(len(rooms.points)),
        facing=np.empty(len(rooms.triangles)),
        spans=np.empty((pieces, 2)),
        levels=np.empty(levels),
        held=np.empty((pieces, levels)),
    )



@compiled
def look(rooms: Rooms, links: Links, inlets: Array, seen: Seen) -> None:
    """See a tank along `seen.up`: all that `settle` goes by."""
    up, heights, levels, held = seen.up, seen.heights, seen.levels, seen.held
    for p in range(len(heights)):
        heights[p] = rooms.points[p, 0] * up[0] + rooms.points[p, 1] * up[1] + rooms.points[p, 2] * up[2]
    for t in range(len(seen.facing)):
        seen.facing[t] = -(rooms.halves[t, 0] * up[0] + rooms.halves[t, 1] * up[1] + rooms.halves[t, 2] * up[2])
    for k in range(len(links.doors)):
        levels[k] = np.inf
        for p in range(links.ring_at[k], links.ring_at[k + 1]):
            h = links.rings[p, 0] * up[0] + links.rings[p, 1] * up[1] + links.rings[p, 2] * up[2]
            levels[k] = min(levels[k], h)
    for p in range(len(inlets)):
        levels[len(links.doors) + p] = inlets[p, 0] * up[0] + inlets[p, 1] * up[1] + inlets[p, 2] * up[2]
    for i in range(len(rooms.capacity)):
        low, top = np.inf, -np.inf
        for p in range(rooms.point_at[i], rooms.point_at[i + 1]):
            low, top = min(low, heights[p]), max(top, heights[p])
        seen.spans[i, 0], seen.spans[i, 1] = low, top
        for n in range(len(levels)):
            volume = rooms.capacity[i]
            if levels[n] < top:
                a, b = rooms.triangle_at[i], rooms.triangle_at[i + 1]
                volume = under(seen.triangles, seen.facing, heights, a, b, levels[n])[0] if levels[n] > low else 0.0
            held[i, n] = min(max(volume, 0.0), rooms.capacity[i])


@compiled
def under(triangles: Index, facing: Array, heights: Array, first: int, last: int, level: float) -> tuple[float, float]:
    """Volume below a level and area of the free surface, over a run of triangles: the sums of `kernel.below`."""
    volume, surface = 0.0, 0.0
    for t in range(first, last):
        a, b, c = heights[triangles[t, 0]], heights[triangles[t, 1]], heights[triangles[t, 2]]
        low, top = min(a, b, c), max(a, b, c)
        if low >= level:
            continue
        middle = a + b + c - low - top
        if level >= top:
            volume += facing[t] * (level - (a + b + c) / 3)
            surface += facing[t]
        elif level < middle:
            over, bottom = level - low, (middle - low) * (top - low)
            volume += facing[t] * over * over * over / (3 * bottom)
            surface += facing[t] * over * over / bottom
        else:
            rest, bottom = top - level, (top - middle) * (top - low)
            volume += facing[t] * (level - (a + b + c) / 3 + rest * rest * rest / (3 * bottom))
            surface += facing[t] * (1 - rest * rest / bottom)
    return volume, surface


@compiled
def share_out(
    triangles: Index,
    triangle_at: Index,
    facing: Array,
    heights: Array,
    spans: Array,
    group: Index,
    wanted: int,
    total: float,
    volumes: Array,
) -> float:
    """Give the pieces of a group what they hold under one surface that `total` lies below; the surface's height."""
    low, top = np.inf, -np.inf
    for i in range(len(group)):
        if group[i] == wanted:
            low, top = min(low, spans[i, 0]), max(top, spans[i, 1])
    level = (low + top) / 2
    for _ in range(LEVEL_STEPS):
        volume, surface = 0.0, 0.0
        for i in range(len(group)):
            if group[i] != wanted or spans[i, 0] >= level:
                if group[i] == wanted:
                    volumes[i] = 0.0
                continue
            volumes[i], face = under(triangles, facing, heights, triangle_at[i], triangle_at[i + 1], level)
            volume, surface = volume + volumes[i], surface + face
        if volume > total:
            top = level
        else:
            low = level
        if abs(volume - total) <= EXACT * total or top - low < 1e-9:
            break
        level = level - (volume - total) / surface if surface > 1e-9 else (low + top) / 2
        if not low < level < top:
            level = (low + top) / 2
    return level


@compiled
def settle(rooms: Rooms, links: Links, seen: Seen, volumes: Array, group: Index) -> None:
    """Let fuel run over sills until it rests: `volumes` and `group`, which pieces stand in one surface, are changed.

    What stands higher than a sill runs over it, the lowest sill first, as it does when a lean grows slowly. Two sides
    that both stand over the sill between them become one; one that sinks to its own highest sill comes apart there.
    Through a door fuel goes one way and the sides never become one.
    """
    capacity, sides, doors, triangle_at = rooms.capacity, links.sides, links.doors, rooms.triangle_at
    triangles, facing, heights, spans = seen.triangles, seen.facing, seen.heights, seen.spans
    levels, held, apart = seen.levels, seen.held, np.empty(len(rooms.capacity))
    count, links_count = len(capacity), len(doors)
    # A group's highest inner sill, as a level's number; −1 for a single piece.
    inner = np.full(count, -1, np.int64)
    for i in range(count):
        group[i] = i
    total, sums = volumes.copy(), held.copy()
    small = 1e-9 * capacity.sum()
    for _ in range(MOST_MOVES):
        chosen, lowest = -1, np.inf
        for k in range(links_count):
            a, b = group[sides[k, 0]], group[sides[k, 1]]
            if a == b or levels[k] >= lowest:
                continue
            over_a = total[a] > sums[a, k] + small
            over_b = total[b] > sums[b, k] + small
            if doors[k] == 0 and (over_a or over_b):
                chosen, lowest = k, levels[k]
            elif doors[k] != 0:
                source, sink = (a, b) if doors[k] > 0 else (b, a)
                over = over_a if doors[k] > 0 else over_b
                if over:
                    near = share_out(
                        triangles, triangle_at, facing, heights, spans, group, source, total[source], apart
                    )
                    far = share_out(triangles, triangle_at, facing, heights, spans, group, sink, total[sink], apart)
                    if far < near - LEVEL_MM:
                        chosen, lowest = k, levels[k]
        if chosen < 0:
            break
        a, b = group[sides[chosen, 0]], group[sides[chosen, 1]]
        over_a = total[a] > sums[a, chosen] + small
        over_b = total[b] > sums[b, chosen] + small
        door = doors[chosen]
        if door == 0 and over_a and over_b:
            _join(group, inner, total, sums, levels, a, b, chosen)
            continue
        source, sink = (a, b) if (door > 0 or (door == 0 and over_a)) else (b, a)
        # It sinks to the sill, or to its own highest one, where it comes apart.
        own = inner[source]
        to = own if own >= 0 and levels[own] > levels[chosen] else chosen
        surplus = max(0.0, total[source] - sums[source, to])
        room = sums[sink, to] - total[sink]
        if surplus <= room + small:
            total[source] -= surplus
            total[sink] += surplus
            if to != chosen:
                for i in range(count):
                    if group[i] == source:
                        group[i], total[i], inner[i] = i, held[i, to], -1
                        sums[i] = held[i]
        elif door == 0:
            _join(group, inner, total, sums, levels, a, b, chosen)
        else:
            moved = _evened(triangles, triangle_at, facing, heights, spans, group, source, sink, total)
            total[source] -= moved
            total[sink] += moved
    for i in range(count):
        alone = True
        for j in range(count):
            alone = alone and (i == j or group[j] != group[i])
        if alone:
            volumes[i] = total[i]
        elif group[i] == i:
            share_out(triangles, triangle_at, facing, heights, spans, group, i, total[i], volumes)


@compiled
def _join(group: Index, inner: Index, total: Array, sums: Array, levels: Array, a: int, b: int, sill: int) -> None:
    total[a] += total[b]
    for n in range(len(levels)):
        sums[a, n] += sums[b, n]
    best = sill
    for own in (inner[a], inner[b]):
        if own >= 0 and levels[own] > levels[best]:
            best = own
    inner[a] = best
    for i in range(len(group)):
        if group[i] == b:
            group[i] = a


@compiled
def _evened(
    triangles: Index,
    triangle_at: Index,
    facing: Array,
    heights: Array,
    spans: Array,
    group: Index,
    source: int,
    sink: int,
    total: Array,
) -> float:
    """What runs through a door until both sides stand level, halving."""
    low, top, apart = 0.0, total[source], np.empty(len(group))
    for _ in range(LEVEL_STEPS):
        moved = (low + top) / 2
        near = share_out(triangles, triangle_at, facing, heights, spans, group, source, total[source] - moved, apart)
        far = share_out(triangles, triangle_at, facing, heights, spans, group, sink, total[sink] + moved, apart)
        if far < near:
            low = moved
        else:
            top = moved
        if top - low < 1e-6 * total[source]:
            break
    return low
