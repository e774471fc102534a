"""Pressure decay: corrected, judged, simulated, practised; readings in and out."""

from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.design.proof import TestGauge
from keel.design.workshop import HouseRules
from keel.formats.pressures import pressures_csv, read_pressures
from keel.formats.table import UnreadableTableError
from keel.studies.proof.decay import (
    Decay,
    LeakTest,
    PressureReading,
    Resolution,
    corrected_kpa,
    judge,
    least_minutes,
)
from keel.studies.proof.plan import leak_test, limit_at, water_column_mm
from keel.studies.proof.practice import LEVELS, hidden_rig, lesson
from keel.studies.proof.rig import Rig, Surroundings, happened, misled, read
from keel.studies.proof.series import Series, judge_series, series_of

Row = tuple[float, float, float]
FAIR = HouseRules()
THREE = Resolution(0.01, 0.2, 0.01)


def run(minutes: float, start: Row, end: Row, test: LeakTest) -> Decay:
    """Gauge, temperature, barometer at both ends."""
    return judge(PressureReading(0.0, *start), PressureReading(minutes, *end), test)


class WorkedCases(TestCase):
    """Runs that were worked out by hand."""

    def test_one_tank_three_ways(self) -> None:
        """84 L: on the gauge cooling air fails a good tank, warming air passes a bad one; ten minutes say nothing."""
        test = LeakTest(84.0, 1.0, Resolution(0.01))
        cooling = run(45, (10.0, 21.0, 101.3), (9.16, 19.0, 101.35), test)
        self.assertAlmostEqual(cooling.corrected_kpa, 9.96652918, 6)
        self.assertAlmostEqual(cooling.leak_sccm, 0.6167706179, 7)
        self.assertAlmostEqual(cooling.uncorrected_sccm, 15.47877591, 6)
        self.assertAlmostEqual(cooling.least_min.by_gauge, 24.87660415, 6)
        self.assertEqual((cooling.verdict, cooling.uncorrected_verdict), ("pass", "fail"))
        warming = run(45, (10.0, 19.0, 101.3), (9.98, 20.2, 101.22), test)
        self.assertAlmostEqual(warming.leak_sccm, 10.22489692, 6)
        self.assertEqual((warming.verdict, warming.uncorrected_verdict), ("fail", "pass"))
        short = run(10, (10.0, 20.0, 101.3), (9.995, 20.0, 101.3), test)
        self.assertAlmostEqual(short.leak_sccm, 0.4146100691, 7)
        self.assertEqual(short.verdict, "too short")

    def test_what_the_instruments_leave_open(self) -> None:
        """62 L, thermometer to 0.2 K: its share is all but everything, and every verdict comes up once."""
        test, row = LeakTest(62.0, 1.0, THREE), (10.0, 20.0, 101.3)
        cases = [
            (25.0, row, (9.99, 20.0, 101.3), 0.2448173741, 1.543825354, "too short"),
            (120.0, row, (9.93, 19.9, 101.32), 0.06139405159, 0.3216794178, "pass"),
            (90.0, row, (9.87, 20.0, 101.3), 0.8840627399, 0.4283892245, "undecided"),
            (180.0, (10.0, 19.4, 101.3), (9.62, 19.6, 101.25), 1.719650989, 0.2138383586, "fail"),
            (150.0, row, (10.05, 19.5, 101.3), -0.9802663894, 0.2580891127, "contradiction"),
        ]
        for minutes, start, end, leak, uncertainty, verdict in cases:
            found = run(minutes, start, end, test)
            self.assertAlmostEqual(found.leak_sccm, leak, 7)
            self.assertAlmostEqual(found.uncertainty_sccm, uncertainty, 7)
            self.assertEqual(found.verdict, verdict)
            self.assertGreater(found.temperature_share, 0.966)
        self.assertAlmostEqual(found.least_min.by_uncertainty, 38.59901752, 6)

    def test_when_it_will_have_decided(self) -> None:
        """Undecided at 90 minutes, the same leak is decided at the minute that it says; a decided one says none."""
        test, row = LeakTest(62.0, 1.0, THREE), (10.0, 20.0, 101.3)
        found = run(90, row, (9.87, 20.0, 101.3), test)
        assert found.decided_min is not None
        for share, verdict in ((0.99, "undecided"), (1.01, "pass")):
            minutes = share * found.decided_min
            end = (10.0 - found.leak_sccm * minutes * 101.3 / 62_000, 20.0, 101.3)
            self.assertEqual(run(minutes, row, end, test).verdict, verdict)
        self.assertIsNone(run(120, row, (9.99, 20.0, 101.3), test).decided_min)
        self.assertEqual(run(5, row, row, test).decided_min, found.least_min.both)

    def test_end_before_start(self) -> None:
        """No time went by: nothing to judge."""
        with self.assertRaisesRegex(ValueError, "after the first"):
            run(0.0, (10.0, 20.0, 101.3), (9.0, 20.0, 101.3), LeakTest(50.0, 1.0, THREE))

    def test_water_column(self) -> None:
        """102 mm of water hold a kilopascal."""
        self.assertEqual([round(water_column_mm(kpa), 1) for kpa in (2.0, 3.45, 7.5)], [204.0, 351.9, 765.0])


TEMPERATURES = st.floats(-5, 45)
BAROMETERS = st.floats(85, 105)


class Physics(TestCase):
    """What has to be so whatever the figures."""

    @given(TEMPERATURES, TEMPERATURES, BAROMETERS, BAROMETERS, st.floats(1, 20))
    def test_a_tight_tank_loses_nothing(self, t1: float, t2: float, b1: float, b2: float, p: float) -> None:
        """The same air at another temperature under another sky, corrected, is where it was."""
        absolute = (p + b1) * (t2 + 273.15) / (t1 + 273.15)
        start, end = PressureReading(0, p, t1, b1), PressureReading(60, absolute - b2, t2, b2)
        self.assertAlmostEqual(corrected_kpa(start, end), p, 9)

    def test_uncertainty_by_lots(self) -> None:
        """As far as a hundred thousand draws of the last digits spread the leak."""
        dice, test = np.random.default_rng(3), LeakTest(62.0, 1.0, THREE)
        start, end = (10.0, 20.0, 101.3), (9.7, 19.2, 101.1)
        digits = np.array([THREE.gauge_kpa, THREE.temperature_k, THREE.barometer_kpa])
        first, last = (np.array(row) + digits * dice.uniform(-0.5, 0.5, (100_000, 3)) for row in (start, end))
        kelvin = 273.15
        corrected = (last[:, 0] + last[:, 2]) * (first[:, 1] + kelvin) / (last[:, 1] + kelvin) - first[:, 2]
        leaks = 62_000.0 * (first[:, 0] - corrected) / (first[:, 2] * 90.0)
        self.assertAlmostEqual(run(90, start, end, test).uncertainty_sccm / (2 * leaks.std()), 1.0, 2)

    @given(st.floats(10, 300), st.floats(0.2, 5), st.floats(1, 20))
    def test_least_length_is_enough(self, volume: float, limit: float, pressure: float) -> None:
        """A tight tank in still air passes from that length on; a minute before it is too short."""
        test = LeakTest(volume, limit, THREE)
        row = (pressure, 20.0, 101.3)
        least = least_minutes(PressureReading(0.0, *row), test).both
        self.assertEqual(run(least * 1.0001, row, row, test).verdict, "pass")
        self.assertEqual(run(least * 0.99, row, row, test).verdict, "too short")

    @given(st.floats(0.5, 20), st.floats(0.5, 20))
    def test_lower_pressure_is_no_milder(self, one: float, other: float) -> None:
        """The limit falls with the pressure, and never rises above that of the useful one."""
        low, high = sorted((one, other))
        found = [limit_at(1.0, 5.0, pressure, 101.3) for pressure in (low, high)]
        self.assertLessEqual(found[0], found[1])
        self.assertLessEqual(found[1], 1.0)


class SimulatedTanks(TestCase):
    """The stand-in obeys the same physics, and its readings are judged like any other."""

    def test_a_leak_is_found_again(self) -> None:
        """What leaked by the pressure lost is what was set, to what the pressure's fall slows it by."""
        rig = Rig(60.0, 10.0, 2.0, Surroundings(per_h_c=1.2, barometer_per_h_kpa=-0.1))
        truth = happened(rig, 120)
        found = misled(rig, truth, LeakTest(60.0, 1.0, THREE))
        self.assertAlmostEqual(found.leak_sccm, 2.0, 1)
        self.assertLess(found.temperature_sccm, 0)
        self.assertLess(found.barometer_sccm, 0)

    def test_corrected_is_right_where_the_gauge_is_not(self) -> None:
        """Steady warming hides a leak from the gauge, steady cooling shows one that isn't there."""
        for leak, per_h, right, wrong in ((1.8, 1.0, "fail", "pass"), (0.0, -1.0, "pass", "fail")):
            rig = Rig(80.0, 8.0, leak, Surroundings(per_h_c=per_h), TestGauge(), seed=4)
            test = leak_test(80.0, 1.0, rig.gauge, FAIR)
            decay = judge_series(read(rig, 240), test, 20.0).decay
            assert decay is not None
            self.assertEqual((decay.verdict, decay.uncorrected_verdict), (right, wrong))

    def test_sun_is_seen(self) -> None:
        """Sun on the sheet with the thermometer on it: both halves lose unlike, which is said and passes nothing."""
        sun = Surroundings(sun_c=8.0, sun_min=(30.0, 60.0))
        rig = replace(Rig(80.0, 8.0, 0.0, sun, TestGauge(), seed=2), on_shell=True)
        result = judge_series(read(rig, 60), leak_test(80.0, 1.0, rig.gauge, FAIR), 20.0)
        assert result.decay is not None
        self.assertNotEqual(result.decay.verdict, "pass")
        self.assertIn("thermometer doesn't follow", " ".join(one.text for one in result.cautions))

    def test_a_thermometer_that_is_behind(self) -> None:
        """Air that begins to warm near the end: a leak that it hides isn't passed, and steady warming costs nothing."""
        late = Surroundings(sun_c=6.0, sun_min=(34.0, 99.0))
        test = leak_test(45.0, 1.0, TestGauge(), FAIR)
        for around, passes in ((Surroundings(per_h_c=1.0), True), (late, False)):
            result = judge_series(read(Rig(45.0, 8.0, 0.2, around, TestGauge(), seed=3), 40), test, 20.0)
            assert result.decay is not None
            self.assertEqual(result.decay.verdict == "pass", passes)
        hidden = 0
        for seed in range(40):
            rig = Rig(45.0, 8.0, 2.0, replace(late, sun_min=(20.0 + seed / 2, 99.0)), TestGauge(), seed=seed)
            decay = judge_series(read(rig, 40), test, 20.0).decay
            assert decay is not None
            hidden += decay.verdict == "pass"
        self.assertEqual(hidden, 0)

    def test_practice(self) -> None:
        """The same seed hides the same leak; whoever reads the truth is right and near."""
        for level in LEVELS:
            rig = hidden_rig(level, 40.0, 8.0, TestGauge(), 7)
            self.assertEqual(rig, hidden_rig(level, 40.0, 8.0, TestGauge(), 7))
            test = leak_test(40.0, 1.0, rig.gauge, FAIR)
            truth = misled(rig, happened(rig, 120), test)
            decay = judge_series(read(rig, 120), test, 20.0).decay
            told = lesson(truth, decay, 1.0, truth.leak_sccm > 1.0, truth.leak_sccm)
            self.assertTrue(told.was_right and told.was_near)
            wrong = lesson(truth, decay, 1.0, truth.leak_sccm <= 1.0, truth.leak_sccm + 5.0)
            self.assertFalse(wrong.was_right or wrong.was_near)
            self.assertTrue(wrong.told)


class Rows(TestCase):
    """Many readings of one test."""

    def steady(self, count: int = 61, leak_per_min: float = 0.0) -> Series:
        """A reading a minute in still air."""
        minute = np.arange(float(count))
        return Series(minute, 10.0 - leak_per_min * minute, np.full(count, 20.0), np.full(count, 101.3))

    def test_ends_are_means(self) -> None:
        """A gauge that flickers about its value leaks nothing."""
        steady = self.steady()
        flicker = replace(steady, gauge_kpa=steady.gauge_kpa + 0.05 * (-1) ** np.arange(61))
        test = LeakTest(40.0, 1.0, THREE)
        plain, shaky = (judge_series(one, test, 20.0).decay for one in (steady, flicker))
        assert plain is not None and shaky is not None
        self.assertAlmostEqual(plain.leak_sccm, 0.0)
        self.assertLess(abs(shaky.leak_sccm), 0.7)

    def test_gap_and_too_high(self) -> None:
        """Half an hour without a reading is said; a reading over what the tank bears stops the test, loudly."""
        steady = self.steady()
        kept = np.r_[0:20, 45:61]
        gappy = Series(*(column[kept] for column in steady.columns))
        result = judge_series(gappy, LeakTest(40.0, 1.0, THREE), 9.5)
        self.assertIn("No reading from minute 19 to 45", result.cautions[0].plain())
        assert result.stopped is not None
        self.assertIn("Stop: 10.000 kPa at minute 0, limit 9.500 kPa", result.stopped.plain())
        self.assertIsNone(judge_series(steady, LeakTest(40.0, 1.0, THREE), 10.0).stopped)

    def test_few(self) -> None:
        """None, one, two at the same minute: no verdict; in any order the same."""
        rows = [PressureReading(minute, 10.0 - minute / 1000, 20.0, 101.3) for minute in (60.0, 0.0, 30.0, 30.0)]
        self.assertEqual(series_of(rows).minute.tolist(), [0.0, 30.0, 60.0])
        test = LeakTest(40.0, 1.0, THREE)
        self.assertIsNone(judge_series(series_of([]), test, 20.0).decay)
        self.assertIsNone(judge_series(series_of(rows[:1]), test, 20.0).decay)
        found = judge_series(series_of(rows), test, 20.0).decay
        assert found is not None
        self.assertEqual(found.minutes, 60.0)

    @settings(max_examples=25)
    @given(st.integers(0, 10_000), st.sampled_from(("mm_l", "in_usgal")))
    def test_there_and_back(self, seed: int, units: str) -> None:
        """Readings that go out as CSV and come in again are the same, in anybody's units."""
        sent = read(hidden_rig("sun and weather", 50.0, 8.0, TestGauge(), seed), 45)
        back = read_pressures(pressures_csv(sent, units))  # type: ignore[arg-type]
        self.assertEqual(back.problems, [])
        for ours, theirs in zip(sent.columns, back.series.columns, strict=True):
            np.testing.assert_allclose(ours, theirs, atol=1e-4)


HEAD = "minute,gauge_kpa,temperature_c,barometer_kpa\n"


class BadReadings(TestCase):
    """Files as instruments and people make them."""

    def told(self, text: str) -> str:
        """What is said of a file."""
        return "; ".join(problem.message for problem in read_pressures(text.encode()).problems)

    def test_other_units(self) -> None:
        """Seconds, °F, psi, hPa by their headings; semicolons with decimal commas."""
        text = "second,gauge_psi,temperature_f,barometer_hpa\n0,1.45,68,1013\n3600,1.44,68,1012\n"
        found = read_pressures(text.encode()).series
        self.assertAlmostEqual(found.gauge_kpa[0], 1.45 * 6.894757, 4)
        self.assertEqual((found.minute[1], round(found.temperature_c[0], 6)), (60.0, 20.0))
        self.assertAlmostEqual(found.barometer_kpa[0], 101.3)
        comma = "minute;gauge_kpa;temperature_c;barometer_kpa\n0;9,5;20,5;101,3\n30;9,4;20,5;101,3\n"
        self.assertEqual(read_pressures(comma.encode()).series.gauge_kpa.tolist(), [9.5, 9.4])

    def test_barometer_in_another_unit(self) -> None:
        """Row, column, and the unit that it must have been."""
        said = self.told(HEAD + "0,9.5,20,101.3\n10,9.5,20,1013\n20,9.5,20,29.92\n30,9.5,20,760\n")
        self.assertIn("row 3, column barometer_kpa", said)
        for meant in ("1013 hPa are 101.3 kPa", "29.92 inHg are 101.3 kPa", "760 mmHg are 101.3 kPa"):
            self.assertIn(meant, said)

    def test_backwards(self) -> None:
        """Time that runs backwards and a gauge that does: named; good rows stay."""
        found = read_pressures((HEAD + "0,9.5,20,101.3\n20,9.4,20,101.3\n10,9.5,20,101.3\n30,-9.3,20,101.3\n").encode())
        self.assertEqual(found.series.minute.tolist(), [0.0, 20.0])
        said = " ".join(problem.message for problem in found.problems)
        self.assertIn("row 4, column minute", said)
        self.assertIn("connected the wrong way round", said)

    def test_no_such_table(self) -> None:
        """Words for numbers name their cell; a file without a good row, or without a column, is refused."""
        self.assertIn("row 2, column gauge_kpa", self.told(HEAD + "0,high,20,101.3\n10,9.5,20,101.3\n"))
        for text in ("minute,gauge_kpa\n0,1\n", HEAD, HEAD + "0,9.5,20,1013\n", ""):
            with self.assertRaises(UnreadableTableError):
                read_pressures(text.encode())
