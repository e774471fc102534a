"""Obstacles of an outline, and the largest free outline between them."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np
import shapely
from shapely.geometry import MultiPoint, Polygon, box
from shapely.geometry.base import BaseGeometry

from keel.design.bay import Bay, ScanKeepOut, SlopeKeepOut
from keel.design.workshop import Workshop
from keel.solid.neighbours import Scans, outline_pieces, scan_mesh, slope_plane, solid_of_keep_out
from keel.solid.polyhedron import Array
from keel.solid.shapes import mesh_of
from keel.studies.space.gap import needed_mm

MOST_SPANS = 16
LEAST_SIDE_MM = 20.0


@dataclass(frozen=True)
class Obstacle:
    """What blocks part of the section over a span of the axis."""

    low: float
    high: float
    shape: Callable[[float, float], BaseGeometry]
    """What it blocks between two places along the axis."""


@dataclass(frozen=True)
class Hole:
    """A free stretch along the axis and the room across it."""

    start: float
    end: float
    room: tuple[float, float, float, float]
    blocked: BaseGeometry


def obstacles_in(bay: Bay, workshop: Workshop, axis: int, scans: Scans) -> Iterator[Obstacle]:
    """Keep-outs and cut-off corners of the bay seen along an axis, grown by their clearance."""
    far = 10 * max(bay.length_mm, bay.width_mm, bay.height_mm)
    first, second = [i for i in range(3) if i != axis]
    for keep_out in bay.keep_outs:
        gap = needed_mm(keep_out.clearance, workshop.rules)
        if isinstance(keep_out, SlopeKeepOut):
            normal, offset = slope_plane(keep_out, bay)
            yield Obstacle(-far, far, _beyond(normal, offset - gap, far, axis))
            continue
        if isinstance(keep_out, ScanKeepOut):
            mesh = scan_mesh(keep_out, scans)
            if mesh is None:
                continue
            points = mesh.points
            blocked = MultiPoint(points[:, [first, second]]).buffer(gap) if keep_out.is_cavity else None
        else:
            solid = solid_of_keep_out(keep_out, bay)
            assert solid is not None
            points, blocked = mesh_of(solid).points, None
        hull = blocked or MultiPoint(points[:, [first, second]]).convex_hull.buffer(gap, quad_segs=16)
        yield Obstacle(float(points[:, axis].min()) - gap, float(points[:, axis].max()) + gap, _always(hull))
    gap = needed_mm(bay.profile.clearance, workshop.rules) if bay.profile else 0.0
    for piece, solid in outline_pieces(bay):
        points = mesh_of(solid).points
        same = bay.profile is not None and "xyz".index(bay.profile.axis) == axis
        shape = piece if same else MultiPoint(points[:, [first, second]]).convex_hull
        low, high = float(points[:, axis].min()), float(points[:, axis].max())
        yield Obstacle(low - gap, high + gap, _always(shape.buffer(gap)))


def _always(shape: BaseGeometry) -> Callable[[float, float], BaseGeometry]:
    return lambda _start, _end: shape


def _beyond(normal: Array, offset: float, reach: float, axis: int) -> Callable[[float, float], BaseGeometry]:
    """What a leaning plane blocks in the section: where it also leans along the axis, at the worse end."""
    first, second = [i for i in range(3) if i != axis]
    flat = normal[[first, second]]
    length = float(np.hypot(*flat))

    def blocked(start: float, end: float) -> BaseGeometry:
        rest = offset - max(normal[axis] * start, normal[axis] * end)
        if length < 1e-9:
            return box(-reach, -reach, reach, reach) if rest < 0 else Polygon()
        n = flat / length
        foot, side = n * (rest / length), np.array([-n[1], n[0]]) * reach
        return Polygon([foot + side, foot - side, foot - side + n * reach, foot + side + n * reach])

    return blocked


def holes_between(
    start: float, end: float, room: tuple[float, float, float, float], obstacles: list[Obstacle]
) -> Iterator[Hole]:
    """Stretches between the ends of neighbours, longest first, each with what stands in its way."""
    leaning = any(o.low < start - (end - start) and o.high > end + (end - start) for o in obstacles)
    steps = {start + (end - start) * step / 8 for step in range(1, 8)} if leaning else set[float]()
    cuts = sorted({start, end, *steps, *(c for o in obstacles for c in (o.low, o.high) if start < c < end)})
    stretches = [(a, b) for here, a in enumerate(cuts) for b in cuts[here + 1 :] if b - a >= LEAST_SIDE_MM]
    stretches.sort(key=lambda s: s[0] - s[1])
    for a, b in stretches[:MOST_SPANS]:
        across = [o.shape(a, b) for o in obstacles if o.low < b - 1e-9 and o.high > a + 1e-9]
        yield Hole(a, b, room, shapely.union_all(across) if across else Polygon())
