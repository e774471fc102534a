"""Shells of every kind: geometry that works, features and their cost, and what is wrong named precisely."""

from math import pi, sqrt
from unittest import TestCase

from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.features import Partition, Relief, RoofStep, Sump, Well
from keel.design.shell import Corner, CylinderShell, ProfileShell
from keel.evaluation import evaluate
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.rings import ring_area
from keel.solid.solids import AnyShell
from keel.studies.strength.plate_bending import large_deflection_mm, round_plate_stress_mpa
from keel.tests.samples import SADDLE, STEP, WEDGE, box, profile, well


def litres(shell: AnyShell) -> float:
    """What a shell holds."""
    return build(shell).brimful_l


def cost(shell: AnyShell) -> float:
    """Litres of a shell's last feature."""
    return build(shell).costs[-1].litres


class Outlines(TestCase):
    """Walls inward, bends and rolls counted."""

    def test_wall_of_each_panel_group(self) -> None:
        """Wrapper 3, ends 5, well 2: each counts where it is."""
        tank = box(
            800, 400, 350, ends_thickness_mm=5.0, features_thickness_mm=2.0, features=(well(100, 100, 120, 80, 60),)
        )
        whole = 790 * 394 * 344
        self.assertAlmostEqual(litres(tank), (whole - 124 * 84 * (60 - 3 + 2)) / 1e6, places=9)

    def test_bends_of_a_step(self) -> None:
        """Five corners turn in and lose (1 − π/4) r², the one that turns out gains (1 − π/4)(r + t)²."""
        bent = STEP.model_copy(update={"bend_radius_mm": 6.0})
        quarter = 1 - pi / 4
        area = 896 * 376 - 420 * 140 - 5 * quarter * 36 + quarter * 64
        self.assertAlmostEqual(litres(bent), area * 496 / 1e6, places=6)

    def test_welded_corner_stays_sharp(self) -> None:
        """Of a bent rectangle with one corner welded three rounds are lost."""
        corners = tuple(
            Corner(across_mm=a, up_mm=z, joint="weld" if (a, z) == (0, 0) else "bend")
            for a, z in ((0, 0), (400, 0), (400, 300), (0, 300))
        )
        tank = ProfileShell(corners=corners, run_mm=500, thickness_mm=2.0, bend_radius_mm=5.0)
        self.assertAlmostEqual(litres(tank), (396 * 296 - 3 * (1 - pi / 4) * 25) * 496 / 1e6, places=6)

    def test_roll_that_bulges_inward(self) -> None:
        """A shallow roll into the tank takes its segment, the wall further in."""
        corners = (
            Corner(across_mm=0, up_mm=0),
            Corner(across_mm=300, up_mm=0),
            Corner(across_mm=300, up_mm=200, bow_mm=-30),
            Corner(across_mm=0, up_mm=200),
        )
        solids = build(ProfileShell(corners=corners, run_mm=400, thickness_mm=2.0, bend_radius_mm=0.0))
        radius = (150**2 + 30**2) / 60
        from math import asin

        turn = 2 * asin(150 / radius)
        segment = radius**2 / 2 * (turn - 2 * (150 / radius) * sqrt(1 - (150 / radius) ** 2))
        self.assertAlmostEqual(ring_area(solids.section.outer), 300 * 200 - segment, delta=1e-6)
        self.assertLess(ring_area(solids.section.inner), ring_area(solids.section.outer) - 2 * 900)

    def test_every_kind_stands_where_it_is_put(self) -> None:
        """The body's bounds are those written, along x, y and z, rolled edges too."""
        moved = {"x_mm": 100.0, "y_mm": 50.0, "z_mm": 20.0}
        for shell, size in (
            (box(), (800, 400, 350)),
            (WEDGE, (560, 640, 345)),
            (SADDLE, (600, 1100, 420)),
            (CylinderShell(axis="x", diameter_mm=200, run_mm=500), (500, 200, 200)),
            (CylinderShell(axis="y", diameter_mm=200, run_mm=500, dish_mm=30), (200, 560, 200)),
        ):
            body = build(shell.model_copy(update=moved)).body
            for found, wanted in zip(body.size, size, strict=True):
                self.assertAlmostEqual(found, wanted, places=6)
            dish = 30 if getattr(shell, "dish_mm", 0) else 0
            self.assertAlmostEqual(body.low[1], 50 - dish, places=6)


class Features(TestCase):
    """What each takes or adds, by hand."""

    def test_wells(self) -> None:
        """Straight, at an edge, in a side, round, and with sloped sides: the metal displaces too."""
        tank = box(800, 400, 350)
        for feature, taken in (
            (well(100, 100, 120, 80, 60), 126 * 86 * 60),
            (well(0, 100, 120, 80, 60), 120 * 86 * 60),
            (well(100, 0, 120, 80, 60, face="front"), 126 * 80 * 60),
            (well(100, 100, 100, 1, 60, form="round"), pi * 53**2 * 60),
        ):
            self.assertAlmostEqual(cost(tank.model_copy(update={"features": (feature,)})), -taken / 1e6, places=6)
        sloped = well(100, 100, 120, 80, 60, slope_mm=15.0)
        grow = 3 * sqrt(1 + (15 / 60) ** 2)
        a = (120 + 2 * grow, 80 + 2 * grow)
        b = (a[0] - 2 * (15 + 0.75), a[1] - 2 * (15 + 0.75))
        top = (a[0] - 2 * 0.25 * 3, a[1] - 2 * 0.25 * 3)
        middle = ((top[0] + b[0]) / 2, (top[1] + b[1]) / 2)
        frustum = 60 / 6 * (top[0] * top[1] + b[0] * b[1] + 4 * middle[0] * middle[1])
        self.assertAlmostEqual(cost(tank.model_copy(update={"features": (sloped,)})), -frustum / 1e6, places=6)

    def test_sump_relief_step(self) -> None:
        """A sump adds what hangs below the floor's inside, a relief and a step take their box and the wall."""
        tank = box(800, 400, 350)
        sump = Sump(id="s", name="s", a_mm=100, b_mm=100, long_mm=120, wide_mm=80, deep_mm=50)
        cut = Relief(id="r", name="r", x_mm=0, y_mm=0, z_mm=0, length_mm=800, width_mm=90, height_mm=70)
        step = RoofStep(id="t", name="t", side="front", reach_mm=200, drop_mm=100)
        for feature, change in ((sump, 114 * 74 * 50), (cut, -794 * 90 * 70), (step, -200 * 394 * 100)):
            self.assertAlmostEqual(cost(tank.model_copy(update={"features": (feature,)})), change / 1e6, places=9)

    def test_costs_add_up_to_the_tank(self) -> None:
        """In the list's order, overlaps counted once."""
        both = (well(100, 100, 200, 100, 60), well(200, 100, 200, 100, 90, id="w2"))
        solids = build(box(800, 400, 350, features=both))
        self.assertAlmostEqual(solids.body_inner_l + sum(c.litres for c in solids.costs), solids.brimful_l, places=9)

    def test_partitions_make_cells(self) -> None:
        """Two walls, three cells, in order, named."""
        walls = [
            Partition(id=f"p{n}", name=f"p{n}", axis="x", at_mm=at, thickness_mm=4) for n, at in ((0, 500), (1, 200))
        ]
        cells = build(box(800, 400, 350, features=tuple(walls))).cells
        self.assertEqual([cell.name for cell in cells], ["rear cell", "cell 2 of 3", "front cell"])
        lengths = [cell.mesh.volume_mm3 / 394 / 344 for cell in cells]
        for found, wanted in zip(lengths, (197, 296, 293), strict=True):
            self.assertAlmostEqual(found, wanted, places=6)

    def test_mass_and_weld_of_a_well(self) -> None:
        """Its plates less the hole in the lid; mouth, four corners and the edge round its bottom of weld."""
        seen = evaluate(
            Design(shell=box(800, 400, 350, features=(well(100, 100, 120, 80, 60),))), None, Showing(remedies=False)
        )
        assert seen.shell.geometry is not None
        shown = seen.shell.features[0]
        metal = 126 * 86 * 60 + 120 * 80 * 3 - 120 * 80 * 60 - 120 * 80 * 3
        self.assertAlmostEqual(shown.metal_kg, metal * 2680e-9, places=9)
        self.assertAlmostEqual(shown.weld_m, (2 * 200 + 4 * 60 + 2 * 200) / 1000, places=9)


class Wrong(TestCase):
    """Geometry that doesn't work is refused by name."""

    def refused(self, shell: AnyShell, field: str, words: str) -> None:
        """The fault's field and words."""
        with self.assertRaises(GeometryError) as caught:
            build(shell)
        self.assertEqual(caught.exception.fault.field, field)
        self.assertRegex(caught.exception.fault.message, words)

    def test_profiles(self) -> None:
        """Crossing itself, run clockwise, an edge of nothing, a roll too high, bends too large, a wall too thick."""
        bow = [(0, 0), (400, 0), (0, 300), (400, 300)]
        self.refused(
            profile(bow, 500, 2.0), "shell.corners", "edges after corners 2 and 4 meet at 200.0 across, 150.0 up"
        )
        self.refused(profile([(0, 0), (0, 300), (400, 300), (400, 0)], 500, 2.0), "shell.corners", "clockwise")
        self.refused(profile([(0, 0), (400, 0), (400, 0.2), (0, 300)], 500, 2.0), "shell.corners.1", "0.20 mm long")
        tall = (
            Corner(across_mm=0, up_mm=0, bow_mm=120),
            Corner(across_mm=200, up_mm=0),
            Corner(across_mm=0, up_mm=100),
        )
        self.refused(ProfileShell(corners=tall, run_mm=500), "shell.corners.0.bow_mm", "may rise 100.00 mm at most")
        small = profile([(0, 0), (40, 0), (40, 300), (0, 300)], 500, 2.0, bend_radius_mm=25.0)
        self.refused(small, "shell.corners.0", "need 54.0 mm, the edge between them has 40.0 mm")
        self.refused(profile([(0, 0), (400, 0), (0, 30)], 500, 15.0), "shell.corners.0", "eats up the edge")
        neck = [(0, 0), (100, 0), (100, 100), (104, 100), (104, 0), (300, 0), (300, 200), (0, 200)]
        self.assertGreater(litres(profile(neck, 500, 1.5)), 0)
        pinched = [(0, 0), (300, 0), (300, 100), (160, 100), (160, 104), (300, 104), (300, 200), (0, 200)]
        self.assertGreater(litres(profile(pinched, 500, 1.5)), 0)
        thin = [(0, 0), (100, 0), (100, 80), (200, 80), (200, 0), (300, 0), (300, 86), (0, 86)]
        self.refused(profile(thin, 500, 4.0), "shell.thickness_mm", "eats the gap")

    def test_features(self) -> None:
        """Outside, right through, filled by their wall, meeting before the bottom, leaving nothing."""
        tank = box(600, 400, 300)

        def having(feature: Well | Sump | Relief | RoofStep | Partition) -> AnyShell:
            return tank.model_copy(update={"features": (feature,)})

        self.refused(having(well(700, 100, 100, 100, 50)), "shell.features.0", "outside the shell")
        self.refused(having(well(100, 100, 100, 100, 297)), "shell.features.0.deep_mm", "less than 294 mm")
        self.refused(having(well(100, 100, 60, 100, 50, slope_mm=30)), "shell.features.0.slope_mm", "meet before")
        under = Sump(id="s", name="sump", a_mm=650, b_mm=100, long_mm=120, wide_mm=80, deep_mm=50)
        raised = profile([(0, 0), (480, 0), (480, 240), (900, 240), (900, 380), (0, 380)], 500, 2.0)
        stepped = raised.model_copy(update={"features": (under,)})
        self.refused(stepped, "shell.features.0.a_mm", "sump doesn't meet the tank's floor")
        thin = Sump(id="s", name="sump", a_mm=10, b_mm=10, long_mm=6, wide_mm=80, deep_mm=50)
        self.refused(having(thin), "shell.features.0", "3 mm wall fills sump")
        away = Relief(id="r", name="r", x_mm=900, y_mm=0, z_mm=0, length_mm=50, width_mm=50, height_mm=50)
        self.refused(having(away), "shell.features.0", "lies outside")
        low = RoofStep(id="t", name="step", side="left", reach_mm=100, drop_mm=295)
        self.refused(having(low), "shell.features.0.drop_mm", "leaves nothing")
        self.refused(having(Partition(id="p", name="wall", at_mm=598)), "shell.features.0.at_mm", "outside the tank")
        buried = Relief(id="r", name="r", x_mm=200, y_mm=100, z_mm=100, length_mm=90, width_mm=90, height_mm=90)
        self.refused(having(buried), "shell.features", "wholly inside")
        gone = Relief(id="r", name="r", x_mm=-9, y_mm=-9, z_mm=-9, length_mm=700, width_mm=500, height_mm=400)
        self.refused(having(gone), "shell.features", "leave no room")

    def test_the_design_itself_is_still_whole(self) -> None:
        """A wrong shape is kept and can be put right: only working it out is refused."""
        subject = Design(shell=profile([(0, 0), (400, 0), (0, 300), (400, 300)], 500, 2.0))
        self.assertEqual(Design.model_validate_json(subject.model_dump_json()), subject)
        with self.assertRaises(GeometryError):
            evaluate(subject)


class Judged(TestCase):
    """Findings of the shape, each with a remedy that settles it."""

    def codes(self, subject: Design) -> dict[str, list[str]]:
        """Codes found, each with the labels of its remedies."""
        return {f.code: [r.label.plain() for r in f.remedies] for f in evaluate(subject).findings}

    def test_a_well_away_from_an_edge_holds_water(self) -> None:
        """Move it to an edge, or drain it; at an edge or drained there is nothing to say."""
        tank = box(800, 400, 350, bend_radius_mm=4.5)
        inland = tank.model_copy(update={"features": (well(100, 100, 120, 80, 60),)})
        found = self.codes(Design(shell=inland))["well.holds_water"]
        self.assertEqual(len(found), 3)
        for other in (well(0, 100, 120, 80, 60), well(100, 100, 120, 80, 60, drain=True)):
            self.assertNotIn(
                "well.holds_water", self.codes(Design(shell=tank.model_copy(update={"features": (other,)})))
            )

    def test_narrow_lands_and_slivers(self) -> None:
        """A strip of 5 mm beside a well is no land, and the space under it can't be welded."""
        tank = box(800, 400, 350, bend_radius_mm=4.5, features=(well(14, 100, 120, 80, 60),))
        found = self.codes(Design(shell=tank))
        self.assertIn("sliver", found)
        self.assertTrue(found["sliver"])
        strip = box(800, 400, 350, bend_radius_mm=4.5, features=(well(8, 100, 120, 80, 60),))
        self.assertTrue(self.codes(Design(shell=strip))["land.narrow"])

    def test_saddle_says_what_its_lobes_hold(self) -> None:
        """Uneven lobes are remarked on with their litres; even ones aren't."""
        corners = [(0, 0), (300, 0), (300, 220), (700, 220), (700, 0), (1200, 0), (1200, 420), (0, 420)]
        uneven = profile(corners, 600, 4.0, "x", shape="saddle", bend_radius_mm=8.0)
        self.assertIn("saddle.uneven", self.codes(Design(shell=uneven)))
        self.assertNotIn("saddle.uneven", self.codes(Design(shell=SADDLE.model_copy(update={"bend_radius_mm": 8.0}))))

    def test_rolls(self) -> None:
        """A cylinder tighter than the rolls go is a stop, and the tightest they go is offered."""
        found = self.codes(Design(shell=CylinderShell(diameter_mm=80, run_mm=300)))
        self.assertTrue(found["rolls.tight"])

    def test_flat_ends_of_a_cylinder(self) -> None:
        """Clamped round plate: 3/4 q R²/t²; large deflections stay below the plain sum."""
        self.assertAlmostEqual(round_plate_stress_mpa(10, 100, 2), 0.75 * 0.01 * 2500)
        self.assertLess(large_deflection_mm(10, 2), 10)
        self.assertAlmostEqual(large_deflection_mm(0.02, 2), 0.02, delta=1e-4)
