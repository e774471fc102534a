"""A solid where any plane cuts it, as a shape in that plane."""

from collections.abc import Sequence

from manifold3d import CrossSection, Manifold
from shapely.geometry import LinearRing, Polygon
from shapely.geometry.base import BaseGeometry

from keel.solid.polyhedron import Array


def shape_of(section: CrossSection) -> BaseGeometry:
    """A cross-section as a shape.

    Parameters
    ----------
    section : CrossSection
        Its holes run the other way round.

    Returns
    -------
    BaseGeometry
        With the same area.
    """
    whole, *rings = sorted((Polygon(ring) for ring in section.to_polygons()), key=lambda p: -p.area) or [Polygon()]
    for ring in rings:
        whole = whole.union(ring) if ring.exterior.is_ccw else whole.difference(ring)
    return whole


def polygons_of(shape: BaseGeometry) -> list[Polygon]:
    """The polygons of a shape, without its lines and points.

    Parameters
    ----------
    shape : BaseGeometry
        Any.

    Returns
    -------
    list of Polygon
        None of them empty.
    """
    if isinstance(shape, Polygon):
        return [] if shape.is_empty else [shape]
    return [polygon for one in getattr(shape, "geoms", []) for polygon in polygons_of(one)]


def ring_spots(ring: LinearRing) -> list[tuple[float, float]]:
    """A ring's corners, each once.

    Parameters
    ----------
    ring : LinearRing
        Closed.

    Returns
    -------
    list of (float, float)
        As it runs.
    """
    return [(float(x), float(y)) for x, y in list(ring.coords)[:-1]]


def cut_by(solid: Manifold, matrix: Array, w: float) -> BaseGeometry:
    """Where a plane cuts a solid.

    Parameters
    ----------
    solid, matrix
        As for `cuts_by`.
    w : float
        The plane is that of all places with this w [mm].

    Returns
    -------
    BaseGeometry
        In u and v; empty where the plane misses it.
    """
    return cuts_by(solid, matrix, (w,))[0]


def cuts_by(solid: Manifold, matrix: Array, heights: Sequence[float]) -> list[BaseGeometry]:
    """Where planes beside each other cut a solid.

    Parameters
    ----------
    solid : Manifold
        In vehicle axes [mm].
    matrix : ndarray, shape (4, 4)
        A rigid motion from (u, v, w) to vehicle axes [mm].
    heights : sequence of float
        Each plane is that of all places with this w [mm].

    Returns
    -------
    list of BaseGeometry
        In u and v; empty where the plane misses it.
    """
    back = matrix[:3, :3].T
    # What is still to be worked out is worked out once, not once for each way it is turned.
    solid.num_tri()
    turned = solid.transform([[*row, float(-row @ matrix[:3, 3])] for row in back])
    turned.num_tri()
    return [shape_of(turned.slice(w)) for w in heights]
