"""Fuels the core knows: density, thermal expansion and viscosity.

References
----------
Middle of the ranges in EN 228 (petrol), EN 590 (diesel), ASTM D1655 (kerosene), D910 (avgas), D5798 (E85); expansion by
ASTM D1250; pure methanol from the CRC Handbook. Density and expansion at 15 °C, viscosity at 20 °C; valid from −20 to
50 °C. A delivered fuel varies by a few per cent.
"""

from dataclasses import dataclass
from typing import Literal, get_args

FuelName = Literal["petrol E10", "race petrol", "E85", "methanol", "diesel", "kerosene", "avgas 100"]


@dataclass(frozen=True)
class Fuel:
    """One fuel's properties."""

    density_kg_per_l: float
    expansion_per_k: float
    viscosity_mm2_per_s: float


FUELS: dict[FuelName, Fuel] = {
    "petrol E10": Fuel(0.745, 0.00095, 0.55),
    "race petrol": Fuel(0.735, 0.00095, 0.55),
    "E85": Fuel(0.783, 0.00110, 1.1),
    "methanol": Fuel(0.796, 0.00119, 0.74),
    "diesel": Fuel(0.840, 0.00083, 3.5),
    "kerosene": Fuel(0.800, 0.00090, 1.9),
    "avgas 100": Fuel(0.715, 0.00100, 0.55),
}

assert set(FUELS) == set(get_args(FuelName))

HEAT_CAPACITY_KJ_PER_KG_K = 2.1
"""Of petrol, diesel and kerosene at 20 °C, within a tenth (ASTM D2890); alcohols take up a quarter more."""
