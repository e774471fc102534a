"""Compile the kernel ahead of its first use; what is compiled is kept beside the source."""

from keel.design.features import Baffle
from keel.design.ports import Port
from keel.design.shell import BoxShell
from keel.solid.build import build
from keel.studies.slosh.log import still
from keel.studies.slosh.model import Setup, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.starvation import starvation_map


def warm() -> None:
    """Run a small tank for a moment."""
    plate = Baffle(id="b", name="b", axis="x", at_mm=150)
    shell = BoxShell(length_mm=300, width_mm=200, height_mm=200, thickness_mm=2, features=(plate,))
    tank = slosh_tank(build(shell), [Port(id="p", name="p", role="pickup", x_mm=60, y_mm=100)])
    if tank is not None:
        slosh_run(tank, still("warm", 0.1), Setup())
        starvation_map(tank)
