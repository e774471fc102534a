"""What is missing on the list for the day."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, saying
from keel.studies.buying.buying_list import BUYING_LIST
from keel.studies.buying.mates import MATES

_buying = saying("buying")


def every_connection_has_its_mate(tank: TankAnalysis) -> Iterator[Finding]:
    """Nothing of the network is left without what goes on it."""
    wrong = [one for one in tank[MATES] if one.why]
    if wrong:
        first = wrong[0]
        yield _buying(
            "buying.no_mate",
            "",
            "stop",
            "{count} of {all} connections have nothing on the list that fits: {port} of {part} first",
            "On the day that one fitting is missing, and the vehicle stands: {reason}.",
            count=len(wrong),
            all=len(tank[MATES]),
            port=first.port if first.part != "tank" else "the tank's side",
            part=first.part_name,
            reason=first.why,
        )


def lines_still_apply(tank: TankAnalysis) -> Iterator[Finding]:
    """What was ordered is still on the list."""
    rows = {row.key: row for row in tank[BUYING_LIST].rows}
    for line in tank.design.buying.lines:
        if line.ordered <= 0:
            continue
        row = rows.get(line.name)
        needed = row.quantity if row else 0.0
        if line.ordered > needed + 1e-9:
            yield _buying(
                "buying.too_many",
                line.name[:80],
                "note",
                "{name}: {ordered} ordered, {needed} needed",
                "The design has changed since it was ordered: send it back, or keep it as a spare.",
                name=line.name,
                ordered=line.ordered,
                needed=round(needed, 2),
            )
