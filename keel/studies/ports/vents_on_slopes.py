"""Whether a full tank's vents stay over the fuel on a slope."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.attitude import Attitude, specific_force
from keel.design.ports import BREATHES, Port, opened
from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Array
from keel.solid.solids import Cell, Solids
from keel.studies.liquid.capacity import CAPACITY, Capacity
from keel.studies.liquid.draining import drained, inside, place_of
from keel.studies.ports.attitudes import SLOPE_DEG

SLOPES = {
    "nose up": Attitude(pitch_deg=SLOPE_DEG),
    "nose down": Attitude(pitch_deg=-SLOPE_DEG),
    "left side up": Attitude(roll_deg=SLOPE_DEG),
    "right side up": Attitude(roll_deg=-SLOPE_DEG),
}
UNDER_MM = 0.5
"""An opening so far under the surface is under it [mm]."""


@dataclass(frozen=True, slots=True)
class VentsUnder:
    """A cell all of whose vents lie under its fuel on some slopes."""

    cell: str
    slopes: list[str]


def vents_under_on_slopes(solids: Solids, ports: Sequence[Port], held: Capacity) -> list[VentsUnder]:
    """The cells whose vents all lie under, filled to their rated litres, standing on `SLOPE_DEG`.

    Parameters
    ----------
    solids : Solids
        The tank.
    ports : sequence of Port
        Vents and what else breathes.
    held : Capacity
        Rated litres of each cell.

    Returns
    -------
    list of VentsUnder
        None of a cell without vents: that has a finding of its own.
    """
    vents = [(place_of(solids, port)) for port in opened(ports, *BREATHES)]
    found = []
    for cell in solids.cells:
        places = np.array([place for place in vents if inside(cell, place)])
        rated = next(row.rated_l for row in held.cells if row.cell == cell.name)
        if not len(places) or rated <= 0:
            continue
        under = [name for name, slope in SLOPES.items() if _under(cell, places, rated, -specific_force(slope))]
        if under:
            found.append(VentsUnder(cell.name, under))
    return found


def _under(cell: Cell, places: Array, litres: float, up: Array) -> bool:
    line = cell.mesh.along(up)
    surface = line.lowest + line.level(min(litres * MM3_PER_LITRE, line.mesh.volume_mm3))
    return bool((places @ line.up).max() < surface - UNDER_MM)


def air_trapped_on_slopes(under: list[VentsUnder], solids: Solids, ports: Sequence[Port]) -> dict[str, float]:
    """The most air that has no way out on a slope on which a cell's vents lie under [L], by cell."""
    held = {name: drained(solids, ports, SLOPES[name]) for name in {slope for one in under for slope in one.slopes}}
    return {
        one.cell: max(cell.trapped_l or 0.0 for name in one.slopes for cell in held[name] if cell.cell == one.cell)
        for one in under
    }


VENTS_ON_SLOPES = study(vents_under_on_slopes, SOLIDS, PORTS, CAPACITY)
AIR_TRAPPED_ON_SLOPES = study(air_trapped_on_slopes, VENTS_ON_SLOPES, SOLIDS, PORTS)
