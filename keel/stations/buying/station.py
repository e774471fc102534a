"""Buying: everything that is needed on the day, and whether anything is missing."""

from keel.design.buying import Buying
from keel.design.document import Design
from keel.stations.buying import rules
from keel.stations.station import Station, once
from keel.studies.buying.buying_list import BUYING_LIST
from keel.studies.buying.mates import MATES


def _is_begun(design: Design) -> bool:
    return bool(design.lines.runs) or design.buying != Buying()


BUYING = Station(
    name="buying",
    title="Buying",
    is_begun=_is_begun,
    studies={"list": BUYING_LIST, "mates": MATES},
    rules=once(_is_begun, (rules.every_connection_has_its_mate, rules.lines_still_apply)),
)
