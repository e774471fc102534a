"""The workshop's parts as CSV, out and in."""

import re
from collections.abc import Sequence
from typing import Any

from keel.design.faults import Fault
from keel.design.ports import PortPart
from keel.formats.cells import Path, kept_rows, listed, said
from keel.formats.table import Kind, Row, read_table, written
from keel.reference.quantities import QUANTITIES, UnitSet

PART_COLUMNS: dict[str, Kind] = {"name": "text", "role": "text"}
SIZES = ("stands_mm", "across_mm", "hangs_mm", "hangs_across_mm", "diagonal_mm", "spanner_mm")
SEAT = ("hole_mm", "outer_mm", "bolt_circle_mm", "bolts", "bolt_mm", "torque_nm", "plate_mm", "thread", "seal")
HANGER = ("made_for_mm", "bracket_mm", "bracket_least_mm", "pump_mm", "strainer_mm", "grip_mm", "sprung")
PART_PATHS: dict[str, Path] = {
    **{name: (name,) for name in (*PART_COLUMNS, *SIZES)},
    "seat": ("seat", "kind"),
    **{name: ("seat", name) for name in SEAT},
    "hanger": ("hanger", "kind"),
    **{name: ("hanger", name) for name in HANGER},
    **{f"vent_{name}": ("vent", name) for name in ("bore_mm", "length_m", "opens_kpa", "rollover", "hose", "valves")},
    **{f"neck_{name}": ("neck", name) for name in ("bore_mm", "hose", "valves")},
    **{f"hose_{name}": ("bend", name) for name in ("outer_mm", "radius_mm", "turns_deg", "run_mm")},
}
"""Where each column of the parts' table stands in a part's document."""
IS_YES_OR_NO = ("sprung", "vent_rollover")
IS_VALVES = ("vent_valves", "neck_valves")
IS_TEXT = ("seat", "thread", "seal", "hanger", "vent_hose", "neck_hose", *IS_YES_OR_NO, *IS_VALVES)
PART_MORE: dict[str, Kind] = {
    name: "text" if name in IS_TEXT else "count" if name == "bolts" else "number"
    for name in PART_PATHS
    if name not in PART_COLUMNS
}
PRESSURES = QUANTITIES["kpa"].typed
VALVE = re.compile(rf"(.*?)\s+(\d+(?:\.\d+)?(?:e-?\d+)?)\s*({'|'.join(PRESSURES)}|)", re.IGNORECASE)
YES = {"yes": True, "no": False, "": False}


def parts_csv(parts: Sequence[PortPart], units: UnitSet = "mm_l") -> bytes:
    """Parts as CSV in a reader's units: one row a part.

    Parameters
    ----------
    parts : sequence of PortPart
        Parts of a library.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
    return written([*PART_COLUMNS, *PART_MORE], [_part_row(part, units) for part in parts], units)


def _part_row(part: PortPart, units: UnitSet) -> list[str]:
    written_out = part.model_dump()
    return [said(_at(written_out, path), units) for path in PART_PATHS.values()]


def _at(document: Any, path: Path) -> Any:
    for step in path:
        document = None if document is None else document[step]
    return document


def read_parts(content: bytes) -> tuple[list[PortPart], list[Fault]]:
    """Parts from CSV, and every problem with its row and column; good rows are kept.

    Parameters
    ----------
    content : bytes
        CSV in any set of units, by its headings.

    Returns
    -------
    (list[PortPart], list[Fault])
        Parts, and what is wrong with the others.
    """
    return kept_rows(read_table(content, PART_COLUMNS, PART_MORE), _part, PART_PATHS)


def _part(row: Row) -> PortPart:
    """The part of a row; what no column is filled in for isn't there."""
    part: dict[str, Any] = {}
    for column, path in PART_PATHS.items():
        if row.get(column) is not None:
            *above, name = path
            under = part.setdefault(above[0], {}) if above else part
            under[name] = _meant(column, row[column])
    return PortPart.model_validate(part)


def _meant(column: str, cell: Any) -> Any:
    if column in IS_YES_OR_NO:
        return YES.get(str(cell).strip().lower(), cell)
    if column in IS_VALVES:
        return [_valve(item) for item in listed(cell)]
    return int(cell) if column == "bolts" else cell


def _valve(text: str) -> dict[str, Any]:
    """A valve: its name, then the pressure that opens it, in any unit; a bare number is kPa."""
    found = VALVE.fullmatch(text)
    if found is None:
        return {"name": text, "opens_kpa": text.rpartition(" ")[2]}
    name, opens, unit = found.groups()
    return {"name": name, "opens_kpa": float(opens) * PRESSURES.get(unit.lower(), 1.0)}
