"""The shell as a shop drawing: silhouettes, edges seen and hidden, and cuts with the fuel in them."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from manifold3d import Manifold

from keel.design.attitude import Attitude, specific_force
from keel.solid.polyhedron import Array, Mesh
from keel.solid.pools import Crossings
from keel.solid.shapes import slice_rings
from keel.solid.solids import Cell, Solids
from keel.studies.liquid.draining import Remainder

Ring = list[tuple[float, float]]
ViewName = Literal["plan", "elevation", "end"]
SHARP = np.cos(np.radians(20.0))
"""Faces that meet at less than 20° show no edge between them, but where one is seen edge-on."""
EDGE_ON = 1e-6
"""A wall that is looked along, by its normal's share in that direction."""
MOST_EDGES = 140
STAND_OFF_MM = 0.05
LEAST_LINE_MM = 0.5
LOOKING: dict[ViewName, tuple[int, int, int, float]] = {
    "plan": (0, 1, 2, 1.0),
    "elevation": (0, 2, 1, -1.0),
    "end": (1, 2, 0, 1.0),
}
"""Axis across, axis up, axis looked along, and which end of it is nearer."""


@dataclass(frozen=True, slots=True)
class View:
    """One view from outside: its silhouette, and its edges seen and hidden: across, up of either end in fours [mm]."""

    name: ViewName
    silhouette: list[Ring]
    seen: list[float]
    hidden: list[float]


@dataclass(frozen=True, slots=True)
class Left:
    """What a cut goes through of a pool that stays, or a pocket of air."""

    kind: Literal["fuel", "air"]
    litres: float
    rings: list[Ring]


@dataclass(frozen=True, slots=True)
class Cut:
    """What a plane square to an axis cuts through [mm]: outside and inside of the metal, fuel, and what stays."""

    axis: Literal["x", "y"]
    at_mm: float
    outer: list[Ring]
    inner: list[Ring]
    fuel: list[Ring]
    left: list[Left]


def views(solids: Solids) -> list[View]:
    """Plan, elevation and end view of a shell from outside.

    Parameters
    ----------
    solids : Solids
        The shell worked out.

    Returns
    -------
    list of View
        One a direction, with outlines and edges [mm].
    """
    joints = joints_of(solids.outer_mesh)
    return [_view(name, solids, joints.drawn(along)) for name, (_, _, along, _) in LOOKING.items()]


@dataclass(frozen=True, slots=True)
class Joints:
    """Where two triangles of a surface meet: both ends [mm], both normals, and the cosine between these."""

    ends: Array
    normals: Array
    bend: Array

    def drawn(self, along: int) -> Array:
        """Ends of the longest edges that a view along an axis draws: corners, and where a round runs out in a wall."""
        edge_on = np.abs(self.normals[:, :, along]) < EDGE_ON
        found = self.ends[(self.bend < SHARP) | (edge_on[:, 0] != edge_on[:, 1])]
        longest = np.argsort(-np.linalg.norm(found[:, 1] - found[:, 0], axis=1))[:MOST_EDGES]
        return np.asarray(found[longest])


def joints_of(mesh: Mesh) -> Joints:
    """Where the triangles of a closed surface meet.

    Parameters
    ----------
    mesh : Mesh
        Any [mm].

    Returns
    -------
    Joints
        One an edge.
    """
    sizes = np.linalg.norm(mesh.area_vectors, axis=1, keepdims=True)
    normals = np.divide(mesh.area_vectors, sizes, out=np.zeros_like(mesh.area_vectors), where=sizes > 0)
    t = mesh.triangles
    pairs = np.vstack([t[:, [0, 1]], t[:, [1, 2]], t[:, [2, 0]]])
    faces = np.tile(np.arange(len(t)), 3)
    order = np.lexsort(np.sort(pairs, axis=1).T)
    first, second = order[0::2], order[1::2]
    both = np.stack([normals[faces[first]], normals[faces[second]]], axis=1)
    bend = np.einsum("ij,ij->i", both[:, 0], both[:, 1])
    return Joints(mesh.points[pairs[first]], both, bend)


def silhouette(solid: Manifold, name: ViewName) -> list[Ring]:
    """A solid's outline as one of the views shows it.

    Parameters
    ----------
    solid : Manifold
        Any solid [mm].
    name : ViewName
        Which view.

    Returns
    -------
    list of Ring
        Rings in the view's two axes [mm].
    """
    across, up, along, _ = LOOKING[name]
    turn = np.zeros((3, 4))
    turn[0, across], turn[1, up], turn[2, along] = 1.0, 1.0, 1.0
    if np.linalg.det(turn[:, :3]) < 0:
        turn[2] *= -1
    return [_ring(ring) for ring in solid.transform(turn).project().to_polygons()]


def _view(name: ViewName, solids: Solids, edges: Array) -> View:
    across, up, along, near = LOOKING[name]
    flat = edges[:, :, [across, up]]
    shown = np.linalg.norm(flat[:, 1] - flat[:, 0], axis=1) > LEAST_LINE_MM
    # A hair towards the middle of the view, so that no ray runs along a wall.
    middles = edges[shown].mean(axis=1)
    aside = middles - np.array([(a + b) / 2 for a, b in zip(solids.body.low, solids.body.high, strict=True)])
    away = np.zeros(3)
    away[along] = near
    counts, _ = Crossings(solids.outer_mesh, -away).below(middles - 1e-5 * aside + away * STAND_OFF_MM)
    hidden = counts > 0
    lines = np.round(flat[shown], 2)
    return View(
        name=name,
        silhouette=silhouette(solids.outer, name),
        seen=lines[~hidden].ravel().tolist(),
        hidden=lines[hidden].ravel().tolist(),
    )


def cut(
    solids: Solids,
    axis: Literal["x", "y"],
    at_mm: float,
    levels: Array,
    attitude: Attitude,
    remainders: Sequence[Remainder] = (),
) -> Cut:
    """The shell cut square to an axis, with the fuel as it stands at given levels.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    axis : str
        `x` or `y`.
    at_mm : float
        Where [mm]; held inside the shell.
    levels : ndarray, shape (cells,)
        Level in each cell over its lowest point [mm].
    attitude : Attitude
        How the fuel lies.
    remainders : sequence of Remainder
        Pools and pockets to be cut too.

    Returns
    -------
    Cut
        Metal, fuel and what is left, as rings [mm].
    """
    place = "xy".index(axis)
    at = min(max(at_mm, solids.bounds.low[place] + 0.01), solids.bounds.high[place] - 0.01)
    up = -specific_force(attitude)
    up = up / np.linalg.norm(up)
    inner = {cell.name: slice_rings(cell.solid, place, at) for cell in solids.cells}
    fuel = [
        ring
        for cell, level in zip(solids.cells, levels, strict=True)
        for ring in _filled(inner[cell.name], cell, up, float(level), place, at)
    ]
    left = []
    for pool in remainders:
        rings = _left_in_cut(solids, pool, up, inner[pool.cell], place, at)
        if rings:
            left.append(Left(kind=pool.kind, litres=pool.litres, rings=[_ring(ring) for ring in rings]))
    return Cut(
        axis=axis,
        at_mm=at,
        outer=[_ring(ring) for ring in slice_rings(solids.outer, place, at)],
        inner=[_ring(ring) for rings in inner.values() for ring in rings],
        fuel=[_ring(ring) for ring in fuel],
        left=left,
    )


def _filled(rings: list[Array], cell: Cell, up: Array, level: float, axis: int, at: float) -> list[Array]:
    """What of a cut's rings lies below a level: a plane cuts the cut in a straight line."""
    others = [i for i in range(3) if i != axis]
    height = float((cell.mesh.points @ up).min()) + level - up[axis] * at
    clipped = [_clipped(ring, up[others], height) for ring in rings]
    return [ring for ring in clipped if len(ring) >= 3]


def _clipped(ring: Array, normal: Array, offset: float) -> Array:
    """The part of a ring on the near side of a line, in the manner of Sutherland and Hodgman."""
    over = ring @ normal - offset
    if over.max() <= 0:
        return ring
    if over.min() > 0:
        return ring[:0]
    after, over_after = np.roll(ring, -1, axis=0), np.roll(over, -1)
    crossing = (over <= 0) != (over_after <= 0)
    share = over / np.where(crossing, over - over_after, 1.0)
    both = np.stack([ring, ring + (after - ring) * share[:, None]], axis=1)
    return np.asarray(both[np.column_stack([over <= 0, crossing])])


def _left_in_cut(solids: Solids, pool: Remainder, up: Array, rings: list[Array], axis: int, at: float) -> list[Array]:
    """What a cut goes through of a pool: of the separate spaces below its level, the one that lies where it does."""
    cell = next(cell for cell in solids.cells if cell.name == pool.cell)
    way = up if pool.kind == "fuel" else -up
    line = cell.mesh.along(way)
    if abs(line.volume(pool.level_mm) / 1e6 - pool.litres) < 1e-6:
        return _filled(rings, cell, way, pool.level_mm, axis, at)
    places = np.array(pool.faces).reshape(-1, 3)
    box = np.concatenate([places.min(axis=0), places.max(axis=0)])
    parts = cell.solid.trim_by_plane(list(-line.up), -(line.lowest + pool.level_mm)).decompose()
    mine = min(parts, key=lambda part: float(np.abs(np.array(part.bounding_box()) - box).sum()))
    return slice_rings(mine, axis, at)


def _ring(ring: Array) -> Ring:
    return [(x, y) for x, y in np.round(ring, 2).tolist()]
