"""Axis-aligned boxes, and the box shell as plates, inside and lips."""

from dataclasses import dataclass
from math import pi
from typing import Literal

import numpy as np

from keel.design.shell import BoxShell
from keel.design.workshop import HouseRules

Triple = tuple[float, float, float]
AXES = ("x", "y", "z")
END_NAMES = (("rear", "front"), ("right", "left"), ("lower", "upper"))
"""What the low and the high end along each axis are called."""
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
        """Content [mm³]; zero for a box turned inside out."""
        length, width, height = (max(0.0, side) for side in self.size)
        return length * width * height

    def grown(self, low: Triple, high: Triple) -> "Cuboid":
        """The box with each low face moved out by `low` and each high face by `high` [mm]."""
        return Cuboid(
            (self.low[0] - low[0], self.low[1] - low[1], self.low[2] - low[2]),
            (self.high[0] + high[0], self.high[1] + high[1], self.high[2] + high[2]),
        )

    def moved(self, by: Triple) -> "Cuboid":
        """The box moved along each axis [mm]."""
        return self.grown((-by[0], -by[1], -by[2]), by)


def cuboid_round(points: "np.ndarray[tuple[int, int], np.dtype[np.float64]]") -> Cuboid:
    """The box round points of shape (n, 3) [mm].

    Parameters
    ----------
    points : ndarray
        At least one [mm].

    Returns
    -------
    Cuboid
        Low and high corner [mm].
    """
    low, high = points.min(axis=0), points.max(axis=0)
    return Cuboid((float(low[0]), float(low[1]), float(low[2])), (float(high[0]), float(high[1]), float(high[2])))


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
    welded : frozenset of int
        Corners of the wrapped section that are welded rather than bent.
    bent_ends : int
        Ends that the floor is bent up to.
    flange : float
        Outside height of the pans' flanges.
    """

    body: Cuboid
    inner: Cuboid
    overall: Cuboid
    wrap: int
    thickness: float
    end_thickness: float
    radius: float
    welded: frozenset[int]
    bent_ends: int
    flange: float

    @property
    def across(self) -> int:
        """The level axis that the wrapper goes round, as an index of x, y, z."""
        return 1 - self.wrap

    @property
    def lip(self) -> float:
        """How far the wrapper stands out beyond each end plate [mm]."""
        return self.flange - self.end_thickness

    @property
    def corner_loss_mm2(self) -> float:
        """Area that the bends' radii take from the wrapped section [mm²]: (1 − π/4) r² a bend."""
        return (4 - len(self.welded)) * (1 - pi / 4) * self.radius**2

    @property
    def ends_loss_mm3(self) -> float:
        """What the radii of ends bent up take [mm³]: (1 − π/4) r² along each.

        Where the floor is bent up to all four sides the radii meet in its corners, and what they take there is counted
        once: r³ (5/3 − π/2), the overlap of two quarter rounds at right angles (derived).
        """
        r = self.radius
        met = len({0, 1} - self.welded) * r**3 * (5 / 3 - pi / 2)
        return self.bent_ends * ((1 - pi / 4) * r**2 * self.inner.size[self.across] - met)

    @property
    def volume_mm3(self) -> float:
        """Brimful volume between the plates [mm³], corner radii counted, features not."""
        size = self.inner.size
        return size[self.wrap] * (size[self.across] * size[2] - self.corner_loss_mm2) - self.ends_loss_mm3


def flange_of(shell: BoxShell, typed: float | None, rules: HouseRules) -> float:
    """Outside height of the end pans' flanges [mm].

    The typed height; else the house rule, but never less than the bend itself takes
    (thickness + inside radius).

    Parameters
    ----------
    shell : BoxShell
        The shell.
    typed : float, optional
        Height that the design names [mm]; None for the usual one.
    rules : HouseRules
        House rules.

    Returns
    -------
    float
        Height [mm].
    """
    if typed is not None:
        return typed
    return max(rules.flange_mm, shell.end_wall_mm + shell.bend_radius_mm)


def box_solid(shell: BoxShell, flange_mm: float, making: str = "lid") -> BoxSolid:
    """Work a box shell out into its solids.

    Parameters
    ----------
    shell : BoxShell
        Sizes over or between the plates [mm].
    flange_mm : float
        Outside height of the end pans' flanges [mm]. The flanges turn outward, so the
        wrapper stands out as a lip of flange − thickness beyond each end plate.
    making : str
        How it is put together, by its scheme and seam.

    Returns
    -------
    BoxSolid
    """
    wrap = AXES.index(shell.wrap_axis)
    walls = [shell.thickness_mm] * 3
    walls[wrap] = shell.end_wall_mm
    more = [2 * wall if shell.measured == "inside" else 0.0 for wall in walls]
    low = (shell.x_mm, shell.y_mm, shell.z_mm)
    sizes = (shell.length_mm + more[0], shell.width_mm + more[1], shell.height_mm + more[2])
    body = Cuboid(low, (low[0] + sizes[0], low[1] + sizes[1], low[2] + sizes[2]))
    inward = (-walls[0], -walls[1], -walls[2])
    lip = flange_mm - shell.end_wall_mm
    outward = (lip, 0.0, 0.0) if wrap == 0 else (0.0, lip, 0.0)
    return BoxSolid(
        body=body,
        inner=body.grown(inward, inward),
        overall=body.grown(outward, outward),
        wrap=wrap,
        thickness=shell.thickness_mm,
        end_thickness=shell.end_wall_mm,
        radius=shell.bend_radius_mm,
        welded=welded_corners(making),
        bent_ends=2 if making in ENDS_BENT_UP else 0,
        flange=flange_mm,
    )


WELDED: dict[str, frozenset[int]] = {
    "corner": frozenset({3}),
    "two U's": frozenset({0, 1}),
    "tray and lid": frozenset({2, 3}),
    "flat plates": frozenset({0, 1, 2, 3}),
}
"""Corners of the wrapped section that are welded, from the low side's foot round over its other foot and the lid."""
ENDS_BENT_UP = ("two U's", "tray and lid")
"""How a box is made whose floor is bent up to its ends."""


def welded_corners(making: str) -> frozenset[int]:
    """Corners of a box's section that are welded instead of bent, by how it is put together."""
    return WELDED.get("corner" if making.startswith("corner") else making, frozenset())


def has_pans(making: str) -> bool:
    """Whether a box's ends are pans set in, which leave a lip, by how it is put together."""
    return making not in WELDED and not making.endswith("flat ends")


def solid_of(shell: BoxShell, making: str, scheme_flange_mm: float | None, rules: HouseRules) -> BoxSolid:
    """The solid of a shell as its sheet scheme makes it (seam and flange counted).

    Parameters
    ----------
    shell : BoxShell
        The shell.
    making : str
        How it is put together, by its scheme and seam.
    scheme_flange_mm : float, optional
        Flange of the end pans that the design names [mm]; None for the usual one.
    rules : HouseRules
        House rules.

    Returns
    -------
    BoxSolid
        Outer and inner box.
    """
    flange = flange_of(shell, scheme_flange_mm, rules) if has_pans(making) else shell.end_wall_mm
    return box_solid(shell, flange, making)
