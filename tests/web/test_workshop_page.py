"""The workshop's page: what designs are judged by, kept by the one who may."""

from typing import Any

from server.tests.helpers import PASSWORD, Api, person
from server.workshop.models import Person
from tests.web.person import AtThePage

PUMPS = """pump,voltage_v,kpa,l_per_h
Tide 200,13.5,0,210
Tide 200,13.5,300,150
Ebb,13.5,0,200
Ebb,13.5,300,250
"""
PARTS = """name,role,seat,hole_mm,outer_mm
Bung 1,drain,boss,22,34
Bung 2,nothing like it,boss,22,34
Bung 3,drain,boss,22,
Bung 4,drain,boss,-1,34
"""


class AtTheWorkshop(AtThePage):
    """Machines, rules, libraries, people."""

    def setUp(self) -> None:
        """The owner goes there."""
        super().setUp()
        self.open("/workshop")
        self.until(lambda: self.value("Longest bend"), "the fields")

    def keep(self) -> dict[str, Any]:
        """Save, and give what is kept."""
        self.press("Save the workshop")
        self.until(self.is_kept, "kept")
        self.workshop.refresh_from_db()
        return self.workshop.document().model_dump(mode="json")

    def is_kept(self) -> bool:
        """Whether nothing is left to save."""
        return not self.do("isEnabled", "Saved", "main")

    def test_any_unit_is_typed_and_the_wrong_kind_is_refused(self) -> None:
        """Feet into a length, psi into a pressure; psi into a length is refused in words, and what was typed stays."""
        self.type_into("Longest bend", "4 ft")
        self.type_into("Nozzle shut-off pressure", "0.5 psi")
        self.type_into("Pan flange", "16 psi")
        self.assertIn("a length is wanted here: mm, cm, in, ft", self.said("Pan flange"))
        self.assertEqual(self.value("Pan flange"), "16 psi")
        self.do("entered", "Pan flange", "{Escape}", "main", 0)
        kept = self.keep()
        self.assertAlmostEqual(kept["brake"]["width_mm"], 1219.2, places=3)
        self.assertAlmostEqual(kept["rules"]["back_pressure_kpa"], 3.447, places=2)
        self.open("/workshop")
        self.until(lambda: "1219.2" in self.value("Longest bend"), "it is still there")

    def test_what_is_usual_is_said_in_the_readers_units(self) -> None:
        """Beside every house rule; and a limit that is broken is told by the field's own name."""
        Person.objects.filter(pk=self.maker.pk).update(units="in_usgal")
        self.open("/workshop")
        self.until(lambda: "psi" in self.said("Nozzle shut-off pressure"), "psi")
        said = {label: self.said(label) for label in ("Pan flange", "Ullage: temperature rise allowed", "Ullage, at least")}
        self.assertEqual(said["Pan flange"], "usual 0.7874 in")
        self.assertRegex(said["Ullage: temperature rise allowed"], r"^usual \d+ °F$")
        self.assertEqual(said["Ullage, at least"], "usual 3 %")
        self.type_into("Nozzle shut-off pressure", "900")
        self.type_into("Ullage, at least", "400")
        self.press("Save the workshop")
        self.until(lambda: "or less" in self.said("Nozzle shut-off pressure"), "refused")
        self.assertRegex(self.said("Nozzle shut-off pressure"), r"^Nozzle shut-off pressure must be [\d.]+ psi or less$")
        self.assertRegex(self.said("Ullage, at least"), r"^Ullage, at least must be [\d.]+ % or less$")
        self.assertEqual(self.value("Nozzle shut-off pressure"), "900")

    def test_every_house_rule_is_kept_where_it_belongs(self) -> None:
        """Each field of the rules changes one rule, and none changes another's."""
        before = self.workshop.document().model_dump(mode="json")["rules"]
        labels = {"Torch reach": "torch_reach_mm", "Brush width": "brush_mm", "Sleeve compression": "sleeve_mm"} | {
            "Measurement tolerance": "measure_mm",
            "Unbaffled run, at most": "free_run_mm",
            "Notch clearance": "notch_clearance_mm",
            "Pan flange, at least": "flange_least_mm",
            "Space inside, at least": "sliver_mm",
            "Bump load on the floor": "bump_g",
            "Horizontal load on uprights": "push_g",
            "Starvation map: largest acceleration": "starvation_most_g",
        }
        typed = {name: before[name] * 1.5 + 1 for name in labels.values()}
        for label, name in labels.items():
            self.type_into(label, f"{typed[name]:g}")
        kept = self.keep()["rules"]
        self.assertEqual({name: kept[name] for name in typed}, typed)
        others = before.keys() - typed.keys()
        self.assertEqual({name: kept[name] for name in others}, {name: before[name] for name in others})

    def test_k_from_a_strip(self) -> None:
        """The strip measured flat and bent says its K; one that can't be is told so."""
        strip = {"Strip, flat": "100", "One leg, outside": "51.95", "Other leg, outside": "51.95"}
        for label, text in (strip | {"Thickness": "2", "Inside radius": "2"}).items():
            self.type_into(label, text)
        self.shows("K = 0.", "main")
        self.shows("Kept, it comes before the table", "main")
        self.type_into("Other leg, outside", "60")
        self.shows("Measure the strip again", "main")

    def test_pumps_and_parts_from_files(self) -> None:
        """Good rows come in, bad ones are named with their row; kept, the pump can be fitted at Brief."""
        self.do("given", "Take pumps from CSV", "pumps.csv", PUMPS)
        self.until(lambda: "pump Ebb" in self.text("[data-problems]"), "the bad pump is named")
        self.do("given", "Take parts from CSV", "parts.csv", PARTS)
        self.shows("Bung 1", "main")
        said = self.text("[data-problems]")
        for words in ("row 3, column role: “nothing like it”", "row 4, column outer_mm is missing"):
            self.assertIn(words, said)
        self.assertIn("row 5, column hole_mm: “-1.0” must be above 0 mm", said)
        kept = self.keep()
        self.assertEqual(kept["pumps"][-1]["name"], "Tide 200")
        self.assertEqual([part["name"] for part in kept["parts"]][-1], "Bung 1")
        self.open_station("brief")
        self.choose("Add a pump from the library", "Tide 200")
        self.assertEqual(self.saved()["brief"]["pumps"][0]["pump"]["name"], "Tide 200")
        self.open("/workshop")
        self.press("Remove Tide 200")
        self.assertNotIn("Tide 200", [pump["name"] for pump in self.keep()["pumps"]])

    def test_stock_and_prices(self) -> None:
        """A sheet is put in and taken out; a price is kept, and one taken away is none again, not zero."""
        sheets = len(self.workshop.document().stock)
        self.choose("Metal", "6061-T6")
        self.type_into("Thickness", "14 ga", nth=-1)
        self.type_into("Length", "10 ft")
        self.type_into("Width", "4 ft")
        self.press("Add sheet")
        self.type_into("Weld price", "42.5")
        kept = self.keep()
        self.assertEqual(len(kept["stock"]), sheets + 1)
        self.assertEqual(kept["stock"][-1]["metal"], "6061-T6")
        self.assertAlmostEqual(kept["stock"][-1]["thickness_mm"], 1.628, places=3)
        self.assertAlmostEqual(kept["stock"][-1]["length_mm"], 3048.0)
        self.assertEqual(kept["prices"]["weld_per_m"], 42.5)
        self.press("Remove 6061-T6 1.628 mm")
        self.type_into("Weld price", "")
        kept = self.keep()
        self.assertEqual(len(kept["stock"]), sheets)
        self.assertIsNone(kept["prices"]["weld_per_m"])

    def test_people_come_and_go(self) -> None:
        """An account is made and used; closed, it opens nothing; a role is changed; nobody shuts themselves out."""
        for label, text in (("Name", "Ottoline Brack"), ("Signs in as", "ottoline"), ("First password", PASSWORD)):
            self.type_into(label, text, "form")
        self.press("Add", "form")
        self.shows("Ottoline Brack", "main")
        self.choose("Role of Ottoline Brack", "viewer")
        self.until(lambda: Person.objects.get(username="ottoline").role == "viewer", "viewer")
        place = self.text("main").count("Close the account") - 1
        self.press("Close the account", nth=place)
        self.shows("Open it again", "main")
        answer = Api()("POST", "session", {"username": "ottoline", "password": PASSWORD})
        self.assertEqual(answer[0], 401)
        self.press("Close the account", nth=0)
        self.shows("yourself", "main")

    def test_two_owners_over_one_workshop(self) -> None:
        """The second save is refused, what was typed stays; changes can be thrown away."""
        other = person("second", "owner", self.workshop)
        settings = self.workshop.document().model_dump(mode="json")
        settings["rules"]["torch_reach_mm"] = 555.0
        self.assertEqual(Api(other)("PUT", "workshop", {"base_version": 1, "settings": settings})[0], 200)
        self.type_into("Pan flange", "33")
        self.press("Save the workshop")
        self.until(lambda: self.do("count", "[role=alert]"), "told")
        self.assertEqual(self.value("Pan flange"), "33")
        self.workshop.refresh_from_db()
        self.assertEqual(self.workshop.document().rules.torch_reach_mm, 555.0)
        self.press("Discard changes")
        self.until(lambda: self.value("Pan flange") != "33", "thrown away")

    def test_one_who_is_no_owner_only_looks(self) -> None:
        """The fields are there and can't be changed; people aren't shown."""
        self.sign_in(person("hand", "fabricator", self.workshop))
        self.open("/workshop")
        self.shows("Only an owner can change these", "main")
        measures = {"Strip, flat", "One leg, outside", "Other leg, outside", "Thickness", "Inside radius", "Bend"}
        measures |= {"Metal of the strip", "Bent to, on the machine"}
        self.assertLessEqual({field["label"] for field in self.do("fields", "main")}, measures)
        self.assertNotIn("Signs in as", self.text("main"))

    def test_another_brake(self) -> None:
        """Added, given sizes of its own, refused by its own field, and taken away again."""
        self.press("Add another brake")
        self.type_into("Longest bend", "3000", nth=1)
        self.choose("Kind", "press brake", nth=1)
        self.type_into("Sharpest bend", "90", nth=1)
        (other,) = self.keep()["more_brakes"]
        self.assertEqual((other["name"], other["kind"]), ("Brake 2", "press brake"))
        self.assertEqual((other["width_mm"], other["most_angle_deg"]), (3000.0, 90.0))
        self.type_into("Shortest flange", "4000", nth=1)
        self.press("Save the workshop")
        self.until(lambda: "longer than the brake" in self.said("Shortest flange", nth=1), "refused by its field")
        self.assertEqual(self.value("Shortest flange", nth=1), "4000")
        self.type_into("Shortest flange", "12", nth=1)
        self.press("Remove Brake 2")
        self.assertEqual(self.keep()["more_brakes"], [])

    def test_means_of_cutting(self) -> None:
        """A hole cutter has its two sizes, a shear none of them; each keeps its own."""
        self.press("Add a means of cutting")
        self.type_into("Thickest mild steel", "2", nth=1)
        self.press("Add a means of cutting")
        self.choose("Cuts", "round holes", nth=1)
        self.type_into("Smallest hole", "20")
        self.type_into("Largest hole", "70")
        self.choose("Cuts", "straight edges")
        first, second = self.keep()["cutters"]
        self.assertEqual((first["cuts"], first["thickest_steel_mm"], first["to_mm"]), ("straight edges", 2.0, None))
        self.assertEqual((second["cuts"], second["from_mm"], second["to_mm"]), ("round holes", 20.0, 70.0))
        self.type_into("Largest hole", "10")
        self.press("Save the workshop")
        self.until(lambda: "the largest is below the smallest" in self.text("main"), "refused")
        self.press("Remove Cutter 1")
        self.type_into("Largest hole", "70")
        self.assertEqual([one["name"] for one in self.keep()["cutters"]], ["Cutter 2"])

    def test_a_strip_is_kept(self) -> None:
        """Measured, its K is said; kept, it comes before the table for that metal and thickness."""
        self.choose("Metal of the strip", "5052-H32")
        for label, text in (("Strip, flat", "150"), ("One leg, outside", "78"), ("Other leg, outside", "78")):
            self.type_into(label, text)
        self.type_into("Thickness", "3")
        self.type_into("Inside radius", "4.5")
        self.type_into("Bent to, on the machine", "92.4")
        self.shows("K = 0.410")
        self.press("Keep this strip")
        (strip,) = self.keep()["strips"]
        self.assertEqual((strip["leg_a_mm"], strip["bent_to_deg"]), (78.0, 92.4))
        settings = self.workshop.document()
        self.assertAlmostEqual(settings.k_for("5052-H32", 3.0), 0.4099, places=4)
        self.press("Remove the strip of 5052-H32 3", "[aria-label=Strips]")
        self.assertEqual(self.keep()["strips"], [])
