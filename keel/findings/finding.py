"""A finding as data: what is wrong, why it matters, and what would put it right."""

from typing import Any, Literal

from pydantic import Field

from keel.studies.result import Result, Words

Severity = Literal["stop", "caution", "note"]
Station = Literal["brief", "bay", "shell", "sheet"]
Patch = dict[str, Any]
"""A JSON merge patch (RFC 7396) for the design document."""


class Change(Result):
    """What a remedy does to the tally."""

    brimful_l: float
    rated_l: float
    empty_kg: float | None
    weld_m: float


class Remedy(Result):
    """A change to the design that can be tried before it is taken."""

    label: Words
    patch: Patch
    change: Change | None = None
    settles: int = Field(default=0, description="How many findings go away")
    raises: list[Words] = Field(default=[], description="Titles of findings that come up instead")


class Finding(Result):
    """One judgement. `key` stays the same while the same thing is wrong."""

    code: str
    key: str
    severity: Severity
    station: Station
    title: Words
    why: Words
    remedies: list[Remedy] = []
