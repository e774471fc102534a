"""The workshop's page: what designs are judged by, kept by the one who may."""

from selenium.webdriver import Keys
from selenium.webdriver.common.by import By

from server.tests.helpers import PASSWORD
from tests.browser.test_slice import SliceTestCase

PUMPS = """pump,voltage_v,kpa,l_per_h
Tide 200,13.5,0,210
Tide 200,13.5,300,150
Ebb,13.5,0,200
Ebb,13.5,300,250
"""


class AtTheWorkshop(SliceTestCase):
    """Machines, rules, libraries, people."""

    def open_workshop(self) -> None:
        """Sign in as the owner and go there."""
        self.sign_in("maker", PASSWORD)
        self.go("/workshop")
        self.field("Longest bend")

    def keep(self) -> None:
        """Save, and wait until it is kept."""
        self.press("Save the workshop")
        self.until(self.is_kept, "kept")

    def is_kept(self) -> bool:
        """Whether nothing is left to save."""
        return bool(self.browser.find_elements(By.XPATH, "//main//button[normalize-space()='Saved']"))

    def rules(self) -> dict[str, object]:
        """The house rules as they are stored."""
        self.workshop.refresh_from_db()
        return self.workshop.document().model_dump(mode="json")

    def test_any_unit_is_typed_and_the_wrong_kind_is_refused(self) -> None:
        """Feet into a length, psi into a pressure; psi into a length is refused in words, and what was typed stays."""
        self.open_workshop()
        self.type_into("Longest bend", "4 ft")
        self.type_into("Nozzle shut-off pressure", "0.5 psi")
        self.type_into("Pan flange", "16 psi")
        self.until(lambda: "length" in self.wrong("Pan flange"), "it says what is wanted")
        self.assertEqual(self.field("Pan flange").get_attribute("value"), "16 psi")
        self.field("Pan flange").send_keys(Keys.ESCAPE)
        self.keep()
        kept = self.rules()
        self.assertAlmostEqual(kept["brake"]["width_mm"], 1219.2, places=3)
        self.assertAlmostEqual(kept["rules"]["back_pressure_kpa"], 3.447, places=2)
        self.go("/workshop")
        self.until(lambda: "1219.2" in (self.field("Longest bend").get_attribute("value") or ""), "it is still there")

    def wrong(self, label: str) -> str:
        """What is said under a field."""
        named = self.field(label).get_attribute("aria-describedby") or ""
        return " ".join(self.text(f"[id='{name}']") for name in named.split())

    def test_k_from_a_strip(self) -> None:
        """The strip measured flat and bent says its K; one that can't be is told so."""
        self.open_workshop()
        strip = {"Strip, flat": "100", "One leg, outside": "51.95", "Other leg, outside": "51.95"}
        for label, text in (strip | {"Thickness": "2", "Inside radius": "2"}).items():
            self.type_into(label, text)
        self.until(lambda: "K = 0." in self.text("main"), "a K")
        self.assertIn("Type it above", self.text("main"))
        self.type_into("Other leg, outside", "60")
        self.until(lambda: "Measure the strip again" in self.text("main"), "no K")

    def test_pumps_from_a_file(self) -> None:
        """Good rows come in, bad ones are named; kept, the pump can be fitted at Brief."""
        self.open_workshop()
        file = self.downloads / "pumps.csv"
        file.write_text(PUMPS)
        self.keys("input[aria-label='Take pumps from CSV']", str(file))
        self.until(lambda: "pump Ebb" in self.text("[data-problems]"), "the bad pump is named")
        self.keep()
        self.assertEqual([pump["name"] for pump in self.rules()["pumps"]][-1], "Tide 200")
        self.click("[aria-label='Remove Tide 200']")
        self.keep()
        self.assertNotIn("Tide 200", [pump["name"] for pump in self.rules()["pumps"]])

    def test_people_come_and_go(self) -> None:
        """An account is made and used; closed, it opens nothing; an owner's changes are thrown away by a press."""
        self.open_workshop()
        form = "//form[.//button[normalize-space()='Add']]"
        for label, text in (("Name", "Ottoline Brack"), ("Signs in as", "ottoline"), ("First password", PASSWORD)):
            name = self.find(f"{form}//label[normalize-space()='{label}']").get_attribute("for")
            self.find(f"[id='{name}']").send_keys(text)
        self.press("Add", "form")
        self.until(lambda: "Ottoline Brack" in self.text("main"), "she is listed")
        self.type_into("Pan flange", "33")
        self.press("Discard changes")
        self.until(self.is_kept, "thrown away")
        row = "//tr[td[normalize-space()='Ottoline Brack']]//button"
        self.click(row)
        self.until(lambda: self.text(row) == "Open it again", "closed")
        self.browser.delete_all_cookies()
        self.browser.get(self.live_server_url)
        self.type_into("Name", "ottoline")
        self.type_into("Password", PASSWORD)
        self.press("Sign in")
        self.until(lambda: "don't go together" in self.text("body"), "refused")
