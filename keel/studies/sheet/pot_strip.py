"""A pot's wall as a flat strip."""

from dataclasses import replace
from itertools import accumulate
from math import asin, pi

from shapely.geometry import Polygon, box
from shapely.ops import unary_union

from keel.design.features import Pot
from keel.design.workshop import Workshop
from keel.reference.test_strip import setback
from keel.solid.planes import polygons_of, ring_spots
from keel.solid.solids import AnyShell, FeatureCost
from keel.studies.result import words
from keel.studies.sheet.bends import bend_deduction, bend_lines, flat_length
from keel.studies.sheet.hems import Hem, hem_of
from keel.studies.sheet.model import flat_part
from keel.studies.sheet.parts import Bend, FlatPart, rectangle
from keel.studies.sheet.wrapper import folding_order, wrapper_legs

HAIR_MM = 0.01
UNEVEN = 0.02
"""A pot whose metal differs by more than this share from a straight strip's stands on a floor that isn't level."""
PREFIX = "inside-"
"""Before a feature's id in a part's name: no id is then the name of a part of the shell."""
SIDES = ("rear", "left", "front", "right")
"""A pot's sides as they follow each other on the flat, its inside facing the reader."""


def pot_strip(pot: Pot, shell: AnyShell, cost: FeatureCost, workshop: Workshop) -> FlatPart:
    """A pot's wall as a strip: folded at three corners and closed at the fourth, or rolled.

    Parameters
    ----------
    pot : Pot
        One of the shell's.
    shell : AnyShell
        Its metal and its bends.
    cost : FeatureCost
        The pot as it stands in the shell.
    workshop : Workshop
        K factors.

    Returns
    -------
    FlatPart
        Its inside towards the reader; a hem round the rim of a box, made first, goes away from the reader.
    """
    t, r = pot.wall_mm(shell.feature_wall_mm), shell.fold_mm
    low, high = cost.box.low[2], cost.box.high[2]
    tall, k = high - low, workshop.k_for(shell.metal, t, r)
    deduction = bend_deduction(90, r, t, k)
    if pot.form == "round":
        length = pi * (pot.long_mm - t)
        middles = [length * (n + 0.5) / 4 for n in range(4)]
        bends, how = [], "Roll to {across_sheet} outside diameter"
    else:
        legs = wrapper_legs(pot.long_mm, pot.wide_mm, t, "corner butt")
        taken = [deduction] * 3
        length = flat_length(legs, taken)
        starts = [0.0, *accumulate(leg - deduction for leg in legs[:3])]
        halves = (pot.wide_mm / 2, pot.long_mm / 2) * 2
        middles = [start + half for start, half in zip(starts, halves, strict=True)]
        turns = zip(bend_lines(legs, taken), folding_order(3), strict=True)
        bends = [Bend((at, 0.0), (at, tall), "up", 90, r, order, deduction) for at, order in turns]
        how = "Fold and close at the corner"
    strip = Polygon(rectangle(length, tall))
    if bends and pot.hem_mm:
        strip, bends = _hemmed(strip, bends, hem_of(pot.hem_mm, t, shell.metal, k), t)
    for door in pot.doors:
        half = door.wide_mm / 2
        if pot.form == "round":
            middle_radius = (pot.long_mm - t) / 2
            half = middle_radius * asin(min(1.0, half / middle_radius))
        middle, up = middles[SIDES.index(door.side)], tall - pot.high_mm + door.up_mm
        strip = strip.difference(box(middle - half, up, middle + half, up + door.high_mm))
    level = abs(_straight_mm3(pot, t) - cost.metal_mm3) < UNEVEN * cost.metal_mm3
    foot_note = "" if level else " The floor under it isn't level: scribe the lower edge to it."
    return flat_part(
        shell.metal,
        name=PREFIX + pot.id,
        title=pot.name.capitalize(),
        quantity=1,
        thickness_mm=t,
        outline=ring_spots(strip.exterior),
        bends=bends,
        marks=[],
        note=words(
            f"Its inside faces you, rim up; rear, left, front, right from the left. {how}.{foot_note}",
            across_sheet=pot.long_mm,
        ),
        holes=[ring_spots(ring) for ring in strip.interiors],
        feature=pot.id,
    )


def _hemmed(strip: Polygon, bends: list[Bend], hem: Hem, thick: float) -> tuple[Polygon, list[Bend]]:
    """The strip with a hem along each side's rim, interrupted at the corners as wide as these are bent."""
    if not hem.can_be:
        return strip, bends
    _, _, length, tall = strip.bounds
    corners = [_beside(bend, setback(bend.angle_deg, bend.radius_mm, thick)) for bend in bends]
    stops = [hem.turned_mm, *(at for corner in corners for at in corner), length - hem.turned_mm]
    spans = [(low, high) for low, high in zip(stops[::2], stops[1::2], strict=True) if high > low]
    line, top, round_from = tall + hem.line_mm, tall + hem.extra_mm, tall - hem.turned_mm
    whole = unary_union([strip, *(box(low, tall - HAIR_MM, high, top) for low, high in spans)])
    beside = [(0.0, hem.turned_mm), *corners, (length - hem.turned_mm, length)]
    cut = whole.difference(unary_union([box(low, round_from, high, top) for low, high in beside]))
    turned = [hem.bend((low, line), (high, line), "down", number) for number, (low, high) in enumerate(spans, start=1)]
    later = [replace(bend, end=(bend.end[0], round_from), order=bend.order + len(turned)) for bend in bends]
    return max(polygons_of(cut), key=lambda one: one.area), [*turned, *later]


def _beside(bend: Bend, off: float) -> tuple[float, float]:
    return bend.start[0] - off, bend.start[0] + off


def _straight_mm3(pot: Pot, t: float) -> float:
    """Metal of a pot on a level floor [mm³]."""
    round_ = pot.form == "round"
    foot = pi * (pot.long_mm - t) * t if round_ else 2 * (pot.long_mm + pot.wide_mm - 2 * t) * t
    return foot * pot.high_mm - sum(door.wide_mm * door.high_mm * t for door in pot.doors)
