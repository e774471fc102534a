"""What the engine asks for, surge volumes, filling: against worked figures and properties."""

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from keel.design.brief import Basis, Brief, DemandCase
from keel.design.ports import Filling, NeckPath, Valve, VentPath
from keel.design.pumps import FittedPump, Pump, PumpCurve, PumpPoint
from keel.design.workshop import HouseRules
from keel.studies.demand.demand import demands, flow_at, pump_flow
from keel.studies.demand.surge import over_spells, surge_sizing
from keel.studies.demand.target import target
from keel.studies.ports.filling import fill_run
from keel.studies.ports.streams import air_l_per_s, balance, drawing_vacuum_kpa, friction, jug_kpa

RULES = HouseRules()


def curve(flows: list[float], volts: float = 13.5, step: float = 100) -> PumpCurve:
    """A curve from 0 kPa up in even steps."""
    points = tuple(PumpPoint(kpa=step * n, l_per_h=flow) for n, flow in enumerate(flows))
    return PumpCurve(voltage_v=volts, points=points)


SEVEN = curve([262, 246, 226, 203, 174, 141, 98])


def fitted(*pumps: Pump, spare: int = -1) -> tuple[FittedPump, ...]:
    """Pumps in their order; one of them may be a spare."""
    return tuple(FittedPump(id=f"p{n}", pump=pump, spare=n == spare) for n, pump in enumerate(pumps))


class Pumping(TestCase):
    """Demand, pumps, staging."""

    def boosted(self, *pumps: Pump, **more: float) -> Brief:
        """285 kW of boosted petrol at 430 kPa."""
        case = {"id": "now", "name": "now", "engine": "petrol, forced induction", "power_kw": 285, "rail_kpa": 430}
        return Brief(cases=(DemandCase.model_validate(case | more),), pumps=fitted(*pumps))

    def test_boosted_petrol_and_two_pumps(self) -> None:
        """Flow, what the pumps must give, when the second comes on."""
        pump = Pump(name="a", curves=(SEVEN,))
        (answer,) = demands(self.boosted(pump, pump), RULES)
        self.assertAlmostEqual(answer.mass_kg_per_h, 112.7175, places=6)
        self.assertAlmostEqual(answer.flow_l_per_h, 151.2986577, places=6)
        self.assertAlmostEqual(answer.needed_l_per_h, 181.5583893, places=6)
        first, second = answer.pumps
        assert first.flow_l_per_h and second.comes_on_kw and answer.carries_kw
        self.assertAlmostEqual(first.flow_l_per_h, 164.1, places=9)
        self.assertEqual(first.enough, 2)
        self.assertAlmostEqual(second.comes_on_kw, 257.5948167, places=6)
        self.assertAlmostEqual(answer.carries_kw, 515.1896334, places=6)
        self.assertEqual(answer.short_l_per_h, 0)

    def test_a_spare_counts_for_nothing(self) -> None:
        """The same two pumps with one of them a spare fall short."""
        pump = Pump(name="a", curves=(SEVEN,))
        brief = self.boosted().model_copy(update={"pumps": fitted(pump, pump, spare=1)})
        (answer,) = demands(brief, RULES)
        self.assertAlmostEqual(answer.short_l_per_h or 0, 181.5583893 - 164.1, places=6)
        self.assertIsNone(answer.pumps[1].comes_on_kw)

    def test_nothing_is_extrapolated(self) -> None:
        """Beyond the pressures or the voltages of a table there is no figure, nor any total with it."""
        self.assertIsNone(flow_at(SEVEN, 601))
        self.assertEqual(flow_at(SEVEN, 600), 98)
        both = Pump(name="a", curves=(curve([200, 100], 10.0), curve([260, 140], 14.0)))
        self.assertAlmostEqual(pump_flow(both, 50, 12.0) or 0, (150 + 200) / 2)
        self.assertIsNone(pump_flow(both, 50, 9.9))
        (answer,) = demands(self.boosted(Pump(name="a", curves=(SEVEN,)), rail_kpa=700), RULES)
        self.assertIsNone(answer.running_l_per_h)
        self.assertIsNone(answer.short_l_per_h)

    def test_fuel_with_less_heat(self) -> None:
        """E85 takes 1.35 to 1.45 times petrol's mass; a measured figure counts before all calculation."""
        (petrol,) = demands(self.boosted(), RULES)
        (ethanol,) = demands(self.boosted().model_copy(update={"fuel": "E85"}), RULES)
        self.assertAlmostEqual(ethanol.mass_kg_per_h / petrol.mass_kg_per_h, 1.40)
        self.assertAlmostEqual(ethanol.range_l_per_h[0] * 0.783 / (petrol.range_l_per_h[0] * 0.745), 1.35)
        (measured,) = demands(self.boosted(measured_l_per_h=99.0), RULES)
        self.assertEqual(measured.flow_l_per_h, 99)

    def test_curves_that_are_wrong(self) -> None:
        """Not falling, pressures out of order, one point: each names its row."""
        for rows, said in (
            ([(0, 200), (100, 210)], "row 2 has 210 L/h after 200"),
            ([(0, 200), (0, 190)], "row 2 has 0 kPa after 0"),
            ([(0, 200)], "two points or more"),
        ):
            with self.assertRaisesRegex(ValidationError, said):
                PumpCurve(points=tuple(PumpPoint(kpa=k, l_per_h=flow) for k, flow in rows))

    def test_targets(self) -> None:
        """Range, run time at a duty, a stint; a named figure counts before them."""
        case = DemandCase(id="now", name="now", measured_l_per_h=40.0, duty=0.5)
        for basis, litres in (
            (Basis(kind="range", range_km=230, per_100km_l=30, reserve=0.1), 75.9),
            (Basis(kind="run time", hours=2.0, reserve=0.0), 40.0),
            (Basis(kind="stint", stint_min=90.0, reserve=0.2), 36.0),
        ):
            found = target(Brief(cases=(case,), basis=basis), RULES)
            assert found is not None
            self.assertAlmostEqual(found.litres, litres)
        named = target(Brief(target_l=50, basis=Basis(kind="stint", stint_min=90.0)), RULES)
        assert named is not None
        self.assertEqual(named.litres, 50)
        self.assertIsNone(target(Brief(basis=Basis(kind="run time", hours=1.0)), RULES))


class Surging(TestCase):
    """Surge volumes."""

    def test_size_and_refill(self) -> None:
        """165 L/h for 9.5 s, lifted with 240 L/h before 32 s are over."""
        found = surge_sizing(165, 9.5, 0.2, 240, 32)
        self.assertAlmostEqual(found.volume_l, 0.5225)
        self.assertAlmostEqual(found.drawn_l, 0.4354166667)
        self.assertAlmostEqual(found.refill_s or 0, 20.9)
        self.assertTrue(found.lift_is_enough and found.refilled_in_time)
        self.assertFalse(surge_sizing(165, 9.5, 0.2, 165, 32).lift_is_enough)
        self.assertFalse(surge_sizing(165, 9.5, 0.2, 165, 32).refilled_in_time)

    def test_over_a_run(self) -> None:
        """Two dry spells close together draw it lower than the longest alone."""
        spells = [(5, True), (8, False), (4, True), (12, False), (20, True), (6, False), (90, True)]
        found = over_spells(2.0, 250, 340, spells)
        self.assertAlmostEqual(found.lowest_l, 0.711111111)
        self.assertAlmostEqual(found.lowest_at_s, 29)
        self.assertAlmostEqual(found.full_again_s or 0, 103.222222, places=5)
        self.assertAlmostEqual(found.overflow_l, 1.16944444)
        self.assertAlmostEqual(surge_sizing(250, 12, 0.2).volume_l, 1.0)

    @given(st.lists(st.tuples(st.floats(0.1, 60), st.booleans()), max_size=12), st.floats(0.1, 5), st.floats(1, 400))
    def test_fuel_adds_up(self, spells: list[tuple[float, bool]], volume: float, draw: float) -> None:
        """Without running empty, what came in is what was burnt, spilt over and gained."""
        found = over_spells(volume, draw, 500, spells)
        if found.lowest_l > 0:
            wet = sum(s for s, w in spells if w)
            left = volume + wet * 500 / 3600 - sum(s for s, _ in spells) * draw / 3600 - found.overflow_l
            self.assertLessEqual(left, volume + 1e-9)
            self.assertGreaterEqual(left, found.lowest_l - 1e-9)


class FillingUp(TestCase):
    """Fuel in against air out, by the closed form of two orifices."""

    def check(self, drive: float, bore: float, vent: float | None, flow: float, kpa: float) -> None:
        """One balance."""
        vents = None if vent is None else [VentPath(bore_mm=vent)]
        found = balance(drive, bore, 0.745, vents)
        self.assertAlmostEqual(found.l_per_s, flow, delta=flow * 1e-5)
        self.assertAlmostEqual(found.tank_kpa, kpa, delta=1e-5 * max(kpa, 1))

    def test_jug_and_nozzle(self) -> None:
        """A jug of 450 mm through 32 mm, a nozzle of 14 mm at 25 kPa, each against vents."""
        jug = jug_kpa(450, 0.745)
        self.check(jug, 32, None, 1.48136855, 0)
        self.check(jug, 32, 8, 1.2464995, 0.959869906)
        self.check(jug, 32, 3, 0.316899292, 3.13722471)
        self.check(25, 14, 6, 0.763865004, 1.13924291)
        self.check(25, 14, 3, 0.588713714, 10.8270812)

    def test_a_run_of_62_litres(self) -> None:
        """Time, what holds it back, what a larger vent brings, and the vent for a wanted time."""
        rows = [(0.0, 0.0), (100.0, 31.0), (200.0, 62.0)]
        way = Filling(supply="nozzle", wanted_s=81.1661742)
        found = fill_run(way, NeckPath(bore_mm=38), [VentPath(bore_mm=3)], 0.745, rows, 2.5, 255)
        self.assertAlmostEqual(found.seconds, 105.314346, places=3)
        self.assertEqual((found.held_back_by, found.shuts_off), ("vent", True))
        self.assertAlmostEqual(found.vent_for_wanted_mm or 0, 6.0, delta=0.06)
        self.assertAlmostEqual(found.vacuum_kpa or 0, 0.156739497, places=6)
        self.assertAlmostEqual(found.points[1].seconds, found.seconds / 2)
        jug = fill_run(Filling(supply="jug"), NeckPath(bore_mm=32), [VentPath(bore_mm=8)], 0.745, rows, 2.5, None)
        self.assertAlmostEqual(jug.seconds, 49.73929, places=4)
        self.assertFalse(jug.shuts_off)
        self.assertTrue(all(other.seconds < jug.seconds for other in jug.others))

    def test_what_holds_it_back(self) -> None:
        """Neck, nozzle, vent, valves: the named one's next size helps most; valves in series add up."""
        rows = [(0.0, 0.0), (200.0, 60.0)]
        wide, open_vent = NeckPath(bore_mm=38), VentPath(bore_mm=20)
        flap = NeckPath(bore_mm=38, valves=(Valve(name="flap", opens_kpa=20), Valve(name="check", opens_kpa=4)))
        stiff = VentPath(bore_mm=20, opens_kpa=4, valves=(Valve(name="canister", opens_kpa=18),))
        cases = (
            ("nozzle", Filling(), wide, open_vent),
            ("neck", Filling(), NeckPath(bore_mm=10), open_vent),
            ("neck's valves", Filling(nozzle_bore_mm=25), flap, open_vent),
            ("vent", Filling(nozzle_bore_mm=25), wide, VentPath(bore_mm=3)),
            ("vent's valves", Filling(nozzle_bore_mm=25), wide, stiff),
        )
        for held, filling, neck, vent in cases:
            found = fill_run(filling, neck, [vent], 0.745, rows, 2.5, None)
            self.assertEqual(found.held_back_by, held)
            self.assertGreater(len({other.what for other in found.others}), 2)
        self.assertEqual(air_l_per_s(21.9, stiff), 0)
        self.assertGreater(air_l_per_s(22.1, stiff), 0)

    def test_shut_vents(self) -> None:
        """Without a vent nothing goes in for long; below its opening pressure a valve lets nothing by."""
        found = fill_run(Filling(), NeckPath(bore_mm=38), [], 0.745, [(0.0, 0.0), (1.0, 9.0)], 2.5, 100)
        self.assertEqual(found.held_back_by, "no vent")
        self.assertIsNone(found.vacuum_kpa)
        self.assertEqual(air_l_per_s(1.0, VentPath(opens_kpa=1.5)), 0)

    def test_friction_of_a_smooth_pipe(self) -> None:
        """64/Re while laminar; at Re 100 000 the well-known 0.018."""
        self.assertAlmostEqual(friction(1000), 0.064, places=4)
        self.assertAlmostEqual(friction(1e5), 0.018, delta=3e-4)

    @settings(max_examples=50)
    @given(st.floats(2, 40), st.floats(0, 10), st.floats(0, 3), st.floats(1, 2000))
    def test_vents_breathe_the_same_both_ways(self, bore: float, length: float, opens: float, draw: float) -> None:
        """The vacuum that lets so much air in lets just so much in; a longer hose never passes more."""
        vent = VentPath(bore_mm=bore, length_m=length, opens_kpa=opens)
        kpa = drawing_vacuum_kpa(draw, (vent,))
        if kpa < 1e4:
            self.assertAlmostEqual(air_l_per_s(kpa, vent) * 3600, draw, delta=draw * 1e-4)
        longer = vent.model_copy(update={"length_m": length + 1})
        self.assertLessEqual(air_l_per_s(5.0, longer), air_l_per_s(5.0, vent) + 1e-12)
