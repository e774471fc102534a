"""The cell under a sender: litres and heights there."""

import numpy as np

from keel.design.gauge import Sender
from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Waterline
from keel.solid.solids import Cell, Solids
from keel.studies.liquid.draining import inside

UP = np.array([0.0, 0.0, 1.0])


class Column:
    """The cell under a sender: litres for a height over the inner floor there."""

    def __init__(self, cell: Cell, floor_z: float, roof_z: float) -> None:
        self.line = Waterline(cell.mesh, UP)
        self.offset, self.depth_mm = floor_z - self.line.lowest, roof_z - floor_z
        self.brimful_l = cell.mesh.volume_mm3 / MM3_PER_LITRE

    def litres(self, height_mm: float) -> float:
        """Litres with the surface at a height [L]."""
        level = min(self.line.depth, max(0.0, height_mm + self.offset))
        return float(self.line.volume(level)) / MM3_PER_LITRE

    def tenths(self, rated_l: float) -> list[tuple[float, float]]:
        """True tenths of the rated capacity: litres, and the height of their surface [mm]."""
        litres = rated_l * np.arange(11) / 10
        heights = self.line.levels(litres * MM3_PER_LITRE) - self.offset
        return list(zip(litres.tolist(), heights.tolist(), strict=True))

    def height(self, litres: float) -> float:
        """Height of the surface for litres [mm]."""
        return float(self.line.level(litres * MM3_PER_LITRE)) - self.offset


def column_of(solids: Solids, sender: Sender) -> tuple[Cell, Column] | None:
    """The cell a sender hangs in, and its column there.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    sender : Sender
        Any sender.

    Returns
    -------
    (Cell, Column) or None
        Both; None where it hangs in no cell.
    """
    return column_at(solids, solids.datum[0] + sender.x_mm, solids.datum[1] + sender.y_mm)


def column_at(solids: Solids, x: float, y: float) -> tuple[Cell, Column] | None:
    """The cell over a place, and its column there.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    x, y : float
        In the axes of the bay [mm].

    Returns
    -------
    (Cell, Column) or None
        Both; None where there is no cell.
    """
    low, high = solids.bounds.low[2] - 1.0, solids.bounds.high[2] + 1.0
    hits = sorted(
        hit.position[2] for hit in solids.inner.ray_cast([x + 1e-5, y + 1e-5, low], [x + 1e-5, y + 1e-5, high])
    )
    if len(hits) < 2:
        return None
    floor, roof = hits[-2], hits[-1]
    middle = np.array([x, y, (floor + roof) / 2])
    cell = next((cell for cell in solids.cells if inside(cell, middle)), None)
    return None if cell is None else (cell, Column(cell, floor, roof))
