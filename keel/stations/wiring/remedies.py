"""What puts wiring's findings right."""

from collections.abc import Iterator
from math import inf
from typing import Any

from keel.analysis.tank import TankAnalysis
from keel.design.wiring import Bond, Device, FuseDoes, LevelSwitchDoes, Wire
from keel.findings.finding import Finding, Patch, Remedy
from keel.reference.wires import FUSES_A, MAY_CARRY_A
from keel.stations.wiring.led_round import corners_round
from keel.studies.gauge.column import column_at
from keel.studies.result import words
from keel.studies.wiring.bonds import BONDING, CHASSIS
from keel.studies.wiring.lamps import LEVELS
from keel.studies.wiring.runs import WIRE_RUNS
from keel.studies.wiring.wired import WIRED
from keel.wiring.capacity import carries
from keel.wiring.fuses import fuse_for


def wiring_patch(**changed: Any) -> Patch:
    """A patch of the wiring's lists."""
    return {"wiring": {name: [one.model_dump(mode="json") for one in items] for name, items in changed.items()}}


def _wire(tank: TankAnalysis, finding: Finding) -> Wire | None:
    name = finding.subject.split(".")[0]
    return next((wire for wire in tank.design.wiring.wires if wire.id == name), None)


def _with_wires(tank: TankAnalysis, changed: dict[str, Wire]) -> Patch:
    return wiring_patch(wires=[changed.get(wire.id, wire) for wire in tank.design.wiring.wires])


def _changed(tank: TankAnalysis, wire: Wire, **fields: Any) -> Patch:
    return _with_wires(tank, {wire.id: wire.model_copy(update=fields)})


def fuel_proof(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Covered with what fuel doesn't touch."""
    wire = _wire(tank, finding)
    if wire is not None:
        label = words("Make {wire} of wire covered with fluoropolymer", wire=wire.name)
        yield Remedy(label, _changed(tank, wire, insulation="fluoropolymer"))


def tied(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Tied down all along."""
    wire = _wire(tank, finding)
    if wire is not None:
        yield Remedy(words("Tie {wire} down all along", wire=wire.name), _changed(tank, wire, supported=True))


def in_grommets(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A grommet in every hole."""
    wire = _wire(tank, finding)
    if wire is not None:
        label = words("Put a grommet in every hole that {wire} goes through", wire=wire.name)
        yield Remedy(label, _changed(tank, wire, grommets=True))


def thicker(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The smallest that bears what flows and the fuse before it."""
    wire = _wire(tank, finding)
    figures = tank[WIRED].wire(wire.id) if wire else None
    if wire is None or figures is None:
        return
    current = max(figures.current_a or 0.0, figures.fuse_a or 0.0)
    size = next((mm2 for mm2 in MAY_CARRY_A if carries(mm2, wire.insulation, wire.air_c) >= current), None)
    if size is not None:
        label = words("Make {wire} of {area_wire}", wire=wire.name, area_wire=size)
        yield Remedy(label, _changed(tank, wire, area_mm2=size))


def loses_less(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Sizes by current, length and drop instead of those that are typed."""
    load = next((one for one in tank[WIRED].loads if one.id == finding.subject), None)
    if load is None:
        return
    typed = [wire for wire in tank.design.wiring.wires if wire.id in load.wires and wire.area_mm2 is not None]
    if typed:
        free = {wire.id: wire.model_copy(update={"area_mm2": None}) for wire in typed}
        label = words("Choose the sizes of {wires} by length and drop", wires=", ".join(wire.name for wire in typed))
        yield Remedy(label, _with_wires(tank, free))


def led_round(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Round what is in its way."""
    wire = _wire(tank, finding)
    if wire is None:
        return
    bare = wire.model_copy(update={"corners": ()})
    straight = tank.design.wiring.model_copy(
        update={"wires": tuple(bare if one.id == wire.id else one for one in tank.design.wiring.wires)}
    )
    runs = tank.of(tank.design.model_copy(update={"wiring": straight}))[WIRE_RUNS]
    run = next((one for one in runs.wires if one.id == wire.id), None)
    corners = corners_round(tank, wire, run) if run else None
    if corners is not None:
        yield Remedy(words("Lead {wire} round it", wire=wire.name), _changed(tank, wire, corners=corners))


def _with_device(tank: TankAnalysis, device: Device) -> Patch:
    return wiring_patch(devices=[device if one.id == device.id else one for one in tank.design.wiring.devices])


def fuse_by_current(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The smallest on the shelf that bears what flows."""
    device = tank.design.wiring.device(finding.subject)
    flowing = next((one.current_a for one in tank[WIRED].fuses if one.id == finding.subject), 0.0)
    fuse = fuse_for(flowing, inf)
    if device is not None and fuse is not None and isinstance(device.does, FuseDoes):
        does = device.does.model_copy(update={"rating_a": fuse.rating_a})
        label = words("{name} of {rating_a}", name=device.name, rating_a=fuse.rating_a)
        yield Remedy(label, _with_device(tank, device.model_copy(update={"does": does})))


def fused_rightly(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A thicker wire, or the largest fuse that the wire bears, where that still bears what flows."""
    yield from thicker(tank, finding)
    wire = _wire(tank, finding)
    figures = tank[WIRED].wire(wire.id) if wire else None
    if wire is None or figures is None:
        return
    for fuse in tank[WIRED].fuses:
        device = tank.design.wiring.device(fuse.id)
        fits = [size for size in FUSES_A if 1.25 * fuse.current_a <= size <= figures.carries_a]
        if device is None or fuse.rating_a != figures.fuse_a or not fits or not isinstance(device.does, FuseDoes):
            continue
        does = device.does.model_copy(update={"rating_a": fits[-1]})
        label = words("{name} of {rating_a}", name=device.name, rating_a=fits[-1])
        yield Remedy(label, _with_device(tank, device.model_copy(update={"does": does})))


def bonded(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A strap from it to the chassis."""
    bonds = tank.design.wiring.bonds
    piece = next((one for one in tank[BONDING].pieces if one.key.replace(":", "-") == finding.subject), None)
    if piece is not None:
        number = next(n for n in range(1, 99) if f"bond-{n}" not in {bond.id for bond in bonds})
        bond = Bond(id=f"bond-{number}", name=f"bond {number}", start=piece.key, end=CHASSIS)
        yield Remedy(
            words("Bonding strap from {name} to the chassis", name=piece.name), wiring_patch(bonds=[*bonds, bond])
        )


def at_reserve(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The switch where the reserve is left."""
    device = tank.design.wiring.device(finding.subject)
    level = next((one for one in tank[LEVELS] if one.id == finding.subject), None)
    if device is None or level is None or level.reserve_l is None or not isinstance(device.does, LevelSwitchDoes):
        return
    column = column_at(tank.solids, device.x_mm, device.y_mm)
    if column is not None:
        height = round(column[1].height(min(level.reserve_l, column[1].brimful_l)), 1)
        does = device.does.model_copy(update={"height_mm": height})
        label = words("Set {name} to {height_mm}", name=device.name, height_mm=height)
        yield Remedy(label, _with_device(tank, device.model_copy(update={"does": does})))
