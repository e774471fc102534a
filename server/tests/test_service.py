"""Health, demo data, and the API's own description against whatever is thrown at it."""

from pathlib import Path
from typing import Any
from unittest.mock import patch

import schemathesis
from django.core.management import call_command
from django.db import OperationalError
from django.test import Client, TestCase, override_settings
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

from server.config.api import api
from server.demo import saltmarsh
from server.jobs.models import Job, TankDesign
from server.tests.helpers import ApiTestCase
from server.workshop.models import Person, Workshop


class Health(TestCase):
    """`/healthz`."""

    def test_up_and_down(self) -> None:
        """200 with database and migrations; 503 when the database is gone or behind."""
        answer = self.client.get("/healthz")
        self.assertEqual((answer.status_code, answer.json()["migrations"]), (200, "applied"))
        with patch("server.config.health.MigrationExecutor", side_effect=OperationalError):
            answer = self.client.get("/healthz")
        self.assertEqual((answer.status_code, answer.json()["database"]), (503, "unreachable"))
        with patch("server.config.health.MigrationExecutor.migration_plan", return_value=[1, 2]):
            answer = self.client.get("/healthz")
        self.assertEqual((answer.status_code, answer.json()["migrations"]), (503, "2 waiting"))


class Addresses(TestCase):
    """What lies where."""

    def test_every_screen_opens_the_interface(self) -> None:
        """Deep addresses too; what the API or the assets don't have is 404, the API's in its one shape."""
        for path in ("/", "/designs/7/shell", "/workshop"):
            answer = self.client.get(path)
            self.assertEqual(answer.status_code, 200, path)
            self.assertIn(b"<title>Core Keel</title>", answer.getvalue())
        answer = self.client.get("/api/nothing/here")
        self.assertEqual((answer.status_code, answer.json()["code"]), (404, "not_found"))
        self.assertEqual(self.client.get("/assets/none.js").status_code, 404)

    def test_without_a_build_it_says_what_to_do(self) -> None:
        """Not a blank page."""
        with override_settings(WEB_BUILD=Path("/nowhere")):
            answer = self.client.get("/designs/7/shell")
        self.assertEqual(answer.status_code, 404)
        self.assertIn(b"bin/demo", answer.content)

    def test_a_fault_of_ours_has_the_shape_too(self) -> None:
        """Something nobody foresaw is a 500 with words, not a trace."""
        client = Client(raise_request_exception=False)
        fault = patch("server.config.health.MigrationExecutor", side_effect=ZeroDivisionError)
        with fault, self.assertLogs("django.request", "ERROR"):
            answer = client.get("/healthz")
        self.assertEqual((answer.status_code, answer.json()["code"]), (500, "fault"))


class Demo(TestCase):
    """`manage.py load_demo`."""

    def test_twice_is_once_and_changes_stay(self) -> None:
        """Nothing doubles; what a person changed is left alone; the people can sign in."""
        call_command("load_demo", verbosity=0)
        Job.objects.filter(title=saltmarsh.JOBS[0]["title"]).update(title="Renamed")
        Job.objects.filter(title=saltmarsh.JOBS[1]["title"]).delete()
        counts = [model.objects.count() for model in (Workshop, Person, Job, TankDesign)]
        call_command("load_demo", verbosity=0)
        self.assertEqual([model.objects.count() for model in (Workshop, Person, Job, TankDesign)], counts)
        self.assertTrue(Job.objects.filter(title="Renamed").exists())
        self.assertGreaterEqual(len(saltmarsh.JOBS), 3)
        self.assertTrue(Person.objects.get(username="marla").check_password(saltmarsh.PASSWORD))
        for tank in TankDesign.objects.all():
            self.assertIsNotNone(tank.current().design().shell)


class Fuzz(ApiTestCase):
    """Whatever fits the API's description, or nearly, is answered without a fault of ours."""

    def throw_at(self, operation: Any) -> None:
        """A dozen generated requests at one operation."""

        @settings(max_examples=12, deadline=None, phases=[Phase.generate], suppress_health_check=list(HealthCheck))
        @given(st.data())
        def throw(data: st.DataObject) -> None:
            case = data.draw(operation.as_strategy())
            path = case.formatted_path.removeprefix("/api/")
            body = case.body if isinstance(case.body, dict | list) else None
            status, answer = self.owner(operation.method.upper(), path, body)
            self.assertLess(status, 500, answer)
            if status >= 400:
                self.assertLessEqual({"code", "message", "errors"}, set(answer))

        throw()

    def test_no_request_breaks_it(self) -> None:
        """No 500, and every refusal has the one shape."""
        schema = schemathesis.openapi.from_dict(api.get_openapi_schema(path_prefix="/api/"))
        for operation in [result.ok() for result in schema.get_all_operations()]:
            if operation.path == "/api/session" and operation.method in ("delete", "post"):
                continue
            with self.subTest(operation=operation.label):
                self.throw_at(operation)
