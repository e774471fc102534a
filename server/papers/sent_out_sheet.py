"""A sheet for work that goes out: what goes, in what state, what it may meet, what must come back and be checked."""

from reportlab.lib.units import mm

from keel.log.state import BuildState, OutState
from server.papers.heading import Heading
from server.papers.page import ACCENT, MARGIN, QUIET, STOP, Page

LABEL = 52 * mm
SPACE = 5 * mm
BLANK = "_" * 60


def sent_out_pdf(heading: Heading, state: BuildState) -> bytes:
    """A page for each thing that is out; a blank one to fill in by hand where nothing is."""
    page = Page(heading, "work sent out")
    away: list[OutState | None] = [one for one in state.out if one.back is None]
    for one in away or [None]:
        _sheet(page, state, one)
        page.next()
    return page.pdf()


def _sheet(page: Page, state: BuildState, one: OutState | None) -> None:
    y = page.start("Work sent out") - 4 * mm
    across = page.width - 2 * MARGIN
    y = page.words(one.sent.work if one else f"Work: {BLANK}", MARGIN, y, across, 18, bold=True) - SPACE
    parts = ", ".join(state.names.get(name, name) for name in one.sent.parts) if one else ""
    rows = [
        ("To", one.sent.to if one else ""),
        ("What goes", parts),
        ("State it leaves in", one.sent.state if one else ""),
        ("Heat and fluids it may meet", one.sent.may_meet if one else ""),
        ("What must come back, and its check", one.sent.returns if one else ""),
        ("Sent", f"{one.when:%d %B %Y}, {one.author}" if one else ""),
    ]
    filled = [(label, value or BLANK) for label, value in rows]
    y = page.table(filled, MARGIN, y, (LABEL, across - LABEL), 11, head=False, strong=(1,)) - SPACE
    warning = (
        "Fuel vapour explodes: where it isn't written above that this has never held fuel, no heat, flame or grinding "
        "before the workshop has given a gas reading. Nothing is to be done to it but the work above."
    )
    y = page.words(warning, MARGIN, y, across, 11, colour=STOP) - SPACE
    y = page.words("When it comes back", MARGIN, y, across, 12, bold=True, colour=ACCENT) - 2 * mm
    for check in ("Every piece counted", "Checked as above", "Cleaned of what it met", "Caps and plugs still in"):
        page.canvas.rect(MARGIN, y - 4.5 * mm, 4 * mm, 4 * mm)
        y = page.words(check, MARGIN + 7 * mm, y - 0.4 * mm, across, 11) - 2.5 * mm
    page.words("Name ____________________   date ____________", MARGIN, y - SPACE, across, 11, colour=QUIET)
