"""A slosh run on one page: what it was driven over, traces, dry spells, and the steady acceleration it bears."""

import io
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from keel.formats.quantities import ReaderUnits, length_text, quantity_text, volume_text
from keel.solid.polyhedron import Array
from keel.studies.slosh.log import Log
from keel.studies.slosh.run import Ran
from keel.studies.slosh.run_view import RunShown
from keel.studies.slosh.starvation import StarvationMap
from server.papers.heading import Heading

INK, QUIET, FUEL, ACCENT, STOP = (HexColor(c) for c in ("#1d262b", "#66757c", "#c96f12", "#4b3fa0", "#b3261e"))
COLOURS = [
    HexColor(c) for c in ("#c96f12", "#4b3fa0", "#35505c", "#b3261e", "#2e6b3f", "#7a5a00", "#1f5f8b", "#8a5a44")
]
WIDTH, HEIGHT = A4
LEFT, RIGHT = 18 * mm, 15 * mm
PLOT_LEFT = LEFT + 16 * mm
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
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=A4)
    canvas.setTitle(f"{heading.job}: {heading.design} r{heading.revision}, slosh run")
    canvas.setAuthor(heading.author or heading.workshop)
    y = _head(canvas, heading, shown)
    y = _figures(canvas, heading, shown, lowest, y)
    best = ran.depths_mm.max(axis=1)
    units = heading.reader

    def volume(value: float) -> str:
        return volume_text(value, units)

    def length(value: float) -> str:
        return length_text(value, units)

    g = [Trace("forward", log.forward_g, COLOURS[2]), Trace("left", log.left_g, COLOURS[1])]
    y = _plot(canvas, ran, "lateral and longitudinal acceleration, g", g, lambda v: f"{v:.1f}", y, 28 * mm)
    over = [Trace("under the surface", best, FUEL)]
    y = _plot(canvas, ran, "pickup depth" + (", mm" if units == "mm_l" else ""), over, length, y, 30 * mm)
    rooms = [Trace(room.name, ran.held_l[:, i], COLOURS[i % len(COLOURS)]) for i, room in enumerate(shown.rooms)]
    y = _plot(canvas, ran, "in each compartment", rooms, volume, y, 34 * mm)
    if shown.refill:
        y = _plot(canvas, ran, "surge tank", [Trace("surge", ran.surge_l, FUEL)], volume, y, 22 * mm)
    _text(canvas, PLOT_LEFT, y, f"0 to {ran.times_s[-1]:.1f} s; dry spells are shaded", 7, QUIET)
    y -= 9 * mm
    _spells(canvas, shown, y)
    _map(canvas, steady, WIDTH - RIGHT - 42 * mm, y - 42 * mm)
    _foot(canvas, shown)
    canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _head(canvas: Canvas, heading: Heading, shown: RunShown) -> float:
    y: float = HEIGHT - 18 * mm
    _text(canvas, LEFT, y, f"{heading.job} - {heading.design}", 13, bold=True)
    saved = heading.saved.strftime("%Y-%m-%d %H:%M")
    _text(canvas, LEFT, y - 5 * mm, f"Slosh run over {shown.name}; revision {heading.revision}, {saved}", 9)
    return float(y - 13 * mm)


def _figures(canvas: Canvas, heading: Heading, shown: RunShown, lowest: Lowest | None, y: float) -> float:
    units = heading.reader
    said = [
        ("At the start", volume_text(shown.start_l, units)),
        ("Dry in all", f"{shown.dry_s:.2f} s in {len(shown.spells)} spells"),
        ("Runs through from", _through(lowest, units)),
        ("Used", volume_text(shown.used_l, units)),
        ("Not delivered", volume_text(shown.missed_l, units)),
    ]
    for (name, value), off in zip(said, (0, 30, 82, 117, 147), strict=True):
        _text(canvas, LEFT + off * mm, y, name, 7, QUIET)
        _text(canvas, LEFT + off * mm, y - 5 * mm, value, 10, bold=True)
    y -= 10 * mm
    for note in shown.notes:
        words = note.plain(lambda name, value: quantity_text(name, value, units))
        for line in simpleSplit(words, "Helvetica", 7.5, WIDTH - LEFT - RIGHT):
            _text(canvas, LEFT, y, line, 7.5)
            y -= 3.5 * mm
    return y


def _plot(
    canvas: Canvas, ran: Ran, label: str, traces: Sequence[Trace], said: Callable[[float], str], y: float, tall: float
) -> float:
    """Traces over time, dry spells shaded; gives the place under it."""
    top, foot = y - 4 * mm, y - tall
    wide, end = WIDTH - RIGHT - PLOT_LEFT, max(float(ran.times_s[-1]), 1e-9)
    low = min(0.0, *(float(trace.values.min()) for trace in traces))
    high = max(low + 1e-3, *(float(trace.values.max()) for trace in traces))

    def at(seconds: float) -> float:
        return float(PLOT_LEFT + wide * seconds / end)

    def up(value: float) -> float:
        return float(foot + (top - foot) * (value - low) / (high - low))

    canvas.setFillColor(STOP)
    canvas.setFillAlpha(0.18)
    for spell in ran.spells:
        canvas.rect(at(spell.start_s), foot, max(0.6, at(spell.seconds) - PLOT_LEFT), top - foot, stroke=0, fill=1)
    canvas.setFillAlpha(1)
    _text(canvas, PLOT_LEFT, y - 2.5 * mm, label, 7, QUIET)
    for value in dict.fromkeys((low, 0.0, high)):
        canvas.setStrokeColor(QUIET)
        canvas.setLineWidth(0.5 if value == 0 else 0.2)
        canvas.line(PLOT_LEFT, up(value), PLOT_LEFT + wide, up(value))
        canvas.setFont("Helvetica", 6.5)
        canvas.setFillColor(INK)
        canvas.drawRightString(PLOT_LEFT - 1.5 * mm, up(value) - 2, said(value))
    every = max(1, len(ran.times_s) // MOST_POINTS)
    for place, trace in enumerate(traces):
        path = canvas.beginPath()
        for step, (t, v) in enumerate(zip(ran.times_s[::every], trace.values[::every], strict=True)):
            (path.lineTo if step else path.moveTo)(at(float(t)), up(float(v)))
        canvas.setStrokeColor(trace.colour)
        canvas.setLineWidth(0.7)
        canvas.drawPath(path)
        if len(traces) > 1 and place < len(COLOURS):
            canvas.setFillColor(trace.colour)
            canvas.setFont("Helvetica", 6.5)
            canvas.drawRightString(
                PLOT_LEFT + wide - (len(traces) - 1 - place) * 20 * mm, y - 2.5 * mm, trace.name[:16]
            )
    return float(foot - 3 * mm)


def _spells(canvas: Canvas, shown: RunShown, y: float) -> None:
    longest = sorted(shown.spells, key=lambda spell: -spell.seconds)[:MOST_SPELLS]
    _text(canvas, LEFT, y, "Longest dry spells" if longest else "No dry spells", 9, bold=True)
    if not longest:
        return
    y -= 5 * mm
    for place, name in enumerate(("at", "for", "forward", "left")):
        _text(canvas, LEFT + place * 18 * mm, y, name, 7, QUIET)
    for spell in longest:
        y -= 4.2 * mm
        row = (f"{spell.start_s:.2f} s", f"{spell.seconds:.2f} s", f"{spell.forward_g:.2f} g", f"{spell.left_g:.2f} g")
        for place, cell in enumerate(row):
            _text(canvas, LEFT + place * 18 * mm, y, cell, 8)


def _map(canvas: Canvas, steady: StarvationMap, x: float, y: float) -> None:
    """Steady pushes that uncover the pickup: out to each line it stays covered, at that share of brimful."""
    columns = [round(share * (len(steady.fills) - 1)) for share in MAP_FILLS]
    known = [row[column] or 0.0 for row in steady.g for column in columns]
    most = min(steady.most_g, max(1.0, float(np.ceil(2 * max(known)) / 2)))
    scale = 30 * mm / most
    _text(canvas, x - 50 * mm, y + 42 * mm, "Steady push that uncovers the pickup", 9, bold=True)
    canvas.setStrokeColor(QUIET)
    canvas.setLineWidth(0.2)
    for g in (most / 3, 2 * most / 3, most):
        canvas.circle(x, y, g * scale)
        _text(canvas, x + 1 * mm, y + g * scale - 3 * mm, f"{g:.2g} g", 6, QUIET)
    for words, dx, dy in (("accelerating", 0, 33), ("braking", 0, -35), ("left", -34, -1), ("right", 34, -1)):
        canvas.setFillColor(QUIET)
        canvas.setFont("Helvetica", 6.5)
        canvas.drawCentredString(x + dx * mm, y + dy * mm, words)
    angles, said = np.radians(steady.directions_deg), list[float]()
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
        if all(abs(out - other) > 3 * mm for other in said):
            said.append(out)
            _text(canvas, places[8][0] - 6 * mm, places[8][1], f"{share:.0%}", 6.5, FUEL)


def _foot(canvas: Canvas, shown: RunShown) -> None:
    y = 24 * mm
    for line in simpleSplit(shown.limits.plain(), "Helvetica", 7, WIDTH - LEFT - RIGHT):
        _text(canvas, LEFT, y, line, 7, QUIET)
        y -= 3.2 * mm
    words = "It shows where fuel is likely to be, not that a vehicle is safe to drive."
    _text(canvas, LEFT, y, words, 7, bold=True)


def _text(
    canvas: Canvas, x: float, y: float, words: str, size: float, colour: HexColor = INK, *, bold: bool = False
) -> None:
    canvas.setFillColor(colour)
    canvas.setFont("Helvetica-Bold" if bold else "Helvetica", size)
    canvas.drawString(x, y, words)
