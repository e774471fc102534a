"""Where fuel lies once it has come to rest in a direction, piece by piece, from where it lay before: compiled.

All questions are asked at a handful of levels, those of the sills and of the inlets: what each piece holds below each
of them is worked out once a direction and serves every fill.
"""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from keel.compiled import compiled
from keel.solid.compartments import Opening
from keel.solid.polyhedron import Array, Index
from keel.studies.slosh.state import Rooms
from keel.studies.slosh.surfaces import View, level_of, see, under, view_of

MOST_MOVES = 400
EXACT = 1e-9
"""Surfaces hold their volume to this share of the tank's."""
MOVES = 100
"""What would run through a door until both sides are level is zero below so many times that."""


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

    ups: Array
    """Upwards, the same for every piece."""
    sight: View
    levels: Array
    """Heights of the openings' sills, then of the inlets."""
    held: Array
    """What each piece holds below each of those levels, shape (pieces, levels) [mm³]."""


def seen_of(rooms: Rooms, links: Links, inlets: Array) -> Seen:
    """Room for what is seen of a tank along any direction."""
    levels, pieces = len(links.doors) + len(inlets), len(rooms.capacity)
    return Seen(np.zeros((pieces, 3)), view_of(rooms), np.empty(levels), np.empty((pieces, levels)))


@compiled
def look(rooms: Rooms, links: Links, inlets: Array, seen: Seen) -> None:
    """See a tank along `seen.ups`: all that `settle` goes by."""
    up, levels, held = seen.ups[0], seen.levels, seen.held
    falls, spans = seen.sight.falls, seen.sight.spans
    see(rooms, seen.ups, seen.sight)
    for k in range(len(links.doors)):
        levels[k] = np.inf
        for p in range(links.ring_at[k], links.ring_at[k + 1]):
            h = links.rings[p, 0] * up[0] + links.rings[p, 1] * up[1] + links.rings[p, 2] * up[2]
            levels[k] = min(levels[k], h)
    for p in range(len(inlets)):
        levels[len(links.doors) + p] = inlets[p, 0] * up[0] + inlets[p, 1] * up[1] + inlets[p, 2] * up[2]
    for i in range(len(rooms.capacity)):
        for n in range(len(levels)):
            volume = rooms.capacity[i]
            if levels[n] < spans[i, 1]:
                volume = 0.0
                if levels[n] > spans[i, 0]:
                    first, last = rooms.triangle_at[i], rooms.triangle_at[i + 1]
                    volume = under(falls, first, last, levels[n])[0]
            held[i, n] = min(max(volume, 0.0), rooms.capacity[i])


class Standing(NamedTuple):
    """Which pieces stand in one surface while fuel runs; changed in place."""

    group: Index
    inner: Index
    """A group's highest inner sill, as a level's number; −1 for a single piece."""
    total: Array
    """What each group holds [mm³]."""
    sums: Array
    """What it holds below each level, shape (pieces, levels) [mm³]."""


@compiled
def settle(rooms: Rooms, links: Links, seen: Seen, volumes: Array, group: Index) -> None:
    """Let fuel run over sills until it rests: `volumes` and `group`, which pieces stand in one surface, are changed.

    What stands higher than a sill runs over it, the lowest sill first, as it does when a lean grows slowly. Two sides
    that both stand over the sill between them become one; one that sinks to its own highest sill comes apart there.
    Through a door fuel goes one way and the sides never become one.
    """
    count, small = len(group), EXACT * rooms.capacity.sum()
    for i in range(count):
        group[i] = i
    now = Standing(group, np.full(count, -1, np.int64), volumes.copy(), seen.held.copy())
    for _ in range(MOST_MOVES):
        sill = _lowest_running(rooms, links, seen, now, small)
        if sill < 0:
            break
        a, b = group[links.sides[sill, 0]], group[links.sides[sill, 1]]
        over_a, over_b = _stands_over(now, a, sill, small), _stands_over(now, b, sill, small)
        if links.doors[sill] == 0 and over_a and over_b:
            _join(now, seen.levels, a, b, sill)
        elif links.doors[sill] > 0 or (links.doors[sill] == 0 and over_a):
            _run_over(rooms, links, seen, now, a, b, sill, small)
        else:
            _run_over(rooms, links, seen, now, b, a, sill, small)
    for i in range(count):
        if group[i] == i:
            level_of(rooms, seen.sight, group, i, now.total[i], seen.levels[max(now.inner[i], 0)], small, volumes)


@compiled
def _stands_over(now: Standing, g: int, sill: int, small: float) -> bool:
    return bool(now.total[g] > now.sums[g, sill] + small)


@compiled
def _lowest_running(rooms: Rooms, links: Links, seen: Seen, now: Standing, small: float) -> int:
    """The lowest sill over which something runs; −1 when all is at rest."""
    chosen, lowest = -1, np.inf
    for k in range(len(links.doors)):
        a, b = now.group[links.sides[k, 0]], now.group[links.sides[k, 1]]
        if a == b or seen.levels[k] >= lowest:
            continue
        over_a, over_b = _stands_over(now, a, k, small), _stands_over(now, b, k, small)
        runs = over_a or over_b
        if links.doors[k] != 0:
            source, sink = (a, b) if links.doors[k] > 0 else (b, a)
            runs = over_a if links.doors[k] > 0 else over_b
            if over_a and over_b:
                runs = _evened(rooms, seen, now, source, sink, seen.levels[k], small) > MOVES * small
        if runs:
            chosen, lowest = k, seen.levels[k]
    return chosen


@compiled
def _run_over(
    rooms: Rooms, links: Links, seen: Seen, now: Standing, source: int, sink: int, sill: int, small: float
) -> None:
    """Let a group run over a sill: down to it, or to its own highest one, where it comes apart."""
    own, group = now.inner[source], now.group
    to = own if own >= 0 and seen.levels[own] > seen.levels[sill] else sill
    surplus = max(0.0, now.total[source] - now.sums[source, to])
    if surplus <= now.sums[sink, to] - now.total[sink] + small:
        now.total[source] -= surplus
        now.total[sink] += surplus
        for i in range(len(group)):
            if to != sill and group[i] == source:
                group[i], now.total[i], now.inner[i], now.sums[i] = i, seen.held[i, to], -1, seen.held[i]
    elif links.doors[sill] == 0:
        _join(now, seen.levels, source, sink, sill)
    else:
        moved = _evened(rooms, seen, now, source, sink, seen.levels[sill], small)
        now.total[source] -= moved
        now.total[sink] += moved


@compiled
def _join(now: Standing, levels: Array, a: int, b: int, sill: int) -> None:
    kept, gone = min(a, b), max(a, b)
    now.total[kept] += now.total[gone]
    for n in range(len(levels)):
        now.sums[kept, n] += now.sums[gone, n]
    best = sill
    for own in (now.inner[a], now.inner[b]):
        if own >= 0 and levels[own] > levels[best]:
            best = own
    now.inner[kept] = best
    for i in range(len(now.group)):
        if now.group[i] == gone:
            now.group[i] = kept


@compiled
def _evened(rooms: Rooms, seen: Seen, now: Standing, source: int, sink: int, sill: float, exact: float) -> float:
    """What runs through a door until both sides stand level: below zero where the far side is the higher."""
    both, apart, kept = now.group.copy(), np.empty(len(now.group)), 0.0
    for i in range(len(both)):
        both[i] = source if both[i] == sink else both[i]
    level_of(rooms, seen.sight, both, source, now.total[source] + now.total[sink], sill, exact, apart)
    for i in range(len(both)):
        kept += apart[i] if now.group[i] == source else 0.0
    return float(now.total[source] - kept)
