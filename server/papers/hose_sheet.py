"""The sheet for whoever makes the hoses: what each is cut to, its ends, how it is pushed on, and what to buy."""

from keel.analysis.tank import TankAnalysis
from keel.formats.quantities import cut_with_unit, quantity_text, sentence_text
from keel.studies.lines.hoses import HOSES, HoseCut, HoseEnd
from keel.studies.lines.pushed import PUSHED, Pushed
from server.papers.flowing import FlowingSheet
from server.papers.heading import Heading

CAUTION = (
    "CAUTION. Cut with a blade, square, no grit inside; blow each hose through and cap it. No heat where fuel was. "
    "A hose that was kinked or pulled off once is not used again."
)
DEGREE = "\N{DEGREE SIGN}"


def hoses_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """The sheet of all hoses."""
    units = heading.reader
    hoses = tank[HOSES]
    sheet = FlowingSheet(heading, "hoses", "Hoses to cut")
    sheet.words(CAUTION, 9, bold=True)
    head = ["Hose", "From", "Cut", "First end", "Last end", "Clocking", "Bends to"]
    rows = [head, *(_row(one, heading) for one in hoses.cut)]
    sheet.table("In the order of the path", rows, [36, 32, 18, 32, 32, 16, 18], (0, 1, 3, 4))
    sheet.words(
        "Cut: the way and 3 % slack, half of what its ends move, less what its ends take up. Clocking: the last elbow "
        "against the first, looking along the hose, clockwise.",
        8,
    )
    if tank[PUSHED]:
        head = ["Joint", "On", "How far", "Bead", "Clamp from the end", "Clamp for"]
        rows = [head, *(_pushed(one, heading) for one in tank[PUSHED])]
        sheet.table("Pushed on", rows, [46, 30, 20, 28, 38, 20], (0, 1, 3))
        said = dict.fromkeys((one.lubricant, sentence_text(one.warming, units)) for one in tank[PUSHED])
        for lubricant, warming in said:
            sheet.words(f"Lubricant: {lubricant}. Warming: {warming}.", 8)
        sheet.words("A clamp sits behind the bead, never on it, and never at the hose's very end.", 8)
    rows = [["Hose", "Bore", "Pieces", "Together"]]
    for buy in hoses.buy:
        rows.append(
            [
                buy.name,
                cut_with_unit(buy.bore_mm, units),
                str(buy.pieces),
                quantity_text("together_m", buy.metres, units),
            ]
        )
    sheet.table("To buy", rows, [80, 25, 20, 30], (0,))
    return sheet.pdf()


def _row(one: HoseCut, heading: Heading) -> list[str]:
    units = heading.reader
    first, last = one.ends
    clocking = "" if one.clocking_deg is None else f"{one.clocking_deg:.0f}{DEGREE}"
    cut = "does not fit" if one.cut_mm <= 0 else cut_with_unit(one.cut_mm, units)
    return [
        one.name,
        one.stock or one.hose,
        cut,
        _end(first, heading),
        _end(last, heading),
        clocking,
        cut_with_unit(one.radius_mm, units),
    ]


def _end(end: HoseEnd, heading: Heading) -> str:
    if not end.is_known:
        return "not known"
    if end.clamped:
        return "clamped"
    elbow = f"{end.elbow_deg:.0f}{DEGREE} elbow" if end.elbow_deg else "straight"
    return f"{elbow}, takes {cut_with_unit(end.takes_mm, heading.reader)}"


def _pushed(one: Pushed, heading: Heading) -> list[str]:
    units = heading.reader
    bead = (
        "needed, none there" if one.needs_bead and not one.has_bead else "there" if one.has_bead else "none, not needed"
    )
    room = one.clamp_to_mm >= one.clamp_from_mm
    clamp = (
        f"{cut_with_unit(one.clamp_from_mm, units)} to {cut_with_unit(one.clamp_to_mm, units)}" if room else "no room"
    )
    short = " SHORT" if one.pushed_mm < one.least_mm else ""
    return [
        f"{one.name}, {one.side}",
        one.on,
        cut_with_unit(one.pushed_mm, units) + short,
        bead,
        clamp,
        cut_with_unit(one.clamp_for_mm, units),
    ]
