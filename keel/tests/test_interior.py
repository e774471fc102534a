"""Foam and bladder: what they take, evenly or all round, and what they make of every other figure."""

import json
from datetime import date
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.features import Baffle
from keel.design.inside import Bladder, Foam, Inside
from keel.design.ports import Port
from keel.evaluation import Evaluation, evaluate
from keel.formats.document import read_design
from keel.solid.faults import GeometryError
from keel.solid.interior import solids_of
from keel.studies.slosh.model import slosh_tank
from keel.tests.samples import box, profile, well

WELL = well(200, 120, 160, 120, 60)
PICKUP = Port(id="p", name="pickup", role="pickup", x_mm=300, y_mm=200)


def tank(inside: Inside | None = None, **more: Any) -> Design:
    """A 600 × 400 × 300 box of 3 mm, sharp-cornered, with a pickup."""
    shell = box(600, 400, 300, thickness_mm=3.0, bend_radius_mm=0.0, **more)
    return Design(shell=shell, ports=(PICKUP,), inside=inside or Inside())


def seen(design: Design) -> Evaluation:
    """Worked out, without remedies."""
    return evaluate(design, None, Showing(remedies=False, fill_fraction=0.5))


class Foamed(TestCase):
    """Foam takes its share evenly."""

    def test_every_volume_is_less_and_every_level_the_same(self) -> None:
        """Brimful, rated, stranded, strapping and compartments by the share; level, centroid and mass at a fill."""
        bare, foamed = seen(tank()), seen(tank(Inside(foam=Foam(takes=0.04, kg=1.5))))
        assert (
            bare.shell.fill
            and foamed.shell.fill
            and bare.shell.figures
            and foamed.shell.figures
            and bare.shell.capacity
            and foamed.shell.capacity
        )
        for name in ("brimful_l", "rated_l", "stranded_l", "usable_l"):
            self.assertAlmostEqual(
                getattr(foamed.shell.figures, name), 0.96 * getattr(bare.shell.figures, name), places=6
            )
        self.assertAlmostEqual(foamed.shell.fill.level_mm, bare.shell.fill.level_mm, places=6)
        self.assertEqual(foamed.shell.fill.centroid, bare.shell.fill.centroid)
        self.assertAlmostEqual((foamed.shell.figures.empty_kg or 0) - (bare.shell.figures.empty_kg or 0), 1.5)
        for a, b in zip(bare.shell.strapping[0].rows, foamed.shell.strapping[0].rows, strict=True):
            self.assertAlmostEqual(b.volume_l, 0.96 * a.volume_l, places=6)
        total = sum(line.litres for line in foamed.shell.capacity.lines if line.what not in ("Ullage", "Trapped air"))
        self.assertAlmostEqual(total, foamed.shell.figures.brimful_l, places=6)
        self.assertIn("Foam", [line.what for line in foamed.shell.capacity.lines])
        run = slosh_tank(solids_of(tank(Inside(foam=Foam(takes=0.04)))), (PICKUP,))
        assert run is not None
        self.assertAlmostEqual(float(run.packed.capacity.sum()) / 1e6, foamed.shell.figures.brimful_l, places=6)

    @given(st.floats(0.02, 0.98), st.floats(0.0, 0.3), st.floats(-0.6, 0.6), st.floats(-0.6, 0.6))
    def test_level_and_volume_stay_inverse(self, fill: float, takes: float, x: float, y: float) -> None:
        """In any attitude, whatever the foam takes."""
        (cell,) = solids_of(tank(Inside(foam=Foam(takes=takes)), features=(WELL,))).cells
        line = cell.mesh.along(np.array([x, y, 1.0]))
        wanted = fill * cell.mesh.volume_mm3
        self.assertAlmostEqual(line.volume(line.level(wanted)) / wanted, 1.0, places=9)

    def test_an_older_document(self) -> None:
        """Foam was once a switch of the run: it comes up as foam that takes 3 %."""
        old = {"slosh": {"foam": True, "fill": 0.3}}
        design = read_design(json.dumps(old))
        self.assertEqual((design.inside.foam, design.slosh.fill), (Foam(), 0.3))
        self.assertIsNone(read_design(json.dumps({"slosh": {"foam": False}})).inside.foam)


class Bagged(TestCase):
    """A bladder stands off its box all round."""

    def test_a_bag_in_a_box(self) -> None:
        """1.5 mm of bag 6 mm off the box: so much less on every side, however the box is measured; the sum adds up."""
        inside = Inside(bladder=Bladder(bag_mm=1.5, shrink_mm=6.0, kg=4.0))
        answer = seen(tank(inside))
        assert answer.shell.figures and answer.shell.capacity
        wanted = (600 - 21) * (400 - 21) * (300 - 21) / 1e6
        self.assertAlmostEqual(answer.shell.figures.brimful_l, wanted, places=6)
        within = Design(
            shell=box(594, 394, 294, thickness_mm=3.0, bend_radius_mm=0.0, measured="inside"), inside=inside
        )
        self.assertAlmostEqual(solids_of(within).brimful_l, wanted, places=6)
        total = sum(line.litres for line in answer.shell.capacity.lines if line.what not in ("Ullage", "Trapped air"))
        self.assertAlmostEqual(total, answer.shell.figures.brimful_l, places=6)

    def test_it_keeps_off_a_well_too(self) -> None:
        """A well in the lid takes more of the bag than of the box; foam takes its share of what is left."""
        inside = Inside(bladder=Bladder(bag_mm=1.0, shrink_mm=4.0), foam=Foam())
        plain = solids_of(tank(Inside(bladder=inside.bladder))).brimful_l
        sunk = solids_of(tank(Inside(bladder=inside.bladder), features=(WELL,))).brimful_l
        bare = solids_of(tank()).brimful_l - solids_of(tank(features=(WELL,))).brimful_l
        self.assertGreater(plain - sunk, bare * 1.02)
        both = solids_of(tank(inside, features=(WELL,))).brimful_l
        self.assertAlmostEqual(both, 0.97 * sunk, places=6)

    def test_other_kinds(self) -> None:
        """A folded profile's bag is its section inset by so much."""
        shell = profile([(0, 0), (400, 0), (400, 300), (0, 300)], 500.0, 3.0)
        bagged = solids_of(Design(shell=shell, inside=Inside(bladder=Bladder(bag_mm=1, shrink_mm=4))))
        self.assertAlmostEqual(bagged.brimful_l, (400 - 16) * (300 - 16) * (500 - 16) / 1e6, places=6)

    def test_no_room(self) -> None:
        """A bag that fills its box says which field."""
        small = Design(shell=box(90, 90, 90, thickness_mm=3.0), inside=Inside(bladder=Bladder(shrink_mm=50)))
        with self.assertRaises(GeometryError) as caught:
            solids_of(small)
        self.assertEqual(caught.exception.fault.field, "inside.bladder.shrink_mm")


class Ageing(TestCase):
    """What the rules say."""

    def test_plates_and_dates(self) -> None:
        """A plate in a bag is a stop; the date is five years on; foam is cut clear of what hangs."""
        plate = Baffle(id="b", name="b", axis="x", at_mm=300)
        bladder = Bladder(fitted=date(2026, 3, 1), life_years=5)
        found = {f.code: f for f in seen(tank(Inside(bladder=bladder), features=(plate,))).findings}
        self.assertEqual(found["inside.bag_plates"].severity, "stop")
        self.assertIn("2031-03-01", found["inside.life"].title.plain())
        hanging = tank(Inside(foam=Foam())).model_copy(
            update={"ports": (PICKUP.model_copy(update={"hangs_across_mm": 60.0}),)}
        )
        found = {f.code: f for f in seen(hanging).findings}
        self.assertIn("pickup", found["inside.foam_clear"].title.plain())
        self.assertIn("isn't noted", found["inside.life"].title.plain())
