"""Line parts of the workshop's library as CSV, out and in: a row a part."""

import re
from collections.abc import Iterator, Sequence
from types import UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from pydantic import BaseModel
from pydantic.fields import FieldInfo

from keel.design.faults import Fault
from keel.design.line_functions import Does
from keel.design.line_parts import LibraryComponent, PartConnection
from keel.formats.cells import kept_rows, listed, said
from keel.formats.table import Kind, Row, read_table, written
from keel.reference.connections import SIZES
from keel.reference.quantities import UnitSet

REQUIRED: dict[str, Kind] = {"name": "text", "kind": "text"}
OWN: dict[str, Kind] = {
    "connections": "text",
    "long_mm": "number",
    "across_mm": "number",
    "part_rated_kpa": "number",
    "metal": "text",
    "seals": "text",
    "fuels": "text",
    "approval": "text",
    "mass_kg": "number",
    "price": "number",
}
LISTS = ("connections", "seals", "fuels")
RENAMED = {"mass_kg": "kg", "part_rated_kpa": "rated_kpa"}
"""Columns whose own names would be another field's, or say no unit."""
CURVES = {"curves": "curves", "rises": "rises"}
POINT = re.compile(r"\s*(-?[\d.]+)\s*kPa\s+(-?[\d.]+)\s*L/h(?:\s+([\d.]+)\s*A)?\s*")
HEAD = re.compile(r"\s*([\d.]+)\s*(V|rpm)\s*:(.*)", re.DOTALL)


def _models() -> tuple[type[BaseModel], ...]:
    """What a part may do, each as its model."""
    return get_args(get_args(Does)[0])


def _kind_of(field: FieldInfo) -> Kind | None:
    """How a field stands in a cell; None for what is no plain value."""
    plain = _plain(field.annotation)
    if plain in (float, int):
        return "number"
    return "text" if plain in (str, bool) or get_origin(plain) is Literal else None


def _plain(annotation: Any) -> Any:
    """A type without what limits it, and without None."""
    if get_origin(annotation) is Annotated:
        return _plain(get_args(annotation)[0])
    if get_origin(annotation) in (Union, UnionType):
        return _plain(next(one for one in get_args(annotation) if one is not type(None)))
    return annotation


def _figures() -> dict[str, Kind]:
    """Every figure of any kind of part, in the order in which they are declared."""
    found: dict[str, Kind] = {}
    for model in _models():
        for name, field in model.model_fields.items():
            kind = _kind_of(field)
            if name != "kind" and kind is not None:
                found[name] = kind
    return found


FIGURES = _figures()
OPTIONAL: dict[str, Kind] = {**FIGURES, **dict.fromkeys(CURVES, "text"), **OWN}
BY_KIND: dict[str, type[BaseModel]] = {
    kind: model for model in _models() for kind in get_args(model.model_fields["kind"].annotation)
}


def line_parts_csv(parts: Sequence[LibraryComponent], units: UnitSet = "mm_l") -> bytes:
    """Line parts as CSV in a reader's units.

    Parameters
    ----------
    parts : sequence of LibraryComponent
        Of a library.
    units : UnitSet
        The reader's set of units; curves and losses say theirs in the cell or the heading.

    Returns
    -------
    bytes
        CSV.
    """
    columns = [*REQUIRED, *OPTIONAL]
    return written(columns, [[_cell(part, column) for column in columns] for part in parts], units)


def _cell(part: LibraryComponent, column: str) -> str:
    does = part.does
    if column == "kind":
        return does.kind
    if column in CURVES:
        return _curves(does) if column == "curves" else _rises(does)
    if column == "connections":
        return "; ".join(_connection(one) for one in part.connections)
    if column in ("seals", "fuels"):
        return "; ".join(getattr(part, column))
    value = getattr(does, column, None) if column in FIGURES else getattr(part, RENAMED.get(column, column))
    return "no" if value is False else said(value)


def _points(points: Any) -> str:
    return ", ".join(_point(one) for one in points)


def _point(one: Any) -> str:
    current = getattr(one, "current_a", None)
    return f"{said(one.kpa)} kPa {said(one.l_per_h)} L/h" + (f" {said(current)} A" if current is not None else "")


def _curves(does: Any) -> str:
    curves = getattr(does, "curves", ())
    return "; ".join(
        f"{said(getattr(one, 'voltage_v', None) or getattr(one, 'rpm', None))} "
        f"{'V' if hasattr(one, 'voltage_v') else 'rpm'}: {_points(one.points)}"
        for one in curves
    )


def _rises(does: Any) -> str:
    return _points(getattr(does, "rises", ()))


def _connection(one: PartConnection) -> str:
    words = [one.id, one.standard, one.size, one.hand, one.seal or ""]
    words += [f"{said(one.bore_mm)} mm" if one.bore_mm else "", "tape" * one.sealant, "capped" * one.capped]
    return " ".join(word for word in words if word)


def read_line_parts(content: bytes) -> tuple[list[LibraryComponent], list[Fault]]:
    """Line parts from CSV, and every problem with its row and column; good rows are kept.

    Parameters
    ----------
    content : bytes
        CSV in any set of units, by its headings.

    Returns
    -------
    (list[LibraryComponent], list[Fault])
        Parts, and what is wrong with the others.

    Raises
    ------
    UnreadableTableError
        When it is no such table.
    """
    table = read_table(content, REQUIRED, OPTIONAL)
    return kept_rows(table, _component, {column: (name,) for column, name in RENAMED.items()})


def _component(row: Row) -> LibraryComponent:
    kind = str(row.get("kind") or "")
    if kind not in BY_KIND:
        _Refused.model_validate({"kind": kind})
    model = BY_KIND[kind]
    does: dict[str, Any] = {"kind": kind}
    for name, field in model.model_fields.items():
        value = row.get(name)
        if name in FIGURES and value not in (None, ""):
            does[name] = _typed(field, value)
    if "curves" in model.model_fields and row.get("curves"):
        does["curves"] = list(_read_curves(str(row["curves"])))
    if "rises" in model.model_fields and row.get("rises"):
        does["rises"] = _read_points(str(row["rises"]))
    own: dict[str, Any] = {name: listed(row.get(name)) for name in ("seals", "fuels")}
    given = [name for name in OWN if name not in LISTS and row.get(name) not in (None, "")]
    own |= {RENAMED.get(name, name): row[name] for name in given}
    connections = [_read_connection(text) for text in listed(row.get("connections"))]
    return LibraryComponent.model_validate({"name": row["name"], "does": does, "connections": connections} | own)


class _Refused(BaseModel):
    """A kind that is none."""

    kind: Literal[tuple(BY_KIND)]  # type: ignore[valid-type]


def _typed(field: FieldInfo, value: Any) -> Any:
    plain = _plain(field.annotation)
    if plain is bool:
        return str(value).strip().lower() in ("yes", "true", "1")
    return int(value) if plain is int and float(value).is_integer() else value


def _read_points(text: str) -> list[dict[str, float]]:
    found = [POINT.fullmatch(item) for item in text.split(",")]
    # What can't be read is left as it is: the model says what it wants there.
    return [_read_point(one) if one else {} for one in found]


def _read_point(met: re.Match[str]) -> dict[str, float]:
    current = {"current_a": float(met[3])} if met[3] else {}
    return {"kpa": float(met[1]), "l_per_h": float(met[2])} | current


def _read_curves(text: str) -> Iterator[dict[str, Any]]:
    for item in text.split(";"):
        head = HEAD.fullmatch(item)
        if head is None:
            yield {"points": []}
        else:
            name = "voltage_v" if head[2] == "V" else "rpm"
            yield {name: float(head[1]), "points": _read_points(head[3])}


def _read_connection(text: str) -> dict[str, Any]:
    """What a connection's words say: its name, standard, size, hand; its rubber, bore, tape, cap."""
    name, _, rest = text.partition(" ")
    standard = next((one for one in sorted(SIZES, key=len, reverse=True) if rest.startswith(one)), None)
    found: dict[str, Any] = {"id": name}
    if standard is None:
        return found | {"standard": rest[:40]}
    rest = rest[len(standard) :].strip()
    longest = sorted(SIZES[standard], key=len, reverse=True)
    size = next((one for one in longest if f"{rest} ".startswith(f"{one} ")), None)
    if size is None:
        return found | {"standard": standard, "size": rest.split(" ")[0][:20]}
    words = rest[len(size) :].split()
    found |= {"standard": standard, "size": size, "sealant": "tape" in words, "capped": "capped" in words}
    bore = re.search(r"([\d.]+) mm", rest[len(size) :])
    found |= {"bore_mm": float(bore[1])} if bore else {}
    hands = [word for word in words if word in ("male", "female")]
    found |= {"hand": hands[0]} if hands else {}
    known = (*hands, "tape", "capped", "mm")
    others = [word for word in words if word not in known and not word[0].isdigit()]
    return found | ({"seal": others[0]} if others else {})
