"""What evenly placed baffles would make of the panels."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import count, product
from typing import Literal

from keel.analysis.parts import FUEL, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.features import Baffle
from keel.design.workshop import HouseRules
from keel.reference.fuels import FuelName
from keel.solid.solids import Solids
from keel.studies.strength.panels.rows import panels

MOST_BAFFLES = 3
"""More than these in one row are no remedy."""


@dataclass(frozen=True, slots=True)
class Array:
    """So many baffles across and lengthwise, and how the weakest panel does with them."""

    across: int
    along: int
    plates: list[Baffle]
    is_thin: bool
    """A panel wants thicker sheet."""
    proof_kpa: float


def arrays(fuel: FuelName, solids: Solids, rules: HouseRules) -> list[Array]:
    """Every mix of baffles in both directions, those with the fewest first.

    Parameters
    ----------
    fuel, rules
        Fuel, and what panels have to bear.
    solids : Solids
        The shell worked out.

    Returns
    -------
    list of Array
        Up to three each way, spread evenly, beside what stands there already.
    """
    return [
        _array(fuel, solids, rules, *mix) for mix in sorted(product(range(MOST_BAFFLES + 1), repeat=2), key=sum)[1:]
    ]


def _array(fuel: FuelName, solids: Solids, rules: HouseRules, across: int, along: int) -> Array:
    plates = list(_evenly(solids, across, along))
    found = panels(fuel, solids, rules, [*solids.shell.features, *plates])
    is_thin = any(panel.is_thin for panel in found)
    return Array(across, along, plates, is_thin, min(panel.proof_kpa for panel in found))


def _evenly(solids: Solids, across: int, along: int) -> Iterator[Baffle]:
    taken = {feature.id for feature in solids.shell.features}
    numbers = (n for n in count(1) if f"baffle-{n}" not in taken)
    ways: tuple[tuple[Literal["x", "y"], int], ...] = (("x", across), ("y", along))
    for axis, many in ways:
        size = solids.body.size["xy".index(axis)]
        for place, number in zip(range(1, many + 1), numbers, strict=False):
            at = round(size * place / (many + 1))
            yield Baffle(id=f"baffle-{number}", name=f"baffle {number}", axis=axis, at_mm=at)


ARRAYS = study(arrays, FUEL, SOLIDS, RULES).at_rest()
