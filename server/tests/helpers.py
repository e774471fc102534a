"""Workshops with people in them, and a client that speaks JSON."""

import io
import json
from typing import Any

from django.test import Client, TestCase, TransactionTestCase
from pypdf import PdfReader

from keel.design.document import Design
from server.jobs.models import Job, TankDesign
from server.workshop.models import Person, Workshop

PASSWORD = "a-tall-order-of-rivets"
BOX = {"shell": {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0}}


def person(username: str, role: str, workshop: Workshop) -> Person:
    """Somebody who can sign in."""
    made = Person(workshop=workshop, username=username, name=username.title(), role=role)
    made.set_password(PASSWORD)
    made.save()
    return made


class Api:
    """Requests as one person."""

    def __init__(self, somebody: Person | None = None) -> None:
        self.client = Client(raise_request_exception=False)
        if somebody:
            self.client.force_login(somebody, backend="django.contrib.auth.backends.ModelBackend")

    def __call__(self, method: str, path: str, body: Any = None, raw: bytes | None = None) -> tuple[int, Any]:
        """Status and parsed body."""
        content = raw if raw is not None else b"" if body is None else json.dumps(body).encode()
        answer = self.client.generic(method, f"/api/{path}", content, content_type="application/json")
        if answer.streaming:
            return answer.status_code, b"".join(answer.streaming_content)
        is_json = answer.headers.get("Content-Type", "").startswith("application/json")
        return answer.status_code, answer.json() if is_json and answer.content else answer.content


class InWorkshop(TransactionTestCase):
    """Two workshops; the first has an owner, a fabricator, a viewer and a design."""

    def setUp(self) -> None:
        """People, a job, a design."""
        self.workshop = Workshop.objects.create(name="First")
        self.owner, self.fabricator, self.viewer = (
            Api(person(role, role, self.workshop)) for role in ("owner", "fabricator", "viewer")
        )
        other = Workshop.objects.create(name="Second")
        self.stranger = Api(person("stranger", "owner", other))
        self.nobody = Api()
        self.job = Job.opened(self.workshop, title="Launch tank")
        self.tank = TankDesign.started(self.job, "Main", Design.model_validate(BOX), None, "started")

    def __getstate__(self) -> dict[str, Any]:
        """What of a failed sub-test goes to the process that tells of it: those who ask can't be sent."""
        return {name: value for name, value in super().__getstate__().items() if not isinstance(value, Api)}

    def refused(self, answer: tuple[int, Any], status: int, code: str) -> Any:
        """Check an answer's status and the one error shape; give the body."""
        self.assertEqual(answer[0], status, answer[1])
        self.assertEqual(answer[1]["code"], code)
        self.assertTrue(answer[1]["message"])
        self.assertIsInstance(answer[1]["errors"], list)
        for fault in answer[1]["errors"]:
            self.assertLessEqual({"field", "value", "limit", "message"}, set(fault))
        return answer[1]


class ApiTestCase(InWorkshop, TestCase):
    """The same in a transaction that is undone."""


def paper_text(pdf: bytes) -> str:
    """All words of a paper."""
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages)
