"""The way of the air from every vent of the tank: through hoses, canister and valves to its end."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import networkx as nx

from keel.analysis.parts import LINES, PORTS
from keel.analysis.study import study
from keel.design.line_functions import VentDoes
from keel.design.lines import TANK, LineRun, Lines, RunEnd
from keel.design.ports import Port, Valve, VentPath, opened
from keel.studies.demand.demand import MOST_DRAWN
from keel.studies.lines.places import LINE_PLACES, LinePlaces, bores_of
from keel.studies.ports.streams import drawing_vacuum_kpa

LOW_LOOP_MM = 10.0
"""A dip that is shallower than this holds no plug of fuel."""


@dataclass(frozen=True, slots=True)
class AirPath:
    """The way of the air from one vent.

    Attributes
    ----------
    through : list of str
        What it goes through, in order.
    ends : str
        The part that it ends at; empty: it ends nowhere.
    bore_mm, length_m : float
        Its smallest bore, and its hoses together.
    out_kpa, in_kpa : float
        What opens all its valves, outward and inward: behind each other their pressures add up.
    low_mm : float
        How deep its deepest low loop is.
    vacuum_kpa : float or None
        In the tank while the pumps draw; None where nothing draws.
    closes : bool
        Whether a roll-over valve is in it.
    """

    port: str
    name: str
    through: list[str]
    ends: str
    bore_mm: float
    length_m: float
    out_kpa: float
    in_kpa: float
    low_mm: float
    vacuum_kpa: float | None
    closes: bool

    def as_vent(self, before: VentPath) -> VentPath:
        """The same as a port says it."""
        valves = (Valve(name="valves of its line", opens_kpa=self.out_kpa),) if self.out_kpa else ()
        sizes = {"bore_mm": self.bore_mm, "length_m": self.length_m, "opens_kpa": 0.0, "valves": valves}
        more = {"rollover": self.closes, "falls_away": self.low_mm < LOW_LOOP_MM}
        return before.model_copy(update=sizes | more)


def air_paths(lines: Lines, ports: Sequence[Port], places: LinePlaces, most_drawn_lph: float | None) -> list[AirPath]:
    """The way of the air from every vent that a line is joined to.

    Parameters
    ----------
    lines : Lines
        Hoses, canister, valves, the open end.
    ports : sequence of Port
        The tank's.
    places : LinePlaces
        The hoses' lengths and heights.
    most_drawn_lph : float or None
        What the pumps draw at most [L/h].

    Returns
    -------
    list of AirPath
        In the order of the ports.

    References
    ----------
    As for `keel.studies.ports.streams.drawing_vacuum_kpa`: orifice and hose friction of air, each valve's opening on
    top.
    """
    graph = _graph(lines)
    found = []
    for port in opened(ports, "vent"):
        node = (TANK, port.id)
        if node in graph:
            found.append(_path(graph, lines, ports, places, port, most_drawn_lph))
    return found


Node = tuple[str, str]


def _graph(lines: Lines) -> "nx.Graph[Node]":
    graph: nx.Graph[Node] = nx.Graph()
    for run in lines.runs:
        graph.add_edge(_node(run.start), _node(run.end), run=run.id)
    return graph


def _node(end: RunEnd) -> Node:
    return (TANK, end.port) if end.part == TANK else ("part", end.part)


def _path(
    graph: "nx.Graph[Node]",
    lines: Lines,
    ports: Sequence[Port],
    places: LinePlaces,
    port: Port,
    most_drawn_lph: float | None,
) -> AirPath:
    """To the vent's end where there is one, else as far as it goes."""
    parts = {part.id: part for part in lines.parts}
    ways = nx.single_source_shortest_path(graph, (TANK, port.id))
    air = [node for node in ways if node[0] == "part" and isinstance(parts[node[1]].does, VentDoes)]
    end = next((node for node in air if parts[node[1]].does.kind == "vent end"), None)
    way: list[Node] = ways[end or max(air, key=lambda node: len(ways[node]), default=(TANK, port.id))]
    passed = [parts[key] for kind, key in way if kind == "part"]
    runs = [run for a, b in pairwise(way) for run in lines.runs if run.id == graph.edges[a, b]["run"]]
    valves = [part.does for part in passed if isinstance(part.does, VentDoes)]
    bores = [bore for run in runs for bore in (run.bore_mm, *bores_of(run, lines, ports))]
    bores += [does.bore_mm for does in valves]
    lengths = {one.id: one.length_mm for one in places.runs}
    own = port.vent or VentPath()
    found = AirPath(
        port=port.id,
        name=port.name,
        through=[part.name for part in passed],
        ends=passed[-1].name if end else "",
        bore_mm=min([*bores, *([own.bore_mm] if port.vent else [])], default=own.bore_mm),
        length_m=sum(lengths.get(run.id, 0.0) for run in runs) / 1e3,
        out_kpa=own.opens_kpa * own.rollover + sum(does.opens_out_kpa for does in valves if does.kind != "vent end"),
        in_kpa=own.opens_kpa * own.rollover + sum(does.opens_in_kpa for does in valves if does.kind != "vent end"),
        low_mm=_low_loop(list(_heights(way, runs, places))),
        vacuum_kpa=None,
        closes=own.rollover or any(does.kind == "roll-over valve" for does in valves),
    )
    if most_drawn_lph is None or not end:
        return found
    inward = VentPath(bore_mm=found.bore_mm, length_m=found.length_m, opens_kpa=found.in_kpa)
    return replace(found, vacuum_kpa=drawing_vacuum_kpa(most_drawn_lph, (inward,)))


def _heights(way: Sequence[Node], runs: Sequence[LineRun], places: LinePlaces) -> Iterator[float]:
    """Heights along it, from the tank to its end, whichever way its runs were drawn."""
    lines = {one.id: [point.z for point in one.way] for one in places.runs}
    for node, run in zip(way, runs, strict=False):
        heights = lines.get(run.id, [])
        yield from heights if _node(run.start) == node else heights[::-1]


def _low_loop(heights: Sequence[float]) -> float:
    """How far the deepest dip lies under the lower of the two summits beside it; its open end is one."""
    deepest = 0.0
    for place, height in enumerate(heights):
        before, behind = max(heights[: place + 1]), max(heights[place:])
        deepest = max(deepest, min(before, behind) - height)
    return deepest


AIR_PATHS = study(air_paths, LINES, PORTS, LINE_PLACES, MOST_DRAWN)
