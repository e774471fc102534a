"""The tank and its parts, drawn on paper."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from keel.analysis.tank import TankAnalysis
from keel.formats.quantities import ReaderUnits, cut_text, length_text
from keel.studies.drawing.geometry import CUTS_SHOWN, GEOMETRY, Block
from keel.studies.drawing.views import Ring
from keel.studies.sheet.parts import FlatPart, middle_of
from server.papers.page import ACCENT, BOLD, INK, METAL, STOP, label

POOL = HexColor("#f3c68f")
GAP = 12 * mm
DROP = 4 * mm
LABEL = 12 * mm
LINE = 3 * mm
SAME_MM = 0.05


@dataclass(frozen=True)
class Frame:
    """A piece of the page [points]."""

    x: float
    y: float
    width: float
    height: float


@dataclass(frozen=True)
class Pen:
    """Turns millimetres of a view into points of the page."""

    canvas: Canvas
    x: float
    y: float
    scale: float

    def box(self, low: Sequence[float], high: Sequence[float], fill: int = 0) -> None:
        """A rectangle between two corners of the view [mm]."""
        self.canvas.rect(
            self.x + low[0] * self.scale,
            self.y + low[1] * self.scale,
            (high[0] - low[0]) * self.scale,
            (high[1] - low[1]) * self.scale,
            stroke=1 - fill,
            fill=fill,
        )

    def at(self, place: Sequence[float], origin: Sequence[float]) -> tuple[float, float]:
        """A place of the view [mm] on the page [points]."""
        return self.x + (place[0] - origin[0]) * self.scale, self.y + (place[1] - origin[1]) * self.scale

    def lines(self, ends: Sequence[float], origin: Sequence[float]) -> None:
        """Lines whose ends' coordinates follow each other in fours [mm]."""
        for place in range(0, len(ends), 4):
            self.canvas.line(*self.at(ends[place : place + 2], origin), *self.at(ends[place + 2 : place + 4], origin))

    def rings(self, rings: Sequence[Ring], origin: Sequence[float], stroke: int = 1, fill: int = 0) -> None:
        """Closed outlines; one inside another is a hole."""
        path = self.canvas.beginPath()
        for ring in rings:
            for step, place in enumerate(ring):
                (path.moveTo if step == 0 else path.lineTo)(*self.at(place, origin))
            path.close()
        self.canvas.drawPath(path, stroke=stroke, fill=fill, fillMode=0)


def _corner(block: Block, which: str) -> tuple[float, float, float]:
    point = block.low if which == "low" else block.high
    return point.x, point.y, point.z


def draw_views(canvas: Canvas, frame: Frame, tank: TankAnalysis, units: ReaderUnits) -> None:
    """Plan over elevation, end view beside the elevation, fuel at rated capacity."""
    shape = tank[GEOMETRY]
    low, high = _corner(shape.overall, "low"), _corner(shape.overall, "high")
    size = [b - a for a, b in zip(low, high, strict=True)]
    scale = min((frame.width - 3 * GAP) / (size[0] + size[1]), (frame.height - 2.2 * GAP) / (size[1] + size[2]))
    left, base = frame.x + GAP, frame.y + GAP
    views = (
        ("Plan, from above", (0, 1), left, base + size[2] * scale + GAP, (1,)),
        ("Elevation, cut in the middle", (0, 2), left, base, (0, 2)),
        ("End, cut in the middle", (1, 2), left + size[0] * scale + 2 * GAP, base, ()),
    )
    for title, axes, x, y, measured in views:
        _view(canvas, tank, Pen(canvas, x, y, scale), (axes[0], axes[1]))
        _sizes(canvas, tank, Pen(canvas, x, y, scale), (axes[0], axes[1]), measured, units)
        label(canvas, title, x, y + size[axes[1]] * scale + 2 * mm)


def _view(canvas: Canvas, tank: TankAnalysis, pen: Pen, axes: tuple[int, int]) -> None:
    """The plan from outside; elevation and end cut through the middle, with the fuel in them."""
    shape = tank[GEOMETRY]
    start = _corner(shape.overall, "low")
    origin = (start[axes[0]], start[axes[1]])
    name = {(0, 1): "plan", (0, 2): "elevation", (1, 2): "end"}[axes]
    view = next(view for view in shape.views if view.name == name)
    section = next(
        (cut for cut in tank[CUTS_SHOWN] if name != "plan" and cut.axis == ("y" if name == "elevation" else "x")), None
    )
    canvas.setStrokeColor(METAL)
    canvas.setLineWidth(0.4)
    low, high = _corner(shape.overall, "low"), _corner(shape.overall, "high")
    pen.box((0.0, 0.0), (high[axes[0]] - low[axes[0]], high[axes[1]] - low[axes[1]]))
    if section is not None:
        canvas.setFillColor(POOL)
        pen.rings(section.fuel, origin, stroke=0, fill=1)
    pen.lines(view.seen, origin)
    if section is None:
        canvas.setDash(2, 2)
        pen.lines(view.hidden, origin)
    canvas.setDash()
    canvas.setLineWidth(1)
    pen.rings(view.silhouette, origin)
    if section is not None:
        canvas.setLineWidth(0.7)
        pen.rings(section.outer, origin)
        pen.rings(section.inner, origin)


def _sizes(
    canvas: Canvas,
    tank: TankAnalysis,
    pen: Pen,
    axes: tuple[int, int],
    measured: tuple[int, ...],
    units: ReaderUnits,
) -> None:
    shape = tank[GEOMETRY]
    low, high, start = _corner(shape.body, "low"), _corner(shape.body, "high"), _corner(shape.overall, "low")
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.4)
    for axis in measured:
        text = length_text(high[axis] - low[axis], units)
        ends = [(value - start[axis]) * pen.scale for value in (low[axis], high[axis])]
        if axis == axes[0]:
            _dimension(canvas, (pen.x + ends[0], pen.y - DROP), (pen.x + ends[1], pen.y - DROP))
            _across(canvas, pen.x + sum(ends) / 2, pen.y - DROP - 8, text)
        else:
            _dimension(canvas, (pen.x - DROP, pen.y + ends[0]), (pen.x - DROP, pen.y + ends[1]))
            _upright(canvas, pen.x - DROP - 4, pen.y + sum(ends) / 2, text)


def _dimension(canvas: Canvas, start: tuple[float, float], end: tuple[float, float]) -> None:
    canvas.line(*start, *end)
    for x, y in (start, end):
        canvas.line(x - 2, y - 2, x + 2, y + 2)


def draw_part(canvas: Canvas, frame: Frame, part: FlatPart, units: ReaderUnits) -> None:
    """A flat part with its bend lines, their distance from the datum edge, and its sizes."""
    scale = min((frame.width - 2 * GAP) / part.length_mm, (frame.height - 2 * GAP) / part.width_mm)
    x, y = frame.x + GAP, frame.y + GAP
    pen = Pen(canvas, x, y, scale)
    canvas.setStrokeColor(METAL)
    canvas.setLineWidth(0.8)
    path = canvas.beginPath()
    for ring in (part.outline, *part.holes):
        for step, (u, v) in enumerate(ring):
            (path.moveTo if step == 0 else path.lineTo)(x + u * scale, y + v * scale)
        path.close()
    canvas.drawPath(path)
    for bore in part.bores:
        u, v = bore.middle
        canvas.circle(x + u * scale, y + v * scale, bore.diameter_mm / 2 * scale)
    _bends(canvas, pen, part)
    below, beside = _measured(pen, part, units)
    _below(canvas, pen, part, below)
    _beside(canvas, pen, part, beside)
    _titled(canvas, frame, pen, part, units)


def _titled(canvas: Canvas, frame: Frame, pen: Pen, part: FlatPart, units: ReaderUnits) -> None:
    """What it is called, and over that why it mustn't be cut yet."""
    title = f"{part.title} × {part.quantity}: {cut_text(part.length_mm, units)} × {cut_text(part.width_mm, units)}"
    title += ", grain left to right" if part.grain == "length" else ", grain up and down"
    lines = [(line, INK) for line in simpleSplit(title, BOLD, 8, frame.width - GAP)]
    for warning in reversed(part.warnings):
        lines = [(line, STOP) for line in simpleSplit(warning, BOLD, 8, frame.width - GAP)] + lines
    for row, (line, colour) in enumerate(reversed(lines)):
        y = pen.y + part.width_mm * pen.scale + 2 * mm + row * 3.5 * mm
        label(canvas, line, pen.x, y, 8, bold=True, colour=colour)


def _bends(canvas: Canvas, pen: Pen, part: FlatPart) -> None:
    canvas.setStrokeColor(ACCENT)
    canvas.setLineWidth(0.5)
    for bend in part.bends:
        canvas.setDash(*((6, 2) if bend.direction == "up" else (1.5, 2)))
        pen.lines((*bend.start, *bend.end), (0.0, 0.0))
    canvas.setDash()


@dataclass(frozen=True)
class _Figure:
    """How far something lies from a datum edge, where on the page that is, and what is said of it."""

    at: float
    size: str
    said: str = ""
    colour: Color = INK


def _measured(pen: Pen, part: FlatPart, units: ReaderUnits) -> tuple[list[_Figure], list[_Figure]]:
    """Figures along the part's foot and up its side: bends, corners before rounding, openings' middles, each once."""
    spots = [*part.corners, *(middle_of(hole) for hole in part.holes), *part.port_middles]
    below = [
        _Figure(pen.x + u * pen.scale, cut_text(u, units))
        for u in sorted({round(u, 1) for u, _ in spots} - {0.0, round(part.length_mm, 1)})
    ]
    beside = [
        _Figure(pen.y + v * pen.scale, cut_text(v, units))
        for v in sorted({round(v, 1) for _, v in spots} - {0.0, round(part.width_mm, 1)})
    ]
    for bend in part.bends:
        (u0, v0), (u1, v1) = bend.start, bend.end
        said = f"{bend.order} {bend.direction}"
        if abs(u0 - u1) < SAME_MM:
            below.append(_Figure(pen.x + u0 * pen.scale, cut_text(u0, units), said, ACCENT))
        elif abs(v0 - v1) < SAME_MM:
            beside.append(_Figure(pen.y + v0 * pen.scale, cut_text(v0, units), said, ACCENT))
    # A bend that an opening parts is two lines and one figure.
    return sorted(dict.fromkeys(below), key=lambda one: one.at), sorted(dict.fromkeys(beside), key=lambda one: one.at)


def _spread(figures: Sequence[_Figure], room: float, most: float) -> list[float]:
    """Where figures stand so that none lies on another, as near as may be to what they belong to."""
    places = list[float]()
    for figure in figures:
        places.append(max(figure.at, places[-1] + room) if places else figure.at)
    limit = most
    for n in range(len(places) - 1, -1, -1):
        places[n] = min(places[n], limit)
        limit = places[n] - room
    return places


def _below(canvas: Canvas, pen: Pen, part: FlatPart, figures: Sequence[_Figure]) -> None:
    """Figures along the foot; upright where side by side there is no room for them."""
    lying = all(b.at - a.at >= LABEL for a, b in pairwise(figures))
    end = pen.x + part.length_mm * pen.scale
    places = [figure.at for figure in figures] if lying else _spread(figures, LINE, end)
    for figure, place in zip(figures, places, strict=True):
        _tick(canvas, (figure.at, pen.y - 1 * mm), (place, pen.y - 2.5 * mm), figure.colour)
        if lying:
            label(canvas, figure.size, place, pen.y - 5.5 * mm, align="middle", colour=figure.colour)
            label(canvas, figure.said, place, pen.y - 8.7 * mm, align="middle", colour=figure.colour)
            continue
        canvas.saveState()
        canvas.translate(place + 2, pen.y - 3 * mm)
        canvas.rotate(90)
        label(canvas, f"{figure.size}  {figure.said}".strip(), 0, 0, align="right", colour=figure.colour)
        canvas.restoreState()


def _beside(canvas: Canvas, pen: Pen, part: FlatPart, figures: Sequence[_Figure]) -> None:
    """Figures up the left side."""
    places = _spread(figures, LINE, pen.y + part.width_mm * pen.scale)
    for figure, place in zip(figures, places, strict=True):
        _tick(canvas, (pen.x - 1 * mm, figure.at), (pen.x - 2.5 * mm, place), figure.colour)
        _upright(canvas, pen.x - 3 * mm, place, f"{figure.size}  {figure.said}".strip(), figure.colour)


def _tick(canvas: Canvas, start: tuple[float, float], end: tuple[float, float], colour: Color) -> None:
    canvas.setStrokeColor(colour)
    canvas.setLineWidth(0.3)
    canvas.line(*start, *end)


def _across(canvas: Canvas, x: float, y: float, text: str) -> None:
    label(canvas, text, x, y, align="middle")


def _upright(canvas: Canvas, x: float, y: float, text: str, colour: Color = INK) -> None:
    label(canvas, text, x, y - 2, align="right", colour=colour)
