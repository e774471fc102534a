"""What of a tank it is that comes too near: the shell, a lip, or what stands at a port."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import BAY, LIP, PORTS, RULES, SCANS, SOLIDS
from keel.analysis.study import study
from keel.design.bay import Bay
from keel.design.ports import Port
from keel.design.workshop import HouseRules
from keel.solid.envelope import envelope_of
from keel.solid.neighbours import Scans
from keel.solid.solids import Solids
from keel.solid.standing import stands_out
from keel.studies.result import in_words
from keel.studies.space.clearance import GAPS, gaps
from keel.studies.space.gap import Gap

BETTER_MM = 0.5
"""What leaves a gap this much wider without it is what fouls there [mm]."""


@dataclass(frozen=True, slots=True)
class Fouls:
    """What comes too near, in words, and the ports where it stands at some: all of those that come as near."""

    name: str
    ports: Sequence[Port] = ()
    is_hose: bool = False


THE_TANK = Fouls("the tank")
"""Where nobody asked which part of it."""


def fouling(
    gap: Gap, bay: Bay, solids: Solids, lip_mm: float, ports: Sequence[Port], rules: HouseRules, scans: Scans
) -> Fouls:
    """What has to move for a gap to widen: that without which it is wider.

    Parameters
    ----------
    gap : Gap
        One that is too small.
    bay, solids, lip_mm, ports, rules, scans
        What it was measured with.
    """
    only = bay.model_copy(update={"keep_outs": [k for k in bay.keep_outs if k.id == gap.key]})

    def without(left: Sequence[Port], lip: float) -> float:
        found = gaps(only, envelope_of(solids, lip, left), rules, scans)
        return next((other.gap_mm for other in found if (other.kind, other.key) == (gap.kind, gap.key)), gap.gap_mm)

    if any(map(stands_out, ports)) and without([], lip_mm) > gap.gap_mm + BETTER_MM:
        fouls = [p for p in ports if stands_out(p) and without([p], lip_mm) <= gap.gap_mm + BETTER_MM]
        hoses = [p for p in fouls if p.bend and without([_hoseless(p)], lip_mm) > gap.gap_mm + BETTER_MM]
        if fouls:
            names = [f"the hose at {port.name}" if port in hoses else port.name for port in fouls]
            return Fouls(in_words(names), fouls, is_hose=hoses == fouls)
    if lip_mm > 0 and without(ports, 0.0) > gap.gap_mm + BETTER_MM:
        return Fouls("the wrapper's lip")
    return Fouls("the shell")


def _hoseless(port: Port) -> Port:
    return port.model_copy(update={"bend": None})


def what_fouls(
    found: list[Gap], bay: Bay, solids: Solids, lip_mm: float, ports: Sequence[Port], rules: HouseRules, scans: Scans
) -> dict[tuple[str, str], Fouls]:
    """What comes too near at each gap that is too small, by the gap's kind and key."""
    return {
        (gap.kind, gap.key): fouling(gap, bay, solids, lip_mm, ports, rules, scans) for gap in found if not gap.clears
    }


FOULING = study(what_fouls, GAPS, BAY, SOLIDS, LIP, PORTS, RULES, SCANS)
