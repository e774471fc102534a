"""The shell with everything that stands out from it: lips of the wrapper, and what stands at its ports."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from manifold3d import Manifold, OpType

from keel.design.ports import Port
from keel.solid.box import Cuboid
from keel.solid.polyhedron import Mesh
from keel.solid.shapes import drawn_out, mesh_of
from keel.solid.solids import Solids
from keel.solid.standing import StandingPart, standing


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
    at_ports : list of StandingPart
        Those of the parts that stand at ports; they come last.
    """

    parts: list[Manifold]
    bounds: Cuboid
    shell_mesh: Mesh
    at_ports: list[StandingPart]

    @cached_property
    def solid(self) -> Manifold:
        """All of it as one solid."""
        return Manifold.batch_boolean(self.parts, OpType.Add)

    def gap_to(self, solid: Manifold, most_mm: float) -> float:
        """The nearest distance to a solid, or `most_mm` where that is less [mm]."""
        return min(float(part.min_gap(solid, most_mm)) for part in self.parts)

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
        What stands out at each counts, with the hose on it.

    Returns
    -------
    Envelope
        All that has to fit into the bay.
    """
    section, parts = solids.section, [solids.outer]
    low, high = list(solids.bounds.low), list(solids.bounds.high)
    if lip_mm > 0:
        start, end = section.span
        parts.append(drawn_out(section.outer, section.axis, start - lip_mm, start))
        parts.append(drawn_out(section.outer, section.axis, end, end + lip_mm))
        low[section.axis], high[section.axis] = low[section.axis] - lip_mm, high[section.axis] + lip_mm
    at_ports = [part for port in ports for part in standing(solids, port)]
    for part in at_ports:
        parts.append(part.solid)
        box = part.solid.bounding_box()
        low = [min(low[i], box[i]) for i in range(3)]
        high = [max(high[i], box[i + 3]) for i in range(3)]
    bounds = Cuboid((low[0], low[1], low[2]), (high[0], high[1], high[2]))
    return Envelope(parts, bounds, solids.outer_mesh, at_ports)
