"""From the measured space to cut sheet, as a person does it."""

import io

import ezdxf
from PIL import Image
from selenium.webdriver import ActionChains, Keys
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement
from shapely.geometry import Polygon

from keel.design.document import Design
from server.jobs.models import Job, TankDesign
from server.tests.helpers import PASSWORD, person
from server.workshop.models import Person, Workshop
from tests.browser.driver import BrowserTestCase

BAY = {"length_mm": 900.0, "width_mm": 500.0, "height_mm": 400.0}
SHELL = {"length_mm": 700.0, "width_mm": 400.0, "height_mm": 300.0, "x_mm": 60.0, "y_mm": 50.0, "z_mm": 20.0}


def colours_of(element: WebElement) -> int:
    """How many clearly different colours a part of the screen shows."""
    picture = Image.open(io.BytesIO(element.screenshot_as_png)).convert("RGB")
    return len({(red >> 4, green >> 4, blue >> 4) for _, (red, green, blue) in picture.getcolors(1 << 24)})


class SliceTestCase(BrowserTestCase):
    """A workshop with a fabricator and a design, and another workshop next door."""

    def setUp(self) -> None:
        """People and a design."""
        self.workshop = Workshop.objects.create(name="First Bench")
        self.maker = person("maker", "owner", self.workshop)
        person("looker", "viewer", self.workshop)
        person("neighbour", "owner", Workshop.objects.create(name="Next Door"))
        job = Job.opened(self.workshop, title="Launch tank")
        design = Design.model_validate({"brief": {"target_l": 100.0}, "bay": BAY, "shell": SHELL})
        self.tank = TankDesign.started(job, "Main", design, self.maker, "")

    def open_tank(self, station: str, query: str = "") -> None:
        """Be the maker and open the design."""
        self.be("maker")
        self.go(f"/designs/{self.tank.pk}/{station}{query}")
        self.until(lambda: self.tally("brimful_l") > 0, "figures")

    def shell(self) -> dict[str, float]:
        """The shell as the store has it."""
        self.tank.refresh_from_db()
        return self.tank.current().document["shell"]


class FromSpaceToSheet(SliceTestCase):
    """The whole way."""

    def test_the_whole_way_in_inches(self) -> None:
        """Sign in, new job, bay in inches, fit, change a dimension, see the delta, undo, cut."""
        Person.objects.filter(username="maker").update(units="in_usgal")
        self.sign_in("maker", PASSWORD)
        self.press("New job")
        self.type_into("Title", "Skiff tank")
        self.type_into("Customer", "Tam Weir")
        self.press("Create the job")
        self.type_into("Length, rear to front", "2' 8 1/2\"")
        self.type_into("Width, right to left", "16 1/4")
        self.type_into("Height, floor to roof", '30 cm + 1"')
        self.press("Fit a box to the bay")
        self.until(lambda: self.tally("brimful_l") > 0, "figures")
        fitted = TankDesign.objects.get(job__title="Skiff tank")
        self.until(lambda: fitted.refresh_from_db() or fitted.current().document["shell"], "saved")
        bay, shell = fitted.current().document["bay"], fitted.current().document["shell"]
        self.assertAlmostEqual(bay["length_mm"], 825.5)
        self.assertAlmostEqual(bay["width_mm"], 412.75)
        self.assertAlmostEqual(bay["height_mm"], 325.4)
        most, sixteenth = 825.5 - 2 * (10 + 17), 25.4 / 16
        self.assertTrue(most - 2 * sixteenth < shell["length_mm"] <= most, shell)
        self.assertAlmostEqual(shell["length_mm"] / sixteenth, round(shell["length_mm"] / sixteenth), places=5)
        self.assertEqual(fitted.job.customer.name if fitted.job.customer else "", "Tam Weir")

        before = self.tally("brimful_l")
        self.station("shell")
        self.click("[data-dimension=Height]")
        self.keys("input[data-typing]", Keys.CONTROL, "a")
        self.keys("input[data-typing]", "half a yard", Keys.ENTER)
        self.until(lambda: "is not a length" in self.find("main").text, "reason beside the field")
        self.keys("input[data-typing]", Keys.CONTROL, "a")
        self.keys("input[data-typing]", '8 3/4"', Keys.ENTER)
        self.until(lambda: self.delta("brimful_l").startswith("−"), "a delta")
        self.assertAlmostEqual(self.tally("brimful_l") - before, -float(self.delta("brimful_l")[1:]), delta=0.011)
        ActionChains(self.browser).key_down(Keys.CONTROL).send_keys("z").key_up(Keys.CONTROL).perform()
        self.until(lambda: self.tally("brimful_l") == before, "undone")

        self.station("sheet")
        self.find("[data-part=wrapper]")
        self.click("[data-file='end-pan.dxf']")
        file = self.until(lambda: next(self.downloads.glob("*end-pan.dxf")), "the file")
        outline = ezdxf.read(io.StringIO(file.read_text())).modelspace().query('LWPOLYLINE[layer=="CUT"]')[0]
        area = Polygon([(x, y) for x, y, *_ in outline.get_points()]).area
        design = fitted.current().document
        _, answer = self.fetch("POST", "evaluate", {"design": design})
        self.assertAlmostEqual(area, answer["sheet"]["unfolded"]["parts"][1]["area_mm2"], delta=1e-6 * area)

        address = f"/designs/{fitted.pk}/shell"
        self.browser.delete_all_cookies()
        self.be("neighbour")
        self.go("/")
        self.assertEqual(self.fetch("GET", f"designs/{fitted.pk}")[0], 404)
        self.go(address)
        self.until(lambda: "There is nothing here" in self.find("main").text, "nothing here")

    def test_dragging_a_face_snaps_and_is_one_step(self) -> None:
        """The front plate goes to where it clears the bay; one undo takes the whole drag back."""
        self.open_tank("shell")
        before = self.tally("brimful_l")
        low, high = (self.find(f"[data-handle=elevation-x-{end}]").rect["x"] for end in ("low", "high"))
        scale = (high - low) / 700
        self.drag("[data-handle=elevation-x-high]", round((900 - 10 - 17 - 760) * scale), 0)
        self.until(lambda: self.tally("brimful_l") > before, "more litres")
        self.until(lambda: abs(self.shell()["length_mm"] - (900 - 10 - 17 - 60)) < 1e-6, "snapped and saved")
        self.press("Undo")
        self.until(lambda: self.tally("brimful_l") == before, "undone")
        self.assertFalse(self.browser.find_element(By.XPATH, "//header//button[.='Undo']").is_enabled())
        self.press("Redo")
        self.until(lambda: self.tally("brimful_l") > before, "redone")
        self.keys("[data-handle=elevation-z-high]", Keys.ARROW_UP)
        self.until(lambda: self.shell()["height_mm"] == 301, "a millimetre by keyboard")

    def test_a_remedy_is_tried_then_taken(self) -> None:
        """Try shows a ghost and what it would hold; the design changes only when it is taken."""
        self.open_tank("shell")
        card = "[data-finding='capacity.below']"
        self.press("Try", card)
        self.until(lambda: 100 <= self.tally("rated_l") < 100.4, "the tried figure")
        self.assertEqual(len(self.browser.find_elements(By.CSS_SELECTOR, "[data-ghost=trial]")), 3)
        self.assertEqual(self.shell()["length_mm"], 700)
        self.press("Apply", card)
        self.until(lambda: not self.browser.find_elements(By.CSS_SELECTOR, card), "the finding gone")
        self.assertTrue(100 <= self.tally("rated_l") < 100.4)
        self.press("Pin")
        self.type_into("Height outside", "310")
        self.until(lambda: "against the pin" in self.text("[aria-label=Tally]"), "compared with the pin")
        self.saved()


class KeepingIt(SliceTestCase):
    """Saving, and what can come between."""


class EveryScreen(SliceTestCase):
    """Accessible in both themes; usable without WebGL; viewers only look."""

    solid = True

    def test_axe_is_content_in_both_themes(self) -> None:
        """Sign-in, jobs, every station, the workshop."""
        self.go("/")
        self.field("Name")
        self.assert_accessible("sign-in")
        self.open_tank("bay")
        tank = f"/designs/{self.tank.pk}"
        for theme in ("light", "dark"):
            self.fetch("PATCH", "session/preferences", {"theme": theme})
            stations = (
                "bay",
                "shell",
                "sheet",
                *(("brief", "ports", "gauge", "proof", "bench") if theme == "dark" else ()),
            )
            for path in ("/", "/workshop", *(f"{tank}/{station}" for station in stations)):
                self.go(path)
                self.until(lambda: self.find("main").text.strip(), path)
                if path.startswith(tank):
                    self.until(lambda: self.tally("brimful_l") > 0, "figures")
                self.assert_accessible(f"{path} in {theme}")

    def test_the_solid_view_and_its_stand_in(self) -> None:
        """Drawn where WebGL is, a plain message where it isn't; the flat views are there either way."""
        self.open_tank("shell")
        canvas = self.find("[data-solid=drawn] canvas")
        self.until(lambda: colours_of(canvas) > 10, "something drawn")
        self.go(f"/designs/{self.tank.pk}/shell?flat")
        self.until(lambda: "can’t draw in three dimensions" in self.text("[data-solid=flat]"), "the message")
        self.assertEqual(len(self.browser.find_elements(By.CSS_SELECTOR, "[data-view]")), 3)

    def test_a_viewer_can_look_but_not_touch(self) -> None:
        """Fields are shut, nothing is dragged, and what is there is shown."""
        self.be("looker")
        self.go(f"/designs/{self.tank.pk}/shell")
        self.until(lambda: self.tally("brimful_l") > 0, "figures")
        self.assertFalse(self.field("Length outside").is_enabled())
        self.assertEqual(self.browser.find_elements(By.CSS_SELECTOR, "[data-handle]"), [])
        self.assertIn("Viewing only", self.text("header"))

    def test_the_workshops_brake_decides(self) -> None:
        """A brake that can't close the wrapper puts a stop on Sheet."""
        self.open_tank("sheet")
        self.go("/workshop")
        self.type_into("Smallest closed box, inside", "350")
        self.press("Save the workshop")
        self.until(lambda: "Saved" in self.text("main"), "kept")
        self.go(f"/designs/{self.tank.pk}/sheet")
        self.until(lambda: "closes from 350 mm" in self.text("aside"), "the stop")
        self.find("[data-station=sheet][data-state=blocked]")

    def test_what_breaks_breaks_alone(self) -> None:
        """A station whose script doesn't come says so; drawing and rail go on, and it comes back."""
        self.open_tank("bay")
        self.browser.execute_cdp_cmd("Network.enable", {})
        self.browser.execute_cdp_cmd("Network.setBlockedURLs", {"urls": ["*GaugeStation*"]})
        self.station("gauge")
        self.until(lambda: "Gauge has met an error" in self.text("[aria-label=Inputs]"), "the station says so")
        self.find("[data-view=plan]")
        self.station("shell")
        self.until(lambda: "Metal" in self.text("[aria-label=Inputs]"), "another station")
        self.browser.execute_cdp_cmd("Network.setBlockedURLs", {"urls": []})
        self.station("gauge")
        self.press("Load the page again")
        self.until(lambda: "Low-level warning volume" in self.text("[aria-label=Inputs]"), "it is back")
