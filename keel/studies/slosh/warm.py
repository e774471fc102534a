"""Compile the kernel ahead of its first use; what is compiled is kept beside the source."""

from keel.design.features import Baffle, Sump
from keel.design.ports import Port
from keel.design.shell import BoxShell
from keel.solid.build import build
from keel.studies.slosh.log import still
from keel.studies.slosh.model import Setup, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.starvation import starvation_map


def warm() -> None:
    """Run a small tank with all that has to be compiled for a moment: a plate, and a sump that pools part at."""
    plate = Baffle(id="b", name="b", axis="x", at_mm=150)
    sump = Sump(id="s", name="s", a_mm=20, b_mm=60, long_mm=80, wide_mm=80, deep_mm=40)
    shell = BoxShell(length_mm=300, width_mm=200, height_mm=200, thickness_mm=2, features=(plate, sump))
    tank = slosh_tank(build(shell), [Port(id="p", name="p", role="pickup", x_mm=60, y_mm=100, z_mm=-30)])
    if tank is not None:
        slosh_run(tank, still("warm", 0.1), Setup())
        starvation_map(tank)
