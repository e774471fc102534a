"""Putting the inside together: whether plates go in, in which order they are welded, what a torch reaches."""

from dataclasses import dataclass
from itertools import pairwise

from manifold3d import CrossSection

from keel.analysis.parts import RULES, SOLIDS
from keel.analysis.study import study
from keel.design.features import Baffle, Partition
from keel.design.workshop import HouseRules
from keel.solid.solids import FeatureCost, Solids

IN_THE_WAY_MM2 = 50.0
"""A plate that overlaps less than this with what stands between it and an end passes by it [mm²]."""
AT_END_MM = 10.0
"""A feature this near to an end leaves no plate beyond it [mm]."""


@dataclass(frozen=True, slots=True)
class Beyond:
    """A plate whose seams lie further in than a torch reaches."""

    id: str
    name: str
    mm: float


@dataclass(frozen=True, slots=True)
class Blocked:
    """A plate that can't be slid in from either end, and what is in its way."""

    id: str
    name: str
    by: list[str]


@dataclass(frozen=True, slots=True)
class Assembly:
    """How the inside goes together while both ends are open.

    Attributes
    ----------
    order : list of str
        Plates in the order they are welded: from the middle outward, each from the nearer end.
    crossed : list of str
        Plates that cross others: joined outside, they go in as one.
    beyond, blocked
        What can't be reached and what can't be put in.
    shut_in : list of tuple of str
        Pairs of neighbouring plates between which a plate that crosses both has seams that nothing reaches.
    """

    order: list[str]
    crossed: list[str]
    beyond: list[Beyond]
    blocked: list[Blocked]
    shut_in: list[tuple[str, str]]


Plated = Baffle | Partition


def assembly(solids: Solids, reach_mm: float) -> Assembly:
    """How the plates of a shell go in and are welded.

    Parameters
    ----------
    solids : Solids
        The shell as built. Its ends lie square to the axis that its section is drawn out along; the body is closed
        before the plates go in, its ends after.
    reach_mm : float
        How far a torch reaches from an open end [mm].

    Returns
    -------
    Assembly
    """
    axis = solids.section.axis
    plates = [f for f in solids.shell.features if isinstance(f, Baffle | Partition)]
    costs = {cost.id: cost for cost in solids.costs}
    across = [f for f in plates if "xy".index(f.axis) == axis]
    along = [f for f in plates if f not in across]
    across.sort(key=lambda f: -_depth(solids, costs[f.id], axis))
    crossing = {f.id: [other for other in across if _crosses(costs[f.id], costs[other.id], axis)] for f in along}
    crossed = [f for f in plates if crossing.get(f.id) or any(f in met for met in crossing.values())]
    depths = [(f, _depth(solids, costs[f.id], axis)) for f in across]
    depths += [(f, costs[f.id].box.size[axis] / 2) for f in along]
    found = [Beyond(f.id, f.name, mm) for f, mm in depths if mm > reach_mm]
    blocked = [Blocked(f.id, f.name, by) for f in plates if (by := _in_the_way(solids, f, costs, axis))]
    rows = [sorted(met, key=lambda f: f.at_mm) for met in crossing.values()]
    shut = {(a.name, b.name) for row in rows for a, b in pairwise(row)}
    return Assembly([f.name for f in (*along, *across)], [f.name for f in crossed], found, blocked, sorted(shut))


def _depth(solids: Solids, cost: FeatureCost, axis: int) -> float:
    """From the nearer end to a plate [mm]."""
    low, high = solids.body.low[axis], solids.body.high[axis]
    return min(cost.box.low[axis] - low, high - cost.box.high[axis])


def _crosses(along: FeatureCost, across: FeatureCost, axis: int) -> bool:
    return along.box.low[axis] < across.box.low[axis] and across.box.high[axis] < along.box.high[axis]


def _in_the_way(solids: Solids, plate: Plated, costs: dict[str, FeatureCost], axis: int) -> list[str]:
    """What stops a plate from either end; nothing where one end is free."""
    others = [cost for cost in costs.values() if cost.kind in ("well", "relief", "roof step", "pot")]
    if "xy".index(plate.axis) != axis:
        return [cost.name for cost in others if _straddles(solids, plate, cost, axis)]
    box = costs[plate.id].box
    face = solids.plates[plate.id].left
    rear = [cost.name for cost in others if cost.box.high[axis] < box.low[axis] and _overlaps(face, cost, axis)]
    front = [cost.name for cost in others if cost.box.low[axis] > box.high[axis] and _overlaps(face, cost, axis)]
    return [*rear, *front] if rear and front else []


def _overlaps(face: CrossSection, cost: FeatureCost, axis: int) -> bool:
    """Whether a plate's face meets what a feature takes, seen along the axis."""
    across, low, high = 1 - axis, cost.box.low, cost.box.high
    if axis == 2:
        return False
    size = (high[across] - low[across], high[2] - low[2])
    return bool((face ^ CrossSection.square(size).translate((low[across], low[2]))).area() > IN_THE_WAY_MM2)


def _straddles(solids: Solids, plate: Plated, cost: FeatureCost, axis: int) -> bool:
    """Whether a plate that lies along the axis has metal on both sides of a feature that cuts into it."""
    side = "xy".index(plate.axis)
    start = solids.datum[side] + plate.at_mm
    if axis == 2 or not cost.box.low[side] < start < cost.box.high[side]:
        return False
    low, high = solids.body.low[axis] + AT_END_MM, solids.body.high[axis] - AT_END_MM
    return low < cost.box.low[axis] and cost.box.high[axis] < high


def assembly_by(solids: Solids, rules: HouseRules) -> Assembly:
    """How the plates go in and are welded, with the torch's reach of the house rules."""
    return assembly(solids, rules.torch_reach_mm)


ASSEMBLY = study(assembly_by, SOLIDS, RULES)
