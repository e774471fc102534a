"""Which way fuel can go: parts and the tank's ports joined as the runs are drawn."""

import networkx as nx

from keel.design.lines import TANK, LineRun, Lines
from keel.studies.lines.circuits import REFERENCES

OUTLETS = ("out", "return", "overflow", "a", "b", "c")
ENDS = ("rail", "carburettor", "injection pump", "delivery nozzle", "burner")
"""Kinds of part that fuel is meant for."""


def fuel_ways(lines: Lines) -> "nx.DiGraph[str]":
    """Parts and the tank's ports as nodes; an edge names its run.

    Parameters
    ----------
    lines : Lines
        Parts and runs; references carry no fuel.

    Returns
    -------
    networkx.DiGraph
        Fuel leaves a part by its outlets; a tee and the tank's ports let it go either way.
    """
    graph: nx.DiGraph[str] = nx.DiGraph()
    for run in lines.runs:
        if run.start.port in REFERENCES or run.end.port in REFERENCES:
            continue
        first, last = node_of(run.start.part, run.start.port), node_of(run.end.part, run.end.port)
        for a, b in ((first, last), (last, first)):
            if _may_leave(lines, run, a == first) and not graph.has_edge(a, b):
                graph.add_edge(a, b, run=run.id)
    return graph


def node_of(part: str, port: str) -> str:
    """The node of a part, or of one port of the tank.

    Parameters
    ----------
    part, port : str
        As an end of a run names them.

    Returns
    -------
    str
        The part's id; the tank's ports are nodes of their own.
    """
    return f"{TANK}:{port}" if part == TANK else part


def sources(lines: Lines, graph: "nx.DiGraph[str]") -> list[str]:
    """Where fuel comes from: pumps hung in the tank, its ports, other tanks.

    Parameters
    ----------
    lines : Lines
        Parts.
    graph : networkx.DiGraph
        Their ways.

    Returns
    -------
    list of str
        Nodes.
    """
    hung = [part.id for part in lines.parts if part.hangs_in and part.does.kind == "pump"]
    ports = [node for node in graph if node.startswith(f"{TANK}:") and graph.out_degree(node)]
    return [*hung, *ports, *(part.id for part in lines.parts if part.does.kind in ("other tank", "surge tank"))]


def _may_leave(lines: Lines, run: LineRun, from_start: bool) -> bool:
    end = run.start if from_start else run.end
    part = lines.part(end.part)
    return part is None or end.port in OUTLETS or part.does.kind == "tee"
