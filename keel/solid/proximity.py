"""How near two surfaces come, and where; by how much one would have to move to come clear."""

from collections.abc import Sequence
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

    Parameters
    ----------
    a : Mesh
        A surface [mm].
    b : Mesh
        Another, apart from it [mm].

    Returns
    -------
    Nearest
        The distance, and a place on each [mm].

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


@dataclass(frozen=True)
class Push:
    """The least straight push that parts two solids, which way the first has to go, and the middle of what they share.

    `mm` is zero where they don't overlap; then the others say nothing.
    """

    mm: float
    way: Array
    middle: Array


NO_PUSH = Push(0.0, np.zeros(3), np.zeros(3))
"""Of two solids that don't overlap."""


def least_push(parts: Sequence[Manifold], b: Manifold) -> Push:
    """The least straight push along a vehicle axis that brings one solid, given in parts, clear of another.

    Parameters
    ----------
    parts : sequence of Manifold
        Each is asked by itself, and only where its box meets the other's: they needn't be joined first.
    b : Manifold
        What stays.

    Returns
    -------
    Push
        Axis, way and distance [mm].
    """
    boxed = [(part, np.array(part.bounding_box())) for part in parts]
    other = np.array(b.bounding_box())
    shared = _shared(boxed, b, other, np.zeros(3))
    if shared is None:
        return NO_PUSH
    best, towards = np.inf, np.zeros(3)
    for axis in sorted(range(3), key=lambda i: shared[i + 3] - shared[i]):
        for sign in (1.0, -1.0):
            way = np.zeros(3)
            way[axis] = sign
            moved = _push_along(boxed, b, other, shared, way, best)
            if moved < best:
                best, towards = moved, way
    return Push(float(best), towards, (shared[:3] + shared[3:]) / 2)


def _shared(boxed: Sequence[tuple[Manifold, Array]], b: Manifold, other: Array, off: Array) -> Array | None:
    """The box round what parts, moved so far, share with a solid; None where that is nothing."""
    boxes = []
    for part, box in boxed:
        if np.any(box[:3] + off >= other[3:]) or np.any(box[3:] + off <= other[:3]):
            continue
        both = (part.translate(list(off)) if off.any() else part) ^ b
        if not both.is_empty() and both.volume() >= TOUCHING_MM3:
            boxes.append(both.bounding_box())
    if not boxes:
        return None
    corners = np.array(boxes)
    return np.concatenate([corners[:, :3].min(axis=0), corners[:, 3:].max(axis=0)])


def _push_along(
    boxed: Sequence[tuple[Manifold, Array]], b: Manifold, other: Array, box: Array, way: Array, enough: float
) -> float:
    """How far along a way; as soon as it is more than enough, no further."""
    axis, total, left = int(np.argmax(np.abs(way))), 0.0, box
    while True:
        total += float(left[axis + 3] - left[axis]) + 1e-9
        if total >= enough:
            return total
        shared = _shared(boxed, b, other, way * total)
        if shared is None:
            return total
        left = shared


def crosses(edges_of: Mesh, faces_of: Mesh) -> bool:
    """Whether an edge of one surface passes through a face of another.

    Parameters
    ----------
    edges_of : Mesh
        A surface [mm].
    faces_of : Mesh
        Another [mm].

    Returns
    -------
    bool
        True when any does.
    """
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
