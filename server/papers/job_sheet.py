"""The job sheet: the tank, its figures and its flat parts on a page; parts that stand inside on pages after it."""

import io

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from keel.analysis.tank import TankAnalysis
from keel.design.shell import CylinderShell
from keel.findings.finding import Finding
from keel.formats.quantities import quantity_text, sheet_text, volume_text
from keel.reference.quantities import shown_text
from keel.solid.solids import AnyShell
from keel.stations.judge import findings_on
from keel.studies.cost.figures import FIGURES
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.unfold import SHEET
from server.papers.drawing import GAP, Frame, draw_part, draw_views
from server.papers.heading import Heading

INK, QUIET, FUEL, ACCENT = HexColor("#1d262b"), HexColor("#66757c"), HexColor("#c96f12"), HexColor("#4b3fa0")
WIDTH, HEIGHT = landscape(A4)
MARGIN = 10 * mm
MOST_FINDINGS = 7
ROWS, COLUMNS = 2, 3
"""How parts that stand inside lie on a page."""


def job_sheet_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """The job sheet of a design that has a shell, as PDF: an A4 page, and more for the plates that stand inside."""
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=(WIDTH, HEIGHT))
    canvas.setTitle(f"{heading.job}: {heading.design} r{heading.revision}")
    canvas.setAuthor(heading.author or heading.workshop)
    _head(canvas, heading)
    _views(canvas, heading, tank)
    _figures(canvas, heading, tank)
    _flats(canvas, heading, tank)
    _foot(canvas)
    canvas.showPage()
    inside = [part for part in tank[SHEET].parts if part.feature]
    for first in range(0, len(inside), ROWS * COLUMNS):
        _inside(canvas, heading, inside[first : first + ROWS * COLUMNS])
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _text(canvas: Canvas, x: float, y: float, text: str, size: float = 8, bold: bool = False) -> None:
    canvas.setFont("Helvetica-Bold" if bold else "Helvetica", size)
    canvas.drawString(x, y, text)


def _head(canvas: Canvas, heading: Heading) -> None:
    top = HEIGHT - MARGIN
    canvas.setFillColor(INK)
    _text(canvas, MARGIN, top - 12, f"{heading.job} - {heading.design}", 14, bold=True)
    who = " - ".join(part for part in (heading.workshop, heading.customer) if part)
    _text(canvas, MARGIN, top - 24, who, 9)
    kept = f"revision {heading.revision}, {heading.saved:%Y-%m-%d %H:%M} UTC, {heading.author}"
    canvas.setFont("Helvetica", 8)
    canvas.drawRightString(WIDTH - MARGIN, top - 12, kept)
    unit = "mm and litres" if heading.reader == "mm_l" else "inches to 1/16, flats to 1/1000; gallons"
    canvas.drawRightString(WIDTH - MARGIN, top - 24, f"Job sheet, sizes in {unit}; drawings not to scale")
    canvas.setStrokeColor(INK)
    canvas.line(MARGIN, top - 30, WIDTH - MARGIN, top - 30)


def _views(canvas: Canvas, heading: Heading, tank: TankAnalysis) -> None:
    frame = Frame(MARGIN, HEIGHT - 119 * mm, 180 * mm, 90 * mm)
    draw_views(canvas, frame, tank, heading.reader)


def _figures(canvas: Canvas, heading: Heading, tank: TankAnalysis) -> None:
    design, shell, figures, made, held = tank.design, tank.shell, tank[FIGURES], tank[SHEET], tank[CAPACITY]
    units, x, y = heading.reader, WIDTH - 92 * mm, HEIGHT - 27 * mm
    at_floor = shown_text("m", made.weld_at_floor_mm / 1000, units)
    rows = [
        ("Fuel", design.brief.fuel),
        ("Brimful", volume_text(figures.brimful_l, units)),
        (f"Rated (ullage {held.ullage_fraction:.2%})", volume_text(figures.rated_l, units)),
        ("Empty mass", shown_text("kg", figures.empty_kg, units, 1) if figures.empty_kg is not None else "-"),
        ("Full mass", shown_text("kg", figures.full_kg, units, 1) if figures.full_kg is not None else "-"),
        ("Metal", f"{shell.metal}, {sheet_text(shell.metal, shell.thickness_mm, units)}"),
        ("Made as", made.scheme),
        ("Weld", f"{shown_text('m', figures.weld_m, units)}, {at_floor} of it at the floor"),
        *_bend_rows(shell, made),
    ]
    for label, value in rows:
        canvas.setFillColor(QUIET)
        _text(canvas, x, y, label)
        canvas.setFillColor(INK)
        _text(canvas, x + 34 * mm, y, value, bold=True)
        y -= 4.6 * mm
    _findings(canvas, heading, findings_on(tank), x, y - 2 * mm)


def _bend_rows(shell: AnyShell, made: Sheet) -> list[tuple[str, str]]:
    """What the bender has to know, by what kind of shell it is."""
    rows = []
    if made.bends and not isinstance(shell, CylinderShell):
        rows.append(("Bend, inside radius", f"{shell.bend_radius_mm:g} mm"))
        rows.append(("K / deduction at 90 deg", f"{made.k:g} / {made.bend_deduction_mm:.2f} mm"))
    if made.flange_mm is not None and made.notch is not None:
        rows.append(
            ("Pan flange / gap / notch", f"{made.flange_mm:g} / {made.pan_gap_mm:g} / {made.notch.side_mm:.2f} mm")
        )
    if made.roll_radius_mm is not None:
        rows.append(("Roll, outside radius", f"{made.roll_radius_mm:g} mm"))
    return rows


def _findings(canvas: Canvas, heading: Heading, findings: list[Finding], x: float, y: float) -> None:
    _text(canvas, x, y, "Findings still open" if findings else "No findings open", 9, bold=True)
    for finding in findings[:MOST_FINDINGS]:
        y -= 4.4 * mm
        said = finding.title.plain(lambda name, value: quantity_text(name, value, heading.reader))
        _text(canvas, x, y, f"{finding.severity.upper()}: {said}"[:78], 7.5)
    if len(findings) > MOST_FINDINGS:
        _text(canvas, x, y - 4.4 * mm, f"and {len(findings) - MOST_FINDINGS} more", 7.5)


def _flats(canvas: Canvas, heading: Heading, tank: TankAnalysis) -> None:
    parts = [part for part in tank[SHEET].parts if not part.feature]
    _text(canvas, MARGIN, 88 * mm, "Flat parts, inside face up; sizes from the lower left datum corner", 9, bold=True)
    width = (WIDTH - 2 * MARGIN) / max(1, len(parts))
    for place, part in enumerate(parts):
        frame = Frame(MARGIN + place * width, 22 * mm, width - 6 * mm, 62 * mm)
        draw_part(canvas, frame, part, heading.reader)


def _inside(canvas: Canvas, heading: Heading, parts: list[FlatPart]) -> None:
    """A page of what stands inside."""
    _head(canvas, heading)
    _text(
        canvas,
        MARGIN,
        HEIGHT - 32 * mm,
        "Parts that stand inside; sizes from the lower left datum corner",
        9,
        bold=True,
    )
    width, height = (WIDTH - 2 * MARGIN) / COLUMNS, (HEIGHT - 58 * mm) / ROWS
    for place, part in enumerate(parts):
        row, column = divmod(place, COLUMNS)
        x, y = MARGIN + column * width, HEIGHT - 36 * mm - (row + 1) * height
        draw_part(canvas, Frame(x, y, width - 6 * mm, height - 8 * mm), part, heading.reader)
        for step, line in enumerate(simpleSplit(part.note, "Helvetica", 7, width - GAP)):
            _text(canvas, x + GAP, y - step * 3 * mm, line, 7)
    _foot(canvas)


def _foot(canvas: Canvas) -> None:
    canvas.setStrokeColor(INK)
    canvas.line(MARGIN, 17 * mm, WIDTH - MARGIN, 17 * mm)
    canvas.setFillColor(INK)
    lines = [
        "Leak-test before any paint, lining or fuel. No flame, cutting or grinding on a tank that has held fuel "
        "without a gas reading. Prove a bend on a test strip of the same sheet before cutting.",
        "The figures advise. Local code, the rulebook and licensed trades decide; an inspector or engineer signs.",
    ]
    for row, line in enumerate(lines):
        _text(canvas, MARGIN, 12.5 * mm - row * 4 * mm, line, 7.5)
