"""What the engine asks for, and whether the pumps give it."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate
from math import ceil
from typing import NamedTuple

from keel.analysis.parts import BRIEF, RULES
from keel.analysis.study import study
from keel.design.brief import Brief, DemandCase
from keel.design.pumps import FittedPump, Pump, PumpCurve
from keel.design.workshop import HouseRules
from keel.reference.engines import BSFC_KG_PER_KWH, TIMES_PETROL, Range
from keel.reference.fuels import FUELS, FuelName
from keel.studies.result import Words, words


@dataclass(frozen=True, slots=True)
class PumpFlow:
    """One pump against a case's rail pressure. Empty flows are beyond its table: nothing is extrapolated."""

    id: str
    name: str
    spare: bool
    flow_l_per_h: float | None
    low_flow_l_per_h: float | None
    comes_on_kw: float | None
    enough: int | None
    """How many of this pump alone would do."""


@dataclass(frozen=True, slots=True)
class Demand:
    """One demand case worked out."""

    id: str
    name: str
    fuel: FuelName
    bsfc: tuple[float, float, float] | None
    """Low, used, high [kg/kWh]; empty where the flow was measured."""
    mass_kg_per_h: float
    flow_l_per_h: float
    range_l_per_h: tuple[float, float]
    average_l_per_h: float
    needed_l_per_h: float
    pumps: list[PumpFlow]
    running_l_per_h: float | None
    short_l_per_h: float | None
    low_running_l_per_h: float | None
    low_short_l_per_h: float | None
    carries_kw: float | None
    how: Words


def bsfc_range(case: DemandCase, fuel: FuelName) -> Range:
    """Usual fuel burnt for the work [kg/kWh], for the engine and the fuel's heat."""
    usual = BSFC_KG_PER_KWH[case.engine]
    times = TIMES_PETROL.get(fuel, Range(1.0, 1.0))
    return Range(usual.low * times.low, usual.high * times.high)


def bsfc_used(case: DemandCase, fuel: FuelName) -> float:
    """The typed figure, or the middle of the engine's range times the middle of the fuel's [kg/kWh]."""
    if case.bsfc_kg_per_kwh is not None:
        return case.bsfc_kg_per_kwh
    return BSFC_KG_PER_KWH[case.engine].middle * TIMES_PETROL.get(fuel, Range(1.0, 1.0)).middle


def flow_at(curve: PumpCurve, kpa: float) -> float | None:
    """Flow of a curve at a pressure, straight-line between its points; None beyond them [L/h]."""
    places = [point.kpa for point in curve.points]
    if not places[0] <= kpa <= places[-1]:
        return None
    high = min(bisect_right(places, kpa), len(places) - 1)
    a, b = curve.points[high - 1], curve.points[high]
    return a.l_per_h + (kpa - a.kpa) / (b.kpa - a.kpa) * (b.l_per_h - a.l_per_h)


def pump_flow(pump: Pump, kpa: float, voltage_v: float) -> float | None:
    """Flow of a pump at a pressure and voltage, straight-line between the curves' voltages.

    Parameters
    ----------
    pump : Pump
        Its curves, from the lowest voltage to the highest.
    kpa, voltage_v : float
        Pressure over the tank's [kPa] and voltage at the pump [V].

    Returns
    -------
    float or None
        [L/h]; None where the tables don't reach: neither pressure nor voltage is extrapolated.
    """
    volts = [curve.voltage_v for curve in pump.curves]
    if not volts[0] - 1e-9 <= voltage_v <= volts[-1] + 1e-9:
        return None
    high = next(place for place, volt in enumerate(volts) if volt >= voltage_v - 1e-9)
    above = flow_at(pump.curves[high], kpa)
    if high == 0 or abs(volts[high] - voltage_v) <= 1e-9:
        return above
    below = flow_at(pump.curves[high - 1], kpa)
    if above is None or below is None:
        return None
    share = (voltage_v - volts[high - 1]) / (volts[high] - volts[high - 1])
    return below + share * (above - below)


def demands(brief: Brief, rules: HouseRules) -> list[Demand]:
    """Every demand case of a brief against its pumps.

    Parameters
    ----------
    brief : Brief
        The brief.
    rules : HouseRules
        House rules.

    Returns
    -------
    list of Demand
        Mass flow = power · BSFC; volume flow = mass flow / density; pumps must give that with the
        house rule's margin on top, at rail pressure and supply voltage. A case without power or a
        measured flow is left out.

    References
    ----------
    As for `demand_of`.
    """
    return [demand_of(case, brief, rules) for case in brief.cases if case.power_kw or case.measured_l_per_h]


def demand_of(case: DemandCase, brief: Brief, rules: HouseRules) -> Demand:
    """One case worked out, whether or not its pumps do.

    Parameters
    ----------
    case : DemandCase
        With power, or a measured flow.
    brief : Brief
        Its fuel and its pumps.
    rules : HouseRules
        The pumps' margin.

    Returns
    -------
    Demand
        What it burns and what the pumps give.

    References
    ----------
    Brake specific fuel consumption: ṁ = P · BSFC, V̇ = ṁ / ρ (J. B. Heywood, Internal Combustion Engine
    Fundamentals, ch. 2). Ranges and densities: `keel.reference.engines`, `keel.reference.fuels`.
    """
    fuel = case.fuel or brief.fuel
    burnt = _measured(case.measured_l_per_h) if case.measured_l_per_h is not None else _by_power(case, fuel)
    needed = burnt.l_per_h * (1 + rules.pump_margin)
    per_kw = needed / case.power_kw if case.power_kw else None
    pumps = _pump_flows(brief.pumps, case, needed, per_kw)
    running = _total([pump.flow_l_per_h for pump in pumps if not pump.spare])
    low = _total([pump.low_flow_l_per_h for pump in pumps if not pump.spare])
    return Demand(
        id=case.id,
        name=case.name,
        fuel=fuel,
        bsfc=burnt.bsfc,
        mass_kg_per_h=burnt.l_per_h * FUELS[fuel].density_kg_per_l,
        flow_l_per_h=burnt.l_per_h,
        range_l_per_h=burnt.ends_l_per_h,
        average_l_per_h=burnt.l_per_h * case.duty,
        needed_l_per_h=needed,
        pumps=pumps,
        running_l_per_h=running,
        short_l_per_h=None if running is None else max(0.0, needed - running),
        low_running_l_per_h=low,
        low_short_l_per_h=None if low is None else max(0.0, needed - low),
        carries_kw=running / per_kw if per_kw and running is not None else None,
        how=burnt.how,
    )


class _Burnt(NamedTuple):
    """Fuel flow at full power, the range it lies in, and how it was found."""

    l_per_h: float
    bsfc: tuple[float, float, float] | None
    ends_l_per_h: tuple[float, float]
    how: Words


def _measured(l_per_h: float) -> _Burnt:
    return _Burnt(l_per_h, None, (l_per_h, l_per_h), words("measured: {flow_lph}", flow_lph=l_per_h))


def _by_power(case: DemandCase, fuel: FuelName) -> _Burnt:
    density = FUELS[fuel].density_kg_per_l
    power, used, usual = case.power_kw or 0.0, bsfc_used(case, fuel), bsfc_range(case, fuel)
    flow = power * used / density
    how = words(
        "{power_kw} × {bsfc_kgkwh} = {mass_kgh}; over {density_kgl} of {fuel} {flow_lph}",
        power_kw=power,
        bsfc_kgkwh=used,
        mass_kgh=power * used,
        density_kgl=density,
        fuel=fuel,
        flow_lph=flow,
    )
    ends = power * usual.low / density, power * usual.high / density
    return _Burnt(flow, (usual.low, used, usual.high), ends, how)


def _total(flows: Sequence[float | None]) -> float | None:
    """The sum; empty without a pump, or where one is beyond its table."""
    known = [flow for flow in flows if flow is not None]
    return sum(known) if flows and len(known) == len(flows) else None


def _pump_flows(fitted: Sequence[FittedPump], case: DemandCase, needed: float, per_kw: float | None) -> list[PumpFlow]:
    flows = [pump_flow(item.pump, case.rail_kpa, case.supply_v) for item in fitted]
    before = [0.0, *accumulate((flow or 0.0) * (not item.spare) for flow, item in zip(flows, fitted, strict=True))]
    known = True
    found = []
    for item, flow, running in zip(fitted, flows, before, strict=False):
        found.append(
            PumpFlow(
                id=item.id,
                name=item.pump.name,
                spare=item.spare,
                flow_l_per_h=flow,
                low_flow_l_per_h=pump_flow(item.pump, case.rail_kpa, case.low_v),
                comes_on_kw=running / per_kw if per_kw and known and not item.spare else None,
                enough=ceil(needed / flow - 1e-9) if flow else None,
            )
        )
        known = known and (flow is not None or item.spare)
    return found


def case_of(brief: Brief, name: str | None) -> DemandCase | None:
    """The demand case of an id, or the first.

    Parameters
    ----------
    brief : Brief
        The brief.
    name : str or None
        An id; None: the first.

    Returns
    -------
    DemandCase or None
        None without any.
    """
    if name is None:
        return brief.cases[0] if brief.cases else None
    return next((case for case in brief.cases if case.id == name), None)


def most_drawn_l_per_h(cases: list[Demand]) -> float | None:
    """What the pumps draw at most [L/h]; None without a demand case."""
    return max((case.running_l_per_h or case.needed_l_per_h for case in cases), default=None)


DEMANDS = study(demands, BRIEF, RULES)
MOST_DRAWN = study(most_drawn_l_per_h, DEMANDS).by_value()
