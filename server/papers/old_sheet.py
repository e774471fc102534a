"""Old to new on paper: hung beside the vehicle while the old tank comes out."""

from keel.analysis.tank import TankAnalysis
from keel.studies.lines.old_map import OLD_MAP
from server.papers.flowing import FlowingSheet
from server.papers.heading import Heading

ABOUT = (
    "Label each before it is taken off. CAUTION. Old lines hold fuel, and old tanks vapour: battery off, no flame, a "
    "can under every end, caps on at once."
)


def old_map_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """Every old thing, what becomes of it, a box to tick."""
    sheet = FlowingSheet(heading, "old to new", "Old to new")
    sheet.words(ABOUT, 9, bold=True)
    rows = [["Old", "Kind", "Did", "Fate", "Joined now at, or closed by", "Done"]]
    for one in tank[OLD_MAP].things:
        place = one.goes_to or ("OPEN" if one.fault else "")
        rows.append([one.name, one.kind, one.did, one.fate, place, ""])
    sheet.table("Lines, wires, vapour parts and ports", rows, [38, 22, 42, 24, 46, 14], (0, 1, 2, 3, 4))
    return sheet.pdf()
