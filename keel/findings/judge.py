"""Every rule on a design."""

from keel.findings import (
    brief_rules,
    fuel_rules,
    gauge_rules,
    hazard_rules,
    inside_rules,
    port_rules,
    rules,
    shape_rules,
)
from keel.findings.finding import Finding
from keel.studies.studied import Studied

RULES = (
    rules.bay_clearance,
    *rules.SHEET_RULES,
    *shape_rules.SHAPE_RULES,
    rules.capacity_below,
    rules.wall_thickness,
    rules.capacity_beyond,
    brief_rules.card_is_kept,
    brief_rules.fuel_is_a_fair_share,
    *port_rules.PORT_RULES,
    *hazard_rules.HAZARD_RULES,
    *fuel_rules.FUEL_RULES,
    *gauge_rules.GAUGE_RULES,
    *inside_rules.INSIDE_RULES,
)

WEIGHT = {"stop": 0, "caution": 1, "note": 2}


def judge(seen: Studied) -> list[Finding]:
    """Every finding on a design, stops first, without remedies."""
    found = [finding for rule in RULES for finding in rule(seen)]
    return sorted_by_weight([*found, *brief_rules.brief_findings(seen.design, seen.workshop.rules)])


def sorted_by_weight(found: list[Finding]) -> list[Finding]:
    """Stops first, then cautions, then notes."""
    return sorted(found, key=lambda finding: WEIGHT[finding.severity])
