"""Pools: what stays behind when liquid drains towards a point, exactly, for any closed mesh.

As a level sinks through a solid, the liquid falls apart into pools; read upward, pools are born at
low places and join at passes. The surface mesh alone tells which, by Morse theory for straight-line
heights: a pool can only be born at a vertex without lower neighbours, and two can only join at a
vertex. One kind of vertex without lower neighbours bears no pool: the lowest corner of something
that hangs into the liquid. It lies over liquid that is there already, so it is tied to the surface
straight below it. With those ties the join tree of the surface is the join tree of the liquid.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from keel.compiled import compiled
from keel.solid.polyhedron import Array, Index, Mesh, Waterline, level_axes

NUDGE_MM = 1e-4
"""How far a probe stands off a vertex to see on which side of it the liquid is [mm]."""

_CORNERS = [(x, 0.83 * y, 0.91 * z) for z in (1, -1) for y in (1, -1) for x in (1, -1)]
NUDGES: Array = NUDGE_MM * np.array([(0.0131, 0.0177, 0.0), *_CORNERS])
"""A place, and a hair beside it each way, shape (9, 3) [mm]."""

LEAST_POOL_MM3 = 1e-3
LEVEL_MM = 1e-9
"""A face no lower than this under a level holds nothing [mm]."""


@dataclass(frozen=True)
class Pool:
    """Liquid that stays: its level along the felt force, volume, and the mesh's triangles that hold it."""

    level_mm: float
    volume_mm3: float
    triangles: Index

    def up_to(self, level_mm: float, line: Waterline) -> "Pool":
        """What of it lies below a level; all of it where that is higher than its own."""
        if level_mm >= self.level_mm:
            return self
        volume = float(line.parts(np.array([level_mm]))[0][self.triangles].sum())
        return Pool(level_mm, max(0.0, volume), self.triangles)


class NotInsideError(ValueError):
    """A point that isn't in the liquid's space."""


@compiled
def _crossed_below(points: Array, corners: Array) -> tuple[Index, Index]:
    """Triangles straight below points, heights along the third axis: how many, and the highest of them."""
    counts, first = np.zeros(len(points), np.int64), np.zeros(len(points), np.int64)
    for i in range(len(points)):
        x, y, top = points[i]
        nearest = -np.inf
        for t in range(len(corners)):
            ax, bx, cx = corners[t, 0, 0] - x, corners[t, 1, 0] - x, corners[t, 2, 0] - x
            if min(ax, bx, cx) > 0 or max(ax, bx, cx) < 0:
                continue
            ay, by, cy = corners[t, 0, 1] - y, corners[t, 1, 1] - y, corners[t, 2, 1] - y
            u, v, w = bx * cy - by * cx, cx * ay - cy * ax, ax * by - ay * bx
            if not ((u >= 0 and v >= 0 and w >= 0) or (u <= 0 and v <= 0 and w <= 0)) or u + v + w == 0:
                continue
            at = (u * corners[t, 0, 2] + v * corners[t, 1, 2] + w * corners[t, 2, 2]) / (u + v + w)
            if at < top:
                counts[i] += 1
                if at > nearest:
                    nearest, first[i] = at, t
    return counts, first


class Crossings:
    """Where lines along one direction pass through a mesh."""

    def __init__(self, mesh: Mesh, up: Array) -> None:
        self._frame = np.column_stack([*level_axes(up), up])
        self._corners = (mesh.points @ self._frame)[mesh.triangles]

    def below(self, points: Array) -> tuple[Index, Index]:
        """For lines from points straight downward, shape (n, 3): how often each meets the mesh, and where first.

        Returns
        -------
        counts, first : ndarray of int, shape (n,)
            Crossings below each point, and the triangle nearest below it (meaningless without a crossing).
        """
        return _crossed_below(points @ self._frame, self._corners)

    def under(self, point: Array) -> int | None:
        """The triangle straight under a point inside the mesh; None for one outside."""
        counts, first = self.below(np.array(list(jittered_points(point))))
        inside = np.flatnonzero(counts % 2 == 1)
        return int(first[inside[0]]) if len(inside) else None


class Forest:
    """Sets of vertices that grow together."""

    def __init__(self, count: int) -> None:
        self._parent = list(range(count))

    def root(self, vertex: int) -> int:
        """The vertex that stands for a set."""
        parent = self._parent
        while parent[vertex] != vertex:
            parent[vertex] = parent[parent[vertex]]
            vertex = parent[vertex]
        return vertex

    def join(self, a: int, b: int) -> None:
        """Make the sets of two vertices one."""
        self._parent[self.root(a)] = self.root(b)


@dataclass(frozen=True)
class Pass:
    """Two basins join at a height."""

    height: float
    a: int
    b: int


class Pools:
    """The join tree of a mesh's inside along one direction.

    Every vertex runs down to a lowest one: those that share it are a basin. Basins join where an edge leads
    from one to another, at its higher end; what a pool holds is its basins' triangles below its level.

    Parameters
    ----------
    line : Waterline
        The mesh seen along the direction against which the liquid falls.
    """

    def __init__(self, line: Waterline) -> None:
        self.line = line
        self._crossings = Crossings(line.mesh, line.up)
        triangles = line.mesh.triangles
        lowest = np.argmin(line.heights[triangles], axis=1)
        self._low_corner = triangles[np.arange(len(triangles)), lowest]
        pairs = np.vstack([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
        self._basin, self._count = self._basins(pairs)
        self._passes = self._joined(pairs)

    def _basins(self, pairs: Index) -> tuple[Index, int]:
        """The basin of each vertex, and how many there are."""
        heights = self.line.heights
        order = np.argsort(heights, kind="stable")
        rank = np.empty(len(order), dtype=np.int64)
        rank[order] = np.arange(len(order))
        least = rank.copy()
        np.minimum.at(least, pairs[:, 0], rank[pairs[:, 1]])
        np.minimum.at(least, pairs[:, 1], rank[pairs[:, 0]])
        down = order[least]
        own = np.flatnonzero(down == np.arange(len(down)))
        # Of something that hangs into the liquid the lowest corner is tied to the surface straight below it.
        probes = self.line.mesh.points[own] + NUDGE_MM * (0.3 * self.line.mesh.inward[own] - self.line.up)
        counts, first = self._crossings.below(probes)
        hanging = counts % 2 == 1
        down[own[hanging]] = self._low_corner[first[hanging]]
        while np.any(down[down] != down):
            down = down[down]
        _, basin = np.unique(down, return_inverse=True)
        return basin, int(basin.max()) + 1

    def _joined(self, pairs: Index) -> list[Pass]:
        """The passes at which basins join, lowest first."""
        heights, basin = self.line.heights, self._basin
        across = pairs[basin[pairs[:, 0]] != basin[pairs[:, 1]]]
        height = heights[across].max(axis=1)
        forest, passes = Forest(self._count), []
        for here in np.argsort(height, kind="stable").tolist():
            a, b = int(basin[across[here, 0]]), int(basin[across[here, 1]])
            if forest.root(a) != forest.root(b):
                passes.append(Pass(float(height[here]), a, b))
                forest.join(a, b)
        return passes

    def start_of(self, point: Array) -> tuple[int, float]:
        """The basin under a point in the liquid's space, and the point's level [mm].

        Raises
        ------
        NotInsideError
            When the point lies outside the mesh.
        """
        found = self._crossings.under(point)
        if found is None:
            raise NotInsideError("the point is not inside the tank")
        return int(self._basin[self._low_corner[found]]), float(point @ self.line.up) - self.line.lowest

    def stranded(self, *points: Array) -> list[Pool]:
        """What stays when a brimful solid drains towards one point or several at once.

        Parameters
        ----------
        *points : ndarray, shape (3,)
            Where liquid is drawn [mm].

        Returns
        -------
        list of Pool
            First the pools that are drawn from, each at the level of the lowest point it drains to; then
            every other one at the lowest level at which it still spills towards those; without volume left out.

        Raises
        ------
        NotInsideError
            When a point lies outside the mesh.
        """
        outlets = sorted((self.start_of(point) for point in points), key=lambda outlet: outlet[1])
        forest, drawn = Forest(self._count), set[int]()
        own, left = list[Pool](), list[Pool]()

        def open_outlets(up_to: float) -> None:
            while outlets and outlets[0][1] < up_to:
                start, level = outlets.pop(0)
                if forest.root(start) not in drawn:
                    own.append(self._pool(level, forest, start))
                    drawn.add(forest.root(start))

        for joint in self._passes:
            open_outlets(joint.height)
            a, b = forest.root(joint.a), forest.root(joint.b)
            if (a in drawn) != (b in drawn):
                left.append(self._pool(joint.height, forest, b if a in drawn else a))
            forest.join(a, b)
            if a in drawn or b in drawn:
                drawn -= {a, b}
                drawn.add(forest.root(a))
        open_outlets(np.inf)
        return own + [pool for pool in left if pool.volume_mm3 > LEAST_POOL_MM3]

    def lobes(self) -> list[float]:
        """Litres on either side of the highest pass between two spaces that matter."""
        forest, found = Forest(self._count), list[float]()
        least = 0.01 * self.line.mesh.volume_mm3
        for joint in self._passes:
            sides = [self._pool(joint.height, forest, basin).volume_mm3 for basin in (joint.a, joint.b)]
            if min(sides) > least:
                found = [side / 1e6 for side in sides]
            forest.join(joint.a, joint.b)
        return found

    def _pool(self, level: float, forest: Forest, member: int) -> Pool:
        """The pool of a basin as the forest has it, filled to a level."""
        root = forest.root(member)
        ours = np.array([forest.root(basin) == root for basin in range(self._count)])
        under = self.line.heights[self._low_corner] < level - LEVEL_MM
        triangles = np.flatnonzero(ours[self._basin[self._low_corner]] & under)
        volume = float(self.line.parts(np.array([level]))[0, triangles].sum())
        return Pool(level_mm=level, volume_mm3=max(0.0, volume), triangles=triangles)


def lobes(mesh: Mesh) -> list[float]:
    """What each lobe holds below the pass to its neighbour, on the level [L]; one space has none.

    Lobes are taken at the highest pass that joins two spaces of more than a hundredth of the whole each.

    Parameters
    ----------
    mesh : Mesh
        The inside of one cell [mm].

    Returns
    -------
    list of float
        Volumes on either side of that pass [L]; empty for one space.
    """
    tree = Pools(Waterline(mesh, np.array([0.0, 0.0, 1.0])))
    return tree.lobes()


def jittered_points(point: Array) -> Iterator[Array]:
    """A point and places a hair beside it, for one that lies on a wall or straight over an edge.

    Parameters
    ----------
    point : ndarray
        Shape (3,) [mm].

    Returns
    -------
    iterator of ndarray
        The point first, then its neighbours, shape (3,) [mm].
    """
    yield from point + NUDGES
