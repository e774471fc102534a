"""How near two surfaces come, and where; by how much one would have to move to come clear."""

from dataclasses import dataclass

import numpy as np
from manifold3d import Manifold

from keel.solid.pairs import nearest_of_all
from keel.solid.polyhedron import Array, Index, Mesh

TOUCHING_MM3 = 1e-3
MOST_PAIRS = 400_000


@dataclass(frozen=True)
class Nearest:
    """The nearest places of two surfaces [mm]; `distance` is zero where they cross."""

    distance: float
    start: Array
    end: Array


def nearest(a: Mesh, b: Mesh) -> Nearest:
    """Nearest places of two triangle surfaces that don't cross.

    Notes
    -----
    Only triangles that may hold them are measured, pair by pair (`pairs`).
    """
    start, end = nearest_of_all(*_near_ones(a, b))
    return Nearest(float(np.linalg.norm(end - start)), start, end)


def _near_ones(a: Mesh, b: Mesh) -> tuple[Array, Array, Array, Array]:
    """The triangles of each that may hold the nearest places, those first that may be nearest, and how near."""
    low_b, high_b = b.points.min(axis=0), b.points.max(axis=0)
    gap_a = _box_gap(a, low_b, high_b)
    seed = a.corners[int(np.argmin(gap_a))].mean(axis=0)
    target = b.points[int(np.argmin(np.linalg.norm(b.points - seed, axis=1)))]
    reach = float(np.sqrt(((a.points - target) ** 2).sum(axis=1).min())) + 1e-9
    mine, least_a = _rising(gap_a, reach)
    chosen = a.corners[mine].reshape(-1, 3)
    theirs, least_b = _rising(_box_gap(b, chosen.min(axis=0), chosen.max(axis=0)), reach)
    return a.corners[mine], least_a, b.corners[theirs], least_b


def _rising(gaps: Array, most: float) -> tuple[Index, Array]:
    """Where gaps are no larger than the most, the least first, and those gaps."""
    near = np.flatnonzero(gaps <= most)
    order = near[np.argsort(gaps[near], kind="stable")]
    return order, gaps[order]


def _box_gap(mesh: Mesh, low: Array, high: Array) -> Array:
    """From the box round each triangle to a box [mm]."""
    lows, highs = mesh.boxes
    apart = np.maximum(np.maximum(lows - high, low - highs), 0)
    return np.asarray(np.sqrt(apart[:, 0] ** 2 + apart[:, 1] ** 2 + apart[:, 2] ** 2))


def _edges(corners: Array) -> Array:
    """The different edges of triangles, shape (n, 2, 3)."""
    both = np.vstack([corners[:, [0, 1]], corners[:, [1, 2]], corners[:, [2, 0]]]).reshape(-1, 6)
    # Each edge comes once from either side, there and back: keep the way that rises along an odd direction.
    rising = (both[:, 3:] - both[:, :3]) @ np.array([0.7391, 0.5113, 0.4399]) >= 0
    return np.asarray(both[rising].reshape(-1, 2, 3))


def _chunks(items: Array, others: int) -> list[Array]:
    size = max(1, MOST_PAIRS // max(1, others))
    return [items[start : start + size] for start in range(0, len(items), size)]


def least_push(a: Manifold, b: Manifold) -> tuple[float, Array]:
    """The least straight push along a vehicle axis that brings one solid clear of another.

    Returns
    -------
    mm : float
        Zero when they don't overlap.
    way : ndarray, shape (3,)
        Direction in which the first has to go.
    """
    shared = a ^ b
    if shared.is_empty() or shared.volume() < TOUCHING_MM3:
        return 0.0, np.zeros(3)
    box = shared.bounding_box()
    best, towards = np.inf, np.zeros(3)
    for axis in sorted(range(3), key=lambda i: box[i + 3] - box[i]):
        for sign in (1.0, -1.0):
            way = np.zeros(3)
            way[axis] = sign
            moved = _push_along(a, b, box, way, best)
            if moved < best:
                best, towards = moved, way
    return float(best), towards


def _push_along(a: Manifold, b: Manifold, box: tuple[float, ...], way: Array, enough: float) -> float:
    """How far along a way; as soon as it is more than enough, no further."""
    axis, total = int(np.argmax(np.abs(way))), 0.0
    while True:
        total += box[axis + 3] - box[axis] + 1e-9
        if total >= enough:
            return total
        shared = a.translate(list(way * total)) ^ b
        if shared.is_empty() or shared.volume() < TOUCHING_MM3:
            return total
        box = shared.bounding_box()


def crosses(edges_of: Mesh, faces_of: Mesh) -> bool:
    """Whether an edge of one surface passes through a face of another."""
    box_low, box_high = edges_of.points.min(axis=0), edges_of.points.max(axis=0)
    near = np.flatnonzero(_box_gap(faces_of, box_low, box_high) <= 0)
    if not len(near):
        return False
    corners = faces_of.corners[near]
    a, ab, ac = corners[:, 0], corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    normal = np.cross(ab, ac)
    square = np.maximum((normal * normal).sum(-1), 1e-300)
    for some in _chunks(_edges(edges_of.corners), len(near)):
        start, along = some[:, None, 0], (some[:, 1] - some[:, 0])[:, None]
        rise = (along * normal).sum(-1)
        # An edge that runs along a face doesn't pass through it.
        t = np.divide(((a - start) * normal).sum(-1), rise, out=np.full_like(rise, -1.0), where=rise != 0)
        spot = start + t[..., None] * along - a
        v = (np.cross(spot, ac) * normal).sum(-1) / square
        w = (np.cross(ab, spot) * normal).sum(-1) / square
        if np.any((t >= 0) & (t <= 1) & (v >= 0) & (w >= 0) & (v + w <= 1)):
            return True
    return False
