"""Level and litres: the strapping table, exact at every row, in any attitude."""

from dataclasses import dataclass
from math import ceil

import numpy as np

from keel.analysis.parts import SOLIDS
from keel.analysis.study import study
from keel.design.attitude import Attitude, specific_force
from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Waterline
from keel.solid.solids import Solids

STRAPPING_ROWS = 20
MOST_ROWS = 2000


@dataclass(frozen=True, slots=True)
class StrappingRow:
    """Litres at a level over the lowest inner point."""

    level_mm: float
    volume_l: float
    fraction: float


@dataclass(frozen=True, slots=True)
class CellStrapping:
    """The strapping table of one cell."""

    cell: str
    rows: list[StrappingRow]


def strapping_table(line: Waterline, pitch_mm: float | None = None) -> list[StrappingRow]:
    """Level → litres from the lowest inner point to the highest.

    Parameters
    ----------
    line : Waterline
        One cell seen along the direction against which the liquid falls.
    pitch_mm : float, optional
        Step from row to row [mm]; by default the depth in twenty. The last row is the full depth.

    Returns
    -------
    list of StrappingRow
        At most 2000 rows; a finer pitch is made coarser to that.
    """
    depth, whole = line.depth, line.mesh.volume_mm3
    rows = STRAPPING_ROWS if pitch_mm is None else min(MOST_ROWS, max(1, ceil(depth / pitch_mm - 1e-9)))
    step = depth / rows if pitch_mm is None else max(pitch_mm, depth / rows)
    levels = np.minimum(np.arange(rows + 1) * step, depth)
    volumes = np.clip(line.volumes(levels), 0.0, whole)
    volumes[-1] = whole
    return [
        StrappingRow(level_mm=level, volume_l=volume / MM3_PER_LITRE, fraction=volume / whole)
        for level, volume in zip(levels.tolist(), volumes.tolist(), strict=True)
    ]


def strapping_of_cells(solids: Solids) -> list[CellStrapping]:
    """The strapping table of every cell, on the level."""
    up = -specific_force(Attitude())
    return [CellStrapping(cell.name, strapping_table(cell.mesh.along(up))) for cell in solids.cells]


STRAPPING = study(strapping_of_cells, SOLIDS)
