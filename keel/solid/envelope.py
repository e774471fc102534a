"""The shell with everything that stands out from it: lips of the wrapper, and what stands on the lid."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from manifold3d import Manifold

from keel.design.ports import Port
from keel.solid.box import Cuboid
from keel.solid.build import Solids
from keel.solid.polygon import circle
from keel.solid.polyhedron import Mesh
from keel.solid.shapes import drawn_out, mesh_of


@dataclass(frozen=True)
class Envelope:
    """What has to clear the bay [mm].

    Attributes
    ----------
    solid : Manifold
    bounds : Cuboid
        True bounds: a chord's corner doesn't stand out beyond its round.
    """

    solid: Manifold
    bounds: Cuboid

    @cached_property
    def mesh(self) -> Mesh:
        """The surface of it all."""
        return mesh_of(self.solid)


def envelope_of(solids: Solids, lip_mm: float, ports: Sequence[Port]) -> Envelope:
    """The envelope of a shell.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    lip_mm : float
        How far the wrapper stands out beyond each end plate.
    ports : sequence of Port
        Each with a height standing is taken as an upright cylinder on the lid.
    """
    section, solid = solids.section, solids.outer
    low, high = list(solids.bounds.low), list(solids.bounds.high)
    if lip_mm > 0:
        start, end = section.span
        solid += drawn_out(section.outer, section.axis, start - lip_mm, start) + drawn_out(
            section.outer, section.axis, end, end + lip_mm
        )
        low[section.axis], high[section.axis] = low[section.axis] - lip_mm, high[section.axis] + lip_mm
    for port in ports:
        if port.stands_mm and port.across_mm:
            stand = standing(solids, port)
            solid += stand
            box = stand.bounding_box()
            low = [min(low[i], box[i]) for i in range(3)]
            high = [max(high[i], box[i + 3]) for i in range(3)]
    return Envelope(solid, Cuboid((low[0], low[1], low[2]), (high[0], high[1], high[2])))


def standing(solids: Solids, port: Port) -> Manifold:
    """What stands on the lid over a port, as an upright cylinder from the lid there."""
    x, y, z = (solids.datum[i] + v for i, v in enumerate((port.x_mm, port.y_mm, port.z_mm)))
    lid = lid_height(solids, x, y, z)
    ring = np.array([x, y]) + circle(port.across_mm / 2)
    return drawn_out(ring, 2, lid, lid + port.stands_mm)


def lid_height(solids: Solids, x: float, y: float, z: float) -> float:
    """Height of the outside straight above a place [mm]; the place's own where nothing is above."""
    top = solids.bounds.high[2] + 1.0
    column = solids.outer ^ Manifold.cube([0.02, 0.02, top - z + 1e-3]).translate([x - 0.01, y - 0.01, z - 1e-3])
    return float(column.bounding_box()[5]) if not column.is_empty() else z
