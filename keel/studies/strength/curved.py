"""Curved walls under pressure from either side: what stretches them, and what makes them buckle."""

from math import sqrt

from keel.reference.plates import POISSON

BUCKLING_SHARE = 1 / 3
"""Share of the buckling pressure that is allowed: a wall out of round buckles far below it (house rule)."""
KPA_PER_GPA = 1e6


def hoop_kpa(allowed_mpa: float, radius_mm: float, thickness_mm: float) -> float:
    """Pressure from its hollow side at which a round wall is stretched as far as allowed [kPa].

    Parameters
    ----------
    allowed_mpa : float
        Stress allowed [MPa].
    radius_mm, thickness_mm : float
        Radius R and thickness t [mm].

    Returns
    -------
    float
        p = σ t/R.

    References
    ----------
    Equilibrium of a thin ring.
    """
    return allowed_mpa * 1e3 * thickness_mm / radius_mm


def round_wall_buckling_kpa(
    youngs_modulus_gpa: float, diameter_mm: float, thickness_mm: float, length_mm: float
) -> float:
    """Pressure from outside at which a round wall between stiff ends buckles [kPa].

    Parameters
    ----------
    youngs_modulus_gpa : float
        E [GPa].
    diameter_mm, thickness_mm, length_mm : float
        D, t and the length L between ends or plates [mm].

    Returns
    -------
    float
        p = 2.42 E (t/D)^2.5/((1 − ν²)^0.75 (L/D − 0.45 (t/D)^0.5)), but never less than that of an endless tube,
        2 E/(1 − ν²) · (t/D)³.

    References
    ----------
    D. F. Windenburg, C. Trilling, Collapse by Instability of Thin Cylindrical Shells under External Pressure, Trans.
    ASME 56 (1934), formula B, true for short and middling tubes; M. Bresse (1866) for the endless one.
    """
    thin, long, modulus = thickness_mm / diameter_mm, length_mm / diameter_mm, youngs_modulus_gpa * KPA_PER_GPA
    endless = 2 * modulus / (1 - POISSON**2) * thin**3
    free = long - 0.45 * sqrt(thin)
    if free <= 0:
        return modulus * thin
    sideways: float = (1 - POISSON**2) ** 0.75
    return max(endless, 2.42 * modulus * thin**2 * sqrt(thin) / (sideways * free))


def dish_buckling_kpa(youngs_modulus_gpa: float, radius_mm: float, thickness_mm: float) -> float:
    """Pressure on its hump at which a dished end buckles [kPa].

    Parameters
    ----------
    youngs_modulus_gpa : float
        E [GPa].
    radius_mm, thickness_mm : float
        Radius R of its ball and thickness t [mm].

    Returns
    -------
    float
        p = 0.365 E (t/R)²: what shells that are as round as sheet gets were found to bear.

    References
    ----------
    Th. von Kármán, H.-S. Tsien, The Buckling of Spherical Shells by External Pressure, J. Aeronautical Sciences 7
    (1939).
    """
    return 0.365 * youngs_modulus_gpa * KPA_PER_GPA * (thickness_mm / radius_mm) ** 2
