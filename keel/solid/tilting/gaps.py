"""How near moving pieces come to standing ones along a way."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import ceil, cos, hypot, radians, sin

import numpy as np
from shapely import Polygon

from keel.solid.polyhedron import Array
from keel.solid.tilting.scene import Piece
from keel.solid.tilting.search import Place, Pose

FRAME_MM, FRAME_DEG = 8.0, 1.0
"""Frames of a way lie no further apart."""


@dataclass(frozen=True)
class Nearest:
    """The nearest two pieces along a way: how far apart (below zero: how deep in one another), at which frame."""

    gap_mm: float
    moving: str
    fixed: str
    frame: int


def frames_of(way: Sequence[Pose]) -> list[Pose]:
    """A way in steps small enough to look at.

    Parameters
    ----------
    way : sequence of Pose
        Poses between which it moves and turns evenly.

    Returns
    -------
    list of Pose
        With all of those among them.
    """
    frames = list(way[:1])
    for a, b in pairwise(way):
        moved = max(hypot(b.u - a.u, b.v - a.v), abs(b.across - a.across))
        steps = max(1, ceil(moved / FRAME_MM), ceil(abs(b.angle_deg - a.angle_deg) / FRAME_DEG))
        if moved < 1e-9 and a.angle_deg == b.angle_deg:
            continue
        frames += [_between(a, b, n / steps) for n in range(1, steps + 1)]
    return frames


def _between(a: Pose, b: Pose, share: float) -> Pose:
    names = ("u", "v", "across", "angle_deg")
    return Pose(*(getattr(a, name) + share * (getattr(b, name) - getattr(a, name)) for name in names))


def turned(ring: Array, middle: Place, pose: Pose) -> Array:
    """A piece's outline at a pose, shape (n, 2) [mm]."""
    angle = radians(pose.angle_deg)
    matrix = np.array([[cos(angle), sin(angle)], [-sin(angle), cos(angle)]])
    return np.asarray((ring - middle) @ matrix + middle + (pose.u, pose.v))


def nearest(moving: Sequence[Piece], fixed: Sequence[Piece], middle: Place, frames: Sequence[Pose]) -> Nearest | None:
    """The nearest of all pairs over all frames; None where nothing ever meets.

    Parameters
    ----------
    moving, fixed : sequence of Piece
        What moves, as it begins, and what stands.
    middle : (float, float)
        What it is turned about [mm].
    frames : sequence of Pose
        Along the way.

    Returns
    -------
    Nearest or None
        Overlaps first.
    """
    found = (one for number, pose in enumerate(frames) for one in _at(moving, fixed, middle, pose, number))
    return min(found, key=lambda one: one.gap_mm, default=None)


def _at(moving: Sequence[Piece], fixed: Sequence[Piece], middle: Place, pose: Pose, number: int) -> Iterator[Nearest]:
    for piece in moving:
        ring = turned(piece.ring, middle, pose)
        low, high = ring.min(axis=0), ring.max(axis=0)
        shape = Polygon(ring)
        for other in fixed:
            if other.low >= piece.high + pose.across or other.high <= piece.low + pose.across:
                continue
            other_low, other_high = other.ring.min(axis=0), other.ring.max(axis=0)
            if (np.maximum(other_low - high, low - other_high) > LOOK_MM).any():
                continue
            gap = float(shape.distance(Polygon(other.ring))) or -depth(ring, other.ring)
            yield Nearest(gap, piece.name, other.name, number)


LOOK_MM = 60.0
"""What is further off than this isn't measured."""


def depth(a: Array, b: Array) -> float:
    """How far two convex outlines have to be moved apart, along the best of their sides' normals [mm].

    Parameters
    ----------
    a, b : ndarray, shape (n, 2)
        Counter-clockwise.

    Returns
    -------
    float
        Zero where they don't overlap.

    References
    ----------
    Separating axes of convex polygons (Ericson, Real-Time Collision Detection, 4.4).
    """
    least = np.inf
    for one, other in ((a, b), (b, a)):
        along = np.roll(one, -1, axis=0) - one
        long = np.hypot(along[:, 0], along[:, 1])
        normals = np.column_stack([along[:, 1], -along[:, 0]])[long > 1e-9] / long[long > 1e-9, None]
        least = min(least, float(((one @ normals.T).max(axis=0) - (other @ normals.T).min(axis=0)).min()))
    return max(0.0, least)
