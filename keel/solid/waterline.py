"""The waterline's sums over triangles, compiled: formulas at the head of `keel.solid.polyhedron`."""

import numpy as np
from numpy.typing import NDArray

from keel.compiled import compiled

Array = NDArray[np.float64]
MOST_STEPS = 60


@compiled
def volume_below(s: float, corners: Array, facing: Array) -> float:
    """Volume below a level.

    Parameters
    ----------
    s : float
        Height over the lowest point [mm].
    corners : ndarray, shape (6, m)
        Of each triangle: corner heights a ≤ b ≤ c, their mean, 1/((b − a)(c − a)), 1/((c − b)(c − a)); zero for a
        part without height [mm].
    facing : ndarray, shape (m,)
        How much area faces down [mm²].
    """
    total = 0.0
    for i in range(len(facing)):
        low = s - corners[0, i]
        if low <= 0.0:
            continue
        if s < corners[1, i]:
            total += facing[i] * (low * low * low * corners[4, i] / 3)
        else:
            high = max(corners[2, i] - s, 0.0)
            total += facing[i] * (s - corners[3, i] + high * high * high * corners[5, i] / 3)
    return total


@compiled
def surface_at(s: float, corners: Array, facing: Array) -> float:
    """Area of the free surface at a level, as `volume_below`: its derivative [mm²].

    Parameters
    ----------
    s : float
        The level along the up direction [mm].
    corners, facing : ndarray
        Triangles as `volume_below` takes them.

    Returns
    -------
    float
        Area [mm²].
    """
    total = 0.0
    for i in range(len(facing)):
        low = s - corners[0, i]
        if low <= 0.0:
            continue
        if s < corners[1, i]:
            total += facing[i] * (low * low * corners[4, i])
        else:
            high = max(corners[2, i] - s, 0.0)
            total += facing[i] * (1.0 - high * high * corners[5, i])
    return total


@compiled
def volumes_below(levels: Array, corners: Array, facing: Array) -> Array:
    """`volume_below` for several levels, shape (n,)."""
    found = np.empty(len(levels))
    for n in range(len(levels)):
        found[n] = volume_below(levels[n], corners, facing)
    return found


@compiled
def levels_for(volumes: Array, breaks: Array, corners: Array, facing: Array) -> Array:
    """Levels below which volumes lie, shape (n,) [mm].

    Each is bracketed between neighbouring vertex heights (`breaks`, rising), between which V is a rising cubic, and
    found there by Newton's method, halving where a step would leave the bracket.
    """
    found = np.empty(len(volumes))
    for n in range(len(volumes)):
        wanted, below, above = volumes[n], 0, len(breaks) - 1
        while above - below > 1:
            middle = (below + above) // 2
            if volume_below(breaks[middle], corners, facing) < wanted:
                below = middle
            else:
                above = middle
        low, high = breaks[below], breaks[above]
        finest = 1e-14 * (abs(high) + 1.0)
        level = (low + high) / 2
        for _ in range(MOST_STEPS):
            over = volume_below(level, corners, facing) - wanted
            if over > 0.0:
                high = level
            else:
                low = level
            slope = surface_at(level, corners, facing)
            then = level - over / slope if slope > 0.0 else low - 1.0
            if not low < then < high:
                then = (low + high) / 2
            moved = abs(then - level)
            level = then
            if moved <= finest or high - low <= finest:
                break
        found[n] = level
    return found
