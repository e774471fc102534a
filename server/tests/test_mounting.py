"""Vehicles shared by jobs, the way in on the queue, and what is printed of a mount, over the API."""

import io
import re
from datetime import timedelta
from typing import Any

from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob
from pypdf import PdfReader
from reportlab.lib.units import mm

from keel.design.document import Design
from server.jobs.models import Job, TankDesign
from server.mount.models import WaySearch
from server.mount.tasks import mend
from server.papers.strap_sheet import TILE_MM
from server.tests.helpers import BOX, ApiTestCase, InWorkshop, paper_text
from server.tests.test_studies import work

ROOM = {"length_mm": 900.0, "width_mm": 500.0, "height_mm": 500.0}
OPENING = {"side": "roof", "a_mm": 10.0, "b_mm": 10.0, "long_mm": 880.0, "wide_mm": 480.0}
TANK = BOX | {
    "bay": ROOM | {"opening": OPENING},
    "shell": {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0, "x_mm": 50.0, "y_mm": 50.0, "z_mm": 20.0},
}
BUGGY = {"name": "Buggy", "ground_mm": -300.0, "parts": [
    {"id": "seat", "name": "seat", "kind": "moving part", "x_mm": 950.0, "y_mm": 0.0, "z_mm": 0.0}
]}  # fmt: skip
ENDS = {"low": {"out_mm": 20.0, "z_mm": 0.0}, "high": {"out_mm": 480.0, "z_mm": 0.0}}
STRAP = {"id": "first", "name": "rear strap", "at_mm": 250.0} | ENDS
MOUNT = {"straps": [STRAP, STRAP | {"id": "second", "name": "front strap", "at_mm": 650.0}]}


class Ways(ApiTestCase):
    """Ways to hold a tank, asked for and taken."""

    def ways(self, mount: dict[str, Any], **showing: Any) -> Any:
        """What is compared for a tank held so."""
        body = {"design": TANK | {"mount": mount}, "showing": {"results": ["mount.ways", "mount.loads"]} | showing}
        status, answer = self.viewer("POST", "evaluate", body)
        self.assertEqual(status, 200, answer)
        return answer["mount"]

    def test_taken_saved_and_printed(self) -> None:
        """Each can be kept as a revision; once it is, it is the one that is marked, and its strap is a file."""
        found = self.ways({})["ways"]
        self.assertEqual(len(found), 6)
        self.assertEqual(sum(way["favoured"] for way in found), 1)
        tank = TankDesign.started(self.job, "Held", Design.model_validate(TANK), None, "")
        for based_on, way in enumerate(found, start=1):
            design = TANK | way["patch"]
            body = {"base_revision": based_on, "design": design, "note": way["title"]}
            self.refused(self.viewer("PUT", f"designs/{tank.pk}", body), 403, "role")
            status, kept = self.fabricator("PUT", f"designs/{tank.pk}", body)
            self.assertEqual((status, kept["number"]), (200, based_on + 1), kept)
            again = self.ways(way["patch"]["mount"])
            self.assertEqual([one["title"] for one in again["ways"] if one["chosen"]], [way["title"]])
            held = {case["way"] for case in again["loads"]["cases"] if case["is_held"]}
            self.assertFalse(held & set(way["unheld"]))
            self.assertEqual(len(held) + len(way["unheld"]), 6)
            names = [paper["name"] for paper in self.viewer("GET", f"designs/{tank.pk}/papers")[1]]
            straps = [name for name in names if name.startswith("strap-") and name.endswith(".dxf")]
            self.assertEqual(len(straps), len(way["patch"]["mount"]["straps"]))
            status, content = self.viewer("GET", f"designs/{tank.pk}/files/mount.pdf")
            self.assertEqual(status, 200)
            self.assertIn("Weakest links", paper_text(content))

    def test_not_in_a_drag(self) -> None:
        """They wait until the hand rests."""
        self.assertIsNone(self.ways({}, remedies=False)["ways"])

    def test_for_a_rule_card(self) -> None:
        """Typed loads count: five times the g takes no fewer bolts, and says what pulls at a lid."""
        card = {"forward_g": 5.0, "rearward_g": 5.0, "sideways_g": 5.0, "up_g": 5.0, "down_g": 5.0}
        low, high = (
            {way["title"]: way for way in self.ways({"use": "rule card", "loads": loads})["ways"]}
            for loads in (card, {name: 5 * g for name, g in card.items()})
        )
        for title, way in low.items():
            self.assertGreaterEqual(high[title]["bolts"], way["bolts"], title)
        box = next(way for title, way in low.items() if title.startswith("Box"))
        other = next(way for title, way in high.items() if title.startswith("Box"))
        self.assertAlmostEqual(other["means"]["values"]["up_n"], 5 * box["means"]["values"]["up_n"])


class Vehicles(ApiTestCase):
    """Kept once, changed for all jobs, removed only where nobody needs it."""

    def add(self, **more: Any) -> dict[str, Any]:
        status, made = self.fabricator("POST", "vehicles", {"vehicle": BUGGY | more})
        self.assertEqual(status, 201, made)
        return dict(made)

    def evaluated(self, key: str | None) -> set[str]:
        """Keys of the gaps that are judged for a design that is for a vehicle."""
        body = {"design": TANK | {"mount": {"vehicle": key}}, "showing": {"results": ["bay.gaps"]}}
        status, answer = self.viewer("POST", "evaluate", body)
        self.assertEqual(status, 200, answer)
        return {gap["key"] for gap in answer["bay"]["gaps"]}

    def test_added_it_counts_for_every_design_that_is_for_it(self) -> None:
        made = self.add()
        self.assertEqual((made["version"], made["vehicle"]["name"], made["jobs"]), (1, "Buggy", []))
        self.assertLessEqual({"vehicle-seat", "vehicle-ground"}, self.evaluated(made["key"]))
        self.assertNotIn("vehicle-seat", self.evaluated(None))

    def test_changed_it_is_another_for_all_of_them_at_once(self) -> None:
        made = self.add()
        change = {"base_version": 1, "vehicle": made["vehicle"] | {"parts": []}}
        status, changed = self.fabricator("PUT", f"vehicles/{made['id']}", change)
        self.assertEqual((status, changed["version"]), (200, 2))
        self.assertNotIn("vehicle-seat", self.evaluated(made["key"]))
        self.refused(self.fabricator("PUT", f"vehicles/{made['id']}", change), 409, "conflict")

    def test_wheel_loads_that_do_not_add_up_are_kept_and_found(self) -> None:
        loads = dict.fromkeys(("front_left_kg", "front_right_kg", "rear_left_kg", "rear_right_kg"), 250.0)
        made = self.add(**loads, whole_kg=1300.0)
        self.assertEqual(made["vehicle"]["whole_kg"], 1300.0)
        body = {"design": TANK | {"mount": {"vehicle": made["key"]}}}
        _, answer = self.viewer("POST", "evaluate", body)
        self.assertIn("mount.wheel_loads", {finding["code"] for finding in answer["findings"]})
        self.refused(self.fabricator("POST", "vehicles", {"vehicle": BUGGY | {"whole_kg": -3.0}}), 422, "invalid")

    def test_one_that_a_job_is_for_is_not_removed_until_the_job_is(self) -> None:
        made = self.add()
        job = Job.opened(self.workshop, title="Buggy tank")
        design = Design.model_validate(TANK | {"mount": {"vehicle": made["key"]}})
        TankDesign.started(job, "Rear", design, None, "started")
        _, listed = self.viewer("GET", "vehicles")
        self.assertEqual(listed[0]["jobs"], [job.number])
        said = self.refused(self.fabricator("DELETE", f"vehicles/{made['id']}"), 422, "invalid")
        self.assertIn(str(job.number), said["message"])
        job.delete()
        # The job is gone, its vehicle isn't.
        _, listed = self.viewer("GET", "vehicles")
        self.assertEqual((len(listed), listed[0]["jobs"]), (1, []))
        self.assertEqual(self.fabricator("DELETE", f"vehicles/{made['id']}")[0], 204)

    def test_nobody_else_sees_or_touches_it(self) -> None:
        made = self.add()
        self.assertEqual(self.stranger("GET", "vehicles"), (200, []))
        change = {"base_version": 1, "vehicle": BUGGY}
        self.assertEqual(self.stranger("PUT", f"vehicles/{made['id']}", change)[0], 404)
        self.assertEqual(self.stranger("DELETE", f"vehicles/{made['id']}")[0], 404)
        self.refused(self.viewer("POST", "vehicles", {"vehicle": BUGGY}), 403, "role")
        self.assertEqual(self.nobody("GET", "vehicles")[0], 401)

    def test_the_settings_page_leaves_vehicles_alone(self) -> None:
        made = self.add()
        _, page = self.owner("GET", "workshop")
        self.assertEqual(page["settings"]["vehicles"], [])
        settings = page["settings"] | {"vehicles": [BUGGY | {"name": "smuggled in"}]}
        status, saved = self.owner("PUT", "workshop", {"base_version": page["version"], "settings": settings})
        self.assertEqual((status, saved["settings"]["vehicles"]), (200, []))
        self.assertIn("vehicle-seat", self.evaluated(made["key"]))


class TheWayIn(InWorkshop):
    """Searched by a worker."""

    def setUp(self) -> None:
        super().setUp()
        self.tank = TankDesign.started(self.job, "Main", Design.model_validate(TANK), None, "started")

    def ask(self, **more: Any) -> tuple[int, Any]:
        return self.fabricator("POST", f"designs/{self.tank.pk}/way-in", {"design": TANK | more, "play_mm": 2.0})

    def latest(self) -> Any:
        status, found = self.viewer("GET", f"designs/{self.tank.pk}/way-in")
        self.assertEqual(status, 200, found)
        return found

    def test_asked_for_worked_off_and_shown(self) -> None:
        self.assertIsNone(self.latest())
        status, made = self.ask()
        self.assertEqual((status, made["state"], made["found"]), (201, "running", None))
        work()
        found = self.latest()
        self.assertEqual((found["state"], found["share"], found["problem"]), ("done", 1.0, ""))
        self.assertTrue(found["found"]["passes"])
        self.assertGreater(len(found["found"]["frames"]), 3)

    def test_a_closing_panel_is_away_and_another_one_is_in_the_way(self) -> None:
        lid = {"id": "lid", "name": "lid", "axis": "z", "at_mm": 560.0, "a_mm": -200.0, "b_mm": -200.0}
        lid |= {"long_mm": 1400.0, "wide_mm": 900.0}
        for closes, passes in ((True, True), (False, False)):
            _, made = self.fabricator("POST", "vehicles", {"vehicle": {"panels": [lid | {"closes": closes}]}})
            self.assertEqual(self.ask(mount={"vehicle": made["key"]})[0], 201)
            work()
            found = self.latest()["found"]
            self.assertEqual(found["passes"], passes)
        self.assertIn("lid", {outline["name"] for outline in found["stands"]})

    def test_a_vehicle_that_was_measured_anew_makes_the_answer_an_old_one(self) -> None:
        _, made = self.fabricator("POST", "vehicles", {"vehicle": BUGGY})
        self.ask(mount={"vehicle": made["key"]})
        self.assertFalse(self.latest()["vehicle_changed"])
        change = {"base_version": 1, "vehicle": made["vehicle"] | {"ground_mm": -250.0}}
        self.fabricator("PUT", f"vehicles/{made['id']}", change)
        self.assertTrue(self.latest()["vehicle_changed"])
        self.ask()
        self.assertFalse(self.latest()["vehicle_changed"])

    def test_what_is_bolted_over_the_tank_is_off_while_it_goes_in(self) -> None:
        bar = {"id": "bar", "name": "cage bar", "stands": "over", "at_mm": 450.0, "low_mm": 20.0, "high_mm": 480.0}
        self.ask(mount={"bearers": [bar]})
        work()
        found = self.latest()["found"]
        self.assertEqual((found["passes"], found["off"]), (True, ["cage bar"]))

    def test_stopped_it_is_left_alone(self) -> None:
        _, made = self.ask()
        status, stopped = self.fabricator("POST", f"way-in/{made['id']}/stop")
        self.assertEqual((status, stopped["state"]), (200, "cancelled"))
        work()
        found = self.latest()
        self.assertEqual((found["state"], found["found"]), ("cancelled", None))
        self.assertEqual(self.stranger("POST", f"way-in/{made['id']}/stop")[0], 404)

    def test_one_without_a_job_is_put_on_the_queue_again(self) -> None:
        _, made = self.ask()
        jobs = ProcrastinateJob.objects.filter(task_name="mount.run_search", args__search_id=made["id"])
        self.assertEqual(jobs.count(), 1)
        search = WaySearch.objects.get(pk=made["id"])
        mend(search)
        self.assertEqual(jobs.count(), 1)
        jobs.update(status="failed")
        WaySearch.objects.filter(pk=made["id"]).update(asked=timezone.now() - timedelta(minutes=5))
        mend(WaySearch.objects.get(pk=made["id"]))
        self.assertEqual(jobs.filter(status="todo").count(), 1)

    def test_refused_without_a_shell_an_opening_or_room_on_the_queue(self) -> None:
        self.refused(self.ask(shell=None), 422, "no_shell")
        self.refused(self.ask(bay=ROOM), 422, "no_opening")
        for _ in range(4):
            self.assertEqual(self.ask()[0], 201)
        self.refused(self.ask(), 422, "invalid")

    def test_a_shape_that_does_not_work_is_said_not_a_crash(self) -> None:
        baffle = {"kind": "baffle", "id": "b", "name": "b", "at_mm": 5000.0, "corner_mm": 20.0}
        self.ask(shell=TANK["shell"] | {"features": [baffle]})
        work()
        found = self.latest()
        self.assertEqual((found["state"], found["found"]), ("done", None))
        self.assertIn("outside the tank", found["problem"])


class Papers(ApiTestCase):
    """Straps at full size, bolts, the mount's sheet."""

    def setUp(self) -> None:
        super().setUp()
        self.tank = TankDesign.started(
            self.job, "Held", Design.model_validate(TANK | {"mount": MOUNT}), None, "started"
        )

    def paper(self, name: str) -> bytes:
        status, content = self.viewer("GET", f"designs/{self.tank.pk}/files/{name}")
        self.assertEqual(status, 200, content)
        return bytes(content)

    def test_listed_only_where_something_is_mounted(self) -> None:
        _, listed = self.viewer("GET", f"designs/{self.tank.pk}/papers")
        names = {paper["name"] for paper in listed if paper["station"] == "mount"}
        straps = {f"strap-{name}.{kind}" for name in ("first", "second") for kind in ("pdf", "dxf")}
        self.assertEqual(names, {"mount.pdf", "mount-bolts.csv"} | straps)
        bare = TankDesign.started(self.job, "Bare", Design.model_validate(TANK), None, "started")
        _, listed = self.viewer("GET", f"designs/{bare.pk}/papers")
        self.assertFalse([paper for paper in listed if paper["station"] == "mount"])

    def test_the_sheet_says_what_is_not_held_and_what_is_masked(self) -> None:
        said = paper_text(self.paper("mount.pdf"))
        for words in ("CAUTION", "NOT HELD", "Weakest links", "rear strap, right end", "Room for the coating"):
            self.assertIn(words, said)

    def test_a_strip_is_printed_at_full_size_from_end_to_end(self) -> None:
        pages = PdfReader(io.BytesIO(self.paper("strap-first.pdf"))).pages
        said = paper_text(self.paper("strap-first.pdf"))
        cut = float(said.split("Cut ")[1].split(" mm")[0])
        rows = said.count(", from ")
        self.assertEqual(rows, -(-cut // TILE_MM))
        # A full row's rectangle is as long on paper as it says.
        drawn = pages[1].get_contents()
        assert drawn is not None
        wide = [float(one) for one in re.findall(r"([0-9.]+) [0-9.]+ re", drawn.get_data().decode("latin-1"))]
        self.assertTrue(any(abs(one - TILE_MM * mm) < 0.01 for one in wide), wide)

    def test_the_papers_follow_the_readers_units(self) -> None:
        self.fabricator("PATCH", "session/preferences", {"units": "in_usgal"})
        _, bolts = self.fabricator("GET", f"designs/{self.tank.pk}/files/mount-bolts.csv")
        self.assertIn("length_in", bolts.decode().splitlines()[0])
        _, sheet = self.fabricator("GET", f"designs/{self.tank.pk}/files/mount.pdf")
        self.assertIn("lbf", paper_text(sheet))
