"""What of the list is counted in at Build, beside what goes into the tank itself."""

from collections.abc import Sequence
from math import ceil

from keel.analysis.study import study
from keel.studies.build.operation import Bought
from keel.studies.buying.items import Gathered, Item, gathered
from keel.studies.buying.line_items import LINE_ITEMS
from keel.studies.buying.other_items import WIRE_ITEMS
from keel.studies.result import Words

OF_LINES, LONGEST = "buy:", 120


def line_goods(lines: Sequence[Item], wires: Sequence[Item]) -> list[Bought]:
    """What lines and wiring take, as it comes.

    Parameters
    ----------
    lines, wires : sequence of Item
        What is needed.

    Returns
    -------
    list of Bought
        Pieces; what is bought by the metre counts as one.
    """
    return [_bought(one) for one in gathered([*lines, *wires])]


def _bought(one: Gathered) -> Bought:
    if one.unit == "each":
        return Bought(bought_id(one.key), one.name, ceil(one.quantity - 1e-9))
    title = Words(one.name.text + ", {together_m}", one.name.values | {"together_m": one.quantity})
    return Bought(bought_id(one.key), title, 1)


def bought_id(key: str) -> str:
    """What the log calls a line of the list.

    Parameters
    ----------
    key : str
        Its name.

    Returns
    -------
    str
        As long as the log takes.
    """
    return f"{OF_LINES}{key}"[:LONGEST]


def is_of_lines(item: Bought) -> bool:
    """Whether something that is counted in is of the buying list's lines: their paper is that list.

    Parameters
    ----------
    item : Bought
        Any of a traveller's goods.

    Returns
    -------
    bool
        By its id.
    """
    return item.id.startswith(OF_LINES)


LINE_GOODS = study(line_goods, LINE_ITEMS, WIRE_ITEMS)
