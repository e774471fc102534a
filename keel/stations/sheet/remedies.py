"""What lets it be bent, rolled and cut."""

from collections.abc import Iterator
from itertools import accumulate, combinations
from math import ceil, pi
from typing import get_args

from pydantic import ValidationError

from keel.analysis.tank import TankAnalysis
from keel.design.features import Pot, Sided, Standing
from keel.design.sheet import BoxScheme
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.findings.finding import Finding, Patch, Remedy
from keel.findings.patch import apply
from keel.findings.shell_edits import of_gauge, resized_tank, with_feature
from keel.reference.metals import METALS
from keel.solid.faults import GeometryError
from keel.studies.result import words
from keel.studies.sheet.bending import BENDINGS
from keel.studies.sheet.let_in import BENT
from keel.studies.sheet.machines import BRAKE, thickest_mm
from keel.studies.sheet.unfold import SHEET
from keel.studies.space.resize import Direction, size_along

SCHEMES: tuple[BoxScheme, ...] = get_args(BoxScheme)
MOST_SPLITS, HALF = 3, 0.5
DIRECTIONS: tuple[Direction, ...] = ("length", "width", "height")


def thinner(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The thickest sheet in stock that the brake bends."""
    shell = tank.shell
    most = thickest_mm(tank[BRAKE].thickest_steel_mm, shell.metal)
    for gauge in [gauge for gauge in tank.workshop.gauges_of(shell.metal) if gauge <= most][-1:]:
        patch: Patch = {"thickness_mm": min(gauge, shell.thickness_mm)}
        for name in ("ends_thickness_mm", "features_thickness_mm"):
            if (getattr(shell, name) or 0.0) > gauge:
                patch[name] = gauge
        yield Remedy(label=words("{gauge_sheet} sheet", gauge_sheet=gauge), patch={"shell": patch})


def closable(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Make the wrapper as large as the brake needs, or wrap the other way; of other parts where it closes none."""
    least = tank[BRAKE].smallest_closed_box_mm
    if least is None:
        yield from made_otherwise(tank, finding)
        return
    which: Direction = "height"
    if finding.subject == "width":
        which = "width"
    elif finding.subject == "length":
        which = "length"
    inside = (tank[SHEET].section_inside_mm or (0.0, 0.0))[1 if which == "height" else 0]
    yield resized_tank(tank, which, least - inside)
    yield from wrapped_the_other_way(tank, finding)


def of_plates(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Weld a feature of plates that was to be bent from one sheet."""
    about = {part.name: part.feature for part in tank[BENT].parts}.get(finding.subject)
    for feature in tank.shell.features:
        if feature.id == about and isinstance(feature, Sided) and feature.folded:
            patch = with_feature(tank.shell, feature, folded=False)
            yield Remedy(label=words("Weld {name} of plates", name=feature.name), patch=patch)


def lower_walls(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Make a pan's walls as low as the brake's fingers take, or the box of other parts; weld a feature of plates."""
    if welded := list(of_plates(tank, finding)):
        yield from welded
        return
    deep = float(finding.title.values["deep_mm"])
    yield resized_tank(tank, "height", tank[BRAKE].fingers_mm - deep)
    yield from made_otherwise(tank, finding)


def made_otherwise(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Make the box of other parts."""
    for scheme in SCHEMES:
        if scheme != tank.design.sheet.scheme:
            yield Remedy(label=words("Make it of {parts}", parts=scheme), patch={"sheet": {"scheme": scheme}})


def shorter(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Shorten the tank along its axis to the machine, or wrap the other way."""
    direction = DIRECTIONS[tank.solids.section.axis]
    rolls = finding.code == "rolls.width"
    less = tank[SHEET].overall_mm - (tank.workshop.rolls if rolls else tank[BRAKE]).width_mm
    if less < size_along(tank.shell, direction):
        yield resized_tank(tank, direction, -less)
    yield from wrapped_the_other_way(tank, finding)


def on_the_sheet(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Wrap the other way; or take the overlength off the wrapper's section."""
    yield from wrapped_the_other_way(tank, finding)
    if finding.subject != "wrapper":
        return
    yield from in_two_pieces(tank)
    part = tank[SHEET].parts[0]
    sheets = tank.workshop.sheets_of(tank.shell.metal, tank.shell.thickness_mm)
    ways = [way for s in sheets for way in ((s.length_mm, s.width_mm), (s.width_mm, s.length_mm))]
    room = max((long for long, wide in ways if wide >= part.width_mm), default=None)
    if room is None:
        return
    less = (part.length_mm - room) / 2
    if isinstance(tank.shell, CylinderShell):
        less = (part.length_mm - room) / pi
        yield resized_tank(tank, "diameter", -less)
        return
    for direction in (DIRECTIONS[tank.solids.section.across], DIRECTIONS[2]):
        if less < size_along(tank.shell, direction) / 2:
            yield resized_tank(tank, direction, -less)


def in_two_pieces(tank: TankAnalysis) -> Iterator[Remedy]:
    """Weld two corners of a profile instead of bending them: the wrapper comes in two pieces."""
    shell, edges = tank.shell, tank.solids.section.edges
    if not isinstance(shell, ProfileShell):
        return
    along = [0.0, *accumulate(e.length for e in edges)]
    pairs = [(a, b) for a in range(len(edges)) for b in range(a + 1, len(edges))]
    a, b = min(pairs, key=lambda p: abs(along[p[1]] - along[p[0]] - along[-1] / 2))
    corners = [c.model_dump() | ({"joint": "weld"} if n in (a, b) else {}) for n, c in enumerate(shell.corners)]
    yield Remedy(
        label=words("Make the wrapper in two pieces, welded at corners {a} and {b}", a=a + 1, b=b + 1),
        patch={"shell": {"corners": corners}},
    )


def parted(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Weld corners of a profile, or a feature of plates, or make a box of other parts: as the brake can bend it."""
    if welded := list(of_plates(tank, finding)):
        yield from welded
        return
    if any(part.feature and part.name == finding.subject for part in tank[BENT].parts):
        yield from _made_elsewhere(tank, finding)
        return
    if not isinstance(tank.shell, ProfileShell):
        yield from (one for one in made_otherwise(tank, finding) if _can_be_bent(tank, one))
        return
    bent = [n for n, corner in enumerate(tank.shell.corners) if corner.joint == "bend"]
    offered = 0
    # One welded corner takes the place of the closing seam; two part the wrapper.
    for chosen in (*combinations(bent, 1), *combinations(bent, 2)):
        remedy = _welded_at(tank.shell, chosen)
        if offered < MOST_SPLITS and _can_be_bent(tank, remedy):
            offered += 1
            yield remedy


def _made_elsewhere(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A pot rolled instead of folded, where the rolls are as tight; or any part sent out."""
    about = {part.name: part.feature for part in tank[BENT].parts}[finding.subject]
    tight = 2 * tank.workshop.rolls.least_radius_mm
    for feature in tank.shell.features:
        if isinstance(feature, Pot) and feature.id == about:
            across = min(feature.long_mm, feature.wide_mm)
            patch = with_feature(tank.shell, feature, form="round", long_mm=across, wide_mm=across, hem_mm=0.0)
            if across >= tight:
                yield Remedy(label=words("Roll {name} round", name=feature.name), patch=patch)
    sent = [*tank.design.sheet.sent_out, finding.subject]
    yield Remedy(label=words("Have it bent elsewhere"), patch={"sheet": {"sent_out": sent}})


def _welded_at(shell: ProfileShell, chosen: tuple[int, ...]) -> Remedy:
    corners = [c.model_dump() | ({"joint": "weld"} if n in chosen else {}) for n, c in enumerate(shell.corners)]
    patch: Patch = {"shell": {"corners": corners}}
    if len(chosen) == 1:
        return Remedy(label=words("Close the wrapper at corner {a}, welded", a=chosen[0] + 1), patch=patch)
    a, b = chosen
    return Remedy(label=words("Part it with welds at corners {a} and {b}", a=a + 1, b=b + 1), patch=patch)


def _can_be_bent(tank: TankAnalysis, remedy: Remedy) -> bool:
    """Whether a brake has an order for every part of it."""
    try:
        after = tank.of(apply(tank.design, remedy.patch))
        return all(part.stuck is None for part in after[BENDINGS].parts)
    except (ValidationError, GeometryError):
        return False


def wrapped_the_other_way(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Turn a box's wrapper by a quarter: its ends become its sides."""
    if not isinstance(tank.shell, BoxShell):
        return
    other = "y" if tank.shell.wrap_axis == "x" else "x"
    yield Remedy(
        label=words("Wrap it the other way, {how}", how="across" if other == "y" else "lengthwise"),
        patch={"shell": {"wrap_axis": other}},
    )


def longer_edge(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Close the wrapper half way along its face; flanges of a plate as long as the brake asks; a feature of plates."""
    yield from of_plates(tank, finding)
    about = {part.name: part.feature for part in tank[BENT].parts}.get(finding.subject)
    for feature in tank.shell.features:
        if feature.id == about and isinstance(feature, Standing):
            least = float(finding.title.values["least_mm"])
            patch = with_feature(tank.shell, feature, flange_mm=least)
            yield Remedy(label=words("Flanges of {flange_mm}", flange_mm=least), patch=patch)
    if about is None and tank.design.sheet.seam_share != HALF:
        yield Remedy(label=words("Close it half way along its face"), patch={"sheet": {"seam_share": HALF}})


def sure_radius(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Bend to the radius that is sure whichever way the grain runs."""
    sure = METALS[tank.shell.metal].bend_radius_sure * max(tank.shell.thickness_mm, tank.shell.end_wall_mm)
    if not isinstance(tank.shell, CylinderShell):
        yield Remedy(
            label=words("Bend to {radius_sheet}", radius_sheet=sure), patch={"shell": {"bend_radius_mm": sure}}
        )


def longer_flange(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The least flange that welds and bends."""
    least = max(tank.workshop.rules.flange_least_mm, tank[BRAKE].shortest_flange_mm)
    yield Remedy(label=words("Flanges of {flange_mm}", flange_mm=least), patch={"sheet": {"flange_mm": least}})


def stocked_gauge(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The next thicker sheet of the metal that is in stock."""
    gauges = tank.workshop.gauges_of(tank.shell.metal)
    for gauge in [g for g in gauges if g > tank.shell.thickness_mm][:1]:
        yield Remedy(
            label=words("{gauge_sheet} sheet, in stock", gauge_sheet=gauge), patch={"shell": of_gauge(tank, gauge)}
        )


def wider_roll(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """A cylinder as tight as the rolls go."""
    if isinstance(tank.shell, CylinderShell):
        more = 2 * tank.workshop.rolls.least_radius_mm - tank.shell.diameter_mm
        yield resized_tank(tank, "diameter", more)


def deeper_hem(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """As deep as the sheet and the brake ask for."""
    least = float(ceil(float(finding.title.values["least_mm"])))
    for feature in tank.shell.features:
        if feature.id == finding.subject:
            patch = with_feature(tank.shell, feature, hem_mm=least)
            yield Remedy(label=words("Hem {deep_mm} deep", deep_mm=least), patch=patch)
