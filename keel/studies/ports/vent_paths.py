"""Which openings belong to which cell, for filling."""

from collections.abc import Sequence

import numpy as np

from keel.analysis.parts import PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.ports import BREATHES, NeckPath, Port, PortRole, opened
from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Waterline
from keel.solid.solids import Cell, Solids
from keel.studies.liquid.draining import inside, place_of

ROWS = 24


def _in(solids: Solids, cell: Cell, ports: Sequence[Port], *roles: PortRole) -> list[Port]:
    return [port for port in opened(ports, *roles) if inside(cell, place_of(solids, port))]


def vents_by_cell(solids: Solids, ports: Sequence[Port]) -> dict[str, list[Port]]:
    """The vents of each cell that has a filler."""
    return {
        cell.name: _in(solids, cell, ports, *BREATHES) for cell in solids.cells if _in(solids, cell, ports, "filler")
    }


def neck_of(solids: Solids, ports: Sequence[Port], cell: str) -> NeckPath:
    """The widest of a cell's fillers."""
    space = next(item for item in solids.cells if item.name == cell)
    necks = [port.neck or NeckPath() for port in _in(solids, space, ports, "filler")]
    return max(necks, key=lambda neck: neck.bore_mm)


def level_rows(solids: Solids, cell: str, rated_l: float) -> list[tuple[float, float]]:
    """Levels over the lowest place and litres of a cell in even steps of litres up to the rated capacity."""
    line = Waterline(next(item for item in solids.cells if item.name == cell).mesh, np.array([0.0, 0.0, 1.0]))
    steps = [rated_l * n / ROWS for n in range(ROWS + 1)]
    levels = line.levels(np.array(steps) * MM3_PER_LITRE)
    return [(float(level) if litres else 0.0, litres) for level, litres in zip(levels, steps, strict=True)]


VENTS_BY_CELL = study(vents_by_cell, SOLIDS, PORTS)
