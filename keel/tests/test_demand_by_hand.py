"""What an engine asks for, now and later, and what a surge tank makes of it: sums by hand, spells second by second."""

from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.brief import Brief
from keel.design.document import Design
from keel.design.ports import Port
from keel.design.workshop import HouseRules, Workshop
from keel.reference.engines import BSFC_KG_PER_KWH
from keel.reference.fuels import FUELS
from keel.studies.demand.demand import bsfc_range, demands
from keel.studies.demand.outgrown import Outgrown, outgrown
from keel.studies.demand.surge import over_spells, surge_sizing
from keel.studies.demand.surge_tank import surge_tank
from keel.studies.demand.target import target
from keel.studies.ports.landing import LANDINGS

RULES = HouseRules()
NOW = {"id": "now", "name": "now", "power_kw": 150.0, "bsfc_kg_per_kwh": 0.3, "duty": 0.5}
LATER = {"id": "later", "name": "later", "power_kw": 240.0, "bsfc_kg_per_kwh": 0.35, "duty": 0.5}
PETROL = FUELS["petrol E10"].density_kg_per_l


def brief(*cases: dict[str, Any], **more: Any) -> Brief:
    return Brief.model_validate({"fuel": "petrol E10", "cases": list(cases)} | more)


def parts(*cases: dict[str, Any], **more: Any) -> dict[str, Outgrown]:
    return {part.part: part for part in outgrown(brief(*cases, **more), RULES)}


class Asking(TestCase):
    """Flow from power."""

    def test_power_by_hand(self) -> None:
        """150 kW at 0.3 kg/kWh are 45 kg/h; half of it on average; more is asked of the pumps."""
        (found,) = demands(brief(NOW), RULES)
        self.assertAlmostEqual(found.mass_kg_per_h, 45.0)
        self.assertAlmostEqual(found.flow_l_per_h, 45.0 / PETROL)
        self.assertAlmostEqual(found.average_l_per_h, 22.5 / PETROL)
        self.assertAlmostEqual(found.needed_l_per_h, found.flow_l_per_h * (1 + RULES.pump_margin))

    def test_the_range_is_the_engines(self) -> None:
        """Both ends of what such engines burn, times the power, over the density."""
        case = {name: value for name, value in NOW.items() if name != "bsfc_kg_per_kwh"}
        (found,) = demands(brief(case), RULES)
        usual = BSFC_KG_PER_KWH["petrol, naturally aspirated"]
        for end, burnt in zip(found.range_l_per_h, (usual.low, usual.high), strict=True):
            self.assertAlmostEqual(end, 150.0 * burnt / PETROL)
        self.assertEqual(found.bsfc, (usual.low, usual.middle, usual.high))
        self.assertTrue(found.range_l_per_h[0] < found.flow_l_per_h < found.range_l_per_h[1])

    def test_a_measured_figure_counts_before_any(self) -> None:
        """And has no range."""
        (found,) = demands(brief(NOW | {"measured_l_per_h": 71.0}), RULES)
        self.assertEqual((found.flow_l_per_h, found.range_l_per_h, found.bsfc), (71.0, (71.0, 71.0), None))

    def test_a_fuel_with_less_heat_takes_more(self) -> None:
        """Both ends of its range lie above petrol's."""
        case = brief(NOW).cases[0]
        petrol, ethanol = bsfc_range(case, "petrol E10"), bsfc_range(case, "E85")
        self.assertGreater(ethanol.low, petrol.low)
        self.assertGreater(ethanol.high, petrol.high)


class Targets(TestCase):
    """The capacity that is asked for."""

    def test_each_basis(self) -> None:
        """400 km at 12.5 L and a tenth in hand; 3 h of half power; a stint of 90 minutes; a named figure first."""
        by_range = {"kind": "range", "range_km": 400.0, "per_100km_l": 12.5, "reserve": 0.1}
        hours = {"kind": "run time", "hours": 3.0, "reserve": 0.2}
        stint = {"kind": "stint", "stint_min": 90.0, "reserve": 0.0, "case": "later"}
        average = 22.5 / PETROL
        wanted = ((by_range, 55.0), (hours, average * 3 * 1.2), (stint, 0.5 * 240 * 0.35 / PETROL * 1.5))
        for basis, litres in wanted:
            found = target(brief(NOW, LATER, basis=basis), RULES)
            assert found is not None
            self.assertAlmostEqual(found.litres, litres)
            named = target(brief(NOW, basis=basis, target_l=61.0), RULES)
            assert named is not None
            self.assertEqual(named.litres, 61.0)

    def test_nothing_without_what_it_is_worked_out_from(self) -> None:
        """No power, no hours, no consumption: no target."""
        idle = {"id": "now", "name": "now"}
        self.assertIsNone(target(brief(idle, basis={"kind": "run time", "hours": 3.0}), RULES))
        self.assertIsNone(target(brief(NOW, basis={"kind": "run time"}), RULES))
        self.assertIsNone(target(brief(NOW, basis={"kind": "range", "range_km": 100.0}), RULES))
        self.assertIsNone(target(brief(NOW), RULES))


class Later(TestCase):
    """What a second case outgrows."""

    def test_capacity_and_surge_by_hand(self) -> None:
        """84 kg/h after 45: 87 % more on average; the surge volume in the same proportion."""
        found = parts(NOW, LATER, surge={"uncovered_s": 6.0})
        more = 84.0 / 45.0 - 1
        self.assertAlmostEqual(float(found["run time"].worth.values["share_pct"]), more)
        now, then = (45.0 / PETROL, 84.0 / PETROL)
        for said, flow in ((found["surge volume"].now, now), (found["surge volume"].then, then)):
            (litres,) = said.values.values()
            self.assertAlmostEqual(float(litres), flow * 6 / 3600 * (1 + RULES.surge_margin))

    def test_what_is_no_more_outgrows_nothing(self) -> None:
        """The same again, or less, says nothing; without a surge volume none is outgrown."""
        self.assertFalse(parts(NOW, NOW | {"id": "b", "name": "b"}, surge={"uncovered_s": 6.0}))
        self.assertFalse(parts(LATER, NOW | {"id": "b", "name": "b"}, surge={"uncovered_s": 6.0}))
        self.assertNotIn("surge volume", parts(NOW, LATER))

    def test_litres_or_minutes(self) -> None:
        """A capacity that follows from hours is outgrown as such; one by range runs shorter."""
        self.assertIn("capacity", parts(NOW, LATER, basis={"kind": "run time", "hours": 2.0}))
        self.assertIn("run time", parts(NOW, LATER, basis={"kind": "range", "range_km": 90.0}))

    def test_another_fuel(self) -> None:
        """Whatever its flow."""
        self.assertIn("fuel", parts(NOW, NOW | {"id": "b", "name": "b", "fuel": "E85"}))


class Surging(TestCase):
    """A volume that bridges dry spells."""

    @given(st.floats(20, 400), st.floats(0.5, 30), st.floats(0, 0.6), st.floats(1.05, 4.0), st.floats(1, 60))
    def test_size_and_refill(self, draw: float, dry: float, margin: float, lifts: float, gap: float) -> None:
        """Q t (1 + margin); the lift pump puts back what was drawn by what it has over."""
        found = surge_sizing(draw, dry, margin, draw * lifts, gap)
        self.assertAlmostEqual(found.volume_l, draw * dry / 3600 * (1 + margin))
        refill = draw * dry / (draw * (lifts - 1))
        self.assertAlmostEqual(found.refill_s or 0.0, refill, delta=1e-9 * refill)
        if abs(refill - gap) > 1e-9 * gap:
            self.assertEqual(found.refilled_in_time, refill < gap)
        weak = surge_sizing(draw, dry, margin, draw * 0.99, gap)
        self.assertEqual((weak.refill_s, weak.lift_is_enough, weak.refilled_in_time), (None, False, False))

    @given(
        st.lists(st.tuples(st.integers(1, 40), st.booleans()), min_size=1, max_size=8),
        st.floats(0.2, 3.0), st.floats(30, 300), st.floats(40, 600),
    )  # fmt: skip
    def test_second_by_second(self, spells: list[tuple[int, bool]], volume: float, draw: float, lift: float) -> None:
        """Level, overflow and times as a count in hundredths of a second has them."""
        found = over_spells(volume, draw, lift, [(float(seconds), wet) for seconds, wet in spells])
        level, lowest, lowest_at, over, now, full_again = volume, volume, 0.0, 0.0, 0.0, None
        step = 0.01
        for seconds, wet in spells:
            rate = ((lift if wet else 0.0) - draw) / 3600 * step
            for _ in range(round(seconds / step)):
                now += step
                wanted = level + rate
                over += max(0.0, wanted - volume)
                if level < volume - 1e-9 and wanted >= volume - 1e-9 and full_again is None:
                    full_again = now
                level = min(volume, max(0.0, wanted))
                if level < lowest - 1e-12:
                    lowest, lowest_at, full_again = level, now, None
        self.assertAlmostEqual(found.lowest_l, lowest, delta=1e-6)
        self.assertAlmostEqual(found.overflow_l, over, delta=0.01 + 0.002 * over)
        self.assertAlmostEqual(found.lowest_at_s, lowest_at, delta=0.05)
        # Full at the very end of the run, or not quite: either count may call it so.
        end = sum(seconds for seconds, _ in spells) + step
        self.assertAlmostEqual(found.full_again_s or end, full_again or end, delta=0.05)

    def test_the_tank_that_is_made_holds_it_and_its_ports_stand_on_it(self) -> None:
        """Round or square, its rated litres are what was asked, and every port lies on its own face."""
        main = Design.model_validate({"brief": {"fuel": "petrol E10"}})
        for form in ("cylinder", "box"):
            for litres in (0.8, 2.5, 6.0):
                made = surge_tank(main, litres, Workshop(), form)  # type: ignore[arg-type]
                tank = TankAnalysis(Asked(made, Workshop()))
                held = tank.solids.inner.volume() / 1e6
                self.assertGreaterEqual(held * 0.999, litres, form)
                if form == "cylinder" and litres > 1:
                    self.assertLess(held, 1.2 * litres)
                self.assertTrue(all(one.on_sheet for one in tank[LANDINGS]), form)
                self.ports_in_order(list(made.ports), tank.solids.bounds.size[2])

    def ports_in_order(self, ports: list[Port], high: float) -> None:
        """The outlet at the floor, the lift pump's inlet above the engine's return, the overflow on top."""
        by = {port.id: port for port in ports}
        self.assertEqual(by["outlet"].face, "floor")
        self.assertLess(by["return"].z_mm, by["inlet"].z_mm)
        self.assertTrue(all(0 < by[name].z_mm < high for name in ("return", "inlet")))
        self.assertEqual(by["overflow"].face, "roof")
        places = np.array([(port.x_mm, port.y_mm) for port in ports])
        self.assertTrue(np.all(places >= 0))
