"""The order in which places are walked past: short, not from hose to hose and back."""

import numpy as np

from keel.solid.polyhedron import Array


def walking_order(places: Array, start: Array) -> list[int]:
    """A short way past all of some places.

    Parameters
    ----------
    places : ndarray, shape (n, 3)
        Where they are [mm].
    start : ndarray, shape (3,)
        From where one sets out [mm].

    Returns
    -------
    list of int
        Every place once: each time the nearest, then turned round wherever that makes the way shorter (2-opt, the last
        place free), until nothing does.
    """
    if not len(places):
        return []
    spots = np.vstack([start, places])
    apart = np.linalg.norm(spots[:, None] - spots[None, :], axis=2)
    way, left = [0], set(range(1, len(spots)))
    while left:
        nearest = min(left, key=lambda one: (apart[way[-1], one], one))
        way.append(nearest)
        left.remove(nearest)
    while _turned(way, apart):
        pass
    return [one - 1 for one in way[1:]]


def _turned(way: list[int], apart: Array) -> bool:
    """Turn one stretch of the way round where that makes it shorter."""
    for first in range(1, len(way) - 1):
        for last in range(first + 1, len(way)):
            before, after = way[first - 1], way[last + 1] if last + 1 < len(way) else None
            now = apart[before, way[first]] + (0.0 if after is None else apart[way[last], after])
            then = apart[before, way[last]] + (0.0 if after is None else apart[way[first], after])
            if then < now - 1e-9:
                way[first : last + 1] = way[first : last + 1][::-1]
                return True
    return False
