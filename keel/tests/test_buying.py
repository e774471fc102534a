"""The buying list: by hand, nothing left without its mate, prices and orders, files out and in."""

from collections import Counter
from unittest import TestCase

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.formats.buying import buying_csv, read_buying
from keel.studies.build.traveller import TRAVELLER
from keel.studies.buying.buying_list import BUYING_LIST, BuyingRow
from keel.studies.buying.line_items import LINE_ITEMS
from keel.studies.buying.mates import MATES, mates
from keel.studies.lines.joints import JOINTS
from keel.tests.line_samples import PARTS, Item, flares, replaced, without
from keel.tests.wiring_samples import BONDS, CLAD, RUNS, WIRES, looked_at, wired_up


def analysed(design: Design, workshop: Workshop | None = None) -> TankAnalysis:
    """Its studies."""
    return TankAnalysis(Asked(design, workshop or Workshop()))


def listed(design: Design, workshop: Workshop | None = None) -> dict[str, BuyingRow]:
    """The list by name."""
    return {row.key: row for row in analysed(design, workshop)[BUYING_LIST].rows}


class ByHand(TestCase):
    """The sample's line and wiring."""

    def test_both_ends_of_each_hose(self) -> None:
        """Eight hoses: fifteen screwed ends of two sizes and one tail with a clamp; the reference hose ends in two."""
        kinds = Counter[str]()
        for row in listed(wired_up()).values():
            kinds[row.kind] += round(row.quantity) if row.unit == "each" else 0
        screwed = sum(1 for one in analysed(wired_up())[LINE_ITEMS] if one.kind == "hose end")
        clamped = sum(1 for one in analysed(wired_up())[LINE_ITEMS] if one.kind == "clamp" and one.at)
        unknown = 1  # The rail's manifold has no connection typed.
        self.assertEqual(screwed + clamped + unknown, 2 * len(RUNS))
        self.assertEqual(kinds["cap"], 1)
        self.assertEqual(kinds["wire end"], 2 * len(WIRES))
        self.assertEqual(kinds["bond"], len(BONDS))
        self.assertEqual(kinds["part"], len([one for one in PARTS if one["does"]["kind"] != "rail"]))

    def test_wire_by_the_metre(self) -> None:
        """Every wire's length is on the list once."""
        rows = [row for row in listed(wired_up()).values() if row.kind == "wire"]
        self.assertAlmostEqual(sum(row.quantity for row in rows), sum(one["length_mm"] for one in WIRES) / 1e3)

    def test_spares_and_what_is_used_up(self) -> None:
        """Two fuses of each rating, a relay, and rod for the seams: ρ t² l and a third more."""
        rows = listed(wired_up())
        self.assertEqual(rows["fuse 10.0 A, spare"].quantity, 2)
        self.assertEqual(rows["relay 30.0 A, spare"].quantity, 1)
        figures = looked_at(wired_up()).shell
        assert figures is not None
        self.assertGreater(rows["filler rod for 5052-H32"].quantity, 0.05)


class NothingMissing(TestCase):
    """The check asks every connection, not the hoses."""

    def test_each_thing_left_out_is_missed(self) -> None:
        """Whatever is struck off that a connection needs is named by that connection."""
        tank = analysed(wired_up())
        design, items, joints = tank.design, tank[LINE_ITEMS], tank[JOINTS]
        before = {(one.part, one.port) for one in tank[MATES] if one.why}
        self.assertEqual(before, {("rail", "manifold")})
        struck = 0
        for item in [one for one in items if one.at]:
            rest = [one for one in items if one.at != item.at]
            after = {(one.part, one.port) for one in mates(design.lines, design.ports, rest, joints) if one.why}
            self.assertEqual(after - before, {tuple(item.at.split("."))}, item.key)
            struck += 1
        self.assertGreater(struck, 14)

    def test_what_is_open_and_what_does_not_fit(self) -> None:
        """A hose that is gone leaves two connections; a wrong end is no mate."""
        open_ends = wired_up(lines={"runs": without(RUNS, "after")})
        why = {(one.part, one.port): one.why for one in analysed(open_ends)[MATES] if one.why}
        self.assertEqual({key for key in why if key != ("rail", "manifold")}, {("rail", "out"), ("regulator", "in")})
        wrong: list[Item] = replaced(RUNS, "supply", end={"part": "filter", "port": "in", "connection": {"size": "-8"}})
        why = {(one.part, one.port): one.why for one in analysed(wired_up(lines={"runs": wrong}))[MATES] if one.why}
        self.assertIn("doesn't fit", why["filter", "in"])

    def test_it_is_found(self) -> None:
        """A stop as long as one is missing; none once each has its mate."""
        codes = {one.code for one in looked_at(wired_up()).findings}
        self.assertIn("buying.no_mate", codes)
        joined = replaced(CLAD, "rail", connections=[*flares("in", "out"), MANIFOLD])
        self.assertNotIn("buying.no_mate", {one.code for one in looked_at(wired_up(parts=joined)).findings})


MANIFOLD: Item = {"id": "manifold", "standard": "hose tail", "size": "6 mm", "hand": "male"}
FUSE = "fuse 10.0 A with its holder"


class Ordered(TestCase):
    """Prices, shelf, orders."""

    def test_typed_before_the_price_book_before_the_part(self) -> None:
        """And what is still to be ordered is what neither shelf nor order has."""
        book = {"price_book": [{"name": FUSE, "price": 3.0, "supplier": "Book", "on_shelf": 0}]}
        shop = Workshop.model_validate(book, strict=False)
        row = listed(wired_up(), shop)[FUSE]
        self.assertEqual((row.price, row.supplier, row.to_order, row.cost), (3.0, "Book", 1, 3.0))
        typed = wired_up(buying={"lines": [{"name": FUSE, "price": 4.0, "ordered": 1, "supplier": "Typed"}]})
        row = listed(typed, shop)[FUSE]
        self.assertEqual((row.price, row.supplier, row.to_order, row.cost), (4.0, "Typed", 0, 4.0))
        shelved = listed(wired_up(buying={"lines": [{"name": FUSE, "on_shelf": 5}]}), shop)[FUSE]
        self.assertEqual((shelved.to_order, shelved.cost), (0, 0.0))
        priced = listed(wired_up(parts=replaced(CLAD, "pump", price=90.0)))["pump 'pump'"]
        self.assertEqual(priced.price, 90.0)

    def test_own_lines_and_orders_that_are_too_many(self) -> None:
        """A line of one's own is on the list; what isn't needed any more is said."""
        own = [{"id": "i1", "name": "rags", "quantity": 3, "unit": "kg"}, {"id": "i2", "name": "bulb", "spare": True}]
        design = wired_up(buying={"own": own, "lines": [{"name": FUSE, "ordered": 4}]})
        rows = listed(design)
        self.assertEqual((rows["rags"].kind, rows["bulb"].kind), ("own", "spare"))
        self.assertIn("buying.too_many", {one.code for one in looked_at(design).findings})

    def test_out_and_in(self) -> None:
        """What goes out comes back as it was; a row that can't be is named, and the others are kept."""
        rows = list(
            listed(wired_up(buying={"lines": [{"name": FUSE, "price": 4.5, "ordered": 1, "supplier": "S"}]})).values()
        )
        lines, problems = read_buying(buying_csv(rows))
        self.assertEqual(problems, [])
        back = {line.name: line for line in lines}
        self.assertEqual(set(back), {row.key for row in rows})
        self.assertEqual((back[FUSE].price, back[FUSE].ordered, back[FUSE].supplier), (4.5, 1, "S"))
        lines, problems = read_buying(b"item,ordered\nhose,2\nclamp,-1\n")
        self.assertEqual([line.name for line in lines], ["hose"])
        self.assertIn("row 3", problems[0].field)

    def test_it_is_counted_in_at_build(self) -> None:
        """Each of the lines' and the wiring's things is among the goods, and nothing of the tank waits for it."""
        made = analysed(wired_up())[TRAVELLER]
        goods = {one.id: one.quantity for one in made.goods}
        self.assertEqual(goods[f"buy:{FUSE}"], 1)
        self.assertIn("receive:lines", {one.id for one in made.operations})
        waiting = {item[0] for gate in made.gates for one in gate.conditions for item in getattr(one, "items", ())}
        self.assertFalse({name for name in waiting if name.startswith("buy:")})
