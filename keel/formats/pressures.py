"""Readings of a leak test as CSV, in and out: a day of them at one a second in a moment, odd rows named."""

import io
from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from keel.design.faults import Fault
from keel.formats.headings import as_kept
from keel.formats.table import Kind, Row, UnreadableTableError, problem, read_table, written
from keel.log.proof_entries import BAROMETER_LIMITS, LEAST_BAROMETER_KPA, MOST_BAROMETER_KPA, other_unit
from keel.reference.quantities import KPA_PER_INHG, KPA_PER_MMHG, UnitSet
from keel.solid.polyhedron import Array
from keel.studies.proof.series import Series

COLUMNS = ("minute", "gauge_kpa", "temperature_c", "barometer_kpa")
S_PER_MIN = 60.0
OTHER: dict[str, tuple[str, float, float]] = {
    "second": ("minute", 1 / S_PER_MIN, 0.0),
    "temperature_f": ("temperature_c", 5 / 9, -160 / 9),
    "temperature_k": ("temperature_c", 1.0, -273.15),
    "gauge_mbar": ("gauge_kpa", 0.1, 0.0),
    "gauge_pa": ("gauge_kpa", 1e-3, 0.0),
    "barometer_hpa": ("barometer_kpa", 0.1, 0.0),
    "barometer_mbar": ("barometer_kpa", 0.1, 0.0),
    "barometer_inhg": ("barometer_kpa", KPA_PER_INHG, 0.0),
    "barometer_mmhg": ("barometer_kpa", KPA_PER_MMHG, 0.0),
}
"""Headings in other units: what they are kept as, how much one is, where it has its zero."""
MOST_ROWS, MOST_NAMED = 100_000, 20
LEAST_KPA, MOST_KPA, LEAST_C, MOST_C = -5.0, 1000.0, -60.0, 120.0
Wrong = tuple[str, Array, Callable[[float], str]]


@dataclass(frozen=True)
class Pressures:
    """Readings that could be read, and what was wrong with others."""

    series: Series
    problems: list[Fault]


def pressures_csv(series: Series, units: UnitSet = "mm_l") -> bytes:
    """Readings as CSV, in the reader's units of pressure.

    Parameters
    ----------
    series : Series
        Of one test.
    units : str
        The reader's.

    Returns
    -------
    bytes
        Minutes, gauge, temperature [°C], barometer: what `read_pressures` reads.
    """
    rows = zip(*(np.round(column, 6).tolist() for column in series.columns), strict=True)
    return written(COLUMNS, rows, units)


def read_pressures(content: bytes) -> Pressures:
    """Readings from CSV.

    Parameters
    ----------
    content : bytes
        A table with columns minute (or second), gauge_kpa, temperature_c, barometer_kpa, in any order, or in other
        units by their headings.

    Returns
    -------
    Pressures
        Good rows; of the bad ones the first twenty by row, column and what is wanted.

    Raises
    ------
    UnreadableTableError
        For what is no such table, or has no good row.
    """
    numbers, table, problems = _plainly(content) or _cell_by_cell(content)
    wrong = _wrong(table)
    bad = np.zeros(len(table), bool)
    for column, where, limit in wrong:
        bad |= where
        for n in np.flatnonzero(where)[:MOST_NAMED]:
            value = float(table[n, COLUMNS.index(column)])
            problems.append(problem(int(numbers[n]), column, f"{value:g}", limit(value)))
    if not len(table) or bad.all():
        message = problems[0].message if problems else "the file has no readings"
        raise UnreadableTableError(Fault(field="file", value=len(table), limit="readings", message=message))
    return Pressures(Series(*table[~bad].T), problems[:MOST_NAMED])


def _plainly(content: bytes) -> tuple[Array, Array, list[Fault]] | None:
    """All rows at once, where every cell is a plain number; None where something has to be looked at."""
    head, _, body = content.partition(b"\n")
    heading = head.decode("utf-8-sig", "replace").strip().lower()
    separator = max(",;\t", key=heading.count)
    if b'"' in content or (separator != "," and b"," in body):
        return None
    columns = [_kept(name.strip()) for name in heading.split(separator)]
    names = [name for name, _, _ in columns]
    if any(name not in names for name in COLUMNS) or len(body) == 0:
        return None
    try:
        raw = np.loadtxt(io.BytesIO(body), delimiter=separator, ndmin=2, max_rows=MOST_ROWS, comments=None)
    except (ValueError, UnicodeDecodeError):
        return None
    if raw.shape[1] != len(columns) or not np.isfinite(raw).all():
        return None
    scaled = raw * [per for _, per, _ in columns] + [zero for _, _, zero in columns]
    return np.arange(2.0, len(raw) + 2), scaled[:, [names.index(name) for name in COLUMNS]], []


def _kept(heading: str) -> tuple[str, float, float]:
    if heading in OTHER:
        return OTHER[heading]
    name, per = as_kept(heading)
    return name, per, 0.0


def _cell_by_cell(content: bytes) -> tuple[Array, Array, list[Fault]]:
    """Row by row, each bad cell named."""
    known: dict[str, Kind] = dict.fromkeys(("second", *COLUMNS[1:], *OTHER), "number")
    head = content.partition(b"\n")[0].decode("utf-8-sig", "replace").lower()
    required: dict[str, Kind] = {}
    for name in COLUMNS:
        others = [other for other, (kept, _, _) in OTHER.items() if kept == name and other in head]
        required[others[0] if others else name] = "number"
    table = read_table(content, required, {name: kind for name, kind in known.items() if name not in required})
    rows = [[_value(row, name) for name in required] for row in table.rows.values()]
    return np.array(list(table.rows), float), np.array(rows, float).reshape(-1, len(COLUMNS)), list(table.problems)


def _value(row: Row, name: str) -> float:
    _, per, zero = OTHER.get(name, (name, 1.0, 0.0))
    return float(row[name] or 0.0) * per + zero


def _wrong(table: Array) -> Iterator[Wrong]:
    """Which rows can't be, by column, and what is wanted there."""
    minute, gauge, temperature, barometer = table.T
    peak = np.maximum.accumulate(np.r_[-np.inf, minute[:-1]]) if len(minute) else minute
    yield "minute", minute < 0, lambda _: "0 or more, counted from when the tank was shut"
    yield "minute", minute <= peak, lambda _: "later than the row before: time doesn't run backwards"
    yield (
        "gauge_kpa",
        gauge < LEAST_KPA,
        lambda _: f"{LEAST_KPA:g} or more: a gauge that reads backwards is connected the wrong way round",
    )
    yield "gauge_kpa", gauge > MOST_KPA, lambda _: f"{MOST_KPA:g} or less: is it in pascals?"
    off = (temperature < LEAST_C) | (temperature > MOST_C)
    yield "temperature_c", off, lambda _: f"{LEAST_C:g} to {MOST_C:g} °C"
    yield "barometer_kpa", (barometer < LEAST_BAROMETER_KPA) | (barometer > MOST_BAROMETER_KPA), _barometer_limit


def _barometer_limit(value: float) -> str:
    return BAROMETER_LIMITS + other_unit(value)
