"""The page of a job."""

from selenium.webdriver.common.by import By

from keel.design.document import Design
from server.jobs.models import TankDesign
from server.tests.helpers import PASSWORD, person
from server.workshop.models import Workshop
from tests.browser.test_slice import BAY, SHELL, SliceTestCase


class OneJob(SliceTestCase):
    """Everything about a job on one page."""

    def test_designs_findings_papers_and_who_did_what(self) -> None:
        """From the list to the page; a finding leads to its station, a paper is there, saves are told by sitting."""
        low = Design.model_validate({"brief": {"target_l": 100.0}, "bay": BAY, "shell": SHELL | {"z_mm": 5.0}})
        second = TankDesign.started(self.tank.job, "Second try", low, self.maker, "lower")
        second.save_revision(low, self.maker, 1)
        self.be("maker")
        self.go("/")
        self.press("Launch tank")
        self.until(lambda: len(self.browser.find_elements(By.CSS_SELECTOR, "[data-design]")) == 2, "both designs")
        self.until(lambda: "rated, 100.00 L asked for" in self.text(f"[data-design='{self.tank.pk}']"), "figures")
        said = self.text("section[aria-label='Changes of the designs']")
        self.assertIn("Second try: revisions 1 to 2, lower", said)
        self.assertIn("Main: revision 1", said)
        self.assertIn("maker", said.lower())
        paper = self.find("//section[@aria-label='Papers']//a[normalize-space()='Cut list, CSV']")
        self.assertTrue(paper.get_attribute("href").endswith(f"/api/designs/{self.tank.pk}/files/cut-list.csv"))
        self.assert_accessible("the job's page")
        self.click("//section[@aria-label='Needs attention']//a[contains(., 'Second try, Bay')]")
        self.find("[data-station=bay][aria-current=step]")
        self.press(f"{self.tank.job.number} Launch tank")
        self.find("section[aria-label=Designs]")
        self.go("/jobs/999")
        self.until(lambda: "nothing" in self.text("body").lower(), "no such job")

    def test_the_first_five_minutes(self) -> None:
        """In an empty workshop the way from New job to a DXF is led by what is on the page."""
        person("first", "owner", Workshop.objects.create(name="Empty Shed"))
        self.sign_in("first", PASSWORD)
        self.until(lambda: "Start with “New job”" in self.text("main"), "what to do first")
        self.press("New job")
        self.type_into("Title", "Skiff tank")
        self.press("Create the job")
        self.until(lambda: "Type the space you measured" in self.text("main"), "what to do next")
        for label, size in (("Length, rear to front", "800"), ("Width, right to left", "400")):
            self.type_into(label, size)
        self.type_into("Height, floor to roof", "300")
        self.press("Fit a box to the bay")
        self.until(lambda: self.tally("brimful_l") > 50, "a tank")
        for station in ("shell", "inside", "ports", "gauge", "slosh", "sheet"):
            self.click(f"//aside//a[starts-with(., 'Next: ')][contains(@href, '/{station}')]")
            self.find(f"[data-station={station}][aria-current=step]")
        self.click("[data-file='wrapper.dxf']")
        self.until(lambda: list(self.downloads.glob("*wrapper.dxf")), "the file")

    def test_a_job_to_learn_on(self) -> None:
        """Each of its stations says what to try."""
        self.tank.job.guide = {"shell": "Drag the lid up."}
        self.tank.job.save()
        self.open_tank("shell")
        self.assertEqual(self.text("[data-hint]"), "Drag the lid up.")
        self.station("bay")
        self.assertEqual(self.browser.find_elements(By.CSS_SELECTOR, "[data-hint]"), [])

    def test_stations_by_key_and_folded_groups(self) -> None:
        """Alt with an arrow goes to the next station; a folded group stays folded but for the station at hand."""
        self.open_tank("shell")
        self.keys("body", "\ue00a\ue015")
        self.find("[data-station=inside][aria-current=step]")
        self.keys("body", "\ue00a\ue013")
        self.find("[data-station=shell][aria-current=step]")
        self.click("[data-group=design]")

        def shown() -> list[str | None]:
            links = self.browser.find_elements(By.CSS_SELECTOR, "[data-station]")
            return [link.get_attribute("data-station") for link in links]

        folded = ["shell", "sheet", "build", "proof", "bench", "mount", "lines", "wiring", "buying", "handover"]
        self.until(lambda: shown() == folded, "folded")
        self.browser.refresh()
        self.until(lambda: shown() == folded, "still folded")
        self.click("[data-group=design]")
        self.until(lambda: len(shown()) == 16, "unfolded")
        groups = self.browser.find_elements(By.CSS_SELECTOR, "nav[aria-label=Stations] > section")
        others = sum(self.find(part).size["height"] for part in ("header", "[aria-label='Tally']"))
        whole = sum(group.size["height"] for group in groups)
        self.assertLessEqual(whole + others, 800, "all stations on a screen 800 high")
