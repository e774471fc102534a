"""The dip stick at full size: a strip to stick on a lath, a tile of it on each page."""

from math import ceil

from reportlab.lib.units import mm

from keel.formats.quantities import length_text, volume_text
from keel.studies.liquid.strapping import StrappingRow
from server.papers.heading import Heading
from server.papers.page import INK, QUIET, Page

FOOT, TILE = 30 * mm, 230 * mm
LEFT, STRIP = 40 * mm, 34 * mm


def dip_stick_pdf(heading: Heading, tables: dict[str, list[StrappingRow]]) -> bytes:
    """Each cell's strapping table as a scale in millimetres of paper: 1:1, the foot of the strip on the floor."""
    page = Page(heading, "dip stick")
    for cell, rows in tables.items():
        tiles = max(1, ceil(rows[-1].level_mm * mm / TILE))
        for tile in range(tiles):
            _tile(page, cell, rows, tile, tiles)
            page.next()
    return page.pdf()


def _tile(page: Page, cell: str, rows: list[StrappingRow], tile: int, tiles: int) -> None:
    y = page.start(f"Dip stick of the {cell} at full size, strip {tile + 1} of {tiles}")
    note = "The foot stands on the lowest inner point, the tank on the level. Check the ruler after printing."
    page.words(note, LEFT + STRIP + 8 * mm, y, page.width - LEFT - STRIP - 20 * mm, 8)
    low = tile * TILE
    top = min(rows[-1].level_mm * mm - low, TILE)
    page.canvas.setStrokeColor(INK)
    page.canvas.rect(LEFT, FOOT, STRIP, top)
    for row in rows:
        up = row.level_mm * mm - low
        if -0.01 <= up <= TILE:
            # The figures of the foot and of the top stand clear of the strip's edge.
            shift = 2.0 if up < 4 else -7.0 if row is rows[-1] else -2.0
            _mark(page, FOOT + up, shift, row)
    if tile + 1 < tiles:
        page.label("cut on this line; the next strip begins here", LEFT, FOOT + TILE + 1.5 * mm)
    page.ruler(LEFT, 14 * mm)


def _mark(page: Page, y: float, shift: float, row: StrappingRow) -> None:
    units = page.heading.reader
    page.canvas.setLineWidth(0.5)
    page.canvas.line(LEFT, y, LEFT + 10 * mm, y)
    page.label(volume_text(row.volume_l, units), LEFT + 11 * mm, y + shift, 6.5)
    page.label(length_text(row.level_mm, units), LEFT - 2 * mm, y - 2, 6.5, colour=QUIET, align="right")
