"""Pumps as tables of points: what they deliver at a pressure and a voltage."""

from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Name, Part, refuse
from keel.design.features import Id
from keel.reference.fuels import FuelName

Pressure = Annotated[float, Field(ge=0, le=2000)]
Flow = Annotated[float, Field(ge=0, le=100_000)]
Voltage = Annotated[float, Field(ge=4, le=60)]
MOST_PUMPS = 8


class PumpPoint(Part):
    """One point of a curve."""

    kpa: Pressure = Field(description="Pressure over the tank's [kPa]")
    l_per_h: Flow = Field(description="Flow there [L/h]")
    current_a: Annotated[float, Field(gt=0, le=200)] | None = Field(
        default=None, description="Current there [A]; empty: the pump's own"
    )


class PumpCurve(Part):
    """Flow against pressure at one voltage. The flow falls as the pressure rises."""

    voltage_v: Voltage = 13.5
    points: Annotated[tuple[PumpPoint, ...], Field(max_length=60, strict=False)]

    @model_validator(mode="after")
    def _falls(self) -> "PumpCurve":
        if len(self.points) < 2:
            refuse(
                f"a pump curve needs two points or more, this one has {len(self.points)}",
                field="points",
                value=len(self.points),
                limit=2,
            )
        for place, (a, b) in enumerate(pairwise(self.points), start=1):
            if b.kpa <= a.kpa:
                refuse(
                    f"the pressures must rise from row to row: row {place + 1} has {b.kpa:g} kPa after {a.kpa:g}",
                    field=f"points.{place}.kpa",
                    value=b.kpa,
                    limit=f"above {a.kpa:g}",
                )
            if b.l_per_h > a.l_per_h:
                refuse(
                    f"a pump's flow falls as the pressure rises: row {place + 1} has {b.l_per_h:g} L/h "
                    f"after {a.l_per_h:g}",
                    field=f"points.{place}.l_per_h",
                    value=b.l_per_h,
                    limit=f"at most {a.l_per_h:g}",
                )
        return self


class Pump(Part):
    """A kind of pump, as the workshop knows it."""

    name: Name
    curves: Annotated[tuple[PumpCurve, ...], Field(min_length=1, max_length=6, strict=False)]
    stands: Literal["in the tank", "outside"] = "in the tank"
    outlet: Annotated[str, Field(max_length=40)] = ""
    fuels: Annotated[tuple[FuelName, ...], Field(max_length=7, strict=False)] = ()

    @model_validator(mode="after")
    def _one_curve_a_voltage(self) -> "Pump":
        volts = [curve.voltage_v for curve in self.curves]
        if volts != sorted(set(volts)):
            refuse(
                "give the curves from the lowest voltage to the highest, one for each",
                field="curves",
                value=str(volts),
                limit="rising",
            )
        return self


class FittedPump(Part):
    """A pump of this design, in the order in which they come on. A spare stands by and counts for nothing."""

    id: Id
    pump: Pump
    spare: bool = False
