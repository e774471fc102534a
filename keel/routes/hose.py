"""A hose: its cut length, how its elbows are clocked, and the S between two offset ports."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import atan2, degrees, sqrt

import numpy as np

from keel.routes.rounded import Array

SLACK = 0.03
"""A hose is so much longer than its way (craft of hoses)."""


def cut_length(route_mm: float, takes_mm: Sequence[float], movement_mm: float = 0.0, slack: float = SLACK) -> float:
    """Length that a hose is cut to [mm].

    Parameters
    ----------
    route_mm : float
        Along its way, from port face to port face.
    takes_mm : sequence of float
        What each end's fitting takes up between its port's face and the hose's end.
    movement_mm : float
        How far its ends move against each other.
    slack : float
        Share of the way that is added.

    Returns
    -------
    float
        The way with its slack, less what the fittings take up, and half the movement. Below nothing where the fittings
        are longer than the way.
    """
    return route_mm * (1 + slack) - sum(takes_mm) + movement_mm / 2


def clocking(ways: Array, into_first: Array, into_last: Array) -> float:
    """How far the elbow at a hose's end is turned against the one at its start [deg].

    Parameters
    ----------
    ways : ndarray, shape (n, 3)
        Directions of its straights, of unit length.
    into_first, into_last : ndarray, shape (3,)
        From each elbow into its port.

    Returns
    -------
    float
        Looking along the hose from its start, clockwise positive, from -180 to 180.

    Raises
    ------
    ValueError
        Where an elbow points along the hose: it is no elbow.

    References
    ----------
    The first direction, square to the hose, is carried along it without twist: at each change of direction by the
    least turn that takes the one direction to the next (parallel transport).
    """
    carried = _square(into_first, ways[0])
    for before, behind in pairwise(ways):
        carried = _least_turn(carried, before, behind)
    last = _square(into_last, ways[-1])
    return degrees(atan2(float(np.cross(carried, last) @ ways[-1]), float(carried @ last)))


def _square(one: Array, way: Array) -> Array:
    across = np.asarray(one, float) - (np.asarray(one, float) @ way) * way
    size = float(np.linalg.norm(across))
    if size < 1e-9:
        raise ValueError("an elbow that points along its hose has no direction")
    return np.asarray(across / size)


def _least_turn(one: Array, before: Array, behind: Array) -> Array:
    """A vector carried from one direction to the next by the least turn between them."""
    axis, cosine = np.cross(before, behind), float(before @ behind)
    return np.asarray(one * cosine + np.cross(axis, one) + axis * (axis @ one) / (1 + cosine))


@dataclass(frozen=True, slots=True)
class SRoute:
    """Two arcs of one radius and opposite turn between two parallel, offset ports.

    Attributes
    ----------
    radius_mm, angle_deg, length_mm : float
        Of each arc, how far each turns, and the whole length.
    least_run_mm : float
        Distance along the ports' direction at which the radius is the least that the hose's card allows.
    """

    radius_mm: float
    angle_deg: float
    length_mm: float
    least_run_mm: float


def s_route(run_mm: float, offset_mm: float, least_radius_mm: float) -> SRoute:
    """The S between two parallel ports.

    Parameters
    ----------
    run_mm, offset_mm : float
        Distance of the ports along their direction, and across it.
    least_radius_mm : float
        Of the hose's card.

    Returns
    -------
    SRoute
        R = (L² + h²) / (4 h), each arc turns 2 atan(h / L).

    Raises
    ------
    ValueError
        Without an offset: it is a straight.
    """
    if offset_mm <= 0:
        raise ValueError("ports that aren't offset are joined by a straight hose")
    radius = (run_mm**2 + offset_mm**2) / (4 * offset_mm)
    angle = 2 * atan2(offset_mm, run_mm)
    return SRoute(
        radius, degrees(angle), 2 * radius * angle, sqrt(max(0.0, offset_mm * (4 * least_radius_mm - offset_mm)))
    )
