"""Remedies for what a tank lacks or carries that is dangerous."""

from collections.abc import Iterator
from typing import Any

import numpy as np

from keel.design.ports import HoseName, NeckPath, Port, PortRole, SealName, VentPath
from keel.findings.feature_remedies import at_place, extreme_place, free_id, with_ports
from keel.findings.finding import Finding, Patch, Remedy
from keel.findings.hazard_rules import SLOPES, fuels_of, under_on_slopes
from keel.findings.port_remedies import port_of, with_port
from keel.reference.compatibility import HOSES, OF_METAL, OF_RUBBER
from keel.reference.metals import METALS, MetalName
from keel.solid.build import Cell
from keel.solid.polyhedron import Array
from keel.studies.attitude import felt
from keel.studies.result import words
from keel.studies.studied import Studied

UP = np.array([0.0, 0.0, 1.0])
SEALS: tuple[SealName, ...] = ("nitrile", "fluoroelastomer", "PTFE")
"""Seals and hoses that are offered, the dearest last."""
HOSES_OFFERED: tuple[HoseName, ...] = ("nitrile hose", "fluoropolymer-lined hose", "PTFE hose")
METALS_OFFERED: tuple[MetalName, ...] = ("stainless 304L", "5052-H32")


def _cell_of(seen: Studied, finding: Finding) -> Cell | None:
    name = finding.key.split(":", 1)[1]
    return next((cell for cell in seen.solids.cells if cell.name == name), None)


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


def other_metal(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """A metal that bears all the fuels."""
    for metal in METALS_OFFERED:
        if metal != seen.shell.metal and not any((METALS[metal].family, fuel) in OF_METAL for fuel in fuels_of(seen)):
            yield Remedy(label=words("Make it of {metal}", metal=metal), patch={"shell": {"metal": metal}})


def other_rubber(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """The first seal or hose that all the fuels leave alone."""
    _, name, what, _ = finding.key.split(":")
    port = next(port for port in seen.design.ports if port.id == name)
    offered: tuple[str, ...] = SEALS if what == "seal" else HOSES_OFFERED
    bears = [m for m in offered if not any((HOSES.get(m, m), fuel) in OF_RUBBER for fuel in fuels_of(seen))]
    for material in bears[:2]:
        yield Remedy(
            label=words("{material} at {name}", material=material, name=port.name),
            patch=_rubber(seen, port, what, material),
        )


def _rubber(seen: Studied, port: Port, what: str, material: str) -> Patch:
    part = "seat" if what == "seal" else "neck" if port.neck and port.neck.hose else "vent"
    now = getattr(port, part).model_dump(mode="json")
    return with_port(seen, port.id, **{part: now | {"seal" if what == "seal" else "hose": material}})


def other_lining(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """None, where the metal bears the fuel bare."""
    yield Remedy(label=words("Leave the metal bare"), patch={"inside": {"lining": None}})
