"""A made-up build from the first sheet to what comes before the leak test: every step done, every gate met."""

from collections.abc import Callable, Iterator
from typing import Any

from keel.studies.build.operation import (
    CountsMatch,
    FlushedClean,
    Gate,
    JointsDry,
    LineHolds,
    Looked,
    MeasurementsAgree,
    PouredIn,
    ReadingAtMost,
    Traveller,
)
from server.demo.cart_log import Said, worked

FIRST_HOUR, LAST_HOUR = 8.0, 16.5
USUAL_MIN, SLOWER = 12.0, 1.08
LOOSE = 4
"""Pieces of a kind that went in and came out again."""
WELDS = ("seat", "tack", "weld", "close", "join", "dress")
"""Marla's work; Osric does the rest."""


def built(traveller: Traveller, days_ago: int, photo: str, until: str = "prove") -> Iterator[Said]:
    """Everything before the first operation of a kind, from so many days ago on.

    Parameters
    ----------
    traveller : Traveller
        What the design asks for.
    days_ago : int
        When it began.
    photo : str
        What is shown where a gate asks for a photo.
    until : str
        Kind of the operation that isn't done any more.
    """
    day, hour = days_ago, FIRST_HOUR
    for operation in traveller.operations:
        if operation.kind == until:
            return
        who = "marla" if operation.kind in WELDS else "osric"
        for gate in (one for one in traveller.gates if operation.id in one.before):
            yield from met(gate, who, day, hour, photo)
            hour += 0.1
        for item in traveller.goods if operation.id == "receive:goods" else ():
            yield Said(who, day, hour, "arrived", {"subject": item.id, "value": item.quantity})
        for count in operation.counts:
            counted = {"subject": count.what, "way": count.way, "value": count.expected}
            yield Said(who, day, hour, "count", counted)
        minutes = SLOWER * (operation.minutes or USUAL_MIN)
        yield from worked(who, day, hour, min(minutes, 60 * (LAST_HOUR - hour)), operation.id)
        hour += minutes / 60 + 0.15
        if hour > LAST_HOUR - 0.5:
            day, hour = day - 1, FIRST_HOUR + 0.2


def met(gate: Gate, who: str, day: int, hour: float, photo: str) -> Iterator[Said]:
    """What is written until a gate is open; its goods are counted in by themselves, its leak test is told elsewhere."""
    for condition in gate.conditions:
        answers = _ANSWERS.get(type(condition))
        for after, kind, values in answers(condition) if answers else ():
            more = {"photos": [photo]} if isinstance(condition, Looked) and condition.photo else {}
            yield Said(who, day, hour + after, kind, {"subject": gate.id} | values | more)


Answers = Iterator[tuple[float, str, dict[str, Any]]]
"""So many hours later, what kind of entry, with what."""


def _looked(asked: Looked) -> Answers:
    yield 0.0, "checked", {"check": asked.check}


def _flushed(asked: FlushedClean) -> Answers:
    for n, (caught, clean) in enumerate((("swarf", False), ("nothing", True))):
        yield 0.03 * n, "flushed", {"subject": asked.subject, "caught": caught, "clean": clean}


def _measured(asked: MeasurementsAgree) -> Answers:
    for n, way in enumerate(("tape", "stick")):
        values = {"subject": asked.subject, "value_mm": asked.planned_mm + 0.2 * n, "by_way": way}
        yield 0.02 * n, "measured", values


def _read(asked: ReadingAtMost) -> Answers:
    yield 0.0, "reading", {"subject": asked.subject, "value": round(0.2 * asked.most, 2)}


def _counted(asked: CountsMatch) -> Answers:
    for kind in asked.kinds:
        for n, way in enumerate(("in", "out")):
            yield 0.01 * n, "count", {"subject": kind, "way": way, "value": LOOSE}


def _poured(asked: PouredIn) -> Answers:
    yield 0.0, "poured", {"subject": asked.subject, "litres": round(asked.litres, 1)}


def _held(asked: LineHolds) -> Answers:
    for minute, share in ((0.0, 1.02), (asked.minutes + 2.0, 1.01)):
        values = {"subject": asked.circuit, "minute": minute, "kpa": round(share * asked.kpa, 1)}
        yield minute / 60, "line read", values


def _visited(asked: JointsDry) -> Answers:
    for joint, _, marks in asked.joints:
        yield 0.05, "joint", {"subject": joint, "found": "dry"}
        for mark in () if asked.after else marks:
            yield 0.05, "joint mark", {"subject": joint, "mark": mark}


_ANSWERS: dict[type, Callable[[Any], Answers]] = {
    Looked: _looked,
    FlushedClean: _flushed,
    MeasurementsAgree: _measured,
    ReadingAtMost: _read,
    CountsMatch: _counted,
    PouredIn: _poured,
    LineHolds: _held,
    JointsDry: _visited,
}
