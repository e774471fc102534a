"""What is wrong with rigid tubes: what the bender can't hold or bend."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, saying
from keel.studies.lines.tubes import TUBES

_lines = saying("lines")
ASKEW_DEG = 3.0


def tubes_can_be_bent(tank: TankAnalysis) -> Iterator[Finding]:
    """Every straight is long enough for the bender, and for what goes on its end."""
    for tube in tank[TUBES]:
        if tube.turns_back:
            yield _lines(
                "lines.turns_back",
                tube.id,
                "stop",
                "{name}: turns back on itself, limit less than 180° at a corner",
                "No bender makes that: two corners with a straight between them do.",
                name=tube.name,
            )
            continue
        worst = min(range(len(tube.straights_mm)), key=lambda n: tube.straights_mm[n], default=None)
        if worst is not None and tube.short[worst]:
            crowded = tube.straights_mm[worst] < 0
            yield _lines(
                "lines.short_straight",
                tube.id,
                "stop",
                "{name}: bends {one} and {other} run into each other by {over_mm}, limit {grip_mm} of straight between"
                if crowded and 0 < worst < len(tube.bends)
                else "{name}: straight {number} is {long_mm}, limit {grip_mm}",
                "Twice its outside, or what the bender holds: less slips, ovals, or leaves no room for nut, bead or "
                "flare.",
                name=tube.name,
                number=worst + 1,
                one=worst,
                other=worst + 1,
                over_mm=-tube.straights_mm[worst],
                long_mm=tube.straights_mm[worst],
                grip_mm=tube.least_grip_mm,
            )


def tubes_meet_their_ports(tank: TankAnalysis) -> Iterator[Finding]:
    """A rigid tube ends straight in its port."""
    for tube in tank[TUBES]:
        turned = max(tube.askew_deg, default=0.0)
        if turned > ASKEW_DEG:
            yield _lines(
                "lines.tube_askew",
                tube.id,
                "stop",
                "{name}: meets its port {turned_deg} off straight, limit {most_deg} (house rule)",
                "Its nut doesn't start, or its seat leaks: a corner straight before the port.",
                name=tube.name,
                turned_deg=turned,
                most_deg=ASKEW_DEG,
            )


def springback_is_known(tank: TankAnalysis) -> Iterator[Finding]:
    """Every bent tube has a bender with a strip."""
    known = {bender.name for bender in tank.workshop.benders if bender.springback}
    for tube in tank[TUBES]:
        if tube.bends and tube.bender not in known:
            yield _lines(
                "lines.springback",
                tube.id,
                "note",
                "{name}: no strip bent from {outside_sheet} tube on a bender of this shop"
                if not tube.bender
                else "{name}: no strip bent on {bender}",
                "Its set angles are its angles: bend one, measure what is left, and type both at Workshop.",
                name=tube.name,
                bender=tube.bender,
                outside_sheet=tube.outside_mm,
            )
