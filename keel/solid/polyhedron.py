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

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Index = NDArray[np.int64]

MOST_STEPS = 100


@dataclass(frozen=True)
class Mesh:
    """A closed surface of triangles, each counter-clockwise seen from outside.

    Attributes
    ----------
    points : ndarray, shape (n, 3)
        Vertices [mm].
    triangles : ndarray of int, shape (m, 3)
        Indices into `points`.
    """

    points: Array
    triangles: Index

    @property
    def corners(self) -> Array:
        """Corner positions, shape (m, 3, 3) [mm]."""
        return self.points[self.triangles]

    @property
    def volume_mm3(self) -> float:
        """Enclosed volume [mm³]: the sum of signed tetrahedra."""
        a, b, c = np.moveaxis(self.corners, 1, 0)
        return float(np.einsum("ij,ij->", a, np.cross(b, c)) / 6)


def prism(section: Array, axis: int, start: float, end: float) -> Mesh:
    """A convex or star-shaped section drawn out along a level axis.

    Parameters
    ----------
    section : ndarray, shape (k, 2)
        Corners (across, up) [mm], counter-clockwise seen along the falling axis; every
        corner must be in sight of the mean of them all.
    axis : int
        0 to draw along x (the section lies in y, z), 1 along y (in x, z).
    start, end : float
        Low and high end along the axis [mm].

    Returns
    -------
    Mesh
    """
    ring = np.vstack([section, section.mean(axis=0)])
    count = len(section)
    points = np.zeros((2 * (count + 1), 3))
    points[:, 2] = np.tile(ring[:, 1], 2)
    points[:, 1 - axis] = np.tile(ring[:, 0], 2)
    points[:, axis] = np.repeat([start, end], count + 1)
    here = np.arange(count)
    after, far = (here + 1) % count, count + 1
    low = np.column_stack([np.full(count, count), after, here])
    high = np.column_stack([np.full(count, count + far), here + far, after + far])
    sides = np.vstack([
        np.column_stack([here, after, after + far]),
        np.column_stack([here, after + far, here + far]),
    ])  # fmt: skip
    triangles = np.vstack([low, high, sides])
    return Mesh(points, triangles if axis == 0 else triangles[:, ::-1])


class Waterline:
    """A mesh seen along one direction: volume under a plane, and the plane for a volume.

    Parameters
    ----------
    mesh : Mesh
        A closed surface.
    up : ndarray, shape (3,)
        Direction against which the liquid falls; any length above nought.

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
        corner_heights = np.sort(self.heights[mesh.triangles], axis=1)
        self._a, self._b, self._c = corner_heights.T
        first, second, third = np.moveaxis(mesh.corners, 1, 0)
        normals = np.cross(second - first, third - first) / 2
        self._facing = -(normals @ self.up)

    def volume(self, level: float) -> float:
        """Volume below a level [mm³]."""
        a, b, c, s = self._a, self._b, self._c, level
        with np.errstate(divide="ignore", invalid="ignore"):
            low = (s - a) ** 3 / (3 * (b - a) * (c - a))
            high = (s - (a + b + c) / 3) + (c - s) ** 3 / (3 * (c - a) * (c - b))
        whole = s - (a + b + c) / 3
        part = np.where(s <= a, 0.0, np.where(s < b, low, np.where(s < c, high, whole)))
        return float(self._facing @ part)

    def surface(self, level: float) -> float:
        """Area of the free surface at a level [mm²]: the derivative of `volume`."""
        a, b, c, s = self._a, self._b, self._c, level
        with np.errstate(divide="ignore", invalid="ignore"):
            low = (s - a) ** 2 / ((b - a) * (c - a))
            high = 1 - (c - s) ** 2 / ((c - a) * (c - b))
        part = np.where(s <= a, 0.0, np.where(s < b, low, np.where(s < c, high, 1.0)))
        return float(self._facing @ part)

    def level(self, volume: float) -> float:
        """Level below which a volume lies [mm].

        Newton's method on the rising `volume`, held between vertex heights that bracket the
        answer, until it moves no more.
        """
        breaks = np.unique(self.heights)
        below, above = 0, len(breaks) - 1
        while above - below > 1:
            middle = (below + above) // 2
            if self.volume(float(breaks[middle])) < volume:
                below = middle
            else:
                above = middle
        return self._newton(volume, float(breaks[below]), float(breaks[above]))

    def _newton(self, volume: float, low: float, high: float) -> float:
        level = (low + high) / 2
        for _ in range(MOST_STEPS):
            over = self.volume(level) - volume
            low, high = (low, level) if over > 0 else (level, high)
            slope = self.surface(level)
            following = level - over / slope if slope > 0 else (low + high) / 2
            if not low <= following <= high:
                following = (low + high) / 2
            if following == level or high - low <= np.spacing(high):
                return following
            level = following
        return level

    def below(self, level: float) -> list[Array]:
        """The mesh's faces as far as they lie below a level: polygons, each of shape (k, 3) [mm]."""
        over = self.heights[self.mesh.triangles] - level
        corners, wet = self.mesh.corners, over <= 0
        found = list(corners[wet.all(axis=1)])
        for i in np.flatnonzero(wet.any(axis=1) & ~wet.all(axis=1)):
            polygon = _clip(corners[i], over[i])
            if len(polygon) >= 3:
                found.append(polygon)
        return found

    def centroid(self, level: float) -> Array:
        """Centroid of what lies below a level, shape (3,) [mm].

        From the same field times each coordinate; over a clipped triangle the integrand is
        quadratic, for which the mean of its values at the edges' middles is exact.
        """
        pieces = np.array([p[[0, k, k + 1]] for p in self.below(level) for k in range(1, len(p) - 1)])
        normals = np.cross(pieces[:, 1] - pieces[:, 0], pieces[:, 2] - pieces[:, 0]) / 2
        flux = -(normals @ self.up)
        middles = (pieces + np.roll(pieces, -1, axis=1)) / 2
        depths = level + self.lowest - middles @ self.up
        moment = np.einsum("i,ij,ijk->k", flux, depths, middles) / 3
        first = float(np.einsum("i,ij,ij->", flux, depths, depths)) / 6
        return np.asarray((moment + first * self.up) / self.volume(level))

    def outline(self, level: float) -> list[Array]:
        """The free surface's rim at a level: closed loops, each of shape (k, 3) [mm]."""
        over = self.heights[self.mesh.triangles] - level
        corners, wet = self.mesh.corners, over <= 0
        crossing = np.flatnonzero(wet.any(axis=1) & ~wet.all(axis=1))
        return _loops([_cut(corners[i], over[i]) for i in crossing])


def _clip(points: Array, over: Array) -> Array:
    """The part of a triangle whose heights over the plane are not above nought."""
    kept = []
    for i in range(3):
        j = (i + 1) % 3
        if over[i] <= 0:
            kept.append(points[i])
        if (over[i] < 0 < over[j]) or (over[j] < 0 < over[i]):
            kept.append(_crossing(points, over, i, j))
    return np.array(kept)


def _cut(points: Array, over: Array) -> tuple[Array, Array]:
    """Where the plane crosses a triangle; from where it goes under to where it comes up again."""
    wet, ends = over <= 0, {}
    for i in range(3):
        j = (i + 1) % 3
        if wet[i] != wet[j]:
            ends[bool(wet[i])] = _crossing(points, over, i, j)
    return ends[True], ends[False]


def _crossing(points: Array, over: Array, i: int, j: int) -> Array:
    """Where an edge meets the plane, reckoned from its wet end so that both its triangles agree to the bit."""
    wet, dry = (i, j) if over[i] <= 0 else (j, i)
    return np.asarray(points[wet] + (points[dry] - points[wet]) * (over[wet] / (over[wet] - over[dry])))


def _loops(segments: list[tuple[Array, Array]]) -> list[Array]:
    """Join segments end to start."""
    follow = {_key(start): (start, end) for start, end in segments if _key(start) != _key(end)}
    loops = []
    while follow:
        key = next(iter(follow))
        loop = []
        while key in follow:
            start, end = follow.pop(key)
            loop.append(start)
            key = _key(end)
        if len(loop) >= 3:
            loops.append(np.array(loop))
    return loops


def _key(point: Array) -> tuple[float, ...]:
    return tuple(round(float(v), 6) + 0.0 for v in point)
