"""Remedies for what a tank lacks or carries that is dangerous."""

from collections.abc import Iterator
from typing import Any

import numpy as np

from keel.design.features import Partition
from keel.design.ports import NeckPath, Port, PortRole, VentPath
from keel.findings.feature_remedies import at_place, extreme_place, free_id, unused, with_ports
from keel.findings.finding import Finding, Remedy
from keel.findings.hazard_rules import SLOPES, in_cell, under_on_slopes
from keel.findings.port_remedies import port_of, with_port
from keel.solid.build import Cell
from keel.solid.polyhedron import Array
from keel.studies.liquid.attitude import felt
from keel.studies.result import words
from keel.studies.studied import Studied

UP = np.array([0.0, 0.0, 1.0])


def _cell_of(seen: Studied, finding: Finding) -> Cell | None:
    return next((cell for cell in seen.solids.cells if cell.name == finding.subject), None)


def _more(seen: Studied, role: PortRole, place: Array, **fields: Any) -> Port:
    port = Port(id=free_id(seen, role), name=role, role=role, x_mm=0.0, y_mm=0.0, z_mm=0.0)
    return at_place(seen, port.model_copy(update=fields), place)


def a_vent(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """One with a roll-over valve at the cell's highest place."""
    cell = _cell_of(seen, finding)
    if cell is not None:
        vent = _more(seen, "vent", extreme_place(cell, -UP), vent=VentPath(rollover=True))
        yield Remedy(
            label=words("A vent with a roll-over valve at the highest place"),
            patch=with_ports([*seen.design.ports, vent]),
        )


def vents_on_slopes(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """A vent more at the end that stays dry, for every slope that covers those there are."""
    cell = _cell_of(seen, finding)
    if cell is None:
        return
    ports = list(seen.design.ports)
    for number, slope in enumerate(under_on_slopes(seen, cell), start=2):
        more = _more(seen, "vent", extreme_place(cell, felt(SLOPES[slope])), vent=VentPath(rollover=True))
        ports.append(more.model_copy(update={"id": f"{more.id}-{number}", "name": f"vent, {slope}"}))
    yield Remedy(
        label=words("A vent more at the end that is high then, joined with the other"), patch=with_ports(ports)
    )


def a_pickup(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """One at the cell's lowest place."""
    cell = _cell_of(seen, finding)
    if cell is not None:
        more = _more(seen, "pickup", extreme_place(cell, UP))
        yield Remedy(label=words("A pickup at the lowest place"), patch=with_ports([*seen.design.ports, more]))


def a_filler(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """One in the cell's lid, bonded."""
    cell = _cell_of(seen, finding)
    if cell is not None:
        more = _more(seen, "filler", extreme_place(cell, -UP), neck=NeckPath(bonded=True))
        yield Remedy(label=words("A filler in its lid, bonded"), patch=with_ports([*seen.design.ports, more]))


def an_overflow(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """Make a vent the overflow, or put one at the top."""
    vent = next((port for port in seen.design.ports if port.role == "vent"), None)
    if vent is not None:
        label = words("Make {name} the overflow to the main tank", name=vent.name)
        yield Remedy(label=label, patch=with_port(seen, vent.id, role="overflow"))
    more = _more(seen, "overflow", extreme_place(seen.solids.cells[0], -UP), vent=VentPath())
    yield Remedy(label=words("An overflow at the top"), patch=with_ports([*seen.design.ports, more]))


def a_return(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """A return under the top."""
    high = extreme_place(seen.solids.cells[0], -UP)
    more = _more(seen, "return", high - 0.15 * seen.solids.inner_body.size[2] * UP)
    yield Remedy(label=words("A return below the top"), patch=with_ports([*seen.design.ports, more]))


def rolled_over(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Fit the valve."""
    port = port_of(seen, finding)
    vent = (port.vent or VentPath()).model_dump(mode="json") | {"rollover": True}
    yield Remedy(label=words("A roll-over valve in {name}", name=port.name), patch=with_port(seen, port.id, vent=vent))


def bonded(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Fit the strap."""
    port = port_of(seen, finding)
    neck = (port.neck or NeckPath()).model_dump(mode="json") | {"bonded": True}
    yield Remedy(
        label=words("A bonding strap from {name} to the chassis", name=port.name),
        patch=with_port(seen, port.id, neck=neck),
    )


def unblinded(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Open it, or call it a spare."""
    port = port_of(seen, finding)
    yield Remedy(label=words("Open {name}", name=port.name), patch=with_port(seen, port.id, capped=False))
    yield Remedy(label=words("Make {name} a spare", name=port.name), patch=with_port(seen, port.id, role="spare"))


def driven(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Give it a pump, or a return that drives it."""
    port = port_of(seen, finding)
    yield Remedy(
        label=words("A pump of its own for {name}", name=port.name), patch=with_port(seen, port.id, pumped=True)
    )
    yield from a_return(seen, finding)


def parted(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """A partition across the middle, whichever way the tank is longer."""
    long = 0 if seen.solids.body.size[0] >= seen.solids.body.size[1] else 1
    wall = Partition(
        id=unused("partition", [feature.id for feature in seen.shell.features]),
        name="partition between the fuels",
        axis="x" if long == 0 else "y",
        at_mm=round(seen.solids.body.size[long] / 2, 1),
    )
    features = [feature.model_dump(mode="json") for feature in (*seen.shell.features, wall)]
    yield Remedy(label=words("A partition across the middle"), patch={"shell": {"features": features}})


def kept_apart(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Close what leads across; give every cell a return of its own."""
    port = port_of(seen, finding)
    if port.role != "return":
        label = words("Close {name} blind, as a spare", name=port.name)
        yield Remedy(label=label, patch=with_port(seen, port.id, role="spare", capped=True))
        return
    ports = list(seen.design.ports)
    for cell in seen.solids.cells:
        if not in_cell(seen, cell, [p for p in seen.design.ports if p.role == "return" and not p.capped]):
            name = f"return, {cell.name}"[:80]
            more = _more(seen, "return", extreme_place(cell, -UP)).model_copy(update={"name": name})
            ports.append(more.model_copy(update={"id": unused("return", [p.id for p in ports])}))
    yield Remedy(label=words("A return of its own in each cell"), patch=with_ports(ports))
