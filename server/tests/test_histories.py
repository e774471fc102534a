"""Any order of saves, restores, renames and stale tries, against a plain list of what should be kept."""

from dataclasses import dataclass, field
from random import Random
from typing import Any

from keel.design.document import Design
from server.tests.helpers import BOX, Api, ApiTestCase

STEPS = 80
Fields = dict[str, Any]


@dataclass
class KeptDesign:
    """A design as it should be: its name, and the length of each revision, who saved it, why."""

    name: str
    revisions: list[tuple[float | None, str, str]] = field(default_factory=list)


@dataclass
class KeptJob:
    """A job as it should be."""

    fields: Fields
    designs: dict[int, KeptDesign] = field(default_factory=dict)


class Histories(ApiTestCase):
    """A walk of requests by several people, most of them sensible."""

    def setUp(self) -> None:
        """Who may write, and what is there at first."""
        super().setUp()
        self.writers = {"Owner": self.owner, "Fabricator": self.fabricator}
        first = KeptDesign("Main", [(800.0, "", "started")])
        fields = {"title": "Launch tank", "customer_id": None, "state": "enquiry", "note": ""}
        self.jobs = {self.job.pk: KeptJob(fields, {self.tank.pk: first})}

    def test_any_order(self) -> None:
        """After every request all that was kept is there, and nothing else."""
        for seed in range(2):
            chance = Random(seed)
            for step in range(STEPS):
                act = chance.choice((self.save, self.save, self.save, self.restore, self.rename, self.change, self.add))
                with self.subTest(seed=seed, step=step, act=act.__name__):
                    act(chance)
                    if step % 20 == 19:
                        self.look_at_everything()

    def writer(self, chance: Random) -> tuple[str, Api]:
        """Somebody who may write."""
        return chance.choice(list(self.writers.items()))

    def some(self, chance: Random) -> tuple[int, KeptDesign]:
        """One of the designs."""
        return chance.choice([item for job in self.jobs.values() for item in job.designs.items()])

    def may_not(self, chance: Random, method: str, path: str, body: Any) -> bool:
        """Now and then somebody tries who may not; said, and nothing is changed."""
        if chance.random() > 0.15:
            return False
        who, status, code = chance.choice(((self.viewer, 403, "role"), (self.stranger, 404, "not_found")))
        self.refused(who(method, path, body), status, code)
        return True

    def save(self, chance: Random) -> None:
        """A length, based on the present revision or on an older one."""
        number, kept = self.some(chance)
        present, length = len(kept.revisions), float(chance.randint(300, 1500))
        based = present if chance.random() < 0.75 else chance.randint(0, present + 1)
        note = chance.choice(("", "longer", "as measured"))
        body = {"base_revision": based, "design": {"shell": BOX["shell"] | {"length_mm": length}}, "note": note}
        if self.may_not(chance, "PUT", f"designs/{number}", body):
            return
        name, who = self.writer(chance)
        answer = who("PUT", f"designs/{number}", body)
        if based != present:
            self.assert_conflict(answer, kept)
            return
        self.assertEqual((answer[0], answer[1]["number"]), (200, present + 1))
        kept.revisions.append((length, name, note))

    def restore(self, chance: Random) -> None:
        """An older revision comes back as a new one; one that never was doesn't."""
        number, kept = self.some(chance)
        present = len(kept.revisions)
        wanted, based = chance.randint(1, present + 1), present - (chance.random() < 0.2)
        body = {"base_revision": based, "number": wanted}
        if self.may_not(chance, "POST", f"designs/{number}/restore", body):
            return
        name, who = self.writer(chance)
        answer = who("POST", f"designs/{number}/restore", body)
        if wanted > present:
            self.refused(answer, 404, "not_found")
        elif based != present:
            self.assert_conflict(answer, kept)
        else:
            self.assertEqual((answer[0], answer[1]["revision"]), (200, present + 1))
            kept.revisions.append((kept.revisions[wanted - 1][0], name, f"restored from revision {wanted}"))

    def assert_conflict(self, answer: tuple[int, Any], kept: KeptDesign) -> None:
        """The present revision comes with the refusal."""
        current = self.refused(answer, 409, "conflict")["current"]
        length, author, note = kept.revisions[-1]
        self.assertEqual((current["number"], current["note"]), (len(kept.revisions), note))
        self.assertEqual(current["author"], author or "somebody")
        self.assertEqual((current["design"]["shell"] or {}).get("length_mm"), length)

    def rename(self, chance: Random) -> None:
        """Another name; its revisions are untouched."""
        number, kept = self.some(chance)
        name = f"Tank {chance.randint(1, 9)}"
        if not self.may_not(chance, "PATCH", f"designs/{number}", {"name": name}):
            self.assertEqual(self.writer(chance)[1]("PATCH", f"designs/{number}", {"name": name})[0], 200)
            kept.name = name

    def change(self, chance: Random) -> None:
        """A job's own fields, as they were seen or as they never were."""
        number, kept = chance.choice(list(self.jobs.items()))
        new = kept.fields | {
            "title": f"Job {chance.randint(1, 9)}", "state": chance.choice(("enquiry", "design", "build", "done")),
            "note": chance.choice(("", "call first")),
        }  # fmt: skip
        seen = kept.fields if chance.random() < 0.7 else kept.fields | {"note": "never there"}
        if self.may_not(chance, "PUT", f"jobs/{number}", new | {"seen": seen}):
            return
        answer = self.writer(chance)[1]("PUT", f"jobs/{number}", new | {"seen": seen})
        if seen != kept.fields:
            current = self.refused(answer, 409, "conflict")["current"]
            self.assertEqual({name: current[name] for name in kept.fields}, kept.fields)
            return
        self.assertEqual(answer[0], 200)
        kept.fields = new

    def add(self, chance: Random) -> None:
        """A job more, or a design more in one, empty or from a document."""
        name, who = self.writer(chance)
        if chance.random() < 0.4:
            status, made = who("POST", "jobs", {"title": "Next"})
            self.assertEqual(status, 201)
            fields = {"title": "Next", "customer_id": None, "state": "enquiry", "note": ""}
            self.jobs[made["id"]] = KeptJob(fields)
            return
        number, job = chance.choice(list(self.jobs.items()))
        document = chance.choice((None, BOX))
        body = {"name": "Added", "design": document}
        if self.may_not(chance, "POST", f"jobs/{number}/designs", body):
            return
        status, made = who("POST", f"jobs/{number}/designs", body)
        self.assertEqual(status, 201)
        length, note = (800.0, "imported") if document else (None, "started")
        job.designs[made["id"]] = KeptDesign("Added", [(length, name, note)])

    def look_at_everything(self) -> None:
        """Jobs, designs, revisions as anyone of the workshop reads them; a stranger sees none."""
        self.assertEqual(self.stranger("GET", "jobs")[1]["count"], 0)
        self.assertEqual(self.viewer("GET", "jobs")[1]["count"], len(self.jobs))
        for number, job in self.jobs.items():
            told = self.viewer("GET", f"jobs/{number}")[1]
            self.assertEqual({name: told[name] for name in job.fields}, job.fields)
            named = {one["id"]: (one["name"], one["revision"]) for one in told["designs"]}
            self.assertEqual(named, {pk: (one.name, len(one.revisions)) for pk, one in job.designs.items()})
            for pk, kept in job.designs.items():
                self.look_at_design(pk, kept)
            self.look_at_timeline(told["number"], job)

    def look_at_design(self, pk: int, kept: KeptDesign) -> None:
        """The present revision, the list of all, and the oldest."""
        self.assertEqual(self.stranger("GET", f"designs/{pk}")[0], 404)
        present = Design.model_validate(self.viewer("GET", f"designs/{pk}")[1]["design"])
        self.assertEqual(getattr(present.shell, "length_mm", None), kept.revisions[-1][0])
        page = self.viewer("GET", f"designs/{pk}/revisions")[1]
        self.assertEqual(page["count"], len(kept.revisions))
        newest = [(one["number"], one["author"], one["note"]) for one in page["items"]]
        numbered = [(n, author, note) for n, (_, author, note) in enumerate(kept.revisions, start=1)]
        self.assertEqual(newest, numbered[::-1][: len(newest)])
        first = self.viewer("GET", f"designs/{pk}/revisions/1")[1]["design"]["shell"]
        self.assertEqual((first or {}).get("length_mm"), kept.revisions[0][0])

    def look_at_timeline(self, number: int, job: KeptJob) -> None:
        """Every revision is in one entry, with its author."""
        told = self.viewer("GET", f"jobs/numbered/{number}/timeline")[1]
        spans = sorted(
            (entry["design_id"], n, entry["author"])
            for entry in told["entries"]
            for n in range(entry["first"], entry["last"] + 1)
        )
        kept = [
            (pk, n, author)
            for pk, one in job.designs.items()
            for n, (_, author, _note) in enumerate(one.revisions, start=1)
        ]
        self.assertTrue(told["is_whole"])
        self.assertEqual(spans, sorted(kept))
