"""What takes those dangers away."""

from collections.abc import Iterator
from typing import Any

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.attitude import specific_force
from keel.design.features import Partition
from keel.design.ports import NeckPath, Port, PortRole, VentPath
from keel.findings.edits import at_place, extreme_place, free_id, port_of, unused, with_port, with_ports
from keel.findings.finding import Finding, Remedy
from keel.solid.polyhedron import Array
from keel.solid.solids import Cell
from keel.stations.ports.hazard_rules import in_cell
from keel.studies.ports.vents_on_slopes import SLOPES, VENTS_ON_SLOPES
from keel.studies.result import words

UP = np.array([0.0, 0.0, 1.0])


def _cell_of(tank: TankAnalysis, finding: Finding) -> Cell | None:
    return next((cell for cell in tank.solids.cells if cell.name == finding.subject), None)


def _more(tank: TankAnalysis, role: PortRole, place: Array, **fields: Any) -> Port:
    port = Port(id=free_id(tank, role), name=role, role=role, x_mm=0.0, y_mm=0.0, z_mm=0.0)
    return at_place(tank, port.model_copy(update=fields), place)


def a_vent(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """One with a roll-over valve at the cell's highest place."""
    cell = _cell_of(tank, finding)
    if cell is not None:
        vent = _more(tank, "vent", extreme_place(cell, -UP), vent=VentPath(rollover=True))
        yield Remedy(
            label=words("A vent with a roll-over valve at the highest place"),
            patch=with_ports([*tank.design.ports, vent]),
        )


def vents_on_slopes(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A vent more at the end that stays dry, for every slope that covers those there are."""
    cell = _cell_of(tank, finding)
    if cell is None:
        return
    ports = list(tank.design.ports)
    slopes = next(found.slopes for found in tank[VENTS_ON_SLOPES] if found.cell == cell.name)
    for number, slope in enumerate(slopes, start=2):
        more = _more(tank, "vent", extreme_place(cell, specific_force(SLOPES[slope])), vent=VentPath(rollover=True))
        ports.append(more.model_copy(update={"id": f"{more.id}-{number}", "name": f"vent, {slope}"}))
    yield Remedy(
        label=words("A vent more at the end that is high then, joined with the other"), patch=with_ports(ports)
    )


def a_pickup(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """One at the cell's lowest place."""
    cell = _cell_of(tank, finding)
    if cell is not None:
        more = _more(tank, "pickup", extreme_place(cell, UP))
        yield Remedy(label=words("A pickup at the lowest place"), patch=with_ports([*tank.design.ports, more]))


def a_filler(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """One in the cell's lid, bonded."""
    cell = _cell_of(tank, finding)
    if cell is not None:
        more = _more(tank, "filler", extreme_place(cell, -UP), neck=NeckPath(bonded=True))
        yield Remedy(label=words("A filler in its lid, bonded"), patch=with_ports([*tank.design.ports, more]))


def an_overflow(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Make a vent the overflow, or put one at the top."""
    vent = next((port for port in tank.design.ports if port.role == "vent"), None)
    if vent is not None:
        label = words("Make {name} the overflow to the main tank", name=vent.name)
        yield Remedy(label=label, patch=with_port(tank, vent.id, role="overflow"))
    more = _more(tank, "overflow", extreme_place(tank.solids.cells[0], -UP), vent=VentPath())
    yield Remedy(label=words("An overflow at the top"), patch=with_ports([*tank.design.ports, more]))


def a_return(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """A return under the top."""
    high = extreme_place(tank.solids.cells[0], -UP)
    more = _more(tank, "return", high - 0.15 * tank.solids.inner_body.size[2] * UP)
    yield Remedy(label=words("A return below the top"), patch=with_ports([*tank.design.ports, more]))


def rolled_over(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Fit the valve."""
    port = port_of(tank, finding)
    vent = (port.vent or VentPath()).model_dump(mode="json") | {"rollover": True}
    yield Remedy(label=words("A roll-over valve in {name}", name=port.name), patch=with_port(tank, port.id, vent=vent))


def bonded(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Fit the strap."""
    port = port_of(tank, finding)
    neck = (port.neck or NeckPath()).model_dump(mode="json") | {"bonded": True}
    yield Remedy(
        label=words("A bonding strap from {name} to the chassis", name=port.name),
        patch=with_port(tank, port.id, neck=neck),
    )


def unblinded(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Open it, or call it a spare."""
    port = port_of(tank, finding)
    yield Remedy(label=words("Open {name}", name=port.name), patch=with_port(tank, port.id, capped=False))
    yield Remedy(label=words("Make {name} a spare", name=port.name), patch=with_port(tank, port.id, role="spare"))


def driven(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Give it a pump, or a return that drives it."""
    port = port_of(tank, finding)
    yield Remedy(
        label=words("A pump of its own for {name}", name=port.name), patch=with_port(tank, port.id, pumped=True)
    )
    yield from a_return(tank, finding)


def parted(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """A partition across the middle, whichever way the tank is longer."""
    long = 0 if tank.solids.body.size[0] >= tank.solids.body.size[1] else 1
    wall = Partition(
        id=unused("partition", [feature.id for feature in tank.shell.features]),
        name="partition between the fuels",
        axis="x" if long == 0 else "y",
        at_mm=round(tank.solids.body.size[long] / 2, 1),
    )
    features = [feature.model_dump(mode="json") for feature in (*tank.shell.features, wall)]
    yield Remedy(label=words("A partition across the middle"), patch={"shell": {"features": features}})


def kept_apart(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Close what leads across; give every cell a return of its own."""
    port = port_of(tank, finding)
    if port.role != "return":
        label = words("Close {name} blind, as a spare", name=port.name)
        yield Remedy(label=label, patch=with_port(tank, port.id, role="spare", capped=True))
        return
    ports = list(tank.design.ports)
    for cell in tank.solids.cells:
        if not in_cell(tank, cell, [p for p in tank.design.ports if p.role == "return" and not p.capped]):
            name = f"return, {cell.name}"[:80]
            more = _more(tank, "return", extreme_place(cell, -UP)).model_copy(update={"name": name})
            ports.append(more.model_copy(update={"id": unused("return", [p.id for p in ports])}))
    yield Remedy(label=words("A return of its own in each cell"), patch=with_ports(ports))
