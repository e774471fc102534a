"""Following the order of work: at the station, and at the bench on a phone; with the server there, and without."""

import base64
from typing import Any

from django.utils import timezone

from keel.log.entries import ENTRY
from server.floor.log import Log
from server.floor.models import LogEntry, Photo
from server.tests.helpers import person
from server.tests.test_floor import picture
from server.workshop.models import Person
from tests.web.person import PATIENCE_S, AtThePage

SHELL = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0}
VENT: dict[str, Any] = {"id": "vent", "name": "vent", "role": "vent", "x_mm": 500.0, "y_mm": 200.0}
VENT |= {"seat": {"hole_mm": 20.0, "outer_mm": 30.0}, "part": "Deck vent"}
HAND = "section[aria-label='Operation at hand']"
TO_THE_LAST_LOOK = (
    *("prepare:sheet", "cut:no-means-typed", "deburr:edges", "bend:wrapper", "bend:end-pan", "tack:body"),
    *("weld:closing-seam", "weld:rear-pan", "clean:front-pan", "look:front-pan"),
)


class AtTheBuild(AtThePage):
    """A box to be built."""

    document: dict[str, Any] = {"shell": SHELL}
    drawn = False

    def written(self) -> list[tuple[str, str]]:
        """What the log says, in its order."""
        rows = LogEntry.objects.order_by("n").values_list("document", flat=True)
        return [(row["kind"], row.get("subject") or "") for row in rows]

    def write(self, kind: str, who: Person | None = None, **values: Any) -> None:
        """Somebody writes from elsewhere."""
        document = {"id": f"e{LogEntry.objects.count()}", "kind": kind, "design": self.tank.pk} | values
        row = Log(self.job, who or self.maker, timezone.now()).write([ENTRY.validate_python(document)])[0]
        self.assertIsNone(row.refused)

    def build(self) -> None:
        """At the station, the operation at hand shown."""
        self.open_station("build")
        self.until(lambda: self.do("count", f"{HAND} [data-operation]"), "an operation")

    def hand_photo(self, label: str) -> None:
        """Take a photo."""
        content = base64.b64encode(picture(400, 300)).decode()
        self.until(lambda: self.do("givenBytes", label, "p.jpg", "image/jpeg", content) or True, label)


class Station(AtTheBuild):
    """The list, the operation at hand, its gates."""

    def test_one_after_the_other(self) -> None:
        """Started, paused, done: the next one comes, and the log has all of it."""
        self.build()
        self.assertIn("1 of", self.text(HAND))
        self.press("Start", HAND)
        self.shows("in work", HAND)
        self.press("Pause", HAND)
        self.until(lambda: self.do("isEnabled", "Start", HAND), "left for now")
        self.press("Done", HAND)
        self.shows("Cut wrapper", HAND)
        self.until(lambda: len(self.written()) == 3, "written")
        self.assertEqual(self.written(), [(kind, "prepare:sheet") for kind in ("started", "paused", "done")])
        self.until(lambda: "1 done" in self.text("aside"), "folded away")

    def test_a_gate(self) -> None:
        """It holds the last weld until a round brought nothing and a photo shows that somebody looked."""
        for operation in TO_THE_LAST_LOOK:
            self.write("done", subject=operation)
        self.build()
        self.do("clicked", "[data-line='close:front-pan']")
        self.shows("Inside clean and looked at", HAND)
        self.assertFalse(self.do("isEnabled", "Done", HAND))
        self.press("Something came out", HAND)
        self.press("swarf", HAND)
        self.shows("round 1 brought swarf", HAND)
        self.press("Nothing came out", HAND)
        self.hand_photo("Photo: it is so")
        self.until(lambda: self.do("count", f"{HAND} [data-gate][data-standing=open]"), "open")
        self.press("Done", HAND)
        self.until(lambda: self.written()[-1] == ("done", "close:front-pan"), "closed")
        self.assertEqual(Photo.objects.count(), 1)

    def test_passed_unmet(self) -> None:
        """Only with a reason; from then on it is told in red, on the list and on the job's page."""
        for operation in TO_THE_LAST_LOOK:
            self.write("done", subject=operation)
        self.build()
        self.do("clicked", "[data-line='close:front-pan']")
        self.press("Pass unmet, with name and reason", HAND)
        self.assertEqual(self.value("Who answers for it"), "Maker")
        self.assertFalse(self.do("isEnabled", "Pass unmet", "[role=dialog]"))
        self.type_into("Reason", "mirror is broken")
        self.press("Pass unmet", "[role=dialog]")
        self.shows("mirror is broken", HAND)
        self.until(lambda: ("override", "inside:front-pan") in self.written(), "written")
        self.assertTrue(self.do("isEnabled", "Done", HAND))
        self.open(f"/jobs/{self.job.number}")
        self.shows("Passed unmet: Inside clean and looked at before the front pan shuts it, by Maker")

    def test_the_order_is_changed(self) -> None:
        """A step added, one moved where it may be, one refused with the reason, one skipped, one taken back."""
        self.build()
        self.press("More", HAND)
        self.press("Add a step after it")
        self.type_into("What is done", "Stamp the number")
        self.type_into("Planned time, min", "5")
        self.press("Add", "[role=dialog]")
        self.shows("Stamp the number", "aside")
        self.do("clicked", "[data-line='deburr:edges']")
        self.press("More", HAND)
        self.press("Move to another place")
        self.press("Move", "[role=dialog]")
        self.shows("It can't be moved there", "[data-refused]")
        self.press("Discard")
        self.until(lambda: not self.do("count", "[data-refused]"), "gone")
        self.do("clicked", "[data-line='prepare:sheet']")
        self.press("More", HAND)
        self.press("Skip, with reason")
        self.type_into("Reason", "came clean")
        self.press("Skip", "[role=dialog]")
        self.until(lambda: ("skipped", "prepare:sheet") in self.written(), "skipped")
        self.shows("1 done", "aside")
        self.press("1 done", "aside")
        self.do("clicked", "[data-line='prepare:sheet']")
        self.shows("came clean", HAND)
        self.press("More", HAND)
        self.press("Take back “skipped”")
        self.until(lambda: self.written()[-1][0] == "correction", "taken back")
        self.until(lambda: self.do("count", f"{HAND} [data-standing=open]"), "open again")

    def test_two_people(self) -> None:
        """What one ticks the other sees within seconds; both ticking the same is no conflict."""
        self.build()
        other = person("other", "fabricator", self.workshop)
        self.write("done", other, subject="prepare:sheet")
        self.shows("Cut wrapper", HAND)
        self.write("done", other, subject="prepare:sheet")
        self.press("Done", HAND)
        self.until(lambda: self.written().count(("done", "cut:no-means-typed")) == 1, "both")

    def test_a_design_that_changes(self) -> None:
        """Done steps that it touches say so; accepted with a reason they are content."""
        self.write("done", subject="prepare:sheet")
        self.write("done", subject="cut:no-means-typed")
        self.open_station("shell")
        self.type_into("Length outside", "820")
        self.saved()
        self.open_station("build")
        self.shows("changed since", "aside")
        self.do("clicked", "[data-line='cut:no-means-typed']")
        self.shows("Changed since it was done: Wrapper", HAND)
        self.press("Accept with reason", HAND)
        self.type_into("Reason", "cut 20 too long, trimmed")
        self.press("Accept", "[role=dialog]")
        self.until(lambda: not self.do("count", "[data-changed]"), "content")

    def test_one_who_looks(self) -> None:
        """A viewer sees all of it and records nothing."""
        Person.objects.filter(pk=self.maker.pk).update(role="viewer")
        self.open(f"/designs/{self.tank.pk}/build")
        self.shows("Clean and prepare", HAND)
        self.assertEqual(self.do("count", f"{HAND} button"), 0)


class Outside(AtTheBuild):
    """What comes in, what goes out, what was agreed, what it took."""

    document = {"shell": SHELL, "ports": [VENT]}

    def test_goods(self) -> None:
        """Counted in one by one; a damaged one doesn't count; what its maker asks for stands at the operation."""
        self.build()
        self.shows("0 of 1 here", HAND)
        self.do("clicked", f"{HAND} [data-goods='seat:vent'] button")
        self.press("Damaged", HAND)
        self.shows("1 damaged", HAND)
        self.press("Maker’s sheet", HAND)
        self.type_into("Setting, wait or caution", "rest a day after welding", HAND)
        self.type_into("Wait, min", "1440", HAND)
        self.press("Record", HAND)
        self.shows("Maker asks: rest a day after welding", HAND)
        self.press("Transport caps: one more", HAND)
        self.press("Here and whole", HAND)
        self.until(lambda: self.do("count", f"{HAND} [data-goods='seat:vent'][data-here=true]"), "here")
        entry = LogEntry.objects.get(document__kind="arrived", document__whole=True).document
        self.assertEqual((entry["value"], entry["caps"]), (1, 1))

    def test_sent_out_and_agreed(self) -> None:
        """A part that is away holds what is done on it; what was agreed is on the list and on the traveller."""
        self.build()
        self.choose("Part", "Wrapper", "aside")
        self.type_into("Sent to", "The platers", "aside")
        self.type_into("Work to be done", "zinc", "aside")
        self.press("Record as sent out", "aside")
        self.shows("Sent out, 1 away", "aside")
        self.do("clicked", "[data-line='prepare:sheet']")
        self.shows("not right: Wrapper", HAND)
        self.assertFalse(self.do("isEnabled", "Done", HAND))
        self.press("Back, not right", "aside")
        self.shows("not as it should be", "aside")
        self.assertFalse(self.do("isEnabled", "Done", HAND))
        self.press("Back, checked and right", "aside")
        self.shows("Sent out, 0 away", "aside")
        self.type_into("What was agreed", "an earth stud", "aside")
        self.type_into("Who agreed, and how", "harbour office, by telephone", "aside")
        self.type_into("Price of an extra", "45", "aside")
        self.press("Record as agreed", "aside")
        self.until(lambda: self.do("count", "[data-agreed]"), "listed")

    def test_the_next_rate(self) -> None:
        """What work took is beside what it is planned with; accepted and saved it is the rate."""
        begun = {"subject": "prepare:sheet"}
        self.write("started", at=timezone.now().isoformat(), **begun)
        self.write("done", **begun)
        self.open("/workshop")
        self.until(lambda: self.do("count", "[data-seen=prepare]"), "what it took")
        self.do("clicked", "[data-seen=prepare] button")
        self.press("Save the workshop")
        self.until(lambda: self.kept_rate() is not None, "kept")

    def kept_rate(self) -> float | None:
        """Minutes a square metre, as the workshop has them."""
        self.workshop.refresh_from_db()
        found: float | None = self.workshop.document().rates.prepare_min_per_m2
        return found


class Ring(AtTheBuild):
    """A flange drawn down."""

    SEAT: dict[str, Any] = {"kind": "flange", "hole_mm": 60.0, "outer_mm": 110.0, "bolt_circle_mm": 90.0, "bolts": 4}
    document = {"shell": SHELL, "ports": [VENT | {"seat": SEAT | {"torque_nm": 10.0}}]}

    def test_bolt_by_bolt(self) -> None:
        """Across the ring, three passes, each bolt pressed once; the log has it when the last is tight."""
        self.open(f"/floor/{self.job.number}")
        self.press("All steps")
        self.do("clicked", "[data-line='fit:vent']")
        said = []
        for _ in range(12):
            said.append(self.text("section[aria-label=Tightening]").split("Pass ")[1].split("Back")[0])
            self.do("clicked", "section[aria-label=Tightening] button:last-of-type")
        self.assertEqual([line.split("bolt ")[1][0] for line in said[:4]], ["1", "3", "2", "4"])
        self.assertIn("1 of 3: bolt 1 to 3.0 N·m", said[0])
        self.assertIn("3 of 3: bolt 4 to 10.0 N·m", said[11])
        self.until(lambda: self.written() == [("note", "fit:vent")], "on record")
        self.press("Back")
        self.assertEqual(self.do("count", "[data-turned='11']"), 1)

    def test_what_a_revision_taught(self) -> None:
        """It stands with that revision, beside any other it is compared with."""
        self.build()
        self.type_into("What was learnt", "flange sits proud", "aside")
        self.type_into("What may change next", "spot-face the ring", "aside")
        self.press("Record as learnt", "aside")
        self.until(lambda: self.written() == [("learnt", "")], "kept")
        self.open_station("shell")
        for size in ("820", "840"):
            self.type_into("Length outside", size)
            self.saved()
            self.until(lambda: self.do("design")["shell"]["length_mm"] == float(size), "changed")  # noqa: B023
        self.until(lambda: self.tank.refresh_from_db() or self.tank.revision == 3, "saved twice")
        self.press("Revisions")
        self.until(lambda: self.do("clicked", "[role=dialog] ul > *:last-child") or True, "chosen")
        self.shows("flange sits proud", "[role=dialog]")
        self.choose("Compared with", "r2", "[role=dialog]")
        self.shows("820", "[role=dialog]")


class AtTheBench(AtTheBuild):
    """The page for a phone."""

    def bench(self) -> None:
        """One operation a screen."""
        self.open(f"/floor/{self.job.number}")
        self.until(lambda: self.do("count", "[data-operation]"), "an operation")

    def test_one_a_screen(self) -> None:
        """On and back; the list and a step of it; a note; done, and the next one comes."""
        self.bench()
        self.shows("Clean and prepare")
        self.press("Step after")
        self.shows("Cut wrapper")
        self.press("Step before")
        self.press("All steps")
        self.do("clicked", "[data-line='deburr:edges']")
        self.shows("Deburr all edges")
        self.assertFalse(self.do("isEnabled", "Done", "main"))
        self.press("Note")
        self.type_into("What was seen or done", "burr at the notch")
        self.press("Record", "[role=dialog]")
        self.until(lambda: self.written() == [("note", "deburr:edges")], "noted")

    def test_the_server_away(self) -> None:
        """What is recorded waits on the device, visibly and in order, and goes when it is back."""
        self.bench()
        self.away = True
        self.press("Start")
        self.press("Done")
        self.shows("2 waiting on this device: the workshop’s server is away")
        self.shows("Cut wrapper")
        self.assertEqual(self.written(), [])
        self.away = False
        self.press("Send now")
        self.until(lambda: self.written() == [("started", "prepare:sheet"), ("done", "prepare:sheet")], "sent")
        self.until(lambda: not self.do("count", "[data-waiting]"), "nothing waits")

    def test_a_thousand(self) -> None:
        """Entries and photos of a long day without the server arrive complete, in order, once."""
        self.bench()
        self.away = True
        photo = base64.b64encode(picture()).decode()
        self.do("recorded", self.job.number, self.tank.pk, 1000, 25, photo)
        self.shows("1025 waiting on this device")
        self.away = False
        self.press("Send now")
        self.until(lambda: not self.do("count", "[data-waiting]"), "all sent", patience_s=6 * PATIENCE_S)
        rows = list(LogEntry.objects.order_by("n").values_list("client_id", flat=True))
        self.assertEqual(rows, [f"w{n}" for n in range(1000)])
        self.assertEqual(Photo.objects.count(), 25)

    def test_refused(self) -> None:
        """What the workshop doesn't take stays on the device with the reason, until somebody discards it."""
        self.bench()
        self.away = True
        self.press("Done")
        self.shows("1 waiting")
        self.workshop.rules = {"rates": {"by": {"prepare": "finisher"}}}
        self.workshop.save()
        self.away = False
        self.press("Send now")
        self.shows("Not taken: done prepare:sheet. Clean and prepare both faces")
        self.press("Discard")
        self.until(lambda: not self.do("count", "[data-refused]"), "discarded")
