"""A gauge's face redrawn so that it tells the truth, at full size."""

from math import cos, radians, sin

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from keel.formats.quantities import cut_with_unit, volume_text
from keel.studies.gauge.readings import GaugeTruth, Reading
from server.papers.heading import Heading
from server.papers.page import INK, MARGIN, Page

FACE_MM = 52.0
SWEEP_DEG = 90.0
"""Needle travel of the printed face: empty at left, full at right, half upright."""
COLUMNS = (18 * mm, 30 * mm, 40 * mm, 50 * mm)


def gauge_pdf(heading: Heading, truth: GaugeTruth) -> bytes:
    """One face a sender: ticks stand where the needle is at each true tenth of the rated capacity."""
    page = Page(heading, "gauge face")
    for reading in truth.readings:
        _face(page, reading)
        page.next()
    return page.pdf()


def needle_angle(needle: float) -> float:
    """Angle of the needle on the face, from level to the right, counter-clockwise [°]."""
    return 90 + SWEEP_DEG / 2 - needle * SWEEP_DEG


def _face(page: Page, reading: Reading) -> None:
    canvas, units = page.canvas, page.heading.reader
    y = page.start(f"Face for {reading.name}, {cut_with_unit(FACE_MM, units)} across, needle travel {SWEEP_DEG:g}°")
    page.words("Print at 100 % and check the ruler. Ticks are true volume.", MARGIN, y, page.width - 2 * MARGIN)
    x, y, radius = page.width / 2, page.height - 90 * mm, FACE_MM / 2 * mm
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.8)
    canvas.circle(x, y, radius)
    for needle, name in ((0.0, "E"), (1.0, "F")):
        _tick(canvas, (x, y, radius), needle, 0.30, 1.4)
        angle = radians(needle_angle(needle))
        at = x + 0.55 * radius * cos(angle), y + 0.55 * radius * sin(angle) - 3
        page.label(name, *at, 9, bold=True, align="middle")
    for tenth in reading.tenths:
        if 0 < tenth.needle < 1:
            _tick(canvas, (x, y, radius), tenth.needle, 0.14, 0.7)
            angle = radians(needle_angle(tenth.needle))
            at = x + 0.76 * radius * cos(angle), y + 0.76 * radius * sin(angle) - 1.5
            page.label(f"{tenth.share * 10:.0f}", *at, 4.5, align="middle")
    page.label("TENTHS OF", x, y - 0.35 * radius, 5, align="middle")
    page.label(volume_text(reading.rated_l, units), x, y - 0.48 * radius, 5, align="middle")
    rows = [("Needle", "Ohms", "True volume", "Volume by the needle")]
    for number, point in enumerate(reading.eighths):
        believed = volume_text(point.litres - point.error_l, units)
        rows.append((f"{number}/8", f"{point.ohms:.1f}", volume_text(point.litres, units), believed))
    page.table(rows, MARGIN, page.height - 135 * mm, COLUMNS)
    page.ruler(MARGIN, 18 * mm)


def _tick(canvas: Canvas, face: tuple[float, float, float], needle: float, length: float, width: float) -> None:
    x, y, radius = face
    angle = radians(needle_angle(needle))
    canvas.setLineWidth(width)
    inner = radius * (0.96 - length)
    canvas.line(
        x + inner * cos(angle), y + inner * sin(angle), x + 0.96 * radius * cos(angle), y + 0.96 * radius * sin(angle)
    )
