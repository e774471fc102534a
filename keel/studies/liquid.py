"""The fuel as it lies: surface, faces and centroid at a fill, in any attitude."""

from dataclasses import dataclass
from math import acos, degrees

import numpy as np
from manifold3d import triangulate

from keel.reference.units import MM3_PER_LITRE
from keel.solid.build import Solids
from keel.solid.polyhedron import Array, Waterline
from keel.studies.attitude import Attitude, felt
from keel.studies.level import StrappingRow, strapping_table
from keel.studies.result import Point

CURVE_ROWS = 40


@dataclass(frozen=True, slots=True)
class CellFill:
    """One cell at a fill: litres, the level over its lowest point, and its level curve in that attitude."""

    cell: str
    volume_l: float
    level_mm: float
    depth_mm: float
    curve: list[StrappingRow]


@dataclass(frozen=True, slots=True)
class Fill:
    """One fill of all cells alike: what is in, how it lies, and its faces for the drawing.

    `level_mm` goes from the lowest inside point of the first cell, along the force felt, to the
    surface. `surface` has the rims (a hole's runs the other way round), `sheet` the surface as triangles.
    """

    volume_l: float
    fraction: float
    level_mm: float
    slope_deg: float
    centroid: Point | None
    cells: list[CellFill]
    surface: list[list[Point]]
    sheet: list[list[Point]]
    faces: list[list[Point]]


def fill_at(solids: Solids, fraction: float, attitude: Attitude) -> Fill:
    """The fill that is a share of the brimful volume, as it lies in an attitude.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    fraction : float
        0 (empty) to 1 (brimful), of every cell.
    attitude : Attitude
        How the vehicle stands and what it is doing.

    Returns
    -------
    Fill
        The surface is a plane square to the force felt, one in each cell.
    """
    up = -felt(attitude)
    lines = [Waterline(cell.mesh, up) for cell in solids.cells]
    levels = [min(line.level(line.mesh.volume_mm3 * fraction), line.depth) for line in lines]
    volumes = [line.mesh.volume_mm3 * fraction for line in lines]
    total = sum(volumes)
    centroid = None
    if fraction > 0:
        moments = [line.centroid(level) * volume for line, level, volume in zip(lines, levels, volumes, strict=True)]
        centroid = _point(np.sum(moments, axis=0) / total)
    rims = [line.outline(level) for line, level in zip(lines, levels, strict=True)]
    wet = [face for line, level in zip(lines, levels, strict=True) for face in line.below(level)]
    return Fill(
        volume_l=total / MM3_PER_LITRE,
        fraction=fraction,
        level_mm=levels[0],
        slope_deg=degrees(acos(min(1.0, max(-1.0, float(lines[0].up[2]))))),
        centroid=centroid,
        cells=[
            CellFill(
                cell=cell.name,
                volume_l=volume / MM3_PER_LITRE,
                level_mm=level,
                depth_mm=line.depth,
                curve=strapping_table(line, line.depth / CURVE_ROWS),
            )
            for cell, line, level, volume in zip(solids.cells, lines, levels, volumes, strict=True)
        ],
        surface=[[_point(p) for p in loop] for loops in rims for loop in loops],
        sheet=[_triangle for line, loops in zip(lines, rims, strict=True) for _triangle in _sheet(line, loops)],
        faces=[[_point(p) for p in face] for face in wet] if fraction > 0 else [],
    )


def _sheet(line: Waterline, loops: list[Array]) -> list[list[Point]]:
    """The surface within its rims as triangles."""
    if not loops:
        return []
    side = np.cross(line.up, np.eye(3)[int(np.argmin(np.abs(line.up)))])
    side /= np.linalg.norm(side)
    frame = np.column_stack([side, np.cross(line.up, side)])
    flat = [loop @ frame for loop in loops]
    widest = max(flat, key=lambda ring: abs(_twice_area(ring)))
    if _twice_area(widest) < 0:
        flat, loops = [ring[::-1] for ring in flat], [loop[::-1] for loop in loops]
    points = np.vstack(loops)
    return [[_point(points[i]) for i in corner] for corner in np.asarray(triangulate(flat)).tolist()]


def _twice_area(ring: Array) -> float:
    x, y = ring.T
    return float(x @ np.roll(y, -1) - y @ np.roll(x, -1))


def _point(place: Array) -> Point:
    return Point(x=float(place[0]), y=float(place[1]), z=float(place[2]))
