"""Holes on the flats, before they are cut; looked at once the hand rests."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, of_station
from keel.studies.ports.landing import LANDINGS
from keel.studies.result import words
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.hole_checks import HOLE_CHECKS, HoleCheck

_sheet = of_station("sheet")
ROUNDING_MM, HALF_MM = 1e-6, 0.5
HOLE_TO_BEND = 2.0
"""A hole's rim stays off a bend's zone by so many thicknesses."""


def holes_are_drawn(tank: TankAnalysis) -> Iterator[Finding]:
    """No part goes to be cut without the holes of its ports; looked for once the hand rests."""
    for part in tank[FLATS].parts if tank.is_at_rest else ():
        if part.holes_not_drawn:
            yield _sheet(
                "sheet.holes",
                part.name,
                "stop",
                words("The {part} is drawn without its holes", part=part.title.lower()),
                words(
                    "Its files lack the holes for {names}, and say so. Lay them out on it by the port schedule and the "
                    "templates before it is cut or bent.",
                    names=", ".join(part.holes_not_drawn),
                ),
            )


def holes_stand_clear(tank: TankAnalysis) -> Iterator[Finding]:
    """No hole is drawn oval by a bend or cut into an edge or another hole; looked at once the hand rests."""
    if not tank.is_at_rest:
        return
    outer = {port.id: port.seat.outer_mm for port in tank.design.ports if port.seat}
    sound = {land.id for land in tank[LANDINGS] if land.flat_mm >= land.needed_mm - HALF_MM}
    thick = {part.name: part.thickness_mm for part in tank[FLATS].parts}
    land = tank.workshop.rules.land_mm
    for hole in tank[HOLE_CHECKS]:
        ring, least = (outer[hole.port] - hole.diameter_mm) / 2, HOLE_TO_BEND * thick[hole.part]
        if hole.edge_mm < 0 or (hole.other_mm is not None and hole.other_mm < 0):
            yield _runs_out(hole)
        elif hole.bend_mm is not None and hole.bend_mm < least:
            yield _by_a_bend(hole, least)
        elif hole.port in sound and hole.edge_mm - ring < land - ROUNDING_MM:
            yield _by_an_edge(hole, hole.edge_mm - ring, land)


def _runs_out(hole: HoleCheck) -> Finding:
    return _sheet(
        "hole.runs_out",
        hole.port,
        "stop",
        words(
            "Hole of {name} runs {over_mm} into an edge or another hole of the {part}",
            name=hole.name,
            over_mm=-min(hole.edge_mm, 0.0 if hole.other_mm is None else hole.other_mm),
            part=hole.title.lower(),
        ),
        words("There is no sheet all round it to weld to. Move it, or choose a smaller seat."),
    )


def _by_a_bend(hole: HoleCheck, least_mm: float) -> Finding:
    return _sheet(
        "hole.bend",
        hole.port,
        "caution",
        words(
            "Hole of {name} {gap_mm} from a bend of the {part}, at least {least_mm}",
            name=hole.name,
            gap_mm=max(0.0, hole.bend_mm or 0.0),
            part=hole.title.lower(),
            least_mm=least_mm,
        ),
        words(
            "Cut first, it is drawn oval when the sheet stretches there: cut it after bending, or move it. "
            "A hole that came out too large is {patch_mm} of disc and {weld_mm} of seam.",
            patch_mm=hole.patch_mm,
            weld_mm=hole.patch_weld_mm,
        ),
    )


def _by_an_edge(hole: HoleCheck, gap_mm: float, land_mm: float) -> Finding:
    return _sheet(
        "hole.edge",
        hole.port,
        "caution",
        words(
            "Weld of {name} {gap_mm} from the edge of the {part}, at least {land_mm} (house rule)",
            name=hole.name,
            gap_mm=max(0.0, gap_mm),
            part=hole.title.lower(),
            land_mm=land_mm,
        ),
        words("Another part is welded there: two welds that near crack between."),
    )
