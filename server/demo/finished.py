"""A made-up job from its leak test on: fitted, first fuel, lines proved, filled, handed over."""

from collections.abc import Iterator, Mapping

from keel.studies.build.operation import Operation, Traveller
from server.demo.built import FIRST_HOUR, LAST_HOUR, met
from server.demo.cart_log import Said, worked

USUAL_MIN = 15.0


def finished(
    traveller: Traveller,
    days_ago: int,
    photo: str,
    stays: Mapping[str, str],
    until: str | None = None,
) -> Iterator[Said]:
    """Every step after the leak tests.

    Parameters
    ----------
    traveller : Traveller
        What the design asks for.
    days_ago : int
        When it goes on.
    photo : str
        What is shown where a gate asks for a photo.
    stays : mapping of str to str
        Open items that are left as they are, and why.
    until : str, optional
        The operation that isn't done any more.
    """
    day, hour = days_ago, FIRST_HOUR
    for item in traveller.goods:
        yield Said("osric", day, hour, "arrived", {"subject": item.id, "value": item.quantity})
    for key, reason in stays.items():
        yield Said("marla", day, hour, "closed", {"subject": key, "reason": reason, "stays": True})
    told: set[str] = set()
    for operation in _after_proof(traveller):
        if operation.id == until:
            return
        for gate in (one for one in traveller.gates if operation.id in one.before and one.id not in told):
            told.add(gate.id)
            for said in met(gate, "osric", day, hour, photo):
                yield said
                hour = max(hour, said.hour)
        minutes = operation.minutes or USUAL_MIN
        yield from worked("osric", day, hour + 0.02, min(minutes, 60 * (LAST_HOUR - hour)), operation.id)
        hour += minutes / 60 + 0.1
        if hour > LAST_HOUR - 0.5:
            day, hour = day - 1, FIRST_HOUR + 0.2


def _after_proof(traveller: Traveller) -> list[Operation]:
    last = max((n for n, one in enumerate(traveller.operations) if one.kind == "prove"), default=-1)
    return traveller.operations[last + 1 :]
