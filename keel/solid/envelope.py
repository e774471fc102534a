"""The shell with everything that stands out from it: lips of the wrapper, and what stands on the lid."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from manifold3d import Manifold, OpType

from keel.design.ports import Port
from keel.solid.box import Cuboid
from keel.solid.build import Solids
from keel.solid.polygon import circle
from keel.solid.polyhedron import Mesh
from keel.solid.shapes import drawn_out, mesh_of


@dataclass(frozen=True)
class Envelope:
    """What has to clear the bay [mm]: parts that may touch or overlap.

    Attributes
    ----------
    parts : list of Manifold
        The shell, the wrapper's lips, what stands on the lid.
    bounds : Cuboid
        True bounds: a chord's corner doesn't stand out beyond its round.
    shell_mesh : Mesh
        The first part's surface.
    """

    parts: list[Manifold]
    bounds: Cuboid
    shell_mesh: Mesh

    @cached_property
    def solid(self) -> Manifold:
        """All of it as one solid."""
        return Manifold.batch_boolean(self.parts, OpType.Add)

    @cached_property
    def mesh(self) -> Mesh:
        """The surfaces of all parts."""
        meshes = [self.shell_mesh, *(mesh_of(part) for part in self.parts[1:])]
        starts = np.cumsum([0, *(len(mesh.points) for mesh in meshes)])
        return Mesh(
            np.vstack([mesh.points for mesh in meshes]),
            np.vstack([mesh.triangles + start for mesh, start in zip(meshes, starts, strict=False)]),
        )


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
    section, parts = solids.section, [solids.outer]
    low, high = list(solids.bounds.low), list(solids.bounds.high)
    if lip_mm > 0:
        start, end = section.span
        parts.append(drawn_out(section.outer, section.axis, start - lip_mm, start))
        parts.append(drawn_out(section.outer, section.axis, end, end + lip_mm))
        low[section.axis], high[section.axis] = low[section.axis] - lip_mm, high[section.axis] + lip_mm
    for port in ports:
        if port.stands_mm and port.across_mm:
            parts.append(standing(solids, port))
            box = parts[-1].bounding_box()
            low = [min(low[i], box[i]) for i in range(3)]
            high = [max(high[i], box[i + 3]) for i in range(3)]
    return Envelope(parts, Cuboid((low[0], low[1], low[2]), (high[0], high[1], high[2])), solids.outer_mesh)


def standing(solids: Solids, port: Port) -> Manifold:
    """What stands on the lid over a port, as an upright cylinder from the lid there."""
    x, y = solids.datum[0] + port.x_mm, solids.datum[1] + port.y_mm
    lid = lid_height(solids, x, y, solids.datum[2])
    ring = np.array([x, y]) + circle(port.across_mm / 2)
    return drawn_out(ring, 2, lid, lid + port.stands_mm)


def lid_height(solids: Solids, x: float, y: float, z: float) -> float:
    """Height of the outside straight above a place [mm]; the place's own where nothing is above."""
    hits = solids.outer.ray_cast([x, y, solids.bounds.high[2] + 1.0], [x, y, z])
    return float(hits[0].position[2]) if hits else z
