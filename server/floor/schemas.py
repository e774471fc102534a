"""What the shop floor sends and gets."""

from datetime import datetime
from typing import Annotated

from ninja import Schema
from pydantic import Field

from keel.log.entries import AnyEntry
from keel.log.entry import ClientId
from keel.log.pictures import Picture
from keel.log.state import BuildState
from keel.studies.handover.as_poured import AsPoured
from keel.studies.handover.first_fill import FillStep
from keel.studies.handover.line_joints import LineJoint
from keel.studies.proof.plan import ProofPlan
from keel.studies.proof.walk import WalkSeam
from keel.studies.result import Point

MOST_AT_ONCE = 200


class Sending(Schema):
    """Entries that waited on a device, in the order they were written."""

    entries: Annotated[list[AnyEntry], Field(max_length=MOST_AT_ONCE)]
    sent: datetime | None = None
    """The device's clock as it sends: entries written offline are dated by the difference."""


class Written(Schema):
    """What became of an entry: its number in the log, or why it isn't taken."""

    id: ClientId
    n: int | None
    refused: str | None


class BroughtIn(Schema):
    """How many entries came from a file."""

    entries: int


class LogRow(Schema):
    """An entry as it stands in the log."""

    n: int
    author: str
    received: datetime
    happened: datetime
    void: bool
    """Whether a correction voids it."""
    entry: AnyEntry


class PhotoOut(Schema):
    """A photo: its own name, its size, and what the log says of it."""

    id: ClientId
    wide_px: int
    high_px: int
    of: Picture


class BuildOut(Schema):
    """How far a tank is, and what was written last."""

    design_id: int
    design: str
    job_number: int
    job_title: str
    revision: int
    last: int
    """The last number in the job's log."""
    state: BuildState
    photos: list[PhotoOut]
    plan: ProofPlan | None
    """How its leak test is done."""
    walk: list[WalkSeam]
    """Its seams in the order in which they are walked."""
    joints: list[LineJoint]
    """Joints of the lines in walking order."""
    fills: list[FillStep]
    """Steps of the first fill: where level and needle should stand."""
    gauges: list[AsPoured]
    """Senders that were read at three steps of the fill or more, as they are."""
    corner: Point | None
    """The body's rear, right, lower corner: what pins count from."""
    rows: list[LogRow]
    """The latest entries, newest first."""
