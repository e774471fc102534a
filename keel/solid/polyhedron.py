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

MOST_STEPS = 60


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

    def parts(self, levels: Array) -> Array:
        """What each triangle adds to the volume below each level, shape (levels, triangles) [mm³]."""
        return np.asarray(self._facing * self._share(np.atleast_1d(levels)[:, None]))

    def _share(self, s: Array) -> Array:
        """G / A of the module's head for levels of shape (n, 1)."""
        a, b, c = self._a, self._b, self._c
        whole = s - (a + b + c) / 3
        with np.errstate(divide="ignore", invalid="ignore"):
            low = (s - a) ** 3 / (3 * (b - a) * (c - a))
            high = whole + (c - s) ** 3 / (3 * (c - a) * (c - b))
        return np.asarray(np.where(s <= a, 0.0, np.where(s < b, low, np.where(s < c, high, whole))))

    def volumes(self, levels: Array) -> Array:
        """Volume below each of some levels, shape (n,) [mm³]."""
        return np.asarray(self._share(levels[:, None]) @ self._facing)

    def surfaces(self, levels: Array) -> Array:
        """Area of the free surface at each of some levels, shape (n,) [mm²]: the derivative of `volumes`."""
        a, b, c, s = self._a, self._b, self._c, levels[:, None]
        with np.errstate(divide="ignore", invalid="ignore"):
            low = (s - a) ** 2 / ((b - a) * (c - a))
            high = 1 - (c - s) ** 2 / ((c - a) * (c - b))
        part = np.where(s <= a, 0.0, np.where(s < b, low, np.where(s < c, high, 1.0)))
        return np.asarray(part @ self._facing)

    def volume(self, level: float) -> float:
        """Volume below a level [mm³]."""
        return float(self.volumes(np.array([level]))[0])

    def surface(self, level: float) -> float:
        """Area of the free surface at a level [mm²]."""
        return float(self.surfaces(np.array([level]))[0])

    def level(self, volume: float) -> float:
        """Level below which a volume lies [mm]."""
        return float(self.levels(np.array([volume]))[0])

    def levels(self, volumes: Array) -> Array:
        """Levels below which volumes lie, shape (n,) [mm].

        Each is bracketed between neighbouring vertex heights, where V is a cubic, and found by
        Newton's method held inside its bracket, all at once, until none moves any more.
        """
        low, high, level = self._bracketed(volumes)
        for _ in range(MOST_STEPS):
            over = self.volumes(level) - volumes
            low, high = np.where(over > 0, low, level), np.where(over > 0, level, high)
            slope = self.surfaces(level)
            step = np.divide(over, slope, out=np.full_like(over, np.inf), where=slope > 0)
            following = level - step
            astray = ~((low <= following) & (following <= high))
            following[astray] = ((low + high) / 2)[astray]
            if np.all(np.abs(following - level) <= 4 * np.spacing(self.depth)):
                return np.asarray(following)
            level = following
        return level

    def _bracketed(self, volumes: Array) -> tuple[Array, Array, Array]:
        """Neighbouring vertex heights on either side of each volume's level, and a first guess between them."""
        breaks = np.unique(self.heights)
        below = np.zeros(len(volumes), dtype=np.int64)
        above = np.full(len(volumes), len(breaks) - 1)
        held, wanted = np.zeros(len(volumes)), np.full(len(volumes), self.mesh.volume_mm3)
        while np.any(above - below > 1):
            middle = (below + above) // 2
            there = self.volumes(breaks[middle])
            under = there < volumes
            below, held = np.where(under, middle, below), np.where(under, there, held)
            above, wanted = np.where(under, above, middle), np.where(under, wanted, there)
        low, high, span = breaks[below], breaks[above], wanted - held
        share = np.divide(volumes - held, span, out=np.zeros_like(span), where=span > 0)
        return low, high, low + np.clip(share, 0, 1) * (high - low)

    def below(self, level: float) -> list[Array]:
        """The mesh's faces as far as they lie below a level: polygons, each of shape (k, 3) [mm]."""
        return self.below_among(level, np.arange(len(self.mesh.triangles)))

    def below_among(self, level: float, chosen: Index) -> list[Array]:
        """`below`, of some of the triangles alone."""
        over = self.heights[self.mesh.triangles] - level
        corners, wet = self.mesh.corners, over <= 0
        full, part = np.asarray(wet.all(axis=1)), np.asarray(wet.any(axis=1))
        found = list(corners[chosen[full[chosen]]])
        for i in chosen[part[chosen] & ~full[chosen]]:
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
