"""What regulators send back, and whether they hold their pressure while they do."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.line_functions import RegulatorDoes
from keel.design.lines import Lines
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.modes import Mode


@dataclass(frozen=True, slots=True)
class SurplusMode:
    """A regulator in one mode.

    Attributes
    ----------
    back_lph : float or None
        What it sends back.
    held_kpa : float
        What it is set to, over the air's.
    over_kpa : float or None
        How far its inlet stands over that; below zero it is shut and too little comes.
    back_kpa : float or None
        Pressure behind it.
    """

    mode: str
    back_lph: float | None
    held_kpa: float
    over_kpa: float | None
    back_kpa: float | None


@dataclass(frozen=True, slots=True)
class Surplus:
    """A bypass regulator in every mode. `flat_lph`: what its table lets by without a rise."""

    part: str
    name: str
    flat_lph: float | None
    modes: list[SurplusMode]


def surpluses(lines: Lines, flows: LineFlows, modes: Sequence[Mode]) -> list[Surplus]:
    """Every bypass regulator.

    Parameters
    ----------
    lines : Lines
        Parts.
    flows : LineFlows
        With filters clean: then most comes back.
    modes : sequence of Mode
        Manifold pressures.

    Returns
    -------
    list of Surplus
        In the order of the parts.
    """
    found = []
    for part in lines.parts:
        does = part.does
        if not isinstance(does, RegulatorDoes) or does.way != "bypass":
            continue
        none: list[float | None] = [None] * len(modes)
        before, behind = flows.kpa(part.id, "chamber") or none, flows.kpa(part.id, "return") or none
        flow = flows.part(part.id)
        rows = []
        for place, mode in enumerate(modes):
            held = does.set_kpa + (mode.manifold_kpa if does.is_referenced else 0.0)
            kpa = before[place]
            over = None if kpa is None else kpa - held
            rows.append(SurplusMode(mode.name, flow.flow_lph[place] if flow else None, held, over, behind[place]))
        flat = [row.l_per_h for row in does.rises if row.kpa == 0]
        found.append(Surplus(part.id, part.name, max(flat, default=None), rows))
    return found


SURPLUSES = study(surpluses, LINES, FLOWS, LINE_MODES)
