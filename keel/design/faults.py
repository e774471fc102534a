"""Faults in a document, as data: the field, the value met, the limit broken, and words."""

import math
from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import BaseModel, ConfigDict, ValidationError

from keel.design.base import PLAIN
from keel.reference.quantities import QUANTITIES

LIMIT_KEYS = ("gt", "ge", "lt", "le", "max_length", "min_length", "expected", "pattern", "limit")
LIMIT_WORDS = {
    "gt": "above {}{unit}",
    "ge": "{}{unit} or more",
    "lt": "below {}{unit}",
    "le": "{}{unit} or less",
    "max_length": "at most {} long",
    "min_length": "at least {} long",
}
MOST_FAULTS = 50
KINDED_LISTS, KINDED = ("keep_outs", "features"), ("shell", "action")
KINDS = (
    *("box", "profile", "cylinder", "slope", "scan", "well", "sump", "relief", "roof step", "partition", "baffle"),
    *("pot", "swing arm", "tube"),
)
UNITS = {"mm": "mm", "l": "L"} | {ending: quantity.metric.unit for ending, quantity in QUANTITIES.items()}
"""What a name's ending says of its unit; the interface puts the reader's in its place."""
TYPE_LIMITS = {
    "float_type": "a number",
    "finite_number": "a finite number",
    "int_type": "a whole number",
    "string_type": "text",
    "list_type": "a list",
    "extra_forbidden": "a field of the format",
    "missing": "required",
    "model_type": "an object",
    "bool_type": "true or false",
}


class Fault(BaseModel):
    """One thing wrong with what was sent."""

    model_config = ConfigDict(frozen=True)

    field: str
    value: str | float | int | bool | None = None
    limit: str
    message: str


def faults(error: ValidationError, prefix: str = "") -> list[Fault]:
    """List what a validation error complains about.

    Parameters
    ----------
    error : ValidationError
        From validating a design or a workshop.
    prefix : str
        Dotted path put before each field.

    Returns
    -------
    list of Fault
        One each, in the document's order; of more than fifty the rest as one that says how many.
    """
    found = error.errors(include_url=False)
    named = [_fault(item, prefix) for item in found[:MOST_FAULTS]]
    more = len(found) - len(named)
    if more:
        named.append(Fault(field=prefix or "document", value=more, limit="none", message=f"and {more} more"))
    return named


def fault_of(details: Mapping[str, Any], prefix: str = "") -> Fault:
    """One fault from the details pydantic keeps of an error (`loc`, `msg`, `input`, `ctx`, `type`).

    Parameters
    ----------
    details : mapping
        An error as pydantic lists it.
    prefix : str
        Path that stands before the field's.

    Returns
    -------
    Fault
        Field, value, limit and message.
    """
    return _fault(details, prefix)


def _fault(details: Mapping[str, Any], prefix: str) -> Fault:
    context: Mapping[str, Any] = details.get("ctx") or {}
    path = [prefix] if prefix else []
    path += [str(step) for step in _without_tags(details["loc"])]
    if context.get("field"):
        path.append(str(context["field"]))
    field = ".".join(path) or "document"
    limit = _limit(str(details["type"]), context, field)
    value = context.get("value", None if details["type"] == "missing" else details.get("input"))
    message = context.get("message") or f"{_last_word(field)} must be {limit}"
    if details["type"] == "extra_forbidden":
        message = f"'{_last_word(field)}' is not a field here"
    elif details["type"] == "missing":
        message = f"{_last_word(field)} is missing"
    elif details["type"] == "union_tag_invalid":
        field, limit = f"{field}.kind", str(context["expected_tags"])
        value, message = context["tag"], f"'{context['tag']}' is not a kind of this: {limit}"
    elif details["type"] in ("json_invalid", "value_error"):
        message = str(details["msg"])
    return Fault(field=field, value=_plain(value), limit=limit, message=message)


def _without_tags(path: Sequence[str | int]) -> Sequence[str | int]:
    """The path without the names pydantic puts in for the kind of a shell, a keep-out, a feature or a sender."""
    kept: list[str | int] = []
    for here, step in enumerate(path):
        before = path[here - 1] if here else None
        of_list = isinstance(before, int) and here > 1 and path[here - 2] in KINDED_LISTS
        if step == "[key]" or (isinstance(step, str) and (of_list or before in KINDED) and step in KINDS):
            continue
        kept.append(step)
    return kept


def _limit(kind: str, context: Mapping[str, Any], field: str) -> str:
    if context.get("pattern") == PLAIN:
        return "text without NUL characters"
    if kind in TYPE_LIMITS:
        return TYPE_LIMITS[kind]
    for key in LIMIT_KEYS:
        if key in context:
            value = context[key]
            shown = f"{value:g}" if isinstance(value, float) else str(value)
            unit = _unit(field) if isinstance(value, float | int) else ""
            return LIMIT_WORDS.get(key, "{}{unit}").format(shown, unit=unit if unit == "°" else unit and f" {unit}")
    return kind.replace("_", " ")


def _unit(field: str) -> str:
    """The unit that the last name of a path ends in; none where it doesn't."""
    before, _, ending = field.rpartition(".")[2].rpartition("_")
    return UNITS.get(ending, "") if before else ""


def _last_word(field: str) -> str:
    words = [step for step in field.split(".") if not step.isdigit()]
    if not words:
        return field
    name = words[-1].rpartition("_")[0] if _unit(words[-1]) else words[-1]
    return name.replace("_", " ")


def _plain(value: Any) -> str | float | int | bool | None:
    if isinstance(value, float) and not math.isfinite(value):
        return str(value)
    if value is None or isinstance(value, bool | int | float):
        return value
    text = value if isinstance(value, str) else f"({type(value).__name__})"
    return text if len(text) <= 120 else text[:117] + "..."
