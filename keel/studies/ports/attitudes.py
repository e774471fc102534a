"""What pickups leave and vents trap in the usual attitudes."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import GAUGE, PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.attitude import Attitude
from keel.design.gauge import Gauge
from keel.design.ports import Port
from keel.solid.solids import Solids
from keel.studies.gauge.motion import needle_reader
from keel.studies.liquid.draining import drained

SLOPE_DEG = 8.0
TURN_G = 0.5
"""Attitudes that a pickup and a vent are tried in."""
ATTITUDES: dict[str, Attitude] = {
    "on the level": Attitude(),
    "nose up": Attitude(pitch_deg=SLOPE_DEG),
    "nose down": Attitude(pitch_deg=-SLOPE_DEG),
    "left turn": Attitude(left_g=TURN_G),
    "right turn": Attitude(left_g=-TURN_G),
}


@dataclass(frozen=True, slots=True)
class Unreached:
    """Litres that all pickups together leave, brimful to dry, in an attitude; and air that stays."""

    attitude: str
    stranded_l: float | None
    trapped_l: float | None
    needle: float | None
    """Where the needle stands with that much left, back on the level; empty with several cells or no sender."""


def in_attitudes(solids: Solids, ports: Sequence[Port], gauge: Gauge | None = None) -> list[Unreached]:
    """What the pickups leave and the vents trap on the level, nose up and down and in turns."""
    if not ports:
        return []
    found = []
    read = needle_reader(gauge, solids) if gauge else None
    for name, attitude in ATTITUDES.items():
        cells = drained(solids, ports, attitude)
        stranded = [cell.stranded_l for cell in cells if cell.stranded_l is not None]
        trapped = [cell.trapped_l for cell in cells if cell.trapped_l is not None]
        left = sum(stranded) if stranded else None
        needle = read(left) if read and left is not None else None
        found.append(Unreached(name, left, sum(trapped) if trapped else None, needle))
    return found


IN_ATTITUDES = study(in_attitudes, SOLIDS, PORTS, GAUGE).at_rest()
