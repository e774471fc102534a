"""A gauge's face redrawn so that it tells the truth, at full size."""

import io
from math import cos, radians, sin

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from keel.formats.quantities import volume_text
from keel.studies.gauge.readings import GaugeTruth, Reading
from server.papers.heading import Heading

INK, FUEL = HexColor("#1d262b"), HexColor("#c96f12")
WIDTH, HEIGHT = A4
FACE_MM = 52.0
SWEEP_DEG = 90.0
"""Needle travel of the printed face: empty at left, full at right, half upright."""


def gauge_pdf(heading: Heading, truth: GaugeTruth) -> bytes:
    """One face a sender: ticks stand where the needle is at each true tenth of the rated capacity."""
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=A4)
    canvas.setTitle(f"{heading.job}: {heading.design} r{heading.revision}, gauge face")
    for reading in truth.readings:
        _face(canvas, heading, reading)
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


def needle_angle(needle: float) -> float:
    """Angle of the needle on the face, from level to the right, counter-clockwise [°]."""
    return 90 + SWEEP_DEG / 2 - needle * SWEEP_DEG


def _face(canvas: Canvas, heading: Heading, reading: Reading) -> None:
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 13)
    canvas.drawString(18 * mm, HEIGHT - 18 * mm, f"{heading.job} - {heading.design}: face for {reading.name}")
    canvas.setFont("Helvetica", 9)
    canvas.drawString(
        18 * mm,
        HEIGHT - 24 * mm,
        f"{FACE_MM:g} mm across, needle travel {SWEEP_DEG:g}°; print at 100 %. Ticks are true litres.",
    )
    x, y, radius = WIDTH / 2, HEIGHT - 90 * mm, FACE_MM / 2 * mm
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.8)
    canvas.circle(x, y, radius)
    for needle, name in ((0.0, "E"), (1.0, "F")):
        _tick(canvas, (x, y, radius), needle, 0.30, 1.4)
        angle = radians(needle_angle(needle))
        canvas.setFont("Helvetica-Bold", 9)
        canvas.drawCentredString(x + 0.55 * radius * cos(angle), y + 0.55 * radius * sin(angle) - 3, name)
    for tenth in reading.tenths:
        if 0 < tenth.needle < 1:
            _tick(canvas, (x, y, radius), tenth.needle, 0.14, 0.7)
            angle = radians(needle_angle(tenth.needle))
            canvas.setFont("Helvetica", 4.5)
            canvas.drawCentredString(
                x + 0.76 * radius * cos(angle), y + 0.76 * radius * sin(angle) - 1.5, f"{tenth.share * 10:.0f}"
            )
    canvas.setFont("Helvetica", 5)
    canvas.drawCentredString(x, y - 0.35 * radius, "TENTHS OF")
    canvas.drawCentredString(x, y - 0.48 * radius, volume_text(reading.rated_l, heading.reader))
    _table(canvas, heading, reading)


def _tick(canvas: Canvas, face: tuple[float, float, float], needle: float, length: float, width: float) -> None:
    x, y, radius = face
    angle = radians(needle_angle(needle))
    canvas.setLineWidth(width)
    inner = radius * (0.96 - length)
    canvas.line(
        x + inner * cos(angle), y + inner * sin(angle), x + 0.96 * radius * cos(angle), y + 0.96 * radius * sin(angle)
    )


def _table(canvas: Canvas, heading: Heading, reading: Reading) -> None:
    canvas.setFont("Helvetica-Bold", 9)
    y = HEIGHT - 140 * mm
    for x, text in ((18, "needle"), (45, "ohms"), (75, "true litres"), (115, "the needle lets believe")):
        canvas.drawString(x * mm, y, text)
    canvas.setFont("Helvetica", 9)
    for row, mark in enumerate(reading.eighths, start=1):
        below = y - row * 13
        believed = mark.litres - mark.error_l
        for x, text in (
            (18, f"{row - 1}/8"),
            (45, f"{mark.ohms:.1f}"),
            (75, volume_text(mark.litres, heading.reader)),
            (115, volume_text(believed, heading.reader)),
        ):
            canvas.drawString(x * mm, below, text)
