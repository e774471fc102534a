"""Air and fuel through openings and hoses, against closed forms and a second friction law."""

from math import log10, pi, sqrt
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.design.ports import Filling, NeckPath, Valve, VentPath
from keel.studies.ports.filling import BORES_MM, FillRun, fill_run
from keel.studies.ports.streams import (
    air_l_per_s,
    balance,
    drawing_vacuum_kpa,
    friction,
    held_back_kpa,
    inlet_l_per_s,
    jug_kpa,
)

PETROL_KG_PER_L = 0.745
AIR = 1.2
"""Of air [kg/m³]."""
ORIFICE = 0.62
ROWS = [(0.0, 0.0), (120.0, 24.0), (300.0, 60.0)]


def colebrook(reynolds: float) -> float:
    """Darcy's factor of a smooth pipe by Prandtl and von Kármán's law, turned round by repetition."""
    factor = 0.02
    for _ in range(60):
        factor = (-2 * log10(2.51 / (reynolds * sqrt(factor)))) ** -2
    return factor


def through(kpa: float, bore_mm: float, kg_per_m3: float, extra: float = 0.0) -> float:
    """Litres in a second through an opening, with so many velocity heads lost behind it."""
    area = pi * (bore_mm / 2000) ** 2
    return 1000 * area * sqrt(2000 * kpa / (kg_per_m3 * (1 / ORIFICE**2 + extra)))


class Friction(TestCase):
    """The factor in every regime."""

    def test_laminar(self) -> None:
        """Poiseuille's 64/Re, to a part in a thousand, down to no flow at all."""
        for reynolds in (1.0, 10.0, 200.0, 900.0, 1500.0):
            self.assertAlmostEqual(friction(reynolds) * reynolds, 64.0, delta=0.07, msg=str(reynolds))
        self.assertEqual(friction(0.0), 0.0)

    @given(st.floats(4.5e3, 1e7))
    def test_turbulent(self, reynolds: float) -> None:
        """Within three in a hundred of the law for smooth pipes."""
        self.assertAlmostEqual(friction(reynolds) / colebrook(reynolds), 1.0, delta=0.03)

    def test_between(self) -> None:
        """Where no law is sure it never falls under what laminar flow would lose."""
        for reynolds in range(2000, 4001, 100):
            self.assertGreaterEqual(friction(reynolds), 64 / reynolds - 1e-9)
            self.assertLess(friction(reynolds), colebrook(4000) * 1.1)


class Air(TestCase):
    """What a vent lets out."""

    @given(st.floats(2, 40), st.floats(0.01, 20))
    def test_a_plain_hole(self, bore: float, kpa: float) -> None:
        """C A √(2 p/ρ)."""
        self.assertAlmostEqual(air_l_per_s(kpa, VentPath(bore_mm=bore)) / through(kpa, bore, AIR), 1.0, places=9)

    @given(st.floats(3, 20), st.floats(0.2, 8), st.floats(0.2, 10))
    @settings(max_examples=60)
    def test_a_hose(self, bore: float, metres: float, kpa: float) -> None:
        """The flow that comes out loses, by its own friction, the pressure there is, to a part in a thousand."""
        flow = air_l_per_s(kpa, VentPath(bore_mm=bore, length_m=metres))
        speed = flow / 1000 / (pi * (bore / 2000) ** 2)
        lost = friction(speed * bore / 1000 / 15e-6) * metres / (bore / 1000)
        self.assertAlmostEqual(AIR * speed**2 / 2 * (1 / ORIFICE**2 + lost) / 1000, kpa, delta=kpa * 1e-3)

    def test_valves_behind_each_other(self) -> None:
        """All of them have to open: 1.5 and 2 and 0.5 kPa let nothing by at 4, and at 5 what 1 kPa drives."""
        vent = VentPath(bore_mm=8, opens_kpa=1.5, valves=(Valve(name="a", opens_kpa=2), Valve(name="b", opens_kpa=0.5)))
        self.assertEqual(air_l_per_s(4.0, vent), 0.0)
        self.assertAlmostEqual(air_l_per_s(5.0, vent), through(1.0, 8, AIR))

    def test_two_vents_side_by_side(self) -> None:
        """What is drawn divides as their areas; the vacuum is that of one of both areas together."""
        two = (VentPath(bore_mm=6), VentPath(bore_mm=8))
        self.assertAlmostEqual(drawing_vacuum_kpa(300, two), drawing_vacuum_kpa(300, (VentPath(bore_mm=10),)), places=9)
        valved = (VentPath(bore_mm=6, opens_kpa=3), VentPath(bore_mm=8))
        self.assertAlmostEqual(drawing_vacuum_kpa(100, valved), drawing_vacuum_kpa(100, two[1:]), places=9)
        self.assertEqual(drawing_vacuum_kpa(100, ()), float("inf"))


class Balances(TestCase):
    """Fuel in against air out."""

    @given(st.floats(1, 60), st.floats(8, 60), st.floats(2, 40), st.floats(0.6, 0.95), st.floats(0, 4))
    def test_one_hole_each_way(self, drive: float, bore: float, vent: float, density: float, opens: float) -> None:
        """A² (P − p)/ρ = a² (p − o)/σ is linear in p."""
        if opens >= drive:
            return
        fuel, air = bore**4 / (density * 1000), vent**4 / AIR
        kpa = (fuel * drive + air * opens) / (fuel + air)
        found = balance(drive, bore, density, [VentPath(bore_mm=vent, opens_kpa=opens)])
        self.assertAlmostEqual(found.tank_kpa, kpa, delta=1e-6 * drive)
        self.assertAlmostEqual(found.l_per_s, through(drive - kpa, bore, density * 1000), delta=1e-5)

    @given(st.floats(5, 60), st.floats(8, 60), st.floats(0.1, 0.95))
    def test_turned_round(self, drive: float, bore: float, share: float) -> None:
        """The pressure that leaves a given stream leaves just that."""
        wanted = share * inlet_l_per_s(drive, 0, bore, PETROL_KG_PER_L)
        kpa = held_back_kpa(drive, wanted, bore, PETROL_KG_PER_L)
        self.assertAlmostEqual(inlet_l_per_s(drive, kpa, bore, PETROL_KG_PER_L), wanted)
        self.assertEqual(inlet_l_per_s(drive, drive + 1, bore, PETROL_KG_PER_L), 0.0)

    def test_a_jugs_head(self) -> None:
        """A metre of water is 9.807 kPa."""
        self.assertAlmostEqual(jug_kpa(1000, 1.0), 9.80665)


class Runs(TestCase):
    """Sixty litres go in."""

    def run_of(self, filling: Filling, neck: NeckPath, *vents: VentPath, drawn: float | None = None) -> FillRun:
        """A run of petrol that spits at 2.5 kPa."""
        return fill_run(filling, neck, vents, PETROL_KG_PER_L, ROWS, 2.5, drawn)

    def test_the_mouth_is_the_smaller(self) -> None:
        """A nozzle of 14 mm in a neck of 38 passes as 14; one that is wider than its neck as the neck; a jug pours."""
        wide = VentPath(bore_mm=63)
        for nozzle, neck, mouth in ((14, 38, 14), (51, 38, 38)):
            found = self.run_of(Filling(nozzle_bore_mm=nozzle), NeckPath(bore_mm=neck), wide)
            self.assertAlmostEqual(found.open_vent_s, 60 / through(25, mouth, 745))
        jug = self.run_of(Filling(supply="jug", head_mm=600, nozzle_bore_mm=14), NeckPath(bore_mm=32), wide)
        self.assertAlmostEqual(jug.open_vent_s, 60 / through(0.745 * 9.80665 * 0.6, 32, 745))
        self.assertNotIn("nozzle", {other.what for other in jug.others})

    def test_flaps_in_the_neck(self) -> None:
        """They take their pressure off the drive; more than the drive and nothing goes in."""
        flap = NeckPath(bore_mm=38, valves=(Valve(name="flap", opens_kpa=9),))
        found = self.run_of(Filling(), flap, VentPath(bore_mm=63))
        self.assertAlmostEqual(found.open_vent_s, 60 / through(16, 14, 745))
        shut = NeckPath(bore_mm=38, valves=(Valve(name="flap", opens_kpa=26),))
        self.assertEqual((self.run_of(Filling(), shut, VentPath(bore_mm=20)).seconds < 0), True)

    def test_the_next_two_sizes(self) -> None:
        """Of each thing in the way, as necks and vents come; each with the time that it would take."""
        vent = VentPath(bore_mm=3)
        found = self.run_of(Filling(), NeckPath(bore_mm=38), vent)
        for what, now in (("neck", 38), ("nozzle", 14), ("vent", 3)):
            sizes = [other.size for other in found.others if other.what == what]
            place = BORES_MM.index(now)
            self.assertEqual(sizes, list(BORES_MM[place + 1 : place + 3]))
        for other in found.others:
            if other.what == "vent":
                again = self.run_of(Filling(), NeckPath(bore_mm=38), VentPath(bore_mm=other.size))
                self.assertAlmostEqual(other.seconds, again.seconds)
        self.assertEqual(found.held_back_by, "vent")

    @given(st.floats(1.05, 3))
    @settings(max_examples=30)
    def test_a_vent_for_a_wanted_time(self, slower: float) -> None:
        """The vent named for it fills in that time, and one of a tenth of a millimetre less doesn't."""
        neck = NeckPath(bore_mm=38)
        open_s = self.run_of(Filling(), neck, VentPath(bore_mm=10)).open_vent_s
        bore = self.run_of(Filling(wanted_s=open_s * slower), neck, VentPath(bore_mm=10)).vent_for_wanted_mm
        assert bore is not None
        self.assertLessEqual(self.run_of(Filling(), neck, VentPath(bore_mm=bore)).seconds, open_s * slower * 1.000001)
        self.assertGreater(self.run_of(Filling(), neck, VentPath(bore_mm=bore - 0.1)).seconds, open_s * slower)

    def test_sooner_than_the_nozzle_can(self) -> None:
        """No vent makes a nozzle give more than it has."""
        found = self.run_of(Filling(wanted_s=5), NeckPath(bore_mm=38), VentPath(bore_mm=10))
        self.assertGreater(found.open_vent_s, 5)
        self.assertIsNone(found.vent_for_wanted_mm)

    def test_levels_on_the_way(self) -> None:
        """Litres over time at the steady stream, levels as the tank has them, its pressure the same throughout."""
        found = self.run_of(Filling(), NeckPath(bore_mm=38), VentPath(bore_mm=5), drawn=200)
        self.assertEqual([(point.level_mm, point.litres) for point in found.points], ROWS)
        self.assertAlmostEqual(found.points[1].seconds, 0.4 * found.seconds)
        self.assertEqual({point.tank_kpa for point in found.points}, {found.peak_kpa})
        self.assertEqual(found.shuts_off, found.peak_kpa > 2.5)
        assert found.vacuum_kpa is not None
        self.assertAlmostEqual(through(found.vacuum_kpa, 5, AIR) * 3600, 200, places=4)
