"""A made-up build from the first sheet to what comes before the leak test: every step done, every gate met."""

from collections.abc import Iterator

from keel.studies.build.operation import AllHere, CountsMatch, FlushedClean, Gate, Looked, Traveller
from server.demo.cart_log import Said, worked

FIRST_HOUR, LAST_HOUR = 8.0, 16.5
USUAL_MIN, SLOWER = 12.0, 1.08
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
            yield from _met(gate, who, day, hour, photo)
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


def _met(gate: Gate, who: str, day: int, hour: float, photo: str) -> Iterator[Said]:
    for condition in gate.conditions:
        if isinstance(condition, Looked):
            photos = [photo] if condition.photo else []
            yield Said(who, day, hour, "checked", {"subject": gate.id, "check": condition.check, "photos": photos})
        elif isinstance(condition, FlushedClean):
            rounds = (("swarf", False), ("nothing", True))
            for n, (caught, clean) in enumerate(rounds):
                flushed = {"subject": condition.subject, "caught": caught, "clean": clean}
                yield Said(who, day, hour + 0.03 * n, "flushed", flushed)
        assert not isinstance(condition, CountsMatch | AllHere) or gate.id.startswith(("goods", "counts"))
