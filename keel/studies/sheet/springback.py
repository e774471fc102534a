"""Springback: a bend opens again when it is let go, so it is made a little too far."""

from math import acos, cos, pi

ELASTIC = 0.5
"""From this x = R Y/(E t) on a sheet stays elastic and comes back flat."""


def left_of_bent(neutral_radius_mm: float, thickness_mm: float, youngs_modulus_gpa: float, yield_mpa: float) -> float:
    """Share of a bend's angle that is left after letting go, R_i/R_f.

    Parameters
    ----------
    neutral_radius_mm : float
        Radius of the neutral line as bent, R_i: the tool's inside radius and K t [mm].
    thickness_mm : float
        Of the sheet, t [mm].
    youngs_modulus_gpa : float
        E [GPa].
    yield_mpa : float
        Yield of the metal as it is bent, Y [MPa].

    Returns
    -------
    float
        4 x³ − 3 x + 1 with x = R_i Y/(E t); 0 where the sheet stays elastic, x ≥ 1/2.

    References
    ----------
    S. Kalpakjian, S. Schmid, Manufacturing Engineering and Technology, "Bending of sheet and plate": an elastic,
    perfectly plastic strip, whose moment as bent is let go elastically. Hardening and wide radii make it differ; a
    strip bent in the shop's own tool beats it (`yield_of_strip`).
    """
    x = neutral_radius_mm * yield_mpa / (youngs_modulus_gpa * 1e3 * thickness_mm)
    return 0.0 if x >= ELASTIC else 4 * x**3 - 3 * x + 1


def bend_to_deg(wanted_deg: float, left: float) -> float:
    """How far to bend for a wanted angle [°]: θ R_f/R_i.

    Parameters
    ----------
    wanted_deg : float
        Angle turned through that is to be left [°].
    left : float
        Share left of the angle bent to, above 0 (`left_of_bent`, or a strip's left/bent).

    Returns
    -------
    float
        Angle [°].

    Raises
    ------
    ValueError
        Where nothing is left: the sheet springs back flat.

    References
    ----------
    The neutral line keeps its length: θ R is the same before and after.
    """
    if left <= 0:
        raise ValueError("the sheet springs back flat: the tool's radius is too large for it")
    return wanted_deg / left


def radius_left_mm(inside_radius_mm: float, thickness_mm: float, k: float, left: float) -> float:
    """Inside radius after letting go [mm]: R_i/left − K t, above the tool's.

    Parameters
    ----------
    inside_radius_mm : float
        Of the tool [mm].
    thickness_mm : float
        Of the sheet [mm].
    k : float
        Place of the neutral line, a share of the thickness.
    left : float
        Share of the angle left.

    Returns
    -------
    float
        Radius [mm].
    """
    return (inside_radius_mm + k * thickness_mm) / left - k * thickness_mm


def yield_of_strip(left: float, neutral_radius_mm: float, thickness_mm: float, youngs_modulus_gpa: float) -> float:
    """The yield that a measured strip stands for [MPa]: `left_of_bent` solved for it.

    Parameters
    ----------
    left : float
        Angle left over angle bent to, between 0 and 1.
    neutral_radius_mm : float
        R_i of the strip [mm].
    thickness_mm : float
        Of the strip [mm].
    youngs_modulus_gpa : float
        E [GPa].

    Returns
    -------
    float
        Yield [MPa].

    References
    ----------
    With x = cos φ the cubic is cos 3φ + 1; x lies between 0 and 1/2, so 3φ between 180° and 270°.
    """
    x = cos((2 * pi - acos(left - 1)) / 3)
    return x * youngs_modulus_gpa * 1e3 * thickness_mm / neutral_radius_mm
