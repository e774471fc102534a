"""A strap on paper: how it lies, where it is bent, and its strip at full size in tiles."""

from math import ceil

from reportlab.lib.units import mm

from keel.design.mount import Strap
from keel.formats.quantities import cut_text, cut_with_unit, sheet_text
from keel.solid.taut import Outline
from keel.studies.mount.bolt_list import BoltRow
from keel.studies.mount.straps import StrapPath
from server.papers.heading import Heading
from server.papers.page import ACCENT, INK, LINE, MARGIN, METAL, QUIET, Page

TILE_MM = 175.0
"""How much of the strip stands on a row of the page [mm]."""
ROW = 22 * mm
FORM = 92 * mm


def strap_pdf(heading: Heading, strap: Strap, path: StrapPath, outline: Outline, bolts: list[BoltRow]) -> bytes:
    """A strap's sheet."""
    page = Page(heading, strap.name)
    y = page.start(f"{strap.name.capitalize()}: cut, bent and bolted")
    y = _form(page, strap, path, outline, y)
    y = _words(page, strap, path, bolts, y)
    _strip(page, strap, path)
    return page.pdf()


def _form(page: Page, strap: Strap, path: StrapPath, outline: Outline, top: float) -> float:
    """The strap round the tank's section, seen along the station's axis."""
    units, canvas = page.heading.reader, page.canvas
    across = "y" if path.axis == "x" else "x"
    line = [(getattr(spot, across), spot.z) for spot in path.line]
    low_u, low_v, high_u, high_v = outline.bounds
    us, vs = [u for u, _ in line] + [low_u, high_u], [v for _, v in line] + [low_v, high_v]
    width = page.width - 2 * MARGIN - 30 * mm
    scale = min(width / (max(us) - min(us)), FORM / (max(vs) - min(vs)))
    left = MARGIN + (page.width - 2 * MARGIN - scale * (max(us) - min(us))) / 2
    foot = top - 8 * mm - scale * (max(vs) - min(vs))

    def at(u: float, v: float) -> tuple[float, float]:
        return left + (u - min(us)) * scale, foot + (v - min(vs)) * scale

    canvas.setStrokeColor(METAL)
    canvas.setLineWidth(0.8)
    for part in getattr(outline, "geoms", [outline]):
        _polyline(page, [at(u, v) for u, v in part.exterior.coords])
    canvas.setStrokeColor(ACCENT)
    canvas.setLineWidth(1.6)
    _polyline(page, [at(u, v) for u, v in line])
    ends = ("right", "left") if across == "y" else ("rear", "front")
    for name, (u, v), align in ((ends[0], line[0], "right"), (ends[1], line[-1], "left")):
        x, y = at(u, v)
        canvas.circle(x, y, 2.2, fill=1)
        page.label(name, x + (-4 if align == "right" else 4), y - 2, 8, bold=True, align=align)  # type: ignore[arg-type]
    for number, (run, mark) in enumerate(zip((r for r in path.runs if r.is_bend), path.marks, strict=True), start=1):
        way = 1.0 if strap.passes == "over" else -1.0
        x, y = at((run.start[0] + run.end[0]) / 2, way * (run.start[1] + run.end[1]) / 2)
        page.label(f"{number}: {mark.angle_deg:.0f}°", x, y + 5, 8, bold=True, colour=ACCENT, align="middle")
    seen = "front" if across == "y" else "right"
    station = f"Section at {path.axis} = {cut_with_unit(strap.at_mm, units)} of the bay, seen from the {seen}"
    page.label(station, MARGIN, foot - 7 * mm, 8, colour=QUIET)
    return float(foot - 10 * mm)


def _polyline(page: Page, places: list[tuple[float, float]]) -> None:
    drawn = page.canvas.beginPath()
    drawn.moveTo(*places[0])
    for place in places[1:]:
        drawn.lineTo(*place)
    page.canvas.drawPath(drawn)


def _words(page: Page, strap: Strap, path: StrapPath, bolts: list[BoltRow], top: float) -> float:
    units, across = page.heading.reader, page.width - 2 * MARGIN
    ends = ("right", "left") if strap.across == "y" else ("rear", "front")
    wide, thick = cut_with_unit(strap.width_mm, units), sheet_text(strap.metal, strap.thickness_mm, units)
    sizes = (path.cut_mm, path.path_mm, strap.loop_mm, strap.take_up_mm)
    long, way, loop, take_up = (cut_with_unit(size, units) for size in sizes)
    cut = (
        f"Cut {long} of {strap.metal} {wide} × {thick}: path {way}, two loops of {loop}, take-up {take_up} "
        f"at the {ends[1]} end."
    )
    y = page.words(cut, MARGIN, top, across, 10, bold=True) - 2 * mm
    rows = [["From the " + ends[0] + " end of the strip", "begins", "ends", "angle", "inside radius"]]
    rows.append([f"loop, its anchor at {cut_text(strap.loop_mm, units)}", "", cut_text(strap.loop_mm, units), "", ""])
    for number, mark in enumerate(path.marks, start=1):
        place = [cut_text(mark.start_mm, units), cut_text(mark.end_mm, units)]
        rows.append([f"bend {number}", *place, f"{mark.angle_deg:.1f}°", cut_text(mark.radius_mm, units)])
    anchor = path.cut_mm - strap.loop_mm - strap.take_up_mm
    rows.append([f"{ends[1]} anchor, before take-up", cut_text(anchor, units), "", "", ""])
    y = page.table(rows, MARGIN, y, [62 * mm, 28 * mm, 28 * mm, 24 * mm, 30 * mm]) - 3 * mm
    notes = [
        f"Bends over the tank's pads, {cut_with_unit(strap.pad_mm, units)} thick, bonded to the strap.",
        f"In the bends its middle runs {cut_with_unit(path.outer_mm, units)} longer: the take-up has it.",
    ]
    if path.handed:
        notes.append(f"Not the same from either end: mark the {ends[0]} end before the first bend.")
    if path.bridged_at is not None:
        notes.append(f"It bridges a hollow {cut_with_unit(path.bridged_mm, units)} deep: fill it with a block.")
    notes.append("Bolts in loose first; tighten when the tank sits right, both ends in turn, then mark nut and bolt.")
    y = page.words(" ".join(notes), MARGIN, y, across, 9) - 3 * mm
    listed = [["Bolts", "quantity", "bolt", "length", "locking"]]
    for row in bolts:
        if row.id.startswith(f"{strap.id}."):
            long = "none long enough" if row.length_mm is None else cut_text(row.length_mm, units)
            listed.append([row.name, f"{row.count}", f"{row.size} {row.grade}", long, row.locking])
    return page.table(listed, MARGIN, y, [50 * mm, 20 * mm, 30 * mm, 30 * mm, 44 * mm])


def _strip(page: Page, strap: Strap, path: StrapPath) -> None:
    """The strip at full size, a row after the other; each begins where the one before ends."""
    tall = strap.width_mm * mm
    rows, row = ceil(path.cut_mm / TILE_MM), 0
    while row < rows:
        page.next()
        y = page.start(f"{strap.name.capitalize()} at full size: cut the rows out and stick them end to end")
        while row < rows and y - tall - ROW > 22 * mm:
            _tile(page, strap, path, row, y - 10 * mm - tall)
            y -= tall + ROW
            row += 1
        page.ruler(MARGIN, 14 * mm)
    page.next()


def _tile(page: Page, strap: Strap, path: StrapPath, row: int, foot: float) -> None:
    canvas, start, units = page.canvas, row * TILE_MM, page.heading.reader
    long = min(TILE_MM, path.cut_mm - start)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.6)
    canvas.rect(MARGIN, foot, long * mm, strap.width_mm * mm)
    page.label(
        f"{row + 1}, from {cut_text(start, units)}", MARGIN, foot + strap.width_mm * mm + 4 * mm, 7, colour=QUIET
    )
    lines = [(strap.loop_mm, "loop", LINE), (path.cut_mm - strap.loop_mm, "loop", LINE)]
    for number, mark in enumerate(path.marks, start=1):
        lines += [(mark.start_mm, f"bend {number} begins", ACCENT)]
        lines += [(mark.end_mm, f"bend {number} ends, {mark.angle_deg:.0f}°", ACCENT)]
    for n, (at, text, colour) in enumerate(sorted(lines, key=lambda line: line[0])):
        if start - 1e-6 <= at <= start + long:
            x = MARGIN + (at - start) * mm
            canvas.setStrokeColor(colour if colour is not LINE else INK)
            canvas.line(x, foot, x, foot + strap.width_mm * mm)
            under = foot - (3.5 if n % 2 else 7) * mm
            page.label(f"{text} {cut_text(at, units)}", x, under, 6.5, align="left" if at - start < 60 else "right")
