"""The inner loop of the slosh run, compiled.

Everything is in millimetres, seconds and mm³; forces are accelerations [mm/s²]. Compartments and openings come
packed end to end, with the place where each begins.
"""

from math import pi, sqrt, tanh

import numpy as np

from keel.compiled import compiled
from keel.solid.polyhedron import Array
from keel.studies.slosh.feeding import feed, sound
from keel.studies.slosh.opening_flows import opening_flows
from keel.studies.slosh.standing import stand
from keel.studies.slosh.state import Feeds, Rooms, State, Ways
from keel.studies.slosh.surfaces import view_of

MOST_SPELLS = 4096


@compiled
def swing(rooms: Rooms, state: State, target: Array, damping: float, lag: bool, step: float) -> None:
    """Bring the force that every body of fuel feels to where the vehicle's draws it, and its pieces' directions.

    With lag, the force's x and y follow the vehicle's as a damped pendulum of the first slosh mode,
    ω² = (π g/L) tanh(π h/L), by the implicit midpoint rule.

    Parameters
    ----------
    rooms : Rooms
        The tank's bodies of fuel.
    state : State
        Changed in place.
    target : ndarray
        Steady specific force in the vehicle, shape (3,) [m/s²].
    damping : float
        Share of critical.
    lag : bool
        Whether it is delayed.
    step : float
        Length [s].

    References
    ----------
    First antisymmetric mode of a rectangular tank: H. N. Abramson (ed.), The Dynamic Behavior of Liquids in Moving
    Containers, NASA SP-106 (1966), chapter 2; R. A. Ibrahim, Liquid Sloshing Dynamics (2005), chapter 1. For round and
    odd plans L is the free run, a stand-in that is right to some 10 %. Small waves: breaking isn't modelled.
    """
    held = np.zeros(len(rooms.plan))
    for i in range(len(rooms.capacity)):
        held[rooms.body[i]] += state.volumes[i]
    for i in range(len(rooms.plan)):
        for axis in range(2):
            if not lag:
                state.lagging[i, axis] = target[axis]
                continue
            long, deep = rooms.lengths[i, axis], max(held[i] / rooms.plan[i], 0.5)
            square = pi * abs(target[2]) / long * tanh(pi * deep / long)
            half = step / 2
            bottom = 1 + 2 * damping * sqrt(square) * half + square * half * half
            place, speed = state.lagging[i, axis], state.speeds[i, axis]
            middle = (speed + half * square * (target[axis] - place)) / bottom
            state.lagging[i, axis], state.speeds[i, axis] = place + step * middle, 2 * middle - speed
    for i in range(len(rooms.capacity)):
        fx, fy, fz = state.lagging[rooms.body[i], 0], state.lagging[rooms.body[i], 1], target[2]
        size = max(sqrt(fx * fx + fy * fy + fz * fz), 1.0)
        state.ups[i, 0], state.ups[i, 1], state.ups[i, 2], state.force[i] = -fx / size, -fy / size, -fz / size, size


@compiled
def pass_between(
    rooms: Rooms,
    ways: Ways,
    state: State,
    step: float,
    flows: Array,
    last: Array,
    limits: Array,
    centre: Array,
) -> None:
    """Let fuel through the openings: no more than is there, no more than has room at the start of the step.

    Half of what a flow has changed by since the last step is added (Adams and Bashforth's second rule), unless it
    has turned round; `last` keeps the flows for that. `limits`, shape (4, compartments), is room to work in.

    References
    ----------
    E. Hairer, S. P. Nørsett, G. Wanner, Solving Ordinary Differential Equations I (1993), III.1; the limiter that keeps
    volumes between empty and full is our own.
    """
    limits[:] = 0.0
    out, into, held, room = limits[0], limits[1], limits[2], limits[3]
    sides, volumes, group = ways.sides, state.volumes, state.group
    opening_flows(ways, state, step, flows, centre)
    for k in range(len(flows)):
        now = step * flows[k]
        onward = now + (now - last[k]) / 2 if now * last[k] > 0 else now
        flows[k] = onward if onward * now > 0 else now
        last[k] = now
        source, sink = (sides[k, 0], sides[k, 1]) if flows[k] > 0 else (sides[k, 1], sides[k, 0])
        out[group[source]] += abs(flows[k])
        into[group[sink]] += abs(flows[k])
    for i in range(len(group)):
        held[group[i]] += volumes[i]
        room[group[i]] += rooms.capacity[i] - volumes[i]
    for i in range(len(out)):
        out[i] = min(1.0, max(held[i], 0.0) / out[i]) if out[i] > 0 else 1.0
        into[i] = min(1.0, max(room[i], 0.0) / into[i]) if into[i] > 0 else 1.0
    for k in range(len(flows)):
        source, sink = (sides[k, 0], sides[k, 1]) if flows[k] > 0 else (sides[k, 1], sides[k, 0])
        moved = abs(flows[k]) * min(out[group[source]], into[group[sink]])
        volumes[source] -= moved
        volumes[sink] += moved


@compiled
def crossed(before: float, after: float, now: float, step: float) -> float:
    """When within the last step an inlet went under or came out: straight between its depths then and now.

    Parameters
    ----------
    before : float
        Depth where the step begins [mm].
    after : float
        Depth where it ends [mm].
    now : float
        When the step ends [s].
    step : float
        Length [s].

    Returns
    -------
    float
        Time [s].
    """
    if (before > 0) == (after > 0):
        return now
    return now - step * after / (after - before)


@compiled
def noted(spells: Array, found: int, begin: float, end: float) -> int:
    """Put a dry spell down, while there is room; how many there are then."""
    if found < MOST_SPELLS:
        spells[found, 0], spells[found, 1] = begin, end
        return found + 1
    return found


@compiled
def begun(rooms: Rooms, surge: float, volumes: Array, force: Array) -> State:
    """Where everything is at the start, the surge tank full."""
    count, bodies = len(rooms.capacity), len(rooms.plan)
    state = State(
        volumes.copy(),
        np.zeros((count, 3)),
        np.ones(count),
        np.zeros(count),
        np.ones(count),
        np.zeros((bodies, 2)),
        np.zeros((bodies, 2)),
        np.arange(count),
        np.full(1, surge),
        np.zeros(5),
    )
    state.lagging[:] = force[:2]
    return state


@compiled
def between(values: Array, n: int, after: int, share: float) -> float:
    """A share of the way from one of the log's values to another."""
    return float(values[n] + share * (values[after] - values[n]))


@compiled
def run(
    rooms: Rooms,
    ways: Ways,
    feeds: Feeds,
    forces: Array,
    draws: Array,
    backs: Array,
    volumes: Array,
    damping: float,
    lag: bool,
    step: float,
    steps: int,
) -> tuple[Array, Array, Array, Array, Array, Array]:
    """Run a log.

    Parameters
    ----------
    rooms, ways, feeds
        The tank.
    forces, draws, backs : arrays of shape (n, 3), (n,), (n,)
        What the fuel feels [mm/s²], what the engine uses and what comes back [mm³/s], `steps` steps of `step`
        seconds apart, straight between.
    volumes : ndarray, shape (compartments,)
        What is in each at the start [mm³].
    damping, lag
        Damping ratio of the slosh, and whether the surface lags at all.
    step, steps
        A step [s], and how many there are from one time of the log to the next.

    Returns
    -------
    held : ndarray, shape (n, compartments) [mm³]
    planes : ndarray, shape (n, compartments, 4)
        Each surface's normal, and the level along it [mm].
    depths : ndarray, shape (n, pickups)
        Of each inlet under its surface [mm].
    surge : ndarray, shape (n,) [mm³]
    spells : ndarray, shape (k, 2)
        Begin and end of every dry spell [s].
    sums : ndarray, shape (5,)
        As `State.sums` [mm³].
    """
    count, times = len(rooms.capacity), len(forces)
    state = begun(rooms, feeds.surge, volumes, forces[0])
    view = view_of(rooms)
    held, planes = np.empty((times, count)), np.empty((times, count, 4))
    depths, surge = np.empty((times, len(feeds.pickup_in))), np.empty(times)
    spells, found, since = np.empty((MOST_SPELLS, 2)), 0, -1.0
    depth, margin = np.empty(len(feeds.pickup_in)), 1.0
    centre, limits = np.empty((1, 3)), np.empty((4, count))
    flows, last = np.zeros(len(ways.doors)), np.zeros(len(ways.doors))
    for n in range(times):
        after = min(n + 1, times - 1)
        for part in range(steps if n + 1 < times else 1):
            share = part / steps
            target = forces[n] + share * (forces[after] - forces[n])
            swing(rooms, state, target, damping, lag, step)
            stand(rooms, ways, state, view)
            before, margin = margin, sound(feeds, state, depth)
            if part == 0:
                held[n], planes[n, :, :3], planes[n, :, 3] = state.volumes, state.ups, state.levels
                surge[n] = state.surge[0]
                depths[n] = depth
            if n + 1 == times:
                break
            pass_between(rooms, ways, state, step, flows, last, limits, centre)
            fed = feed(feeds, state, between(draws, n, after, share), between(backs, n, after, share), step)
            now = crossed(before, margin, (n * steps + part) * step, step)
            if not fed and since < 0:
                since = now
            if fed and since >= 0:
                found = noted(spells, found, since, now)
                since = -1.0
    if since >= 0:
        found = noted(spells, found, since, (times - 1) * steps * step)
    return held, planes, depths, surge, spells[:found], state.sums
