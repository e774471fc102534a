"""K of a brake from a strip that was measured flat and again after one bend."""

from math import pi, radians, tan


def setback(angle_deg: float, radius_mm: float, thickness_mm: float) -> float:
    """From the bend's tangent to where the outer faces meet.

    Parameters
    ----------
    angle_deg : float
        Angle turned through [°].
    radius_mm, thickness_mm : float
        Inside radius and sheet thickness [mm].

    Returns
    -------
    float
        S = tan(θ/2)(r + t), plane geometry [mm].
    """
    return tan(radians(angle_deg) / 2) * (radius_mm + thickness_mm)


def k_from_strip(
    flat_mm: float,
    outside_legs_mm: tuple[float, float],
    angle_deg: float,
    thickness_mm: float,
    radius_mm: float,
) -> float:
    """K of a brake from a strip measured flat and again after one bend.

    Parameters
    ----------
    flat_mm : float
        Length of the strip before the bend [mm].
    outside_legs_mm : (float, float)
        Both legs after it, over the outside [mm].
    angle_deg : float
        Bend [°], 0 for flat.
    thickness_mm : float
        Of the sheet [mm].
    radius_mm : float
        Inside radius [mm].

    Returns
    -------
    float
        K = (BA/θ − r)/t with BA = 2 S − (sum of legs − flat length).

    References
    ----------
    The bend's allowance and deduction solved for K.
    """
    allowance = 2 * setback(angle_deg, radius_mm, thickness_mm) - (sum(outside_legs_mm) - flat_mm)
    return (allowance / (angle_deg * pi / 180) - radius_mm) / thickness_mm
