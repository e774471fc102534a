"""Files to download: flat parts, lists, the design itself, the job sheet."""

from dataclasses import dataclass

import numpy as np
from django.http import HttpResponse
from django.utils.text import slugify
from ninja import Query, Router, Schema
from pydantic import Field

from keel.analysis.tank import Asked, TankAnalysis
from keel.formats.cutlist import cut_list_csv, strapping_csv
from keel.formats.document import design_json
from keel.formats.dxf import part_dxf
from keel.formats.ports import breakpoints_csv, flange_dxf, schedule_csv
from keel.formats.svg import part_svg
from keel.solid.polyhedron import Waterline
from keel.studies.drawing.geometry import GEOMETRY, PORT_PLACES
from keel.studies.gauge.gauge import GAUGE_TRUTH
from keel.studies.liquid.strapping import StrappingRow, strapping_table
from keel.studies.ports.reach import REACHES
from keel.studies.sheet.unfold import SHEET
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
    tank: TankAnalysis
    pitch_mm: float | None


@router.get("designs/{design_id}/files/{name}", response={200: bytes, 404: ErrorOut, 422: ErrorOut})
def take_away(request: Request, design_id: int, name: str, query: Query[Pitch]) -> HttpResponse:
    """A file of the design's present revision.

    `design.json`, `cut-list.csv`, `strapping.csv` and `dip-stick.pdf` (both at a pitch), `job-sheet.pdf`,
    for each flat part `<part>.dxf` and `<part>.svg`; `ports.csv`, for each port with a seat
    `port-<id>.dxf` and `port-<id>.pdf`; `gauge.csv` and `gauge-face.pdf`.
    """
    kept = own_design(request, design_id)
    current = kept.current()
    design, rules = current.design(), request.user.workshop.document()
    heading = heading_of(request.user, kept, current)
    title = f"{kept.job.number} {kept.name}"
    if name == "design.json":  # to be had even when no tank can be made of it
        content = design_json(design)
    else:
        tank = TankAnalysis(Asked(design, rules, scans_of(request.user.workshop, design)))
        content = _content(Wanted(title, heading, tank, query.pitch_mm), name)
    file_name = f"{slugify(title)}-r{current.number}-{name}"
    return HttpResponse(
        content,
        content_type=TYPES[name.rpartition(".")[2]],
        headers={"Content-Disposition": f'attachment; filename="{file_name}"'},
    )


def _content(wanted: Wanted, name: str) -> bytes:
    if wanted.tank.design.shell is None:
        raise ApiError(422, "no_shell", "There is no shell yet: give the tank its sizes first.")
    if name.startswith(("port", "gauge")):
        return _port_or_gauge(wanted, name)
    if name in ("strapping.csv", "dip-stick.pdf"):
        tables = _tables(wanted)
        return strapping_csv(tables) if name == "strapping.csv" else dip_stick_pdf(wanted.heading, tables)
    made, metal = wanted.tank[SHEET], wanted.tank.shell.metal
    if made.impossible:
        raise ApiError(422, "no_parts", made.impossible.plain())
    if name == "cut-list.csv":
        return cut_list_csv(made, metal=metal)
    if name == "job-sheet.pdf":
        return job_sheet_pdf(wanted.heading, wanted.tank)
    stem, _, kind = name.rpartition(".")
    part = next((part for part in made.parts if part.name == stem), None)
    write = {"dxf": part_dxf, "svg": part_svg}.get(kind)
    if part is None or write is None:
        raise not_yours()
    return write(part, title=wanted.title, thickness_mm=part.thickness_mm, metal=metal)


def _port_or_gauge(wanted: Wanted, name: str) -> bytes:
    """Papers of the ports and the gauge: to be had even when the flat parts can't be made."""
    tank, ports = wanted.tank, wanted.tank.design.ports
    if name == "ports.csv":
        return schedule_csv(ports, tank[PORT_PLACES], tank[GEOMETRY].body.low.z)
    if name.startswith("gauge"):
        truth = tank[GAUGE_TRUTH]
        if not truth.readings:
            raise ApiError(422, "no_sender", "There is no sender in the tank yet: place one at Gauge.")
        write = {
            "gauge.csv": lambda: breakpoints_csv(truth),
            "gauge-face.pdf": lambda: gauge_pdf(wanted.heading, truth),
        }
        if name in write:
            return write[name]()
    stem, _, kind = name.removeprefix("port-").rpartition(".")
    port = next((port for port in ports if port.id == stem), None)
    if port is None or kind not in ("dxf", "pdf"):
        raise not_yours()
    if port.seat is None:
        raise ApiError(422, "no_seat", f"{port.name} has no boss or flange yet: give it one at Ports.")
    if kind == "dxf":
        return flange_dxf(port)
    reach = next((reach for reach in tank[REACHES] if reach.id == port.id), None)
    return port_pdf(wanted.heading, port, reach)


def _tables(wanted: Wanted) -> dict[str, list[StrappingRow]]:
    """The level strapping table of every cell at the wanted pitch."""
    solids = wanted.tank.solids
    up = np.array([0.0, 0.0, 1.0])
    return {cell.name: strapping_table(Waterline(cell.mesh, up), wanted.pitch_mm) for cell in solids.cells}
