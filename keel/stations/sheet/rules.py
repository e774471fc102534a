"""What can't be bent, rolled, cut or laid on the stock."""

from collections.abc import Iterator, Sequence
from math import hypot

from keel.analysis.parts import LIP
from keel.analysis.tank import TankAnalysis
from keel.design.workshop import StockSheet
from keel.findings.finding import Finding, of_station
from keel.studies.result import words
from keel.studies.sheet.bending import BENDINGS
from keel.studies.sheet.cutting import CUTTING
from keel.studies.sheet.machines import BRAKE, in_house, is_sent, thickest_mm, wall_mm
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.unfold import SHEET

_sheet = of_station("sheet")


ROUNDING_MM = 1e-6


def closed_box(tank: TankAnalysis) -> Iterator[Finding]:
    """The wrapper is large enough inside for the brake to close it."""
    brake, names = tank[BRAKE], ("width", "height")
    least = brake.smallest_closed_box_mm
    if _all_sent(tank, "wrapper"):
        return
    if tank.solids.section.across == 0:
        names = ("length", "height")
    if least is None and tank[SHEET].section_inside_mm:
        yield _sheet(
            "brake.closed_box",
            "",
            "stop",
            words("Wrapper closed by its last bend, {brake} closes 0 wrappers", brake=brake.name),
            words(
                "Its punch or beam couldn't be taken out again: make the tank of other parts, or send the wrapper out."
            ),
        )
        return
    for name, inside in zip(names, tank[SHEET].section_inside_mm or (), strict=False):
        if least is not None and inside < least - ROUNDING_MM:
            yield _sheet(
                "brake.closed_box",
                name,
                "stop",
                words(
                    "Wrapper {inside_mm} in {name} inside, {brake} closes from {least_mm}",
                    inside_mm=inside,
                    name=name,
                    brake=brake.name,
                    least_mm=least,
                ),
                words("The last bend closes the wrapper round the brake's beam: it couldn't be taken off again."),
            )


def brake_width(tank: TankAnalysis) -> Iterator[Finding]:
    """No bend of the shell is longer than the brake."""
    brake = tank[BRAKE]
    bent = [(hypot(b.end[0] - b.start[0], b.end[1] - b.start[1]), part) for part in _shell(tank) for b in part.bends]
    longest, part = max(bent, key=lambda one: one[0], default=(0.0, None))
    if part is not None and longest > brake.width_mm + ROUNDING_MM:
        yield _sheet(
            "brake.width",
            "",
            "stop",
            words(
                "Bends of the {part} {bend_mm} long, {brake} at most {width_mm}",
                part=part.title.lower(),
                bend_mm=longest,
                brake=brake.name,
                width_mm=brake.width_mm,
            ),
            words(
                "That is the tank along the wrapper with a {lip_mm} lip at each end for the inset pans.",
                lip_mm=tank[LIP],
            )
            if tank[LIP]
            else words("They run along the whole of the part."),
        )


def _shell(tank: TankAnalysis) -> list[FlatPart]:
    """The shell's own parts that are bent here."""
    return [part for part in in_house(tank[SHEET], tank.design.sheet.sent_out) if not part.feature]


def _all_sent(tank: TankAnalysis, name: str) -> bool:
    """Whether all parts of such a name are made elsewhere."""
    return all(
        is_sent(part.name, tank.design.sheet.sent_out) for part in tank[SHEET].parts if part.name.startswith(name)
    )


def pan_is_shallow(tank: TankAnalysis) -> Iterator[Finding]:
    """A pan that is bent up all round goes between the brake's fingers."""
    brake = tank[BRAKE]
    for part in _shell(tank):
        deep = wall_mm(part)
        if deep > brake.fingers_mm + ROUNDING_MM:
            yield _sheet(
                "brake.deep",
                part.name,
                "stop",
                words(
                    "Walls of the {part} {deep_mm} high, {brake} bends up all round at most {fingers_mm}",
                    part=part.title.lower(),
                    deep_mm=deep,
                    brake=brake.name,
                    fingers_mm=brake.fingers_mm,
                ),
                words("The last two bends have the first two walls beside the beam: they have to pass its fingers."),
            )


def brake_turns_it(tank: TankAnalysis) -> Iterator[Finding]:
    """No bend is sharper than the brake makes."""
    brake = tank[BRAKE]
    for part in _shell(tank):
        sharpest = max(bend.angle_deg for bend in part.bends)
        if sharpest > brake.most_angle_deg + ROUNDING_MM:
            yield _sheet(
                "brake.angle",
                part.name,
                "stop",
                words(
                    "A bend of the {part} turns {sharp_deg}, {brake} at most {most_deg}",
                    part=part.title.lower(),
                    sharp_deg=sharpest,
                    brake=brake.name,
                    most_deg=brake.most_angle_deg,
                ),
                words("Weld that corner, round the shape there, or have the part made elsewhere."),
            )


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


def brake_bends_it(tank: TankAnalysis) -> Iterator[Finding]:
    """No part that is bent is thicker than the brake bends: force goes with yield · t²."""
    brake = tank[BRAKE]
    most = thickest_mm(brake.thickest_steel_mm, tank.shell.metal)
    bent = in_house(tank[SHEET], tank.design.sheet.sent_out)
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


def bends_can_be_made(tank: TankAnalysis) -> Iterator[Finding]:
    """Some order bends each part on the folder; looked for once the hand rests."""
    if tank.is_at_rest:
        yield from unbendable(tank)


def unbendable(tank: TankAnalysis) -> Iterator[Finding]:
    """Parts that no order bends: the part, or the machine, is in the way of the last bends."""
    closed = {finding.subject for finding in closed_box(tank)}
    for part in tank[BENDINGS].parts:
        if part.stuck is not None and not closed:
            yield _sheet(
                "brake.order",
                part.name,
                "stop",
                words(
                    "No order bends the {part} on {brake}: {made} of {bends} bends can be made",
                    part=part.title.lower(),
                    brake=part.machine,
                    made=len(part.steps),
                    bends=len(next(one for one in tank[SHEET].parts if one.name == part.name).bends),
                ),
                words(
                    "Bend {bend}, counted along the flat, has what was bent before it against the machine or the "
                    "part itself, whichever end is clamped. Part it there with a seam, or bend it on another machine.",
                    bend=part.stuck,
                ),
            )


def pan_flange(tank: TankAnalysis) -> Iterator[Finding]:
    """The pans' flanges are long enough to weld and to bend."""
    rules, brake, flange = tank.workshop.rules, tank[BRAKE], tank[SHEET].flange_mm
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
