"""The running modes: those that are typed, or the usual ones of the brief's engine."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from keel.analysis.parts import BRIEF, LINES, RULES
from keel.analysis.study import study
from keel.design.brief import Brief, DemandCase
from keel.design.lines import Lines, RunningMode
from keel.design.workshop import HouseRules
from keel.reference.engines import IDLE_SHARE
from keel.reference.fuels import FuelName
from keel.studies.demand.demand import case_of, demand_of

CRUISE_SHARE, CRUISE_MANIFOLD_KPA, IDLE_MANIFOLD_KPA = 0.25, -35.0, -65.0
HOT_C, IDLE_RPM, CRUISE_RPM, FULL_RPM = 45.0, 800.0, 2500.0, 6000.0
BOOST_KPA = 100.0
"""Usual figures of modes that nobody typed (house rule); each can be typed."""


@dataclass(frozen=True, slots=True)
class Mode:
    """A running mode with its figures.

    Attributes
    ----------
    draws_lph : float
        What the engine burns [L/h].
    share : float or None
        The same as a share of full power; None where it is typed.
    by_case_lph : dict of str to float
        The same by each demand case, for those who draw by a case of their own.
    fuel : FuelName or None
        What it is run on, where that isn't the brief's fuel.
    off : list of str
        Pumps that the wiring has off in it, as it should.
    """

    id: str
    name: str
    case: str
    draws_lph: float
    share: float | None
    by_case_lph: dict[str, float]
    manifold_kpa: float
    voltage_v: float
    engine_rpm: float
    fuel_c: float
    altitude_m: float
    still: list[str]
    failure: bool
    fuel: FuelName | None
    off: list[str] = field(default_factory=list)


def modes(lines: Lines, brief: Brief, rules: HouseRules) -> list[Mode]:
    """Every running mode.

    Parameters
    ----------
    lines : Lines
        Typed modes; without any, idle, cruise, full power, hot, low voltage and each pump dead.
    brief : Brief
        Demand cases: the fuel at full power, the voltage.
    rules : HouseRules
        House rules.

    Returns
    -------
    list of Mode
        A case without power or a measured flow burns nothing.
    """
    cases = {case.id: case for case in brief.cases}
    full = {name: flow_of(case, brief, rules) for name, case in cases.items()}
    return [
        _mode(one, case_of(brief, one.case), full, brief.fuel) for one in lines.modes or list(usual_modes(lines, brief))
    ]


def flow_of(case: DemandCase, brief: Brief, rules: HouseRules) -> float:
    """What a case burns at full power [L/h]."""
    known = case.power_kw or case.measured_l_per_h
    return demand_of(case, brief, rules).flow_l_per_h if known else 0.0


def _mode(one: RunningMode, case: DemandCase | None, full: dict[str, float], held: FuelName) -> Mode:
    share = {name: flow * one.draw for name, flow in full.items()}
    drawn = share.get(case.id, 0.0) if case else 0.0
    typed = one.draw_l_per_h
    fuel = one.fuel or (case.fuel if case else None) or held
    usual = DemandCase(id="usual", name="usual")
    return Mode(
        id=one.id,
        name=one.name,
        case=case.name if case else "",
        draws_lph=drawn if typed is None else typed,
        share=one.draw if typed is None else None,
        by_case_lph=share,
        manifold_kpa=one.manifold_kpa,
        voltage_v=(case or usual).supply_v if one.voltage_v is None else one.voltage_v,
        engine_rpm=one.engine_rpm,
        fuel_c=one.fuel_c,
        altitude_m=one.altitude_m,
        still=list(one.still),
        failure=one.failure,
        fuel=None if fuel == held else fuel,
    )


def usual_modes(lines: Lines, brief: Brief) -> Iterator[RunningMode]:
    """Idle, cruise, full power, hot, low voltage of the first case; full power of two further ones; each pump dead."""
    first = brief.cases[0] if brief.cases else DemandCase(id="usual", name="usual")
    full = {"manifold_kpa": boost_of(first), "engine_rpm": FULL_RPM}
    idle = RunningMode(id="idle", name="Idle", draw=IDLE_SHARE, manifold_kpa=IDLE_MANIFOLD_KPA, engine_rpm=IDLE_RPM)
    yield idle
    yield idle.model_copy(
        update={"id": "cruise", "name": "Cruise", "draw": CRUISE_SHARE}
        | {"manifold_kpa": CRUISE_MANIFOLD_KPA, "engine_rpm": CRUISE_RPM}
    )
    yield RunningMode.model_validate({"id": "full", "name": "Full power"} | full)
    for case in brief.cases[1:3]:
        own = {"id": f"full-{case.id}"[:40], "name": f"Full power, {case.name}"[:80], "case": case.id}
        yield RunningMode.model_validate(own | full | {"manifold_kpa": boost_of(case)})
    yield RunningMode.model_validate({"id": "hot", "name": "Full power, hot", "fuel_c": HOT_C} | full)
    low = {"id": "low-volts", "name": "Full power, low voltage", "voltage_v": first.low_v}
    yield RunningMode.model_validate(low | full)
    pumps = _running_pumps(lines)
    for number, (key, name) in enumerate(pumps[:4] if len(pumps) > 1 else (), start=1):
        dead = {"id": f"dead-{number}", "name": f"{name} dead"[:80], "still": (key,), "failure": True}
        yield RunningMode.model_validate(dead | full)


def boost_of(case: DemandCase) -> float:
    """Pressure in the manifold at full power, over the air's, where nothing is typed [kPa]."""
    return BOOST_KPA if case.engine == "petrol, forced induction" else 0.0


def _running_pumps(lines: Lines) -> Sequence[tuple[str, str]]:
    return [(part.id, part.name) for part in lines.parts if part.does.kind == "pump" and not part.does.spare]


MODES_ASKED = study(modes, LINES, BRIEF, RULES).by_value()
"""As they are asked for: which pumps the wiring has on is still to come."""
