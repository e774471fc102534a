"""The brief: what the tank has to do."""

from pydantic import Field

from keel.design.base import Note, Part
from keel.reference.fuels import FuelName


class Brief(Part):
    """Fuel and how much of it the customer needs."""

    fuel: FuelName = Field(default="petrol E10", description="What the tank will hold")
    target_l: float | None = Field(
        default=None, gt=0, le=100_000, description="Rated capacity asked for [L]; nothing is judged without it"
    )
    reason: Note = Field(default="", description="Where the target comes from, in the customer's words")
