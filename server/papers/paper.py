"""What a paper is: a file that can be had of a tank as it is."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from keel.analysis.tank import TankAnalysis
from keel.log.state import BuildState
from keel.studies.proof.series import SeriesResult
from server.http.errors import ApiError
from server.papers.heading import Heading


@dataclass(frozen=True)
class Wanted:
    """What a paper is made from."""

    title: str
    heading: Heading
    tank: TankAnalysis
    pitch_mm: float | None
    state: Callable[[], BuildState]
    """How far it is built, worked out when it is asked for."""
    at_the_bench: str
    """Address of its page for a phone."""
    curves: Callable[[str], SeriesResult | None]
    """What the readings of a leak test said."""


@dataclass(frozen=True)
class Paper:
    """One file: its name in addresses, what it is called, and what writes it."""

    name: str
    title: str
    write: Callable[[Wanted], bytes]


def _nothing_missing(_tank: TankAnalysis, _name: str) -> ApiError | None:
    return None


@dataclass(frozen=True)
class StationPapers:
    """The papers of a station.

    Attributes
    ----------
    station : str
        Its name.
    of : callable
        All that can be had of a tank that has a shell.
    missing : callable
        Why a name that would be one of these can't be had of a tank.
    """

    station: str
    of: Callable[[TankAnalysis], Iterator[Paper]]
    missing: Callable[[TankAnalysis, str], ApiError | None] = _nothing_missing
