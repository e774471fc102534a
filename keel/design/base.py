"""What every part of a design document shares: strictness and limits."""

from collections.abc import Mapping
from typing import Annotated, Any, NoReturn

from pydantic import BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

LONGEST_MM = 20_000.0


class Part(BaseModel):
    """A frozen piece of a design: unknown fields and loose types are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid", strict=True, allow_inf_nan=False)


Length = Annotated[float, Field(gt=0, le=LONGEST_MM)]
"""A size [mm]: above zero."""

Gap = Annotated[float, Field(ge=0, le=LONGEST_MM)]
"""A distance that may be nought [mm]."""

Coordinate = Annotated[float, Field(ge=-LONGEST_MM, le=LONGEST_MM)]
"""A place along an axis [mm]."""

PLAIN = r"^[^\x00]*$"
"""Text without the NUL character, which no store of text takes."""

Name = Annotated[str, Field(min_length=1, max_length=80, pattern=PLAIN)]
Note = Annotated[str, Field(max_length=2000, pattern=PLAIN)]


def with_kind(document: Any, field: str) -> Any:
    """A document whose part, or each of whose parts, under a field has a kind: a box where none is named."""
    if not isinstance(document, dict) or field not in document:
        return document
    part = document[field]
    if isinstance(part, list | tuple):
        return document | {field: [_kinded(item) for item in part]}
    return document | {field: _kinded(part)}


def _kinded(part: Any) -> Any:
    return {"kind": "box"} | part if isinstance(part, dict) else part


def refuse(message: str, *, field: str, value: Any, limit: Any) -> NoReturn:
    """Reject a design whose fields are each fine but don't go together.

    Parameters
    ----------
    message : str
        What is wrong, in plain words.
    field : str
        Dotted path of the field to put right, below the part that refuses.
    value, limit : Any
        The value met and the limit it breaks.

    Raises
    ------
    PydanticCustomError
        Always; its context carries field, value and limit.
    """
    context: Mapping[str, Any] = {"field": field, "value": value, "limit": limit, "message": message}
    raise PydanticCustomError("geometry", "{message}", dict(context))
