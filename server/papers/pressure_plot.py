"""Pressure over time on paper: as read, corrected, and the largest leak allowed."""

from collections.abc import Sequence

import numpy as np
from reportlab.lib.colors import Color
from reportlab.lib.units import mm

from keel.reference.quantities import QUANTITIES, UnitSet
from keel.studies.proof.series import SeriesResult
from server.papers.drawing import Frame
from server.papers.page import ACCENT, INK, LINE, QUIET, STOP, Page

LEFT, FOOT, KEY = 14 * mm, 8 * mm, 5 * mm
STEPS = (1, 2, 5)
LINES = 5


def pressure_plot(page: Page, frame: Frame, result: SeriesResult, units: UnitSet) -> None:
    """The curve of a test in a frame of the page."""
    curve, shown = result.curve, QUANTITIES["finekpa"].shown(units)
    lines: list[tuple[Sequence[float], Color, Sequence[float], str]] = [
        (curve.gauge_kpa, QUIET, (0.8, 1.8), "as read"),
        (result.limit_kpa, STOP, (4, 2), "largest leak allowed"),
        (curve.corrected_kpa, ACCENT, (), "corrected for temperature and barometer"),
    ]
    every = np.array([value for values, *_ in lines for value in values]) / shown.per
    minutes = np.array(curve.minute)
    low, high = float(every.min()), float(every.max())
    room = 0.06 * (high - low or 1.0)
    plot = _Plot(frame, (float(minutes[0]), float(minutes[-1])), (low - room, high + room))
    plot.grid(page, shown.unit)
    for values, colour, dash, _ in lines:
        plot.line(page, minutes, np.array(values) / shown.per, colour, dash)
    x = frame.x + LEFT
    for _, colour, dash, name in lines:
        _stroke(page, colour, dash)
        page.canvas.line(x, frame.y + frame.height - 1 * mm, x + 8 * mm, frame.y + frame.height - 1 * mm)
        page.label(name, x + 9 * mm, frame.y + frame.height - 2 * mm, 7)
        x += 13 * mm + page.canvas.stringWidth(name, page.font, 7)
    page.canvas.setDash()


class _Plot:
    """Turns minutes and pressures into points of a page."""

    def __init__(self, frame: Frame, across: tuple[float, float], up: tuple[float, float]) -> None:
        self.left, self.foot = frame.x + LEFT, frame.y + FOOT
        self.width, self.height = frame.width - LEFT, frame.height - FOOT - KEY
        self.across, self.up = across, up

    def x(self, minute: float) -> float:
        """Across the page [points]."""
        return float(self.left + self.width * (minute - self.across[0]) / (self.across[1] - self.across[0] or 1.0))

    def y(self, value: float) -> float:
        """Up the page [points]."""
        return float(self.foot + self.height * (value - self.up[0]) / (self.up[1] - self.up[0]))

    def grid(self, page: Page, unit: str) -> None:
        """Rules at round values, with their figures."""
        page.canvas.setDash()
        step = round_step(self.up[1] - self.up[0])
        digits = max(0, -int(np.floor(np.log10(step) + 1e-9)))
        for value in np.arange(np.ceil(self.up[0] / step) * step, self.up[1], step):
            page.canvas.setStrokeColor(LINE)
            page.canvas.setLineWidth(0.3)
            page.canvas.line(self.left, self.y(value), self.left + self.width, self.y(value))
            page.label(f"{value:.{digits}f}", self.left - 1.5 * mm, self.y(value) - 1 * mm, 7, align="right")
        page.label(unit, self.left - 1.5 * mm, self.foot + self.height + 1 * mm, 7, colour=QUIET, align="right")
        step = round_step(self.across[1] - self.across[0])
        for minute in np.arange(0.0, self.across[1] + 1e-9, step):
            if minute >= self.across[0]:
                page.label(f"{minute:g}", self.x(minute), self.foot - 4 * mm, 7, align="middle")
        page.label("min", self.left + self.width, self.foot - 7 * mm, 7, colour=QUIET, align="right")
        page.canvas.setStrokeColor(INK)
        page.canvas.setLineWidth(0.6)
        page.canvas.line(self.left, self.foot, self.left + self.width, self.foot)

    def line(self, page: Page, minutes: np.ndarray, values: np.ndarray, colour: Color, dash: Sequence[float]) -> None:
        """One curve."""
        _stroke(page, colour, dash)
        path = page.canvas.beginPath()
        for n, (minute, value) in enumerate(zip(minutes, values, strict=True)):
            (path.lineTo if n else path.moveTo)(self.x(float(minute)), self.y(float(value)))
        page.canvas.drawPath(path)


def _stroke(page: Page, colour: Color, dash: Sequence[float]) -> None:
    page.canvas.setStrokeColor(colour)
    page.canvas.setLineWidth(0.9)
    page.canvas.setDash(list(dash))


def round_step(span: float) -> float:
    """A round step that rules some five lines over a span."""
    rough = max(span, 1e-9) / LINES
    power = 10 ** np.floor(np.log10(rough))
    return float(next((step * power for step in STEPS if step * power >= rough), 10 * power))
