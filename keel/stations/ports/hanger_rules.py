"""Whether what hangs reaches, and goes in."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, of_station
from keel.studies.ports.reach import HUNG, REACHES
from keel.studies.result import words

_finding = of_station("ports")
ROUNDING_MM = 1e-6


def hangers_reach(tank: TankAnalysis) -> Iterator[Finding]:
    """Every hanger reaches the floor; the second measurement agrees."""
    for reach in tank[REACHES]:
        if reach.agrees is False:
            yield _finding(
                "reach.mismatch",
                reach.id,
                "stop",
                words(
                    "{name}: measured {second_mm}, calculated {depth_mm}",
                    name=reach.name,
                    second_mm=reach.second_mm or 0.0,
                    depth_mm=reach.depth_mm,
                ),
                words("Two measurements that don't agree: cut nothing before you know which is right."),
            )
        if reach.short_mm > ROUNDING_MM:
            yield _finding(
                "reach.short",
                reach.id,
                "stop",
                words("{name} stops {short_mm} short of the floor", name=reach.name, short_mm=reach.short_mm),
                words(
                    "The tank is {depth_mm} deep there from flange seat to floor, it is made for {made_mm}. "
                    "What lies below it can't be drawn.",
                    depth_mm=reach.depth_mm,
                    made_mm=reach.made_for_mm,
                ),
            )
        elif reach.too_long_mm > ROUNDING_MM:
            yield _finding(
                "reach.long",
                reach.id,
                "stop",
                words(
                    "{name} stays {over_mm} too long, cut as far as it may be",
                    name=reach.name,
                    over_mm=reach.too_long_mm,
                ),
                words(
                    "Made for {made_mm}, the tank is {depth_mm} deep there, with bracket and tube at their least.",
                    made_mm=reach.made_for_mm,
                    depth_mm=reach.depth_mm,
                ),
            )
        elif reach.short_mm < -ROUNDING_MM and reach.agrees is None:
            yield _finding(
                "reach.cut",
                reach.id,
                "note",
                words("{name} has to be cut by {more_mm}", name=reach.name, more_mm=-reach.short_mm),
                words(
                    "Made for {made_mm}, the tank is {depth_mm} deep there. Measure once more in the finished opening, "
                    "another way, and type it before the first cut.",
                    made_mm=reach.made_for_mm,
                    depth_mm=reach.depth_mm,
                ),
            )


def parts_go_in(tank: TankAnalysis) -> Iterator[Finding]:
    """What hangs passes its hole and meets nothing inside."""
    for item in tank[HUNG]:
        if item.passes is False:
            yield _finding(
                "port.hole",
                item.id,
                "stop",
                words(
                    "{name} doesn't go through its hole: {widest_mm} through {hole_mm}",
                    name=item.name,
                    widest_mm=item.widest_mm,
                    hole_mm=item.hole_mm or 0.0,
                ),
                words("Its widest measure on the way in is more than the hole. Find a larger ring or a slimmer part."),
            )
        if item.meets:
            yield _finding(
                "port.meets",
                item.id,
                "stop",
                words("{name} meets {what} inside", name=item.name, what=" and ".join(item.meets)),
                words("It can't be put in, or rubs through. Move one of them."),
            )
