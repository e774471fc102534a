"""Buying: everything that is needed on the day, and whether anything is missing."""

from collections.abc import Iterator
from functools import wraps

from keel.analysis.tank import TankAnalysis
from keel.design.buying import Buying
from keel.design.document import Design
from keel.findings.finding import Finding, Rule
from keel.stations.buying import rules
from keel.stations.station import Station
from keel.studies.buying.buying_list import BUYING_LIST
from keel.studies.buying.mates import MATES


def _is_begun(design: Design) -> bool:
    return bool(design.lines.runs) or design.buying != Buying()


def _once_drawn(rule: Rule) -> Rule:
    """Nothing is worked out for a tank that has no lines yet."""

    @wraps(rule)
    def judged(tank: TankAnalysis) -> Iterator[Finding]:
        return rule(tank) if _is_begun(tank.design) else iter(())

    return judged


BUYING = Station(
    name="buying",
    title="Buying",
    is_begun=_is_begun,
    studies={"list": BUYING_LIST, "mates": MATES},
    rules=(_once_drawn(rules.every_connection_has_its_mate), _once_drawn(rules.lines_still_apply)),
)
