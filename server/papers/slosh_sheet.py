"""A slosh run on one page: what it was driven over, traces, dry spells, and the steady acceleration it bears."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm

from keel.formats.quantities import ReaderUnits, length_text, sentence_text, volume_text
from keel.solid.polyhedron import Array
from keel.studies.slosh.log import Log
from keel.studies.slosh.run import Ran
from keel.studies.slosh.run_view import RunShown
from keel.studies.slosh.starvation import StarvationMap
from server.papers.heading import Heading
from server.papers.page import FUEL, MARGIN, QUIET, STOP, Page

COLOURS = [
    HexColor(c) for c in ("#c96f12", "#4b3fa0", "#35505c", "#b3261e", "#2e6b3f", "#7a5a00", "#1f5f8b", "#8a5a44")
]
PLOT_LEFT = MARGIN + 16 * mm
MOST_POINTS = 900
MOST_SPELLS = 12
MAP_FILLS = (0.1, 0.2, 0.3, 0.5, 0.75)


@dataclass(frozen=True)
class Trace:
    """One line of a plot."""

    name: str
    values: Array
    colour: HexColor


@dataclass(frozen=True)
class Lowest:
    """What the search for the lowest start without a dry spell found [L]; empty where even brimful runs dry."""

    litres: float | None


def _through(lowest: Lowest | None, units: ReaderUnits) -> str:
    if lowest is None:
        return "not looked for"
    return "never" if lowest.litres is None else volume_text(lowest.litres, units)


def slosh_pdf(
    heading: Heading, log: Log, ran: Ran, shown: RunShown, steady: StarvationMap, lowest: Lowest | None
) -> bytes:
    """A run as a one-page A4 PDF.

    Parameters
    ----------
    heading : Heading
        Whose tank, which revision.
    log, ran, shown
        What it was driven over, and what came of it.
    steady : StarvationMap
        The steady pushes that uncover the pickup.
    lowest : Lowest, optional
        The lowest start without a dry spell; None where nobody looked for it.
    """
    page, units = Page(heading, "slosh run"), heading.reader
    y = _figures(page, shown, lowest, page.start(f"Slosh run over {shown.name}"))

    def volume(value: float) -> str:
        return volume_text(value, units)

    def length(value: float) -> str:
        return length_text(value, units)

    g = [Trace("forward", log.forward_g, COLOURS[2]), Trace("left", log.left_g, COLOURS[1])]
    y = _plot(page, ran, "lateral and longitudinal acceleration, g", g, lambda v: f"{v:.1f}", y, 28 * mm)
    over = [Trace("under the surface", ran.depths_mm.max(axis=1), FUEL)]
    y = _plot(page, ran, "pickup depth" + (", mm" if units == "mm_l" else ""), over, length, y, 30 * mm)
    rooms = [Trace(room.name, ran.held_l[:, i], COLOURS[i % len(COLOURS)]) for i, room in enumerate(shown.rooms)]
    y = _plot(page, ran, "in each compartment", rooms, volume, y, 34 * mm)
    if shown.refill:
        y = _plot(page, ran, "surge tank", [Trace("surge", ran.surge_l, FUEL)], volume, y, 22 * mm)
    page.label(f"0 to {ran.times_s[-1]:.1f} s; dry spells are shaded", PLOT_LEFT, y, colour=QUIET)
    y -= 7 * mm
    _spells(page, shown, y)
    _map(page, steady, page.width - MARGIN - 42 * mm, y - 44 * mm)
    _foot(page, shown)
    page.next()
    return page.pdf()


def _figures(page: Page, shown: RunShown, lowest: Lowest | None, y: float) -> float:
    units, across = page.heading.reader, page.width - 2 * MARGIN
    rows = [
        ("At the start", "Dry in all", "Runs through from", "Used", "Not delivered"),
        (
            volume_text(shown.start_l, units),
            f"{shown.dry_s:.2f} s in {len(shown.spells)} spell{'s' * (len(shown.spells) != 1)}",
            _through(lowest, units),
            volume_text(shown.used_l, units),
            volume_text(shown.missed_l, units),
        ),
    ]
    every = range(5)
    y = page.table(rows, MARGIN, y, [across / 5] * 5, 10, strong=every, texts=every) - 2 * mm
    for note in shown.notes:
        said = sentence_text(note, units)
        y = page.words(said, MARGIN, y, across, 7.5)
    return y


@dataclass(frozen=True)
class _Scales:
    """From seconds and values to the page [points]."""

    wide: float
    end: float
    low: float
    high: float
    foot: float
    top: float

    def at(self, seconds: float) -> float:
        return float(PLOT_LEFT + self.wide * seconds / self.end)

    def up(self, value: float) -> float:
        return float(self.foot + (self.top - self.foot) * (value - self.low) / (self.high - self.low))


def _plot(
    page: Page, ran: Ran, title: str, traces: Sequence[Trace], said: Callable[[float], str], y: float, tall: float
) -> float:
    """Traces over time, dry spells shaded; gives the place under it."""
    canvas, end = page.canvas, max(float(ran.times_s[-1]), 1e-9)
    low = min(0.0, *(float(trace.values.min()) for trace in traces))
    high = max(low + 1e-3, *(float(trace.values.max()) for trace in traces))
    scales = _Scales(page.width - MARGIN - PLOT_LEFT, end, low, high, y - tall, y - 4 * mm)
    canvas.setFillColor(STOP)
    canvas.setFillAlpha(0.18)
    for spell in ran.spells:
        wide = max(0.6, scales.at(spell.seconds) - PLOT_LEFT)
        canvas.rect(scales.at(spell.start_s), scales.foot, wide, scales.top - scales.foot, stroke=0, fill=1)
    canvas.setFillAlpha(1)
    page.label(title, PLOT_LEFT, y - 2.5 * mm, colour=QUIET)
    for value in dict.fromkeys((low, 0.0, high)):
        canvas.setStrokeColor(QUIET)
        canvas.setLineWidth(0.5 if value == 0 else 0.2)
        canvas.line(PLOT_LEFT, scales.up(value), PLOT_LEFT + scales.wide, scales.up(value))
        page.label(said(value), PLOT_LEFT - 1.5 * mm, scales.up(value) - 2, 6.5, align="right")
    for place, trace in enumerate(traces):
        _trace(page, ran, trace, scales)
        if len(traces) > 1 and place < len(COLOURS):
            x = PLOT_LEFT + scales.wide - (len(traces) - 1 - place) * 20 * mm
            page.label(trace.name[:16], x, y - 2.5 * mm, 6.5, colour=trace.colour, align="right")
    return float(scales.foot - 3 * mm)


def _trace(page: Page, ran: Ran, trace: Trace, scales: _Scales) -> None:
    every = max(1, len(ran.times_s) // MOST_POINTS)
    path = page.canvas.beginPath()
    for step, (t, v) in enumerate(zip(ran.times_s[::every], trace.values[::every], strict=True)):
        (path.lineTo if step else path.moveTo)(scales.at(float(t)), scales.up(float(v)))
    page.canvas.setStrokeColor(trace.colour)
    page.canvas.setLineWidth(0.7)
    page.canvas.drawPath(path)


def _spells(page: Page, shown: RunShown, y: float) -> None:
    longest = sorted(shown.spells, key=lambda spell: -spell.seconds)[:MOST_SPELLS]
    y = page.words("Longest dry spells" if longest else "No dry spells", MARGIN, y, 90 * mm, 9, bold=True)
    if longest:
        rows = [("Start", "Duration", "Forward", "Left")]
        rows += [
            (f"{spell.start_s:.2f} s", f"{spell.seconds:.2f} s", f"{spell.forward_g:.2f} g", f"{spell.left_g:.2f} g")
            for spell in longest
        ]
        page.table(rows, MARGIN, y - 1 * mm, [18 * mm] * 4, 8)


def _map(page: Page, steady: StarvationMap, x: float, y: float) -> None:
    """Steady acceleration that uncovers the pickup: out to each line it stays covered, at that share of brimful."""
    canvas = page.canvas
    columns = [round(share * (len(steady.fills) - 1)) for share in MAP_FILLS]
    known = [row[column] or 0.0 for row in steady.g for column in columns]
    most = min(steady.most_g, max(1.0, float(np.ceil(2 * max(known)) / 2)))
    scale = 30 * mm / most
    page.label("Steady acceleration that uncovers the pickup", x - 38 * mm, y + 41 * mm, 9, bold=True)
    canvas.setStrokeColor(QUIET)
    canvas.setLineWidth(0.2)
    for g in (most / 3, 2 * most / 3, most):
        canvas.circle(x, y, g * scale)
        page.label(f"{g:.2g} g", x + 1 * mm, y + g * scale - 3 * mm, 6, colour=QUIET)
    for said, dx, dy in (("accelerating", 0, 33), ("braking", 0, -35), ("left", -34, -1), ("right", 34, -1)):
        page.label(said, x + dx * mm, y + dy * mm, 6.5, colour=QUIET, align="middle")
    angles, named = np.radians(steady.directions_deg), list[float]()
    for share, column in zip(MAP_FILLS, columns, strict=True):
        path = canvas.beginPath()
        places = []
        for step, (angle, row) in enumerate(zip(angles, steady.g, strict=True)):
            held = row[column]
            out = scale * (most if held is None else min(held, most))
            places.append((x - float(np.sin(angle)) * out, y + float(np.cos(angle)) * out))
            (path.lineTo if step else path.moveTo)(*places[-1])
        path.close()
        canvas.setStrokeColor(FUEL)
        canvas.setLineWidth(0.5 + share)
        canvas.drawPath(path)
        # Lines that lie on each other are named once, by the least fill that reaches so far.
        out = float(np.hypot(places[8][0] - x, places[8][1] - y))
        if all(abs(out - other) > 3 * mm for other in named):
            named.append(out)
            page.label(f"{share:.0%}", places[8][0] - 6 * mm, places[8][1], 6.5, colour=FUEL)


def _foot(page: Page, shown: RunShown) -> None:
    across = page.width - 2 * MARGIN
    y = page.words(sentence_text(shown.limits, page.heading.reader), MARGIN, 28 * mm, across, 7, colour=QUIET)
    said = "It shows where fuel is likely to be, not that a vehicle is safe to drive."
    page.words(said, MARGIN, y, across, 7, bold=True)
