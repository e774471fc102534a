"""Nearest places of triangles, pair by pair: the compiled inner loop of `proximity`."""

import numpy as np

from keel.compiled import compiled
from keel.solid.polyhedron import Array

NOTHING = 1e-300
PARALLEL = 1e-12


@compiled
def nearest_of_all(a: Array, least_a: Array, b: Array, least_b: Array) -> Array:
    """Nearest places of two sets of triangles.

    Parameters
    ----------
    a, b : ndarray, shapes (n, 3, 3) and (m, 3, 3)
        Corners [mm].
    least_a, least_b : ndarray, shapes (n,) and (m,)
        How far each is at least from all of the other set, rising [mm].

    Returns
    -------
    ndarray, shape (2, 3)
        A place of `a` and one of `b` [mm].

    Notes
    -----
    They lie at a corner of one and a face of the other, or on an edge of each (Ericson, Real-Time Collision
    Detection, ch. 5). Pairs are measured whose boxes are no further apart than the best so far; nothing after the
    first triangle that is at least as far from the whole other set can be nearer.
    """
    low_a, high_a, low_b, high_b = _lows(a), _highs(a), _lows(b), _highs(b)
    best = np.full(7, np.inf)
    for i in range(len(a)):
        if least_a[i] * least_a[i] >= best[0]:
            break
        for j in range(len(b)):
            if least_b[j] * least_b[j] >= best[0]:
                break
            if _apart(low_a[i], high_a[i], low_b[j], high_b[j]) < best[0]:
                _measure(a[i], b[j], best)
    return best[1:].copy().reshape(2, 3)


@compiled
def _lows(corners: Array) -> Array:
    return np.minimum(np.minimum(corners[:, 0], corners[:, 1]), corners[:, 2])


@compiled
def _highs(corners: Array) -> Array:
    return np.maximum(np.maximum(corners[:, 0], corners[:, 1]), corners[:, 2])


@compiled
def _apart(low: Array, high: Array, other_low: Array, other_high: Array) -> float:
    """Square of how far two boxes are apart."""
    total = 0.0
    for k in range(3):
        gap = max(low[k] - other_high[k], other_low[k] - high[k])
        if gap > 0:
            total += gap * gap
    return total


@compiled
def _measure(a: Array, b: Array, best: Array) -> None:
    """Put the nearest places of two triangles into `best`, where they are nearer: square, place, place."""
    for k in range(3):
        _corner_to_face(a[k], b, best, False)
        _corner_to_face(b[k], a, best, True)
    for i in range(3):
        for j in range(3):
            _edge_to_edge(a[i], a[(i + 1) % 3], b[j], b[(j + 1) % 3], best)


@compiled
def _keep(start: Array, end: Array, best: Array, swapped: bool) -> None:
    square = 0.0
    for k in range(3):
        square += (end[k] - start[k]) ** 2
    if square < best[0]:
        best[0] = square
        for k in range(3):
            best[1 + k] = end[k] if swapped else start[k]
            best[4 + k] = start[k] if swapped else end[k]


@compiled
def _dot(a: Array, b: Array) -> float:
    return float(a[0] * b[0] + a[1] * b[1] + a[2] * b[2])


@compiled
def _corner_to_face(p: Array, face: Array, best: Array, swapped: bool) -> None:
    """A corner to what is straight below it in a face; its edges are seen to edge by edge."""
    ab, ac, ap = face[1] - face[0], face[2] - face[0], p - face[0]
    d00, d01, d11, d20, d21 = _dot(ab, ab), _dot(ab, ac), _dot(ac, ac), _dot(ap, ab), _dot(ap, ac)
    square = d00 * d11 - d01 * d01
    if square <= NOTHING:
        return
    v, w = (d11 * d20 - d01 * d21) / square, (d00 * d21 - d01 * d20) / square
    if v >= 0 and w >= 0 and v + w <= 1:
        _keep(p, face[0] + v * ab + w * ac, best, swapped)


@compiled
def _edge_to_edge(p: Array, p_end: Array, q: Array, q_end: Array, best: Array) -> None:
    u, v, r = p_end - p, q_end - q, p - q
    a, b, c, d, e = _dot(u, u), _dot(u, v), _dot(v, v), _dot(u, r), _dot(v, r)
    bottom = a * c - b * b
    s = _within((b * e - c * d) / bottom) if bottom > PARALLEL * a * c else 0.0
    t = _within((b * s + e) / max(c, NOTHING))
    s = _within((b * t - d) / max(a, NOTHING))
    _keep(p + s * u, q + t * v, best, False)


@compiled
def _within(share: float) -> float:
    return min(1.0, max(0.0, share))
