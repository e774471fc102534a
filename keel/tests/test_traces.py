"""What the vehicle does over time: manoeuvres from a form by hand, logs joined, laps that ship."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.design.slosh import LAPS, Manoeuvre
from keel.solid.polyhedron import Array
from keel.studies.slosh.log import Log, joined, still
from keel.studies.slosh.manoeuvres import demo_lap, log_of

HELD = ("corner to the left", "corner to the right", "braking", "launch")


def at(log: Log, trace: str, second: float) -> float:
    """A trace so many seconds after the manoeuvre begins: there is one on the level before it."""
    return float(getattr(log, trace)[round((second + 1) / log.dt_s)])


def made(kind: str, **more: float) -> Log:
    """A manoeuvre of 0.8 g that builds up over a second and is held for four."""
    return log_of(Manoeuvre.model_validate({"kind": kind, "g": 0.8, "seconds": 4.0, "ramp_s": 1.0} | more))


class Manoeuvres(TestCase):
    """Strength, sense and time of each."""

    def test_what_is_held(self) -> None:
        """Half as strong half way up the ramp, whole after it, none before and after; each in its own sense."""
        senses = dict(zip(HELD, (("left_g", 1), ("left_g", -1), ("forward_g", -1), ("forward_g", 1)), strict=True))
        for kind, (trace, sign) in senses.items():
            log = made(kind)
            for second, share in ((-0.5, 0), (0, 0), (0.5, 0.5), (1, 1), (3, 1), (5, 1), (5.5, 0.5), (6, 0), (6.8, 0)):
                self.assertAlmostEqual(at(log, trace, second), sign * 0.8 * share, places=9, msg=f"{kind} at {second}")
            other = "forward_g" if trace == "left_g" else "left_g"
            self.assertFalse(np.any(getattr(log, other)) or np.any(log.up_g) or np.any(log.pitch_deg))
            self.assertAlmostEqual(log.times_s[-1], 1 + 1 + 4 + 1 + 1)
            self.assertTrue(np.all(log.throttle_fraction == 1))

    def test_at_once(self) -> None:
        """Without a ramp it is there from one sample to the next."""
        log = made("braking", ramp_s=0.0)
        self.assertEqual(set(np.unique(log.forward_g).tolist()), {-0.8, 0.0})
        self.assertAlmostEqual(float(np.sum(log.forward_g != 0)) * log.dt_s, 4.0, delta=0.021)

    def test_a_lane_change_is_a_wave(self) -> None:
        """One way, then as much the other way; what it gives sideways it takes back."""
        log = made("lane change")
        for second, share in ((0, 0), (1, 1), (2, 0), (3, -1), (4, 0)):
            self.assertAlmostEqual(at(log, "left_g", second), 0.8 * share, places=9)
        self.assertAlmostEqual(float(log.left_g.sum()), 0.0, places=9)

    def test_an_s_bend_is_held_for_longer(self) -> None:
        """Its sine to the power of 0.3, in sense: at a twelfth of it already four fifths."""
        log = made("S-bend", seconds=6.0)
        self.assertAlmostEqual(at(log, "left_g", 0.5), 0.8 * 0.5**0.3, places=9)
        self.assertAlmostEqual(at(log, "left_g", 3.5), -0.8 * 0.5**0.3, places=9)
        self.assertGreater(
            float(np.abs(log.left_g).mean()), float(np.abs(made("lane change", seconds=6.0).left_g).mean())
        )

    def test_braking_into_a_turn(self) -> None:
        """The brake gives way to the turn evenly: together they come to what is held."""
        log = made("brake and turn", seconds=4.0, ramp_s=0.0)
        for second in (0.0, 1.0, 2.0, 3.0):
            self.assertAlmostEqual(at(log, "forward_g", second), -0.8 * (1 - second / 4))
            self.assertAlmostEqual(at(log, "left_g", second), 0.8 * second / 4)
        np.testing.assert_allclose(log.left_g - log.forward_g, 0.8 * (log.forward_g != 0) + 0.8 * (log.left_g == 0.8))

    def test_a_hill(self) -> None:
        """Only the slope changes; the fuel feels one g all along, leaning as far."""
        log = made("hill", pitch_deg=20.0)
        self.assertAlmostEqual(at(log, "pitch_deg", 3), 20.0)
        force = log.specific_force
        np.testing.assert_allclose(np.linalg.norm(force, axis=1), 9806.65, rtol=1e-9)
        rear, _, down = force[round(4 / log.dt_s)]
        self.assertAlmostEqual(rear / down, np.tan(np.radians(20.0)))

    @given(st.sampled_from(HELD), st.integers(2, 5))
    @settings(max_examples=12, deadline=None)
    def test_again(self, kind: str, times: int) -> None:
        """So many times over is the same so many times."""
        once, log = made(kind), made(kind, again=times)
        for trace in ("forward_g", "left_g"):
            np.testing.assert_array_equal(getattr(log, trace), np.tile(getattr(once, trace), times))


class Joined(TestCase):
    """One log after another."""

    def test_what_was_burnt(self) -> None:
        """Where one of them has it, the others' is unknown and their throttle counts."""
        plain = still("plain", 1.0)
        metered = Log("metered", plain.dt_s, *(plain.forward_g,) * 5, fuel_l_per_h=np.full(len(plain.forward_g), 12.0))
        both = joined([plain, metered, plain])
        drawn = both.drawn(90.0).reshape(3, -1)
        self.assertEqual([set(part) for part in drawn], [{90.0}, {12.0}, {90.0}])
        self.assertEqual(both.name, "plain, then metered")
        self.assertIsNone(joined([plain, plain]).fuel_l_per_h)
        self.assertIs(joined([metered]), metered)

    def test_sampled_otherwise(self) -> None:
        """Logs of other steps aren't joined unnoticed."""
        with self.assertRaisesRegex(ValueError, "sampled alike"):
            joined([still("a", 1.0), still("b", 1.0, dt_s=0.05)])

    def test_what_the_fuel_feels(self) -> None:
        """Accelerating presses it to the rear, a left turn to the right, a bump downward."""
        rest = still("rest", 0.1)
        for trace, way in (("forward_g", 0), ("left_g", 1), ("up_g", 2)):
            traces = {name: rest.forward_g.copy() for name in ("forward_g", "left_g", "up_g")}
            traces[trace] = traces[trace] + 0.5
            log = Log("one", rest.dt_s, **traces, throttle_fraction=rest.throttle_fraction, pitch_deg=rest.pitch_deg)
            wanted = np.array([0.0, 0.0, -1.0])
            wanted[way] -= 0.5
            np.testing.assert_allclose(log.specific_force[0] / 9806.65, wanted)


class Laps(TestCase):
    """Made-up laps: always the same, of a strength and a pace."""

    def power_within(self, trace: Array, low: float, high: float) -> float:
        """The share of a trace's wave that lies between two frequencies [Hz]."""
        power = np.abs(np.fft.rfft(trace - trace.mean())) ** 2
        hertz = np.fft.rfftfreq(len(trace), 0.02)
        return float(power[(hertz >= low) & (hertz <= high)].sum() / power.sum())

    def test_a_swell(self) -> None:
        """In chop the boat rolls by 0.16 g rms and heaves by 0.12, about one wave in five and in three seconds."""
        lap = demo_lap(LAPS[2])
        for trace, rms, hertz in ((lap.left_g, 0.16, 0.2), (lap.up_g, 0.12, 0.3), (lap.forward_g, 0.06, 0.25)):
            self.assertAlmostEqual(float(np.sqrt((trace**2).mean())) / rms, 1.0, delta=0.15)
            self.assertGreater(self.power_within(trace, 0.45 * hertz, 1.65 * hertz), 0.97)
        self.assertAlmostEqual(lap.times_s[-1], 120.0)

    def test_a_stage_and_a_climb(self) -> None:
        """Bends no harder than they say, a steady hill, a ride that never throws the car further than it may."""
        climb, stage = demo_lap(LAPS[0]), demo_lap(LAPS[1])
        self.assertTrue(1.0 < np.abs(climb.left_g).max() < 2 * 1.25)
        self.assertTrue(np.all(climb.pitch_deg == 6.0))
        self.assertTrue(np.all((climb.throttle_fraction == 1.0) == (climb.forward_g > 0)))
        self.assertTrue(stage.up_g.min() >= -0.6 and stage.up_g.max() <= 1.2)
        self.assertTrue(np.abs(stage.left_g).max() < 2 * 0.6)
        self.assertEqual((climb.times_s[-1], stage.times_s[-1]), (62.0, 180.0))
        for name in LAPS:
            np.testing.assert_array_equal(demo_lap(name).left_g, demo_lap(name).left_g)
