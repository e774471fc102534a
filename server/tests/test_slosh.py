"""Slosh runs and laps over HTTP."""

import csv
import io
import json
from typing import Any
from urllib.parse import quote

import numpy as np
from pypdf import PdfReader

from keel.design.document import Design
from server.jobs.models import TankDesign
from server.slosh.models import Lap
from server.tests.helpers import BOX, ApiTestCase

PICKUP = {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 400.0, "y_mm": 300.0}
TURN = {"manoeuvre": {"kind": "corner to the left", "g": 1.0, "seconds": 5.0}, "fill": 0.1, "draw_l_per_h": 60.0}


def csv_of(columns: dict[str, Any], mark: str = ",") -> bytes:
    """A table of columns."""
    rows = zip(*columns.values(), strict=True)
    lines = [mark.join(columns), *(mark.join(str(cell) for cell in row) for row in rows)]
    return "\n".join(lines).encode()


def lap(hertz: float = 25.0, seconds: float = 20.0) -> dict[str, Any]:
    """A lap in m/s²: braking, then a left turn."""
    t = np.arange(0, seconds, 1 / hertz)
    return {
        "Time (s)": t.round(4).tolist(),
        "Accel X": np.where((t > 2) & (t < 6), -7.0, 0.0).tolist(),
        "Accel Y": np.where((t > 10) & (t < 16), 8.0, 0.0).tolist(),
        "Accel Z": np.full(len(t), 9.80665).tolist(),
        "Throttle %": np.full(len(t), 50).tolist(),
    }


CHOSEN = {
    "time": "Time (s)",
    "forward": "Accel X",
    "left": "Accel Y",
    "up": "Accel Z",
    "throttle": "Throttle %",
    "unit": "m/s²",
}


class Slosh(ApiTestCase):
    """Runs of what is on the screen."""

    def ask(self, what: str, **more: Any) -> tuple[int, Any]:
        """Post a design with a pickup and a setting."""
        design = BOX | {"ports": [PICKUP], "slosh": TURN} | more
        return self.viewer("POST", f"slosh/{what}", {"design": design})

    def keep(self, content: bytes, name: str = "Test lap", **columns: Any) -> tuple[int, Any]:
        """Send a lap."""
        query = f"name={quote(name)}&columns={quote(json.dumps(CHOSEN | columns))}"
        return self.fabricator("POST", f"laps?{query}", raw=content)

    def test_run_and_map(self) -> None:
        """A left turn empties the left side; the map agrees with it."""
        status, run = self.ask("run")
        self.assertEqual(status, 200, run)
        self.assertGreater(run["dry_s"], 3.0)
        self.assertEqual(len(run["planes"]), len(run["times_s"]))
        self.assertAlmostEqual(run["start_l"] - sum(run["held_l"][-1]), run["used_l"], delta=0.002)
        self.assertIn("plane", run["limits"]["text"])
        _, found = self.ask("map")
        g = found["g"][found["directions_deg"].index(90.0)][4]
        self.assertLess(g, 1.0)
        _, timed = self.ask("time-to-dry")
        self.assertEqual((len(timed["seconds"]), len(timed["seconds"][0])), (6, 7))
        for row in timed["seconds"]:
            known = [20.0 if seconds is None else seconds for seconds in row]
            self.assertLessEqual(known[0], known[-1])
        self.assertLess(timed["seconds"][-1][1], 2.0)

    def test_taken_away(self) -> None:
        """The saved design's run with its lap, and its dry spells, as on the screen."""
        design = Design.model_validate(BOX | {"ports": [PICKUP], "slosh": TURN})
        tank = TankDesign.started(self.job, "Turned", design, None, "started")
        _, run = self.ask("run")
        rows = list(csv.DictReader(io.StringIO(self.viewer("GET", f"designs/{tank.pk}/slosh/run.csv")[1].decode())))
        self.assertAlmostEqual(float(rows[-1]["tank_l"]), run["held_l"][-1][0], delta=0.01)
        self.assertEqual(len(rows), len(run["times_s"]))
        spells = self.viewer("GET", f"designs/{tank.pk}/slosh/dry-spells.csv")[1].decode().splitlines()
        self.assertEqual(len(spells) - 1, len(run["spells"]))
        page = PdfReader(io.BytesIO(self.viewer("GET", f"designs/{tank.pk}/slosh/run.pdf")[1]))
        words = page.pages[0].extract_text()
        self.assertEqual(len(page.pages), 1)
        for part in (f"{run['dry_s']:.2f} s in {len(run['spells'])} spells", "corner to the left", "revision 1"):
            self.assertIn(part, words)
        self.assertEqual(self.stranger("GET", f"designs/{tank.pk}/slosh/run.csv")[0], 404)

    def test_what_cannot_be_run(self) -> None:
        """No pickup, no draw, no shell, a lap of somebody else's, wrong figures: each says why."""
        self.refused(self.ask("run", ports=[]), 422, "no_pickup")
        self.refused(self.ask("run", shell=None), 422, "no_shell")
        self.refused(self.ask("time-to-dry", slosh=TURN | {"draw_l_per_h": 0.0}), 422, "invalid")
        self.refused(self.ask("run", slosh={"over": "kept lap", "kept_lap": 99}), 422, "invalid")
        unchosen = self.refused(self.ask("run", slosh={"over": "kept lap"}), 422, "invalid")
        self.assertIn("chosen yet", unchosen["message"])
        for wrong in ({"fill": 0}, {"manoeuvre": {"g": 9}}, {"draw_l_per_h": -1}, {"lap": "Nowhere"}):
            body = self.refused(self.ask("run", slosh=wrong), 422, "invalid")
            self.assertTrue(body["errors"][0]["field"].startswith("slosh."))

    def test_a_lap_from_a_logger(self) -> None:
        """Looked at, its columns chosen, kept, run; braking goes down, a left turn up; strangers don't see it."""
        content = csv_of(lap())
        _, look = self.fabricator("POST", "laps/look", raw=content)
        self.assertEqual(look["headings"], list(lap()))
        self.assertEqual((look["guess"]["time"], look["guess"]["forward"]), ("Time (s)", "Accel X"))
        query = f"laps/trace?columns={quote(json.dumps(CHOSEN))}"
        status, trace = self.fabricator("POST", query, raw=content)
        self.assertEqual((status, Lap.objects.count()), (200, 0))
        self.assertEqual(self.viewer("POST", query, raw=content)[0], 403)
        status, kept = self.keep(content)
        self.assertEqual((status, kept["notes"]), (201, []))
        self.assertEqual(trace, {name: kept[name] for name in trace})
        log = Lap.objects.get().log()
        self.assertAlmostEqual(float(log.forward_g[round(4 / 0.02)]), -7 / 9.80665, places=5)
        self.assertAlmostEqual(float(log.left_g[round(12 / 0.02)]), 8 / 9.80665, places=5)
        self.assertAlmostEqual(float(np.abs(log.up_g).max()), 0.0, places=5)
        self.assertEqual(float(log.throttle_fraction[0]), 0.5)
        status, run = self.ask("run", slosh=TURN | {"over": "kept lap", "kept_lap": kept["id"]})
        self.assertEqual(status, 200)
        inside = [s for s in run["spells"] if s["start_s"] <= 12 <= s["start_s"] + s["seconds"]]
        self.assertEqual(len(inside), 1, run["spells"])
        self.assertEqual(self.stranger("GET", "laps")[1], [])
        self.assertEqual(self.stranger("DELETE", f"laps/{kept['id']}")[0], 404)
        self.assertEqual(self.viewer("POST", "laps/look", raw=content)[0], 403)
        self.assertEqual(self.fabricator("DELETE", f"laps/{kept['id']}")[0], 204)

    def test_a_lap_with_its_fuel(self) -> None:
        """What was burnt is what is drawn; below zero is put right and said; too much is refused."""
        table = lap()
        count = len(table["Time (s)"])
        table["Fuel"] = [f"{v:.1f}" for v in np.where(np.arange(count) < 5, -10.0, 2000.0)]
        status, kept = self.keep(csv_of(table), fuel="Fuel", fuel_unit="cm³/min")
        self.assertEqual(status, 201, kept)
        self.assertIn("below zero in", " ".join(kept["notes"]))
        driven = TURN | {"over": "kept lap", "kept_lap": kept["id"], "draw_l_per_h": 0.0, "fill": 0.9}
        _, run = self.ask("run", slosh=driven)
        self.assertAlmostEqual(run["used_l"] + run["missed_l"], 120 * run["times_s"][-1] / 3600, delta=0.02)
        self.assertIn("its own fuel flow", run["notes"][0]["text"])
        body = self.refused(self.keep(csv_of(table | {"Fuel": ["9000"] * count}), fuel="Fuel"), 422, "invalid")
        self.assertEqual(body["errors"][0]["limit"], "5000 L/h")

    def test_a_lap_kept_long_ago(self) -> None:
        """Before a trace was called what it is now: it is read as it was."""
        self.keep(csv_of(lap()).strip())
        kept = Lap.objects.get()
        now = kept.log()
        with np.load(io.BytesIO(bytes(kept.samples))) as parts:
            older = {"use" if name == "throttle_fraction" else name: parts[name] for name in parts.files}
        stream = io.BytesIO()
        np.savez_compressed(stream, **older)
        kept.samples = stream.getvalue()
        kept.save()
        np.testing.assert_array_equal(Lap.objects.get().log().throttle_fraction, now.throttle_fraction)
        self.assertGreater(float(now.throttle_fraction.max()), 0.4)

    def test_several_laps(self) -> None:
        """One after the other, all of them again; a lap that isn't kept is named by its place; not for days."""
        _, first = self.keep(csv_of(lap()))
        _, other = self.keep(csv_of(lap()), left_flipped=True)
        driven = TURN | {"over": "kept lap", "kept_lap": first["id"], "then_laps": [other["id"]], "laps": 3}
        _, once = self.ask("run", slosh=driven | {"laps": 1, "then_laps": []})
        status, run = self.ask("run", slosh=driven)
        self.assertEqual(status, 200, run)
        self.assertAlmostEqual(run["times_s"][-1], 6 * once["times_s"][-1], delta=0.3)
        self.assertAlmostEqual(min(run["left_g"]), -max(run["left_g"]), places=3)
        wrong = self.refused(self.ask("run", slosh=driven | {"then_laps": [other["id"], 999]}), 422, "invalid")
        self.assertEqual(wrong["errors"][0]["field"], "slosh.then_laps.1")
        shipped = TURN | {"over": "shipped lap", "lap": "Dry Fork desert stage", "laps": 60}
        self.assertEqual(self.ask("run", slosh=shipped | {"laps": 2})[0], 200)
        self.assertEqual(self.ask("run", slosh=shipped | {"laps": 61})[0], 422)

    def test_more_than_the_pumps_give(self) -> None:
        """A draw above the pumps' flow is run, and said."""
        points = [{"kpa": kpa, "l_per_h": flow} for kpa, flow in ((0, 60.0), (300, 40.0), (400, 30.0))]
        pumps = [{"id": "p", "pump": {"name": "Small", "curves": [{"points": points}]}}]
        brief = {"cases": [{"id": "n", "name": "Now", "power_kw": 100.0, "rail_kpa": 300.0}], "pumps": pumps}
        _, run = self.ask("run", brief=brief, slosh=TURN | {"draw_l_per_h": 90.0})
        self.assertIn("they are too small", " ".join(note["text"] for note in run["notes"]))
        _, less = self.ask("run", brief=brief, slosh=TURN | {"draw_l_per_h": 30.0})
        self.assertEqual(less["notes"], [])

    def test_odd_laps_are_put_right_and_say_so(self) -> None:
        """Holes, words, times that fall back, semicolons with decimal commas, other signs."""
        table = lap()
        table["Accel X"][30], table["Accel Y"][31] = "nan", "--"
        table["Time (s)"][60] = table["Time (s)"][59]
        for name in table:
            del table[name][200:240]
        status, kept = self.keep(csv_of(table, ";").replace(b".", b","), left_flipped=True)
        self.assertEqual(status, 201, kept)
        said = " ".join(kept["notes"])
        for part in ("2 rows left out: a number", "1 row left out: their time", "1 gap bridged straight"):
            self.assertIn(part, said)
        self.assertLess(float(Lap.objects.get().log().left_g.min()), -0.8)
        _, kept = self.keep(csv_of(lap()), up="Accel X", forward="Accel Z")
        self.assertIn("is it the vertical one", " ".join(kept["notes"]))

    def test_what_is_no_lap(self) -> None:
        """1 Hz, angles, no such column, milliseconds as seconds, noise: refused with a reason."""
        slow, angles = lap(1.0), lap()
        angles["Accel Y"] = [v * 10 for v in angles["Accel Y"]]
        late = lap()
        late["Time (s)"] = [t * 1000 for t in late["Time (s)"]]
        still = lap()
        still["Time (s)"] = [0] * len(still["Time (s)"])
        for content, columns, said in (
            (csv_of(slow), {}, "1 samples a second"),
            (csv_of(angles), {}, "8.16 g"),
            (csv_of(lap()), {"left": "Accel Q"}, "no column"),
            (csv_of(late), {}, "milliseconds"),
            (csv_of(still), {}, "doesn't rise"),
            (b"\xff\xfe\x00", {}, "UTF-8"),
            (b"", {}, "heading"),
            (b"a,b\n1,2\n", {}, "no column"),
            (csv_of(lap()), {"unit": "furlongs"}, "columns"),
        ):
            status, body = self.keep(content, **columns)
            self.assertEqual(status, 422, body)
            self.assertIn(said, body["message"])
        self.assertEqual(self.keep(csv_of(late), time_unit="ms")[0], 201)
