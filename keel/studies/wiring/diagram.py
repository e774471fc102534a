"""The one-line diagram: what feeds what, from the battery to the right, each wire as one line."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from statistics import fmean

import networkx as nx

from keel.analysis.parts import WIRING
from keel.analysis.study import study
from keel.design.wiring import Wire, WireEnd, Wiring
from keel.studies.wiring.runs import WIRE_RUNS, JoinedThing, WireRuns
from keel.studies.wiring.state import CHASSIS, Case, end_of, state_of, terminal
from keel.studies.wiring.wired import WIRED, Wired

SWEEPS = 8
BACK = ("battery", "earth point")
PASSES_ON = {"lamp": ("+", "-"), "gauge": ("+", "sender"), "other load": ("+", "-")}
"""Loads that a line leads on from: to what switches them behind, or to what a gauge reads."""
SWITCHES_BACK = ("level switch", "controller", "switch", "cut-off", "changeover switch")
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
    entry, entries : int
        Which of the lines it is that end at the same box, and of how many.
    """

    wires: list[str]
    start: str
    end: str
    start_terminal: str
    end_terminal: str
    spots: list[Spot]
    entry: int
    entries: int


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
    things = {_key(thing): thing for thing in runs.joined}
    known = [wire for wire in wiring.wires if runs.at(wire.start) and runs.at(wire.end)]
    named = _plain_returns(wiring, figures)
    drawn = [wire for wire in known if wire.id not in named]
    back = [wire for wire in known if wire.id in named]
    used = {_of(end) for wire in drawn for end in (wire.start, wire.end)}
    used |= {_of(end) for wire in back for end in (wire.start, wire.end) if things[_of(end)].kind not in BACK}
    layer = _layers(sorted(used), _forward_links(wiring, drawn))
    groups: dict[tuple[str, str, str, str], list[str]] = {}
    for wire in drawn:
        groups.setdefault(_forward(wire.start, wire.end, layer), []).append(wire.id)
    order = _ordered(layer, [(a, b) for a, _, b, _ in groups])
    lines = [
        Line(names, a, b, at, to, [_spot(node, layer, order) for node in _passes(a, b, layer)], 0, 1)
        for (a, at, b, to), names in groups.items()
    ]
    boxes = [
        Box(t.of, t.id, t.name, t.kind, layer[key], order[key], list(_led_back(key, back, runs)))
        for key, t in things.items()
        if key in layer
    ]
    columns = max(layer.values(), default=-1) + 1
    return Diagram(boxes, _entering(lines), columns, round(max(order.values(), default=-1)) + 1)


def _plain_returns(wiring: Wiring, figures: Wired) -> set[str]:
    """Wires that lead back whatever is switched: those behind a level switch or an output are drawn."""
    switched = [device.id for device in wiring.devices if device.does.kind in SWITCHES_BACK]
    earthed = state_of(wiring, Case(out=switched)).earthed
    returns = {one.id for one in figures.wires if one.side == "return"}
    return {wire.id for wire in wiring.wires if wire.id in returns and end_of(wire.start) in earthed}


def _led_back(key: str, back: Sequence[Wire], runs: WireRuns) -> Iterator[str]:
    """What leads back from a box, and where to."""
    for wire in back:
        for here, there in ((wire.start, wire.end), (wire.end, wire.start)):
            if _of(here) == key:
                other = runs.at(there)
                yield f"{wire.name} to {other.name if other else there.id}"


def _entering(lines: Sequence[Line]) -> list[Line]:
    """Lines that end at the same box enter it one under the other, in the order in which they come."""
    by_end: dict[str, list[Line]] = {}
    for line in lines:
        by_end.setdefault(line.end, []).append(line)
    placed = {
        tuple(line.wires): (place, len(several))
        for several in by_end.values()
        for place, line in enumerate(sorted(several, key=lambda one: (one.spots[-2][1], one.wires)))
    }
    return [replace(line, entry=placed[tuple(line.wires)][0], entries=placed[tuple(line.wires)][1]) for line in lines]


def _key(thing: JoinedThing) -> str:
    return f"{thing.of}:{thing.id}"


def _of(end: WireEnd) -> str:
    return f"{end.of}:{end.id}"


def _forward_links(wiring: Wiring, drawn: Sequence[Wire]) -> "nx.DiGraph[str]":
    """What leads on to what: by how many steps each terminal is from the battery, on through loads."""
    state = state_of(wiring)
    steps: nx.Graph[str] = nx.Graph()
    steps.add_edges_from((end_of(wire.start), end_of(wire.end)) for wire in drawn)
    steps.add_edges_from((one.start, one.end) for one in state.branches if one.id.startswith("."))
    for device in wiring.devices:
        on = PASSES_ON.get(device.does.kind)
        if on is not None:
            steps.add_edge(*(terminal("device", device.id, name) for name in on))
    if state.poles is None or state.poles[0] not in steps:
        return nx.DiGraph()
    steps.remove_nodes_from([node for node in (state.poles[1], CHASSIS) if node in steps])
    far = nx.single_source_shortest_path_length(steps, state.poles[0])
    links: nx.DiGraph[str] = nx.DiGraph()
    for wire in drawn:
        ends = sorted((wire.start, wire.end), key=lambda end: far.get(end_of(end), len(far)))
        links.add_edge(_of(ends[0]), _of(ends[1]))
    while not nx.is_directed_acyclic_graph(links):
        links.remove_edge(*nx.find_cycle(links)[-1][:2])
    return links


def _layers(used: Sequence[str], links: "nx.DiGraph[str]") -> dict[str, int]:
    """The longest way to each thing, in steps; what nothing leads to begins at the left."""
    found = dict.fromkeys(used, 0)
    for key in nx.topological_sort(links):
        if key in found:
            found[key] = max((found[other] + 1 for other in links.predecessors(key)), default=0)
    return found


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
