"""What each stretch of the line is for: suction, pressure, return, overflow, air; and which pumps press on it."""

from collections.abc import Iterator, Sequence
from typing import Literal

import networkx as nx

from keel.analysis.parts import LINES, PORTS
from keel.analysis.study import study
from keel.design.line_functions import PassageDoes, PumpDoes, RegulatorDoes, ports_of
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, Lines
from keel.design.ports import Port
from keel.studies.lines.circuits import AIR_KINDS, REFERENCES
from keel.studies.lines.places import Key, key_of

Service = Literal["suction", "pressure", "return", "overflow", "air", "reference", "other"]
PUMPS = ("pump", "engine-driven pump")


def open_ways(lines: Lines) -> "nx.Graph[Key]":
    """Where pressure goes through: runs, and parts that only lose some of it.

    Parameters
    ----------
    lines : Lines
        Parts and runs.

    Returns
    -------
    networkx.Graph
        Connections as nodes; an edge that is a run names it.
    """
    graph: nx.Graph[Key] = nx.Graph()
    for part in lines.parts:
        graph.add_nodes_from((part.id, port) for port in ports_of(part.does))
        graph.add_edges_from(((part.id, a), (part.id, b)) for a, b in _through(part))
    for run in lines.runs:
        if run.start.port not in REFERENCES and run.end.port not in REFERENCES:
            graph.add_edge(key_of(run.start), key_of(run.end), run=run.id)
    return graph


def _through(part: LinePart) -> Iterator[tuple[str, str]]:
    """Pairs of a part's connections that are one stretch."""
    does = part.does
    bypasses = isinstance(does, RegulatorDoes) and does.way == "bypass"
    if isinstance(does, PassageDoes):
        first, *others = ports_of(does)
        yield from ((first, other) for other in others)
    elif bypasses or does.kind in ("filter", "check valve", "isolating valve", "rail", *AIR_KINDS):
        yield "in", "out"


def services(lines: Lines, ports: Sequence[Port]) -> dict[str, Service]:
    """What every run is for, by its id.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    ports : sequence of Port
        The tank's: one that is itself a surge tank overflows by a port of its own.

    Returns
    -------
    dict of str to Service
        A run that is both before one pump and behind another is pressure: the harder of the two.
    """
    graph = open_ways(lines)
    found: dict[str, Service] = dict.fromkeys((run.id for run in lines.runs), "other")
    for service, roots in _roots(lines, ports):
        for root in roots:
            for key in nx.node_connected_component(graph, root) if root in graph else ():
                found |= {data["run"]: service for _, _, data in graph.edges(key, data=True) if "run" in data}
    found |= {run.id: "reference" for run in lines.runs if {run.start.port, run.end.port} & set(REFERENCES)}
    return found


def _roots(lines: Lines, ports: Sequence[Port]) -> Iterator[tuple[Service, list[Key]]]:
    """Where each service starts; the later counts."""
    kinds = {part.id: part.does.kind for part in lines.parts}

    def all_of(port: str, *named: str) -> list[Key]:
        return [(key, port) for key, kind in kinds.items() if kind in named]

    yield "air", [key for kind in AIR_KINDS for port in ("in", "out") for key in all_of(port, kind)]
    yield "suction", all_of("in", *PUMPS)
    back = [
        *all_of("return", "regulator", "carburettor", "injection pump", "burner", "surge tank"),
        *all_of("out", "jet pump"),
    ]
    yield "return", back
    over = [(TANK, port.id) for port in ports if port.role == "overflow"]
    yield "overflow", [*all_of("overflow", "surge tank"), *over]
    yield "pressure", [*all_of("out", *PUMPS, "regulator"), *all_of("drive", "jet pump")]


def air_runs(lines: Lines) -> set[str]:
    """Runs that only air goes through, by their ids.

    Parameters
    ----------
    lines : Lines
        Parts and runs.

    Returns
    -------
    set of str
        From the canisters, valves and ends of vents as far as nothing else is in the way.
    """
    graph = open_ways(lines)
    roots = [(part.id, "in") for part in lines.parts if part.does.kind in AIR_KINDS]
    keys = {key for root in roots for key in nx.node_connected_component(graph, root)}
    return {data["run"] for _, _, data in graph.edges(keys, data=True) if "run" in data}


def pumps_pressing(lines: Lines) -> dict[str, list[str]]:
    """Pumps whose dead-head pressure stands in a run when everything behind it is shut, by run.

    Parameters
    ----------
    lines : Lines
        Parts and runs.

    Returns
    -------
    dict of str to list of str
        What lies between a pump's outlet and the next thing that holds pressure back: a dead-head regulator, a bypass.
    """
    graph, found = open_ways(lines), {run.id: list[str]() for run in lines.runs}
    for part in lines.parts:
        if part.does.kind in PUMPS:
            keys = nx.node_connected_component(graph, (part.id, "out"))
            held = {data["run"] for key in keys for _, _, data in graph.edges(key, data=True) if "run" in data}
            for run in held:
                found[run].append(part.id)
    return found


def is_spare(part: LinePart) -> bool:
    """Whether a pump stands by.

    Parameters
    ----------
    part : LinePart
        Any part.

    Returns
    -------
    bool
        False for what is no pump.
    """
    return isinstance(part.does, PumpDoes) and part.does.spare


SERVICES = study(services, LINES, PORTS)
