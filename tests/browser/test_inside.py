"""Inside: baffles on the drawing, foam and a bladder, and what they do to every figure."""

from selenium.webdriver.common.by import By

from tests.browser.test_ports import PortsTestCase


class Inside(PortsTestCase):
    """What stands and lies in the tank."""

    def test_baffles_foam_and_a_bladder(self) -> None:
        """The array offered is taken, a plate dragged; foam takes 3 %; a bladder where plates stand is a stop."""
        self.open_tank("inside")
        self.until(lambda: "longest free run" in self.text("[data-free-run]"), "how far fuel runs")
        bare = self.tally("brimful_l")
        self.find("[data-finding^='inside.free_run']")
        remedy = self.find("[data-finding^='inside.free_run'] [data-remedy]")
        self.until(lambda: remedy.find_element(By.XPATH, ".//button[.='Try']").click() or True, "try it")
        self.find("[data-ghost-feature=baffle-1]")
        self.until(lambda: remedy.find_element(By.XPATH, ".//button[.='Apply']").click() or True, "applied")
        plates = lambda: [f for f in self.kept("shell")["features"] if f["kind"] == "baffle"]  # noqa: E731
        self.until(plates, "plates kept")
        first = plates()[0]
        self.drag(f"[data-move='elevation-{first['name']}']", 30, 0)
        self.until(lambda: plates()[0]["at_mm"] != first["at_mm"], "dragged and kept")
        self.assertGreater(
            len(self.browser.find_elements(By.CSS_SELECTOR, "[aria-label='Spaces between plates'] tr")), 2
        )
        plated = self.tally("brimful_l")
        self.assertLess(plated, bare)
        self.press("Foam: none")
        self.press("Add foam")
        self.until(lambda: abs(self.tally("brimful_l") / plated - 0.97) < 0.001, "foam takes its share")
        self.find("[data-finding='inside.life:foam']")
        self.press("Bladder: none")
        self.press("Add a bladder")
        self.find("[data-finding^='inside.bag_plates']")
        self.assertLess(self.tally("brimful_l"), 0.95 * plated)
        self.assert_accessible("the inside")
        self.type_into("Clearance to the box", "900")
        self.until(
            lambda: self.field("Clearance to the box").get_attribute("aria-invalid") == "true", "said at the field"
        )
        self.type_into("Clearance to the box", "4")
        self.until(lambda: (self.kept("inside").get("bladder") or {}).get("shrink_mm") == 4, "kept")

    def test_a_pot_and_a_plates_openings(self) -> None:
        """A pot round the pickup is a space of its own; holes are dragged on the plate; both are flat parts."""
        self.open_tank("ports")
        self.choose("Add a port", "pickup, where fuel is drawn")
        self.station("inside")
        features = lambda: self.kept("shell")["features"]  # noqa: E731
        self.press("Add a pot")
        self.until(lambda: "pot" in self.text("[aria-label='Spaces between plates']"), "a space of its own")
        self.type_into("Rim above floor", "90")
        self.until(lambda: features()[0]["high_mm"] == 90, "kept")
        self.type_into("Rim above floor", "5000")
        self.find("//*[contains(., 'the roof shuts it')]")
        self.type_into("Rim above floor", "120")
        self.click("[data-feature-row=pot-1] button")
        self.press("Add a baffle")
        self.type_into("From rear", "60")
        self.press("Add: row of holes")
        self.until(lambda: len(features()) == 2 and features()[1]["holes"], "a row of holes")
        before = features()[1]["holes"][0]
        self.drag("[data-move='end-row of holes 1 of baffle']", 20, -15)
        moved = self.until(lambda: features()[1]["holes"][0] != before and features()[1]["holes"][0], "dragged")
        self.assertGreater(moved["at_mm"], before["at_mm"])
        self.assertGreater(moved["up_mm"], before["up_mm"])
        self.assert_accessible("a pot and a plate")
        self.station("sheet")
        for part in ("inside-pot-1", "inside-baffle-1"):
            self.find(f"[data-part={part}]")
