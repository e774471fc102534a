"""Tabs of plates and the slots in the shell that they go through."""

from itertools import combinations
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from keel.analysis.tank import TankAnalysis
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.formats.document import UnreadableDesignError
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.studies.sheet.tabs import TABS
from keel.tests.test_let_in import metal, tank

PLATE = {"kind": "baffle", "id": "b", "name": "baffle", "at_mm": 200, "tabs": {"wide_mm": 20, "pitch_mm": 120}}
PLATE |= {"notches": [{"at_mm": 200, "wide_mm": 60, "high_mm": 30}]}
ALONG = {"kind": "partition", "id": "p", "name": "partition", "axis": "y", "at_mm": 150, "tabs": PLATE["tabs"]}
PORT = {"id": "o", "name": "outlet", "role": "spare", "x_mm": 201, "y_mm": 95, "face": "roof"}
PORT |= {"seat": {"hole_mm": 40, "outer_mm": 70}}
SCHEMES = ("wrapper and pans", "wrapper and flat ends", "two U's", "tray and lid", "flat plates")


class Slots(TestCase):
    """A box of 600 × 400 × 300 of 3 mm."""

    def assert_goes_through(self, made: TankAnalysis) -> None:
        """No tab touches its slot, and none stands out of the shell."""
        solids = {part.name: metal(part) for part in made[FLATS].parts}
        outer = made[BARE_SOLIDS].outer
        for (name, one), (other, two) in combinations(solids.items(), 2):
            if name.startswith("inside-") or other.startswith("inside-"):
                self.assertLess(sum((a ^ b).volume() for a in one for b in two), 1e-3, (name, other))
        for name in solids:
            if name.startswith("inside-"):
                # Room over bends is cut to chords: a corner may stand out by as little.
                self.assertLess(sum((a - outer).volume() for a in solids[name]), 30.0)

    def test_through_every_scheme(self) -> None:
        """Nine tabs of a baffle, none where the wrapper closes; fourteen of a partition; each has its own slot."""
        for scheme in SCHEMES:
            for plate, count in ((PLATE, 8 if scheme.startswith("wrapper") else 9), (ALONG, 14)):
                made = tank(plate, scheme=scheme)
                self.assertEqual(len(made[TABS]), count, scheme)
                holes = sum(len(part.holes) * part.quantity for part in made[FLATS].parts if not part.feature)
                self.assertEqual(holes, count, scheme)
                self.assert_goes_through(made)

    def test_sizes(self) -> None:
        """As long as from the gap to the outside, slots as much larger as the gap; flanges there are none."""
        made = tank(PLATE, scheme="wrapper and pans")
        (plate,) = (part for part in made[FLATS].parts if part.feature)
        self.assertEqual((plate.length_mm, plate.width_mm, plate.bends), (400, 300, []))
        gap = made.workshop.rules.pan_gap_mm
        for part in made[FLATS].parts:
            for ring in (Polygon(ring) for ring in part.holes):
                self.assertAlmostEqual(ring.area, (20 + 2 * gap) * (3 + 2 * gap), delta=0.01)

    @settings(max_examples=15, deadline=None)
    @given(st.floats(60, 500), st.floats(8, 40), st.floats(81, 300), st.sampled_from(SCHEMES), st.sampled_from("xy"))
    def test_anywhere(self, at: float, wide: float, pitch: float, scheme: str, axis: str) -> None:
        """Wherever a plate stands its tabs go through, each slot a strip off every bend and edge."""
        at = min(at, 330.0) if axis == "y" else at
        made = tank(ALONG | {"axis": axis, "at_mm": at, "tabs": {"wide_mm": wide, "pitch_mm": pitch}}, scheme=scheme)
        self.assert_goes_through(made)
        land = made.workshop.rules.land_mm
        for part in made[FLATS].parts:
            for ring in () if part.feature else part.holes:
                slot = Polygon(ring)
                self.assertGreater(Polygon(part.outline).exterior.distance(slot), land - 0.01)

    def test_what_is_near(self) -> None:
        """A port or another plate's slot too near is a stop that names both; without tabs it goes."""
        beside = PLATE | {"id": "q", "name": "second", "at_mm": 216}
        for more, other in (({"ports": [PORT]}, "outlet"), ({}, "that for the second")):
            features = (PLATE, beside) if not more else (PLATE,)
            design = tank(*features, scheme="wrapper and pans", **more).design
            stop = next(one for one in evaluate(design).findings if one.code == "tabs.near")
            self.assertEqual(stop.title.values["other"], other)
            (remedy,) = stop.remedies
            self.assertNotIn("tabs.near", {one.code for one in evaluate(apply(design, remedy.patch)).findings})

    def test_each_is_a_seam(self) -> None:
        """The count is said; a plate none of whose edges takes one is told so."""
        for plate, count in ((PLATE, 9), (PLATE | {"tabs": {"wide_mm": 150, "pitch_mm": 400}}, 0)):
            (said,) = (one for one in evaluate(tank(plate).design).findings if one.code == "tabs.seams")
            self.assertEqual((said.title.values["count"], said.severity), (count, "note" if count else "caution"))

    def test_overlapping(self) -> None:
        """Tabs that leave less than themselves between them are refused by name."""
        with self.assertRaises(UnreadableDesignError) as refused:
            tank(PLATE | {"tabs": {"wide_mm": 40, "pitch_mm": 60}})
        self.assertIn("at least 80", str(refused.exception.faults))

    def test_crossed(self) -> None:
        """Where a baffle is lapped with another it has no tab."""
        other: dict[str, Any] = PLATE | {"id": "c", "name": "crossing", "axis": "y", "at_mm": 95, "tabs": None}
        made = tank(PLATE, other, scheme="wrapper and pans")
        places = np.array([tab.at[1] for tab in made[TABS] if tab.at[2] > 150])
        self.assertTrue(len(places) and np.all(np.abs(places - 96.5) > 20))
