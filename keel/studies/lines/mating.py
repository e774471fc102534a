"""Whether the two sides of a joint fit: standard, size, hand and seal; and what piece would join them."""

from dataclasses import dataclass
from typing import Literal

from keel.design.connections import Adapter, Connection
from keel.reference.connections import CLAMPED, RUBBER_SEALS, looks_like, size_of
from keel.studies.result import Words, words

HOSE_GRIP_MM = 0.6
"""A hose grips a tail or a tube that is so much wider or narrower than its bore, no more."""
Fault = Literal["near size", "size", "standard", "hand", "seal"]


@dataclass(frozen=True, slots=True)
class Mismatch:
    """Why two sides don't fit."""

    fault: Fault
    why: Words


def named(one: Connection) -> str:
    """A connection as people ask for it over the counter.

    Parameters
    ----------
    one : Connection
        One side of a joint.

    Returns
    -------
    str
        Size, thread, standard and hand.
    """
    thread = size_of(one.standard, one.size).thread
    size = f"{one.size} ({thread})" if thread and one.size.startswith("-") else thread or one.size
    if one.standard == "G parallel":
        return f"{size} {one.hand}"
    if one.standard == "NPT taper":
        return f"{size} {one.hand}"
    if one.standard in CLAMPED:
        return f"{size} {one.standard}"
    return f"{size} {one.standard} {one.hand}"


def mismatch(one: Connection, other: Connection) -> Mismatch | None:
    """Why two connections can't be joined; None where they can.

    Parameters
    ----------
    one, other : Connection
        Both sides of a joint.

    Returns
    -------
    Mismatch or None
        A size that starts in another and strips comes first: it is the one that is found out on the road.
    """
    a, b = one.sized, other.sized
    sides = {"one": named(one), "other": named(other)}
    if looks_like(a, b):
        return Mismatch("near size", _near(one, other))
    if one.standard != other.standard:
        if a.pitch_mm and (a.diameter_mm, a.pitch_mm) == (b.diameter_mm, b.pitch_mm):
            return Mismatch("seal", words("{one} and {other} share a thread, but nothing seals them", **sides))
        return Mismatch("standard", words("{one} doesn't go on {other}", **sides))
    if one.size != other.size:
        return Mismatch("size", words("{one} doesn't go on {other}: another size", **sides))
    if one.standard in CLAMPED:
        return Mismatch("hand", words("{one} on {other}: two ends to push a hose on, and no hose between", **sides))
    if one.hand == other.hand:
        return Mismatch("hand", words("{one} on {other}: both {hand}", **sides, hand=one.hand))
    if one.seals_by in RUBBER_SEALS and one.seal is None and other.seal is None:
        return Mismatch(
            "seal", words("{one} in {other}: what its {ring} is made of isn't said", **sides, ring=one.seals_by)
        )
    return None


def _near(one: Connection, other: Connection) -> Words:
    a, b = one.sized, other.sized
    if a.pitch_mm:
        return words(
            "{one} starts in {other} ({a_sheet} × {a_pitch_sheet} against {b_sheet} × {b_pitch_sheet}), then strips",
            one=named(one),
            other=named(other),
            a_sheet=a.diameter_mm,
            a_pitch_sheet=a.pitch_mm,
            b_sheet=b.diameter_mm,
            b_pitch_sheet=b.pitch_mm,
        )
    return words(
        "{one} goes on {other} ({a_sheet} against {b_sheet}), then weeps or lets go",
        one=named(one),
        other=named(other),
        a_sheet=a.diameter_mm,
        b_sheet=b.diameter_mm,
    )


def mate_of(one: Connection) -> Connection:
    """What screws on a connection.

    Parameters
    ----------
    one : Connection
        One side of a joint.

    Returns
    -------
    Connection
        The same standard and size, the other hand, a seal that is said.
    """
    hand: Literal["male", "female"] = "female" if one.hand == "male" else "male"
    needs = one.seals_by in RUBBER_SEALS
    seal = one.seal or ("fluoroelastomer" if needs else None)
    return Connection(standard=one.standard, size=one.size, hand=hand, seal=seal)


def adapter_between(part_side: Connection, line_side: Connection) -> Adapter:
    """The piece that joins two connections that don't fit each other.

    Parameters
    ----------
    part_side, line_side : Connection
        What the part has, and what the line's end has.

    Returns
    -------
    Adapter
        With the mate of each. Clamped ones take a tail of their own size.
    """
    sides = [one if one.standard in CLAMPED else mate_of(one) for one in (part_side, line_side)]
    return Adapter(part_side=sides[0], line_side=sides[1])


def hose_fits(bore_mm: float, on: Connection) -> bool:
    """Whether a hose of a bore grips a tail or a tube."""
    return abs(on.sized.diameter_mm - bore_mm) <= HOSE_GRIP_MM
