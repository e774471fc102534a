"""Shape and insides as a maker works there: every litre against a sum by hand, doors, bags, cells."""

from math import pi
from typing import Any

from tests.web.person import AtThePage

SHELL = {"length_mm": 806.0, "width_mm": 406.0, "height_mm": 306.0, "thickness_mm": 3.0, "bend_radius_mm": 0.0}
BRIMFUL = 0.8 * 0.4 * 0.3 * 1000
PICKUP = {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 203.0, "y_mm": 203.0}


class Box(AtThePage):
    """A box of 96 litres."""

    document: dict[str, Any] = {"shell": SHELL, "ports": [PICKUP]}
    drawn = False

    def findings(self) -> str:
        """What is found here."""
        return self.text("#findings")

    def feature(self, place: int = -1) -> dict[str, Any]:
        """A feature as it is kept."""
        kept: dict[str, Any] = self.saved()["shell"]["features"][place]
        return kept


class Shape(Box):
    """What is let in, hung under and cut away."""

    def setUp(self) -> None:
        """At the shell."""
        super().setUp()
        self.open_station("shell")
        self.until_tally(BRIMFUL)

    def test_a_sump(self) -> None:
        """200 by 120 by 60 outside adds what is between its plates, and the hole it is let in by."""
        self.press("Add a sump")
        for label, text in (("Length", "206"), ("Width", "126"), ("Hangs by", "60")):
            self.type_into(label, text)
        self.until_tally(BRIMFUL + 200 * 120 * 60 / 1e6)
        self.assertIn("206 mm × 126 mm × 60 mm over all", self.text("aside"))
        self.type_into("Name", "well of souls", nth=-1)
        self.assertEqual((self.feature()["name"], self.feature()["deep_mm"]), ("well of souls", 60))

    def test_an_edge_cut_away(self) -> None:
        """A relief of 86 by 60 along a lower edge, its sheet inside the tank as thick as all of it."""
        self.press("Add a relief")
        self.until_tally(BRIMFUL - (86 - 3 + 3) * (60 - 3 + 3) * 800 / 1e6)
        self.type_into("Height", "100", nth=-1)
        self.until_tally(BRIMFUL - 86 * 100 * 800 / 1e6)
        self.choose("Form", "round, lengthwise")
        self.until(lambda: self.tally() > BRIMFUL - 86 * 100 * 800 / 1e6, "a round one takes less")

    def test_a_roof_that_steps_down(self) -> None:
        """240 in and 80 down over the whole width; from the other side the same."""
        self.press("Add a roof step")
        wanted = BRIMFUL - 80 * 400 * 240 / 1e6
        self.until_tally(wanted, within=0.4)
        rest = self.tally()
        self.choose("Side", "rear")
        self.until(lambda: self.feature()["side"] == "rear", "kept")
        self.until_tally(rest)

    def test_two_cells(self) -> None:
        """A partition off the middle makes two, each with its litres; moved they change, together they don't."""
        self.press("Add a partition")
        self.type_into("From rear", "303", nth=0)
        self.shows("rear cell", "aside")
        rear, front = 300 * 400 * 300 / 1e6, (800 - 303) * 400 * 300 / 1e6
        self.until_tally(rear + front)
        shares = self.text("aside").partition("rear cell ")[2]
        self.assertAlmostEqual(float(shares.split(" ")[0]) / (rear * 0.9642), 1.0, delta=0.002)
        self.press("Remove partition")
        self.until_tally(BRIMFUL)

    def test_a_cylinder_that_lies(self) -> None:
        """As wide as the box was high: π/4 times the bore squared, as long; dished it holds the caps more."""
        self.choose("Tank shape", "Cylinder, lying")
        self.until_tally(pi / 4 * 300**2 * 800 / 1e6, within=0.05)
        self.type_into("Dish of the ends", "40")
        cap = pi * 40 / 6 * (3 * 150**2 + 40**2)
        self.until(lambda: self.tally() > pi / 4 * 300**2 * 800 / 1e6 + 2, "caps")
        self.assertLess(self.tally(), (pi / 4 * 300**2 * 806 + 2 * cap) / 1e6)

    def test_what_no_longer_lies_on_it(self) -> None:
        """Shorter than where its well is: named where it is typed, nothing lost, and undone in one step."""
        self.press("Add a well")
        self.type_into("From rear", "600", nth=0)
        before = self.tally()
        self.type_into("Length outside", "300")
        self.until(lambda: "lies outside" in self.text("aside") or "past the edge" in self.findings(), "named")
        self.press("Undo")
        self.until_tally(before)
        self.assertEqual(self.feature()["a_mm"], 600)


class Insides(Box):
    """Plates, pots, foam and bags."""

    def setUp(self) -> None:
        """At the insides."""
        super().setUp()
        self.open_station("inside")
        self.until_tally(BRIMFUL)

    def test_a_plate_and_its_corners(self) -> None:
        """3 mm of a section of 400 by 300, less four corners; its open share is what they leave."""
        self.press("Add a baffle")
        self.type_into("Corners cut off by", "60")
        corners = 4 * 60**2 / 2
        self.until_tally(BRIMFUL - (400 * 300 - corners) * 3 / 1e6, within=0.008)
        open_pct = 100 * corners / (400 * 300)
        said = float(self.text("aside").partition("Plateopenbaffle")[2].split(" ")[0])
        self.assertAlmostEqual(said, open_pct, delta=0.4)

    def test_a_row_of_holes_opens_it(self) -> None:
        """Three holes of 40 mm are 3770 mm²: less plate by as much, more open by as much."""
        self.press("Add a baffle")
        self.until(lambda: self.tally() < BRIMFUL - 0.1, "it stands")
        before = self.tally()
        opened = float(self.text("aside").partition("Plateopenbaffle")[2].split(" ")[0])
        self.press("Add: row of holes")
        for label, text in (("Diameter", "40"), ("Number", "3"), ("Apart", "80")):
            self.type_into(label, text)
        area = 3 * pi / 4 * 40**2
        self.until_tally(before + area * 3 / 1e6, within=0.006)
        now = float(self.text("aside").partition("Plateopenbaffle")[2].split(" ")[0])
        self.assertAlmostEqual(now - opened, 100 * area / (400 * 300), delta=0.15)

    def test_a_pot_round_the_pickup(self) -> None:
        """160 outside in 3 mm, 150 high: what it holds to its rim stands in the list of rooms."""
        self.press("Add a pot")
        self.shows(f"pot{154 * 154 * 150 / 1e6:.1f} L", "aside")
        self.type_into("Rim above floor", "100")
        self.shows(f"pot{154 * 154 * 100 / 1e6:.1f} L", "aside")
        self.assertEqual([door["side"] for door in self.feature()["doors"]], ["rear", "front"])
        self.press("Remove door 2")
        self.until(lambda: len(self.feature()["doors"]) == 1, "one door")

    def test_a_bag(self) -> None:
        """1.5 mm of bag and 6 of room all round; a plate stands where it goes, and has to go before it."""
        self.press("Add a bladder")
        off = 2 * (1.5 + 6)
        self.until_tally((800 - off) * (400 - off) * (300 - off) / 1e6, within=0.02)
        self.press("Add a baffle")
        self.shows("baffle stands where the bladder goes", "#findings")
        self.press("Remove baffle")
        self.until(lambda: "stands where the bladder goes" not in self.findings(), "it has room")
        self.press("Remove the bladder")
        self.until_tally(BRIMFUL)

    def test_how_far_fuel_runs(self) -> None:
        """800 mm lengthwise at first; a plate 300 in leaves 497; the offer keeps the house rule."""
        self.shows("The longest free run is 800 mm, lengthwise", "aside")
        self.press("Add a baffle")
        self.type_into("From rear", "303")
        self.shows("The longest free run is 497 mm, lengthwise", "aside")
        self.shows("limit 350 mm", "#findings")
        self.press("Apply", "#findings")
        self.until(lambda: "limit 350 mm" not in self.findings(), "no run is longer")

    def test_a_lining_that_fuel_lifts(self) -> None:
        """Epoxy in alcohol comes off: said where it is chosen, gone with another one."""
        self.choose("Lining", "epoxy")
        self.until(lambda: self.saved()["inside"]["lining"] == "epoxy", "kept")
        self.open_station("brief")
        self.choose("Fuel", "E85")
        self.open_station("inside")
        self.shows("epoxy", "#findings")
        self.choose("Lining", "nothing")
        self.until(lambda: "epoxy" not in self.findings(), "nothing to lift")
