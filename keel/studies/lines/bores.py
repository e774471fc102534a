"""The narrowest place of every whole path, inside bought parts and at formed tube ends too."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import islice, pairwise
from math import pi, sqrt

import networkx as nx

from keel.analysis.parts import LINES, PORTS, RULES
from keel.analysis.study import study
from keel.design.line_functions import PassageDoes, RailDoes, ValveDoes
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, Lines
from keel.design.ports import Port
from keel.design.workshop import HouseRules
from keel.network.friction import M3_S_PER_LPH, MM2
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.places import bores_of
from keel.studies.lines.services import SERVICES, Service
from keel.studies.lines.tank_side import TANK_PORTS, TankPort
from keel.studies.lines.ways import ENDS, fuel_ways, node_of, sources

MOST_PATHS = 12


@dataclass(frozen=True, slots=True)
class Bore:
    """One place along a path.

    Attributes
    ----------
    at, of : str
        In words, and the run or part that it belongs to.
    most_lph : float
        The most that ever flows there.
    limit_ms, needed_mm : float or None
        The velocity limit of its stretch, and the bore that keeps it; None where there is no limit.
    is_inside : bool
        It is narrower than the run that it belongs to: inside a part, or a formed end.
    """

    at: str
    of: str
    bore_mm: float
    most_lph: float
    limit_ms: float | None
    needed_mm: float | None
    is_inside: bool


@dataclass(frozen=True, slots=True)
class Narrow:
    """One whole path.

    Attributes
    ----------
    start, end : str
        Where it begins and ends, in words.
    narrowest : Bore
        Its smallest bore.
    tightest : Bore
        The one that has least to spare against what it needs: a suction needs more than a pressure line.
    joints : int
        Along it.
    """

    start: str
    end: str
    narrowest: Bore
    tightest: Bore
    joints: int


def narrowest(
    lines: Lines,
    ports: Sequence[Port],
    tank: Mapping[str, TankPort],
    flows: LineFlows,
    service_of: dict[str, Service],
    rules: HouseRules,
) -> list[Narrow]:
    """Every path from the tank to the engine, and from a regulator back.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    ports : sequence of Port
        The tank's.
    tank : mapping of str to TankPort
        Their bores.
    flows : LineFlows
        What flows where.
    service_of : dict of str to Service
        What runs are for.
    rules : HouseRules
        Velocity limits.

    Returns
    -------
    list of Narrow
        A dozen paths at most, the narrowest against its need first.
    """
    graph = fuel_ways(lines)
    parts = {part.id: part for part in lines.parts}
    limits: dict[Service, float] = {"suction": rules.suction_ms, "pressure": rules.pressure_ms}
    limits |= {"return": rules.return_ms, "overflow": rules.return_ms}
    paths = islice(_paths(graph, lines), MOST_PATHS)
    found = [_narrow(path, graph, lines, parts, ports, tank, flows, service_of, limits) for path in paths]
    return sorted((one for one in found if one is not None), key=lambda one: _spare(one.tightest))


def _paths(graph: "nx.DiGraph[str]", lines: Lines) -> Iterator[list[str]]:
    """From where fuel comes to where it is drawn; from regulators and overflows to where it goes back."""
    ends = [part.id for part in lines.parts if part.does.kind in ENDS]
    backs = [part.id for part in lines.parts if part.does.kind in ("regulator", "surge tank", "jet pump")]
    tanks = [node for node in graph if node.startswith(TANK)]
    for starts, goals in ((sources(lines, graph), ends), (backs, tanks)):
        for start in starts:
            for goal in goals:
                if start != goal and start in graph and goal in graph and nx.has_path(graph, start, goal):
                    yield from islice(nx.all_simple_paths(graph, start, goal), 2)


def _narrow(
    path: list[str],
    graph: "nx.DiGraph[str]",
    lines: Lines,
    parts: Mapping[str, LinePart],
    ports: Sequence[Port],
    tank: Mapping[str, TankPort],
    flows: LineFlows,
    service_of: dict[str, Service],
    limits: dict[Service, float],
) -> Narrow | None:
    places = list(_places(path, graph, lines, parts, ports, tank, flows, service_of, limits))
    if not places:
        return None
    return Narrow(
        start=_said(path[0], parts, tank),
        end=_said(path[-1], parts, tank),
        narrowest=min(places, key=lambda place: place.bore_mm),
        tightest=min(places, key=_spare),
        joints=2 * (len(path) - 1),
    )


def _spare(place: Bore) -> float:
    """How often it is as wide as it has to be."""
    return place.bore_mm / place.needed_mm if place.needed_mm else 1e9 + place.bore_mm


def _needed(flow_lph: float, limit_ms: float | None) -> float | None:
    if not limit_ms:
        return None
    return sqrt(4 * flow_lph * M3_S_PER_LPH / limit_ms / MM2 / pi)


def _said(node: str, parts: Mapping[str, LinePart], tank: Mapping[str, TankPort]) -> str:
    if node.startswith(TANK):
        port = node.partition(":")[2]
        return f"{tank[port].name} of the tank" if port in tank else port
    return parts[node].name


def _places(
    path: list[str],
    graph: "nx.DiGraph[str]",
    lines: Lines,
    parts: Mapping[str, LinePart],
    ports: Sequence[Port],
    tank: Mapping[str, TankPort],
    flows: LineFlows,
    service_of: dict[str, Service],
    limits: Mapping[Service, float],
) -> Iterator[Bore]:
    """Every bore along it: ports, parts inside, runs, their ends."""
    runs = {run.id: run for run in lines.runs}
    for a, b in pairwise(path):
        run = runs[graph.edges[a, b]["run"]]
        limit, flow = limits.get(service_of[run.id]), flows.run(run.id)
        most = max((abs(one or 0.0) for one in flow.flow_lph), default=0.0) if flow else 0.0
        needed = _needed(most, limit)
        yield Bore(run.name, run.id, run.bore_mm, most, limit, needed, False)
        for end, bore in zip((run.start, run.end), bores_of(run, lines, ports), strict=True):
            if bore < run.bore_mm:
                held = _said(node_of(end.part, end.port), parts, tank)
                yield Bore(f"{run.name}, end at {held}", run.id, bore, most, limit, needed, True)
        for node in (a, b):
            inside = _inside(node, parts, tank)
            if inside is not None:
                part, _, port = node.partition(":")
                narrow = inside < run.bore_mm
                yield Bore(f"inside {_said(node, parts, tank)}", port or part, inside, most, limit, needed, narrow)


def _inside(node: str, parts: Mapping[str, LinePart], tank: Mapping[str, TankPort]) -> float | None:
    """The bore inside a part or up a tank's tube; None where only its connections are known, which runs have."""
    if node.startswith(TANK):
        port = tank.get(node.partition(":")[2])
        return port.bore_mm if port else None
    does = parts[node].does
    if isinstance(does, PassageDoes | ValveDoes | RailDoes):
        return does.bore_mm
    return None


NARROWEST = study(narrowest, LINES, PORTS, TANK_PORTS, FLOWS, SERVICES, RULES)
