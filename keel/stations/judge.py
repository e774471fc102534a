"""Every rule of every station on a design."""

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding
from keel.stations.registry import stations

WEIGHT = {"stop": 0, "caution": 1, "note": 2}


def findings_on(tank: TankAnalysis) -> list[Finding]:
    """Every finding on a design, stops first, without remedies; without a shell what is found without one.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of Finding
        Sorted by severity.
    """
    design, rules = tank.design, tank.workshop.rules
    found: list[Finding] = []
    if design.shell is not None:
        found += [finding for station in stations() for rule in station.rules for finding in rule(tank)]
    found += [f for station in stations() for rule in station.document_rules for f in rule(design, rules)]
    return sorted(found, key=lambda finding: WEIGHT[finding.severity])
