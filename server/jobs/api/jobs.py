"""The jobs of a workshop."""

from datetime import datetime
from typing import Annotated, Literal

from django.db import transaction
from django.db.models import Q, QuerySet
from django.shortcuts import get_object_or_404
from ninja import Query, Router, Schema
from pydantic import Field

from keel.design.base import PLAIN, Name, Note
from server.http.errors import ApiError, ErrorOut, refused
from server.jobs.models import Customer, Job
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["jobs"])

StateName = Literal["enquiry", "design", "build", "done", "shelved"]
PAGE_SIZE = 20
MOST_PAGES = 100_000


class DesignBrief(Schema):
    """A design in a job's list."""

    id: int
    name: str
    revision: int


class JobOut(Schema):
    """A job with its designs."""

    id: int
    number: int
    title: str
    customer_id: int | None
    customer: str
    state: StateName
    note: str
    changed: datetime
    designs: list[DesignBrief]


class JobPage(Schema):
    """One page of the jobs list."""

    items: list[JobOut]
    count: int
    page: int
    pages: int


class JobIn(Schema):
    """A job's own fields."""

    title: Name
    customer_id: Annotated[int, Field(ge=1, le=2**62)] | None = None
    state: StateName = "enquiry"
    note: Note = ""


class JobChange(JobIn):
    """A job's own fields as they are to be, and as they were when they were read."""

    seen: JobIn


class JobFilter(Schema):
    """What to look for."""

    search: Annotated[str, Field(max_length=80, pattern=PLAIN)] = ""
    state: StateName | None = None
    customer_id: Annotated[int, Field(ge=1, le=2**62)] | None = None
    page: Annotated[int, Field(ge=1, le=MOST_PAGES)] = 1


def job_out(job: Job) -> JobOut:
    """A job as the interface wants it."""
    return JobOut.model_validate(
        {
            "id": job.pk,
            "number": job.number,
            "title": job.title,
            "customer_id": job.customer_id,
            "customer": job.customer.name if job.customer else "",
            "state": job.state,
            "note": job.note,
            "changed": job.changed,
            "designs": [{"id": d.pk, "name": d.name, "revision": d.revision} for d in job.designs.all()],
        }
    )


@router.get("jobs", response={200: JobPage, 422: ErrorOut}, auth=anyone)
def list_jobs(request: Request, wanted: Query[JobFilter]) -> JobPage:
    """Jobs by search, state and customer, latest change first."""
    found = _matching(request.user.workshop.jobs.all(), wanted)
    count = found.count()
    start = (wanted.page - 1) * PAGE_SIZE
    shown = found.select_related("customer").prefetch_related("designs")[start : start + PAGE_SIZE]
    return JobPage(
        items=[job_out(job) for job in shown],
        count=count,
        page=wanted.page,
        pages=max(1, -(-count // PAGE_SIZE)),
    )


def _matching(jobs: "QuerySet[Job]", wanted: JobFilter) -> "QuerySet[Job]":
    text = wanted.search.strip()
    if text:
        about = Q(title__icontains=text) | Q(customer__name__icontains=text) | Q(designs__name__icontains=text)
        if text.isascii() and text.isdecimal() and len(text) < 9:
            about |= Q(number=int(text))
        jobs = jobs.filter(about).distinct()
    if wanted.state:
        jobs = jobs.filter(state=wanted.state)
    if wanted.customer_id:
        jobs = jobs.filter(customer_id=wanted.customer_id)
    return jobs


@router.post("jobs", response={201: JobOut, 422: ErrorOut}, auth=writer)
def add_job(request: Request, data: JobIn) -> tuple[int, JobOut]:
    """A new job with the next number."""
    job = Job.opened(request.user.workshop, **_fields(request, data))
    return 201, job_out(job)


@router.get("jobs/{job_id}", response={200: JobOut, 404: ErrorOut}, auth=anyone)
def read_job(request: Request, job_id: int) -> JobOut:
    """One job."""
    return job_out(get_object_or_404(Job, pk=job_id, workshop=request.user.workshop))


@router.put("jobs/{job_id}", response={200: JobOut, 404: ErrorOut, 409: ErrorOut, 422: ErrorOut}, auth=writer)
def change_job(request: Request, job_id: int, data: JobChange) -> JobOut:
    """Change a job's own fields; 409 with the present ones when they are no longer those that were seen."""
    with transaction.atomic():
        job = get_object_or_404(Job.objects.select_for_update(), pk=job_id, workshop=request.user.workshop)
        seen = data.seen.dict()
        if any(getattr(job, name) != value for name, value in seen.items()):
            message = "Somebody changed this job meanwhile."
            raise ApiError(409, "conflict", message, current=job_out(job).model_dump(mode="json"))
        for name, value in _fields(request, data).items():
            setattr(job, name, value)
        job.save()
    return job_out(job)


def _fields(request: Request, data: JobIn) -> dict[str, object]:
    wanted = data.customer_id
    if wanted is not None and not Customer.objects.filter(workshop=request.user.workshop, pk=wanted).exists():
        raise refused("customer_id", data.customer_id, "a customer of this workshop", "There is no such customer.")
    return data.dict(include=set(JobIn.model_fields))
