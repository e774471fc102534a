"""Bending step by step: orders that the folder can make, how far for what springs back, what stays in the way."""

import json
from itertools import pairwise
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.design.workshop import Brake, Workshop
from keel.evaluation import evaluate
from keel.formats.document import read_design
from keel.studies.sheet.bend_order import Search, looks
from keel.studies.sheet.bending import BENDINGS, Bending, along, on_the_way
from keel.studies.sheet.brakes import machine_of, tool_of
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.unfold import SHEET
from keel.tests.samples import STEP, shells


def bent(design: Design, smallest: float = 150.0) -> dict[str, Bending]:
    """Parts by name, on a brake whose smallest closed box was measured."""
    workshop = Workshop(brake=Brake(smallest_closed_box_mm=smallest))
    return {part.name: part for part in TankAnalysis(Asked(design, workshop))[BENDINGS].parts}


def wrapper(side: float, **more: Any) -> Design:
    """A square tank of 1.5 mm, over its plates."""
    size = {"length_mm": 500.0, "width_mm": side, "height_mm": side, "thickness_mm": 1.5, "bend_radius_mm": 1.5}
    return Design(shell=BoxShell.model_validate(size | more))


BRAKES = {
    "folder": Brake(),
    "press": Brake(kind="press brake", smallest_closed_box_mm=None),
    "tight": Brake(bed_mm=80, leaf_mm=30, throat_mm=150),
}
"""Each with another shape."""


class Orders(TestCase):
    """What the folder can make."""

    def test_a_closed_box(self) -> None:
        """Smaller than what was measured it has no last bend; larger all 24 orders do, and the flat's is taken."""
        small, large = (bent(wrapper(side), 305.0)["wrapper"] for side in (300.0, 310.0))
        self.assertEqual((small.orders, len(small.steps)), (0, 3))
        self.assertIsNotNone(small.stuck)
        self.assertEqual((large.orders, large.stuck), (24, None))
        self.assertEqual([step.bend for step in large.steps], [1, 4, 2, 3])

    def test_the_beam_goes_with_the_box(self) -> None:
        """Twice the smallest box is a beam of twice the size."""
        for smallest in (100.0, 150.0, 400.0):
            side = smallest + 4
            self.assertEqual(bent(wrapper(side), smallest)["wrapper"].orders, 24)
            self.assertEqual(bent(wrapper(smallest - 4), smallest)["wrapper"].orders, 0)
            beam = tool_of(Brake(smallest_closed_box_mm=smallest))
            self.assertAlmostEqual(max(y for _, y in beam), smallest)

    def test_said_once(self) -> None:
        """A box that can't be closed is named by its size; a part that can't be bent otherwise by its bend."""
        codes = []
        for shell in ({"width_mm": 140.0}, {"width_mm": 300.0}):
            size = {"length_mm": 500.0, "height_mm": 300.0, "thickness_mm": 1.5, "bend_radius_mm": 1.5}
            seen = evaluate(read_design(json.dumps({"shell": size | shell})))
            codes.append({f.code for f in seen.findings if f.code.startswith("brake.")})
        self.assertEqual(codes, [{"brake.closed_box"}, set()])

    @given(shells())
    @settings(max_examples=25, deadline=None)
    def test_no_step_strikes(self, shell: BoxShell) -> None:
        """Look by look: no line of any step that is offered lies in beam or bed; every bend once."""
        design = Design(shell=shell)
        made = TankAnalysis(Asked(design))[SHEET]
        still = [one for one in machine_of(Brake()).obstacles if one.free == 1.0]
        for name, part in bent(design).items():
            count = len(next(one for one in made.parts if one.name == name).bends)
            self.assertEqual(len({step.bend for step in part.steps}), len(part.steps))
            if part.stuck is None:
                self.assertEqual(len(part.steps), count)
            for step in part.steps:
                for line in (step.before, step.after):
                    met = line and any(one.is_met_by(_array(line)) for one in still)
                    self.assertFalse(met, f"{name}, bend {step.bend}")

    @given(shells())
    @settings(max_examples=20, deadline=None)
    def test_flats_are_numbered_as_they_are_bent(self, shell: BoxShell) -> None:
        """What stands on the drawing, the DXF and the paper is the order that is shown step by step."""
        design = Design(shell=shell)
        flats = {part.name: part for part in TankAnalysis(Asked(design))[FLATS].parts}
        for name, part in bent(design).items():
            if part.orders:
                numbers = [bend.order for bend in along(flats[name])]
                self.assertEqual([numbers[step.bend - 1] for step in part.steps], list(range(1, len(numbers) + 1)))

    @given(
        st.lists(st.floats(15, 200), min_size=3, max_size=6),
        st.lists(st.sampled_from([90.0, -90.0, 45.0]), min_size=5),
        st.sampled_from(list(BRAKES)),
    )
    @settings(max_examples=40, deadline=None)
    def test_compiled_as_drawn(self, legs: list[float], angles: list[float], brake: str) -> None:
        """What is compiled strikes where one of the drawn looks does; none runs through itself."""
        turns, obstacles = angles[: len(legs) - 1], machine_of(BRAKES[brake]).obstacles
        search = Search(obstacles, legs, turns)
        for bend in range(len(turns)):
            made = frozenset(range(0, len(turns), 2)) - {bend}
            for way in ("low", "high"):
                met = any(
                    one.is_met_by(line) for one in obstacles for line in looks(legs, turns, made, bend, way, one.free)
                )
                own = not all(LineString(line).is_simple for line in looks(legs, turns, made, bend, way))
                if met or not own:
                    self.assertEqual(search._is_clear(made, bend, way), not met)


class Machines(TestCase):
    """Bed, leaf, die, frame, and the part itself."""

    def count(self, brake: Brake, legs: list[float], angles: list[float]) -> int:
        return Search(machine_of(brake).obstacles, legs, angles).count()

    def test_a_step_in_a_sheet(self) -> None:
        """Down after up the part is turned over: what was bent hangs down beyond bed, leaf or die."""
        jogs = {jog: [100.0, jog, 300.0] for jog in (25.0, 40.0, 70.0)}
        found = {
            name: [self.count(brake, legs, [90.0, -90.0]) for legs in jogs.values()] for name, brake in BRAKES.items()
        }
        self.assertEqual(found, {"folder": [0, 0, 2], "press": [0, 2, 2], "tight": [0, 1, 0]})

    def test_turned_over(self) -> None:
        """All the other way round a part is bent as before."""
        for brake in BRAKES.values():
            for legs, angles in (([60, 90, 200, 90, 120], [90, 90, -45, 60]), ([100, 70, 150, 30], [90, -90, 90])):
                lengths, turns = [float(leg) for leg in legs], [float(angle) for angle in angles]
                self.assertEqual(self.count(brake, lengths, turns), self.count(brake, lengths, [-one for one in turns]))

    def test_a_part_in_its_own_way(self) -> None:
        """A leg that would come through the first one can't be made, whatever the machine; a shorter one can."""
        for leg, count in ((120.0, 0), (80.0, 1)):
            orders = Search([], [200.0, 100.0, 100.0, leg], [90.0] * 3).count()
            self.assertEqual(min(orders, 1), count)

    def test_a_frame(self) -> None:
        """What lies behind the bend goes in as far as the throat: bends are made from the other end, or not at all."""
        for throat, count in ((None, 6), (500.0, 6), (250.0, 0)):
            made = self.count(Brake(throat_mm=throat), [40.0, 260.0, 260.0, 40.0], [90.0, 30.0, 90.0])
            self.assertEqual(made, count, throat)

    def test_a_closed_box_round_a_punch(self) -> None:
        """One that was measured closes from there on; one that closes none has its ram in the way."""
        for measured, side, able in ((305.0, 300.0, False), (305.0, 312.0, True), (None, 312.0, False)):
            brake = Brake(kind="press brake", smallest_closed_box_mm=measured)
            made = self.count(brake, [side / 2, side, side, side, side / 2], [90.0] * 4)
            self.assertEqual(made > 0, able, (measured, side))

    def test_closes_none(self) -> None:
        """A wrapper is a stop there, and is made of other parts."""
        workshop = Workshop(brake=Brake(kind="press brake", smallest_closed_box_mm=None))
        seen = evaluate(wrapper(400.0), workshop)
        (stop,) = [one for one in seen.findings if one.code == "brake.closed_box"]
        self.assertIn("closes 0", str(stop.title))
        self.assertTrue(any("tray and lid" in str(remedy.label) for remedy in stop.remedies))


class Angles(TestCase):
    """How far to bend."""

    def test_what_springs_back(self) -> None:
        """5052 of 2.5 mm over 3 mm: 91.2 for 90, by hand; a softer metal less, a wider radius more."""
        part = bent(wrapper(400.0, thickness_mm=2.5, bend_radius_mm=3.0))["wrapper"]
        self.assertEqual({round(step.bend_to_deg, 4) for step in part.steps}, {91.207})
        wide = bent(wrapper(400.0, thickness_mm=2.5, bend_radius_mm=9.0))["wrapper"]
        self.assertGreater(wide.steps[0].bend_to_deg, part.steps[0].bend_to_deg)
        soft = bent(wrapper(400.0, thickness_mm=2.5, bend_radius_mm=3.0, metal="3003-H14"))["wrapper"]
        self.assertLess(soft.steps[0].bend_to_deg, part.steps[0].bend_to_deg)

    def test_checked_on_the_way(self) -> None:
        """Half way and just before the end so much is left as of the whole; a slight bend and a hem aren't checked."""
        part = bent(wrapper(400.0, thickness_mm=2.5, bend_radius_mm=3.0))["wrapper"]
        self.assertEqual([one.bent_to_deg for one in part.steps[0].on_the_way], [46.0, 87.0])
        self.assertAlmostEqual(part.steps[0].on_the_way[1].left_deg, 87 * 90 / 91.20703, places=4)
        self.assertEqual([on_the_way(10.0, 10.2), on_the_way(180.0, 180.0), on_the_way(90.0, None)], [[], [], []])

    def test_pictures_have_the_parts_legs(self) -> None:
        """Before and after the line is as long as its outside legs, and ends turned by what was bent."""
        design = Design(shell=STEP.model_copy(update={"bend_radius_mm": 4.0}))
        (part,) = [one for one in bent(design).values() if one.name == "wrapper"]
        around = 2 * (900 + 380)
        for step in part.steps:
            for line in (step.before, step.after):
                long = sum(float(np.hypot(b[0] - a[0], b[1] - a[1])) for a, b in pairwise(line))
                self.assertAlmostEqual(long, around, delta=2 * 2.0 * 6)
        self.assertEqual({step.direction for step in part.steps}, {"up", "down"})


def _array(line: list[tuple[float, float]]) -> Any:
    """A line as looks have it."""
    return np.array(line)
