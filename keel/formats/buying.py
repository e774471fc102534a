"""The buying list as CSV, and what suppliers and people wrote into it back in."""

from collections.abc import Sequence
from typing import Any

from keel.design.buying import BuyingLine
from keel.design.faults import Fault
from keel.formats.cells import kept_rows, said
from keel.formats.table import Kind, Row, read_table, written
from keel.studies.buying.buying_list import BuyingRow

COLUMNS = (
    "item", "kind", "quantity", "unit", "needed_for", "supplier", "price_each", "on_shelf", "ordered", "to_order",
    "cost",
)  # fmt: skip
REQUIRED: dict[str, Kind] = {"item": "text"}
OPTIONAL: dict[str, Kind] = {"supplier": "text", "price_each": "number", "on_shelf": "number", "ordered": "number"}
PATHS = {"item": ("name",), "price_each": ("price",)}


def buying_csv(rows: Sequence[BuyingRow]) -> bytes:
    """The list, a row a line.

    Parameters
    ----------
    rows : sequence of BuyingRow
        As listed.

    Returns
    -------
    bytes
        CSV. Names, metres, square metres and kilograms are metric for every reader, by the column `unit`: so a file
        that comes back is matched with what went out.
    """
    return written(COLUMNS, [_cells(row) for row in rows], "mm_l")


def _cells(row: BuyingRow) -> tuple[str, ...]:
    figures = [row.price, row.on_shelf, row.ordered, round(row.to_order, 3), row.cost and round(row.cost, 2)]
    about = (row.key, row.kind, said(round(row.quantity, 3)), row.unit, "; ".join(row.needed_for), row.supplier)
    return (*about, *(said(one) for one in figures))


def read_buying(content: bytes) -> tuple[list[BuyingLine], list[Fault]]:
    """What a file says of the list's lines, and every problem with its row and column; good rows are kept.

    Parameters
    ----------
    content : bytes
        CSV with the column `item`, and any of supplier, price_each, on_shelf, ordered.

    Returns
    -------
    (list of BuyingLine, list of Fault)
        Lines by their names, and what is wrong with the others.

    Raises
    ------
    UnreadableTableError
        When it is no such table.
    """
    return kept_rows(read_table(content, REQUIRED, OPTIONAL), _line, PATHS)


def _line(row: Row) -> BuyingLine:
    named = {"supplier": row.get("supplier"), "price": row.get("price_each"), "on_shelf": row.get("on_shelf")}
    known: dict[str, Any] = {name: value for name, value in named.items() if value not in (None, "")}
    ordered = row.get("ordered")
    known["ordered"] = 0 if ordered in (None, "") else ordered
    return BuyingLine.model_validate({"name": row["item"]} | known)
