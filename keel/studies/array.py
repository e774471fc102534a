"""The fewest baffles that keep fuel from running far: where they stand, and how they are opened."""

from collections.abc import Callable, Sequence
from itertools import count, pairwise
from math import ceil
from typing import Literal

from manifold3d import CrossSection

from keel.design.document import Design
from keel.design.features import Baffle, Notch
from keel.design.workshop import HouseRules
from keel.solid.build import AnyShell, Solids, build
from keel.solid.faults import GeometryError
from keel.solid.plates import corners_cut, plate_at
from keel.solid.shapes import slice_rings
from keel.studies.insides import FreeRun, clear_place

MORE = 4
"""So many plates more than evenly placed ones are tried where something hangs in the way."""
LEAST_CORNER_MM, MOST_CORNER_MM = 15, 400
NEAR = 0.3
"""A share this much off the wanted one counts as reached: where a section vanishes, or a millimetre is much."""
Place = tuple[Literal["x", "y"], float]
AXES: tuple[Literal["x", "y"], ...] = ("x", "y")


def suggested_array(design: Design, rules: HouseRules) -> list[Baffle]:
    """The fewest plates for the house rule's free run, opened by the middle of its clear areas.

    Parameters
    ----------
    design : Design
        With a shell; its own baffles are left out of account.
    rules : HouseRules
        The longest free run, and the least and largest clear area.

    Returns
    -------
    list of Baffle
        Across first, then lengthwise; clear of pots, hangers, ports and floats. Corners are cut off where the section
        has any; else a gap over it and a notch in its foot open it.

    Raises
    ------
    GeometryError
        Where the shell can't be made without its baffles.
    """
    assert design.shell is not None
    size = build(design.shell, design.sheet.seam).body.size
    places = [(axis, at) for way, axis in enumerate(AXES) for at in _places(design, axis, size[way], rules.free_run_mm)]
    return opened_plates(design, rules, places)


def opened_plates(design: Design, rules: HouseRules, places: Sequence[Place]) -> list[Baffle]:
    """Plates at those places, in the place of the shell's own, each opened by the middle of the house rule's areas.

    Parameters and errors as for `suggested_array`; `places` are axes and distances from the rear or right side [mm].
    """
    if not places:
        return []
    assert design.shell is not None
    kept = tuple(feature for feature in design.shell.features if not isinstance(feature, Baffle))
    taken = {feature.id for feature in design.shell.features}
    numbers = (n for n in count(1) if f"baffle-{n}" not in taken)
    bare = build(design.shell.model_copy(update={"features": kept}), design.sheet.seam)
    share, wall = (rules.clear_least + rules.clear_most) / 2, design.shell.feature_wall_mm
    made, inner = list[Baffle](), bare.inner
    for axis, at in places:
        way, number = "xy".index(axis), next(numbers)
        rings = slice_rings(inner, way, bare.datum[way] + at + wall / 2)
        if rings:
            plain = Baffle(id=f"baffle-{number}", name=f"baffle {number}", axis=axis, at_mm=at)
            made.append(_opened(plain, CrossSection(rings), bare, share))
            inner -= plate_at(made[-1], inner, bare.body, bare.inner_body, wall, "array").slab
    return made


def next_plate(design: Design, rules: HouseRules, run: FreeRun) -> Baffle | None:
    """A plate that halves a free run, clear of what hangs, opened by the house rule; None where it can't be made."""
    at = float(round(clear_place(design, run.axis, run.middle_mm)))
    try:
        return next(iter(opened_plates(design, rules, [(run.axis, at)])), None)
    except GeometryError:
        return None


def with_array(shell: AnyShell, plates: list[Baffle]) -> list[dict[str, object]]:
    """A shell's features, as documents, with other baffles in the place of its own."""
    kept = [feature for feature in shell.features if not isinstance(feature, Baffle)]
    return [feature.model_dump(mode="json") for feature in (*kept, *plates)]


def _places(design: Design, axis: Literal["x", "y"], size: float, most: float) -> list[float]:
    """Where the fewest plates stand that keep the runs between them within the rule, clear of what hangs [mm]."""
    least = ceil((size - 1) / most - 1e-6) - 1
    places: list[float] = []
    for many in range(max(0, least), least + MORE):
        even = [round(size * n / (many + 1)) for n in range(1, many + 1)]
        places = [clear_place(design, axis, at) for at in even]
        if all(b - a <= most for a, b in pairwise([0.0, *places, size])):
            break
    return places


def _opened(plate: Baffle, section: CrossSection, solids: Solids, share: float) -> Baffle:
    """A plate opened to a share of its section: by its corners, or else by a gap over it and a notch in its foot."""

    def open_share(left: CrossSection) -> float:
        return float(1 - left.area() / section.area())

    corner = _reached(lambda mm: open_share(corners_cut(section, mm)), share, MOST_CORNER_MM)
    if corner is not None:
        return plate.model_copy(update={"corner_mm": float(max(LEAST_CORNER_MM, corner))})
    gap = _reached(lambda mm: open_share(section ^ section.translate((0.0, -mm))), share / 2, MOST_CORNER_MM) or 0
    notch = _notch(plate, section, solids, share / 2)
    return plate.model_copy(update={"corner_mm": 0.0, "top_gap_mm": float(gap), "notches": (notch,)})


def _notch(plate: Baffle, section: CrossSection, solids: Solids, share: float) -> Notch:
    """The foot of a section cut off, as high as opens such a share of it."""
    left, foot, right, top = section.bounds()

    def below(high: float) -> CrossSection:
        return section ^ CrossSection.square((right - left, high)).translate((left, foot))

    high = _reached(lambda mm: float(below(mm).area() / section.area()), share, top - foot) or 1
    first, _, last, up = below(high).bounds()
    along = 1 - "xy".index(plate.axis)
    middle = round((first + last) / 2 - solids.datum[along], 1)
    return Notch(at_mm=middle, wide_mm=float(ceil(last - first)), high_mm=round(up - solids.inner_body.low[2], 1))


def _reached(share_at: Callable[[float], float], wanted: float, most: float) -> int | None:
    """The whole millimetres at which a rising share comes nearest; None where it leaps over it, or isn't reached."""
    low, high = 0.0, 1.0
    while share_at(high) < wanted:
        low, high = high, high * 2
        if low > most:
            return None
    while high - low > 0.25:
        middle = (low + high) / 2
        low, high = (middle, high) if share_at(middle) < wanted else (low, middle)
    off = {mm: abs(share_at(mm) / wanted - 1) for mm in (int(low), round(high))}
    nearest = min(off, key=lambda mm: off[mm])
    return nearest if off[nearest] < NEAR else None
