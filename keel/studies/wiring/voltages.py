"""What is left of the voltage at every pump in every mode, and what it draws there."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.line_functions import PumpDoes
from keel.design.lines import Lines
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.modes import Mode
from keel.studies.wiring.loads import current_by_voltage, least_voltage, most_current
from keel.studies.wiring.supply import PUMP_SUPPLIES, PumpSupply
from keel.wiring.copper import voltage_left


@dataclass(frozen=True, slots=True)
class PumpVoltage:
    """A pump in one mode.

    Attributes
    ----------
    supply_v : float
        At the battery.
    at_pump_v, current_a : float or None
        What is left, and what it draws; None where it is off, or its card doesn't reach.
    rise_kpa : float or None
        From its inlet to its outlet.
    flow_lph : float or None
        Through it.
    """

    id: str
    name: str
    mode: str
    is_on: bool
    supply_v: float
    at_pump_v: float | None
    current_a: float | None
    rise_kpa: float | None
    flow_lph: float | None


def pump_voltages(
    lines: Lines, supplies: Sequence[PumpSupply], flows: LineFlows, modes: Sequence[Mode]
) -> list[PumpVoltage]:
    """Every wired pump in every mode.

    Parameters
    ----------
    lines : Lines
        Pumps with their cards.
    supplies : sequence of PumpSupply
        What is lost before each.
    flows : LineFlows
        Pressures before and behind it.
    modes : sequence of Mode
        Voltages.

    Returns
    -------
    list of PumpVoltage
        Pump by pump, mode by mode.
    """
    found = []
    for one in supplies:
        part = lines.part(one.id)
        if part is None or not isinstance(part.does, PumpDoes):
            continue
        none: list[float | None] = [None] * len(modes)
        before, behind = flows.kpa(one.id, "in") or none, flows.kpa(one.id, "out") or none
        flow = flows.part(one.id)
        for place, mode in enumerate(modes):
            is_on = one.on[place] and one.id not in mode.still and not part.does.spare
            low, high = before[place], behind[place]
            rise = None if low is None or high is None else max(0.0, high - low)
            volts = _volts(part.does, one, mode, rise) if is_on and rise is not None else None
            found.append(
                PumpVoltage(
                    id=one.id,
                    name=one.name,
                    mode=mode.name,
                    is_on=is_on,
                    supply_v=mode.voltage_v,
                    at_pump_v=volts,
                    current_a=None if volts is None or rise is None else current_by_voltage(part.does, rise)(volts),
                    rise_kpa=rise,
                    flow_lph=flow.flow_lph[place] if flow else None,
                )
            )
    return found


def _volts(does: PumpDoes, supply: PumpSupply, mode: Mode, rise_kpa: float) -> float | None:
    if most_current(does) is None:
        return None
    typed = does.loop_ohm is not None
    ohm, left = (does.loop_ohm or 0.0, mode.voltage_v) if typed else (supply.loop_ohm, mode.voltage_v - supply.others_v)
    return voltage_left(left, ohm, current_by_voltage(does, rise_kpa), least_voltage(does))


PUMP_VOLTAGES = study(pump_voltages, LINES, PUMP_SUPPLIES, FLOWS, LINE_MODES)
