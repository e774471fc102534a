"""Edits of ports and of lists that remedies share."""

from collections.abc import Collection, Sequence
from itertools import count
from typing import Any

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.base import Part
from keel.design.ports import Port
from keel.findings.finding import Finding, Patch
from keel.solid.polyhedron import Array, Waterline
from keel.solid.solids import Cell
from keel.studies.liquid.draining import inside, place_of

OFF_WALL_MM = 5.0
"""A pickup stands this far off the floor, a vent this far under the roof [mm]."""


def with_ports(ports: list[Port]) -> Patch:
    """All ports, as a patch.

    Parameters
    ----------
    ports : list of Port
        As they are to be.

    Returns
    -------
    Patch
        A merge patch.
    """
    return {"ports": [port.model_dump(mode="json") for port in ports]}


def extreme_place(cell: Cell, up: Array) -> Array:
    """A place just over the lowest of a cell, in the middle of its lowest face, shape (3,) [mm].

    Parameters
    ----------
    cell : Cell
        A separate space of the tank.
    up : ndarray
        Direction away from the ground, shape (3,).

    Returns
    -------
    ndarray
        A place in vehicle axes [mm].
    """
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
    """Where the lowest place of the tank is, from the body's rear right corner [mm].

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    (float, float)
        Forward and left of that corner [mm].
    """
    cell = min(tank.solids.cells, key=lambda c: float(c.mesh.points[:, 2].min()))
    place = extreme_place(cell, np.array([0.0, 0.0, 1.0])) - np.array(tank.solids.datum)
    return round(float(place[0]), 3), round(float(place[1]), 3)


def at_place(tank: TankAnalysis, port: Port, place: Array) -> Port:
    """The port moved to a place; where that is by its floor or lid anyway, it goes on following them.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.
    port : Port
        Any port.
    place : ndarray
        In vehicle axes, shape (3,) [mm].

    Returns
    -------
    Port
        The same port elsewhere.
    """
    x, y, z = (round(float(v), 3) for v in place - np.array(tank.solids.datum))
    following = port.model_copy(update={"x_mm": x, "y_mm": y, "z_mm": None})
    if float(np.abs(place_of(tank.solids, following) - place).max()) < 0.01:
        return following
    return port.model_copy(update={"x_mm": x, "y_mm": y, "z_mm": z})


def free_id(tank: TankAnalysis, stem: str) -> str:
    """An id that no port has.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.
    stem : str
        What the id begins with.

    Returns
    -------
    str
        The stem, with a number where it is taken.
    """
    return unused(stem, [port.id for port in tank.design.ports])


def unused(stem: str, taken: Collection[str]) -> str:
    """The stem with the first number that isn't taken.

    Parameters
    ----------
    stem : str
        What the name begins with.
    taken : collection of str
        Names in use.

    Returns
    -------
    str
        The stem and a number.
    """
    return next(name for name in (f"{stem}-{number}" for number in count(1)) if name not in taken)


def changed_items(items: Sequence[Part], name: str, **fields: object) -> list[Patch]:
    """A list of the document, one of it changed.

    Parameters
    ----------
    items : sequence of Part
        A list of the document.
    name : str
        Id of the item to change.
    **fields : object
        Its new values.

    Returns
    -------
    list of Patch
        The whole list, as documents.
    """
    written = [item.model_dump(mode="json") for item in items]
    return [item | fields if item["id"] == name else item for item in written]


def port_of(tank: TankAnalysis, finding: Finding) -> Port:
    """The port that a finding is about.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.
    finding : Finding
        With a port as its subject.

    Returns
    -------
    Port
        That port.
    """
    return next(port for port in tank.design.ports if port.id == finding.subject)


def with_port(tank: TankAnalysis, name: str, **fields: Any) -> Patch:
    """All ports, one of them with some fields changed.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.
    name : str
        Id of the port to change.
    **fields : Any
        Its new values.

    Returns
    -------
    Patch
        A merge patch.
    """
    return {"ports": [p.model_dump(mode="json") | (fields if p.id == name else {}) for p in tank.design.ports]}
