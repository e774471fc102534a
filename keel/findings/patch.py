"""JSON merge patches (RFC 7396) on designs."""

from typing import Any

from keel.design.document import Design
from keel.findings.finding import Patch


def merged(document: dict[str, Any], patch: Patch) -> dict[str, Any]:
    """The document with a merge patch applied; the original is left alone.

    Parameters
    ----------
    document : dict
        As JSON.
    patch : Patch
        A JSON merge patch.

    Returns
    -------
    dict
        A new document.
    """
    result = dict(document)
    for key, value in patch.items():
        if value is None:
            result.pop(key, None)
        elif isinstance(value, dict):
            below = result.get(key)
            result[key] = merged(below if isinstance(below, dict) else {}, value)
        else:
            result[key] = value
    return result


def difference(before: dict[str, Any], after: dict[str, Any]) -> Patch:
    """The merge patch that makes one document of another: what is gone is null, lists are replaced whole.

    Parameters
    ----------
    before : dict
        As JSON.
    after : dict
        As JSON.

    Returns
    -------
    Patch
        A JSON merge patch.
    """
    patch: Patch = {key: None for key in before if key not in after}
    for key, value in after.items():
        old = before.get(key)
        if isinstance(value, dict) and isinstance(old, dict):
            below = difference(old, value)
            if below:
                patch[key] = below
        elif old != value:
            patch[key] = value
    return patch


def apply(design: Design, patch: Patch) -> Design:
    """The design with a merge patch applied; parts that it doesn't touch are the same objects.

    Parameters
    ----------
    design : Design
        The design.
    patch : Patch
        A JSON merge patch.

    Returns
    -------
    Design
        A new design.

    Raises
    ------
    pydantic.ValidationError
        When the patched design would break its own limits.
    """
    untouched = {name: part for name, part in design if name not in patch}
    touched = design.model_dump(mode="json", exclude_none=True, include=set(patch))
    return Design.model_validate(untouched | merged(touched, patch)).model_copy(update=untouched)
