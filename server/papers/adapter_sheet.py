"""The sheet of an adapter that is made for the job."""

from reportlab.lib.units import mm

from keel.analysis.parts import LINES
from keel.analysis.tank import TankAnalysis
from keel.design.lines import LineRun
from keel.formats.quantities import cut_with_unit, quantity_text
from keel.studies.lines.flows import FLOWS
from keel.studies.lines.joints import JOINTS
from keel.studies.lines.stretches import STRETCHES
from server.papers.flowing import FlowingSheet
from server.papers.heading import Heading
from server.papers.page import ACCENT, INK, MARGIN, Page

NOTHING_LPH = 0.05


def adapter_pdf(heading: Heading, tank: TankAnalysis, run: str, side: str) -> bytes:
    """A specially made adapter: each end's standard, size and seal, bore to be kept, length, direction."""
    found = next(one for one in tank[LINES].runs if one.id == run)
    end = found.start if side == "start" else found.end
    assert end.adapter is not None
    adapter, units = end.adapter, heading.reader
    joint = next(one for one in tank[JOINTS] if (one.run, one.side) == (run, side))
    sheet = FlowingSheet(heading, "adapter", f"Adapter for {found.name} at {joint.part_name}")
    sheet.words(
        "To be made as drawn and sent back with its bore gauged right through, clean and capped.", 10, bold=True
    )
    canvas, page = sheet.page.canvas, sheet.page
    left, middle, long = MARGIN + 30 * mm, sheet.y - 26 * mm, 110 * mm
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(1.2)
    widths = [one.sized.diameter_mm for one in (adapter.part_side, adapter.line_side)]
    scale = 24 * mm / max(widths)
    for place, across in ((left, widths[0]), (left + long * 0.7, widths[1])):
        canvas.rect(place, middle - across * scale / 2, long * 0.3, across * scale)
    bore = adapter.bore * scale
    canvas.rect(left + long * 0.3, middle - bore, long * 0.4, 2 * bore)
    canvas.setStrokeColor(ACCENT)
    for edge in (-bore / 2, bore / 2):
        canvas.line(left, middle + edge, left + long, middle + edge)
    page.label(f"to {joint.part_name}", left - 2 * mm, middle, 9, bold=True, align="right")
    page.label(_beyond(tank, found, side), left + long + 2 * mm, middle, 9, bold=True)
    outward, above = _outward(tank, run, side), middle + bore + 3 * mm
    page.label("flow goes either way" if outward is None else "flow", left + long / 2, above, 8, align="middle")
    if outward is not None:
        ahead = 14 * mm if outward else -14 * mm
        _arrow(page, left + long / 2 + ahead / 2, above + 1 * mm, ahead)
    sheet.y = middle - 22 * mm
    rows = [["", "Standard and size", "Thread or outside", "Sealed by"]]
    for name, one in (("Part's end", adapter.part_side), ("Line's end", adapter.line_side)):
        thread = one.sized.thread or f"{one.size}"
        outside = f"{thread}, {cut_with_unit(one.sized.diameter_mm, units)}"
        rubber = f", {one.seal}" if one.seal else ""
        rows.append([name, f"{one.standard} {one.size} {one.hand}", outside, f"{one.seals_by}{rubber}"])
    sheet.table("Ends", rows, [30, 60, 50, 46], (0, 1, 2, 3))
    length = "as short as its spanners allow" if not adapter.length_mm else cut_with_unit(adapter.length_mm, units)
    facts = [
        ["What", "Figure"],
        ["Bore to be kept right through", cut_with_unit(adapter.bore, units)],
        ["Length from seat to seat", length],
        ["Material", f"{found.metal}"],
        ["Highest pressure in it", quantity_text("p_kpa", _highest(tank, run), units)],
    ]
    sheet.table("Sizes", facts, [80, 80], (0, 1))
    return sheet.pdf()


def _arrow(page: Page, x: float, y: float, long: float) -> None:
    head = 2 * mm if long > 0 else -2 * mm
    page.canvas.setStrokeColor(INK)
    page.canvas.line(x, y, x + long, y)
    for across in (-1 * mm, 1 * mm):
        page.canvas.line(x + long, y, x + long - head, y + across)


def _beyond(tank: TankAnalysis, run: LineRun, side: str) -> str:
    """What its other end meets: the line, or the part that it is screwed to."""
    other = run.end if side == "start" else run.start
    part = tank[LINES].part(other.part)
    return f"to {part.name}" if run.kind == "direct" and part else "to the line"


def _outward(tank: TankAnalysis, run: str, side: str) -> bool | None:
    """Whether fuel goes from the part into the line; None where that changes, or nothing flows."""
    flow = tank[FLOWS].run(run)
    signs = {one > 0 for one in (flow.flow_lph if flow else []) if one is not None and abs(one) > NOTHING_LPH}
    return None if len(signs) != 1 else signs.pop() == (side == "start")


def _highest(tank: TankAnalysis, run: str) -> float:
    return next((one.highest_kpa for one in tank[STRETCHES] if one.id == run), 0.0)
