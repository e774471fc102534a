"""Leak tests over the API: begun, read from every source, ended, on paper; practice."""

from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.db import Error, transaction
from django.utils import timezone

from keel.design.proof import TestGauge
from keel.formats.pressures import pressures_csv
from keel.log.entries import ENTRY
from keel.log.proof_checks import why_not_begun
from keel.log.proof_entries import ProofBegun
from keel.log.state import build_state
from keel.studies.proof.rig import Rig, Surroundings, read
from server.demo.management.commands.load_demo import Command
from server.floor.build import log_of, traveller_of
from server.floor.leak_tests import plan_of
from server.floor.models import Pressures, SimulatedTank
from server.jobs.models import TankDesign
from server.tests.helpers import Api, ApiTestCase, paper_text
from server.tests.test_floor import Floor
from server.workshop.models import Workshop


class LeakTest(Floor):
    """A box with a test about to begin."""

    def setUp(self) -> None:
        """What it bears, and where its tests are."""
        super().setUp()
        plan = plan_of(self.tank)
        assert plan is not None
        self.cell = plan.cells[0]
        self.tests = f"designs/{self.tank.pk}/leak-tests"

    def begun(self, **more: Any) -> dict[str, Any]:
        """A test as it is begun, all as it should be."""
        known = {"method": "pressure decay", "pressure_kpa": self.cell.pressure_kpa, "limiter": "relief valve"}
        known |= {"limiter_kpa": self.cell.limiter_kpa, "minutes": 240.0, "gauge": {"name": "Bench gauge"}}
        return self.entry("proof begun", subject="tank") | known | more

    def begin(self, **more: Any) -> str:
        """Begin a test of a new tank; give its name."""
        entry = self.begun(**more)
        rows = self.write(self.entry("checked", subject="vapour", check="never held fuel"), entry)
        self.assertEqual([row["refused"] for row in rows], [None, None])
        return str(entry["id"])

    def end(self, proof: str, **more: Any) -> dict[str, Any]:
        """End it; give its round."""
        self.assertIsNone(self.write(self.entry("proof ended", of=proof, **more))[0]["refused"])
        return self.round(proof)

    def round(self, proof: str) -> dict[str, Any]:
        """One test as the build has it."""
        rounds = self.build()["state"]["proofs"][0]["rounds"]
        found: dict[str, Any] = next(one for one in rounds if one["begun"]["id"] == proof)
        return found

    def rig(self, leak: float, per_h: float = -1.0) -> Rig:
        """A tank as large as this one."""
        around = Surroundings(per_h_c=per_h)
        return Rig(self.cell.volume_l, self.cell.pressure_kpa, leak, around, TestGauge(), seed=5)

    def send(self, proof: str, content: bytes, who: Api | None = None) -> tuple[int, Any]:
        """A file of readings."""
        at = f"leak-tests/readings?design={self.tank.pk}&proof={proof}"
        return (who or self.fabricator)("POST", at, raw=content)


class Running(LeakTest):
    """From beginning to end."""

    def test_from_a_file(self) -> None:
        """Cooling air: the gauge alone would fail it; the verdict is written as it ends, a file gives it again."""
        proof = self.begin()
        status, answer = self.send(proof, pressures_csv(read(self.rig(0.0), 240)))
        self.assertEqual((status, answer["result"]["count"], answer["running"]), (200, 241, True))
        ended = self.end(proof)
        self.assertEqual((ended["verdict"], ended["ended"]["found"]["uncorrected_verdict"]), ("pass", "fail"))
        self.assertAlmostEqual(ended["begun"]["volume_l"], self.cell.volume_l)
        self.assertEqual(self.build()["state"]["proofs"][0]["standing"], "passed")
        _, out = self.viewer("GET", f"{self.tests}/{proof}/readings.csv")
        self.assertEqual(len(out.splitlines()), 242)
        self.refused(self.send(proof, out), 422, "ended")
        again = self.begin()
        self.send(again, out)
        self.assertEqual(self.end(again)["ended"]["found"]["digest"], ended["ended"]["found"]["digest"])

    def test_what_a_client_says_it_found_doesn_t_count(self) -> None:
        """The verdict is the workshop's: a made-up one is written over; so are volume and limit."""
        proof = self.begin(volume_l=1.0, limit_sccm=900.0, safe_kpa=900.0)
        self.send(proof, pressures_csv(read(self.rig(6.0), 240)))
        made_up = {"verdict": "pass", "readings": 2, "minutes": 999.0, "leak_sccm": 0.0, "uncertainty_sccm": 0.0}
        made_up |= {"uncorrected_sccm": 0.0, "uncorrected_verdict": "pass", "least_min": 1.0}
        made_up |= {"start_kpa": 5.0, "end_kpa": 5.0, "corrected_kpa": 5.0}
        ended = self.end(proof, found=made_up)
        self.assertEqual((ended["verdict"], ended["ended"]["found"]["readings"]), ("fail", 241))
        self.assertAlmostEqual(ended["begun"]["safe_kpa"], self.cell.safe_kpa)
        self.assertLess(ended["begun"]["limit_sccm"], 1.01)

    def test_by_hand(self) -> None:
        """Typed readings count with their minutes; with one there is no verdict."""
        proof = self.begin()
        row = {"pressure_kpa": self.cell.pressure_kpa, "temperature_c": 20.0, "barometer_kpa": 101.3}
        self.write(self.entry("gauge read", of=proof, minute=0.0, **row))
        _, answer = self.viewer("GET", f"{self.tests}/{proof}")
        self.assertEqual((answer["result"]["count"], answer["result"]["decay"]), (1, None))
        self.write(self.entry("gauge read", of=proof, minute=400.0, **row))
        self.assertEqual(self.end(proof)["verdict"], "pass")

    def test_by_instrument(self) -> None:
        """A token is good for its test alone, until that ends; a reading over what the tank bears says stop."""
        proof = self.begin()
        status, made = self.fabricator("POST", f"{self.tests}/{proof}/token")
        self.assertEqual(status, 200)
        gauge = Api()
        gauge.client.defaults["HTTP_AUTHORIZATION"] = f"Bearer {made['token']}"
        row = {"gauge_kpa": 4.0, "temperature_c": 20.0, "barometer_kpa": 101.3}
        status, taken = gauge("POST", "gauge/readings", {"readings": [row | {"minute": 0.0}, row | {"minute": 5.0}]})
        self.assertEqual((status, taken), (200, {"taken": 2, "stop": None}))
        high = row | {"gauge_kpa": self.cell.safe_kpa + 2.0}
        _, taken = gauge("POST", "gauge/readings", {"readings": [high | {"minute": 6.0}]})
        self.assertIn("Stop:", taken["stop"]["text"])
        odd = gauge("POST", "gauge/readings", {"readings": [row | {"barometer_kpa": 1013.0}]})
        fault = self.refused(odd, 422, "invalid")["errors"][0]
        self.assertEqual(fault["field"], "readings.0.barometer_kpa")
        self.assertIn("1013 hPa are 101.3 kPa", fault["message"])
        self.end(proof)
        self.refused(gauge("POST", "gauge/readings", {"readings": [row]}), 422, "ended")
        self.assertEqual(Api()("POST", "gauge/readings", {"readings": [row]})[0], 401)
        self.refused(self.fabricator("POST", f"{self.tests}/{proof}/token"), 422, "ended")

    def test_simulated(self) -> None:
        """The stand-in's minutes pass quickly, its readings are kept as the test ends, and it proves nothing."""
        proof = self.begin(simulated=True)
        at = f"{self.tests}/{proof}/simulate"
        status, _ = self.fabricator("POST", at, {"level": "still air", "leak_sccm": 0.0})
        self.assertEqual(status, 200)
        later = timezone.now() + timedelta(seconds=90)
        with patch("server.floor.leak_tests.timezone.now", return_value=later):
            _, answer = self.viewer("GET", f"{self.tests}/{proof}")
            self.assertEqual(answer["result"]["count"], 181)
            self.assertEqual(self.end(proof)["verdict"], "pass")
        self.assertEqual(Pressures.objects.get().source, "simulated")
        self.assertEqual(self.build()["state"]["proofs"][0]["standing"], "not tested")
        other = self.begin()
        self.refused(self.fabricator("POST", f"{self.tests}/{other}/simulate", {}), 422, "invalid")

    def test_leaks_and_repairs(self) -> None:
        """A leak is pinned on a seam that there is; its round stays, with its repair."""
        proof = self.begin(method="soap and low pressure", gauge=None, minutes=None)
        seam = self.build()["walk"][0]["id"]
        leak = self.entry("leak found", of=proof, subject=seam, at_mm=12.0, x_mm=1.0, y_mm=2.0, z_mm=3.0)
        nowhere = leak | {"id": "nowhere", "subject": "seat-attic"}
        said = [row["refused"] for row in self.write(nowhere, leak)]
        self.assertIn("has no seam", said[0])
        self.assertIsNone(said[1])
        self.assertEqual(self.end(proof)["verdict"], "fail")
        self.write(self.entry("leak repaired", of=leak["id"], how="ground out and welded"))
        self.assertEqual(self.round(proof)["leaks"][0]["repaired"]["how"], "ground out and welded")

    def test_refused(self) -> None:
        """A tank that may hold vapour, too high a pressure, an override of that gate, a viewer, a stranger."""
        self.assertIn("may hold vapour", self.write(self.begun())[0]["refused"])
        passed = self.entry("override", subject="vapour", name="Somebody", reason="no time")
        self.assertIn("nobody passes that gate unmet", self.write(passed)[0]["refused"])
        proof = self.begin()
        self.end(proof, stopped="hose came off")
        high = self.begun(pressure_kpa=self.cell.safe_kpa + 0.5)
        self.assertIn(f"bears {self.cell.safe_kpa:.3f} kPa", self.write(high)[0]["refused"])
        self.refused(self.send(proof, b"minute,gauge_kpa\n", self.viewer), 403, "role")
        self.refused(self.stranger("GET", f"{self.tests}/{proof}"), 404, "not_found")
        self.refused(self.viewer("GET", f"{self.tests}/nothing"), 404, "proof")

    def test_bad_files(self) -> None:
        """Rows that can't be are named and the others kept; a file without any is refused whole."""
        proof = self.begin()
        head = b"minute,gauge_kpa,temperature_c,barometer_kpa\n"
        status, answer = self.send(proof, head + b"0,4,20,101.3\n10,4,20,1013\n20,4,20,101.3\n")
        self.assertEqual((status, answer["result"]["count"]), (200, 2))
        self.assertIn("1013 hPa are 101.3 kPa", answer["problems"][0]["message"])
        self.assertEqual(self.send(proof, head + b"0,4,20,1013\n")[0], 422)
        self.assertEqual(self.send(proof, b"\xff\xfe\x00")[0], 422)

    def test_a_day_of_seconds(self) -> None:
        """It comes in whole, and only some of it goes out to be drawn."""
        proof = self.begin(minutes=1440.0)
        status, answer = self.send(proof, pressures_csv(read(self.rig(0.1, -0.1), 1440, 1.0)))
        self.assertEqual((status, answer["result"]["count"]), (200, 86_401))
        self.assertLessEqual(len(answer["result"]["curve"]["minute"]), 600)
        self.refused(self.send(proof, bytes(21_000_000)), 413, "too_large")

    def test_readings_stay(self) -> None:
        """The database refuses to change or remove them."""
        proof = self.begin()
        self.send(proof, pressures_csv(read(self.rig(0.0), 30)))
        kept = Pressures.objects.get()
        for spoil in (kept.save, kept.delete):
            with self.assertRaisesMessage(Error, "never changed"), transaction.atomic():
                spoil()

    def test_certificate(self) -> None:
        """It names method, instrument and calibration, figures, leaks; not passed, passed, void in large letters."""
        self.assertIn("NOT PASSED", self.paper())
        proof = self.begin(gauge={"name": "Bench gauge", "calibrated": "2026-05-18"})
        self.send(proof, pressures_csv(read(self.rig(0.0), 240)))
        self.end(proof)
        text = self.paper()
        for said in ("PASSED: every cell", "TIGHT", "calibrated 18 May 2026", "which would have been a fail", "digest"):
            self.assertIn(said, text)
        with patch("server.floor.log.timezone.now", return_value=timezone.now() + timedelta(hours=1)):
            self.write(self.entry("started", subject="seat:anything"))
        self.assertIn("TIGHT, VOID SINCE", self.paper())

    def test_certificate_of_a_leak(self) -> None:
        """Numbered, with its seam; not mended until it is; an inch reader reads inches and psi."""
        proof = self.begin(method="soap and low pressure", gauge=None, minutes=None, note="First walk")
        seam = self.build()["walk"][-1]
        leak = self.entry("leak found", of=proof, subject=seam["id"], at_mm=254.0, x_mm=1.0, y_mm=2.0, z_mm=3.0)
        self.write(leak)
        self.end(proof)
        text = self.paper()
        for said in (f"Leak 1: {seam['name']}, 254 mm along, slow bubbles", "NOT MENDED", "LEAKS", "First walk"):
            self.assertIn(said, text)
        self.write(self.entry("leak repaired", of=leak["id"], how="ground out and welded"))
        self.viewer("PATCH", "session/preferences", {"units": "in_usgal"})
        text = self.paper()
        for said in ('10" along', "ground out and welded", " psi", "not tested again yet"):
            self.assertIn(said, text)
        self.assertNotIn("kPa", text)

    def test_simulated_on_paper(self) -> None:
        """A round of the stand-in gauge says so in capitals, and nothing passes by it."""
        proof = self.begin(simulated=True)
        self.fabricator("POST", f"{self.tests}/{proof}/simulate", {"level": "still air", "leak_sccm": 0.0})
        self.end(proof)
        text = self.paper()
        self.assertIn("SIMULATED: readings of a stand-in gauge", text)
        self.assertIn("NOT PASSED", text)

    def paper(self) -> str:
        """Words of the certificate."""
        status, data = self.viewer("GET", f"designs/{self.tank.pk}/files/leak-test.pdf")
        self.assertEqual(status, 200, data)
        return " ".join(paper_text(data).split())


class Practice(LeakTest):
    """A tank to practise on."""

    def test_guessed(self) -> None:
        """What it hides comes out with the answer, once; nothing of it is in the log."""
        status, made = self.fabricator("POST", "practice/leak-tests", {"level": "still air", "design": self.tank.pk})
        self.assertEqual(status, 201, made)
        self.assertNotIn("leak_sccm", made)
        self.assertIsNone(made["lesson"])
        at = f"practice/leak-tests/{made['id']}"
        truth = SimulatedTank.objects.get().rig["leak_sccm"]
        with patch("server.floor.leak_test_api.timezone.now", return_value=timezone.now() + timedelta(seconds=60)):
            guess = {"leaks": truth > made["limit_sccm"], "leak_sccm": truth}
            status, answer = self.fabricator("POST", f"{at}/answer", guess)
        self.assertEqual(status, 200, answer)
        self.assertTrue(answer["lesson"]["was_near"])
        self.refused(self.fabricator("POST", f"{at}/answer", guess), 422, "answered")
        self.refused(self.stranger("GET", at), 404, "not_found")
        self.refused(self.viewer("POST", "practice/leak-tests", {}), 403, "role")
        self.assertEqual(log_of(self.job), [])


class Demo(ApiTestCase):
    """The made-up tests obey the rules that everybody's do."""

    def test_as_it_was_begun(self) -> None:
        """None of them could not have been begun; both tanks are proved in the end."""
        Command()._load(verbose=False)
        proved = []
        for tank in TankDesign.objects.filter(workshop=Workshop.objects.get(name="Saltmarsh Tank & Sheet")):
            log, traveller, plan = log_of(tank.job), traveller_of(tank), plan_of(tank)
            for n, one in enumerate(log):
                if isinstance(one.entry, ProofBegun):
                    assert plan is not None
                    before = build_state(traveller, log[:n], one.happened, tank.pk)
                    why = why_not_begun(one.entry, plan, before, tank.workshop.document().rules)
                    self.assertIsNone(why, why and why.plain())
                ENTRY.validate_python(one.entry.model_dump(mode="json"))
            now = build_state(traveller, log, timezone.now(), tank.pk).proofs
            proved += [tank.job.number for cell in now if cell.standing == "passed"]
        self.assertEqual(proved, [101, 106, 106])
