"""What every part of a design document shares: strictness and limits."""

from collections.abc import Mapping
from functools import cache
from typing import Annotated, Any, NoReturn

from annotated_types import MaxLen
from pydantic import BaseModel, ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

LONGEST_MM = 20_000.0


class Part(BaseModel):
    """A frozen piece of a design: unknown fields and loose types are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid", strict=True, allow_inf_nan=False)

    @model_validator(mode="before")
    @classmethod
    def _not_too_long(cls, document: Any) -> Any:
        """Lengths are checked before items: what is too long isn't read any further."""
        if not isinstance(document, Mapping):
            return document
        if len(document) > len(cls.model_fields) + MOST_STRAY_FIELDS:
            refuse(
                f"{len(document)} fields where {len(cls.model_fields)} are known",
                field="",
                value=len(document),
                limit=len(cls.model_fields),
            )
        for name, most in _most_of(cls).items():
            items = document.get(name)
            if isinstance(items, list | tuple) and len(items) > most:
                refuse(
                    f"{len(items)} {name.replace('_', ' ')}: at most {most} are taken",
                    field=name,
                    value=len(items),
                    limit=f"at most {most}",
                )
        return document


@cache
def _most_of(part: type[Part]) -> dict[str, int]:
    """How long each list of a part may be."""
    return {
        name: limit.max_length
        for name, field in part.model_fields.items()
        for limit in field.metadata
        if isinstance(limit, MaxLen)
    }


MOST_STRAY_FIELDS = 50
"""More unknown fields than these aren't named one by one."""


Length = Annotated[float, Field(gt=0, le=LONGEST_MM)]
"""A size [mm]: above zero."""

Gap = Annotated[float, Field(ge=0, le=LONGEST_MM)]
"""A distance that may be zero [mm]."""

Bore = Annotated[float, Field(gt=0, le=500)]
"""The diameter of a round way through something [mm]."""

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
