"""A way through corner points, rounded at each corner."""

from dataclasses import dataclass
from itertools import pairwise
from math import tan

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
STRAIGHT_RAD = 1e-9
"""A corner that turns less is none."""
BACK_RAD = 1e-6
"""A way that turns by nearly half a turn on the spot can't be rounded."""
CHORD_DEG = 6.0
"""How far each chord of a drawn arc turns."""


@dataclass(frozen=True, slots=True)
class Rounded:
    """A way with round corners.

    Attributes
    ----------
    ways : ndarray, shape (n + 1, 3)
        Directions of its straights, of unit length.
    straights_mm : ndarray, shape (n + 1,)
        Straights between the arcs; below nothing where corners are too near each other for their radius.
    angles : ndarray, shape (n,)
        How far each corner turns [rad].
    radius_mm : float
        Of every corner's arc.
    corners : ndarray, shape (n + 2, 3)
        Start, corners that turn, end.
    """

    ways: Array
    straights_mm: Array
    angles: Array
    radius_mm: float
    corners: Array

    @property
    def length_mm(self) -> float:
        """Along it: straights and arcs."""
        return float(self.straights_mm.sum() + self.radius_mm * self.angles.sum())

    @property
    def begins_mm(self) -> Array:
        """Length from the start to where each arc begins, shape (n,)."""
        arcs = self.radius_mm * self.angles
        return np.asarray(
            np.cumsum(self.straights_mm[:-1]) + np.concatenate([[0.0], np.cumsum(arcs)[:-1]])[: len(arcs)]
        )

    def line(self) -> Array:
        """The way as chords, shape (m, 3): its ends, and points along every arc."""
        points = [self.corners[0]]
        for place, angle in enumerate(self.angles):
            before, behind = self.ways[place], self.ways[place + 1]
            start = self.corners[place + 1] - self.radius_mm * tan(angle / 2) * before
            inward = (behind - np.cos(angle) * before) / np.sin(angle)
            steps = np.linspace(0.0, angle, max(2, int(np.ceil(np.degrees(angle) / CHORD_DEG)) + 1))[:, None]
            points.extend(start + self.radius_mm * (np.sin(steps) * before + (1 - np.cos(steps)) * inward))
        return np.array([*points, self.corners[-1]])


def rounded(points: Array, radius_mm: float) -> Rounded:
    """A way rounded at its corners.

    Parameters
    ----------
    points : ndarray, shape (n, 3)
        Start, corners, end; points that lie on each other and corners that don't turn are left out [mm].
    radius_mm : float
        Of every corner.

    Returns
    -------
    Rounded
        A corner's arc takes R tan(angle / 2) of each straight beside it.

    Raises
    ------
    ValueError
        Where there is no way at all, or it turns back on itself.
    """
    corners = _corners(np.asarray(points, dtype=np.float64))
    steps = np.diff(corners, axis=0)
    sizes = np.linalg.norm(steps, axis=1)
    ways = steps / sizes[:, None]
    angles = turns(ways)
    if (angles > np.pi - BACK_RAD).any():
        raise ValueError("a way turns back on itself")
    takes = radius_mm * np.tan(angles / 2)
    straights = sizes - np.concatenate([[0.0], takes]) - np.concatenate([takes, [0.0]])
    return Rounded(ways, straights, angles, radius_mm, corners)


def turns(ways: Array) -> Array:
    """How far each direction turns from the one before it, shape (n - 1,) [rad].

    Parameters
    ----------
    ways : ndarray, shape (n, 3)
        Directions of unit length.
    """
    across = np.linalg.norm(np.cross(ways[:-1], ways[1:]), axis=1)
    return np.asarray(np.arctan2(across, (ways[:-1] * ways[1:]).sum(axis=1)))


def _corners(points: Array) -> Array:
    """Without points on each other and corners that don't turn."""
    kept = [points[0], *(b for a, b in pairwise(points) if np.linalg.norm(b - a) > 0)]
    if len(kept) < 2:
        raise ValueError("a way has two points at least")
    corners = np.array(kept)
    steps = np.diff(corners, axis=0)
    angles = turns(steps / np.linalg.norm(steps, axis=1)[:, None])
    return np.asarray(corners[np.concatenate([[True], angles > STRAIGHT_RAD, [True]])])
