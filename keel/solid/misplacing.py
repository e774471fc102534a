"""How much a leaning space misplaces: what lies apart from the surface it would share."""

from math import cos, pi, sin
from typing import NamedTuple

import numpy as np

from keel.compiled import compiled
from keel.solid.polyhedron import Array, Index, Mesh
from keel.solid.pools import NUDGE_MM, Crossings

SMOOTH_MM = 0.05
"""A plane this near to a space's end parts nothing [mm]."""

LEANS = (0.1, 0.3, 0.6, 1.0, 1.8, 3.5)
"""Tangents of the leans that are looked at, besides level."""
AZIMUTHS = 16
LEVEL_MM = 1e-9
OFF_FACE_MM = 1e-2
"""How far beside an open face liquid that is to pass it is looked for [mm]."""


def leanings() -> Array:
    """The upward directions that are looked at, shape (n, 3): level, and leans of several steepnesses all round."""
    ups = [(0.0, 0.0, 1.0)]
    for lean in LEANS:
        # A little off the axes: on them a flat top has its crest on both edges at once.
        turns = [2 * pi * (n + 0.013) / AZIMUTHS for n in range(AZIMUTHS)]
        ups += [(lean * cos(turn), lean * sin(turn), 1.0) for turn in turns]
    found = np.array(ups)
    return np.asarray(found / np.linalg.norm(found, axis=1, keepdims=True))


UPS = leanings()


def misplaced(mesh: Mesh, ups: Array, drains: Array) -> tuple[Array, Array]:
    """How much liquid one surface through a space would put in the wrong place, along each of some directions.

    Parameters
    ----------
    mesh : Mesh
        A closed surface.
    ups : ndarray, shape (n, 3)
        Unit directions against which the liquid falls.
    drains : ndarray, shape (k, 3)
        Places by which liquid leaves; those outside the mesh are passed over.

    Returns
    -------
    volumes : ndarray, shape (n,)
        Of all joins of two pools the most of: the smaller pool, and what of either the other's drain would draw
        down although it lies behind the join [mm³]. Zero where there is one pool at every level.
    joints : ndarray, shape (n, 3)
        The place where those two join [mm].
    """
    volumes, joints = np.zeros(len(ups)), np.zeros((len(ups), 3))
    if _convex(mesh):
        return volumes, joints
    for n, up in enumerate(ups):
        heights = mesh.points @ up
        down = _down(heights, mesh.triangles)
        own = np.flatnonzero(down == np.arange(len(down)))
        if len(own) == 1:
            continue
        crossings = Crossings(mesh, up)
        probes = mesh.points[own] + NUDGE_MM * (0.3 * mesh.inward[own] - up)
        counts, first = crossings.below(np.vstack([probes, drains]))
        low_corners = _low_corners(heights, mesh.triangles)
        low = low_corners[first]
        # Of something that hangs into the liquid the lowest corner is tied to the surface straight below it.
        hanging = counts[: len(own)] % 2 == 1
        down[own[hanging]] = low[: len(own)][hanging]
        lets_out = counts[len(own) :] % 2 == 1
        sills = np.full(len(heights), np.inf)
        np.minimum.at(sills, low[len(own) :][lets_out], (drains @ up)[lets_out])
        seen = Seen(heights, mesh.triangles, mesh.area_vectors @ up, low_corners)
        volumes[n], joint = _worst_join(seen, down, sills)
        joints[n] = mesh.points[joint]
    return volumes * mesh.porosity, joints


def _convex(mesh: Mesh) -> bool:
    """Whether no corner lies outside any face's plane by more than rounding."""
    normals = mesh.area_vectors / np.maximum(np.linalg.norm(mesh.area_vectors, axis=1, keepdims=True), 1e-12)
    offsets = np.einsum("ij,ij->i", normals, mesh.corners[:, 0])
    return bool((normals @ mesh.points.T - offsets[:, None]).max() < SMOOTH_MM)


class Seen(NamedTuple):
    """A mesh seen along one direction."""

    heights: Array
    triangles: Index
    facing: Array
    """Area that each triangle turns upwards [mm²]."""
    low_corner: Index
    """The lowest corner of each triangle."""


@compiled
def _down(heights: Array, triangles: Index) -> Index:
    """The lowest of each vertex and its neighbours; of equals the first."""
    order = np.argsort(heights, kind="mergesort")
    rank = np.empty(len(heights), np.int64)
    for i in range(len(order)):
        rank[order[i]] = i
    least = rank.copy()
    for t in range(len(triangles)):
        for i in range(3):
            a, b = triangles[t, i], triangles[t, (i + 1) % 3]
            least[a], least[b] = min(least[a], rank[b]), min(least[b], rank[a])
    return order[least]


@compiled
def _root(parent: Index, vertex: int) -> int:
    while parent[vertex] != vertex:
        parent[vertex] = parent[parent[vertex]]
        vertex = parent[vertex]
    return vertex


@compiled
def _below(seen: Seen, low_root: Index, root: int, level: float) -> float:
    """What a pool holds below a level: the sum over the triangles whose lowest corner is in it."""
    held = 0.0
    for t in range(len(seen.triangles)):
        if low_root[t] == root and seen.heights[seen.low_corner[t]] < level - LEVEL_MM:
            held -= seen.facing[t] * _depth(seen.heights, seen.triangles, t, level)
    return held


@compiled
def _low_corners(heights: Array, triangles: Index) -> Index:
    """The lowest corner of each triangle; of equals the first."""
    found = triangles[:, 0].copy()
    for t in range(len(triangles)):
        for i in range(1, 3):
            found[t] = triangles[t, i] if heights[triangles[t, i]] < heights[found[t]] else found[t]
    return found


@compiled
def _between(heights: Array, triangles: Index, parent: Index) -> tuple[Index, Array]:
    """The edges between basins, lowest top first, and their tops."""
    edges, count = np.empty((3 * len(triangles), 2), np.int64), 0
    tops = np.empty(3 * len(triangles))
    for t in range(len(triangles)):
        for i in range(3):
            a, b = triangles[t, i], triangles[t, (i + 1) % 3]
            if a < b and _root(parent, a) != _root(parent, b):
                edges[count, 0], edges[count, 1] = a, b
                tops[count] = max(heights[a], heights[b])
                count += 1
    order = np.argsort(tops[:count], kind="mergesort")
    return edges[order], tops[order]


@compiled
def _worst_join(seen: Seen, down: Index, sills: Array) -> tuple[float, int]:
    """Join basins at the edges between them, lowest first; the most that a join misplaces, and where it is."""
    heights, parent, sill = seen.heights, down.copy(), np.full(len(down), np.inf)
    for vertex in range(len(heights)):
        root = _root(parent, vertex)
        sill[root] = min(sill[root], sills[vertex])
    worst, joint, low_root = 0.0, 0, np.empty(len(seen.triangles), np.int64)
    edges, tops = _between(heights, seen.triangles, parent)
    for n in range(len(edges)):
        a, b = _root(parent, edges[n, 0]), _root(parent, edges[n, 1])
        if a == b:
            continue
        for t in range(len(seen.triangles)):
            low_root[t] = _root(parent, seen.low_corner[t])
        off = _misplaces(seen, low_root, sill, a, b, tops[n])
        if off > worst:
            worst, joint = off, edges[n, 0] if heights[edges[n, 0]] >= heights[edges[n, 1]] else edges[n, 1]
        parent[a] = b
        sill[b] = min(sill[a], sill[b])
    return worst, joint


@compiled
def _misplaces(seen: Seen, low_root: Index, sill: Array, a: int, b: int, top: float) -> float:
    """What one surface through two pools that join at a height would put in the wrong place."""
    off = min(_below(seen, low_root, a, top), _below(seen, low_root, b, top))
    for one, other in ((a, b), (b, a)):
        stands = min(sill[one], top)
        if sill[other] < stands:
            kept = _below(seen, low_root, one, sill[other])
            off = max(off, _below(seen, low_root, one, stands) - kept)
    return off


@compiled
def _depth(heights: Array, triangles: Index, t: int, level: float) -> float:
    """G / A of `keel.solid.polyhedron`: the mean depth of a triangle's part below a level, over all of it."""
    a, b, c = heights[triangles[t, 0]], heights[triangles[t, 1]], heights[triangles[t, 2]]
    low, high = min(a, b, c), max(a, b, c)
    middle = a + b + c - low - high
    if level >= high:
        return float(level - (a + b + c) / 3)
    if level < middle:
        return float((level - low) ** 3 / (3 * (middle - low) * (high - low)))
    return float(level - (a + b + c) / 3 + (high - level) ** 3 / (3 * (high - middle) * (high - low)))
