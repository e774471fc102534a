"""Senders and their gauges against worked figures."""

from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from keel.design.features import Baffle, Partition
from keel.design.gauge import Gauge, Sender, SwingArm, TubeSender
from keel.design.ports import Port
from keel.design.shell import ProfileShell
from keel.solid.build import build
from keel.solid.solids import Solids
from keel.studies.gauge.column import column_of
from keel.studies.gauge.gauge import gauge_truth
from keel.studies.gauge.motion import litres_for_ohms, needle_reader
from keel.studies.gauge.readings import Reading
from keel.tests.samples import box, profile


def sender(arm: SwingArm | TubeSender, **more: Any) -> Sender:
    """A sender in the middle of a tank some 600 × 340."""
    return Sender(**{"id": "s", "name": "sender", "x_mm": 300.0, "y_mm": 165.0, "action": arm} | more)


def read(solids: Solids, *senders: Sender, **more: Any) -> list[Reading]:
    """Every sender worked out, with no ullage unless told."""
    return gauge_truth(Gauge(senders=senders, **more), solids, (), 0.0).readings


DEEP = box(610, 330, 262, measured="inside", thickness_mm=2.0)
ARM = SwingArm(made_arm_mm=112.0, empty_deg=-48.0, full_deg=36.0)
STEPPED: ProfileShell = profile(
    [(-2, -2), (282, -2), (282, 123), (762, 123), (762, 312), (-2, 312)], 424.0, 2.0, "y", shape="step"
)


class SwingArms(TestCase):
    """Arm, pivot, needle."""

    def test_moved_to_a_deeper_tank(self) -> None:
        """Arm and pivot for the new travel; needle marks, true tenths, breakpoints."""
        subject = sender(ARM, empty_mm=20.0, full_mm=245.0)
        solids = build(DEEP)
        (found,) = read(solids, subject)
        self.assertAlmostEqual(found.made_travel_mm or 0, 149.0641687, places=6)
        self.assertAlmostEqual(found.arm_mm or 0, 169.0547113, places=6)
        self.assertAlmostEqual(found.arm_more_mm or 0, 57.05471126, places=6)
        self.assertAlmostEqual(found.pivot_mm or 0, 145.6321339, places=6)
        self.assertAlmostEqual(found.eighths[3].float_mm, 97.6180018, places=6)
        litres = [4.026, 8.599162848, 13.86612798, 19.65050376, 25.75857038]
        litres += [31.98576755, 38.12354529, 43.96634829, 49.3185]
        for mark, true in zip(found.eighths, litres, strict=True):
            self.assertAlmostEqual(mark.litres, true, places=5)
        needles = [0.0, 0.03632796765, 0.1729838716, 0.2933300638, 0.4050359302, 0.5123176849]
        for tenth, needle in zip(found.tenths, needles, strict=False):
            self.assertAlmostEqual(tenth.needle, needle, places=6)
        self.assertEqual(found.tenths[-1].needle, 1.0)
        self.assertAlmostEqual(found.above_full_l, 3.4221, places=5)
        place = column_of(solids, subject)
        assert place is not None
        for ohms, true in ((240, 4.026), (200, 11.39916451), (100, 34.52877088), (33, 49.3185)):
            self.assertAlmostEqual(litres_for_ohms(subject, place[1], ohms), true, places=5)

    def test_stepped_tank(self) -> None:
        """Where the floor rises the needle lies most."""
        arm = SwingArm(made_arm_mm=140.0, empty_deg=-42.0, full_deg=42.0)
        (found,) = read(build(STEPPED), sender(arm, x_mm=100.0, y_mm=200.0, empty_mm=16.0, full_mm=292.0))
        self.assertAlmostEqual(found.arm_mm or 0, 206.2377639, places=5)
        self.assertAlmostEqual(found.brimful_l, 73.752, places=4)
        litres = [1.8816, 5.437949171, 9.418701064, 13.69053956, 23.9568, 35.95356405]
        for mark, true in zip(found.eighths, litres, strict=False):
            self.assertAlmostEqual(mark.litres, true, places=4)
        self.assertAlmostEqual(found.tenths[1].needle, 0.1872452227, places=5)
        self.assertAlmostEqual(found.tenths[2].needle, 0.4042964588, places=5)

    def test_as_supplied(self) -> None:
        """Three ways to hang a short arm, each with what it leaves below E; the made-to-measure one is favoured."""
        slim = ARM.model_copy(update={"float_mm": 30.0})
        (found,) = read(build(DEEP), sender(slim, empty_mm=20.0, full_mm=245.0))
        methods = {method.name: method for method in found.methods}
        hung = methods["as supplied, true at full"]
        self.assertAlmostEqual(hung.full_mm, 245)
        self.assertAlmostEqual(hung.empty_mm, 245 - 149.0641687, places=6)
        self.assertAlmostEqual(hung.left_at_empty_l, 0.610 * 0.330 * (245 - 149.0641687), places=4)
        self.assertEqual([s.name for s in found.methods if s.favoured], ["new arm and pivot"])
        (thick,) = read(build(DEEP), sender(ARM, empty_mm=20.0, full_mm=245.0))
        self.assertFalse(thick.methods[0].fits)

    def test_float_in_the_way(self) -> None:
        """A baffle through the sweep, a pump beside it, a wall too near: each is named."""
        arm = ARM.model_copy(update={"float_mm": 40.0})
        across = Baffle(id="b", name="plate", axis="x", at_mm=420.0)
        seen = gauge_truth(Gauge(senders=(sender(arm),)), build(DEEP.model_copy(update={"features": (across,)})), (), 0)
        self.assertEqual(seen.readings[0].meets, ["plate"])
        pump = Port(id="p", name="pump", x_mm=430, y_mm=165, hangs_mm=240, hangs_across_mm=70)
        seen = gauge_truth(Gauge(senders=(sender(arm),)), build(DEEP), (pump,), 0)
        self.assertEqual(seen.readings[0].meets, ["pump"])
        self.assertEqual(read(build(DEEP), sender(arm))[0].meets, [])
        self.assertEqual(read(build(DEEP), sender(arm, x_mm=520.0))[0].meets, ["the wall"])

    def test_what_cannot_be(self) -> None:
        """Stops reversed, marks crossed, a range of nothing: refused with the field."""
        with self.assertRaisesRegex(ValidationError, "stops are reversed"):
            SwingArm(made_arm_mm=100, empty_deg=30, full_deg=-30)
        with self.assertRaisesRegex(ValidationError, "marks cross"):
            sender(ARM, empty_mm=200.0, full_mm=100.0)
        with self.assertRaisesRegex(ValidationError, "can't both read"):
            sender(ARM, ohms_empty=90.0, ohms_full=90.0)
        self.assertEqual(read(build(DEEP), sender(ARM, x_mm=2000.0)), [])


class TubesAndPairs(TestCase):
    """Tube senders; two on one needle; the lamp."""

    def test_tube_in_a_box_tells_the_truth(self) -> None:
        """Between its ends the needle is straight with the litres; its length is the depth less 16 mm."""
        (found,) = read(build(DEEP), sender(TubeSender(), ohms_empty=0.0, ohms_full=90.0), reserve_l=10.0)
        self.assertAlmostEqual(found.empty_mm, 8)
        self.assertAlmostEqual(found.full_mm, 262 - 8)
        self.assertAlmostEqual(found.eighths[4].litres, found.brimful_l / 2, places=9)
        self.assertAlmostEqual(found.eighths[4].ohms, 45)
        self.assertAlmostEqual(found.switch_mm or 0, 10e6 / (610 * 330), places=6)

    def test_two_lobes_on_one_needle(self) -> None:
        """Averaged or in series, two like senders at two floors agree; apart they don't."""
        low = sender(TubeSender(), x_mm=100.0, y_mm=200.0)
        high = sender(TubeSender(), id="t", x_mm=600.0, y_mm=200.0)
        solids = build(STEPPED)
        both = {}
        for how in ("averaged", "in series"):
            (joined,) = gauge_truth(Gauge(senders=(low, high), joined=how), solids, (), 0).joined
            both[how] = [t.needle for t in joined.tenths]
        for a, b in zip(both["averaged"], both["in series"], strict=True):
            self.assertAlmostEqual(a, b, places=9)
        alone = [t.needle for t in read(solids, low)[0].tenths]
        self.assertGreater(max(abs(a - b) for a, b in zip(alone, both["averaged"], strict=True)), 0.1)

    def test_one_base_for_all(self) -> None:
        """With a tenth of ullage full means 0.9 of brimful: to single needles, joined ones and tenths alike."""
        pair = (sender(TubeSender(), x_mm=100.0, y_mm=200.0), sender(TubeSender(), id="t", x_mm=200.0, y_mm=200.0))
        seen = gauge_truth(Gauge(senders=pair, joined="averaged"), build(DEEP), (), 0.1)
        one, joined = seen.readings[0], seen.joined[0]
        self.assertAlmostEqual(one.rated_l, 0.9 * one.brimful_l)
        self.assertAlmostEqual(one.tenths[-1].litres, one.rated_l)
        self.assertAlmostEqual(joined.tenths[5].litres, one.rated_l / 2)
        right = max((t.litres - t.needle * one.rated_l for t in one.tenths), key=abs)
        self.assertAlmostEqual(joined.worst_l, right)

    @settings(max_examples=30, deadline=None)
    @given(st.floats(20, 80), st.floats(120, 240), st.floats(-60, -10), st.floats(5, 60))
    def test_needle_and_height_are_inverse(self, empty: float, full: float, low: float, high: float) -> None:
        """Litres rise with the needle, and every mark's litres bring the needle back to it."""
        arm = SwingArm(made_arm_mm=120.0, empty_deg=low, full_deg=high)
        subject = sender(arm, empty_mm=empty, full_mm=full)
        solids = build(DEEP)
        (found,) = read(solids, subject)
        litres = [mark.litres for mark in found.eighths]
        self.assertEqual(litres, sorted(litres))
        place = column_of(solids, subject)
        assert place is not None
        for mark in found.eighths:
            self.assertAlmostEqual(litres_for_ohms(subject, place[1], mark.ohms), mark.litres, places=6)


class Left(TestCase):
    """What the needle says when the pickup runs dry."""

    def test_needle_at_a_level(self) -> None:
        """A tube's needle for litres is its share of the travel; none with two cells or no sender."""
        solids = build(DEEP)
        gauge = Gauge(senders=(sender(TubeSender()),))
        reader = needle_reader(gauge, solids)
        assert reader is not None
        (found,) = gauge_truth(gauge, solids, (), 0.0).readings
        for mark in found.eighths:
            self.assertAlmostEqual(reader(mark.litres), mark.needle, places=9)
        self.assertIsNone(needle_reader(Gauge(), solids))
        halves = DEEP.model_copy(update={"features": (Partition(id="p", name="p", axis="x", at_mm=300.0),)})
        self.assertIsNone(needle_reader(gauge, build(halves)))


class Measured(TestCase):
    """Arms whose stops were measured."""

    def test_measured_stops_are_the_same_arm(self) -> None:
        """Heights over the pivot stand for angles: asin(h / R)."""
        angles = SwingArm(made_arm_mm=150.0, empty_deg=-30.0, full_deg=45.0)
        heights = SwingArm(made_arm_mm=150.0, empty_rise_mm=-75.0, full_rise_mm=150.0 * 0.5**0.5)
        (a,), (b,) = read(build(DEEP), sender(angles)), read(build(DEEP), sender(heights))
        for one, other in zip(a.eighths, b.eighths, strict=True):
            self.assertAlmostEqual(one.litres, other.litres, places=9)
        for wrong in ({"empty_rise_mm": -160.0, "full_deg": 40.0}, {"full_deg": 40.0}, {"empty_deg": 10.0}):
            with self.assertRaises(ValidationError):
                SwingArm.model_validate({"made_arm_mm": 150.0} | wrong)
