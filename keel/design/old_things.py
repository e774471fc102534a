"""What an old tank had on it: every line, wire, vapour part and port, what it did, and what becomes of it."""

from typing import Annotated, Literal

from pydantic import Field

from keel.design.base import PLAIN, Name, Part
from keel.design.features import Id

MOST_OLD = 80
OldKind = Literal["line", "wire", "vapour part", "port", "part"]
Fate = Literal["keep", "move", "cap", "remove"]


class OldThing(Part):
    """One of them."""

    id: Id
    name: Name = Field(description="As it is labelled when it is taken off")
    kind: OldKind = "line"
    did: Annotated[str, Field(max_length=120, pattern=PLAIN)] = Field(default="", description="What it did")
    fate: Fate | None = Field(default=None, description="What becomes of it; empty: not known yet")
    to: Annotated[str, Field(max_length=82)] = Field(
        default="", description="Where it is joined now: 'part.connection' at Lines, 'tank.port', 'wire.id' at Wiring"
    )
    closed_by: Annotated[str, Field(max_length=120, pattern=PLAIN)] = Field(
        default="", description="What closes it, where it is capped"
    )
