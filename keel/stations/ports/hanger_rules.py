"""Whether what hangs reaches, and goes in."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, saying
from keel.studies.ports.reach import HUNG, REACHES, Reach

_say = saying("ports")
ROUNDING_MM = 1e-6


def hangers_reach(tank: TankAnalysis) -> Iterator[Finding]:
    """Every hanger reaches the floor; the second measurement agrees."""
    for reach in tank[REACHES]:
        if reach.agrees is False:
            yield _say(
                "reach.mismatch",
                reach.id,
                "stop",
                "{name}: second measurement {second_mm}, calculated {depth_mm}, limit {measure_mm} apart (house rule)",
                "Two measurements that don't agree: cut nothing before you know which is right.",
                name=reach.name,
                second_mm=reach.second_mm or 0.0,
                depth_mm=reach.depth_mm,
                measure_mm=tank.workshop.rules.measure_mm,
            )
        found = _length(reach)
        if found is not None:
            yield found


def _length(reach: Reach) -> Finding | None:
    """Too short, too long for any cut, or to be cut."""
    values: dict[str, float | str] = {"name": reach.name, "depth_mm": reach.depth_mm, "made_mm": reach.made_for_mm}
    if reach.short_mm > ROUNDING_MM:
        title = "{name} {short_mm} short of the floor, {depth_mm} below its flange"
        why = "It is made for {made_mm}. What lies below it can't be drawn."
        return _say("reach.short", reach.id, "stop", title, why, short_mm=reach.short_mm, **values)
    if reach.too_long_mm > ROUNDING_MM:
        title = "{name} {over_mm} too long for {depth_mm} of depth, cut as far as allowed"
        why = "It is made for {made_mm}; bracket and tube are at their least."
        return _say("reach.long", reach.id, "stop", title, why, over_mm=reach.too_long_mm, **values)
    if reach.short_mm < -ROUNDING_MM and reach.agrees is None:
        title = "{name} {more_mm} longer than the {depth_mm} of depth: cut it"
        why = "Measure once more in the finished opening, another way, and type it before the first cut."
        return _say("reach.cut", reach.id, "note", title, why, more_mm=-reach.short_mm, **values)
    return None


def parts_go_in(tank: TankAnalysis) -> Iterator[Finding]:
    """What hangs passes its hole and meets nothing inside."""
    for item in tank[HUNG]:
        if item.passes is False:
            yield _say(
                "port.hole",
                item.id,
                "stop",
                "Insertion diagonal of {name} {widest_mm}, its hole {hole_mm}",
                "It doesn't go through. Find a larger ring or a slimmer part.",
                name=item.name,
                widest_mm=item.widest_mm,
                hole_mm=item.hole_mm or 0.0,
            )
        if item.meets:
            yield _say(
                "port.meets",
                item.id,
                "stop",
                "{name} meets {what} inside",
                "It can't be put in, or rubs through. Move one of them.",
                name=item.name,
                what=" and ".join(item.meets),
            )
