"""The largest stretch of an outline that clears what stands in its way: face by face, from several starts."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely
from shapely import affinity
from shapely.geometry import Polygon, box
from shapely.geometry.base import BaseGeometry

from keel.design.bay import Bay
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.design.workshop import Workshop
from keel.solid.box import Cuboid
from keel.solid.build import build
from keel.solid.envelope import Envelope
from keel.solid.faults import GeometryError
from keel.solid.neighbours import Scans
from keel.solid.section import section_of
from keel.solid.solids import AnyShell
from keel.studies.space.clearance import free_box
from keel.studies.space.free_outline import LEAST_SIDE_MM, Hole, Obstacle, holes_between, obstacles_in
from keel.studies.space.resize import changed, stretched

Placement = dict[str, Any]
"""Fields of the shell to set [mm]."""

STEPS = 12
ROUNDING_MM = 0.01
"""Taken off a found size so that it clears for certain [mm]."""


@dataclass(frozen=True)
class Overhang:
    """How far what belongs to the shell stands out beyond its body on each side [mm]: lips, sumps, valves."""

    low: tuple[float, float, float]
    high: tuple[float, float, float]


def overhang_of(envelope: Envelope, body: Cuboid) -> Overhang:
    """How far an envelope stands out beyond the body."""
    low = [max(0.0, b - e) for b, e in zip(body.low, envelope.bounds.low, strict=True)]
    high = [max(0.0, e - b) for b, e in zip(body.high, envelope.bounds.high, strict=True)]
    return Overhang((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def grown_into(like: AnyShell, bay: Bay, workshop: Workshop, over: Overhang, scans: Scans) -> Placement | None:
    """The largest shell found of a kind and its proportions that clears a bay.

    Parameters
    ----------
    like : BoxShell, ProfileShell or CylinderShell
        Kind, proportions, metal and bends.
    bay, workshop, scans
        What is in the way, and how far to stay away.
    over : Overhang
        What belongs to the shell and stands out beyond its body.

    Returns
    -------
    dict or None
        Fields of the shell to set [mm].
    """
    try:
        section = section_of(like.model_copy(update={"features": ()}))
    except GeometryError:
        return None
    outline = Polygon(section.outer)
    axis = section.axis
    first, second = [i for i in range(3) if i != axis]
    free = free_box(bay, workshop.rules)
    low = [free.low[i] + over.low[i] for i in range(3)]
    high = [free.high[i] - over.high[i] for i in range(3)]
    dish = like.dish_mm if isinstance(like, CylinderShell) else 0.0
    if any(high[i] - low[i] < LEAST_SIDE_MM for i in range(3)):
        return None
    room = (low[first], low[second], high[first], high[second])
    obstacles = [_spread(o, over, axis) for o in obstacles_in(bay, workshop, axis, scans)]
    best, most = None, 0.0
    for hole in holes_between(low[axis] + dish, high[axis] - dish, room, obstacles):
        if (hole.end - hole.start) * (room[2] - room[0]) * (room[3] - room[1]) <= most:
            continue
        placed = _circle_in(hole) if isinstance(like, CylinderShell) else _outline_in(hole, outline)
        if placed is None:
            continue
        volume = (hole.end - hole.start) * placed.area
        if volume > most:
            found = _fields(like, placed, hole, axis)
            if found is not None:
                best, most = found, volume
    return best


def _spread(o: Obstacle, over: Overhang, axis: int) -> Obstacle:
    """An obstacle as the body meets it: wider by whatever stands out beyond the body on that side."""
    first, second = [i for i in range(3) if i != axis]
    left, right = over.high[first], over.low[first]
    down, up = over.high[second], over.low[second]
    before, after = over.low[axis], over.high[axis]
    sideways = max(left, right, down, up) > 0

    def wider(start: float, end: float) -> BaseGeometry:
        shape = o.shape(start - before, end + after)
        if not sideways:
            return shape
        shifted = [affinity.translate(shape, dx, dy) for dx in (-left, 0.0, right) for dy in (-down, 0.0, up)]
        return shapely.union_all(shifted).convex_hull

    return Obstacle(o.low - after, o.high + before, wider)


def _circle_in(hole: Hole) -> Polygon | None:
    """The largest circle in a hole, as a shape whose bounds are the circle's."""
    free = box(*hole.room).difference(hole.blocked)
    if free.is_empty:
        return None
    line = shapely.maximum_inscribed_circle(free, tolerance=0.05)
    (x, y), (px, py) = line.coords[0], line.coords[-1]
    radius = float(np.hypot(px - x, py - y)) - ROUNDING_MM
    return affinity.translate(affinity.scale(box(-1, -1, 1, 1), radius, radius), x, y) if radius > 0 else None


def _outline_in(hole: Hole, outline: Polygon) -> Polygon | None:
    """The outline stretched to the largest that fits, from several starts."""
    shapely.prepare(hole.blocked)
    found = [shape for bounds in _starts(hole, outline) if (shape := _inflated(hole, outline, bounds)) is not None]
    return max(found, key=lambda shape: shape.area, default=None)


def _starts(hole: Hole, outline: Polygon) -> Iterator[tuple[float, float, float, float]]:
    """Whole room; where the outline is; small ones spread over the room."""
    x0, y0, x1, y1 = hole.room
    yield hole.room
    a0, b0, a1, b1 = outline.bounds
    yield max(x0, a0), max(y0, b0), min(x1, a1), min(y1, b1)
    for fx in (0.25, 0.75):
        for fy in (0.25, 0.75):
            x, y = x0 + fx * (x1 - x0), y0 + fy * (y1 - y0)
            w, h = LEAST_SIDE_MM / 2, LEAST_SIDE_MM / 2
            yield max(x0, x - w), max(y0, y - h), min(x1, x + w), min(y1, y + h)


def _stretched_to(outline: Polygon, bounds: tuple[float, float, float, float]) -> Polygon:
    ring = shapely.get_coordinates(outline.exterior)
    low, high = ring.min(axis=0), ring.max(axis=0)
    scale = np.array([bounds[2] - bounds[0], bounds[3] - bounds[1]]) / (high - low)
    return Polygon(shapely.linearrings((ring - low) * scale + bounds[:2]))


def _clear(hole: Hole, outline: Polygon, bounds: tuple[float, float, float, float]) -> bool:
    if bounds[2] - bounds[0] < 1 or bounds[3] - bounds[1] < 1:
        return False
    shape = _stretched_to(outline, bounds)
    return not hole.blocked.intersects(shape) or hole.blocked.intersection(shape).area < 1e-6


def _inflated(hole: Hole, outline: Polygon, bounds: tuple[float, float, float, float]) -> Polygon | None:
    """Shrink about the middle until clear, then push each face out as far as it goes, twice round."""
    if not _clear(hole, outline, bounds):
        middle = ((bounds[0] + bounds[2]) / 2, (bounds[1] + bounds[3]) / 2)
        low, high = 0.0, 1.0
        for _ in range(STEPS):
            share = (low + high) / 2
            low, high = (share, high) if _clear(hole, outline, _about(middle, bounds, share)) else (low, share)
        bounds = _about(middle, bounds, low)
        if not _clear(hole, outline, bounds):
            return None
    for face in (0, 1, 2, 3, 0, 1, 2, 3):
        bounds = _pushed(hole, outline, bounds, face)
    return _stretched_to(outline, bounds)


def _about(
    middle: tuple[float, float], bounds: tuple[float, float, float, float], share: float
) -> tuple[float, float, float, float]:
    x, y = middle
    return (
        x + (bounds[0] - x) * share,
        y + (bounds[1] - y) * share,
        x + (bounds[2] - x) * share,
        y + (bounds[3] - y) * share,
    )


def _pushed(
    hole: Hole, outline: Polygon, bounds: tuple[float, float, float, float], face: int
) -> tuple[float, float, float, float]:
    def at(place: float) -> tuple[float, float, float, float]:
        moved = list(bounds)
        moved[face] = place
        return (moved[0], moved[1], moved[2], moved[3])

    near, far = bounds[face], hole.room[face]
    if _clear(hole, outline, at(far)):
        return at(far)
    for _ in range(STEPS):
        middle = (near + far) / 2
        near, far = (middle, far) if _clear(hole, outline, at(middle)) else (near, middle)
    return at(near)


def _fields(like: AnyShell, placed: Polygon, hole: Hole, axis: int) -> Placement | None:
    """The design's fields for an outline stretched to a place and drawn out along a stretch."""
    x0, y0, x1, y1 = placed.bounds
    first, second = [i for i in range(3) if i != axis]
    place = [0.0, 0.0, 0.0]
    place[axis], place[first], place[second] = hole.start, x0, y0
    run = hole.end - hole.start
    fields: Placement = {"x_mm": place[0], "y_mm": place[1], "z_mm": place[2]}
    if isinstance(like, CylinderShell):
        fields |= {"diameter_mm": min(x1 - x0, y1 - y0), "run_mm": run}
    elif isinstance(like, BoxShell):
        sizes = [0.0, 0.0, 0.0]
        sizes[axis], sizes[first], sizes[second] = run, x1 - x0, y1 - y0
        for i, name in enumerate(("length_mm", "width_mm", "height_mm")):
            fields[name] = sizes[i] - (like.walls_mm(name) if like.measured == "inside" else 0.0)
    else:
        fields |= _profile_fields(like, (x0, y0, x1, y1), run)
    try:
        build(changed(like, fields))
    except (GeometryError, ValueError):
        return None
    return fields


def _profile_fields(like: ProfileShell, bounds: tuple[float, float, float, float], run: float) -> Placement:
    (a0, b0), (a1, b1) = section_of(like.model_copy(update={"x_mm": 0.0, "y_mm": 0.0, "z_mm": 0.0})).extents
    across, up = (bounds[2] - bounds[0]) / (a1 - a0), (bounds[3] - bounds[1]) / (b1 - b0)
    corners = stretched(like, across, up)
    low = min(c.across_mm for c in like.corners), min(c.up_mm for c in like.corners)
    # The body's low edge may be the side of a rolled edge: its corner then lies further in.
    shift = (low[0] - a0) * across, (low[1] - b0) * up
    name = "y_mm" if like.wrap_axis == "x" else "x_mm"
    return {
        "corners": corners,
        "run_mm": run,
        name: bounds[0] + shift[0] - low[0],
        "z_mm": bounds[1] + shift[1] - low[1],
    }
