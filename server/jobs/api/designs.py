"""Designs and their revisions."""

from datetime import datetime
from typing import Annotated, Any

from django.shortcuts import get_object_or_404
from ninja import Query, Router, Schema
from pydantic import Field

from keel.design.base import PLAIN, Name
from keel.design.document import Design
from keel.formats.document import design_from
from keel.studies.demand.surge_methods import surge_answer
from keel.studies.demand.surge_tank import SurgeForm, surge_tank
from server.http.errors import ApiError, ErrorOut
from server.jobs.models import Job, Revision, TankDesign
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["designs"])

REVISIONS_A_PAGE = 30


class Linked(Schema):
    """A design that belongs to another."""

    id: int
    name: str


class DesignOut(Schema):
    """A design at its present revision."""

    id: int
    name: str
    job_id: int
    job_title: str
    job_number: int
    customer: str
    revision: int
    saved: datetime
    author: str
    design: Design
    guide: dict[str, str]
    """What to try at each station, where the job is one to learn on."""
    main: Linked | None
    """The tank that a surge tank belongs to."""
    surge_tanks: list[Linked]


class DesignNew(Schema):
    """A new design: empty, or a document that was exported before."""

    name: Name
    design: dict[str, Any] | None = None


class DesignSave(Schema):
    """A design to keep, and the revision it is based on."""

    base_revision: Annotated[int, Field(ge=0, le=2**31)]
    design: dict[str, Any]
    note: Annotated[str, Field(max_length=120, pattern=PLAIN)] = ""


class Rename(Schema):
    """A design's new name."""

    name: Name


class Restore(Schema):
    """Which revision to bring back, and the revision that is believed to be present."""

    base_revision: Annotated[int, Field(ge=0, le=2**31)]
    number: Annotated[int, Field(ge=1, le=2**31)]


class RevisionBrief(Schema):
    """A revision in the list."""

    number: int
    saved: datetime
    author: str
    note: str


class RevisionOut(RevisionBrief):
    """A revision with its document."""

    design: Design


class RevisionPage(Schema):
    """One page of a design's revisions, newest first."""

    items: list[RevisionBrief]
    count: int


class PageOf(Schema):
    """Which page."""

    page: Annotated[int, Field(ge=1, le=1_000_000)] = 1


def own_design(request: Request, design_id: int) -> TankDesign:
    """The design, if it is this workshop's; else 404."""
    return get_object_or_404(
        TankDesign.objects.select_related("job__customer", "main"), pk=design_id, workshop=request.user.workshop
    )


def _design_out(tank: TankDesign) -> DesignOut:
    current, job = tank.current(), tank.job
    return DesignOut(
        id=tank.pk,
        name=tank.name,
        job_id=job.pk,
        job_title=job.title,
        job_number=job.number,
        customer=job.customer.name if job.customer else "",
        revision=current.number,
        saved=current.saved,
        author=current.author.name if current.author else "",
        design=current.design(),
        guide=job.guide,
        main=Linked(id=tank.main.pk, name=tank.main.name) if tank.main else None,
        surge_tanks=[Linked(id=other.pk, name=other.name) for other in tank.surge_tanks.all()],
    )


def _revision_brief(revision: Revision) -> dict[str, Any]:
    return {
        "number": revision.number,
        "saved": revision.saved,
        "author": revision.author.name if revision.author else "",
        "note": revision.note,
    }


@router.post("jobs/{job_id}/designs", response={201: DesignOut, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def add_design(request: Request, job_id: int, data: DesignNew) -> tuple[int, DesignOut]:
    """A new design in a job, empty or from an exported document."""
    job = get_object_or_404(Job, pk=job_id, workshop=request.user.workshop)
    design = Design() if data.design is None else design_from(data.design)
    note = "started" if data.design is None else "imported"
    return 201, _design_out(TankDesign.started(job, data.name, design, request.user, note))


class SurgeNew(Schema):
    """A name for the surge tank, and its form."""

    name: Name = "Surge tank"
    form: SurgeForm = "cylinder"


@router.post("designs/{design_id}/surge", response={201: DesignOut, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def make_surge_tank(request: Request, design_id: int, data: SurgeNew) -> tuple[int, DesignOut]:
    """A surge tank for a design, as a design of its own in the same job, linked to it."""
    main = own_design(request, design_id)
    design, workshop = main.current().design(), request.user.workshop.document()
    answer = surge_answer(design.brief, None, design, workshop.rules)
    if answer is None:
        raise ApiError(422, "no_surge", "Say at Brief how long the pickup runs dry and what the engine burns first.")
    made = surge_tank(design, answer.sizing.volume_l, workshop, data.form)
    note = f"made from {main.name}, revision {main.revision}"
    tank = TankDesign.started(main.job, data.name, made, request.user, note, main=main)
    return 201, _design_out(tank)


@router.get("designs/{design_id}", response={200: DesignOut, 404: ErrorOut}, auth=anyone)
def read_design(request: Request, design_id: int) -> DesignOut:
    """A design at its present revision."""
    return _design_out(own_design(request, design_id))


@router.put(
    "designs/{design_id}", response={200: RevisionBrief, 404: ErrorOut, 409: ErrorOut, 422: ErrorOut}, auth=writer
)
def save_design(request: Request, design_id: int, data: DesignSave) -> dict[str, Any]:
    """Keep the design as a new revision; 409 with the present one when it was based on an older."""
    tank = own_design(request, design_id)
    return _revision_brief(tank.save_revision(design_from(data.design), request.user, data.base_revision, data.note))


@router.patch("designs/{design_id}", response={200: DesignOut, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def rename_design(request: Request, design_id: int, data: Rename) -> DesignOut:
    """Give a design another name."""
    tank = own_design(request, design_id)
    tank.name = data.name
    tank.save(update_fields=["name"])
    return _design_out(tank)


@router.get("designs/{design_id}/revisions", response={200: RevisionPage, 404: ErrorOut}, auth=anyone)
def list_revisions(request: Request, design_id: int, wanted: Query[PageOf]) -> RevisionPage:
    """A design's revisions, newest first."""
    revisions = own_design(request, design_id).revisions.select_related("author")
    start = (wanted.page - 1) * REVISIONS_A_PAGE
    shown = revisions.defer("document")[start : start + REVISIONS_A_PAGE]
    return RevisionPage(
        items=[RevisionBrief.model_validate(_revision_brief(revision)) for revision in shown], count=revisions.count()
    )


@router.get("designs/{design_id}/revisions/{number}", response={200: RevisionOut, 404: ErrorOut}, auth=anyone)
def read_revision(request: Request, design_id: int, number: int) -> RevisionOut:
    """A design as it was at a revision."""
    revision = get_object_or_404(own_design(request, design_id).revisions.select_related("author"), number=number)
    return RevisionOut(**_revision_brief(revision), design=revision.design())


@router.post(
    "designs/{design_id}/restore", response={200: DesignOut, 404: ErrorOut, 409: ErrorOut, 422: ErrorOut}, auth=writer
)
def restore_revision(request: Request, design_id: int, data: Restore) -> DesignOut:
    """Bring an old revision back as a new one; what came between stays in the list."""
    tank = own_design(request, design_id)
    old = get_object_or_404(tank.revisions, number=data.number)
    tank.save_revision(old.design(), request.user, data.base_revision, note=f"restored from revision {old.number}")
    return _design_out(tank)
