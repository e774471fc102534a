"""Fuels the core knows: density, thermal expansion and viscosity.

Source: usual values of fuel standards and suppliers' sheets at 15 °C (density,
expansion) and 20 °C (viscosity). A delivered fuel varies by a few per cent.
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
