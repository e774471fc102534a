"""What stands in a cell of a library's table."""

from collections.abc import Callable, Mapping
from typing import Any, TypeVar

from pydantic import ValidationError

from keel.design.faults import Fault, fault_of
from keel.formats.table import Row, Table, problem
from keel.reference.quantities import QUANTITIES, UnitSet

DIGITS = ".12g"
"""Sizes go out with all the digits they have."""

Path = tuple[str, ...]
Kept = TypeVar("Kept")


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


def kept_rows(table: Table, kept: Callable[[Row], Kept], paths: Mapping[str, Path]) -> tuple[list[Kept], list[Fault]]:
    """What a table's rows stand for, and every problem with its row and column; good rows are kept.

    Parameters
    ----------
    table : Table
        As read.
    kept : callable
        Makes one of a row, or raises pydantic's error.
    paths : mapping
        Where each column stands in the document; a field that isn't there is its own column.

    Returns
    -------
    (list[Kept], list[Fault])
        In the table's order; and what is wrong with the others.
    """
    problems, found = list(table.problems), []
    for number, row in table.rows.items():
        try:
            found.append(kept(row))
        except ValidationError as error:
            problems += [_invalid_row(number, details, paths) for details in error.errors()]
    return found, problems


def _invalid_row(number: int, details: Any, paths: Mapping[str, Path]) -> Fault:
    """What a validation error says, with its row and column."""
    context = details.get("ctx") or {}
    value = details.get("input")
    met = context.get("tag") or ("" if isinstance(value, dict) else str(value))
    column, said = _column(details, context, paths), fault_of(details)
    if details["type"] == "missing":
        field = f"row {number}, {column}"
        return Fault(field=field, limit=said.limit, message=f"row {number}, column {column} is missing")
    return problem(number, column, str(context.get("value", met))[:80], str(context.get("limit") or said.limit))


def _column(details: Any, context: Mapping[str, Any], paths: Mapping[str, Path]) -> str:
    """The column that a validation error is about: that whose place in the document it names, or one beside it."""
    if details["type"] == "union_tag_invalid":
        return "kind"
    steps = [*details["loc"], *str(context.get("field", "")).split(".")]
    path = tuple(str(step) for step in steps if str(step) and not str(step).isdigit())
    exact = [column for column, place in paths.items() if path[: len(place)] == place]
    beside = [column for column, place in paths.items() if place[:1] == path[:1]]
    return next(iter([*exact, *beside]), path[-1])
