"""What the engine asks for, and whether the pumps give it."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate
from math import ceil

from keel.analysis.parts import BRIEF, RULES
from keel.analysis.study import study
from keel.design.brief import Basis, Brief, DemandCase
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


@dataclass(frozen=True, slots=True)
class Target:
    """The capacity asked for and how it came about."""

    litres: float
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

    Returns
    -------
    list of Demand
        Mass flow = power · BSFC; volume flow = mass flow / density; pumps must give that with the
        house rule's margin on top, at rail pressure and supply voltage. A case without power or a
        measured flow is left out.
    """
    return [_demand(case, brief, rules) for case in brief.cases if case.power_kw or case.measured_l_per_h]


def _demand(case: DemandCase, brief: Brief, rules: HouseRules) -> Demand:
    fuel = case.fuel or brief.fuel
    density = FUELS[fuel].density_kg_per_l
    if case.measured_l_per_h is not None:
        flow, bsfc, ends = case.measured_l_per_h, None, (case.measured_l_per_h, case.measured_l_per_h)
        how = words("measured: {flow_lph}", flow_lph=flow)
    else:
        power, used, usual = case.power_kw or 0.0, bsfc_used(case, fuel), bsfc_range(case, fuel)
        flow, bsfc = power * used / density, (usual.low, used, usual.high)
        ends = (power * usual.low / density, power * usual.high / density)
        how = words(
            "{power_kw} × {bsfc_kgkwh} = {mass_kgh}; over {density_kgl} of {fuel} {flow_lph}",
            power_kw=power,
            bsfc_kgkwh=used,
            mass_kgh=power * used,
            density_kgl=density,
            fuel=fuel,
            flow_lph=flow,
        )
    needed = flow * (1 + rules.pump_margin)
    per_kw = needed / case.power_kw if case.power_kw else None
    pumps = _pump_flows(brief.pumps, case, needed, per_kw)
    running = _total([pump.flow_l_per_h for pump in pumps if not pump.spare])
    low = _total([pump.low_flow_l_per_h for pump in pumps if not pump.spare])
    return Demand(
        id=case.id,
        name=case.name,
        fuel=fuel,
        bsfc=bsfc,
        mass_kg_per_h=flow * density,
        flow_l_per_h=flow,
        range_l_per_h=ends,
        average_l_per_h=flow * case.duty,
        needed_l_per_h=needed,
        pumps=pumps,
        running_l_per_h=running,
        short_l_per_h=None if running is None else max(0.0, needed - running),
        low_running_l_per_h=low,
        low_short_l_per_h=None if low is None else max(0.0, needed - low),
        carries_kw=running / per_kw if per_kw and running is not None else None,
        how=how,
    )


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


def target(brief: Brief, rules: HouseRules) -> Target | None:
    """Rated capacity asked for: the named figure, or what the basis comes to; None without either."""
    if brief.target_l is not None:
        return Target(litres=brief.target_l, how=words("named: {target_l}", target_l=brief.target_l))
    return _from_basis(brief.basis, brief, rules) if brief.basis else None


def _from_basis(basis: Basis, brief: Brief, rules: HouseRules) -> Target | None:
    if basis.kind == "range":
        if basis.range_km is None or basis.per_100km_l is None:
            return None
        litres = basis.range_km / 100 * basis.per_100km_l * (1 + basis.reserve)
        how = words(
            "{range_km} at {per_l} for 100 km, and {reserve_pct} in hand",
            range_km=basis.range_km,
            per_l=basis.per_100km_l,
            reserve_pct=basis.reserve,
        )
        return Target(litres=litres, how=how)
    case = case_of(brief, basis.case)
    hours = basis.hours if basis.kind == "run time" else (basis.stint_min or 0.0) / 60
    if case is None or not hours or not (case.power_kw or case.measured_l_per_h):
        return None
    answer = _demand(case, brief, rules)
    litres = answer.average_l_per_h * hours * (1 + basis.reserve)
    how = words(
        "{hours_h} of {name} at {duty_pct} of full power, {average_lph}, and {reserve_pct} in hand",
        hours_h=hours,
        name=case.name,
        duty_pct=case.duty,
        average_lph=answer.average_l_per_h,
        reserve_pct=basis.reserve,
    )
    return Target(litres=litres, how=how)


def case_of(brief: Brief, name: str | None) -> DemandCase | None:
    """The demand case of an id, or the first; None without any."""
    if name is None:
        return brief.cases[0] if brief.cases else None
    return next((case for case in brief.cases if case.id == name), None)


@dataclass(frozen=True, slots=True)
class Outgrown:
    """A part that the first case's figures suffice for and another case's don't."""

    case: str
    part: str
    now: Words
    then: Words
    worth: Words


def outgrown(brief: Brief, rules: HouseRules) -> list[Outgrown]:
    """What every further demand case outgrows of what serves the first, and what is worth building in now.

    A blind boss or an empty pump seat costs little while the sheet is flat; cut in later, the tank has to be
    emptied, cleaned, made gas-free, welded and proved anew.
    """
    answers = demands(brief, rules)
    if len(answers) < 2:
        return []
    first, found = answers[0], []
    for later in answers[1:]:
        if later.short_l_per_h and not first.short_l_per_h:
            found.append(
                Outgrown(
                    later.name,
                    "pumps",
                    words("{flow_lph} do", flow_lph=first.needed_l_per_h),
                    words("{short_lph} short", short_lph=later.short_l_per_h),
                    words(
                        "an empty pump seat and its blind boss, welded in now; later it is a gas-free tank and a "
                        "new proof"
                    ),
                )
            )
        if later.fuel != first.fuel:
            found.append(
                Outgrown(
                    later.name,
                    "fuel",
                    words("{fuel}", fuel=first.fuel),
                    words("{fuel}", fuel=later.fuel),
                    words("metals, seals, lining and sender that bear both fuels, chosen now"),
                )
            )
        if later.average_l_per_h > first.average_l_per_h * 1.001:
            litres = brief.basis is not None and brief.basis.kind != "range"
            found.append(
                Outgrown(
                    later.name,
                    "capacity" if litres else "run time",
                    words("{average_lph} on average", average_lph=first.average_l_per_h),
                    words("{average_lph} on average", average_lph=later.average_l_per_h),
                    words(
                        "for the same time {share_pct} more capacity; a tank can't be stretched",
                        share_pct=later.average_l_per_h / first.average_l_per_h - 1,
                    ),
                )
            )
        if brief.surge is not None and later.flow_l_per_h > first.flow_l_per_h * 1.001:
            volume = brief.surge.uncovered_s * (1 + rules.surge_margin) / 3600
            found.append(
                Outgrown(
                    later.name,
                    "surge volume",
                    words("{now_l}", now_l=first.flow_l_per_h * volume),
                    words("{then_l}", then_l=later.flow_l_per_h * volume),
                    words("make the surge volume for the larger one: the difference is a hand of sheet"),
                )
            )
    return found


def most_drawn_l_per_h(cases: list[Demand]) -> float | None:
    """What the pumps draw at most [L/h]; None without a demand case."""
    return max((case.running_l_per_h or case.needed_l_per_h for case in cases), default=None)


def target_litres(asked: Target | None) -> float | None:
    """The rated capacity that is asked for [L]."""
    return asked.litres if asked else None


TARGET = study(target, BRIEF, RULES)
TARGET_L = study(target_litres, TARGET).by_value()
DEMANDS = study(demands, BRIEF, RULES)
OUTGROWN = study(outgrown, BRIEF, RULES)
MOST_DRAWN = study(most_drawn_l_per_h, DEMANDS).by_value()
