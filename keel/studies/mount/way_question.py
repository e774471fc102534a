"""One scene of the way in, asked with more or less room all round."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from shapely import Polygon
from shapely.geometry.polygon import orient

from keel.solid.tilting.gaps import Nearest, nearest
from keel.solid.tilting.scene import Piece
from keel.solid.tilting.search import Found, Pose, Search

TANK = "tank"
MOST_SHRINK_MM, MOST_SHARE = 60.0, 0.4
SHRINK_MM = 0.5
"""To within this it is said how much is lacking."""
COARSE_DEG = 3.0
GoOn = Callable[[float], None]


class Progress:
    """How far several searches are of which nobody knows how many there will be: half of what was left with each."""

    def __init__(self, go_on: GoOn) -> None:
        self._go_on, self._done = go_on, -1

    def next(self) -> None:
        """Another search begins."""
        self._done += 1

    def told(self, share: float) -> None:
        """How far that one is."""
        self._go_on(1 - 0.5 ** (self._done + share))


@dataclass(frozen=True)
class Plane:
    bounds: tuple[float, float, float, float]
    out: Polygon


@dataclass
class Question:
    """One scene that is asked with more or less play.

    Attributes
    ----------
    moving, fixed : list of Piece
        What moves and what stands, as they are.
    holds : list of Piece
        What holds the tank where it stands, set back by the play where it is nearer: no gap is told to it.
    middle : (float, float)
        What it turns about.
    radius : float
        No part of it is further from there [mm].
    """

    moving: list[Piece]
    fixed: list[Piece]
    holds: list[Piece]
    middle: tuple[float, float]
    radius: float
    plane: Plane
    reach_mm: float
    progress: Progress

    def asked(self, play: float, step_deg: float = 2.0) -> Found:
        self.progress.next()
        ends = min(piece.low for piece in self.moving), max(piece.high for piece in self.moving)
        grown = [piece for one in self.moving if (piece := _grown(one, play, ends)) is not None]
        return Search(
            grown,
            [*self.fixed, *self.holds],
            self.middle,
            self.plane.bounds,
            self.plane.out,
            reach_mm=self.reach_mm,
            step_deg=step_deg,
            go_on=self.progress.told,
        ).found()

    def lacking(self, play: float) -> tuple[float, Found]:
        """How much smaller all round it would have to be to pass, and the way it would then take."""
        low, high = 0.0, min(MOST_SHRINK_MM, MOST_SHARE * self._thinnest())
        nearly = self.asked(play - high, COARSE_DEG)
        if not nearly.passes:
            return high, nearly
        while high - low > SHRINK_MM:
            middle = (low + high) / 2
            found = self.asked(play - middle, COARSE_DEG)
            if found.passes:
                high, nearly = middle, found
            else:
                low = middle
        return high, nearly

    def _thinnest(self) -> float:
        """The least size of the tank itself [mm]."""
        tank = [piece for piece in self.moving if piece.name == TANK]
        rings = np.vstack([piece.ring for piece in tank])
        across = max(piece.high for piece in tank) - min(piece.low for piece in tank)
        return float(min(*np.ptp(rings, axis=0), across))

    def near(self, frames: Sequence[Pose]) -> Nearest | None:
        return nearest(self.moving, self.fixed, self.middle, frames)


def _grown(piece: Piece, by: float, ends: tuple[float, float]) -> Piece | None:
    """A piece with so much more all round; with less, across it only the ends of all pieces together are nearer.

    None where that leaves nothing of it.
    """
    if by == 0:
        return piece
    low, high = piece.low - by, piece.high + by
    if by < 0:
        low, high = max(piece.low, ends[0] - by), min(piece.high, ends[1] + by)
    shape = Polygon(piece.ring).buffer(by, join_style="mitre", mitre_limit=3.0).convex_hull
    if not isinstance(shape, Polygon) or shape.is_empty or low >= high:
        return None
    return Piece(piece.name, np.array(orient(shape).exterior.coords)[:-1], low, high)
