"""What flows through openings, compiled. All in millimetres, seconds and mm³."""

from math import sqrt

import numpy as np

from keel.compiled import compiled
from keel.reference.flow import DISCHARGE
from keel.solid.polyhedron import Array
from keel.studies.slosh.state import State, Ways


@compiled
def high(places: Array, i: int, ups: Array, j: int) -> float:
    """Height of the i-th place along the j-th direction. Rows are never taken out: that costs more than the sum.

    Parameters
    ----------
    places : ndarray
        Shape (n, 3) [mm].
    i : int
        Which place.
    ups : ndarray
        Directions, shape (m, 3).
    j : int
        Which direction.

    Returns
    -------
    float
        Height [mm].
    """
    return float(places[i, 0] * ups[j, 0] + places[i, 1] * ups[j, 1] + places[i, 2] * ups[j, 2])


@compiled
def reach_of(rings: Array, begin: int, end: int, ups: Array, j: int) -> tuple[float, float]:
    """Heights of a ring's lowest and highest corner along the j-th direction.

    Parameters
    ----------
    rings : ndarray
        Corners, shape (n, 3) [mm].
    begin : int
        Number of the ring's first corner.
    end : int
        One past its last.
    ups : ndarray
        Directions, shape (m, 3).
    j : int
        Which direction.

    Returns
    -------
    (float, float)
        Low and high [mm].
    """
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
def mean_orifice_flow(rate: float, head: float, slack: float) -> float:
    """Flow under a head, averaged over a step in which it falls as both surfaces move.

    Two columns of areas A_1 and A_2 that nothing else disturbs run down as √H = √H₀ − K c t/2, c = 1/A_1 + 1/A_2,
    until they are level: the mean of that over the step t is taken, so that nothing overshoots. `rate` is K, `slack`
    is c t.

    References
    ----------
    Derived: the falling-head integral of dH/dt = −K c √H.
    """
    fall, before = rate * slack / 2, sqrt(head)
    return rate * (before - fall / 2) if fall <= before else head / slack


@compiled
def opening_flows(ways: Ways, state: State, step: float, flows: Array, centre: Array) -> None:
    """Flow through every opening, from its first side to its second, averaged over a step [mm³/s].

    Q = C_d A √(2 Δp/ρ), from the side whose surface stands higher at the opening, through what it wets there. All
    of them in one go: to hand so many arrays to a function for each costs ten times the sums.

    Parameters
    ----------
    ways : Ways
        Openings and where they lie.
    state : State
        Levels and forces.
    step : float
        Length [s].
    flows : ndarray
        Filled in, shape (ways,) [mm³/s].
    centre : ndarray
        Filled in, shape (ways,): height of the middle of what is under [mm].

    References
    ----------
    Torricelli's law with a discharge coefficient (`keel.reference.flow`); an opening half under is taken at the head
    over the middle of what is under, which for a round hole is within 4 % of the integral over its height.
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
        flows[k] = sign * mean_orifice_flow(DISCHARGE * area * sqrt(2 * force[source]), head, slack)
