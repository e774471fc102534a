"""The shop floor: write into a job's log, send photos, see how far a tank is."""

from typing import Annotated

from django.http import FileResponse, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router, Schema
from pydantic import Field

from keel.formats.log import log_csv, log_lines, read_log_lines
from keel.log.entries import Received
from keel.log.entry import ClientId
from keel.log.pictures import Picture, pictures
from keel.log.rates import RateSeen, rates_seen, taken
from keel.log.standing import standing
from keel.studies.handover.first_fill import FIRST_FILL
from keel.studies.handover.line_joints import LINE_PROOF
from server.floor import photos
from server.floor.build import asked_of, gauges_of, log_of, state_of
from server.floor.leak_tests import plan_of, walk_of
from server.floor.log import Log
from server.floor.models import Photo
from server.floor.schemas import BroughtIn, BuildOut, LogRow, PhotoOut, Sending, Written
from server.http.errors import ErrorOut
from server.jobs.api.designs import own_design
from server.jobs.models import Job
from server.workshop.guard import Request, anyone, owner, writer

router = Router(tags=["floor"])

ROWS = 60
MOST_ROWS = 500


class Sent(Schema):
    """Which photo of which job a body is."""

    job: Annotated[int, Field(ge=1, le=2**31)]
    id: ClientId


class Rows(Schema):
    """Which part of a log."""

    before: Annotated[int, Field(ge=1, le=2**31)] | None = None
    most: Annotated[int, Field(ge=1, le=MOST_ROWS)] = ROWS


def own_job(request: Request, number: int) -> Job:
    """A job of the caller's workshop, by its number."""
    return get_object_or_404(Job, number=number, workshop=request.user.workshop)


@router.post("jobs/numbered/{number}/log", response={200: list[Written], 404: ErrorOut, 422: ErrorOut}, auth=writer)
def write(request: Request, number: int, data: Sending) -> list[Written]:
    """Write entries in their order. One sent before is not written twice; one that may not be is refused by itself."""
    return Log(own_job(request, number), request.user, data.sent).write(data.entries)


@router.get("jobs/numbered/{number}/log", response={200: list[LogRow], 404: ErrorOut}, auth=anyone)
def read_log(request: Request, number: int, wanted: Query[Rows]) -> list[LogRow]:
    """Entries of a job, newest first."""
    return _rows(log_of(own_job(request, number)), wanted.most, wanted.before)


@router.get("jobs/numbered/{number}/log.jsonl", response={200: None, 404: ErrorOut}, auth=anyone)
def export_lines(request: Request, number: int) -> HttpResponse:
    """The whole log, an entry a line."""
    return _file(log_lines(log_of(own_job(request, number))), f"job-{number}-log.jsonl", "application/x-ndjson")


@router.post("jobs/numbered/{number}/log.jsonl", response={200: BroughtIn, 404: ErrorOut, 422: ErrorOut}, auth=owner)
def import_lines(request: Request, number: int) -> BroughtIn:
    """A log as it was exported, into a job that has none yet: its state is the same."""
    job = own_job(request, number)
    return BroughtIn(entries=Log(job, request.user, None).bring_in(read_log_lines(request.body)))


@router.get("jobs/numbered/{number}/log.csv", response={200: None, 404: ErrorOut}, auth=anyone)
def export_table(request: Request, number: int) -> HttpResponse:
    """The whole log as a table."""
    return _file(log_csv(log_of(own_job(request, number))), f"job-{number}-log.csv", "text/csv; charset=utf-8")


@router.get("designs/{design_id}/build", response={200: BuildOut, 304: None, 404: ErrorOut, 422: ErrorOut}, auth=anyone)
def read_build(request: Request, design_id: int) -> HttpResponse:
    """How far a tank is; 304 for whoever has that already, by its entity tag."""
    tank = own_design(request, design_id)
    job = tank.job
    last = job.log.order_by("-n").values_list("n", flat=True).first() or 0
    tag = {"ETag": f'"{last}-{tank.revision}-{tank.workshop.version}"', "Cache-Control": "private, no-cache"}
    if request.headers.get("If-None-Match") == tag["ETag"]:
        return HttpResponse(status=304, headers=tag)
    log = log_of(job)
    seams, corner = walk_of(tank)
    state = state_of(tank, timezone.now())
    found = BuildOut(
        design_id=tank.pk,
        design=tank.name,
        job_number=job.number,
        job_title=job.title,
        revision=tank.revision,
        last=last,
        state=state,
        photos=photos_of(job, log),
        plan=plan_of(tank),
        walk=seams,
        joints=asked_of(tank, lambda analysis: analysis[LINE_PROOF].joints, []),
        fills=asked_of(tank, lambda analysis: analysis[FIRST_FILL], []),
        gauges=gauges_of(tank, state),
        corner=corner,
        rows=_rows(log, ROWS, None),
    )
    return HttpResponse(found.model_dump_json(), content_type="application/json", headers=tag)


@router.post("photos", response={200: PhotoOut, 404: ErrorOut, 413: ErrorOut, 422: ErrorOut}, auth=writer)
def send_photo(request: Request, of: Query[Sent]) -> PhotoOut:
    """Keep a photo, sent as it is; one of that name that is there already stays."""
    return _photo(photos.kept(own_job(request, of.job), request.user, of.id, request.body))


@router.get("jobs/numbered/{number}/photos/{photo_id}", response={200: None, 404: ErrorOut}, auth=anyone)
def read_photo(request: Request, number: int, photo_id: str, small: bool = False) -> FileResponse:
    """A photo of a job, large or small."""
    photo = get_object_or_404(Photo, job=own_job(request, number), client_id=photo_id)
    path = photos.path_of(photo.workshop_id, photo.fingerprint, small=small)
    answer = FileResponse(path.open("rb"), content_type="image/jpeg")
    answer["Cache-Control"] = "private, max-age=31536000, immutable"
    return answer


def photos_of(job: Job, log: list[Received]) -> list[PhotoOut]:
    """A job's photos with what its log says of each."""
    said = pictures(standing(log).entries)
    return [_photo(photo, said.get(photo.client_id)) for photo in job.photos.all()]


@router.get("workshop/times", response={200: list[RateSeen]}, auth=anyone)
def read_times(request: Request) -> list[RateSeen]:
    """What each kind of work has taken lately, over all jobs: medians that may become the next rates."""
    jobs = request.user.workshop.jobs.filter(log__isnull=False).distinct()
    return rates_seen(one for job in jobs for one in taken(log_of(job)))


def _photo(photo: Photo, said: Picture | None = None) -> PhotoOut:
    of = said or Picture(photo.client_id)
    return PhotoOut(id=photo.client_id, wide_px=photo.wide_px, high_px=photo.high_px, of=of)


def _rows(log: list[Received], most: int, before: int | None) -> list[LogRow]:
    void = standing(log).void
    wanted = [one for one in reversed(log) if before is None or one.n < before][:most]
    return [
        LogRow(
            n=one.n,
            author=one.author,
            received=one.received,
            happened=one.happened,
            void=one.n in void,
            entry=one.entry,
        )
        for one in wanted
    ]


def _file(content: bytes, name: str, kind: str) -> HttpResponse:
    return HttpResponse(content, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'})
