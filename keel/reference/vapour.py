"""Vapour pressure of fuels, and the air's pressure at an altitude.

References
----------
Reid vapour pressures: the most that EN 228 allows summer petrol with ethanol (70 kPa; winter grades go to 100 kPa and
have to be typed), ASTM D5798 class 1 E85 (62 kPa), D910 avgas (49 kPa); race petrols as generally published. Heavier
fuels boil far above any tank's temperature.
"""

from math import exp, log10, sqrt

from keel.reference.fuels import FuelName
from keel.reference.quantities import KPA_PER_PSI

REID_KPA: dict[FuelName, float] = {
    "petrol E10": 70.0,
    "race petrol": 62.0,
    "E85": 62.0,
    "methanol": 32.0,
    "diesel": 0.5,
    "kerosene": 1.0,
    "avgas 100": 49.0,
}
"""The most that is usual in summer [kPa]."""
SLOPE = 3.0
"""Slope of the distillation curve at 10 %, as usual for motor petrol [°F per cent]."""
ATMOSPHERE_KPA = 101.325


def vapour_kpa(reid_kpa: float, celsius: float) -> float:
    """True vapour pressure of petrol [kPa abs].

    Parameters
    ----------
    reid_kpa : float
        Reid vapour pressure [kPa].
    celsius : float
        Temperature [°C].

    Returns
    -------
    float
        [kPa abs].

    References
    ----------
    US EPA, AP-42, chapter 7.1, refined petroleum stocks. Made for petrol of 2 to 20 psi; alcohols and heavy fuels
    follow their own laws, for which it is taken on the careful side of the Reid pressure that stands for them.
    """
    fahrenheit, reid = celsius * 9 / 5 + 32, reid_kpa / KPA_PER_PSI
    rankine = fahrenheit + 459.6
    power = (
        (0.7553 - 413.0 / rankine) * sqrt(SLOPE) * log10(reid)
        - (1.854 - 1042.0 / rankine) * sqrt(SLOPE)
        + (2416.0 / rankine - 2.013) * log10(reid)
        - 8742.0 / rankine
        + 15.64
    )
    return exp(power) * KPA_PER_PSI


def atmosphere_kpa(altitude_m: float) -> float:
    """Pressure of the air at an altitude.

    Parameters
    ----------
    altitude_m : float
        Over the sea [m].

    Returns
    -------
    float
        [kPa abs].

    References
    ----------
    ISO 2533, standard atmosphere below 11 km: p₀ (1 − 0.0065 h/288.15)^5.255876.
    """
    return float(ATMOSPHERE_KPA * (1 - 0.0065 * altitude_m / 288.15) ** 5.255876)
