"""The job sheet: the tank, its figures and its flat parts on a page; parts that stand inside on pages after it."""

from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm

from keel.analysis.tank import TankAnalysis
from keel.design.shell import CylinderShell
from keel.findings.finding import Finding
from keel.formats.quantities import fine_text, quantity_text, sentence_text, sheet_text, volume_text
from keel.reference.quantities import shown_text
from keel.solid.solids import AnyShell
from keel.stations.judge import findings_on
from keel.studies.cost.figures import FIGURES
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart
from server.papers.drawing import GAP, Frame, draw_part, draw_views
from server.papers.heading import Heading
from server.papers.page import INK, MARGIN, Page

SIZE = landscape(A4)
SIDE = 92 * mm
"""Width of the figures beside the views."""
LABELS = 36 * mm
FLATS_TOP = 90 * mm
FOOT = 19 * mm
FINDING = 7.6 * mm
"""Two lines of one."""
ROWS, COLUMNS = 2, 3
"""How parts that stand inside lie on a page."""
CAUTIONS = (
    "Leak-test before any paint, lining or fuel. No flame, cutting or grinding on a tank that has held fuel without a "
    "gas reading. Prove a bend on a test strip of the same sheet before cutting. The figures advise. Local code, the "
    "rulebook and licensed trades decide; an inspector or engineer signs."
)


def job_sheet_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """The job sheet of a design that has a shell, as PDF: an A4 page, and more for the plates that stand inside."""
    page = Page(heading, "job sheet", SIZE)
    top = _start(page)
    draw_views(page.canvas, Frame(MARGIN, FLATS_TOP + 4 * mm, 178 * mm, top - FLATS_TOP - 4 * mm), tank, heading.reader)
    _figures(page, tank, top)
    _flats(page, tank)
    page.next()
    inside = [part for part in tank[FLATS].parts if part.feature]
    for first in range(0, len(inside), ROWS * COLUMNS):
        _inside(page, inside[first : first + ROWS * COLUMNS])
        page.next()
    return page.pdf()


def _start(page: Page) -> float:
    unit = "mm and litres" if page.heading.reader == "mm_l" else "inches to 1/16, flats to 1/1000; gallons"
    page.canvas.setStrokeColor(INK)
    page.canvas.line(MARGIN, FOOT, page.width - MARGIN, FOOT)
    page.words(CAUTIONS, MARGIN, FOOT - 1 * mm, page.width - 2 * MARGIN, 7.5)
    return page.start(f"Job sheet, sizes in {unit}; drawings not to scale")


def _figures(page: Page, tank: TankAnalysis, y: float) -> None:
    design, shell, figures, made, held = tank.design, tank.shell, tank[FIGURES], tank[FLATS], tank[CAPACITY]
    units, x = page.heading.reader, page.width - MARGIN - SIDE
    at_floor = shown_text("m", made.weld_at_floor_mm / 1000, units)
    rows = [
        ("Fuel", design.brief.fuel),
        ("Brimful capacity", volume_text(figures.brimful_l, units)),
        ("Rated capacity", volume_text(figures.rated_l, units)),
        ("Ullage", quantity_text("ullage_pct", held.ullage_fraction, units)),
        ("Empty mass", shown_text("kg", figures.empty_kg, units, 1) if figures.empty_kg is not None else "–"),
        ("Full mass", shown_text("kg", figures.full_kg, units, 1) if figures.full_kg is not None else "–"),
        ("Metal", f"{shell.metal}, {sheet_text(shell.metal, shell.thickness_mm, units)}"),
        ("Made as", made.scheme),
        ("Weld", f"{shown_text('m', figures.weld_m, units)}, {at_floor} of it at the floor"),
        *_bend_rows(shell, made, page),
    ]
    below = page.table(rows, x, y, (LABELS, SIDE - LABELS), 8, head=False, strong=(1,))
    _findings(page, findings_on(tank), x, below - 2 * mm)


def _bend_rows(shell: AnyShell, made: Sheet, page: Page) -> list[tuple[str, str]]:
    """What the bender has to know, by what kind of shell it is."""
    units = page.heading.reader
    unit = " mm" if units == "mm_l" else ""

    def said(*lengths: float) -> str:
        return " / ".join(fine_text(length, units) for length in lengths) + unit

    rows = []
    if made.bends and not isinstance(shell, CylinderShell):
        rows.append(("Bend radius, inside", said(shell.bend_radius_mm)))
        rows.append(("K factor; deduction at 90°", f"{made.k:.3f}; {said(made.bend_deduction_mm)}"))
    if made.flange_mm is not None and made.notch is not None:
        rows.append(("Pan flange / gap / notch", said(made.flange_mm, made.pan_gap_mm, made.notch.side_mm)))
    if made.roll_radius_mm is not None:
        rows.append(("Roll radius, outside", said(made.roll_radius_mm)))
    return rows


def _findings(page: Page, findings: list[Finding], x: float, y: float) -> None:
    """As many as there is room for above the flat parts, two lines each: the same ones in every set of units."""
    title = f"{len(findings)} findings open" if findings else "No findings open"
    y = page.words(title, x, y, SIDE, 9, bold=True) - 1 * mm
    room = max(1, int((y - FLATS_TOP - 6 * mm) / FINDING))
    for finding in findings[:room]:
        said = sentence_text(finding.title, page.heading.reader)
        y = page.words(f"{finding.severity.upper()}: {said}", x, y, SIDE, 7.5) - 0.7 * mm
    if len(findings) > room:
        page.words(f"and {len(findings) - room} more", x, y, SIDE, 7.5)


def _flats(page: Page, tank: TankAnalysis) -> None:
    parts = [part for part in tank[FLATS].parts if not part.feature]
    title = "Flat parts, inside face up; sizes from the lower left datum corner"
    page.label(title, MARGIN, FLATS_TOP - 2 * mm, 9, bold=True)
    width = (page.width - 2 * MARGIN) / max(1, len(parts))
    for place, part in enumerate(parts):
        frame = Frame(MARGIN + place * width, FOOT + 9 * mm, width - 6 * mm, 56 * mm)
        draw_part(page.canvas, frame, part, page.heading.reader)


def _inside(page: Page, parts: list[FlatPart]) -> None:
    """A page of what stands inside."""
    top = _start(page)
    page.label("Parts that stand inside; sizes from the lower left datum corner", MARGIN, top - 2 * mm, 9, bold=True)
    width, height = (page.width - 2 * MARGIN) / COLUMNS, (top - FOOT - 10 * mm) / ROWS
    for place, part in enumerate(parts):
        row, column = divmod(place, COLUMNS)
        x, y = MARGIN + column * width, top - 4 * mm - (row + 1) * height
        draw_part(page.canvas, Frame(x, y, width - 6 * mm, height - 8 * mm), part, page.heading.reader)
        page.words(sentence_text(part.note, page.heading.reader), x + GAP, y + 3 * mm, width - GAP, 7)
