"""What is bought for a tank: counted against this list when it comes."""

from collections.abc import Iterator, Sequence

from keel.design.gauge import Sender
from keel.design.inside import Inside
from keel.design.ports import Port
from keel.studies.build.operation import AllHere, Bought, Gate, Operation
from keel.studies.result import words

WELDED_IN = ("boss", "neck", "lock ring")
"""Seats that are bought; a flange's ring is cut from sheet."""


def goods(ports: Sequence[Port], senders: Sequence[Sender], inside: Inside) -> list[Bought]:
    """What is bought for a tank, beside its sheet.

    Parameters
    ----------
    ports, senders : sequence
        What is fitted.
    inside : Inside
        Foam and bag.

    Returns
    -------
    list of Bought
        Seats to be welded in first, then what is fitted.
    """
    return [*_seats(ports), *_fitted(ports), *_screws(ports), *_senders(senders), *_fillings(inside)]


def _seats(ports: Sequence[Port]) -> Iterator[Bought]:
    for port in ports:
        if port.seat and port.seat.kind in WELDED_IN:
            thread = f" {port.seat.thread}" if port.seat.thread else ""
            said = words("{seat}{thread} of {port}", seat=port.seat.kind.capitalize(), thread=thread, port=port.name)
            yield Bought(f"seat:{port.id}", said, 1, (port.id,))


def _fitted(ports: Sequence[Port]) -> Iterator[Bought]:
    for port in ports:
        if port.part or port.hanger or port.stands_mm:
            yield Bought(
                f"fitting:{port.id}",
                words("{part} for {port}", part=port.part or "Fitting", port=port.name),
                1,
                (port.id,),
            )
        if port.seat and port.seat.seal:
            said = words("Seal of {port}, {seal}", port=port.name, seal=port.seat.seal)
            yield Bought(f"seal:{port.id}", said, 1, (port.id,))


def _screws(ports: Sequence[Port]) -> Iterator[Bought]:
    for port in ports:
        if port.seat and port.seat.bolts:
            yield Bought(f"screws:{port.id}", words("Screw of {port}", port=port.name), port.seat.bolts, (port.id,))


def _senders(senders: Sequence[Sender]) -> Iterator[Bought]:
    for sender in senders:
        yield Bought(f"sender:{sender.id}", words("{sender}", sender=sender.name), 1, (sender.id,))


def _fillings(inside: Inside) -> Iterator[Bought]:
    if inside.foam:
        yield Bought("foam", words("Foam"), 1)
    if inside.bladder:
        yield Bought("bag", words("Bag"), 1)


def goods_gates(bought: Sequence[Bought], operations: Sequence[Operation]) -> list[Gate]:
    """What has to be here before it is welded in or fitted.

    Parameters
    ----------
    bought : sequence of Bought
        The list.
    operations : sequence of Operation
        That use it.

    Returns
    -------
    list of Gate
        One before the seats are welded in, one before anything is fitted; none where nothing is bought for it.
    """
    seats = [item for item in bought if item.id.startswith("seat:")]
    rest = [item for item in bought if item not in seats]
    why = words(
        "What is missing or damaged is found while there is time to send for it, not with the tank half closed."
    )
    wanted = (
        ("goods:seats", words("Bosses and necks are here, counted and whole"), seats, "seat"),
        ("goods:fitted", words("What is fitted is here, counted and whole"), rest, "fit"),
    )
    return [
        Gate(name, title, behind, [AllHere(tuple((one.id, one.title.plain(), one.quantity) for one in items))], why)
        for name, title, items, kind in wanted
        if items and (behind := [one.id for one in operations if one.kind == kind])
    ]
