"""What is wrong with the brief, and with what the engine is fed by."""

from collections.abc import Iterator
from itertools import product

from keel.analysis.tank import TankAnalysis
from keel.design.brief import CardRule, DemandCase
from keel.design.document import Design
from keel.design.workshop import HouseRules
from keel.findings.finding import Finding, of_station, saying
from keel.findings.fuels import fuels_of
from keel.reference.engines import DIESEL_FUELS
from keel.reference.fuels import FUELS
from keel.studies.cost.figures import FIGURES
from keel.studies.demand.demand import Demand, demands
from keel.studies.demand.surge_methods import surge_answer
from keel.studies.result import Words, words

_brief = of_station("brief")
_finding = of_station("brief")
_say = saying("brief")


def brief_findings(design: Design, rules: HouseRules) -> Iterator[Finding]:
    """What is wrong with the brief by itself, with or without a shell."""
    cases = {case.id: case for case in design.brief.cases}
    for demand in demands(design.brief, rules):
        yield from _pumps(demand, cases[demand.id], rules)
    yield from _surge(design, rules)


def _pumps(demand: Demand, case: DemandCase, rules: HouseRules) -> Iterator[Finding]:
    beyond = [pump.name for pump in demand.pumps if pump.flow_l_per_h is None and not pump.spare]
    if beyond:
        title = "{names}: no figure at {rail_kpa} and {supply_v} ({case})"
        why = "That lies beyond the pump's table, and nothing is guessed beyond it. Measure it there."
        values: dict[str, float | str] = {"names": ", ".join(beyond), "case": demand.name}
        yield _say(
            "pump.beyond", demand.id, "caution", title, why, rail_kpa=case.rail_kpa, supply_v=case.supply_v, **values
        )
    if demand.short_l_per_h:
        title = "Pump flow {running_lph} for {case}, at least {needed_lph} (+{margin_pct}, house rule)"
        why = (
            "{short_lph} short at rail pressure and supply voltage; a spare isn't counted. A lean engine burns its "
            "pistons."
        )
        flows = _flows(demand, demand.running_l_per_h, demand.short_l_per_h, rules)
        yield _say("pump.short", demand.id, "stop", title, why, **flows)
    elif demand.low_short_l_per_h:
        title = "Pump flow at low voltage {running_lph} for {case}, at least {needed_lph} (+{margin_pct}, house rule)"
        why = "A tired battery or a thin wire takes the margin away: shorten or thicken the wire, or fit more pump."
        flows = _flows(demand, demand.low_running_l_per_h, demand.low_short_l_per_h, rules)
        yield _say("pump.low_voltage", demand.id, "caution", title, why, **flows)


def _flows(demand: Demand, running: float | None, short: float, rules: HouseRules) -> dict[str, float | str]:
    return {
        "running_lph": running or 0.0,
        "case": demand.name,
        "needed_lph": demand.needed_l_per_h,
        "short_lph": short,
        "margin_pct": rules.pump_margin,
    }


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
                "Lift pump {lift_lph}, more than the engine's {engine_lph} needed",
                lift_lph=surge.lift_l_per_h or 0.0,
                engine_lph=answer.engine_l_per_h,
            ),
            words("It never refills the surge tank, and the engine runs dry after the first dip."),
        )
    elif sizing.refilled_in_time is False and sizing.refill_s is not None and surge.gap_s is not None:
        yield _finding(
            "surge.refill",
            "refill",
            "caution",
            words(
                "Refilling the surge tank takes {refill_s}, the next dry spell comes after {gap_s}",
                refill_s=sizing.refill_s,
                gap_s=surge.gap_s,
            ),
            words(
                "It starts that one {drawn_l} short or less: it needs more volume or more lift.", drawn_l=sizing.drawn_l
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
    subject, at, end = rule.subject.rpartition(" at ")
    said = f"{{rule}}: {{subject}} {{value_{unit}}},{at}{end} {{limit_{unit}}}"
    return Words(said, {"rule": rule.rule, "subject": subject, f"limit_{unit}": rule.limit, f"value_{unit}": value})


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
            words(
                "Fuel {share_pct} of the vehicle's mass, limit {rule_pct} (house rule)",
                share_pct=share,
                rule_pct=tank.workshop.rules.fuel_share,
            ),
            words(
                "{fuel_kg} at rated capacity: the vehicle handles differently full and empty.", fuel_kg=fuel_kg(tank)
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
