"""The narrowest place of every whole path, inside bought parts and at formed tube ends too."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import islice, pairwise

import networkx as nx

from keel.analysis.parts import LINES, PORTS, RULES
from keel.analysis.study import study
from keel.design.line_functions import PassageDoes, RailDoes, ValveDoes, ports_of
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, Lines
from keel.design.ports import Port
from keel.design.workshop import HouseRules
from keel.network.friction import M3_S_PER_LPH, MM2
from keel.studies.lines.circuits import REFERENCES
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.places import bores_of
from keel.studies.lines.services import SERVICES, Service
from keel.studies.lines.tank_side import TANK_PORTS, TankPort

MOST_PATHS = 12
ENDS = ("rail", "carburettor", "injection pump", "delivery nozzle", "burner")


@dataclass(frozen=True, slots=True)
class Narrow:
    """One whole path with its narrowest place.

    Attributes
    ----------
    start, end : str
        Where it begins and ends, in words.
    at, of : str
        The narrowest place in words, and the run or part that it belongs to.
    most_lph : float
        The most that ever flows there.
    needed_mm : float or None
        For the velocity limit of that stretch.
    joints : int
        Along it.
    """

    start: str
    end: str
    at: str
    of: str
    bore_mm: float
    most_lph: float
    limit_ms: float | None
    needed_mm: float | None
    joints: int


@dataclass(frozen=True, slots=True)
class _Place:
    """Somewhere along a path."""

    at: str
    of: str
    bore: float
    flow: float
    service: Service


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
    graph = _graph(lines)
    parts = {part.id: part for part in lines.parts}
    limits: dict[Service, float] = {"suction": rules.suction_ms, "pressure": rules.pressure_ms}
    limits |= {"return": rules.return_ms, "overflow": rules.return_ms}
    paths = islice(_paths(graph, lines), MOST_PATHS)
    found = [_narrow(path, graph, lines, parts, ports, tank, flows, service_of, limits) for path in paths]
    return sorted((one for one in found if one is not None), key=lambda one: one.bore_mm - (one.needed_mm or 0.0))


def _graph(lines: Lines) -> "nx.DiGraph[str]":
    """Parts and the tank's ports, joined as the runs are drawn, either way."""
    graph: nx.DiGraph[str] = nx.DiGraph()
    for run in lines.runs:
        if run.start.port in REFERENCES or run.end.port in REFERENCES:
            continue
        first, last = _node(run.start.part, run.start.port), _node(run.end.part, run.end.port)
        for a, b in ((first, last), (last, first)):
            if _may_leave(lines, run, a == first) and not graph.has_edge(a, b):
                graph.add_edge(a, b, run=run.id)
    return graph


def _node(part: str, port: str) -> str:
    return f"{TANK}:{port}" if part == TANK else part


OUTLETS = ("out", "return", "overflow", "a", "b", "c")


def _may_leave(lines: Lines, run: object, from_start: bool) -> bool:
    end = getattr(run, "start" if from_start else "end")
    part = lines.part(end.part)
    return part is None or end.port in OUTLETS or part.does.kind == "tee"


def _paths(graph: "nx.DiGraph[str]", lines: Lines) -> Iterator[list[str]]:
    """From where fuel comes to where it is drawn; from regulators and overflows to where it goes back."""
    hung = [part.id for part in lines.parts if part.hangs_in and part.does.kind == "pump"]
    sources = [*hung, *(node for node in graph if node.startswith(TANK) and graph.out_degree(node))]
    sources += [part.id for part in lines.parts if part.does.kind in ("other tank", "surge tank")]
    ends = [part.id for part in lines.parts if part.does.kind in ENDS]
    backs = [part.id for part in lines.parts if part.does.kind in ("regulator", "surge tank", "jet pump")]
    tanks = [node for node in graph if node.startswith(TANK)]
    for starts, goals in ((sources, ends), (backs, tanks)):
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
    places = list(_places(path, graph, lines, parts, ports, tank, flows, service_of))
    if not places:
        return None
    spare = [_needed(place, limits.get(place.service)) for place in places]
    worst = min(range(len(places)), key=lambda n: places[n].bore)
    place, limit = places[worst], limits.get(places[worst].service)
    runs = sum(1 for _ in pairwise(path))
    return Narrow(
        start=_said(path[0], parts, tank),
        end=_said(path[-1], parts, tank),
        at=place.at,
        of=place.of,
        bore_mm=place.bore,
        most_lph=place.flow,
        limit_ms=limit,
        needed_mm=spare[worst],
        joints=2 * runs,
    )


def _needed(place: _Place, limit: float | None) -> float | None:
    if not limit:
        return None
    area = place.flow * M3_S_PER_LPH / limit / MM2
    return float((4 * area / 3.141592653589793) ** 0.5)


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
) -> Iterator[_Place]:
    """Every bore along it: ports, parts inside, runs, their ends."""
    runs = {run.id: run for run in lines.runs}
    service: Service = "other"
    for a, b in pairwise(path):
        run = runs[graph.edges[a, b]["run"]]
        service = service_of[run.id]
        flow = flows.run(run.id)
        most = max((abs(one or 0.0) for one in flow.flow_lph), default=0.0) if flow else 0.0
        yield _Place(run.name, run.id, run.bore_mm, most, service)
        for end, bore in zip((run.start, run.end), bores_of(run, lines, ports), strict=True):
            if bore < run.bore_mm:
                held = _said(_node(end.part, end.port), parts, tank)
                yield _Place(f"{run.name}, end at {held}", run.id, bore, most, service)
        for node in (a, b):
            inside = _inside(node, parts, tank)
            if inside is not None:
                yield _Place(f"inside {_said(node, parts, tank)}", node.partition(":")[0], inside, most, service)


def _inside(node: str, parts: Mapping[str, LinePart], tank: Mapping[str, TankPort]) -> float | None:
    """The bore inside a part, or up a tank's tube; None where it isn't known."""
    if node.startswith(TANK):
        port = tank.get(node.partition(":")[2])
        return port.bore_mm if port else None
    does = parts[node].does
    if isinstance(does, PassageDoes | ValveDoes | RailDoes):
        return does.bore_mm
    known = [one.bore for one in parts[node].connections if one.id in ports_of(does) and one.id not in REFERENCES]
    return min(known, default=None)


NARROWEST = study(narrowest, LINES, PORTS, TANK_PORTS, FLOWS, SERVICES, RULES)
