"""The shortest way round boxes with straights along the axes."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix
from scipy.sparse.csgraph import dijkstra

from keel.routes.nearness import in_slabs

Array = NDArray[np.float64]
TINY = 1e-6
MOST_LINES = 34
"""Coordinates of each axis that are tried; with more the nearest ones to the straight way are."""


def way_round(
    start: Array, end: Array, lows: Array, highs: Array, *, turn_mm: float, beyond_mm: float = 400.0
) -> Array | None:
    """The cheapest way from one place to another with straights along the axes that goes into none of several boxes.

    Parameters
    ----------
    start, end : ndarray, shape (3,)
        Where it begins and ends [mm].
    lows, highs : ndarray, shape (n, 3)
        Corners of the boxes, as much larger as the way is thick and has to stay off [mm].
    turn_mm : float
        What a turn costs, as a length.
    beyond_mm : float
        How far it may go beyond both ends.

    Returns
    -------
    ndarray or None
        Corners from start to end, shape (m, 3); None where there is none, or one of them lies in a box.

    Notes
    -----
    Some cheapest way runs along the boxes' faces and the ends' own coordinates (de Rezende, Lee, Wu 1989): those are
    the lines of a grid. A node is a place and the axis that it was reached along; turning costs. Dijkstra's algorithm.
    """
    axes = [_lines_of(axis, start, end, lows, highs, beyond_mm) for axis in range(3)]
    shape = tuple(len(one) for one in axes)
    grid = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1)
    if _in_boxes(np.array([start, end]), lows, highs).any():
        return None
    ids = np.arange(int(np.prod(shape))).reshape(shape)
    count = ids.size
    rows, cols, costs = [], [], []
    for axis in range(3):
        a, b = ids.take(range(shape[axis] - 1), axis).ravel(), ids.take(range(1, shape[axis]), axis).ravel()
        places = grid.reshape(-1, 3)
        middle = (places[a] + places[b]) / 2
        free = ~_in_boxes(middle, lows, highs)
        a, b = a[free], b[free]
        long = np.linalg.norm(places[b] - places[a], axis=1)
        for one, other in ((a, b), (b, a)):
            rows.append(one + axis * count)
            cols.append(other + axis * count)
            costs.append(long)
        for other_axis in range(3):
            if other_axis != axis:
                rows.append(np.arange(count) + axis * count)
                cols.append(np.arange(count) + other_axis * count)
                costs.append(np.full(count, turn_mm))
    graph = csr_matrix((np.concatenate(costs), (np.concatenate(rows), np.concatenate(cols))), shape=(3 * count,) * 2)
    first, last = _id_of(start, axes, ids), _id_of(end, axes, ids)
    starts = [first + axis * count for axis in range(3)]
    reached, before, _ = dijkstra(graph, indices=starts, min_only=True, return_predecessors=True)
    goal = min((last + axis * count for axis in range(3)), key=lambda node: reached[node])
    if not np.isfinite(reached[goal]):
        return None
    found = [goal]
    while before[found[-1]] >= 0:
        found.append(int(before[found[-1]]))
    return turning(grid.reshape(-1, 3)[np.array(found[::-1]) % count])


def pulled_tight(points: Array, lows: Array, highs: Array) -> Array:
    """A way without the corners that it can do without, its first and last straight kept.

    Parameters
    ----------
    points : ndarray, shape (n, 3)
        Start, corners, end [mm].
    lows, highs : ndarray, shape (m, 3)
        Corners of the boxes that it stays out of [mm].

    Returns
    -------
    ndarray, shape (k, 3)
        The same ends, and of the corners those without which a straight would go into a box.
    """
    kept, place = list(points), 2
    while place < len(kept) - 2:
        if is_clear(kept[place - 1], kept[place + 1], lows, highs):
            del kept[place]
            place = 2
        else:
            place += 1
    return np.array(kept)


def is_clear(a: Array, b: Array, lows: Array, highs: Array) -> bool:
    """Whether a straight goes into none of several boxes.

    Parameters
    ----------
    a, b : ndarray, shape (3,)
        Its ends [mm].
    lows, highs : ndarray, shape (n, 3)
        Corners of the boxes [mm].

    Returns
    -------
    bool
        Touching a face is clear.
    """
    enter, leave = in_slabs(a, b - a, lows + TINY, highs - TINY)
    return not bool(((enter < leave) & (leave > 0) & (enter < 1)).any())


def _lines_of(axis: int, start: Array, end: Array, lows: Array, highs: Array, beyond_mm: float) -> Array:
    """Coordinates along an axis that a way may turn at."""
    low, high = min(start[axis], end[axis]) - beyond_mm, max(start[axis], end[axis]) + beyond_mm
    faces = np.concatenate([lows[:, axis], highs[:, axis]])
    faces = np.unique(np.round(faces[(faces >= low) & (faces <= high)], 3))
    off = np.maximum(np.maximum(low + beyond_mm - faces, faces - high + beyond_mm), 0.0)
    faces = faces[np.argsort(off, kind="stable")[: MOST_LINES - 2]]
    return np.unique(np.concatenate([[start[axis], end[axis]], faces]))


def _in_boxes(spots: Array, lows: Array, highs: Array) -> NDArray[np.bool_]:
    """Which places lie in the inside of a box."""
    found = np.zeros(len(spots), dtype=bool)
    for low, high in zip(lows, highs, strict=True):
        found |= ((spots > low + TINY) & (spots < high - TINY)).all(axis=1)
    return found


def _id_of(at: Array, axes: Sequence[Array], ids: NDArray[np.intp]) -> int:
    place = tuple(int(np.abs(line - at[axis]).argmin()) for axis, line in enumerate(axes))
    return int(ids[place])


def turning(points: Array, least_mm: float = TINY) -> Array:
    """A way without places on each other and places that a straight only passes.

    Parameters
    ----------
    points : ndarray, shape (n, 3)
        Start, corners, end [mm].
    least_mm : float
        What is no further from the place before it lies on it.

    Returns
    -------
    ndarray, shape (m, 3)
        Its ends and the corners that turn.
    """
    steps = np.linalg.norm(np.diff(points, axis=0), axis=1)
    points = points[np.concatenate([[True], steps > least_mm])]
    if len(points) < 3:
        return points
    ways = np.diff(points, axis=0)
    ways = ways / np.linalg.norm(ways, axis=1)[:, None]
    turns = (ways[1:] * ways[:-1]).sum(axis=1) < 1 - TINY
    return np.asarray(points[np.concatenate([[True], turns, [True]])])
