"""The workshop's pumps, parts and senders as CSV, out and in."""

import re
from collections.abc import Mapping, Sequence
from typing import Any, get_args

from pydantic import ValidationError

from keel.design.faults import Fault
from keel.design.gauge import SenderPart, SwingArm
from keel.design.ports import PortPart
from keel.design.pumps import Pump
from keel.formats.table import Kind, problem, read_table, written
from keel.reference.fuels import FuelName
from keel.reference.quantities import QUANTITIES, UnitSet

PUMP_COLUMNS: dict[str, Kind] = {"pump": "text", "voltage_v": "number", "kpa": "number", "l_per_h": "number"}
PUMP_MORE: dict[str, Kind] = {"stands": "text", "outlet": "text", "fuels": "text"}
PART_COLUMNS: dict[str, Kind] = {"name": "text", "role": "text"}
SIZES = ("stands_mm", "across_mm", "hangs_mm", "hangs_across_mm", "diagonal_mm", "spanner_mm")
SEAT = ("hole_mm", "outer_mm", "bolt_circle_mm", "bolts", "bolt_mm", "torque_nm", "plate_mm", "thread", "seal")
HANGER = ("made_for_mm", "bracket_mm", "bracket_least_mm", "pump_mm", "strainer_mm", "grip_mm", "sprung")
Path = tuple[str, ...]
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
FUELS_APART = "; "
KNOWN_FUELS = f"one of {', '.join(get_args(FuelName))}"
DIGITS = ".12g"
"""Sizes go out with all the digits they have."""
PRESSURES = QUANTITIES["kpa"].typed
VALVE = re.compile(rf"(.*?)\s+(\d+(?:\.\d+)?(?:e-?\d+)?)\s*({'|'.join(PRESSURES)}|)", re.IGNORECASE)
YES = {"yes": True, "no": False, "": False}
SENDER_COLUMNS: dict[str, Kind] = {
    "name": "text",
    "kind": "text",
    "ohms_empty": "number",
    "ohms_full": "number",
}
ARM_SIZES = ("made_arm_mm", "empty_deg", "full_deg", "empty_rise_mm", "full_rise_mm", "float_mm")
SENDER_MORE: dict[str, Kind] = {**dict.fromkeys((*ARM_SIZES, "length_mm"), "number"), "fuels": "text"}


def pumps_csv(pumps: Sequence[Pump], units: UnitSet = "mm_l") -> bytes:
    """Pumps as CSV in a reader's units: one row a point."""
    rows = [
        (
            pump.name,
            _said(curve.voltage_v),
            _said(point.kpa),
            _said(point.l_per_h),
            pump.stands,
            pump.outlet,
            FUELS_APART.join(pump.fuels),
        )
        for pump in pumps
        for curve in pump.curves
        for point in curve.points
    ]
    return written([*PUMP_COLUMNS, *PUMP_MORE], rows, units)


def read_pumps(content: bytes) -> tuple[list[Pump], list[Fault]]:
    """Pumps from CSV, and every problem with its row and column; pumps without a problem are kept.

    Raises
    ------
    UnreadableTableError
        When it is no such table.
    """
    table = read_table(content, PUMP_COLUMNS, PUMP_MORE)
    problems = list(table.problems)
    by_name: dict[str, list[tuple[int, dict[str, Any]]]] = {}
    for number, row in table.rows.items():
        by_name.setdefault(str(row["pump"]), []).append((number, row))
    pumps = []
    for name, rows in by_name.items():
        try:
            pumps.append(_pump(name, rows))
        except ValidationError as error:
            problems.append(_pump_problem(name, rows, error))
    return pumps, problems


def _pump(name: str, rows: list[tuple[int, dict[str, Any]]]) -> Pump:
    volts = sorted({row["voltage_v"] for _, row in rows})
    curves = [
        {
            "voltage_v": volt,
            "points": [{"kpa": r["kpa"], "l_per_h": r["l_per_h"]} for _, r in rows if r["voltage_v"] == volt],
        }
        for volt in volts
    ]
    first = rows[0][1]
    fuels = _listed(first.get("fuels"))
    more = {key: first[key] for key in ("stands", "outlet") if first.get(key)}
    return Pump.model_validate({"name": name, "curves": curves, "fuels": fuels} | more)


def _listed(cell: Any) -> list[str]:
    """The items of a cell that has several."""
    return [item.strip() for item in str(cell or "").split(";") if item.strip()]


def _pump_problem(name: str, rows: list[tuple[int, dict[str, Any]]], error: ValidationError) -> Fault:
    """The row of a pump's table that a validation error is about."""
    details = error.errors()[0]
    context = details.get("ctx") or {}
    path = [*details["loc"], *str(context.get("field", "")).split(".")]
    number, column = rows[0][0], "pump"
    if "curves" in path and "points" in path:
        curve = int(next((step for step in path[path.index("curves") + 1 :] if str(step).isdigit()), 0))
        place = next((int(step) for step in path[path.index("points") + 1 :] if str(step).isdigit()), 0)
        volts = sorted({row["voltage_v"] for _, row in rows})
        same = [n for n, row in rows if row["voltage_v"] == volts[min(curve, len(volts) - 1)]]
        number = same[min(place, len(same) - 1)]
        column = str(path[-1]) if str(path[-1]) in PUMP_COLUMNS else "kpa"
    elif "fuels" in path:
        return problem(number, "fuels", str(details.get("input")), KNOWN_FUELS)
    said = str(context.get("message") or details["msg"])
    return Fault(
        field=f"row {number}, {column}",
        value=str(context.get("value", details.get("input")))[:80],
        limit=str(context.get("limit", "")),
        message=f"row {number}, column {column}, pump {name}: {said}",
    )


def parts_csv(parts: Sequence[PortPart], units: UnitSet = "mm_l") -> bytes:
    """Parts as CSV in a reader's units: one row a part."""
    return written([*PART_COLUMNS, *PART_MORE], [_part_row(part, units) for part in parts], units)


def _part_row(part: PortPart, units: UnitSet) -> list[str]:
    written_out = part.model_dump()
    return [_said(_at(written_out, path), units) for path in PART_PATHS.values()]


def _at(document: Any, path: Path) -> Any:
    for step in path:
        document = None if document is None else document[step]
    return document


def _said(value: Any, units: UnitSet = "mm_l") -> str:
    if value is None or value is False:
        return ""
    if value is True:
        return "yes"
    if isinstance(value, tuple):
        opens = QUANTITIES["kpa"].shown(units)
        items = [(valve["name"].replace(";", ","), valve["opens_kpa"] / opens.per) for valve in value]
        return "; ".join(f"{name} {pressure:{DIGITS}} {opens.unit}" for name, pressure in items)
    return format(value, DIGITS) if isinstance(value, float | int) else str(value)


def senders_csv(senders: Sequence[SenderPart], units: UnitSet = "mm_l") -> bytes:
    """Senders as CSV in a reader's units: one row a sender."""
    rows = []
    for sender in senders:
        sizes = ARM_SIZES if isinstance(sender.action, SwingArm) else ("length_mm",)
        cells: dict[str, Any] = {name: getattr(sender.action, name) for name in sizes}
        cells |= {"name": sender.name, "kind": sender.action.kind}
        cells |= {"ohms_empty": sender.ohms_empty, "ohms_full": sender.ohms_full}
        cells["fuels"] = FUELS_APART.join(sender.fuels)
        rows.append([_said(cells.get(name)) for name in (*SENDER_COLUMNS, *SENDER_MORE)])
    return written([*SENDER_COLUMNS, *SENDER_MORE], rows, units)


def read_senders(content: bytes) -> tuple[list[SenderPart], list[Fault]]:
    """Senders from CSV, and every problem with its row and column; good rows are kept."""
    table = read_table(content, SENDER_COLUMNS, SENDER_MORE)
    problems, senders = list(table.problems), []
    for number, row in table.rows.items():
        action = {key: row[key] for key in ("kind", *ARM_SIZES, "length_mm") if row.get(key) is not None}
        sender: dict[str, Any] = {key: row[key] for key in ("name", "ohms_empty", "ohms_full")} | {"action": action}
        sender["fuels"] = _listed(row.get("fuels"))
        try:
            senders.append(SenderPart.model_validate(sender))
        except ValidationError as error:
            problems += [_row_problem(number, details) for details in error.errors()]
    return senders, problems


def _row_problem(number: int, details: Any) -> Fault:
    """What a validation error says, with its row and column."""
    context = details.get("ctx") or {}
    value = details.get("input")
    said = context.get("tag") or ("" if isinstance(value, dict) else str(value))
    expected = context.get("expected_tags") or context.get("expected")
    limit = str(context.get("limit") or expected or details["msg"])
    return problem(number, _column(details, context), str(context.get("value", said))[:80], limit)


def _column(details: Any, context: Mapping[str, Any]) -> str:
    """The column that a validation error is about: that whose place in the document it names, or one beside it."""
    if details["type"] == "union_tag_invalid":
        return "kind"
    steps = [*details["loc"], *str(context.get("field", "")).split(".")]
    path = tuple(str(step) for step in steps if str(step) and not str(step).isdigit())
    exact = [column for column, place in PART_PATHS.items() if path[: len(place)] == place]
    beside = [column for column, place in PART_PATHS.items() if place[:1] == path[:1]]
    return next(iter([*exact, *beside]), path[-1])


def read_parts(content: bytes) -> tuple[list[PortPart], list[Fault]]:
    """Parts from CSV, and every problem with its row and column; good rows are kept."""
    table = read_table(content, PART_COLUMNS, PART_MORE)
    problems, parts = list(table.problems), []
    for number, row in table.rows.items():
        try:
            parts.append(PortPart.model_validate(_part(row)))
        except ValidationError as error:
            problems += [_row_problem(number, details) for details in error.errors()]
    return parts, problems


def _part(row: Mapping[str, Any]) -> dict[str, Any]:
    """A row as a part's document; what no column is filled in for isn't there."""
    part: dict[str, Any] = {}
    for column, path in PART_PATHS.items():
        if row.get(column) is not None:
            *above, name = path
            under = part.setdefault(above[0], {}) if above else part
            under[name] = _meant(column, row[column])
    return part


def _meant(column: str, cell: Any) -> Any:
    if column in IS_YES_OR_NO:
        return YES.get(str(cell).strip().lower(), cell)
    if column in IS_VALVES:
        return [_valve(item) for item in _listed(cell)]
    return int(cell) if column == "bolts" else cell


def _valve(text: str) -> dict[str, Any]:
    """A valve: its name, then the pressure that opens it, in any unit; a bare number is kPa."""
    found = VALVE.fullmatch(text)
    if found is None:
        return {"name": text, "opens_kpa": text.rpartition(" ")[2]}
    name, opens, unit = found.groups()
    return {"name": name, "opens_kpa": float(opens) * PRESSURES.get(unit.lower(), 1.0)}
