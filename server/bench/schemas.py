"""What the bench is told and tells."""

from datetime import datetime
from typing import Annotated

from ninja import Schema
from pydantic import Field

from keel.design.base import PLAIN
from keel.design.faults import Fault
from keel.studies.gauge.calibration import CurvePoint

Litres = Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]
Ohms = Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]


class StartIn(Schema):
    """Which sender is measured."""

    sender: Annotated[str, Field(max_length=40, pattern=PLAIN)]
    note: Annotated[str, Field(max_length=200, pattern=PLAIN)] = ""


class PourIn(Schema):
    """Litres poured with the simulated meters watching."""

    litres: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]


class ReadingIn(Schema):
    """A reading of real instruments: litres poured in all, and ohms."""

    litres: Litres
    ohms: Ohms


class ReadingOut(Schema):
    """A kept reading beside what was calculated for its ohms."""

    litres: float
    ohms: float
    at: datetime
    simulated: bool
    source: str
    calculated_l: float | None
    off_l: float | None


class Live(Schema):
    """What the simulated meters show while a pour runs."""

    litres: float
    ohms: float
    left_s: float


class CalibrationOut(Schema):
    """A calibration with all that has come in."""

    id: int
    sender: str
    sender_name: str
    revision: int
    started: datetime
    author: str
    closed: bool
    note: str
    simulated: bool
    live: Live | None
    readings: list[ReadingOut]
    curve: list[CurvePoint]
    worst_l: float | None
    rms_l: float | None
    problems: list[Fault] = []


class TokenOut(Schema):
    """Shown once."""

    token: str
