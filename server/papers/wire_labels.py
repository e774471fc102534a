"""Labels to cut out and wrap round the wires, one for each end, before the tank goes up."""

from reportlab.lib.units import mm

from keel.analysis.tank import TankAnalysis
from keel.formats.quantities import wire_text
from keel.studies.wiring.pins import WIRE_LABELS, WireLabel
from server.papers.heading import Heading
from server.papers.page import LINE, MARGIN, QUIET, Page

MOST_NAMED = 2
WIDE, HIGH, ACROSS, DOWN = 62 * mm, 20 * mm, 3, 12
ABOUT = (
    "Cut along the lines, fold round the wire with the number outward, tape over. Label both ends of a wire before the "
    "other end is out of sight. Print at 100 %."
)


def wire_labels_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """All labels, three across."""
    page = Page(heading, "wire labels")
    labels = tank[WIRE_LABELS]
    for begin in range(0, max(1, len(labels)), ACROSS * DOWN):
        top = page.words(ABOUT, MARGIN, page.start("Wire labels"), page.width - 2 * MARGIN, 8) - 3 * mm
        for place, label in enumerate(labels[begin : begin + ACROSS * DOWN]):
            row, column = divmod(place, ACROSS)
            _label(page, label, MARGIN + column * WIDE, top - row * HIGH)
        page.next()
    return page.pdf()


def _label(page: Page, label: WireLabel, x: float, y: float) -> None:
    canvas = page.canvas
    canvas.setStrokeColor(LINE)
    canvas.setLineWidth(0.4)
    canvas.rect(x, y - HIGH, WIDE, HIGH)
    page.label(label.wire, x + 2 * mm, y - 7 * mm, 15, bold=True)
    stuff = " ".join(part for part in (label.colour, wire_text(label.area_mm2, page.heading.reader)) if part)
    page.label(stuff, x + WIDE - 2 * mm, y - 5 * mm, 7, colour=QUIET, align="right")
    page.words(f"here: {label.here}", x + 2 * mm, y - 8.2 * mm, WIDE - 4 * mm, 7.5, bold=True, lines=1)
    page.words(f"there: {label.there}", x + 2 * mm, y - 12 * mm, WIDE - 4 * mm, 7.5, lines=1)
    if label.feeds:
        page.words(f"for: {_short(label.feeds)}", x + 2 * mm, y - 15.8 * mm, WIDE - 4 * mm, 6.5, colour=QUIET, lines=1)


def _short(feeds: str) -> str:
    """As many names as can be read."""
    names = feeds.split(", ")
    return feeds if len(names) <= MOST_NAMED else f"{', '.join(names[:MOST_NAMED])} and {len(names) - MOST_NAMED} more"
