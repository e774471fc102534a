"""Files to take away: flat parts, lists, the design itself, the job sheet."""

from dataclasses import dataclass

from django.http import HttpResponse
from django.utils.text import slugify
from ninja import Router

from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluate import Evaluation, evaluate
from keel.formats.cutlist import cut_list_csv, strapping_csv
from keel.formats.document import design_json
from keel.formats.dxf import part_dxf
from keel.formats.svg import part_svg
from server.http.errors import ApiError, ErrorOut, not_yours
from server.jobs.api.designs import own_design
from server.papers.job_sheet import Heading, job_sheet_pdf
from server.workshop.guard import Request, anyone

router = Router(tags=["papers"], auth=anyone)

TYPES = {
    "dxf": "image/vnd.dxf",
    "svg": "image/svg+xml",
    "csv": "text/csv; charset=utf-8",
    "json": "application/json",
    "pdf": "application/pdf",
}


@dataclass(frozen=True)
class Wanted:
    """What a file is made from."""

    title: str
    heading: Heading
    design: Design
    workshop: Workshop
    answer: Evaluation


@router.get("designs/{design_id}/files/{name}", response={200: bytes, 404: ErrorOut, 422: ErrorOut})
def take_away(request: Request, design_id: int, name: str) -> HttpResponse:
    """A file of the design's present revision.

    `design.json`, `cut-list.csv`, `strapping.csv`, `job-sheet.pdf`, and for each flat part
    `<part>.dxf` and `<part>.svg`.
    """
    tank = own_design(request, design_id)
    current = tank.current()
    design, rules = current.design(), request.user.workshop.document()
    heading = Heading(
        workshop=request.user.workshop.name,
        job=f"{tank.job.number} {tank.job.title}",
        customer=tank.job.customer.name if tank.job.customer else "",
        design=tank.name,
        revision=current.number,
        saved=current.saved,
        author=current.author.name if current.author else "",
        units=request.user.units,
    )
    wanted = Wanted(f"{tank.job.number} {tank.name}", heading, design, rules, evaluate(design, rules))
    content = _content(wanted, name)
    file_name = f"{slugify(wanted.title)}-r{current.number}-{name}"
    return HttpResponse(
        content,
        content_type=TYPES[name.rpartition(".")[2]],
        headers={"Content-Disposition": f'attachment; filename="{file_name}"'},
    )


def _content(wanted: Wanted, name: str) -> bytes:
    if name == "design.json":
        return design_json(wanted.design)
    made, shell = wanted.answer.sheet, wanted.design.shell
    if made is None or shell is None:
        raise ApiError(422, "no_shell", "There is no shell yet: give the tank its sizes first.")
    if name == "strapping.csv":
        return strapping_csv(wanted.answer.strapping)
    if made.impossible:
        raise ApiError(422, "no_parts", made.impossible.plain())
    if name == "cut-list.csv":
        return cut_list_csv(made, metal=shell.metal, thickness_mm=shell.thickness_mm)
    if name == "job-sheet.pdf":
        return job_sheet_pdf(wanted.heading, wanted.design, wanted.answer)
    stem, _, kind = name.rpartition(".")
    part = next((part for part in made.parts if part.name == stem), None)
    write = {"dxf": part_dxf, "svg": part_svg}.get(kind)
    if part is None or write is None:
        raise not_yours()
    return write(part, title=wanted.title, thickness_mm=shell.thickness_mm, metal=shell.metal)
