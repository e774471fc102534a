"""What is wrong with hoses: what kinks them, and what is shorter than its own ends."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, saying
from keel.studies.lines.hoses import HOSES, HoseCut
from keel.studies.lines.pushed import PUSHED
from keel.studies.lines.run_shapes import RUN_SHAPES

_lines = saying("lines")
CROWDED_MM = 1.0
ASKEW_DEG = 45.0


def hoses_can_be_made(tank: TankAnalysis) -> Iterator[Finding]:
    """Every hose is longer than its ends, and bends no tighter than it may."""
    for hose in tank[HOSES].cut:
        if hose.turns_back:
            yield _lines(
                "lines.turns_back",
                hose.id,
                "stop",
                "{name}: turns back on itself, limit less than 180° at a corner",
                "It kinks there and shuts: two corners with room between them don't.",
                name=hose.name,
            )
        elif hose.cut_mm <= 0:
            yield _lines(
                "lines.short_hose",
                hose.id,
                "stop",
                "{name}: way of {route_mm}, limit more than its ends' {takes_mm}",
                "Its ends are longer than it: screw the parts together, or set them further apart.",
                name=hose.name,
                route_mm=hose.route_mm,
                takes_mm=sum(end.takes_mm for end in hose.ends),
            )
        else:
            yield from _kinks(hose)


def hoses_leave_straight(tank: TankAnalysis) -> Iterator[Finding]:
    """A hose outside the tank that is pushed on a tail or a tube goes on straight from there."""
    outside = {shape.id for shape in tank[RUN_SHAPES] if not shape.inside}
    for hose in tank[HOSES].cut:
        turned = max((end.turns_deg for end in hose.ends if end.clamped), default=0.0)
        if hose.id in outside and turned > ASKEW_DEG:
            yield _lines(
                "lines.askew",
                hose.id,
                "caution",
                "{name}: leaves its tail {turned_deg} off straight, limit {most_deg} (house rule)",
                "It kinks behind the clamp and lifts off on one side. Lead it out straight, or turn the part.",
                name=hose.name,
                turned_deg=turned,
                most_deg=ASKEW_DEG,
            )


def hoses_are_pushed_on(tank: TankAnalysis) -> Iterator[Finding]:
    """A hose is pushed on far enough, with room for its clamp."""
    for one in tank[PUSHED]:
        if one.pushed_mm < one.least_mm:
            yield _lines(
                "lines.pushed",
                f"{one.run}.{one.side}",
                "stop",
                "{name}: pushed {pushed_mm} on at its {side}, limit {least_mm} (house rule)",
                "It blows off under pressure, or works off by itself; clamped there, the clamp holds air.",
                name=one.name,
                side=one.side,
                pushed_mm=one.pushed_mm,
                least_mm=one.least_mm,
            )


def _kinks(hose: HoseCut) -> Iterator[Finding]:
    if hose.radius_mm < hose.least_radius_mm:
        yield _lines(
            "lines.kink",
            hose.id,
            "stop",
            "{name}: bends to {radius_mm}, limit {least_mm}"
            + ("" if hose.is_carded else ", usual: its card isn't known"),
            "Tighter it kinks, its bore closes, and its lining cracks where nobody sees it.",
            name=hose.name,
            radius_mm=hose.radius_mm,
            least_mm=hose.least_radius_mm,
        )
    crowded = min(hose.straights_mm, default=0.0)
    if crowded < -CROWDED_MM:
        yield _lines(
            "lines.crowded",
            hose.id,
            "caution",
            "{name}: corners too near each other by {over_mm} for bends of {radius_mm}",
            "It can't lie as it is drawn: it goes wider, or kinks. Move a corner, or take an end with an elbow.",
            name=hose.name,
            over_mm=-crowded,
            radius_mm=hose.radius_mm,
        )
