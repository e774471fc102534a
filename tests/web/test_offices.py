"""The pages beside the stations, with the demo's data, rendered without a browser: jobs, a job, the workshop."""

from functools import cached_property
from typing import Any

from django.core.management import call_command
from django.test import TestCase

from keel.reference.quantities import UnitSet
from server.jobs.models import Job
from server.tests.helpers import Api
from server.workshop.models import Person
from tests.web.node import call
from tests.web.test_pages import METRIC, Page, without, written


class Offices(TestCase):
    """What a person sees there."""

    @classmethod
    def setUpTestData(cls) -> None:
        """The demo."""
        call_command("load_demo", verbosity=0)

    @cached_property
    def answers(self) -> dict[str, Any]:
        """What the server says to the owner, by path."""
        ask = Api(Person.objects.get(username="marla"))
        self.job = Job.objects.order_by("number").first()
        assert self.job is not None
        numbered = f"jobs/numbered/{self.job.number}"
        paths = ["session", "people", "jobs", "customers", "workshop", numbered, f"{numbered}/timeline"]
        for design in self.job.designs.all():
            paths += [f"designs/{design.pk}/standing", f"designs/{design.pk}/papers"]
        found = {}
        for path in paths:
            status, found[f"/api/{path}"] = ask("GET", path)
            self.assertEqual(status, 200, path)
        return found

    def pages(self, units: UnitSet) -> dict[str, Page]:
        """Each page as a reader sees it."""
        answers = self.answers | {"/api/session": self.answers["/api/session"] | {"units": units}}
        (shown,) = call("offices.tsx", [("offices", answers, self.job.number, units)])
        return {name: Page(html) for name, html in shown.items()}

    def test_they_are_whole(self) -> None:
        """Nothing is undefined, no choice is left blank; the job's page says how each design stands."""
        pages = self.pages("mm_l")
        for name, page in pages.items():
            with self.subTest(page=name):
                text = " ".join(page.texts)
                self.assertNotRegex(text, r"went wrong|undefined|NaN|\[object|\{\w+\}")
                self.assertEqual([label for label in page.left_open() if label not in ("State", "Customer")], [])
        job = " ".join(pages["job"].texts)
        for design in self.answers[f"/api/jobs/numbered/{self.job.number}"]["designs"]:
            self.assertIn(design["name"], job)

    def test_a_reader_in_inches_sees_no_metric_unit(self) -> None:
        """In either gallon; but for what people wrote."""
        readers: list[UnitSet] = ["in_usgal", "in_impgal"]
        for units in readers:
            names = sorted({*written(self.answers)}, key=len, reverse=True)
            for name, page in self.pages(units).items():
                with self.subTest(page=name, units=units):
                    self.assertEqual([t for t in page.texts if METRIC.search(without(t, names))], [])
