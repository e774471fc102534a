"""Studies: asked for, watched, stopped."""

from dataclasses import asdict
from datetime import datetime
from typing import Annotated, Any, Literal, cast

from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Schema
from pydantic import ConfigDict, Field, TypeAdapter

from keel.design.document import Design
from keel.formats.document import design_from
from keel.solid.interior import solids_of
from keel.studies.result import Words
from keel.studies.slosh.model import setup_of, slosh_tank
from keel.trials.advice import advice
from keel.trials.insides import inside_cases, other_case
from keel.trials.search import Ask, search_cases
from keel.trials.trial import Case, Trial, favoured
from server.http.errors import ApiError, ErrorOut, refused
from server.jobs.api.designs import own_design
from server.jobs.models import TankDesign
from server.slosh.laps import log_for
from server.slosh.models import Study
from server.slosh.tasks import enqueue
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["studies"])
MOST_RUNNING = 4
MOST_AGAINST = 8
MOST_EARLIER = 20
TRIAL = TypeAdapter(Trial)


Kind = Literal["insides", "search", "lowest"]
State = Literal["running", "done", "cancelled"]


class Against(Schema):
    """A design of the same workshop to compare with: a revision of it, or the present one."""

    model_config = ConfigDict(extra="forbid")

    design_id: int
    revision: int | None = None


class AgainstOut(Schema):
    """What a design can be compared with."""

    design_id: int
    revision: int
    name: str


class StudyIn(Schema):
    """A design as it is on the screen, and what is to be tried with it."""

    model_config = ConfigDict(extra="forbid")

    design: dict[str, Any]
    kind: Kind
    ask: Ask | None = None
    against: Annotated[list[Against], Field(max_length=MOST_AGAINST)] = []


class StudyRowOut(Schema):
    """One try."""

    number: int
    name: str
    choice: dict[str, float]
    dry_s: float
    spells: int
    start_l: float
    lowest_l: float | None
    brimful_l: float
    empty_kg: float
    weld_m: float
    money: float | None
    hours: float | None
    breaks: list[Words]
    problem: str | None
    changes: bool


class StudyOut(Schema):
    """A study as far as it is. In a list its rows are left out."""

    id: int
    kind: Kind
    state: State
    asked: datetime
    author: str
    total: int
    done: int
    ask: Ask | None
    design: dict[str, Any]
    favoured: int | None
    currency: str
    advice: Words | None
    """Where nothing that was tried runs through: what came nearest, what to vary next."""
    rows: list[StudyRowOut]


class PatchOut(Schema):
    """What makes the design that one."""

    patch: dict[str, Any]


@router.post("designs/{design_id}/studies", response={201: StudyOut, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def ask_for(request: Request, design_id: int, data: StudyIn) -> tuple[int, StudyOut]:
    """Put a study of a design, saved or not, on the queue."""
    tank, design = own_design(request, design_id), design_from(data.design)
    workshop = request.user.workshop
    rules = workshop.document()
    running = Study.objects.filter(tank__job__workshop=workshop, state=Study.State.RUNNING).count()
    if running >= MOST_RUNNING:
        message = f"{running} studies are running already: wait for one, or stop one."
        raise refused("studies", running, f"below {MOST_RUNNING}", message)
    if design.shell is None:
        raise ApiError(422, "no_shell", "There is no shell yet: give the tank its sizes first.")
    if slosh_tank(solids_of(design), design.ports) is None:
        raise ApiError(422, "no_pickup", "There is no pickup in the tank yet: place one at Ports.")
    driven = log_for(workshop, design)
    if not driven.drawn(setup_of(design, rules.rules).draw_l_per_h).any():
        message = "The engine draws nothing: type what it draws, or its power at Brief."
        raise refused("slosh.draw_l_per_h", 0, "above 0 L/h", message)
    if data.kind == "search" and data.ask is None:
        raise refused("ask", None, "what to vary", "Say what may be varied.")
    ask = data.ask if data.kind == "search" else None
    cases = [Case("as drawn", {})] if data.kind == "lowest" else []
    if not cases:
        cases = search_cases(design, ask, rules) if ask else inside_cases(design, rules, driven)
    cases += [_compared(request, tank, design, against) for against in data.against if data.kind == "insides"]
    with transaction.atomic():
        study = Study.objects.create(
            tank=tank,
            author=request.user,
            kind=data.kind,
            design=design.model_dump(mode="json"),
            rules=rules.model_dump(mode="json"),
            ask=ask.model_dump(mode="json") if ask else None,
            cases=[asdict(case) for case in cases],
            currency=rules.prices.currency,
            total=len(cases),
        )
        enqueue(study)
    return 201, _out(study)


@router.get("designs/{design_id}/studies/against", response={200: list[AgainstOut], 404: ErrorOut}, auth=anyone)
def comparable(request: Request, design_id: int) -> list[AgainstOut]:
    """Earlier revisions of a design, newest first, and the other designs of its job."""
    tank = own_design(request, design_id)
    earlier = tank.revisions.values_list("number", flat=True).order_by("-number")[1 : MOST_EARLIER + 1]
    found = [AgainstOut(design_id=tank.pk, revision=number, name=_name(tank, tank, number)) for number in earlier]
    others = [(other, other.current().number) for other in tank.job.designs.exclude(pk=tank.pk)]
    return found + [AgainstOut(design_id=o.pk, revision=n, name=_name(tank, o, n)) for o, n in others]


def _name(tank: TankDesign, other: TankDesign, number: int) -> str:
    return f"revision {number}" if other.pk == tank.pk else f"{other.name}, revision {number}"


def _compared(request: Request, tank: TankDesign, design: Design, against: Against) -> Case:
    other = own_design(request, against.design_id)
    number = against.revision or other.current().number
    revision = get_object_or_404(other.revisions, number=number)
    return other_case(design, _name(tank, other, number), revision.design())


@router.get("designs/{design_id}/studies", response={200: list[StudyOut], 404: ErrorOut}, auth=anyone)
def latest(request: Request, design_id: int) -> list[StudyOut]:
    """The latest study of each kind of a design, without its rows."""
    own = own_design(request, design_id).studies
    found = [own.defer("cases").filter(kind=kind).first() for kind in Study.Kind.values]
    return [_out(study, with_rows=False) for study in found if study is not None]


@router.get("studies/{study_id}", response={200: StudyOut, 404: ErrorOut}, auth=anyone)
def watch(request: Request, study_id: int) -> StudyOut:
    """A study and what is tried so far; with several workers rows may come out of turn."""
    return _out(_own(request, study_id))


@router.post("studies/{study_id}/stop", response={200: StudyOut, 404: ErrorOut}, auth=writer)
def stop(request: Request, study_id: int) -> StudyOut:
    """Stop a study; what is tried already stays."""
    study = _own(request, study_id)
    running = Study.objects.filter(pk=study.pk, state=Study.State.RUNNING)
    running.update(state=Study.State.CANCELLED, finished=timezone.now())
    study.refresh_from_db()
    return _out(study)


@router.get("studies/{study_id}/{number}", response={200: PatchOut, 404: ErrorOut}, auth=anyone)
def patch_of(request: Request, study_id: int, number: int) -> PatchOut:
    """The patch of one try, to be taken."""
    row = get_object_or_404(_own(request, study_id).rows, number=number)
    return PatchOut(patch=row.trial["patch"] or {})


def _own(request: Request, study_id: int) -> Study:
    return get_object_or_404(Study.objects.defer("cases"), pk=study_id, tank__job__workshop=request.user.workshop)


def _out(study: Study, *, with_rows: bool = True) -> StudyOut:
    rows = list(study.rows.all())
    trials = [TRIAL.validate_python(row.trial) for row in rows]
    best = favoured(trials, study.ask["least"] if study.ask else "weld")
    number = next((row.number for row, trial in zip(rows, trials, strict=True) if trial is best), None)
    return StudyOut(
        id=study.pk,
        kind=cast(Kind, study.kind),
        state=cast(State, study.state),
        asked=study.asked,
        author=study.author.name,
        total=study.total,
        done=len(rows),
        ask=study.ask,
        design=study.design,
        favoured=number,
        currency=study.currency,
        advice=advice(Ask.model_validate(study.ask), trials) if study.ask and study.state == Study.State.DONE else None,
        rows=[
            StudyRowOut(number=row.number, changes=bool(trial.patch), **_shown(trial))
            for row, trial in zip(rows, trials, strict=True)
            if with_rows
        ],
    )


def _shown(trial: Trial) -> dict[str, Any]:
    return {name: getattr(trial, name) for name in StudyRowOut.model_fields if name not in ("number", "changes")}
