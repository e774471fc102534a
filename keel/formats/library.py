"""The workshop's pumps and senders as CSV, out and in."""

from collections.abc import Sequence
from typing import Any, get_args

from pydantic import ValidationError

from keel.design.faults import Fault
from keel.design.gauge import SenderPart, SwingArm
from keel.design.pumps import Pump
from keel.formats.cells import kept_rows, listed, said
from keel.formats.table import Kind, Row, problem, read_table, written
from keel.reference.fuels import FuelName
from keel.reference.quantities import UnitSet

PUMP_COLUMNS: dict[str, Kind] = {"pump": "text", "voltage_v": "number", "kpa": "number", "l_per_h": "number"}
PUMP_MORE: dict[str, Kind] = {"stands": "text", "outlet": "text", "fuels": "text", "current_a": "number"}
FUELS_APART = "; "
KNOWN_FUELS = f"one of {', '.join(get_args(FuelName))}"
SENDER_COLUMNS: dict[str, Kind] = {
    "name": "text",
    "kind": "text",
    "ohms_empty": "number",
    "ohms_full": "number",
}
ARM_SIZES = ("made_arm_mm", "empty_deg", "full_deg", "empty_rise_mm", "full_rise_mm", "float_mm")
SENDER_MORE: dict[str, Kind] = {**dict.fromkeys((*ARM_SIZES, "length_mm"), "number"), "fuels": "text"}


def pumps_csv(pumps: Sequence[Pump], units: UnitSet = "mm_l") -> bytes:
    """Pumps as CSV in a reader's units: one row a point.

    Parameters
    ----------
    pumps : sequence of Pump
        Pumps of a library.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
    rows = [
        (
            pump.name,
            said(curve.voltage_v),
            said(point.kpa),
            said(point.l_per_h),
            pump.stands,
            pump.outlet,
            FUELS_APART.join(pump.fuels),
            said(point.current_a),
        )
        for pump in pumps
        for curve in pump.curves
        for point in curve.points
    ]
    return written([*PUMP_COLUMNS, *PUMP_MORE], rows, units)


def read_pumps(content: bytes) -> tuple[list[Pump], list[Fault]]:
    """Pumps from CSV, and every problem with its row and column; pumps without a problem are kept.

    Parameters
    ----------
    content : bytes
        CSV in any set of units, by its headings.

    Returns
    -------
    (list[Pump], list[Fault])
        Pumps, and what is wrong with the others.

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
            "points": [_point(row) for _, row in rows if row["voltage_v"] == volt],
        }
        for volt in volts
    ]
    first = rows[0][1]
    fuels = listed(first.get("fuels"))
    more = {key: first[key] for key in ("stands", "outlet") if first.get(key)}
    return Pump.model_validate({"name": name, "curves": curves, "fuels": fuels} | more)


def _point(row: dict[str, Any]) -> dict[str, Any]:
    known = {} if row.get("current_a") in (None, "") else {"current_a": row["current_a"]}
    return {"kpa": row["kpa"], "l_per_h": row["l_per_h"]} | known


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
        column = str(path[-1]) if str(path[-1]) in {*PUMP_COLUMNS, "current_a"} else "kpa"
    elif "fuels" in path:
        return problem(number, "fuels", str(details.get("input")), KNOWN_FUELS)
    said = str(context.get("message") or details["msg"])
    return Fault(
        field=f"row {number}, {column}",
        value=str(context.get("value", details.get("input")))[:80],
        limit=str(context.get("limit", "")),
        message=f"row {number}, column {column}, pump {name}: {said}",
    )


def senders_csv(senders: Sequence[SenderPart], units: UnitSet = "mm_l") -> bytes:
    """Senders as CSV in a reader's units: one row a sender.

    Parameters
    ----------
    senders : sequence of SenderPart
        Senders of a library.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
    rows = []
    for sender in senders:
        sizes = ARM_SIZES if isinstance(sender.action, SwingArm) else ("length_mm",)
        cells: dict[str, Any] = {name: getattr(sender.action, name) for name in sizes}
        cells |= {"name": sender.name, "kind": sender.action.kind}
        cells |= {"ohms_empty": sender.ohms_empty, "ohms_full": sender.ohms_full}
        cells["fuels"] = FUELS_APART.join(sender.fuels)
        rows.append([said(cells.get(name)) for name in (*SENDER_COLUMNS, *SENDER_MORE)])
    return written([*SENDER_COLUMNS, *SENDER_MORE], rows, units)


def read_senders(content: bytes) -> tuple[list[SenderPart], list[Fault]]:
    """Senders from CSV, and every problem with its row and column; good rows are kept.

    Parameters
    ----------
    content : bytes
        CSV in any set of units, by its headings.

    Returns
    -------
    (list[SenderPart], list[Fault])
        Senders, and what is wrong with the others.
    """
    return kept_rows(read_table(content, SENDER_COLUMNS, SENDER_MORE), _sender, {})


def _sender(row: Row) -> SenderPart:
    action = {key: row[key] for key in ("kind", *ARM_SIZES, "length_mm") if row.get(key) is not None}
    sender: dict[str, Any] = {key: row[key] for key in ("name", "ohms_empty", "ohms_full")} | {"action": action}
    return SenderPart.model_validate(sender | {"fuels": listed(row.get("fuels"))})
