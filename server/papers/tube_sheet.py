"""The sheet of a rigid tube: its bend table, the order of work, and its marks along the stock."""

from reportlab.lib.units import mm

from keel.formats.quantities import cut_text, cut_with_unit
from keel.studies.lines.tubes import TubeMade
from server.papers.flowing import FlowingSheet
from server.papers.heading import Heading
from server.papers.page import ACCENT, INK, MARGIN, METAL, QUIET
from server.papers.tube_full import full_size

TUBE_MM = 7.0
CAUTION = (
    "CAUTION. A tube that has held fuel holds vapour: no flame, no grinding, until it is rinsed and blown through. "
    "Goggles for cutting and blowing; no chips left inside."
)


def tube_pdf(heading: Heading, tube: TubeMade) -> bytes:
    """The sheet of one tube."""
    units = heading.reader
    sheet = FlowingSheet(heading, "tube", f"Bend table of {tube.name}")
    sheet.words(CAUTION, 9, bold=True)
    outside, radius = cut_with_unit(tube.outside_mm, units), cut_with_unit(tube.radius_mm, units)
    made = f"on {tube.bender}" if tube.bender else "no bender of the shop is known for it"
    sheet.words(f"Outside {outside}, bends to {radius} at the tube's middle, {made}.", 9)
    _strip(sheet, tube)
    rows = [["Step", "From the start", "Turn the tube", "Bend to", "Leaves", "Straight before"]]
    rows.append(["1 cut", cut_text(tube.rough_mm, units), "", "", "", ""])
    for number, bend in enumerate(tube.bends):
        straight = cut_text(tube.straights_mm[number], units) + (" SHORT" if tube.short[number] else "")
        turn = f"{bend.rotation_deg:.1f}\N{DEGREE SIGN}" if number else "first"
        angles = [f"{one:.1f}\N{DEGREE SIGN}" for one in (bend.set_deg, bend.angle_deg)]
        rows.append([f"{number + 2} bend", cut_text(bend.feed_mm, units), turn, *angles, straight])
    done = len(tube.bends) + 2
    rows.append([f"{done} trim", cut_text(tube.cut_mm, units), "", "", "", cut_text(tube.straights_mm[-1], units)])
    rows.append([f"{done + 1} square", "both ends, burr off inside and out, then nut, bead or flare", "", "", "", ""])
    sheet.table("In this order", rows, [26, 50, 30, 24, 24, 32], (0, 1))
    sheet.words(
        "Lengths along the tube's middle from its start to where each bend begins. Turns right-handed, looking along "
        f"the feed. Least straight {cut_with_unit(tube.least_grip_mm, units)}. Carried out step by step the table "
        f"meets the drawn corners within {cut_with_unit(max(tube.off_mm, 0.1), units)}.",
        8,
    )
    sheet.page.next()
    full_size(sheet.page, tube)
    return sheet.page.pdf()


def _strip(sheet: FlowingSheet, tube: TubeMade) -> None:
    """The stock to scale with its marks."""
    sheet.room(30 * mm)
    canvas, page, units = sheet.page.canvas, sheet.page, sheet.page.heading.reader
    scale = (page.width - 2 * MARGIN) / max(tube.rough_mm, 1.0)
    top = sheet.y - 12 * mm
    canvas.setStrokeColor(METAL)
    canvas.rect(MARGIN, top - TUBE_MM * mm, tube.cut_mm * scale, TUBE_MM * mm)
    canvas.setDash(2, 2)
    canvas.rect(MARGIN + tube.cut_mm * scale, top - TUBE_MM * mm, (tube.rough_mm - tube.cut_mm) * scale, TUBE_MM * mm)
    canvas.setDash()
    for number, bend in enumerate(tube.bends):
        x, arc = MARGIN + bend.feed_mm * scale, tube.radius_mm * bend.angle_deg * 0.017453292519943295 * scale
        canvas.setStrokeColor(ACCENT)
        canvas.rect(x, top - TUBE_MM * mm, arc, TUBE_MM * mm)
        page.label(f"{bend.set_deg:.1f}\N{DEGREE SIGN}", x + arc / 2, top + 2 * mm, 8, bold=True, align="middle")
        low = (4 if number % 2 == 0 else 8) * mm
        page.label(cut_text(bend.feed_mm, units), x, top - TUBE_MM * mm - low, 7, colour=INK)
    page.label("start", MARGIN, top + 2 * mm, 7, colour=QUIET)
    sheet.y = top - (TUBE_MM + 12) * mm
