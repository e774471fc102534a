"""Fuel that engines burn for their work.

Ethanol E85 and methanol hold less heat than petrol: the petrol figures are multiplied by the range given for them.

References
----------
Brake specific fuel consumption at full throttle as in J. B. Heywood, Internal Combustion Engine Fundamentals, chapter
15, widened to tuners' usual ranges: rich mixtures under boost. Valid at full power only; at part load it rises. Ratios
of E85 and methanol by their lower heating values (about 29 and 20 MJ/kg against 43) and usual mixtures.
"""

from dataclasses import dataclass
from typing import Literal

from keel.reference.fuels import FuelName

EngineKind = Literal["petrol, naturally aspirated", "petrol, forced induction", "petrol with nitrous", "diesel"]


@dataclass(frozen=True)
class Range:
    """A low and a high end."""

    low: float
    high: float

    @property
    def middle(self) -> float:
        """Halfway."""
        return (self.low + self.high) / 2


BSFC_KG_PER_KWH: dict[EngineKind, Range] = {
    "petrol, naturally aspirated": Range(0.274, 0.335),
    "petrol, forced induction": Range(0.365, 0.426),
    "petrol with nitrous": Range(0.304, 0.365),
    "diesel": Range(0.207, 0.255),
}

TIMES_PETROL: dict[FuelName, Range] = {"E85": Range(1.35, 1.45), "methanol": Range(2.0, 2.2)}

DIESEL_FUELS: tuple[FuelName, ...] = ("diesel", "kerosene")
"""What a diesel engine runs on; the others are for spark ignition."""

IDLE_SHARE = 0.03
"""Fuel burnt at idle, of that at full power: a warm engine of moderate size burns 1 to 2 L/h (house rule)."""
