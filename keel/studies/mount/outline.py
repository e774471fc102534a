"""The tank's outside where a plane cuts it, rounds as fine as a tape reads."""

from math import atan2, ceil, cos, radians, sin

import numpy as np
from shapely import MultiPolygon, Polygon, unary_union

from keel.solid.planes import polygons_of
from keel.solid.polygon import rounding, trim_of
from keel.solid.polyhedron import Array
from keel.solid.rings import ring_area
from keel.solid.section import Section
from keel.solid.shapes import slice_rings
from keel.solid.solids import Solids

STEP_DEG = 0.5
"""Rounds are told by a corner every so many degrees: a hundredth of a millimetre on a metre."""
LEAST_MM2 = 1.0
HAIR_MM = 1e-4
SLIVER_MM = 0.5
"""More than an arc stands off the chord that the solid has in its place [mm]."""


def outline_at(solids: Solids, axis: int, at_mm: float) -> MultiPolygon:
    """The tank's outside in a plane square to an axis.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    axis : int
        0 or 1: x or y.
    at_mm : float
        Where the plane is along it [mm].

    Returns
    -------
    MultiPolygon
        The other two axes in their order; empty beside the tank. Where the body is drawn out along that axis its rounds
        are true arcs, told every half degree; elsewhere chords of the same area.
    """
    rings = slice_rings(solids.outer, axis, at_mm)
    cut = _filled(rings)
    if axis != solids.section.axis or cut.is_empty:
        return MultiPolygon(polygons_of(cut))
    plain, fine = Polygon(solids.section.outer), Polygon(fine_ring(solids.section))
    more = MultiPolygon([one for one in polygons_of(cut.difference(plain)) if one.area > LEAST_MM2])
    if more.is_empty and plain.area - cut.area < LEAST_MM2:
        return MultiPolygon([fine])
    # What an arc has beyond its chord belongs to metal that is there: not to an end's dish, nor to a recess.
    proud = fine.difference(plain).intersection(cut.buffer(SLIVER_MM))
    short = plain.difference(fine).difference(more.buffer(SLIVER_MM))
    less = cut.difference(short.buffer(HAIR_MM))
    return MultiPolygon(polygons_of(unary_union([less, proud.buffer(HAIR_MM, join_style="mitre")])))


def _filled(rings: list[Array]) -> Polygon | MultiPolygon:
    """Polygons of rings, whatever lies inside them filled: a strap doesn't see into a tunnel."""
    found = unary_union([Polygon(ring) for ring in rings if ring_area(ring) > 0])
    return found if isinstance(found, Polygon | MultiPolygon) else Polygon()


def fine_ring(section: Section) -> Array:
    """A body's outside with its rounds as true arcs, shape (n, 2) [mm].

    Parameters
    ----------
    section : Section
        What the body is drawn out from.

    Returns
    -------
    ndarray
        Counter-clockwise, a corner every half degree of a round.
    """
    if not section.edges:
        (low_u, low_v), (high_u, _) = section.extents
        radius = (high_u - low_u) / 2
        return _arc((low_u + radius, low_v + radius), radius, 0.0, radians(360))[:-1]
    ring: list[Array] = []
    trims = [trim_of(section.edges, here, radius) for here, radius in enumerate(section.radii)]
    for here, edge in enumerate(section.edges):
        if trims[here] > 0:
            centre, start, turn = rounding(section.edges, here, trims[here], section.radii[here])
            ring.append(_arc(centre, section.radii[here], start, turn))
        else:
            ring.append(np.array([edge.start]))
        if edge.centre is not None:
            start = atan2(edge.start[1] - edge.centre[1], edge.start[0] - edge.centre[0])
            ring.append(_arc(edge.centre, edge.radius, start, edge.turn)[1:-1])
    return np.vstack(ring)


def _arc(centre: tuple[float, float], radius: float, start: float, turn: float) -> Array:
    count = max(2, ceil(abs(turn) / radians(STEP_DEG)))
    return np.array(
        [
            (centre[0] + radius * cos(start + turn * n / count), centre[1] + radius * sin(start + turn * n / count))
            for n in range(count + 1)
        ]
    )
