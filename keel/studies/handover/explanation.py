"""How a customer's own system works, in plain words with its own figures: tank, filling, lines, pumps, gauge."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import networkx as nx

from keel.analysis.parts import FUEL, LINES, PORTS
from keel.analysis.study import study
from keel.design.lines import TANK, Lines
from keel.design.ports import BREATHES, Port
from keel.reference.fuels import FuelName
from keel.studies.gauge.gauge import GAUGE_TRUTH
from keel.studies.gauge.readings import GaugeTruth
from keel.studies.handover.line_joints import LINE_PROOF, LineProof
from keel.studies.lines.filtration import FILTRATION, FilterStage
from keel.studies.lines.tank_side import TANK_PORTS, TankPort
from keel.studies.liquid.capacity import CAPACITY, Capacity
from keel.studies.result import Words, in_words, words
from keel.studies.wiring.lamps import LAMPS, Lamp
from keel.studies.wiring.supply import STOPPINGS, Stopping

USES = ("rail", "carburettor", "injection pump", "delivery nozzle", "burner")


@dataclass(frozen=True, slots=True)
class Section:
    """A heading, and what is said under it."""

    title: str
    lines: list[Words]


@dataclass(frozen=True, slots=True)
class Drawn:
    """Ports, lines, and which cell each port is of."""

    ports: Sequence[Port]
    lines: Lines
    fuel: FuelName
    tank: Mapping[str, TankPort]


@dataclass(frozen=True, slots=True)
class Working:
    """What is worked out of lines and wiring."""

    proof: LineProof
    filters: list[FilterStage]
    stoppings: list[Stopping]
    lamps: list[Lamp]


def explanation(drawn: Drawn, held: Capacity, truth: GaugeTruth, working: Working) -> list[Section]:
    """How this system works, for whoever drives it.

    Parameters
    ----------
    drawn : Drawn
        Ports and lines.
    held : Capacity
        Litres, cell by cell.
    truth : GaugeTruth
        What the needle says.
    working : Working
        Pressures, filters, what stops the pumps, lamps.

    Returns
    -------
    list of Section
        Only what it has.
    """
    found = [
        Section("The tank", list(_tank(drawn, held))),
        Section("Filling and breathing", list(_filling(drawn))),
        Section("From the tank to the engine", list(_ways(drawn, working))),
        Section("Pumps, and what stops them", list(_pumps(working))),
        Section("Gauge and lamps", list(_gauge(truth, working))),
        Section("Filters", list(_filters(working))),
    ]
    return [one for one in found if one.lines]


def _tank(drawn: Drawn, held: Capacity) -> Iterator[Words]:
    fuels = {port.cell: port.fuel for port in drawn.tank.values()}
    for cell in held.cells:
        fuel = fuels.get(cell.cell, drawn.fuel)
        said = (
            "The {cell} is for {fuel}. Full, it holds {rated_l}. The rest up to {brimful_l} is room for fuel that "
            "warms up and grows: left empty, none runs out in the sun."
        )
        yield words(said, cell=cell.cell, fuel=fuel, rated_l=cell.rated_l, brimful_l=cell.brimful_l)
        if cell.usable_l is not None and cell.stranded_l is not None:
            said = "Of that {usable_l} can be drawn on level ground; {stranded_l} stay where the pickup doesn't reach."
            yield words(said, usable_l=cell.usable_l, stranded_l=cell.stranded_l)
    if len(held.cells) > 1:
        yield words(
            "The cells have nothing in common: each has its own cap, vent and line. Never fill one by the other."
        )


def _filling(drawn: Drawn) -> Iterator[Words]:
    for port in drawn.ports:
        if port.role == "filler" and not port.capped:
            yield words("Fill at {name}; nozzle on metal before the cap is off, until it is off again.", name=port.name)
        elif port.role in BREATHES and not port.capped:
            yield words("Air goes in and out by {name}. Shut or kinked, the engine starves.", name=port.name)
            if port.vent is not None and port.vent.rollover:
                yield words("Its valve shuts by itself when the vehicle lies over.")


def _ways(drawn: Drawn, working: Working) -> Iterator[Words]:
    """From each opening that fuel leaves by to whatever uses it, and back."""
    graph, names = _graph(drawn)
    uses = [part.id for part in drawn.lines.parts if part.does.kind in USES]
    draws = [f"{TANK}.{port}" for port in drawn.tank if graph.has_node(f"{TANK}.{port}")]
    for use in uses:
        way = _shortest(graph, draws, [use])
        if way:
            yield words("Fuel goes by {way}.", way=in_words([names[one] for one in way]))
        back = _shortest(graph, [use], draws)
        if way and len(back) > 1:
            said = "What {use} doesn't take goes back by {way}."
            yield words(said, use=names[use], way=in_words([names[one] for one in back[1:]]))
    for line in working.proof.circuits:
        if line.kpa > 0:
            said = "The {name} stands under up to {working_kpa}. Pumps off, pressure let out before a joint is opened."
            yield words(said, name=line.name, working_kpa=line.kpa)


def _graph(drawn: Drawn) -> "tuple[nx.DiGraph[str], dict[str, str]]":
    """Parts and tank ports, an edge a run in the direction that it is drawn; what they are called."""
    graph: nx.DiGraph[str] = nx.DiGraph()
    names = {part.id: part.name for part in drawn.lines.parts}
    names |= {f"{TANK}.{port.id}": port.name for port in drawn.ports}
    fed = {run.end.part for run in drawn.lines.runs}
    for part in drawn.lines.parts:
        if part.hangs_in is not None and part.id not in fed:
            graph.add_edge(f"{TANK}.{part.hangs_in}", part.id)
    for run in drawn.lines.runs:
        start, end = (f"{TANK}.{end.port}" if end.part == TANK else end.part for end in (run.start, run.end))
        if start in names and end in names and "reference" not in (run.start.port, run.end.port):
            graph.add_edge(start, end)
    return graph, names


def _shortest(graph: "nx.DiGraph[str]", starts: Sequence[str], ends: Sequence[str]) -> list[str]:
    """The way with the fewest parts from any of some to any of others; empty: there is none."""
    ways = [
        nx.shortest_path(graph, start, end)
        for start in starts
        for end in ends
        if start in graph and end in graph and nx.has_path(graph, start, end)
    ]
    return min(ways, key=len, default=[])


def _pumps(working: Working) -> Iterator[Words]:
    for one in working.stoppings:
        if one.in_crash:
            said = "{name} is stopped in a crash by {by}. Find the leak before it is set again."
            yield words(said, name=_capital(one.name), by=in_words(one.in_crash))
        if one.without_engine:
            yield words("When the engine stands {by} stops {name}.", name=one.name, by=in_words(one.without_engine))
        if one.primes:
            yield words("It runs before the engine does by {by}.", by=in_words(one.primes))


def _gauge(truth: GaugeTruth, working: Working) -> Iterator[Words]:
    for one in truth.readings:
        yield words(
            "When the needle of {name} stands at empty {left_l} are left in the {cell}; at half, {half_l}.",
            name=one.name,
            left_l=one.left_at_empty_l,
            cell=one.cell,
            half_l=one.eighths[len(one.eighths) // 2].litres,
        )
    for lamp in working.lamps:
        if lamp.means:
            yield words("{name} lit means: {means}.", name=_capital(lamp.name), means=lamp.means)


def _filters(working: Working) -> Iterator[Words]:
    for one in working.filters:
        if one.swap_hours:
            said = "{name}: a new element every {swap_h} of running, sooner when what it catches changes."
            yield words(said, name=_capital(one.name), swap_h=one.swap_hours)


def _capital(name: str) -> str:
    return name[:1].upper() + name[1:]


DRAWN = study(Drawn, PORTS, LINES, FUEL, TANK_PORTS)
WORKING = study(Working, LINE_PROOF, FILTRATION, STOPPINGS, LAMPS)
EXPLANATION = study(explanation, DRAWN, CAPACITY, GAUGE_TRUTH, WORKING).at_rest()
