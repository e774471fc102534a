"""Air's way out, seats on their sheet, hangers cut to length: figures by hand, and by a second reckoning."""

from math import hypot, pi, sqrt
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from keel.analysis.parts import PORTS
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.attitude import specific_force
from keel.design.document import Design
from keel.design.ports import Filling, NeckPath, Valve, VentPath
from keel.design.workshop import Workshop
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.ports.filling import FillRun, fill_run
from keel.studies.ports.landing import CROWDS, LANDINGS
from keel.studies.ports.reach import REACHES
from keel.studies.ports.streams import held_back_kpa, inlet_l_per_s
from keel.studies.ports.vent_paths import ROWS, level_rows, neck_of, vents_by_cell
from keel.studies.ports.vents_on_slopes import SLOPES, vents_under_on_slopes

PETROL = 0.745
CD = 0.62
SHELL = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 300.0, "thickness_mm": 2.0, "bend_radius_mm": 6.0}
SEAT = {"kind": "boss", "hole_mm": 22.0, "outer_mm": 40.0}
"""A port's seat 40 mm across."""


def port(key: str, x: float, y: float, **more: Any) -> dict[str, Any]:
    return {"id": key, "name": key, "role": "vent", "x_mm": x, "y_mm": y, "seat": SEAT} | more


def analysed(*ports: dict[str, Any], shell: dict[str, Any] | None = None, **more: Any) -> TankAnalysis:
    document = {"shell": SHELL | (shell or {}), "ports": list(ports)} | more
    return TankAnalysis(Asked(Design.model_validate(document), Workshop()))


def filled(vents: list[VentPath], neck: NeckPath | None = None, **filling: Any) -> FillRun:
    rows = [(0.0, 0.0), (300.0, 60.0)]
    return fill_run(Filling(**filling), neck or NeckPath(), vents, PETROL, rows, 2.0, None)


class Streams(TestCase):
    """Fuel in, air out."""

    @given(st.floats(1.0, 40.0), st.floats(0.0, 60.0), st.floats(8.0, 60.0))
    def test_an_inlet_by_torricelli(self, drive: float, tank: float, bore: float) -> None:
        """C_d A √(2 Δp/ρ); none against a higher pressure; turned round it gives the pressure back."""
        flow = inlet_l_per_s(drive, tank, bore, PETROL)
        over = max(0.0, drive - tank) * 1000
        self.assertAlmostEqual(
            flow, CD * pi * (bore / 2000) ** 2 * sqrt(2 * over / 745) * 1000, delta=1e-9 + 1e-9 * flow
        )
        if over > 1:
            self.assertAlmostEqual(held_back_kpa(drive, flow, bore, PETROL), tank, delta=1e-6 * (1 + drive))

    def test_a_flap_in_the_neck_takes_its_pressure_off_the_drive(self) -> None:
        """A neck whose flap opens at 3 kPa fed with 10 fills like a plain one fed with 7."""
        vent = VentPath(bore_mm=14.0, length_m=0.5)
        flap = NeckPath(bore_mm=40.0, valves=[Valve(name="flap", opens_kpa=3.0)])
        with_flap = filled([vent], flap, supply="nozzle", supply_kpa=10.0, nozzle_bore_mm=20.0)
        plain = filled([vent], NeckPath(bore_mm=40.0), supply="nozzle", supply_kpa=7.0, nozzle_bore_mm=20.0)
        self.assertAlmostEqual(with_flap.l_per_s, plain.l_per_s)
        self.assertAlmostEqual(with_flap.seconds, plain.seconds)

    @given(st.floats(0.3, 3.0))
    def test_the_vent_for_a_wanted_time(self, share: float) -> None:
        """The bore that is told fills in the time wanted; a tenth of a millimetre less doesn't."""
        plain = filled([VentPath(bore_mm=8.0, length_m=1.0)], supply="nozzle", supply_kpa=8.0, nozzle_bore_mm=20.0)
        wanted = plain.open_vent_s + share * (plain.seconds - plain.open_vent_s)
        run = filled([VentPath(bore_mm=8.0, length_m=1.0)], supply="nozzle", supply_kpa=8.0, nozzle_bore_mm=20.0,
                     wanted_s=wanted)  # fmt: skip
        bore = run.vent_for_wanted_mm
        assert bore is not None
        for off, is_in_time in ((0.0, True), (-0.1, False)):
            again = filled([VentPath(bore_mm=bore + off, length_m=1.0)], supply="nozzle", supply_kpa=8.0,
                           nozzle_bore_mm=20.0)  # fmt: skip
            self.assertEqual(again.seconds <= wanted * 1.0001, is_in_time, (bore, wanted, again.seconds))


class AirsWay(TestCase):
    """Vents and fillers of each cell."""

    def test_levels_in_even_steps_of_litres(self) -> None:
        """Of a sharp box each step is as high; the last is the rated capacity."""
        tank = analysed(shell={"bend_radius_mm": 0.0})
        cell = tank.solids.cells[0].name
        rated = tank[CAPACITY].cells[0].rated_l
        rows = level_rows(tank.solids, cell, rated)
        self.assertEqual(len(rows), ROWS + 1)
        floor = 796.0 * 396.0 / 1e6
        for n, (level, litres) in enumerate(rows):
            self.assertAlmostEqual(litres, rated * n / ROWS)
            self.assertAlmostEqual(level, litres / floor, delta=0.02)

    def test_the_widest_filler_counts(self) -> None:
        """Of two necks in one cell; a vent belongs to the cell that it opens into."""
        wall = {"kind": "partition", "id": "p", "name": "wall", "at_mm": 400.0}
        necks = [port("one", 100.0, 200.0, role="filler", neck={"bore_mm": 30.0}),
                 port("two", 300.0, 200.0, role="filler", neck={"bore_mm": 45.0}),
                 port("far", 700.0, 200.0, role="filler", neck={"bore_mm": 60.0})]  # fmt: skip
        tank = analysed(*necks, port("v1", 200.0, 100.0), port("v2", 600.0, 100.0), shell={"features": [wall]})
        names = [cell.name for cell in tank.solids.cells]
        ports = tank[PORTS]
        found = {name: neck_of(tank.solids, ports, name).bore_mm for name in names}
        self.assertEqual(sorted(found.values()), [45.0, 60.0])
        vents = vents_by_cell(tank.solids, ports)
        self.assertEqual(sorted(vent.name for of_cell in vents.values() for vent in of_cell), ["v1", "v2"])
        for name, of_cell in vents.items():
            self.assertEqual([vent.name for vent in of_cell], ["v1"] if found[name] == 45.0 else ["v2"])

    def test_a_vent_at_one_end_drowns_on_the_slopes_that_lift_the_other(self) -> None:
        """By the level at the vent, from the litres and the slope alone, in a sharp box."""
        for x, y in ((40.0, 200.0), (760.0, 200.0), (400.0, 30.0), (400.0, 370.0), (400.0, 200.0)):
            tank = analysed(port("v", x, y), shell={"bend_radius_mm": 0.0})
            found = vents_under_on_slopes(tank.solids, tank[PORTS], tank[CAPACITY])
            told = set(found[0].slopes) if found else set()
            rated = tank[CAPACITY].cells[0].rated_l
            wanted = {name for name in SLOPES if self.drowns(tank, (x, y), rated, name)}
            self.assertEqual(told, wanted, (x, y))

    def drowns(self, tank: TankAnalysis, at: tuple[float, float], litres: float, name: str) -> bool:
        """Whether more than the rated litres' worth of room lies lower than the vent, counted by places."""
        up = -specific_force(SLOPES[name])
        box = tank.solids.bounds
        steps = (np.arange(40) + 0.5) / 40
        sides = [low + 2 + steps * (size - 4) for low, size in zip(box.low, box.size, strict=True)]
        places = np.array(np.meshgrid(*sides)).reshape(3, -1)
        vent = np.array([box.low[0] + at[0], box.low[1] + at[1], box.high[2] - 2.0])
        below = np.mean(up @ places < up @ vent)
        room = 796 * 396 * 296 / 1e6
        return bool(below * room < litres - 0.5)


class Seats(TestCase):
    """Flat sheet round a seat, and its neighbours."""

    def test_how_far_the_sheet_is_flat(self) -> None:
        """To the bend beside it, along the lid's shorter way out; no further than it needs is looked at."""
        for x, y in ((400.0, 200.0), (400.0, 50.0), (40.0, 200.0)):
            (found,) = analysed(port("p", x, y))[LANDINGS]
            bends = (y - 8.0, 400.0 - y - 8.0, x, 800.0 - x)
            self.assertAlmostEqual(found.flat_mm, min(found.needed_mm, *bends), delta=1.0)
            self.assertAlmostEqual(found.needed_mm - 20.0, Workshop().rules.land_mm)

    def test_how_near_a_plates_weld_is(self) -> None:
        """From the seat's edge to the nearer side of the plate, before and behind it."""
        wall = {"kind": "baffle", "id": "b", "name": "baffle", "at_mm": 300.0, "flange_mm": 15.0}
        for x in (200.0, 270.0, 340.0, 430.0):
            tank = analysed(port("p", x, 340.0), shell={"features": [wall]})
            (found,) = tank[LANDINGS]
            near = 300.0 - x if x < 300 else x - 302.0
            assert found.seam_mm is not None
            self.assertAlmostEqual(found.seam_mm, near - 20.0, delta=0.01)
            self.assertEqual(found.by, "baffle")

    @given(st.floats(-60, 60), st.floats(-60, 60), st.sampled_from([0.0, 20.0, 35.0]))
    def test_seats_that_crowd(self, across: float, along: float, spanner: float) -> None:
        """Nearer than both halves together, or than a spanner and the other's half."""
        tank = analysed(port("a", 400.0, 200.0, spanner_mm=spanner), port("b", 400.0 + along, 200.0 + across))
        apart = hypot(across, along)
        needed = max(40.0, spanner + 20.0 if spanner else 0.0)
        found = tank[CROWDS]
        self.assertEqual(bool(found), apart < needed - 1e-6)
        if found:
            self.assertAlmostEqual(found[0].apart_mm, apart, delta=1e-6)
            self.assertAlmostEqual(found[0].needed_mm, needed)

    def test_what_stands_on_it_counts_as_well(self) -> None:
        """A cap 90 mm wide on a seat of 40 mm takes up 45 mm each way; a neighbour in another face doesn't count."""
        cap = {"stands_mm": 30.0, "across_mm": 90.0}
        (found,) = analysed(port("a", 400.0, 200.0, **cap), port("b", 460.0, 200.0))[CROWDS]
        self.assertAlmostEqual(found.needed_mm, 65.0)
        self.assertFalse(analysed(port("a", 400.0, 200.0), port("b", 400.0, 200.0, face="floor"))[CROWDS])


class Hangers(TestCase):
    """Bracket first, then the tube."""

    @given(st.floats(0, 90), st.floats(0, 60), st.floats(300, 420), st.floats(0, 60))
    def test_lengths_add_up_to_the_depth(self, bracket: float, least: float, made: float, extend: float) -> None:
        """What hangs is bracket, tube between its grips, pump and strainer: together as deep as the inlet."""
        hanger = {"made_for_mm": made, "bracket_mm": bracket, "bracket_least_mm": min(least, bracket), "pump_mm": 80.0,
                  "strainer_mm": 30.0, "grip_mm": 20.0, "extend_mm": extend}  # fmt: skip
        one = port("h", 400.0, 200.0, role="pickup", hanger=hanger, hangs_across_mm=60.0)
        (found,) = analysed(one)[REACHES]
        steps = {step.what: step.length_mm for step in found.steps}
        surplus = max(0.0, made + extend - found.depth_mm)
        kept = max(min(least, bracket), bracket - surplus)
        if bracket - kept > Workshop().rules.measure_mm:
            self.assertAlmostEqual(steps["bracket"] or 0.0, kept, delta=1e-6)
        else:
            self.assertNotIn("bracket", steps)
        tube = found.drop_mm - kept - 80.0 - 30.0 + 2 * 20.0
        self.assertAlmostEqual(steps["tube"] or 0.0, max(tube, 40.0), delta=1e-6)
