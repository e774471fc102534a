"""Plates that stand inside a shell: partitions and baffles, cut to the true section where they stand."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from manifold3d import CrossSection, JoinType, Manifold
from shapely import MultiLineString, Polygon, intersection, length

from keel.design.features import Baffle, Partition
from keel.solid.box import Cuboid
from keel.solid.faults import wrong
from keel.solid.rings import circle, ring_area
from keel.solid.shapes import block, section_drawn_out, slice_rings

FAR_MM = 100.0
"""How far a slab reaches past the walls it is trimmed by [mm]."""
HAIR_MM = 0.02
"""Openings are cut this much larger, so that none is closed by rounding [mm]."""
SLIVER_MM, SHARPEST = 0.2, 10.0
"""Half of what is too narrow to be an opening [mm]; how far a sharp corner may run out, in these."""
TOUCH_MM = 1e-4
"""What lies this near an opening's edge lies on it [mm]."""
LEAST_ON = 0.5


@dataclass(frozen=True)
class Plate:
    """A plate before the shell trims it: its metal, its weld, and its face.

    `section` is all that is free at its middle, `left` what the plate fills of it: along the plate and up [mm].
    `missed` names the openings of which less than half lies on it.
    """

    slab: Manifold
    weld_mm: float
    section: CrossSection
    left: CrossSection
    missed: tuple[str, ...] = ()
    whole: "tuple[CrossSection, CrossSection] | None" = None
    """The same, section and what is left of it, as though the baffles that it crosses weren't there: it is lapped with
    them, not cut in two. None where it crosses none."""


def plate_at(
    feature: Partition | Baffle,
    inner: Manifold,
    body: Cuboid,
    room: Cuboid,
    wall: float,
    where: str,
    lapping: Manifold | None = None,
) -> Plate:
    """A partition or baffle as a slab that reaches past the walls.

    Parameters
    ----------
    feature : Partition or Baffle
        The plate; its place counts from the body's low side.
    inner : Manifold
        The inside as it is so far where the plate stands: wells, reliefs and other plates taken off.
    body, room : Cuboid
        The boxes round the outside and the inside of the plain body [mm].
    wall : float
        Thickness where the plate names none [mm].
    where : str
        Path of the feature in the design, for errors.
    lapping : Manifold, optional
        The same inside without the baffles that this one crosses and is lapped with.

    Returns
    -------
    Plate
        The slab, its openings cut.

    Raises
    ------
    GeometryError
        For a plate outside the tank, a baffle without openings, or one that its openings swallow.
    """
    thick = feature.wall_mm(wall)
    axis = "xy".index(feature.axis)
    start = body.low[axis] + feature.at_mm
    if not room.low[axis] < start < start + thick < room.high[axis]:
        raise wrong(
            f"{where}.at_mm",
            f"{feature.name} stands outside the tank",
            feature.at_mm,
            f"{room.low[axis] - body.low[axis]:g} to {room.high[axis] - body.low[axis] - thick:g} mm",
        )
    place = slab_of(feature, body, wall)
    section = CrossSection(slice_rings(inner, axis, start + thick / 2))
    if section.is_empty():
        raise wrong(f"{where}.at_mm", f"{feature.name} stands where another plate is", feature.at_mm, "a free place")
    if isinstance(feature, Partition):
        return Plate(block(place.low, place.high), _rim(section), section, section)
    here, along = section, 1 - axis
    if lapping is not None:
        section = CrossSection(slice_rings(lapping, axis, start + thick / 2))
    cuts = list(_cut_outs(feature, body.low[along], body.low[2], room.low[2]))
    left = _plate_section(section, feature)
    for cut in cuts:
        left -= cut.shape
    if left.is_empty():
        raise wrong(where, f"the openings of {feature.name} leave nothing of it", feature.corner_mm, "less")
    openings = _no_slivers(section - left)
    left = _no_slivers(section - openings)
    share = openings.area() / section.area()
    if share < 1e-4:
        raise wrong(
            where, f"{feature.name} has no opening: that makes it a partition, not a baffle", feature.corner_mm, "more"
        )
    crosses = lapping is not None and section.area() - here.area() > 1.0
    # What lies in another baffle's sheet opens nothing: that one is there.
    open_here = _no_slivers(openings ^ here) if crosses else openings
    weld = _rim(here) - _along(here, open_here)
    solid = _rectangle_of(place, along) - open_here.offset(HAIR_MM, JoinType.Miter)
    slab = section_drawn_out(solid, axis, start, start + thick)
    missed = tuple(cut.name for cut in cuts if _misses(cut, section))
    if not crosses:
        return Plate(slab, weld, section, left, missed)
    return Plate(slab, weld, here, left ^ here, missed, (section, left))


def _misses(cut: "_Cut", section: CrossSection) -> bool:
    """Whether less than half of an opening lies on a plate; a notch counts from the plate's own foot over a hump."""
    on = cut.shape ^ section
    if on.is_empty():
        return True
    _, low, _, high = on.bounds()
    wide = cut.shape.bounds()[2] - cut.shape.bounds()[0]
    expected = min(cut.area, wide * (high - low)) if cut.name.startswith("notch") else cut.area
    return bool(on.area() < LEAST_ON * expected)


def slab_of(feature: Partition | Baffle, body: Cuboid, wall: float) -> Cuboid:
    """The box that a plate fills before the tank and its openings are cut out of it."""
    axis = "xy".index(feature.axis)
    low, high = [v - FAR_MM for v in body.low], [v + FAR_MM for v in body.high]
    low[axis] = body.low[axis] + feature.at_mm
    high[axis] = low[axis] + feature.wall_mm(wall)
    return Cuboid((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def corners_cut(section: CrossSection, leg_mm: float) -> CrossSection:
    """A section with every outward corner cut off.

    Parameters
    ----------
    section : CrossSection
        Outlines in a plane [mm].
    leg_mm : float
        Along each edge [mm].

    Returns
    -------
    CrossSection
        The section with its corners off.
    """
    if leg_mm <= 0:
        return section
    # Drawn in and let out again with bevelled joints, whatever its corners: a right one loses two equal legs.
    return section.offset(-leg_mm, JoinType.Miter).offset(leg_mm, JoinType.Bevel) ^ section


def _no_slivers(section: CrossSection) -> CrossSection:
    """A section without what rounding, and chords for curves, leave along its edges."""
    # Rings that hold next to nothing go first: an offset may take one of them for the outline and turn all about.
    whole = CrossSection([ring for ring in section.to_polygons() if abs(ring_area(ring)) > SLIVER_MM**2])
    return whole.offset(-SLIVER_MM, JoinType.Miter, SHARPEST).offset(SLIVER_MM, JoinType.Miter, SHARPEST)


def _plate_section(section: CrossSection, baffle: Baffle) -> CrossSection:
    """What of a section the plate fills: its corners cut off, the roof kept clear."""
    left = corners_cut(section, baffle.corner_mm)
    return left ^ section.translate((0.0, -baffle.top_gap_mm)) if baffle.top_gap_mm > 0 else left


@dataclass(frozen=True)
class _Cut:
    """One opening, along the plate and up; `area` is what it would be on a plate without end [mm, mm²]."""

    name: str
    shape: CrossSection
    area: float


def _cut_outs(baffle: Baffle, start: float, underside: float, floor: float) -> Iterator[_Cut]:
    """Notches, doors and rows of holes, in the plane of the plate."""
    for n, notch in enumerate(baffle.notches, start=1):
        shape = _rectangle(start + notch.at_mm, notch.wide_mm, floor - FAR_MM, floor + notch.high_mm)
        yield _Cut(f"notch {n}", shape, notch.wide_mm * notch.high_mm)
    for n, door in enumerate(baffle.doors, start=1):
        low = floor + door.up_mm
        yield _Cut(
            f"door {n}",
            _rectangle(start + door.at_mm, door.wide_mm, low, low + door.high_mm),
            door.wide_mm * door.high_mm,
        )
    for n, row in enumerate(baffle.holes, start=1):
        ring, shape = circle(row.diameter_mm / 2), CrossSection()
        for hole in range(row.count):
            shape += CrossSection([ring + np.array([start + row.at_mm + hole * row.pitch_mm, underside + row.up_mm])])
        yield _Cut(f"hole row {n}", shape, shape.area())


def _rectangle(middle: float, wide: float, low: float, high: float) -> CrossSection:
    return CrossSection.square((wide, high - low)).translate((middle - wide / 2, low))


def _rectangle_of(box: Cuboid, along: int) -> CrossSection:
    """A box seen square to a plate: along it and up."""
    size = box.high[along] - box.low[along], box.high[2] - box.low[2]
    return CrossSection.square(size).translate((box.low[along], box.low[2]))


def _along(section: CrossSection, openings: CrossSection) -> float:
    """How much of a section's edge runs along openings, and isn't welded [mm]."""
    edge = MultiLineString([np.vstack([ring, ring[:1]]) for ring in section.to_polygons()])
    apart = openings.offset(TOUCH_MM, JoinType.Miter).decompose()
    open_ = [Polygon(rings[0], rings[1:]) for rings in (one.to_polygons() for one in apart) if rings]
    return float(length(intersection(edge, open_)).sum())


def _rim(section: CrossSection) -> float:
    """Length of all edges of a section [mm]."""
    rings = (np.vstack([ring, ring[:1]]) for ring in section.to_polygons())
    return sum(float(np.linalg.norm(np.diff(ring, axis=0), axis=1).sum()) for ring in rings)
