"""The hand-over on paper: what stays open and who answers for it, the fill as poured, lines held, every joint."""

from reportlab.lib.units import mm

from keel.formats.quantities import sentence_text, volume_text
from keel.log.commission import Commission
from keel.log.state import BuildState
from keel.reference.quantities import shown_text
from server.papers.heading import Heading
from server.papers.page import MARGIN, Page

OPEN = (28 * mm, 84 * mm, 62 * mm)
FILL = (64 * mm, 34 * mm, 76 * mm)
HELD = (64 * mm, 34 * mm, 76 * mm)
JOINTS = (10 * mm, 96 * mm, 24 * mm, 44 * mm)
AT_ONCE, ROOM = 10, 100 * mm
"""Rows of a table that are set together, and the height that they need."""


def handover_pdf(heading: Heading, state: BuildState) -> bytes:
    """As far as it is: what isn't done yet says so."""
    sheet = _Sheet(heading, state)
    sheet.open_items()
    sheet.filled()
    sheet.lines()
    return sheet.page.pdf()


class _Sheet:
    """Writes table under table, page after page."""

    def __init__(self, heading: Heading, state: BuildState) -> None:
        self.page, self.state, self.units = Page(heading, "hand-over"), state, heading.reader
        handed = any(one.operation.id == "commission:hand-over" and one.standing == "done" for one in state.operations)
        self.y = self.page.start("Hand-over" if handed else "Hand-over, not finished") - 5 * mm

    def open_items(self) -> None:
        """Everything in the ledger, with the name and the reason of whoever lets it stay."""
        rows: list[tuple[str, ...]] = [("It is", "What", "Stays, because")]
        for item in self.state.ledger:
            stays = f"{item.stays} ({item.by})" if item.stays else f"OPEN: before {item.before}"
            rows.append((item.why, sentence_text(item.what, self.units), stays))
        self._table("Open items", rows if len(rows) > 1 else [*rows, ("", "nothing is open", "")], OPEN)

    def filled(self) -> None:
        """Litres and ohms, step by step."""
        found: Commission = self.state.commission
        titles = {one.operation.id: sentence_text(one.operation.title, self.units) for one in self.state.operations}
        names = self.state.names
        rows: list[tuple[str, ...]] = [("Step", "In the cell", "Senders read")]
        for one in found.poured:
            read = ", ".join(f"{names.get(sender, sender)} {ohms:g} Ω" for sender, ohms in one.poured.ohms.items())
            rows.append((titles.get(one.step, one.step), volume_text(one.poured.litres, self.units), read))
        self._table("First fill", rows if len(rows) > 1 else [*rows, ("nothing poured yet", "", "")], FILL)

    def lines(self) -> None:
        """Pressures held, and every joint with its marks."""
        rows: list[tuple[str, ...]] = [("Line", "Asked", "Held")]
        for line in self.state.commission.held:
            asked = f"{shown_text('kpa', line.kpa, self.units)}, {line.minutes:g} min"
            held = "; ".join(f"{minute:g} min {shown_text('kpa', kpa, self.units)}" for minute, kpa in line.readings)
            rows.append((line.name, asked, held or "not held yet"))
        if len(rows) > 1:
            self._table("Lines at working pressure", rows, HELD)
        joints: list[tuple[str, ...]] = [("", "Joint", "Seen", "Marks")]
        for number, joint in enumerate(self.state.commission.joints, start=1):
            joints.append((str(number), joint.name, joint.found or "not seen", ", ".join(joint.marked)))
        if len(joints) > 1:
            self._table("Joints", joints, JOINTS)

    def _table(self, title: str, rows: list[tuple[str, ...]], columns: tuple[float, ...]) -> None:
        """So many rows at a time, on a new page where there is no room for them."""
        head, rest = rows[0], rows[1:]
        for first in range(0, len(rest), AT_ONCE):
            if self.y < ROOM:
                self.page.next()
                self.y = self.page.start(title) - 5 * mm
            if first == 0:
                self.page.label(title, MARGIN, self.y, 11, bold=True)
                self.y -= 5 * mm
            part = [head, *rest[first : first + AT_ONCE]]
            self.y = self.page.table(part, MARGIN, self.y, columns, texts=range(len(columns))) - 4 * mm
        self.y -= 5 * mm
