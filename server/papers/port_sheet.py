"""A port's template at full size with its bolts in tightening order, and the hanger's cut sheet."""

import io
from itertools import product
from math import ceil, hypot

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from keel.design.ports import Port
from keel.formats.ports import bolt_places, marks
from keel.formats.quantities import cut_text, quantity_text
from keel.studies.ports.reach import Reach
from keel.studies.ports.torque import PASSES, star_order
from server.papers.heading import Heading

INK, QUIET, ACCENT = HexColor("#1d262b"), HexColor("#66757c"), HexColor("#4b3fa0")
WIDTH, HEIGHT = A4
LEFT = 18 * mm
RULER_MM = 100
TILE_WIDE, TILE_HIGH = 180 * mm, 235 * mm
BESIDE = 12 * mm
"""Room beside the ring for the lines through its middle."""


def port_pdf(heading: Heading, port: Port, reach: Reach | None) -> bytes:
    """The template 1:1, on as many sheets as it takes; with a hanger its cut sheet on the next."""
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=A4)
    canvas.setTitle(f"{heading.job}: {heading.design} r{heading.revision}, {port.name}")
    _template_pages(canvas, heading, port)
    if reach is not None:
        _head(canvas, heading, f"{port.name}: cut sheet")
        _cut_sheet(canvas, heading, reach)
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _head(canvas: Canvas, heading: Heading, title: str) -> None:
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 13)
    canvas.drawString(LEFT, HEIGHT - 18 * mm, f"{heading.job} - {heading.design}")
    canvas.setFont("Helvetica", 9)
    canvas.drawString(LEFT, HEIGHT - 24 * mm, f"{title}; revision {heading.revision}")


def _template_pages(canvas: Canvas, heading: Heading, port: Port) -> None:
    """One sheet where the template fits; else one with its words, and tiles to be joined edge to edge."""
    assert port.seat is not None
    across = port.seat.outer_mm * mm + 2 * BESIDE
    rows, columns = ceil(across / TILE_HIGH), ceil(across / TILE_WIDE)
    fits = across <= min(TILE_WIDE, HEIGHT - 110 * mm)
    title = "template 1:1, seen from outside" if fits else f"template 1:1 on {rows * columns} sheets after this one"
    _head(canvas, heading, f"{port.name}: {title}")
    if fits:
        _template(canvas, port, WIDTH / 2, HEIGHT / 2 + 20 * mm)
        _ruler(canvas)
    else:
        _overview(canvas, port, rows, columns)
    _bolts(canvas, port)
    canvas.showPage()
    for row, column in product(range(rows), range(columns)) if not fits else ():
        _tile(canvas, heading, port, (row, column), (rows, columns))
        canvas.showPage()


def _overview(canvas: Canvas, port: Port, rows: int, columns: int) -> None:
    """The tiles as they are joined, made small."""
    wide, high = columns * TILE_WIDE, rows * TILE_HIGH
    scale = min((WIDTH - 2 * LEFT) / wide, (HEIGHT - 120 * mm) / high)
    canvas.saveState()
    canvas.translate(WIDTH / 2, HEIGHT / 2 + 20 * mm)
    canvas.scale(scale, scale)
    _template(canvas, port, 0, 0)
    canvas.setStrokeColor(QUIET)
    for row, column in product(range(rows), range(columns)):
        canvas.rect(-wide / 2 + column * TILE_WIDE, -high / 2 + row * TILE_HIGH, TILE_WIDE, TILE_HIGH)
    canvas.restoreState()
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica", 9)
    canvas.drawString(
        LEFT, HEIGHT - 32 * mm, "How the sheets are joined. This drawing is NOT to scale; the sheets are."
    )


def _tile(canvas: Canvas, heading: Heading, port: Port, at: tuple[int, int], of: tuple[int, int]) -> None:
    """One tile at full size in its frame: rows are counted from the top, columns from the left."""
    left, foot = (WIDTH - TILE_WIDE) / 2, 30 * mm
    where = f"row {at[0] + 1} of {of[0]}, column {at[1] + 1} of {of[1]}; cut on the frame, join edge to edge"
    _head(canvas, heading, f"{port.name}: template 1:1, seen from outside, {where}")
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(left, foot, TILE_WIDE, TILE_HIGH)
    canvas.clipPath(frame, stroke=1)
    x = left + (of[1] / 2 - at[1]) * TILE_WIDE
    y = foot + (at[0] + 1 - of[0] / 2) * TILE_HIGH
    _template(canvas, port, x, y)
    canvas.restoreState()
    _ruler(canvas)


def _template(canvas: Canvas, port: Port, x: float, y: float) -> None:
    seat = port.seat
    assert seat is not None
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.8)
    canvas.circle(x, y, seat.hole_mm / 2 * mm)
    canvas.circle(x, y, seat.outer_mm / 2 * mm)
    canvas.setLineWidth(0.3)
    reach = (seat.outer_mm / 2 + 8) * mm
    canvas.line(x - reach, y, x + reach, y)
    canvas.line(x, y - reach, x, y + reach)
    if seat.bolt_circle_mm:
        canvas.setDash(3, 2)
        canvas.circle(x, y, seat.bolt_circle_mm / 2 * mm)
        canvas.setDash()
    canvas.setFont("Helvetica", 8)
    canvas.drawString(x + reach + 2 * mm, y - 3, "forward")
    places = bolt_places(port)
    order = star_order(len(places)) if places else []
    for number, (a, b) in enumerate(places, start=1):
        canvas.setFillColor(INK)
        canvas.circle(x + a * mm, y + b * mm, (seat.bolt_mm or 5.0) / 2 * mm)
        turn = order.index(number) + 1
        inward = (seat.hole_mm + (seat.bolt_circle_mm or 0.0) - (seat.bolt_mm or 5.0)) / 4
        out = inward / max(1.0, hypot(a, b))
        canvas.setFillColor(ACCENT)
        canvas.setFont("Helvetica-Bold", 11)
        canvas.drawCentredString(x + a * out * mm, y + b * out * mm - 4, str(turn))
    canvas.setStrokeColor(ACCENT)
    canvas.setLineWidth(1.2)
    for (a, b), (c, d) in marks(port, 5.0):
        canvas.line(x + a * mm, y + b * mm, x + c * mm, y + d * mm)


def _bolts(canvas: Canvas, port: Port) -> None:
    seat = port.seat
    assert seat is not None
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica", 9)
    lines = [
        f"hole {seat.hole_mm:g}, outside {seat.outer_mm:g} mm; locate on the first hole at the mark, then drill "
        f"the rest"
    ]
    if seat.bolts and seat.bolt_circle_mm:
        lines.append(
            f"{seat.bolts} holes of {seat.bolt_mm or 5:g} on {seat.bolt_circle_mm:g} mm; the figures are the "
            f"tightening order"
        )
        full = f" of {seat.torque_nm:g} N·m" if seat.torque_nm else " of the full torque"
        turns = [
            f"{share:.0%}" + (f" ({share * seat.torque_nm:.2f} N·m)" if seat.torque_nm else "") for share in PASSES
        ]
        lines.append(f"three passes in that order: {', '.join(turns)}{full}")
    if port.stop_deg is not None:
        lines.append(f"the lock ring comes home against its stop at {port.stop_deg:g}°, the mark with a bar across it")
    lines.append("What lies under and round it was checked in the design as drawn; look again before the first hole.")
    for row, line in enumerate(lines):
        canvas.drawString(LEFT, 60 * mm - row * 13, line)


def _ruler(canvas: Canvas) -> None:
    x, y = LEFT, 18 * mm
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.6)
    canvas.line(x, y, x + RULER_MM * mm, y)
    for step in range(0, RULER_MM + 1, 10):
        canvas.line(x + step * mm, y, x + step * mm, y + (4 if step % 50 == 0 else 2.5) * mm)
    canvas.setFont("Helvetica", 7)
    canvas.drawString(x, y - 4 * mm, f"{RULER_MM} mm exactly, or the print is not to scale: print at 100 %")


def _cut_sheet(canvas: Canvas, heading: Heading, reach: Reach) -> None:
    def said(length: float) -> str:
        return cut_text(length, heading.reader) + (" mm" if heading.reader == "mm_l" else "")

    y = HEIGHT - 40 * mm
    second = "not measured a second time yet" if reach.second_mm is None else said(reach.second_mm)
    for line in (
        f"depth from flange seat to floor, calculated: {said(reach.depth_mm)}",
        f"measured in the finished opening, another way: {second}",
    ):
        canvas.setFont("Helvetica", 10)
        canvas.drawString(LEFT, y, line)
        y -= 16
    if reach.agrees is not True:
        canvas.setFillColor(ACCENT)
        canvas.setFont("Helvetica-Bold", 11)
        why = "the two don't agree" if reach.agrees is False else "measure a second time first"
        canvas.drawString(LEFT, y, f"CUT NOTHING YET: {why}.  Second measurement: ______________")
        canvas.setFillColor(INK)
        y -= 22
    for number, step in enumerate(reach.steps, start=1):
        canvas.setFont("Helvetica-Bold", 11)
        length = "" if step.length_mm is None else f": {said(step.length_mm)}"
        canvas.drawString(LEFT, y, f"{number}  {step.what}{length}")
        canvas.setFont("Helvetica", 9)
        how = step.how.plain(lambda name, value: quantity_text(name, value, heading.reader))
        canvas.drawString(LEFT + 14, y - 12, how + ("" if step.undone else "   (can't be undone)"))
        y -= 34
