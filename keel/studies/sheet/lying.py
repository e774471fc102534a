"""A part as it lies in the tank: from a place of the tank to the flat, and from the flat to the tank."""

from dataclasses import dataclass, replace
from functools import cached_property
from math import pi

import numpy as np
from shapely import Polygon, contains_xy, prepare

from keel.solid.polyhedron import Array
from keel.studies.sheet.folding import Panel, Turn, folded
from keel.studies.sheet.parts import FlatPart, Place, Spot
from keel.studies.sheet.placing import matrix_of

NEAR_MM = 0.6
"""A place so far off a part's outside is still on it: rounds are chords, end plates have gaps [mm]."""
HAIR_MM = 1e-6
STEPS = 12
"""Into so many strips a turn's zone is parted where it is looked at from edge to edge."""


@dataclass(frozen=True)
class Lying:
    """One piece of a part, folded, in vehicle axes.

    `outside` is w of its outside face: 0, or the thickness where it lies turned over.
    """

    part: FlatPart
    place: Place
    panels: list[Panel]
    outside: float

    @cached_property
    def backs(self) -> Array:
        """From vehicle axes to each panel's (u, v, w), shape (panels, 4, 4): a rigid motion turned round."""
        turns = np.stack([panel.matrix for panel in self.panels])
        back = np.zeros_like(turns)
        back[:, :3, :3] = turns[:, :3, :3].transpose(0, 2, 1)
        back[:, :3, 3] = -np.einsum("nij,nj->ni", back[:, :3, :3], turns[:, :3, 3])
        back[:, 3, 3] = 1.0
        return np.asarray(back)

    @cached_property
    def whole(self) -> Polygon:
        """The part's outline, a hair wider, so that its edge is on it."""
        return _prepared(self.part.outline)

    @cached_property
    def shapes(self) -> list[Polygon]:
        """The same of each panel."""
        return [_prepared(panel.outline) for panel in self.panels]


def _prepared(outline: list[Spot]) -> Polygon:
    shape = Polygon(outline).buffer(HAIR_MM)
    prepare(shape)
    return shape


@dataclass(frozen=True, slots=True)
class OnFlat:
    """Where a place of the tank lies on a flat [mm]; `turn` names the bend or roll in whose zone that is."""

    spot: Spot
    panel: int
    turn: Turn | None


def lying(part: FlatPart, place: Place, share: float = 1.0) -> Lying:
    """A piece of a part where it lies.

    Parameters
    ----------
    part : FlatPart
        Flat.
    place : Place
        One of its own.
    share : float
        How much of each turn is made, 0 to 1; the base panel lies where it will.

    Returns
    -------
    Lying
        Its panels' matrices lead to vehicle axes.
    """
    into = matrix_of(place)
    panels = [replace(panel, matrix=into @ panel.matrix) for panel in folded(part, share, place.base)]
    return Lying(part, place, panels, part.thickness_mm if place.turned else 0.0)


def to_flat(piece: Lying, spot: Array, near_mm: float = NEAR_MM) -> OnFlat | None:
    """Where a place of the tank's outside lies on a piece's flat.

    Parameters
    ----------
    piece : Lying
        A piece of a part.
    spot : ndarray, shape (3,)
        In vehicle axes [mm].
    near_mm : float
        How far off its outside a place may lie [mm].

    Returns
    -------
    OnFlat or None
        None where the piece isn't there.
    """
    seen = piece.backs @ np.append(spot, 1.0)
    for number, panel in enumerate(piece.panels):
        if panel.turn is not None and panel.parent is not None:
            found = _in_zone(seen[panel.parent], panel.turn, near_mm)
            if found is not None and covers(piece.whole, found):
                return OnFlat(found, number, panel.turn)
    for number, (u, v, w, _) in enumerate(seen):
        if abs(w - piece.outside) <= near_mm and covers(piece.shapes[number], (u, v)):
            return OnFlat((float(u), float(v)), number, None)
    return None


def covers(shape: Polygon, spot: Spot) -> bool:
    """Whether a prepared shape has a place, its edge included."""
    return bool(contains_xy(shape, *spot))


def _edge(turn: Turn) -> tuple[Array, Array, Array]:
    """Of a turn's zone: a place on its near edge, and the ways along it and over it to the left."""
    along = np.array([turn.end[0] - turn.start[0], turn.end[1] - turn.start[1]])
    along /= np.linalg.norm(along)
    left = np.array([-along[1], along[0]])
    return np.array(turn.start) - left * turn.zone_mm / 2, along, left


def _in_zone(seen: Array, turn: Turn, near_mm: float) -> Spot | None:
    """Where a place, as the panel before the turn sees it, lies in the zone on the flat; None where it isn't on it."""
    u, v, w, _ = seen
    edge, along, left = _edge(turn)
    off = np.array([u, v]) - edge
    over, above = float(off @ left), turn.far_mm - w if turn.angle > 0 else w + turn.far_mm
    angle = float(np.arctan2(over, above)) % (2 * pi)
    if abs(np.hypot(over, above) - turn.far_mm) > near_mm or angle > abs(turn.angle):
        return None
    found = edge + along * float(off @ along) + left * angle * turn.neutral_mm
    return float(found[0]), float(found[1])


def zone_places(matrix: Array, turn: Turn, flat: Array, outside: float = 0.0) -> Array:
    """Where places of a turn's zone lie, shape (n, 3) [mm].

    Parameters
    ----------
    matrix : ndarray, shape (4, 4)
        Of the panel that the turn begins at.
    turn : Turn
        With that panel to its right.
    flat : ndarray, shape (n, 2)
        On the flat [mm].
    outside : float
        w of the face that is looked at [mm].

    Returns
    -------
    ndarray
        In vehicle axes [mm].
    """
    edge, along, left = _edge(turn)
    off = flat - edge
    angle = (off @ left) / turn.neutral_mm
    way = 1.0 if turn.angle > 0 else -1.0
    radius = turn.far_mm - way * outside
    over, up = radius * np.sin(angle), way * (turn.far_mm - radius * np.cos(angle))
    spots = edge + np.outer(off @ along, along) + np.outer(over, left)
    return np.asarray(np.column_stack([spots, up, np.ones(len(flat))]) @ matrix.T)[:, :3]


def panel_places(panel: Panel, flat: Array, outside: float = 0.0) -> Array:
    """Where places of a panel lie, shape (n, 3) [mm]: as `zone_places`, outside the zones."""
    whole = np.column_stack([flat, np.full(len(flat), outside), np.ones(len(flat))])
    return np.asarray(whole @ panel.matrix.T)[:, :3]
