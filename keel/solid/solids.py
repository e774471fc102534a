"""A shell worked out: its solids, cells, pots, plates and what each feature costs."""

from dataclasses import dataclass, field
from functools import cached_property

from manifold3d import Manifold

from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.solid.box import Cuboid, Triple, cuboid_round
from keel.solid.plates import Plate
from keel.solid.polyhedron import Mesh
from keel.solid.pots import PotPlace
from keel.solid.section import Section
from keel.solid.shapes import mesh_of

ROUND_MM = 0.2
"""A chord's corner stands off its round by less than this [mm]."""
AnyShell = BoxShell | ProfileShell | CylinderShell


@dataclass(frozen=True)
class FeatureCost:
    """What one feature does, those that are made before it already made: by kind, then as they follow each other."""

    id: str
    name: str
    kind: str
    litres: float
    metal_mm3: float
    weld_mm: float
    box: Cuboid
    bends: int = 0
    """How many of its edges are bent instead of welded."""


@dataclass(frozen=True)
class Cell:
    """One liquid-tight volume."""

    name: str
    solid: Manifold
    mesh: Mesh


@dataclass(frozen=True)
class Solids:
    """A shell worked out [mm, vehicle axes].

    Attributes
    ----------
    outer, inner : Manifold
        The shell as seen from outside, and the space for liquid.
    cells : list of Cell
        The inner space by liquid-tight volume, low ends first.
    body : Cuboid
        Bounding box of the body without features: the datum of all features and ports.
    """

    shell: AnyShell
    section: Section
    outer: Manifold
    inner: Manifold
    cells: list[Cell]
    body: Cuboid
    inner_body: Cuboid
    body_inner_l: float
    pots: list[PotPlace] = field(default_factory=list)
    plates: dict[str, Plate] = field(default_factory=dict)
    """Partitions and baffles as they are before the shell trims them, by id."""
    costs: list[FeatureCost] = field(default_factory=list)

    @property
    def datum(self) -> Triple:
        """Rear, right, lower corner of the body [mm]."""
        return self.body.low

    @cached_property
    def outer_mesh(self) -> Mesh:
        """The outside as a mesh."""
        return mesh_of(self.outer)

    @cached_property
    def bounds(self) -> Cuboid:
        """The box round everything of the shell, sumps included, lips not."""
        mesh = cuboid_round(self.outer_mesh.points)
        low = [b if abs(b - m) < ROUND_MM else m for b, m in zip(self.body.low, mesh.low, strict=True)]
        high = [b if abs(b - m) < ROUND_MM else m for b, m in zip(self.body.high, mesh.high, strict=True)]
        return Cuboid((low[0], low[1], low[2]), (high[0], high[1], high[2]))

    @property
    def brimful_l(self) -> float:
        """Inner volume of all cells [L]."""
        return sum(cell.mesh.volume_mm3 for cell in self.cells) / 1e6

    @property
    def metal_mm3(self) -> float:
        """Volume of the shell's metal, flanges and lips not counted [mm³]; a bag counts as metal."""
        return float(self.outer.volume() - self.inner.volume())
