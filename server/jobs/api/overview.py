"""What the page of a job shows: each design as it stands, and who did what when."""

from collections.abc import Iterator
from datetime import datetime, timedelta

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Schema

from keel.analysis.showing import Showing
from keel.evaluation import evaluate, evaluation_model
from server.http.errors import ErrorOut
from server.jobs.api.designs import own_design
from server.jobs.api.jobs import JobOut, job_out
from server.jobs.memory import MEMORY
from server.jobs.models import Job, Revision
from server.jobs.scans import scans_of
from server.workshop.guard import Request, anyone

router = Router(tags=["jobs"])

MOST_REVISIONS = 400
TOGETHER = timedelta(minutes=30)
"""Saves of one person on one design no further apart than this are one entry."""


class Entry(Schema):
    """What somebody did: so many saves of a design, one after the other."""

    design_id: int
    design: str
    author: str
    first: int
    last: int
    began: datetime
    ended: datetime
    notes: list[str]


class Timeline(Schema):
    """Who did what on a job, newest first."""

    entries: list[Entry]
    is_whole: bool
    """Whether it goes back to the beginning."""


@router.get("jobs/numbered/{number}", response={200: JobOut, 404: ErrorOut}, auth=anyone)
def read_job_numbered(request: Request, number: int) -> JobOut:
    """One job by the number that the workshop knows it by."""
    return job_out(get_object_or_404(Job, number=number, workshop=request.user.workshop))


@router.get(
    "designs/{design_id}/standing", response={200: evaluation_model(), 404: ErrorOut, 422: ErrorOut}, auth=anyone
)
def read_standing(request: Request, design_id: int) -> HttpResponse:
    """How a design stands at its present revision: its figures, marks and findings, without remedies."""
    workshop, design = request.user.workshop, own_design(request, design_id).current().design()
    showing = Showing(results=("shell.figures", "brief.target"), remedies=False)
    answer = evaluate(design, workshop.document(), showing, scans_of(workshop, design), memory=MEMORY)
    return HttpResponse(answer.model_dump_json(), content_type="application/json")


@router.get("jobs/numbered/{number}/timeline", response={200: Timeline, 404: ErrorOut}, auth=anyone)
def read_timeline(request: Request, number: int) -> Timeline:
    """Who did what on a job, newest first."""
    job = get_object_or_404(Job, number=number, workshop=request.user.workshop)
    saved = Revision.objects.filter(tank__job=job).select_related("author", "tank").defer("document")
    found = list(saved.order_by("-saved", "-pk")[: MOST_REVISIONS + 1])
    return Timeline(entries=list(_together(found[:MOST_REVISIONS])), is_whole=len(found) <= MOST_REVISIONS)


def _together(newest_first: list[Revision]) -> Iterator[Entry]:
    entry: Entry | None = None
    for revision in newest_first:
        who = revision.author.name if revision.author else ""
        goes_on = entry is not None and (entry.design_id, entry.author) == (revision.tank_id, who)
        if entry is not None and goes_on and entry.began - revision.saved <= TOGETHER:
            entry.first, entry.began = revision.number, revision.saved
        else:
            if entry is not None:
                yield entry
            entry = Entry(
                design_id=revision.tank_id,
                design=revision.tank.name,
                author=who,
                first=revision.number,
                last=revision.number,
                began=revision.saved,
                ended=revision.saved,
                notes=[],
            )
        if revision.note:
            entry.notes.append(revision.note)
    if entry is not None:
        yield entry
