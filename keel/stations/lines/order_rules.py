"""What is wrong with the order of components: what has to stand before or behind what."""

from collections.abc import Iterator

import networkx as nx

from keel.analysis.parts import PORTS
from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import CheckDoes, FilterDoes, PassageDoes, PumpDoes, RegulatorDoes, SurgeTankDoes
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, Lines
from keel.findings.finding import Finding, saying
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.flows import FLOWS
from keel.studies.lines.places import Key
from keel.studies.lines.services import PUMPS, is_spare, open_ways

_lines = saying("lines")
FINE_UM = 60.0
"""A filter finer than this in a suction line starves its pump as it loads."""
IDLE_LPH = 0.1


def reach(lines: Lines, part: LinePart, port: str) -> set[Key]:
    graph = open_ways(lines)
    return set(nx.node_connected_component(graph, (part.id, port))) if (part.id, port) in graph else set()


def _filters(lines: Lines, keys: set[Key]) -> list[LinePart]:
    held = {name for name, _ in keys}
    return [part for part in lines.parts if part.id in held and isinstance(part.does, FilterDoes)]


def pumps_are_strained(tank: TankAnalysis) -> Iterator[Finding]:
    """Before every pump there is a strainer, and no fine filter."""
    lines, ports = tank.design.lines, {port.id: port for port in tank[PORTS]}
    surges = {part.id for part in lines.parts if isinstance(part.does, SurgeTankDoes)}
    for part in lines.parts:
        if part.does.kind not in PUMPS:
            continue
        keys = reach(lines, part, "in")
        before = _filters(lines, keys)
        drawn = {port for owner, port in keys if owner == TANK} | ({part.hangs_in} if part.hangs_in else set())
        hangers = [ports[port].hanger for port in drawn if port in ports]
        strained = any(hanger and (hanger.strainer_mm or hanger.kind in ("sock", "module")) for hanger in hangers)
        fed = any(port == "out" and owner in surges for owner, port in keys)
        fed = fed or (bool(drawn) and tank.design.brief.is_surge_tank)
        if not before and not strained and not fed:
            yield _lines(
                "lines.unstrained",
                part.id,
                "stop",
                "{name}: no screen before it, limit 1 or more",
                "Weld beads, sealant and grit go through it: a seized pump, and swarf in the injectors.",
                name=part.name,
            )
        for one in before:
            fine = getattr(one.does, "fineness_um", None)
            if fine is not None and fine < FINE_UM:
                yield _lines(
                    "lines.fine_before_pump",
                    one.id,
                    "caution",
                    "{name}: {fine_um} before {pump}, limit {limit_um} or coarser",
                    "It loads up, the pump draws a vacuum behind it, and hot fuel boils there. Fine filters go behind.",
                    name=one.name,
                    fine_um=fine,
                    pump=part.name,
                    limit_um=FINE_UM,
                )


def fuel_is_filtered(tank: TankAnalysis) -> Iterator[Finding]:
    """Between pump and injectors there is a filter."""
    lines = tank.design.lines
    for part in lines.parts:
        if part.does.kind != "rail":
            continue
        before = _upstream(lines, part)
        if before is not None and not any(_is_main(one) for one in before):
            yield _lines(
                "lines.unfiltered",
                part.id,
                "stop",
                "{name}: no fine filter between pump and injectors, limit 1 or more",
                "What the screen lets by ends in the injectors.",
                name=part.name,
            )


def _upstream(lines: Lines, rail: LinePart) -> list[LinePart] | None:
    """Parts that its fuel comes through, back to the pumps; None where no pump feeds it."""
    graph = open_ways(lines)
    for part in lines.parts:
        if isinstance(part.does, RegulatorDoes) and part.does.way == "dead-head":
            graph.add_edge((part.id, "in"), (part.id, "out"))
    keys = nx.node_connected_component(graph, (rail.id, "in"))
    held = {name for name, _ in keys}
    parts = [part for part in lines.parts if part.id in held]
    return parts if any(part.does.kind in PUMPS for part in parts) else None


def _is_main(part: LinePart) -> bool:
    does = part.does
    if isinstance(does, RegulatorDoes):
        return does.fineness_um is not None
    return isinstance(does, FilterDoes) and does.stage in ("main", "commissioning")


def a_commissioning_filter_is_planned(tank: TankAnalysis) -> Iterator[Finding]:
    """The first fuel through a new tank carries what its making left in it."""
    lines = tank.design.lines
    filters = [part for part in lines.parts if isinstance(part.does, FilterDoes)]
    staged = any(isinstance(part.does, FilterDoes) and part.does.stage == "commissioning" for part in filters)
    if filters and not staged:
        yield _lines(
            "lines.commissioning",
            "",
            "note",
            "No commissioning filter among {count}",
            "A new tank sheds grit and sealant with its first fuel: a filter to throw away catches it, or the main one "
            "is changed after the first tank. It stays an open item until then.",
            count=len(filters),
        )


def teed_pumps_have_checks(tank: TankAnalysis) -> Iterator[Finding]:
    """Pumps that join each have a check valve, and a valve that shuts each off."""
    lines = tank.design.lines
    for part in lines.parts:
        if part.does.kind not in PUMPS or _has_check(part):
            continue
        others = _joined_before_a_check(lines, part)
        if others:
            yield _lines(
                "lines.no_check",
                part.id,
                "stop",
                "{name} joins {other} without a check valve, limit 1 each",
                "When it stands still the other one pumps back through it into the tank: the rail loses its pressure.",
                name=part.name,
                other=others[0].name,
            )


def _has_check(part: LinePart) -> bool:
    return isinstance(part.does, PumpDoes) and part.does.check_opens_kpa is not None


def _joined_before_a_check(lines: Lines, pump: LinePart) -> list[LinePart]:
    """Other pumps whose outlets are reached from this one's without passing a check valve that holds."""
    graph = open_ways(lines)
    for part in lines.parts:
        if isinstance(part.does, CheckDoes) and graph.has_edge((part.id, "in"), (part.id, "out")):
            graph.remove_edge((part.id, "in"), (part.id, "out"))
            if (part.id, "in") not in nx.node_connected_component(graph, (pump.id, "out")):
                graph.add_edge((part.id, "in"), (part.id, "out"))
    keys = nx.node_connected_component(graph, (pump.id, "out"))
    others = {name for name, port in keys if port == "out"} - {pump.id}
    return [part for part in lines.parts if part.id in others and part.does.kind in PUMPS]


def joined_pumps_can_be_shut_off(tank: TankAnalysis) -> Iterator[Finding]:
    """Where pumps outside the tank draw from one line, each can be shut off."""
    lines = tank.design.lines
    outside = [part for part in lines.parts if part.does.kind in PUMPS and not part.hangs_in]
    for place, part in enumerate(outside):
        keys = reach(lines, part, "in")
        valves = [one for one in lines.parts if (one.id, "in") in keys and one.does.kind == "isolating valve"]
        shared = [other for other in outside[place + 1 :] if (other.id, "in") in keys]
        if shared and not valves:
            yield _lines(
                "lines.no_isolating",
                part.id,
                "caution",
                "{name} and {other} draw from one line, no valve shuts either off",
                "Neither can be changed without emptying the tank.",
                name=part.name,
                other=shared[0].name,
            )


def no_pump_works_for_nothing(tank: TankAnalysis) -> Iterator[Finding]:
    """A pump that runs gives something."""
    lines, modes, flows = tank.design.lines, tank[LINE_MODES], tank[FLOWS]
    for part in lines.parts:
        flow = flows.part(part.id)
        if part.does.kind not in PUMPS or flow is None or is_spare(part):
            continue
        idle = [
            (mode, kpa)
            for mode, lph, kpa in zip(modes, flow.flow_lph, flows.kpa(part.id, "out") or [], strict=False)
            if lph is not None
            and lph < IDLE_LPH
            and part.id not in [*mode.still, *mode.off]
            and mode.draws_lph > 0
            and not mode.failure
        ]
        if idle:
            mode, kpa = idle[0]
            yield _lines(
                "lines.shut",
                part.id,
                "stop",
                "{name} runs in {mode} and gives nothing, {out_kpa} stands behind it",
                "Its way is shut, or another pump presses harder: it heats what is in it until that boils.",
                name=part.name,
                mode=mode.name,
                out_kpa=kpa or 0.0,
            )


def sensors_see_clean_fuel(tank: TankAnalysis) -> Iterator[Finding]:
    """An in-line sensor stands behind the filter."""
    lines = tank.design.lines
    filters = [part for part in lines.parts if _is_main(part)]
    for part in lines.parts:
        if not isinstance(part.does, PassageDoes) or part.does.kind != "sensor" or not filters:
            continue
        graph = open_ways(lines)
        for one in filters:
            if graph.has_edge((one.id, "in"), (one.id, "out")):
                graph.remove_edge((one.id, "in"), (one.id, "out"))
        keys = nx.node_connected_component(graph, (part.id, "in"))
        if any((one.id, "out") in keys and one.does.kind in PUMPS for one in lines.parts):
            yield _lines(
                "lines.sensor",
                part.id,
                "caution",
                "{name} stands before the filter, limit behind it",
                "Grit from the pump jams a flow sensor's wheel and blocks a pressure sensor's bore.",
                name=part.name,
            )


def parts_are_replaced_in_time(tank: TankAnalysis) -> Iterator[Finding]:
    """What fails at the roadside is replaced there."""
    limit = tank.workshop.rules.swap_min
    for part in tank.design.lines.parts:
        minutes = getattr(part.does, "minutes_to_replace", None)
        if minutes is not None and minutes > limit:
            yield _lines(
                "lines.slow_swap",
                part.id,
                "caution",
                "{name}: {takes_min} to replace, limit {limit_min}",
                "Carry a spare that can be switched over, or put it where a hand and a spanner reach it.",
                name=part.name,
                takes_min=minutes,
                limit_min=limit,
            )
