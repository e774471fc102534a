"""How near wires come to what is hot, moves or rubs, where they aren't tied to a hose that is judged itself."""

from collections.abc import Iterator
from itertools import pairwise
from math import pi, sqrt

import numpy as np

from keel.analysis.parts import RULES, SOLIDS, WIRING
from keel.analysis.study import study
from keel.design.lines import Lines
from keel.design.wiring import Wiring
from keel.design.workshop import HouseRules
from keel.solid.solids import Solids
from keel.studies.lines.route_gaps import RouteGap, route_gaps
from keel.studies.lines.run_shapes import RunShape
from keel.studies.lines.surroundings import SURROUNDINGS, Surroundings
from keel.studies.wiring.runs import WIRE_RUNS, JoinedThing, WireRun, WireRuns
from keel.studies.wiring.wired import WIRED, Wired

COVER_MM = 0.8
"""Of insulation about the copper (house rule)."""
RUBS = ("metal", "edge", "tank")


def wire_gaps(
    wiring: Wiring, runs: WireRuns, figures: Wired, about: Surroundings, solids: Solids, rules: HouseRules
) -> list[RouteGap]:
    """The neighbours of every wire outside the tank.

    Parameters
    ----------
    wiring : Wiring
        Wires.
    runs : WireRuns
        Where they lie.
    figures : Wired
        How thick they are.
    about : Surroundings
        What stands about them.
    solids : Solids
        The tank.
    rules : HouseRules
        How far they stay off.

    Returns
    -------
    list of RouteGap
        Wires don't count as neighbours of each other; one that is tied down rubs on nothing, and counts as
        tied until somebody says otherwise.
    """
    shapes = [shape for run in runs.wires for shape in _own(run, _outside(run.id, figures), wiring, runs)]
    gaps = [gap for shape in shapes for gap in route_gaps(Lines(), [shape], about, [], solids, rules)]
    held = {wire.id for wire in wiring.wires if wire.supported is not False}
    return [gap for gap in gaps if not (gap.run in held and gap.danger in RUBS and _only_touches(gap))]


def _only_touches(gap: RouteGap) -> bool:
    return gap.gap_mm >= 0 or gap.danger == "edge"


def _outside(wire: str, figures: Wired) -> float:
    known = figures.wire(wire)
    return 2 * (sqrt((known.area_mm2 if known else 1.0) / pi) + COVER_MM)


def _own(run: WireRun, outside_mm: float, wiring: Wiring, runs: WireRuns) -> Iterator[RunShape]:
    """Stretches of a wire that are its own, as lines; none of one that lies in the tank."""
    wire = next(one for one in wiring.wires if one.id == run.id)
    ends = runs.at(wire.start), runs.at(wire.end)
    if any(end is not None and end.stands == "in the tank" for end in ends):
        return
    piece: list[list[float]] = []
    pieces = []
    for (a, b), own in zip(pairwise(run.way), run.own, strict=True):
        if own:
            piece = [*(piece or [[a.x, a.y, a.z]]), [b.x, b.y, b.z]]
        elif piece:
            pieces.append(piece)
            piece = []
    for line in [*pieces, *([piece] if piece else [])]:
        on = _on_tank(ends[0]), _on_tank(ends[1])
        yield RunShape(run.id, wire.name, "wire", np.array(line), outside_mm, False, on)


def _on_tank(end: JoinedThing | None) -> bool:
    return end is not None and end.stands != "outside"


WIRE_GAPS = study(wire_gaps, WIRING, WIRE_RUNS, WIRED, SURROUNDINGS, SOLIDS, RULES)
