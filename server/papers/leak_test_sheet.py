"""The certificate of a leak test: every cell, every round with its curve, leaks and repairs, and what holds."""

from collections.abc import Callable, Iterator, Sequence

from reportlab.lib.units import mm

from keel.formats.quantities import quantity_text, sentence_text, volume_text
from keel.log.proofs import CellProof, LeakState, Round
from keel.log.state import BuildState
from keel.reference.quantities import QUANTITIES, shown_text
from keel.studies.proof.series import Curve, SeriesResult
from keel.studies.proof.walk import WalkSeam
from server.papers.drawing import Frame
from server.papers.heading import Heading
from server.papers.page import INK, LINE, MARGIN, QUIET, STOP, Page
from server.papers.pressure_plot import pressure_plot
from server.papers.seam_sketch import seam_sketch

FOOT, PLOT, SPACE, LABEL = 20 * mm, 52 * mm, 3 * mm, 48 * mm
SKETCH = 58 * mm
ROWS = 7
"""Readings that are printed of a test; the whole of them is a file."""
Curves = Callable[[str], SeriesResult | None]
VERDICT_WORDS = {
    "pass": "TIGHT",
    "fail": "LEAKS",
    "too short": "TOO SHORT TO PROVE ANYTHING",
    "undecided": "UNDECIDED",
    "contradiction": "CONTRADICTION: A READING IS WRONG",
    "running": "STILL RUNNING",
    "stopped": "BROKEN OFF",
    "not walked": "NOT WALKED WHOLE",
}
ADVICE = (
    "This paper says what was tested, how and with what result, on the day it was tested. It does not stand in for the "
    "inspection that local code, an insurer or a rulebook asks for. Heat, drilling or a blow afterwards voids it."
)


def leak_test_pdf(
    heading: Heading, state: BuildState, seams: list[WalkSeam], corner: Sequence[float], curves: Curves
) -> bytes:
    """All leak tests of a tank as PDF; `curves` gives what the readings of a test said."""
    return _Certificate(heading, state, (seams, corner), curves).pdf()


class _Certificate:
    """Writes cell under cell, test under test."""

    def __init__(
        self, heading: Heading, state: BuildState, tank: tuple[list[WalkSeam], Sequence[float]], curves: Curves
    ) -> None:
        self.page, self.state, self.curves = Page(heading, "leak test"), state, curves
        self.units = heading.reader
        self.seams, self.corner = tank
        self.names = {seam.id: seam.name for seam in self.seams}
        self.leaks = [leak for cell in state.proofs for one in cell.rounds for leak in one.leaks]
        self.across = self.page.width - 2 * MARGIN

    def pdf(self) -> bytes:
        """All of it."""
        y = self.page.start("Leak test certificate")
        y = self._standing(y)
        for cell in self.state.proofs:
            for one in cell.rounds:
                y = self._round(cell, one, y)
        if not any(cell.rounds for cell in self.state.proofs):
            y = self.page.words("No leak test has been begun yet.", MARGIN, y - SPACE, self.across, 11)
        y = self._room(y, 34 * mm)
        y = self.page.words(ADVICE, MARGIN, y - 2 * SPACE, self.across, 8, colour=QUIET)
        signed = "Tested by ________________________    date ____________    signature ________________________"
        self.page.words(signed, MARGIN, y - 3 * SPACE, self.across, 10)
        self.page.next()
        return self.page.pdf()

    def _room(self, y: float, tall: float) -> float:
        """A height with so much room below it, on a new page where there is less."""
        if y - tall > FOOT:
            return y
        self.page.next()
        return self.page.start("Leak test certificate, continued")

    def _standing(self, y: float) -> float:
        """What holds today, in large letters."""
        holds = bool(self.state.proofs) and all(cell.standing == "passed" for cell in self.state.proofs)
        void = any(cell.standing == "void" for cell in self.state.proofs)
        said = "PASSED: every cell" if holds else "VOID" if void else "NOT PASSED"
        y = self.page.words(said, MARGIN, y - SPACE, self.across, 20, bold=True, colour=INK if holds else STOP) - 1 * mm
        for cell in self.state.proofs:
            told = f"{cell.cell}: {cell.standing}"
            if cell.lacks is not None:
                told += f", {sentence_text(cell.lacks, self.units)}"
            colour = INK if cell.standing == "passed" else STOP
            y = self.page.words(told, MARGIN, y, self.across, 11, bold=True, colour=colour)
        if self.leaks and self.seams:
            frame = Frame(MARGIN, y - SPACE - SKETCH, self.across, SKETCH)
            seam_sketch(self.page, frame, self.seams, self.leaks, self.corner)
            y -= SPACE + SKETCH
        return float(y - SPACE)

    def _round(self, cell: CellProof, one: Round, y: float) -> float:
        result = self.curves(one.begun.id) if one.begun.method == "pressure decay" else None
        has_curve = result is not None and result.count > 1
        y = self._room(y, 46 * mm + (PLOT if has_curve else 0))
        self.page.canvas.setStrokeColor(LINE)
        self.page.canvas.line(MARGIN, y, MARGIN + self.across, y)
        since = ", VOID SINCE" if one.verdict == "pass" and cell.standing == "void" else ""
        title = f"{cell.cell}, test {one.number}: {VERDICT_WORDS[one.verdict]}{since}"
        y = self.page.words(
            title,
            MARGIN,
            y - SPACE,
            self.across,
            12,
            bold=True,
            colour=INK if one.verdict == "pass" and not since else STOP,
        )
        if one.begun.simulated:
            said = "SIMULATED: readings of a stand-in gauge on a stand-in tank. It proves nothing."
            y = self.page.words(said, MARGIN, y, self.across, 9, bold=True, colour=STOP)
        rows = [row for row in self._rows(one, result) if row[1]]
        y = self.page.table(rows, MARGIN, y - 1 * mm, (LABEL, self.across - LABEL), 8.5, head=False, strong=(1,))
        if has_curve and result is not None:
            y = self._room(y, PLOT + SPACE)
            pressure_plot(self.page, Frame(MARGIN, y - SPACE - PLOT, self.across, PLOT), result, self.units)
            y = self._readings(result.curve, y - PLOT - SPACE)
        for leak in one.leaks:
            said = self._leak(leak)
            y = self._room(y, self.page.tall(said, self.across, 9) + SPACE)
            y = self.page.words(said, MARGIN, y - 1 * mm, self.across, 9, colour=INK if leak.repaired else STOP)
        return float(y - SPACE)

    def _readings(self, curve: Curve, y: float) -> float:
        """Some of the readings, evenly over the test, the first and the last among them."""
        chosen = sorted({round(n * (len(curve.minute) - 1) / (ROWS - 1)) for n in range(ROWS)})
        heads = ("finekpa", "finekpa", "c", "barokpa")
        units = [QUANTITIES[name].shown(self.units).unit for name in heads]
        names = ("gauge", "corrected", "air inside", "barometer")
        rows = [["minute", *(f"{name}, {unit}" for name, unit in zip(names, units, strict=True))]]
        for n in chosen:
            values = (curve.gauge_kpa[n], curve.corrected_kpa[n], curve.temperature_c[n], curve.barometer_kpa[n])
            digits = (None, None, 1, None)
            shown = [
                shown_text(name, value, self.units, digit).rpartition(" ")[0]
                for name, value, digit in zip(heads, values, digits, strict=True)
            ]
            rows.append([f"{curve.minute[n]:g}", *shown])
        y = self._room(y, len(rows) * 4.5 * mm)
        return self.page.table(rows, MARGIN, y - 1 * mm, [self.across / 5] * 5, 7.5)

    def _rows(self, one: Round, result: SeriesResult | None) -> Iterator[tuple[str, str]]:
        begun, kpa = one.begun, self._kpa
        ended = f" to {one.ended_when:%d %b %Y %H:%M}" if one.ended_when else ""
        yield "Method", begun.method
        yield "When, by whom", f"{one.when:%d %b %Y %H:%M}{ended} UTC, {one.author}"
        if begun.method != "filled, on dry paper":
            yield "Pressure, limiter", f"{kpa(begun.pressure_kpa)}, {begun.limiter} at {kpa(begun.limiter_kpa)}"
            yield "The cell bears", kpa(begun.safe_kpa) if begun.safe_kpa else ""
        yield "Stood open", ", ".join(begun.neighbours_open)
        yield "Bars clamped on", str(begun.braces) if begun.braces else ""
        yield "Air in it", volume_text(begun.volume_l, self.units) if begun.volume_l and begun.gauge else ""
        yield "Instrument", self._instrument(one)
        for caution in one.cautions:
            yield "Caution", sentence_text(caution, self.units)
        yield "Seams walked", str(len(one.walked)) if one.walked else ""
        yield from self._figures(one, result)
        yield "Note", " ".join(filter(None, (one.begun.note, one.ended.note if one.ended else "")))
        yield "Broken off", one.ended.stopped if one.ended else ""

    def _figures(self, one: Round, result: SeriesResult | None) -> Iterator[tuple[str, str]]:
        found = one.ended.found if one.ended else None
        if found is None:
            return
        sccm = self._sccm
        limit = sccm(one.begun.limit_sccm or 0.0)
        minutes = shown_text("min", found.minutes, self.units)
        least = shown_text("min", found.least_min, self.units)
        yield "Leak", f"{sccm(found.leak_sccm)} ± {sccm(found.uncertainty_sccm)} (U = 2u), limit {limit}"
        yield "Readings", f"{found.readings} over {minutes}, at least {least}; digest {found.digest}"
        start, end, corrected = self._kpa(found.start_kpa), self._kpa(found.end_kpa), self._kpa(found.corrected_kpa)
        yield "From, to, corrected", f"{start}, {end}, {corrected}"
        yield "Gauge alone", f"{sccm(found.uncorrected_sccm)}, which would have been a {found.uncorrected_verdict}"
        if result is None:
            return
        for caution in [*([result.stopped] if result.stopped else []), *result.cautions]:
            yield "Caution", sentence_text(caution, self.units)

    def _instrument(self, one: Round) -> str:
        gauge = one.begun.gauge
        if gauge is None:
            return ""
        when = f"calibrated {gauge.calibrated:%d %b %Y}" if gauge.calibrated else "CALIBRATION NOT KNOWN"
        temperature = shown_text("k", gauge.temperature_resolution_k, self.units, 2)
        digits = f"{self._kpa(gauge.resolution_kpa)}, {temperature}"
        return f"{gauge.name}, reads to {digits}, barometer to {self._kpa(gauge.barometer_resolution_kpa)}; {when}"

    def _leak(self, leak: LeakState) -> str:
        found = leak.found
        seam = self.names.get(found.subject, found.subject)
        number, along = self.leaks.index(leak) + 1, quantity_text("at_mm", found.at_mm, self.units)
        where = f"Leak {number}: {seam}, {along} along, {found.size} ({leak.author})."
        note = f" {found.note}." if found.note else ""
        if leak.repaired is None:
            return f"{where}{note} NOT MENDED."
        when = f", {leak.repaired_when:%d %b %Y}" if leak.repaired_when else ""
        return f"{where}{note} Mended by {leak.repaired_by}{when}: {leak.repaired.how}."

    def _kpa(self, value: float) -> str:
        return shown_text("finekpa", value, self.units)

    def _sccm(self, value: float) -> str:
        return shown_text("sccm", value, self.units)
