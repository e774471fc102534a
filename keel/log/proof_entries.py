"""What is written of a leak test: begun, read, walked, leaks found and mended, ended."""

from typing import Annotated, Literal

from pydantic import Field, field_validator

from keel.design.base import Coordinate, Gap, Name, Part, refuse
from keel.design.proof import MOST_MINUTES, Limiter, ProofMethod, TestGauge, TestPressure
from keel.log.entry import ClientId, Entry, Subject, Text
from keel.studies.proof.decay import Verdict

Kilopascals = Annotated[float, Field(ge=-1000, le=10_000)]
LEAST_BAROMETER_KPA, MOST_BAROMETER_KPA = 50.0, 110.0
BAROMETER_LIMITS = f"{LEAST_BAROMETER_KPA:g} to {MOST_BAROMETER_KPA:g} kPa"
USUAL_BAROMETER_KPA = (80.0, 108.0)
OTHER_UNITS: tuple[tuple[str, float], ...] = (("hPa", 0.1), ("mmHg", 0.1333224), ("inHg", 3.386389), ("psi", 6.894757))
LeakSize = Literal["slow bubbles", "quick bubbles", "blows the soap off"]
"""By what the soap does."""


def other_unit(value: float) -> str:
    """Which unit a barometer's figure may be in that is none in kPa, in words.

    Parameters
    ----------
    value : float
        As typed.

    Returns
    -------
    str
        With what it would be in kPa; empty where no unit fits.
    """
    low, high = USUAL_BAROMETER_KPA
    alike = ((unit, value * per) for unit, per in OTHER_UNITS if low <= value * per <= high)
    return next((f"; {value:g} {unit} are {kpa:.1f} kPa" for unit, kpa in alike), "")


def barometer_kpa(value: float) -> float:
    """A barometer's reading that can be one.

    Parameters
    ----------
    value : float
        As typed, taken for kPa abs.

    Returns
    -------
    float
        The same [kPa abs].

    Raises
    ------
    PydanticCustomError
        For what no air has had, with the unit that it may be in.
    """
    if not LEAST_BAROMETER_KPA <= value <= MOST_BAROMETER_KPA:
        message = f"a barometer stands at {BAROMETER_LIMITS}, not at {value:g}{other_unit(value)}"
        refuse(message, field="", value=value, limit=BAROMETER_LIMITS)
    return value


class ProofBegun(Entry):
    """A leak test of one cell begins: how, at which pressure, with what to limit it.

    Volume, limit and what the cell bears are the workshop's own, as the design had them then.
    """

    kind: Literal["proof begun"] = "proof begun"
    subject: Subject = Field(description="The cell")
    method: ProofMethod
    pressure_kpa: TestPressure = Field(description="Test pressure [kPa]")
    limiter: Limiter
    limiter_kpa: TestPressure = Field(description="Where the limiter opens [kPa]")
    minutes: float | None = Field(default=None, gt=0, le=MOST_MINUTES, description="Planned length [min]")
    neighbours_open: Annotated[tuple[Name, ...], Field(max_length=20, strict=False)] = Field(
        default=(), description="Cells that stand open meanwhile"
    )
    braces: Annotated[int, Field(ge=0, le=6)] = Field(default=0, description="Bars clamped on")
    gauge: TestGauge | None = None
    simulated: bool = Field(default=False, description="Readings come from the simulated gauge: it proves nothing")
    volume_l: float | None = Field(default=None, ge=0, description="Air in it [L]")
    limit_sccm: float | None = Field(default=None, ge=0, description="Leak that passes [cm³/min]")
    safe_kpa: float | None = Field(default=None, ge=0, description="What the cell bears [kPa]")
    length_factor: float = Field(default=3, ge=1, le=20)


class GaugeRead(Entry):
    """Gauge, thermometer and barometer read by hand."""

    kind: Literal["gauge read"] = "gauge read"
    of: ClientId = Field(description="The test")
    minute: float | None = Field(
        default=None, ge=0, le=MOST_MINUTES, description="Minutes since the tank was shut; empty: now"
    )
    pressure_kpa: Kilopascals
    temperature_c: Annotated[float, Field(ge=-60, le=120)]
    barometer_kpa: float

    @field_validator("barometer_kpa")
    @classmethod
    def _a_barometer(cls, value: float) -> float:
        return barometer_kpa(value)


class ProofFound(Part):
    """What the readings of a test proved when it was ended, and what they were."""

    verdict: Verdict
    readings: Annotated[int, Field(ge=0)]
    minutes: float
    leak_sccm: float
    uncertainty_sccm: float
    uncorrected_sccm: float
    uncorrected_verdict: Verdict
    least_min: float
    start_kpa: float
    end_kpa: float
    corrected_kpa: float
    digest: str = Field(default="", max_length=80, description="Of all its readings")


class ProofEnded(Entry):
    """A leak test is over; with what its readings proved, where it had any."""

    kind: Literal["proof ended"] = "proof ended"
    of: ClientId = Field(description="The test")
    stopped: Text = Field(default="", description="Why it was broken off; empty: it went to its end")
    found: ProofFound | None = None


class LeakFound(Entry):
    """A leak, pinned on its seam: so far along it, and where on the tank from the body's rear, right, lower corner."""

    kind: Literal["leak found"] = "leak found"
    of: ClientId = Field(description="The test")
    subject: Subject = Field(description="The seam")
    at_mm: Gap = Field(description="Along the seam [mm]")
    x_mm: Coordinate
    y_mm: Coordinate
    z_mm: Coordinate
    size: LeakSize = "slow bubbles"


class LeakRepaired(Entry):
    """How a leak was mended."""

    kind: Literal["leak repaired"] = "leak repaired"
    of: ClientId = Field(description="The leak")
    how: Text


class SeamWalked(Entry):
    """A seam was looked at from end to end under pressure; leaks on it have entries of their own."""

    kind: Literal["seam walked"] = "seam walked"
    of: ClientId = Field(description="The test")
    subject: Subject = Field(description="The seam")
