"""Every operation that there is, asked by somebody who may not: no new one is left open by being forgotten."""

import json
import re
from collections.abc import Iterator
from dataclasses import asdict
from typing import Any, NamedTuple
from urllib.parse import quote

from django.utils import timezone

from keel.design.document import Design
from keel.trials.trial import Trial
from server.bench.models import Calibration
from server.config.api import api
from server.jobs.models import Customer, TankDesign
from server.mount.models import WaySearch
from server.slosh.models import Lap, Study, StudyRow
from server.tests.helpers import BOX, PASSWORD, ApiTestCase
from server.tests.test_bench import PORT, SENDER
from server.tests.test_floor import picture
from server.tests.test_imports import stl
from server.tests.test_slosh import CHOSEN, csv_of, lap
from server.workshop.models import MeasuredVehicle, Person

OPEN = {("get", "session"), ("post", "session")}
"""Asked before anybody is signed in."""
BY_TOKEN = {("post", "bench/readings"), ("post", "gauge/readings")}
"""Asked by an instrument, which is nobody of the workshop."""
QUESTIONS = {
    "evaluate", "slosh/run", "slosh/map", "slosh/time-to-dry", "workshop/k-from-strip", "sheet/as-bent",
    "workshop/brake-shape",
    "workshop/pumps.csv", "workshop/parts.csv", "workshop/senders.csv", "workshop/line_parts.csv",
}  # fmt: skip
"""Posted, because what is asked about doesn't fit an address; nothing is kept."""
OWN = {"session", "session/password", "session/preferences"}
"""What a person changes of their own."""
OWNERS = {"jobs/numbered/{number}/log.jsonl", "people", "people/{person_id}", "workshop"}


class Operation(NamedTuple):
    """One way of asking."""

    method: str
    path: str

    @property
    def writes(self) -> bool:
        """Whether it keeps something of the workshop's."""
        return self.method != "get" and self.path not in QUESTIONS | OWN and tuple(self) not in BY_TOKEN


def operations() -> Iterator[Operation]:
    """All of them, as the API describes itself."""
    for path, methods in api.get_openapi_schema(path_prefix="")["paths"].items():
        for method in methods:
            yield Operation(method, path.lstrip("/"))


class Walls(ApiTestCase):
    """Signed out, only looking, and from next door."""

    def setUp(self) -> None:
        """One of everything that a workshop keeps."""
        super().setUp()
        more = {"gauge": {"senders": [SENDER]}, "ports": [PORT]}
        tank = TankDesign.started(self.job, "Sent", Design.model_validate(BOX | more), None, "started")
        made = Person.objects.get(username="fabricator")
        common = {"workshop": self.workshop, "author": made}
        study = Study.objects.create(
            tank=tank, author=made, kind="insides", state="done", design=BOX, rules={}, total=1
        )
        StudyRow.objects.create(study=study, number=1, trial=asdict(Trial("one", {}, None)))
        search = WaySearch.objects.create(tank=tank, author=made, design=BOX, play_mm=3.0)
        vehicle = MeasuredVehicle.objects.create(workshop=self.workshop, document_json={"name": "Van"})
        calibration = Calibration.objects.create(tank=tank, revision=1, sender="s", **common)
        scan = self.fabricator("POST", "scans?unit=mm&name=bracket", raw=stl((0, 0, 0), (40, 30, 20)))[1]
        kept = self.fabricator("POST", f"laps?name=lap&columns={quote(json.dumps(CHOSEN))}", raw=csv_of(lap()))[1]
        self.fabricator("POST", f"photos?job={self.job.number}&id=p1", raw=picture())
        begun = {"kind": "proof begun", "id": "t1", "subject": "tank", "method": "pressure decay", "design": tank.pk}
        begun |= {"pressure_kpa": 1.0, "limiter": "relief valve", "limiter_kpa": 1.1, "gauge": {}}
        new = {"kind": "checked", "id": "n1", "subject": "vapour", "check": "never held fuel", "design": tank.pk}
        self.fabricator("POST", f"jobs/numbered/{self.job.number}/log", {"entries": [new, begun]})
        practice = self.fabricator("POST", "practice/leak-tests", {})[1]
        self.numbers: dict[str, Any] = {
            "photo_id": "p1", "proof": "t1", "practice_id": practice["id"],
            "search_id": search.pk, "vehicle_id": vehicle.pk,
            "job_id": self.job.pk, "design_id": tank.pk, "study_id": study.pk, "calibration_id": calibration.pk,
            "customer_id": Customer.objects.create(workshop=self.workshop, name="Ours").pk, "person_id": made.pk,
            "fingerprint": scan["fingerprint"], "lap_id": kept["id"], "number": 1, "name": "run.csv",
        }  # fmt: skip
        self.bodies: dict[Operation, Any] = {
            Operation("put", "jobs/{job_id}"): {"title": "x", "seen": {"title": self.job.title}},
            Operation("post", "jobs/{job_id}/designs"): {"name": "x"},
            Operation("put", "designs/{design_id}"): {"base_revision": 1, "design": BOX},
            Operation("patch", "designs/{design_id}"): {"name": "x"},
            Operation("post", "designs/{design_id}/restore"): {"base_revision": 1, "number": 1},
            Operation("post", "designs/{design_id}/surge"): {"name": "x"},
            Operation("post", "designs/{design_id}/studies"): {"design": BOX, "kind": "insides"},
            Operation("post", "designs/{design_id}/way-in"): {"design": BOX},
            Operation("put", "vehicles/{vehicle_id}"): {"base_version": 1, "vehicle": {"name": "x"}},
            Operation("post", "designs/{design_id}/calibrations"): {"sender": "s"},
            Operation("post", "calibrations/{calibration_id}/pour"): {"litres": 1.0},
            Operation("put", "customers/{customer_id}"): {"name": "x", "seen": {"name": "Ours"}},
            Operation("patch", "people/{person_id}"): {"role": "viewer"},
            Operation("post", "jobs/numbered/{number}/log"): {"entries": []},
            Operation("post", "practice/leak-tests/{practice_id}/answer"): {"leaks": True, "leak_sccm": 1.0},
            Operation("post", "designs/{design_id}/leak-tests/{proof}/simulate"): {},
        }

    def ask(self, who: Any, operation: Operation) -> tuple[int, Any]:
        """Ask for something of the first workshop's."""
        path = operation.path.format(**self.numbers)
        if "{name}" in operation.path and "files" in path:
            path = path.replace("run.csv", "design.json")
        if "numbered" in path:
            path = path.replace("numbered/1", f"numbered/{self.job.number}")
        return who(operation.method.upper(), path, self.bodies.get(operation))

    def test_signed_out(self) -> None:
        """Nothing but the door itself."""
        for operation in operations():
            with self.subTest(operation=operation):
                if tuple(operation) not in OPEN:
                    self.assertEqual(self.ask(self.nobody, operation)[0], 401)

    def test_one_who_looks(self) -> None:
        """A viewer writes nothing; only an owner sees people, or changes the workshop."""
        for operation in operations():
            with self.subTest(operation=operation):
                mine = operation.path in OWNERS and (operation.writes or "people" in operation.path)
                if operation.writes or mine:
                    self.refused(self.ask(self.viewer, operation), 403, "role")
                if mine:
                    self.refused(self.ask(self.fabricator, operation), 403, "role")

    def test_from_next_door(self) -> None:
        """Whatever has a number is not there; what is there for its own people answers them."""
        tried = 0
        for operation in operations():
            if not re.search(r"\{", operation.path):
                continue
            with self.subTest(operation=operation):
                self.refused(self.ask(self.stranger, operation), 404, "not_found")
                if operation.method == "get":
                    self.assertEqual(self.ask(self.owner, operation)[0], 200)
                tried += 1
        self.assertGreater(tried, 25)
        self.assertEqual((Study.objects.count(), Lap.objects.count(), Customer.objects.count()), (1, 1, 1))

    def test_an_instrument(self) -> None:
        """A token is good for its own calibration, until another is made or it is closed."""
        calibration = Calibration.objects.get()
        path = f"calibrations/{calibration.pk}"
        reading = {"litres": 2.0, "ohms": 200.0}

        def sent(token: str) -> int:
            answer = self.nobody.client.post(
                "/api/bench/readings",
                reading,
                content_type="application/json",
                headers={"Authorization": f"Bearer {token}"},
            )
            return answer.status_code

        first, second = (self.fabricator("POST", f"{path}/token")[1]["token"] for _ in range(2))
        self.assertEqual([sent(first), sent(second), sent(PASSWORD)], [401, 200, 401])
        self.assertEqual(calibration.readings.filter(simulated=False, at__lte=timezone.now()).count(), 1)
        self.fabricator("POST", f"{path}/close")
        self.assertEqual(sent(second), 401)
