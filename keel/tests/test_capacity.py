"""Capacity, ullage and levels against worked figures and properties."""

from math import pi
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.design.attitude import Attitude
from keel.design.document import Design
from keel.design.ports import Port
from keel.design.shell import BoxShell
from keel.evaluation import evaluate
from keel.reference.fuels import FUELS
from keel.solid.box import box_solid
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.solids import AnyShell
from keel.studies.liquid.capacity import ullage_fraction
from keel.studies.space.resize import changed, resized, size_for
from keel.tests.samples import any_shells, box, design, shells

FLANGE = 20.0


class WorkedFigures(TestCase):
    """Figures that were worked out by other means."""

    def test_sharp_box(self) -> None:
        """800 × 400 × 350 outside in 3 mm: 0.794 × 0.394 × 0.344 m."""
        held = evaluate(design()).shell.capacity
        assert held is not None
        self.assertAlmostEqual(held.brimful_l, 794 * 394 * 344 / 1e6, places=9)
        self.assertAlmostEqual(held.brimful_l, 107.62, places=2)

    def test_bent_corners_cost_their_quarter_rounds(self) -> None:
        """5 mm inside radius on four edges along the wrapper: (4 − π) r² times the edge inside."""
        for axis, run in (("x", 794), ("y", 394)):
            bent = box_solid(box(bend_radius_mm=5.0, wrap_axis=axis), FLANGE)
            self.assertAlmostEqual(794 * 394 * 344 - bent.volume_mm3, (4 - pi) * 25 * run, places=4)

    def test_welded_corner_is_sharp(self) -> None:
        """A seam at a corner leaves three bends."""
        three = box_solid(box(bend_radius_mm=5.0), FLANGE, "corner butt")
        self.assertAlmostEqual(794 * 394 * 344 - three.volume_mm3, 3 / 4 * (4 - pi) * 25 * 794, places=4)
        self.assertAlmostEqual(
            build(box(bend_radius_mm=5.0), "corner butt").brimful_l * 1e6, three.volume_mm3, places=3
        )

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
        held = evaluate(design(box(bend_radius_mm=6.0))).shell.capacity
        assert held is not None
        self.assertAlmostEqual(sum(line.litres for line in held.lines), held.rated_l, places=9)

    def test_masses(self) -> None:
        """Flat parts in 5052 (2680 kg/m³), and the fuel of the rated capacity on top."""
        seen = evaluate(design(box(bend_radius_mm=3.0)))
        assert seen.sheet.unfolded and seen.shell.figures and seen.shell.figures.empty_kg and seen.shell.figures.full_kg
        area = sum(part.area_mm2 * part.quantity for part in seen.sheet.unfolded.parts)
        self.assertAlmostEqual(seen.shell.figures.empty_kg, area * 3 * 2680e-9, places=9)
        self.assertAlmostEqual(
            seen.shell.figures.full_kg - seen.shell.figures.empty_kg, seen.shell.figures.rated_l * 0.745, places=9
        )


class Properties(TestCase):
    """What holds for every shell."""

    @given(shells(), st.sampled_from(["lid", "corner butt"]))
    @settings(max_examples=40)
    def test_the_sum_by_hand_is_the_solid(self, shell: BoxShell, seam: str) -> None:
        """A box's plates less its corner radii hold what the solid's mesh does."""
        by_hand = box_solid(shell, FLANGE, seam).volume_mm3
        self.assertAlmostEqual(build(shell, seam).brimful_l * 1e6, by_hand, delta=1e-9 * by_hand)

    @given(any_shells())
    @settings(max_examples=40, suppress_health_check=[HealthCheck.filter_too_much, HealthCheck.too_slow])
    def test_every_line_adds_up(self, shell: AnyShell) -> None:
        """The lines shown to a doubter sum to the rated capacity, features and all."""
        try:
            held = evaluate(Design(shell=shell), None, Showing(remedies=False)).shell.capacity
        except GeometryError:
            return
        assert held is not None
        self.assertAlmostEqual(sum(line.litres for line in held.lines), held.rated_l, places=6)

    @given(shells(), st.floats(0.3, 3), st.sampled_from(["length", "width", "height"]))
    @settings(max_examples=30)
    def test_size_for_a_capacity_gives_that_capacity(self, shell: BoxShell, factor: float, direction: str) -> None:
        """Growing one dimension to a volume reaches just that."""
        wanted = build(shell).brimful_l * factor
        size = size_for(shell, direction, wanted, lambda other: build(other).brimful_l)  # type: ignore[arg-type]
        if size is not None:
            grown = changed(shell, resized(shell, direction, size))  # type: ignore[arg-type]
            self.assertAlmostEqual(build(grown).brimful_l, wanted, delta=1e-8 * wanted)


class Placed(TestCase):
    """Pickup and vent placed: what is rated and usable."""

    def test_trapped_air_and_stranded_fuel_come_off(self) -> None:
        """A vent 18 mm under the lid, a pickup 8 mm over the underside."""
        tank = box(600, 450, 300)
        ports = (
            Port(id="p", name="pickup", role="pickup", x_mm=300, y_mm=225, z_mm=8),
            Port(id="v", name="vent", role="vent", x_mm=300, y_mm=225, z_mm=279),
        )
        held = evaluate(Design(shell=tank, ports=ports)).shell.capacity
        assert held is not None and held.usable_l is not None and held.stranded_l is not None
        self.assertAlmostEqual(held.trapped_l, 594 * 444 * 18 / 1e6, places=9)
        self.assertAlmostEqual(held.stranded_l, 594 * 444 * 5 / 1e6, places=9)
        whole = 594 * 444 * 294 / 1e6
        self.assertAlmostEqual(held.rated_l, whole * (1 - held.ullage_fraction) - held.trapped_l, places=9)
        self.assertAlmostEqual(held.usable_l, held.rated_l - held.stranded_l, places=9)

    def test_vent_at_the_lid_nose_up(self) -> None:
        """Rated = brimful less ullage less what the flush vent traps, on the level nothing."""
        tank = box(1000, 500, 400, thickness_mm=2.0, metal="stainless 304L")
        vent = Port(id="v", name="vent", role="vent", x_mm=600, y_mm=250, z_mm=397.9999)
        seen = evaluate(Design(shell=tank, ports=(vent,)), None, Showing(attitude=Attitude(pitch_deg=5.0)))
        assert seen.shell.capacity is not None
        self.assertAlmostEqual(seen.shell.capacity.brimful_l, 195.630336, places=6)
        self.assertLess(seen.shell.capacity.trapped_l, 1e-4)
        self.assertAlmostEqual(seen.shell.drained[0].trapped_l or 0, 3.43692146, delta=1e-4)
