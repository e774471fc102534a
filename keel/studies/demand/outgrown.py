"""What later power outgrows of what serves now."""

from dataclasses import dataclass

from keel.analysis.parts import BRIEF, RULES
from keel.analysis.study import study
from keel.design.brief import Brief
from keel.design.workshop import HouseRules
from keel.studies.demand.demand import Demand, demands
from keel.studies.result import Words, words

NO_MORE = 1.001
"""Flows that differ by less are the same."""


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
    first = answers[0]
    found = [part for later in answers[1:] for part in _parts(brief, rules, first, later)]
    return [part for part in found if part is not None]


def _parts(brief: Brief, rules: HouseRules, first: Demand, later: Demand) -> list[Outgrown | None]:
    return [
        _pumps(first, later),
        _fuel(first, later),
        _capacity(brief, first, later),
        _surge(brief, rules, first, later),
    ]


def _pumps(first: Demand, later: Demand) -> Outgrown | None:
    if not later.short_l_per_h or first.short_l_per_h:
        return None
    return Outgrown(
        later.name,
        "pumps",
        words("{flow_lph} do", flow_lph=first.needed_l_per_h),
        words("{short_lph} short", short_lph=later.short_l_per_h),
        words("an empty pump seat and its blind boss, welded in now; later it is a gas-free tank and a new proof"),
    )


def _fuel(first: Demand, later: Demand) -> Outgrown | None:
    if later.fuel == first.fuel:
        return None
    worth = words("metals, seals, lining and sender that bear both fuels, chosen now")
    return Outgrown(later.name, "fuel", words("{fuel}", fuel=first.fuel), words("{fuel}", fuel=later.fuel), worth)


def _capacity(brief: Brief, first: Demand, later: Demand) -> Outgrown | None:
    if later.average_l_per_h <= first.average_l_per_h * NO_MORE:
        return None
    litres = brief.basis is not None and brief.basis.kind != "range"
    return Outgrown(
        later.name,
        "capacity" if litres else "run time",
        words("{average_lph} on average", average_lph=first.average_l_per_h),
        words("{average_lph} on average", average_lph=later.average_l_per_h),
        words(
            "for the same time {share_pct} more capacity; a tank can't be stretched",
            share_pct=later.average_l_per_h / first.average_l_per_h - 1,
        ),
    )


def _surge(brief: Brief, rules: HouseRules, first: Demand, later: Demand) -> Outgrown | None:
    if brief.surge is None or later.flow_l_per_h <= first.flow_l_per_h * NO_MORE:
        return None
    hours = brief.surge.uncovered_s * (1 + rules.surge_margin) / 3600
    return Outgrown(
        later.name,
        "surge volume",
        words("{now_l}", now_l=first.flow_l_per_h * hours),
        words("{then_l}", then_l=later.flow_l_per_h * hours),
        words("make the surge volume for the larger one: the difference is a hand of sheet"),
    )


OUTGROWN = study(outgrown, BRIEF, RULES)
