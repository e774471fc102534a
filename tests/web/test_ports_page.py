"""Ports and gauge as they are put in: what stays behind, what air is caught, how long it fills, what the needle says."""

from math import radians, tan
from typing import Any

from tests.web.person import AtThePage

INSIDE = {"length": 800.0, "width": 400.0, "height": 300.0}
SHELL = {"length_mm": 806.0, "width_mm": 406.0, "height_mm": 306.0, "thickness_mm": 3.0, "bend_radius_mm": 0.0}
PER_MM = 0.8 * 0.4
"""Litres a millimetre of depth on the level."""
SLOPE = tan(radians(8))
PICKUP = {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 403.0, "y_mm": 203.0}
ATTITUDES = "main table"


class Box(AtThePage):
    """A box of 96 litres."""

    document: dict[str, Any] = {"shell": SHELL}
    drawn = False

    def findings(self) -> str:
        """What is found here."""
        return self.text("#findings")

    def ports(self) -> list[dict[str, Any]]:
        """Ports as they are kept."""
        kept: list[dict[str, Any]] = self.saved()["ports"]
        return kept


class Drawing(Box):
    """What a pickup leaves."""

    def setUp(self) -> None:
        """A pickup is put in."""
        super().setUp()
        self.open_station("ports")
        self.choose("Add a port", "pickup, where fuel is drawn")

    def test_what_it_leaves(self) -> None:
        """5 mm of 800 by 400 on the level; 20 mm where its inlet is put there; less usable by as much."""
        self.shows(f"{5 * PER_MM:.2f} L can’t be drawn", "aside")
        self.type_into("Inlet above underside", "23")
        self.shows(f"{20 * PER_MM:.2f} L can’t be drawn", "aside")
        usable = self.tally("usable_l")
        self.assertAlmostEqual(self.tally("rated_l") - usable, 20 * PER_MM, delta=0.011)

    def test_on_a_slope(self) -> None:
        """In the middle, nose up: the wedge behind the plane through its inlet, half the tank long."""
        self.press("Show the figures")
        behind = 400 + 5 / SLOPE
        wedge = behind * behind * SLOPE / 2 * 400 / 1e6
        self.shows(f"nose up{wedge:.2f} L", ATTITUDES)
        self.shows(f"nose down{wedge:.2f} L", ATTITUDES)
        self.type_into("From rear", "103")
        rear = 100 + 5 / SLOPE
        self.shows(f"nose up{rear * rear * SLOPE / 2 * 400 / 1e6:.2f} L", ATTITUDES)

    def test_capped_it_draws_nothing(self) -> None:
        """It says so, and the tank has no usable litres; open again it has."""
        self.tick("Capped, not in use")
        self.shows("closed blind", "#findings")
        self.tick("Capped, not in use")
        self.until(lambda: "closed blind" not in self.findings(), "open again")
        self.assertFalse(self.ports()[0]["capped"])

    def test_a_hanger_that_is_too_short(self) -> None:
        """Made for 250 where it is 303 from the seat to the floor: short; made for as much it isn't."""
        self.press("Add a hanger")
        self.type_into("Design depth", "250")
        self.shows("pickup 53 mm short", "#findings")
        self.type_into("Design depth", "303")
        self.until(lambda: "short" not in self.findings(), "reaches")

    def test_taken_out(self) -> None:
        """Removed it is gone with what was said of it; undone it is there with its place."""
        self.type_into("From rear", "333")
        self.press("Remove pickup")
        self.until(lambda: not self.do("rows"), "gone")
        self.assertEqual(self.ports(), [])
        self.press("Undo")
        self.until(lambda: self.do("rows") == ["pickup"] or self.do("rows"), "back")
        self.assertEqual(self.ports()[0]["x_mm"], 333)


class Breathing(Box):
    """Vents and fillers."""

    document = {"shell": SHELL, "ports": [PICKUP]}

    def setUp(self) -> None:
        """A filler and a vent are put in."""
        super().setUp()
        self.open_station("ports")
        self.choose("Add a port", "filler")
        self.choose("Add a port", "vent, where air gets out")

    def test_they_stand_apart(self) -> None:
        """None is put where another stands."""
        self.assertEqual(len({(port["x_mm"], port["y_mm"]) for port in self.ports()}), 3)
        self.assertNotIn("for hand and spanner", self.findings())

    def test_air_that_is_caught(self) -> None:
        """A vent in the middle of the lid: on a slope half the roof is above it."""
        self.type_into("From rear", "403")
        self.press("Show the figures")
        caught = 400 * 400 * SLOPE / 2 * 400 / 1e6
        self.until(lambda: self.text(ATTITUDES).count(f"{caught:.2f} L") == 2, "nose up and nose down")
        self.type_into("Opening above underside", "283")
        self.shows(f"{20 * PER_MM:.2f} L", ATTITUDES)

    def test_how_long_it_fills(self) -> None:
        """92.56 L through a nozzle of 14 mm at 25 kPa; half the time wanted is more than it can give."""
        area = 3.14159265 * 7**2 / 1e6
        seconds = 92.56 / (1000 * 0.62 * area * (2 * 24.63e3 / 745) ** 0.5)
        self.shows(f"Full in {seconds:.0f} s", "aside")
        self.assertIn("the nozzle holds it back", self.text("aside"))
        self.type_into("Filling time wanted", "60")
        self.shows("60", "#findings")
        self.type_into("Bore", "25", "aside", -1)
        self.until(lambda: "Full in" in self.text("aside") and "119 s" not in self.text("aside"), "quicker")

    def test_a_valve_taken_from_the_offers(self) -> None:
        """Upside down it runs out: one press puts the valve in, and the finding goes."""
        self.shows("has no roll-over valve", "#findings")
        self.until(lambda: "A roll-over valve in vent" in self.findings(), "offered")
        place = self.text("#findings").split("A roll-over valve in vent")[0].count("Apply")
        self.press("Apply", "#findings", place)
        self.until(lambda: "has no roll-over valve" not in self.findings(), "settled")
        vent = next(port for port in self.ports() if port["role"] == "vent")
        self.assertTrue(vent["vent"]["rollover"])


class Gauge(Box):
    """A sender typed from its maker's sheet."""

    def setUp(self) -> None:
        """It hangs in the middle."""
        super().setUp()
        self.open_station("gauge")
        self.press("Add a sender and type its figures")
        self.press("Show the needle")

    def test_what_is_left_at_e(self) -> None:
        """As many litres as lie under the float; marks put elsewhere move them."""
        self.type_into("Float at the E mark", "50")
        self.type_into("Float at the F mark", "250")
        self.shows(f"At E {50 * PER_MM:.2f} L are left; over F another {50 * PER_MM:.2f} L go in", "main")
        eighths = self.text("[aria-label='Eighths of Sender']")
        for text in ("E240.050", "F33.0250"):
            self.assertIn(text, eighths)

    def test_the_needle_is_true_in_the_middle_of_a_box(self) -> None:
        """Half way between the stops of a new arm the float lies in the middle, and half of it is there."""
        self.shows(f"1/2136.5150{150 * PER_MM:.2f}", "[aria-label='Eighths of Sender']")
        tenths = self.text("[aria-label='True tenths of rated, Sender']")
        self.assertIn("50 %46.28", tenths)

    def test_a_tube_reads_straight(self) -> None:
        """Depth is depth: 300 mm of tube from floor to roof is true all over a box."""
        self.choose("Sensing principle", "tube")
        self.until(lambda: "Angle at the empty stop" not in [f["label"] for f in self.do("fields", "aside")], "a tube")
        self.assertEqual(self.saved()["gauge"]["senders"][0]["action"]["kind"], "tube")
        self.press("Undo")
        self.until(lambda: self.value("Angle at the empty stop") == "-45", "its arm is back")

    def test_taken_out_again(self) -> None:
        """Without a sender nothing is said of a needle."""
        self.press("Remove Sender")
        self.until(lambda: not self.do("count", "[aria-label='Eighths of Sender']"), "gone")
        self.assertEqual(self.saved()["gauge"]["senders"], [])
