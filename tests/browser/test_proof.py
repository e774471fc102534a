"""The leak test in a real browser: the tank under test drawn, readings from a file; the soap walk on a phone."""

import tempfile
from pathlib import Path

from selenium.webdriver.common.by import By

from keel.design.proof import TestGauge
from keel.formats.pressures import pressures_csv
from keel.studies.proof.rig import Rig, Surroundings, read
from server.floor.leak_tests import plan_of
from server.floor.models import LogEntry
from server.tests.helpers import paper_text
from tests.browser.between import Between
from tests.browser.test_floor import PHONE, WIDE
from tests.browser.test_slice import SliceTestCase, colours_of

TEST = "section[aria-label='Leak test of the tank']"


class UnderTest(SliceTestCase):
    """At the station."""

    solid = True

    def test_drawn_read_and_on_paper(self) -> None:
        """Plot and tank side by side, the weakest panel drawn; a file's readings judged; the certificate says so."""
        self.open_tank("proof")
        canvas = self.find("section[aria-label='Tank under test'] canvas")
        self.until(lambda: colours_of(canvas) > 10, "tank drawn")
        self.assertIn("drawn ×", self.text("[data-weakest]"))
        self.press("New: it never held fuel")
        self.until(lambda: not self.browser.find_elements(By.CSS_SELECTOR, "[data-gate=vapour]"), "free of vapour")
        self.press("Tank is shut and at pressure: begin")
        plan = plan_of(self.tank)
        assert plan is not None
        cell = plan.cells[0]
        rig = Rig(cell.volume_l, cell.pressure_kpa, 0.0, Surroundings(per_h_c=-1.0), TestGauge(), seed=5)
        with tempfile.TemporaryDirectory() as place:
            file = Path(place) / "night.csv"
            file.write_bytes(pressures_csv(read(rig, 240)))
            self.find(f"{TEST} input[type=file][accept*=csv]", hidden=True).send_keys(str(file))
            self.find("[data-verdict=pass]")
        self.find("[data-uncorrected=fail]")
        self.until(lambda: len(self.browser.find_elements(By.CSS_SELECTOR, f"{TEST} [data-plot] svg")) == 2, "plots")
        self.assert_accessible("a leak test by its readings")
        self.press("End test")
        self.until(lambda: self.text("[data-proof=passed]"), "passed")
        self.press("Leak test certificate, PDF")
        paper = self.until(lambda: next(self.downloads.glob("*leak-test.pdf")), "downloaded")
        self.assertIn("PASSED: every cell", paper_text(paper.read_bytes()))


class SoapWalk(SliceTestCase):
    """At the bench, where there is no network."""

    def setUp(self) -> None:
        """A phone's screen, and a door that can be shut."""
        super().setUp()
        self.between = Between(self.live_server_url)
        self.addCleanup(self.between.close)
        self.browser.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", PHONE)
        self.addCleanup(self.browser.execute_cdp_cmd, "Emulation.clearDeviceMetricsOverride", {})
        self.be("maker")
        self.browser.get(f"{self.between.address}/floor/{self.tank.job.number}")
        self.press("All steps")
        self.click("[data-line='prove:tank']")

    def test_walked_without_a_server(self) -> None:
        """Begun with it, walked and pinned without: what waits is shown as walked, then arrives in its order."""
        self.press("New: it never held fuel")
        self.choose("Method", "soap and low pressure")
        self.press("Tank is shut and at pressure: begin")
        self.find("[data-walk]")
        self.assertLessEqual(self.browser.execute_script(WIDE), 360.5)
        self.assert_accessible("the soap walk on a phone")
        self.between.there = False
        self.press("Walked to its end")
        self.find("[data-seam='rear-end']")
        self.press("Leak at 0 mm")
        self.press("slow bubbles")
        self.until(lambda: "1 of 3 seams walked, 1 leak" in self.text("[data-walk]"), "shown as walked")
        self.assertLessEqual(self.browser.execute_script(WIDE), 360.5)
        self.between.there = True
        self.until(lambda: not self.browser.find_elements(By.CSS_SELECTOR, "[data-waiting]"), "gone")
        kinds = [one["kind"] for one in LogEntry.objects.order_by("n").values_list("document", flat=True)]
        self.assertEqual(kinds, ["checked", "proof begun", "seam walked", "leak found"])
