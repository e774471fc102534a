"""Capacity, ullage and levels against worked figures and properties."""

from math import pi
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from keel.design.brief import Brief
from keel.design.shell import BoxShell
from keel.design.workshop import HouseRules
from keel.evaluate import evaluate
from keel.reference.fuels import FUELS
from keel.solid.box import box_solid
from keel.studies.attitude import Attitude
from keel.studies.capacity import DIMENSIONS, capacity, size_for_brimful, ullage_fraction
from keel.studies.level import level_for, strapping_table, volume_below
from keel.studies.liquid import fill_at
from keel.tests.samples import box, design, shells

RULES = HouseRules()
FLANGE = 20.0


class WorkedFigures(TestCase):
    """Figures that were worked out by other means."""

    def test_sharp_box(self) -> None:
        """800 × 400 × 350 outside in 3 mm: 0.794 × 0.394 × 0.344 m."""
        held = capacity(Brief(), box(), box_solid(box(), FLANGE), RULES)
        self.assertAlmostEqual(held.brimful_l, 794 * 394 * 344 / 1e6, places=9)
        self.assertAlmostEqual(held.brimful_l, 107.62, places=2)

    def test_bent_corners_cost_their_quarter_rounds(self) -> None:
        """5 mm inside radius on four edges along the wrapper: (4 − π) r² times the edge inside."""
        for axis, run in (("x", 794), ("y", 394)):
            bent = box_solid(box(bend_radius_mm=5.0, wrap_axis=axis), FLANGE)
            self.assertAlmostEqual(794 * 394 * 344 - bent.volume_mm3, (4 - pi) * 25 * run, places=4)

    def test_welded_corner_is_sharp(self) -> None:
        """A seam at a corner leaves three bends."""
        three = box_solid(box(bend_radius_mm=5.0), FLANGE, sharp_corners=1)
        self.assertAlmostEqual(794 * 394 * 344 - three.volume_mm3, 3 / 4 * (4 - pi) * 25 * 794, places=4)
        self.assertAlmostEqual(volume_below(three, 344), three.volume_mm3 / 1e6, places=9)

    def test_ullage_by_fuel(self) -> None:
        """Warming by 40 K and by 30 K, the shell's growth left out."""
        forty = [0.0387312329, 0.0387312329, 0.0449823549, 0.048751071, 0.03375727, 0.0366558465, 0.0408107742]
        thirty = [0.03, 0.03, 0.0335505392, 0.0363448964, 0.03, 0.03, 0.030454534]
        for rise, expected in ((40, forty), (30, thirty)):
            for fuel, fraction in zip(FUELS.values(), expected, strict=True):
                self.assertAlmostEqual(ullage_fraction(fuel.expansion_per_k, rise, 0, 0.03), fraction, places=5)

    def test_the_shells_own_growth_comes_off_the_ullage(self) -> None:
        """An aluminium shell grows too: (1 + 23.8e-6 · 40)³ − 1 = 0.2859 %."""
        share = ullage_fraction(FUELS["E85"].expansion_per_k, 40, 23.8e-6, 0.03)
        self.assertAlmostEqual(share, 0.0449823549 - 0.0028587, places=6)

    def test_lines_add_up(self) -> None:
        """The sum shown to a doubter is the sum."""
        held = evaluate(design(box(bend_radius_mm=6.0))).capacity
        assert held is not None
        self.assertAlmostEqual(sum(line.litres for line in held.lines), held.rated_l, places=9)

    def test_masses(self) -> None:
        """Flat parts in 5052 (2680 kg/m³), and the fuel of the rated capacity on top."""
        seen = evaluate(design(box(bend_radius_mm=3.0)))
        assert seen.sheet and seen.figures and seen.figures.empty_kg and seen.figures.full_kg
        area = sum(part.area_mm2 * part.quantity for part in seen.sheet.parts)
        self.assertAlmostEqual(seen.figures.empty_kg, area * 3 * 2680e-9, places=9)
        self.assertAlmostEqual(seen.figures.full_kg - seen.figures.empty_kg, seen.figures.rated_l * 0.745, places=9)


class Properties(TestCase):
    """What holds for every box."""

    @given(shells(), st.floats(0, 1), st.sampled_from([0, 1]))
    def test_level_and_volume_are_inverse(self, shell: BoxShell, share: float, sharp: int) -> None:
        """A level found for a volume holds that volume."""
        solid = box_solid(shell, FLANGE, sharp)
        fill = fill_at(solid, share, Attitude())
        self.assertAlmostEqual(volume_below(solid, fill.level_mm), fill.volume_l, delta=1e-9 * max(1, fill.volume_l))
        self.assertAlmostEqual(level_for(solid, volume_below(solid, fill.level_mm)), fill.level_mm, delta=1e-6)

    @given(shells(), st.sampled_from([0, 1]))
    def test_strapping_rises_to_brimful(self, shell: BoxShell, sharp: int) -> None:
        """Rows rise from nought to the brimful volume."""
        solid = box_solid(shell, FLANGE, sharp)
        volumes = [row.volume_l for row in strapping_table(solid)]
        self.assertEqual(volumes[0], 0)
        self.assertEqual(volumes, sorted(volumes))
        self.assertAlmostEqual(volumes[-1] * 1e6, solid.volume_mm3, delta=1e-9 * solid.volume_mm3)

    @given(shells(), st.floats(0.05, 0.95))
    def test_volume_is_the_integral_of_the_surface(self, shell: BoxShell, share: float) -> None:
        """Summing the width of the rounded section in thin slices gives the same litres."""
        solid = box_solid(shell, FLANGE)
        width, height, radius = solid.inner.size[solid.across], solid.inner.size[2], solid.radius
        level, steps, total = height * share, 4000, 0.0
        for step in range(steps):
            z = (step + 0.5) * level / steps
            near = min(z, height - z)
            inset = radius - (radius**2 - (radius - near) ** 2) ** 0.5 if near < radius else 0.0
            total += (width - 2 * inset) * level / steps
        self.assertAlmostEqual(volume_below(solid, level), total * solid.inner.size[solid.wrap] / 1e6, delta=2e-3)

    @given(shells(), st.floats(0.3, 3), st.sampled_from(DIMENSIONS))
    def test_size_for_a_capacity_gives_that_capacity(self, shell: BoxShell, factor: float, dimension: str) -> None:
        """Growing one dimension to a brimful volume reaches just that."""
        solid = box_solid(shell, FLANGE)
        wanted = solid.volume_mm3 / 1e6 * factor
        size = size_for_brimful(shell, solid, wanted, dimension)  # type: ignore[arg-type]
        try:
            grown = BoxShell.model_validate(shell.model_dump() | {dimension: size})
        except ValueError:
            return
        self.assertAlmostEqual(box_solid(grown, FLANGE).volume_mm3 / 1e6, wanted, delta=1e-9 * wanted)
