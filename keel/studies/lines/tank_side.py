"""What the tank is to its lines: where fuel and air are met, at a level."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import floor

import numpy as np

from keel.analysis.parts import BRIEF, LINES, PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.brief import Brief
from keel.design.lines import Lines
from keel.design.ports import Port, PortRole
from keel.reference.fuels import FuelName
from keel.solid.solids import Cell, Solids
from keel.solid.standing import OUTWARD, surface_at
from keel.studies.liquid.capacity import CAPACITY, Capacity
from keel.studies.liquid.draining import inside, place_of

TUBE_MM = 10.0
"""Bore of a pickup's tube and of a boss whose connection isn't said [mm]."""


@dataclass(frozen=True, slots=True)
class TankPort:
    """A port of the tank as its line meets it.

    Attributes
    ----------
    cell : str
        The cell it opens into.
    fuel : FuelName
        What that holds.
    opening_z_mm, flange_z_mm : float
        Height of its opening inside, and of what the line is joined to.
    surface_z_mm : float
        Height of the fuel, at the level that suction is judged at.
    bore_mm : float
        Smallest bore from the one to the other.
    role : PortRole
        What it is for.
    brim_z_mm : float or None
        Of a surge tank the height that it is kept full to; None: the tank is open to the air.
    """

    id: str
    name: str
    cell: str
    fuel: FuelName
    opening_z_mm: float
    flange_z_mm: float
    surface_z_mm: float
    bore_mm: float
    role: PortRole = "fitting"
    brim_z_mm: float | None = None

    @property
    def drop_mm(self) -> float:
        """From its opening up to what the line is joined to."""
        return self.flange_z_mm - self.opening_z_mm


def fuels_by_cell(lines: Lines, solids: Solids, fuel: FuelName) -> dict[str, FuelName]:
    """What each cell holds.

    Parameters
    ----------
    lines : Lines
        What is said of cells.
    solids : Solids
        The shell worked out.
    fuel : FuelName
        The brief's: where nothing else is said.

    Returns
    -------
    dict of str to FuelName
        By cell.
    """
    said = {one.cell: one.fuel for one in lines.fuels}
    return {cell.name: said.get(cell.name, fuel) for cell in solids.cells}


def surfaces_at(solids: Solids, held: Capacity, level: float) -> dict[str, float]:
    """Height of the fuel in each cell, standing level, at a share of the rated capacity, in whole millimetres [mm]."""
    share = level * held.rated_l / held.brimful_l
    return {cell.name: _height(cell, share) for cell in solids.cells}


def _height(cell: Cell, share: float) -> float:
    line = cell.mesh.along(np.array([0.0, 0.0, 1.0]))
    low = float(cell.solid.bounding_box()[2])
    # What a plate inside takes up moves it by less than a millimetre: nothing that follows from it is worked out again.
    return float(floor(low + min(line.level(line.mesh.volume_mm3 * share), line.depth)))


def tank_ports(
    lines: Lines, ports: Sequence[Port], solids: Solids, held: Capacity, brief: Brief
) -> Mapping[str, TankPort]:
    """The tank's ports that lie in a cell, by their ids.

    Parameters
    ----------
    lines : Lines
        What fuels the cells hold, and the level that counts.
    ports : sequence of Port
        The tank's.
    solids : Solids
        The shell worked out.
    held : Capacity
        What the tank holds.
    brief : Brief
        The fuel, and whether it is a surge tank.

    Returns
    -------
    mapping of str to TankPort
        A port outside every cell is left out.
    """
    fuels, surfaces = fuels_by_cell(lines, solids, brief.fuel), surfaces_at(solids, held, lines.level)
    found = {}
    for port in ports:
        opening = place_of(solids, port)
        space = next((cell for cell in solids.cells if inside(cell, opening)), None)
        if space is None:
            continue
        cell = space.name
        flange = surface_at(solids, port) + port.stands_mm * np.array(OUTWARD[port.face])
        bore = port.connection.bore if port.connection else TUBE_MM
        found[port.id] = TankPort(
            id=port.id,
            name=port.name,
            cell=cell,
            fuel=fuels[cell],
            opening_z_mm=float(opening[2]),
            flange_z_mm=float(flange[2]),
            surface_z_mm=surfaces[cell],
            bore_mm=bore,
            role=port.role,
            brim_z_mm=float(space.solid.bounding_box()[5]) if brief.is_surge_tank else None,
        )
    return found


TANK_PORTS = study(tank_ports, LINES, PORTS, SOLIDS, CAPACITY, BRIEF).by_value()
