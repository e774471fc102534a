"""A rigid tube at full size: its stock in tiles with every bend marked, and a template of each bend's angle."""

from math import ceil, cos, radians, sin

from reportlab.lib.units import mm

from keel.formats.quantities import cut_text
from keel.studies.lines.tubes import TubeMade
from server.papers.page import ACCENT, INK, LINE, MARGIN, METAL, QUIET, Page

TILE_MM, ROW, ROWS = 175.0, 32 * mm, 7
LEG_MM, CELL_WIDE, CELL_HIGH, ACROSS, DOWN = 40.0, 92 * mm, 76 * mm, 2, 3
DEGREE = "\N{DEGREE SIGN}"
ABOUT = "Wrap each row round the stock, or lay the stock on it; one row goes on where the one before ends."


def full_size(page: Page, tube: TubeMade) -> None:
    """Pages after a tube's bend table."""
    _stock(page, tube)
    _templates(page, tube)


def _stock(page: Page, tube: TubeMade) -> None:
    count = ceil(tube.rough_mm / TILE_MM)
    for begin in range(0, count, ROWS):
        top = page.words(ABOUT, MARGIN, page.start(f"{tube.name} at full size"), page.width - 2 * MARGIN, 8) - 19 * mm
        for row in range(begin, min(count, begin + ROWS)):
            _tile(page, tube, row, top - (row - begin) * ROW)
        page.ruler(MARGIN, MARGIN + 8 * mm)
        page.next()


def _tile(page: Page, tube: TubeMade, row: int, middle: float) -> None:
    """One row: what of the stock lies in it."""
    canvas, units = page.canvas, page.heading.reader
    start, end = row * TILE_MM, min((row + 1) * TILE_MM, tube.rough_mm)
    half = tube.outside_mm / 2 * mm

    def at(along: float) -> float:
        return float(MARGIN + (along - start) * mm)

    canvas.setStrokeColor(METAL)
    canvas.setLineWidth(0.7)
    canvas.rect(MARGIN, middle - half, (end - start) * mm, 2 * half)
    canvas.setStrokeColor(LINE)
    canvas.line(MARGIN, middle, at(end), middle)
    for number, bend in enumerate(tube.bends, start=1):
        arc = (bend.feed_mm, bend.feed_mm + tube.radius_mm * radians(bend.angle_deg))
        low, high = max(arc[0], start), min(arc[1], end)
        if low < high:
            canvas.setFillColor(ACCENT, alpha=0.15)
            canvas.rect(at(low), middle - half, (high - low) * mm, 2 * half, stroke=0, fill=1)
        for place, said in zip(arc, (f"bend {number} begins", f"{number} ends"), strict=True):
            if start <= place <= end:
                canvas.setStrokeColor(ACCENT)
                canvas.line(at(place), middle - half - 2 * mm, at(place), middle + half + 2 * mm)
                above = middle + half + 3 * mm if said.endswith("begins") else middle - half - 5 * mm
                page.label(f"{said}, {cut_text(place, units)}", at(place), above, 6.5, colour=INK, align="middle")
    if start <= tube.cut_mm <= end:
        canvas.setStrokeColor(INK)
        canvas.line(at(tube.cut_mm), middle - half - 4 * mm, at(tube.cut_mm), middle + half + 4 * mm)
        trimmed = f"trim, {cut_text(tube.cut_mm, units)}"
        page.label(trimmed, at(tube.cut_mm), middle - half - 9 * mm, 6.5, bold=True, align="middle")
    page.label(f"row {row + 1}, from {cut_text(start, units)}", MARGIN, middle + half + 8 * mm, 6.5, colour=QUIET)


def _templates(page: Page, tube: TubeMade) -> None:
    """Legs and arc of every bend as it is left, to hold the tube against."""
    each = ACROSS * DOWN
    for begin in range(0, len(tube.bends), each):
        top = page.start(f"{tube.name}: angles at full size") - 4 * mm
        for place, bend in enumerate(tube.bends[begin : begin + each]):
            row, column = divmod(place, ACROSS)
            x, y = MARGIN + column * CELL_WIDE, top - (row + 1) * CELL_HIGH
            said = f"bend {begin + place + 1}: {bend.angle_deg:.1f}{DEGREE} left, set {bend.set_deg:.1f}{DEGREE}"
            page.label(said, x, y + CELL_HIGH - 4 * mm, 8, bold=True)
            _bend(page, tube, bend.angle_deg, x + 6 * mm, y + 16 * mm)
        page.ruler(MARGIN, MARGIN + 8 * mm)
        page.next()


def _bend(page: Page, tube: TubeMade, angle_deg: float, x: float, y: float) -> None:
    """Both walls and the middle: a leg to the right, the arc, a leg on."""
    leg = min(LEG_MM, max(12.0, 70.0 - tube.radius_mm))
    for off, colour in ((-tube.outside_mm / 2, METAL), (0.0, LINE), (tube.outside_mm / 2, METAL)):
        radius, path = tube.radius_mm - off, page.canvas.beginPath()
        path.moveTo(x, y + off * mm)
        steps = max(2, round(angle_deg / 3))
        for step in range(steps + 1):
            turn = radians(angle_deg) * step / steps
            path.lineTo(x + (leg + radius * sin(turn)) * mm, y + (tube.radius_mm - radius * cos(turn)) * mm)
        turn = radians(angle_deg)
        end = (leg + radius * sin(turn) + leg * cos(turn), tube.radius_mm - radius * cos(turn) + leg * sin(turn))
        path.lineTo(x + end[0] * mm, y + end[1] * mm)
        page.canvas.setStrokeColor(colour)
        page.canvas.setLineWidth(0.7)
        page.canvas.drawPath(path)
