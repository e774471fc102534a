"""The mount in a real browser: anchors and stations dragged, loads drawn, the way in played, a strap on paper."""

from typing import Any

from selenium.webdriver.common.by import By

from keel.design.document import Design
from server.jobs.models import TankDesign
from server.mount.models import WaySearch
from server.mount.tasks import search_way
from server.tests.helpers import paper_text
from server.workshop.models import MeasuredVehicle
from tests.browser.test_slice import BAY, SHELL, SliceTestCase

OPENING = {"side": "roof", "a_mm": 10.0, "b_mm": 10.0, "long_mm": 880.0, "wide_mm": 480.0}
ENDS = {"low": {"out_mm": 20.0, "z_mm": 0.0}, "high": {"out_mm": 480.0, "z_mm": 0.0}}
STRAPS = [
    {"id": name, "name": name, "at_mm": at} | ENDS for name, at in (("rear strap", 200.0), ("front strap", 600.0))
]
SEAT: dict[str, Any] = {"id": "seat", "name": "seat", "kind": "moving part", "x_mm": 820.0, "y_mm": 100.0, "z_mm": 60.0}


class Mounted(SliceTestCase):
    """A tank under two straps, in a vehicle."""

    def setUp(self) -> None:
        """Straps with an id each, and a vehicle with a seat near the tank."""
        super().setUp()
        vehicle = MeasuredVehicle.objects.create(
            workshop=self.workshop, document_json={"name": "Buggy", "parts": [SEAT]}
        )
        straps = [one | {"id": one["name"].replace(" ", "-")} for one in STRAPS]
        document = {"bay": BAY | {"opening": OPENING}, "shell": SHELL}
        design = Design.model_validate(document | {"mount": {"straps": straps, "vehicle": vehicle.key}})
        self.vehicle = vehicle
        self.tank = TankDesign.started(self.tank.job, "Held", design, self.maker, "")

    def kept(self) -> dict[str, Any]:
        """The mount as it is saved."""
        self.tank.refresh_from_db()
        return dict(self.tank.current().document["mount"])

    def test_dragged_judged_and_on_paper(self) -> None:
        """A station and an anchor go where they are dragged; who carries the load is said; the strap is a file."""
        self.open_tank("mount")
        self.find("[data-strap=rear-strap] path")
        self.drag("[data-move='plan-rear strap']", 40, 0)
        self.until(lambda: self.kept()["straps"][0]["at_mm"] > 210, "the station moved")
        self.drag("[data-move='end-rear strap, low anchor']", -12, 0)
        self.until(lambda: self.kept()["straps"][0]["low"]["out_mm"] < 18, "the anchor moved")
        self.find("[data-mount=rear-strap]")
        self.click("[aria-label='Load direction'] button[value=up]")
        self.until(lambda: "rear strap" in self.text("[data-carried=up]"), "who carries it")
        self.assert_accessible("the mount")
        self.press("Download")
        self.click("[data-file='strap-rear-strap.pdf']")
        paper = self.until(lambda: next(self.downloads.glob("*strap-rear-strap.pdf")), "downloaded")
        self.assertIn("rear strap, right end", paper_text(paper.read_bytes()))

    def test_a_part_of_the_vehicle_is_dragged_for_all_its_jobs(self) -> None:
        """Chosen, dragged, kept with the vehicle, not with the design."""
        self.open_tank("mount")
        self.press("Vehicle")
        self.click("[data-row=seat] button")
        before = self.tank.current().number
        self.drag("[data-move='elevation-seat']", 30, 0)
        self.until(
            lambda: self.vehicle.refresh_from_db() or self.vehicle.document_json["parts"][0]["x_mm"] > 830, "moved"
        )
        self.tank.refresh_from_db()
        self.assertEqual(self.tank.revision, before)

    def test_the_way_in_is_a_film(self) -> None:
        """Searched, then played to its end."""
        self.open_tank("mount", "?flat")
        self.press("Show the way in")
        self.press("Search the way in")
        search_way(self.until(lambda: WaySearch.objects.first(), "on the queue"))
        self.find("[data-way=done]")
        frame = self.find("[data-frame]")
        before = frame.get_attribute("transform")
        self.press("Play")
        self.until(lambda: self.find("[data-frame]").get_attribute("transform") != before, "moving")
        self.assertFalse(self.browser.find_elements(By.CSS_SELECTOR, "[data-way=running]"))
        self.assert_accessible("the way in")
