"""What is wrong with a surge tank: its ports, its balance, what comes back to it."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import RegulatorDoes, SurgeTankDoes
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, Lines
from keel.findings.finding import Finding, saying
from keel.stations.lines.order_rules import IDLE_LPH, reach
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.flows import FLOWS
from keel.studies.liquid.capacity import CAPACITY

_lines = saying("lines")
OVERFLOW_KPA = 5.0


def surge_branch_is_right(tank: TankAnalysis) -> Iterator[Finding]:
    """Lift in, main return in, overflow out to the main tank, and none of it raises the pressure."""
    lines = tank.design.lines
    for part in lines.parts:
        if isinstance(part.does, SurgeTankDoes):
            yield from _surge_ports(part, part.does)
            yield from _surge_return(lines, part)
            yield from _surge_balance(tank, part.id, part.name, part.does.volume_l)
    if tank.design.brief.is_surge_tank:
        yield from _surge_balance(tank, TANK, "The surge tank", tank[CAPACITY].rated_l)


def _surge_balance(tank: TankAnalysis, key: str, name: str, volume_l: float) -> Iterator[Finding]:
    """What comes in, what goes out, and what the overflow makes of it."""
    modes, flows = tank[LINE_MODES], tank[FLOWS]
    inside, flow = flows.kpa(key, "inside"), flows.part(key)
    asked = [n for n, mode in enumerate(modes) if not mode.failure]
    if inside is None or flow is None or not asked:
        return
    worst = max(asked, key=lambda n: inside[n] or 0.0)
    if (inside[worst] or 0.0) > OVERFLOW_KPA:
        yield _lines(
            "lines.overflow",
            key,
            "stop",
            "{name} in {mode}: {back_lph} overflows, {inside_kpa} stands in it, limit {limit_kpa}",
            "The overflow doesn't take the whole surplus: the surge tank bulges and the return is held back.",
            name=name,
            mode=modes[worst].name,
            back_lph=flow.flow_lph[worst] or 0.0,
            inside_kpa=inside[worst] or 0.0,
            limit_kpa=OVERFLOW_KPA,
        )
    low = max(asked, key=lambda n: flow.moved_lph[n] or 0.0)
    lacking = flow.moved_lph[low] or 0.0
    if lacking > IDLE_LPH:
        yield _lines(
            "lines.surge_empties",
            key,
            "stop",
            "{name} in {mode}: {lacking_lph} more out than in, empty after {empty_s}",
            "The lift pump doesn't keep up: the surge tank runs empty and the engine stops.",
            name=name,
            mode=modes[low].name,
            lacking_lph=lacking,
            empty_s=volume_l / lacking * 3600,
        )


def _surge_ports(part: LinePart, does: SurgeTankDoes) -> Iterator[Finding]:
    wrong = [
        said
        for right, said in (
            (does.inlet_is_tangential, "inlets that don't come in along its wall: air isn't shed"),
            (does.outlet_is_lowest, "an outlet that isn't lowest: it draws air first"),
            (does.overflow_is_highest, "an overflow that isn't highest: air stays in it"),
        )
        if not right
    ]
    if wrong:
        yield _lines(
            "lines.surge_ports",
            part.id,
            "stop",
            "{name} has {count} of 3 ports wrong: {first}",
            "A surge tank that keeps air feeds it to the engine.",
            name=part.name,
            count=len(wrong),
            first=wrong[0],
        )


def _surge_return(lines: Lines, part: LinePart) -> Iterator[Finding]:
    bypasses = [one for one in lines.parts if isinstance(one.does, RegulatorDoes) and one.does.way == "bypass"]
    for one in bypasses:
        keys = reach(lines, one, "return")
        if keys and (part.id, "return") not in keys:
            yield _lines(
                "lines.surge_return",
                one.id,
                "caution",
                "{name}: its return doesn't lead to {surge}",
                "The surge tank has to be filled with all that the main pump takes, most of which comes straight back: "
                "led back to it, the lift pump only replaces what is burnt.",
                name=one.name,
                surge=part.name,
            )
