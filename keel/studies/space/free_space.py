"""The largest boxes that are free."""

from keel.design.bay import Bay
from keel.design.workshop import HouseRules
from keel.solid.box import Cuboid, Triple
from keel.studies.space.clearance import boxes_of, free_box
from keel.studies.space.gap import needed_mm


def largest_spaces(bay: Bay, rules: HouseRules) -> list[Cuboid]:
    """Every box in the bay that clears everything and can't be made larger on any side.

    Returns
    -------
    list of Cuboid
        Largest first [mm].

    Notes
    -----
    Starts from the free bay; each keep-out, grown by its clearance, splits the boxes it
    meets into what is left on its six sides; boxes inside others are dropped. Round a
    keep-out's edges its clearance is taken as a square corner: a box that goes past
    cornerwise can never be larger than the best of those that stay beside it.
    """
    spaces = [free_box(bay, rules)]
    for keep_out, box in boxes_of(bay) or []:
        gap = needed_mm(keep_out.clearance, rules)
        grown = box.grown((gap, gap, gap), (gap, gap, gap))
        split = [piece for space in spaces for piece in _split(space, grown)]
        spaces = _not_inside_others(split)
    return sorted((s for s in spaces if min(s.size) > 0), key=lambda s: -s.volume_mm3)


def _split(space: Cuboid, blocked: Cuboid) -> list[Cuboid]:
    if any(blocked.low[i] >= space.high[i] or blocked.high[i] <= space.low[i] for i in range(3)):
        return [space]
    pieces = []
    for i in range(3):
        if blocked.low[i] > space.low[i]:
            pieces.append(Cuboid(space.low, _with(space.high, i, blocked.low[i])))
        if blocked.high[i] < space.high[i]:
            pieces.append(Cuboid(_with(space.low, i, blocked.high[i]), space.high))
    return pieces


def _not_inside_others(spaces: list[Cuboid]) -> list[Cuboid]:
    kept: list[Cuboid] = []
    for space in sorted(spaces, key=lambda s: -s.volume_mm3):
        if not any(_inside(space, other) for other in kept):
            kept.append(space)
    return kept


def _inside(a: Cuboid, b: Cuboid) -> bool:
    (ax, ay, az), (bx, by, bz) = a.low, b.low
    if ax < bx or ay < by or az < bz:
        return False
    (ax, ay, az), (bx, by, bz) = a.high, b.high
    return ax <= bx and ay <= by and az <= bz


def _with(corner: Triple, axis: int, value: float) -> Triple:
    changed = list(corner)
    changed[axis] = value
    return (changed[0], changed[1], changed[2])
