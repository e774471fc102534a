"""The dip stick at full size: a strip to stick on a lath, a tile of it on each page."""

import io
from math import ceil

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from keel.formats.quantities import length_text, volume_text
from keel.studies.liquid.strapping import StrappingRow
from server.papers.heading import Heading

INK, QUIET = HexColor("#1d262b"), HexColor("#66757c")
WIDTH, HEIGHT = A4
FOOT, TILE = 30 * mm, 240 * mm
STRIP = 34 * mm
RULER_MM = 100


def dip_stick_pdf(heading: Heading, tables: dict[str, list[StrappingRow]]) -> bytes:
    """Each cell's strapping table as a scale in millimetres of paper: 1:1, the foot of the strip on the floor."""
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=A4)
    canvas.setTitle(f"{heading.job}: {heading.design} r{heading.revision}, dip stick")
    for cell, rows in tables.items():
        tiles = max(1, ceil(rows[-1].level_mm * mm / TILE))
        for tile in range(tiles):
            _tile(canvas, heading, cell, rows, tile, tiles)
            canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _tile(canvas: Canvas, heading: Heading, cell: str, rows: list[StrappingRow], tile: int, tiles: int) -> None:
    left = 40 * mm
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    canvas.setFont("Helvetica-Bold", 11)
    canvas.drawString(
        left, HEIGHT - 14 * mm, f"{heading.job} - {heading.design}, {cell}: dip stick {tile + 1} of {tiles}"
    )
    canvas.setFont("Helvetica", 8)
    note = "Print at 100 %. Check the ruler. The foot stands on the lowest inner point, the tank on the level."
    canvas.drawString(left, HEIGHT - 19 * mm, note)
    low = tile * TILE
    top = min(rows[-1].level_mm * mm - low, TILE)
    canvas.rect(left, FOOT, STRIP, top)
    for row in rows:
        y = row.level_mm * mm - low
        if -0.01 <= y <= TILE:
            # The figures of the foot and of the top stand clear of the strip's edge.
            shift = 2.0 if y < 4 else -7.0 if row is rows[-1] else -2.0
            _mark(canvas, left, FOOT + y, shift, row, heading)
    if tile + 1 < tiles:
        canvas.setFont("Helvetica", 7)
        canvas.drawString(left, FOOT + TILE + 2 * mm, "cut on this line; the next strip begins here")
    _ruler(canvas)


def _mark(canvas: Canvas, left: float, y: float, shift: float, row: StrappingRow, heading: Heading) -> None:
    canvas.setLineWidth(0.5)
    canvas.line(left, y, left + 10 * mm, y)
    canvas.setFont("Helvetica", 6.5)
    canvas.setFillColor(INK)
    canvas.drawString(left + 11 * mm, y + shift, volume_text(row.volume_l, heading.reader))
    canvas.setFillColor(QUIET)
    canvas.drawRightString(left - 2 * mm, y - 2, length_text(row.level_mm, heading.reader))


def _ruler(canvas: Canvas) -> None:
    canvas.setFillColor(INK)
    x, y = 40 * mm, 14 * mm
    canvas.line(x, y, x + RULER_MM * mm, y)
    for step in range(0, RULER_MM + 1, 10):
        canvas.line(x + step * mm, y, x + step * mm, y + (4 if step % 50 == 0 else 2.5) * mm)
    canvas.setFont("Helvetica", 7)
    canvas.drawString(x, y - 4 * mm, f"{RULER_MM} mm exactly, or the print is not to scale")
