"""How a tank's leak test is meant to be done: method, pressure, limiter, instruments."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from keel.design.base import Name, Part

ProofMethod = Literal["pressure decay", "soap and low pressure", "submerged", "filled, on dry paper"]
Limiter = Literal["relief valve", "water column"]
TestPressure = Annotated[float, Field(gt=0, le=100)]
MOST_MINUTES = 20_160


class TestGauge(Part):
    """A gauge that leak tests are read from, with its thermometer and barometer."""

    name: Name = "Test gauge"
    most_kpa: TestPressure = Field(default=25, description="End of its scale [kPa]")
    resolution_kpa: float = Field(default=0.01, gt=0, le=10, description="Its last digit [kPa]")
    temperature_resolution_k: float = Field(default=0.1, ge=0, le=10, description="Last digit of the thermometer [K]")
    barometer_resolution_kpa: float = Field(default=0.01, ge=0, le=10, description="Last digit of the barometer [kPa]")
    calibrated: date | None = Field(
        default=None, strict=False, description="When it was calibrated last; empty: not known"
    )


class Proof(Part):
    """The leak test as planned; what came of it stands in the job's log."""

    method: ProofMethod = Field(default="pressure decay", description="How leaks are looked for")
    pressure_kpa: TestPressure | None = Field(
        default=None, description="Test pressure [kPa]; empty: the usual one, or what the weakest panel bears"
    )
    limiter: Limiter = Field(default="relief valve", description="What lets air off before the tank is overstressed")
    limiter_kpa: TestPressure | None = Field(
        default=None, description="Where the limiter opens [kPa]; empty: a tenth over the test pressure"
    )
    minutes: float | None = Field(
        default=None, gt=0, le=MOST_MINUTES, description="Length of the test [min]; empty: twice the least"
    )
    gauge: Annotated[str, Field(max_length=80)] = Field(
        default="", description="Which of the workshop's gauges; empty: the first"
    )
    hoses_l: float = Field(default=0, ge=0, le=1000, description="Air in hoses and gauge [L]")
    parts_l: float = Field(default=0, ge=0, le=1000, description="Taken by parts that are fitted inside already [L]")
    foam_in: bool = Field(default=False, description="Foam is in the tank while it is tested")
    braces: Annotated[int, Field(ge=0, le=6)] = Field(
        default=0, description="Bars clamped across the weakest panels from outside for the test"
    )
