"""Whether hoses bear that what they join moves: the engine in its mounts, the tank as it comes out."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import BAY, LINES
from keel.analysis.study import Maybe, study
from keel.design.bay import Bay
from keel.design.lines import Lines
from keel.solid.polyhedron import Array
from keel.solid.standing import OUTWARD
from keel.studies.lines.hoses import HOSES, Hoses
from keel.studies.lines.run_shapes import RUN_SHAPES, RunShape

STEP_MM = 5.0


@dataclass(frozen=True, slots=True)
class HoseSlack:
    """A hose, or a tube, whose ends move against each other.

    Attributes
    ----------
    has_mm : float
        From port to port along it, its ends counted; of a rigid tube straight across, as it gives nothing.
    needs_mm : float
        Between the ports where they are furthest apart.
    off_mm : float
        How far the tank is moved out with it on; 0 where it isn't joined to the tank.
    """

    id: str
    name: str
    kind: str
    has_mm: float
    needs_mm: float
    moves_mm: float
    off_mm: float

    @property
    def is_short(self) -> bool:
        """It is pulled tight before its ends are where they go."""
        return self.has_mm < self.needs_mm - 1e-6


def hose_slack(lines: Lines, shapes: Sequence[RunShape], hoses: Hoses, bay: Bay | None) -> list[HoseSlack]:
    """Every run outside the tank whose ends move.

    Parameters
    ----------
    lines : Lines
        How far ends move, and how far the tank comes out with its hoses on.
    shapes : sequence of RunShape
        As they lie.
    hoses : Hoses
        As they are cut.
    bay : Bay or None
        The tank comes out of its opening; upward where none is typed.

    Returns
    -------
    list of HoseSlack
        In the order of the runs. Half of what the ends move is towards each other; a hose is as long as what it is cut
        to and what its ends take up.
    """
    out = lines.tank_off_mm * np.array(OUTWARD[bay.opening.side if bay and bay.opening else "roof"])
    moves = {run.id: run.moves_mm for run in lines.runs}
    cut = {one.id: one.cut_mm + sum(end.takes_mm for end in one.ends) for one in hoses.cut}
    found = []
    for shape in shapes:
        if shape.inside or shape.kind == "direct":
            continue
        off = lines.tank_off_mm if shape.on_tank[0] != shape.on_tank[1] else 0.0
        if off or moves[shape.id]:
            apart = _apart(shape, out if off else np.zeros(3)) + moves[shape.id] / 2
            has = cut.get(shape.id, _apart(shape, np.zeros(3)))
            found.append(HoseSlack(shape.id, shape.name, shape.kind, has, apart, moves[shape.id], off))
    return found


def length_for(slack: HoseSlack) -> float:
    """What is typed for a hose that is long enough: to the next five millimetres, and five more [mm].

    Parameters
    ----------
    slack : HoseSlack
        A hose that is short.

    Returns
    -------
    float
        Its whole length, slack and all [mm].
    """
    return float(np.ceil((slack.needs_mm - slack.moves_mm / 2) / STEP_MM) * STEP_MM + STEP_MM)


def _apart(shape: RunShape, out: Array) -> float:
    """Between its ends, the tank's moved out."""
    return float(np.linalg.norm(shape.line[-1] + shape.on_tank[1] * out - shape.line[0] - shape.on_tank[0] * out))


SLACKS = study(hose_slack, LINES, RUN_SHAPES, HOSES, Maybe(BAY))
