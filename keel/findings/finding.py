"""A finding as data: what is wrong, why it matters, and what would put it right."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Literal

from keel.studies.result import Words

Severity = Literal["stop", "caution", "note"]
Station = Literal["brief", "bay", "shell", "inside", "ports", "gauge", "sheet"]
Patch = dict[str, Any]
"""A JSON merge patch (RFC 7396) for the design document."""


@dataclass(frozen=True, slots=True)
class Change:
    """What a remedy does to the tally."""

    brimful_l: float
    rated_l: float
    empty_kg: float | None
    weld_m: float
    minutes: float | None = None
    """Working time of the seams by the workshop's figure; empty where it isn't typed."""
    money: float | None = None
    """By the workshop's prices; empty where one of them isn't typed."""
    currency: str = ""


@dataclass(frozen=True, slots=True)
class Remedy:
    """A change to the design that can be tried before it is taken."""

    label: Words
    patch: Patch
    change: Change | None = None
    settles: int = 0
    """How many findings go away."""
    raises: list[Words] = field(default_factory=list)
    """Titles of findings that come up instead."""


@dataclass(frozen=True, slots=True)
class Finding:
    """One judgement. `key` stays the same while the same thing is wrong."""

    code: str
    key: str
    severity: Severity
    station: Station
    title: Words
    why: Words
    remedies: list[Remedy] = field(default_factory=list)


def of_station(station: Station) -> Callable[[str, str, Severity, Words, Words], Finding]:
    """A maker of a station's findings, from code, what it is about (empty: the whole tank), severity, title, why."""

    def finding(code: str, about: str, severity: Severity, title: Words, why: Words) -> Finding:
        key = f"{code}:{about}" if about else code
        return Finding(code=code, key=key, severity=severity, station=station, title=title, why=why)

    return finding
