"""The brief as a maker writes it: what has to go in, what the engine burns, what the pumps give."""

from typing import Any

from tests.web.person import AtThePage

BOX = {"length_mm": 806.0, "width_mm": 406.0, "height_mm": 306.0, "thickness_mm": 3.0, "bend_radius_mm": 0.0}
CASES = "[aria-label='Demand cases side by side']"
WAYS = "[aria-label='Ways to bridge a dry spell']"


class Brief(AtThePage):
    """A tank of 96 L brimful, and nothing asked of it yet."""

    document: dict[str, Any] = {"shell": BOX}
    drawn = False

    def setUp(self) -> None:
        """At the brief."""
        super().setUp()
        self.open_station("brief")

    def add_case(self, **fields: str) -> None:
        """A demand case with some fields typed, the last one of its label."""
        cases = len([f for f in self.do("fields", "aside") if f["label"] == "Rail pressure"])
        self.press("Another demand case" if cases else "Add the engine’s demand")
        for label, text in fields.items():
            self.type_into(label.replace("_", " "), text, nth=-1)

    def add_pump(self, name: str, *points: tuple[str, str]) -> None:
        """A pump typed from its maker's sheet; there are three points to begin with."""
        self.press("Type a pump’s figures")
        self.type_into("Name", name, "aside", -1)
        for row, (kpa, flow) in enumerate(points, start=1):
            self.type_into(f"Pressure {row}, kPa", kpa, nth=-1)
            self.type_into(f"Flow {row}, L/h", flow, nth=-1)

    def findings(self) -> str:
        """What is found here."""
        return self.text("#findings")


class Targets(Brief):
    """The capacity asked for."""

    def test_from_a_range(self) -> None:
        """600 km at 12 L for a hundred and a tenth in hand are 79.2 L; said with the sum, saved with its basis."""
        self.choose("Target set by", "range")
        for label, text in (("Range", "600"), ("Consumption per 100 km", "12"), ("Reserve margin", "10")):
            self.type_into(label, text)
        self.shows("79.20 L", "aside")
        self.assertIn("600 km at 12.00 L for 100 km, and 10.0 % in hand", self.text("aside"))
        brief = self.saved()["brief"]
        self.assertEqual((brief["basis"]["range_km"], brief["basis"]["per_100km_l"]), (600, 12))
        self.assertAlmostEqual(brief["basis"]["reserve"], 0.1)
        self.assertIsNone(brief["target_l"])

    def test_from_a_run_time(self) -> None:
        """Three hours at half of 40 L/h are 60 L; nothing is made up while the engine isn't said."""
        self.choose("Target set by", "run time")
        self.type_into("Run time", "3")
        self.type_into("Reserve margin", "0")
        self.assertNotIn("60.00 L", self.text("aside"))
        self.add_case(Measured_fuel_flow="40", Average_duty="50")
        self.shows("60.00 L", "aside")
        self.choose("Target set by", "stint")
        self.type_into("Stint", "45")
        self.shows("15.00 L", "aside")

    def test_what_the_tank_is_against_it(self) -> None:
        """Less than asked is a caution with a size that helps; met, there is nothing to put right."""
        self.type_into("Target, rated capacity", "110")
        rated = 0.8 * 0.4 * 0.3 * 1000 * (1 - 0.0359)
        self.until(lambda: f"{110 - rated:.1f}" in self.text("aside"), "what is missing")
        self.type_into("Target, rated capacity", "90 L")
        self.until(lambda: "more than asked" in self.text("aside"), "enough")
        self.type_into("Target, rated capacity", "20 gal")
        self.assertIn("which gallon", self.said("Target, rated capacity"))
        self.type_into("Target, rated capacity", "20 imp gal")
        self.assertAlmostEqual(self.saved()["brief"]["target_l"], 90.9218, places=3)


class Demands(Brief):
    """What the engine burns, and what feeds it."""

    def test_by_power(self) -> None:
        """100 kW at 0.3 kg/kWh are 30 kg/h: over the fuel's density its litres; a fifth more is what pumps must give."""
        self.add_case(Power_at_full_load="100", BSFC="0.3")
        self.shows("30.0 kg/h", CASES)
        flow = 30 / 0.745
        self.assertIn(f"{flow:.1f} L/h", self.text(CASES))
        self.assertIn(f"{1.2 * flow:.1f} L/h", self.text(CASES))
        self.type_into("Power at full load", "134.102 hp")
        power = self.saved()["brief"]["cases"][0]["power_kw"]
        self.assertAlmostEqual(power, 100.0, places=3)

    def test_pumps_side_by_side(self) -> None:
        """Straight between two points of a table; two give the sum; a spare gives nothing; beyond it nothing is known."""
        self.add_case(Measured_fuel_flow="150", Rail_pressure="400")
        self.add_pump("First", ("0", "200"), ("300", "160"), ("500", "100"))
        self.shows("130.0 L/h", CASES)
        self.shows("Pump flow 130.0 L/h for Now, at least 180.0 L/h", "#findings")
        self.add_pump("Second", ("0", "200"), ("300", "160"), ("500", "100"))
        self.shows("260.0 L/h", CASES)
        self.until(lambda: "Pump flow" not in self.findings(), "two are enough")
        self.tick("Spare: on standby, not counted", nth=-1)
        self.shows("Pump flow 130.0 L/h for Now", "#findings")
        self.type_into("Rail pressure", "600")
        self.until(lambda: "Pump flow" not in self.findings() and "600" in self.findings(), "beyond the table")

    def test_now_and_later(self) -> None:
        """The second engine burns half as much again: what it outgrows is named, with what is worth building in now."""
        self.add_case(Measured_fuel_flow="100")
        self.add_pump("First", ("0", "200"), ("300", "130"), ("500", "100"))
        self.add_case(Measured_fuel_flow="150")
        self.shows("Later: pumps", "[aria-label='What later outgrows']")
        self.assertIn("120.0 L/h do → 50.0 L/h short", self.text("[aria-label='What later outgrows']"))
        self.press("Remove Later")
        self.until(lambda: not self.do("count", "[aria-label='What later outgrows']"), "nothing to outgrow")

    def test_a_curve_that_rises(self) -> None:
        """A pump that gives more against more pressure is a slip: named by its row, kept as typed, and put right."""
        self.add_case(Measured_fuel_flow="100")
        self.add_pump("First", ("0", "200"), ("300", "210"))
        self.until(lambda: "row 2 has 210" in self.text("aside"), "the row is named")
        self.assertEqual(self.value("Flow 2, L/h"), "210")
        self.type_into("Flow 2, L/h", "150")
        self.until(lambda: "row 2 has" not in self.text("aside"), "put right")
        self.assertEqual(self.saved()["brief"]["pumps"][0]["pump"]["curves"][0]["points"][1]["l_per_h"], 150)


class Surge(Brief):
    """What bridges a dry spell."""

    def test_how_much(self) -> None:
        """180 L/h over 10 s draw half a litre, a fifth on top; 300 L/h of lift fill it again in 15 s."""
        self.add_case(Measured_fuel_flow="180")
        self.press("Bridge a dry spell")
        for label, text in (("Pickup uncovered for", "10"), ("Lift pump", "300"), ("Time covered between", "12")):
            self.type_into(label, text)
        self.shows("draws 0.50 L; with the house rule’s margin 0.60 L", "aside")
        self.shows("Full again after 15.0 s", "aside")
        self.shows("15.0 s", "#findings")
        self.type_into("Time covered between", "20")
        self.until(lambda: "15.0 s" not in self.findings(), "in time")
        self.assertIn("in-tank surge pot the figures favour it", self.text(WAYS).replace("pot", "pot ").replace("  ", " "))
        self.press("Remove the surge volume")
        self.assertIsNone(self.saved()["brief"]["surge"])

    def test_a_tank_of_its_own(self) -> None:
        """Made from here it is a design beside this one, holds the volume, and each leads to the other."""
        self.add_case(Measured_fuel_flow="180")
        self.press("Bridge a dry spell")
        self.type_into("Pickup uncovered for", "40")
        self.shows("2.40 L", "aside")
        self.choose("Surge tank as a", "box, flat to mount")
        self.press("Make the surge tank as a design of its own")
        self.until(lambda: "/shell" in self.do("path"), "at the new design")
        self.until(lambda: self.do("count", "[data-tally]") and self.tally("rated_l") >= 2.4, "it holds that much")
        self.assertEqual(self.job.designs.count(), 2)


class Card(Brief):
    """A rulebook's limits."""

    def test_rules_by_name(self) -> None:
        """Each is checked against its own quantity and named; a limit is typed in the unit of what it limits."""
        self.press("Add a rule")
        self.type_into("Rule", "7.3 b")
        self.type_into("Limit", "80")
        self.shows("7.3 b: rated capacity", "#findings")
        self.choose("Quantity limited", "wall thickness at least")
        self.type_into("Limit", "4")
        self.shows("7.3 b: wall thickness 3 mm", "#findings")
        self.type_into("Limit", "3")
        self.until(lambda: "7.3 b" not in self.findings(), "kept")
        rule = self.saved()["brief"]["card"][0]
        self.assertEqual((rule["subject"], rule["limit"]), ("wall thickness at least", 3))
