"""Wires and fuses that are on the shelf, and what copper resists.

References
----------
Copper: IEC 60028, 1/58 Ω·mm²/m at 20 °C for annealed copper, 0.0175 as commonly rounded up; 0.39 % a kelvin. Sizes:
IEC 60228; AWG by ASTM B258: 0.127 mm · 92^((36 - n)/39). What a single thin-walled wire in a bundle may carry without
passing 90 °C in air of 50 °C: house rules, on the safe side of the makers' tables; a maker's card comes first. Blade
fuses: ISO 8820-3. Insulation: what it bears and whether fuel swells it, by the general data of the plastics. Contacts:
a crimp, a pair of pins, a fuse in its holder, as a sound one measures; house rules.
"""

from dataclasses import dataclass
from math import pi
from typing import Literal

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


def may_carry(area_mm2: float) -> float:
    """What a wire may carry for good, by straight lines between the sizes of the table.

    Parameters
    ----------
    area_mm2 : float
        Copper [mm²].

    Returns
    -------
    float
        Current [A]; above the thickest size that one's: nothing is read beyond the table.
    """
    before_mm2, before_a = 0.0, 0.0
    for size, current in MAY_CARRY_A.items():
        if area_mm2 <= size:
            return before_a + (current - before_a) * (area_mm2 - before_mm2) / (size - before_mm2)
        before_mm2, before_a = size, current
    return before_a


InsulationName = Literal["PVC", "cross-linked polyethylene", "fluoropolymer", "not known"]
TABLE_LIMIT_C, TABLE_AIR_C = 90.0, 50.0
"""What `MAY_CARRY_A` holds for: so warm a wire in so warm a place."""


@dataclass(frozen=True)
class Insulation:
    """What a wire is covered with.

    Attributes
    ----------
    limit_c : float
        As warm as it may be for good [°C].
    in_fuel : bool
        It may lie in fuel.
    why : str
        The reason.
    """

    limit_c: float
    in_fuel: bool
    why: str


INSULATIONS: dict[InsulationName, Insulation] = {
    "PVC": Insulation(90.0, False, "fuel draws the plasticiser out of it: it shrinks, cracks and bares the copper"),
    "cross-linked polyethylene": Insulation(125.0, False, "fuel swells it: it lifts off the copper and wears through"),
    "fluoropolymer": Insulation(200.0, True, "fuel doesn't touch it"),
    "not known": Insulation(90.0, False, "nobody knows what fuel does to it"),
}
CRIMP_OHM = 0.0005
"""Of each end of a wire."""
INSIDE_OHM: dict[str, float] = {
    "fuse": 0.004,
    "relay": 0.003,
    "cut-off": 0.008,
    "switch": 0.010,
    "changeover switch": 0.010,
    "level switch": 0.050,
    "controller": 0.015,
}
"""From one contact to the other, closed."""
EARTH_OHM = 0.001
"""From a wire's end through its bolt to the chassis (house rule)."""
