"""What the shop's brakes can't bend."""

from collections.abc import Iterator
from dataclasses import replace

from keel.analysis.parts import LIP
from keel.analysis.tank import TankAnalysis
from keel.design.features import Baffle, Pot
from keel.design.workshop import Brake
from keel.findings.finding import Finding, of_station
from keel.reference.metals import MetalName
from keel.studies.result import Words, words
from keel.studies.sheet.bending import BENDINGS, along
from keel.studies.sheet.hems import hem_of
from keel.studies.sheet.let_in import BENT, LET_IN
from keel.studies.sheet.machines import (
    BRAKE,
    bend_mm,
    brake_for,
    in_house,
    is_sent,
    sharpest_deg,
    shortest_leg_mm,
    thickest_mm,
    wall_mm,
)
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.shell_parts import BARE_SOLIDS
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
    brake, lip = tank[BRAKE], tank[LIP]
    bent = [(bend_mm(bend), part) for part in _shell(tank) for bend in part.bends]
    longest, part = max(bent, key=lambda one: one[0], default=(0.0, None))
    if part is not None and longest > brake.width_mm + ROUNDING_MM:
        why = words("They run along the whole of the part.")
        if lip:
            along = "That is the tank along the wrapper with a {lip_mm} lip at each end for the inset pans."
            why = words(along, lip_mm=lip)
        yield _too_long("brake.width", "", part, longest, brake, why)


def features_bent(tank: TankAnalysis) -> Iterator[Finding]:
    """No bend of a folded feature is longer than a brake; looked at once the hand rests."""
    for part, brake in _folded(tank):
        longest = max(bend_mm(bend) for bend in part.bends)
        if longest > brake.width_mm + ROUNDING_MM:
            why = words("Weld it of plates, or have it made elsewhere.")
            yield _too_long("brake.feature", part.name, part, longest, brake, why)


def _too_long(code: str, subject: str, part: FlatPart, longest: float, brake: Brake, why: Words) -> Finding:
    return _sheet(
        code,
        subject,
        "stop",
        words(
            "Bends of the {part} {bend_mm} long, {brake} at most {width_mm}",
            part=part.title.lower(),
            bend_mm=longest,
            brake=brake.name,
            width_mm=brake.width_mm,
        ),
        why,
    )


def _shell(tank: TankAnalysis) -> list[FlatPart]:
    """The shell's own parts that are bent here."""
    return [part for part in in_house(tank[SHEET], tank.design.sheet.sent_out) if not part.feature]


def _all_sent(tank: TankAnalysis, name: str) -> bool:
    """Whether all parts of such a name are made elsewhere."""
    return all(
        is_sent(part.name, tank.design.sheet.sent_out) for part in tank[SHEET].parts if part.name.startswith(name)
    )


def _judged(tank: TankAnalysis) -> Iterator[tuple[FlatPart, Brake]]:
    """Parts of the shell with its brake; once the hand rests each folded feature's with its own."""
    yield from ((part, tank[BRAKE]) for part in _shell(tank))
    yield from _folded(tank)


def _folded(tank: TankAnalysis) -> Iterator[tuple[FlatPart, Brake]]:
    """Features that are bent from one sheet, each with its brake; none while the hand moves."""
    if tank.is_at_rest and any(cost.bends for cost in tank[BARE_SOLIDS].costs):
        for part in in_house(replace(tank[SHEET], parts=tank[LET_IN]), tank.design.sheet.sent_out):
            yield part, brake_for(part, tank.shell.metal, tank.workshop)


def pan_is_shallow(tank: TankAnalysis) -> Iterator[Finding]:
    """A pan that is bent up all round goes between the brake's fingers."""
    for part, brake in _judged(tank):
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
    for part, brake in _judged(tank):
        sharpest = sharpest_deg(part)
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


def brake_bends_it(tank: TankAnalysis) -> Iterator[Finding]:
    """No part that is bent is thicker than the brake bends: force goes with yield · t²."""
    bent = [(part, tank[BRAKE]) for part in in_house(tank[SHEET], tank.design.sheet.sent_out)]
    for part, brake in sorted([*bent, *_folded(tank)], key=lambda pair: -pair[0].thickness_mm):
        most = thickest_mm(brake.thickest_steel_mm, tank.shell.metal)
        if part.thickness_mm > most + ROUNDING_MM:
            yield _too_thick(part, brake, tank.shell.metal, most)
            return


def _too_thick(part: FlatPart, brake: Brake, metal: MetalName, most: float) -> Finding:
    return _sheet(
        "brake.thick",
        "",
        "stop",
        words(
            "{metal} {thickness_sheet} thick, {brake} at most {most_sheet}",
            brake=brake.name,
            thickness_sheet=part.thickness_mm,
            metal=metal,
            most_sheet=most,
        ),
        words(
            "It bends {steel_sheet} of mild steel over its width; force goes with yield · t².",
            steel_sheet=brake.thickest_steel_mm,
        ),
    )


def end_legs_are_caught(tank: TankAnalysis) -> Iterator[Finding]:
    """No edge of a part is bent up shorter than its brake catches; end pans' flanges have a rule of their own."""
    own = in_house(tank[SHEET], tank.design.sheet.sent_out)
    bent = [(part, tank[BRAKE]) for part in own if part.feature or along(part)]
    for part, brake in [*bent, *_folded(tank)]:
        short, least = shortest_leg_mm(part), brake.shortest_flange_mm
        if short < least - ROUNDING_MM:
            yield _sheet(
                "brake.leg",
                part.name,
                "stop",
                words(
                    "Edge of the {part} {leg_mm}, {brake} bends from {least_mm}",
                    part=part.title.lower(),
                    leg_mm=short,
                    brake=brake.name,
                    least_mm=least,
                ),
                words(
                    "So short an edge slips out of the brake. Make it longer, weld it, or move the seam off the corner."
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
                    bends=len(next(one for one in tank[BENT].parts if one.name == part.name).bends),
                ),
                words(
                    "Bend {bend}, counted along the flat, has what was bent before it against the machine or the "
                    "part itself, whichever end is clamped. Part it there with a seam, or bend it on another machine.",
                    bend=part.stuck,
                ),
            )


def hems_are_long_enough(tank: TankAnalysis) -> Iterator[Finding]:
    """A hem has a leg past its round, and one that the brake bends."""
    for feature in tank.shell.features:
        if not isinstance(feature, Baffle | Pot) or not feature.hem_mm:
            continue
        least = least_hem_mm(tank, feature)
        if feature.hem_mm < least - ROUNDING_MM:
            yield _sheet(
                "hem.short",
                feature.id,
                "stop",
                words(
                    "Hem of the {name} {deep_mm} deep, at least {least_mm}",
                    name=feature.name,
                    deep_mm=feature.hem_mm,
                    least_mm=least,
                ),
                words("Its round takes the radius and the thickness, and the brake has to catch the edge."),
            )


def least_hem_mm(tank: TankAnalysis, feature: Baffle | Pot) -> float:
    """The shallowest hem that can be made on a feature [mm]."""
    thick = feature.wall_mm(tank.shell.feature_wall_mm)
    turned = hem_of(0.0, thick, tank.shell.metal, 0.0).turned_mm
    return max(turned + thick, tank.workshop.brake.shortest_flange_mm)
