"""A leak test's plan by hand: how long, how deep, how heavy to hold down, what bars bring; methods; practice."""

from math import sqrt
from random import Random
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from keel.analysis.tank import TankAnalysis
from keel.design.proof import TestGauge
from keel.design.workshop import Workshop
from keel.reference.metals import METALS
from keel.studies.proof.decay import LeakTest, PressureReading, Resolution, judge, least_minutes
from keel.studies.proof.methods import METHODS, MethodFigures
from keel.studies.proof.plan import PROOF_PLAN, CellPlan
from keel.studies.proof.practice import LEVELS, hidden_rig
from keel.studies.proof.rig import Rig, Surroundings, happened, misled, read
from keel.studies.proof.walk import WALK
from keel.studies.strength.plate_bending import panel_stress_mpa
from keel.tests.test_proof_plan import WALL, tank

G0 = 9.80665
BOX: dict[str, Any] = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 300.0, "bend_radius_mm": 0.0}
BOX |= {"metal": "mild steel", "thickness_mm": 2.0}
BAROMETER = 101.325


def cells(made: TankAnalysis) -> list[CellPlan]:
    return made[PROOF_PLAN].cells


def compared(made: TankAnalysis) -> dict[str, MethodFigures]:
    return {one.method: one for one in made[METHODS]}


class UnderWater(TestCase):
    """What holds it down, and how deep it may go."""

    def test_it_floats_by_what_it_displaces_less_its_metal(self) -> None:
        """800 by 400 by 300 of 2 mm steel: 96 L of water less 2 mm all round."""
        metal = (800 * 400 * 300 - 796 * 396 * 296) * METALS["mild steel"].density_kg_per_m3 * 1e-9
        (cell,) = cells(tank(BOX))
        self.assertAlmostEqual(cell.hold_down_n, (96.0 * 0.998 - metal) * G0, delta=3.0)

    def test_no_deeper_than_its_pressure(self) -> None:
        """At p kPa air still comes out p/9.79 m down; twice the pressure twice as deep."""
        for pressure in (6.0, 12.0):
            (cell,) = cells(tank(BOX | {"thickness_mm": 4.0}, proof={"pressure_kpa": pressure}))
            self.assertAlmostEqual(cell.deepest_mm, pressure / (0.998 * G0) * 1000, delta=0.03 * cell.deepest_mm)
            self.assertAlmostEqual(cell.column_mm, cell.limiter_kpa / (0.998 * G0) * 1000, delta=0.01 * cell.column_mm)


class Bars(TestCase):
    """A bar across the weakest panel halves its longer side."""

    def test_the_first_bar(self) -> None:
        """What is then weakest bears what the plate formula says of a half, or what the next panel bears."""
        (cell,) = cells(tank(BOX | {"thickness_mm": 1.5}, proof={"pressure_kpa": 3.0}))
        first, second = cell.panels[0], cell.panels[1]
        self.assertTrue(cell.braced)
        bar = cell.braced[0]
        self.assertEqual(bar.panel, first.name)
        long, short = max(first.first_mm, first.second_mm), min(first.first_mm, first.second_mm)
        self.assertAlmostEqual(bar.long_mm, short)
        held = tuple(edge.held for edge in first.edges)
        along = held if first.first_mm >= first.second_mm else (*held[2:], *held[:2])
        halves = []
        for edges in ((along[0], "clamped", *along[2:]), ("clamped", along[1], *along[2:])):
            stress = panel_stress_mpa(1.0, long / 2, short, first.thickness_mm, edges)
            whole = panel_stress_mpa(1.0, long, short, first.thickness_mm, along)
            halves.append(first.safe_kpa * whole / stress)
        best = min(halves)
        self.assertAlmostEqual(bar.safe_kpa, min(cell.cap_kpa, best, second.safe_kpa), delta=0.02 * bar.safe_kpa)
        self.assertGreaterEqual(bar.safe_kpa, first.safe_kpa)

    def test_each_bar_brings_more_or_as_much(self) -> None:
        """Never less than the one before it, never more than the workshop's cap."""
        (cell,) = cells(tank(BOX | {"thickness_mm": 1.0}, proof={"pressure_kpa": 2.0}))
        found = [cell.safe_kpa, *(bar.safe_kpa for bar in cell.braced)]
        self.assertEqual(found, sorted(found))
        self.assertLessEqual(found[-1], cell.cap_kpa)


class Minutes(TestCase):
    """How long readings have to last."""

    @given(st.floats(5, 300), st.floats(3, 60), st.floats(0.5, 20), st.floats(0.001, 0.1), st.floats(0.05, 0.5))
    def test_both_rules(self, litres: float, gauge: float, limit: float, digit: float, kelvin: float) -> None:
        """K V r/(p limit); and 2 u of one minute over the limit, from each reading's last digit."""
        test = LeakTest(litres, limit, Resolution(digit, kelvin, 0.0), 3.0)
        start = PressureReading(0.0, gauge, 20.0, BAROMETER)
        found = least_minutes(start, test)
        volume = litres * 1000
        self.assertAlmostEqual(found.by_gauge / (3 * volume * digit / (BAROMETER * limit)), 1.0, delta=1e-9)
        gauge_u = digit / sqrt(12)
        kelvin_u = (gauge + BAROMETER) * kelvin / sqrt(12) / 293.15
        spread = volume / BAROMETER * sqrt(2 * gauge_u**2 + 2 * kelvin_u**2)
        self.assertAlmostEqual(found.by_uncertainty / (2 * spread / limit), 1.0, delta=1e-6)
        self.assertEqual(found.both, max(found.by_gauge, found.by_uncertainty))

    @given(st.floats(1.1, 10.0), st.floats(0.05, 0.5))
    def test_twice_as_long_is_half_as_open(self, times: float, leak: float) -> None:
        """What instruments leave open falls with the minutes; the leak said is the one that was."""
        test = LeakTest(60.0, 3.0, Resolution(0.01, 0.1, 0.01), 3.0)
        start = PressureReading(0.0, 20.0, 20.0, BAROMETER)
        found = []
        for minutes in (200.0, 200.0 * times):
            lost = leak * minutes * BAROMETER / 60_000
            found.append(judge(start, PressureReading(minutes, 20.0 - lost, 20.0, BAROMETER), test))
        for one in found:
            self.assertAlmostEqual(one.leak_sccm, leak, delta=1e-6)
        self.assertAlmostEqual(found[0].uncertainty_sccm / found[1].uncertainty_sccm, times, delta=0.04 * times)


class Methods(TestCase):
    """Side by side, for two cells."""

    def setUp(self) -> None:
        """A tank with a wall in it."""
        self.tank = tank(BOX | {"features": [WALL]})
        self.found, self.cells = compared(self.tank), cells(self.tank)
        self.assertEqual(len(self.cells), 2)

    def test_decay_takes_both_cells_one_after_the_other(self) -> None:
        """Each no shorter than it must; what it shows is the cell that is left most open."""
        decay = self.found["pressure decay"]
        wanted = sum(max(cell.minutes, cell.least_min.both) for cell in self.cells)
        self.assertAlmostEqual(decay.minutes, wanted)
        shown = max(cell.limit_sccm * cell.least_min.by_uncertainty / cell.minutes for cell in self.cells)
        self.assertAlmostEqual(decay.smallest_sccm or 0.0, shown)

    def test_soap_walks_every_seam_of_every_cell(self) -> None:
        """The wall's seams are walked from both cells; minutes by the metre."""
        seams = self.tank[WALK]
        metres = sum(seam.length_mm * len(seam.cells) for seam in seams) / 1000
        plain = tank(BOX)
        alone = sum(seam.length_mm for seam in plain[WALK]) / 1000
        self.assertGreater(metres, alone)
        soap = self.found["soap and low pressure"]
        per_m = compared(plain)["soap and low pressure"].minutes / alone
        self.assertAlmostEqual(soap.minutes / metres, per_m)

    def test_in_water_the_shallower_cell_counts(self) -> None:
        """One pressure in each; once a cell is held under."""
        water = self.found["submerged"]
        rules = self.tank.workshop.rules
        self.assertAlmostEqual(water.minutes, 2 * rules.submerged_min)
        said = water.misses.values
        self.assertAlmostEqual(float(said["deep_mm"]), min(cell.deepest_mm for cell in self.cells))
        self.assertAlmostEqual(float(said["lift_n"]), self.cells[0].hold_down_n)

    def test_what_decides_within_a_day_is_favoured(self) -> None:
        """A fine gauge makes decay first; one that reads to half a kilopascal doesn't."""
        fine = {"test_gauges": [TestGauge(name="fine", resolution_kpa=0.001).model_dump()]}
        coarse = {"test_gauges": [TestGauge(name="coarse", resolution_kpa=2.0).model_dump()]}
        for shop, is_first in ((fine, True), (coarse, False)):
            workshop = Workshop.model_validate(shop)
            made = tank(BOX, workshop, proof={"gauge": shop["test_gauges"][0]["name"]})
            found = compared(made)
            longest = max(cell.least_min.both for cell in cells(made))
            self.assertEqual(longest <= 480, is_first)
            self.assertEqual(found["pressure decay"].is_favoured, is_first)
            self.assertEqual(sum(one.is_favoured for one in found.values()), 1)


class Practice(TestCase):
    """Hidden leaks, and what misled."""

    def test_what_is_hidden_lies_within_what_is_promised(self) -> None:
        """Tight two times in five; else from a fifth to six times the limit's unit; harder levels move more."""
        tight = 0
        for seed in range(400):
            for level in LEVELS:
                rig = hidden_rig(level, 60.0, 20.0, TestGauge(), seed)
                around = rig.surroundings
                self.assertTrue(14 <= around.start_c <= 26 and 98.5 <= around.barometer_kpa <= 102.8)
                leak = rig.leak_sccm
                self.assertTrue(leak == 0 or 0.2 <= leak <= 0.8 or 1.3 <= leak <= 6.0, leak)
                easy, hard = level == LEVELS[0], level == LEVELS[-1]
                self.assertTrue(abs(around.per_h_c) == 0 if easy else 0.6 <= abs(around.per_h_c) <= 2.0)
                self.assertTrue(3 <= around.sun_c <= 9 if hard else around.sun_c == 0)
                self.assertTrue(abs(rig.drift_per_h_kpa) <= (0.02 if hard else 0.0))
                self.assertFalse(rig.on_shell and not hard)
            tight += leak == 0
        self.assertAlmostEqual(tight / 400, 0.4, delta=0.08)

    @given(st.integers(0, 10_000))
    def test_what_misled_adds_up_to_what_the_gauge_did(self, seed: int) -> None:
        """Leak, temperature, barometer and the gauge's own drift together are the fall that was read."""
        dice = Random(seed)
        around = Surroundings(
            start_c=20.0, per_h_c=dice.uniform(-2, 2), barometer_kpa=100.0, barometer_per_h_kpa=dice.uniform(-0.1, 0.1)
        )
        drift = dice.uniform(-0.02, 0.02)
        rig = Rig(60.0, 20.0, dice.uniform(0, 5), around, TestGauge(), drift_per_h_kpa=drift, seed=seed)
        truth = happened(rig, 180)
        test = LeakTest(60.0, 3.0, Resolution(0.001, 0.01, 0.001), 3.0)
        told = misled(rig, truth, test)
        fell = (truth.gauge_kpa[0] - truth.gauge_kpa[-1]) - rig.drift_per_h_kpa * 3.0
        said = told.leak_sccm + told.temperature_sccm + told.barometer_sccm + told.gauge_sccm
        self.assertAlmostEqual(said, fell * 60_000 / (100.0 * 180), delta=0.02 * (abs(said) + 1))
        self.assertAlmostEqual(told.leak_sccm, rig.leak_sccm, delta=0.1 * rig.leak_sccm + 0.01)

    def test_it_reads_what_it_is_asked(self) -> None:
        """A reading a minute, from the pressure that it was pumped to."""
        series = read(Rig(60.0, 20.0, 0.0, Surroundings(), TestGauge(resolution_kpa=0.01), seed=3), 30)
        self.assertEqual(list(series.minute), list(range(31)))
        self.assertAlmostEqual(float(series.gauge_kpa[0]), 20.0, delta=0.05)
