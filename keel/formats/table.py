"""CSV tables, out in the reader's units and in: a bad cell is named with row and column, good rows are kept."""

import csv
import io
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal, NamedTuple

from keel.design.faults import Fault
from keel.formats.headings import as_kept, in_units
from keel.reference.quantities import UnitSet

Kind = Literal["text", "number", "count"]
Row = dict[str, str | float | None]
MOST_ROWS = 100_000
LONGEST_HEADING = 20_000
RUN = ("=", "+", "-", "@", "\t", "\r")
"""A spreadsheet takes text that begins with one of these for a formula."""


class UnreadableTableError(Exception):
    """A file that is no such table at all."""

    def __init__(self, fault: Fault) -> None:
        super().__init__(fault.message)
        self.fault = fault


class Column(NamedTuple):
    """A column as it was given, what it is kept as, and how much of that one of its numbers is."""

    given: str
    name: str
    per: float


@dataclass(frozen=True)
class Table:
    """Rows that could be read, by their number in the file, and what was wrong with the others."""

    rows: dict[int, Row] = field(default_factory=dict)
    problems: list[Fault] = field(default_factory=list)


def written(heading: Sequence[str], rows: Iterable[Sequence[object]], units: UnitSet = "mm_l") -> bytes:
    """A table as CSV (UTF-8, comma, header row, dot decimals), its text harmless to a spreadsheet.

    Parameters
    ----------
    heading : sequence of str
        In metric units; each is turned into the reader's with the numbers under it.
    rows : iterable of sequence
        As many cells as the heading has.
    units : str
        The reader's.
    """
    shown = [in_units(name, units) for name in heading]
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\r\n")
    writer.writerow([_harmless(name) for name, _ in shown])
    writer.writerows([_harmless(_in(cell, per)) for cell, (_, per) in zip(row, shown, strict=True)] for row in rows)
    return stream.getvalue().encode()


def _in(cell: object, per: float) -> object:
    """A cell in units of which one is that much of what is kept."""
    if per == 1.0 or cell is None or (isinstance(cell, str) and not _is_number(cell)):
        return cell
    return f"{float(str(cell)) / per:.7g}"


def _harmless(cell: object) -> object:
    """Text that a spreadsheet would run as a formula, with an apostrophe before it; numbers stay numbers."""
    if cell is None:
        return ""
    if not isinstance(cell, str) or _is_number(cell):
        return cell
    return f"'{cell}" if cell.startswith(RUN) or _is_quoted(cell) else cell


def as_meant(text: str) -> str:
    """A cell as it was before it was made harmless."""
    return text[1:] if _is_quoted(text) else text


def _is_quoted(text: str) -> bool:
    return text.startswith("'") and text[1:].startswith((*RUN, "'"))


def _is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True


def problem(row: int, column: str, value: str, limit: str) -> Fault:
    """What is wrong with one cell.

    Parameters
    ----------
    row : int
        As a spreadsheet counts, the heading being 1.
    column : str
        Its heading.
    value : str
        As typed.
    limit : str
        What is allowed.

    Returns
    -------
    Fault
        A fault at that cell.
    """
    return Fault(
        field=f"row {row}, {column}",
        value=value,
        limit=limit,
        message=f"row {row}, column {column}: “{value}” must be {limit}",
    )


def read_table(content: bytes, required: Mapping[str, Kind], optional: Mapping[str, Kind]) -> Table:
    """Read a CSV with a heading.

    Parameters
    ----------
    content : bytes
        UTF-8, separated by commas, semicolons or tabs. With semicolons or tabs a decimal comma is read. A column
        may be in anybody's units: its heading ends with them.
    required, optional : mapping of str to str
        Columns and what they hold.

    Returns
    -------
    Table
        A row with a bad cell is left out; each bad cell is one problem.

    Raises
    ------
    UnreadableTableError
        For text that isn't UTF-8, no heading, or a heading without a required column.
    """
    separator, numbered = _split(_decoded(content))
    kinds = {**required, **optional}
    given = [cell.strip().lower() for cell in numbered[0][1]] if numbered else []
    columns = [Column(name, name, 1.0) if name in kinds else Column(name, *as_kept(name)) for name in given]
    names = [column.name for column in columns]
    missing = next((name for name in required if name not in names), None)
    if missing is not None:
        raise _no_column(missing, names, required, optional)
    return _rows(numbered[1 : MOST_ROWS + 1], columns, kinds, set(required), separator != ",")


def _decoded(content: bytes) -> str:
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise UnreadableTableError(
            Fault(field="file", value=None, limit="UTF-8 text", message=f"the file is not UTF-8 text: {error.reason}")
        ) from error


def _split(text: str) -> tuple[str, list[tuple[int, list[str]]]]:
    """What separates the cells, and the rows that say something by their number in the file."""
    heading = next((line for line in text.splitlines() if line.strip()), "")
    if len(heading) > LONGEST_HEADING:
        raise UnreadableTableError(
            Fault(
                field="row 1",
                value=f"{len(heading)} characters",
                limit=f"{LONGEST_HEADING} characters or less",
                message=f"the heading is {len(heading)} characters long: this is no such table",
            )
        )
    separator = max(",;\t", key=heading.count)
    reader = csv.reader(io.StringIO(text), delimiter=separator)
    try:
        return separator, [(reader.line_num, cells) for cells in reader if any(cell.strip() for cell in cells)]
    except csv.Error as error:
        raise UnreadableTableError(
            Fault(
                field=f"row {reader.line_num}",
                value=None,
                limit="a table",
                message=f"the table can't be read from row {reader.line_num} on: {error}; is a quote left open?",
            )
        ) from error


def _no_column(
    missing: str, names: list[str], required: Mapping[str, Kind], optional: Mapping[str, Kind]
) -> UnreadableTableError:
    found = (", ".join(names) or "nothing")[:200]
    wanted = ", ".join(required) + (f" and may be {', '.join(optional)}" if optional else "")
    return UnreadableTableError(
        Fault(
            field="row 1",
            value=found,
            limit=", ".join([*required, *optional]),
            message=f"the heading has no column {missing}: it says {found}; wanted are {wanted}",
        )
    )


def _rows(
    rows: list[tuple[int, list[str]]],
    columns: Sequence[Column],
    kinds: Mapping[str, Kind],
    required: set[str],
    comma: bool,
) -> Table:
    table = Table()
    for number, cells in rows:
        read: dict[str, str | float | None] = {}
        sound = True
        if len(cells) > len(columns):
            table.problems.append(problem(number, "end", cells[len(columns)], "inside the heading's columns"))
            continue
        for column, cell in zip(columns, cells, strict=False):
            if column.name not in kinds:
                continue
            value, wrong = _cell(cell.strip(), kinds[column.name], column.name in required, comma)
            if wrong:
                table.problems.append(problem(number, column.given, cell.strip(), wrong))
                sound = False
            read[column.name] = value * column.per if isinstance(value, float) and column.per != 1.0 else value
        for name in required - read.keys():
            table.problems.append(problem(number, name, "", "given"))
            sound = False
        if sound:
            table.rows[number] = read
    return table


def _cell(text: str, kind: Kind, required: bool, comma: bool) -> tuple[str | float | None, str]:
    """A cell's value, or what it should have been."""
    if not text:
        return None, "given" if required else ""
    if kind == "text":
        return as_meant(text), ""
    plain = text.replace(",", ".") if comma else text
    try:
        value = float(plain)
    except ValueError:
        return None, "a plain number, without a unit" + (
            "" if comma or "," not in text else " and with a decimal point"
        )
    if value != value or value in (float("inf"), float("-inf")):
        return None, "a finite number"
    if kind == "count" and value != int(value):
        return None, "a whole number"
    return value, ""
