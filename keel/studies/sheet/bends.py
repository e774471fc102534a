"""Bend arithmetic: allowance, deduction, flat lengths."""

from collections.abc import Sequence
from math import radians

from keel.reference.test_strip import setback


def bend_allowance(angle_deg: float, radius_mm: float, thickness_mm: float, k: float) -> float:
    """Length of the neutral line round a bend [mm]: BA = θ (r + K t).

    Parameters
    ----------
    angle_deg : float
        Angle turned through, 0–180 (exclusive at 180).
    radius_mm, thickness_mm : float
        Inside radius and sheet thickness [mm].
    k : float
        Place of the neutral line as a share of the thickness.

    References
    ----------
    Machinery's Handbook, "Sheet metal bending". Authors differ on K: DIN 6935 makes it a function of r/t (0.65 +
    0.5 lg(r/t), halved, up to r/t = 5), shop tables 0.33 to 0.5; a strip bent in the shop's own brake beats both
    (`k_from_strip`).
    """
    return radians(angle_deg) * (radius_mm + k * thickness_mm)


def bend_deduction(angle_deg: float, radius_mm: float, thickness_mm: float, k: float) -> float:
    """What a bend takes off the sum of outside legs [mm]: BD = 2 S − BA, by the definitions of both."""
    return 2 * setback(angle_deg, radius_mm, thickness_mm) - bend_allowance(angle_deg, radius_mm, thickness_mm, k)


def flat_length(outside_legs_mm: Sequence[float], deductions_mm: Sequence[float]) -> float:
    """Flat length of a folded strip [mm]: the outside legs less each bend's deduction."""
    return sum(outside_legs_mm) - sum(deductions_mm)


def bend_lines(outside_legs_mm: Sequence[float], deductions_mm: Sequence[float]) -> list[float]:
    """Where the bends' centre lines lie on the flat, from its first edge [mm].

    Parameters
    ----------
    outside_legs_mm : sequence of float, shape (n + 1,)
        Legs to the points where the outer faces meet [mm].
    deductions_mm : sequence of float, shape (n,)
        Each bend's deduction [mm]; half of it is taken from the leg on either side.

    Returns
    -------
    list of float, shape (n,)
    """
    lines, along = [], 0.0
    for leg, deduction in zip(outside_legs_mm, deductions_mm, strict=False):
        along += leg - deduction / 2
        lines.append(along)
        along -= deduction / 2
    return lines
