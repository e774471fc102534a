"""What cuts each part, of the means that the shop has."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import hypot

from keel.analysis.parts import SHELL, WORKSHOP
from keel.analysis.study import study
from keel.design.workshop import Cutter, Workshop
from keel.reference.metals import MetalName
from keel.solid.solids import AnyShell
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.machines import thickest_mm
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart

ROUNDING_MM = 1e-6
MANY_SIDES = 8
LEAST_SIDE_MM = 12.0
"""A ring of many sides that are all shorter is a curve drawn in chords."""


@dataclass(frozen=True, slots=True)
class Cutting:
    """What cuts one part: its outline, and of its holes those that no means here cuts [mm]."""

    name: str
    title: str
    by: list[str]
    holes_by: list[str]
    holes_left_mm: list[float]
    loud: bool


def cutting(made: Sheet, shell: AnyShell, workshop: Workshop) -> list[Cutting]:
    """Which of the shop's means cuts each part.

    Parameters
    ----------
    made : Sheet
        As the parts are cut.
    shell : AnyShell
        Its metal.
    workshop : Workshop
        The means; without any there is nothing to say.

    Returns
    -------
    list of Cutting
        A part each; `loud` where every means that cuts its outline is.
    """
    return [_cut(part, shell.metal, workshop.cutters) for part in made.parts] if workshop.cutters else []


def _cut(part: FlatPart, metal: MetalName, cutters: Sequence[Cutter]) -> Cutting:
    able = [one for one in cutters if part.thickness_mm <= thickest_mm(one.thickest_steel_mm, metal) + ROUNDING_MM]
    outline = [one for one in able if _cuts_outline(one, part)]
    inner = [one for one in outline if one.cuts == "outlines"]
    wanted = sorted({bore.diameter_mm for bore in part.bores})
    by_hole = {size: [one for one in able if _cuts_hole(one, size)] or inner for size in wanted}
    used = dict.fromkeys(one.name for means in by_hole.values() for one in means[:1])
    return Cutting(
        name=part.name,
        title=part.title,
        by=[one.name for one in outline],
        holes_by=list(used),
        holes_left_mm=[size for size, means in by_hole.items() if not means],
        loud=bool(outline) and all(one.loud for one in outline),
    )


def _cuts_hole(cutter: Cutter, diameter_mm: float) -> bool:
    most = float("inf") if cutter.to_mm is None else cutter.to_mm
    return cutter.cuts == "round holes" and cutter.from_mm - ROUNDING_MM <= diameter_mm <= most + ROUNDING_MM


def _cuts_outline(cutter: Cutter, part: FlatPart) -> bool:
    """Straight edges are cut right through: an inward corner, an opening or a curve isn't."""
    if cutter.cuts == "round holes" or max(part.length_mm, part.width_mm) > (cutter.longest_mm or float("inf")):
        return False
    if cutter.cuts == "outlines":
        return min(_curves(part), default=float("inf")) >= cutter.curve_mm - ROUNDING_MM
    return not part.holes and not list(_curves(part)) and _turns_one_way(part)


def _curves(part: FlatPart) -> Iterator[float]:
    """Radii of rings drawn in chords, by their boxes [mm]."""
    for ring in (part.outline, *part.holes):
        sides = [hypot(b[0] - a[0], b[1] - a[1]) for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)]
        if len(ring) > MANY_SIDES and max(sides) < LEAST_SIDE_MM:
            across = [x for x, _ in ring]
            yield (max(across) - min(across)) / 2


def _turns_one_way(part: FlatPart) -> bool:
    ring = part.outline
    ways = set()
    for a, b, c in zip(ring, [*ring[1:], ring[0]], [*ring[2:], *ring[:2]], strict=True):
        turn = (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])
        if abs(turn) > 1e-3:
            ways.add(turn > 0)
    return len(ways) == 1


CUTTING = study(cutting, FLATS, SHELL, WORKSHOP).at_rest()
