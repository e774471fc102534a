"""How much the shell holds: brimful, ullage, rated — and the size for a wanted capacity."""

from dataclasses import dataclass
from math import exp, pi
from typing import Literal

from keel.design.brief import Brief
from keel.design.shell import BoxShell
from keel.design.workshop import HouseRules
from keel.reference.fuels import FUELS
from keel.reference.metals import METALS
from keel.reference.units import MM3_PER_LITRE
from keel.solid.box import BoxSolid
from keel.studies.result import Words, words

Dimension = Literal["length_mm", "width_mm", "height_mm"]
DIMENSIONS: tuple[Dimension, ...] = ("length_mm", "width_mm", "height_mm")


@dataclass(frozen=True, slots=True)
class CapacityLine:
    """One step of the sum, so that a doubter can follow it by hand."""

    what: str
    litres: float
    how: Words


@dataclass(frozen=True, slots=True)
class Capacity:
    """Litres the shell holds."""

    brimful_l: float
    ullage_fraction: float
    ullage_l: float
    rated_l: float
    lines: list[CapacityLine]
    not_counted: list[CapacityLine]


def ullage_fraction(expansion_per_k: float, rise_k: float, shell_expansion_per_k: float, least: float) -> float:
    """Share of the brimful volume to leave empty for warming.

    Parameters
    ----------
    expansion_per_k : float
        Fuel's volume expansion β [1/K].
    rise_k : float
        Warming to allow for, ΔT [K].
    shell_expansion_per_k : float
        Shell metal's linear expansion α [1/K]; 0 leaves the shell's own growth out.
    least : float
        The share never goes below this.

    Returns
    -------
    float
        max(least, exp(β ΔT) − 1 − ((1 + α ΔT)³ − 1)).

    Notes
    -----
    Fuel grows by exp(β ΔT) (β constant), the shell's inside by (1 + α ΔT)³.
    """
    fuel = exp(expansion_per_k * rise_k) - 1
    shell = (1 + shell_expansion_per_k * rise_k) ** 3 - 1
    return max(least, fuel - shell)


def ullage_for(brief: Brief, shell: BoxShell, rules: HouseRules) -> float:
    """Ullage fraction for a brief's fuel in a shell's metal by the house rules."""
    return ullage_fraction(
        FUELS[brief.fuel].expansion_per_k, rules.ullage_rise_k, METALS[shell.metal].expansion_per_k, rules.ullage_least
    )


def capacity(brief: Brief, shell: BoxShell, solid: BoxSolid, rules: HouseRules) -> Capacity:
    """Brimful and rated capacity of a box shell.

    Parameters
    ----------
    brief, shell, rules
        Fuel, metal and the ullage rule.
    solid : BoxSolid
        The shell worked out.

    Returns
    -------
    Capacity
        Litres, with each step of the sum.
    """
    brimful = solid.volume_mm3 / MM3_PER_LITRE
    fraction = ullage_for(brief, shell, rules)
    ullage = brimful * fraction
    return Capacity(
        brimful_l=brimful,
        ullage_fraction=fraction,
        ullage_l=ullage,
        rated_l=brimful - ullage,
        lines=[*_inside_lines(solid), _ullage_line(ullage, fraction, brief, rules)],
        not_counted=[_groove_line(solid)],
    )


def _inside_lines(solid: BoxSolid) -> list[CapacityLine]:
    length, width, height = solid.inner.size
    radii = solid.corner_loss_mm2 * solid.inner.size[solid.wrap]
    bends = 4 - solid.sharp_corners
    return [
        CapacityLine(
            what="Between the plates",
            litres=solid.inner.volume_mm3 / MM3_PER_LITRE,
            how=words(
                "{length_mm} × {width_mm} × {height_mm} inside", length_mm=length, width_mm=width, height_mm=height
            ),
        ),
        CapacityLine(
            what="Corner radii",
            litres=-radii / MM3_PER_LITRE,
            how=words(
                "{bends} bends, each (1 − π/4) × ({radius_sheet})² × {run_mm}",
                bends=bends,
                radius_sheet=solid.radius,
                run_mm=solid.inner.size[solid.wrap],
            ),
        ),
    ]


def _ullage_line(ullage: float, fraction: float, brief: Brief, rules: HouseRules) -> CapacityLine:
    return CapacityLine(
        what="Ullage",
        litres=-ullage,
        how=words(
            "{share_pct} of brimful: {fuel} warmed by {rise_k}, the shell's own growth taken off; "
            "never under {least_pct} (house rules)",
            share_pct=fraction,
            fuel=brief.fuel,
            rise_k=rules.ullage_rise_k,
            least_pct=rules.ullage_least,
        ),
    )


def _groove_line(solid: BoxSolid) -> CapacityLine:
    across, height = solid.inner.size[solid.across], solid.inner.size[2]
    radius = solid.radius + solid.thickness
    groove = (1 - pi / 4) * radius**2 * 2 * (across + height) * 2
    return CapacityLine(
        what="Groove behind the end pans' bends",
        litres=groove / MM3_PER_LITRE,
        how=words(
            "(1 − π/4) × ({radius_sheet})² round both pans; left out, so the figure errs low", radius_sheet=radius
        ),
    )


def size_for_brimful(shell: BoxShell, solid: BoxSolid, brimful_l: float, dimension: Dimension) -> float:
    """What one dimension has to be for a wanted brimful capacity, the others kept.

    Parameters
    ----------
    shell : BoxShell
        Tells how sizes are measured (over or between the plates).
    solid : BoxSolid
        The same shell worked out.
    brimful_l : float
        Wanted brimful capacity [L].
    dimension : str
        `length_mm`, `width_mm` or `height_mm`.

    Returns
    -------
    float
        The dimension as the shell measures it [mm].

    Notes
    -----
    The volume is straight-line in each dimension: V = a · (b · c − loss), with a along
    the wrapper's axis and loss the area its radii take.
    """
    volume, size = brimful_l * MM3_PER_LITRE, solid.inner.size
    axis = DIMENSIONS.index(dimension)
    if axis == solid.wrap:
        inside = volume / (size[solid.across] * size[2] - solid.corner_loss_mm2)
    else:
        other = 2 if axis == solid.across else solid.across
        inside = (volume / size[solid.wrap] + solid.corner_loss_mm2) / size[other]
    return inside + (2 * solid.thickness if shell.measured == "outside" else 0.0)
