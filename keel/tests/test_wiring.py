"""Wires: worked cases, and what has to hold of any."""

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from keel.formats.quantities import wire_text
from keel.reference.wires import MAY_CARRY_A, gauge_mm2, gauge_of
from keel.wiring.copper import area_needed, next_size, resistance, voltage_left
from keel.wiring.fuses import fuse_for

VOLTS, KPA = (9.0, 14.0), (0.0, 200.0, 400.0, 600.0)
FLOW = ((182, 148, 92, 18), (286, 262, 214, 148))
CURRENT = ((4.1, 5.9, 8.0, 10.3), (6.2, 8.6, 11.4, 14.6))
SIZES = (0.75, 1.0, 1.5, 2.5, 4.0, 6.0)


def on_card(table: tuple[tuple[float, ...], ...], kpa: float, volts: float) -> float:
    """Straight lines in pressure, then in voltage."""
    return float(np.interp(volts, VOLTS, [np.interp(kpa, KPA, row) for row in table]))


class WorkedCases(TestCase):
    """Worked out elsewhere."""

    def test_a_pump_at_the_end_of_its_wire(self) -> None:
        """The fixed point of its own current, wire by wire, and the flow that is left."""
        wanted_v = (11.99889166, 12.34931483, 12.71673186, 13.0237482, 13.20184285, 13.30252708)
        wanted_lph = (154.7926905, 163.4271175, 172.480273, 180.0451555, 184.4334078, 186.9142671)
        for size, volts, flow in zip(SIZES, wanted_v, wanted_lph, strict=True):
            ohm = resistance(5.2, size, contacts_ohm=0.008)
            found = voltage_left(13.6, ohm, lambda at: on_card(CURRENT, 430.0, at), VOLTS[0])
            self.assertAlmostEqual(found or 0.0, volts, places=7)
            self.assertAlmostEqual(on_card(FLOW, 430.0, found or 0.0), flow, places=6)

    def test_its_size_and_fuse(self) -> None:
        """The smallest wire whose drop is allowed, hot and cold; the fuse that spares it."""

        def drop(size: float, celsius: float) -> float:
            ohm = resistance(5.2, size, celsius=celsius, contacts_ohm=0.008)
            return 13.6 - (voltage_left(13.6, ohm, lambda at: on_card(CURRENT, 430.0, at), VOLTS[0]) or 0.0)

        for celsius, wanted in ((70.0, 4.0), (20.0, 2.5)):
            self.assertEqual(next(size for size in SIZES if drop(size, celsius) <= 0.5), wanted)
        current = on_card(CURRENT, 430.0, 13.1)
        self.assertAlmostEqual(area_needed(5.2, current, 0.5, contacts_ohm=0.008) or 0.0, 2.981819202, places=6)
        fuse = fuse_for(11.31570289, MAY_CARRY_A[4.0])
        assert fuse is not None
        self.assertEqual((fuse.rating_a, fuse.is_good), (15.0, True))

    def test_a_wire_by_its_drop(self) -> None:
        """12.5 A through 7.2 m, half a volt."""
        needed = area_needed(7.2, 12.5, 0.5, celsius=20.0)
        self.assertAlmostEqual((needed or 0.0) * 0.0172 / 0.0175, 3.096)
        self.assertEqual(next_size(needed, MAY_CARRY_A), 4.0)


class AnyWire(TestCase):
    """Properties."""

    @given(st.floats(0.5, 30), st.floats(0.5, 40), st.floats(0.1, 2), st.floats(0, 90), st.floats(0, 0.02))
    def test_at_the_area_needed_the_drop_is_at_its_limit(
        self, long: float, current: float, drop: float, celsius: float, contacts: float
    ) -> None:
        """There and back, contacts included; where contacts alone lose it no copper helps."""
        area = area_needed(long, current, drop, celsius=celsius, contacts_ohm=contacts)
        if area is None:
            self.assertGreaterEqual(contacts * current, drop)
        else:
            self.assertAlmostEqual(resistance(long, area, celsius=celsius, contacts_ohm=contacts) * current, drop)

    @given(st.floats(0.2, 31.9), st.sampled_from(sorted(MAY_CARRY_A)))
    def test_a_fuse_bears_its_current_and_is_the_least_that_does(self, current: float, size: float) -> None:
        """No smaller one does; it is said where it would let the wire burn."""
        fuse = fuse_for(current, MAY_CARRY_A[size])
        assert fuse is not None
        self.assertGreaterEqual(fuse.rating_a, 1.25 * current - 1e-6)
        smaller = fuse_for(current, MAY_CARRY_A[size], [one for one in (3.0, 5.0, 7.5, 10.0) if one < fuse.rating_a])
        self.assertIsNone(smaller)
        self.assertEqual(fuse.spares_wire, fuse.rating_a <= MAY_CARRY_A[size])

    def test_outside_its_card_nothing_is_said(self) -> None:
        """A wire so thin that its pump would fall below its lowest voltage; none at all takes nothing."""
        self.assertIsNone(voltage_left(13.6, 2.0, lambda at: on_card(CURRENT, 430.0, at), VOLTS[0]))
        self.assertEqual(voltage_left(13.6, 0.0, lambda _: None, VOLTS[0]), 13.6)
        self.assertIsNone(next_size(20.0, MAY_CARRY_A))
        self.assertIsNone(fuse_for(80.0, 100.0))

    def test_gauges(self) -> None:
        """Three numbers down is twice the copper, very nearly; the next thicker one is taken."""
        self.assertAlmostEqual(gauge_mm2(12), 3.31, places=2)
        self.assertAlmostEqual(gauge_mm2(10) / gauge_mm2(16), 4.0, delta=0.05)
        self.assertEqual((gauge_of(2.9), gauge_of(3.31), gauge_of(40.0)), (12, 10, None))

    @given(st.floats(0.2, 13))
    def test_a_gauge_never_says_less_copper(self, mm2: float) -> None:
        """It has as much or more, and the next thinner one hasn't."""
        said = wire_text(mm2, "in_usgal")
        gauge = int(said.removeprefix("AWG "))
        self.assertGreaterEqual(gauge_mm2(gauge), mm2 - 1e-9)
        self.assertTrue(gauge == 20 or gauge_mm2(gauge + 2) < mm2)
        self.assertEqual(wire_text(2.5, "mm_l"), "2.5 mm²")
