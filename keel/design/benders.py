"""Benders for rigid tube, as the workshop knows them."""

from itertools import pairwise
from typing import Annotated

from pydantic import Field, model_validator

from keel.design.base import Gap, Length, Name, Part, refuse

Angle = Annotated[float, Field(gt=0, lt=180)]
MOST_ANGLES = 12


class SpringBack(Part):
    """How far a tube sprang back from one bend of a strip."""

    angle_deg: Angle = Field(description="Angle left, turned through [°]")
    back_deg: Annotated[float, Field(ge=0, le=60)] = Field(description="It was bent so much further [°]")


class TubeBender(Part):
    """A bender with the die of one tube."""

    name: Name
    outside_mm: Length = Field(default=8.0, description="Outside diameter of the tube it bends [mm]")
    radius_mm: Length = Field(default=24.0, description="Radius of the tube's centre line in a bend [mm]")
    grip_mm: Gap = Field(default=0.0, description="Least straight that it holds [mm]")
    springback: Annotated[tuple[SpringBack, ...], Field(max_length=MOST_ANGLES, strict=False)] = Field(
        default=(), description="Of a strip bent on it; empty: springback isn't known"
    )

    @model_validator(mode="after")
    def _angles_rise(self) -> "TubeBender":
        for place, (a, b) in enumerate(pairwise(self.springback), start=1):
            if b.angle_deg <= a.angle_deg:
                refuse(
                    f"give the strip's bends from the least to the greatest: {b.angle_deg:g}° follows {a.angle_deg:g}°",
                    field=f"springback.{place}.angle_deg",
                    value=b.angle_deg,
                    limit=f"above {a.angle_deg:g}",
                )
        return self
