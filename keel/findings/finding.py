"""A finding as data: what is wrong, why it matters, and what would put it right."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal, Protocol

from keel.analysis.tank import TankAnalysis
from keel.studies.result import Words

Severity = Literal["stop", "caution", "note"]
StationName = str
"""A station's name in the registry."""
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
    """One judgement.

    Attributes
    ----------
    code : str
        Which rule it comes from.
    subject : str
        What it is about: the id of a port, a feature, a case; the name of a cell or a part; empty for the whole tank.
    detail : str
        What of the subject, where a rule has more than one thing to say of it.
    key : str
        All three together: it stays the same while the same thing is wrong.
    """

    code: str
    subject: str
    detail: str
    key: str
    severity: Severity
    station: StationName
    title: Words
    why: Words
    remedies: list[Remedy] = field(default_factory=list)


class Maker(Protocol):
    """Makes a station's findings, from code, subject (empty: the whole tank), severity, title, why, and detail."""

    def __call__(
        self, code: str, subject: str, severity: Severity, title: Words, why: Words, detail: str = ""
    ) -> Finding:
        """One finding."""
        ...


def of_station(station: StationName) -> Maker:
    """A maker of a station's findings.

    Parameters
    ----------
    station : StationName
        Name of the station.

    Returns
    -------
    Maker
        Called with code, severity, subject and words.
    """

    def finding(code: str, subject: str, severity: Severity, title: Words, why: Words, detail: str = "") -> Finding:
        key = ":".join(part for part in (code, subject, detail) if part)
        return Finding(code, subject, detail, key, severity, station, title, why)

    return finding


class Sayer(Protocol):
    """Makes a station's findings out of words: code, subject, severity, title, why, and the values in both."""

    def __call__(
        self, code: str, subject: str, severity: Severity, title: str, why: str, **values: float | str
    ) -> Finding:
        """One finding."""
        ...


def saying(station: StationName) -> Sayer:
    """A maker of a station's findings whose title and reason share their values.

    Parameters
    ----------
    station : StationName
        Name of the station.

    Returns
    -------
    Sayer
        Called with code, severity, subject, title, reason and values.
    """
    finding = of_station(station)

    def said(text: str, values: Mapping[str, float | str]) -> Words:
        return Words(text, {name: value for name, value in values.items() if f"{{{name}}}" in text})

    def say(code: str, subject: str, severity: Severity, title: str, why: str, **values: float | str) -> Finding:
        return finding(code, subject, severity, said(title, values), said(why, values))

    return say


Rule = Callable[[TankAnalysis], Iterator[Finding]]
"""Finds what is wrong in one way."""
Prescriber = Callable[[TankAnalysis, Finding], Iterator[Remedy]]
"""Says what would put a finding right, untried."""
