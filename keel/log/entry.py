"""What all entries of a job's log have in common."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from keel.design.base import PLAIN, Note, Part

MOST_PHOTOS, MOST_PARTS, MOST_STROKES, MOST_SPOTS = 20, 60, 40, 400
ClientId = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")]
"""An entry's or photo's own name, made on the device that wrote it: sent twice it counts once."""
Subject = Annotated[str, Field(min_length=1, max_length=120, pattern=PLAIN)]
Text = Annotated[str, Field(max_length=400, pattern=PLAIN)]
Reason = Annotated[str, Field(max_length=400, pattern=PLAIN)]
Pieces = Annotated[int, Field(ge=0, le=1_000_000)]
Minutes = Annotated[float, Field(ge=0, le=100_000)]
Share = Annotated[float, Field(ge=0, le=1)]
Spot = Annotated[tuple[Share, Share], Field(strict=False)]
Way = Literal["in", "out"]


class Entry(Part):
    """What all entries have in common."""

    id: ClientId
    design: Annotated[int, Field(ge=1, le=2**62)] | None = Field(
        default=None, description="Which design of the job it is about; empty: the job"
    )
    revision: Annotated[int, Field(ge=0, le=2**31)] | None = Field(
        default=None, description="The design's revision then, as the server knows it"
    )
    at: datetime | None = Field(default=None, strict=False, description="When, by the clock of the device")
    note: Note = ""
    photos: Annotated[tuple[ClientId, ...], Field(max_length=MOST_PHOTOS, strict=False)] = ()
