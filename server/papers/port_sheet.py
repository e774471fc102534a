"""A port's template at full size with its bolts in tightening order, and the hanger's cut sheet."""

from itertools import product
from math import ceil, hypot

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from keel.design.ports import Port
from keel.formats.ports import bolt_places, marks
from keel.formats.quantities import ReaderUnits, cut_with_unit, sentence_text
from keel.reference.quantities import shown_text
from keel.studies.ports.reach import Reach
from keel.studies.ports.torque import PASSES, star_order
from server.papers.heading import Heading
from server.papers.page import ACCENT, INK, MARGIN, QUIET, STOP, Page, label

WIDTH, HEIGHT = A4
ACROSS = WIDTH - 2 * MARGIN
TILE_WIDE, TILE_HIGH = 180 * mm, 230 * mm
BESIDE = 12 * mm
"""Room beside the ring for the lines through its middle."""


def port_pdf(heading: Heading, port: Port, reach: Reach | None) -> bytes:
    """The template 1:1, on as many sheets as it takes; with a hanger its cut sheet on the next."""
    page = Page(heading, port.name)
    _template_pages(page, port)
    if reach is not None:
        _cut_sheet(page, reach, page.start(f"{port.name}: cut sheet"))
        page.next()
    return page.pdf()


def _template_pages(page: Page, port: Port) -> None:
    """One sheet where the template fits; else one with its words, and tiles to be joined edge to edge."""
    assert port.seat is not None
    across = port.seat.outer_mm * mm + 2 * BESIDE
    rows, columns = ceil(across / TILE_HIGH), ceil(across / TILE_WIDE)
    fits = across <= min(TILE_WIDE, HEIGHT - 110 * mm)
    title = "template 1:1, seen from outside" if fits else f"template 1:1 on {rows * columns} sheets after this one"
    y = page.start(f"{port.name}: {title}")
    if fits:
        _template(page.canvas, port, WIDTH / 2, HEIGHT / 2 + 20 * mm)
        page.ruler(MARGIN, 18 * mm)
    else:
        page.words("How the sheets are joined. This drawing is NOT to scale; the sheets are.", MARGIN, y, ACROSS)
        _overview(page.canvas, port, rows, columns)
    _bolts(page, port)
    page.next()
    for row, column in product(range(rows), range(columns)) if not fits else ():
        _tile(page, port, (row, column), (rows, columns))
        page.next()


def _overview(canvas: Canvas, port: Port, rows: int, columns: int) -> None:
    """The tiles as they are joined, made small."""
    wide, high = columns * TILE_WIDE, rows * TILE_HIGH
    scale = min(ACROSS / wide, (HEIGHT - 120 * mm) / high)
    canvas.saveState()
    canvas.translate(WIDTH / 2, HEIGHT / 2 + 20 * mm)
    canvas.scale(scale, scale)
    _template(canvas, port, 0, 0)
    canvas.setStrokeColor(QUIET)
    for row, column in product(range(rows), range(columns)):
        canvas.rect(-wide / 2 + column * TILE_WIDE, -high / 2 + row * TILE_HIGH, TILE_WIDE, TILE_HIGH)
    canvas.restoreState()


def _tile(page: Page, port: Port, at: tuple[int, int], of: tuple[int, int]) -> None:
    """One tile at full size in its frame: rows are counted from the top, columns from the left."""
    left, foot = (WIDTH - TILE_WIDE) / 2, 30 * mm
    where = f"row {at[0] + 1} of {of[0]}, column {at[1] + 1} of {of[1]}; cut on the frame, join edge to edge"
    page.start(f"{port.name}: template 1:1, seen from outside, {where}")
    canvas = page.canvas
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(left, foot, TILE_WIDE, TILE_HIGH)
    canvas.clipPath(frame, stroke=1)
    x = left + (of[1] / 2 - at[1]) * TILE_WIDE
    y = foot + (at[0] + 1 - of[0] / 2) * TILE_HIGH
    _template(canvas, port, x, y)
    canvas.restoreState()
    page.ruler(MARGIN, 18 * mm)


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
    label(canvas, "forward", x + reach + 2 * mm, y - 3, 8)
    places = bolt_places(port)
    order = star_order(len(places)) if places else []
    for number, (a, b) in enumerate(places, start=1):
        canvas.setFillColor(INK)
        canvas.circle(x + a * mm, y + b * mm, (seat.bolt_mm or 5.0) / 2 * mm)
        turn = order.index(number) + 1
        inward = (seat.hole_mm + (seat.bolt_circle_mm or 0.0) - (seat.bolt_mm or 5.0)) / 4
        out = inward / max(1.0, hypot(a, b))
        at = x + a * out * mm, y + b * out * mm - 4
        label(canvas, str(turn), *at, 11, bold=True, colour=ACCENT, align="middle")
    canvas.setStrokeColor(ACCENT)
    canvas.setLineWidth(1.2)
    for (a, b), (c, d) in marks(port, 5.0):
        canvas.line(x + a * mm, y + b * mm, x + c * mm, y + d * mm)


def _bolts(page: Page, port: Port) -> None:
    seat, units = port.seat, page.heading.reader
    assert seat is not None
    hole, outside = cut_with_unit(seat.hole_mm, units), cut_with_unit(seat.outer_mm, units)
    lines = [f"Hole {hole}, outside {outside}. Locate on the first hole at the mark, then drill the rest."]
    if seat.bolts and seat.bolt_circle_mm:
        drill, circle = cut_with_unit(seat.bolt_mm or 5.0, units), cut_with_unit(seat.bolt_circle_mm, units)
        lines.append(f"{seat.bolts} holes of {drill} on {circle}; the figures are the tightening order.")
        lines.append(f"Three passes in that order: {_passes(seat.torque_nm, units)}.")
    if port.stop_deg is not None:
        lines.append(f"The lock ring comes home against its stop at {port.stop_deg:g}°, the mark with a bar across it.")
    lines.append("What lies under and round it was checked in the design as drawn; look again before the first hole.")
    y = 64 * mm
    for line in lines:
        y = page.words(line, MARGIN, y, ACROSS) - 1 * mm


def _passes(torque_nm: float | None, units: ReaderUnits) -> str:
    if not torque_nm:
        return ", ".join(f"{share:.0%}" for share in PASSES) + " of the full torque"
    turns = [f"{share:.0%} ({shown_text('nm', share * torque_nm, units, 2)})" for share in PASSES]
    return f"{', '.join(turns)} of {shown_text('nm', torque_nm, units)}"


def _cut_sheet(page: Page, reach: Reach, y: float) -> None:
    units = page.heading.reader
    second = "not measured a second time yet" if reach.second_mm is None else cut_with_unit(reach.second_mm, units)
    rows = [
        ("Depth from flange seat to floor, calculated", cut_with_unit(reach.depth_mm, units)),
        ("Measured in the finished opening, another way", second),
    ]
    y = page.table(rows, MARGIN, y, (90 * mm, ACROSS - 90 * mm), 10, head=False, strong=(1,)) - 4 * mm
    if reach.agrees is not True:
        why = "the two don't agree" if reach.agrees is False else "measure a second time first"
        warning = f"CUT NOTHING YET: {why}.  Second measurement: ______________"
        y = page.words(warning, MARGIN, y, ACROSS, 11, bold=True, colour=STOP) - 4 * mm
    steps = [("Step", "Length", "How")]
    for number, step in enumerate(reach.steps, start=1):
        how = sentence_text(step.how, units)
        length = "" if step.length_mm is None else cut_with_unit(step.length_mm, units)
        steps.append((f"{number}  {step.what}", length, how + ("" if step.undone else " (can't be undone)")))
    page.table(steps, MARGIN, y, (40 * mm, 28 * mm, ACROSS - 68 * mm), 9, strong=(0, 1), texts=(2,))
