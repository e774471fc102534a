"""The capacity that is asked for."""

from dataclasses import dataclass

from keel.analysis.parts import BRIEF, RULES
from keel.analysis.study import study
from keel.design.brief import Basis, Brief
from keel.design.workshop import HouseRules
from keel.studies.demand.demand import case_of, demand_of
from keel.studies.result import Words, words


@dataclass(frozen=True, slots=True)
class Target:
    """The capacity asked for and how it came about."""

    litres: float
    how: Words


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
    answer = demand_of(case, brief, rules)
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


def target_litres(asked: Target | None) -> float | None:
    """The rated capacity that is asked for [L]."""
    return asked.litres if asked else None


TARGET = study(target, BRIEF, RULES)
TARGET_L = study(target_litres, TARGET).by_value()
