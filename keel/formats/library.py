"""The workshop's pumps, parts and senders as CSV, out and in."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Any, get_args

from pydantic import ValidationError

from keel.design.faults import Fault
from keel.design.gauge import SenderPart, SwingArm
from keel.design.ports import PortPart
from keel.design.pumps import Pump
from keel.formats.table import Kind, problem, read_table, written
from keel.reference.fuels import FuelName

PUMP_COLUMNS: dict[str, Kind] = {"pump": "text", "voltage_v": "number", "kpa": "number", "l_per_h": "number"}
PUMP_MORE: dict[str, Kind] = {"stands": "text", "outlet": "text", "fuels": "text"}
PART_COLUMNS: dict[str, Kind] = {"name": "text", "role": "text"}
SIZES = ("stands_mm", "across_mm", "hangs_mm", "hangs_across_mm", "diagonal_mm", "spanner_mm")
SEAT = ("seat", "hole_mm", "outer_mm", "bolt_circle_mm", "bolts", "bolt_mm", "torque_nm", "plate_mm", "thread")
HANGER = ("hanger", "made_for_mm", "bracket_mm", "pump_mm", "strainer_mm", "grip_mm", "sprung")
VENT = ("vent_bore_mm", "vent_length_m", "vent_opens_kpa", "vent_rollover")
TEXTS = ("seat", "thread", "hanger", "sprung", "vent_rollover")
PART_MORE: dict[str, Kind] = {
    name: "text" if name in TEXTS else "count" if name == "bolts" else "number"
    for name in (*SIZES, *SEAT, *HANGER, *VENT, "neck_bore_mm")
}
DIGITS = ".12g"
"""Sizes go out with all the digits they have."""
YES = {"yes": True, "no": False, "": False}
SENDER_COLUMNS: dict[str, Kind] = {
    "name": "text",
    "kind": "text",
    "ohms_empty": "number",
    "ohms_full": "number",
}
ARM_SIZES = ("made_arm_mm", "empty_deg", "full_deg", "empty_rise_mm", "full_rise_mm", "float_mm")
SENDER_MORE: dict[str, Kind] = dict.fromkeys((*ARM_SIZES, "length_mm"), "number")


def pumps_csv(pumps: Sequence[Pump]) -> bytes:
    """Pumps as CSV: one row a point."""
    rows = [
        (
            pump.name,
            _said(curve.voltage_v),
            _said(point.kpa),
            _said(point.l_per_h),
            pump.stands,
            pump.outlet,
            "; ".join(pump.fuels),
        )
        for pump in pumps
        for curve in pump.curves
        for point in curve.points
    ]
    return written([*PUMP_COLUMNS, *PUMP_MORE], rows)


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
    fuels = [fuel.strip() for fuel in str(first.get("fuels") or "").split(";") if fuel.strip()]
    more = {key: first[key] for key in ("stands", "outlet") if first.get(key)}
    return Pump.model_validate({"name": name, "curves": curves, "fuels": fuels} | more)


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
        column, known = "fuels", ", ".join(get_args(FuelName))
        return problem(number, column, str(details.get("input")), f"one of {known}")
    said = str(context.get("message") or details["msg"])
    return Fault(
        field=f"row {number}, {column}",
        value=str(context.get("value", details.get("input")))[:80],
        limit=str(context.get("limit", "")),
        message=f"row {number}, column {column}, pump {name}: {said}",
    )


def parts_csv(parts: Sequence[PortPart]) -> bytes:
    """Parts as CSV: one row a part."""
    return written([*PART_COLUMNS, *PART_MORE], [_part_row(part) for part in parts])


def _part_row(part: PortPart) -> list[str]:
    seat, hanger = part.seat, part.hanger
    cells: dict[str, Any] = {"name": part.name, "role": part.role} | {name: getattr(part, name) for name in SIZES}
    if seat:
        cells |= {"seat": seat.kind} | {name: getattr(seat, name) for name in SEAT[1:]}
    if hanger:
        cells |= {"hanger": hanger.kind} | {name: getattr(hanger, name) for name in HANGER[1:]}
    if part.vent:
        cells |= {name: getattr(part.vent, name.removeprefix("vent_")) for name in VENT}
    if part.neck:
        cells["neck_bore_mm"] = part.neck.bore_mm
    return [_said(cells.get(name)) for name in (*PART_COLUMNS, *PART_MORE)]


def _said(value: Any) -> str:
    if value is None or value is False:
        return ""
    if value is True:
        return "yes"
    return format(value, DIGITS) if isinstance(value, float | int) else str(value)


def senders_csv(senders: Sequence[SenderPart]) -> bytes:
    """Senders as CSV: one row a sender."""
    rows = []
    for sender in senders:
        sizes = ARM_SIZES if isinstance(sender.action, SwingArm) else ("length_mm",)
        cells: dict[str, Any] = {name: getattr(sender.action, name) for name in sizes}
        cells |= {"name": sender.name, "kind": sender.action.kind}
        cells |= {"ohms_empty": sender.ohms_empty, "ohms_full": sender.ohms_full}
        rows.append([_said(cells.get(name)) for name in (*SENDER_COLUMNS, *SENDER_MORE)])
    return written([*SENDER_COLUMNS, *SENDER_MORE], rows)


def read_senders(content: bytes) -> tuple[list[SenderPart], list[Fault]]:
    """Senders from CSV, and every problem with its row and column; good rows are kept."""
    table = read_table(content, SENDER_COLUMNS, SENDER_MORE)
    problems, senders = list(table.problems), []
    for number, row in table.rows.items():
        action = {key: row[key] for key in ("kind", *SENDER_MORE) if row.get(key) is not None}
        sender = {key: row[key] for key in ("name", "ohms_empty", "ohms_full")} | {"action": action}
        try:
            senders.append(SenderPart.model_validate(sender))
        except ValidationError as error:
            problems += [_row_problem(number, details) for details in error.errors()]
    return senders, problems


def _row_problem(number: int, details: Any) -> Fault:
    """What a validation error says, with its row and column."""
    context = details.get("ctx") or {}
    column, under = str(context.get("field") or details["loc"][-1]), str(details["loc"][0])
    if details["type"] == "union_tag_invalid":
        column = "kind"
    elif under in ("seat", "hanger", "vent", "neck"):
        column = {"kind": under, "bore_mm": f"{under}_bore_mm"}.get(column, column)
        column = f"vent_{column}" if f"vent_{column}" in VENT and under == "vent" else column
    expected = context.get("expected_tags") or context.get("expected")
    limit = str(context.get("limit") or expected or details["msg"])
    value = details.get("input")
    said = context.get("tag") or ("" if isinstance(value, dict) else str(value))
    return problem(number, column, str(context.get("value", said))[:80], limit)


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
    def given(names: Iterable[str]) -> dict[str, Any]:
        return {name: row[name] for name in names if row.get(name) is not None}

    part = given(("name", "role", *SIZES))
    seat, hanger = given(SEAT[1:]), given(HANGER[1:])
    vent = {name.removeprefix("vent_"): value for name, value in given(VENT).items()}
    for group, name in ((hanger, "sprung"), (vent, "rollover")):
        if name in group:
            group[name] = YES.get(str(group[name]).strip().lower(), group[name])
    if "bolts" in seat:
        seat["bolts"] = int(seat["bolts"])
    if seat:
        part["seat"] = seat | ({"kind": row["seat"]} if row.get("seat") else {})
    if hanger:
        part["hanger"] = hanger | ({"kind": row["hanger"]} if row.get("hanger") else {})
    if vent:
        part["vent"] = vent
    if row.get("neck_bore_mm") is not None:
        part["neck"] = {"bore_mm": row["neck_bore_mm"]}
    return part
