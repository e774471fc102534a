"""The inner loop of the slosh run, compiled.

Everything is in millimetres, seconds and mm³; forces are accelerations [mm/s²]. Compartments and openings come
packed end to end, with the place where each begins.
"""

from math import pi, sqrt, tanh

import numpy as np

from keel.compiled import compiled
from keel.solid.polyhedron import Array
from keel.studies.slosh.state import Feeds, Flags, Rooms, State, Ways
from keel.studies.slosh.surfaces import View, level_of, see, view_of

DISCHARGE = 0.62
MOST_SPELLS = 4096
EXACT = 1e-7
"""Levels hold their volume to this share of the compartment's capacity."""
MOST_ROUNDS = 8
FULL_MM = 0.01
"""A piece that is filled to an open face stands this near to it [mm]."""


@compiled
def high(places: Array, i: int, ups: Array, j: int) -> float:
    """Height of the i-th place along the j-th direction. Rows are never taken out: that costs more than the sum."""
    return float(places[i, 0] * ups[j, 0] + places[i, 1] * ups[j, 1] + places[i, 2] * ups[j, 2])


@compiled
def reach_of(rings: Array, begin: int, end: int, ups: Array, j: int) -> tuple[float, float]:
    """Heights of a ring's lowest and highest corner along the j-th direction."""
    lowest, highest = np.inf, -np.inf
    for i in range(begin, end):
        h = high(rings, i, ups, j)
        lowest, highest = min(lowest, h), max(highest, h)
    return lowest, highest


@compiled
def clipped(
    rings: Array, begin: int, end: int, planes: Array, k: int, ups: Array, j: int, level: float, centre: Array
) -> float:
    """Area of a ring's part below a plane, and its centroid, by a fan about the first place that is wet."""
    area, su, sv, count = 0.0, 0.0, 0.0, 0
    u0, v0, u1, v1 = 0.0, 0.0, 0.0, 0.0
    for here in range(begin, end):
        there = here + 1 if here + 1 < end else begin
        hi, hj = high(rings, here, ups, j) - level, high(rings, there, ups, j) - level
        for cut in range(2):
            if (cut == 0 and hi > 0) or (cut == 1 and (hi > 0) == (hj > 0)):
                continue
            share = hi / (hi - hj) if cut == 1 else 0.0
            u, v = 0.0, 0.0
            for n in range(3):
                place = rings[here, n] + share * (rings[there, n] - rings[here, n])
                u += (place - rings[begin, n]) * planes[k, 0, n]
                v += (place - rings[begin, n]) * planes[k, 1, n]
            if count == 0:
                u0, v0 = u, v
            elif count > 1:
                cross = (u1 - u0) * (v - v0) - (u - u0) * (v1 - v0)
                area += cross / 2
                su += cross * (u0 + u1 + u) / 6
                sv += cross * (v0 + v1 + v) / 6
            u1, v1, count = u, v, count + 1
    if abs(area) < 1e-9:
        return 0.0
    for n in range(3):
        centre[0, n] = rings[begin, n] + (su / area) * planes[k, 0, n] + (sv / area) * planes[k, 1, n]
    return abs(area)


@compiled
def wet(
    rings: Array, begin: int, end: int, planes: Array, k: int, ups: Array, j: int, level: float, centre: Array
) -> float:
    """Area of a ring's part below a plane, whose centroid goes into `centre`; minus one when it is all of it."""
    lowest, highest = reach_of(rings, begin, end, ups, j)
    if lowest >= level:
        return 0.0
    return clipped(rings, begin, end, planes, k, ups, j, level, centre) if highest > level else -1.0


@compiled
def eased(rate: float, head: float, slack: float) -> float:
    """Flow under a head, averaged over a step in which it falls as both surfaces move.

    Two columns of areas A_1 and A_2 that nothing else disturbs run down as √H = √H₀ − K c t/2, c = 1/A_1 + 1/A_2,
    until they are level: the mean of that over the step t is taken, so that nothing overshoots. `rate` is K, `slack`
    is c t.
    """
    fall, before = rate * slack / 2, sqrt(head)
    return rate * (before - fall / 2) if fall <= before else head / slack


@compiled
def through(ways: Ways, state: State, step: float, flows: Array, centre: Array) -> None:
    """Flow through every opening, from its first side to its second, averaged over a step [mm³/s].

    Q = C_d A √(2 Δp/ρ), from the side whose surface stands higher at the opening, through what it wets there. All
    of them in one go: to hand so many arrays to a function for each costs ten times the sums.
    """
    rings, ring_at, planes, middles, spans = ways.rings, ways.ring_at, ways.planes, ways.middles, ways.spans
    areas, sides, doors, cracks = ways.areas, ways.sides, ways.doors, ways.cracks
    ups, force, levels, surfaces, group = state.ups, state.force, state.levels, state.surfaces, state.group
    for k in range(len(flows)):
        flows[k] = 0.0
        a, b = sides[k, 0], sides[k, 1]
        if group[a] == group[b]:
            continue
        over_a, over_b = levels[a] - high(middles, k, ups, a), levels[b] - high(middles, k, ups, b)
        source, sink, over, sign = (
            (a, b, over_a, 1.0) if force[a] * over_a >= force[b] * over_b else (b, a, over_b, -1.0)
        )
        if sign * doors[k] < 0 or over <= -spans[k]:
            continue
        area = -1.0
        # Most openings lie wholly under or wholly over: their corners need no looking at.
        if over < spans[k]:
            area = wet(rings, ring_at[k], ring_at[k + 1], planes, k, ups, source, levels[source], centre)
        if area < 0:
            area = areas[k]
            centre[0] = middles[k]
        deep, deep_beyond = levels[source] - high(centre, 0, ups, source), levels[sink] - high(centre, 0, ups, sink)
        head = max(0.0, deep) - force[sink] / force[source] * max(0.0, deep_beyond)
        if area == 0 or head <= cracks[k]:
            continue
        slack = step / max(surfaces[source], 1.0)
        if deep_beyond > 0:
            slack += step / max(surfaces[sink], 1.0)
        flows[k] = sign * eased(DISCHARGE * area * sqrt(2 * force[source]), head, slack)


@compiled
def swing(rooms: Rooms, state: State, target: Array, damping: float, lag: bool, step: float) -> None:
    """Bring the force that every body of fuel feels to where the vehicle's draws it, and its pieces' directions.

    With lag, the force's x and y follow the vehicle's as a damped pendulum of the first slosh mode,
    ω² = (π g/L) tanh(π h/L), by the implicit midpoint rule.
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
def stand(rooms: Rooms, ways: Ways, state: State, view: View) -> None:
    """Bring every surface to where its volume and the force in it put it.

    Pieces on both sides of an open face that stand over its sill have one surface; one that sinks below a sill within
    it comes apart there, and each side keeps what it has.
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
    """
    limits[:] = 0.0
    out, into, held, room = limits[0], limits[1], limits[2], limits[3]
    sides, volumes, group = ways.sides, state.volumes, state.group
    through(ways, state, step, flows, centre)
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
def in_reach(state: State, i: int) -> float:
    """What there is under the surface that a piece shares."""
    total = 0.0
    for j in range(len(state.group)):
        total += state.volumes[j] if state.group[j] == state.group[i] else 0.0
    return total


@compiled
def taken(feeds: Feeds, state: State, asked: float) -> float:
    """Draw a volume through all pickups that are wet, in equal parts; gives what was had."""
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
    """Feed the engine for a step, with what comes back and what the transfer moves; whether it had all it wants."""
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


@compiled
def crossed(before: float, after: float, now: float, step: float) -> float:
    """When within the last step an inlet went under or came out: straight between its depths then and now."""
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
    state = State(
        volumes.copy(),
        np.zeros((count, 3)),
        np.ones(count),
        np.zeros(count),
        np.ones(count),
        np.zeros((len(rooms.plan), 2)),
        np.zeros((len(rooms.plan), 2)),
        np.arange(count),
        np.full(1, feeds.surge),
        np.zeros(5),
    )
    view = view_of(rooms)
    for i in range(len(rooms.plan)):
        state.lagging[i] = forces[0, :2]
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
            draw = draws[n] + share * (draws[after] - draws[n])
            back = backs[n] + share * (backs[after] - backs[n])
            fed = feed(feeds, state, draw, back, step)
            now = crossed(before, margin, (n * steps + part) * step, step)
            if not fed and since < 0:
                since = now
            if fed and since >= 0:
                found = noted(spells, found, since, now)
                since = -1.0
    if since >= 0:
        found = noted(spells, found, since, (times - 1) * steps * step)
    return held, planes, depths, surge, spells[:found], state.sums
