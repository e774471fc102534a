"""The wiring on paper: its one-line diagram, every wire, every pin, what stops the pumps, which lamp means what."""

from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm

from keel.analysis.tank import TankAnalysis
from keel.formats.quantities import cut_with_unit, volume_text, wire_text
from keel.reference.quantities import shown_text
from keel.studies.wiring.bonds import BONDING
from keel.studies.wiring.diagram import DIAGRAM, Box, Diagram, Line
from keel.studies.wiring.lamps import LAMPS
from keel.studies.wiring.pins import PINS, end_text
from keel.studies.wiring.runs import WIRE_RUNS
from keel.studies.wiring.supply import STOPPINGS
from keel.studies.wiring.wired import WIRED
from server.papers.flowing import FlowingSheet
from server.papers.heading import Heading
from server.papers.page import INK, MARGIN, QUIET, Page

CAUTION = (
    "CAUTION. Battery off, and the tank's vapour tested, before any wire near it is joined. No joint is soldered or "
    "shrunk with heat within reach of vapour. A fuse stands at the battery before anything is live. What local code "
    "leaves to licensed trades is theirs."
)
BOX_SHARE = 0.58
"""Of a column's width; the rest is for lines."""
MOST_NAMED = 2


def wiring_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """Diagram first, then tables."""
    sheet = _Sheet(heading, tank)
    sheet.diagram()
    sheet.tables()
    return sheet.pdf()


class _Sheet(FlowingSheet):
    def __init__(self, heading: Heading, tank: TankAnalysis) -> None:
        super().__init__(heading, "wiring", "Wiring", landscape(A4))
        self.tank, self.units = tank, heading.reader
        self.words(CAUTION, 8, bold=True)

    def diagram(self) -> None:
        """On a page of its own, as large as it fits."""
        shown = self.tank[DIAGRAM]
        if shown.boxes:
            _Drawn(self.page, self.tank, shown, self.y - 4 * mm).draw()
        self.page.next()
        self.y = self.page.start("Wiring, wires and pins")

    def tables(self) -> None:
        """One after the other."""
        self._wires()
        self._pins()
        self._stops()
        self._lamps()
        self._bonds()

    def _amps(self, value: float | None) -> str:
        return "not known" if value is None else shown_text("a", value, self.units)

    def _wires(self) -> None:
        runs, figures = self.tank[WIRE_RUNS], self.tank[WIRED]
        rows = [["Wire", "From", "To", "Colour, insulation", "Size", "Length", "Carries", "Limit", "Fuse", "Lost"]]
        for wire in self.tank.design.wiring.wires:
            one = figures.wire(wire.id)
            if one is None:
                continue
            both = f"{one.area_mm2:.4g} mm²" + ("" if one.gauge is None else f", AWG {one.gauge}")
            rows.append(
                [
                    wire.name,
                    end_text(wire.start, runs),
                    end_text(wire.end, runs),
                    ", ".join(part for part in (wire.colour, wire.insulation) if part),
                    both,
                    cut_with_unit(one.length_mm, self.units),
                    self._amps(one.current_a),
                    self._amps(one.carries_a),
                    "none" if one.fuse_a is None else self._amps(one.fuse_a),
                    f"{one.drop_v:.3f} V",
                ]
            )
        self.table("Wires", rows, [13, 50, 50, 52, 31, 20, 17, 14, 13, 14], (0, 1, 2, 3, 4))

    def _pins(self) -> None:
        rows = [["At", "Terminal", "Wires", "To", "Feeds", "Carries"]]
        for pin in self.tank[PINS]:
            wires = [f"{w.name} {w.colour} {wire_text(w.area_mm2, self.units)}" for w in pin.wires]
            terminal = f"pin {pin.terminal}" if pin.kind == "connector" else pin.terminal
            mark = f"{terminal} ({pin.marking})" if pin.marking else terminal
            others, feeds = "; ".join(w.other for w in pin.wires), ", ".join(pin.feeds)
            carries = self._amps(pin.current_a) if pin.wires else ""
            rows.append([pin.name, mark, "; ".join(wires) or "open", others, feeds, carries])
        self.table("Wires and pins: which wire feeds what", rows, [50, 26, 60, 66, 58, 18], (0, 1, 2, 3, 4))

    def _stops(self) -> None:
        rows = [["Pump", "In a crash", "When the engine stands", "Before the engine runs"]]
        for one in self.tank[STOPPINGS]:
            primes = ", ".join(one.primes) or ("not said" if one.without_engine else "as the ignition does")
            stops = [", ".join(names) or "NOTHING" for names in (one.in_crash, one.without_engine + one.by_controller)]
            rows.append([one.name, *stops, primes])
        if len(rows) > 1:
            self.table("What stops the pumps", rows, [60, 70, 70, 70], (0, 1, 2, 3))

    def _lamps(self) -> None:
        rows = [["Lamp", "Lit means", "Switched by", "Fuel left then"]]
        for lamp in self.tank[LAMPS]:
            by = "; ".join(f"{level.name} in {level.tank}, {level.closes}" for level in lamp.by) or ", ".join(
                lamp.others
            )
            left = [volume_text(level.left_l, self.units) for level in lamp.by if level.left_l is not None]
            rows.append([lamp.name, lamp.means or "not said", by or "nothing: always lit", "; ".join(left)])
        if len(rows) > 1:
            self.table("Which lamp means what", rows, [50, 90, 90, 40], (0, 1, 2, 3))

    def _bonds(self) -> None:
        rows = [["Metal", "Behind", "To the chassis", f"Reading, at most {self.tank.workshop.rules.bond_ohm:g} Ω"]]
        for piece in self.tank[BONDING].pieces:
            if piece.metal != "chassis":
                said = "strap" if piece.joined else "NOT BONDED"
                rows.append([piece.name, piece.behind, said, ""])
        self.table("Bonds", rows, [70, 90, 50, 60], (0, 1, 2, 3))


class _Drawn:
    """The diagram drawn into what is left of a page."""

    def __init__(self, page: Page, tank: TankAnalysis, shown: Diagram, top: float) -> None:
        self.page, self.tank, self.shown, self.top = page, tank, shown, top
        self.column = (page.width - 2 * MARGIN) / max(shown.columns - 0.3, 1)
        self.row = min(17 * mm, (top - MARGIN) / max(shown.rows, 1))
        self.wide, self.high = BOX_SHARE * self.column, min(9 * mm, 0.55 * self.row)
        self.size = max(4.5, min(7.5, self.column / (5.2 * mm), self.row / (2 * mm)))
        self.wires = {wire.id: wire.name for wire in tank.design.wiring.wires}
        self.areas = {one.id: one.area_mm2 for one in tank[WIRED].wires}
        self.ratings = {one.id: one.rating_a for one in tank[WIRED].fuses}

    def draw(self) -> None:
        """Lines, then boxes over them."""
        for line in self.shown.lines:
            self._line(line)
        for box in self.shown.boxes:
            self._box(box)

    def _middle(self, row: float) -> float:
        return float(self.top - row * self.row - self.high / 2)

    def _left(self, column: int) -> float:
        return float(MARGIN + column * self.column)

    def _line(self, line: Line) -> None:
        canvas = self.page.canvas
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.7)
        path = canvas.beginPath()
        gap = self.column - self.wide
        for place, (column, row) in enumerate(line.spots[:-1]):
            x, y, last = self._left(column) + self.wide, self._middle(row), place + 2 == len(line.spots)
            (path.moveTo if place == 0 else path.lineTo)(x, y)
            lane = x + gap * (0.12 + 0.08 * ((column * 7 + int(row) * 5) % 4))
            there, below = line.spots[place + 1]
            level = self._entry(line) if last else self._middle(below)
            for spot in ((lane, y), (lane, level), (self._left(there) + (0 if last else self.wide), level)):
                path.lineTo(*spot)
        canvas.drawPath(path, stroke=1, fill=0)
        size = wire_text(max(self.areas.get(name, 0.0) for name in line.wires), self.page.heading.reader)
        said = f"{', '.join(self.wires[name] for name in line.wires)} {size}"
        self.page.label(
            said, self._left(line.spots[-1][0]) - 0.6 * mm, self._entry(line) + 0.5 * mm, self.size * 0.8, align="right"
        )

    def _entry(self, line: Line) -> float:
        """Lines that end at the same box enter it one under the other."""
        step = min(3.2 * mm, 0.8 * self.high / max(1, line.entries - 1))
        return float(self._middle(line.spots[-1][1]) - (line.entry - (line.entries - 1) / 2) * step)

    def _box(self, box: Box) -> None:
        canvas = self.page.canvas
        x, y = self._left(box.column), self._middle(box.row)
        canvas.setStrokeColor(INK)
        canvas.setFillColor(self.page.paper)
        canvas.setLineWidth(0.9)
        canvas.roundRect(x, y - self.high / 2, self.wide, self.high, 1.2 * mm, stroke=1, fill=1)
        rating = self.ratings.get(box.id) if box.kind == "fuse" else None
        name = box.name if rating is None else f"{box.name}, {rating:g} A"
        tall = self.page.tall(name, self.wide - 2 * mm, self.size, bold=True)
        top = y + min(self.high, tall) / 2 + 0.3 * mm
        self.page.words(name, x + 1 * mm, top, self.wide - 2 * mm, self.size, bold=True, align="middle", lines=2)
        if box.earths:
            room = self.column - 2 * mm
            several = [*box.earths[:MOST_NAMED], *(["…"] if len(box.earths) > MOST_NAMED else [])]
            said = "; ".join(several)
            self.page.words(said, x, y - self.high / 2 - 0.4 * mm, room, self.size * 0.8, colour=QUIET, lines=1)
