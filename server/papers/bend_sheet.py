"""The bend sheet, a page a part: every bend in turn with the angle to bend to; and a question to somebody else."""

from collections.abc import Sequence
from math import cos, radians, sin

from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm

from keel.analysis.tank import TankAnalysis
from keel.design.sheet import PartQuestion
from keel.formats.quantities import ReaderUnits, cut_text, fine_text, sentence_text, sheet_text
from keel.reference.quantities import shown_text
from keel.studies.sheet.bending import BENDINGS, Bending, BendStep
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.hems import HEM_DEG
from keel.studies.sheet.parts import Bend, FlatPart, Spot
from server.papers.drawing import Frame, draw_part
from server.papers.heading import Heading
from server.papers.page import ACCENT, INK, MARGIN, METAL, QUIET, STOP, Page

SIZE = landscape(A4)
PICTURE = 42 * mm, 34 * mm
TABLE = 140 * mm
PROOF = (
    "Bend a strip of the same sheet on the same tool first and put its figure in place of this one. Check the angle "
    "with a gauge after every bend, and the leg behind it: what is wrong at bend 2 can't be put right at bend 4."
)
NO_STEPS = "Bent up on all sides between the fingers: sides of equal length first, the longest last."


def bend_sheet_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """Every bent part of a tank, as PDF: a page each."""
    page = Page(heading, "bend sheet", SIZE)
    flats = {part.name: part for part in tank[FLATS].parts}
    for bending in tank[BENDINGS].parts:
        part = flat_of(flats, bending)
        if part is not None:
            _bent(page, tank, part, bending)
            page.next()
    return page.pdf()


def flat_of(flats: dict[str, FlatPart], bending: Bending) -> FlatPart | None:
    """The flat that is bent so: it, or the first of those that its pieces became."""
    alike = [part for name, part in flats.items() if name == bending.name or name.startswith(f"{bending.name}-")]
    return next(iter(alike), None)


def _bent(page: Page, tank: TankAnalysis, part: FlatPart, bending: Bending) -> None:
    units = page.heading.reader
    top = page.start(f"Bend sheet: {part.title.lower()} × {part.quantity}")
    sheet = sheet_text(tank.shell.metal, part.thickness_mm, units)
    stuff = f"On {bending.machine}. {tank.shell.metal}, {sheet}. {sentence_text(part.note, units)}"
    y = page.words(stuff, MARGIN, top, page.width - 2 * MARGIN, 9) - 2 * mm
    width = page.width - 2 * MARGIN - TABLE - 6 * mm
    draw_part(page.canvas, Frame(MARGIN, y - 74 * mm, width, 72 * mm), part, units)
    below = _table(page, part, bending, y)
    if bending.stuck is not None:
        page.words(
            f"No order makes all bends on {bending.machine}: the one at line {bending.stuck} is left over.",
            page.width - MARGIN - TABLE,
            below - 1 * mm,
            TABLE,
            9,
            bold=True,
            colour=STOP,
        )
    _pictures(page, bending, min(y - 78 * mm, below - 10 * mm))
    page.words(PROOF, MARGIN, MARGIN + 10 * mm, page.width - 2 * MARGIN, 8.5, bold=True)


def _table(page: Page, part: FlatPart, bending: Bending, y: float) -> float:
    """Each bend in turn: where, which way, to what, so that what is left."""
    units = page.heading.reader
    lines = {bend.order: bend for bend in part.bends}
    rows = [("Bend", "At", "Way", "Check on the way", "Bend to", "Left is", "Radius", "Clamped")]
    for turn, step in enumerate(bending.steps, start=1):
        bend = lines.get(turn)
        to = "springs back flat" if step.bend_to_deg is None else f"{step.bend_to_deg:.1f}°"
        to = "press down" if step.angle_deg >= HEM_DEG else to
        clamped = {"low": "left end", "high": "right end"}[step.clamped] if step.after else ""
        at, radius = (_place(bend, units), fine_text(bend.radius_mm, units)) if bend else ("", "")
        way = f"{step.direction}, over" if step.turned_over else step.direction
        checks = ", ".join(f"{one.bent_to_deg:.0f}° leaves {one.left_deg:.1f}°" for one in step.on_the_way)
        rows.append((str(turn), at, way, checks, to, f"{step.angle_deg:.1f}°", radius, clamped))
    widths = [w * mm for w in (10, 22, 17, 32, 17, 13, 14, 15)]
    return page.table(rows, page.width - MARGIN - TABLE, y, widths, 8.5)


def _place(bend: Bend, units: ReaderUnits) -> str:
    (u0, v0), (u1, v1) = bend.start, bend.end
    if abs(u0 - u1) < 0.05:
        return f"{cut_text(u0, units)} from left"
    return f"{cut_text(v0, units)} up" if abs(v0 - v1) < 0.05 else "aslant, as drawn"


def _pictures(page: Page, bending: Bending, top: float) -> None:
    """The part across the brake before each bend, thin, and after it."""
    drawn = [(turn, step) for turn, step in enumerate(bending.steps, start=1) if step.after]
    if not drawn:
        page.words(NO_STEPS, MARGIN, top, page.width - 2 * MARGIN, 9)
        return
    wide, high = PICTURE
    across = int((page.width - 2 * MARGIN) // wide)
    for place, (turn, step) in enumerate(drawn[: 2 * across]):
        row, column = divmod(place, across)
        x, y = MARGIN + column * wide, top - (row + 1) * high
        _picture(page, step, bending, x, y)
        page.label(f"{turn}", x, y + high - 5 * mm, 10, bold=True)


def _lifted(leaf: Sequence[Spot], angle_deg: float) -> list[Spot]:
    """A folder's leaf once it has made a bend."""
    cos_, sin_ = cos(radians(angle_deg)), sin(radians(angle_deg))
    return [(x * cos_ - y * sin_, x * sin_ + y * cos_) for x, y in leaf]


def _picture(page: Page, step: BendStep, bending: Bending, x: float, y: float) -> None:
    wide, high = PICTURE[0] - 6 * mm, PICTURE[1] - 8 * mm
    machine = bending.tool, bending.under, _lifted(bending.leaf, step.angle_deg)
    spots = [*step.before, *step.after, *(spot for outline in machine for spot in outline)]
    left, right = min(u for u, _ in spots), max(u for u, _ in spots)
    low, up = min(v for _, v in spots), max(v for _, v in spots)
    scale = min(wide / max(1.0, right - left), high / max(1.0, up - low))
    canvas = page.canvas

    def line(places: Sequence[Spot], *, closed: bool = False) -> None:
        path = canvas.beginPath()
        for n, (u, v) in enumerate(places):
            (path.moveTo if n == 0 else path.lineTo)(x + 6 * mm + (u - left) * scale, y + (v - low) * scale)
        if closed:
            path.close()
        canvas.drawPath(path, stroke=1, fill=0)

    canvas.setStrokeColor(METAL)
    canvas.setLineWidth(0.8)
    for outline in filter(None, machine):
        line(outline, closed=True)
    canvas.setStrokeColor(QUIET)
    canvas.setLineWidth(0.5)
    canvas.setDash(2, 2)
    line(step.before)
    canvas.setDash()
    canvas.setStrokeColor(ACCENT)
    canvas.setLineWidth(1.2)
    line(step.after)


def send_out_pdf(heading: Heading, tank: TankAnalysis, part: FlatPart) -> bytes:
    """A part that somebody else makes, on a page for them."""
    asked = "Please make this part as drawn; sizes are those of the flat, its inside towards you."
    return _page_for(heading, tank, part, f"To be made: {part.title.lower()} × {part.quantity}", asked)


def question_pdf(heading: Heading, tank: TankAnalysis, part: FlatPart, question: PartQuestion) -> bytes:
    """A part that this shop can't bend on a page for somebody who may: drawing, figures, question, room to answer."""
    title = f"A question to {question.to or 'whom it may concern'}: {part.title.lower()} × {part.quantity}"
    return _page_for(heading, tank, part, title, question.asked)


def _page_for(heading: Heading, tank: TankAnalysis, part: FlatPart, title: str, asked: str) -> bytes:
    page = Page(heading, title.partition(":")[0].lower(), SIZE)
    units = heading.reader
    top = page.start(title)
    y = page.words(asked, MARGIN, top, page.width - 2 * MARGIN, 11, bold=True) - 3 * mm
    width = page.width - 2 * MARGIN - TABLE - 6 * mm
    draw_part(page.canvas, Frame(MARGIN, y - 74 * mm, width, 72 * mm), part, units)
    shell = tank.shell
    rows = [
        ("Metal", f"{shell.metal}, {sheet_text(shell.metal, part.thickness_mm, units)}"),
        ("Flat", f"{cut_text(part.length_mm, units)} × {cut_text(part.width_mm, units)}"),
        ("Mass", shown_text("kg", part.mass_kg, units)),
        *dict.fromkeys((f"Bend {b.order}", _asked(b, units)) for b in part.bends),
        ("Sizes", "millimetres" if units == "mm_l" else "inches"),
    ]
    x = page.width - MARGIN - TABLE
    below = page.table(rows, x, y, (24 * mm, TABLE - 24 * mm), 9, head=False, strong=(1,))
    bending = next((one for one in tank[BENDINGS].parts if one.name == part.name), None)
    if bending is not None and bending.stuck is not None:
        why = f"On {bending.machine} no order makes the bend at line {bending.stuck}: the part meets the beam."
        page.words(why, x, below - 2 * mm, TABLE, 9)
    _room_to_answer(page, min(y - 82 * mm, below - 20 * mm))
    return page.pdf()


def _asked(bend: Bend, units: ReaderUnits) -> str:
    way = "towards you" if bend.direction == "up" else "away from you"
    return f"{_place(bend, units)}, {bend.angle_deg:.1f}° {way}, radius inside {fine_text(bend.radius_mm, units)}"


def _room_to_answer(page: Page, y: float) -> None:
    page.canvas.setStrokeColor(INK)
    page.canvas.setLineWidth(0.4)
    for place, said in enumerate(
        ("It can be bent as drawn: yes / no", "With which machine, in which order", "Price, days", "Name, date")
    ):
        at = y - place * 11 * mm
        page.label(said, MARGIN, at, 9)
        page.canvas.line(MARGIN + 62 * mm, at - 1 * mm, page.width - MARGIN, at - 1 * mm)
