"""What hangs together: the circuits of a line, and the fuels that meet in each."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

import networkx as nx

from keel.analysis.parts import FUEL, LINES
from keel.analysis.study import study
from keel.design.lines import TANK, Lines
from keel.reference.fuels import FuelName
from keel.studies.lines.tank_side import TANK_PORTS, TankPort

REFERENCES = ("manifold", "reference")
AIR_KINDS = ("canister", "vapour valve", "roll-over valve", "vent end")


@dataclass(frozen=True, slots=True)
class Circuit:
    """Parts, runs and tank ports that fuel could pass between.

    Attributes
    ----------
    fuels : dict of str to FuelName
        By cell, what it is joined to.
    joins : list of str
        Where two fuels meet: the names along the shortest way from one tank port to another; empty where none do.
    is_main : bool
        Whether it holds the brief's fuel: a mode with another fuel has that one in it.
    """

    parts: list[str]
    runs: list[str]
    ports: list[str]
    fuels: dict[str, FuelName]
    joins: list[str]
    is_main: bool

    @property
    def fuel(self) -> FuelName | None:
        """The fuel in it: of two, the first; None where it isn't joined to the tank."""
        return next(iter(self.fuels.values()), None)

    def fuels_over(self, others: Iterable[FuelName | None]) -> list[FuelName]:
        """Every fuel that is ever in it, modes that are run on another one counted."""
        run_on = [fuel for fuel in others if fuel is not None] if self.is_main else []
        return list(dict.fromkeys([*self.fuels.values(), *run_on]))

    def fuel_then(self, other: FuelName | None) -> FuelName | None:
        """The fuel in it in a mode that is run on another."""
        return other if other is not None and self.is_main else self.fuel


def circuits(lines: Lines, tank: Mapping[str, TankPort], fuel: FuelName) -> list[Circuit]:
    """Every circuit, whatever valves are shut in it.

    Parameters
    ----------
    lines : Lines
        Parts and runs; a reference hose carries no fuel.
    tank : mapping of str to TankPort
        The tank's ports.
    fuel : FuelName
        The brief's: what another tank holds.

    Returns
    -------
    list of Circuit
        In the order of their first part.
    """
    graph = graph_of(lines)
    found = []
    for nodes in nx.connected_components(graph):
        ports = [name for kind, name in nodes if kind == TANK and name in tank]
        fuels = {tank[name].cell: tank[name].fuel for name in sorted(ports)}
        others = [part.name for part in lines.parts if part.does.kind == "other tank" and ("part", part.id) in nodes]
        fuels |= {name: fuel for name in others if not fuels}
        found.append(
            Circuit(
                parts=[part.id for part in lines.parts if ("part", part.id) in nodes],
                runs=[run.id for run in lines.runs if ("run", run.id) in nodes],
                ports=sorted(ports),
                fuels=fuels,
                joins=_joining_way(graph, lines, tank, ports),
                is_main=fuel in fuels.values(),
            )
        )
    order = {part.id: place for place, part in enumerate(lines.parts)}
    return sorted(found, key=lambda one: min((order[part] for part in one.parts), default=len(order)))


Node = tuple[str, str]


def graph_of(lines: Lines) -> "nx.Graph[Node]":
    """Parts, runs and tank ports as nodes; an edge where fuel could pass."""
    graph: nx.Graph[Node] = nx.Graph()
    graph.add_nodes_from(("part", part.id) for part in lines.parts)
    for part in lines.parts:
        if part.hangs_in is not None:
            graph.add_edge(("part", part.id), (TANK, part.hangs_in))
    for run in lines.runs:
        if run.start.port in REFERENCES or run.end.port in REFERENCES:
            continue
        for end in (run.start, run.end):
            graph.add_edge(("run", run.id), (TANK, end.port) if end.part == TANK else ("part", end.part))
    return graph


def _joining_way(graph: "nx.Graph[Node]", lines: Lines, tank: Mapping[str, TankPort], ports: list[str]) -> list[str]:
    names = {("part", part.id): part.name for part in lines.parts} | {("run", run.id): run.name for run in lines.runs}
    names |= {(TANK, port.id): port.name for port in tank.values()}
    for place, one in enumerate(ports):
        other = next((port for port in ports[place + 1 :] if tank[port].fuel != tank[one].fuel), None)
        if other is not None:
            return [names[node] for node in nx.shortest_path(graph, (TANK, one), (TANK, other))]
    return []


CIRCUITS = study(circuits, LINES, TANK_PORTS, FUEL).by_value()
