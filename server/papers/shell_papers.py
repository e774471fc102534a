"""Papers of the shell: strapping table and dip stick."""

from collections.abc import Iterator

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.formats.cutlist import strapping_csv
from keel.solid.polyhedron import Waterline
from keel.studies.liquid.strapping import StrappingRow, strapping_table
from server.papers.dip_stick import dip_stick_pdf
from server.papers.paper import Paper, StationPapers, Wanted


def _tables(wanted: Wanted) -> dict[str, list[StrappingRow]]:
    """The level strapping table of every cell at the wanted pitch."""
    up = np.array([0.0, 0.0, 1.0])
    cells = wanted.tank.solids.cells
    return {cell.name: strapping_table(Waterline(cell.mesh, up), wanted.pitch_mm) for cell in cells}


def _strapping(wanted: Wanted) -> bytes:
    return strapping_csv(_tables(wanted), wanted.heading.reader)


DIP_STICK = Paper(
    "dip-stick.pdf",
    "Dip stick at full size, PDF",
    lambda wanted: dip_stick_pdf(wanted.heading, _tables(wanted)),
)


def _papers(_tank: TankAnalysis) -> Iterator[Paper]:
    yield Paper("strapping.csv", "Strapping table, CSV", _strapping)
    yield DIP_STICK


SHELL_PAPERS = StationPapers("shell", _papers)
