"""Jobs, designs, revisions, conflicts, bad input, and the store going away."""

import json
from concurrent.futures import ThreadPoolExecutor
from unittest.mock import patch

from django.db import OperationalError, connection
from django.test import TransactionTestCase

from keel.design.document import Design
from server.jobs.models import Customer, Job, TankDesign
from server.tests.helpers import BOX, Api, ApiTestCase, person
from server.workshop.models import Workshop


class Jobs(ApiTestCase):
    """The list and its records."""

    def test_search_state_customer_and_pages(self) -> None:
        """Each filter narrows; pages follow each other without overlap."""
        mill = Customer.objects.create(workshop=self.workshop, name="Mill Wharf")
        for place in range(45):
            Job.opened(self.workshop, title=f"Tank {place}", state="build", customer=mill if place % 2 else None)
        everything = self.owner("GET", "jobs")[1]
        self.assertEqual((everything["count"], everything["pages"], len(everything["items"])), (46, 3, 20))
        numbers = [job["number"] for page in (1, 2, 3) for job in self.owner("GET", f"jobs?page={page}")[1]["items"]]
        self.assertEqual(len(set(numbers)), 46)
        self.assertEqual(self.owner("GET", "jobs?search=wharf")[1]["count"], 22)
        self.assertEqual(self.owner("GET", "jobs?search=launch")[1]["items"][0]["designs"][0]["name"], "Main")
        self.assertEqual(self.owner("GET", f"jobs?search={self.job.number}")[1]["count"], 1)
        self.assertEqual(self.owner("GET", "jobs?state=enquiry")[1]["count"], 1)
        self.assertEqual(self.owner("GET", f"jobs?customer_id={mill.pk}&search=Tank%201")[1]["count"], 6)
        body = self.refused(self.owner("GET", "jobs?page=0"), 422, "invalid")
        self.assertEqual((body["errors"][0]["field"], body["errors"][0]["limit"]), ("page", "1 or more"))
        self.refused(self.owner("GET", "jobs?state=lost"), 422, "invalid")

    def test_records(self) -> None:
        """Jobs and customers are made and changed; a customer's name is used once."""
        customer = self.fabricator("POST", "customers", {"name": "Reed & Son", "contact": "by the lock"})[1]
        status, job = self.fabricator("POST", "jobs", {"title": "Punt", "customer_id": customer["id"]})
        self.assertEqual((status, job["customer"], job["number"]), (201, "Reed & Son", self.job.number + 1))
        seen = {name: job[name] for name in ("title", "customer_id", "state", "note")}
        mine = {"title": "Punt tank", "state": "build", "seen": seen}
        changed = self.fabricator("PUT", f"jobs/{job['id']}", mine)[1]
        stale = self.refused(self.fabricator("PUT", f"jobs/{job['id']}", mine | {"title": "Late"}), 409, "conflict")
        self.assertEqual(stale["current"]["title"], "Punt tank")
        self.assertEqual((changed["title"], changed["state"], changed["customer_id"]), ("Punt tank", "build", None))
        self.refused(self.fabricator("POST", "customers", {"name": "Reed & Son"}), 422, "invalid")
        self.refused(self.fabricator("POST", "jobs", {"title": ""}), 422, "invalid")


class Revisions(ApiTestCase):
    """Nothing that was saved is ever lost."""

    def save(self, base: int, length: float) -> tuple[int, object]:
        """Save the box with a length, based on a revision."""
        design = {"shell": BOX["shell"] | {"length_mm": length}}
        return self.fabricator("PUT", f"designs/{self.tank.pk}", {"base_revision": base, "design": design})

    def test_each_save_is_a_revision(self) -> None:
        """Number, author and time; the list is newest first; any can be read and brought back."""
        self.assertEqual([self.save(1, 810.0)[0], self.save(2, 820.0)[0]], [200, 200])
        listed = self.viewer("GET", f"designs/{self.tank.pk}/revisions")[1]
        self.assertEqual(
            [(r["number"], r["author"]) for r in listed["items"]], [(3, "Fabricator"), (2, "Fabricator"), (1, "")]
        )
        old = self.viewer("GET", f"designs/{self.tank.pk}/revisions/2")[1]
        self.assertEqual(old["design"]["shell"]["length_mm"], 810)
        restored = self.fabricator("POST", f"designs/{self.tank.pk}/restore", {"base_revision": 3, "number": 2})[1]
        self.assertEqual((restored["revision"], restored["design"]["shell"]["length_mm"]), (4, 810))
        self.assertEqual(self.tank.revisions.count(), 4)

    def test_a_save_based_on_an_old_revision_is_a_conflict(self) -> None:
        """409 carries the present design; nothing is overwritten."""
        self.save(1, 810.0)
        body = self.refused(self.save(1, 900.0), 409, "conflict")
        self.assertEqual(body["current"]["number"], 2)
        self.assertEqual(body["current"]["author"], "Fabricator")
        self.assertEqual(body["current"]["design"]["shell"]["length_mm"], 810)
        self.refused(
            self.fabricator("POST", f"designs/{self.tank.pk}/restore", {"base_revision": 1, "number": 1}),
            409,
            "conflict",
        )
        self.assertEqual(self.tank.revisions.count(), 2)

    def test_bad_designs_are_named_and_not_kept(self) -> None:
        """Field, value and limit; broken text and too much of it have answers of their own."""
        cases = [
            ({"shell": BOX["shell"] | {"thickness_mm": 200.0}}, "shell.thickness_mm"),
            ({"shell": BOX["shell"] | {"width_mm": "four"}}, "shell.width_mm"),
            ({"version": 9}, "version"),
        ]
        for design, field in cases:
            body = {"base_revision": 1, "design": design}
            answer = self.refused(self.owner("PUT", f"designs/{self.tank.pk}", body), 422, "invalid")
            self.assertEqual(answer["errors"][0]["field"], field)
            self.assertEqual(self.owner("POST", "evaluate", {"design": design})[0], 422)
        raw = json.dumps({"base_revision": 1, "design": BOX}).encode()
        self.refused(self.owner("PUT", f"designs/{self.tank.pk}", raw=raw[:-9]), 422, "invalid")
        nan = raw.replace(b"800.0", b"NaN")
        answer = self.refused(self.owner("PUT", f"designs/{self.tank.pk}", raw=nan), 422, "invalid")
        self.assertEqual((answer["errors"][0]["field"], answer["errors"][0]["value"]), ("shell.length_mm", "nan"))
        huge = json.dumps({"base_revision": 1, "design": {"brief": {"reason": "x" * 5_000_000}}}).encode()
        answer = self.refused(self.owner("PUT", f"designs/{self.tank.pk}", raw=huge), 413, "too_large")
        self.assertIn("1500000", answer["errors"][0]["limit"])
        self.assertEqual(self.tank.revisions.count(), 1)

    def test_import_is_export_again(self) -> None:
        """A design taken away comes back as the same design."""
        status, text = self.viewer("GET", f"designs/{self.tank.pk}/files/design.json")
        self.assertEqual(status, 200)
        body = {"name": "Copy", "design": text}
        made = self.fabricator("POST", f"jobs/{self.job.pk}/designs", body)[1]
        self.assertEqual(made["design"], self.tank.current().design().model_dump(mode="json"))
        body["design"] = {"shell": {}}
        answer = self.refused(self.fabricator("POST", f"jobs/{self.job.pk}/designs", body), 422, "invalid")
        self.assertIn("shell.length_mm", [fault["field"] for fault in answer["errors"]])

    def test_the_store_going_away_is_said_so(self) -> None:
        """503 with a reason, both inside a view and before it; the same save works afterwards."""
        with patch.object(TankDesign, "save_revision", side_effect=OperationalError("gone")):
            self.refused(self.save(1, 810.0), 503, "database_away")
        with patch("django.contrib.sessions.backends.db.SessionStore.load", side_effect=OperationalError("gone")):
            self.refused(self.save(1, 810.0), 503, "database_away")
        self.assertEqual(self.save(1, 810.0)[0], 200)


class Questions(ApiTestCase):
    """Evaluation on request."""

    def test_the_fuel_lies_as_asked(self) -> None:
        """Fill and attitude are the question's; the design's own figures don't move with them."""
        still = self.viewer("POST", "evaluate", {"design": BOX})[1]
        question = {"design": BOX, "showing": {"fill_fraction": 0.5, "attitude": {"pitch_deg": 10, "left_g": 0.2}}}
        tilted = self.viewer("POST", "evaluate", question)[1]
        self.assertEqual(tilted["shell"]["figures"], still["shell"]["figures"])
        self.assertAlmostEqual(tilted["shell"]["fill"]["volume_l"], still["shell"]["figures"]["brimful_l"] / 2)
        self.assertGreater(tilted["shell"]["fill"]["slope_deg"], 10)
        self.assertAlmostEqual(still["shell"]["fill"]["volume_l"], still["shell"]["figures"]["rated_l"])

    def test_a_bend_that_came_out_otherwise(self) -> None:
        """The section is pulled together for whoever asks; a corner that isn't there and a rolled shell are named."""
        asked = {"design": BOX, "corner": 0, "built_deg": 88}
        status, answer = self.viewer("POST", "sheet/as-bent", asked)
        self.assertEqual((status, len(answer["built"]["corners"])), (200, 4))
        self.assertGreater(answer["gap_mm"], 1)
        body = self.refused(self.viewer("POST", "sheet/as-bent", asked | {"corner": 7}), 422, "invalid")
        self.assertIn("4 corners", str(body))
        drum = {"shell": {"kind": "cylinder", "diameter_mm": 300, "run_mm": 500}}
        self.refused(self.viewer("POST", "sheet/as-bent", asked | {"design": drum}), 422, "invalid")

    def test_what_cannot_be_asked(self) -> None:
        """Angles, shares and fields beyond their limits are named."""
        for question, field, limit in (
            ({"showing": {"attitude": {"pitch_deg": 100}}}, "showing.attitude.pitch_deg", "85° or less"),
            ({"showing": {"attitude": {"left_g": "much"}}}, "showing.attitude.left_g", "a number"),
            ({"showing": {"fill_fraction": 1.5}}, "showing.fill_fraction", "1 or less"),
            ({"showing": {"attitude": {"yaw_deg": 3}}}, "showing.attitude.yaw_deg", "a field of the format"),
            ({"showing": {"attitude": {"up_g": -1.0}}}, "showing.attitude.up_g", "0.05 g"),
            ({"attitude": {}}, "attitude", "a field of the format"),
        ):
            body = self.refused(self.viewer("POST", "evaluate", {"design": BOX} | question), 422, "invalid")
            self.assertEqual((body["errors"][0]["field"], body["errors"][0]["limit"]), (field, limit))

    def test_a_design_of_its_own_rules(self) -> None:
        """Each workshop's answer is by its own brake."""
        settings = self.owner("GET", "workshop")[1]["settings"]
        settings["brake"]["smallest_closed_box_mm"] = 380.0
        self.assertEqual(self.owner("PUT", "workshop", {"base_version": 1, "settings": settings})[0], 200)
        codes = {f["code"] for f in self.fabricator("POST", "evaluate", {"design": BOX})[1]["findings"]}
        others = {f["code"] for f in self.stranger("POST", "evaluate", {"design": BOX})[1]["findings"]}
        self.assertEqual(codes - others, {"brake.closed_box"})


class TwoTabs(TransactionTestCase):
    """Two saves at the very same moment."""

    def test_one_wins_and_the_other_is_told(self) -> None:
        """Of eight saves based on one revision, one is kept and seven are conflicts."""
        workshop = Workshop.objects.create(name="Busy")
        somebody = person("tab", "fabricator", workshop)
        tank = TankDesign.started(Job.opened(workshop, title="x"), "x", Design(), somebody, "")

        def save(length: float) -> int:
            try:
                design = {"shell": BOX["shell"] | {"length_mm": length}}
                return Api(somebody)("PUT", f"designs/{tank.pk}", {"base_revision": 1, "design": design})[0]
            finally:
                connection.close()

        with ThreadPoolExecutor(8) as pool:
            statuses = sorted(pool.map(save, [700.0 + n for n in range(8)]))
        self.assertEqual(statuses, [200] + [409] * 7)
        self.assertEqual(tank.revisions.count(), 2)
