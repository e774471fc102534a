"""The traveller on paper: operations with a box to tick, gates before what they hold, a code for the phone."""

from collections.abc import Sequence

from reportlab.graphics.barcode.qr import QrCodeWidget
from reportlab.graphics.renderPDF import draw as draw_graphics
from reportlab.graphics.shapes import Drawing
from reportlab.lib.colors import Color
from reportlab.lib.units import mm

from keel.formats.quantities import sentence_text
from keel.log.gates import ConditionState, GateState
from keel.log.state import BuildState, GoodsState, OperationState
from keel.reference.quantities import shown_text
from keel.studies.build.operation import CountsMatch, JointsDry, LineHolds, Looked, MeasurementsAgree, NothingOpen
from keel.studies.buying.line_goods import is_of_lines
from keel.studies.result import Words, words
from server.papers.heading import Heading
from server.papers.page import ACCENT, CAUTION, INK, LINE, MARGIN, QUIET, STOP, Page

BOX, NUMBER, PLANNED, SIGNED = 4 * mm, 9 * mm, 20 * mm, 46 * mm
FOOT = 18 * mm
QR = 30 * mm
Line = tuple[str, float, bool, Color]
GAP = 2 * mm
CONDITION_WORDS = {
    "all done": "The work before it is done",
    "all here": "All of it counted in",
    "flushed clean": "Flushed until nothing came. Rounds: ______  last brought: ____________",
    "reading at most": "Reading: ______  at: ______",
    "not shut": "The gate before it is open",
    "free of vapour": "It never held fuel, or reading: ______ % of the lower explosive limit at: ______",
    "poured in": "Poured in all: ________  gauge reads: ________",
    "proved": "Leak test passed in every cell, nothing welded, drilled or ground since",
}


def traveller_pdf(heading: Heading, state: BuildState, address: str) -> bytes:
    """The order of work as far as it is, as PDF; `address` is that of its page for a phone."""
    return _Traveller(heading, state).pdf(address)


class _Traveller:
    """Writes operation under operation, page after page."""

    def __init__(self, heading: Heading, state: BuildState) -> None:
        self.page, self.state, self.units = Page(heading, "traveller"), state, heading.reader
        self.first: dict[str, int] = {}
        self.left = MARGIN + NUMBER + BOX + GAP
        self.width = self.page.width - MARGIN - SIGNED - PLANNED - 2 * GAP - self.left

    def pdf(self, address: str) -> bytes:
        """All of it."""
        y = self._start(address)
        told: set[str] = set()
        for number, one in enumerate(self.state.operations, start=1):
            gates = [gate for gate in self.state.gates if one.operation.id in gate.gate.before]
            new = [gate for gate in gates if gate.gate.id not in told]
            told |= {gate.gate.id for gate in new}
            tall = sum(self._gate(gate, 0, draws=False) for gate in new) + self._operation(one, number, 0, draws=False)
            if y - tall < FOOT:
                self.page.next()
                y = self.page.start("Traveller, continued")
            for gate in new:
                y -= self._gate(gate, y, draws=True)
            y -= self._operation(one, number, y, draws=True)
        self.page.next()
        return self.page.pdf()

    def _start(self, address: str) -> float:
        page = self.page
        y = page.start("Traveller: the order of work, with its gates")
        code = QrCodeWidget(address, barLevel="M")
        low_x, low_y, high_x, high_y = code.getBounds()
        drawing = Drawing(QR, QR, transform=[QR / (high_x - low_x), 0, 0, QR / (high_y - low_y), 0, 0])
        drawing.add(code)
        draw_graphics(drawing, page.canvas, page.width - MARGIN - QR, y - QR)
        across = page.width - 2 * MARGIN - QR - GAP
        below = page.words(f"On the phone: {address}", MARGIN, y - 2 * mm, across, 10, bold=True)
        said = (
            "Tick, sign and time each operation here or there. A gate is passed when all its boxes are ticked, or by "
            "somebody who puts name and reason to it. What is ticked on paper is brought into the log the same day."
        )
        below = page.words(said, MARGIN, below - 1 * mm, across, 9) - 1 * mm
        for one in self.state.agreed:
            agreed = f"Agreed, {one.agreed.about}: {one.agreed.what} ({one.agreed.consent})"
            below = page.words(agreed, MARGIN, below, across, 9, bold=True)
        return float(min(y - QR, below) - 3 * mm)

    def _said(self, sentence: Words) -> str:
        return sentence_text(sentence, self.units)

    def _lines(self, lines: Sequence[Line], x: float, y: float, draws: bool) -> float:
        """Lines under each other; how tall they are."""
        start = y
        for text, size, bold, colour in lines:
            if draws:
                y = self.page.words(text, x, y, self.width, size, bold=bold, colour=colour)
            else:
                y -= self.page.tall(text, self.width, size, bold=bold)
        return float(start - y)

    def _operation(self, one: OperationState, number: int, y: float, *, draws: bool) -> float:
        operation = one.operation
        ready = [*operation.tools, *(self._said(line) for line in operation.consumables)]
        lines: list[Line] = [(self._said(operation.title), 10, True, INK)]
        lines += [("Have ready: " + ", ".join(ready), 7.5, False, QUIET)] if ready else []
        lines += [(line, 7.5, False, CAUTION) for line in self._cautions(one, number)]
        lines += [(f"Cheap only now: {self._said(line)}", 7.5, False, ACCENT) for line in operation.cheap_now]
        lines += [(f"{n}. {self._said(line)}", 8, False, INK) for n, line in enumerate(operation.steps, start=1)]
        lines += [
            (f"Count {each.what} {each.way}: ______ of {each.expected}", 8, False, INK) for each in operation.counts
        ]
        if operation.kind == "receive":
            lines += [(self._bought(item), 8, False, INK) for item in self.state.goods if not is_of_lines(item.item)]
        if one.changed:
            lines.append((f"CHANGED SINCE IT WAS DONE: {', '.join(one.changed)}", 8, True, STOP))
        tall = self._lines(lines, self.left, y - GAP, draws) + 2 * GAP
        if draws:
            self._margins(one, number, y, tall)
        return float(tall)

    def _cautions(self, one: OperationState, number: int) -> list[str]:
        """In full where they come first, afterwards by the operation that has them."""
        said = [self._said(line) for line in one.operation.cautions]
        for line in said:
            self.first.setdefault(line, number)
        again = sorted({self.first[line] for line in said} - {number})
        rest = [f"Cautions of {', '.join(map(str, again))} hold here too."] if again else []
        return [line for line in said if self.first[line] == number] + rest

    def _bought(self, state: GoodsState) -> str:
        came = f"{state.whole} here" if state.whole else "______ here"
        caps = f"{state.caps} caps" if state.caps else "______ caps"
        return f"{state.item.quantity} × {self._said(state.item.title)}: {came}, {caps}"

    def _margins(self, one: OperationState, number: int, y: float, tall: float) -> None:
        page, minutes = self.page, one.operation.minutes
        settled = one.standing in ("done", "skipped")
        page.label(str(number), MARGIN, y - GAP - 3 * mm, 10, colour=QUIET)
        self._box(MARGIN + NUMBER - GAP, y - GAP - BOX, ticked=settled)
        right = page.width - MARGIN
        if minutes is not None:
            page.label(shown_text("min", minutes, self.units), right - SIGNED - GAP, y - GAP - 3 * mm, 9, align="right")
        who = f"{', '.join(one.by)}, {one.when:%d %b %H:%M}" if settled and one.when else "by ____________  min ______"
        taken = f"{one.spent_min:.0f} min" if one.spent_min is not None else ""
        reason = f"{one.standing}: {one.reason}" if one.reason else ""
        page.words("  ".join(filter(None, (who, taken, reason))), right - SIGNED, y - GAP, SIGNED, 8)
        page.canvas.setStrokeColor(LINE)
        page.canvas.setLineWidth(0.4)
        page.canvas.line(MARGIN, y - tall, right, y - tall)

    def _box(self, x: float, y: float, *, ticked: bool) -> None:
        canvas = self.page.canvas
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.9)
        canvas.rect(x, y, BOX, BOX)
        if ticked:
            canvas.setLineWidth(1.6)
            canvas.line(x + 0.7 * mm, y + 2 * mm, x + 1.7 * mm, y + 0.8 * mm)
            canvas.line(x + 1.7 * mm, y + 0.8 * mm, x + 3.4 * mm, y + 3.4 * mm)

    def _gate(self, gate: GateState, y: float, *, draws: bool) -> float:
        unmet = gate.standing == "overridden"
        lines: list[Line] = [(f"GATE: {self._said(gate.gate.title)}", 9.5, True, STOP if unmet else ACCENT)]
        lines.append((self._said(gate.gate.why), 7.5, False, QUIET))
        head = self._lines(lines, self.left, y - GAP, draws)
        below = y - GAP - head
        for condition in gate.conditions:
            said = self._condition(condition)
            if draws:
                self._box(self.left, below - BOX - 0.6 * mm, ticked=condition.lacks is None)
                self.page.words(said, self.left + BOX + GAP, below - 0.8 * mm, self.width, 8.5)
            below -= max(BOX + 1.2 * mm, self.page.tall(said, self.width, 8.5) + 1.2 * mm)
        if gate.override is not None:
            over = gate.override
            said = f"PASSED UNMET by {over.name}, {over.when:%d %b %H:%M}: {over.reason}"
            below -= self._lines([(said, 9, True, STOP)], self.left, below, draws)
        tall = y - below + GAP
        if draws:
            canvas = self.page.canvas
            canvas.setStrokeColor(STOP if unmet else ACCENT)
            canvas.setLineWidth(1.2)
            canvas.line(self.left - GAP, y - GAP, self.left - GAP, y - tall + GAP)
        return float(tall)

    def _condition(self, state: ConditionState) -> str:
        asked = state.condition
        if isinstance(asked, Looked):
            return self._said(asked.words) + (" (photo)" if asked.photo else "")
        if isinstance(asked, MeasurementsAgree):
            said = "Drawn {planned_sheet}. Measured: ________ by ______ and ________ by ______"
            return self._said(words(said, planned_sheet=asked.planned_mm))
        if isinstance(asked, CountsMatch):
            of = ", ".join(asked.kinds) or "all else that was counted"
            return f"As many out as in of {of}: ______ in, ______ out"
        if isinstance(asked, LineHolds):
            said = "{name} at {working_kpa}: begun with ________ , after {hold_min} ________"
            return self._said(words(said, name=asked.name, working_kpa=asked.kpa, hold_min=asked.minutes))
        if isinstance(asked, JointsDry):
            again = ", looked at again since" if asked.after else " and marked, in walking order"
            return f"All {len(asked.joints)} joints dry{again}"
        if isinstance(asked, NothingOpen):
            return f"Nothing open that has to be closed before {asked.before}. By the ledger, at: ______"
        return CONDITION_WORDS[asked.kind]
