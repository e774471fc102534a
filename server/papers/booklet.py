"""What the customer gets: how their tank works, what it holds, what the gauge says, what to look after."""

from collections.abc import Sequence

from reportlab.lib.units import mm

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import TankAnalysis
from keel.formats.quantities import cut_with_unit, sentence_text, volume_text
from keel.log.state import BuildState
from keel.studies.gauge.readings import GaugeTruth
from keel.studies.handover.explanation import EXPLANATION
from keel.studies.liquid.strapping import strapping_of_cells
from server.papers.heading import Heading
from server.papers.page import MARGIN, STOP, Page

LINE, FOOT = 3 * mm, 30 * mm
GAUGE_COLUMNS = (26 * mm, 34 * mm, 40 * mm, 60 * mm)
STAYS = (60 * mm, 114 * mm)
STRAPS = (34 * mm, 34 * mm)
ROWS = 14
CAUTIONS = (
    "Vapour runs along the floor and burns from a spark metres away: engine off, no flame, cap off last, on first.",
    "Smell of fuel, a wet joint, a gauge that falls at rest: battery off, nobody starts it, have it looked at.",
    "No welding, grinding or drilling on or near this tank unless a reading says that it is free of vapour.",
    "Lines stand under pressure after the engine stops: let it out before a joint is opened, goggles on.",
    "Rulebook and local law come before this paper.",
)
CARE = (
    "Look at every joint, strap and clamp after the first day, then each time the vehicle is on stands.",
    "Straps and bolts with a paint mark: the mark is whole, or the bolt is tightened and marked anew.",
    "Drain water and dirt at the lowest place once a season; what comes out says how the inside is.",
    "Vent and cap: air goes in and out, the seal is soft, the valve shuts when it is turned over.",
)


def booklet_pdf(heading: Heading, tank: TankAnalysis, state: BuildState, gauge: GaugeTruth) -> bytes:
    """One booklet; `gauge` as it was poured where it was."""
    book = _Booklet(heading)
    book.works(tank)
    book.holds(tank)
    book.needle(gauge)
    book.stays(state)
    book.says("Take care", CAUTIONS)
    book.says("Look after it", CARE)
    return book.page.pdf()


class _Booklet:
    """Chapter under chapter, page after page."""

    def __init__(self, heading: Heading) -> None:
        self.page, self.units = Page(heading, "customer's booklet"), heading.reader
        self.wide = self.page.width - 2 * MARGIN
        self.y = self.page.start("Your fuel tank, and how it works") - LINE

    def _room(self, needed: float) -> None:
        if self.y - needed < FOOT:
            self.page.next()
            self.y = self.page.start("Your fuel tank, and how it works") - LINE

    def _title(self, title: str, needed: float = 30 * mm) -> None:
        self._room(needed)
        self.page.label(title, MARGIN, self.y - 4 * mm, 12, bold=True)
        self.y -= 8 * mm

    def says(self, title: str, lines: Sequence[str]) -> None:
        """Sentences under a title."""
        self._title(title)
        for line in lines:
            self._room(self.page.tall(line, self.wide, 10) + LINE)
            self.y = self.page.words(line, MARGIN, self.y, self.wide, 10) - LINE / 2
        self.y -= LINE

    def works(self, tank: TankAnalysis) -> None:
        """Its own system in plain words."""
        for section in tank[EXPLANATION]:
            self.says(section.title, [sentence_text(line, self.units) for line in section.lines])

    def holds(self, tank: TankAnalysis) -> None:
        """Litres by height, cell by cell."""
        for cell in strapping_of_cells(tank[SOLIDS]):
            rows = [("Height", "In it")]
            every = max(1, len(cell.rows) // ROWS)
            told = [*cell.rows[::every], *(cell.rows[-1:] if (len(cell.rows) - 1) % every else [])]
            rows += [(cut_with_unit(row.level_mm, self.units), volume_text(row.volume_l, self.units)) for row in told]
            self._title(f"What the {cell.cell} holds, by the height of the fuel over its lowest place", 95 * mm)
            self.y = self.page.table(rows, MARGIN, self.y, STRAPS) - 2 * LINE

    def needle(self, gauge: GaugeTruth) -> None:
        """What is in the tank when the needle stands on each eighth."""
        for reading in gauge.readings:
            rows = [("Needle", "Sender", "In the tank", "An even face would say")]
            for n, point in enumerate(reading.eighths):
                shown = volume_text(point.litres - point.error_l, self.units)
                rows.append((f"{n}/8", f"{point.ohms:.0f} Ω", volume_text(point.litres, self.units), shown))
            self._title(f"Gauge: {reading.name}", 70 * mm)
            self.y = self.page.table(rows, MARGIN, self.y, GAUGE_COLUMNS) - 2 * LINE

    def stays(self, state: BuildState) -> None:
        """What somebody answers for, and what is still open."""
        staying = [item for item in state.ledger if item.stays]
        waiting = [item for item in state.ledger if not item.stays]
        if staying:
            self._title("Left as it is, and by whom")
            rows = [("What", "Why")]
            rows += [(sentence_text(one.what, self.units), f"{one.stays} ({one.by})") for one in staying]
            self._room(12 * mm * len(rows))
            self.y = self.page.table(rows, MARGIN, self.y, STAYS, texts=range(2)) - 2 * LINE
        if waiting:
            self._title("Not to be used yet")
            for item in waiting:
                said = f"{sentence_text(item.what, self.units)}: before {item.before}"
                self._room(self.page.tall(said, self.wide, 10))
                self.y = self.page.words(said, MARGIN, self.y, self.wide, 10, colour=STOP) - LINE / 2
            self.y -= LINE
