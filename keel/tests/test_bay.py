"""Gaps and the largest box that clears everything."""

from itertools import combinations
from math import dist
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.design.bay import Bay, Clearance, KeepOut
from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.design.workshop import HouseRules, Workshop
from keel.evaluate import evaluate
from keel.findings.patch import apply
from keel.solid.box import Cuboid
from keel.studies.clearance import free_box, keep_out_boxes, largest_spaces, nearest, needed_mm
from keel.studies.fit import fit_to_bay, slide_into
from keel.tests.samples import bays, lengths, shells

RULES = HouseRules()


def clamp(value: float, low: float, high: float) -> float:
    """The value held between two limits."""
    return max(low, min(high, value))


class Gaps(TestCase):
    """The nearest gap, and where it is."""

    @given(shells(), bays(1))
    def test_nearest_points_are_on_the_boxes_and_that_far_apart(self, shell: BoxShell, bay: Bay) -> None:
        """The two ends belong to the two boxes; no other pair is nearer."""
        if not bay.keep_outs:
            return
        a = Cuboid((shell.x_mm, shell.y_mm, shell.z_mm), (shell.x_mm + 200, shell.y_mm + 150, shell.z_mm + 100))
        b = keep_out_boxes(bay)[0]
        distance, axis, toward, start, end = nearest(a, b)
        near = [clamp(v, lo, hi) for v, lo, hi in zip(start, b.low, b.high, strict=True)]
        if distance > 0:
            self.assertAlmostEqual(dist(start, end), distance, places=9)
            self.assertAlmostEqual(dist(start, near), distance, places=9)
        pushed = [0.0, 0.0, 0.0]
        pushed[axis] = -toward * (-distance if distance <= 0 else 0) - toward * 1e-6
        moved = Cuboid(
            tuple(v + p for v, p in zip(a.low, pushed, strict=True)),  # type: ignore[arg-type]
            tuple(v + p for v, p in zip(a.high, pushed, strict=True)),  # type: ignore[arg-type]
        )
        self.assertGreaterEqual(nearest(moved, b)[0], 0)

    def test_typed_clearance_beats_the_house_rule(self) -> None:
        """A typed distance counts, nought included."""
        self.assertEqual(needed_mm(Clearance(kind="exhaust, bare"), RULES), 100)
        self.assertEqual(needed_mm(Clearance(kind="exhaust, bare", mm=0.0), RULES), 0)

    def test_sides_are_measured_from_the_lips(self) -> None:
        """A 20 mm flange in 3 mm sheet leaves 17 mm of lip beyond each end plate."""
        bay = Bay(length_mm=1000, width_mm=500, height_mm=400)
        shell = BoxShell(length_mm=800, width_mm=400, height_mm=350, x_mm=50)
        seen = evaluate(Design(bay=bay, shell=shell))
        rear = next(gap for gap in seen.gaps if gap.key == "rear")
        front = next(gap for gap in seen.gaps if gap.key == "front")
        self.assertAlmostEqual(rear.gap_mm, 33)
        self.assertAlmostEqual(front.gap_mm, 133)


def largest_by_brute_force(bay: Bay) -> float:
    """The largest box among all whose faces lie on a clearance: nothing else can be the largest."""
    free, blocked = free_box(bay, RULES), []
    for keep_out, body in zip(bay.keep_outs, keep_out_boxes(bay), strict=True):
        gap = needed_mm(keep_out.clearance, RULES)
        blocked.append(body.grown((gap, gap, gap), (gap, gap, gap)))
    planes = [
        sorted(
            {free.low[i], free.high[i]}
            | {v for b in blocked for v in (b.low[i], b.high[i]) if free.low[i] < v < free.high[i]}
        )
        for i in range(3)
    ]
    best = 0.0
    for x in combinations(planes[0], 2):
        for y in combinations(planes[1], 2):
            for z in combinations(planes[2], 2):
                low, high = (x[0], y[0], z[0]), (x[1], y[1], z[1])
                if all(any(b.low[i] >= high[i] or b.high[i] <= low[i] for i in range(3)) for b in blocked):
                    best = max(best, Cuboid(low, high).volume_mm3)
    return best


class Fit(TestCase):
    """Fit to bay."""

    @given(bays(3))
    @settings(max_examples=60)
    def test_largest_space_is_the_largest(self, bay: Bay) -> None:
        """Splitting at keep-outs finds what trying every pair of planes finds."""
        spaces = largest_spaces(bay, RULES)
        found = spaces[0].volume_mm3 if spaces else 0.0
        self.assertAlmostEqual(found, largest_by_brute_force(bay), delta=1e-6)

    @given(bays(), shells())
    def test_fitted_box_clears_everything(self, bay: Bay, like: BoxShell) -> None:
        """Whatever it is like, once fitted nothing is short of its clearance."""
        design = Design(bay=bay, shell=like)
        placed = fit_to_bay(design, Workshop())
        if placed is None:
            return
        fitted = apply(design, {"shell": placed})
        seen = evaluate(fitted)
        self.assertTrue(all(gap.clears for gap in seen.gaps))
        self.assertNotIn("bay.clearance", {finding.code for finding in seen.findings})
        self.assertIsNotNone(seen.fit)

    def test_fit_takes_the_better_side_of_a_shaft(self) -> None:
        """800 × 400 × 300 with a shaft along the left floor edge: beside it or above it, whichever holds more."""
        shaft = KeepOut(id="s", name="shaft", x_mm=0, y_mm=300, z_mm=0, length_mm=800, width_mm=100, height_mm=100)
        bay = Bay(length_mm=800, width_mm=400, height_mm=300, keep_outs=[shaft])
        placed = fit_to_bay(Design(bay=bay), Workshop())
        assert placed is not None
        self.assertEqual((placed["y_mm"], placed["width_mm"]), (10, 280))
        self.assertEqual((placed["z_mm"], placed["height_mm"]), (6, 279))
        self.assertEqual(placed["length_mm"], 800 - 20 - 2 * 17)

    def test_the_first_fit_writes_every_field(self) -> None:
        """Nothing is left for a reader to guess: thickness, radius and metal are in the patch."""
        design = Design(bay=Bay(length_mm=900, width_mm=500, height_mm=400))
        offer = evaluate(design).fit
        assert offer is not None
        self.assertEqual(set(offer.patch["shell"]), set(BoxShell.model_fields))
        again = evaluate(apply(design, offer.patch)).fit
        assert again is not None and again.change is not None
        self.assertAlmostEqual(again.change.brimful_l, 0, places=9)

    def test_no_bay_no_fit_and_a_full_bay_none_either(self) -> None:
        """Nothing is offered where nothing can be."""
        self.assertIsNone(fit_to_bay(Design(), Workshop()))
        block = KeepOut(id="b", name="b", x_mm=0, y_mm=0, z_mm=0, length_mm=500, width_mm=500, height_mm=500)
        full = Bay(length_mm=500, width_mm=500, height_mm=500, keep_outs=[block])
        self.assertIsNone(fit_to_bay(Design(bay=full), Workshop()))

    @given(lengths(-500, 500), lengths(1, 300), lengths(0, 50), st.floats(300, 600))
    def test_slide_keeps_what_already_fits(self, at: float, size: float, low: float, high: float) -> None:
        """A span slides no further than it must."""
        to = slide_into(at, size, low, high)
        if size <= high - low:
            self.assertTrue(low <= to and to + size <= high + 1e-9)
        if low <= at and at + size <= high:
            self.assertEqual(to, at)
