"""The log of a job: written once, in order, only what may be written; photos; how far a tank is."""

import io
from datetime import UTC, datetime, timedelta
from threading import Thread
from typing import Any

from django.db import Error, connection, transaction
from django.utils import timezone
from PIL import Image

from keel.formats.log import read_log_lines
from keel.log.state import build_state
from server.floor.build import log_of, traveller_of
from server.floor.models import LogEntry, Photo
from server.floor.photos import path_of
from server.jobs.models import Job, TankDesign
from server.tests.helpers import Api, ApiTestCase, InWorkshop
from server.workshop.models import Person

PLAIN_EXIF = 0x010F
ORIENTATION = 0x0112


def picture(wide: int = 64, high: int = 32, **more: Any) -> bytes:
    """A JPEG."""
    out = io.BytesIO()
    Image.new("RGB", (wide, high), "orange").save(out, "JPEG", **more)
    return out.getvalue()


class Floor(ApiTestCase):
    """A job with one design."""

    def setUp(self) -> None:
        """Numbers of entries, none so far."""
        super().setUp()
        self.names = iter(range(1000))
        self.at = f"jobs/numbered/{self.job.number}/log"

    def entry(self, kind: str, **values: Any) -> dict[str, Any]:
        """An entry about the design."""
        return {"id": f"c{next(self.names)}", "kind": kind, "design": self.tank.pk} | values

    def write(self, *entries: dict[str, Any], **more: Any) -> list[dict[str, Any]]:
        """Write entries; give what became of each."""
        status, answer = self.fabricator("POST", self.at, {"entries": entries, **more})
        self.assertEqual(status, 200, answer)
        rows: list[dict[str, Any]] = answer
        return rows

    def done(self, *operations: str) -> None:
        """Do operations that nothing forbids."""
        for row in self.write(*(self.entry("done", subject=name) for name in operations)):
            self.assertIsNone(row["refused"])

    def build(self) -> dict[str, Any]:
        """How far the tank is."""
        status, answer = self.viewer("GET", f"designs/{self.tank.pk}/build")
        self.assertEqual(status, 200, answer)
        found: dict[str, Any] = answer
        return found

    def standing(self) -> dict[str, str]:
        """How far each operation is."""
        return {one["operation"]["id"]: one["standing"] for one in self.build()["state"]["operations"]}


class Writing(Floor):
    """Entries, one by one."""

    def test_sent_twice(self) -> None:
        """It counts once, and has its number again."""
        begun = self.entry("started", subject="prepare:sheet")
        self.assertEqual([row["n"] for row in self.write(begun, begun, self.entry("note"))], [1, 1, 2])
        self.assertEqual([row["n"] for row in self.write(begun)], [1])
        self.assertEqual(LogEntry.objects.count(), 2)

    def test_nothing_is_changed(self) -> None:
        """The database refuses, whoever asks."""
        self.write(self.entry("note", note="as it was"))
        entry = LogEntry.objects.get()
        for spoil in (entry.save, entry.delete, lambda: LogEntry.objects.update(author_name="")):
            with self.assertRaisesMessage(Error, "only grows"), transaction.atomic():
                spoil()

    def test_only_who_builds(self) -> None:
        """A viewer ticks no gate; nobody from next door reads the log."""
        tick = {"entries": [self.entry("checked", subject="inside:front-pan", check="inside:front-pan")]}
        self.refused(self.viewer("POST", self.at, tick), 403, "role")
        self.assertEqual(LogEntry.objects.count(), 0)
        self.refused(self.stranger("GET", self.at), 404, "not_found")

    def test_a_clock_that_is_a_day_off(self) -> None:
        """The server's time leads; what waited half an hour was written half an hour ago; both are kept."""
        wrong = timezone.now() - timedelta(days=1)
        self.write(
            self.entry("note", at=(wrong - timedelta(minutes=30)).isoformat()), sent=wrong.isoformat()
        )  # fmt: skip
        entry = LogEntry.objects.get()
        self.assertAlmostEqual((entry.received - entry.happened).total_seconds(), 1800, delta=1)
        self.assertLess(datetime.fromisoformat(entry.document["at"]), timezone.now() - timedelta(hours=24))

    def test_behind_a_gate(self) -> None:
        """A shut gate refuses and says what is missing; overridden with a reason it lets through, and is told."""
        chain = ["prepare:sheet", "cut:no-means-typed", "deburr:edges", "bend:wrapper", "bend:end-pan", "tack:body"]
        self.done(*chain, "weld:closing-seam", "weld:rear-pan", "clean:front-pan", "look:front-pan")
        close = self.entry("done", subject="close:front-pan")
        said = self.write(close)[0]["refused"]
        self.assertIn("is shut: no round yet; not looked at yet", said)
        override = self.entry("override", subject="inside:front-pan", name="Marla Quent", reason="mirror is broken")
        self.assertEqual([row["refused"] for row in self.write(override, close)], [None, None])
        gate = next(one for one in self.build()["state"]["gates"] if one["gate"]["id"] == "inside:front-pan")
        self.assertEqual((gate["standing"], gate["override"]["reason"]), ("overridden", "mirror is broken"))

    def test_before_what_it_needs(self) -> None:
        """It names the operation that comes first."""
        self.assertIn("First: Deburr all edges", self.write(self.entry("done", subject="bend:wrapper"))[0]["refused"])

    def test_for_another_trade(self) -> None:
        """Welding is for welders, where the workshop says so."""
        self.workshop.rules = {"rates": {"by": {"prepare": "finisher"}}}
        self.workshop.save()
        said = self.write(self.entry("done", subject="prepare:sheet"))[0]["refused"]
        self.assertIn("is for a finisher", said)
        somebody = Person.objects.get(username="fabricator")
        status, _ = self.owner("PATCH", f"people/{somebody.pk}", {"trades": ["finisher"]})
        self.assertEqual(status, 200)
        self.done("prepare:sheet")

    def test_not_in_this_job(self) -> None:
        """A design of another job, a correction of nothing, a photo that hasn't come: refused, the rest is written."""
        rows = self.write(
            self.entry("note", design=self.tank.pk + 999),
            {"id": "x1", "kind": "correction", "of": "nobody"},
            self.entry("note", photos=["p9"]),
            self.entry("note"),
        )
        self.assertEqual([row["n"] for row in rows], [None, None, None, 1])
        for kind in ("done", "skipped", "override", "checked"):
            more = {"reason": "r", "name": "n"} if kind == "override" else {"reason": "r"} if kind == "skipped" else {}
            more |= {"check": "c"} if kind == "checked" else {}
            row = self.write(self.entry(kind, subject="close:front-pan", design=None, **more))[0]
            self.assertIn("which design", row["refused"])
        body = self.refused(self.fabricator("POST", self.at, {"entries": [self.entry("done")]}), 422, "invalid")
        self.assertIn("subject", body["errors"][0]["field"])
        below = [self.entry("reading", subject="vapour", value=-0.05)]
        body = self.refused(self.fabricator("POST", self.at, {"entries": below}), 422, "invalid")
        self.assertIn("value", body["errors"][0]["field"])


class Reading(Floor):
    """States and files."""

    def test_only_what_is_new(self) -> None:
        """Who has seen all of it gets nothing again until somebody ticks something or the design changes."""
        at = f"/api/designs/{self.tank.pk}/build"
        tag = self.viewer.client.get(at).headers["ETag"]
        self.assertEqual(self.viewer.client.get(at, headers={"If-None-Match": tag}).status_code, 304)
        self.done("prepare:sheet")
        self.assertEqual(self.viewer.client.get(at, headers={"If-None-Match": tag}).status_code, 200)
        second = self.build()
        self.assertEqual(second["state"]["next"], "cut:no-means-typed")
        self.assertEqual(second["rows"][0]["author"], "Fabricator")

    def test_design_changes_later(self) -> None:
        """What was done on parts that look otherwise now says so, until it is accepted with a reason."""
        self.done("prepare:sheet", "cut:no-means-typed")
        document = self.tank.current().document
        document["shell"]["length_mm"] = 820.0
        status, _ = self.fabricator(
            "PUT", f"designs/{self.tank.pk}", {"design": document, "base_revision": 1}
        )  # fmt: skip
        self.assertIn(status, (200, 201))
        cut = self.build()["state"]["operations"][1]
        self.assertEqual((cut["standing"], cut["changed"]), ("done", ["Wrapper"]))
        self.write(self.entry("accepted", subject=cut["operation"]["id"], reason="was cut long"))
        self.assertEqual(self.build()["state"]["operations"][1]["changed"], [])

    def test_a_part_that_is_gone(self) -> None:
        """An entry on it is kept and told."""
        self.write(self.entry("done", subject="bend:old-lid"))
        self.assertEqual(self.build()["state"]["gone"], ["bend:old-lid"])

    def test_files(self) -> None:
        """JSON lines read back to the same state; the table has a row an entry."""
        self.done("prepare:sheet")
        self.write(self.entry("count", subject="plugs", way="in", value=4, note='four, "red"'))
        lines = self.viewer("GET", f"{self.at}.jsonl")[1]
        now, traveller = datetime.now(UTC), traveller_of(self.tank)
        back = build_state(traveller, read_log_lines(lines), now, self.tank.pk)
        self.assertEqual(back, build_state(traveller, log_of(self.job), now, self.tank.pk))
        table = self.viewer("GET", f"{self.at}.csv")[1].decode().splitlines()
        self.assertEqual(len(table), 3)
        self.assertIn('""value"": 4', table[2])


class BroughtIn(Floor):
    """A log from a file."""

    def test_the_same_state(self) -> None:
        """Exported and brought into another job of the same design, it says the same; who brought it is told."""
        self.done("prepare:sheet", "cut:no-means-typed")
        self.write(self.entry("note", note="burr"), {"id": "x", "kind": "correction", "of": "c1"})
        lines = self.owner("GET", f"{self.at}.jsonl")[1]
        other = Job.opened(self.workshop, title="The same again")
        tank = TankDesign.started(other, "Main", self.tank.current().design(), None, "")
        at = f"jobs/numbered/{other.number}/log.jsonl"
        self.refused(self.fabricator("POST", at, raw=lines), 403, "role")
        self.assertEqual(self.owner("POST", at, raw=lines), (200, {"entries": 4}))
        state = self.owner("GET", f"designs/{tank.pk}/build")[1]["state"]
        self.assertEqual([one["standing"] for one in state["operations"][:3]], ["done", "open", "open"])
        self.assertEqual(state["operations"][0]["by"], ["Fabricator, brought in by Owner"])
        self.refused(self.owner("POST", at, raw=lines), 422, "invalid")
        fault = self.refused(self.owner("POST", f"{self.at}.jsonl", raw=b"no"), 422, "invalid")["errors"][0]
        self.assertEqual(fault["field"], "line 1")

    def test_revisions(self) -> None:
        """Each entry knows of which revision it is, whatever the device says."""
        self.write(self.entry("learnt", what="too tight", revision=77))
        self.assertEqual(self.build()["state"]["learnt"][0]["learnt"]["revision"], 1)


class AtOnce(InWorkshop):
    """Two people write at the same moment."""

    def test_numbers(self) -> None:
        """Each entry has its own, none is left out, each person's stand in their order."""
        at = f"jobs/numbered/{self.job.number}/log"

        def write(who: str) -> None:
            api = Api(Person.objects.get(username=who))
            for n in range(6):
                entry = {"id": f"{who}{n}", "kind": "note", "design": self.tank.pk}
                self.assertEqual(api("POST", at, {"entries": [entry]})[0], 200)
            connection.close()

        threads = [Thread(target=write, args=[who]) for who in ("owner", "fabricator")]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        rows = list(LogEntry.objects.order_by("n").values_list("n", "client_id"))
        self.assertEqual([n for n, _ in rows], list(range(1, 13)))
        for who in ("owner", "fabricator"):
            self.assertEqual([name for _, name in rows if name.startswith(who)], [f"{who}{n}" for n in range(6)])
        self.assertEqual([one.entry.id for one in log_of(self.job)], [name for _, name in rows])


class Photos(Floor):
    """Pictures from a phone."""

    def send(self, name: str, content: bytes) -> tuple[int, Any]:
        """Send one as it is."""
        return self.fabricator("POST", f"photos?job={self.job.number}&id={name}", raw=content)

    def test_made_anew(self) -> None:
        """Upright, without what the camera wrote, a small one beside it; sent twice it is one."""
        exif = Image.Exif()
        exif[PLAIN_EXIF], exif[ORIENTATION] = "Somebody's phone", 6
        sent = picture(600, 300, exif=exif)
        self.assertIn(b"Somebody's phone", sent)
        status, answer = self.send("p1", sent)
        self.assertEqual((status, answer["wide_px"], answer["high_px"]), (200, 300, 600))
        self.assertEqual(self.send("p1", picture())[1]["high_px"], 600)
        kept = Photo.objects.get()
        for small in (False, True):
            self.assertNotIn(b"Somebody", path_of(kept.workshop_id, kept.fingerprint, small=small).read_bytes())
        self.assertEqual(self.write(self.entry("note", photos=["p1"]))[0]["refused"], None)

    def test_only_for_the_workshop(self) -> None:
        """Nobody from next door sees it."""
        self.send("p1", picture())
        at = f"jobs/numbered/{self.job.number}/photos/p1"
        self.refused(self.stranger("GET", at), 404, "not_found")
        self.assertTrue(self.viewer("GET", f"{at}?small=1")[1].startswith(b"\xff\xd8"))

    def test_what_is_none(self) -> None:
        """Text, half a picture, a film of 200 MB: refused with the reason; nothing is kept."""
        for content in (b"not a picture", picture()[:200], b""):
            self.assertIn("no picture", self.refused(self.send("p1", content), 422, "invalid")["message"])
        film = self.refused(self.send("p2", bytes(21_000_000)), 413, "too_large")
        self.assertIn("21 MB; 20 MB or less", film["message"])
        self.assertEqual(Photo.objects.count(), 0)
