"""The bench, and the shop's library in and out."""

import csv
import io
import json
from datetime import timedelta
from typing import Any

from django.test import Client
from django.utils import timezone

from keel.design.document import Design
from keel.design.workshop import Workshop as Rules
from server.bench.models import Calibration, Reading
from server.demo.library import PARTS, PUMPS, SENDERS
from server.jobs.models import TankDesign
from server.tests.helpers import BOX, ApiTestCase

SENDER = {"id": "s", "name": "sender", "x_mm": 300.0, "y_mm": 200.0, "action": {"kind": "tube"}}
FLANGE = {"kind": "flange", "hole_mm": 90.0, "outer_mm": 130.0, "bolt_circle_mm": 112.0, "bolts": 8, "bolt_mm": 6.0}
PORT = {"id": "p", "name": "module", "role": "pickup", "x_mm": 300.0, "y_mm": 200.0, "seat": FLANGE}


class BenchTestCase(ApiTestCase):
    """A tank with a sender and a module."""

    def setUp(self) -> None:
        """The tank."""
        super().setUp()
        more = {"gauge": {"senders": [SENDER]}, "ports": [PORT | {"hanger": {"made_for_mm": 200.0}}]}
        self.tank = TankDesign.started(self.job, "Sent", Design.model_validate(BOX | more), None, "started")

    def start(self) -> int:
        """A calibration of the sender."""
        status, made = self.fabricator("POST", f"designs/{self.tank.pk}/calibrations", {"sender": "s"})
        self.assertEqual(status, 201, made)
        return int(made["id"])

    def over(self) -> None:
        """All pours are over."""
        Reading.objects.update(at=timezone.now() - timedelta(minutes=1))


class Calibrating(BenchTestCase):
    """Readings come in, a curve comes out."""

    def test_pours_are_simulated_and_say_so(self) -> None:
        """Live while it runs, one at a time, near what was calculated, marked for ever; closed takes no more."""
        made = self.start()
        for litres in (5.0, 20.0, 30.0):
            status, item = self.fabricator("POST", f"calibrations/{made}/pour", {"litres": litres})
            self.assertEqual(status, 200)
            self.assertGreater(item["live"]["left_s"], 0)
            self.refused(self.fabricator("POST", f"calibrations/{made}/pour", {"litres": 1.0}), 422, "pouring")
            self.over()
        _, item = self.viewer("GET", f"calibrations/{made}")
        self.assertIsNone(item["live"])
        self.assertAlmostEqual(item["readings"][-1]["litres"], 55.0, delta=0.6)
        self.assertTrue(all(reading["simulated"] for reading in item["readings"]) and item["simulated"])
        self.assertLess(abs(item["worst_l"]), 3.0)
        self.assertEqual(len(item["curve"]), 13)
        answer = self.viewer.client.get(f"/api/calibrations/{made}/curve.csv")
        rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
        self.assertEqual({row["source"] for row in rows}, {"simulated"})
        self.assertAlmostEqual(float(rows[0]["litres"]), item["curve"][0]["litres"], places=2)
        self.assertEqual(self.fabricator("POST", f"calibrations/{made}/close")[1]["closed"], True)
        self.refused(self.fabricator("POST", f"calibrations/{made}/pour", {"litres": 1.0}), 422, "closed")

    def test_the_curve_stays_with_the_revision_it_was_made_for(self) -> None:
        """Taking the sender out of the design later loses nothing."""
        made = self.start()
        self.fabricator("POST", f"calibrations/{made}/pour", {"litres": 5.0})
        design = self.tank.current().design().model_dump(mode="json") | {"gauge": {"senders": []}}
        saved = self.fabricator("PUT", f"designs/{self.tank.pk}", {"base_revision": 1, "design": design})
        self.assertEqual(saved[0], 200, saved)
        self.over()
        status, item = self.viewer("GET", f"calibrations/{made}")
        self.assertEqual((status, item["revision"], len(item["readings"])), (200, 1, 1))

    def test_an_instrument_needs_its_token(self) -> None:
        """None, a wrong one, the one before and one of a closed calibration send nothing."""
        made = self.start()
        token = self.fabricator("POST", f"calibrations/{made}/token")[1]["token"]

        def send(held: str | None, body: Any) -> tuple[int, Any]:
            headers = {"Authorization": f"Bearer {held}"} if held else {}
            answer = Client().post("/api/bench/readings", json.dumps(body), "application/json", headers=headers)
            return answer.status_code, answer.json()

        good = {"litres": 10.0, "ohms": 180.0}
        self.assertEqual(send(token, good)[0], 200)
        for held in (None, "guess", token + "x"):
            self.refused(send(held, good), 401, "signed_out")
        for bad in ({"litres": -1, "ohms": 3}, {"litres": "NaN", "ohms": 3}, {"litres": 1}, []):
            self.assertEqual(send(token, bad)[0], 422, bad)
        self.assertNotIn(token, Calibration.objects.get().token_hash)
        newer = self.fabricator("POST", f"calibrations/{made}/token")[1]["token"]
        self.assertEqual((send(token, good)[0], send(newer, good)[0]), (401, 200))
        self.fabricator("POST", f"calibrations/{made}/close")
        self.assertEqual(send(newer, good)[0], 401)
        self.assertEqual([r.simulated for r in Reading.objects.all()], [False, False])

    def test_readings_as_csv(self) -> None:
        """Good rows are kept; bad ones are named; what is no table is refused."""
        made = self.start()
        table = b"litres;ohms\r\n0;10\r\n10,5;25\r\nten;30\r\n20;-3\r\n30;60\r\n"
        status, item = self.fabricator("POST", f"calibrations/{made}/readings.csv", raw=table)
        self.assertEqual(status, 200)
        self.assertEqual([reading["litres"] for reading in item["readings"]], [0.0, 10.5, 30.0])
        self.assertEqual([problem["field"] for problem in item["problems"]], ["row 4, litres", "row 5, ohms"])
        self.assertFalse(item["simulated"])
        for bad in (b"\xff\xfe\x00", b"", b"litres\n1\n", b"\x00" * 50):
            self.assertEqual(self.fabricator("POST", f"calibrations/{made}/readings.csv", raw=bad)[0], 422, bad)

    def test_who_may(self) -> None:
        """Viewers look, strangers see nothing; a sender that isn't there is refused."""
        made = self.start()
        self.assertEqual(self.viewer("GET", f"designs/{self.tank.pk}/calibrations")[1][0]["id"], made)
        for path, body in ((f"calibrations/{made}/pour", {"litres": 1}), (f"calibrations/{made}/token", None)):
            self.assertEqual(self.viewer("POST", path, body)[0], 403)
            self.assertEqual(self.stranger("POST", path, body)[0], 404)
        self.assertEqual(self.stranger("GET", f"calibrations/{made}")[0], 404)
        self.assertEqual(self.stranger("GET", f"calibrations/{made}/curve.csv")[0], 404)
        answer = self.fabricator("POST", f"designs/{self.tank.pk}/calibrations", {"sender": "t"})
        self.refused(answer, 422, "invalid")


class Library(ApiTestCase):
    """The shop's pumps, parts and senders."""

    def test_out_and_in_again(self) -> None:
        """A file taken out gives back what went in."""
        library = {"pumps": PUMPS, "parts": PARTS, "senders": SENDERS}
        kept = self.owner("PUT", "workshop", {"base_version": self.workshop.version, "settings": library})
        self.assertEqual(kept[0], 200, kept)
        rules = Rules.model_validate(library).model_dump(mode="json")
        for what in library:
            status, content = self.viewer("GET", f"workshop/{what}.csv")
            self.assertEqual(status, 200)
            status, back = self.viewer("POST", f"workshop/{what}.csv", raw=content)
            self.assertEqual((status, back["problems"]), (200, []))
            if what == "parts":  # a table has no room for how a vent is led or which way a sleeve presses
                for part in (*back[what], *rules[what]):
                    for path in ("vent", "hanger"):
                        part[path] = part[path] and {k: v for k, v in part[path].items() if k.endswith("_mm")}
            self.assertEqual(back[what], rules[what])

    def test_good_rows_are_kept_and_bad_ones_named(self) -> None:
        """Row, column, value and limit."""
        pumps = (
            b"pump,voltage_v,kpa,l_per_h\nA,13.5,0,200\nA,13.5,300,150\n"
            b"B,13.5,0,200\nB,13.5,300,250\nC,13.5,0,\nC,13.5,x,3\n"
        )
        status, read = self.owner("POST", "workshop/pumps.csv", raw=pumps)
        self.assertEqual((status, [pump["name"] for pump in read["pumps"]]), (200, ["A"]))
        said = " ".join(problem["message"] for problem in read["problems"])
        for part in ("row 5", "pump B", "row 6, column l_per_h", "row 7, column kpa: “x”"):
            self.assertIn(part, said)
        parts = b"name,role,hole_mm,outer_mm\nboss,return,14,28\nodd,chimney,,\nwide,drain,40,30\n"
        _, read = self.owner("POST", "workshop/parts.csv", raw=parts)
        self.assertEqual([part["name"] for part in read["parts"]], ["boss"])
        self.assertEqual([p["field"] for p in read["problems"]], ["row 3, role", "row 4, hole_mm"])
        senders = (
            b"name,kind,ohms_empty,ohms_full,made_arm_mm,empty_rise_mm,full_rise_mm\n"
            b"ok,swing arm,240,33,120,-80,80\nno,swing arm,240,33,120,-80,130\nodd,balloon,240,33,,,\n"
        )
        _, read = self.owner("POST", "workshop/senders.csv", raw=senders)
        self.assertEqual([sender["name"] for sender in read["senders"]], ["ok"])
        self.assertEqual([p["field"] for p in read["problems"]], ["row 3, full_rise_mm", "row 4, kind"])
        for bad in (b"", b"\xff\xfe", b"name;nothing\n1;2\n", b'"' * 9000):
            for what in ("pumps", "parts", "senders"):
                self.assertEqual(self.owner("POST", f"workshop/{what}.csv", raw=bad)[0], 422, bad)


class Papers(BenchTestCase):
    """Templates, schedule, breakpoints, gauge face; the surge tank."""

    def test_papers_of_ports_and_gauge(self) -> None:
        """Each is there and starts as its kind does; what can't be made says why."""
        starts = {"ports.csv": b"port,", "port-p.dxf": b"  0", "port-p.pdf": b"%PDF"}
        starts |= {"gauge.csv": b"sender,", "gauge-face.pdf": b"%PDF"}
        for name, start in starts.items():
            answer = self.viewer.client.get(f"/api/designs/{self.tank.pk}/files/{name}")
            self.assertEqual(answer.status_code, 200, name)
            self.assertTrue(answer.content.startswith(start), (name, answer.content[:20]))
        bare = TankDesign.started(self.job, "Bare", Design.model_validate(BOX), None, "started")
        self.refused(self.viewer("GET", f"designs/{bare.pk}/files/gauge.csv"), 422, "no_sender")
        self.assertEqual(self.viewer("GET", f"designs/{bare.pk}/files/port-p.dxf")[0], 404)

    def test_a_surge_tank_of_its_own(self) -> None:
        """Made only with a dry spell and a demand; holds what was sized; linked both ways."""
        refused = self.fabricator("POST", f"designs/{self.tank.pk}/surge", {"name": "Surge"})
        self.assertEqual(refused[0], 422)
        brief = {
            "cases": [{"id": "c", "name": "Now", "measured_l_per_h": 90.0}],
            "surge": {"uncovered_s": 6.0},
        }
        main = TankDesign.started(self.job, "Fed", Design.model_validate(BOX | {"brief": brief}), None, "started")
        status, made = self.fabricator("POST", f"designs/{main.pk}/surge", {"name": "Surge"})
        self.assertEqual(status, 201, made)
        self.assertEqual(made["main"], {"id": main.pk, "name": "Fed"})
        _, back = self.viewer("GET", f"designs/{main.pk}")
        self.assertEqual([tank["id"] for tank in back["surge_tanks"]], [made["id"]])
        answer = self.viewer("POST", "evaluate", {"design": made["design"]})[1]
        wanted = 90 / 3600 * 6 * 1.2
        self.assertGreaterEqual(answer["shell"]["figures"]["rated_l"], wanted - 1e-6)
        self.assertLess(answer["shell"]["figures"]["rated_l"], wanted * 1.2)
        self.assertEqual(self.stranger("POST", f"designs/{main.pk}/surge", {"name": "S"})[0], 404)
