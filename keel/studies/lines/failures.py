"""What still runs when one pump, filter, relay, fuse or switch fails, and how the spare is brought in."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from keel.analysis.parts import RULES
from keel.analysis.study import study
from keel.design.line_functions import PumpDoes
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.design.workshop import HouseRules
from keel.network.outage import Link, Outage, outage
from keel.studies.lines.as_wired import LINE_MODES, LINES_WIRED
from keel.studies.lines.circuits import CIRCUITS, Circuit
from keel.studies.lines.flows import LineFlows, line_flows
from keel.studies.lines.injection import feeds
from keel.studies.lines.modes import Mode
from keel.studies.lines.places import LINE_PLACES, LinePlaces
from keel.studies.lines.services import PUMPS
from keel.studies.lines.tank_side import TANK_PORTS, TankPort
from keel.studies.lines.ways import ENDS, fuel_ways, sources
from keel.studies.wiring.supply import PUMP_SUPPLIES, PumpSupply

FAIL = ("pump", "engine-driven pump", "filter", "check valve")
SUPPLY = ("switch", "fuse", "relay")
MOST_FAILURES = 24


@dataclass(frozen=True, slots=True)
class Supply:
    """Something that current comes through: its node, its name, and the minutes to replace it."""

    node: str
    name: str
    minutes: float | None


@dataclass(frozen=True, slots=True)
class Failure:
    """One thing that fails.

    Attributes
    ----------
    out : str
        What fails, in words.
    parts : list of str
        What doesn't work any more.
    running, feeding : list of str
        Pumps that still turn, and those of them whose fuel still has a way to the engine, by name.
    left, lost : list of str
        Modes that still have their pressure, and those that had it before and haven't now.
    spare : str
        Which spare can be brought in; empty: none.
    brought_in : str
        How.
    with_spare : list of str
        Modes that run once it is.
    minutes : float or None
        To replace what failed.
    tools : str
        What that takes.
    """

    out: str
    parts: list[str]
    running: list[str]
    feeding: list[str]
    left: list[str]
    lost: list[str]
    spare: str
    brought_in: str
    with_spare: list[str]
    minutes: float | None
    tools: str


def failures(
    lines: Lines,
    found: Sequence[Circuit],
    places: LinePlaces,
    tank: Mapping[str, TankPort],
    modes: Sequence[Mode],
    rules: HouseRules,
    supplies: Sequence[PumpSupply] = (),
) -> list[Failure]:
    """Every single failure.

    Parameters
    ----------
    lines : Lines
        Parts; pumps name their fuse, relay and switch.
    found : sequence of Circuit
        What hangs together.
    places : LinePlaces
        Lengths and heights.
    tank : mapping of str to TankPort
        The tank.
    modes : sequence of Mode
        Those that have to go on.
    rules : HouseRules
        How far a rail's pressure may be off.
    supplies : sequence of PumpSupply
        What each pump is fed through, where wiring is drawn: it counts before what a pump names.

    Returns
    -------
    list of Failure
        What stops most comes first. A blocked filter and a check valve stuck shut pass nothing.
    """
    good = [mode for mode in modes if not mode.still] or list(modes)
    chains = _chains(lines, supplies)
    what = list(_what_fails(lines, chains))[:MOST_FAILURES]
    if not what:
        return []
    cases = [mode for _, _, parts, *_ in what for mode in _without(good, parts)]
    spare = next((part for part in lines.parts if isinstance(part.does, PumpDoes) and part.does.spare), None)
    whole = _runs(lines, found, places, tank, good, rules)
    alone = _runs(lines, found, places, tank, cases, rules)
    helped = _runs(_with(lines, spare), found, places, tank, cases, rules) if spare else [False] * len(cases)
    many = len(good)
    shown = []
    links = _Links.of(lines, chains)
    for place, (out, node, parts, minutes, tools) in enumerate(what):
        span = slice(place * many, (place + 1) * many)
        left = _named(good, alone[span])
        able = spare if spare and spare.id not in parts else None
        turning = links.without(node)
        shown.append(
            Failure(
                out=out,
                parts=parts,
                running=turning.running,
                feeding=turning.feeding,
                left=left,
                lost=[name for name in _named(good, whole) if name not in left],
                spare=able.name if able else "",
                brought_in=able.does.brought_in if able and isinstance(able.does, PumpDoes) else "",
                with_spare=_named(good, helped[span]) if able else [],
                minutes=minutes,
                tools=tools,
            )
        )
    return sorted(shown, key=lambda one: -len(one.lost))


def _chains(lines: Lines, supplies: Sequence[PumpSupply]) -> dict[str, list[Supply]]:
    """By pump, each thing that its current comes through: as drawn, else as the pump names it."""
    drawn = {one.id: one for one in supplies if one.is_whole}
    found = {}
    for part in lines.parts:
        if part.id in drawn:
            through = drawn[part.id].through
            found[part.id] = [Supply(f"{one.kind} {one.id}", one.name, one.minutes) for one in through]
        elif isinstance(part.does, PumpDoes):
            named = [(kind, getattr(part.does, kind)) for kind in SUPPLY]
            found[part.id] = [Supply(f"{kind} {name}", name, None) for kind, name in named if name]
    return found


def _what_fails(
    lines: Lines, chains: Mapping[str, Sequence[Supply]]
) -> Iterator[tuple[str, str, list[str], float | None, str]]:
    """What, its node, which parts that takes with it, and the minutes and tools that replacing it takes."""
    for part in lines.parts:
        if part.does.kind in FAIL and not _is_spare(part):
            said = {"filter": "blocked", "check valve": "stuck shut"}.get(part.does.kind, "dead")
            minutes, tools = getattr(part.does, "minutes_to_replace", None), getattr(part.does, "tools", "")
            yield f"{part.name} {said}", part.id, [part.id], minutes, tools
    stopped: dict[Supply, list[str]] = {}
    for pump, chain in chains.items():
        for supply in chain:
            stopped.setdefault(supply, []).append(pump)
    for supply, pumps in stopped.items():
        yield f"{supply.name} open", supply.node, pumps, supply.minutes, ""


def _is_spare(part: LinePart) -> bool:
    return isinstance(part.does, PumpDoes) and part.does.spare


@dataclass(frozen=True, slots=True)
class _Links:
    """Which element leads on to which, for current and for fuel."""

    electric: list[Link]
    fuel: list[Link]
    pumps: dict[str, str]

    @classmethod
    def of(cls, lines: Lines, chains: Mapping[str, Sequence[Supply]]) -> "_Links":
        """Current from the battery by all that it comes through; a pump on the engine needs none of it."""
        pumps = {part.id: part.name for part in lines.parts if part.does.kind in PUMPS and not _is_spare(part)}
        electric: list[Link] = []
        for pump in pumps:
            electric += pairwise(["battery", *(supply.node for supply in chains.get(pump, ())), pump])
        graph = fuel_ways(lines)
        ends = [part.id for part in lines.parts if part.does.kind in ENDS]
        fuel: list[Link] = [*graph.edges, *(("tank", node) for node in sources(lines, graph))]
        return cls(electric, [*fuel, *((node, "rail") for node in ends)], pumps)

    def without(self, node: str) -> Outage:
        """Pumps that still run and feed, by their names."""
        left = outage(self.electric, self.fuel, list(self.pumps), node)
        return Outage(node, *([self.pumps[pump] for pump in some] for some in (left.running, left.feeding)))


def _without(modes: Sequence[Mode], parts: Sequence[str]) -> list[Mode]:
    return [replace(mode, still=[*mode.still, *parts]) for mode in modes]


def _with(lines: Lines, spare: LinePart) -> Lines:
    """The same with the spare running."""
    assert isinstance(spare.does, PumpDoes)
    runs = spare.model_copy(update={"does": spare.does.model_copy(update={"spare": False})})
    return lines.model_copy(update={"parts": tuple(runs if part.id == spare.id else part for part in lines.parts)})


def _runs(
    lines: Lines,
    found: Sequence[Circuit],
    places: LinePlaces,
    tank: Mapping[str, TankPort],
    modes: Sequence[Mode],
    rules: HouseRules,
) -> list[bool]:
    """Which modes have all their fuel at its pressure."""
    flows: LineFlows = line_flows(lines, found, places, tank, modes)
    fed = feeds(lines, flows, modes)
    return [all(feed.suffices(place, rules.short_kpa) for feed in fed) for place in range(len(modes))]


def _named(modes: Sequence[Mode], able: Sequence[bool]) -> list[str]:
    return [mode.name for mode, one in zip(modes, able, strict=True) if one]


FAILURES = study(failures, LINES_WIRED, CIRCUITS, LINE_PLACES, TANK_PORTS, LINE_MODES, RULES, PUMP_SUPPLIES).at_rest()
