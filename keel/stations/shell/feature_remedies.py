"""What puts wells, sumps, reliefs and partitions right."""

from collections.abc import Iterator
from typing import Any

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.features import Sump, Well
from keel.design.ports import Port
from keel.findings.edits import OFF_WALL_MM, at_place, extreme_place, free_id, with_ports
from keel.findings.finding import Finding, Patch, Remedy
from keel.studies.liquid.draining import LEVEL
from keel.studies.result import words
from keel.studies.space.gap import needed_mm


def _with_feature(tank: TankAnalysis, name: str, **fields: Any) -> Patch:
    features = [f.model_dump(mode="json") | (fields if f.id == name else {}) for f in tank.shell.features]
    return {"shell": {"features": features}}


def _mouth(tank: TankAnalysis, name: str) -> Well | Sump | None:
    found = next((f for f in tank.shell.features if f.id == name), None)
    return found if isinstance(found, Well | Sump) else None


def _edges(tank: TankAnalysis, one: Well | Sump) -> list[tuple[str, str, float]]:
    """For each edge of a roof or floor face: its name, the field that moves the mouth, and the value at the edge."""
    size = tank.solids.body.size
    wide = one.long_mm if one.form == "round" else one.wide_mm
    return [
        ("rear", "a_mm", 0.0),
        ("front", "a_mm", size[0] - one.long_mm),
        ("right", "b_mm", 0.0),
        ("left", "b_mm", size[1] - wide),
    ]


def shed_water(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Move a well to the nearest edge, or drain it."""
    well = _mouth(tank, finding.subject)
    if well is None:
        return
    if well.form == "box":
        for edge, field, at in sorted(_edges(tank, well), key=lambda e: abs(getattr(well, e[1]) - e[2]))[:2]:
            moved = abs(getattr(well, field) - at)
            yield Remedy(
                label=words("Move {name} {move_mm} to the {edge} edge", name=well.name, move_mm=moved, edge=edge),
                patch=_with_feature(tank, well.id, **{field: at}),
            )
    yield Remedy(label=words("Lead a drain tube out of it"), patch=_with_feature(tank, well.id, drain=True))


def wider_land(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Move it to the edge, or leave a strip that can be welded."""
    one = _mouth(tank, finding.subject)
    if one is None or (isinstance(one, Well) and one.face not in ("roof", "floor")):
        return
    edge, field, at = min(_edges(tank, one), key=lambda e: abs(getattr(one, e[1]) - e[2]))
    land = tank.workshop.rules.land_mm
    if one.form == "box":
        yield Remedy(
            label=words("Take {name} to the {edge} edge", name=one.name, edge=edge),
            patch=_with_feature(tank, one.id, **{field: at}),
        )
    inward = land if at == 0 else at - land
    yield Remedy(
        label=words("Leave a strip of {land_mm}", land_mm=land), patch=_with_feature(tank, one.id, **{field: inward})
    )


def no_sliver(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Take a roof well to the wall it nearly meets."""
    well = _mouth(tank, finding.subject)
    if not isinstance(well, Well) or well.face != "roof":
        return
    for edge, field, at in _edges(tank, well):
        if 0 < abs(getattr(well, field) - at) < 3 * tank.workshop.rules.sliver_mm:
            yield Remedy(
                label=words("Take {name} to the {edge} edge", name=well.name, edge=edge),
                patch=_with_feature(tank, well.id, **{field: at}),
            )


def higher_sump(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Let the sump hang less deep, or put the tank higher."""
    sump, bay = _mouth(tank, finding.subject), tank.design.bay
    if sump is None or bay is None:
        return
    low = next(cost.box.low[2] for cost in tank.solids.costs if cost.id == sump.id)
    short = tank.marked(needed_mm(bay.sides.floor, tank.workshop.rules) - low)
    if sump.deep_mm - short > 2 * tank.shell.feature_wall_mm:
        yield Remedy(
            label=words("Let {name} hang {less_mm} less", name=sump.name, less_mm=short),
            patch=_with_feature(tank, sump.id, deep_mm=sump.deep_mm - short),
        )
    yield Remedy(
        label=words("Put the tank {up_mm} higher", up_mm=short), patch={"shell": {"z_mm": tank.shell.z_mm + short}}
    )


def reach_fuel(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Put the pickup at the lowest place of its cell; or a second one where the fuel stays."""
    cell = next((c for c in tank.solids.cells if c.name == finding.subject), None)
    if cell is None:
        return
    ours = [port for port in tank.design.ports if port.role == "pickup"]
    place = extreme_place(cell, np.array([0.0, 0.0, 1.0]))
    for port in ours[:1]:
        moved = [at_place(tank, p, place) if p.id == port.id else p for p in tank.design.ports]
        yield Remedy(label=words("Move {name} to the lowest place", name=port.name), patch=with_ports(moved))
    elsewhere = [p for p in next(c for c in tank[LEVEL] if c.cell == cell.name).pools if not p.own]
    for pool in sorted(elsewhere, key=lambda p: -p.litres)[:1]:
        spot = np.array([pool.place.x, pool.place.y, min(pool.faces[2::3]) + OFF_WALL_MM])
        second = Port(id=free_id(tank, "pickup"), name="second pickup", role="pickup", x_mm=0.0, y_mm=0.0, z_mm=0.0)
        label = words("A second pickup in the pool that holds {pool_l}", pool_l=pool.litres)
        yield Remedy(label=label, patch=with_ports([*tank.design.ports, at_place(tank, second, spot)]))


def let_air_out(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Open the vent at the highest place of its cell."""
    cell = next((c for c in tank.solids.cells if c.name == finding.subject), None)
    vents = [port for port in tank.design.ports if port.role == "vent"]
    if cell is None:
        return
    place = extreme_place(cell, np.array([0.0, 0.0, -1.0]))
    if vents:
        moved = [at_place(tank, p, place) if p.id == vents[0].id else p for p in tank.design.ports]
        yield Remedy(label=words("Open {name} at the highest place", name=vents[0].name), patch=with_ports(moved))
    more = Port(id=free_id(tank, "vent"), name="vent", role="vent", x_mm=0.0, y_mm=0.0, z_mm=0.0)
    yield Remedy(
        label=words("A vent more, at the highest place"),
        patch=with_ports([*tank.design.ports, at_place(tank, more, place)]),
    )
