"""Files to download: flat parts, lists, the design itself, the job sheet."""

from dataclasses import dataclass

import numpy as np
from django.http import HttpResponse
from django.utils.text import slugify
from ninja import Query, Router, Schema
from pydantic import Field

from keel.design.document import Design
from keel.evaluation import Evaluation, Showing, evaluate
from keel.formats.cutlist import cut_list_csv, strapping_csv
from keel.formats.document import design_json
from keel.formats.dxf import part_dxf
from keel.formats.ports import breakpoints_csv, flange_dxf, schedule_csv
from keel.formats.svg import part_svg
from keel.solid.interior import solids_of
from keel.solid.polyhedron import Waterline
from keel.studies.liquid.strapping import StrappingRow, strapping_table
from server.http.errors import ApiError, ErrorOut, not_yours
from server.jobs.api.designs import own_design
from server.jobs.scans import scans_of
from server.papers.dip_stick import dip_stick_pdf
from server.papers.gauge_face import gauge_pdf
from server.papers.heading import Heading, heading_of
from server.papers.job_sheet import job_sheet_pdf
from server.papers.port_sheet import port_pdf
from server.workshop.guard import Request, anyone

router = Router(tags=["papers"], auth=anyone)

TYPES = {
    "dxf": "image/vnd.dxf",
    "svg": "image/svg+xml",
    "csv": "text/csv; charset=utf-8",
    "json": "application/json",
    "pdf": "application/pdf",
}


class Pitch(Schema):
    """Rows of tables."""

    pitch_mm: float | None = Field(default=None, ge=1, le=1000, description="Step from row to row [mm]")


@dataclass(frozen=True)
class Wanted:
    """What a file is made from."""

    title: str
    heading: Heading
    design: Design
    answer: Evaluation
    pitch_mm: float | None


@router.get("designs/{design_id}/files/{name}", response={200: bytes, 404: ErrorOut, 422: ErrorOut})
def take_away(request: Request, design_id: int, name: str, query: Query[Pitch]) -> HttpResponse:
    """A file of the design's present revision.

    `design.json`, `cut-list.csv`, `strapping.csv` and `dip-stick.pdf` (both at a pitch), `job-sheet.pdf`,
    for each flat part `<part>.dxf` and `<part>.svg`; `ports.csv`, for each port with a seat
    `port-<id>.dxf` and `port-<id>.pdf`; `gauge.csv` and `gauge-face.pdf`.
    """
    tank = own_design(request, design_id)
    current = tank.current()
    design, rules = current.design(), request.user.workshop.document()
    heading = heading_of(request.user, tank, current)
    title = f"{tank.job.number} {tank.name}"
    if name == "design.json":  # to be had even when no tank can be made of it
        content = design_json(design)
    else:
        answer = evaluate(design, rules, Showing(remedies=False), scans_of(request.user.workshop, design))
        content = _content(Wanted(title, heading, design, answer, query.pitch_mm), name)
    file_name = f"{slugify(title)}-r{current.number}-{name}"
    return HttpResponse(
        content,
        content_type=TYPES[name.rpartition(".")[2]],
        headers={"Content-Disposition": f'attachment; filename="{file_name}"'},
    )


def _content(wanted: Wanted, name: str) -> bytes:
    made, shell = wanted.answer.sheet, wanted.design.shell
    if made is None or shell is None:
        raise ApiError(422, "no_shell", "There is no shell yet: give the tank its sizes first.")
    if name.startswith(("port", "gauge")):
        return _port_or_gauge(wanted, name)
    if name in ("strapping.csv", "dip-stick.pdf"):
        tables = _tables(wanted)
        return strapping_csv(tables) if name == "strapping.csv" else dip_stick_pdf(wanted.heading, tables)
    if made.impossible:
        raise ApiError(422, "no_parts", made.impossible.plain())
    if name == "cut-list.csv":
        return cut_list_csv(made, metal=shell.metal)
    if name == "job-sheet.pdf":
        return job_sheet_pdf(wanted.heading, wanted.design, wanted.answer)
    stem, _, kind = name.rpartition(".")
    part = next((part for part in made.parts if part.name == stem), None)
    write = {"dxf": part_dxf, "svg": part_svg}.get(kind)
    if part is None or write is None:
        raise not_yours()
    return write(part, title=wanted.title, thickness_mm=part.thickness_mm, metal=shell.metal)


def _port_or_gauge(wanted: Wanted, name: str) -> bytes:
    """Papers of the ports and the gauge: to be had even when the flat parts can't be made."""
    shape, truth = wanted.answer.geometry, wanted.answer.gauge
    assert shape is not None
    if name == "ports.csv":
        return schedule_csv(wanted.design.ports, shape.ports, shape.body.low.z)
    if name.startswith("gauge"):
        if truth is None or not truth.readings:
            raise ApiError(422, "no_sender", "There is no sender in the tank yet: place one at Gauge.")
        write = {
            "gauge.csv": lambda: breakpoints_csv(truth),
            "gauge-face.pdf": lambda: gauge_pdf(wanted.heading, truth),
        }
        if name in write:
            return write[name]()
    stem, _, kind = name.removeprefix("port-").rpartition(".")
    port = next((port for port in wanted.design.ports if port.id == stem), None)
    if port is None or kind not in ("dxf", "pdf"):
        raise not_yours()
    if port.seat is None:
        raise ApiError(422, "no_seat", f"{port.name} has no boss or flange yet: give it one at Ports.")
    if kind == "dxf":
        return flange_dxf(port)
    reach = next((reach for reach in wanted.answer.reaches if reach.id == port.id), None)
    return port_pdf(wanted.heading, port, reach)


def _tables(wanted: Wanted) -> dict[str, list[StrappingRow]]:
    """The level strapping table of every cell at the wanted pitch."""
    solids = solids_of(wanted.design)
    up = np.array([0.0, 0.0, 1.0])
    return {cell.name: strapping_table(Waterline(cell.mesh, up), wanted.pitch_mm) for cell in solids.cells}
