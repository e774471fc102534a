"""Flat plates under pressure: stress, deflection, by their sides and how their edges are held."""

from bisect import bisect_right
from collections.abc import Sequence
from functools import lru_cache
from math import asinh, sinh, sqrt

from keel.reference.plates import POISSON, ROWS, Ends, Held, Row
from keel.reference.units import STANDARD_GRAVITY

Edges = Held | tuple[Held, Held, Held, Held]
"""All four alike; or those at the low and the high end of the first side, then of the second."""
STRETCHING = 0.488
"""How much a clamped plate's own stretching bears, in `large_deflection_mm`."""


@lru_cache(maxsize=4096)
def coefficients(first_mm: float, second_mm: float, edges: Edges = "clamped") -> tuple[float, float]:
    """β and α of a rectangular plate.

    Parameters
    ----------
    first_mm, second_mm : float
        Its sides [mm].
    edges : Held or tuple of Held
        How its edges are held: all alike, or those at the ends of the first side, then of the second.

    Returns
    -------
    beta, alpha : float
        Straight-line in a/b between the columns of `keel.reference.plates`; beyond the last column those of an endless
        plate, or the last column's where that is more.

    References
    ----------
    The table's own: `keel.reference.plates`.
    """
    held = (edges,) * 4 if isinstance(edges, str) else edges
    of_first, of_second = _ends(held[:2]), _ends(held[2:])
    row = ROWS[(of_first, of_second) if first_mm >= second_mm else (of_second, of_first)]
    ratio = max(first_mm, second_mm) / min(first_mm, second_mm)
    if first_mm == second_mm:
        # A square is long neither way: the worse of the two.
        other = ROWS[(of_second, of_first)]
        return max(row.beta[0], other.beta[0]), max(row.alpha[0], other.alpha[0])
    return _at(row, ratio, row.beta, row.endless[0]), _at(row, ratio, row.alpha, row.endless[1])


def _ends(pair: Sequence[Held]) -> Ends:
    return ("none", "one", "both")[sum(edge == "clamped" for edge in pair)]


def _at(row: Row, ratio: float, values: tuple[float, ...], endless: float) -> float:
    if ratio > row.ratios[-1]:
        return max(endless, values[-1])
    place = min(bisect_right(row.ratios, ratio), len(row.ratios) - 1)
    low, high = row.ratios[place - 1], row.ratios[place]
    return values[place - 1] + (ratio - low) / (high - low) * (values[place] - values[place - 1])


def panel_stress_mpa(
    pressure_kpa: float, first_mm: float, second_mm: float, thickness_mm: float, edges: Edges = "clamped"
) -> float:
    """Greatest bending stress of a rectangular plate under even pressure [MPa].

    Parameters
    ----------
    pressure_kpa : float
        Even pressure q [kPa].
    first_mm, second_mm, thickness_mm : float
        Sides and thickness t [mm].
    edges : Held or tuple of Held
        How the plate is held, as for `coefficients`.

    Returns
    -------
    float
        σ = β q b²/t², b the shorter side; Poisson 0.3, small deflections: true while the plate bows by less than half
        its thickness, beyond that the plate stretches and bears more than this says.

    References
    ----------
    S. Timoshenko, S. Woinowsky-Krieger, Theory of Plates and Shells (1959), chapters 5 and 6; W. C. Young, R. G.
    Budynas, Roark's Formulas for Stress and Strain, table 11.4.
    """
    beta = coefficients(first_mm, second_mm, edges)[0]
    return beta * pressure_kpa * 1e-3 * (min(first_mm, second_mm) / thickness_mm) ** 2


def panel_deflection_mm(
    pressure_kpa: float,
    first_mm: float,
    second_mm: float,
    thickness_mm: float,
    youngs_modulus_gpa: float,
    edges: Edges = "clamped",
) -> float:
    """Deflection in the middle of a rectangular plate [mm]: w = α q b⁴/(E t³), small deflections.

    Parameters as for `panel_stress_mpa`; `youngs_modulus_gpa` is E [GPa].

    Parameters
    ----------
    pressure_kpa : float
        Even pressure q [kPa].
    first_mm : float
        One side [mm].
    second_mm : float
        The other [mm]; b is the shorter.
    thickness_mm : float
        t [mm].
    youngs_modulus_gpa : float
        E [GPa].
    edges : Edges
        How the edges are held.

    Returns
    -------
    float
        Deflection [mm].

    References
    ----------
    As for `panel_stress_mpa`.
    """
    alpha = coefficients(first_mm, second_mm, edges)[1]
    stiffness_mpa_mm3 = youngs_modulus_gpa * 1e3 * thickness_mm**3
    return alpha * pressure_kpa * 1e-3 * min(first_mm, second_mm) ** 4 / stiffness_mpa_mm3


def fuel_head_kpa(density_kg_per_l: float, depth_mm: float, extra_g: float) -> float:
    """Pressure under a depth of fuel with extra vertical acceleration [kPa]: ρ (g + a) d, the hydrostatic law.

    Parameters
    ----------
    density_kg_per_l : float
        Of the fuel [kg/L].
    depth_mm : float
        d [mm].
    extra_g : float
        Upward acceleration beside gravity [g].

    Returns
    -------
    float
        Pressure [kPa].
    """
    return density_kg_per_l * STANDARD_GRAVITY * (1 + extra_g) * depth_mm / 1000


def pushed_kpa(density_kg_per_l: float, depth_mm: float, run_mm: float, push_g: float) -> float:
    """Largest pressure on an upright plate that a run of fuel is pushed against [kPa]: ρ (g H + a L).

    Parameters
    ----------
    density_kg_per_l : float
        Of the fuel.
    depth_mm, run_mm : float
        Height H of the plate, and how far the brimful cell before it reaches, L, square to it [mm].
    push_g : float
        Acceleration that presses the fuel on it, along L [g].

    Returns
    -------
    float
        Pressure [kPa].

    References
    ----------
    Derived: hydrostatics in the frame of a brimful cell, where pressure rises along the steady specific force. A blow
    of fuel that has run free is not in it.
    """
    return density_kg_per_l * STANDARD_GRAVITY * (depth_mm + push_g * run_mm) / 1000


def round_plate_stress_mpa(
    pressure_kpa: float, radius_mm: float, thickness_mm: float, edges: Held = "clamped"
) -> float:
    """Greatest bending stress of a round flat plate under even pressure [MPa].

    σ = k q R²/t² with k = 3/4 clamped, 3 (3 + ν)/8 = 1.2375 simply supported (ν = 0.3); small deflections.

    Parameters
    ----------
    pressure_kpa : float
        Even pressure q [kPa].
    radius_mm : float
        R [mm].
    thickness_mm : float
        t [mm].
    edges : Held
        How the edge is held.

    Returns
    -------
    float
        Stress [MPa].

    References
    ----------
    Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells (1959), articles 16 and 17.
    """
    factor = 0.75 if edges == "clamped" else 3 * (3 + POISSON) / 8
    return factor * pressure_kpa * 1e-3 * (radius_mm / thickness_mm) ** 2


def round_plate_deflection_mm(
    pressure_kpa: float,
    radius_mm: float,
    thickness_mm: float,
    youngs_modulus_gpa: float,
    edges: Held = "clamped",
) -> float:
    """Deflection in the middle of a round flat plate [mm]: 3 (1 − ν²) q R⁴/(16 E t³), or (5 + ν)/(1 + ν) times that.

    Parameters
    ----------
    pressure_kpa : float
        Even pressure q [kPa].
    radius_mm : float
        R [mm].
    thickness_mm : float
        t [mm].
    youngs_modulus_gpa : float
        E [GPa].
    edges : Held
        How the edge is held.

    Returns
    -------
    float
        Deflection [mm].

    References
    ----------
    Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells (1959), articles 16 and 17.
    """
    more = 1.0 if edges == "clamped" else (5 + POISSON) / (1 + POISSON)
    stiffness = 16 * youngs_modulus_gpa * 1e3 * thickness_mm**3
    return more * 3 * (1 - POISSON**2) * pressure_kpa * 1e-3 * radius_mm**4 / stiffness


def large_deflection_mm(deflection_mm: float, thickness_mm: float) -> float:
    """Deflection with the plate's stretching counted [mm].

    Solves w + c w³/t² = w₀ for the small-deflection figure w₀, with c of a clamped plate held in at its edges; a guide
    beside the other figure.

    Parameters
    ----------
    deflection_mm : float
        By the small-deflection formula, w₀ [mm].
    thickness_mm : float
        t [mm].

    Returns
    -------
    float
        Deflection w [mm].

    References
    ----------
    Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells (1959), article 97: c = 0.488 for a round plate,
    energy method, ν = 0.3. For other outlines it is a stand-in. The cubic has one real root, by hyperbolic functions.
    """
    root = sqrt(3 * STRETCHING)
    return 2 * thickness_mm / root * sinh(asinh(1.5 * root * deflection_mm / thickness_mm) / 3)
