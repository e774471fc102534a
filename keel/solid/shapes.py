"""Plain shapes as manifolds: blocks, drawn-out rings, slices; and manifolds as meshes."""

import numpy as np
from manifold3d import CrossSection, Manifold, Mesh64

from keel.solid.box import Cuboid, Triple
from keel.solid.polyhedron import Array, Mesh

SMOOTH_MM = (0.05, 0.002)
"""Corners closer together than this are one, the coarser first [mm]."""
SAME_VOLUME = 1e-5


def mesh_of(solid: Manifold) -> Mesh:
    """A manifold's surface as a mesh.

    Parameters
    ----------
    solid : Manifold
        Any solid [mm].

    Returns
    -------
    Mesh
        Points and triangles [mm].
    """
    made = solid.to_mesh64()
    return Mesh(np.array(made.vert_properties[:, :3]), np.array(made.tri_verts, dtype=np.int64))


def smooth_mesh(solid: Manifold) -> Mesh:
    """A solid's surface without corners that lie closer together than it matters, where that keeps its volume.

    A solid cut in the plane of one of its walls keeps a film there; smoothing can turn it into a wedge of litres.
    """
    volume = solid.volume()
    for within in SMOOTH_MM:
        plain = solid.simplify(within)
        if abs(plain.volume() - volume) <= SAME_VOLUME * volume:
            return mesh_of(plain)
    return mesh_of(solid)


def manifold_of(mesh: Mesh) -> Manifold:
    """A closed mesh as a manifold."""
    return Manifold(Mesh64(np.ascontiguousarray(mesh.points), mesh.triangles.astype(np.uint64)))


def drawn_out(ring: Array, axis: int, start: float, end: float) -> Manifold:
    """A ring drawn out along an axis (0, 1 or 2) from start to end [mm].

    Parameters
    ----------
    ring : ndarray
        Corners, shape (k, 2), counter-clockwise [mm].
    axis : int
        0, 1 or 2: x, y or z.
    start : float
        Low end [mm].
    end : float
        High end [mm].

    Returns
    -------
    Manifold
        A prism.
    """
    return section_drawn_out(CrossSection([ring]), axis, start, end)


def section_drawn_out(section: CrossSection, axis: int, start: float, end: float) -> Manifold:
    """A section, holes and all, drawn out along an axis from start to end [mm]."""
    return Manifold.extrude(section, end - start).transform(_along(axis, start, end))


def _along(axis: int, start: float, end: float) -> Array:
    """Turns (u, v, w) of an extrusion into vehicle axes; each is a rotation, so nothing is mirrored."""
    if axis == 0:
        return np.array([[0.0, 0, 1, start], [1, 0, 0, 0], [0, 1, 0, 0]])
    if axis == 1:
        return np.array([[1.0, 0, 0, 0], [0, 0, -1, end], [0, 1, 0, 0]])
    return np.array([[1.0, 0, 0, 0], [0, 1, 0, 0], [0, 0, 1, start]])


def block(low: Triple, high: Triple) -> Manifold:
    """An axis-aligned box as a manifold.

    Parameters
    ----------
    low : Triple
        Low corner [mm].
    high : Triple
        High corner [mm].

    Returns
    -------
    Manifold
        A box.
    """
    size = [max(1e-6, b - a) for a, b in zip(low, high, strict=True)]
    return Manifold.cube(size).translate(list(low))


def frame_along(axis: int, out: float) -> Array:
    """Turns (u, v, w) so that w points along an axis, outward; nothing is mirrored."""
    first, second = [i for i in range(3) if i != axis]
    frame = np.zeros((3, 4))
    frame[first, 0] = frame[second, 1] = 1.0
    frame[axis, 2] = out
    if (out < 0) != (axis == 1):
        frame[second, 1] = -1.0
    return frame


def bounds_of(solid: Manifold) -> Cuboid:
    """The box round a solid.

    Parameters
    ----------
    solid : Manifold
        Not empty.

    Returns
    -------
    Cuboid
        Low and high corner [mm].
    """
    x0, y0, z0, x1, y1, z1 = solid.bounding_box()
    return Cuboid((x0, y0, z0), (x1, y1, z1))


def slice_rings(solid: Manifold, axis: int, at: float) -> list[Array]:
    """Rings where a plane square to an axis cuts a solid, shape (k, 2): the two other axes in their order.

    Outer rings run counter-clockwise, holes clockwise.

    Parameters
    ----------
    solid : Manifold
        Any solid [mm].
    axis : int
        0, 1 or 2: x, y or z.
    at : float
        Place of the plane along it [mm].

    Returns
    -------
    list of ndarray
        Rings; none where the plane misses it.
    """
    turn = {0: [[0.0, 1, 0, 0], [0, 0, 1, 0], [1, 0, 0, 0]], 1: [[1.0, 0, 0, 0], [0, 0, -1, 0], [0, 1, 0, 0]]}
    placed = solid if axis == 2 else solid.transform(np.array(turn[axis]))
    flip = np.array([1.0, -1.0]) if axis == 1 else np.array([1.0, 1.0])
    rings = [np.asarray(ring, dtype=np.float64) * flip for ring in placed.slice(at).to_polygons()]
    return [ring[::-1] for ring in rings] if axis == 1 else rings


def holds(solid: Manifold, spot: Array) -> bool:
    """Whether a solid holds a place.

    Parameters
    ----------
    solid : Manifold
        Any [mm].
    spot : ndarray, shape (3,)
        On none of its edges [mm].

    Returns
    -------
    bool
        A ray upward leaves it an odd number of times.
    """
    x, y, z = (float(value) for value in spot)
    return len(solid.ray_cast([x, y, z], [x, y, max(z, solid.bounding_box()[5]) + 1.0])) % 2 == 1
