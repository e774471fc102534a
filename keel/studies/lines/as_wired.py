"""Pumps at the end of their wires: what they give for the voltage at the battery, and in which modes they are on."""

from collections.abc import Sequence
from dataclasses import replace

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.line_functions import PumpDoes
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.design.pumps import PumpCurve, PumpPoint
from keel.studies.lines.modes import MODES_ASKED, Mode
from keel.studies.lines.pump_curves import curve_at, dead_head_kpa, pressures_of
from keel.studies.wiring.loads import current_by_voltage, least_voltage, most_current
from keel.studies.wiring.supply import PUMP_SUPPLIES, PumpSupply
from keel.wiring.copper import voltage_left


def switched_modes(modes: Sequence[Mode], supplies: Sequence[PumpSupply]) -> list[Mode]:
    """The modes, with the pumps that the wiring has off in them.

    Parameters
    ----------
    modes : sequence of Mode
        As asked for.
    supplies : sequence of PumpSupply
        Which pumps are on in them.

    Returns
    -------
    list of Mode
        A pump whose way isn't whole is named by a finding, and counts as on.
    """
    found = []
    for place, mode in enumerate(modes):
        off = [one.id for one in supplies if one.is_whole and any(one.on) and not one.on[place]]
        found.append(replace(mode, off=off) if off else mode)
    return found


def lines_wired(lines: Lines, supplies: Sequence[PumpSupply], modes: Sequence[Mode]) -> Lines:
    """The lines, with pumps that give what they do at the end of their wires.

    Parameters
    ----------
    lines : Lines
        Pumps with their cards.
    supplies : sequence of PumpSupply
        What is lost before each.
    modes : sequence of Mode
        The voltages that are asked about.

    Returns
    -------
    Lines
        Curves of such a pump are by the voltage at the battery, at those of the modes alone; where its card doesn't
        reach there is none. What it presses to with everything shut stays as on its card: the wires may be cold.
    """
    lost = {one.id: (one.loop_ohm, one.others_v) for one in supplies if one.is_whole}
    volts = sorted({mode.voltage_v for mode in modes})

    def fed(part: LinePart) -> LinePart:
        if not isinstance(part.does, PumpDoes):
            return part
        ohm, others = (part.does.loop_ohm, 0.0) if part.does.loop_ohm is not None else lost.get(part.id, (0.0, 0.0))
        if ohm == 0 and others == 0:
            return part
        return part.model_copy(update={"does": at_battery(part.does, ohm, others, volts)})

    parts = tuple(map(fed, lines.parts))
    same = all(a is b for a, b in zip(parts, lines.parts, strict=True))
    return lines if same else lines.model_copy(update={"parts": parts})


def at_battery(does: PumpDoes, ohm: float, others_v: float, volts: Sequence[float]) -> PumpDoes:
    """A pump's card by the voltage at the battery.

    Parameters
    ----------
    does : PumpDoes
        Its card, by the voltage at itself.
    ohm : float
        Of its way, there and back [Ω].
    others_v : float
        What others' currents take of the voltage [V].
    volts : sequence of float
        At the battery, rising [V].

    Returns
    -------
    PumpDoes
        At each pressure its voltage is that at which V = supply - others - R · I(p, V); without a known current as if
        it drew none.
    """
    curves = [(v, points) for v in volts if (points := _points(does, ohm, v - others_v)) is not None]
    typed = dead_head_kpa(does)[0] if does.curves else None
    # Not validated: there may be no curve at all.
    made = tuple(PumpCurve.model_construct(voltage_v=v, points=points) for v, points in curves)
    return does.model_copy(update={"curves": made, "dead_head_kpa": typed})


def _points(does: PumpDoes, ohm: float, supply_v: float) -> tuple[PumpPoint, ...] | None:
    """The card at the end of the wires, pressure by pressure; None where it doesn't reach at one of them."""
    tables = [(curve.voltage_v, curve.points) for curve in does.curves]
    points = []
    for kpa in pressures_of(does):
        drawn = current_by_voltage(does, kpa)
        volts = voltage_left(supply_v, ohm, drawn, least_voltage(does)) if most_current(does) is not None else supply_v
        curve = None if volts is None else curve_at(tables, volts)
        if volts is None or curve is None:
            return None
        # As it stands on no card, its limits aren't asked for.
        points.append(PumpPoint.model_construct(kpa=kpa, l_per_h=curve.at(kpa), current_a=drawn(volts)))
    return tuple(points)


LINE_MODES = study(switched_modes, MODES_ASKED, PUMP_SUPPLIES).by_value()
LINES_WIRED = study(lines_wired, LINES, PUMP_SUPPLIES, LINE_MODES).by_value()
