"""What presses on a panel, and what its metal may bear."""

from collections.abc import Sequence
from itertools import pairwise

from keel.design.features import Feature, Partition
from keel.design.workshop import HouseRules
from keel.reference.fuels import FUELS, FuelName
from keel.reference.metals import METALS
from keel.solid.solids import Solids
from keel.studies.result import Words, words
from keel.studies.strength.plate_bending import fuel_head_kpa, pushed_kpa


class Loads:
    """What presses on a panel, and what its metal may bear."""

    def __init__(self, fuel: FuelName, solids: Solids, rules: HouseRules, plates: Sequence[Feature]) -> None:
        self.rules, self.metal = rules, METALS[solids.shell.metal]
        self.density, self.solids, self.plates = FUELS[fuel].density_kg_per_l, solids, plates
        self.allowed_mpa = rules.stress_share * self.metal.welded_yield_mpa
        self.depth_mm = solids.inner_body.size[2]

    def bump(self) -> tuple[float, Words]:
        """The full depth under a bump."""
        return fuel_head_kpa(self.density, self.depth_mm, self.rules.bump_g), words(
            "{deep_mm} of fuel in a bump of {bump_g} extra", deep_mm=self.depth_mm, bump_g=self.rules.bump_g
        )

    def upright(self, run_mm: float) -> tuple[float, Words]:
        """The worse of a bump and of a cell pushed against an upright panel."""
        bump, pushed = self.bump(), pushed_kpa(self.density, self.depth_mm, run_mm, self.rules.push_g)
        if bump[0] >= pushed:
            return bump
        return pushed, words(
            "{deep_mm} of fuel and {run_mm} of it pushed against the panel at {push_g}",
            deep_mm=self.depth_mm,
            run_mm=run_mm,
            push_g=self.rules.push_g,
        )

    def run_mm(self, axis: int, beside: Partition | None = None) -> float:
        """The longest cell along an axis; with a partition the longer of those on its two sides."""
        wall = self.solids.shell.feature_wall_mm
        walls = [f for f in self.plates if isinstance(f, Partition) and "xyz".index(f.axis) == axis]
        places = [0.0, *sorted(f.middle_mm(wall) for f in walls), self.solids.body.size[axis]]
        at = None if beside is None else beside.middle_mm(wall)
        return max(b - a for a, b in pairwise(places) if at is None or at in (a, b))
