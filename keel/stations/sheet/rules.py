"""What can't be bent, rolled, cut or laid on the stock."""

from collections.abc import Iterator, Sequence
from math import hypot

from keel.analysis.parts import LIP
from keel.analysis.tank import TankAnalysis
from keel.design.workshop import StockSheet
from keel.findings.finding import Finding, of_station
from keel.studies.ports.landing import LANDINGS
from keel.studies.result import words
from keel.studies.sheet.bending import BENDINGS
from keel.studies.sheet.cutting import CUTTING
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.fold_proof import FOLD_PROOF, FoldedPart
from keel.studies.sheet.hole_checks import HOLE_CHECKS
from keel.studies.sheet.let_in import LET_IN
from keel.studies.sheet.machines import BRAKE, in_house, is_sent, thickest_mm, wall_mm
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.seam_proof import SEAM_PROOF, OpenEdge
from keel.studies.sheet.unfold import SHEET

_sheet = of_station("sheet")


ROUNDING_MM = 1e-6
HOLE_TO_BEND = 2.0
"""A hole's rim stays off a bend's zone by so many thicknesses."""


def closed_box(tank: TankAnalysis) -> Iterator[Finding]:
    """The wrapper is large enough inside for the brake to close it."""
    brake, names = tank[BRAKE], ("width", "height")
    least = brake.smallest_closed_box_mm
    if _all_sent(tank, "wrapper"):
        return
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
    for part in tank[CUTTING] if _is_at_rest(tank) else ():
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


def _is_at_rest(tank: TankAnalysis) -> bool:
    """Whether nothing is dragged, and it is no trial of a remedy."""
    return tank.asked.showing.remedies and tank.explains


def holes_are_drawn(tank: TankAnalysis) -> Iterator[Finding]:
    """No part goes to be cut without the holes of its ports; looked for once the hand rests."""
    for part in tank[FLATS].parts if _is_at_rest(tank) else ():
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
    outer = {port.id: port.seat.outer_mm for port in tank.design.ports if port.seat}
    sound = {land.id for land in tank[LANDINGS] if land.flat_mm >= land.needed_mm - 0.5}
    for hole in tank[HOLE_CHECKS] if _is_at_rest(tank) else ():
        part = next(one for one in tank[FLATS].parts if one.name == hole.part)
        ring, land = (outer[hole.port] - hole.diameter_mm) / 2, tank.workshop.rules.land_mm
        least = HOLE_TO_BEND * part.thickness_mm
        if hole.edge_mm < 0 or (hole.other_mm is not None and hole.other_mm < 0):
            yield _sheet(
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
        elif hole.bend_mm is not None and hole.bend_mm < least:
            yield _sheet(
                "hole.bend",
                hole.port,
                "caution",
                words(
                    "Hole of {name} {gap_mm} from a bend of the {part}, at least {least_mm}",
                    name=hole.name,
                    gap_mm=max(0.0, hole.bend_mm),
                    part=hole.title.lower(),
                    least_mm=least,
                ),
                words(
                    "Cut first, it is drawn oval when the sheet stretches there: cut it after bending, or move it. "
                    "A hole that came out too large is {patch_mm} of disc and {weld_mm} of seam.",
                    patch_mm=hole.patch_mm,
                    weld_mm=hole.patch_weld_mm,
                ),
            )
        elif hole.port in sound and hole.edge_mm - ring < land - ROUNDING_MM:
            yield _sheet(
                "hole.edge",
                hole.port,
                "caution",
                words(
                    "Weld of {name} {gap_mm} from the edge of the {part}, at least {land_mm} (house rule)",
                    name=hole.name,
                    gap_mm=max(0.0, hole.edge_mm - ring),
                    part=hole.title.lower(),
                    land_mm=land,
                ),
                words("Another part is welded there: two welds that near crack between."),
            )


def bends_can_be_made(tank: TankAnalysis) -> Iterator[Finding]:
    """Some order bends each part on the folder; looked for once the hand rests."""
    if _is_at_rest(tank):
        yield from unbendable(tank)


def unbendable(tank: TankAnalysis) -> Iterator[Finding]:
    """Parts that no order bends: the part, or the beam, is in the way of the last bends."""
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
                    "Bend {bend}, counted along the flat, has what was bent before it against the clamping beam, "
                    "whichever end is clamped. Part it there with a seam, or bend it on another machine.",
                    bend=part.stuck,
                ),
            )


def folds_up(tank: TankAnalysis) -> Iterator[Finding]:
    """Every part of the shell, folded up, lies where the tank was designed; looked at once the hand rests."""
    if not _is_at_rest(tank):
        return
    proof, worst = tank[FOLD_PROOF], dict[str, FoldedPart]()
    for piece in proof.pieces:
        if piece.off_mm > max(proof.limit_mm, worst[piece.name].off_mm if piece.name in worst else 0.0):
            worst[piece.name] = piece
    for name, piece in worst.items():
        yield _sheet(
            "sheet.fold",
            name,
            "stop",
            words(
                "The {part} folds up {off_mm} off the tank as drawn, at most {limit_mm}",
                part=piece.title.lower(),
                off_mm=piece.off_mm,
                limit_mm=proof.limit_mm,
            ),
            words(
                "Folded by its flat, its {piece} misses the drawn outside by most {x_mm} from the rear, {y_mm} from "
                "the right and {z_mm} above the floor: what has to meet there wouldn't.",
                piece=piece.piece,
                x_mm=piece.at.x,
                y_mm=piece.at.y,
                z_mm=piece.at.z,
            ),
        )


def seams_meet(tank: TankAnalysis) -> Iterator[Finding]:
    """Every edge, folded up, meets what it is welded to; looked at once the hand rests."""
    if not _is_at_rest(tank):
        return
    proof, worst = tank[SEAM_PROOF], dict[str, OpenEdge]()
    for edge in proof.open:
        if edge.part not in worst or edge.gap_mm > worst[edge.part].gap_mm:
            worst[edge.part] = edge
    for name, edge in worst.items():
        yield _sheet(
            "sheet.seam",
            name,
            "stop",
            words(
                "An edge of the {part} is {gap_mm} off what it is welded to, at most {limit_mm}",
                part=edge.title.lower(),
                gap_mm=edge.gap_mm,
                limit_mm=proof.limit_mm,
            ),
            words(
                "It is {long_mm} long; folded up it lies {x_mm} from the rear, {y_mm} from the right and {z_mm} above "
                "the floor.",
                long_mm=edge.long_mm,
                x_mm=edge.at.x,
                y_mm=edge.at.y,
                z_mm=edge.at.z,
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


def features_not_unfolded(tank: TankAnalysis) -> Iterator[Finding]:
    """Say which features have no flat plates; looked for once the hand rests."""
    if not _is_at_rest(tank):
        return
    unfolded = {part.feature for part in [*tank[SHEET].parts, *tank[LET_IN]]}
    left_out = [cost.name for cost in tank.solids.costs if cost.id not in unfolded]
    if left_out:
        yield _sheet(
            "sheet.features",
            "",
            "note",
            words("Not among the flat parts: {names}", names=", ".join(left_out)),
            words(
                "A round side that narrows is unfolded only where it comes out of a box's flat face. Lay these plates "
                "out by hand; their openings in the shell are drawn, and mass and weld in the tally have them in."
            ),
        )
