"""Wires and fuses that are on the shelf, and what copper resists.

References
----------
Copper: IEC 60028, 1/58 Ω·mm²/m at 20 °C for annealed copper, 0.0175 as commonly rounded up; 0.39 % a kelvin. Sizes:
IEC 60228; AWG by ASTM B258: 0.127 mm · 92^((36 - n)/39). What a single thin-walled wire in a bundle may carry without
passing 90 °C in air of 50 °C: house rules, on the safe side of the makers' tables; a maker's card comes first. Blade
fuses: ISO 8820-3.
"""

from math import pi

COPPER_OHM_MM2_PER_M = 0.0175
COPPER_AT_C = 20.0
COPPER_PER_K = 0.0039
BUNDLE_C = 70.0
"""A bundle in a warm engine bay (house rule)."""
MAY_CARRY_A: dict[float, float] = {
    0.5: 6.0,
    0.75: 9.0,
    1.0: 12.0,
    1.5: 16.0,
    2.5: 25.0,
    4.0: 32.0,
    6.0: 40.0,
    10.0: 60.0,
}
"""By size [mm²]."""
FUSES_A: tuple[float, ...] = (3.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0, 30.0, 40.0)
GAUGES = range(20, 5, -2)
"""American wire gauges that are on the shelf."""


def gauge_mm2(gauge: int) -> float:
    """Area of an American wire gauge.

    Parameters
    ----------
    gauge : int
        Its number.

    Returns
    -------
    float
        Copper [mm²].
    """
    return float(pi / 4 * (0.127 * 92 ** ((36 - gauge) / 39)) ** 2)


def gauge_of(area_mm2: float) -> int | None:
    """The thinnest gauge on the shelf with at least so much copper.

    Parameters
    ----------
    area_mm2 : float
        Copper that is wanted [mm²].

    Returns
    -------
    int or None
        Its number; None where none is thick enough.
    """
    return next((gauge for gauge in GAUGES if gauge_mm2(gauge) >= area_mm2 - 1e-9), None)
