"""Get ready ahead of the first question: compile what is compiled, load what is loaded at its first use."""

from keel.design.document import Design
from keel.design.features import Baffle, Sump
from keel.design.ports import Port
from keel.design.shell import BoxShell
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.solid.build import build
from keel.studies.slosh.log import still
from keel.studies.slosh.model import Setup, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.starvation import starvation_map

KEEP_OUT = {"id": "k", "name": "k", "x_mm": 320, "y_mm": 0, "z_mm": 0, "length_mm": 60, "width_mm": 90, "height_mm": 60}
OPENING = {"a_mm": 0, "b_mm": 0, "long_mm": 60, "wide_mm": 60}
PORTS = [
    {"id": role, "name": role, "role": role, "x_mm": x, "y_mm": 60, "z_mm": 190}
    for role, x in (("filler", 40), ("vent", 90), ("pickup", 220))
]
CORNERS = [{"across_mm": across, "up_mm": up} for across, up in ((0, 0), (400, 0), (400, 200), (200, 250), (0, 200))]
SMALL = {
    "brief": {"target_l": 10},
    "bay": {"length_mm": 500, "width_mm": 500, "height_mm": 400, "keep_outs": [KEEP_OUT], "opening": OPENING},
    "shell": {"kind": "profile", "corners": CORNERS, "run_mm": 300, "thickness_mm": 2},
    "ports": PORTS,
}


def warm_kernels() -> None:
    """Run a small tank with all that has to be compiled for a moment: a plate, and a sump that pools part at."""
    plate = Baffle(id="b", name="b", axis="x", at_mm=150)
    sump = Sump(id="s", name="s", a_mm=20, b_mm=60, long_mm=80, wide_mm=80, deep_mm=40)
    shell = BoxShell(length_mm=300, width_mm=200, height_mm=200, thickness_mm=2, features=(plate, sump))
    tank = slosh_tank(build(shell), [Port(id="p", name="p", role="pickup", x_mm=60, y_mm=100, z_mm=-30)])
    if tank is not None:
        slosh_run(tank, still("warm", 0.1), Setup())
        starvation_map(tank)


def warm_answers() -> None:
    """Evaluate a small tank with its remedies: what a library loads at its first use is loaded then."""
    evaluate(Design.model_validate(SMALL), Workshop())
