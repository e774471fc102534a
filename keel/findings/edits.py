"""Patches that several stations' remedies are made of."""

from collections.abc import Collection, Sequence
from itertools import count
from typing import Any

import numpy as np

from keel.analysis.parts import ENVELOPE
from keel.analysis.tank import TankAnalysis
from keel.design.base import Part
from keel.design.features import Feature, Partition
from keel.design.ports import Port
from keel.design.shell import CylinderShell
from keel.findings.finding import Finding, Patch, Remedy
from keel.reference.metals import METALS
from keel.solid.box import AXES
from keel.solid.polyhedron import Array, Waterline
from keel.solid.solids import Cell
from keel.studies.liquid.draining import inside, place_of
from keel.studies.result import words
from keel.studies.space.resize import ALONG, GROWN, SHRUNK, Direction, resized, size_along
from keel.studies.space.shift_into_bay import slid_into_bay

OFF_WALL_MM = 5.0
"""A pickup stands this far off the floor, a vent this far under the roof [mm]."""


def with_ports(ports: list[Port]) -> Patch:
    """All ports, as a patch."""
    return {"ports": [port.model_dump(mode="json") for port in ports]}


def extreme_place(cell: Cell, up: Array) -> Array:
    """A place just over the lowest of a cell, in the middle of its lowest face, shape (3,) [mm]."""
    line = Waterline(cell.mesh, up)
    for share in (0.0, 1e-3, 5e-3, 0.02):
        level = OFF_WALL_MM + share * line.depth
        loops = line.outline(min(level, line.depth / 2))
        if loops:
            widest = max(loops, key=lambda loop: float(np.ptp(loop, axis=0).max()))
            place = (widest.min(axis=0) + widest.max(axis=0)) / 2
            under_roof = np.array([place[0], place[1], cell.mesh.points[:, 2].max() - 1e-3])
            return under_roof if up[2] < 0 and inside(cell, under_roof) else np.asarray(place)
    return np.asarray(cell.mesh.points.mean(axis=0))


def lowest_spot(tank: TankAnalysis) -> tuple[float, float]:
    """Where the lowest place of the tank is, from the body's rear right corner [mm]."""
    cell = min(tank.solids.cells, key=lambda c: float(c.mesh.points[:, 2].min()))
    place = extreme_place(cell, np.array([0.0, 0.0, 1.0])) - np.array(tank.solids.datum)
    return round(float(place[0]), 3), round(float(place[1]), 3)


def at_place(tank: TankAnalysis, port: Port, place: Array) -> Port:
    """The port moved to a place; where that is by its floor or lid anyway, it goes on following them."""
    x, y, z = (round(float(v), 3) for v in place - np.array(tank.solids.datum))
    following = port.model_copy(update={"x_mm": x, "y_mm": y, "z_mm": None})
    if float(np.abs(place_of(tank.solids, following) - place).max()) < 0.01:
        return following
    return port.model_copy(update={"x_mm": x, "y_mm": y, "z_mm": z})


def free_id(tank: TankAnalysis, stem: str) -> str:
    """An id that no port has."""
    return unused(stem, [port.id for port in tank.design.ports])


def unused(stem: str, taken: Collection[str]) -> str:
    """The stem with the first number that isn't taken."""
    return next(name for name in (f"{stem}-{number}" for number in count(1)) if name not in taken)


def changed_items(items: Sequence[Part], name: str, **fields: object) -> list[Patch]:
    """A list of the document, one of it changed."""
    written = [item.model_dump(mode="json") for item in items]
    return [item | fields if item["id"] == name else item for item in written]


def port_of(tank: TankAnalysis, finding: Finding) -> Port:
    """The port that a finding is about."""
    return next(port for port in tank.design.ports if port.id == finding.subject)


def with_port(tank: TankAnalysis, name: str, **fields: Any) -> Patch:
    """All ports, one of them with some fields changed."""
    return {"ports": [p.model_dump(mode="json") | (fields if p.id == name else {}) for p in tank.design.ports]}


def cross_axes(tank: TankAnalysis) -> list[int]:
    """The axes square to the one that the shell is drawn out along."""
    return [i for i in range(3) if i != tank.solids.section.axis]


def slid(tank: TankAnalysis, axis: int, more: float) -> Patch:
    """The place of a shell that grew by so much at its high end, moved back into the free bay."""
    bounds, name = tank[ENVELOPE].bounds, f"{AXES[axis]}_mm"
    moved = slid_into_bay(tank.design, tank.workshop, axis, bounds.low[axis], bounds.size[axis] + more)
    return {name: getattr(tank.shell, name) + moved - bounds.low[axis]}


def no_thinner(feature: Feature, gauge: float) -> Feature:
    """A partition of at least that sheet; anything else as it is."""
    if isinstance(feature, Partition) and feature.thickness_mm is not None and feature.thickness_mm < gauge:
        return feature.model_copy(update={"thickness_mm": gauge})
    return feature


def of_gauge(tank: TankAnalysis, gauge: float) -> Patch:
    """The shell's fields in another thickness of sheet, with a radius that it can be bent to [mm]."""
    patch: Patch = {"thickness_mm": gauge}
    if not isinstance(tank.shell, CylinderShell):
        least = METALS[tank.shell.metal].bend_radius_least * gauge
        patch["bend_radius_mm"] = max(tank.shell.bend_radius_mm, least)
    return patch


def with_features(features: Sequence[Feature]) -> Patch:
    """All features, as a patch."""
    return {"shell": {"features": [feature.model_dump(mode="json") for feature in features]}}


def resized_tank(tank: TankAnalysis, direction: Direction, more_mm: float) -> Remedy:
    """The tank made larger in a direction, and moved back into the free bay [mm]."""
    before = size_along(tank.shell, direction)
    size = tank.marked(before + more_mm) if more_mm > 0 else -tank.marked(-(before + more_mm))
    more_mm = size - before
    patch = resized(tank.shell, direction, size)
    for axis in [ALONG[direction]] if direction in ALONG else cross_axes(tank):
        patch |= slid(tank, axis, more_mm)
    how = (GROWN if more_mm > 0 else SHRUNK)[direction]
    return Remedy(label=words("{by_mm} {how}", by_mm=abs(more_mm), how=how), patch={"shell": patch})
