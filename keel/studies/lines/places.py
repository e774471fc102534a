"""Where every connection of the line lies, and the way of every run between two of them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import acos, cos, degrees, radians, sin

import numpy as np

from keel.analysis.parts import LINES, PORTS, SOLIDS, WORKSHOP
from keel.analysis.study import study
from keel.design.benders import TubeBender
from keel.design.connections import Connection
from keel.design.line_functions import ports_of
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, LineRun, Lines, RunEnd
from keel.design.ports import Port
from keel.design.workshop import Workshop
from keel.reference.fittings import BEND_K, END_K
from keel.routes.rounded import Rounded, rounded
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.standing import OUTWARD, surface_at
from keel.studies.lines.tube_stock import radius_of
from keel.studies.result import Point

SLACK = 1.03
"""A hose is so much longer than its way (house rule, craft of hoses)."""
Key = tuple[str, str]
"""A part and one of its connections."""
OFF: dict[str, tuple[float, float, float]] = {
    "in": (-0.5, 0.0, 0.0), "a": (-0.5, 0.0, 0.0), "drive": (-0.5, 0.0, 0.0), "lift": (-0.5, 0.0, 0.35),
    "out": (0.5, 0.0, 0.0), "b": (0.5, 0.0, 0.0),
    "c": (0.0, 0.5, 0.0), "return": (0.0, 0.5, 0.0), "suction": (0.0, 0.5, 0.0),
    "manifold": (0.0, -0.5, 0.0), "reference": (0.0, -0.5, 0.0), "overflow": (0.0, -0.5, 0.0), "vent": (0.0, -0.5, 0.0),
}  # fmt: skip
"""Where a connection stands off a part's middle: along it, to the left, up; in lengths and widths of the part."""
TALL: dict[str, float] = {"lift": 0.35, "return": 0.2, "out": -0.5, "overflow": 0.5}
"""A surge tank's connections: how high up it they are, of its height."""


@dataclass(frozen=True, slots=True)
class ConnectionPlace:
    """Where a connection lies [mm]."""

    part: str
    port: str
    at: Point
    joined: str
    """The run that is joined to it; empty: none."""


@dataclass(frozen=True, slots=True)
class RunWay:
    """The way of a run.

    Attributes
    ----------
    way : list of Point
        From start to end, its corners between.
    length_mm : float
        As typed, or along its way: with 3 % slack for a hose, round its corners for a tube.
    fittings_k : float
        As typed, or of its two ends by their bores and of every corner by its angle.
    rise_mm : float
        From its start to its end.
    """

    id: str
    name: str
    way: list[Point]
    length_mm: float
    fittings_k: float
    rise_mm: float


@dataclass(frozen=True, slots=True)
class LinePlaces:
    """All of both."""

    connections: list[ConnectionPlace]
    runs: list[RunWay]


def leading_out(lines: Lines) -> set[Key]:
    """Connections of parts that hang in the tank which are joined to something outside it."""
    hung = {part.id for part in lines.parts if part.hangs_in is not None}
    found = set()
    for run in lines.runs:
        if (run.start.part in hung) != (run.end.part in hung):
            found.add(key_of(run.start if run.start.part in hung else run.end))
    return found


def place_of_connection(part: LinePart, port: str) -> Array:
    """Where a part's connection lies, shape (3,) [mm].

    Parameters
    ----------
    part : LinePart
        Where it is put.
    port : str
        One of its connections.

    Returns
    -------
    ndarray, shape (3,)
        In the bay [mm].
    """
    along, aside, up = OFF.get(port, (0.0, 0.0, 0.0))
    if part.does.kind == "surge tank":
        up = TALL.get(port, 0.0) * part.long_mm / part.across_mm
        along, aside = (0.5 * np.sign(along) * part.across_mm / part.long_mm, aside)
    way, left, top = _axes(part)
    middle = np.array([part.x_mm, part.y_mm, part.z_mm])
    offset = along * part.long_mm * way + part.across_mm * (aside * left + up * top)
    return np.asarray(middle + offset)


def _axes(part: LinePart) -> tuple[Array, Array, Array]:
    """Along a part from inlet to outlet, to its left, and to its top."""
    turn = radians(part.heading_deg)
    flat, left, up = np.array([cos(turn), sin(turn), 0.0]), np.array([-sin(turn), cos(turn), 0.0]), np.eye(3)[2]
    return (up, left, -flat) if part.upright else (flat, left, up)


def out_of(end: RunEnd, lines: Lines, ports: Sequence[Port]) -> Array | None:
    """Which way a connection faces, shape (3,), of unit length; None where it isn't there.

    Parameters
    ----------
    end : RunEnd
        One end of a run.
    lines : Lines
        Parts.
    ports : sequence of Port
        The tank's.

    Returns
    -------
    ndarray or None
        Of a part that hangs in the tank, out of its port where the run leads out.
    """
    if end.part == TANK:
        return next((np.array(OUTWARD[port.face]) for port in ports if port.id == end.port), None)
    part = lines.part(end.part)
    if part is None:
        return None
    if part.hangs_in is not None and key_of(end) in leading_out(lines):
        return next((np.array(OUTWARD[port.face]) for port in ports if port.id == part.hangs_in), None)
    along, aside, up = OFF.get(end.port, (1.0, 0.0, 0.0))
    if part.does.kind == "surge tank" and end.port == "out":
        along, aside, up = 0.0, 0.0, -1.0
    way, left, top = _axes(part)
    facing = along * way + aside * left if along or aside else up * top
    return np.asarray(facing / np.linalg.norm(facing))


def line_places(lines: Lines, ports: Sequence[Port], solids: Solids, workshop: Workshop) -> LinePlaces:
    """Where every connection lies, and every run.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    ports : sequence of Port
        The tank's.
    solids : Solids
        The shell worked out.
    workshop : Workshop
        Its benders: a tube's corners are round.

    Returns
    -------
    LinePlaces
        A run whose tank port is gone is left out.
    """
    at_tank = {port.id: surface_at(solids, port) + port.stands_mm * np.array(OUTWARD[port.face]) for port in ports}
    joined = {(end.part, end.port): run.id for run in lines.runs for end in (run.start, run.end)}
    places: dict[Key, Array] = {(TANK, name): at for name, at in at_tank.items()}
    for part in lines.parts:
        places |= {(part.id, port): place_of_connection(part, port) for port in ports_of(part.does)}
    for name, port in leading_out(lines):
        hung = lines.part(name)
        if hung is not None and hung.hangs_in in at_tank:
            places[name, port] = at_tank[hung.hangs_in]
    shown = [
        ConnectionPlace(part, port, Point.of(at), joined.get((part, port), ""))
        for (part, port), at in places.items()
        if part != TANK or (part, port) in joined
    ]
    bores = {run.id: bores_of(run, lines, ports) for run in lines.runs}
    ways = [_way(run, places, bores[run.id], workshop.benders) for run in lines.runs]
    return LinePlaces(shown, [way for way in ways if way is not None])


def off_straight(way: Rounded, facing: Array | None, last: bool) -> float:
    """How far a run turns away from where its port faces [°].

    Parameters
    ----------
    way : Rounded
        The run's.
    facing : ndarray or None
        Which way the port faces, of unit length; None where that isn't known: no turn is.
    last : bool
        At its end, not at its start.
    """
    if facing is None:
        return 0.0
    away = -way.ways[-1] if last else way.ways[0]
    return degrees(acos(float(np.clip(away @ facing, -1.0, 1.0))))


def bores_of(run: LineRun, lines: Lines, ports: Sequence[Port]) -> tuple[float, float]:
    """Smallest bore at its start and at its end, connections and adapters counted [mm]."""
    first, last = (_bore_at(end, run, lines, ports) for end in (run.start, run.end))
    return first, last


def _bore_at(end: RunEnd, run: LineRun, lines: Lines, ports: Sequence[Port]) -> float:
    part_side = connection_at(end, lines, ports)
    sides = [part_side, end.connection, end.adapter]
    return min([run.bore_mm, *(one.bore for one in sides if one is not None)])


def connection_at(end: RunEnd, lines: Lines, ports: Sequence[Port]) -> Connection | None:
    """What the part at an end has there.

    Parameters
    ----------
    end : RunEnd
        One end of a run.
    lines : Lines
        Parts.
    ports : sequence of Port
        The tank's.

    Returns
    -------
    Connection or None
        None where it isn't said.
    """
    if end.part == TANK:
        return next((port.connection for port in ports if port.id == end.port), None)
    part = lines.part(end.part)
    return part.connection(end.port) if part else None


def _way(
    run: LineRun, places: Mapping[Key, Array], bores: tuple[float, float], benders: Sequence[TubeBender]
) -> RunWay | None:
    ends = [places.get(key_of(end)) for end in (run.start, run.end)]
    if ends[0] is None or ends[1] is None:
        return None
    corners = [np.array([corner.x_mm, corner.y_mm, corner.z_mm]) for corner in run.corners]
    line = [ends[0], *corners, ends[1]]
    steps = np.diff(np.array(line), axis=0)
    length = _along(run, np.array(line), benders)
    return RunWay(
        id=run.id,
        name=run.name,
        way=[Point.of(place) for place in line],
        length_mm=0.0 if run.kind == "direct" else length if run.length_mm is None else run.length_mm,
        fittings_k=_fittings(run, steps, bores) if run.fittings_k is None else run.fittings_k,
        rise_mm=float(ends[1][2] - ends[0][2]),
    )


def _along(run: LineRun, points: Array, benders: Sequence[TubeBender]) -> float:
    """Along its corners: a hose with its slack, a tube round them."""
    direct = float(np.linalg.norm(np.diff(points, axis=0), axis=1).sum())
    if run.kind != "tube":
        return direct * (SLACK if run.kind == "hose" else 1.0)
    try:
        return rounded(points, radius_of(run, benders)).length_mm
    except ValueError:
        return direct


def _fittings(run: LineRun, steps: Array, bores: tuple[float, float]) -> float:
    """K of both ends, each at its own bore, and of every corner as its share of a right angle; of the run's bore."""
    ends = END_K * sum((run.bore_mm / bore) ** 4 for bore in bores)
    if run.kind == "direct":
        return ends / 2
    sizes = np.linalg.norm(steps, axis=1)
    ways = steps[sizes > 0] / sizes[sizes > 0, None]
    turns = np.arccos(np.clip((ways[1:] * ways[:-1]).sum(axis=1), -1.0, 1.0))
    return ends + BEND_K * float(turns.sum()) / (np.pi / 2)


def key_of(end: RunEnd) -> Key:
    """The connection that an end is joined to."""
    return end.part, end.port


LINE_PLACES = study(line_places, LINES, PORTS, SOLIDS, WORKSHOP).by_value()
