"""A flat part folded and rolled up: its panels between bend lines, and where each comes to lie.

Coordinates of a flat are u and v over its datum edges and w from its far face, w = 0, towards the reader, who sees the
inside of the tank: the far face is the tank's outside. A turn, bent or rolled, keeps the length of the sheet's neutral
line over its zone and carries the panel beyond it about an axis that lies over the zone (a turn towards the reader) or
under it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot, radians

import numpy as np
from shapely import LineString, Point, Polygon
from shapely.ops import polygonize, unary_union

from keel.reference.test_strip import setback
from keel.solid.polyhedron import Array
from keel.studies.sheet.hems import is_hem
from keel.studies.sheet.parts import Bend, FlatPart, Spot

MIDDLE = (0.5,)
ALL_ALONG = tuple((n + 0.5) / 41 for n in range(41))
"""Where along its line a turn's two sides are looked for."""
BESIDE_MM = 1e-3
"""So far beside a turn's line its two panels are looked for [mm]."""


@dataclass(frozen=True, slots=True)
class Turn:
    """A bend or a roll as it works in space.

    `start` and `end` are the ends of its zone's middle line, `zone_mm` the zone's width on the flat, `angle` is turned
    through, towards the reader above zero [rad], `far_mm` the radius of the far face once it is made.
    """

    start: Spot
    end: Spot
    zone_mm: float
    angle: float
    far_mm: float

    @property
    def neutral_mm(self) -> float:
        """Radius of the line that keeps its length: the zone's width over the angle."""
        return self.zone_mm / abs(self.angle)

    def at(self, share: float) -> "Turn":
        """The same on its way, so much of its angle made: the zone stays as wide."""
        off = self.far_mm - self.neutral_mm
        return Turn(self.start, self.end, self.zone_mm, self.angle * share, self.neutral_mm / share + off)


@dataclass(frozen=True, slots=True)
class Panel:
    """A piece of a flat between the lines of its turns.

    `outline` is on the flat [mm]. `turn` is the place among the part's turns of that by which it hangs on its `parent`,
    a place among the panels, with the panel to the left of the turn's line; the base has neither. `matrix`, shape
    (4, 4), takes (u, v, w) to where it lies when all is folded; the base stays.
    """

    outline: list[Spot]
    parent: int | None
    turn: Turn | None
    matrix: Array


def turns_of(part: FlatPart) -> list[Turn]:
    """All bends and rolls of a part.

    Parameters
    ----------
    part : FlatPart
        Up is towards the reader.

    Returns
    -------
    list of Turn
        Bends first.

    References
    ----------
    A bend's zone is its allowance, BA = 2 S − BD (of a hem S is r + t); its far face has the radius r + t where it
    turns towards the reader, r where it turns away. A roll keeps the length of the sheet's middle (derived).
    """
    return [_of_bend(bend, part.thickness_mm) for bend in part.bends] + [
        Turn(
            start=((roll.start[0] + roll.until[0]) / 2, (roll.start[1] + roll.until[1]) / 2),
            end=((roll.end[0] + roll.stop[0]) / 2, (roll.end[1] + roll.stop[1]) / 2),
            zone_mm=hypot(roll.until[0] - roll.start[0], roll.until[1] - roll.start[1]),
            angle=radians(roll.angle_deg) * (1 if roll.direction == "up" else -1),
            far_mm=roll.radius_mm + part.thickness_mm / 2 * (1 if roll.direction == "up" else -1),
        )
        for roll in part.rolls
    ]


def _of_bend(bend: Bend, thickness_mm: float) -> Turn:
    turned = bend.radius_mm + thickness_mm
    reach = turned if is_hem(bend) else setback(bend.angle_deg, bend.radius_mm, thickness_mm)
    allowance = 2 * reach - bend.deduction_mm
    up = bend.direction == "up"
    far = bend.radius_mm + (thickness_mm if up else 0.0)
    return Turn(bend.start, bend.end, allowance, radians(bend.angle_deg) * (1 if up else -1), far)


def turn_matrix(turn: Turn, share: float = 1.0) -> Array:
    """What a turn does to the panel to the left of its line, shape (4, 4).

    Parameters
    ----------
    turn : Turn
        The child panel lies to the left of the way from its start to its end.
    share : float
        How much of it is made, 0 to 1.

    Returns
    -------
    ndarray
        A rigid motion: back over the zone, then about the axis over (or under) the zone's near edge.
    """
    if share * turn.angle == 0.0:
        return np.eye(4)
    made = turn.at(share)
    along = np.array([turn.end[0] - turn.start[0], turn.end[1] - turn.start[1], 0.0])
    along /= np.linalg.norm(along)
    left = np.array([-along[1], along[0], 0.0])
    edge = np.array([turn.start[0], turn.start[1], 0.0]) - left * turn.zone_mm / 2
    axis = edge + np.array([0.0, 0.0, made.far_mm * (1 if turn.angle > 0 else -1)])
    matrix, turned = np.eye(4), rotation(along, made.angle)
    matrix[:3, :3] = turned
    matrix[:3, 3] = axis - turned @ (axis + left * turn.zone_mm)
    return matrix


def rotation(axis: Array, angle: float) -> Array:
    """Turning about a unit axis through the origin by an angle [rad], shape (3, 3): Rodrigues' formula."""
    x, y, z = axis
    cross = np.array([[0.0, -z, y], [z, 0.0, -x], [-y, x, 0.0]])
    return np.asarray(np.eye(3) + np.sin(angle) * cross + (1 - np.cos(angle)) * cross @ cross)


def folded(part: FlatPart, share: float = 1.0, base: Spot | None = None) -> list[Panel]:
    """The panels of a part and where each lies when its turns are made.

    Parameters
    ----------
    part : FlatPart
        Its bend lines reach from edge to edge of what they part.
    share : float
        How much of each turn is made, 0 to 1: between them the part is on its way.
    base : Spot, optional
        A place in the panel that stays; in the largest one by default.

    Returns
    -------
    list of Panel
        Each after its parent, the base first.

    Raises
    ------
    ValueError
        Where the lines don't part the flat so that every panel hangs on another by one.
    """
    turns = turns_of(part)
    shapes = _parted(Polygon(part.outline, part.holes), turns)
    first = max(range(len(shapes)), key=lambda i: shapes[i].area)
    if base is not None:
        first = next((i for i, shape in enumerate(shapes) if shape.covers(Point(base))), first)
    hung = _hung(shapes, turns, first, share, MIDDLE)
    if len(hung) < len(shapes):
        # A notch in its middle, or several panels along one line: looked at all along.
        hung = _hung(shapes, turns, first, share, ALL_ALONG)
    if len(hung) < len(shapes):
        raise ValueError(f"{part.name}: {len(shapes) - len(hung)} of its panels hang on no bend")
    places = {piece: place for place, piece in enumerate(hung)}
    return [
        Panel(_corners(shapes[piece]), None if parent is None else places[parent], turn, matrix)
        for piece, (parent, turn, matrix) in hung.items()
    ]


Hung = dict[int, tuple[int | None, Turn | None, Array]]
"""By panel: its parent, the turn it hangs by, and where that takes it."""


def _hung(shapes: Sequence[Polygon], turns: Sequence[Turn], first: int, share: float, shares: Sequence[float]) -> Hung:
    """Every panel that can be reached from the first over the turns' lines, where these are looked at."""
    sides = [(turn, *pair) for turn in turns for pair in _sides(shapes, turn, shares)]
    hung: Hung = {first: (None, None, np.eye(4))}
    waiting = [first]
    while waiting:
        here = waiting.pop(0)
        for turn, left, right in sides:
            if here not in (left, right):
                continue
            other = left if here == right else right
            if other in hung:
                continue
            seen = turn if here == right else Turn(turn.end, turn.start, turn.zone_mm, turn.angle, turn.far_mm)
            hung[other] = (here, seen, hung[here][2] @ turn_matrix(seen, share))
            waiting.append(other)
    return hung


def _corners(shape: Polygon) -> list[Spot]:
    return [(float(x), float(y)) for x, y in list(shape.exterior.coords)[:-1]]


def _parted(whole: Polygon, turns: Sequence[Turn]) -> list[Polygon]:
    """A flat parted at its turns' middle lines, each made a hair longer so that it leaves the flat."""
    lines = [whole.boundary]
    for turn in turns:
        (x0, y0), (x1, y1) = turn.start, turn.end
        more = 2 * BESIDE_MM / hypot(x1 - x0, y1 - y0)
        dx, dy = (x1 - x0) * more, (y1 - y0) * more
        lines.append(LineString([(x0 - dx, y0 - dy), (x1 + dx, y1 + dy)]))
    # All at once: round an opening that lies over a bend two lines part the flat together.
    pieces = [one for one in polygonize(unary_union(lines)) if whole.covers(one.representative_point())]
    return pieces or [whole]


def _sides(shapes: Sequence[Polygon], turn: Turn, shares: Sequence[float]) -> list[tuple[int, int]]:
    """The panels to the left and to the right of a turn's line, where it is looked at; each pair once."""
    (x0, y0), (x1, y1) = turn.start, turn.end
    long = hypot(x1 - x0, y1 - y0)
    off = (-(y1 - y0) / long * BESIDE_MM, (x1 - x0) / long * BESIDE_MM)

    def at(share: float, way: int) -> int | None:
        spot = Point(x0 + share * (x1 - x0) + way * off[0], y0 + share * (y1 - y0) + way * off[1])
        return next((i for i, shape in enumerate(shapes) if shape.covers(spot)), None)

    pairs = [(at(share, 1), at(share, -1)) for share in shares]
    return list(dict.fromkeys((left, right) for left, right in pairs if left is not None and right is not None))
