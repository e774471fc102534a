"""Does the shell clear the bay and everything in it, and what is the largest box that would?"""

from dataclasses import dataclass
from math import sqrt
from typing import Literal

from keel.design.bay import SIDES, Bay, Clearance
from keel.design.workshop import HouseRules
from keel.reference.clearances import ClearanceClass
from keel.solid.box import AXES, Axis, Cuboid, Triple
from keel.studies.result import Point

TOUCH_MM = 1e-6
"""Rounding that is not a fault [mm]."""


@dataclass(frozen=True, slots=True)
class Gap:
    """The nearest gap from the shell to one neighbour."""

    neighbour: str
    kind: Literal["side", "keep-out"]
    key: str
    axis: Axis
    toward: Literal[-1, 1]
    gap_mm: float
    needed_mm: float
    rule: Literal["house rule", "typed"]
    clearance_kind: ClearanceClass
    start: Point
    end: Point

    @property
    def short_mm(self) -> float:
        """By how much the gap is too small [mm]; nought or less when it clears."""
        return self.needed_mm - self.gap_mm

    @property
    def clears(self) -> bool:
        """Whether the gap is as wide as it has to be."""
        return self.short_mm <= TOUCH_MM


def needed_mm(clearance: Clearance, rules: HouseRules) -> float:
    """Least gap for a clearance [mm]: the typed one, else the house rule of its kind."""
    return clearance.mm if clearance.mm is not None else rules.clearances_mm[clearance.kind]


def _rule(clearance: Clearance) -> Literal["house rule", "typed"]:
    return "house rule" if clearance.mm is None else "typed"


def bay_box(bay: Bay) -> Cuboid:
    """The bay's extents as a box; its rear, right, lower corner is the origin."""
    return Cuboid((0.0, 0.0, 0.0), (bay.length_mm, bay.width_mm, bay.height_mm))


def free_box(bay: Bay, rules: HouseRules) -> Cuboid:
    """The bay less the clearance of each of its sides."""
    kept = [needed_mm(getattr(bay.sides, side), rules) for side in SIDES]
    low, high = (-kept[0], -kept[2], -kept[4]), (-kept[1], -kept[3], -kept[5])
    return bay_box(bay).grown(low, high)


def keep_out_boxes(bay: Bay) -> list[Cuboid]:
    """The keep-outs as boxes, without their clearance."""
    return [
        Cuboid((k.x_mm, k.y_mm, k.z_mm), (k.x_mm + k.length_mm, k.y_mm + k.width_mm, k.z_mm + k.height_mm))
        for k in bay.keep_outs
    ]


def gaps(bay: Bay, overall: Cuboid, rules: HouseRules) -> list[Gap]:
    """Nearest gap from the shell, lips included, to each side of the bay and each keep-out.

    Parameters
    ----------
    bay : Bay
        Extents, keep-outs and their clearances.
    overall : Cuboid
        The shell over everything that stands out from it [mm].
    rules : HouseRules
        Clearance by kind of neighbour.

    Returns
    -------
    list of Gap
        Sides first. A gap below nought is an overlap: the least push that would part the two.
        The shell is taken with square outside corners, so gaps past a bend err small.
    """
    return [*_side_gaps(bay, overall, rules), *_keep_out_gaps(bay, overall, rules)]


def _side_gaps(bay: Bay, overall: Cuboid, rules: HouseRules) -> list[Gap]:
    room, found = bay_box(bay), []
    for place, side in enumerate(SIDES):
        axis, high = place // 2, place % 2 == 1
        face, wall = (overall.high, room.high) if high else (overall.low, room.low)
        start = [(a + b) / 2 for a, b in zip(overall.low, overall.high, strict=True)]
        end = list(start)
        start[axis], end[axis] = face[axis], wall[axis]
        clearance: Clearance = getattr(bay.sides, side)
        found.append(
            Gap(
                neighbour=side,
                kind="side",
                key=side,
                axis=_axis(axis),
                toward=1 if high else -1,
                gap_mm=(wall[axis] - face[axis]) * (1 if high else -1),
                needed_mm=needed_mm(clearance, rules),
                rule=_rule(clearance),
                clearance_kind=clearance.kind,
                start=_point(start),
                end=_point(end),
            )
        )
    return found


def _keep_out_gaps(bay: Bay, overall: Cuboid, rules: HouseRules) -> list[Gap]:
    found = []
    for keep_out, box in zip(bay.keep_outs, keep_out_boxes(bay), strict=True):
        distance, axis, toward, start, end = nearest(overall, box)
        found.append(
            Gap(
                neighbour=keep_out.name,
                kind="keep-out",
                key=keep_out.id,
                axis=_axis(axis),
                toward=toward,
                gap_mm=distance,
                needed_mm=needed_mm(keep_out.clearance, rules),
                rule=_rule(keep_out.clearance),
                clearance_kind=keep_out.clearance.kind,
                start=_point(start),
                end=_point(end),
            )
        )
    return found


def nearest(a: Cuboid, b: Cuboid) -> tuple[float, int, Literal[-1, 1], list[float], list[float]]:
    """Nearest gap between two boxes.

    Returns
    -------
    distance : float
        [mm]; when they overlap, minus the least push that parts them.
    axis, toward : int
        The axis along which they are furthest apart, and on which side of `a` lies `b`.
    start, end : list of float
        The nearest points on `a` and on `b`, shape (3,) [mm].
    """
    apart = [max(b.low[i] - a.high[i], a.low[i] - b.high[i]) for i in range(3)]
    axis = max(range(3), key=lambda i: apart[i])
    start, end = [], []
    for i in range(3):
        if apart[i] > 0 or (apart[axis] <= 0 and i == axis):
            above = b.low[i] - a.high[i] >= a.low[i] - b.high[i]
            start.append(a.high[i] if above else a.low[i])
            end.append(b.low[i] if above else b.high[i])
        else:
            shared = (max(a.low[i], b.low[i]) + min(a.high[i], b.high[i])) / 2
            start.append(shared)
            end.append(shared)
    beyond: Literal[-1, 1] = 1 if b.low[axis] - a.high[axis] >= a.low[axis] - b.high[axis] else -1
    distance = sqrt(sum(max(0.0, d) ** 2 for d in apart)) if apart[axis] > 0 else apart[axis]
    return distance, axis, beyond, start, end


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
    for keep_out, box in zip(bay.keep_outs, keep_out_boxes(bay), strict=True):
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


def _point(place: list[float]) -> Point:
    return Point(x=place[0], y=place[1], z=place[2])


def _axis(index: int) -> Axis:
    names: tuple[Axis, ...] = ("x", "y", "z")
    return names[index]


assert AXES == ("x", "y", "z")
