"""Senders and what the gauge needs to know."""

from math import asin, degrees
from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Gap, Length, Name, Part, refuse
from keel.design.features import Id
from keel.reference.fuels import FuelName

Degrees = Annotated[float, Field(ge=-89.9, le=89.9)]
Fuels = Annotated[tuple[FuelName, ...], Field(max_length=7, strict=False)]
Ohms = Annotated[float, Field(ge=0, le=100_000)]


class SwingArm(Part):
    """A float on an arm: its height follows the sine of the arm's angle, its ohms the angle itself."""

    kind: Literal["swing arm"] = "swing arm"
    made_arm_mm: Length = Field(description="Arm as delivered, pivot to float's middle [mm]")
    empty_deg: Degrees | None = Field(default=None, description="Angle at the empty stop, up from level [°]")
    full_deg: Degrees | None = Field(default=None, description="Angle at the full stop [°]")
    empty_rise_mm: Coordinate | None = Field(
        default=None, description="Measured instead: float's middle over the pivot at the empty stop [mm]"
    )
    full_rise_mm: Coordinate | None = Field(
        default=None, description="Measured instead: float's middle over the pivot at the full stop [mm]"
    )
    float_mm: Length = Field(default=40, description="Across the float [mm]")
    method: Literal["new arm and pivot", "as supplied"] = Field(
        default="new arm and pivot", description="Arm and pivot made for this depth, or the sender as it comes"
    )
    pivot_mm: Coordinate | None = Field(
        default=None, description="Pivot over the inner floor, where the sender is used as supplied [mm]"
    )
    heading_deg: Annotated[float, Field(ge=-360, le=360)] = Field(
        default=0, description="Direction in which the arm reaches, from forward [°]"
    )

    @model_validator(mode="after")
    def _rises(self) -> "SwingArm":
        for end, angle, rise in (
            ("empty", self.empty_deg, self.empty_rise_mm),
            ("full", self.full_deg, self.full_rise_mm),
        ):
            if angle is None and rise is None:
                refuse(
                    f"the {end} stop is missing: give its angle, or how far the float stands over the pivot there",
                    field=f"{end}_deg",
                    value=None,
                    limit="an angle or a measured height",
                )
            if angle is None and rise is not None and abs(rise) >= self.made_arm_mm:
                refuse(
                    f"the float can't stand {rise:g} mm over the pivot on an arm of {self.made_arm_mm:g} mm",
                    field=f"{end}_rise_mm",
                    value=rise,
                    limit=f"under {self.made_arm_mm:g} either way",
                )
        if self.full_stop_deg <= self.empty_stop_deg:
            refuse(
                f"the stops are reversed: full at {self.full_stop_deg:.4g}° must be above "
                f"empty at {self.empty_stop_deg:.4g}°",
                field="full_deg" if self.full_deg is not None else "full_rise_mm",
                value=self.full_deg if self.full_deg is not None else self.full_rise_mm,
                limit=f"above {self.empty_stop_deg:.4g}°",
            )
        return self

    @property
    def empty_stop_deg(self) -> float:
        """Angle at the empty stop: as given, or from the measured height by θ = asin(h / R) [°]."""
        return self._angle(self.empty_deg, self.empty_rise_mm)

    @property
    def full_stop_deg(self) -> float:
        """Angle at the full stop [°]."""
        return self._angle(self.full_deg, self.full_rise_mm)

    def _angle(self, angle_deg: float | None, rise_mm: float | None) -> float:
        return degrees(asin((rise_mm or 0.0) / self.made_arm_mm)) if angle_deg is None else angle_deg


class TubeSender(Part):
    """A float in a tube: its ohms follow its height."""

    kind: Literal["tube"] = "tube"
    length_mm: Length | None = Field(default=None, description="[mm]; empty means the depth there less twice 8 mm")


class SenderPart(Part):
    """A sender in the workshop's library."""

    name: Name
    action: Annotated[SwingArm | TubeSender, Field(discriminator="kind")]
    ohms_empty: Ohms = 240
    ohms_full: Ohms = 33
    fuels: Fuels = Field(default=(), description="Fuels it is made for; empty where nobody knows")


class Sender(Part):
    """One level sender. Heights go up from the inner floor below it."""

    id: Id
    name: Name
    x_mm: Coordinate = Field(description="From the rear [mm]")
    y_mm: Coordinate = Field(description="From the right [mm]")
    action: Annotated[SwingArm | TubeSender, Field(discriminator="kind")]
    empty_mm: Gap | None = Field(
        default=None, description="Float's middle at the empty mark [mm]; empty means just clear of the floor"
    )
    full_mm: Gap | None = Field(
        default=None, description="Float's middle at the full mark [mm]; empty means just clear of the roof"
    )
    ohms_empty: Ohms = 240
    ohms_full: Ohms = 33
    fuels: Fuels = Field(default=(), description="Fuels it is made for; empty where nobody knows")

    @model_validator(mode="after")
    def _ranges(self) -> "Sender":
        if self.ohms_empty == self.ohms_full:
            refuse(
                f"empty and full can't both read {self.ohms_full:g} Ω",
                field="ohms_full",
                value=self.ohms_full,
                limit="other than empty",
            )
        if self.empty_mm is not None and self.full_mm is not None and self.full_mm <= self.empty_mm:
            refuse(
                f"the marks cross: full at {self.full_mm:g} mm must be above empty at {self.empty_mm:g} mm",
                field="full_mm",
                value=self.full_mm,
                limit=f"above {self.empty_mm:g}",
            )
        return self


class Gauge(Part):
    """The needle and the lamp."""

    senders: Annotated[tuple[Sender, ...], Field(max_length=6, strict=False)] = ()
    joined: Literal["each its own needle", "in series", "averaged"] = Field(
        default="each its own needle", description="How several senders in one tank read together"
    )
    reserve_l: Annotated[float, Field(gt=0, le=100_000)] | None = Field(
        default=None, description="Litres left when the low-level lamp comes on"
    )
