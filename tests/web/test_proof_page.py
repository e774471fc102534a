"""The leak test at its station and at the bench: begun, read, walked, ended; practice; findings."""

import base64
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.utils import timezone

from keel.design.proof import TestGauge
from keel.formats.pressures import pressures_csv
from keel.studies.proof.rig import Rig, Surroundings, read
from server.floor.leak_tests import plan_of
from server.floor.models import LogEntry, SimulatedTank
from server.tests.helpers import person
from tests.web.test_build_page import VENT, AtTheBuild

TEST = "section[aria-label='Leak test of the tank']"
PANEL = "aside"


class AtTheProof(AtTheBuild):
    """A box with a vent, about to be tested."""

    document: dict[str, Any] = {"shell": {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0}, "ports": [VENT]}

    def proof(self) -> None:
        """At the station."""
        self.open_station("proof")
        self.until(lambda: self.do("count", TEST), "the test")

    def begin(self) -> None:
        """Say that the tank is new, and begin."""
        self.press("New: it never held fuel", TEST)
        self.until(lambda: not self.do("count", f"{TEST} [data-gate=vapour]"), "free of vapour")
        self.press("Tank is shut and at pressure: begin", TEST)
        self.until(lambda: self.do("count", f"{TEST} [data-round]"), "begun")

    def last(self) -> dict[str, Any]:
        """The latest entry."""
        found = LogEntry.objects.order_by("-n").first()
        assert found is not None
        document: dict[str, Any] = found.document
        return document


class Station(AtTheProof):
    """Curve, walk, verdict."""

    def test_read_from_a_file(self) -> None:
        """Cooling air on a tight tank: the curve's verdict against the gauge's, then the end, then the next round."""
        self.proof()
        self.shows("Weakest panel", PANEL)
        self.begin()
        cell = plan_of(self.tank)
        assert cell is not None
        one = cell.cells[0]
        rig = Rig(one.volume_l, one.pressure_kpa, 0.0, Surroundings(per_h_c=-1.0), TestGauge(), seed=5)
        content = base64.b64encode(pressures_csv(read(rig, 240))).decode()
        self.until(lambda: self.do("givenBytes", "Import readings, CSV", "r.csv", "text/csv", content) or True, "file")
        self.shows("Tight", TEST)
        self.shows("which would have been failed", TEST)
        self.press("End test", TEST)
        self.until(lambda: self.last()["kind"] == "proof ended", "ended")
        self.assertEqual(self.last()["found"]["verdict"], "pass")
        self.shows("Leak test passed")
        self.press("New test")
        self.until(lambda: self.do("count", f"{TEST} [data-begin=tank]"), "another")

    def test_by_hand_and_broken_off(self) -> None:
        """Three figures make a reading; a barometer in another unit is refused with the unit; broken off with a reason."""
        self.proof()
        self.begin()
        for label, text in (("Gauge", "4.2"), ("Air in the tank", "20"), ("Barometer", "101.3")):
            self.type_into(label, text, TEST)
        self.press("Record reading", TEST)
        self.until(lambda: self.last()["kind"] == "gauge read", "read")
        self.assertEqual((self.last()["pressure_kpa"], self.last()["barometer_kpa"]), (4.2, 101.3))
        self.press("Break off", TEST)
        self.type_into("Reason", "hose came off")
        self.press("Break off", "[role=dialog]")
        self.shows("Broken off: hose came off", TEST)

    def test_too_high(self) -> None:
        """A test pressure over what the tank bears comes up, and its remedy puts it right."""
        self.proof()
        self.type_into("Test pressure", "15", PANEL)
        self.shows("limit", PANEL)
        self.shows("Test pressure of the tank 15.000 kPa", PANEL)

    def test_practice(self) -> None:
        """Watch, guess, be told; nothing of it is in the log."""
        self.proof()
        self.press("Practise")
        self.press("Shut the tank", TEST)
        self.until(lambda: SimulatedTank.objects.count(), "shut")
        later = timezone.now() + timedelta(seconds=100)
        with patch("server.floor.leak_test_api.timezone.now", return_value=later):
            self.shows("the gauge shows", TEST)
            self.type_into("Its leak, your guess", "9", TEST)
            self.press("It leaks", TEST)
            self.until(lambda: self.do("count", f"{TEST} [data-lesson]"), "taught")
        self.shows("Your guess was", TEST)
        self.assertEqual(LogEntry.objects.count(), 0)

    def test_looked_at(self) -> None:
        """A viewer sees what holds and begins nothing."""
        self.sign_in(person("looker", "viewer", self.maker.workshop))
        self.open(f"/designs/{self.tank.pk}/proof")
        self.shows("Not tested yet", TEST)
        self.assertEqual(self.do("count", f"{TEST} [data-begin]"), 0)


class AtTheBench(AtTheProof):
    """The soap walk."""

    def test_the_walk(self) -> None:
        """Seam by seam in order; a leak is pinned with its size and mended; unwalked seams are said."""
        self.open(f"/floor/{self.job.number}?design={self.tank.pk}")
        self.press("All steps")
        self.do("clicked", "[data-line='prove:tank']")
        self.press("New: it never held fuel", TEST)
        self.choose("Method", "soap and low pressure", TEST)
        self.press("Tank is shut and at pressure: begin", TEST)
        self.shows("1. vent, boss", TEST)
        self.until(lambda: self.do("count", f"{TEST} [data-sketch=seat-vent]"), "drawn")
        self.press("Walked to its end", TEST)
        self.shows("2. closing seam", TEST)
        self.press("Leak at 0 mm", TEST)
        self.press("quick bubbles", TEST)
        self.until(lambda: self.last()["kind"] == "leak found", "pinned")
        self.assertEqual((self.last()["subject"], self.last()["size"]), ("closing-seam", "quick bubbles"))
        self.shows("1 of 4 seams walked, 1 leak", TEST)
        self.press("End test", TEST)
        self.shows("Leaks", TEST)
        self.press("Record its repair", TEST)
        self.type_into("What was done", "ground out, welded")
        self.press("Record repair", "[role=dialog]")
        self.shows("ground out, welded", TEST)
        self.shows("mended, not tested again yet", TEST)
