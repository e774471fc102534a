"""What the engine needs, how fuel gets in and out, and what the needle says: as a person settles it."""

import csv
from typing import Any

from selenium.webdriver import Keys
from selenium.webdriver.common.by import By

from server.bench.models import Reading
from server.jobs.models import TankDesign
from server.tests.test_studies import work
from tests.browser.test_slice import SliceTestCase

PUMP = {
    "name": "Twelve-mil",
    "curves": [{"voltage_v": 13.5, "points": [{"kpa": 0, "l_per_h": 120}, {"kpa": 400, "l_per_h": 50}]}],
}
PART = {
    "name": "Short module",
    "role": "pickup",
    "stands_mm": 20.0,
    "across_mm": 90.0,
    "hangs_mm": 199.0,
    "hangs_across_mm": 80.0,
    "seat": {"kind": "flange", "hole_mm": 90.0, "outer_mm": 130.0, "bolt_circle_mm": 112.0, "bolts": 8, "bolt_mm": 6.0},
    "hanger": {"kind": "module", "made_for_mm": 200.0},
}
SENDER = {
    "name": "Arm 120",
    "action": {"kind": "swing arm", "made_arm_mm": 120.0, "empty_deg": -45.0, "full_deg": 45.0},
}


class PortsTestCase(SliceTestCase):
    """A shop that knows a pump, a module and a sender."""

    def setUp(self) -> None:
        """The library."""
        super().setUp()
        self.workshop.rules = {"pumps": [PUMP], "parts": [PART], "senders": [SENDER]}
        self.workshop.save()

    def kept(self, name: str) -> Any:
        """A part of the design as the store has it."""
        self.tank.refresh_from_db()
        return self.tank.current().document.get(name)


class Brief(PortsTestCase):
    """Demand, pumps, surge."""

    def test_a_pump_too_small_and_a_surge_tank(self) -> None:
        """Power in horsepower, a pump of the shop's that falls short, a surge tank made as a design of its own."""
        self.open_tank("brief")
        self.press("Add the engine’s demand")
        self.type_into("Power at full load", "200 hp")
        self.until(lambda: "61." in self.text("[aria-label='Demand cases side by side']"), "litres an hour")
        self.press("Pumps")
        self.choose("Add a pump from the library", "Twelve-mil")
        self.until(lambda: "short by" in self.text("[aria-label='Demand cases side by side']"), "not enough")
        self.find("[data-finding^='pump.short']")
        self.choose("Target set by", "run time")
        self.type_into("Run time", "1")
        self.until(lambda: "L" in self.text("[data-target]"), "a target with its sum")
        self.press("Surge")
        self.press("Bridge a dry spell")
        self.until(lambda: "of surge volume" in self.text("[data-surge]"), "sized")
        self.assertEqual(len(self.browser.find_elements(By.CSS_SELECTOR, "[aria-label^='Ways to bridge'] tbody tr")), 4)
        self.saved()
        self.assert_accessible("the brief with its demand")
        self.choose("Surge tank as a", "box, flat to mount")
        self.press("Make the surge tank as a design of its own")
        self.until(lambda: TankDesign.objects.filter(main=self.tank).exists(), "made")
        surge = TankDesign.objects.get(main=self.tank)
        self.until(lambda: f"/designs/{surge.pk}/" in self.browser.current_url, "opened")
        self.station("brief")
        self.assertEqual(surge.current().document["shell"]["kind"], "box")
        self.until(lambda: "Surge tank of Main" in self.text("[data-linked]"), "linked")


class Ports(PortsTestCase):
    """Reach, filling, the needle, the bench."""

    def test_a_short_module_is_found_before_the_cut(self) -> None:
        """Part from the shop, short by so much, a remedy taken, second measurement, filling, drag."""
        self.open_tank("ports")
        self.choose("Add a port", "pickup, where fuel is drawn")
        self.choose("Part from the library", "Short module, pickup")
        self.until(lambda: self.find("[data-finding^='reach.short']"), "it stops short")
        self.until(lambda: self.tally("stranded_l") > 20, "what it leaves")
        short = self.text("[data-row=pickup-1] button")
        self.assertIn("short", short)
        grip = self.find("[data-turn=clock_deg]")
        grip.send_keys(Keys.SHIFT, Keys.ARROW_LEFT)
        self.until(lambda: (self.kept("ports") or [{}])[0].get("clock_deg") == 15, "turned by the keyboard")
        self.drag("[data-move=plan-pickup]", 40, 20)
        self.until(lambda: (self.kept("ports") or [{}])[0].get("x_mm") != 350, "dragged and kept")
        remedy = self.find("[data-remedy]")
        self.until(lambda: remedy.find_element(By.XPATH, ".//button[.='Apply']").click() or True, "applied")
        self.until(lambda: not self.browser.find_elements(By.CSS_SELECTOR, "[data-finding^='reach.short']"), "reaches")
        self.choose("Add a port", "filler")
        self.choose("Add a port", "vent, where air gets out")
        self.until(lambda: "Full in" in self.text("[data-fill-run]"), "how long it takes")
        self.saved()
        self.assert_accessible("ports on the drawing")
        self.press("Show the figures")
        self.find("[aria-label='Left behind and trapped by attitude']")
        self.find("[data-cut-sheet=pickup-1]")
        self.assert_accessible("ports in figures")
        self.press("Download")
        self.click("[data-file='port-pickup-1.dxf']")
        self.until(lambda: next(self.downloads.glob("*port-pickup-1.dxf")), "the template")

    def test_a_hose_that_bends_over(self) -> None:
        """It is drawn as it runs, turned by the keyboard, and has to be off where the opening is too low for it."""
        self.open_tank("ports")
        self.choose("Add a port", "filler")
        self.press("Add a hose bend")
        drawn = "[data-standing=filler-1]"
        self.until(lambda: len(self.browser.find_elements(By.CSS_SELECTOR, drawn)) == 3, "in all three views")
        before = self.find(drawn).get_attribute("d")
        self.type_into("Hose direction", "90")
        self.until(lambda: self.find(drawn).get_attribute("d") != before, "it runs elsewhere")
        self.type_into("Bend radius", "2")
        self.until(lambda: "can't bend" in self.text("[data-row=filler-1]"), "a radius it can't have, and why")
        self.type_into("Bend radius", "60")
        self.press("Add a flap in this path")
        self.press("Add a flap in this path")
        opens = self.browser.find_elements(By.CSS_SELECTOR, "[data-valve='1'] input")
        opens[1].send_keys(Keys.CONTROL, "a")
        opens[1].send_keys("1.25", Keys.ENTER)
        kept = [{"name": "flap", "opens_kpa": 0.5}, {"name": "flap", "opens_kpa": 1.25}]
        self.until(lambda: (self.kept("ports") or [{"neck": {}}])[0]["neck"].get("valves") == kept, "each its own")

    def test_the_needle_and_the_bench(self) -> None:
        """A sender of the shop's, its truth, the breakpoints taken away; poured, fitted, kept, marked simulated."""
        self.open_tank("gauge")
        self.choose("Add a sender from the library", "Arm 120")
        self.until(lambda: "at E" in self.text("[data-row=sender-1] button"), "what is left at E")
        self.drag("[data-move='plan-Arm 120']", -40, 0)
        self.until(lambda: (self.kept("gauge") or {"senders": [{"x_mm": 350}]})["senders"][0]["x_mm"] < 345, "dragged")
        self.press("Show the needle")
        rows = "[aria-label='Eighths of Arm 120'] tbody tr"
        self.until(lambda: len(self.browser.find_elements(By.CSS_SELECTOR, rows)) == 9, "nine rows of eighths")
        self.assert_accessible("the needle")
        self.press("Download")
        self.click("[data-file='gauge.csv']")
        file = self.until(lambda: next(self.downloads.glob("*gauge.csv")), "breakpoints")
        self.assertEqual(len(list(csv.DictReader(file.open()))), 13)

        self.station("bench")
        self.press("Start measuring Arm 120")
        for count in range(1, 4):
            self.type_into("Pour", "0.5" if count == 1 else "10")
            Reading.objects.update(at="2026-01-01T00:00:00Z")
            self.press("Pour, simulated")
            self.until(lambda count=count: Reading.objects.count() == count, "poured")
            self.until(lambda: "simulated meter" in self.text("[data-meter=ohm]"), "live")
        Reading.objects.update(at="2026-01-01T00:00:00Z")
        self.until(lambda: "off by" in self.text("[data-fitted]"), "fitted")
        self.find("[data-simulated]")
        self.assert_accessible("the bench")
        self.press("Finish and keep")
        self.until(lambda: "kept" in self.text("[data-calibration]"), "kept")
        self.find("[data-station=bench][data-state=ready]")


class Slosh(PortsTestCase):
    """Driving the tank round before cutting metal."""

    solid = True

    def test_a_turn_that_starves_and_a_baffle_that_helps(self) -> None:
        """Drive a turn, see it run dry, go to the moment, let it play; take a surge tank; bring a lap of one's own."""
        self.open_tank("ports")
        self.choose("Add a port", "pickup, where fuel is drawn")
        self.type_into("From right", "330")
        self.station("slosh")
        self.type_into("Fill at the start", "12")
        self.type_into("Engine fuel flow", "120")
        self.until(lambda: "Dry for" in self.text("[aria-label='Slosh run']"), "it starves")
        self.press("Show")
        self.until(lambda: "uncovered" in self.text("[data-inlet]"), "at that moment")
        self.press("Play")
        self.press("Pause")
        self.assertEqual(len(self.browser.find_elements(By.CSS_SELECTOR, "[data-frame]")), 3)
        self.press("Find the lowest fill without a dry spell")
        self.find("[aria-label='Looking for the lowest fill']")
        work()
        self.until(lambda: "of brimful" in self.text("[data-lowest]"), "the lowest fill")
        self.assert_accessible("the slosh run")
        self.find("[data-solid=moving] canvas")
        self.press("Download the picture")
        picture = self.downloads / "slosh-run.png"
        self.until(lambda: picture.exists() and picture.read_bytes()[:4] == b"\x89PNG", "a picture of the plots")
        self.choose("Also compare with", "revision 1")
        self.press("Run variants")
        self.until(lambda: "Waiting" in self.text("[data-study]"), "on the queue")
        work()
        rows = "[aria-label='Design variants on the same lap'] tbody tr"
        self.until(lambda: len(self.browser.find_elements(By.CSS_SELECTOR, rows)) >= 5, "side by side")
        self.find("//*[@aria-label='Design variants on the same lap']//tr[contains(., 'revision 1')]")
        surge = "//*[@aria-label='Design variants on the same lap']//tr[contains(., 'surge tank')]//button"
        self.until(lambda: self.find(surge).is_enabled() and (self.find(surge).click() or True), "applied")
        self.until(lambda: (self.kept("slosh") or {}).get("surge_l", 0) > 0, "kept")
        self.until(lambda: "in the surge tank" in self.text("[aria-label='The tank at the moment shown']"), "shown")

        for label in ("Baffles across", "Place of the pickup"):
            self.tick(label)
        self.type_into("Places along", "3")
        self.type_into("Places across", "2")
        self.until(lambda: "12 runs" in self.text("[data-runs]"), "counted")
        self.press("Start search")
        self.until(lambda: "Waiting" in self.text("[data-study=running]"), "on the queue")
        work()
        self.until(lambda: len(self.browser.find_elements(By.CSS_SELECTOR, "[data-place]")) == 6, "the map")
        self.assert_accessible("what the tool found")
        best = "[aria-label='Design search results'] tbody tr:first-child button"
        self.click(best)
        self.until(lambda: self.kept("ports")[0]["x_mm"] in (25.0, 350.0, 675.0), "the pickup stands there")
        self.until(lambda: "The tank has changed" in self.text("[aria-label='Slosh run']"), "it says so")
        self.press("The tank has changed: start search again")
        self.press("Stop")
        self.until(lambda: "Stopped after 0 of 12" in self.text("[aria-label='Slosh run']"), "stopped")

        file = self.downloads / "my-lap.csv"
        rows_of = "\n".join(f"{n * 0.05:.2f},{-0.6 if 40 < n < 120 else 0},{0.1}" for n in range(200))
        file.write_text("time,long g,lat g\n" + rows_of)
        self.choose("Driven over", "a lap of the workshop’s")
        huge = self.downloads / "huge.csv"
        huge.write_bytes(b"time,long g,lat g\n" + b"0.02,0.1,0.1\n" * 1_600_000)
        self.keys("input[aria-label='Import a lap from CSV']", str(huge))
        self.until(lambda: "20 MB or less are taken" in self.text("aside"), "too large, said so")
        self.keys("input[aria-label='Import a lap from CSV']", str(file))
        self.until(lambda: self.find("[data-preview]"), "how it would be")
        lines = self.on("[data-preview] svg", lambda svg: svg.get_attribute("innerHTML"))
        self.tick("Right turns are positive")
        self.until(lambda: self.on("[data-preview] svg", lambda svg: svg.get_attribute("innerHTML")) != lines, "turned")
        self.press("Keep this lap")
        self.until(lambda: self.find("[data-lap]"), "its trace")
        self.until(lambda: (self.kept("slosh") or {}).get("kept_lap"), "in the design")
        self.click("[data-lap] button")
        self.press("Keep it")
        self.find("[data-lap]")
        self.click("[data-lap] button")
        self.click("[data-confirm]")
        self.until(lambda: not self.browser.find_elements(By.CSS_SELECTOR, "[data-lap]"), "gone, once asked")
