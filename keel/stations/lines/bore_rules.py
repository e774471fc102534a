"""What is too narrow for what flows there."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, saying
from keel.studies.lines.bores import NARROWEST
from keel.studies.lines.stretches import STRETCHES

_lines = saying("lines")
KNOWN_WITHIN_MM = 0.05
"""Bores are measured, and listed, to a tenth."""


def fuel_is_slow_enough(tank: TankAnalysis) -> Iterator[Finding]:
    """No line is too narrow for what flows in it."""
    for one in tank[STRETCHES]:
        if one.limit_ms is not None and one.fastest_ms > one.limit_ms and one.bore_needed_mm is not None:
            yield _lines(
                "lines.fast",
                one.id,
                "stop" if one.service == "suction" else "caution",
                "{name}: {fastest_ms} in {mode}, limit {limit_ms} ({service})",
                "{most_lph} in a bore of {bore_sheet}: {needed_sheet} or more is wanted. A suction line that is too "
                "fast boils, a return that is too narrow raises the rail's pressure.",
                name=one.name,
                fastest_ms=one.fastest_ms,
                mode=one.fastest_mode,
                limit_ms=one.limit_ms,
                service=one.service,
                most_lph=one.most_lph,
                bore_sheet=one.bore_mm,
                needed_sheet=one.bore_needed_mm,
            )


def nothing_inside_is_narrow(tank: TankAnalysis) -> Iterator[Finding]:
    """No bought part and no formed end throttles a run that is wide enough itself."""
    told: set[str] = set()
    for way in tank[NARROWEST]:
        place = way.tightest
        if not place.is_inside or place.at in told or place.bore_mm + KNOWN_WITHIN_MM >= (place.needed_mm or 0.0):
            continue
        told.add(place.at)
        yield _lines(
            "lines.narrow",
            place.of,
            "caution",
            "{at}: bore {bore_sheet}, limit {needed_sheet} for {most_lph}",
            "The narrowest place for its flow from {start} to {end}: there fuel goes faster than {limit_ms}, and loses "
            "pressure that the run was made wide for.",
            at=place.at[0].upper() + place.at[1:],
            bore_sheet=place.bore_mm,
            needed_sheet=place.needed_mm or 0.0,
            most_lph=place.most_lph,
            limit_ms=place.limit_ms or 0.0,
            start=way.start,
            end=way.end,
        )
