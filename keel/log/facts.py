"""What stands in a log, by what it is about: the last word on each."""

from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, Generic, TypeVar

from keel.log.entries import (
    Accepted,
    Added,
    Agreed,
    Arrived,
    Asked,
    CameBack,
    Checked,
    Counted,
    Done,
    Flushed,
    Learnt,
    Measured,
    Moved,
    Overridden,
    Paused,
    Read,
    Received,
    SentOut,
    Skipped,
    Started,
)
from keel.log.entry import Way
from keel.log.handover_entries import (
    ClosedAgain,
    JointMarked,
    JointSeen,
    LeftOpen,
    LineRead,
    Poured,
)
from keel.log.proof_entries import GaugeRead, LeakFound, LeakRepaired, ProofBegun, ProofEnded, SeamWalked
from keel.studies.build.mount_work import STRAP

E = TypeVar("E")
HOT_KINDS = ("seat", "weld", "tack", "join", "close", "dress", "cut", "bend")
"""Work with heat, sparks or a cutter: a leak test before it no longer holds."""
CAPS = "transport caps"
"""Pieces that come with what is bought, and have to come off before it is fitted."""


@dataclass(frozen=True, slots=True)
class Said(Generic[E]):
    """An entry, who wrote it and when."""

    entry: E
    author: str
    happened: datetime


@dataclass(slots=True)
class Facts:
    """The last word on each thing.

    Attributes
    ----------
    done, skipped, accepted : dict
        By operation. What is done after it was skipped is done, and the other way about.
    times : dict
        By operation and author: when begun, left, ended.
    checks : dict
        By the check's own name.
    counts : dict
        Pieces by kind and way.
    readings, overrides : dict
        By subject.
    measurements, flushes : dict
        All of a subject, in their order.
    plan : list
        Operations added and moved, in their order.
    arrived : dict
        All deliveries of an item. Their caps count as pieces in.
    asked, agreed, learnt : list
        What makers ask for, what the customer agreed to, what a revision taught.
    sent, back : dict
        By the entry that sent it.
    proofs : dict
        Leak tests by their own entry.
    ended, walked, leaks, read : dict
        By the test: how it ended, seams walked, leaks found, readings by hand.
    repaired : dict
        By the leak.
    poured, marked, closed : dict
        The last word on a step of the fill, on a joint's mark, on an open item.
    seen, held : dict
        All words on a joint, all pressures of a line, in their order.
    left : dict
        What was left open, by its own entry.
    hot : list
        Work that was begun or done that undoes a leak test before it, in its order.
    """

    done: dict[str, Said[Done]] = field(default_factory=dict)
    skipped: dict[str, Said[Skipped]] = field(default_factory=dict)
    accepted: dict[str, Said[Accepted]] = field(default_factory=dict)
    times: dict[tuple[str, str], list[Said[Started | Paused | Done]]] = field(default_factory=lambda: defaultdict(list))
    checks: dict[str, Said[Checked]] = field(default_factory=dict)
    counts: dict[tuple[str, Way], int] = field(default_factory=dict)
    readings: dict[str, Said[Read]] = field(default_factory=dict)
    overrides: dict[str, Said[Overridden]] = field(default_factory=dict)
    measurements: dict[str, list[Said[Measured]]] = field(default_factory=lambda: defaultdict(list))
    flushes: dict[str, list[Flushed]] = field(default_factory=lambda: defaultdict(list))
    plan: list[Added | Moved] = field(default_factory=list)
    arrived: dict[str, list[Arrived]] = field(default_factory=lambda: defaultdict(list))
    asked: list[Asked] = field(default_factory=list)
    agreed: list[Said[Agreed]] = field(default_factory=list)
    learnt: list[Said[Learnt]] = field(default_factory=list)
    sent: dict[str, Said[SentOut]] = field(default_factory=dict)
    back: dict[str, Said[CameBack]] = field(default_factory=dict)
    proofs: dict[str, Said[ProofBegun]] = field(default_factory=dict)
    ended: dict[str, Said[ProofEnded]] = field(default_factory=dict)
    walked: dict[str, dict[str, Said[SeamWalked]]] = field(default_factory=lambda: defaultdict(dict))
    leaks: dict[str, list[Said[LeakFound]]] = field(default_factory=lambda: defaultdict(list))
    read: dict[str, list[Said[GaugeRead]]] = field(default_factory=lambda: defaultdict(list))
    repaired: dict[str, Said[LeakRepaired]] = field(default_factory=dict)
    poured: dict[str, Said[Poured]] = field(default_factory=dict)
    held: dict[str, list[Said[LineRead]]] = field(default_factory=lambda: defaultdict(list))
    seen: dict[str, list[Said[JointSeen]]] = field(default_factory=lambda: defaultdict(list))
    marked: dict[tuple[str, str], Said[JointMarked]] = field(default_factory=dict)
    left: dict[str, Said[LeftOpen]] = field(default_factory=dict)
    closed: dict[str, Said[ClosedAgain]] = field(default_factory=dict)
    hot: list[Said[Any]] = field(default_factory=list)


def facts(entries: Sequence[Received], design: int | None = None) -> Facts:
    """The last word on each thing that standing entries are about.

    Parameters
    ----------
    entries : sequence of Received
        Those that stand.
    design : int, optional
        One design of the job alone; all of it where none is named.

    Returns
    -------
    Facts
        By what they are about.
    """
    found = Facts()
    for one in entries:
        if design is None or one.entry.design in (design, None):
            _take(found, one)
    return found


def _take(found: Facts, one: Received) -> None:
    take = _TAKES.get(type(one.entry))
    if take is not None:
        take(found, Said(one.entry, one.author, one.happened))


def _timed(found: Facts, said: Said[Any]) -> None:
    found.times[said.entry.subject, said.author].append(said)
    if not isinstance(said.entry, Paused) and _is_hot(found, said.entry.subject):
        found.hot.append(said)


def _is_hot(found: Facts, operation: str) -> bool:
    """Whether an operation makes heat or a hole in the tank: by its kind, people's own by what they said of it."""
    own = next((one for one in found.plan if isinstance(one, Added) and one.subject == operation), None)
    if own is not None:
        return own.hot
    kind, _, on = operation.partition(":")
    return kind in HOT_KINDS and not on.startswith(STRAP)


def _done(found: Facts, said: Said[Done]) -> None:
    found.done[said.entry.subject] = said
    found.skipped.pop(said.entry.subject, None)
    _timed(found, said)


def _skipped(found: Facts, said: Said[Skipped]) -> None:
    if said.entry.reason.strip():
        found.skipped[said.entry.subject] = said
        found.done.pop(said.entry.subject, None)


def _accepted(found: Facts, said: Said[Accepted]) -> None:
    if said.entry.reason.strip():
        found.accepted[said.entry.subject] = said


def _checked(found: Facts, said: Said[Checked]) -> None:
    found.checks[said.entry.check] = said


def _counted(found: Facts, said: Said[Counted]) -> None:
    found.counts[said.entry.subject, said.entry.way] = said.entry.value


def _read(found: Facts, said: Said[Read]) -> None:
    found.readings[said.entry.subject] = said


def _measured(found: Facts, said: Said[Measured]) -> None:
    found.measurements[said.entry.subject].append(said)


def _flushed(found: Facts, said: Said[Flushed]) -> None:
    found.flushes[said.entry.subject].append(said.entry)


def _overridden(found: Facts, said: Said[Overridden]) -> None:
    if said.entry.name.strip() and said.entry.reason.strip():
        found.overrides[said.entry.subject] = said


def _planned(found: Facts, said: Said[Any]) -> None:
    found.plan.append(said.entry)


def _arrived(found: Facts, said: Said[Arrived]) -> None:
    found.arrived[said.entry.subject].append(said.entry)
    if said.entry.caps:
        found.counts[CAPS, "in"] = found.counts.get((CAPS, "in"), 0) + said.entry.caps


def _asked(found: Facts, said: Said[Asked]) -> None:
    found.asked.append(said.entry)


def _agreed(found: Facts, said: Said[Agreed]) -> None:
    found.agreed.append(said)


def _learnt(found: Facts, said: Said[Learnt]) -> None:
    found.learnt.append(said)


def _sent(found: Facts, said: Said[SentOut]) -> None:
    found.sent[said.entry.id] = said


def _back(found: Facts, said: Said[CameBack]) -> None:
    found.back[said.entry.of] = said


def _proof_begun(found: Facts, said: Said[ProofBegun]) -> None:
    found.proofs[said.entry.id] = said


def _proof_ended(found: Facts, said: Said[ProofEnded]) -> None:
    found.ended.setdefault(said.entry.of, said)


def _walked(found: Facts, said: Said[SeamWalked]) -> None:
    found.walked[said.entry.of][said.entry.subject] = said


def _leak(found: Facts, said: Said[LeakFound]) -> None:
    found.leaks[said.entry.of].append(said)


def _gauge_read(found: Facts, said: Said[GaugeRead]) -> None:
    found.read[said.entry.of].append(said)


def _repaired(found: Facts, said: Said[LeakRepaired]) -> None:
    found.repaired[said.entry.of] = said
    found.hot.append(said)


def _poured(found: Facts, said: Said[Poured]) -> None:
    found.poured[said.entry.subject] = said


def _line_read(found: Facts, said: Said[LineRead]) -> None:
    found.held[said.entry.subject].append(said)


def _joint(found: Facts, said: Said[JointSeen]) -> None:
    found.seen[said.entry.subject].append(said)


def _marked(found: Facts, said: Said[JointMarked]) -> None:
    found.marked[said.entry.subject, said.entry.mark] = said


def _left(found: Facts, said: Said[LeftOpen]) -> None:
    found.left[said.entry.id] = said


def _closed(found: Facts, said: Said[ClosedAgain]) -> None:
    if said.entry.reason.strip():
        found.closed[said.entry.subject] = said


_TAKES: dict[type, Callable[[Facts, Said[Any]], None]] = {
    Started: _timed,
    Paused: _timed,
    Done: _done,
    Skipped: _skipped,
    Accepted: _accepted,
    Checked: _checked,
    Counted: _counted,
    Read: _read,
    Measured: _measured,
    Flushed: _flushed,
    Overridden: _overridden,
    Added: _planned,
    Moved: _planned,
    Arrived: _arrived,
    Asked: _asked,
    Agreed: _agreed,
    Learnt: _learnt,
    SentOut: _sent,
    CameBack: _back,
    ProofBegun: _proof_begun,
    ProofEnded: _proof_ended,
    SeamWalked: _walked,
    LeakFound: _leak,
    GaugeRead: _gauge_read,
    LeakRepaired: _repaired,
    Poured: _poured,
    LineRead: _line_read,
    JointSeen: _joint,
    JointMarked: _marked,
    LeftOpen: _left,
    ClosedAgain: _closed,
}
