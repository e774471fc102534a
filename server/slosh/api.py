"""Slosh runs of a design that need not be saved yet, and laps from a logger."""

import json
from datetime import datetime
from typing import Annotated, Any, Literal

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Query, Router, Schema
from pydantic import ConfigDict, Field, TypeAdapter, ValidationError

from keel.design.base import PLAIN
from keel.design.document import Design
from keel.formats.document import design_from
from keel.formats.lap import LapColumns, LapLook, look_at_lap, read_lap
from keel.formats.lap_out import run_csv, spells_csv
from keel.solid.interior import solids_of
from keel.studies.demand.demand import demands
from keel.studies.slosh.log import Log
from keel.studies.slosh.model import Setup, SloshTank, setup_of, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.run_view import RunShown, shown
from keel.studies.slosh.starvation import StarvationMap, TimeToDry, starvation_map, time_to_dry
from server.http.errors import ApiError, ErrorOut, refused
from server.jobs.api.designs import own_design
from server.jobs.models import TankDesign
from server.papers.heading import heading_of
from server.papers.slosh_sheet import Lowest, slosh_pdf
from server.slosh.laps import log_for
from server.slosh.models import Lap, Study, packed
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["slosh"])
MOST_LAPS = 200
PREVIEW = 600


class SloshIn(Schema):
    """A design to run, with its own setting."""

    model_config = ConfigDict(extra="forbid")

    design: dict[str, Any]


class LapTrace(Schema):
    """A lap thinned for a plot, and what was odd about its file."""

    seconds: float
    notes: list[str]
    dt_s: float
    forward_g: list[float]
    left_g: list[float]
    up_g: list[float]


class LapOut(LapTrace):
    """A kept lap."""

    id: int
    name: str
    kept: datetime
    author: str


class ColumnsQuery(Schema):
    """Which column of a file is what: `LapColumns` as JSON, beside its bytes."""

    columns: Annotated[str, Field(max_length=4000)]


class LapQuery(ColumnsQuery):
    """What a file is to be called, too."""

    name: Annotated[str, Field(min_length=1, max_length=80, pattern=PLAIN)]


@router.post("slosh/run", response={200: RunShown, 404: ErrorOut, 422: ErrorOut}, auth=anyone)
def run(request: Request, data: SloshIn) -> HttpResponse:
    """Run the design over its manoeuvre or lap. Nothing is stored."""
    tank, log, setup = _ready(request, data)
    ran = slosh_run(tank, log, setup)
    answer = shown(tank, log, ran, setup, _pumps(request, design_from(data.design)))
    return HttpResponse(TypeAdapter(RunShown).dump_json(answer), content_type="application/json")


@router.post("slosh/map", response={200: StarvationMap, 404: ErrorOut, 422: ErrorOut}, auth=anyone)
def steady_map(request: Request, data: SloshIn) -> StarvationMap:
    """The g that uncovers the pickups, for every direction and fill."""
    return starvation_map(_tank(design_from(data.design)), request.user.workshop.document().rules.starvation_most_g)


@router.post("slosh/time-to-dry", response={200: TimeToDry, 404: ErrorOut, 422: ErrorOut}, auth=anyone)
def until_dry(request: Request, data: SloshIn) -> TimeToDry:
    """How long the design's manoeuvre, held, takes to run the pickup dry, over strengths and fills."""
    design = design_from(data.design)
    tank, _, setup = _ready(request, data)
    if setup.draw_l_per_h == 0:
        raise _no_draw()
    return time_to_dry(tank, setup, design.slosh.manoeuvre.kind)


def _no_draw() -> ApiError:
    message = "The engine draws nothing: type what it draws, or its power at Brief."
    return refused("slosh.draw_l_per_h", 0, "above 0 L/h", message)


@router.get("designs/{design_id}/slosh/{name}", response={200: bytes, 404: ErrorOut, 422: ErrorOut}, auth=anyone)
def download(request: Request, design_id: int, name: Literal["run.csv", "dry-spells.csv", "run.pdf"]) -> HttpResponse:
    """The run of a design's present revision sample by sample, its dry spells, or all of it on a page."""
    own = own_design(request, design_id)
    current = own.current()
    tank, log, setup = _made_ready(request, current.design())
    ran = slosh_run(tank, log, setup)
    if name == "run.pdf":
        answer = shown(tank, log, ran, setup, _pumps(request, current.design()))
        heading = heading_of(request.user, own, current)
        steady = starvation_map(tank, request.user.workshop.document().rules.starvation_most_g)
        content, kind = slosh_pdf(heading, log, ran, answer, steady, _lowest(own, current.design())), "application/pdf"
    else:
        kind = "text/csv; charset=utf-8"
        names = [room.name for room in tank.rooms]
        content = run_csv(log, ran, names, request.user.reads) if name == "run.csv" else spells_csv(ran)
    disposition = f'attachment; filename="slosh-{name}"'
    return HttpResponse(content, content_type=kind, headers={"Content-Disposition": disposition})


def _lowest(own: TankDesign, design: Design) -> Lowest | None:
    """The lowest start that a study of this very design found; None while none was asked for."""
    study = own.studies.filter(kind=Study.Kind.LOWEST, state=Study.State.DONE).first()
    row = study.rows.first() if study and study.design == design.model_dump(mode="json") else None
    return None if row is None or row.trial["problem"] else Lowest(row.trial["lowest_l"])


def _pumps(request: Request, design: Design) -> float | None:
    """What the running pumps give at rail pressure; None without any [L/h]."""
    cases = demands(design.brief, request.user.workshop.document().rules)
    return max((case.running_l_per_h for case in cases if case.running_l_per_h is not None), default=None)


def _ready(request: Request, data: SloshIn) -> tuple[SloshTank, Log, Setup]:
    return _made_ready(request, design_from(data.design))


def _made_ready(request: Request, design: Design) -> tuple[SloshTank, Log, Setup]:
    tank = _tank(design)
    setup = setup_of(design, request.user.workshop.document().rules)
    return tank, log_for(request.user.workshop, design), setup


def _tank(design: Design) -> SloshTank:
    if design.shell is None:
        raise ApiError(422, "no_shell", "There is no shell yet: give the tank its sizes first.")
    tank = slosh_tank(solids_of(design), design.ports)
    if tank is None:
        raise ApiError(422, "no_pickup", "There is no pickup in the tank yet: place one at Ports.")
    return tank


@router.get("laps", response={200: list[LapOut]}, auth=anyone)
def list_laps(request: Request) -> list[LapOut]:
    """The workshop's laps, newest first."""
    return [_out(lap) for lap in request.user.workshop.laps.select_related("author")]


@router.post("laps/look", response={200: LapLook, 422: ErrorOut}, auth=writer)
def look(request: Request) -> LapLook:
    """Headings, first rows and a guess at which column is what. Nothing is stored."""
    return look_at_lap(request.read())


@router.post("laps/trace", response={200: LapTrace, 422: ErrorOut}, auth=writer)
def trace(request: Request, query: Query[ColumnsQuery]) -> dict[str, Any]:
    """A file read by the columns chosen, to check its senses by. Nothing is stored."""
    log, notes = _read(request, query, "lap")
    return _traced(log, notes)


@router.post("laps", response={201: LapOut, 422: ErrorOut}, auth=writer)
def keep(request: Request, query: Query[LapQuery]) -> tuple[int, LapOut]:
    """Read a lap, the body as it is, by the columns chosen, and keep it."""
    workshop = request.user.workshop
    if workshop.laps.count() >= MOST_LAPS:
        message = f"A workshop keeps {MOST_LAPS} laps; take one out first."
        raise refused("laps", MOST_LAPS, f"at most {MOST_LAPS}", message)
    log, notes = _read(request, query, query.name)
    made = Lap.objects.create(
        workshop=workshop,
        name=query.name,
        author=request.user,
        seconds=float(log.times_s[-1]),
        notes=notes,
        samples=packed(log),
    )
    return 201, _out(made)


@router.delete("laps/{lap_id}", response={204: None, 404: ErrorOut}, auth=writer)
def drop(request: Request, lap_id: int) -> tuple[int, None]:
    """Take a lap out."""
    get_object_or_404(Lap, pk=lap_id, workshop=request.user.workshop).delete()
    return 204, None


def _read(request: Request, query: ColumnsQuery, name: str) -> tuple[Log, list[str]]:
    try:
        chosen = LapColumns.model_validate(json.loads(query.columns))
    except (ValueError, ValidationError) as error:
        message = f"The columns can't be read: {error}"[:300]
        raise refused("columns", query.columns[:80], "columns of the file", message) from error
    return read_lap(request.read(), chosen, name)


def _out(lap: Lap) -> LapOut:
    traced = _traced(lap.log(), lap.notes)
    return LapOut(id=lap.pk, name=lap.name, kept=lap.kept, author=lap.author.name, **traced)


def _traced(log: Log, notes: list[str]) -> dict[str, Any]:
    every = max(1, len(log.throttle_fraction) // PREVIEW)
    return {
        "seconds": float(log.times_s[-1]),
        "notes": notes,
        "dt_s": log.dt_s * every,
        "forward_g": log.forward_g[::every].round(3).tolist(),
        "left_g": log.left_g[::every].round(3).tolist(),
        "up_g": log.up_g[::every].round(3).tolist(),
    }
