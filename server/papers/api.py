"""Files to download: flat parts, lists, the design itself, the job sheet."""

from functools import cache, partial

from django.http import HttpResponse
from django.utils import timezone
from django.utils.text import slugify
from ninja import Query, Router, Schema
from pydantic import Field

from keel.analysis.tank import Asked, TankAnalysis
from keel.formats.document import design_json
from keel.solid.faults import GeometryError
from server.floor.build import state_of
from server.floor.leak_tests import curve_of
from server.http.errors import ErrorOut
from server.jobs.api.designs import own_design
from server.jobs.memory import MEMORY
from server.jobs.scans import scans_of
from server.papers.heading import heading_of, unmet
from server.papers.paper import Wanted
from server.papers.registry import paper_named, station_papers
from server.workshop.guard import Request, anyone

router = Router(tags=["papers"], auth=anyone)

TYPES = {
    "dxf": "image/vnd.dxf",
    "svg": "image/svg+xml",
    "csv": "text/csv; charset=utf-8",
    "json": "application/json",
    "pdf": "application/pdf",
    "zip": "application/zip",
}


class Pitch(Schema):
    """Rows of tables."""

    pitch_mm: float | None = Field(default=None, ge=1, le=1000, description="Step from row to row [mm]")


class PaperOut(Schema):
    """A file that can be had: at which station, under which name, what it is called."""

    station: str
    name: str
    title: str


@router.get("designs/{design_id}/papers", response={200: list[PaperOut], 404: ErrorOut})
def papers(request: Request, design_id: int) -> list[PaperOut]:
    """All files of the design's present revision that can be had, by station; none of a tank that can't be made."""
    design = own_design(request, design_id).current().design()
    found = [PaperOut(station="sheet", name="design.json", title="Design, JSON")]
    if design.shell is None:
        return found
    workshop = request.user.workshop
    tank = TankAnalysis(Asked(design, workshop.document(), scans_of(workshop, design)), MEMORY)
    try:
        made = [
            PaperOut(station=one.station, name=paper.name, title=paper.title)
            for one in station_papers()
            for paper in one.of(tank)
        ]
    except GeometryError:
        return found
    return made + found


@router.get("designs/{design_id}/files/{name}", response={200: bytes, 404: ErrorOut, 422: ErrorOut})
def download(request: Request, design_id: int, name: str, query: Query[Pitch]) -> HttpResponse:
    """A file of the design's present revision.

    `design.json`, `cut-list.csv`, `strapping.csv` and `dip-stick.pdf` (both at a pitch), `job-sheet.pdf`,
    `bend-sheet.pdf`, `traveller.pdf`, `sent-out.pdf`, `leak-test.pdf`, `question-<id>.pdf`,
    `parts.zip` (every part's DXF), for each flat part `<part>.dxf` and `<part>.svg`; `ports.csv`, for each port
    with a seat `port-<id>.dxf` and `port-<id>.pdf`; `gauge.csv` and `gauge-face.pdf`.
    """
    kept = own_design(request, design_id)
    current = kept.current()
    design, rules = current.design(), request.user.workshop.document()
    state = cache(lambda: state_of(kept, timezone.now()))
    passed = unmet(state()) if name.endswith(".pdf") and kept.job.log.exists() else ()
    heading = heading_of(request.user, kept, current, passed)
    title = f"{kept.job.number} {kept.name}"
    if name == "design.json":  # to be had even when no tank can be made of it
        content = design_json(design)
    else:
        tank = TankAnalysis(Asked(design, rules, scans_of(request.user.workshop, design)), MEMORY)
        curves = partial(curve_of, kept)
        bench = request.build_absolute_uri(f"/floor/{kept.job.number}?design={kept.pk}")
        content = paper_named(tank, name).write(Wanted(title, heading, tank, query.pitch_mm, state, bench, curves))
    file_name = f"{slugify(title)}-r{current.number}-{name}"
    return HttpResponse(
        content,
        content_type=TYPES[name.rpartition(".")[2]],
        headers={"Content-Disposition": f'attachment; filename="{file_name}"'},
    )
