"""A job's log as files: JSON, an entry a line, which reads back whole; and a table."""

import csv
import io
import json
from collections.abc import Sequence
from datetime import datetime
from typing import Any

from pydantic import ValidationError

from keel.design.faults import Fault, fault_of
from keel.formats.table import UnreadableTableError
from keel.log.entries import ENTRY, Received

OWN = ("id", "kind", "design", "at", "note", "photos", "subject")
COLUMNS = ("n", "author", "received", "happened", "kind", "subject", "design", "values", "note", "photos", "id")
MOST_LINES = 200_000


def log_lines(log: Sequence[Received]) -> bytes:
    """A log as JSON lines (UTF-8): number, author, when it came, when it was written, what it says.

    Parameters
    ----------
    log : sequence of Received
        In the order they came.

    Returns
    -------
    bytes
        A line each.
    """
    lines = [
        json.dumps(
            {
                "n": one.n,
                "author": one.author,
                "received": one.received.isoformat(),
                "happened": one.happened.isoformat(),
            }
            | {"entry": one.entry.model_dump(mode="json", exclude_defaults=True) | {"kind": one.entry.kind}},
            ensure_ascii=False,
        )
        for one in log
    ]
    return "".join(f"{line}\n" for line in lines).encode()


def read_log_lines(content: bytes) -> list[Received]:
    """A log back from its lines.

    Parameters
    ----------
    content : bytes
        As `log_lines` writes it; empty lines are passed over.

    Returns
    -------
    list of Received
        In the order of their lines.

    Raises
    ------
    UnreadableTableError
        Naming line, value and limit, where one can't be read.
    """
    try:
        lines = content.decode().split("\n")
    except UnicodeDecodeError:
        raise _unreadable("file", "", "UTF-8", "This isn't text in UTF-8.") from None
    if len(lines) > MOST_LINES:
        raise _unreadable("file", len(lines), f"at most {MOST_LINES} lines", f"{len(lines)} lines are too many.")
    return [_read(line, number) for number, line in enumerate(lines, start=1) if line.strip()]


def _read(line: str, number: int) -> Received:
    try:
        document: dict[str, Any] = json.loads(line)
        entry = ENTRY.validate_json(json.dumps(document["entry"]))
        when = [datetime.fromisoformat(document[name]) for name in ("received", "happened")]
        return Received(int(document["n"]), str(document["author"]), when[0], when[1], entry)
    except ValidationError as error:
        fault = fault_of(error.errors()[0])
        said = f"line {number}: {fault.message}"
        raise _unreadable(f"line {number}: {fault.field}", fault.value, fault.limit, said) from None
    except (ValueError, KeyError, TypeError):
        limit = "an entry with n, author, received, happened"
        raise _unreadable(f"line {number}", line[:40], limit, f"line {number} isn't an entry of a log") from None


def _unreadable(field: str, value: Any, limit: Any, message: str) -> UnreadableTableError:
    return UnreadableTableError(Fault(field=field, value=value, limit=limit, message=message))


def log_csv(log: Sequence[Received]) -> bytes:
    """A log as a table (UTF-8, comma, header row): what else an entry says stands as JSON in one column.

    Parameters
    ----------
    log : sequence of Received
        In the order they came.

    Returns
    -------
    bytes
        CSV.
    """
    out = io.StringIO()
    table = csv.writer(out, lineterminator="\n")
    table.writerow(COLUMNS)
    for one in log:
        said = one.entry.model_dump(mode="json")
        values = {name: value for name, value in said.items() if name not in OWN and value not in ("", None, [], {})}
        row: list[str | int] = [one.n, one.author, one.received.isoformat(), one.happened.isoformat(), one.entry.kind]
        row += [said.get("subject") or "", one.entry.design or "", json.dumps(values, ensure_ascii=False)]
        table.writerow([*row, one.entry.note, " ".join(one.entry.photos), one.entry.id])
    return out.getvalue().encode()
