"""The mount on paper: what holds the tank, what it bears, its bolts, its pads, what is masked."""

from keel.analysis.tank import TankAnalysis
from keel.formats.quantities import cut_text, quantity_text, sentence_text
from keel.studies.mount.bolt_list import BOLTS_LISTED
from keel.studies.mount.filler_pieces import FILLER_PIECES, OLD_MEASURED, FillerPiece
from keel.studies.mount.loads import MOUNT_LOADS, Loads
from keel.studies.mount.protection import PROTECTION, PadRow
from server.papers.flowing import FlowingSheet
from server.papers.heading import Heading

CAUTION = (
    "CAUTION. A full tank is heavy and its lower edge can't be seen from above: two people, a support under it, hands "
    "clear of the bearers until it sits. Never drill, grind or weld at a mount with fuel or vapour in the tank."
)


def mount_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """The mount's sheet."""
    sheet, units = FlowingSheet(heading, "mount", "Mount: loads, bolts, pads and masking"), heading.reader
    sheet.words(CAUTION, bold=True)
    loads = tank[MOUNT_LOADS]
    if loads.mass:
        sheet.table("Loads", _loads(loads, heading), [26, 16, 26, 118], (0, 3))
        sheet.table("Weakest links", _links(loads, heading), [46, 44, 30, 26, 26, 14])
    bolts = [["Place", "Bolt", "Locking", "Length", "Stack"]]
    for row in tank[BOLTS_LISTED]:
        long = "none" if row.length_mm is None else cut_text(row.length_mm, units)
        nut = "captive nut" if row.captive else row.locking
        bolts.append(
            [row.name, f"{row.count} × {row.size} {row.grade}, {row.state}", nut, long, cut_text(row.stack_mm, units)]
        )
    sheet.table(
        "Bolts: all in loose first, tightened from the middle outward, each marked", bolts, [52, 54, 40, 20, 20]
    )
    pieces = tank[FILLER_PIECES]
    if pieces:
        head = ["Piece, from the tank outward", "Cut", "End at the tank", "End at the body", "Pushed on"]
        sheet.table("Filler", [head, *(_piece(one, heading) for one in pieces)], [60, 26, 36, 36, 26], (0,))
    asked = [[one.name, _length(one.measured_mm, heading)] for one in tank[OLD_MEASURED]]
    if asked:
        sheet.table("Measured while the old tank is in", [["What", "Measured"], *asked], [100, 40], (0,))
    kept = tank[PROTECTION]
    pads = [["Place", "Pad or cover", "Size", "Note"], *(_pad(row, heading) for row in kept.pads)]
    sheet.table("Pads and covers", pads, [38, 42, 36, 70], (0, 1, 2, 3))
    holes = [["Hole", "Bolt", "Drilled before coating", "Left after it"]]
    holes += [[one.place, one.bolt, cut_text(one.drill_mm, units), cut_text(one.hole_mm, units)] for one in kept.holes]
    sheet.table("Room for the coating", holes, [60, 30, 48, 48])
    masked = [["Masked", "What of it", "Against"], *([one.place, one.what, one.against] for one in kept.masked)]
    sheet.table("Masking list", masked, [60, 80, 46])
    return sheet.pdf()


def _piece(one: FillerPiece, heading: Heading) -> list[str]:
    units, turns = heading.reader, "hose" in one.what
    ends = [f"{angle:.0f}° {'turn' if turns else 'off square'}" for angle in (one.first_deg, one.last_deg)]
    return [one.what, cut_text(one.cut_mm, units), *ends, cut_text(one.pushed_mm, units)]


def _length(value: float | None, heading: Heading) -> str:
    return "" if value is None else cut_text(value, heading.reader)


def _loads(loads: Loads, heading: Heading) -> list[list[str]]:
    units = heading.reader
    names = {check.id: check.name for check in loads.mounts}
    rows = [["Direction", "g", "Load", "Carried by"]]
    for case in loads.cases:
        by = ", ".join(f"{names.get(one.holder, '')} {quantity_text('f_n', one.force_n, units)}" for one in case.by)
        by = by or ("what it sits on" if case.is_held else "nothing")
        rows.append(
            [
                case.way,
                f"{case.g:g}",
                quantity_text("load_n", case.load_n, units),
                by if case.is_held else f"NOT HELD: {by}",
            ]
        )
    return rows


def _links(loads: Loads, heading: Heading) -> list[list[str]]:
    units = heading.reader
    rows = [["Mount", "Weakest link", "Direction", "Load", "Bears", "Reserve"]]
    for check in loads.mounts:
        for link in check.links[:1]:
            what = f"{link.name}, {link.at} end" if link.at else link.name
            figures = [quantity_text("load_n", link.load_n, units), quantity_text("bears_n", link.bears_n, units)]
            rows.append([check.name, what, link.way, *figures, f"{link.reserve:.2f}"])
    return rows


def _pad(row: PadRow, heading: Heading) -> list[str]:
    units = heading.reader
    sizes = [cut_text(size, units) for size in (row.long_mm, row.wide_mm, row.thick_mm) if size is not None]
    return [row.place, row.what, " × ".join(sizes), sentence_text(row.note, units)]
