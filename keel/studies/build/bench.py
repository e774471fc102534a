"""What operations are made with: the workshop's rates, digests of what they are done on, the tank's parts by name."""

from collections.abc import Iterable
from dataclasses import astuple
from hashlib import blake2b

from pydantic_core import to_json

from keel.design.ports import Port
from keel.design.work import WorkKind
from keel.design.workshop import Workshop
from keel.reference.metals import MetalName
from keel.studies.build.operation import Count, Operation, Tightening
from keel.studies.result import Words
from keel.studies.sheet.parts import Bend, Bore, FlatPart, Roll

DIGEST_BYTES = 8
FIGURES = 3
"""Digits after the point of a millimetre that a part may differ in and still be the same."""

PER_UNIT: dict[WorkKind, str] = {
    "receive": "receive_min_each",
    "prepare": "prepare_min_per_m2",
    "send": "send_min_each",
    "cut": "cut_min_per_m",
    "deburr": "deburr_min_per_m",
    "roll": "roll_min_each",
    "join": "join_min_each",
    "tack": "tack_min_per_m",
    "weld": "weld_min_per_m",
    "close": "weld_min_per_m",
    "clean": "clean_min_each",
    "look": "look_min_each",
    "dress": "dress_min_per_m",
    "plug": "plug_min_each",
    "trim": "trim_min_each",
    "prove": "prove_min_each",
    "cover": "cover_min_per_m2",
    "commission": "commission_min_each",
}
"""The rate of each kind; bends, ports and fittings have theirs among the prices."""


def minutes_each(kind: WorkKind, workshop: Workshop) -> float | None:
    """How long a unit of some work takes here [min].

    Parameters
    ----------
    kind : WorkKind
        Of work.
    workshop : Workshop
        Its rates and prices.

    Returns
    -------
    float or None
        Minutes a metre, a square metre or a piece; None where it isn't typed.
    """
    prices = workshop.prices
    among_prices = {
        "bend": prices.minutes_per_bend,
        "seat": prices.minutes_per_port,
        "fit": prices.minutes_per_fitting,
    }
    if kind in among_prices:
        return among_prices[kind]
    found: float | None = getattr(workshop.rates, PER_UNIT[kind])
    return found


class Bench:
    """Makes operations by a workshop's rates.

    Parameters
    ----------
    workshop : Workshop
        Rates, and the trades that work is for.
    metal : MetalName
        What the tank is made of.
    parts : iterable of FlatPart
        Its flats, as they are cut.
    """

    def __init__(self, workshop: Workshop, metal: MetalName, parts: Iterable[FlatPart]) -> None:
        self.workshop, self.metal = workshop, metal
        self.digests = {part.name: flat_digest(part, metal) for part in parts}

    def basis(self, parts: Iterable[FlatPart]) -> dict[str, str]:
        """What an operation on some flats depends on: a digest of each, by its title."""
        return {part.title: self.digests[part.name] for part in parts}

    def operation(
        self,
        kind: WorkKind,
        on: str,
        title: Words,
        amount: float,
        *,
        parts: Iterable[str] = (),
        needs: Iterable[str] = (),
        tools: Iterable[str] = (),
        consumables: Iterable[Words] = (),
        cautions: Iterable[Words] = (),
        cheap_now: Iterable[Words] = (),
        steps: Iterable[Words] = (),
        counts: Iterable[Count] = (),
        pieces: Iterable[str] = (),
        tightening: Tightening | None = None,
        basis: dict[str, str] | None = None,
        covers: bool = False,
    ) -> Operation:
        """One operation, its minutes planned: `amount` in the unit of its kind's rate."""
        each = minutes_each(kind, self.workshop)
        return Operation(
            id=f"{kind}:{on}",
            kind=kind,
            title=title,
            parts=list(parts),
            needs=list(needs),
            tools=list(tools),
            consumables=list(consumables),
            minutes=None if each is None else each * amount,
            amount=amount,
            by=self.workshop.rates.by.get(kind, ""),
            cautions=list(cautions),
            cheap_now=list(cheap_now),
            steps=list(steps),
            counts=list(counts),
            pieces=list(pieces),
            tightening=tightening,
            basis=basis or {},
            covers=covers,
        )


def flat_digest(part: FlatPart, metal: MetalName) -> str:
    """A digest of how a part is cut and bent: the same while no size of it changes.

    Parameters
    ----------
    part : FlatPart
        As it is cut.
    metal : MetalName
        Of which sheet.

    Returns
    -------
    str
        Sixteen hexadecimal digits.
    """
    worked: list[Bend | Roll | Bore] = [*part.bends, *part.rolls, *part.bores]
    shape = [part.outline, part.holes, [astuple(one) for one in worked], part.thickness_mm]
    return _digest([metal, part.quantity, _rounded(shape)])


def port_digest(port: Port) -> str:
    """A digest of a port and all that is fitted at it.

    Parameters
    ----------
    port : Port
        As it is drawn.

    Returns
    -------
    str
        Sixteen hexadecimal digits.
    """
    return _digest(port.model_dump(mode="json"))


def _digest(content: object) -> str:
    return blake2b(to_json(content), digest_size=DIGEST_BYTES).hexdigest()


def _rounded(value: object) -> object:
    if isinstance(value, float):
        return round(value, FIGURES) + 0.0
    if isinstance(value, list | tuple):
        return [_rounded(item) for item in value]
    return value
