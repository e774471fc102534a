"""Papers of the sheet: job sheet, cut list, every flat part."""

import io
import zipfile
from collections.abc import Iterator
from functools import partial

from keel.analysis.tank import TankAnalysis
from keel.design.sheet import PartQuestion
from keel.formats.cutlist import cut_list_csv
from keel.formats.dxf import part_dxf
from keel.formats.svg import part_svg
from keel.reference.metals import MetalName
from keel.studies.sheet.bending import BENDINGS
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.machines import is_sent
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart
from server.http.errors import ApiError
from server.papers.bend_sheet import bend_sheet_pdf, question_pdf, send_out_pdf
from server.papers.job_sheet import job_sheet_pdf
from server.papers.paper import Paper, StationPapers, Wanted


def _dxf(part: FlatPart, wanted: Wanted) -> bytes:
    return part_dxf(part, title=wanted.title, thickness_mm=part.thickness_mm, metal=wanted.tank.shell.metal)


def _all_dxf(made: Sheet, wanted: Wanted) -> bytes:
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as file:
        for part in made.parts:
            file.writestr(f"{part.name}.dxf", _dxf(part, wanted))
    return packed.getvalue()


def _svg(part: FlatPart, wanted: Wanted) -> bytes:
    return part_svg(part, title=wanted.title, thickness_mm=part.thickness_mm, metal=wanted.tank.shell.metal)


def _cut_list(made: Sheet, metal: MetalName, wanted: Wanted) -> bytes:
    return cut_list_csv(made, metal=metal, units=wanted.heading.reader)


def _question(part: FlatPart, question: PartQuestion, wanted: Wanted) -> bytes:
    return question_pdf(wanted.heading, wanted.tank, part, question)


def _send_out(part: FlatPart, wanted: Wanted) -> bytes:
    return send_out_pdf(wanted.heading, wanted.tank, part)


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    made, metal = tank[FLATS], tank.shell.metal
    if made.impossible is not None:
        return
    yield Paper("job-sheet.pdf", "Job sheet, PDF", lambda wanted: job_sheet_pdf(wanted.heading, wanted.tank))
    if tank[BENDINGS].parts:
        yield Paper("bend-sheet.pdf", "Bend sheet, PDF", lambda wanted: bend_sheet_pdf(wanted.heading, wanted.tank))
    parts = {part.name: part for part in made.parts}
    for question in tank.design.sheet.questions:
        if question.part in parts:
            title = f"Question: {parts[question.part].title.lower()}, PDF"
            yield Paper(f"question-{question.id}.pdf", title, partial(_question, parts[question.part], question))
    for part in made.parts:
        if is_sent(part.name, tank.design.sheet.sent_out):
            title = f"To send out: {part.title.lower()}, PDF"
            yield Paper(f"send-out-{part.name}.pdf", title, partial(_send_out, part))
    yield Paper("cut-list.csv", "Cut list, CSV", partial(_cut_list, made, metal))
    yield Paper("parts.zip", "All parts, DXF in one file", partial(_all_dxf, made))
    for part in made.parts:
        yield Paper(f"{part.name}.dxf", f"{part.title}, DXF", partial(_dxf, part))
        yield Paper(f"{part.name}.svg", f"{part.title}, SVG", partial(_svg, part))


def _missing(tank: TankAnalysis, _name: str) -> ApiError | None:
    impossible = tank[FLATS].impossible
    return None if impossible is None else ApiError(422, "no_parts", impossible.plain())


SHEET_PAPERS = StationPapers("sheet", _papers, _missing)
