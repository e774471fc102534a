"""What is written between first fuel and hand-over: fuel poured, lines held, joints looked at, things left open."""

from typing import Annotated, Literal

from pydantic import Field

from keel.findings.open_items import LeftWhy
from keel.log.entry import Entry, Reason, Subject, Text
from keel.studies.build.operation import Before
from keel.studies.handover.line_joints import Mark

Said = Annotated[str, Field(max_length=1000)]
Ohms = Annotated[float, Field(ge=0, le=100_000)]


class Poured(Entry):
    """A cell filled up to so much, measured, and what its senders read then."""

    kind: Literal["poured"] = "poured"
    subject: Subject
    litres: Annotated[float, Field(ge=0, le=100_000, description="In the cell then, all that was poured [L]")]
    ohms: Annotated[dict[Subject, Ohms], Field(max_length=8)] = {}
    needle: Annotated[float, Field(ge=0, le=1)] | None = Field(
        default=None, description="Where the needle stands, as a share of its travel"
    )


class LineRead(Entry):
    """A line's pressure while it is held, so many minutes after that began."""

    kind: Literal["line read"] = "line read"
    subject: Subject
    minute: Annotated[float, Field(ge=0, le=1440)]
    kpa: Annotated[float, Field(ge=0, le=20_000)]
    simulated: bool = False


class JointSeen(Entry):
    """A joint looked at, or tightened; one that was tightened has to be seen dry again."""

    kind: Literal["joint"] = "joint"
    subject: Subject
    found: Literal["dry", "weep", "leak", "tightened"]


class JointMarked(Entry):
    """What shows that a joint is made up: pulled, marked where it was pushed to, marked as tight."""

    kind: Literal["joint mark"] = "joint mark"
    subject: Subject
    mark: Mark
    good: bool = True


class LeftOpen(Entry):
    """Something that somebody left for later, and before which step it has to be closed."""

    kind: Literal["left open"] = "left open"
    what: Text
    why: LeftWhy = "temporary"
    before: Before = "hand-over"


class ClosedAgain(Entry):
    """An open item is closed, or stays as it is and somebody answers for it."""

    kind: Literal["closed"] = "closed"
    subject: Subject
    reason: Reason
    stays: bool = Field(default=False, description="It stays as it is; who writes this answers for it")
    said: Said = Field(default="", description="What the ledger said of it then; said otherwise, it is open again")
