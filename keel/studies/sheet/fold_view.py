"""What a screen needs to fold every part up into the tank: its panels, which hangs on which, by what turn."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from math import degrees

import numpy as np
from shapely.geometry import Point, Polygon
from shapely.geometry.base import BaseGeometry

from keel.analysis.study import study
from keel.solid.planes import polygons_of
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.folding import Panel, folded
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart, Place, Roll, Spot

ROLLED_DEG = 10.0
"""A roll is shown in strips of no more than this."""
JUST_PAST_MM = 1e-3
ROUND = 8


@dataclass(frozen=True, slots=True)
class FoldPanel:
    """A piece of a part between its turns, in u and v of its flat.

    `rings` are shapes, an outline and its holes each. It hangs on its `parent`, left of the line from `start` to `end`
    by a zone so wide; `angle_deg` is towards the reader above zero, `far_mm` the radius of the far face. The base
    hangs on none.
    """

    rings: list[list[list[Spot]]]
    parent: int | None
    start: Spot
    end: Spot
    zone_mm: float
    angle_deg: float
    far_mm: float


@dataclass(frozen=True, slots=True)
class FoldPiece:
    """A part, or one of those that are alike, and where its base lies: sixteen figures row by row."""

    part: str
    piece: str
    matrix: list[float]
    panels: list[FoldPanel]


def fold_pieces(made: Sheet) -> list[FoldPiece]:
    """All parts that have a place in the tank, to be folded up.

    Parameters
    ----------
    made : Sheet
        As the parts are cut.

    Returns
    -------
    list of FoldPiece
        Every piece of every part whose bends part it so that each panel hangs on one of them.
    """
    return [piece for part in made.parts for place in part.places for piece in _piece(part, place)]


def facetted(part: FlatPart, place: Place, most_deg: float) -> tuple[FlatPart, Place]:
    """A part whose rolls are narrow strips, and its place by a panel that is one of them.

    Parameters
    ----------
    part : FlatPart
        Any.
    place : Place
        One of its own.
    most_deg : float
        A strip turns through no more than this [°].

    Returns
    -------
    (FlatPart, Place)
        The same where it has no rolls.
    """
    strips = replace(part, rolls=[strip for roll in part.rolls for strip in in_strips(roll, most_deg)])
    return strips, replace(place, base=_base(strips, place))


def _piece(part: FlatPart, place: Place) -> Iterator[FoldPiece]:
    strips, at = facetted(part, place, ROLLED_DEG)
    try:
        panels = folded(strips, 1.0, at.base)
    except ValueError:
        return
    cut = Polygon(part.outline, part.holes)
    for bore in part.bores:
        cut = cut.difference(Point(bore.middle).buffer(bore.diameter_mm / 2, ROUND))
    yield FoldPiece(part.name, place.name, place.matrix, [_panel(panel, cut) for panel in panels])


def in_strips(roll: Roll, most_deg: float) -> list[Roll]:
    """A roll as several narrow ones side by side, each of the same radius.

    Parameters
    ----------
    roll : Roll
        Of any angle.
    most_deg : float
        Each turns through no more than this [°].

    Returns
    -------
    list of Roll
        Together as wide and turned through as much.
    """
    count = max(1, int(np.ceil(roll.angle_deg / most_deg)))
    shares = [n / count for n in range(count + 1)]

    def between(a: Spot, b: Spot, share: float) -> Spot:
        return a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])

    return [
        replace(
            roll,
            start=between(roll.start, roll.until, near),
            end=between(roll.end, roll.stop, near),
            until=between(roll.start, roll.until, far),
            stop=between(roll.end, roll.stop, far),
            angle_deg=roll.angle_deg / count,
        )
        for near, far in pairwise(shares)
    ]


def _base(part: FlatPart, place: Place) -> Spot:
    """A spot of the panel that the place is of; of a part rolled from its edge that is where the roll begins."""
    if part.rolls and not part.bends and part.rolls[0].start[0] == 0.0:
        return JUST_PAST_MM, place.base[1]
    return place.base


def _panel(panel: Panel, cut: BaseGeometry) -> FoldPanel:
    turn = panel.turn
    return FoldPanel(
        rings=[_rings(shape) for shape in polygons_of(Polygon(panel.outline).intersection(cut))],
        parent=panel.parent,
        start=turn.start if turn else (0.0, 0.0),
        end=turn.end if turn else (1.0, 0.0),
        zone_mm=turn.zone_mm if turn else 0.0,
        angle_deg=degrees(turn.angle) if turn else 0.0,
        far_mm=turn.far_mm if turn else 0.0,
    )


def _rings(shape: Polygon) -> list[list[Spot]]:
    return [
        [(round(float(u), 2), round(float(v), 2)) for u, v in list(ring.coords)[:-1]]
        for ring in (shape.exterior, *shape.interiors)
    ]


FOLD_PIECES = study(fold_pieces, FLATS).at_rest()
