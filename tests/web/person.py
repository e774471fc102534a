"""The whole application without a browser: its page in Node, its server in Django's test client."""

import base64
from collections.abc import Callable
from typing import Any

from django.test import Client, TestCase

from keel.design.document import Design
from server.jobs.models import Job, TankDesign
from server.tests.helpers import person
from server.workshop.models import Person, Workshop
from tests.waiting import waited
from tests.web.node import node

PATIENCE_S = 20.0


class AtThePage(TestCase):
    """A workshop with an owner and a design, and what the owner does there. Nothing is laid out: no drags."""

    document: dict[str, Any] = {}
    drawn = True
    """Whether the drawing is there: it takes most of the time, and most tests are about what stands beside it."""

    def setUp(self) -> None:
        """A person who is signed in, a job, a design."""
        self.workshop = Workshop.objects.create(name="First Bench")
        self.maker = person("maker", "owner", self.workshop)
        self.job = Job.opened(self.workshop, title="Launch tank")
        design = Design.model_validate(self.document)
        self.tank = TankDesign.started(self.job, "Main", design, self.maker, "")
        self.away = False
        self.asked: list[str] = []
        self.sign_in(self.maker)

    def tearDown(self) -> None:
        """Nothing may have thrown on any page."""
        self.assertEqual(self.do("leave"), [])

    def sign_in(self, somebody: Person) -> None:
        """Be somebody from the next page on."""
        self.client = Client(raise_request_exception=False)
        self.client.force_login(somebody, backend="django.contrib.auth.backends.ModelBackend")

    def serve(self, request: dict[str, Any]) -> dict[str, Any]:
        """Answer a request of the page."""
        if self.away:
            return {"away": True}
        self.asked.append(f"{request['method']} {request['path']}")
        body = base64.b64decode(request["body"])
        kind = "application/octet-stream" if not body.startswith((b"{", b"[")) else "application/json"
        answer = self.client.generic(request["method"], request["path"], body, content_type=kind)
        return {
            "status": answer.status_code,
            "body": base64.b64encode(answer.content).decode(),
            "headers": {"Content-Type": answer.headers.get("Content-Type", "application/json")},
        }

    def do(self, what: str, *arguments: Any) -> Any:
        """One thing that a person does or sees."""
        return node("page").call("page.ts", [(what, *arguments)], self.serve)[0]

    def until(self, what: Callable[[], Any], why: str = "", patience_s: float = PATIENCE_S) -> Any:
        """Wait for something to be true, and give it."""
        return waited(what, why, patience_s, lambda: self.do("rest", 20))

    def open(self, path: str) -> None:
        """Open an address."""
        self.do("open", path, self.drawn)

    def open_station(self, name: str) -> None:
        """The design at a station, with its figures."""
        self.open(f"/designs/{self.tank.pk}/{name}")
        self.until(lambda: self.do("count", f"[data-station={name}][aria-current=step]"), f"station {name}")
        self.until(lambda: self.do("count", "[data-tally]") and self.do("fields", "aside"), "figures")

    def press(self, text: str, within: str = "body", nth: int = 0) -> None:
        """Press a button or link by its words."""
        self.until(lambda: self.do("pressed", text, within, nth) or True, f"press {text}")

    def type_into(self, label: str, text: str, within: str = "body", nth: int = 0) -> None:
        """Type over a field and leave it."""
        self.until(lambda: self.do("typed", label, text, within, nth) or True, f"type into {label}")

    def choose(self, label: str, option: str, within: str = "body", nth: int = 0) -> None:
        """Pick from a list."""
        self.until(lambda: self.do("chosen", label, option, within, nth) or True, f"choose {option}")

    def tick(self, label: str, within: str = "body", nth: int = 0) -> None:
        """Turn a box on or off."""
        self.until(lambda: self.do("ticked", label, within, nth) or True, f"tick {label}")

    def value(self, label: str, within: str = "body", nth: int = 0) -> str:
        """What stands in a field."""
        return str(self.do("value", label, within, nth))

    def said(self, label: str, within: str = "body", nth: int = 0) -> str:
        """What is said under a field."""
        return str(self.do("said", label, within, nth))

    def text(self, within: str = "body") -> str:
        """Words of a part of the page."""
        return str(self.do("text", within))

    def shows(self, words: str, within: str = "body") -> None:
        """Wait until words are there."""
        self.until(lambda: words in self.text(within), words)

    def tally(self, name: str = "brimful_l") -> float:
        """A figure of the tally."""
        return float(self.text(f"[data-tally={name}] > :nth-child(2)").split()[0].replace("−", "-"))

    def until_tally(self, litres: float, name: str = "brimful_l", within: float = 0.011) -> None:
        """Wait for a figure."""
        self.until(lambda: abs(self.tally(name) - litres) < within, f"{name} of {litres}")

    def saved(self) -> dict[str, Any]:
        """The design as it is kept, once it is."""
        self.until(lambda: self.do("count", "[data-save=saved]"), "saved")
        self.tank.refresh_from_db()
        document: dict[str, Any] = self.tank.current().document
        return document
