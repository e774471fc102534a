"""What stands in a cell of a library's table."""

from collections.abc import Mapping
from typing import Any

from keel.design.faults import Fault
from keel.formats.table import problem
from keel.reference.quantities import QUANTITIES, UnitSet

DIGITS = ".12g"
"""Sizes go out with all the digits they have."""

Path = tuple[str, ...]


def said(value: Any, units: UnitSet = "mm_l") -> str:
    """A value as a cell: nothing where there is none, valves with the pressure that opens each.

    Parameters
    ----------
    value : Any
        A number, a text, a yes or no, or several valves.
    units : UnitSet
        The reader's set of units, for pressures.

    Returns
    -------
    str
        The cell.
    """
    if value is None or value is False:
        return ""
    if value is True:
        return "yes"
    if isinstance(value, tuple):
        opens = QUANTITIES["kpa"].shown(units)
        items = [(valve["name"].replace(";", ","), valve["opens_kpa"] / opens.per) for valve in value]
        return "; ".join(f"{name} {pressure:{DIGITS}} {opens.unit}" for name, pressure in items)
    return format(value, DIGITS) if isinstance(value, float | int) else str(value)


def listed(cell: Any) -> list[str]:
    """The items of a cell that has several.

    Parameters
    ----------
    cell : Any
        As read, with semicolons between.

    Returns
    -------
    list of str
        Without blanks round them; empty for an empty cell.
    """
    return [item.strip() for item in str(cell or "").split(";") if item.strip()]


def invalid_row(number: int, details: Any, paths: Mapping[str, Path]) -> Fault:
    """What a validation error says, with its row and column.

    Parameters
    ----------
    number : int
        The row.
    details : Any
        An error as pydantic lists it.
    paths : mapping
        Where each column stands in the document; a field that isn't there is its own column.

    Returns
    -------
    Fault
        Naming row, column, value and limit.
    """
    context = details.get("ctx") or {}
    value = details.get("input")
    met = context.get("tag") or ("" if isinstance(value, dict) else str(value))
    expected = context.get("expected_tags") or context.get("expected")
    limit = str(context.get("limit") or expected or details["msg"])
    return problem(number, _column(details, context, paths), str(context.get("value", met))[:80], limit)


def _column(details: Any, context: Mapping[str, Any], paths: Mapping[str, Path]) -> str:
    """The column that a validation error is about: that whose place in the document it names, or one beside it."""
    if details["type"] == "union_tag_invalid":
        return "kind"
    steps = [*details["loc"], *str(context.get("field", "")).split(".")]
    path = tuple(str(step) for step in steps if str(step) and not str(step).isdigit())
    exact = [column for column, place in paths.items() if path[: len(place)] == place]
    beside = [column for column, place in paths.items() if place[:1] == path[:1]]
    return next(iter([*exact, *beside]), path[-1])
