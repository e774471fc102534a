"""What can't be flanged, rolled, cut or laid on the stock."""

from collections.abc import Iterator, Sequence
from math import inf

from keel.analysis.tank import TankAnalysis
from keel.design.workshop import StockSheet
from keel.findings.finding import Finding, of_station
from keel.reference.metals import METALS
from keel.studies.result import words
from keel.studies.sheet.cutting import CUTTING
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.hems import is_hem
from keel.studies.sheet.machines import BRAKE, is_sent
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.unfold import SHEET

_sheet = of_station("sheet")


ROUNDING_MM = 1e-6


def means_to_cut(tank: TankAnalysis) -> Iterator[Finding]:
    """Something here cuts every part; looked at once the hand rests."""
    for part in tank[CUTTING] if tank.is_at_rest else ():
        if not part.by and not is_sent(part.name, tank.design.sheet.sent_out):
            yield _sheet(
                "cut.none",
                part.name,
                "note",
                words("Nothing here cuts the outline of the {part}", part=part.title.lower()),
                words(
                    "By thickness, length, inside corners and curves of the means that the workshop lists: send it out."
                ),
            )


def pan_flange(tank: TankAnalysis) -> Iterator[Finding]:
    """The pans' flanges are long enough to weld and to bend."""
    rules, brake, flange = tank.workshop.rules, tank[BRAKE], tank[SHEET].flange_mm
    least = max(rules.flange_least_mm, brake.shortest_flange_mm)
    bent_here = not is_sent("end-pan", tank.design.sheet.sent_out)
    if flange is not None and flange < least - ROUNDING_MM:
        yield _sheet(
            "pan.flange",
            "",
            "stop" if bent_here and flange < brake.shortest_flange_mm - ROUNDING_MM else "caution",
            words(
                "Pan flange {flange_mm}, at least {least_mm} ({source})",
                flange_mm=flange,
                least_mm=least,
                source="house rule" if rules.flange_least_mm >= brake.shortest_flange_mm else brake.name,
            ),
            words(
                "They weld well from {weld_mm} (house rule) and {brake} bends {bend_mm} or more.",
                weld_mm=rules.flange_least_mm,
                brake=brake.name,
                bend_mm=brake.shortest_flange_mm,
            ),
        )


def pan_possible(tank: TankAnalysis) -> Iterator[Finding]:
    """The end pans can be folded at all."""
    impossible = tank[SHEET].impossible
    if impossible is not None:
        yield _sheet(
            "pan.impossible", "", "stop", words("The {scheme} can't be folded", scheme=_named(tank)), impossible
        )


def _named(tank: TankAnalysis) -> str:
    return "end pans" if tank[SHEET].notch else tank[SHEET].scheme


def stock_sheet(tank: TankAnalysis) -> Iterator[Finding]:
    """There is stock of every part's thickness, and each part lies on a sheet of it."""
    shell = tank.shell
    # The shell's own thickness counts even where its parts can't be folded.
    thicknesses = dict.fromkeys([shell.thickness_mm, *(part.thickness_mm for part in tank[SHEET].parts)])
    for thickness in thicknesses:
        stock = tank.workshop.sheets_of(shell.metal, thickness)
        if stock:
            parts = [part for part in tank[SHEET].parts if part.thickness_mm == thickness]
            yield from (_too_large(part, stock) for part in parts if not _lies_on(part, stock))
            continue
        yield _sheet(
            "stock.none",
            "" if thickness == shell.thickness_mm else f"{thickness:g}",
            "note",
            words("No {thickness_sheet} {metal} in stock", thickness_sheet=thickness, metal=shell.metal),
            words("The workshop's list of sheets has none of this metal and thickness: it has to be bought in."),
        )


def _lies_on(part: FlatPart, stock: Sequence[StockSheet]) -> bool:
    return any(fits_on(part.length_mm, part.width_mm, s.length_mm, s.width_mm) for s in stock)


def _too_large(part: FlatPart, stock: Sequence[StockSheet]) -> Finding:
    largest = max(stock, key=lambda s: s.length_mm * s.width_mm)
    return _sheet(
        "stock.size",
        part.name,
        "stop",
        words(
            "{part} {length_mm} × {width_mm}, largest sheet in stock {stock_length_mm} × {stock_width_mm}",
            part=part.title,
            length_mm=part.length_mm,
            width_mm=part.width_mm,
            stock_length_mm=largest.length_mm,
            stock_width_mm=largest.width_mm,
        ),
        words("It can't be cut from one piece: buy a larger sheet, or make the tank smaller."),
    )


def bent_across_the_grain(tank: TankAnalysis) -> Iterator[Finding]:
    """No tight bend lies along the grain for want of a wider sheet; looked at once the hand rests."""
    metal = METALS[tank.shell.metal]
    for part in tank[FLATS].parts if tank.is_at_rest and metal.bend_radius_least < metal.bend_radius_sure else ():
        tight = min((bend.radius_mm for bend in part.bends if not is_hem(bend)), default=inf)
        sure, stock = (
            metal.bend_radius_sure * part.thickness_mm,
            tank.workshop.sheets_of(tank.shell.metal, part.thickness_mm),
        )
        if tight < sure - ROUNDING_MM and _lies_on(part, stock) and not any(_lies_with(part, sheet) for sheet in stock):
            yield _sheet(
                "stock.grain",
                part.name,
                "caution",
                words(
                    "Bends of the {part} lie along the grain, radius {radius_mm}, sure from {sure_mm}",
                    part=part.title.lower(),
                    radius_mm=tight,
                    sure_mm=sure,
                ),
                words(
                    "It lies on the sheets in stock one way only, its longest bends along the way they were rolled, "
                    "where they crack first. Take a wider radius, a larger sheet, or bend a strip of it first."
                ),
            )


def _lies_with(part: FlatPart, sheet: StockSheet) -> bool:
    """Whether a part lies on a sheet with its grain along the sheet's length, the way it was rolled."""
    along, across = (part.length_mm, part.width_mm) if part.grain == "length" else (part.width_mm, part.length_mm)
    return along <= sheet.length_mm + ROUNDING_MM and across <= sheet.width_mm + ROUNDING_MM


def fits_on(
    length_mm: float, width_mm: float, sheet_length_mm: float, sheet_width_mm: float, margin_mm: float = 0.0
) -> bool:
    """Whether a rectangle lies square on a sheet, turned by 90° if need be.

    Parameters
    ----------
    length_mm, width_mm, sheet_length_mm, sheet_width_mm : float
        [mm]
    margin_mm : float
        Edge of the sheet left unused on every side [mm].
    """
    long, short = sheet_length_mm - 2 * margin_mm, sheet_width_mm - 2 * margin_mm
    upright = length_mm <= long and width_mm <= short
    return upright or (width_mm <= long and length_mm <= short)


def rolls_can_be_made(tank: TankAnalysis) -> Iterator[Finding]:
    """No roll is tighter than the workshop's rolls bend."""
    radius, rolls = tank[SHEET].roll_radius_mm, tank.workshop.rolls
    if radius is not None and radius < rolls.least_radius_mm - ROUNDING_MM:
        yield _sheet(
            "rolls.tight",
            "",
            "stop",
            words(
                "Roll radius {radius_mm}, at least {least_mm} on {name}",
                radius_mm=radius,
                least_mm=rolls.least_radius_mm,
                name=rolls.name,
            ),
            words("Tighter has to be bent in steps or bought in."),
        )
    if radius is not None and tank[SHEET].overall_mm > rolls.width_mm + ROUNDING_MM:
        yield _sheet(
            "rolls.width",
            "",
            "stop",
            words(
                "Rolled wrapper {long_mm} long, {name} at most {width_mm}",
                long_mm=tank[SHEET].overall_mm,
                name=rolls.name,
                width_mm=rolls.width_mm,
            ),
            words("Make the tank shorter along its axis, or have it rolled elsewhere."),
        )
