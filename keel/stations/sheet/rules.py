"""What can't be bent, rolled, cut or laid on the stock."""

from collections.abc import Iterator, Sequence
from math import sqrt

from keel.analysis.parts import LIP
from keel.analysis.tank import TankAnalysis
from keel.design.workshop import StockSheet
from keel.findings.finding import Finding, of_station
from keel.reference.metals import METALS
from keel.studies.result import words
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.unfold import SHEET

_sheet = of_station("sheet")


ROUNDING_MM = 1e-6


def closed_box(tank: TankAnalysis) -> Iterator[Finding]:
    """The wrapper is large enough inside for the brake to close it."""
    least, names = tank.workshop.brake.smallest_closed_box_mm, ("width", "height")
    if tank.solids.section.across == 0:
        names = ("length", "height")
    for name, inside in zip(names, tank[SHEET].section_inside_mm or (), strict=False):
        if inside < least - ROUNDING_MM:
            yield _sheet(
                "brake.closed_box",
                name,
                "stop",
                words(
                    "Wrapper {inside_mm} in {name} inside, {brake} closes from {least_mm}",
                    inside_mm=inside,
                    name=name,
                    brake=tank.workshop.brake.name,
                    least_mm=least,
                ),
                words("The last bend closes the wrapper round the brake's beam: it couldn't be taken off again."),
            )


def brake_width(tank: TankAnalysis) -> Iterator[Finding]:
    """No bend is longer than the brake."""
    width = tank.workshop.brake.width_mm
    if tank[SHEET].bends and tank[SHEET].overall_mm > width + ROUNDING_MM:
        yield _sheet(
            "brake.width",
            "",
            "stop",
            words(
                "Bends of the wrapper {bend_mm} long, {brake} at most {width_mm}",
                bend_mm=tank[SHEET].overall_mm,
                brake=tank.workshop.brake.name,
                width_mm=width,
            ),
            words(
                "That is the tank along the wrapper with a {lip_mm} lip at each end for the inset pans.",
                lip_mm=tank[LIP],
            )
            if tank[LIP]
            else words("That is the tank along the wrapper, over its ends."),
        )


def brake_bends_it(tank: TankAnalysis) -> Iterator[Finding]:
    """No part that is bent is thicker than the brake bends: force goes with yield · t²."""
    brake, metal = tank.workshop.brake, METALS[tank.shell.metal]
    most = brake.thickest_steel_mm * sqrt(METALS["mild steel"].yield_mpa / metal.yield_mpa)
    bent = [part for part in tank[SHEET].parts if part.bends]
    thickest = max((part.thickness_mm for part in bent), default=0.0)
    if thickest > most + ROUNDING_MM:
        yield _sheet(
            "brake.thick",
            "",
            "stop",
            words(
                "{metal} {thickness_sheet} thick, {brake} at most {most_sheet}",
                brake=brake.name,
                thickness_sheet=thickest,
                metal=tank.shell.metal,
                most_sheet=most,
            ),
            words(
                "It bends {steel_sheet} of mild steel over its width; force goes with yield · t².",
                steel_sheet=brake.thickest_steel_mm,
            ),
        )


def holes_are_drawn(tank: TankAnalysis) -> Iterator[Finding]:
    """No part goes to be cut without the holes of its ports."""
    for part in tank[SHEET].parts:
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


def pan_flange(tank: TankAnalysis) -> Iterator[Finding]:
    """The pans' flanges are long enough to weld and to bend."""
    rules, brake, flange = tank.workshop.rules, tank.workshop.brake, tank[SHEET].flange_mm
    least = max(rules.flange_least_mm, brake.shortest_flange_mm)
    if flange is not None and flange < least - ROUNDING_MM:
        yield _sheet(
            "pan.flange",
            "",
            "caution",
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
        yield _sheet("pan.impossible", "", "stop", words("The end pans can't be folded"), impossible)


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


def features_not_unfolded(tank: TankAnalysis) -> Iterator[Finding]:
    """Say which features the flat parts leave out."""
    unfolded = {part.feature for part in tank[SHEET].parts}
    left_out = [cost.name for cost in tank.solids.costs if cost.kind != "roof step" and cost.id not in unfolded]
    if left_out:
        yield _sheet(
            "sheet.features",
            "",
            "note",
            words("Not among the flat parts: {names}", names=", ".join(left_out)),
            words(
                "Their plates and their openings in the shell have to be laid out by hand. "
                "The mass in the tally has them in; weld, too."
            ),
        )
