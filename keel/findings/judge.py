"""Every rule on a design."""

from keel.findings import rules, shape_rules
from keel.findings.finding import Finding
from keel.studies.studied import Studied

RULES = (
    rules.bay_clearance,
    *rules.SHEET_RULES,
    *shape_rules.SHAPE_RULES,
    rules.capacity_below,
    rules.wall_thickness,
    rules.capacity_beyond,
)

WEIGHT = {"stop": 0, "caution": 1, "note": 2}


def judge(seen: Studied) -> list[Finding]:
    """Every finding on a design, stops first, without remedies."""
    found = [finding for rule in RULES for finding in rule(seen)]
    return sorted(found, key=lambda finding: WEIGHT[finding.severity])
