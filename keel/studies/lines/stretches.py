"""Every run: what it is for, how fast fuel goes in it, the most pressure it ever has to bear."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import LINES, RULES
from keel.analysis.study import study
from keel.design.line_functions import EnginePumpDoes, PumpDoes
from keel.design.lines import LineRun, Lines
from keel.design.workshop import HouseRules
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.modes import Mode
from keel.studies.lines.places import LINE_PLACES, LinePlaces
from keel.studies.lines.pump_curves import dead_head_kpa
from keel.studies.lines.services import SERVICES, Service, pumps_pressing


@dataclass(frozen=True, slots=True)
class Stretch:
    """A run judged.

    Attributes
    ----------
    fastest_ms, fastest_mode : float, str
        Velocity in its bore, and in which mode.
    limit_ms : float or None
        By its service.
    bore_needed_mm : float or None
        For that limit.
    highest_kpa : float
        In any mode, with everything shut counted.
    highest_when : str
        The mode, or which pump dead-heads.
    is_estimated : bool
        The pump's table stops before it gives nothing.
    rating_needed_kpa : float
        By the house rule, over that.
    """

    id: str
    name: str
    service: Service
    length_mm: float
    bore_mm: float
    fastest_ms: float
    fastest_mode: str
    most_lph: float
    limit_ms: float | None
    bore_needed_mm: float | None
    highest_kpa: float
    highest_when: str
    is_estimated: bool
    rating_needed_kpa: float
    rated_kpa: float | None


def stretches(
    lines: Lines,
    places: LinePlaces,
    flows: LineFlows,
    modes: Sequence[Mode],
    service_of: dict[str, Service],
    rules: HouseRules,
) -> list[Stretch]:
    """Every run judged.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    places : LinePlaces
        Their lengths.
    flows : LineFlows
        What flows, clean.
    modes : sequence of Mode
        Their names.
    service_of : dict of str to Service
        What each run is for.
    rules : HouseRules
        Velocity limits, what a hose bears over its highest pressure.

    Returns
    -------
    list of Stretch
        In the order of the runs.
    """
    pressing, lengths = pumps_pressing(lines), {way.id: way.length_mm for way in places.runs}
    limits: dict[Service, float] = {
        "suction": rules.suction_ms,
        "pressure": rules.pressure_ms,
        "return": rules.return_ms,
        "overflow": rules.return_ms,
    }
    return [
        _stretch(
            run, lengths[run.id], flows, modes, service_of[run.id], limits, _dead_head(lines, pressing[run.id]), rules
        )
        for run in lines.runs
        if run.id in lengths
    ]


def _dead_head(lines: Lines, pumps: Sequence[str]) -> tuple[float, str, bool]:
    """The most that any of them presses to, which one, and whether that is estimated."""
    found = [
        (*dead_head_kpa(part.does), part.name)
        for part in lines.parts
        if part.id in pumps and isinstance(part.does, PumpDoes | EnginePumpDoes)
    ]
    kpa, estimated, name = max(found, default=(0.0, False, ""))
    return kpa, name, estimated


def _stretch(
    run: LineRun,
    length_mm: float,
    flows: LineFlows,
    modes: Sequence[Mode],
    service: Service,
    limits: dict[Service, float],
    dead: tuple[float, str, bool],
    rules: HouseRules,
) -> Stretch:
    flow = flows.run(run.id)
    speeds = [abs(one or 0.0) for one in flow.velocity_ms] if flow else [0.0]
    most = [abs(one or 0.0) for one in flow.flow_lph] if flow else [0.0]
    ends = [max(a or 0.0, b or 0.0) for a, b in zip(flow.start_kpa, flow.end_kpa, strict=True)] if flow else [0.0]
    fastest, highest = speeds.index(max(speeds)), ends.index(max(ends))
    limit = limits.get(service)
    kpa, when, estimated = ends[highest], modes[highest].name if flow else "", False
    if kpa <= 0:
        kpa, when = 0.0, "at rest"
    if dead[0] > kpa:
        kpa, when, estimated = dead[0], f"{dead[1]} against a shut line", dead[2]
    return Stretch(
        id=run.id,
        name=run.name,
        service=service,
        length_mm=length_mm,
        bore_mm=run.bore_mm,
        fastest_ms=speeds[fastest],
        fastest_mode=modes[fastest].name if flow else "",
        most_lph=max(most),
        limit_ms=limit,
        bore_needed_mm=run.bore_mm * (speeds[fastest] / limit) ** 0.5 if limit else None,
        highest_kpa=kpa,
        highest_when=when,
        is_estimated=estimated,
        rating_needed_kpa=kpa * rules.hose_reserve,
        rated_kpa=run.rated_kpa,
    )


STRETCHES = study(stretches, LINES, LINE_PLACES, FLOWS, LINE_MODES, SERVICES, RULES)
