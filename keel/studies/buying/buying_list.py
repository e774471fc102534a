"""The list for the day: everything that is needed, what of it is on the shelf and ordered, and what it costs."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import BUYING, WORKSHOP
from keel.analysis.study import study
from keel.design.buying import Buying, BuyingLine, BuyingUnit
from keel.design.workshop import Workshop
from keel.studies.buying.items import Gathered, Item, ItemKind, gathered
from keel.studies.buying.line_items import LINE_ITEMS
from keel.studies.buying.other_items import SHEET_ITEMS, TANK_ITEMS, WIRE_ITEMS
from keel.studies.result import Words, words


@dataclass(frozen=True, slots=True)
class BuyingRow:
    """A line of the list.

    Attributes
    ----------
    key : str
        Its name in metric units, by which prices and orders are kept.
    needed_for : list of str
        Where.
    price : float or None
        Of one, or of a metre.
    supplier : str
        Where it is bought.
    on_shelf, ordered : float
        Of it.
    to_order : float
        What is still to be ordered.
    cost : float or None
        Of what isn't on the shelf; None where no price is known.
    """

    kind: ItemKind
    name: Words
    key: str
    quantity: float
    unit: BuyingUnit
    needed_for: list[str]
    price: float | None
    supplier: str
    on_shelf: float
    ordered: float
    to_order: float
    cost: float | None


@dataclass(frozen=True, slots=True)
class BuyingList:
    """All lines.

    Attributes
    ----------
    cost : float
        Of those whose price is known, less what is on the shelf.
    unpriced : int
        Lines that have to be bought and whose price isn't known.
    """

    rows: list[BuyingRow]
    cost: float
    unpriced: int


def buying_list(
    buying: Buying,
    workshop: Workshop,
    lines: Sequence[Item],
    wires: Sequence[Item],
    tank: Sequence[Item],
    sheet: Sequence[Item],
) -> BuyingList:
    """Everything in one list.

    Parameters
    ----------
    buying : Buying
        What is said of its lines, and lines that people added.
    workshop : Workshop
        Its price book.
    lines, wires, tank, sheet : sequence of Item
        What is needed.

    Returns
    -------
    BuyingList
        Spares after what is fitted; what was typed here counts before the price book.
    """
    own = [
        Item("spare" if one.spare else "own", words("{name}", name=one.name), one.quantity, one.unit, "added by hand")
        for one in buying.own
    ]
    said = {one.name: one for one in buying.lines}
    alike = gathered([*lines, *wires, *tank, *sheet, *own])
    rows = [_row(one, said.get(one.key), workshop) for one in sorted(alike, key=lambda one: one.kind == "spare")]
    unpriced = [row for row in rows if row.cost is None and row.quantity > row.on_shelf]
    return BuyingList(rows, sum(row.cost or 0.0 for row in rows), len(unpriced))


def _row(one: Gathered, said: BuyingLine | None, workshop: Workshop) -> BuyingRow:
    booked = workshop.booked(one.key)
    price = said.price if said and said.price is not None else booked.price if booked else None
    price = one.price if price is None else price
    shelf = said.on_shelf if said and said.on_shelf is not None else booked.on_shelf if booked else 0.0
    ordered = said.ordered if said else 0.0
    missing = max(0.0, one.quantity - shelf)
    return BuyingRow(
        kind=one.kind,
        name=one.name,
        key=one.key,
        quantity=one.quantity,
        unit=one.unit,
        needed_for=one.needed_for,
        price=None if price is None else round(price, 4),
        supplier=(said.supplier if said else "") or (booked.supplier if booked else ""),
        on_shelf=shelf,
        ordered=ordered,
        to_order=max(0.0, missing - ordered),
        cost=None if price is None else price * missing,
    )


BUYING_LIST = study(buying_list, BUYING, WORKSHOP, LINE_ITEMS, WIRE_ITEMS, TANK_ITEMS, SHEET_ITEMS)
