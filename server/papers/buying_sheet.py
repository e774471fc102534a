"""The list for the day on paper: to be ticked off as it is ordered and as it comes."""

from reportlab.lib.pagesizes import A4, landscape

from keel.analysis.tank import TankAnalysis
from keel.formats.quantities import sentence_text
from keel.reference.quantities import shown_text
from keel.studies.buying.buying_list import BUYING_LIST, BuyingRow
from keel.studies.buying.mates import MATES, Mate
from server.papers.flowing import FlowingSheet
from server.papers.heading import Heading

ENDINGS = {"m": "m", "m²": "m2", "kg": "kg"}
PRICES = {"m": "perm", "m²": "persqm", "kg": "perkg"}
MOST_NAMED = 4


def buying_pdf(heading: Heading, tank: TankAnalysis) -> bytes:
    """Kind by kind; then every connection with what goes on it."""
    sheet = FlowingSheet(heading, "buying list", "Buying list", landscape(A4))
    shown = tank[BUYING_LIST]
    wrong = [one for one in tank[MATES] if one.why]
    if wrong:
        said = "; ".join(f"{one.part_name}, {one.port}: {one.why}" for one in wrong)
        sheet.words(f"MISSING: {said}.", 9, bold=True)
    open_price = f", {shown.unpriced} lines without a price" if shown.unpriced else ""
    sheet.words(f"To buy: {shown.cost:.2f}{open_price}.", 9)
    for kind in dict.fromkeys(row.kind for row in shown.rows):
        rows = [row for row in shown.rows if row.kind == kind]
        head = ["Item", "Quantity", "For", "Supplier", "Price", "On the shelf", "To order", "Ordered", "Here"]
        table = [head, *(_row(row, heading) for row in rows)]
        sheet.table(TITLES.get(kind, kind.capitalize()), table, [76, 20, 60, 34, 20, 20, 18, 14, 10], (0, 2, 3))
    if tank[MATES]:
        table = [["Part", "Connection", "On the list for it"]]
        table += [[one.part_name, one.port, _has(one, heading)] for one in tank[MATES]]
        sheet.table("Every connection with its mate", table, [70, 40, 160], (0, 1, 2))
    return sheet.pdf()


def _has(one: Mate, heading: Heading) -> str:
    return ", ".join(sentence_text(name, heading.reader) for name in one.has) if not one.why else one.why.upper()


TITLES = {
    "hose": "Hoses", "hose end": "Hose ends", "tube": "Tubes", "tube end": "Tube ends", "adapter": "Adapters",
    "clamp": "Clamps", "grommet": "Grommets", "cap": "Caps", "part": "Parts", "wire": "Wire", "wire end": "Terminals",
    "device": "Devices", "bond": "Bonds", "tank fitting": "For the tank", "sheet": "Sheet", "consumable": "Used up",
    "spare": "Spares to carry", "own": "Added by hand",
}  # fmt: skip


def _row(row: BuyingRow, heading: Heading) -> list[str]:
    units = heading.reader

    def amount(value: float) -> str:
        return f"{value:g}" if row.unit == "each" else shown_text(ENDINGS[row.unit], value, units)

    named = [*row.needed_for[:MOST_NAMED], *(["…"] if len(row.needed_for) > MOST_NAMED else [])]
    price = "" if row.price is None else f"{row.price:.2f}"
    if row.price is not None and row.unit != "each":
        price = shown_text(PRICES[row.unit], row.price, units)
    figures = [amount(row.on_shelf) if row.on_shelf else "", amount(row.to_order)]
    name = sentence_text(row.name, units)
    ordered = amount(row.ordered) if row.ordered else ""
    return [name, amount(row.quantity), "; ".join(named), row.supplier, price, *figures, ordered, ""]
