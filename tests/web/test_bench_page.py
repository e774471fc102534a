"""A sender measured in its tank: poured by hand, by a table, by an instrument; kept beside what was calculated."""

import json
from typing import Any

from server.bench.models import Calibration, Reading
from server.workshop.models import Person
from tests.web.person import AtThePage

SHELL = {"length_mm": 806.0, "width_mm": 406.0, "height_mm": 306.0, "thickness_mm": 3.0, "bend_radius_mm": 6.0}
ARM = {"kind": "swing arm", "made_arm_mm": 120.0, "empty_deg": -45.0, "full_deg": 45.0}
SENDER = {"id": "s1", "name": "Arm 120", "action": ARM, "x_mm": 300.0, "y_mm": 200.0}


class Bench(AtThePage):
    """Measured by pouring."""

    document: dict[str, Any] = {"shell": SHELL, "gauge": {"senders": [SENDER, SENDER | {"id": "s2", "name": "Arm 90"}]}}
    drawn = False

    def test_poured_from_a_table(self) -> None:
        """Readings come in from CSV, a bad row is named; a note is kept; a reading taken out is out of the curve."""
        self.open_station("bench")
        self.type_into("Note", "level, E10")
        self.press("Start measuring Arm 120")
        self.until(lambda: Calibration.objects.count() == 1, "begun")
        rows = "litres,ohms\n0,240\n20,180\n40,130\nmuch,90\n60,80\n"
        self.until(lambda: self.do("given", "Import readings, CSV", "poured.csv", rows) or True, "given")
        self.until(lambda: Reading.objects.count() == 4, "the good ones")
        self.shows("row 5", "[data-problems]")
        self.assertEqual(Calibration.objects.get().note, "level, E10")
        self.assertEqual([r.litres for r in Reading.objects.order_by("litres")], [0.0, 20.0, 40.0, 60.0])

    def test_one_who_looks_pours_nothing(self) -> None:
        """A viewer sees the bench and can't start."""
        Person.objects.filter(pk=self.maker.pk).update(role="viewer")
        self.open(f"/designs/{self.tank.pk}/bench")
        self.until(lambda: "Start measuring" in self.text("aside"), "the panel")
        self.assertFalse(self.do("isEnabled", "Start measuring Arm 120", "aside"))

    def begin(self, name: str = "Arm 120") -> Calibration:
        """At the bench, a calibration begun."""
        self.open_station("bench")
        if name != "Arm 120":
            self.choose("Sender", name)
        self.press(f"Start measuring {name}")
        self.until(lambda: Calibration.objects.count() == 1, "begun")
        self.shows(f"{name}, against revision", "main")
        return Calibration.objects.get()

    def given(self, rows: str) -> None:
        """Readings from a table."""
        self.until(lambda: self.do("given", "Import readings, CSV", "poured.csv", "litres,ohms\n" + rows) or True)

    def calculated(self) -> list[tuple[float, float]]:
        """Ohms and litres of the needle's marks as calculated, from empty to full."""
        body = {"design": self.document, "showing": {"results": ["gauge"]}}
        answer = self.client.post("/api/evaluate", json.dumps(body), content_type="application/json").json()
        marks = answer["gauge"]["truth"]["readings"][0]["eighths"]
        return [(mark["ohms"], mark["litres"]) for mark in marks]

    def test_as_calculated(self) -> None:
        """Poured just as it was worked out it is off by nothing; five litres more all along and it is off by those."""
        self.begin()
        marks = self.calculated()
        self.given("".join(f"{litres:.4f},{ohms:.4f}\n" for ohms, litres in marks))
        self.shows("off by 0.00 L at the worst, 0.00 L in the mean square", "[data-fitted]")
        self.assertEqual(self.do("count", "[aria-label=Readings] tbody tr"), len(marks))

    def test_off_by_as_much_all_along(self) -> None:
        """Two litres more than calculated at every mark: off by two, at the worst and in the mean square."""
        self.begin()
        self.given("".join(f"{litres + 2:.4f},{ohms:.4f}\n" for ohms, litres in self.calculated()))
        self.shows("off by 2.00 L at the worst, 2.00 L in the mean square", "[data-fitted]")

    def test_two_readings_are_no_curve(self) -> None:
        """It says how many it takes, and can't be kept before; with a third it can, and then takes no more."""
        begun = self.begin()
        self.given("0,240\n40,130\n")
        self.shows("Three readings make a curve", "main")
        self.assertFalse(self.do("isEnabled", "Finish and keep", "main"))
        self.given("80,40\n")
        self.until(lambda: self.do("isEnabled", "Finish and keep", "main"), "three")
        self.press("Finish and keep")
        self.until(lambda: "Import readings, CSV" not in self.text("main"), "kept")
        begun.refresh_from_db()
        self.assertIsNotNone(begun.closed)
        self.shows("3 readings, kept", "aside")

    def test_a_simulated_meter_says_so(self) -> None:
        """What a stand-in pours is marked wherever it is shown."""
        self.begin()
        self.type_into("Pour", "7.5")
        self.press("Pour, simulated")
        self.shows("simulated meter", "main")
        self.until(lambda: "left" in self.text("main") or self.do("count", "[data-simulated]"), "pouring")
        self.assertFalse(self.do("isEnabled", "Pour, simulated", "main"), "one pour at a time")

    def test_an_instrument_sends_its_own(self) -> None:
        """With the token that is shown once it posts a reading, which is here without being asked for."""
        self.begin("Arm 90")
        self.assertEqual(Calibration.objects.get().sender, "s2")
        self.press("Connect an instrument")
        self.until(lambda: self.do("count", "[data-token]"), "the token")
        token = self.text("[data-token]").partition("Bearer ")[2].split(".")[0].split(" ")[0]
        sent = self.client.post(
            "/api/bench/readings",
            json.dumps({"litres": 12.5, "ohms": 201.0}),
            content_type="application/json",
            headers={"Authorization": f"Bearer {token}"},
        )
        self.assertEqual(sent.status_code, 200, sent.content)
        self.assertEqual([(r.litres, r.ohms) for r in Reading.objects.all()], [(12.5, 201.0)])
