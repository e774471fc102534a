"""Every rule of every station on a design."""

from keel.design.document import Design
from keel.design.workshop import HouseRules
from keel.findings.finding import Finding
from keel.stations.registry import stations
from keel.studies.studied import Studied

WEIGHT = {"stop": 0, "caution": 1, "note": 2}


def judge(seen: Studied) -> list[Finding]:
    """Every finding on a design, stops first, without remedies."""
    found = [finding for station in stations() for rule in station.rules for finding in rule(seen)]
    return by_weight([*found, *judge_document(seen.design, seen.workshop.rules)])


def judge_document(design: Design, rules: HouseRules) -> list[Finding]:
    """What is found with or without a shell, stops first."""
    return by_weight([f for station in stations() for rule in station.document_rules for f in rule(design, rules)])


def by_weight(found: list[Finding]) -> list[Finding]:
    """Stops first, then cautions, then notes."""
    return sorted(found, key=lambda finding: WEIGHT[finding.severity])
