"""A rigid tube: its bend table, cut length and trim."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.routes.rounded import Array, Rounded, rounded

GRIP_DIAMETERS = 2.0
"""Straight that a nut, bead or flare needs at each end, and a bender between bends, in outside diameters."""


@dataclass(frozen=True, slots=True)
class Bend:
    """One bend of a tube.

    Attributes
    ----------
    feed_mm : float
        Length along the tube from its start to where it begins.
    rotation_deg : float
        How far the tube is turned about itself since the bend before, right-handed about the straight between them;
        0 for the first.
    angle_deg, set_deg : float
        How far it turns, and how far it is bent so that it springs back to that.
    """

    feed_mm: float
    rotation_deg: float
    angle_deg: float
    set_deg: float


@dataclass(frozen=True, slots=True)
class BendTable:
    """How a tube is made from straight stock.

    Attributes
    ----------
    straights_mm : list of float
        Between the bends; below nothing where bends run into each other.
    cut_mm, rough_mm : float
        Finished length along it, and that of the piece it is bent from: trimmed to length and squared afterwards.
    least_grip_mm : float
        The least straight at an end or between two bends.
    short : list of bool
        Which straights are shorter.
    """

    straights_mm: list[float]
    bends: list[Bend]
    cut_mm: float
    rough_mm: float
    least_grip_mm: float
    short: list[bool]


def bend_table(
    points: Array,
    radius_mm: float,
    outside_mm: float,
    *,
    bender_grip_mm: float = 0.0,
    trim_mm: float = 10.0,
    springback: Sequence[tuple[float, float]] = (),
) -> BendTable:
    """The bend table of a tube through corner points.

    Parameters
    ----------
    points : ndarray, shape (n, 3)
        Start, corners, end of its centre line [mm].
    radius_mm : float
        Of its centre line in every bend.
    outside_mm : float
        Outside diameter.
    bender_grip_mm : float
        The least straight that the bender holds.
    trim_mm : float
        What the rough piece is longer, cut off square when it is bent.
    springback : sequence of (float, float)
        Of a strip bent on the shop's bender: angles left, and how far each sprang back [deg]; empty: none.

    Returns
    -------
    BendTable
        Springback by straight lines between the strip's angles, its last beyond them.

    Raises
    ------
    ValueError
        Where there is no way, or it turns back on itself.

    References
    ----------
    Vector algebra: a bend's plane has the normal (direction in) × (direction out); the rotation between two bends is
    the angle between their normals about the straight between them. Length: straights + R θ, no stretch.
    """
    way = rounded(points, radius_mm)
    angles = np.degrees(way.angles)
    grip = max(GRIP_DIAMETERS * outside_mm, bender_grip_mm)
    bends = [
        Bend(float(feed), float(turn), float(angle), float(angle + _springs_back(angle, springback)))
        for feed, turn, angle in zip(way.begins_mm, rotations(way), angles, strict=True)
    ]
    return BendTable(
        straights_mm=[float(one) for one in way.straights_mm],
        bends=bends,
        cut_mm=way.length_mm,
        rough_mm=way.length_mm + trim_mm,
        least_grip_mm=grip,
        short=[bool(one < grip) for one in way.straights_mm],
    )


def rotations(way: Rounded) -> Array:
    """How far a tube is turned about itself before each bend, shape (n,) [deg]; 0 before the first.

    Parameters
    ----------
    way : Rounded
        Its centre line.

    Returns
    -------
    ndarray
        From -180 to 180, right-handed about the straight that leads to the bend.
    """
    normals = np.cross(way.ways[:-1], way.ways[1:])
    between = way.ways[1:-1]
    sines = (np.cross(normals[:-1], normals[1:]) * between).sum(axis=1)
    turned = np.degrees(np.arctan2(sines, (normals[:-1] * normals[1:]).sum(axis=1)))
    return np.concatenate([np.zeros(min(1, len(normals))), turned])


def _springs_back(angle_deg: float, strip: Sequence[tuple[float, float]]) -> float:
    if not strip:
        return 0.0
    angles, back = zip(*strip, strict=True)
    return float(np.interp(angle_deg, angles, back))


def carried_out(table: BendTable, radius_mm: float, start: Array, way: Array, normal: Array) -> Array:
    """Corner points of the tube that a table makes: fed, turned and bent, step by step.

    Parameters
    ----------
    table : BendTable
        What is done.
    radius_mm : float
        Of the bender.
    start, way : ndarray, shape (3,)
        Where it begins, and in which direction.
    normal : ndarray, shape (3,)
        Of the first bend's plane.

    Returns
    -------
    ndarray, shape (n + 2, 3)
        Start, corners, end [mm].
    """
    at, ahead, across = np.asarray(start, float), np.asarray(way, float), np.asarray(normal, float)
    points, before = [at], 0.0
    for straight, bend in zip(table.straights_mm, [*table.bends, None], strict=True):
        takes = radius_mm * np.tan(np.radians(bend.angle_deg) / 2) if bend else 0.0
        at = at + (before + straight + takes) * ahead
        points.append(at)
        if bend is not None:
            across = _turned(across, ahead, np.radians(bend.rotation_deg))
            ahead = _turned(ahead, across, np.radians(bend.angle_deg))
            before = takes
    return np.array(points)


def _turned(one: Array, about: Array, angle: float) -> Array:
    """A vector square to an axis, turned about it."""
    return np.asarray(np.cos(angle) * one + np.sin(angle) * np.cross(about, one))
