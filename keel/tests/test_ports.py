"""Ports that follow the tank's lid and floor."""

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.ports import Port, PortRole
from keel.evaluation import evaluate
from keel.solid.build import build
from keel.studies.liquid.draining import place_of
from keel.tests.samples import PILOT, WEDGE, box


def port(role: PortRole, x: float, y: float, **more: float) -> Port:
    """A port that follows lid or floor."""
    return Port(id=role, name=role, role=role, x_mm=x, y_mm=y, **more)


class Following(TestCase):
    """Where a port opens when no height is typed."""

    def test_under_the_lid_and_off_the_floor(self) -> None:
        """Flush under a lid, a well's bottom, a sloping lid; 5 mm off the floor and a sump's floor."""
        pilot, wedge = build(PILOT), build(WEDGE)
        self.assertAlmostEqual(place_of(pilot, port("vent", 900, 300))[2], 555, delta=0.01)
        self.assertAlmostEqual(place_of(pilot, port("vent", 400, 300))[2], 560 - 120 - 5, delta=0.01)
        self.assertAlmostEqual(place_of(pilot, port("pickup", 900, 300))[2], 10, delta=0.01)
        self.assertAlmostEqual(place_of(pilot, port("pickup", 170, 300))[2], -60 + 5 + 5, delta=0.01)
        lid = 345 - (400 - 230) * 155 / 330 - 3 * (155**2 + 330**2) ** 0.5 / 330
        self.assertAlmostEqual(place_of(wedge, port("vent", 400, 300))[2], lid, delta=0.01)

    @given(st.sampled_from([2.0, 3.0, 5.0]), st.integers(200, 500))
    @settings(max_examples=20)
    def test_thicker_or_taller_they_stay_inside(self, thickness: float, height: float) -> None:
        """Neither a change of sheet nor of height puts them outside: no air is trapped, 5 mm stays."""
        tank = box(600, 400, float(height), thickness_mm=thickness)
        ports = (port("vent", 300, 200), port("pickup", 300, 200))
        seen = evaluate(Design(shell=tank, ports=ports), None, Showing(remedies=False))
        self.assertNotIn("port.outside", {finding.code for finding in seen.findings})
        inside = (600 - 2 * thickness) * (400 - 2 * thickness)
        self.assertLess(seen.shell.drained[0].trapped_l or 0, 1e-3)
        self.assertAlmostEqual(seen.shell.drained[0].stranded_l or 0, inside * 5 / 1e6, places=6)

    def test_beside_the_tank_it_is_outside(self) -> None:
        """A port with no lid over it says so, and can be brought in."""
        subject = Design(shell=box(600, 400, 300, bend_radius_mm=4.5), ports=(port("pickup", 900, 200),))
        found = next(f for f in evaluate(subject).findings if f.code == "port.outside")
        self.assertTrue(found.remedies)
