"""Jobs, customers, signing in: the pages round the designs."""

import json
from typing import Any

from django.test import Client

from keel.design.document import Design
from server.jobs.models import Customer, Job, TankDesign
from server.tests.helpers import BOX, PASSWORD, Api, person
from server.workshop.models import Person, Workshop
from tests.web.person import AtThePage

BAY = {"length_mm": 900.0, "width_mm": 500.0, "height_mm": 400.0}


class Jobs(AtThePage):
    """The list, and one job's page."""

    document: dict[str, Any] = {"brief": {"target_l": 100.0}, "bay": BAY, "shell": BOX["shell"]}

    def listed(self) -> list[str]:
        """Titles of the jobs on the list."""
        rows = self.do("count", "[data-job]")
        return [self.text(f"tr[data-job]:nth-of-type({place + 1}) td:nth-child(2)") for place in range(rows)]

    def test_a_job_from_its_title_to_its_design(self) -> None:
        """A new customer comes with it; the job, its customer and its first design are kept."""
        self.open("/")
        self.press("New job")
        self.until(lambda: not self.do("isEnabled", "Create the job", "[role=dialog]"), "a title is wanted")
        self.type_into("Title", "Skiff tank")
        self.type_into("Customer", "Tam Weir")
        self.press("Create the job")
        self.shows("Type the space you measured", "main")
        made = Job.objects.get(title="Skiff tank")
        self.assertEqual((made.customer and made.customer.name, made.state), ("Tam Weir", "enquiry"))
        self.assertEqual(made.designs.count(), 1)
        self.assertTrue(self.do("path").startswith(f"/designs/{made.designs.get().pk}/bay"))

    def test_the_list_is_narrowed(self) -> None:
        """By words of title, customer, design or number, by state, by customer; what matches nothing says so."""
        weir = Customer.objects.create(workshop=self.workshop, name="Tam Weir")
        for title, state, customer in (("Dory", "build", weir), ("Punt", "enquiry", weir), ("Barge", "build", None)):
            job = Job.opened(self.workshop, title=title, state=state, customer=customer)
            TankDesign.started(job, f"{title} tank", Design.model_validate(BOX), self.maker, "")
        self.open("/")
        self.until(lambda: len(self.listed()) == 4, "all")
        self.choose("State", "build")
        self.until(lambda: sorted(self.listed()) == ["Barge", "Dory"], "those in the making")
        self.choose("Customer", "Tam Weir")
        self.until(lambda: self.listed() == ["Dory"], "his")
        self.choose("State", "any")
        self.type_into("Search title, customer, design or number", "punt")
        self.until(lambda: self.listed() == ["Punt"], "by title")
        self.type_into("Search title, customer, design or number", "no such thing")
        self.shows("No job matches", "main")

    def test_two_people_change_a_job(self) -> None:
        """The second is told what the first made of it, and can take theirs or go on with their own."""
        self.open("/")
        self.press("Change job Launch tank")
        body = {"title": "Launch tank, aft", "state": "build", "note": ""}
        seen = {"title": "Launch tank", "state": self.job.state, "note": ""}
        other = Api(person("other", "owner", self.workshop))
        self.assertEqual(other("PUT", f"jobs/{self.job.pk}", body | {"seen": seen})[0], 200)
        self.type_into("Title", "Launch tank, fore")
        self.press("Save")
        self.shows("Somebody changed this job meanwhile", "[role=dialog]")
        self.press("Show theirs")
        self.until(lambda: self.value("Title") == "Launch tank, aft", "theirs")
        self.type_into("Title", "Launch tank, middle")
        self.press("Save")
        self.until(lambda: not self.do("count", "[role=dialog]"), "kept")
        self.job.refresh_from_db()
        self.assertEqual((self.job.title, self.job.state), ("Launch tank, middle", "build"))

    def test_customers_are_kept_and_changed(self) -> None:
        """One more, then its contact; a name that is taken is refused in words."""
        Customer.objects.create(workshop=self.workshop, name="Tam Weir")
        self.open("/")
        self.press("Customers")
        self.type_into("Name", "Ada Sluice")
        self.type_into("Contact", "at the lock")
        self.press("Add")
        self.shows("Kept.", "[role=dialog]")
        self.assertEqual(Customer.objects.get(name="Ada Sluice").contact, "at the lock")
        self.type_into("Contact", "gone to sea")
        self.press("Save")
        self.until(lambda: Customer.objects.get(name="Ada Sluice").contact == "gone to sea", "changed")
        self.type_into("Name", "Tam Weir")
        self.press("Save")
        self.until(lambda: self.do("count", "[role=dialog] [role=alert]"), "refused")
        self.assertEqual(self.value("Name"), "Tam Weir")
        self.assertEqual(Customer.objects.filter(name="Tam Weir").count(), 1)

    def test_a_design_comes_back_from_its_file(self) -> None:
        """What was taken away as a file is the same design; a file that is none, or whose sizes can't be, is refused."""
        file = json.dumps(self.tank.current().document)
        for content, said in (("no json", "can’t be read"), ('{"shell": {"length_mm": -5}}', "length")):
            with self.subTest(content=content):
                self.open("/")
                self.press("Add design to Launch tank")
                self.do("given", "From a design file (JSON)", "tank.json", content)
                if content.startswith("{"):
                    self.press("Import it")
                self.shows(said, "[role=dialog]")
        self.open("/")
        self.press("Add design to Launch tank")
        self.type_into("Name", "Second")
        self.do("given", "From a design file (JSON)", "tank.json", file)
        self.press("Import it")
        self.until(lambda: TankDesign.objects.filter(name="Second"), "imported")
        made = TankDesign.objects.get(name="Second")
        self.assertEqual(made.current().document["shell"], self.tank.current().document["shell"])

    def test_what_a_job_needs(self) -> None:
        """Its designs with their figures, what is wrong in any of them, its papers, who did what, each a way there."""
        low = Design.model_validate(self.document | {"shell": BOX["shell"] | {"z_mm": 5.0}})
        second = TankDesign.started(self.job, "Second try", low, self.maker, "lower")
        second.save_revision(low, self.maker, 1)
        self.open(f"/jobs/{self.job.number}")
        self.shows("rated, 100.00 L asked for", f"[data-design='{self.tank.pk}']")
        self.shows("Second try: revisions 1 to 2, lower", "section[aria-label='Changes of the designs']")
        attention = self.text("section[aria-label='Needs attention']")
        self.assertIn("Second try, Bay", attention)
        links = f"a[href='/api/designs/{self.tank.pk}/files/cut-list.csv']"
        self.until(lambda: self.do("count", links) == 1, "the cut list")
        self.do("clicked", "section[aria-label='Needs attention'] a")
        self.until(lambda: self.do("count", "[data-station][aria-current=step]"), "its station")


class Session(AtThePage):
    """Who is at the screen."""

    document = Jobs.document

    def test_signing_in_and_out(self) -> None:
        """A wrong password is refused in words and what was typed stays; out, the page is the first one again."""
        self.client = Client()
        self.open("/")
        self.type_into("Name", "maker")
        self.type_into("Password", "not it at all")
        self.press("Sign in")
        self.shows("don't go together")
        self.assertEqual(self.value("Name"), "maker")
        self.type_into("Password", PASSWORD)
        self.press("Sign in")
        self.shows("Launch tank", "main")
        self.press("Maker")
        self.do("clicked", "li[role=menuitem]:last-child")
        self.until(lambda: self.value("Password") == "", "signed out")

    def test_units_and_theme_are_the_persons(self) -> None:
        """They change what is on the page at once, and are there again on the next."""
        self.open_station("shell")
        self.press("Units: mm · L")
        self.do("clicked", "li[role=menuitem]:nth-child(2)")
        self.until(lambda: self.do("count", "[aria-label='Units: in · US gal']"), "inches")
        self.press("Maker")
        self.tick("Dark")
        self.until(lambda: Person.objects.get(pk=self.maker.pk).theme == "dark", "dark")
        self.assertEqual(Person.objects.get(pk=self.maker.pk).units, "in_usgal")
        self.open("/")
        self.until(lambda: self.do("count", "[aria-label='Units: in · US gal']"), "inches still")

    def test_a_new_password(self) -> None:
        """A weak one and a wrong present one are refused beside their fields; the new one opens the door."""
        self.open("/")
        self.press("Maker")
        self.do("clicked", "li[role=menuitem]:nth-last-child(2)")
        self.type_into("Present password", "wrong one")
        self.type_into("New password", "short")
        self.press("Change the password")
        self.until(lambda: self.do("count", "[role=dialog] .Mui-error"), "refused")
        self.type_into("Present password", PASSWORD)
        self.type_into("New password", "a-heavier-order-of-rivets")
        self.press("Change the password")
        self.shows("Changed.", "[role=dialog]")
        answer = Api()("POST", "session", {"username": "maker", "password": "a-heavier-order-of-rivets"})
        self.assertEqual(answer[0], 200)

    def test_an_empty_workshop_is_led(self) -> None:
        """From New job to a DXF by what is on the pages; then every station by the link at its foot."""
        self.sign_in(person("first", "owner", Workshop.objects.create(name="Empty Shed")))
        self.open("/")
        self.shows("Start with “New job”", "main")
        self.press("New job")
        self.type_into("Title", "Skiff tank")
        self.press("Create the job")
        self.shows("Type the space you measured", "main")
        for label, size in (("Length, rear to front", "800"), ("Width, right to left", "400")):
            self.type_into(label, size)
        self.type_into("Height, floor to roof", "300")
        self.press("Fit a box to the bay")
        self.until(lambda: self.text("[data-tally=brimful_l]").startswith("Brimful7"), "a tank")
        for station in ("shell", "inside", "ports", "gauge", "slosh", "sheet"):
            self.do("clicked", f"aside a[href$='/{station}']")
            self.until(lambda here=station: self.do("count", f"[data-station={here}][aria-current=step]"), station)  # type: ignore[misc]
        self.until(lambda: self.do("count", "[data-file='wrapper.dxf']"), "the file")
        before = self.do("files")
        self.do("clicked", "[data-file='wrapper.dxf']")
        self.until(lambda: self.do("files") == before + 1, "kept")
