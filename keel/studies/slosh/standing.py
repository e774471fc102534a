"""Where every surface stands, and which pieces share one, compiled."""

import numpy as np

from keel.compiled import compiled
from keel.solid.polyhedron import Array
from keel.studies.slosh.opening_flows import reach_of
from keel.studies.slosh.state import Flags, Rooms, State, Ways
from keel.studies.slosh.surfaces import View, level_of, see

EXACT = 1e-7
"""Levels hold their volume to this share of the compartment's capacity."""
MOST_ROUNDS = 8
FULL_MM = 0.01
"""A piece that is filled to an open face stands this near to it [mm]."""


@compiled
def stand(rooms: Rooms, ways: Ways, state: State, view: View) -> None:
    """Bring every surface to where its volume and the force in it put it.

    Pieces on both sides of an open face that stand over its sill have one surface; one that sinks below a sill within
    it comes apart there, and each side keeps what it has.

    Parameters
    ----------
    rooms : Rooms
        The tank's bodies of fuel.
    ways : Ways
        Openings between them.
    state : State
        Changed in place.
    view : View
        Room to work in.
    """
    group, levels, sides = state.group, state.levels, ways.sides
    see(rooms, state.ups, view)
    stale = np.ones(len(group), np.bool_)
    for _ in range(MOST_ROUNDS):
        _fill(rooms, state, view, stale)
        changed = False
        for k in ways.faces:
            a = sides[k, 0]
            if group[a] == group[sides[k, 1]] and levels[a] < _sill(ways, k, state.ups, a):
                _come_apart(state, view, group[a], stale)
                changed = True
        for k in ways.faces:
            a, b = sides[k, 0], sides[k, 1]
            if group[a] == group[b]:
                continue
            sill = _sill(ways, k, state.ups, a)
            if max(levels[a], levels[b]) > sill and min(levels[a], levels[b]) > sill - FULL_MM:
                _join(state, group[a], group[b], stale)
                changed = True
        if not changed:
            break


@compiled
def _fill(rooms: Rooms, state: State, view: View, stale: Flags) -> None:
    """Work out the surfaces of groups that have changed."""
    group, count = state.group, len(state.group)
    for g in range(count):
        if group[g] != g or not stale[g]:
            continue
        total, capacity = 0.0, 0.0
        for i in range(count):
            if group[i] == g:
                total, capacity = total + state.volumes[i], capacity + rooms.capacity[i]
        level, surface = level_of(rooms, view, group, g, total, state.levels[g], EXACT * capacity, state.volumes)
        for i in range(count):
            if group[i] == g:
                state.levels[i], state.surfaces[i], stale[i] = level, surface, False


@compiled
def _sill(ways: Ways, k: int, ups: Array, j: int) -> float:
    return reach_of(ways.rings, ways.ring_at[k], ways.ring_at[k + 1], ups, j)[0]


@compiled
def _come_apart(state: State, view: View, wanted: int, stale: Flags) -> None:
    for i in range(len(state.group)):
        if state.group[i] == wanted:
            state.group[i], stale[i] = i, True
            state.levels[i] = min(max(state.levels[i], view.spans[i, 0]), view.spans[i, 1])


@compiled
def _join(state: State, a: int, b: int, stale: Flags) -> None:
    kept, gone = min(a, b), max(a, b)
    for i in range(len(state.group)):
        if state.group[i] == gone:
            state.group[i] = kept
    stale[kept] = True
