"""Ways to hold a tank: each is fitted to it and bears its loads; masses and the favoured one by hand."""

import json
from math import pi
from typing import Any
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.stations.mount.holding_ways import HoldingWay, holding_ways
from keel.studies.mount.bolt_list import bolt_list
from keel.studies.mount.holding_mass import holding_kg
from keel.studies.mount.loads import MOUNT_LOADS
from keel.studies.mount.stop_places import STOP_PLACES
from keel.studies.mount.straps import STRAPS
from keel.tests.wild import Wild

MADE_OF: dict[str, Any] = {"thickness_mm": 2.0, "metal": "mild steel"}
BOX = MADE_OF | {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 300.0, "y_mm": -200.0}
ROUND = MADE_OF | {"kind": "cylinder", "diameter_mm": 300.0, "run_mm": 700.0, "axis": "x"}
STEEL = 7.85e-6
"""Kilograms a cubic millimetre."""


def analysed(document: dict[str, Any], workshop: Workshop | None = None) -> TankAnalysis:
    return TankAnalysis(Asked(read_design(json.dumps(document)), workshop or Workshop()))


def ways(document: dict[str, Any], workshop: Workshop | None = None) -> dict[str, HoldingWay]:
    return {way.title: way for way in holding_ways(analysed(document, workshop))}


def held_so(tank: TankAnalysis, way: HoldingWay) -> TankAnalysis:
    """The tank once a way is taken."""
    return tank.of(apply(tank.design, way.patch))


class EachHolds(TestCase):
    """Taken as it is offered, it does what it says."""

    def held_as_said(self, tank: TankAnalysis, way: HoldingWay) -> None:
        after = held_so(tank, way)
        loads, mount = after[MOUNT_LOADS], after.design.mount
        self.assertEqual([case.way for case in loads.cases if not case.is_held], way.unheld)
        links = [check.links[0].reserve for check in loads.mounts if check.links]
        self.assertEqual(way.reserve, min(links, default=None))
        self.assertEqual(way.bolts, sum(row.count for row in bolt_list(mount)))
        self.assertEqual(way.weld_mm, sum(foot.weld_mm for foot in mount.feet))
        self.assertGreaterEqual(way.kg, holding_kg(mount, after[STRAPS]) - 1e-9)
        for place in after[STOP_PLACES]:
            self.assertIsNotNone(place.gap_mm, place.id)

    def test_a_box_and_a_cylinder(self) -> None:
        """All six hold every way, with the house rule's reserve, on the road and in competition."""
        for shell in (BOX, ROUND):
            for use in ("road", "competition"):
                tank = analysed({"shell": shell, "mount": {"use": use}})
                found = holding_ways(tank)
                self.assertEqual(len(found), 6)
                for way in found:
                    with self.subTest(shell=shell, use=use, way=way.title):
                        self.held_as_said(tank, way)
                        self.assertEqual(way.unheld, [])
                        assert way.reserve is not None
                        self.assertGreaterEqual(way.reserve, tank.workshop.rules.mount_reserve)

    @settings(max_examples=12)
    @given(st.integers(0, 10_000))
    def test_any_tank(self, seed: int) -> None:
        """Whatever its shape: what is said of a way is so once it is taken, and no worse favoured one is there."""
        try:
            design = read_design(json.dumps(Wild(seed).document()))
            tank = TankAnalysis(Asked(design, Workshop()))
            found = holding_ways(tank)
        except (UnreadableDesignError, GeometryError, ValidationError):
            assume(False)
        for way in found:
            self.held_as_said(tank, way)
        favoured = [way for way in found if way.favoured]
        limit = tank.workshop.rules.mount_reserve
        able = [way for way in found if not (way.weld_mm or way.unheld or way.stop) and (way.reserve or 0) >= limit]
        self.assertEqual(bool(favoured), bool(able))
        for way in favoured:
            self.assertEqual(way.kg, min(other.kg for other in able))

    def test_a_saddle_tank_has_stops_where_its_ends_are(self) -> None:
        """Nothing of it is at the middle of its front: a stop at each quarter holds it forward."""
        corners = [(0, 0), (300, 0), (300, 220), (600, 220), (600, 0), (900, 0), (900, 400), (0, 400)]
        shell = {
            "kind": "profile", "wrap_axis": "x", "run_mm": 300.0, "thickness_mm": 2.0, "metal": "mild steel",
            "corners": [{"across_mm": float(a), "up_mm": float(b)} for a, b in corners],
        }  # fmt: skip
        tank = analysed({"shell": shell})
        way = next(way for way in holding_ways(tank) if way.title.startswith("Straps"))
        stops = held_so(tank, way).design.mount.stops
        self.assertEqual(sum(stop.side == "front" for stop in stops), 2)
        self.assertEqual(way.unheld, [])


class Figures(TestCase):
    """By hand."""

    def test_a_cage_holds_a_tank_down_that_would_tip(self) -> None:
        """Pushed above its stop, it lifts its tail against the rear bar as far as a strap there would hold it."""
        stop = {"id": "f", "name": "stop", "side": "front", "x_mm": 805.0, "y_mm": 0.0, "z_mm": 60.0, "pad_mm": 5.0}
        bar = {"id": "b", "name": "bar", "stands": "over", "at_mm": 200.0, "low_mm": -250.0, "high_mm": 250.0}
        tank = analysed({"shell": BOX, "mount": {"stops": [stop], "bearers": [bar]}})
        mass, found = tank[MOUNT_LOADS].mass, tank[MOUNT_LOADS]
        forward = next(case for case in found.cases if case.way == "forward")
        assert mass is not None
        self.assertTrue(forward.is_held)
        by = {held.holder: held.force_n for held in forward.by}
        tips = forward.load_n * (mass.at.z - 60.0)
        self.assertAlmostEqual(by["b"], tips / (tank.solids.bounds.high[0] - 200.0), delta=0.01 * by["b"])
        self.assertAlmostEqual(by["f"], forward.load_n, delta=1e-6 * forward.load_n)

    def test_what_it_weighs(self) -> None:
        """A strap, a stop, a foot with a plate, three bars: volumes of steel by hand."""
        low, high = ({"out_mm": out, "z_mm": -10.0} for out in (-230.0, 230.0))
        strap = {"id": "s", "name": "s", "at_mm": 400.0, "low": low, "high": high, "metal": "mild steel"}
        stop = {"id": "f", "name": "stop", "x_mm": 805.0, "y_mm": 0.0, "z_mm": 60.0}
        plate = {"long_mm": 100.0, "wide_mm": 80.0, "thickness_mm": 3.0}
        foot = {"id": "t", "name": "foot", "x_mm": 10.0, "y_mm": -220.0, "z_mm": 0.0, "structure": {"plate": plate}}
        bar = {"at_mm": 100.0, "low_mm": -250.0, "high_mm": 250.0, "outer_mm": 30.0, "wall_mm": 2.0}
        shapes = ("round tube", "square tube", "flat bar")
        bars = [bar | {"id": f"b{n}", "name": f"b{n}", "shape": shape} for n, shape in enumerate(shapes)]
        mount = {"straps": [strap], "stops": [stop], "feet": [foot], "bearers": bars}
        tank = analysed({"shell": BOX, "mount": mount})
        path = tank[STRAPS][0]
        areas = pi / 4 * (30**2 - 26**2), 30.0**2 - 26.0**2, 60.0
        by_hand = path.cut_mm * 30.0 * 1.5 + 60 * (2 * 25 + 50) * 5 + 60 * 40 * 5 + 100 * 80 * 3 + 500 * sum(areas)
        self.assertAlmostEqual(holding_kg(tank.design.mount, tank[STRAPS]), by_hand * STEEL, delta=0.002)

    def test_a_box_and_a_flange_are_made_of_sheet(self) -> None:
        """Six walls of 1.5 mm five millimetres off; two strips of the tank's own metal, 40 mm wide."""
        found = ways({"shell": BOX})
        long, wide, high = 810.0, 410.0, 310.0
        walls = 2 * (long * wide + wide * high + high * long) * 1.5 * STEEL
        feet = 4 * 60 * 40 * 5 * STEEL
        self.assertAlmostEqual(found["Box with a lid, bolted down"].kg, walls + feet, delta=0.01)
        flange = found["Flange bolted through"]
        self.assertAlmostEqual(flange.kg, (2 * 800 * 40 * 2.0 + 6 * 60 * 40 * 2.0) * STEEL, delta=0.01)
        self.assertAlmostEqual(flange.weld_mm, 1600.0)

    def test_a_round_tank_stands_on_no_edge(self) -> None:
        """It says so; what it can't be is never favoured."""
        found = ways({"shell": ROUND})
        self.assertIn("Saddles under it, bands over it", found)
        stop = found["Flange bolted through"].stop
        assert stop is not None
        self.assertIn("no edge", stop.plain())

    def test_more_g_takes_more(self) -> None:
        """Never fewer bolts and never less metal for competition than for the road."""
        road, race = (ways({"shell": BOX, "mount": {"use": use}}) for use in ("road", "competition"))
        for title, way in road.items():
            self.assertGreaterEqual(race[title].bolts, way.bolts, title)
            self.assertGreaterEqual(race[title].kg, way.kg - 1e-9, title)

    def test_it_knows_how_the_tank_is_held(self) -> None:
        """Once a way is taken it is marked, and no other is."""
        tank = analysed({"shell": BOX})
        way = holding_ways(tank)[1]
        again = holding_ways(held_so(tank, way))
        self.assertEqual([one.title for one in again if one.chosen], [way.title])

    def test_only_at_rest(self) -> None:
        """A drag isn't held up by it."""
        shown = evaluate(Design.model_validate({"shell": BOX}), Workshop(), Showing(remedies=False))
        self.assertIsNone(shown.mount.ways)  # type: ignore[attr-defined]
