"""Studies on the task queue: asked for, worked off, watched, stopped, taken up again."""

import os
import subprocess
import sys
import time
from datetime import timedelta
from typing import Any
from unittest import mock

from django.db import connection
from django.utils import timezone
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob

from keel.design.document import Design
from keel.studies.slosh import starvation
from server.jobs.models import TankDesign
from server.slosh.models import Study
from server.slosh.tasks import PART, mend, run_part, take_up
from server.tests.helpers import BOX, InWorkshop
from server.tests.test_slosh import PICKUP, TURN

DESIGN = BOX | {"ports": [PICKUP], "slosh": TURN | {"lag": False}}
ASK = {"down_to_l": 8.0, "places": {"along": 3, "across": 4}}


def work() -> None:
    """Work off what is on the queue, as a worker process does."""
    with app.replace_connector(app.connector.get_worker_connector()) as working:
        working.run_worker(wait=False, install_signal_handlers=False, listen_notify=False, concurrency=1)


def jobs_of(study: dict[str, Any], **more: Any) -> Any:
    """A study's jobs on the queue."""
    return ProcrastinateJob.objects.filter(task_name="slosh.run_part", args__study_id=study["id"], **more)


class Studies(InWorkshop):
    """A design tried again and again."""

    def setUp(self) -> None:
        """A saved design with a pickup."""
        super().setUp()
        self.tank = TankDesign.started(self.job, "Main", Design.model_validate(DESIGN), None, "started")

    def ask(
        self, kind: str = "search", ask: dict[str, Any] | None = ASK, against: list[Any] | None = None, **more: Any
    ) -> tuple[int, Any]:
        """Ask for a study of the design on the screen."""
        body = {"design": DESIGN | more, "kind": kind, "ask": ask, "against": against or []}
        return self.fabricator("POST", f"designs/{self.tank.pk}/studies", body)

    def watch(self, made: dict[str, Any]) -> dict[str, Any]:
        """As far as it is."""
        status, found = self.viewer("GET", f"studies/{made['id']}")
        self.assertEqual(status, 200, found)
        return dict(found)

    def test_worked_off_and_watched(self) -> None:
        """Parts on the queue; rows arrive once each; the favoured one's patch moves the pickup there."""
        status, made = self.ask()
        self.assertEqual((status, made["state"], made["total"], made["done"]), (201, "running", 12, 0))
        self.assertEqual(jobs_of(made, status="todo").count(), 12 // PART)
        work()
        found = self.watch(made)
        self.assertEqual((found["state"], found["done"], len(found["rows"])), ("done", 12, 12))
        best = found["rows"][found["favoured"]]
        self.assertEqual(best["dry_s"], min(row["dry_s"] for row in found["rows"] if not row["problem"]))
        _, patch = self.viewer("GET", f"studies/{made['id']}/{found['favoured']}")
        self.assertEqual(patch["patch"]["ports"][0]["x_mm"], best["choice"]["x_mm"])
        _, kept = self.viewer("GET", f"designs/{self.tank.pk}/studies")
        self.assertEqual([(study["id"], study["rows"]) for study in kept], [(made["id"], [])])
        self.assertEqual(self.stranger("GET", f"studies/{made['id']}")[0], 404)

    def test_other_insides(self) -> None:
        """The tank as drawn comes first and changes nothing; plates are priced; one is favoured."""
        _, made = self.ask("insides", None)
        work()
        rows = self.watch(made)["rows"]
        self.assertEqual((rows[0]["name"], rows[0]["changes"], len(rows)), ("as drawn", False, made["total"]))
        plated = next(row for row in rows if row["name"].startswith("one baffle lengthwise"))
        self.assertIsNone(plated["problem"])
        self.assertGreater(plated["weld_m"], rows[0]["weld_m"])

    def test_compared_with_other_tanks(self) -> None:
        """An earlier revision and another design of the job, driven and filled alike; one that isn't there is a 404."""
        plate = {"kind": "baffle", "id": "b", "name": "plate", "axis": "y", "at_mm": 200.0}
        shell: dict[str, Any] = DESIGN["shell"]
        plated = DESIGN | {"shell": shell | {"features": [plate]}}
        self.tank.save_revision(Design.model_validate(plated), None, based_on=1)
        longer = DESIGN | {"shell": shell | {"length_mm": shell["length_mm"] + 100.0}}
        other = TankDesign.started(self.job, "Longer", Design.model_validate(longer), None, "")
        _, found = self.viewer("GET", f"designs/{self.tank.pk}/studies/against")
        self.assertEqual([one["name"] for one in found], ["revision 1", "Main, revision 1", "Longer, revision 1"])
        against = [{key: one[key] for key in ("design_id", "revision")} for one in found]
        _, made = self.ask("insides", None, against=against, shell=plated["shell"])
        work()
        rows = {row["name"]: row for row in self.watch(made)["rows"]}
        self.assertEqual(rows["revision 1"]["dry_s"], rows["without baffles"]["dry_s"])
        self.assertGreater(rows["Longer, revision 1"]["brimful_l"], rows["as drawn"]["brimful_l"])
        number = rows["revision 1"]["number"]
        _, patch = self.viewer("GET", f"studies/{made['id']}/{number}")
        self.assertEqual(patch["patch"], {"shell": {"features": []}})
        elsewhere = [{"design_id": other.pk + 999}]
        self.assertEqual(self.ask("insides", None, against=elsewhere)[0], 404)

    def test_money(self) -> None:
        """Metal by the kilogram, weld by the metre, foam by the litre; nothing where a price isn't typed."""
        prices = {"currency": "cr", "metal_per_kg": {"5052-H32": 10.0}, "weld_per_m": 50.0}
        self.workshop.rules = {"prices": prices}
        self.workshop.save()
        _, made = self.ask("insides", None)
        work()
        found = self.watch(made)
        rows = {row["name"]: row for row in found["rows"]}
        drawn = rows["as drawn"]
        self.assertEqual(found["currency"], "cr")
        self.assertAlmostEqual(drawn["money"], 10 * drawn["empty_kg"] + 50 * drawn["weld_m"])
        self.assertIsNone(next(row for name, row in rows.items() if "foam" in name)["money"])

    def test_the_lowest_fill(self) -> None:
        """A task: looked for by a worker, stopped between two of its runs."""
        _, made = self.ask("lowest", ask=None)
        self.assertEqual((made["total"], made["state"]), (1, "running"))
        work()
        (row,) = self.watch(made)["rows"]
        self.assertGreater(row["lowest_l"], 0.1 * row["brimful_l"])
        _, stopped = self.ask("lowest", ask=None)
        study = Study.objects.get(pk=stopped["id"])
        runs = []

        def stop(*_args: object, **_more: object) -> Any:
            runs.append(0)
            Study.objects.filter(pk=study.pk).update(state=Study.State.CANCELLED)
            return patched(*_args, **_more)

        patched = starvation.slosh_run
        with mock.patch.object(starvation, "slosh_run", stop):
            run_part(study_id=study.pk, first=0)
        self.assertEqual((len(runs), study.rows.count()), (1, 0))

    def test_stopped(self) -> None:
        """What is stopped is tried no further, keeps what it has, and frees its place."""
        _, made = self.ask()
        run_part(study_id=made["id"], first=0)
        status, found = self.fabricator("POST", f"studies/{made['id']}/stop")
        self.assertEqual((status, found["state"], found["done"]), (200, "cancelled", PART))
        work()
        self.assertEqual((self.watch(made)["state"], self.watch(made)["done"]), ("cancelled", PART))
        self.assertEqual(self.viewer("POST", f"studies/{made['id']}/stop")[0], 403)

    def test_a_worker_dies(self) -> None:
        """Its part goes back on the queue once nothing was heard of it; what it had done isn't done twice."""
        _, made = self.ask()
        run_part(study_id=made["id"], first=0)
        kept = Study.objects.get(pk=made["id"]).rows.get(number=0)
        settings = os.environ | {"KEEL_DB_NAME": connection.settings_dict["NAME"]}
        command = [sys.executable, "manage.py", "procrastinate", "worker", "--concurrency", "1"]
        doing = jobs_of(made, status="doing", args__first=PART)
        with subprocess.Popen(command, env=settings, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL) as worker:
            end = time.monotonic() + 180
            while not doing.exists() and time.monotonic() < end:
                time.sleep(0.02)
            worker.kill()
        job = doing.get()
        work()
        self.assertEqual(self.watch(made)["state"], "running")
        self.assertEqual(doing.get().pk, job.pk)
        with connection.cursor() as cursor:
            cursor.execute("UPDATE procrastinate_workers SET last_heartbeat = now() - interval '5 minutes'")
        take_up.defer(timestamp=0)
        work()
        work()
        self.assertEqual((self.watch(made)["state"], self.watch(made)["done"]), ("done", 12))
        self.assertEqual(Study.objects.get(pk=made["id"]).rows.get(number=0).pk, kept.pk)

    def test_a_part_that_is_lost(self) -> None:
        """A study that runs and has no job left, its parts failed for good or lost, is put on the queue again."""
        _, made = self.ask()
        run_part(study_id=made["id"], first=0)
        jobs_of(made).update(status="failed")
        self.assertEqual(mend(), 0)  # as young as it is, it may still be on its way there
        Study.objects.filter(pk=made["id"]).update(asked=timezone.now() - timedelta(minutes=5))
        self.assertEqual(mend(), 1)
        self.assertEqual(mend(), 0)
        self.assertEqual(jobs_of(made, status="todo").count(), 12 // PART - 1)
        self.assertEqual(self.client.get("/healthz").json()["queue"]["waiting"], 12 // PART - 1)
        work()
        self.assertEqual((self.watch(made)["state"], self.watch(made)["done"]), ("done", 12))

    def test_what_cannot_be_asked(self) -> None:
        """Too many runs, nothing to vary, no draw, no pickup, one study too many: each says why."""
        many = {"down_to_l": 8.0, "places": {"along": 24, "across": 24}, "plates_across": {"low": 0, "high": 3}}
        for ask, field in ((many, "ask"), (None, "ask"), ({"down_to_l": -1.0}, "ask.down_to_l")):
            body = self.refused(self.ask(ask=ask), 422, "invalid")
            self.assertEqual(body["errors"][0]["field"], field)
        self.refused(self.ask(ports=[]), 422, "no_pickup")
        self.refused(self.ask(slosh=TURN | {"draw_l_per_h": 0.0}), 422, "invalid")
        for _ in range(4):
            self.assertEqual(self.ask()[0], 201)
        self.refused(self.ask(), 422, "invalid")
        self.assertEqual(self.viewer("POST", f"designs/{self.tank.pk}/studies", {})[0], 403)
