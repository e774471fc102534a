"""The bench on a phone: fits its width, reached with one hand, works on while the server is away."""

import tempfile
from pathlib import Path
from typing import Any

from selenium.webdriver.common.by import By

from server.floor.models import LogEntry, Photo
from server.tests.test_floor import picture
from tests.browser.between import Between
from tests.browser.test_slice import SliceTestCase

PHONE = {"width": 360, "height": 740, "deviceScaleFactor": 1, "mobile": True}
REACHED = """
const low = [...document.querySelectorAll('main button')].filter((one) => one.getBoundingClientRect().top > 370)
return low.map((one) => [one.textContent, one.getBoundingClientRect().height, one.getBoundingClientRect().width])
"""
KEPT = """
const done = arguments[0]
const job = `/api/jobs/numbered/${location.pathname.split('/').at(-1)}`
Promise.all(['/', '/api/session', job].map((path) => caches.match(path)))
  .then((kept) => done(kept.every(Boolean) && Boolean(navigator.serviceWorker.controller)))
"""
WIDE = "return [document.documentElement.scrollWidth, ...[...document.querySelectorAll('main *')]"
WIDE += ".map((one) => one.getBoundingClientRect().right)].reduce((a, b) => Math.max(a, b), 0)"


class OnThePhone(SliceTestCase):
    """One operation a screen."""

    def setUp(self) -> None:
        """A phone's screen, and a door that can be shut."""
        super().setUp()
        self.between = Between(self.live_server_url)
        self.addCleanup(self.between.close)
        self.browser.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", PHONE)
        self.addCleanup(self.browser.execute_cdp_cmd, "Emulation.clearDeviceMetricsOverride", {})
        self.be("maker")
        self.at = f"{self.between.address}/floor/{self.tank.job.number}"
        self.browser.get(self.at)
        self.find("[data-operation='prepare:sheet']")

    def written(self) -> list[tuple[str, Any]]:
        """What the log says."""
        documents = LogEntry.objects.order_by("n").values_list("document", flat=True)
        return [(document["kind"], document.get("subject")) for document in documents]

    def test_its_width_and_the_thumb(self) -> None:
        """Nothing runs out at 360 px; what is pressed often is large and low; axe is content."""
        self.assertLessEqual(self.browser.execute_script(WIDE), 360.5)
        low = {text: (high, wide) for text, high, wide in self.browser.execute_script(REACHED)}
        for name in ("Start", "Done", "Photo", "Note"):
            self.assertGreaterEqual(min(low[name]), 44, name)
        self.assertGreaterEqual(low["Done"][0], 60)
        self.assert_accessible("the bench on a phone")
        self.press("All steps")
        self.find("[data-line='close:front-pan']")
        self.assertLessEqual(self.browser.execute_script(WIDE), 360.5)
        self.assert_accessible("all steps on a phone")

    def test_away_and_back(self) -> None:
        """Without a server the page opens all the same; what is recorded waits, photo and all, then goes."""
        self.until(lambda: self.browser.execute_async_script(KEPT), "everything is kept")
        self.between.there = False
        self.press("Start")
        self.until(lambda: "1 waiting" in self.text("main"), "it waits")
        with tempfile.TemporaryDirectory() as place:
            photo = Path(place) / "bench.jpg"
            photo.write_bytes(picture(320, 240))
            self.find("input[type=file]", hidden=True).send_keys(str(photo))
            self.until(lambda: "3 waiting" in self.text("main"), "photo and its note")
        self.browser.get(self.at)
        self.until(lambda: "3 waiting" in self.text("main"), "still there")
        self.find("[data-standing=started]")
        self.assertEqual(self.written(), [])
        self.between.there = True
        self.until(lambda: not self.browser.find_elements(By.CSS_SELECTOR, "[data-waiting]"), "gone")
        self.assertEqual(self.written(), [("started", "prepare:sheet"), ("note", "prepare:sheet")])
        self.assertEqual(Photo.objects.count(), 1)
