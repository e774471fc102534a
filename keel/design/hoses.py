"""Hoses by the metre, as the workshop knows them."""

from typing import Annotated

from pydantic import Field

from keel.design.base import Bore, Length, Name, Part
from keel.reference.compatibility import HoseName


class HoseStock(Part):
    """A hose by the metre, by its card."""

    name: Name
    hose: HoseName = Field(default="fluoropolymer-lined hose", description="What it is made of")
    bore_mm: Bore = Field(default=7.9, description="Bore [mm]")
    outside_mm: Length | None = Field(default=None, description="Outside [mm]; empty: not known")
    least_radius_mm: Length | None = Field(
        default=None, description="Tightest bend, to its middle [mm]; empty: not known"
    )
    rated_kpa: Annotated[float, Field(ge=0, le=20_000)] | None = Field(default=None, description="Rated [kPa]")
    per_m: Annotated[float, Field(ge=0, le=1e6)] | None = Field(default=None, description="Price of a metre")
