"""Laps from a logger as CSV: which column is what is asked, what is odd is said, the rest is taken."""

import csv
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass
from operator import itemgetter
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from keel.design.base import Part
from keel.design.faults import Fault
from keel.formats.table import LONGEST_HEADING, UnreadableTableError
from keel.reference.units import STANDARD_GRAVITY
from keel.solid.polyhedron import Array, Index
from keel.studies.slosh.log import Log

MOST_ROWS = 1_000_000
LEAST_HZ = 10.0
MOST_G = 6.0
MOST_SECONDS = 7200.0
GAP_S = 0.5
DT_S = 0.02
SHOWN_ROWS = 6
MOST_L_PER_H = 5000.0
L_PER_H_PER_CM3_PER_MIN = 0.06
PER_CENT = 1.5
"""A throttle that goes higher is in per cent."""
MILLISECONDS = "If its time is in milliseconds, say so"
Heading = Annotated[str, Field(max_length=200)]


class LapColumns(Part):
    """Which column of a file is what. Empty ones aren't there."""

    time: Heading
    forward: Heading = ""
    left: Heading = ""
    up: Heading = ""
    throttle: Heading = ""
    fuel: Heading = ""
    fuel_unit: Literal["L/h", "cm³/min"] = "L/h"
    time_unit: Literal["s", "ms"] = "s"
    unit: Literal["g", "m/s²"] = "g"
    forward_flipped: bool = Field(default=False, description="Braking is above zero in the file")
    left_flipped: bool = Field(default=False, description="A right turn is above zero in the file")
    up_has_gravity: bool = Field(default=True, description="At rest the vertical column reads 1 g, not zero")


@dataclass(frozen=True, slots=True)
class LapLook:
    """A first look at a file: its headings, its first rows, and a guess at which is what and in which unit."""

    headings: list[str]
    rows: list[list[str]]
    guess: dict[str, str]


WORDS = {
    "time": ("time", "zeit", "t"),
    "forward": ("forward", "long", "ax", "accel x", "gx"),
    "left": ("left", "lat", "ay", "accel y", "gy"),
    "up": ("up", "vert", "az", "accel z", "gz"),
    "throttle": ("throttle", "tps", "pedal"),
    "fuel": ("fuel", "flow", "burn"),
}


def look_at_lap(content: bytes) -> LapLook:
    """Headings, first rows and a guess.

    Parameters
    ----------
    content : bytes
        A table as text (UTF-8).

    Returns
    -------
    LapLook
        What its columns may be.

    Raises
    ------
    UnreadableTableError
        For text that isn't UTF-8, or without a heading and rows.
    """
    headings, rows = _table(content, SHOWN_ROWS)
    guess: dict[str, str] = {}
    for what, words in WORDS.items():
        found = [h for h in headings if h.lower().startswith(words) and h not in guess.values()]
        guess[what] = found[0] if found else ""
    return LapLook(headings, rows, guess | _units(guess))


def _units(guess: dict[str, str]) -> dict[str, str]:
    """Units that the headings name."""
    pushed = " ".join(guess[what] for what in ("forward", "left", "up")).lower()
    return {
        "unit": "m/s²" if any(mark in pushed for mark in ("m/s", "mps", "ms-2")) else "g",
        "time_unit": "ms" if "ms" in re.split(r"[^a-z]+", guess["time"].lower()) else "s",
        "fuel_unit": "cm³/min" if any(mark in guess["fuel"].lower() for mark in ("cc", "cm", "ml")) else "L/h",
    }


def read_lap(content: bytes, columns: LapColumns, name: str) -> tuple[Log, list[str]]:
    """Read a lap and bring it to even 50 Hz, straight between its samples.

    Parameters
    ----------
    content : bytes
        CSV in UTF-8 with a heading, up to a million rows.
    columns : LapColumns
        Which column is what, in which unit and sense.
    name : str
        What it is to be called.

    Returns
    -------
    log : Log
    notes : list of str
        What was odd and what was done about it: rows left out, times put right, gaps bridged.

    Raises
    ------
    UnreadableTableError
        When there is no lap in it: a column is missing, too few rows, under 10 Hz, more than 6 g, over two hours.
    """
    headings, rows = _table(content, MOST_ROWS + 1)
    if len(rows) > MOST_ROWS:
        raise _unreadable("rows", len(rows), f"at most {MOST_ROWS}", f"the file has more than {MOST_ROWS} rows")
    wanted = _wanted(columns, headings)
    notes: list[str] = []
    table = _numbers(rows, [headings.index(h) for h in wanted], notes)
    times = table[:, 0] / (1000.0 if columns.time_unit == "ms" else 1.0)
    kept = _rising(times, notes)
    table, times = table[kept], times[kept] - times[kept][0]
    _check_times(times, notes)
    grid = np.arange(int(times[-1] / DT_S) + 1) * DT_S
    unit = STANDARD_GRAVITY if columns.unit == "m/s²" else 1.0

    def even(heading: str, scale: float) -> Array:
        if not heading:
            return np.zeros(len(grid))
        return np.asarray(np.interp(grid, times, table[:, wanted.index(heading)] / scale))

    forward = even(columns.forward, -unit if columns.forward_flipped else unit)
    left = even(columns.left, -unit if columns.left_flipped else unit)
    up = even(columns.up, unit) - (1.0 if columns.up and columns.up_has_gravity else 0.0)
    for heading, values in ((columns.forward, forward), (columns.left, left), (columns.up, up)):
        _check_g(heading, values, notes)
    use = even(columns.throttle, 1.0) if columns.throttle else np.ones(len(grid))
    share = use / 100.0 if use.max() > PER_CENT else use
    fuel = None
    if columns.fuel:
        fuel = even(columns.fuel, 1.0) * (1.0 if columns.fuel_unit == "L/h" else L_PER_H_PER_CM3_PER_MIN)
        _check_fuel(columns.fuel, fuel, notes)
        fuel = np.maximum(fuel, 0.0)
    return Log(name, DT_S, forward, left, up, np.clip(share, 0.0, 1.0), np.zeros(len(grid)), fuel), notes


def _wanted(columns: LapColumns, headings: Sequence[str]) -> list[str]:
    """The chosen columns, time first."""
    wanted = [h for h in (columns.time, columns.forward, columns.left, columns.up, columns.throttle, columns.fuel) if h]
    for heading in wanted:
        if heading not in headings:
            raise _unreadable("columns", heading, "a column of the file", f"there is no column “{heading}” in it")
    if not (columns.forward or columns.left):
        raise _unreadable("columns", "", "forward or left", "say which column is forward or left acceleration")
    return wanted


def _unreadable(field: str, value: object, limit: str, message: str) -> UnreadableTableError:
    return UnreadableTableError(Fault(field=field, value=str(value)[:80], limit=limit, message=message))


def _table(content: bytes, most: int) -> tuple[list[str], list[list[str]]]:
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise _unreadable("file", "", "UTF-8 text", f"this is no UTF-8 text (byte {error.start})") from error
    if "\x00" in text:
        raise _unreadable("file", "", "text", "this is no text file")
    first = text[: text.find("\n")] if "\n" in text else text
    if len(first) > LONGEST_HEADING:
        limit = f"{LONGEST_HEADING} characters or less"
        raise _unreadable("file", len(first), limit, f"its heading is {len(first)} characters long: this is no lap")
    mark = max(",;\t", key=first.count)
    reader = csv.reader(io.StringIO(text), delimiter=mark)
    try:
        headings = [cell.strip() for cell in next(reader, [])]
        rows = [row for row, _ in zip(reader, range(most), strict=False) if "".join(row).strip()]
    except csv.Error as error:
        raise _unreadable("file", "", "a table", f"this table can't be read: {error}") from error
    if len(headings) < 2 or not rows:
        raise _unreadable("file", len(rows), "a heading and rows", "a lap needs a heading with two columns, and rows")
    if mark != ",":
        rows = [[cell.replace(",", ".") for cell in row] for row in rows]
    return headings, rows


def _numbers(rows: Sequence[Sequence[str]], places: Sequence[int], notes: list[str]) -> Array:
    """The wanted columns as numbers; rows with anything else are left out and counted."""
    try:
        columns = [np.fromiter(map(float, map(itemgetter(place), rows)), np.float64, len(rows)) for place in places]
        found = np.column_stack(columns)
    except (ValueError, IndexError):
        found = np.array([_row(row, places) for row in rows])
    sound = np.isfinite(found).all(axis=1)
    if not sound.all():
        first = int(np.argmin(sound)) + 2
        notes.append(f"{_many((~sound).sum(), 'row')} left out: a number is missing, first in row {first}")
    found = found[sound]
    if len(found) < 10:
        raise _unreadable(
            "rows", len(found), "10 or more", f"only {len(found)} rows have numbers in all chosen columns"
        )
    return found


def _row(row: Sequence[str], places: Sequence[int]) -> list[float]:
    """One row's numbers; none of them when one can't be read."""
    try:
        return [float(row[place]) for place in places]
    except (ValueError, IndexError):
        return [np.nan] * len(places)


def _many(count: int, what: str) -> str:
    return f"{count} {what}" if count == 1 else f"{count} {what}s"


def _rising(times: Array, notes: list[str]) -> Index:
    """Rows whose time is later than all before."""
    top = np.maximum.accumulate(np.concatenate([[-np.inf], times[:-1]]))
    kept = times > top
    if not kept.all():
        notes.append(f"{_many((~kept).sum(), 'row')} left out: their time is not later than the one before")
    return np.flatnonzero(kept)


def _check_times(times: Array, notes: list[str]) -> None:
    if len(times) < 10:
        raise _unreadable("time", len(times), "10 or more", "the time column doesn't rise: is it the right one?")
    steps = np.diff(times)
    usual = float(np.median(steps))
    if usual > 1.001 / LEAST_HZ:
        hertz = 1 / usual
        said = f"the log has {hertz:.3g} samples a second; slosh needs {LEAST_HZ:g} or more"
        raise _unreadable("time", f"{hertz:.3g} Hz", f"{LEAST_HZ:g} Hz or more", f"{said}. {MILLISECONDS}")
    if times[-1] > MOST_SECONDS:
        said = f"the log runs for {times[-1]:.0f} s; {MOST_SECONDS:g} are taken"
        raise _unreadable("time", f"{times[-1]:.0f} s", f"{MOST_SECONDS:g} s", f"{said}. {MILLISECONDS}")
    gaps = np.flatnonzero(steps > max(GAP_S, 5 * usual))
    if len(gaps):
        at = float(times[gaps[0]])
        notes.append(f"{_many(len(gaps), 'gap')} bridged straight, the first of {steps[gaps[0]]:.2f} s at {at:.1f} s")


def _check_g(heading: str, values: Array, notes: list[str]) -> None:
    if not heading:
        return
    worst = float(np.abs(values).max())
    if worst > MOST_G:
        message = f"“{heading}” reaches {worst:.3g} g, {MOST_G:g} g are taken: is it in m/s², or an angle?"
        raise _unreadable(heading, f"{worst:.3g} g", f"{MOST_G:g} g", message)
    if abs(float(np.median(values))) > 0.6:
        notes.append(f"“{heading}” stands at {np.median(values):.2f} g most of the time: is it the vertical one?")


def _check_fuel(heading: str, l_per_h: Array, notes: list[str]) -> None:
    most = float(l_per_h.max())
    if most > MOST_L_PER_H:
        message = f"“{heading}” reaches {most:.4g} L/h, {MOST_L_PER_H:g} L/h are taken: is it in another unit?"
        raise _unreadable(heading, f"{most:.4g} L/h", f"{MOST_L_PER_H:g} L/h", message)
    below = int((l_per_h < 0).sum())
    if below:
        notes.append(f"“{heading}” is below zero in {below} samples: taken as zero")
