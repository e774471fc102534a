"""How near two surfaces come, and where; by how much one would have to move to come clear."""

from dataclasses import dataclass

import numpy as np
from manifold3d import Manifold

from keel.solid.polyhedron import Array, Index, Mesh, crossed

TOUCHING_MM3 = 1e-3
FIRST_PAIRS = 48
MOST_AT_ONCE = 50_000
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
    They lie at a corner of one and a face of the other, or on an edge of each. Pairs of triangles are looked at
    from those whose boxes come nearest; once some pairs are measured, all whose boxes are further apart than the
    best of them are left out.
    """
    mine, theirs = _near_ones(a, b)
    corners_b = b.corners[theirs]
    best = Nearest(np.inf, np.zeros(3), np.zeros(3))
    for corners_a in _chunks(a.corners[mine], len(corners_b)):
        gap = _gaps_of_pairs(corners_a, corners_b)
        some = np.argpartition(gap, FIRST_PAIRS)[:FIRST_PAIRS] if len(gap) > FIRST_PAIRS else np.arange(len(gap))
        best = _nearer(best, corners_a, corners_b, some[gap[some] <= best.distance])
        best = _nearer(best, corners_a, corners_b, np.flatnonzero(gap <= best.distance))
    return best


def _gaps_of_pairs(a: Array, b: Array) -> Array:
    """How far the boxes round each pair of triangles are apart, the second running fastest [mm]."""
    low_a, high_a, low_b, high_b = a.min(axis=1), a.max(axis=1), b.min(axis=1), b.max(axis=1)
    apart = np.maximum(np.maximum(low_a[:, None] - high_b[None], low_b[None] - high_a[:, None]), 0)
    return np.asarray(np.sqrt(np.einsum("ijk,ijk->ij", apart, apart)).ravel())


def _nearer(best: Nearest, a: Array, b: Array, pairs: Index) -> Nearest:
    """The nearest of some pairs of triangles, or what was nearer already."""
    for start in range(0, len(pairs), MOST_AT_ONCE):
        first, second = np.divmod(pairs[start : start + MOST_AT_ONCE], len(b))
        best = min(best, _of_pairs(a[first], b[second]), key=lambda one: one.distance)
    return best


def _of_pairs(a: Array, b: Array) -> Nearest:
    """Nearest places of triangles pair by pair, shapes (n, 3, 3)."""
    best = Nearest(np.inf, np.zeros(3), np.zeros(3))
    for one, other, swap in ((a, b, False), (b, a, True)):
        points, faces = one.reshape(-1, 3), np.repeat(other, 3, axis=0)
        found = _least(points, _on_triangles(points, faces))
        if found.distance < best.distance:
            best = Nearest(found.distance, found.end, found.start) if swap else found
    ends = [0, 1, 1, 2, 2, 0]
    edges_a, edges_b = a[:, ends].reshape(-1, 3, 2, 3), b[:, ends].reshape(-1, 3, 2, 3)
    found = _edges_to_edges(
        np.repeat(edges_a, 3, axis=1).reshape(-1, 2, 3), np.tile(edges_b, (1, 3, 1, 1)).reshape(-1, 2, 3)
    )
    return found if found.distance < best.distance else best


def _least(start: Array, end: Array) -> Nearest:
    away = np.linalg.norm(end - start, axis=1)
    at = int(np.argmin(away))
    return Nearest(float(away[at]), start[at], end[at])


def _near_ones(a: Mesh, b: Mesh) -> tuple[Index, Index]:
    """Indices of the triangles of each that may hold the nearest places."""
    low_b, high_b = b.points.min(axis=0), b.points.max(axis=0)
    gap_a = _box_gap(a, low_b, high_b)
    seed = a.corners[int(np.argmin(gap_a))].mean(axis=0)
    target = b.points[int(np.argmin(np.linalg.norm(b.points - seed, axis=1)))]
    reach = float(np.linalg.norm(a.points - target, axis=1).min())
    mine = np.flatnonzero(gap_a <= reach + 1e-9)
    chosen = a.corners[mine].reshape(-1, 3)
    theirs = np.flatnonzero(_box_gap(b, chosen.min(axis=0), chosen.max(axis=0)) <= reach + 1e-9)
    return mine, theirs


def _box_gap(mesh: Mesh, low: Array, high: Array) -> Array:
    """From the box round each triangle to a box [mm]."""
    corners = mesh.corners
    apart = np.maximum(np.maximum(corners.min(axis=1) - high, low - corners.max(axis=1)), 0)
    return np.asarray(np.linalg.norm(apart, axis=1))


def _edges(corners: Array) -> Array:
    """The different edges of triangles, shape (n, 2, 3)."""
    both = np.vstack([corners[:, [0, 1]], corners[:, [1, 2]], corners[:, [2, 0]]]).reshape(-1, 6)
    # Each edge comes once from either side, there and back: keep the way that rises along an odd direction.
    rising = (both[:, 3:] - both[:, :3]) @ np.array([0.7391, 0.5113, 0.4399]) >= 0
    return np.asarray(both[rising].reshape(-1, 2, 3))


def _on_triangles(p: Array, corners: Array) -> Array:
    """The place of each triangle nearest to each point: in its face, else on its nearest side."""
    a, b, c = corners[:, 0], corners[:, 1], corners[:, 2]
    ab, ac = b - a, c - a
    normal = crossed(ab, ac)
    square = np.maximum((normal * normal).sum(-1), 1e-300)
    ap = p - a
    v = (crossed(ap, ac) * normal).sum(-1) / square
    w = (crossed(ab, ap) * normal).sum(-1) / square
    inside = (v >= 0) & (w >= 0) & (v + w <= 1)
    face = a + v[..., None] * ab + w[..., None] * ac
    sides = np.stack([_on_segments(p, a, b), _on_segments(p, b, c), _on_segments(p, c, a)])
    away = np.linalg.norm(sides - p, axis=-1)
    side = np.take_along_axis(sides, np.argmin(away, axis=0)[None, ..., None], axis=0)[0]
    return np.asarray(np.where(inside[..., None], face, side))


def _on_segments(p: Array, a: Array, b: Array) -> Array:
    along = b - a
    share = ((p - a) * along).sum(-1) / np.maximum((along * along).sum(-1), 1e-300)
    return np.asarray(a + np.clip(share, 0, 1)[..., None] * along)


def _edges_to_edges(first: Array, second: Array) -> Nearest:
    """Nearest places of edges pair by pair, shapes (n, 2, 3)."""
    p, q = first[:, 0], second[:, 0]
    u, v, r = first[:, 1] - p, second[:, 1] - q, p - q
    a, b, c = (u * u).sum(-1), (u * v).sum(-1), (v * v).sum(-1)
    d, e = (u * r).sum(-1), (v * r).sum(-1)
    bottom = a * c - b * b
    s = np.where(bottom > 1e-12 * a * c, np.clip((b * e - c * d) / np.maximum(bottom, 1e-300), 0, 1), 0.0)
    t = np.clip((b * s + e) / np.maximum(c, 1e-300), 0, 1)
    s = np.clip((b * t - d) / np.maximum(a, 1e-300), 0, 1)
    return _least(p + s[:, None] * u, q + t[:, None] * v)


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
