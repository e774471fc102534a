"""Convex pieces of outlines, and where one may not be for another."""

from collections.abc import Sequence

import numpy as np
import shapely
from manifold3d import triangulate
from numpy.typing import NDArray
from shapely import MultiPolygon, Polygon
from shapely.geometry.polygon import orient

from keel.compiled import compiled
from keel.solid.planes import polygons_of
from keel.solid.polyhedron import Array

STRAIGHT_MM = 0.02
"""Corners that stand out by less than this are left out, to the outside."""
CONVEX = 1e-4


def convex_pieces(outline: Polygon | MultiPolygon) -> list[Array]:
    """An outline as convex pieces that cover it, each counter-clockwise, shape (n, 2).

    Parameters
    ----------
    outline : Polygon or MultiPolygon
        Its holes count as filled [mm].

    Returns
    -------
    list of ndarray
        One where it is convex but for a ten-thousandth of its area.

    References
    ----------
    Hertel and Mehlhorn, "Fast triangulation of simple polygons", 1983: triangles joined while the union is convex.
    """
    found: list[Array] = []
    for part in polygons_of(outline):
        plain = orient(Polygon(part.exterior))
        hull = plain.convex_hull
        if hull.area - plain.area <= CONVEX * hull.area:
            found.append(_ring(hull))
        else:
            found += [_ring(piece) for piece in _joined(_triangles(plain))]
    return found


def _ring(polygon: Polygon) -> Array:
    return np.array(orient(polygon).exterior.coords)[:-1]


def _triangles(polygon: Polygon) -> list[Polygon]:
    ring = np.array(polygon.simplify(STRAIGHT_MM).exterior.coords)[:-1]
    return [Polygon(ring[list(three)]) for three in triangulate([ring])]


def _joined(pieces: list[Polygon]) -> list[Polygon]:
    """Pieces joined two by two while what comes of it is convex."""
    left = [piece for piece in pieces if piece.area > CONVEX]
    here = 0
    while here < len(left):
        other = next((n for n in range(here + 1, len(left)) if _together(left[here], left[n]) is not None), None)
        if other is None:
            here += 1
            continue
        joined = _together(left[here], left[other])
        assert joined is not None
        left[here] = joined
        del left[other]
        here = 0
    return left


def _together(a: Polygon, b: Polygon) -> Polygon | None:
    """The union of two pieces, where it is convex."""
    both = shapely.union(a, b)
    if not isinstance(both, Polygon):
        return None
    hull = both.convex_hull
    return hull if isinstance(hull, Polygon) and hull.area - both.area <= CONVEX * hull.area else None


@compiled
def _summed(fixed: Array, moving: Array, ring: Array) -> int:
    """Minkowski sum of two convex rings into `ring`; how many corners it has."""
    n, m = len(fixed), len(moving)
    i0 = j0 = 0
    for i in range(1, n):
        if fixed[i, 1] < fixed[i0, 1] or (fixed[i, 1] == fixed[i0, 1] and fixed[i, 0] < fixed[i0, 0]):
            i0 = i
    for j in range(1, m):
        if moving[j, 1] < moving[j0, 1] or (moving[j, 1] == moving[j0, 1] and moving[j, 0] < moving[j0, 0]):
            j0 = j
    i = j = count = 0
    while i < n or j < m:
        a, b = fixed[(i0 + i) % n], moving[(j0 + j) % m]
        ring[count, 0], ring[count, 1] = a[0] + b[0], a[1] + b[1]
        count += 1
        c, d = fixed[(i0 + i + 1) % n], moving[(j0 + j + 1) % m]
        cross = (c[0] - a[0]) * (d[1] - b[1]) - (c[1] - a[1]) * (d[0] - b[0])
        if (cross >= 0 and i < n) or j >= m:
            i += 1
        if (cross <= 0 and j < m) or i > n:
            j += 1
        if count >= len(ring):
            break
    return count


def forbidden(fixed: Sequence[Array], moving: Sequence[Array], meets: NDArray[np.bool_]) -> list[Polygon]:
    """Where the moving thing's origin may not be: for each fixed piece and each moving one that meet.

    Parameters
    ----------
    fixed, moving : sequence of ndarray
        Convex rings, counter-clockwise; the moving ones as they are turned, about their origin [mm].
    meets : ndarray of bool, shape (fixed, moving)
        Which of them are at the same height across the plane.

    Returns
    -------
    list of Polygon
        Each fixed piece and a moving one turned half round, added up.

    References
    ----------
    Lozano-Pérez, "Spatial planning: a configuration space approach", 1983.
    """
    rings: list[Array] = []
    turned = [-piece for piece in moving]
    for place, piece in enumerate(fixed):
        for other in np.flatnonzero(meets[place]):
            ring = np.empty((len(piece) + len(turned[other]) + 2, 2))
            count = _summed(piece, turned[other], ring)
            rings.append(ring[:count])
    if not rings:
        return []
    sizes = [len(ring) for ring in rings]
    lines = shapely.linearrings(np.vstack(rings), indices=np.repeat(np.arange(len(rings)), sizes))
    return list(shapely.polygons(lines))
