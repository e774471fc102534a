"""How hard it can be pushed: the g at which the pickup uncovers, and the lowest fill that a lap runs on."""

from dataclasses import dataclass, replace

import numpy as np

from keel.design.slosh import Kind, Manoeuvre
from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Array, Index
from keel.studies.slosh.kernel import below, compiled, high
from keel.studies.slosh.log import Log
from keel.studies.slosh.manoeuvres import SETTLE_S, log_of
from keel.studies.slosh.model import Setup, SloshTank
from keel.studies.slosh.run import slosh_run

DIRECTIONS, FILLS = 72, 41
MOST_G = 3.0
GRID = 61
CLOSING = 12
"""Halvings after the grid: to 3 / 60 / 2¹² g."""
TRIED = 12
REFINED = 5


@dataclass(frozen=True, slots=True)
class StarvationMap:
    """Steady pushes that uncover the pickup.

    `g` has a row a direction and a column a fill: the least g that uncovers every pickup; nought where they are dry
    at rest, empty where 3 g doesn't. Directions go from forward (gathering speed) to the left (turning left).
    """

    directions_deg: list[float]
    fills: list[float]
    g: list[list[float | None]]
    brimful_l: float


@compiled
def _held(
    points: Array, triangles: Index, halves: Array, places: Array, angle: float, g: float, heights: Array
) -> float:
    """What lies below the lowest of some places, pushed so [mm³]; without end where there is none."""
    up, size = np.empty((1, 3)), np.sqrt(1 + g * g)
    up[0, 0], up[0, 1], up[0, 2] = g * np.cos(angle) / size, g * np.sin(angle) / size, 1 / size
    for i in range(len(points)):
        heights[i] = high(points, i, up, 0)
    level = np.inf
    for p in range(len(places)):
        level = min(level, high(places, p, up, 0))
    if level == np.inf:
        return np.inf
    return below(points, triangles, halves, up[0], level, heights)[0]


@compiled
def _wet(
    points: Array,
    triangles: Index,
    halves: Array,
    inlets: Array,
    sills: Array,
    angle: float,
    g: float,
    volume: float,
    heights: Array,
) -> bool:
    """Whether an inlet is under, pushed so: less what has run out over the sills."""
    stays = min(volume, _held(points, triangles, halves, sills, angle, g, heights))
    return _held(points, triangles, halves, inlets, angle, g, heights) < stays


@compiled
def _map(
    points: Array,
    triangles: Index,
    halves: Array,
    inlets: Array,
    sills: Array,
    angles: Array,
    volumes: Array,
    most: float,
) -> Array:
    found, heights = np.full((len(angles), len(volumes)), np.inf), np.empty(len(points))
    inlet, sill = np.empty(GRID), np.empty(GRID)
    for d in range(len(angles)):
        for k in range(GRID):
            inlet[k] = _held(points, triangles, halves, inlets, angles[d], most * k / (GRID - 1), heights)
            sill[k] = _held(points, triangles, halves, sills, angles[d], most * k / (GRID - 1), heights)
        for f in range(len(volumes)):
            k = 0
            while k < GRID and inlet[k] < min(volumes[f], sill[k]):
                k += 1
            if k == GRID:
                continue
            low, top = most * max(0, k - 1) / (GRID - 1), most * k / (GRID - 1)
            for _ in range(CLOSING if k else 0):
                middle = (low + top) / 2
                if _wet(points, triangles, halves, inlets, sills, angles[d], middle, volumes[f], heights):
                    low = middle
                else:
                    top = middle
            found[d, f] = top
    return found


def starvation_map(tank: SloshTank) -> StarvationMap:
    """The g that uncovers the pickups, for every direction and fill, steady and all openings passed.

    Parameters
    ----------
    tank : SloshTank
        The cell of its first pickup is looked at. Held long enough, fuel stands as one plane through all compartments
        that baffles part; over a hump of the floor it only runs away, as far as the hump's sill lets it: what comes
        over from the other side is not counted on.

    Notes
    -----
    An inlet is dry exactly when the fuel is less than what the plane through it cuts off: no level is searched for.
    """
    cell = tank.rooms[tank.pickup_in[0]].cell
    mine = [i for i, room in enumerate(tank.rooms) if room.cell == cell]
    angles, fills = np.arange(DIRECTIONS) * 2 * np.pi / DIRECTIONS, np.linspace(0.0, 1.0, FILLS)
    rest = np.array([tank.level(float(fill)) if fill > 0 else np.zeros(len(tank.rooms)) for fill in fills])
    found = np.zeros((DIRECTIONS, FILLS))
    for group in _groups(tank, mine):
        inlets = tank.places[[n for n, room in enumerate(tank.pickup_in) if room in group]].reshape(-1, 3)
        if len(inlets):
            found = np.maximum(found, _map_of(tank, group, inlets, angles, rest[:, sorted(group)].sum(axis=1)))
    return StarvationMap(
        directions_deg=np.degrees(angles).tolist(),
        fills=fills.tolist(),
        g=[[None if np.isinf(v) else float(v) for v in row] for row in found],
        brimful_l=sum(tank.rooms[i].mesh.volume_mm3 for i in mine) / MM3_PER_LITRE,
    )


def _groups(tank: SloshTank, rooms: list[int]) -> list[set[int]]:
    """Compartments of a cell that are joined by more than the way over a hump."""
    groups = [{room} for room in rooms]
    for opening in tank.openings:
        if not opening.hump and opening.first in rooms:
            one, other = (next(g for g in groups if side in g) for side in (opening.first, opening.second))
            if one is not other:
                groups.remove(other)
                one |= other
    return groups


def _map_of(tank: SloshTank, group: set[int], inlets: Array, angles: Array, volumes: Array) -> Array:
    rooms = [tank.rooms[i] for i in sorted(group)]
    starts = np.cumsum([0, *(len(room.mesh.points) for room in rooms)])
    points = np.vstack([room.mesh.points for room in rooms])
    triangles = np.vstack([room.mesh.triangles + start for room, start in zip(rooms, starts, strict=False)])
    corners = points[triangles]
    halves = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]) / 2
    sills = [o.ring for o in tank.openings if o.hump and {o.first, o.second} & group]
    over = np.vstack(sills) if sills else np.zeros((0, 3))
    return _map(points, triangles, halves, np.ascontiguousarray(inlets), over, angles, volumes, MOST_G)


def lowest_fill(tank: SloshTank, log: Log, setup: Setup) -> float | None:
    """The lowest share of brimful, at the start, at which the log runs without a dry spell; None when none does.

    Tried at even fills and then closed in on above the highest that runs dry: a fill in between that happens to
    run through doesn't count.
    """

    def dry(fill: float) -> bool:
        return bool(slosh_run(tank, log, replace(setup, fill=fill)).spells)

    tried = [n / TRIED for n in range(1, TRIED + 1)]
    starved = [fill for fill in tried if dry(fill)]
    if starved and starved[-1] == tried[-1]:
        return None
    low = starved[-1] if starved else 0.0
    top = low + 1 / TRIED
    for _ in range(REFINED):
        middle = (low + top) / 2
        low, top = (middle, top) if dry(middle) else (low, middle)
    return top


PUSHES_G = (0.2, 0.4, 0.6, 0.8, 1.0, 1.2)
SHARES = (0.05, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5)
LONGEST_S = 20.0


@dataclass(frozen=True, slots=True)
class TimeToDry:
    """How long a held push takes to run the pickup dry.

    `seconds` has a row a push and a column a fill: nought where it is dry at once, empty where it isn't after 20 s.
    """

    pushes_g: list[float]
    fills: list[float]
    seconds: list[list[float | None]]


def time_to_dry(tank: SloshTank, setup: Setup, kind: Kind) -> TimeToDry:
    """Hold a push of a kind over several strengths and fills, and see when the first dry spell begins."""

    def seconds(g: float, fill: float) -> float | None:
        log = log_of(Manoeuvre(kind=kind, g=g, seconds=LONGEST_S))
        spells = slosh_run(tank, log, replace(setup, fill=fill)).spells
        return max(0.0, spells[0].start_s - SETTLE_S) if spells else None

    rows = [[seconds(g, fill) for fill in SHARES] for g in PUSHES_G]
    return TimeToDry(list(PUSHES_G), list(SHARES), rows)
