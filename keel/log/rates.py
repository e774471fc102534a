"""What work really takes: the times of done operations against what was planned with."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from statistics import median

from keel.design.work import WorkKind
from keel.log.entries import Received
from keel.log.facts import Facts, facts
from keel.log.standing import standing
from keel.log.state import by_operation, spent_min

LAST = 10
"""So many of the last times make the next rate."""


@dataclass(frozen=True, slots=True)
class Taken:
    """One operation that was timed from beginning to end: minutes over its amount."""

    work: WorkKind
    minutes: float
    amount: float
    when: datetime

    @property
    def each(self) -> float:
        """Minutes a unit of the kind's rate."""
        return self.minutes / self.amount


@dataclass(frozen=True, slots=True)
class RateSeen:
    """What a kind of work has taken lately.

    Attributes
    ----------
    work : WorkKind
        Of which kind.
    count : int
        How many times it goes by, the last ten at most.
    median, least, most : float
        Minutes a unit of the kind's rate.
    """

    work: WorkKind
    count: int
    median: float
    least: float
    most: float


def taken(log: Sequence[Received]) -> list[Taken]:
    """Operations of a job that were timed.

    Parameters
    ----------
    log : sequence of Received
        All entries of the job, in the order they came.

    Returns
    -------
    list of Taken
        Those done that somebody began, and whose kind and amount are known.
    """
    kept = standing(log).entries
    designs = {one.entry.design for one in kept}
    return [one for design in designs for one in _of(facts([e for e in kept if e.entry.design == design]))]


def _of(said: Facts) -> Iterable[Taken]:
    times = by_operation(said)
    for name, done in said.done.items():
        minutes, entry = spent_min(times.get(name, {})), done.entry
        if minutes and entry.work is not None and entry.amount:
            yield Taken(entry.work, minutes, entry.amount, done.happened)


def rates_seen(times: Iterable[Taken]) -> list[RateSeen]:
    """The median of the last ten of each kind.

    Parameters
    ----------
    times : iterable of Taken
        Of all jobs.

    Returns
    -------
    list of RateSeen
        A row a kind that was timed.
    """
    kinds: dict[WorkKind, list[Taken]] = defaultdict(list)
    for one in sorted(times, key=lambda one: one.when):
        kinds[one.work].append(one)
    found = []
    for work, ones in kinds.items():
        last = [one.each for one in ones[-LAST:]]
        found.append(RateSeen(work, len(last), median(last), min(last), max(last)))
    return found
