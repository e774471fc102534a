"""Wiring in a real browser: a way to feed taken, a wire joined by its terminals, a device dragged, papers."""

from typing import Any

from keel.tests.wiring_samples import wired_up
from server.jobs.models import TankDesign
from server.tests.helpers import paper_text
from tests.browser.test_slice import SliceTestCase


class Wired(SliceTestCase):
    """A tank with a line and no wiring yet."""

    def setUp(self) -> None:
        """A pump that nothing feeds."""
        super().setUp()
        design = wired_up([], [], [], gauge={"reserve_l": 10.0})
        self.tank = TankDesign.started(self.tank.job, "Wired", design, self.maker, "")

    def kept(self) -> dict[str, Any]:
        """The wiring as it is saved."""
        self.tank.refresh_from_db()
        return dict(self.tank.current().document["wiring"])

    def test_from_nothing_to_labels(self) -> None:
        """A way is drawn and judged; a lamp is wired by hand; a device goes where it is dragged; labels are a file."""
        self.open_tank("wiring")
        self.click("[data-feed='Relay by the battery, cut-off in its coil']")
        self.until(lambda: len(self.kept()["wires"]) > 10, "wires are kept")
        self.until(lambda: "tank isn't bonded" in self.text("aside"), "what isn't bonded is said")
        self.press("Add a device")
        self.click("[role=menuitem][data-kind=lamp]")
        lamp = self.until(lambda: next((d for d in self.kept()["devices"] if d["id"] == "lamp-1"), None), "a lamp")
        self.click("[data-terminal='+'] [aria-label='Wire from +']")
        self.until(lambda: "To here" in self.text("aside"), "what to do next")
        self.click("[data-row='ignition'] button")
        self.click("[data-row='ignition'] [aria-label='Wire to out']")
        self.until(lambda: self.kept()["wires"][-1]["end"]["id"] == "ignition", "a wire between them")
        self.until(lambda: "No way from lamp" in self.text("aside"), "its other side is missing, and that is said")
        self.drag("[data-move='plan-lamp']", 40, 0)
        moved = self.until(
            lambda: next(
                (d for d in self.kept()["devices"] if d["id"] == "lamp-1" and d["x_mm"] != lamp["x_mm"]), None
            ),
            "the lamp moved",
        )
        self.assertGreater(moved["x_mm"], lamp["x_mm"])
        self.assert_accessible("the wiring")
        self.press("Show diagram and tables")
        self.until(lambda: "relay of pump" in self.text("[aria-label='One-line diagram']"), "the diagram")
        self.until(lambda: " V" in self.text("table[aria-label='Voltage at the pumps']"), "what is left of the voltage")
        self.press("Download")
        self.click("[data-file='wire-labels.pdf']")
        paper = self.until(lambda: next(self.downloads.glob("*wire-labels.pdf"), None), "downloaded")
        self.assertIn("here: battery: +", paper_text(paper.read_bytes()))
