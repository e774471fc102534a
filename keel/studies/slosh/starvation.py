"""How hard it can be pushed: the g at which the pickup uncovers, and the lowest fill that a lap runs on."""

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

import numpy as np

from keel.compiled import compiled, compiled_apart
from keel.design.slosh import Kind, Manoeuvre
from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Array, Index
from keel.studies.slosh.log import Log
from keel.studies.slosh.manoeuvres import SETTLE_S, log_of
from keel.studies.slosh.model import Setup, SloshTank
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.settling import Links, Seen, links_of, look, seen_of, settle
from keel.studies.slosh.state import Rooms

DIRECTIONS, FILLS = 72, 41
STEPS = 48
"""How many steps the slowly growing push takes to its largest."""
CLOSING = 8
"""Steps of the false position, between the last wet step and the first dry one."""
SHARP = 1e-6
"""An inlet is at the surface when what lies over it is less than this share of the cell."""
THREADS = 2
TRIED = 12
REFINED = 5


@dataclass(frozen=True, slots=True)
class StarvationMap:
    """Steady pushes that uncover the pickup.

    `g` has a row a direction and a column a fill: the least g that uncovers every pickup; zero where they are dry
    at rest, empty where `most_g` doesn't. Directions go from forward (accelerating) to the left (turning left).
    """

    directions_deg: list[float]
    fills: list[float]
    g: list[list[float | None]]
    brimful_l: float
    most_g: float
    """The largest push looked at: a house rule."""


@compiled
def _push(seen: Seen, angle: float, g: float) -> None:
    size = np.sqrt(1 + g * g)
    for i in range(len(seen.ups)):
        seen.ups[i, 0], seen.ups[i, 1], seen.ups[i, 2] = g * np.cos(angle) / size, g * np.sin(angle) / size, 1 / size


@compiled
def _over(group: Index, held: Array, volumes: Array, inlet_in: Index, first: int) -> float:
    """What lies over the best-placed inlet in its own surface; below zero what is missing [mm³]."""
    best = -np.inf
    for p in range(len(inlet_in)):
        mine, over = group[inlet_in[p]], 0.0
        for i in range(len(group)):
            if group[i] == mine:
                over += volumes[i] - held[i, first + p]
        best = max(best, over)
    return best


@compiled
def _closed_in(
    rooms: Rooms,
    links: Links,
    seen: Seen,
    inlets: Array,
    inlet_in: Index,
    angle: float,
    before: Array,
    wet: tuple[float, float],
    dry: tuple[float, float],
) -> float:
    """The push between a wet one and a dry one, each with what lies over the inlet, at which the inlet comes out."""
    sharp, group = SHARP * rooms.capacity.sum(), np.empty(len(before), np.int64)
    low, low_over = wet
    top, top_over = dry
    for _ in range(CLOSING):
        if top_over >= -sharp or low_over <= sharp:
            break
        g = low + (top - low) * low_over / (low_over - top_over)
        volumes = before.copy()
        _push(seen, angle, g)
        look(rooms, links, inlets, seen)
        settle(rooms, links, seen, volumes, group)
        now = _over(group, seen.held, volumes, inlet_in, len(links.doors))
        # Illinois: the end that stays counts half the next time.
        if now > 0:
            low, low_over, top_over = g, now, top_over / 2
        else:
            top, top_over, low_over = g, now, low_over / 2
    return low if low_over <= sharp else top


@compiled_apart
def _map(
    rooms: Rooms, links: Links, inlets: Array, inlet_in: Index, seen: Seen, angles: Array, starts: Array, most: float
) -> Array:
    """Let a push grow slowly from rest in every direction, for every fill, until the inlets come out."""
    fills, group = len(starts), np.empty(len(rooms.capacity), np.int64)
    found = np.full((len(angles), fills), np.inf)
    for d in range(len(angles)):
        volumes, over = starts.copy(), np.zeros(fills)
        for k in range(STEPS + 1):
            g = most * k / STEPS
            _push(seen, angles[d], g)
            look(rooms, links, inlets, seen)
            for f in range(fills):
                if found[d, f] < np.inf:
                    continue
                before = volumes[f].copy()
                settle(rooms, links, seen, volumes[f], group)
                now = _over(group, seen.held, volumes[f], inlet_in, len(links.doors))
                if now > 0:
                    over[f] = now
                    continue
                found[d, f] = 0.0
                if k > 0:
                    ends = (g - most / STEPS, over[f]), (g, now)
                    found[d, f] = _closed_in(rooms, links, seen, inlets, inlet_in, angles[d], before, ends[0], ends[1])
                    _push(seen, angles[d], g)
                    look(rooms, links, inlets, seen)
    return found


def starvation_map(tank: SloshTank, most_g: float = 4.0) -> StarvationMap:
    """The g that uncovers the pickups, for every direction and fill, in a push that grows slowly from rest.

    Parameters
    ----------
    tank : SloshTank
        The cell of its first pickup is looked at.
    most_g : float
        The largest push looked at [g].

    Returns
    -------
    StarvationMap

    Notes
    -----
    Fuel runs over ledges, humps, rims and through openings as far as it finds a way down, and what has no way stays:
    behind a step it is lost to the pickup, in a sump it stays up to the rim. Doors let it through one way.
    """
    cell = tank.rooms[tank.pickup_in[0]].cell
    mine = [i for i, room in enumerate(tank.rooms) if room.cell == cell]
    rooms, openings = tank.only(mine)
    links = links_of(openings)
    here = [n for n, room in enumerate(tank.pickup_in) if room in mine]
    angles, fills = np.arange(DIRECTIONS) * 2 * np.pi / DIRECTIONS, np.linspace(0.0, 1.0, FILLS)
    starts = np.array([tank.level(float(fill)) if fill > 0 else np.zeros(len(tank.rooms)) for fill in fills])
    places = np.ascontiguousarray(tank.places[here])
    inlet_in = np.array([mine.index(tank.pickup_in[n]) for n in here], dtype=np.int64)
    begin = np.ascontiguousarray(starts[:, mine])

    def part(some: Array) -> Array:
        return _map(rooms, links, places, inlet_in, seen_of(rooms, links, places), some, begin, most_g)

    with ThreadPoolExecutor(THREADS) as pool:
        found = np.vstack(list(pool.map(part, np.array_split(angles, THREADS))))
    return StarvationMap(
        directions_deg=np.degrees(angles).tolist(),
        fills=fills.tolist(),
        g=[[None if np.isinf(v) else float(v) for v in row] for row in found],
        brimful_l=float(rooms.capacity.sum()) / MM3_PER_LITRE,
        most_g=most_g,
    )


def lowest_fill(
    tank: SloshTank, log: Log, setup: Setup, before_each: Callable[[], None] = lambda: None
) -> float | None:
    """The lowest share of brimful, at the start, at which the log runs without a dry spell; None when none does.

    Tried at even fills and then closed in on above the highest that runs dry: a fill in between that happens to
    run through doesn't count. `before_each` is called before each run; it may raise to stop them.

    Parameters
    ----------
    tank : SloshTank
        Ready to run.
    log : Log
        What is driven.
    setup : Setup
        Draw, return and what else is set.
    before_each : callable
        Called before each run.

    Returns
    -------
    float or None
        Share of brimful, 0 to 1.
    """

    def dry(fill: float) -> bool:
        before_each()
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

    `seconds` has a row a push and a column a fill: zero where it is dry at once, empty where it isn't after 20 s.
    """

    pushes_g: list[float]
    fills: list[float]
    seconds: list[list[float | None]]


def time_to_dry(tank: SloshTank, setup: Setup, kind: Kind) -> TimeToDry:
    """Hold a push of a kind over several strengths and fills, and see when the first dry spell begins.

    Parameters
    ----------
    tank : SloshTank
        Ready to run.
    setup : Setup
        Draw, return and what else is set.
    kind : Kind
        Corner left or right, braking or drive.

    Returns
    -------
    TimeToDry
        A row a strength, a column a share of brimful [s]; None where nothing runs dry.
    """

    def seconds(g: float, fill: float) -> float | None:
        log = log_of(Manoeuvre(kind=kind, g=g, seconds=LONGEST_S))
        spells = slosh_run(tank, log, replace(setup, fill=fill)).spells
        return max(0.0, spells[0].start_s - SETTLE_S) if spells else None

    rows = [[seconds(g, fill) for fill in SHARES] for g in PUSHES_G]
    return TimeToDry(list(PUSHES_G), list(SHARES), rows)
