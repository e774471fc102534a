"""Rolled and round parts of a wall under test pressure: rings, balls and discs by hand, whichever way a hump points."""

from math import pi
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import HouseRules, Workshop
from keel.reference.metals import METALS
from keel.studies.proof.bearing import wall_panels
from keel.studies.proof.wall import TestPanel
from keel.tests.samples import box

E_GPA, NU = 200.0, 0.3
ALLOWED_MPA = HouseRules().stress_share * METALS["mild steel"].welded_yield_mpa


def panels(shell: dict[str, Any]) -> dict[str, TestPanel]:
    """All parts of a tank's wall by name."""
    tank = TankAnalysis(Asked(Design.model_validate({"shell": shell}), Workshop()))
    return {panel.name: panel for panel in wall_panels("petrol E10", tank.solids, tank.workshop.rules)}


def cylinder(**more: Any) -> dict[str, Any]:
    """A cylinder of mild steel."""
    whole = {"kind": "cylinder", "axis": "x", "diameter_mm": 400.0, "run_mm": 900.0, "thickness_mm": 2.0}
    return whole | {"metal": "mild steel"} | more


def baffle(at: float) -> dict[str, Any]:
    """A plate across, with a door."""
    door = {"at_mm": 100.0, "wide_mm": 60.0, "high_mm": 40.0}
    whole = {"kind": "baffle", "id": f"b{at:g}", "name": f"baffle {at:g}", "axis": "x", "at_mm": at}
    return whole | {"top_gap_mm": 0.0, "corner_mm": 0.0, "doors": [door]}


class Cylinders(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.floats(150, 900), st.floats(1, 6), st.floats(200, 2000))
    def test_a_wall_is_a_ring(self, across: float, thick: float, run: float) -> None:
        wall = panels(cylinder(diameter_mm=across, thickness_mm=thick, run_mm=run))["wall"]
        # p D L is what 2 t L of sheet hold.
        cut = 2 * thick * run * ALLOWED_MPA
        self.assertAlmostEqual(wall.safe_kpa / 1e3 * across * run, cut, delta=1e-6 * cut)
        self.assertLessEqual(wall.vacuum_kpa, wall.safe_kpa)

    @settings(max_examples=40, deadline=None)
    @given(st.floats(300, 600), st.floats(1, 3), st.floats(10, 120))
    def test_a_dish_is_a_ball(self, across: float, thick: float, dish: float) -> None:
        end = panels(cylinder(diameter_mm=across, thickness_mm=thick, dish_mm=dish))["front end"]
        # The cap's chord and rise give its ball: half a ball's ring holds p π R².
        slope = np.arctan2(dish, across / 2)
        ball = across / 2 / np.sin(2 * slope)
        held = 2 * pi * ball * thick * ALLOWED_MPA
        self.assertAlmostEqual(end.safe_kpa / 1e3 * pi * ball**2, held, delta=1e-6 * held)
        hump = 0.365 * E_GPA * 1e6 * (thick / ball) ** 2 / 3
        self.assertAlmostEqual(end.vacuum_kpa, min(hump, end.safe_kpa), delta=2e-2 * hump)

    def test_an_end_plate_is_a_disc_held_round_its_edge(self) -> None:
        for thick in (2.0, 4.0):
            ends = panels(cylinder(thickness_mm=thick))
            end = ends["front end"]
            # Between a free and a clamped edge, 3 (3 + ν)/8 and 3/4 of p r²/t².
            most, least = (ALLOWED_MPA * 1e3 * thick**2 / 200.0**2 / share for share in (0.75, 3 * (3 + NU) / 8))
            self.assertTrue(least - 1e-6 <= end.safe_kpa <= most + 1e-6, (least, end.safe_kpa, most))
            self.assertEqual(end.safe_kpa, end.vacuum_kpa)
            self.assertTrue(end.round)
            self.assertEqual(ends["rear end"].safe_kpa, end.safe_kpa)
            self.assertEqual((end.out.x, ends["rear end"].out.x), (1.0, -1.0))

    def test_plates_across_stiffen_it_against_vacuum_alone(self) -> None:
        bare = panels(cylinder())["wall"]
        braced = panels(cylinder(features=[baffle(300.0), baffle(600.0)]))["wall"]
        self.assertEqual(bare.safe_kpa, braced.safe_kpa)
        self.assertGreater(braced.vacuum_kpa, 2.5 * bare.vacuum_kpa)

    def test_a_short_tube_bears_more_vacuum_and_none_less_than_an_endless_one(self) -> None:
        found = [panels(cylinder(run_mm=run))["wall"].vacuum_kpa for run in (200.0, 400.0, 800.0, 1600.0, 8000.0)]
        self.assertEqual(found, sorted(found, reverse=True))
        endless = 2 * E_GPA * 1e6 / (1 - NU**2) * (2.0 / 400.0) ** 3 / 3
        self.assertGreater(found[-1], endless - 1e-9)


class Humps(TestCase):
    """Fuel round a well or a relief presses on its hump: inside pressure is for it what vacuum is for a wall."""

    def tank(self, **feature: Any) -> dict[str, TestPanel]:
        more = {"id": "f", "name": "thing"} | feature
        return panels(box().model_dump() | {"metal": "mild steel", "features": [more]})

    def test_a_round_well_and_a_round_sump_of_one_size(self) -> None:
        size = {"form": "round", "a_mm": 250.0, "b_mm": 100.0, "long_mm": 160.0, "wide_mm": 160.0, "deep_mm": 90.0}
        well = self.tank(kind="well", face="roof", **size)["thing, wall"]
        sump = self.tank(kind="sump", **size)["thing, wall"]
        self.assertAlmostEqual(well.safe_kpa, sump.vacuum_kpa)
        self.assertAlmostEqual(well.vacuum_kpa, sump.safe_kpa)
        self.assertLessEqual(well.safe_kpa, well.vacuum_kpa)

    def test_a_smaller_bottom_bears_more(self) -> None:
        found = []
        for slope in (0.0, 20.0, 40.0):
            size = {"form": "round", "a_mm": 250.0, "b_mm": 100.0, "long_mm": 160.0, "wide_mm": 160.0, "deep_mm": 90.0}
            found.append(self.tank(kind="sump", slope_mm=slope, **size)["thing, bottom"].safe_kpa)
        # A disc bears as the square of how much smaller it is.
        self.assertAlmostEqual(found[1] / found[0], (160.0 / 120.0) ** 2, places=6)
        self.assertAlmostEqual(found[2] / found[0], (160.0 / 80.0) ** 2, places=6)

    def test_a_tunnel_is_pressed_on_its_hump(self) -> None:
        tunnel = {"kind": "relief", "form": "x", "x_mm": -1.0, "y_mm": 100.0, "z_mm": -80.0}
        found = self.tank(length_mm=802.0, width_mm=160.0, height_mm=160.0, **tunnel)["thing"]
        self.assertLessEqual(found.safe_kpa, found.vacuum_kpa)
        ring = ALLOWED_MPA * 1e3 * 3.0 / 80.0
        self.assertAlmostEqual(found.vacuum_kpa, ring, delta=1e-6 * ring)
