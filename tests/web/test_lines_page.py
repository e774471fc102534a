"""The lines at their station: a layout taken, modes flipped and changed, parts and hoses typed, remedies applied."""

from typing import Any

from keel.tests.line_samples import LIBRARY, PARTS, PORTS, RUNS, SHELL, Item, flares, plumbed, replaced
from server.jobs.models import TankDesign
from tests.web.person import AtThePage

PANEL = "aside"


class AtTheLines(AtThePage):
    """A box with ports, in a workshop that knows parts of every kind."""

    document: dict[str, Any] = {"shell": SHELL, "ports": PORTS}
    drawn = False

    def setUp(self) -> None:
        """The library is the workshop's."""
        super().setUp()
        self.workshop.rules = {"line_parts": [one.model_dump(mode="json") for one in LIBRARY.line_parts]}
        self.workshop.save()

    def lines(self) -> dict[str, Any]:
        """What is kept of them."""
        return dict(self.saved()["lines"])

    def laid(self, parts: list[Item] = PARTS, runs: list[Item] = RUNS, **more: Any) -> None:
        """A line that is there already."""
        self.tank: TankDesign
        self.tank.save_revision(plumbed(parts, runs, **more), self.maker, self.tank.revision)
        self.open_station("lines")
        self.until(lambda: self.do("count", "[aria-label='Running mode'] button"), "its modes")


class Laid(AtTheLines):
    """From nothing to a line."""

    def test_a_layout_is_taken_and_taken_back(self) -> None:
        """All are offered with their figures; what can't be says why; a press draws one, undo takes it back."""
        self.open_station("lines")
        self.until(lambda: self.do("count", "[data-layout]") == 7, "seven layouts")
        self.shows("joints", "[data-layout^=Return]")
        self.do("clicked", "[data-layout^=Return]")
        self.until(lambda: len(self.lines()["runs"]) > 5, "drawn")
        self.until(lambda: self.do("count", "[aria-label='Running mode'] button") > 3, "its modes")
        self.shows("Pressure at rail", PANEL)
        self.press("Undo")
        self.until(lambda: not self.lines()["runs"], "taken back")

    def test_parts_come_from_the_library(self) -> None:
        """Added, renamed, its figures typed in any unit, taken out with the hoses that hung on it."""
        self.laid()
        self.press("Add a part")
        self.press("check", "[role=menu]")
        self.until(lambda: len(self.lines()["parts"]) == 7, "one part more")
        self.type_into("Opens at", "1 psi", "[data-row=check-valve-1]")
        self.until(lambda: abs(self.lines()["parts"][6]["does"]["opens_kpa"] - 6.895) < 0.01, "converted")
        self.do("clicked", "[data-row=filter] button")
        self.press("Remove filter", "[data-row=filter]")
        self.until(lambda: len(self.lines()["runs"]) == len(RUNS) - 2, "its hoses are gone with it")


class Modes(AtTheLines):
    """What runs when."""

    def test_flipped_and_changed(self) -> None:
        """Pressing a mode shows its figures; made the design's own they can be typed."""
        self.laid()
        self.do("clicked", "[aria-label='Running mode'] button[value=idle]")
        self.shows("235 kPa", PANEL)
        self.press("Running modes")
        self.press("Change these modes")
        self.until(lambda: len(self.lines()["modes"]) == 5, "kept")
        self.do("clicked", "[data-row=full] button")
        self.type_into("Drawn, typed", "60 L/h", "[data-row=full]")
        self.until(lambda: self.lines()["modes"][2]["draw_l_per_h"] == 60.0, "typed")

    def test_a_wrong_unit_says_what_is_wanted(self) -> None:
        """A length is no pressure."""
        self.laid()
        self.do("clicked", "[data-row=regulator] button")
        self.type_into("Set pressure, over its reference", "12 mm", "[data-row=regulator]")
        self.until(lambda: "pressure" in self.said("Set pressure, over its reference", "[data-row=regulator]"), "why")
        self.assertEqual(self.lines()["parts"][5]["does"]["set_kpa"], 300.0)


class Findings(AtTheLines):
    """What is wrong, and put right by a press."""

    def test_an_open_connection_is_capped(self) -> None:
        """The finding names it, the remedy closes it."""
        self.laid(replaced(PARTS, "regulator", connections=flares("in", "return", "out")))
        self.until(lambda: self.do("count", "[data-finding^='lines.open'] button"), "its remedy")
        self.press("Apply", "[data-finding^='lines.open']")
        self.until(lambda: not self.do("count", "[data-finding^='lines.open']"), "closed")
        self.assertTrue(self.lines()["parts"][5]["connections"][2]["capped"])

    def test_an_adapter_is_offered_and_made_for_the_job(self) -> None:
        """A hose end that doesn't fit: an adapter between, with a sheet of its own."""
        wrong = {"standard": "metric O-ring", "size": "M14 × 1.5", "hand": "female", "seal": "nitrile"}
        self.laid(runs=replaced(RUNS, "supply", end={"part": "filter", "port": "in", "connection": wrong}))
        self.until(lambda: self.do("count", "[data-finding^='lines.joint'] button"), "its remedies")
        self.shows("then strips", "[data-finding^='lines.joint']")
        self.press("Apply", "[data-finding^='lines.joint']", nth=1)
        self.until(lambda: self.lines()["runs"][2]["end"]["adapter"], "an adapter")
        self.do("clicked", "[data-row=supply] button")
        self.tick("Made for this job: a sheet of its own", "[data-row=supply]")
        self.until(lambda: self.lines()["runs"][2]["end"]["adapter"]["special"], "made for this job")
        answer = self.client.get(f"/api/designs/{self.tank.pk}/files/adapter-supply-end.pdf")
        self.assertEqual(answer.status_code, 200)


class Library(AtTheLines):
    """Line parts at Workshop."""

    def test_out_and_in_as_csv(self) -> None:
        """The file that goes out comes in again, part for part."""
        out = self.client.get("/api/workshop/line_parts.csv")
        back = self.client.post("/api/workshop/line_parts.csv", out.content, content_type="text/csv").json()
        self.assertEqual((len(back["line_parts"]), back["problems"]), (len(LIBRARY.line_parts), []))
        self.open("/workshop")
        self.shows("check valve", "[aria-label='The shop’s line parts']")
