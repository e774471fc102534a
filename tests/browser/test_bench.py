"""The parts of the bench that the whole way doesn't pass."""

from selenium.webdriver.common.by import By

from keel.design.document import Design
from server.jobs.models import Job, TankDesign
from server.workshop.models import Person
from tests.browser.test_slice import BAY, SHELL, SliceTestCase

PIPE = {"id": "pipe", "name": "pipe", "x_mm": 0.0, "y_mm": 0.0, "z_mm": 320.0}
PIPE |= {"length_mm": 200.0, "width_mm": 100.0, "height_mm": 80.0}


class Bay(SliceTestCase):
    """Keep-outs: added, typed, dragged, removed."""

    def bay(self) -> dict[str, object]:
        """The bay as the store has it."""
        self.tank.refresh_from_db()
        return self.tank.current().document["bay"]

    def test_a_keep_out_is_added_typed_and_removed(self) -> None:
        """The gap to it is dimensioned; too small a one says so in a word; without it the finding goes."""
        self.open_tank("bay")
        self.press("Add a keep-out")
        self.type_into("From rear", "700")
        self.type_into("From floor", "100")
        self.until(
            lambda: "short" in self.text("[data-gap=keep-out-1]") or "fouls" in self.text("[data-gap=keep-out-1]")
        )
        self.until(lambda: self.browser.find_element(By.CSS_SELECTOR, "[data-finding='bay.clearance:keep-out-1']"))
        self.type_into("Clearance", "30")
        self.until(lambda: self.bay()["keep_outs"][0]["clearance"]["mm"] == 30, "the typed clearance")
        self.press("Remove")
        self.until(lambda: not self.browser.find_elements(By.CSS_SELECTOR, "[data-gap=keep-out-1]"), "gone")
        self.until(lambda: self.bay()["keep_outs"] == [], "kept without it")

    def test_a_keep_out_is_dragged(self) -> None:
        """It goes along with the pointer, to round numbers, as one step to undo."""
        document = {"bay": BAY | {"keep_outs": [PIPE]}, "shell": SHELL}
        self.tank.save_revision(Design.model_validate(document), self.maker, self.tank.revision)
        self.open_tank("bay")
        self.drag("[data-move=elevation-pipe]", 80, 20)
        self.until(lambda: self.bay()["keep_outs"][0]["x_mm"] > 100, "dragged and saved")
        moved = self.bay()["keep_outs"][0]
        self.assertLess(moved["z_mm"], 320)
        self.assertEqual([moved["x_mm"] % 5, moved["z_mm"] % 5], [0, 0])
        self.assertEqual(self.tank.revision, 3)
        self.press("Undo")
        self.until(lambda: self.bay()["keep_outs"][0]["x_mm"] == 0, "back where it was")


class Liquid(SliceTestCase):
    """The fuel as it lies."""

    def test_nose_up_runs_to_the_rear(self) -> None:
        """The slope is said, the drawing follows, and level at rest puts it back."""
        self.open_tank("shell")
        self.type_into("Fill shown", "30")
        flat = self.until(lambda: self.find("[data-fuel=elevation] path").get_attribute("d"), "fuel drawn")
        self.press("On a slope, braking, in a turn")
        self.type_into("Pitch, nose up", "10")
        self.until(lambda: "slopes by 10.0°" in self.text("[data-fill-words]"), "the slope")
        self.until(lambda: self.find("[data-fuel=elevation] path").get_attribute("d") != flat, "the drawing")
        self.assert_accessible("attitude")
        before = self.tally("rated_l")
        self.press("Level, at rest")
        self.until(lambda: "above the lowest inner point" in self.text("[data-fill-words]"), "level again")
        self.assertEqual(self.tally("rated_l"), before)
        self.assertEqual(self.text("[data-save]").split(" · ")[0], "Saved")


class JobsList(SliceTestCase):
    """Finding a job, changing it, adding to it."""

    def test_search_change_and_add(self) -> None:
        """Searching narrows; an empty answer says what to do; a design is added and renamed."""
        for place in range(25):
            Job.opened(self.workshop, title=f"Barge {place}")
        self.be("maker")
        self.go("/")
        self.until(lambda: len(self.browser.find_elements(By.CSS_SELECTOR, "[data-job]")) == 20, "a page of jobs")
        self.type_into("Search title, customer, design or number", "launch")
        self.until(lambda: len(self.browser.find_elements(By.CSS_SELECTOR, "[data-job]")) == 1, "one job")
        self.press("Change")
        self.type_into("Customer", "Widow Harl")
        self.press("Save")
        self.until(lambda: "Widow Harl" in self.text("main table"), "the customer")
        self.press("Add design")
        self.type_into("Name", "Spare")
        self.press("Start empty")
        self.until(lambda: "Nothing to draw yet" in self.find("main").text, "an empty sheet")
        self.press("Rename")
        self.type_into("Name", "Reserve")
        self.press("Rename", "[role=dialog]")
        self.until(lambda: TankDesign.objects.filter(name="Reserve").exists(), "renamed")
        self.go("/")
        self.type_into("Search title, customer, design or number", "no such thing")
        self.until(lambda: "No job matches" in self.find("main").text, "the empty answer")

    def test_preferences_stay(self) -> None:
        """Units chosen in the header are the person's from then on."""
        self.open_tank("shell")
        self.press("mm · L")
        self.click("[role=menuitem]:nth-of-type(3)")
        self.until(lambda: Person.objects.get(username="maker").units == "in_impgal", "kept")
        self.until(lambda: "imp gal" in self.text("[aria-label=Tally]"), "shown")
