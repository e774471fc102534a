"""What fills the tank besides fuel: foam, a bladder in its box. Baffles are features of the shell."""

from datetime import date
from typing import Annotated

from pydantic import Field

from keel.design.base import Part
from keel.reference.compatibility import LiningName

Years = Annotated[float, Field(gt=0, le=50)]


class Fill(Part):
    """Something fitted that ages."""

    kg: Annotated[float, Field(ge=0, le=500)] = Field(default=0.0, description="Its mass [kg]")
    fitted: Annotated[date | None, Field(strict=False)] = Field(default=None, description="When it was fitted")
    life_years: Years = Field(default=5.0, description="How long its maker lets it stay [years]")


class Foam(Fill):
    """Foam all through the tank."""

    takes: Annotated[float, Field(ge=0, le=0.3)] = Field(
        default=0.03, description="Share of the space that the foam itself takes"
    )


class Bladder(Fill):
    """A bag inside the shell, which is then its box: no plates stand in it."""

    bag_mm: Annotated[float, Field(ge=0.2, le=10)] = Field(default=1.5, description="Thickness of the bag [mm]")
    shrink_mm: Annotated[float, Field(ge=0, le=50)] = Field(
        default=6.0, description="How far the bag stays off the box all round [mm]"
    )

    @property
    def off_mm(self) -> float:
        """From the box's inside to the fuel [mm]."""
        return self.bag_mm + self.shrink_mm


class Inside(Part):
    """Foam, bladder and what the metal is lined with."""

    foam: Foam | None = None
    bladder: Bladder | None = None
    lining: LiningName | None = Field(default=None, description="What the inside is coated with")
