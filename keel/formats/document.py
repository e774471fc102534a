"""The design document as JSON text, in and out, with its JSON Schema."""

import json
from typing import Any

from pydantic import ValidationError

from keel.design.document import VERSION, Design, NewerVersionError, upgrade
from keel.design.faults import Fault, faults

MOST_BYTES = 1_000_000


class UnreadableDesignError(ValueError):
    """A text that is no design; `faults` says why."""

    def __init__(self, found: list[Fault]) -> None:
        super().__init__("; ".join(f"{fault.field}: {fault.message}" for fault in found))
        self.faults = found


def read_design(text: str | bytes) -> Design:
    """Read a design from JSON text.

    Parameters
    ----------
    text : str or bytes
        UTF-8 JSON of at most 1 000 000 bytes, of any format version known so far.

    Returns
    -------
    Design

    Raises
    ------
    UnreadableDesignError
        With a fault for everything wrong: field, value, limit and words.
    """
    if len(text) > MOST_BYTES:
        raise UnreadableDesignError(
            [_whole(f"{len(text)} bytes", f"{MOST_BYTES} bytes or less", "the file is too large")]
        )
    try:
        document = json.loads(text)
    except UnicodeDecodeError as error:
        raise UnreadableDesignError([_whole(None, "UTF-8 text", "the file is not UTF-8 text")]) from error
    except (json.JSONDecodeError, RecursionError) as error:
        raise UnreadableDesignError([_whole(None, "JSON text", f"the text is not whole JSON: {error}")]) from error
    return design_from(document)


def design_from(document: Any) -> Design:
    """A design from parsed JSON, upgraded and validated.

    Parameters
    ----------
    document : Any
        Any supported version of the format.

    Returns
    -------
    Design
        Checked, in the newest version.

    Raises
    ------
    UnreadableDesignError
        As `read_design`.
    """
    try:
        return Design.model_validate(upgrade(document))
    except NewerVersionError as error:
        limit = f"{VERSION} or less"
        raise UnreadableDesignError(
            [Fault(field="version", value=error.version, limit=limit, message=str(error))]
        ) from error
    except ValidationError as error:
        raise UnreadableDesignError(faults(error)) from error


def design_json(design: Design) -> bytes:
    """A design as indented JSON text (UTF-8), every field written out.

    Parameters
    ----------
    design : Design
        The design.

    Returns
    -------
    bytes
        JSON.
    """
    return (design.model_dump_json(indent=2) + "\n").encode("utf-8")


def design_schema() -> dict[str, Any]:
    """The JSON Schema of the design document.

    Returns
    -------
    dict
        JSON Schema, 2020-12.
    """
    return Design.model_json_schema()


def _whole(value: str | None, limit: str, message: str) -> Fault:
    return Fault(field="document", value=value, limit=limit, message=message)
