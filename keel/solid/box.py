"""The box shell as a solid: plates, inside, lips and corner radii."""

from dataclasses import dataclass
from math import pi
from typing import Literal

from keel.design.shell import BoxShell
from keel.design.workshop import HouseRules

Triple = tuple[float, float, float]
AXES = ("x", "y", "z")
Axis = Literal["x", "y", "z"]


@dataclass(frozen=True)
class Cuboid:
    """An axis-aligned box [mm] between its low and its high corner."""

    low: Triple
    high: Triple

    @property
    def size(self) -> Triple:
        """Edge lengths along x, y, z [mm]."""
        return (self.high[0] - self.low[0], self.high[1] - self.low[1], self.high[2] - self.low[2])

    @property
    def volume_mm3(self) -> float:
        """Content [mm³]; nought for a box turned inside out."""
        length, width, height = (max(0.0, side) for side in self.size)
        return length * width * height

    def grown(self, low: Triple, high: Triple) -> "Cuboid":
        """The box with each low face moved out by `low` and each high face by `high` [mm]."""
        return Cuboid(
            (self.low[0] - low[0], self.low[1] - low[1], self.low[2] - low[2]),
            (self.high[0] + high[0], self.high[1] + high[1], self.high[2] + high[2]),
        )


@dataclass(frozen=True)
class BoxSolid:
    """A box shell worked out: all lengths [mm], in vehicle axes.

    Attributes
    ----------
    body : Cuboid
        Over the plates.
    inner : Cuboid
        Between the plates: where the liquid is, but for the corner radii.
    overall : Cuboid
        Over the lips that the wrapper leaves standing beyond the inset end pans.
    radius : float
        Inside radius of the wrapper's bends.
    sharp_corners : int
        Corners of the wrapped section that are welded rather than bent (0 or 1).
    flange : float
        Outside height of the pans' flanges.
    """

    body: Cuboid
    inner: Cuboid
    overall: Cuboid
    wrap: int
    thickness: float
    radius: float
    sharp_corners: int
    flange: float

    @property
    def across(self) -> int:
        """The level axis that the wrapper goes round, as an index of x, y, z."""
        return 1 - self.wrap

    @property
    def lip(self) -> float:
        """How far the wrapper stands out beyond each end plate [mm]."""
        return self.flange - self.thickness

    @property
    def corner_loss_mm2(self) -> float:
        """Area that the bends' radii take from the wrapped section [mm²]: (1 − π/4) r² a bend."""
        return (4 - self.sharp_corners) * (1 - pi / 4) * self.radius**2

    @property
    def volume_mm3(self) -> float:
        """Brimful volume between the plates [mm³], corner radii counted."""
        size = self.inner.size
        return size[self.wrap] * (size[self.across] * size[2] - self.corner_loss_mm2)


def flange_of(shell: BoxShell, typed: float | None, rules: HouseRules) -> float:
    """Outside height of the end pans' flanges [mm].

    The typed height; else the house rule, but never less than the bend itself takes
    (thickness + inside radius).
    """
    if typed is not None:
        return typed
    return max(rules.flange_mm, shell.thickness_mm + shell.bend_radius_mm)


def box_solid(shell: BoxShell, flange_mm: float, sharp_corners: int = 0) -> BoxSolid:
    """Work a box shell out into its solids.

    Parameters
    ----------
    shell : BoxShell
        Sizes over or between the plates [mm].
    flange_mm : float
        Outside height of the end pans' flanges [mm]. The flanges turn outward, so the
        wrapper stands out as a lip of flange − thickness beyond each end plate.
    sharp_corners : int
        How many corners of the section are welded instead of bent.

    Returns
    -------
    BoxSolid
    """
    thickness = shell.thickness_mm
    more = 2 * thickness if shell.measured == "inside" else 0.0
    low = (shell.x_mm, shell.y_mm, shell.z_mm)
    sizes = (shell.length_mm + more, shell.width_mm + more, shell.height_mm + more)
    body = Cuboid(low, (low[0] + sizes[0], low[1] + sizes[1], low[2] + sizes[2]))
    wrap = AXES.index(shell.wrap_axis)
    inward = (-thickness, -thickness, -thickness)
    lip = flange_mm - thickness
    outward = (lip, 0.0, 0.0) if wrap == 0 else (0.0, lip, 0.0)
    return BoxSolid(
        body=body,
        inner=body.grown(inward, inward),
        overall=body.grown(outward, outward),
        wrap=wrap,
        thickness=thickness,
        radius=shell.bend_radius_mm,
        sharp_corners=sharp_corners,
        flange=flange_mm,
    )


def solid_of(shell: BoxShell, scheme_seam: str, scheme_flange_mm: float | None, rules: HouseRules) -> BoxSolid:
    """The solid of a shell as its sheet scheme makes it (seam and flange counted)."""
    sharp = 1 if scheme_seam.startswith("corner") else 0
    return box_solid(shell, flange_of(shell, scheme_flange_mm, rules), sharp)
