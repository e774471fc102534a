"""Plates, shells and what stands on them against formulas out of books, worked here again; masses by their pieces."""

from itertools import pairwise
from math import pi, sqrt
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.reference.fuels import FUELS
from keel.reference.metals import METALS
from keel.studies.mount.full_mass import FULL_MASS, metal_middle
from keel.studies.mount.leaned_on import LEANED_ON
from keel.studies.strength.curved import dish_buckling_kpa, round_wall_buckling_kpa
from keel.studies.strength.patch_load import patch_stress
from keel.studies.strength.plate_bending import (
    large_deflection_mm,
    panel_deflection_mm,
    panel_stress_mpa,
    round_plate_deflection_mm,
    round_plate_stress_mpa,
)

NU, G0 = 0.3, 9.80665
SHELL = {
    "length_mm": 800.0, "width_mm": 400.0, "height_mm": 300.0, "thickness_mm": 2.0, "metal": "mild steel",
    "bend_radius_mm": 0.0,
}  # fmt: skip
CLAMPED = ("clamped",) * 4
SIMPLE = ("simply supported",) * 4


def analysed(shell: dict[str, Any], **more: Any) -> TankAnalysis:
    return TankAnalysis(Asked(Design.model_validate({"shell": shell} | more), Workshop()))


class Plates(TestCase):
    """Flat panels."""

    def test_square_plates(self) -> None:
        """Clamped: 0.308 q a²/t², 0.0138 q a⁴/(E t³); simply supported: 0.2874 and 0.0444."""
        q, a, t, e = 10.0, 300.0, 2.0, 210.0
        for held, beta, alpha in (("clamped", 0.3078, 0.0138), ("simply supported", 0.2874, 0.0444)):
            stress = panel_stress_mpa(q, a, a, t, held)  # type: ignore[arg-type]
            self.assertAlmostEqual(stress / (beta * q * 1e-3 * (a / t) ** 2), 1.0, delta=0.01)
            sags = panel_deflection_mm(q, a, a, t, e, held)  # type: ignore[arg-type]
            self.assertAlmostEqual(sags / (alpha * q * 1e-3 * a**4 / (e * 1e3 * t**3)), 1.0, delta=0.01)

    def test_a_long_plate_is_a_strip(self) -> None:
        """Far from its ends: clamped b²/2 t² at its edge, supported 3 b²/4 t² in its middle."""
        q, b, t = 10.0, 100.0, 2.0
        for held, share in (("clamped", 0.5), ("simply supported", 0.75)):
            stress = panel_stress_mpa(q, b, 40 * b, t, held)  # type: ignore[arg-type]
            self.assertAlmostEqual(stress / (share * q * 1e-3 * (b / t) ** 2), 1.0, delta=0.015)

    @given(st.floats(50, 900), st.floats(50, 900), st.floats(0.8, 6.0), st.floats(1.0, 60.0))
    def test_how_it_grows(self, first: float, second: float, thick: float, pressure: float) -> None:
        """With the pressure, with the square of its size over its thickness; the same whichever side is first."""
        stress = panel_stress_mpa(pressure, first, second, thick)
        self.assertAlmostEqual(panel_stress_mpa(3 * pressure, first, second, thick) / stress, 3.0)
        self.assertAlmostEqual(panel_stress_mpa(pressure, 2 * first, 2 * second, 2 * thick) / stress, 1.0)
        self.assertAlmostEqual(panel_stress_mpa(pressure, first, second, 2 * thick) / stress, 0.25)
        self.assertAlmostEqual(panel_stress_mpa(pressure, second, first, thick) / stress, 1.0)
        sags = panel_deflection_mm(pressure, first, second, thick, 70.0)
        self.assertAlmostEqual(panel_deflection_mm(pressure, first, second, thick, 210.0) / sags, 1 / 3)
        self.assertAlmostEqual(panel_deflection_mm(pressure, first, second, 2 * thick, 70.0) / sags, 1 / 8)

    def test_round_plates(self) -> None:
        """Clamped: 3/4 q R²/t² and 3 (1 − ν²) q R⁴/(16 E t³); supported: 1.2375 of it, and 4.077 times as deep."""
        q, r, t, e = 20.0, 150.0, 2.0, 70.0
        stress, sags = 0.75 * q * 1e-3 * (r / t) ** 2, 3 * (1 - NU**2) * q * 1e-3 * r**4 / (16 * e * 1e3 * t**3)
        self.assertAlmostEqual(round_plate_stress_mpa(q, r, t), stress)
        self.assertAlmostEqual(round_plate_deflection_mm(q, r, t, e), sags)
        supported = 3 * (3 + NU) / 8 * q * 1e-3 * (r / t) ** 2
        self.assertAlmostEqual(round_plate_stress_mpa(q, r, t, "simply supported"), supported)
        deeper = round_plate_deflection_mm(q, r, t, e, "simply supported") / sags
        self.assertAlmostEqual(deeper, (5 + NU) / (1 + NU))

    def test_a_deep_bow_stretches_the_plate(self) -> None:
        """Never deeper than small deflections say, hardly less while it bows little, and it only grows."""
        small = [0.02, 0.5, 1.0, 4.0, 20.0, 100.0]
        large = [large_deflection_mm(one, 2.0) for one in small]
        self.assertAlmostEqual(large[0] / small[0], 1.0, delta=1e-3)
        for (one, other), (less, more) in zip(pairwise(small), pairwise(large), strict=True):
            self.assertGreater(more, less)
            self.assertLess(more / other, less / one)


class Buckling(TestCase):
    """Rolled walls and dishes pressed from outside."""

    def test_a_rolled_wall(self) -> None:
        """600 mm round, 2 mm of steel, 900 mm long: the short tube's formula; 60 m long, an endless one's."""
        e, d, t = 210.0, 600.0, 2.0
        thin = t / d
        short = 2.42 * e * 1e6 * thin**2.5 / ((1 - NU**2) ** 0.75 * (900 / d - 0.45 * sqrt(thin)))
        self.assertAlmostEqual(round_wall_buckling_kpa(e, d, t, 900.0), short, delta=1e-6 * short)
        endless = 2 * e * 1e6 / (1 - NU**2) * thin**3
        self.assertAlmostEqual(round_wall_buckling_kpa(e, d, t, 60_000.0), endless, delta=1e-6 * endless)
        self.assertGreater(short, 5 * endless)

    @given(st.floats(100, 900), st.floats(0.8, 4.0), st.floats(50, 3000))
    def test_longer_thinner_softer_buckles_sooner(self, across: float, thick: float, long: float) -> None:
        """And never later than an endless tube of the same."""
        bears = round_wall_buckling_kpa(210.0, across, thick, long)
        self.assertLessEqual(round_wall_buckling_kpa(210.0, across, thick, 1.5 * long), bears)
        self.assertGreater(round_wall_buckling_kpa(210.0, across, 1.2 * thick, long), bears)
        self.assertAlmostEqual(round_wall_buckling_kpa(70.0, across, thick, long) * 3, bears, delta=1e-9 * bears)

    def test_a_dish(self) -> None:
        """0.365 E (t/R)²."""
        self.assertAlmostEqual(dish_buckling_kpa(70.0, 500.0, 2.0), 0.365 * 70e6 * (2 / 500) ** 2)


class Patches(TestCase):
    """A load on a small square."""

    def test_over_the_whole_panel_it_is_a_pressure(self) -> None:
        """A patch as large as a square panel: no less than what an even pressure does."""
        for edges, beta, alpha in ((CLAMPED, 0.3078, 0.0138), (SIMPLE, 0.2874, 0.0444)):
            made = patch_stress((300.0, 300.0), 2.0, edges, 900.0, 300.0, 210.0)  # type: ignore[arg-type]
            q = 900.0 / 300.0**2
            self.assertTrue(0.99 < made.stress_mpa / (beta * q * (300 / 2) ** 2) < 1.06)
            self.assertTrue(0.99 < made.deflection_mm / (alpha * q * 300**4 / (210e3 * 8)) < 1.07)
            self.assertTrue(0 <= made.along <= 1 and 0 <= made.up <= 1)

    def test_in_the_middle_of_a_supported_square(self) -> None:
        """A point there sags it by 0.1267 F a²/(E t³), held all round by 0.0611: a small patch by little less."""
        for edges, alpha in ((SIMPLE, 0.1267), (CLAMPED, 0.0611)):
            made = patch_stress((400.0, 400.0), 3.0, edges, 500.0, 20.0, 70.0)  # type: ignore[arg-type]
            self.assertAlmostEqual(made.deflection_mm / (alpha * 500 * 400**2 / (70e3 * 27)), 1.0, delta=0.04)

    def test_turned_by_a_quarter_it_is_the_same(self) -> None:
        """Sides and edges change places, and where it is worst with them."""
        edges = ("clamped", "simply supported", "clamped", "clamped")
        one = patch_stress((500.0, 300.0), 2.0, edges, 800.0, 80.0, 210.0)  # type: ignore[arg-type]
        turned = (*edges[2:], *edges[:2])
        other = patch_stress((300.0, 500.0), 2.0, turned, 800.0, 80.0, 210.0)  # type: ignore[arg-type]
        self.assertAlmostEqual(one.stress_mpa / other.stress_mpa, 1.0, delta=1e-6)
        self.assertAlmostEqual(one.deflection_mm / other.deflection_mm, 1.0, delta=1e-6)
        self.assertAlmostEqual(one.along, other.up, delta=1e-6)


class LeanedOn(TestCase):
    """Which panel, how much presses on it."""

    def test_somebody_steps_on_the_lid(self) -> None:
        """Suddenly: twice their weight, on the lid; the sheet it takes goes with the root of the stress."""
        tank = analysed(SHELL, mount={"stood_on_kg": 90.0})
        (found,) = tank[LEANED_ON]
        self.assertIn("lid", found.panel)
        self.assertAlmostEqual(found.load_n, 2 * 90 * G0, delta=1e-6)
        self.assertAlmostEqual(found.thickness_needed_mm, 2.0 * sqrt(found.stress_mpa / found.allowed_mpa))
        thicker = SHELL | {"thickness_mm": found.thickness_needed_mm}
        (enough,) = analysed(thicker, mount={"stood_on_kg": 90.0})[LEANED_ON]
        self.assertAlmostEqual(enough.stress_mpa / enough.allowed_mpa, 1.0, delta=0.03)

    def test_a_bracket_presses_at_the_edge_of_its_foot(self) -> None:
        """M g (1/2 + off/foot) on half its foot, at the side it is on, with the most g that counts."""
        for side in ("rear", "front", "left", "right"):
            bracket = {"id": "b", "name": "pump", "side": side, "kg": 3.0, "off_mm": 60.0, "foot_mm": 80.0}
            tank = analysed(SHELL, mount={"brackets": [bracket]})
            (found,) = tank[LEANED_ON]
            g = max(tank.workshop.rules.road_lengthwise_g, tank.workshop.rules.road_vertical_g,
                    tank.workshop.rules.road_sideways_g)  # fmt: skip
            self.assertAlmostEqual(found.load_n, 3.0 * G0 * g * (0.5 + 60 / 80), delta=1e-6)
            self.assertAlmostEqual(found.patch_mm, 40.0)
            self.assertTrue(side in found.panel or "end" in found.panel, found.panel)

    def test_a_baffle_halves_the_lid(self) -> None:
        """Welded under it: the same person bends it less."""
        plain = analysed(SHELL, mount={"stood_on_kg": 90.0})
        baffle = {"kind": "baffle", "id": "b", "name": "baffle", "at_mm": 400.0, "flange_mm": 15.0}
        helped = analysed(SHELL | {"features": [baffle]}, mount={"stood_on_kg": 90.0})
        self.assertLess(helped[LEANED_ON][0].stress_mpa, plain[LEANED_ON][0].stress_mpa)


class Masses(TestCase):
    """Full, and where its middle is."""

    def test_a_box_by_its_six_walls(self) -> None:
        """Each wall at its own middle; the fuel at half its depth."""
        tank = analysed(SHELL | {"x_mm": 30.0, "y_mm": -70.0, "z_mm": 15.0}, brief={"fuel": "petrol E10"})
        box, t = tank.solids.bounds, 2.0
        middle = [(low + high) / 2 for low, high in zip(box.low, box.high, strict=True)]
        self.assertTrue(np.allclose(metal_middle(tank.solids), middle, atol=1e-6))
        mass = tank[FULL_MASS]
        assert mass is not None
        inside = [size - 2 * t for size in box.size]
        litres = mass.fuel_kg / FUELS["petrol E10"].density_kg_per_l
        deep = litres * 1e6 / (inside[0] * inside[1])
        up = (mass.empty_kg * middle[2] + mass.fuel_kg * (box.low[2] + t + deep / 2)) / mass.kg
        self.assertAlmostEqual(mass.at.z, up, delta=0.05)
        self.assertAlmostEqual(mass.kg, mass.empty_kg + mass.fuel_kg)

    def test_a_partition_draws_the_middle_to_it(self) -> None:
        """By its own moment: volume of the plate times how far off the middle it stands."""
        tank = analysed(SHELL)
        plate = {"kind": "partition", "id": "p", "name": "wall", "at_mm": 200.0}
        split = analysed(SHELL | {"features": [plate]})
        wide, high = 400.0 - 4.0, 300.0 - 4.0
        added = wide * high * 2.0
        walls = 800 * 400 * 300 - 796 * 396 * 296
        moved = added * (201.0 - 400.0) / (walls + added)
        self.assertAlmostEqual(metal_middle(split.solids)[0] - metal_middle(tank.solids)[0], moved, delta=0.5)

    def test_more_on_it_is_more_mass(self) -> None:
        """What the mount says it weighs beyond metal and fuel lies where the metal does."""
        plain, laden = (analysed(SHELL, mount={"extra_kg": kg})[FULL_MASS] for kg in (0.0, 20.0))
        assert plain is not None
        assert laden is not None
        self.assertAlmostEqual(laden.kg - plain.kg, 20.0)
        up = (plain.kg * plain.at.z + 20.0 * 150.0) / laden.kg
        self.assertAlmostEqual(laden.at.z, up, delta=0.5)

    def test_metal_by_its_volume(self) -> None:
        """A closed cylinder: rings and discs times the density."""
        shell = {"kind": "cylinder", "diameter_mm": 300.0, "run_mm": 500.0, "axis": "z", "thickness_mm": 2.0,
                 "metal": "mild steel"}  # fmt: skip
        tank = analysed(shell)
        volume = pi / 4 * (300**2 * 500 - 296**2 * 496)
        density = METALS["mild steel"].density_kg_per_m3 * 1e-9
        self.assertAlmostEqual(tank.solids.metal_mm3 * density / (volume * density), 1.0, delta=0.002)
