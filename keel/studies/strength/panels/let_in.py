"""The flat sides of wells, sumps, reliefs and roof steps as faces that pressure bears on."""

from collections.abc import Iterator
from math import hypot

import numpy as np

from keel.design.features import Relief, RoofStep, Sump, Well
from keel.solid.box import Cuboid, Triple
from keel.solid.facets import FACE_AXIS, Faced, Facet, facets_of, fold_of, is_flat_sided, sump_frame, well_frame
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.strength.panels.faces import Face, Frame
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import BEND, WELD, edge_at

CLEAR_MM = 1.0
Sides = tuple[float, float]


def sides_mm(feature: Faced, body: Cuboid) -> list[Sides]:
    """How large each flat side of a feature is, in the order of its facets; (0, 0) where the body has none of it.

    Parameters
    ----------
    feature : Well, Sump, Relief or RoofStep
        With flat sides.
    body : Cuboid
        The body without features [mm].

    Returns
    -------
    list of (float, float)
        Of the rectangle round each [mm], which errs safe.
    """
    if isinstance(feature, Well | Sump):
        lean, deep = 2 * feature.slope_mm, hypot(feature.deep_mm, feature.slope_mm)
        bottom = (feature.long_mm - lean, feature.wide_mm - lean)
        return [bottom, *[(feature.wide_mm, deep)] * 2, *[(feature.long_mm, deep)] * 2]
    low, high = _box_of(feature, body)
    size = [b - a for a, b in zip(low, high, strict=True)]
    if isinstance(feature, RoofStep):
        return [_across(size, axis) for axis in (2, FACE_AXIS[feature.side][0])]
    found: list[Sides] = []
    for axis in CUBOID_ORDER:
        for at in _ends(feature, axis):
            is_within = CLEAR_MM < at < body.size[axis] - CLEAR_MM
            found.append(_across(size, axis) if is_within and min(size) > 0 else (0.0, 0.0))
    return found


CUBOID_ORDER = (2, 0, 1)
"""In which order the facets of a box are told: along which axis they look."""


def _across(size: list[float], axis: int) -> Sides:
    first, second = (size[n] for n in range(3) if n != axis)
    return first, second


def _ends(relief: Relief, axis: int) -> Sides:
    """From where to where it reaches along an axis, from the body's low side [mm]."""
    at = (relief.x_mm, relief.y_mm, relief.z_mm)[axis]
    return at, at + (relief.length_mm, relief.width_mm, relief.height_mm)[axis]


def _box_of(feature: Relief | RoofStep, body: Cuboid) -> tuple[list[float], list[float]]:
    """Low and high corner of what a feature takes of the body's box [mm]."""
    low, high = list(body.low), list(body.high)
    if isinstance(feature, Relief):
        for axis in range(3):
            begin, end = _ends(feature, axis)
            low[axis], high[axis] = max(low[axis], body.low[axis] + begin), min(high[axis], body.low[axis] + end)
        return low, high
    axis, far = FACE_AXIS[feature.side]
    if far:
        low[axis] = high[axis] - feature.reach_mm
    else:
        high[axis] = low[axis] + feature.reach_mm
    low[2] = high[2] - feature.drop_mm
    return low, high


def let_in_faces(solids: Solids, loads: Loads) -> Iterator[Face]:
    """Every flat side of what is let into a shell, let down from it or cut off it.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    loads : Loads
        What presses on it.

    Returns
    -------
    iterator of Face
        As the rectangle round it, which errs safe. An edge to a side that is bent up with it is clamped, all others
        are welded from one side.
    """
    for feature in solids.shell.features:
        if isinstance(feature, Well | Sump | Relief | RoofStep) and is_flat_sided(feature):
            yield from faces_of_feature(feature, solids, loads)


def faces_of_feature(feature: Faced, solids: Solids, loads: Loads) -> Iterator[Face]:
    """The flat sides of one feature.

    Parameters
    ----------
    feature : Well, Sump, Relief or RoofStep
        With flat sides.
    solids, loads
        As for `let_in_faces`.

    Returns
    -------
    iterator of Face
        As `let_in_faces`.
    """
    facets, fold = facets_of(feature, solids.body), fold_of(feature, solids.body)
    for facet, sides in zip(facets, sides_mm(feature, solids.body), strict=True):
        if min(sides) < CLEAR_MM:
            continue
        is_base = fold is not None and facet.name == fold.base.name and len(fold.sides) == len(facets) - 1
        edge = edge_at("its edges", BEND if is_base else WELD)
        yield Face(
            name=f"{feature.name}, {facet.name}",
            what=feature.kind,
            sides=sides,
            axes=(-1, -1),
            edges=(edge, edge, edge, edge),
            thickness_mm=solids.shell.feature_wall_mm,
            pressed=loads.bump(),
            frames=(_frame(feature, facet, sides, solids.body),),
        )


def _frame(feature: Faced, facet: Facet, sides: Sides, body: Cuboid) -> Frame:
    """Where a side lies; a leaning one hangs from its upper edge."""
    out = facet.normal if isinstance(feature, Sump) else -facet.normal
    if isinstance(feature, Well | Sump):
        corner, first, second = _hung(feature, facet, sides, body)
    else:
        corner, first, second = _square(feature, facet, body)
    return Frame(_triple(corner), _triple(first), _triple(second), _triple(out))


def _hung(feature: Well | Sump, facet: Facet, sides: Sides, body: Cuboid) -> tuple[Array, Array, Array]:
    frame = well_frame(feature, body) if isinstance(feature, Well) else sump_frame(feature, body)
    across, along, up, mouth = frame[:, 0], frame[:, 1], frame[:, 2], frame[:, 3]
    if facet.name == "bottom":
        return mouth - feature.deep_mm * up - sides[0] / 2 * across - sides[1] / 2 * along, across, along
    outward = facet.normal - float(facet.normal @ up) * up
    outward /= np.linalg.norm(outward)
    level = along if abs(float(outward @ across)) > abs(float(outward @ along)) else across
    half = (feature.long_mm if level is along else feature.wide_mm) / 2
    down = -(feature.deep_mm * up + feature.slope_mm * outward) / sides[1]
    return mouth + half * outward - sides[0] / 2 * level, level, down


def _square(feature: Relief | RoofStep, facet: Facet, body: Cuboid) -> tuple[Array, Array, Array]:
    """A side square to an axis: from the low corner of what the body has of it."""
    axis = int(np.argmax(np.abs(facet.normal)))
    first, second = (np.eye(3)[n] for n in range(3) if n != axis)
    corner = np.array(_box_of(feature, body)[0])
    corner[axis] = facet.offset * facet.normal[axis]
    return corner, first, second


def _triple(place: Array) -> Triple:
    x, y, z = (float(value) for value in place)
    return x, y, z
