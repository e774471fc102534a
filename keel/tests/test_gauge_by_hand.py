"""Senders that read either way: curves through what was poured, errors at each eighth, ways to hang an arm."""

from math import radians, sin
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from keel.design.gauge import Sender, SwingArm
from keel.solid.build import build
from keel.solid.solids import Solids
from keel.studies.gauge.calibration import fitted
from keel.studies.gauge.column import Column, column_of
from keel.studies.gauge.fitting import Method, fitting_methods
from keel.studies.gauge.motion import litres_for_ohms, ohms_for_litres
from keel.studies.gauge.poured_curve import monotone
from keel.tests.samples import box

ARM = SwingArm(made_arm_mm=130.0, empty_deg=-45.0, full_deg=45.0)
DEEP = build(box(600, 400, 300, thickness_mm=2.0))


def sender(empty: float = 240.0, full: float = 33.0, **more: Any) -> Sender:
    place = {"id": "s", "name": "sender", "x_mm": 300.0, "y_mm": 200.0, "action": ARM}
    return Sender.model_validate(place | {"ohms_empty": empty, "ohms_full": full} | more)


def column(solids: Solids, one: Sender) -> Column:
    found = column_of(solids, one)
    assert found is not None
    return found[1]


class Poured(TestCase):
    """A curve that fits what was read."""

    @given(st.booleans(), st.integers(0, 10_000))
    def test_through_every_reading_that_rises(self, rises: bool, seed: int) -> None:
        """Between readings straight; the ohms may run up or down; none is carried beyond what was read."""
        rng = np.random.default_rng(seed)
        litres = np.sort(rng.uniform(0, 65, int(rng.integers(3, 9))))
        ohms = np.sort(rng.uniform(15, 260, len(litres)))
        ohms = ohms if rises else ohms[::-1]
        one = sender(10.0, 270.0) if rises else sender(270.0, 10.0)
        points = list(zip(litres.tolist(), ohms.tolist(), strict=True))
        rng.shuffle(points)
        found = fitted(one, DEEP, points)
        assert found is not None
        self.assertEqual([reading.litres for reading in found.readings], sorted(litres.tolist()))
        order = np.argsort(ohms)
        for point in found.curve:
            self.assertAlmostEqual(point.litres, float(np.interp(point.ohms, ohms[order], litres[order])), delta=1e-6)
            self.assertTrue(min(ohms) - 1e-9 <= point.ohms <= max(ohms) + 1e-9)
        self.assertAlmostEqual(found.curve[0].ohms, ohms[0])
        self.assertAlmostEqual(found.curve[-1].ohms, ohms[-1])
        held = column(DEEP, one)
        off = [reading.litres - litres_for_ohms(one, held, reading.ohms) for reading in found.readings]
        assert found.rms_l is not None
        assert found.worst_l is not None
        self.assertAlmostEqual(found.rms_l, float(np.sqrt(np.mean(np.square(off)))))
        self.assertAlmostEqual(abs(found.worst_l), max(map(abs, off)))

    def test_two_readings_say_nothing(self) -> None:
        """They are kept, and no curve is made of them."""
        found = fitted(sender(), DEEP, [(5.0, 200.0), (30.0, 120.0)])
        assert found is not None
        self.assertEqual((len(found.readings), found.curve, found.rms_l), (2, [], None))

    @given(st.lists(st.floats(-50, 50), min_size=1, max_size=12))
    def test_nearest_rising_row(self, values: list[float]) -> None:
        """Pooled neighbours: it rises, keeps the sum, and no other rising row of the same steps is nearer."""
        found = monotone(values)
        self.assertEqual(found, sorted(found))
        self.assertAlmostEqual(sum(found), sum(values), delta=1e-6)
        off = sum((a - b) ** 2 for a, b in zip(found, values, strict=True))
        for other in (sorted(values), [sum(values) / len(values)] * len(values)):
            self.assertLessEqual(off, sum((a - b) ** 2 for a, b in zip(other, values, strict=True)) + 1e-6)


class BothWays(TestCase):
    """Ohms of litres, litres of ohms."""

    @given(st.floats(0.02, 0.98), st.booleans())
    def test_there_and_back(self, share: float, rises: bool) -> None:
        """What a sender reads at a volume says that volume again."""
        one = sender(33.0, 240.0) if rises else sender()
        held = column(DEEP, one)
        low, high = litres_for_ohms(one, held, one.ohms_empty), litres_for_ohms(one, held, one.ohms_full)
        self.assertLess(low, high)
        litres = low + share * (high - low)
        ohms = ohms_for_litres(one, held, litres)
        self.assertTrue(min(33, 240) <= ohms <= 240)
        self.assertAlmostEqual(litres_for_ohms(one, held, ohms), litres, delta=0.05)


class Arms(TestCase):
    """Four ways to hang one."""

    def methods(self, **arm: Any) -> tuple[dict[str, Method], Column]:
        one = sender(action=ARM.model_copy(update=arm))
        held = column(DEEP, one)
        action = one.action
        assert isinstance(action, SwingArm)
        return {way.name: way for way in fitting_methods(action, one, held, 60.0)}, held

    def test_marks_and_stops(self) -> None:
        """Hung for full its float stands at the full mark at that stop; the new arm does both; halfway is between."""
        found, _held = self.methods()
        swing = 2 * 130.0 * sin(radians(45.0))
        full, empty = found["as supplied, true at full"], found["as supplied, true at empty"]
        both, half = found["new arm and pivot"], found["as supplied, halfway"]
        self.assertAlmostEqual(full.full_mm, both.full_mm)
        self.assertAlmostEqual(empty.empty_mm, both.empty_mm)
        self.assertAlmostEqual(full.full_mm - full.empty_mm, swing)
        self.assertAlmostEqual(half.pivot_mm, (full.pivot_mm + empty.pivot_mm) / 2)
        self.assertAlmostEqual(both.arm_mm, 130.0 * (both.full_mm - both.empty_mm) / swing)

    def test_litres_by_the_column(self) -> None:
        """Left at empty and above full as the tank's own table has them; the worst eighth by hand."""
        found, held = self.methods()
        for name, way in found.items():
            self.assertAlmostEqual(way.left_at_empty_l, held.litres(way.empty_mm), msg=name)
            self.assertAlmostEqual(way.above_full_l, held.brimful_l - held.litres(way.full_mm), msg=name)
            heights = [way.pivot_mm + way.arm_mm * sin(radians(-45.0 + 90.0 * n / 8)) for n in range(9)]
            errors = [held.litres(height) - n / 8 * 60.0 for n, height in enumerate(heights)]
            self.assertAlmostEqual(way.worst_l, max(errors, key=abs), delta=0.6, msg=name)

    def test_what_strikes_the_tank_does_not_fit(self) -> None:
        """An arm too long for the depth strikes floor or roof whichever way it hangs; only the new one fits."""
        found, held = self.methods(made_arm_mm=230.0)
        for name, way in found.items():
            room = way.empty_mm >= 0 and way.full_mm <= held.depth_mm
            self.assertTrue(room or not way.fits, name)
        self.assertTrue(found["new arm and pivot"].fits)
        self.assertFalse(found["as supplied, true at full"].fits)
        best = [way for way in found.values() if way.favoured]
        self.assertTrue(best)
        self.assertTrue(all(way.fits for way in best))
