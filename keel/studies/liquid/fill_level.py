"""The fuel as it lies: surface, faces and centroid at a fill, in any attitude."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import acos, degrees

import numpy as np
from manifold3d import triangulate

from keel.analysis.parts import ATTITUDE, FILL_FRACTION, PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.attitude import Attitude, specific_force
from keel.design.ports import Port
from keel.reference.units import MM2_PER_M2, MM3_PER_LITRE
from keel.solid.polyhedron import Array, Waterline, level_axes
from keel.solid.solids import Solids
from keel.studies.liquid.capacity import CAPACITY, Capacity
from keel.studies.liquid.draining import LEVEL, Drained, drained
from keel.studies.liquid.strapping import StrappingRow, strapping_table
from keel.studies.result import Point, flat

CURVE_ROWS = 25


@dataclass(frozen=True, slots=True)
class CellFill:
    """One cell at a fill: litres, the level over its lowest point, and its level curve in that attitude."""

    cell: str
    volume_l: float
    level_mm: float
    depth_mm: float
    wetted_m2: float
    curve: list[StrappingRow]


@dataclass(frozen=True, slots=True)
class Fill:
    """One fill of all cells alike: what is in, how it lies, and its faces for the drawing.

    `level_mm` goes from the lowest inside point of the first cell, along the force felt, to the
    surface. `surface` has the rims (a hole's runs the other way round), `sheet` the surface and `faces`
    the wetted walls as triangles: coordinates x, y, z one after the other [mm].
    """

    volume_l: float
    fraction: float
    level_mm: float
    slope_deg: float
    centroid: Point | None
    cells: list[CellFill]
    surface: list[list[float]]
    sheet: list[float]
    faces: list[float]


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
    up = -specific_force(attitude)
    lines = [cell.mesh.along(up) for cell in solids.cells]
    levels = [min(line.level(line.mesh.volume_mm3 * fraction), line.depth) for line in lines]
    volumes = [line.mesh.volume_mm3 * fraction for line in lines]
    total = sum(volumes)
    wet = [line.below(level) for line, level in zip(lines, levels, strict=True)]
    centroid = None
    if fraction > 0:
        moments = [
            line.centroid(level, faces) * volume
            for line, level, faces, volume in zip(lines, levels, wet, volumes, strict=True)
        ]
        centroid = Point.of(np.sum(moments, axis=0) / total)
    rims = [line.outline(level) for line, level in zip(lines, levels, strict=True)]
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
                wetted_m2=line.wetted(level, faces) / MM2_PER_M2,
                curve=strapping_table(line, line.depth / CURVE_ROWS),
            )
            for cell, line, level, volume, faces in zip(solids.cells, lines, levels, volumes, wet, strict=True)
        ],
        surface=[flat(loop) for loops in rims for loop in loops],
        sheet=[value for line, loops in zip(lines, rims, strict=True) for value in flat(_sheet(line, loops))],
        faces=[value for faces in wet for value in flat(faces)] if fraction > 0 else [],
    )


def _sheet(line: Waterline, loops: list[Array]) -> Array:
    """The surface within its rims as triangles, shape (k, 3, 3)."""
    if not loops:
        return np.zeros((0, 3, 3))
    frame = level_axes(line.up).T
    rings = [loop @ frame for loop in loops]
    if max((_twice_area(ring) for ring in rings), key=abs) < 0:
        rings, loops = [ring[::-1] for ring in rings], [loop[::-1] for loop in loops]
    return np.asarray(np.vstack(loops)[np.asarray(triangulate(rings), dtype=np.int64)])


def _twice_area(ring: Array) -> float:
    x, y = ring[:, 0], ring[:, 1]
    return float(x[:-1] @ y[1:] - y[:-1] @ x[1:] + x[-1] * y[0] - y[-1] * x[0])


def fill_shown(solids: Solids, held: Capacity, fraction: float | None, attitude: Attitude) -> Fill:
    """The fill that is to be shown; the rated capacity where none is named."""
    return fill_at(solids, held.rated_l / held.brimful_l if fraction is None else fraction, attitude)


def drained_shown(
    solids: Solids, ports: Sequence[Port], attitude: Attitude, level: list[Drained], fill: Fill
) -> list[Drained]:
    """What stays and what air is trapped in the attitude that is shown; no pool above the fill's own surface."""
    held = level if attitude == Attitude() else drained(solids, ports, attitude)
    levels = {cell.cell: cell.level_mm for cell in fill.cells}
    if any(pool.level_mm > levels[cell.cell] for cell in held for pool in cell.pools):
        return drained(solids, ports, attitude, list(levels.values()))
    return held


FILL = study(fill_shown, SOLIDS, CAPACITY, FILL_FRACTION, ATTITUDE)
DRAINED = study(drained_shown, SOLIDS, PORTS, ATTITUDE, LEVEL, FILL)
