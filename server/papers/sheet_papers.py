"""Papers of the sheet: job sheet, cut list, every flat part."""

from collections.abc import Iterator
from functools import partial

from keel.analysis.tank import TankAnalysis
from keel.formats.cutlist import cut_list_csv
from keel.formats.dxf import part_dxf
from keel.formats.svg import part_svg
from keel.reference.metals import MetalName
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart
from server.http.errors import ApiError
from server.papers.job_sheet import job_sheet_pdf
from server.papers.paper import Paper, StationPapers, Wanted


def _dxf(part: FlatPart, wanted: Wanted) -> bytes:
    return part_dxf(part, title=wanted.title, thickness_mm=part.thickness_mm, metal=wanted.tank.shell.metal)


def _svg(part: FlatPart, wanted: Wanted) -> bytes:
    return part_svg(part, title=wanted.title, thickness_mm=part.thickness_mm, metal=wanted.tank.shell.metal)


def _cut_list(made: Sheet, metal: MetalName, wanted: Wanted) -> bytes:
    return cut_list_csv(made, metal=metal, units=wanted.heading.reader)


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    made, metal = tank[FLATS], tank.shell.metal
    if made.impossible is not None:
        return
    yield Paper("job-sheet.pdf", "Job sheet, PDF", lambda wanted: job_sheet_pdf(wanted.heading, wanted.tank))
    yield Paper("cut-list.csv", "Cut list, CSV", partial(_cut_list, made, metal))
    for part in made.parts:
        yield Paper(f"{part.name}.dxf", f"{part.title}, DXF", partial(_dxf, part))
        yield Paper(f"{part.name}.svg", f"{part.title}, SVG", partial(_svg, part))


def _missing(tank: TankAnalysis, _name: str) -> ApiError | None:
    impossible = tank[FLATS].impossible
    return None if impossible is None else ApiError(422, "no_parts", impossible.plain())


SHEET_PAPERS = StationPapers("sheet", _papers, _missing)
