"""The one-line diagram: what feeds what, from the battery to the right, each wire as one line."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import fmean

import networkx as nx

from keel.analysis.parts import WIRING
from keel.analysis.study import study
from keel.design.wiring import WireEnd, Wiring
from keel.studies.wiring.runs import WIRE_RUNS, JoinedThing, WireRuns
from keel.studies.wiring.wired import WIRED, Wired

SWEEPS = 8
Spot = tuple[int, float]
"""Column from the left, row from the top."""


@dataclass(frozen=True, slots=True)
class Box:
    """A thing on the diagram: its column, its row, where its current goes back to."""

    of: str
    id: str
    name: str
    kind: str
    column: int
    row: float
    earths: list[str]
    """Wires that lead back from it, and what to: "W7 to earth point 1"."""


@dataclass(frozen=True, slots=True)
class Line:
    """A wire, or several side by side between the same two things.

    Attributes
    ----------
    wires : list of str
        Their ids.
    start, end : str
        The boxes that it joins, as "of:id".
    start_terminal, end_terminal : str
        Where on them.
    spots : list of (int, float)
        Boxes' places with the free places between that it passes: columns and rows.
    """

    wires: list[str]
    start: str
    end: str
    start_terminal: str
    end_terminal: str
    spots: list[Spot]


@dataclass(frozen=True, slots=True)
class Diagram:
    """All of it, and how many columns and rows it takes."""

    boxes: list[Box]
    lines: list[Line]
    columns: int
    rows: int


def diagram(wiring: Wiring, runs: WireRuns, figures: Wired) -> Diagram:
    """Columns by how far from the battery, rows so that few lines cross.

    Parameters
    ----------
    wiring : Wiring
        Devices and wires.
    runs : WireRuns
        What wires are joined to.
    figures : Wired
        Which wires lead back: they are named at what they come from, not drawn.

    Returns
    -------
    Diagram
        Of what any wire is joined to.

    References
    ----------
    K. Sugiyama, S. Tagawa, M. Toda (1981): layers by longest path, free places in the layers that a line passes,
    orders by barycentres.
    """
    sides = {one.id: one.side for one in figures.wires}
    things = {_key(thing): thing for thing in runs.joined}
    drawn = [wire for wire in wiring.wires if runs.at(wire.start) and runs.at(wire.end)]
    used = {_of(end) for wire in drawn for end in (wire.start, wire.end)}
    graph: nx.Graph[str] = nx.Graph()
    graph.add_nodes_from(key for key in things if key in used)
    graph.add_edges_from((_of(w.start), _of(w.end)) for w in drawn if sides[w.id] != "return")
    shown = [key for key in graph if graph.degree(key) > 0 or things[key].kind not in ("earth point",)]
    layer = _layers(graph.subgraph(shown), things)
    groups: dict[tuple[str, str, str, str], list[str]] = {}
    for wire in drawn:
        if sides[wire.id] != "return":
            groups.setdefault(_forward(wire.start, wire.end, layer), []).append(wire.id)
    order = _ordered(layer, [(a, b) for a, _, b, _ in groups])
    lines = [
        Line(names, a, b, at, to, [_spot(node, layer, order) for node in _passes(a, b, layer)])
        for (a, at, b, to), names in groups.items()
    ]
    back: dict[str, list[str]] = {}
    for wire in drawn:
        if sides[wire.id] == "return":
            for here, there in ((wire.start, wire.end), (wire.end, wire.start)):
                if _of(here) in layer:
                    other = runs.at(there)
                    back.setdefault(_of(here), []).append(f"{wire.name} to {other.name if other else there.id}")
    boxes = [
        Box(t.of, t.id, t.name, t.kind, layer[key], order[key], back.get(key, []))
        for key, t in things.items()
        if key in layer
    ]
    columns = max(layer.values(), default=-1) + 1
    return Diagram(boxes, lines, columns, round(max(order.values(), default=-1)) + 1)


def _key(thing: JoinedThing) -> str:
    return f"{thing.of}:{thing.id}"


def _of(end: WireEnd) -> str:
    return f"{end.of}:{end.id}"


def _layers(graph: "nx.Graph[str]", things: dict[str, JoinedThing]) -> dict[str, int]:
    """How many things are between one and the battery; what isn't joined to it begins at its own left."""
    found: dict[str, int] = {}
    batteries = [key for key in graph if things[key].kind == "battery"]
    for start in [*batteries, *sorted(graph)]:
        if start in found:
            continue
        waiting = [start]
        found[start] = 0
        while waiting:
            key = waiting.pop(0)
            for other in sorted(graph[key]):
                if other not in found:
                    found[other] = found[key] + 1
                    waiting.append(other)
    return _apart(graph, found)


def _apart(graph: "nx.Graph[str]", layer: dict[str, int]) -> dict[str, int]:
    """Two that are joined never share a column: the one that leads on less stands one further."""
    moved = dict(layer)
    for _ in range(len(moved)):
        same = [(a, b) for a, b in graph.edges if moved[a] == moved[b]]
        if not same:
            break
        a, b = min(same, key=lambda pair: (moved[pair[0]], pair))
        further = min((a, b), key=lambda key: (graph.degree(key), key))
        moved[further] += 1
    return moved


def _forward(start: WireEnd, end: WireEnd, layer: dict[str, int]) -> tuple[str, str, str, str]:
    a, b = (_of(start), start.terminal), (_of(end), end.terminal)
    if layer[a[0]] > layer[b[0]]:
        a, b = b, a
    return (*a, *b)


def _passes(a: str, b: str, layer: dict[str, int]) -> list[str]:
    """A line's places from left to right: both boxes, and a free place in every column between."""
    return [a, *(f"{a}>{b}@{column}" for column in range(layer[a] + 1, layer[b])), b]


def _ordered(layer: dict[str, int], links: Sequence[tuple[str, str]]) -> dict[str, float]:
    """Rows within the columns, by the rows of what they are joined to; then every place on a row of its own."""
    beside: dict[str, set[str]] = {key: set() for key in layer}
    columns: dict[int, list[str]] = {}
    for key, column in layer.items():
        columns.setdefault(column, []).append(key)
    for a, b in dict.fromkeys(links):
        places = _passes(a, b, layer)
        for place, node in enumerate(places[1:-1], start=layer[a] + 1):
            if node not in beside:
                columns.setdefault(place, []).append(node)
        for one, other in pairwise(places):
            beside.setdefault(one, set()).add(other)
            beside.setdefault(other, set()).add(one)
    rows = {key: float(place) for column in columns.values() for place, key in enumerate(sorted(column))}
    for sweep in range(SWEEPS):
        for column in sorted(columns, reverse=sweep % 2 == 1):
            wanted = {key: fmean([rows[other] for other in beside[key]] or [rows[key]]) for key in columns[column]}
            for place, key in enumerate(sorted(columns[column], key=lambda key: (wanted[key], key))):
                rows[key] = float(place)
    return _levelled(columns, rows, beside)


def _levelled(columns: dict[int, list[str]], rows: dict[str, float], beside: dict[str, set[str]]) -> dict[str, float]:
    """Rows moved down to lie level with what is before them, where there is room."""
    layer = {key: column for column, keys in columns.items() for key in keys}
    levelled: dict[str, float] = {}
    for column in sorted(columns):
        free = 0.0
        for key in sorted(columns[column], key=lambda key: rows[key]):
            before = [levelled[other] for other in beside[key] if layer[other] < column]
            levelled[key] = max(free, float(round(fmean(before))) if before else free)
            free = levelled[key] + 1
    return levelled


def _spot(node: str, layer: dict[str, int], order: dict[str, float]) -> Spot:
    column = layer[node] if node in layer else int(node.rpartition("@")[2])
    return column, order[node]


DIAGRAM = study(diagram, WIRING, WIRE_RUNS, WIRED)
