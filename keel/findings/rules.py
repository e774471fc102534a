"""Rules of space, capacity, strength and sheet: each reads the studies and says what is wrong. One function a rule."""

from collections.abc import Iterator, Sequence
from math import ceil, sqrt

from keel.analysis.parts import LIP
from keel.analysis.tank import TankAnalysis
from keel.design.shell import CylinderShell
from keel.design.workshop import StockSheet
from keel.findings.finding import Finding, of_station
from keel.reference.metals import METALS
from keel.studies.cost.figures import FIGURES
from keel.studies.demand.demand import TARGET_L
from keel.studies.result import words
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.unfold import SHEET
from keel.studies.space.clearance import GAPS
from keel.studies.space.fouling import FOULING
from keel.studies.strength.panels.panel import how_held
from keel.studies.strength.panels.rows import PANELS

ROUNDING_MM = 1e-6
ROUNDING_L = 1e-6
_bay, _shell, _sheet = of_station("bay"), of_station("shell"), of_station("sheet")


def bay_clearance(tank: TankAnalysis) -> Iterator[Finding]:
    """The shell, lips included, keeps the clearance of every side and keep-out."""
    for gap in tank.get(GAPS) or []:
        if gap.clears:
            continue
        fouls, by = gap.gap_mm < 0, tank[FOULING][gap.kind, gap.key]
        yield _bay(
            "bay.clearance",
            gap.key,
            "stop",
            words(
                "{by} runs {over_mm} into the {what}"
                if fouls
                else "{by} is {gap_mm} from the {what}, needs {needed_mm}",
                by=by.name[0].upper() + by.name[1:],
                over_mm=max(0.0, -gap.gap_mm),
                gap_mm=gap.gap_mm,
                needed_mm=gap.needed_mm,
                what=f"bay's {gap.neighbour} side" if gap.kind == "side" else gap.neighbour,
            ),
            words(
                "It is {kind}: {rule} {needed_mm}. Short by {short_mm}. "
                "A tank that touches chafes through, and one too near heat boils its fuel.",
                kind=gap.clearance_kind,
                rule=gap.rule,
                needed_mm=gap.needed_mm,
                short_mm=gap.short_mm,
            ),
        )


def capacity_below(tank: TankAnalysis) -> Iterator[Finding]:
    """Rated capacity reaches the brief's target."""
    target, rated = tank[TARGET_L], tank[FIGURES].rated_l
    if target is not None and rated < target - ROUNDING_L:
        yield _shell(
            "capacity.below",
            "",
            "caution",
            words(
                "Rated capacity {rated_l}, {short_l} below the target of {target_l}",
                rated_l=rated,
                short_l=target - rated,
                target_l=target,
            ),
            words(
                "It is {brimful_l} brimful, less the ullage that fuel needs to expand.",
                brimful_l=tank[FIGURES].brimful_l,
            ),
        )


def capacity_beyond(tank: TankAnalysis) -> Iterator[Finding]:
    """Rated capacity isn't far above the brief's target."""
    target, rated = tank[TARGET_L], tank[FIGURES].rated_l
    allowed = tank.workshop.rules.beyond_target
    if target is not None and rated > target * (1 + allowed) + ROUNDING_L:
        yield _shell(
            "capacity.beyond",
            "",
            "note",
            words(
                "Rated capacity {rated_l}, {more_pct} above the target of {target_l}, limit {allowed_pct} (house rule)",
                rated_l=rated,
                more_pct=rated / target - 1,
                target_l=target,
                allowed_pct=allowed,
            ),
            words("That is metal, weight and fuel that nobody asked for."),
        )


def wall_thickness(tank: TankAnalysis) -> Iterator[Finding]:
    """The sheet is thick enough to weld and for its largest panels."""
    metal, thickness = METALS[tank.shell.metal], tank.shell.thickness_mm
    if thickness < metal.weldable_from_mm - ROUNDING_MM:
        yield _shell(
            "wall.weldable",
            "",
            "caution",
            words(
                "Wall {thickness_sheet} of {metal}, at least {least_sheet} to weld tight",
                thickness_sheet=thickness,
                metal=tank.shell.metal,
                least_sheet=metal.weldable_from_mm,
            ),
            words("Thinner sheet burns through and its seams leak; a tank needs every seam tight."),
        )
    worst = max(tank[PANELS], key=lambda panel: panel.least_thickness_mm / panel.thickness_mm)
    if worst.least_thickness_mm > worst.thickness_mm + ROUNDING_MM:
        yield _shell(
            "wall.thin",
            "",
            "caution",
            words(
                "The {panel} wants {least_sheet}, the sheet is {thickness_sheet}",
                panel=worst.name,
                least_sheet=ceil(worst.least_thickness_mm * 10) / 10,
                thickness_sheet=worst.thickness_mm,
            ),
            words(
                "The {what}, {long_mm} × {short_mm} flat, under {head_kpa}, " + worst.load.text + ": {stress_mpa}, "
                "allowed {allowed_mpa} ({share_pct} of the yield beside a weld, house rule). "
                "Its edges: {edges}; safe proof pressure of this panel {proof_kpa}{safe}.",
                **worst.load.values,
                what=worst.what,
                edges=how_held(worst),
                proof_kpa=worst.proof_kpa,
                long_mm=worst.long_mm,
                short_mm=worst.short_mm,
                head_kpa=worst.pressure_kpa,
                stress_mpa=worst.stress_mpa,
                allowed_mpa=worst.allowed_mpa,
                share_pct=tank.workshop.rules.stress_share,
                safe="; it bows by more than half its thickness, where this sum errs safe" if worst.errs_safe else "",
            ),
        )


def bend_radius(tank: TankAnalysis) -> Iterator[Finding]:
    """The bend radius is one the metal bears."""
    if isinstance(tank.shell, CylinderShell) or not tank[SHEET].bends:
        return
    metal, thickness, radius = METALS[tank.shell.metal], tank.shell.thickness_mm, tank.shell.bend_radius_mm
    least, sure = metal.bend_radius_least * thickness, metal.bend_radius_sure * thickness
    if radius >= least - ROUNDING_MM:
        return
    yield _shell(
        "bend.radius",
        "",
        "stop",
        words(
            "Bend radius {radius_sheet}, at least {least_sheet} for {thickness_sheet} {metal}",
            radius_sheet=radius,
            least_sheet=least,
            thickness_sheet=thickness,
            metal=tank.shell.metal,
        ),
        words("Bent tighter it cracks along the bend; {sure_sheet} is sure.", sure_sheet=sure),
    )


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
                    "The wrapper is {inside_mm} in {name} inside: {brake} can't close it",
                    inside_mm=inside,
                    name=name,
                    brake=tank.workshop.brake.name,
                ),
                words(
                    "The last bend closes the wrapper round the brake's beam; the least inside size for that is "
                    "{least_mm}.",
                    least_mm=least,
                ),
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
                "The wrapper's bends are {bend_mm} long, {brake} does {width_mm}",
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
                "{brake} doesn't bend {thickness_sheet} {metal}",
                brake=brake.name,
                thickness_sheet=thickest,
                metal=tank.shell.metal,
            ),
            words(
                "It bends {steel_sheet} of mild steel over its width and so {most_sheet} of this by yield and t².",
                steel_sheet=brake.thickest_steel_mm,
                most_sheet=most,
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
            words("Pan flange {flange_mm}, at least {least_mm}", flange_mm=flange, least_mm=least),
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
            "The {part} is {length_mm} × {width_mm}, larger than any sheet",
            part=part.title.lower(),
            length_mm=part.length_mm,
            width_mm=part.width_mm,
        ),
        words(
            "The largest in stock is {stock_length_mm} × {stock_width_mm}.",
            stock_length_mm=largest.length_mm,
            stock_width_mm=largest.width_mm,
        ),
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
