"""The fuel as it lies: surface, faces and centroid at a fill, in any attitude."""

from dataclasses import dataclass
from math import acos, degrees, pi

import numpy as np

from keel.reference.units import MM3_PER_LITRE
from keel.solid.box import BoxSolid
from keel.solid.polyhedron import Array, Mesh, Waterline, prism
from keel.studies.attitude import Attitude, felt
from keel.studies.level import level_for
from keel.studies.result import Point

ARC_STEPS = 3
"""Chords to a quarter round."""


@dataclass(frozen=True, slots=True)
class Fill:
    """One fill: what is in, how it lies, and its faces for the drawing.

    `level_mm` goes from the lowest inside point, along the force felt, to the surface.
    """

    volume_l: float
    fraction: float
    level_mm: float
    slope_deg: float
    centroid: Point | None
    surface: list[list[Point]]
    faces: list[list[Point]]


def box_mesh(solid: BoxSolid) -> Mesh:
    """The inside of a box shell as a mesh.

    The quarter rounds are chords whose corners lie a little outside the arc, so that each
    holds just what the round does: the mesh's volume is the shell's.
    """
    low, high = solid.inner.low, solid.inner.high
    across, radius = solid.across, solid.radius
    ends = [(low[across], low[2], pi), (high[across], low[2], 1.5 * pi), (high[across], high[2], 0.0)]
    ends.append((low[across], high[2], 0.5 * pi))
    section: list[tuple[float, float]] = []
    for place, (x, z, start) in enumerate(ends):
        sharp = radius == 0 or (place == 3 and solid.sharp_corners)
        section += [(x, z)] if sharp else _round(x, z, start, radius)
    return prism(np.array(section), solid.wrap, low[solid.wrap], high[solid.wrap])


def _round(x: float, z: float, start: float, radius: float) -> list[tuple[float, float]]:
    """Chords round a corner, from one face to the next, that enclose the quarter round's area."""
    turn = pi / 2 / ARC_STEPS
    inward_x = radius if start in (pi, 0.5 * pi) else -radius
    inward_z = radius if start in (pi, 1.5 * pi) else -radius
    angles = start + turn * np.arange(ARC_STEPS + 1)
    # Inner corners stand out by a factor f: two end wedges of f sin(turn) and the rest of f² sin(turn).
    inner, target = ARC_STEPS - 2, pi / 2 / np.sin(turn)
    factor = (-2 + np.sqrt(4 + 4 * inner * target)) / (2 * inner)
    reach = np.where((angles == angles[0]) | (angles == angles[-1]), 1.0, factor) * radius
    return [
        (x + inward_x + float(r * np.cos(t)), z + inward_z + float(r * np.sin(t)))
        for r, t in zip(reach, angles, strict=True)
    ]


def fill_at(solid: BoxSolid, fraction: float, attitude: Attitude) -> Fill:
    """The fill that is a share of the brimful volume, as it lies in an attitude.

    Parameters
    ----------
    solid : BoxSolid
        The shell worked out.
    fraction : float
        0 (empty) to 1 (brimful).
    attitude : Attitude
        How the vehicle stands and what it is doing.

    Returns
    -------
    Fill
        On the level the height is that of the true rounds; tilted, of the mesh's chords.
    """
    force = felt(attitude)
    line = Waterline(box_mesh(solid), -force)
    volume = solid.volume_mm3 * fraction
    flat = attitude == Attitude()
    level = level_for(solid, volume / MM3_PER_LITRE) if flat else line.level(volume)
    level = min(level, line.depth)
    slope = degrees(acos(min(1.0, max(-1.0, float(line.up[2])))))
    return Fill(
        volume_l=volume / MM3_PER_LITRE,
        fraction=fraction,
        level_mm=level,
        slope_deg=slope,
        centroid=_point(line.centroid(level)) if fraction > 0 else None,
        surface=[[_point(p) for p in loop] for loop in line.outline(level)],
        faces=[[_point(p) for p in face] for face in line.below(level)] if fraction > 0 else [],
    )


def _point(place: Array) -> Point:
    return Point(x=float(place[0]), y=float(place[1]), z=float(place[2]))
