"""Rounds as rings of chords, and a ring's area."""

from math import acos, ceil, cos, pi, sin, sqrt

import numpy as np

from keel.solid.polyhedron import Array

SAGITTA_MM = 0.1
"""How far a chord may stand off its round [mm]."""
MOST_CHORDS = 48

Place = tuple[float, float]


def chords(centre: Place, radius: float, start: float, turn: float) -> list[Place]:
    """An arc as chords whose inner corners stand off just so far that the sector keeps its area.

    With n chords of angle d over a turn of θ, inner corners at f·radius: (n − 2) f² + 2 f = θ / sin d.
    """
    count = max(2, min(MOST_CHORDS, ceil(abs(turn) / (2 * acos(max(0.0, 1 - SAGITTA_MM / max(radius, SAGITTA_MM)))))))
    step = turn / count
    target, inner = abs(turn) / sin(abs(step)), count - 2
    factor = target / 2 if not inner else (-1 + sqrt(1 + inner * target)) / inner
    reach = [radius * (1 if place in (0, count) else factor) for place in range(count + 1)]
    angles = [start + step * place for place in range(count + 1)]
    return [(centre[0] + r * cos(t), centre[1] + r * sin(t)) for r, t in zip(reach, angles, strict=True)]


def circle(radius: float) -> Array:
    """A polygon about the origin with a circle's area, shape (k, 2) [mm]; k is a multiple of four.

    Parameters
    ----------
    radius : float
        Of the circle [mm].

    Returns
    -------
    ndarray
        Corners, counter-clockwise.
    """
    quarter = min(MOST_CHORDS // 2, ceil(pi / 4 / acos(max(0.0, 1 - SAGITTA_MM / max(radius, 2 * SAGITTA_MM)))))
    count = 4 * max(3, quarter)
    reach = radius * sqrt(2 * pi / count / sin(2 * pi / count))
    turn = 2 * pi * (np.arange(count) + 0.5) / count
    return np.column_stack([reach * np.cos(turn), reach * np.sin(turn)])


def ring_area(ring: Array) -> float:
    """Signed area of a ring [mm²]: counter-clockwise above zero.

    Parameters
    ----------
    ring : ndarray
        Corners, shape (k, 2) [mm].

    Returns
    -------
    float
        Area [mm²], by the shoelace formula.
    """
    x, y = ring.T
    return float(x[:-1] @ y[1:] - y[:-1] @ x[1:] + x[-1] * y[0] - y[-1] * x[0]) / 2


def in_space(flat: Array, axis: int, at: float) -> Array:
    """Places in a plane square to an axis, shape (..., 2), with their place along it, shape (..., 3) [mm].

    Parameters
    ----------
    flat : ndarray
        The two other axes in their order [mm].
    axis : int
        0, 1 or 2: x, y or z.
    at : float
        Where the plane is [mm].

    Returns
    -------
    ndarray
        In vehicle axes [mm].
    """
    places = np.full((*flat.shape[:-1], 3), at)
    places[..., [i for i in range(3) if i != axis]] = flat
    return places
