"""The first fill: so much at a time, where level and needle should stand then, what is looked at below the level."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import GAUGE, PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.gauge import Gauge
from keel.design.ports import Port
from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Array, Waterline
from keel.solid.solids import Cell, Solids
from keel.solid.standing import surface_at
from keel.studies.gauge.calibration import calculated_ohms
from keel.studies.gauge.column import column_of
from keel.studies.handover.line_joints import LINE_PROOF, LineProof
from keel.studies.liquid.capacity import CAPACITY, Capacity

UP = np.array([0.0, 0.0, 1.0])
FIRST_L = 10.0
SHARES = (0.25, 0.5, 1.0)
LEAST_STEP = 0.05
"""A first step nearer than this to the next, or to none, in shares of the rated capacity, is left out."""
WALL_MM = 20.0
WAIT_MIN = 10.0
"""Between two steps, before joints below the level are looked at (house rule)."""


@dataclass(frozen=True, slots=True)
class Needle:
    """What a sender should read, and how far of its travel the needle then stands."""

    sender: str
    name: str
    ohms: float
    share: float
    ohms_empty: float
    ohms_full: float


@dataclass(frozen=True, slots=True)
class FillStep:
    """The cell filled up to somewhere.

    Attributes
    ----------
    id : str
        Its cell and its number.
    litres : float
        In the cell then, in all [L].
    level_mm : float
        Height of the surface over the cell's lowest place.
    share : float
        Of the rated capacity.
    holds_l : float
        Brimful, the cell [L].
    below : list of str
        Joints and ports below the level.
    needles : list of Needle
        Senders in this cell.
    """

    id: str
    cell: str
    litres: float
    level_mm: float
    share: float
    holds_l: float
    is_brim: bool
    below: list[str]
    needles: list[Needle]


def first_fill(solids: Solids, held: Capacity, gauge: Gauge, ports: Sequence[Port], proof: LineProof) -> list[FillStep]:
    """Every step of the first fill, cell by cell.

    Parameters
    ----------
    solids : Solids
        The tank.
    held : Capacity
        Rated litres of each cell.
    gauge : Gauge
        Senders.
    ports : sequence of Port
        The tank's.
    proof : LineProof
        Joints of the lines.

    Returns
    -------
    list of FillStep
        Empty where a sender is to be read, 10 L, a quarter, half, the rated capacity (house rule); a step that would be
        none is left out.
    """
    rated = {one.cell: one.rated_l for one in held.cells}
    return [
        step
        for cell in solids.cells
        for step in _of_cell(cell, rated[cell.name], solids, gauge, _heights(cell, solids, ports, proof))
    ]


def _heights(cell: Cell, solids: Solids, ports: Sequence[Port], proof: LineProof) -> dict[str, float]:
    """Of all that this cell's fuel reaches, by name [mm]."""
    reached = {line.id for line in proof.circuits if cell.name in line.cells}
    found = {one.name: one.at.z for one in proof.joints if one.circuit in reached}
    for port in ports:
        at = surface_at(solids, port)
        if len(solids.cells) == 1 or _beside(cell, at):
            found[port.name] = float(at[2])
    return found


def _beside(cell: Cell, at: Array) -> bool:
    """Whether a place on the outside is over this cell's own box."""
    low, high = cell.mesh.points.min(axis=0) - WALL_MM, cell.mesh.points.max(axis=0) + WALL_MM
    return bool(((at >= low) & (at <= high)).all())


def _of_cell(cell: Cell, rated_l: float, solids: Solids, gauge: Gauge, spots: dict[str, float]) -> Iterator[FillStep]:
    line = Waterline(cell.mesh, UP)
    dry = [0.0] if any(_needles(cell, solids, gauge, 0.0)) else []
    for number, litres in enumerate([*dry, *_steps(rated_l)], start=1):
        level = float(line.level(litres * MM3_PER_LITRE))
        yield FillStep(
            id=f"{cell.name}-{number}",
            cell=cell.name,
            litres=litres,
            level_mm=level,
            share=litres / rated_l,
            holds_l=cell.mesh.volume_mm3 / MM3_PER_LITRE,
            is_brim=litres == rated_l,
            below=[name for name, z in spots.items() if z < line.lowest + level],
            needles=_needles(cell, solids, gauge, litres),
        )


def _steps(rated_l: float) -> list[float]:
    shares = [rated_l * share for share in SHARES]
    room = LEAST_STEP * rated_l
    return [*([FIRST_L] if shares[0] - room > FIRST_L else []), *shares]


def _needles(cell: Cell, solids: Solids, gauge: Gauge, litres: float) -> list[Needle]:
    found = []
    for sender in gauge.senders:
        column = column_of(solids, sender)
        ohms = calculated_ohms(sender, solids, litres)
        if column is None or ohms is None or column[0].name != cell.name:
            continue
        share = (ohms - sender.ohms_empty) / (sender.ohms_full - sender.ohms_empty)
        found.append(Needle(sender.id, sender.name, ohms, share, sender.ohms_empty, sender.ohms_full))
    return found


FIRST_FILL = study(first_fill, SOLIDS, CAPACITY, GAUGE, PORTS, LINE_PROOF).at_rest()
