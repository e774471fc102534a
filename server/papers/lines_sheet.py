"""The lines on paper: the path as it lies, its pressure from pickup to engine and back, every joint, every filter."""

from collections.abc import Callable, Sequence

from reportlab.lib.units import mm

from keel.analysis.parts import LINES
from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import ports_of
from keel.design.line_parts import LinePart
from keel.formats.quantities import quantity_text, sentence_text
from keel.reference.quantities import UnitSet
from keel.solid.solids import Solids
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.failures import FAILURES, Failure
from keel.studies.lines.filtration import FILTRATION
from keel.studies.lines.flows import FLOWS
from keel.studies.lines.joints import JOINTS
from keel.studies.lines.modes import Mode
from keel.studies.lines.places import LINE_PLACES, LinePlaces
from keel.studies.lines.stretches import STRETCHES
from keel.studies.lines.strip import STRIP, StripPiece
from keel.studies.result import Point
from server.papers.flowing import FlowingSheet
from server.papers.heading import Heading
from server.papers.page import ACCENT, INK, LINE, MARGIN, METAL, QUIET, Page

CAUTION = (
    "CAUTION. Fuel under pressure sprays and burns: let the pressure off before any joint is opened, catch what comes, "
    "no spark, no lamp that is hot, an extinguisher at hand. Local code and a licensed trade outrank this sheet."
)
VIEW_MM, STRIP_MM = 62.0, 42.0
MOST_MODES = 8


def lines_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """The sheet of the lines."""
    sheet = FlowingSheet(heading, "lines", "Lines: path, pressures, joints, filters")
    sheet.words(CAUTION, bold=True)
    places, modes = tank[LINE_PLACES], tank[LINE_MODES]
    _view(sheet, tank, places, "x", "y", "Plan, from above")
    _view(sheet, tank, places, "x", "z", "Elevation, from the right")
    full = next((n for n, mode in enumerate(modes) if mode.id == "full"), 0)
    if modes:
        _strip(sheet, tank[STRIP], full, modes[full].name)
    _pressures(sheet, tank, modes[:MOST_MODES])
    _joints(sheet, tank)
    _filters(sheet, tank)
    _failures(sheet, tank)
    return sheet.pdf()


def _view(sheet: FlowingSheet, tank: TankAnalysis, places: LinePlaces, across: str, up: str, title: str) -> None:
    """Tank, parts and runs in one view, to scale."""
    sheet.room(VIEW_MM * mm)
    page, lines = sheet.page, tank[LINES]
    low, high = _bounds(tank.solids, places, lines.parts)
    wide, tall = high[across] - low[across], high[up] - low[up]
    tallest = max(high["y"] - low["y"], high["z"] - low["z"])
    scale = min((page.width - 2 * MARGIN) / wide, (VIEW_MM - 14) * mm / tallest)
    foot = sheet.y - 6 * mm - scale * tall

    def at(place: Point) -> tuple[float, float]:
        u, v = getattr(place, across), getattr(place, up)
        return MARGIN + (u - low[across]) * scale, foot + (v - low[up]) * scale

    page.label(title, MARGIN, sheet.y - 2 * mm, 8, colour=QUIET)
    box = tank.solids.bounds
    axes = {"x": 0, "y": 1, "z": 2}
    page.canvas.setStrokeColor(METAL)
    page.canvas.setLineWidth(1.0)
    corner = at(Point.of(box.low))
    page.canvas.rect(*corner, box.size[axes[across]] * scale, box.size[axes[up]] * scale)
    page.canvas.setStrokeColor(ACCENT)
    page.canvas.setLineWidth(1.4)
    for way in places.runs:
        drawn = page.canvas.beginPath()
        drawn.moveTo(*at(way.way[0]))
        for point in way.way[1:]:
            drawn.lineTo(*at(point))
        page.canvas.drawPath(drawn)
    spots = {(one.part, one.port): one.at for one in places.connections}
    for number, part in enumerate(lines.parts, start=1):
        x, y = at(Point(part.x_mm, part.y_mm, part.z_mm))
        ends = [at(spots[part.id, port]) for port in ports_of(part.does) if (part.id, port) in spots]
        page.canvas.setStrokeColor(METAL)
        page.canvas.setLineWidth(5)
        for end in ends if part.hangs_in is None else ():
            page.canvas.line(x, y, *end)
        page.canvas.setStrokeColor(INK)
        page.canvas.setLineWidth(0.8)
        page.canvas.setFillColorRGB(1, 1, 1)
        page.canvas.circle(x, y, 6, fill=1)
        page.label(str(number), x, y - 2.6, 7, bold=True, align="middle")
    sheet.y = foot - 4 * mm
    if up == "z":
        listed = ", ".join(f"{number} {part.name}" for number, part in enumerate(lines.parts, start=1))
        sheet.words(listed, 8.5)


def _bounds(solids: Solids, places: LinePlaces, parts: Sequence[LinePart]) -> tuple[dict[str, float], dict[str, float]]:
    box = solids.bounds
    points = [point for way in places.runs for point in way.way]
    spots = [Point(part.x_mm, part.y_mm, part.z_mm) for part in parts]
    every = [*points, *spots, Point.of(box.low), Point.of(box.high)]
    low = {axis: min(getattr(point, axis) for point in every) for axis in "xyz"}
    high = {axis: max(getattr(point, axis) for point in every) for axis in "xyz"}
    return low, high


def _strip(sheet: FlowingSheet, pieces: Sequence[StripPiece], mode: int, name: str) -> None:
    """The path straightened, pressure as its height."""
    known = [one for one in pieces if one.start_kpa[mode] is not None and one.end_kpa[mode] is not None]
    if not known:
        return
    sheet.room(STRIP_MM * mm)
    page, units = sheet.page, sheet.page.heading.reader
    most = max(10.0, *(max(one.start_kpa[mode] or 0.0, one.end_kpa[mode] or 0.0) for one in known))
    far = max(one.to_m for one in known) or 1.0
    wide, tall = page.width - 2 * MARGIN - 24 * mm, (STRIP_MM - 16) * mm
    left, foot = MARGIN + 22 * mm, sheet.y - 8 * mm - tall

    def at(m: float, kpa: float) -> tuple[float, float]:
        return left + m / far * wide, foot + kpa / most * tall

    page.label(f"Pressure along the path, {name}", MARGIN, sheet.y - 2 * mm, 8, colour=QUIET)
    page.canvas.setStrokeColor(LINE)
    page.canvas.line(left, foot, left + wide, foot)
    for kpa in (0.0, most):
        page.label(quantity_text("p_kpa", kpa, units), left - 2 * mm, at(0, kpa)[1] - 2, 7, colour=QUIET, align="right")
    for one in known:
        page.canvas.setStrokeColor(METAL if one.of == "part" else ACCENT)
        page.canvas.setLineWidth(1.6)
        page.canvas.line(*at(one.from_m, one.start_kpa[mode] or 0.0), *at(one.to_m, one.end_kpa[mode] or 0.0))
    _named(page, known, at, foot)
    sheet.y = foot - 10 * mm


def _named(
    page: Page, pieces: Sequence[StripPiece], at: Callable[[float, float], tuple[float, float]], foot: float
) -> None:
    """Parts under the strip, by turns in two rows."""
    spans: dict[str, tuple[str, float, float]] = {}
    for one in pieces:
        if one.of == "part":
            name, low, high = spans.get(one.id, (one.name, one.from_m, one.to_m))
            spans[one.id] = name, min(low, one.from_m), max(high, one.to_m)
    for place, (name, low, high) in enumerate(sorted(spans.values(), key=lambda span: span[1])):
        x = at((low + high) / 2, 0.0)[0]
        page.label(name, x, foot - (3.2 if place % 2 else 6.4) * mm, 6.5, align="middle")


def _pressures(sheet: FlowingSheet, tank: TankAnalysis, modes: Sequence[Mode]) -> None:
    """Pressure and flow at every run's start, mode by mode."""
    flows, units, runs = tank[FLOWS], sheet.page.heading.reader, {run.id: run for run in tank[LINES].runs}
    if not flows.runs or not modes:
        return
    count = len(modes)
    wide = [38.0, *[(186 - 38 - 26) / count] * count, 26.0]
    rows = [["Run", *(str(n) for n in range(1, count + 1)), "highest"]]
    highest = {one.id: one.highest_kpa for one in tank[STRETCHES]}
    for one in flows.runs:
        cells = [_cell(one.start_kpa[n], one.flow_lph[n], units) for n in range(count)]
        rows.append([runs[one.id].name, *cells, quantity_text("p_kpa", highest.get(one.id, 0.0), units)])
    said = "; ".join(f"{n} {mode.name}" for n, mode in enumerate(modes, start=1))
    sheet.table(f"Pressure and flow at each run's start. {said}", rows, wide, (0,))
    _modes(sheet, modes)


def _cell(kpa: float | None, lph: float | None, units: UnitSet) -> str:
    if kpa is None or lph is None:
        return "none"
    pressure = quantity_text("p_kpa", kpa, units)
    return f"{pressure}, {quantity_text('q_lph', abs(lph), units)}"


def _modes(sheet: FlowingSheet, modes: Sequence[Mode]) -> None:
    """What the modes are."""
    units = sheet.page.heading.reader
    rows = [["Mode", "Drawn", "Manifold", "Voltage", "Fuel"]]
    for number, mode in enumerate(modes, start=1):
        drawn, warm = quantity_text("q_lph", mode.draws_lph, units), quantity_text("t_c", mode.fuel_c, units)
        rows.append(
            [
                f"{number} {mode.name}",
                drawn,
                quantity_text("p_kpa", mode.manifold_kpa, units),
                f"{mode.voltage_v:g} V",
                f"{mode.fuel}, {warm}" if mode.fuel else warm,
            ]
        )
    sheet.table("Running modes", rows, [70, 30, 30, 26, 30], (0,))


def _joints(sheet: FlowingSheet, tank: TankAnalysis) -> None:
    units = sheet.page.heading.reader
    rows = [["Run", "At", "Part's side", "Line's side", "Sealed by"]]
    for one in tank[JOINTS]:
        fits = "" if one.why is None else f" DOESN'T FIT: {sentence_text(one.why, units)}"
        adapter = f" with adapter {one.adapter}" if one.adapter else ""
        rows.append(
            [
                one.run_name,
                f"{one.part_name}, {one.port}",
                (one.part_side or "not known") + fits,
                (one.line_side or "not known") + adapter,
                one.seal or "not known",
            ]
        )
    sheet.table(f"Joints: {len(rows) - 1}. No tape on fuel threads", rows, [34, 38, 42, 42, 30], (0, 1, 2, 3, 4))


def _filters(sheet: FlowingSheet, tank: TankAnalysis) -> None:
    units = sheet.page.heading.reader
    rows = [["Filter", "Stage, element", "Fineness", "Drop clean", "Drop loaded", "Swapped after", "Caught"]]
    for one in tank[FILTRATION]:
        fine = "not known" if one.fineness_um is None else quantity_text("f_um", one.fineness_um, units)
        swap = "not said" if one.swap_hours is None else f"{one.swap_hours:g} h"
        drops = [quantity_text("p_kpa", kpa, units) for kpa in (one.clean_kpa, one.loaded_kpa)]
        rows.append([one.name, f"{one.stage}, {one.element}", fine, *drops, swap, one.caught])
    sheet.table("Filtration plan", rows, [34, 38, 20, 22, 22, 24, 26], (0, 1, 6))


def _failures(sheet: FlowingSheet, tank: TankAnalysis) -> None:
    rows = [["What fails", "Pumps feeding", "Modes left", "With the spare", "To replace"]]
    for one in tank[FAILURES]:
        left = ", ".join(one.left) or "none"
        minutes = "not known" if one.minutes is None else f"{one.minutes:g} min" + (f", {one.tools}" * bool(one.tools))
        feeding = ", ".join(one.feeding) or "none"
        rows.append([one.out, feeding, "as before" if one.left and not one.lost else left, _with_spare(one), minutes])
    sheet.table("When one thing fails", rows, [38, 32, 44, 50, 22], (0, 1, 2, 3))


def _with_spare(one: Failure) -> str:
    """What the spare brings back, and how it is brought in."""
    if not one.spare or not one.with_spare:
        return "none either" if one.spare else "no spare"
    brought = "all modes" if {*one.left, *one.lost} <= {*one.with_spare} else ", ".join(one.with_spare)
    return f"{brought}: {one.brought_in}" if one.brought_in else brought
