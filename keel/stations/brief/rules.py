"""What is wrong with the brief, and with what the engine is fed by."""

from collections.abc import Iterator
from itertools import product

from keel.analysis.tank import TankAnalysis
from keel.design.brief import CardRule
from keel.design.document import Design
from keel.design.workshop import HouseRules
from keel.findings.finding import Finding, of_station
from keel.findings.fuels import fuels_of
from keel.reference.engines import DIESEL_FUELS
from keel.reference.fuels import FUELS
from keel.studies.cost.figures import FIGURES
from keel.studies.demand.demand import Demand, demands
from keel.studies.demand.surge_methods import surge_answer
from keel.studies.result import Words, words

_brief = of_station("brief")
_finding = of_station("brief")


def brief_findings(design: Design, rules: HouseRules) -> Iterator[Finding]:
    """What is wrong with the brief by itself, with or without a shell."""
    for demand in demands(design.brief, rules):
        yield from _pumps(demand, rules)
    yield from _surge(design, rules)


def _pumps(demand: Demand, rules: HouseRules) -> Iterator[Finding]:
    beyond = [pump.name for pump in demand.pumps if pump.flow_l_per_h is None and not pump.spare]
    if beyond:
        yield _finding(
            "pump.beyond",
            demand.id,
            "caution",
            words("{names}: no figure for {case}", names=", ".join(beyond), case=demand.name),
            words(
                "Its pressure or voltage lies beyond the pump's table, and nothing is guessed beyond it. Measure "
                "it there."
            ),
        )
    if demand.short_l_per_h:
        yield _finding(
            "pump.short",
            demand.id,
            "stop",
            words("The pumps fall {short_lph} short for {case}", short_lph=demand.short_l_per_h, case=demand.name),
            words(
                "{running_lph} at rail pressure and supply voltage; {flow_lph} is burnt and {margin_pct} on top is the "
                "house rule. A lean engine burns its pistons. A spare counts for nothing.",
                running_lph=demand.running_l_per_h or 0.0,
                flow_lph=demand.flow_l_per_h,
                margin_pct=rules.pump_margin,
            ),
        )
    elif demand.low_short_l_per_h:
        yield _finding(
            "pump.low_voltage",
            demand.id,
            "caution",
            words(
                "At low voltage the pumps fall {short_lph} short for {case}",
                short_lph=demand.low_short_l_per_h,
                case=demand.name,
            ),
            words(
                "A tired battery or a thin wire takes the margin away: shorten or thicken the wire, or fit more pump."
            ),
        )


def _surge(design: Design, rules: HouseRules) -> Iterator[Finding]:
    answer = surge_answer(design.brief, None, design, rules)
    surge = design.brief.surge
    if answer is None or surge is None:
        return
    sizing = answer.sizing
    if sizing.lift_is_enough is False:
        yield _finding(
            "surge.lift",
            "lift",
            "stop",
            words(
                "The lift pump's {lift_lph} never refills the surge tank",
                lift_lph=surge.lift_l_per_h or 0.0,
            ),
            words("The engine draws {engine_lph}: it has to be more than that.", engine_lph=answer.engine_l_per_h),
        )
    elif sizing.refilled_in_time is False and sizing.refill_s is not None and surge.gap_s is not None:
        yield _finding(
            "surge.refill",
            "refill",
            "caution",
            words("The surge tank isn't full again before the next dry spell"),
            words(
                "Refilling {drawn_l} takes {refill_s}, the next one comes after {gap_s}: it needs more volume or "
                "more lift.",
                drawn_l=sizing.drawn_l,
                refill_s=sizing.refill_s,
                gap_s=surge.gap_s,
            ),
        )


def card_is_kept(tank: TankAnalysis) -> Iterator[Finding]:
    """Every limit of the rule card; each is named in its finding."""
    for rule in tank.design.brief.card:
        value = card_value(rule, tank)
        if value is None:
            continue
        least = rule.subject.endswith("at least")
        if (value < rule.limit - 1e-9) if least else (value > rule.limit + 1e-9):
            yield _finding(
                "card",
                rule.id,
                "stop",
                _broken(rule, value),
                words("From the rule card of this job. The rulebook and its scrutineer outrank this tool."),
            )


def _broken(rule: CardRule, value: float) -> Words:
    unit = CARD_UNIT[rule.subject]
    said = f"{{rule}}: {{subject}} {{limit_{unit}}}, here {{value_{unit}}}"
    return Words(
        said, {"rule": rule.rule, "subject": rule.subject, f"limit_{unit}": rule.limit, f"value_{unit}": value}
    )


CARD_UNIT = {
    "rated capacity at most": "l",
    "brimful capacity at most": "l",
    "rated capacity at least": "l",
    "fuel mass at most": "kg",
    "full mass at most": "kg",
    "wall thickness at least": "sheet",
    "fuel share of vehicle at most": "pct",
}


def fuel_kg(tank: TankAnalysis) -> float:
    """Fuel at rated capacity [kg]."""
    return tank[FIGURES].rated_l * FUELS[tank.design.brief.fuel].density_kg_per_l


def fuel_share(tank: TankAnalysis) -> float | None:
    """Fuel at rated capacity as a share of vehicle and fuel; None without the vehicle's mass."""
    vehicle = tank.design.brief.vehicle_kg
    return None if vehicle is None else fuel_kg(tank) / (vehicle + fuel_kg(tank))


def card_value(rule: CardRule, tank: TankAnalysis) -> float | None:
    """What this design has of a rule's subject."""
    match rule.subject:
        case "rated capacity at most" | "rated capacity at least":
            return tank[FIGURES].rated_l
        case "brimful capacity at most":
            return tank[FIGURES].brimful_l
        case "fuel mass at most":
            return fuel_kg(tank)
        case "full mass at most":
            return tank[FIGURES].full_kg
        case "wall thickness at least":
            return min(tank.shell.thickness_mm, tank.shell.end_wall_mm)
        case "fuel share of vehicle at most":
            return fuel_share(tank)


def fuel_is_a_fair_share(tank: TankAnalysis) -> Iterator[Finding]:
    """Full fuel isn't too much of the vehicle."""
    share = fuel_share(tank)
    if share is not None and share > tank.workshop.rules.fuel_share:
        yield _finding(
            "fuel.share",
            "vehicle",
            "note",
            words("Full, fuel is {share_pct} of the vehicle", share_pct=share),
            words(
                "{fuel_kg} at rated capacity; above {rule_pct} (house rule) it changes how the vehicle handles "
                "from full "
                "to empty.",
                fuel_kg=fuel_kg(tank),
                rule_pct=tank.workshop.rules.fuel_share,
            ),
        )


def engines_burn_it(tank: TankAnalysis) -> Iterator[Finding]:
    """A diesel engine gets diesel, a spark engine doesn't."""
    for case in tank.design.brief.cases:
        fuel = case.fuel or tank.design.brief.fuel
        if (case.engine == "diesel") != (fuel in DIESEL_FUELS):
            yield _brief(
                "fuel.engine",
                case.id,
                "stop",
                words("{case} runs a {engine} engine on {fuel}", case=case.name, engine=case.engine, fuel=fuel),
                words("It doesn't run on that, and what is tried wrecks it. Put the fuel or the engine right."),
            )


def pumps_bear_it(tank: TankAnalysis) -> Iterator[Finding]:
    """Every pump that isn't a spare is listed for the fuels asked for, where it has a list."""
    for fitted, fuel in product(tank.design.brief.pumps, fuels_of(tank)):
        if fitted.pump.fuels and fuel not in fitted.pump.fuels:
            yield _brief(
                "fuel.pump",
                fitted.id,
                "stop",
                words("{pump} isn't made for {fuel}", pump=fitted.pump.name, fuel=fuel),
                words(
                    "Its list says {list}. Seals and windings that aren't made for it fail in the tank.",
                    list=", ".join(fitted.pump.fuels),
                ),
                fuel,
            )
