"""Places that remedies offer: just over the lowest of a cell whichever way is down, and kept as they were offered."""

import json
from collections.abc import Iterator
from unittest import TestCase

import numpy as np

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.attitude import Attitude, specific_force
from keel.design.workshop import Workshop
from keel.findings.edits import OFF_WALL_MM, at_place, changed_items, extreme_place, lowest_spot, unused
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.studies.liquid.draining import inside, place_of
from keel.tests.wild import Wild

UPS = [
    -specific_force(felt) / np.linalg.norm(specific_force(felt))
    for felt in (
        Attitude(), Attitude(pitch_deg=15), Attitude(roll_deg=-12), Attitude(forward_g=1.1), Attitude(left_g=-0.9),
        Attitude(pitch_deg=-8, roll_deg=8),
    )
]  # fmt: skip


def tanks(count: int, first: int) -> Iterator[TankAnalysis]:
    """Wild tanks that can be made."""
    seed = first
    while count:
        seed += 1
        try:
            tank = TankAnalysis(Asked(read_design(json.dumps(Wild(seed).document())), Workshop()))
            assert tank.solids.cells
        except (GeometryError, UnreadableDesignError):
            continue
        count -= 1
        yield tank


class Extreme(TestCase):
    def test_inside_its_cell_and_just_over_the_lowest(self) -> None:
        for tank in tanks(40, 4000):
            for cell in tank.solids.cells:
                for up in UPS:
                    heights = cell.mesh.points @ up
                    low, deep = float(heights.min()), float(np.ptp(heights))
                    place = extreme_place(cell, up)
                    self.assertTrue(inside(cell, place), tank.design.model_dump_json())
                    self.assertLess(float(place @ up) - low, OFF_WALL_MM + 0.03 * deep + 1.0)

    def test_the_lowest_spot_is_over_the_lowest_of_all_cells(self) -> None:
        for tank in tanks(25, 4500):
            x, y = lowest_spot(tank)
            lowest = min(float(cell.mesh.points[:, 2].min()) for cell in tank.solids.cells)
            datum, deep = np.array(tank.solids.datum), max(np.ptp(cell.mesh.points[:, 2]) for cell in tank.solids.cells)
            spots = [
                np.array([datum[0] + x, datum[1] + y, z]) for z in lowest + np.linspace(0.0, 6.0 + 0.03 * deep, 25)
            ]
            near = [spot for spot in spots if any(inside(cell, spot) for cell in tank.solids.cells)]
            self.assertTrue(near, tank.design.model_dump_json())

    def test_a_port_that_was_moved_is_where_it_was_moved_to(self) -> None:
        moved = 0
        for tank in tanks(30, 5000):
            for port in tank.design.ports:
                place = extreme_place(tank.solids.cells[0], UPS[0])
                there = place_of(tank.solids, at_place(tank, port, place))
                self.assertLess(float(np.abs(there - place).max()), 0.011)
                moved += 1
        self.assertGreater(moved, 30)


class Lists(TestCase):
    def test_one_of_them_is_changed_and_the_others_stay(self) -> None:
        for tank in tanks(10, 5500):
            ports = tank.design.ports
            for port in ports:
                after = changed_items(ports, port.id, stands_mm=1.5)
                self.assertEqual([one["id"] for one in after], [one.id for one in ports])
                self.assertEqual([one["id"] for one in after if one["stands_mm"] == 1.5], [port.id])

    def test_a_name_that_nobody_has(self) -> None:
        self.assertEqual(unused("vent", []), "vent-1")
        self.assertEqual(unused("vent", ["vent-1", "vent-3"]), "vent-2")
