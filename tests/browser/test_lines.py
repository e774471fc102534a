"""The lines in a real browser: a part dragged, two rings joined, a mode flipped, the strip read, the sheet on paper."""

from typing import Any

from keel.tests.line_samples import PARTS, RUNS, plumbed, without
from server.jobs.models import TankDesign
from server.tests.helpers import paper_text
from tests.browser.test_slice import SliceTestCase


class Plumbed(SliceTestCase):
    """A tank with a line that lacks one hose."""

    def setUp(self) -> None:
        """Rail and regulator aren't joined yet."""
        super().setUp()
        design = plumbed(PARTS, without(RUNS, "after"))
        self.tank = TankDesign.started(self.tank.job, "Plumbed", design, self.maker, "")

    def kept(self) -> dict[str, Any]:
        """The lines as they are saved."""
        self.tank.refresh_from_db()
        return dict(self.tank.current().document["lines"])

    def run_kept(self, name: str) -> dict[str, Any]:
        """A run as it is saved."""
        return next(run for run in self.kept()["runs"] if run["id"] == name)

    def test_joined_dragged_and_on_paper(self) -> None:
        """Ring to ring is a hose; what is dragged goes there; pressures follow the mode; the sheet is a file."""
        self.open_tank("lines")
        self.find("[data-strip]")
        rings = "[data-view=plan] [data-open-connection='{}']"
        self.click(rings.format("rail.out"))
        self.until(lambda: "press the ring" in self.text("aside"), "what to do next")
        self.click(rings.format("regulator.in"))
        self.until(lambda: len(self.kept()["runs"]) == len(RUNS), "a hose between them")
        joined = self.kept()["runs"][-1]
        self.assertEqual((joined["start"]["part"], joined["end"]["part"]), ("rail", "regulator"))
        self.until(lambda: "kPa" in self.text("[data-lines]"), "pressure on the run at hand")
        full = self.text("[data-lines]")
        self.click("[aria-label='Running mode'] button[value=idle]")
        self.until(lambda: self.text("[data-lines]") != full, "another mode, other pressures")
        self.drag("[data-move='plan-filter']", 30, 0)
        self.until(lambda: self.kept()["parts"][2]["x_mm"] > 1110, "the filter moved")
        self.until(lambda: self.text("[data-lines]").count("kPa") > 3, "pressures on all runs")
        self.click("[data-row='return'] button")
        self.find("section[aria-label='return, how it is cut']")
        self.drag("[data-move='plan-straight 1 of return']", 0, -30)
        self.until(lambda: len(self.run_kept("return")["corners"]) == 1, "a straight dragged is a corner")
        self.assert_accessible("the lines")
        self.press("Download")
        self.click("[data-file='lines.pdf']")
        paper = self.until(lambda: next(self.downloads.glob("*lines.pdf"), None), "downloaded")
        self.assertIn("Pressure and flow at each run's start", paper_text(paper.read_bytes()))
