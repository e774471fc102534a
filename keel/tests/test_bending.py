"""Bending step by step: orders that the folder can make, how far for what springs back, what stays in the way."""

import json
from itertools import pairwise
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.design.workshop import Brake, Workshop
from keel.evaluation import evaluate
from keel.formats.document import read_design
from keel.studies.sheet.bend_order import Folder, Search, looks
from keel.studies.sheet.bending import BENDINGS, Bending, along, beam_of
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
            beam = beam_of(Brake(smallest_closed_box_mm=smallest))
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
        """Look by look: no line of any step that is offered lies in the beam; every bend once."""
        design = Design(shell=shell)
        made = TankAnalysis(Asked(design))[SHEET]
        folder = Folder(beam_of(Brake()))
        for name, part in bent(design).items():
            count = len(next(one for one in made.parts if one.name == name).bends)
            self.assertEqual(len({step.bend for step in part.steps}), len(part.steps))
            if part.stuck is None:
                self.assertEqual(len(part.steps), count)
            for step in part.steps:
                for line in (step.before, step.after):
                    self.assertFalse(line and folder.strikes(_array(line)), f"{name}, bend {step.bend}")

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
        st.lists(st.floats(15, 200), min_size=3, max_size=6), st.lists(st.sampled_from([90.0, -90.0, 45.0]), min_size=5)
    )
    @settings(max_examples=40, deadline=None)
    def test_compiled_as_drawn(self, legs: list[float], angles: list[float]) -> None:
        """What is compiled strikes where one of the drawn looks does."""
        folder, turns = Folder(beam_of(Brake())), angles[: len(legs) - 1]
        search = Search(folder, legs, turns)
        for bend in range(len(turns)):
            made = frozenset(range(0, len(turns), 2)) - {bend}
            for way in ("low", "high"):
                drawn = any(folder.strikes(line) for line in looks(legs, turns, made, bend, way))
                self.assertEqual(search._is_clear(made, bend, way), not drawn)


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
