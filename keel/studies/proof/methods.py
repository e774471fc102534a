"""The methods of a leak test side by side: what each would show on this tank, how long it takes, what it can't see."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from keel.analysis.parts import RULES
from keel.analysis.study import study
from keel.design.proof import ProofMethod
from keel.design.workshop import HouseRules
from keel.studies.proof.plan import PROOF_PLAN, CellPlan, ProofPlan
from keel.studies.proof.walk import WALK, WalkSeam
from keel.studies.result import Words, words

SOAP_SCCM, SUBMERGED_SCCM = 0.6, 0.06
"""Smallest leak at one place that shows: 10⁻³ and 10⁻⁴ Pa·m³/s; EN 1779, bubble tests by liquid and by immersion."""
DROP_ML = 0.05
WALK_MIN_PER_M = 2.0
"""Soaped and watched, a metre of seam (house rule)."""
WORKING_DAY_MIN = 480.0
MM_PER_M = 1000.0


@dataclass(frozen=True, slots=True)
class MethodFigures:
    """One method on this tank.

    Attributes
    ----------
    method : ProofMethod
        Which.
    smallest_sccm : float or None
        Smallest leak that it shows [cm³/min of air]; None where it goes by liquid.
    minutes : float
        How long it takes, all cells one after the other [min].
    tells, misses : Words
        What it says of a leak, and what it can't see.
    is_favoured : bool
        Whether the figures favour it.
    """

    method: ProofMethod
    smallest_sccm: float | None
    minutes: float
    tells: Words
    misses: Words
    is_favoured: bool = False


def methods(plan: ProofPlan, seams: Sequence[WalkSeam], rules: HouseRules) -> list[MethodFigures]:
    """The methods side by side.

    Parameters
    ----------
    plan : ProofPlan
        How each cell is tested.
    seams : sequence of WalkSeam
        Seams that are walked.
    rules : HouseRules
        Least times.

    Returns
    -------
    list of MethodFigures
        Favoured is decay where it decides within a working day: it alone says how much, over all of the tank. Else
        soap, or water where soap wouldn't show the limit. Fuel on paper is never the first.

    References
    ----------
    EN 1779 (1999), annex A: least leaks that bubble tests show.
    """
    limit = min(cell.limit_sccm for cell in plan.cells)
    decay = sum(max(cell.minutes, cell.least_min.both) for cell in plan.cells)
    longest = max(cell.least_min.both for cell in plan.cells)
    first: ProofMethod = "pressure decay"
    if longest > WORKING_DAY_MIN:
        first = "soap and low pressure" if limit >= SOAP_SCCM else "submerged"
    metres = sum(seam.length_mm for cell in plan.cells for seam in seams if cell.cell in seam.cells) / MM_PER_M
    hidden = [seam.name for seam in seams if seam.kind == "partition"]
    found = [
        _decay(plan.cells, decay),
        MethodFigures(
            method="soap and low pressure",
            smallest_sccm=SOAP_SCCM,
            minutes=metres * WALK_MIN_PER_M,
            tells=words("Where it leaks, seam by seam"),
            misses=words("What nobody soaps{hidden}", hidden=f": {', '.join(hidden)}" if hidden else ""),
        ),
        MethodFigures(
            method="submerged",
            smallest_sccm=SUBMERGED_SCCM,
            minutes=rules.submerged_min * len(plan.cells),
            tells=words("Where it leaks, all of it at once"),
            misses=words("What lies deeper than {deep_mm}; holding it down takes {lift_n}", **_water(plan.cells)),
        ),
        MethodFigures(
            method="filled, on dry paper",
            smallest_sccm=None,
            minutes=rules.on_paper_min,
            tells=words("Drops of {drop} mL below the level, where they fall", drop=DROP_ML),
            misses=words("All that lies above the fuel; a leak then has to be made safe first: last, not first"),
        ),
    ]
    return [replace(one, is_favoured=one.method == first) for one in found]


def _decay(cells: Sequence[CellPlan], minutes: float) -> MethodFigures:
    open_part = max(cell.limit_sccm * cell.least_min.by_uncertainty / max(cell.minutes, 1e-9) for cell in cells)
    return MethodFigures(
        method="pressure decay",
        smallest_sccm=open_part,
        minutes=minutes,
        tells=words("How much it leaks in all, with what the instruments leave open"),
        misses=words("Where it leaks: soap finds that meanwhile"),
    )


def _water(cells: Sequence[CellPlan]) -> dict[str, float]:
    return {"deep_mm": min(cell.deepest_mm for cell in cells), "lift_n": cells[0].hold_down_n}


METHODS = study(methods, PROOF_PLAN, WALK, RULES).at_rest()
"""The methods of a leak test side by side."""
