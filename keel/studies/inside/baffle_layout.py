"""The fewest baffles that keep fuel from running far: where they stand, and how they are opened."""

from collections.abc import Callable, Sequence
from itertools import count, pairwise
from math import ceil

import numpy as np
from manifold3d import CrossSection, Manifold, OpType

from keel.analysis.parts import RULES, SOLIDS, only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.features import Baffle, Holes, Notch, Partition
from keel.design.workshop import HouseRules
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.plates import corners_cut, plate_at
from keel.solid.shapes import slice_rings
from keel.solid.solids import AnyShell, Solids
from keel.studies.inside.compartment_checks import CHECKS, FreeRun, Insides
from keel.studies.inside.plate_placement import AXES, Axis, Taken, taken_by

MORE = 4
"""So many plates more than evenly placed ones are tried where something hangs in the way."""
LEAST_CORNER_MM, MOST_CORNER_MM = 15, 400
NOTCH_HIGH_MM, WIDEST, FAR_MM = 30.0, 0.6, 1e5
"""A notch is so high, and no wider than this share of its foot."""
SCALLOP_MM, SCALLOP_OPEN = 24.0, 0.63
"""Across a scallop; how much of its square is open, a quarter of it over the plate's edge."""
CORNERS_ALONE = 1.2
"""So much more than the wanted share corners open by themselves: some of it lies beside plates that cross."""
HELPS = 0.25
"""Corners that open less than this of what is wanted are those of a round section."""
NEAR = 0.3
"""A share this much off the wanted one counts as reached: where a section vanishes, or a millimetre is much."""
Place = tuple[Axis, float]


def suggested_array(design: Design, solids: Solids, rules: HouseRules, *, clear: bool = True) -> list[Baffle]:
    """The fewest plates for the house rule's free run, opened by the middle of its clear areas.

    Parameters
    ----------
    design : Design
        With a shell; its own baffles are left out of account.
    solids : Solids
        Its shell worked out.
    rules : HouseRules
        The longest free run, and the least and largest clear area.
    clear : bool
        Whether they keep off pots, hangers, ports and floats, or stand evenly whatever is in the way.

    Returns
    -------
    list of Baffle
        Across first, then lengthwise; where there is no room the runs stay longer than the rule. Corners are cut off
        where the section has any; else a gap over it and a notch in its foot open it.

    Raises
    ------
    GeometryError
        Where the shell can't be made without its baffles.
    """
    return opened_plates(design, solids, rules, _array_places(design, solids, rules, clear))


def _array_places(design: Design, solids: Solids, rules: HouseRules, clear: bool) -> list[Place]:
    size = solids.body.size
    taken = taken_by(design, solids, rules.brush_mm) if clear else Taken({axis: [] for axis in AXES})
    return [
        (axis, at) for way, axis in enumerate(AXES) for at in _places(design, taken, axis, size[way], rules.free_run_mm)
    ]


def runs_kept(design: Design, solids: Solids, plates: Sequence[Place], most_mm: float) -> bool:
    """Whether walls, partitions and plates at those places leave no run longer than that."""
    for way, axis in enumerate(AXES):
        stands = sorted(at for plate_axis, at in plates if plate_axis == axis)
        ends = sorted([*_walls(design, axis, solids.body.size[way]), *stands])
        if any(high - low > most_mm + 1 for low, high in pairwise(ends)):
            return False
    return True


def opened_plates(design: Design, solids: Solids, rules: HouseRules, places: Sequence[Place]) -> list[Baffle]:
    """Plates at those places, in the place of the shell's own, each opened by the middle of the house rule's areas.

    Parameters and errors as for `suggested_array`; `places` are axes and distances from the rear or right side [mm].

    Parameters
    ----------
    design : Design
        The design.
    solids : Solids
        The shell worked out.
    rules : HouseRules
        House rules.
    places : sequence of Place
        Axis and distance of each from the rear or right side [mm].

    Returns
    -------
    list of Baffle
        A baffle a place.
    """
    if not places:
        return []
    assert design.shell is not None
    kept = tuple(feature for feature in design.shell.features if not isinstance(feature, Baffle))
    taken = {feature.id for feature in design.shell.features}
    numbers = (n for n in count(1) if f"baffle-{n}" not in taken)
    bare = solids
    if len(kept) < len(design.shell.features):
        bare = build(design.shell.model_copy(update={"features": kept}), design.sheet.making)
    share, wall = (rules.clear_least + rules.clear_most) / 2, design.shell.feature_wall_mm
    made, inner = list[Baffle](), bare.inner
    # Plates that cross are lapped: each is opened as though the others weren't there.
    lapping: dict[Axis, Manifold] = dict.fromkeys(AXES, bare.inner)
    for axis, at in places:
        way, number = "xy".index(axis), next(numbers)
        rings = slice_rings(lapping[axis], way, bare.datum[way] + at + wall / 2)
        if rings:
            plain = Baffle(id=f"baffle-{number}", name=f"baffle {number}", axis=axis, at_mm=at)
            plate = _opened(plain, CrossSection(rings), bare, share, _crossed_at(axis, places, bare, wall))
            try:
                slab = plate_at(plate, inner, bare.body, bare.inner_body, wall, "array", lapping[axis]).slab
            except GeometryError:
                continue  # too little is left there to be a plate
            inner, lapping[axis] = inner - slab, lapping[axis] - slab
            made.append(plate)
    return made


def next_plate(design: Design, solids: Solids, rules: HouseRules, run: FreeRun) -> Baffle | None:
    """A plate that halves a free run, clear of what hangs, opened by the house rule; None where it can't be made."""
    at = float(round(taken_by(design, solids, rules.brush_mm).clear_place(run.axis, run.middle_mm)))
    return next(iter(opened_plates(design, solids, rules, [(run.axis, at)])), None)


def with_array(shell: AnyShell, plates: list[Baffle]) -> list[dict[str, object]]:
    """A shell's features, as documents, with other baffles in the place of its own.

    Parameters
    ----------
    shell : AnyShell
        The shell.
    plates : list of Baffle
        As they are to be.

    Returns
    -------
    list of dict[str, object]
        All features.
    """
    kept = [feature for feature in shell.features if not isinstance(feature, Baffle)]
    return [feature.model_dump(mode="json") for feature in (*kept, *plates)]


def _places(design: Design, taken: Taken, axis: Axis, size: float, most: float) -> list[float]:
    """Where the fewest plates stand that keep the runs between walls and them within the rule [mm]."""
    ends = _walls(design, axis, size)
    return [at for low, high in pairwise(ends) for at in _between(taken, axis, low, high, most)]


def _walls(design: Design, axis: Axis, size: float) -> list[float]:
    features = design.shell.features if design.shell else ()
    return [0.0, *sorted(f.at_mm for f in features if isinstance(f, Partition) and f.axis == axis), size]


def _between(taken: Taken, axis: Axis, low: float, high: float, most: float) -> list[float]:
    """The same between two walls, clear of what hangs."""
    least = ceil((high - low - 1) / most - 1e-6) - 1
    places: list[float] = []
    for many in range(max(0, least), least + MORE):
        even = [round(low + (high - low) * n / (many + 1)) for n in range(1, many + 1)]
        places = taken.clear_places(axis, even)
        if all(b - a <= most for a, b in pairwise([low, *places, high])):
            break
    return places


def _crossed_at(axis: Axis, places: Sequence[Place], bare: Solids, wall: float) -> CrossSection:
    """What of a plate's plane the plates square to it take, all the way up."""
    starts = [bare.datum["xy".index(other)] + at for other, at in places if other != axis]
    bands = [CrossSection.square((wall, 2 * FAR_MM)).translate((start, -FAR_MM)) for start in starts]
    return CrossSection.batch_boolean(bands, OpType.Add) if bands else CrossSection()


def _opened(plate: Baffle, section: CrossSection, solids: Solids, share: float, crossed: CrossSection) -> Baffle:
    """A plate opened to a share of its section: corners, notches where they don't do; a gap and its foot if round.

    Crossed plates have corners only at the shell: every room between them gets a notch at its foot and a scallop for
    the air over it.
    """
    free = section - crossed

    def open_share(left: CrossSection) -> float:
        return float(1 - (left - crossed).area() / free.area())

    rooms = not crossed.is_empty()
    scallops = _scallops(plate, free, solids) if rooms else ()
    through = len(scallops) * SCALLOP_OPEN * SCALLOP_MM**2 / section.area()
    for wanted in (share / 2, CORNERS_ALONE * share) if rooms else (share,):
        corner = _nearest(lambda mm: open_share(corners_cut(section, mm)), wanted, MOST_CORNER_MM)
        left = corners_cut(section, corner)
        if open_share(left) <= HELPS * wanted:
            break
        more = share - open_share(left) - through
        notches = _notches(plate, section, left, solids, more, crossed) if rooms or more > NEAR * share else ()
        opened = {"corner_mm": float(max(LEAST_CORNER_MM, corner)), "notches": notches, "holes": scallops}
        # Where the feet are too narrow for notches the corners have to do all of it.
        if wanted != share / 2 or not rooms or _is_opened(notches, more, section):
            return plate.model_copy(update=opened)
    gap = _nearest(lambda mm: open_share(section ^ section.translate((0.0, -mm))), share / 2, MOST_CORNER_MM)
    foot = _foot(plate, section, solids, share / 2)
    return plate.model_copy(update={"corner_mm": 0.0, "top_gap_mm": float(gap), "notches": (foot,)})


def _is_opened(notches: Sequence[Notch], wanted: float, section: CrossSection) -> bool:
    """Whether notches open about as much of a section as they were to."""
    opened = float(sum(notch.wide_mm * NOTCH_HIGH_MM for notch in notches) / section.area())
    return opened >= (1 - NEAR) * wanted


def _notches(
    plate: Baffle, section: CrossSection, left: CrossSection, solids: Solids, share: float, crossed: CrossSection
) -> tuple[Notch, ...]:
    """A notch in the middle of every foot of a section, as wide as opens such a share more."""
    low = section.bounds()[1]
    slab = CrossSection.square((2 * FAR_MM, NOTCH_HIGH_MM)).translate((-FAR_MM, low))
    feet = [(piece.bounds()[0], piece.bounds()[2]) for piece in ((section - crossed) ^ slab).decompose()]

    def widths(wide: float) -> list[float]:
        return [min(wide, float(int(WIDEST * (last - first)))) for first, last in feet]

    def cut(wide: float) -> CrossSection:
        found = CrossSection()
        for (first, last), own in zip(feet, widths(wide), strict=True):
            found += CrossSection.square((own, NOTCH_HIGH_MM)).translate(((first + last - own) / 2, low))
        return found

    most = WIDEST * max(last - first for first, last in feet)
    wide = _nearest(lambda mm: float((left ^ cut(mm)).area() / section.area()), share, most)
    start = solids.datum[1 - "xy".index(plate.axis)]
    high = round(low + NOTCH_HIGH_MM - solids.inner_body.low[2], 1)
    return tuple(
        Notch(at_mm=round((a + b) / 2 - start, 1), wide_mm=own, high_mm=high)
        for (a, b), own in zip(feet, widths(float(wide)), strict=True)
        if high > 0 and own > 0
    )


def _scallops(plate: Baffle, rooms: CrossSection, solids: Solids) -> tuple[Holes, ...]:
    """A hole over the highest place of every room between plates that cross, most of it on the plate."""
    found = []
    start = solids.datum[1 - "xy".index(plate.axis)]
    for room in rooms.decompose():
        left, _, right, _ = room.bounds()
        ring = np.vstack(room.to_polygons())
        top = ring[ring[:, 1] > ring[:, 1].max() - 1e-3]
        reach = min(SCALLOP_MM, (right - left) / 2)
        middle = min(max(float(top[:, 0].min() + top[:, 0].max()) / 2, left + reach), right - reach)
        column = CrossSection.square((SCALLOP_MM, 2 * FAR_MM)).translate((middle - SCALLOP_MM / 2, -FAR_MM))
        up_mm = round(float((room ^ column).bounds()[3]) - SCALLOP_MM / 4 - solids.datum[2], 1)
        found.append(Holes(at_mm=round(middle - start, 1), up_mm=up_mm, diameter_mm=SCALLOP_MM))
    return tuple(found)


def _foot(plate: Baffle, section: CrossSection, solids: Solids, share: float) -> Notch:
    """The foot of a section cut off, as high as opens such a share of it."""
    left, foot, right, top = section.bounds()

    def below(high: float) -> CrossSection:
        return section ^ CrossSection.square((right - left, high)).translate((left, foot))

    high = _nearest(lambda mm: float(below(mm).area() / section.area()), share, top - foot)
    first, _, last, up = below(high).bounds()
    middle = round((first + last) / 2 - solids.datum[1 - "xy".index(plate.axis)], 1)
    # Over a sump the foot lies below the floor that notches are measured from.
    above = max(1.0, round(up - solids.inner_body.low[2], 1))
    return Notch(at_mm=middle, wide_mm=float(ceil(last - first)), high_mm=above)


def _nearest(share_at: Callable[[float], float], wanted: float, most: float) -> int:
    """The whole millimetres at which a rising share comes nearest, up to the most; below it where it leaps over it."""
    low, high = 0.0, 1.0
    while share_at(high) < wanted:
        low, high = high, high * 2
        if low > most:
            return max(1, int(most))
    while high - low > 0.25:
        middle = (low + high) / 2
        low, high = (middle, high) if share_at(middle) < wanted else (low, middle)
    below, above = int(low), round(high)
    off = {mm: abs(share_at(mm) / wanted - 1) for mm in (below, above)}
    return max(1, above if off[above] <= min(NEAR, off[below]) else below)


def further_plate(design: Design, solids: Solids, rules: HouseRules, checks: Insides) -> Baffle | None:
    """A further plate, as one is begun with: where the fuel runs furthest."""
    return next_plate(design, solids, rules, checks.longest)


def offered_plates(design: Design, solids: Solids, rules: HouseRules) -> tuple[list[Baffle], bool]:
    """The plates that are offered, and whether they are clear of what hangs: where that leaves a run too long, not."""
    places = _array_places(design, solids, rules, clear=True)
    if runs_kept(design, solids, places, rules.free_run_mm):
        made = opened_plates(design, solids, rules, places)
        # A plate that can't be made where it would stand leaves the run that it should have parted.
        if runs_kept(design, solids, [(plate.axis, plate.at_mm) for plate in made], rules.free_run_mm):
            return made, True
    return suggested_array(design, solids, rules, clear=False), False


OFFERED_PLATES = study(
    offered_plates, only("shell", "sheet.seam", "sheet.scheme", "ports", "gauge"), SOLIDS, RULES
).at_rest()
NEXT_PLATE = study(
    further_plate, only("shell", "sheet.seam", "sheet.scheme", "ports", "gauge"), SOLIDS, RULES, CHECKS
).at_rest()
