"""Gaps and the largest box that clears everything."""

from itertools import combinations, product
from math import dist
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.design.bay import (
    Bay,
    BayProfile,
    Clearance,
    KeepOut,
    ProfilePoint,
    RoundKeepOut,
    ScanKeepOut,
    SlopeKeepOut,
)
from keel.design.document import Design
from keel.design.ports import Port
from keel.design.shell import BoxShell, CylinderShell
from keel.design.workshop import HouseRules, Workshop
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.solid.box import Cuboid
from keel.solid.build import build
from keel.solid.envelope import envelope_of
from keel.solid.shapes import block, mesh_of
from keel.solid.solids import AnyShell
from keel.studies.space.clearance import all_clear, boxes_of, free_box, gaps, nearest
from keel.studies.space.fit import fit_to_bay
from keel.studies.space.free_space import largest_spaces
from keel.studies.space.gap import Gap, needed_mm
from keel.studies.space.shift_into_bay import slide_into
from keel.tests.samples import SADDLE, STEP, bays, box, lengths, shells

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
        b = (boxes_of(bay) or [])[0][1]
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
        """A typed distance counts, zero included."""
        self.assertEqual(needed_mm(Clearance(kind="exhaust, bare"), RULES), 100)
        self.assertEqual(needed_mm(Clearance(kind="exhaust, bare", mm=0.0), RULES), 0)

    def test_sides_are_measured_from_the_lips(self) -> None:
        """A 20 mm flange in 3 mm sheet leaves 17 mm of lip beyond each end plate."""
        bay = Bay(length_mm=1000, width_mm=500, height_mm=400)
        shell = BoxShell(length_mm=800, width_mm=400, height_mm=350, x_mm=50)
        seen = evaluate(Design(bay=bay, shell=shell))
        rear = next(gap for gap in seen.bay.gaps if gap.key == "rear")
        front = next(gap for gap in seen.bay.gaps if gap.key == "front")
        self.assertAlmostEqual(rear.gap_mm, 33)
        self.assertAlmostEqual(front.gap_mm, 133)


def largest_by_brute_force(bay: Bay) -> float:
    """The largest box among all whose faces lie on a clearance: nothing else can be the largest."""
    free, blocked = free_box(bay, RULES), []
    for keep_out, body in boxes_of(bay) or []:
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
    @settings(max_examples=25)
    def test_fitted_box_clears_everything(self, bay: Bay, like: BoxShell) -> None:
        """Whatever it is like, once fitted nothing is short of its clearance."""
        design = Design(bay=bay, shell=like)
        placed = fit_to_bay(design, Workshop())
        if placed is None:
            return
        fitted = apply(design, {"shell": placed})
        seen = evaluate(fitted, None, Showing(remedies=False))
        self.assertTrue(all(gap.clears for gap in seen.bay.gaps))
        self.assertNotIn("bay.clearance", {finding.code for finding in seen.findings})
        self.assertIsNotNone(fit_to_bay(fitted, Workshop()))

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
        offer = evaluate(design).bay.fit
        assert offer is not None
        self.assertEqual(set(offer.patch["shell"]), set(BoxShell.model_fields))
        again = evaluate(apply(design, offer.patch)).bay.fit
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


class Shapes(TestCase):
    """Neighbours that are no boxes, what stands on the shell, and the opening."""

    ROOM = Bay(length_mm=1000, width_mm=600, height_mm=500)
    TANK = box(600, 300, 300, x_mm=150, y_mm=100, z_mm=20, bend_radius_mm=4.5)

    def gap(self, bay: Bay, shell: AnyShell, key: str, **more: Any) -> Gap:
        """One gap of a design."""
        seen = evaluate(Design(bay=bay, shell=shell, **more), None, Showing(remedies=False))
        return next(gap for gap in seen.bay.gaps if gap.key == key)

    def test_shaft_beside_a_box(self) -> None:
        """A cylinder 50 mm clear of the side, level with the middle; raised over the edge it is further."""
        shaft = RoundKeepOut(id="s", name="shaft", axis="x", x_mm=0, y_mm=500, z_mm=170, diameter_mm=100, run_mm=1000)
        room = self.ROOM.model_copy(update={"keep_outs": [shaft]})
        self.assertAlmostEqual(self.gap(room, self.TANK, "s").gap_mm, 50, delta=0.06)
        over = shaft.model_copy(update={"z_mm": 440.0})
        corner = ((500 - 400 + 3) ** 2 + (440 - 320 + 3) ** 2) ** 0.5
        found = self.gap(room.model_copy(update={"keep_outs": [over]}), self.TANK, "s")
        self.assertLess(found.gap_mm, corner - 50)
        self.assertGreater(found.gap_mm, ((500 - 400) ** 2 + (440 - 320) ** 2) ** 0.5 - 50 - 0.06)

    def test_slope_over_the_lid(self) -> None:
        """A lid line from 500 at the rear to 300 at the front: square to it, from the front upper edge."""
        slope = SlopeKeepOut(id="l", name="lid line", blocked="roof", along="x", start_mm=500, end_mm=300)
        room = self.ROOM.model_copy(update={"keep_outs": [slope]})
        front = 150 + 600 + 17
        rise = 500 - 0.2 * front - 320
        found = self.gap(room, self.TANK, "l")
        self.assertAlmostEqual(found.gap_mm, rise / (1 + 0.04) ** 0.5, places=6)
        self.assertAlmostEqual(found.start.x, front, places=6)

    def test_overlap_is_the_least_push(self) -> None:
        """A shaft 20 mm into the side: minus 20, sideways."""
        shaft = RoundKeepOut(id="s", name="shaft", axis="x", x_mm=0, y_mm=430, z_mm=170, diameter_mm=100, run_mm=1000)
        found = self.gap(self.ROOM.model_copy(update={"keep_outs": [shaft]}), self.TANK, "s")
        self.assertAlmostEqual(found.gap_mm, -20, delta=0.1)
        self.assertEqual((found.axis, found.toward), ("y", 1))

    def test_scanned_part_and_cavity(self) -> None:
        """A scanned block 30 mm ahead of the lip; a cavity round the tank 25 mm off; inside out both foul."""
        part = mesh_of(block((797.0, 100.0, 20.0), (900.0, 300.0, 200.0)))
        around = mesh_of(block((108.0, 75.0, -5.0), (792.0, 425.0, 345.0)))
        scans = {"a" * 64: part, "b" * 64: around}
        for scan, cavity, expected in (("a", False, 30.0), ("b", True, 25.0), ("b", False, None), ("a", True, None)):
            k = ScanKeepOut(id="k", name="scan", scan=scan * 64, is_cavity=cavity)
            subject = Design(bay=self.ROOM.model_copy(update={"keep_outs": [k]}), shell=self.TANK)
            seen = evaluate(subject, None, Showing(remedies=False), scans)
            found = next(gap for gap in seen.bay.gaps if gap.key == "k")
            if expected is None:
                self.assertLess(found.gap_mm, 0)
            else:
                self.assertAlmostEqual(found.gap_mm, expected, places=4)
        unknown = ScanKeepOut(id="k", name="scan", scan="c" * 64)
        subject = Design(bay=self.ROOM.model_copy(update={"keep_outs": [unknown]}), shell=self.TANK)
        self.assertNotIn("k", {gap.key for gap in evaluate(subject, None, Showing(remedies=False)).bay.gaps})

    def test_what_stands_on_the_lid_has_to_clear(self) -> None:
        """A valve of 90 mm on a lid at 320 under a roof at 500."""
        valve = Port(id="v", name="valve", role="fitting", x_mm=100, y_mm=100, z_mm=299, stands_mm=90)
        self.assertAlmostEqual(self.gap(self.ROOM, self.TANK, "roof", ports=(valve,)).gap_mm, 90, places=3)

    def test_outline_of_the_bay(self) -> None:
        """A corner cut off at 45° counts like a neighbour with its own clearance."""
        points = [(0, 0), (1000, 0), (1000, 300), (800, 500), (0, 500)]
        outline = BayProfile(axis="y", points=tuple(ProfilePoint(across_mm=a, up_mm=z) for a, z in points))
        found = self.gap(self.ROOM.model_copy(update={"profile": outline}), self.TANK, "outline")
        self.assertAlmostEqual(found.gap_mm, (1300 - 767 - 320) / 2**0.5, places=4)

    def test_fit_lets_a_valve_stand_where_there_is_room(self) -> None:
        """A valve at the high side of a sloping lid line costs nothing; at the low side it holds the tank down."""
        slope = SlopeKeepOut(id="l", name="lid line", blocked="roof", along="x", start_mm=500, end_mm=300)
        room = self.ROOM.model_copy(update={"keep_outs": [slope]})
        held = []
        for x in (None, 60.0, 560.0):
            valve = () if x is None else (Port(id="v", name="valve", role="fitting", x_mm=x, y_mm=100, stands_mm=60),)
            subject = Design(bay=room, shell=STEP, ports=valve)
            seen = evaluate(subject)
            placed = fit_to_bay(subject, Workshop(), None)
            assert placed is not None and seen.bay.fit is not None
            after = evaluate(apply(subject, seen.bay.fit.patch), None, Showing(remedies=False))
            self.assertTrue(all(gap.short_mm < 0.1 for gap in after.bay.gaps))
            assert after.shell.figures is not None
            held.append(after.shell.figures.brimful_l)
        self.assertGreater(held[1], 0.93 * held[0])
        self.assertLessEqual(held[2], held[1] + 1e-6)

    def test_clear_or_not_as_the_gaps_say(self) -> None:
        """Beside a slope, a shaft and a box, with a valve on the lid, at many places."""
        slope = SlopeKeepOut(id="l", name="lid line", blocked="roof", along="x", start_mm=900, end_mm=700)
        shaft = RoundKeepOut(id="s", name="shaft", axis="x", x_mm=0, y_mm=60, z_mm=40, diameter_mm=50, run_mm=900)
        box_ = KeepOut(id="b", name="b", x_mm=700, y_mm=400, z_mm=0, length_mm=80, width_mm=80, height_mm=200)
        bay = self.ROOM.model_copy(
            update={"keep_outs": [slope, shaft, box_], "length_mm": 1500.0, "width_mm": 900.0, "height_mm": 950.0}
        )
        valve = Port(id="v", name="valve", role="fitting", x_mm=60, y_mm=100, stands_mm=60)
        said = set[bool]()
        for place in product((20.0, 60.0, 110.0, 160.0), (60.0, 120.0, 180.0), (60.0, 120.0, 250.0)):
            shell = STEP.model_copy(update=dict(zip(("x_mm", "y_mm", "z_mm"), place, strict=True)))
            envelope = envelope_of(build(shell), 0.0, (valve,))
            found = all(gap.clears for gap in gaps(bay, envelope, Workshop().rules))
            self.assertEqual(all_clear(bay, envelope, Workshop().rules, {}), found, place)
            said.add(found)
        self.assertEqual(said, {True, False})

    def test_fit_of_every_kind_clears(self) -> None:
        """Saddle over a shaft, step, D and cylinders under a sloping lid: fitted, nothing is short of its clearance."""
        shaft = RoundKeepOut(id="s", name="shaft", axis="x", x_mm=0, y_mm=300, z_mm=60, diameter_mm=120, run_mm=1000)
        slope = SlopeKeepOut(id="l", name="lid line", blocked="roof", along="x", start_mm=500, end_mm=380)
        room = self.ROOM.model_copy(update={"keep_outs": [shaft, slope]})
        kinds: list[AnyShell] = [
            SADDLE,
            STEP,
            CylinderShell(axis="z", diameter_mm=100, run_mm=100),
            CylinderShell(axis="x", diameter_mm=100, run_mm=100),
            self.TANK,
        ]
        for shell in kinds:
            subject = Design(bay=room, shell=shell)
            placed = fit_to_bay(subject, Workshop())
            assert placed is not None
            seen = evaluate(apply(subject, {"shell": placed}), None, Showing(remedies=False))
            self.assertEqual([gap.key for gap in seen.bay.gaps if gap.short_mm > 0.1], [], shell.kind)
        over = evaluate(
            apply(Design(bay=room, shell=SADDLE), {"shell": fit_to_bay(Design(bay=room, shell=SADDLE), Workshop())})
        )
        assert over.shell.figures is not None
        self.assertGreater(over.shell.figures.brimful_l, 150)
