"""Polyhedron mathematics: what lies below a plane, exactly, for any closed triangle mesh.

For a closed surface and heights h along a unit vector u, the divergence theorem with the
field (h − s) u, which vanishes on the cutting plane h = s, gives

    V(s) = −Σ (u · n) G(s),   G(s) = ∫ over the triangle's part below s of (s − h) dA.

h runs straight over a triangle, so with its corners' heights a ≤ b ≤ c and area A

    G = A (s − a)³ / (3 (b − a)(c − a))                     for a ≤ s ≤ b
    G = A ((s − mean) + (c − s)³ / (3 (c − a)(c − b)))      for b ≤ s ≤ c
    G = A (s − mean)                                        above c.

V is a cubic between vertex heights; its derivative is the area of the free surface.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from keel.solid.waterline import levels_for, surface_at, volume_below, volumes_below

Array = NDArray[np.float64]
Index = NDArray[np.int64]

LINES_KEPT = 8
"""How many directions a mesh remembers its waterline along."""


def cross(a: Array, b: Array) -> Array:
    """The vector product of two vectors: a tenth of what numpy's, made for many, takes on two.

    Parameters
    ----------
    a, b : ndarray, shape (3,)
        Any.

    Returns
    -------
    ndarray, shape (3,)
        a × b.
    """
    (x, y, z), (u, v, w) = a.tolist(), b.tolist()
    return np.array([y * w - z * v, z * u - x * w, x * v - y * u])


@dataclass(frozen=True)
class Mesh:
    """A closed surface of triangles, each counter-clockwise seen from outside.

    Attributes
    ----------
    points : ndarray, shape (n, 3)
        Vertices [mm].
    triangles : ndarray of int, shape (m, 3)
        Indices into `points`.
    porosity : float
        How much of the space is open to liquid, evenly: foam takes the rest. Volumes and free surfaces are of liquid;
        wetted faces are whole.
    """

    points: Array
    triangles: Index
    porosity: float = 1.0

    @cached_property
    def corners(self) -> Array:
        """Corner positions, shape (m, 3, 3) [mm]; not to be changed."""
        return self.points[self.triangles]

    @cached_property
    def boxes(self) -> tuple[Array, Array]:
        """Low and high corner of the box round each triangle, shape (m, 3) each [mm]; not to be changed."""
        a, b, c = self.corners[:, 0], self.corners[:, 1], self.corners[:, 2]
        return np.minimum(np.minimum(a, b), c), np.maximum(np.maximum(a, b), c)

    @cached_property
    def area_vectors(self) -> Array:
        """Each triangle's outward normal as long as its area, shape (m, 3) [mm²]; not to be changed."""
        corners = self.corners
        return crossed(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]) / 2

    @cached_property
    def volume_mm3(self) -> float:
        """Enclosed volume open to liquid [mm³]: the sum of tetrahedra over the triangles."""
        return self.porosity * float(np.einsum("ij,ij->", self.corners[:, 0], self.area_vectors) / 3)

    @cached_property
    def inward(self) -> Array:
        """At each vertex a direction into the mesh, the mean of its faces', shape (n, 3); not to be changed."""
        normals = self.area_vectors / np.maximum(np.linalg.norm(self.area_vectors, axis=1, keepdims=True), 1e-12)
        total = np.zeros_like(self.points)
        np.add.at(total, self.triangles, -normals[:, None])
        return np.asarray(total / np.maximum(np.linalg.norm(total, axis=1, keepdims=True), 1e-12))

    def along(self, up: Array) -> "Waterline":
        """The mesh's waterline along a direction, shape (3,); remembered."""
        key = up.tobytes()
        line = self._lines.get(key)
        if line is None:
            if len(self._lines) >= LINES_KEPT:
                self._lines.clear()
            line = self._lines[key] = Waterline(self, up)
        return line

    @cached_property
    def _lines(self) -> "dict[bytes, Waterline]":
        return {}


class Waterline:
    """A mesh seen along one direction: volume under a plane, and the plane for a volume.

    Parameters
    ----------
    mesh : Mesh
        A closed surface.
    up : ndarray, shape (3,)
        Direction against which the liquid falls; any length above zero.

    Notes
    -----
    Heights are measured along `up` from the mesh's lowest point.
    """

    def __init__(self, mesh: Mesh, up: Array) -> None:
        self.mesh = mesh
        self.up = up / np.linalg.norm(up)
        heights = mesh.points @ self.up
        self.lowest = float(heights.min())
        self.depth = float(heights.max()) - self.lowest
        self.heights = np.asarray(heights - self.lowest)
        a, b, c = np.sort(self.heights[mesh.triangles], axis=1).T
        self._facing = np.ascontiguousarray(-mesh.porosity * (mesh.area_vectors @ self.up))
        # A vanishing denominator belongs to a part of the triangle that has no height: it adds nothing.
        inverses = _inverse((b - a) * (c - a)), _inverse((c - b) * (c - a))
        self._corners = np.stack([a, b, c, (a + b + c) / 3, *inverses])

    def parts(self, levels: Array) -> Array:
        """What each triangle adds to the volume below each level, shape (levels, triangles) [mm³]."""
        return np.asarray(self._facing * self._share(np.atleast_1d(levels)[:, None]))

    def _share(self, s: Array) -> Array:
        """G / A of the module's head for levels of shape (n, 1)."""
        a, b, c, mean, below, above = self._corners
        low, high = s - a, np.maximum(c - s, 0)
        upper = s - mean + high * high * high * above / 3
        return np.asarray(np.where(low <= 0, 0.0, np.where(s < b, low * low * low * below / 3, upper)))

    def volumes(self, levels: Array) -> Array:
        """Volume below each of some levels, shape (n,) [mm³]."""
        return np.asarray(volumes_below(np.asarray(levels, dtype=np.float64), self._corners, self._facing))

    def volume(self, level: float) -> float:
        """Volume below a level [mm³]."""
        return float(volume_below(float(level), self._corners, self._facing))

    def surface(self, level: float) -> float:
        """Area of the free surface at a level [mm²]."""
        return float(surface_at(float(level), self._corners, self._facing))

    def level(self, volume: float) -> float:
        """Level below which a volume lies [mm]."""
        return float(self.levels(np.array([volume]))[0])

    def levels(self, volumes: Array) -> Array:
        """Levels below which volumes lie, shape (n,) [mm]."""
        wanted = np.asarray(volumes, dtype=np.float64)
        return np.asarray(levels_for(wanted, self._breaks, self._corners, self._facing))

    @cached_property
    def _breaks(self) -> Array:
        return np.unique(self.heights)

    def below(self, level: float, chosen: Index | None = None) -> Array:
        """The mesh's faces as far as they lie below a level, as triangles of shape (k, 3, 3) [mm].

        Of all the mesh's triangles, or of some.
        """
        mesh = self.mesh
        triangles, corners = mesh.triangles, mesh.corners
        if chosen is not None:
            triangles, corners = triangles[chosen], corners[chosen]
        over = self.heights[triangles] - level
        wet = (over <= 0).sum(axis=1)
        one, two = _turned(corners, over, wet == 1, True), _turned(corners, over, wet == 2, False)
        tips = np.stack([one[0][:, 0], _between(*one, 0, 1), _between(*one, 0, 2)], axis=1)
        near, far = _between(*two, 1, 0), _between(*two, 2, 0)
        stumps = [np.stack([near, two[0][:, 1], two[0][:, 2]], axis=1), np.stack([near, two[0][:, 2], far], axis=1)]
        return np.concatenate([corners[wet == 3], tips, *stumps])

    def wetted(self, level: float, wet: Array | None = None) -> float:
        """Area of the mesh's faces below a level [mm²]; `wet` is `below(level)` where that is known already."""
        pieces = self.below(level) if wet is None else wet
        normals = crossed(pieces[:, 1] - pieces[:, 0], pieces[:, 2] - pieces[:, 0])
        return float(np.sqrt(np.einsum("ij,ij->i", normals, normals)).sum() / 2)

    def centroid(self, level: float, wet: Array | None = None) -> Array:
        """Centroid of what lies below a level, shape (3,) [mm].

        `wet` is `below(level)` where that is known already. From the same field times each
        coordinate; over a clipped triangle the integrand is quadratic, for which the mean of its
        values at the edges' middles is exact.
        """
        pieces = self.below(level) if wet is None else wet
        normals = crossed(pieces[:, 1] - pieces[:, 0], pieces[:, 2] - pieces[:, 0]) / 2
        flux = -self.mesh.porosity * (normals @ self.up)
        middles = (pieces + pieces[:, [1, 2, 0]]) / 2
        depths = level + self.lowest - middles @ self.up
        moment = np.einsum("i,ij,ijk->k", flux, depths, middles) / 3
        first = float(np.einsum("i,ij,ij->", flux, depths, depths)) / 6
        return np.asarray((moment + first * self.up) / self.volume(level))

    def outline(self, level: float) -> list[Array]:
        """The free surface's rim at a level: closed loops, each of shape (k, 3) [mm]."""
        triangles = self.mesh.triangles
        corners, over = self.mesh.corners, self.heights[triangles] - level
        wet = (over <= 0).sum(axis=1)
        one, two = _turned(corners, over, wet == 1, True), _turned(corners, over, wet == 2, False)
        starts = np.concatenate([_between(*one, 0, 1), _between(*two, 2, 0)])
        ends = np.concatenate([_between(*one, 0, 2), _between(*two, 1, 0)])
        return _loops(starts, ends)


def level_axes(up: Array) -> Array:
    """Two directions square to a third and to each other, which makes the three right-handed, shape (2, 3).

    Parameters
    ----------
    up : ndarray
        Any direction of length 1, shape (3,).

    Returns
    -------
    ndarray
        Rows of length 1.
    """
    length = np.sqrt(up @ up)
    frame = np.array([np.eye(3)[int(np.argmin(np.abs(up)))], up / length])
    side = crossed(frame[1:], frame[:1])
    side /= np.sqrt(side[0] @ side[0])
    return np.concatenate([side, crossed(frame[1:], side)])


def crossed(a: Array, b: Array) -> Array:
    """Vector products of rows, shape (n, 3): NumPy's own is slow on the few hundred rows of a tank.

    Parameters
    ----------
    a : ndarray
        Shape (n, 3).
    b : ndarray
        Shape (n, 3).

    Returns
    -------
    ndarray
        a × b, row by row.
    """
    out = np.empty_like(a)
    ax, ay, az = a[:, 0], a[:, 1], a[:, 2]
    bx, by, bz = b[:, 0], b[:, 1], b[:, 2]
    out[:, 0], out[:, 1], out[:, 2] = ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx
    return out


def _inverse(values: Array) -> Array:
    return np.divide(1.0, values, out=np.zeros_like(values), where=values > 0)


def _turned(corners: Array, over: Array, chosen: Array, wet: bool) -> tuple[Array, Array]:
    """Some triangles and their corners' heights over the plane, turned so that the odd one out comes first."""
    corners, over = corners[chosen], over[chosen]
    first = np.argmax((over <= 0) == wet, axis=1)
    order = (first[:, None] + np.arange(3)) % 3
    rows = np.arange(len(first))[:, None]
    return corners[rows, order], over[rows, order]


def _between(corners: Array, over: Array, i: int, j: int) -> Array:
    """Where edges from corner i to corner j meet the plane, calculated from the wet end so that both sides agree."""
    swap = over[:, i] > 0
    wet, dry = (
        np.where(swap[:, None], corners[:, j], corners[:, i]),
        np.where(swap[:, None], corners[:, i], corners[:, j]),
    )
    low, high = np.where(swap, over[:, j], over[:, i]), np.where(swap, over[:, i], over[:, j])
    return np.asarray(wet + (dry - wet) * (low / (low - high))[:, None])


def _loops(starts: Array, ends: Array) -> list[Array]:
    """Join segments end to start."""
    from_key, to_key = _keys(starts), _keys(ends)
    follow = {a: (here, b) for here, (a, b) in enumerate(zip(from_key, to_key, strict=True)) if a != b}
    loops = []
    while follow:
        key = next(iter(follow))
        loop = []
        while key in follow:
            here, key = follow.pop(key)
            loop.append(here)
        if len(loop) >= 3:
            loops.append(starts[loop])
    return loops


def _keys(points: Array) -> list[bytes]:
    """Places to a millionth of a millimetre, so that two ends of a joint are the same."""
    rounded = np.ascontiguousarray(np.round(points, 6) + 0.0)
    keys: list[bytes] = rounded.view(f"V{3 * rounded.itemsize}").ravel().tolist()
    return keys
