"""What the engine draws, what comes back and what a transfer moves, compiled."""

import numpy as np

from keel.compiled import compiled
from keel.solid.polyhedron import Array
from keel.studies.slosh.opening_flows import high
from keel.studies.slosh.state import Feeds, State


@compiled
def in_reach(state: State, i: int) -> float:
    """What there is under the surface that a piece shares."""
    total = 0.0
    for j in range(len(state.group)):
        total += state.volumes[j] if state.group[j] == state.group[i] else 0.0
    return total


@compiled
def taken(feeds: Feeds, state: State, asked: float) -> float:
    """Draw a volume through all pickups that are wet, in equal parts; gives what was had.

    Parameters
    ----------
    feeds : Feeds
        The tank's pickups.
    state : State
        Changed in place.
    asked : float
        Volume [mm³].

    Returns
    -------
    float
        Volume [mm³], at most what was asked.
    """
    wet = 0
    for p in range(len(feeds.pickup_in)):
        i = feeds.pickup_in[p]
        wet += 1 if state.levels[i] > high(feeds.pickups, p, state.ups, i) and in_reach(state, i) > 0 else 0
    had = 0.0
    for p in range(len(feeds.pickup_in)):
        i = feeds.pickup_in[p]
        there = in_reach(state, i)
        if state.levels[i] > high(feeds.pickups, p, state.ups, i) and there > 0:
            part = min(asked / wet, there)
            state.volumes[i] -= part
            had += part
    return had


@compiled
def feed(feeds: Feeds, state: State, draw: float, back: float, step: float) -> bool:
    """Feed the engine for a step, with what comes back and what the transfer moves; whether it had all it wants.

    Parameters
    ----------
    feeds : Feeds
        The tank's pickups, returns and transfers.
    state : State
        Changed in place.
    draw : float
        What the engine uses [mm³/s].
    back : float
        What comes back [mm³/s].
    step : float
        Length [s].

    Returns
    -------
    bool
        False when it is short.
    """
    wanted = draw * step
    if feeds.surge > 0:
        state.surge[0] += taken(feeds, state, feeds.lift * step)
        used = min(wanted, state.surge[0])
        state.surge[0] -= used
        home = max(0.0, state.surge[0] - feeds.surge)
        state.surge[0] -= home
        state.sums[4] += home
    else:
        asked = wanted + back * step
        share = taken(feeds, state, asked) / asked if asked > 0 else 1.0
        used, home = wanted * share, back * step * share
        state.sums[2] += home
    state.sums[0] += used
    state.sums[1] += wanted - used
    state.volumes[feeds.return_in] += home
    for p in range(len(feeds.transfer_in)):
        i = feeds.transfer_in[p]
        if i != feeds.return_in and state.levels[i] > high(feeds.transfers, p, state.ups, i):
            moved = min(feeds.transfer_ratio * home, max(in_reach(state, i), 0.0))
            state.volumes[i] -= moved
            state.volumes[feeds.return_in] += moved
            state.sums[3] += moved
    return bool(used >= wanted * (1 - 1e-9))


@compiled
def sound(feeds: Feeds, state: State, depths: Array) -> float:
    """Put down how far each inlet lies under its surface; the deepest of them."""
    deepest = -np.inf
    for p in range(len(feeds.pickup_in)):
        i = feeds.pickup_in[p]
        depths[p] = state.levels[i] - high(feeds.pickups, p, state.ups, i)
        deepest = max(deepest, depths[p])
    return deepest
