"""What can be written into a job's log. An entry is never changed: a correction is another entry."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, TypeAdapter

from keel.design.base import Coordinate, Length, Name
from keel.design.work import WorkKind
from keel.log.entry import (
    MOST_PARTS,
    MOST_SPOTS,
    MOST_STROKES,
    ClientId,
    Entry,
    Minutes,
    Pieces,
    Reason,
    Spot,
    Subject,
    Text,
    Way,
)
from keel.log.handover_entries import (
    ClosedAgain,
    JointMarked,
    JointSeen,
    LeftOpen,
    LineRead,
    Poured,
)
from keel.log.proof_entries import GaugeRead, LeakFound, LeakRepaired, ProofBegun, ProofEnded, SeamWalked

AgreedAbout = Literal["scope", "visible face", "finish", "extra"]


class Started(Entry):
    """Somebody begins an operation, or goes on with it."""

    kind: Literal["started"] = "started"
    subject: Subject


class Paused(Entry):
    """Somebody leaves an operation for now."""

    kind: Literal["paused"] = "paused"
    subject: Subject


class Done(Entry):
    """An operation is done, on parts that look as `basis` says: a digest by name."""

    kind: Literal["done"] = "done"
    subject: Subject
    work: WorkKind | None = None
    amount: Annotated[float, Field(ge=0, le=1e6)] | None = Field(
        default=None, description="How much work it was, in the unit of its kind's rate"
    )
    basis: Annotated[dict[str, str], Field(max_length=300)] = {}


class Skipped(Entry):
    """An operation isn't done, for a reason."""

    kind: Literal["skipped"] = "skipped"
    subject: Subject
    reason: Reason


class Accepted(Entry):
    """A done operation stays done although the design has changed since, for a reason."""

    kind: Literal["accepted"] = "accepted"
    subject: Subject
    reason: Reason
    basis: Annotated[dict[str, str], Field(max_length=300)] = {}


class Added(Entry):
    """An operation that the design doesn't ask for."""

    kind: Literal["added"] = "added"
    subject: Subject
    title: Name
    after: Subject | None = Field(default=None, description="The operation that it follows; empty: the first")
    minutes: Minutes | None = None
    hot: bool = Field(
        default=False, description="It makes heat, sparks or a hole: a leak test before it no longer holds"
    )
    covers: bool = Field(default=False, description="It hides seams: it waits for the leak test")


class Moved(Entry):
    """An operation is done at another place in the order."""

    kind: Literal["moved"] = "moved"
    subject: Subject
    after: Subject | None = Field(default=None, description="The operation that it follows; empty: the first")


class Checked(Entry):
    """One condition of a gate looked at: met or not."""

    kind: Literal["checked"] = "checked"
    subject: Subject
    check: Subject
    passed: bool = True


class Counted(Entry):
    """Pieces of a kind counted in or out."""

    kind: Literal["count"] = "count"
    subject: Subject
    way: Way
    value: Pieces


class Read(Entry):
    """A reading of an instrument, in the unit that the gate asks for; below zero it wants zeroing."""

    kind: Literal["reading"] = "reading"
    subject: Subject
    value: Annotated[float, Field(ge=0, le=1e6)]


class Measured(Entry):
    """A length measured, and how."""

    kind: Literal["measured"] = "measured"
    subject: Subject
    value_mm: Length
    by_way: Text = Field(default="", description="Tape, stick, gauge")


class Flushed(Entry):
    """A round of flushing or wiping out: what came out, and whether that was nothing."""

    kind: Literal["flushed"] = "flushed"
    subject: Subject
    caught: Text
    clean: bool


class Overridden(Entry):
    """A gate is passed although it isn't met, by somebody who says why."""

    kind: Literal["override"] = "override"
    subject: Subject
    name: Text = Field(description="Who answers for it")
    reason: Reason


class Corrected(Entry):
    """An earlier entry doesn't hold. The right one is an entry of its own."""

    kind: Literal["correction"] = "correction"
    of: ClientId


class Noted(Entry):
    """A remark, or a photo, on anything."""

    kind: Literal["note"] = "note"
    subject: Subject | None = None


class Pinned(Entry):
    """Where on the tank a photo shows: from the body's rear, right, lower corner."""

    kind: Literal["pinned"] = "pinned"
    photo: ClientId
    x_mm: Coordinate
    y_mm: Coordinate
    z_mm: Coordinate


class Drawn(Entry):
    """Lines drawn on a photo, in shares of its width and height; the last drawing stands."""

    kind: Literal["drawn"] = "drawn"
    photo: ClientId
    strokes: Annotated[
        tuple[Annotated[tuple[Spot, ...], Field(max_length=MOST_SPOTS, strict=False)], ...],
        Field(max_length=MOST_STROKES, strict=False),
    ]


class Arrived(Entry):
    """Something bought has come: how many, how many of their caps and plugs, whether whole."""

    kind: Literal["arrived"] = "arrived"
    subject: Subject
    value: Pieces
    caps: Pieces = 0
    whole: bool = True


class Asked(Entry):
    """What a maker's sheet asks for: a wait, a setting, a caution, before an operation."""

    kind: Literal["maker"] = "maker"
    subject: Subject
    asks: Text
    before: Subject | None = None
    wait_min: Minutes | None = None


class SentOut(Entry):
    """Work given to somebody else: in what state, what it may meet, what has to come back."""

    kind: Literal["sent"] = "sent"
    subject: Subject
    parts: Annotated[tuple[Name, ...], Field(max_length=MOST_PARTS, strict=False)] = ()
    to: Name
    work: Text
    state: Text = ""
    may_meet: Text = Field(default="", description="Heat and fluids that it may meet")
    returns: Text = Field(default="", description="What has to come back, and what is checked then")


class CameBack(Entry):
    """Work that was sent out is back."""

    kind: Literal["back"] = "back"
    of: ClientId
    whole: bool = True


class Agreed(Entry):
    """What the customer agreed to, by what word or paper."""

    kind: Literal["agreed"] = "agreed"
    about: AgreedAbout
    what: Text
    consent: Text = Field(description="Who agreed, how")
    price: Annotated[float, Field(ge=0, le=1e7)] | None = None


class Learnt(Entry):
    """What a revision taught, and what may be otherwise in the next."""

    kind: Literal["learnt"] = "learnt"
    what: Text
    next: Text = ""


AnyEntry = Annotated[
    Started | Paused | Done | Skipped | Accepted | Added | Moved | Checked | Counted | Read | Measured | Flushed
    | Overridden | Corrected | Noted | Pinned | Drawn | Arrived | Asked | SentOut | CameBack | Agreed | Learnt
    | ProofBegun | GaugeRead | ProofEnded | LeakFound | LeakRepaired | SeamWalked
    | Poured | LineRead | JointSeen | JointMarked | LeftOpen | ClosedAgain,
    Field(discriminator="kind"),
]  # fmt: skip
ENTRY: TypeAdapter[AnyEntry] = TypeAdapter(AnyEntry)
"""Reads an entry from a plain document."""


@dataclass(frozen=True, slots=True)
class Received:
    """An entry as it came in.

    Attributes
    ----------
    n : int
        Its place in the order they came.
    author : str
        Who wrote it.
    received : datetime
        When it came, by the server's clock.
    happened : datetime
        When it was written, by the server's clock: it may have waited on the device.
    entry : Entry
        What it says.
    """

    n: int
    author: str
    received: datetime
    happened: datetime
    entry: AnyEntry
