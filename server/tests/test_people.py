"""Signing in, roles, and the wall between workshops."""

import json

from django.test import Client

from server.jobs.models import Customer
from server.tests.helpers import BOX, PASSWORD, Api, ApiTestCase, person
from server.workshop.models import Person

WRITES = [
    ("POST", "jobs", {"title": "x"}),
    ("PUT", "jobs/{job}", {"title": "x", "seen": {"title": "Marsh pump skid"}}),
    ("POST", "customers", {"name": "x"}),
    ("POST", "jobs/{job}/designs", {"name": "x"}),
    ("PUT", "designs/{tank}", {"base_revision": 1, "design": BOX}),
    ("PATCH", "designs/{tank}", {"name": "x"}),
    ("POST", "designs/{tank}/restore", {"base_revision": 1, "number": 1}),
]
READS = [
    "jobs/{job}",
    "designs/{tank}",
    "designs/{tank}/revisions",
    "designs/{tank}/revisions/1",
    "designs/{tank}/files/design.json",
    "designs/{tank}/files/wrapper.dxf",
    "designs/{tank}/files/job-sheet.pdf",
]


class Roles(ApiTestCase):
    """Who may do what."""

    def place(self, path: str) -> str:
        """A path with this job's and design's numbers in it."""
        return path.format(job=self.job.pk, tank=self.tank.pk)

    def test_a_stranger_to_the_service_gets_401(self) -> None:
        """Everything but signing in asks who you are."""
        for path in [*READS, "jobs", "customers", "workshop", "people", "session"]:
            self.refused(self.nobody("GET", self.place(path)), 401, "signed_out")
        for method, path, body in WRITES:
            self.refused(self.nobody(method, self.place(path), body), 401, "signed_out")

    def test_a_viewer_reads_and_changes_nothing(self) -> None:
        """403 for every write, the role named."""
        for path in READS:
            self.assertEqual(self.viewer("GET", self.place(path))[0], 200, path)
        self.assertEqual(self.viewer("POST", "evaluate", {"design": BOX})[0], 200)
        for method, path, body in WRITES:
            answer = self.refused(self.viewer(method, self.place(path), body), 403, "role")
            self.assertIn("viewer", answer["message"])

    def test_another_workshops_rows_are_not_there(self) -> None:
        """404 by any route, for reading and for writing, and in no list."""
        for path in READS:
            self.refused(self.stranger("GET", self.place(path)), 404, "not_found")
        for method, path, body in WRITES:
            if "{" in path:
                self.refused(self.stranger(method, self.place(path), body), 404, "not_found")
        customer = Customer.objects.create(workshop=self.workshop, name="Ours")
        self.refused(self.stranger("PUT", f"customers/{customer.pk}", {"name": "x"}), 404, "not_found")
        self.refused(self.stranger("POST", "jobs", {"title": "x", "customer_id": customer.pk}), 422, "invalid")
        someone = Person.objects.get(username="viewer")
        self.refused(self.stranger("PATCH", f"people/{someone.pk}", {"role": "owner"}), 404, "not_found")
        self.assertEqual(self.stranger("GET", "jobs")[1]["count"], 0)
        self.assertEqual(self.stranger("GET", "customers")[1], [])
        self.assertEqual([p["username"] for p in self.stranger("GET", "people")[1]], ["stranger"])
        self.tank.refresh_from_db()
        self.assertEqual((self.tank.revision, self.tank.name), (1, "Main"))

    def test_only_an_owner_keeps_people_and_settings(self) -> None:
        """Fabricators and viewers read the settings; neither sees the people."""
        for somebody in (self.fabricator, self.viewer):
            self.refused(somebody("GET", "people"), 403, "role")
            self.refused(somebody("PUT", "workshop", {"base_version": 1, "settings": {}}), 403, "role")
            self.assertEqual(somebody("GET", "workshop")[0], 200)

    def test_an_owner_adds_and_closes_accounts(self) -> None:
        """A taken name, a weak password and shutting oneself out are refused."""
        new = {"username": "tessa", "name": "Tessa", "role": "fabricator", "password": PASSWORD}
        status, made = self.owner("POST", "people", new)
        self.assertEqual(status, 201)
        body = self.refused(self.owner("POST", "people", new), 422, "invalid")
        self.assertEqual(body["errors"][0]["field"], "username")
        body = self.refused(self.owner("POST", "people", new | {"username": "u2", "password": "1234"}), 422, "invalid")
        self.assertEqual(body["errors"][0]["field"], "password")
        self.assertEqual(self.owner("PATCH", f"people/{made['id']}", {"is_active": False})[1]["is_active"], False)
        me = Person.objects.get(username="owner")
        self.refused(self.owner("PATCH", f"people/{me.pk}", {"role": "viewer"}), 422, "invalid")


class SigningIn(ApiTestCase):
    """Sessions, form tokens, throttling, passwords, preferences."""

    def browser(self) -> tuple[Client, dict[str, str]]:
        """A client that must send the form token, and the headers that do."""
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        return client, {"X-CSRFToken": client.cookies["csrftoken"].value}

    def sign_in(self, client: Client, headers: dict[str, str], password: str = PASSWORD) -> int:
        """Status of an attempt as the owner."""
        body = json.dumps({"username": "owner", "password": password})
        return client.post("/api/session", body, content_type="application/json", headers=headers).status_code

    def test_in_and_out(self) -> None:
        """The form token is asked for at signing in and at every change."""
        client, headers = self.browser()
        self.assertEqual(self.sign_in(client, {}), 403)
        self.assertEqual(self.sign_in(client, headers, "wrong"), 401)
        self.assertEqual(self.sign_in(client, headers), 200)
        self.assertEqual(client.get("/api/session").json()["workshop"], "First")
        body = json.dumps({"title": "x"})
        self.assertEqual(client.post("/api/jobs", body, content_type="application/json").status_code, 403)
        fresh = {"X-CSRFToken": client.cookies["csrftoken"].value}
        self.assertEqual(
            client.post("/api/jobs", body, content_type="application/json", headers=fresh).status_code, 201
        )
        self.assertEqual(client.delete("/api/session", headers=fresh).status_code, 204)
        self.assertEqual(client.get("/api/session").status_code, 401)

    def test_guessing_is_throttled(self) -> None:
        """After six wrong passwords even the right one waits; another address does not."""
        client, headers = self.browser()
        statuses = [self.sign_in(client, headers, f"guess-{n}") for n in range(6)]
        self.assertEqual(statuses[:5], [401] * 5)
        self.assertEqual(self.sign_in(client, headers), 429)
        body = json.dumps({"username": "owner", "password": PASSWORD})
        locked = client.post("/api/session", body, content_type="application/json", headers=headers)
        self.assertEqual((locked.json()["code"], locked.json()["errors"]), ("locked", []))
        self.assertIn("15 minutes", locked.json()["message"])
        self.assertEqual(locked.headers["Retry-After"], "900")
        elsewhere = Client(REMOTE_ADDR="10.1.2.3")
        body = json.dumps({"username": "owner", "password": PASSWORD})
        self.assertEqual(elsewhere.post("/api/session", body, content_type="application/json").status_code, 200)

    def test_password_change(self) -> None:
        """The old one is asked for, a weak one refused; passwords are kept as argon2."""
        me = person("nils", "fabricator", self.workshop)
        self.assertTrue(me.password.startswith("argon2"))
        nils = Api(me)
        wrong = self.refused(nils("POST", "session/password", {"old": "no", "new": "x" * 12}), 422, "invalid")
        self.assertEqual(wrong["errors"][0]["field"], "old")
        weak = self.refused(nils("POST", "session/password", {"old": PASSWORD, "new": "short"}), 422, "invalid")
        self.assertEqual(weak["errors"][0]["field"], "new")
        self.assertEqual(nils("POST", "session/password", {"old": PASSWORD, "new": "seam-by-seam-9"})[0], 204)
        self.assertEqual(nils("GET", "session")[0], 200)
        me.refresh_from_db()
        self.assertTrue(me.check_password("seam-by-seam-9"))

    def test_preferences_are_remembered(self) -> None:
        """Units and theme, each on its own."""
        self.viewer("PATCH", "session/preferences", {"units": "in_imp"})
        self.assertEqual(self.viewer("PATCH", "session/preferences", {"units": "in_impgal"})[0], 200)
        self.viewer("PATCH", "session/preferences", {"theme": "dark"})
        kept = self.viewer("GET", "session")[1]
        self.assertEqual((kept["units"], kept["theme"]), ("in_impgal", "dark"))


class Settings(ApiTestCase):
    """The workshop's rules."""

    def test_settings_change_the_answers(self) -> None:
        """A measured K moves the flats; an old version is a conflict; nonsense names its field."""
        settings = self.owner("GET", "workshop")[1]["settings"]
        before = self.owner("POST", "evaluate", {"design": BOX})[1]["sheet"]["unfolded"]["parts"][0]["length_mm"]
        settings["k_factors"]["5052-H32"] = 0.45
        self.assertEqual(self.owner("PUT", "workshop", {"base_version": 1, "settings": settings})[1]["version"], 2)
        after = self.fabricator("POST", "evaluate", {"design": BOX})[1]["sheet"]["unfolded"]["parts"][0]["length_mm"]
        self.assertAlmostEqual(after - before, 4 * 1.5707963 * 0.05 * 3, places=5)
        self.refused(self.owner("PUT", "workshop", {"base_version": 1, "settings": settings}), 409, "conflict")
        settings["brake"]["width_mm"] = -4
        body = self.refused(self.owner("PUT", "workshop", {"base_version": 2, "settings": settings}), 422, "invalid")
        fault = body["errors"][0]
        self.assertEqual((fault["field"], fault["value"], fault["limit"]), ("brake.width_mm", -4, "above 0 mm"))

    def test_k_from_a_strip(self) -> None:
        """The worked strip; one that can't be is said to be so; half a strip is refused."""
        strip = {"flat_mm": 150, "leg_a_mm": 78.2, "leg_b_mm": 75.6, "thickness_mm": 2, "radius_mm": 3}
        answer = self.viewer("POST", "workshop/k-from-strip", strip)[1]
        self.assertAlmostEqual(answer["k"], 0.4735212943, places=6)
        self.assertTrue(answer["usable"])
        self.assertFalse(self.viewer("POST", "workshop/k-from-strip", strip | {"flat_mm": 160})[1]["usable"])
        for hair in ({"thickness_mm": 5e-324}, {"angle_deg": 5e-324}, {"angle_deg": 180}):
            self.refused(self.viewer("POST", "workshop/k-from-strip", strip | hair), 422, "invalid")
        body = self.refused(self.viewer("POST", "workshop/k-from-strip", {"flat_mm": 0}), 422, "invalid")
        self.assertIn("flat_mm", [fault["field"] for fault in body["errors"]])
