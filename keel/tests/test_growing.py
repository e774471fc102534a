"""Shapes grown into a bay and sizes for a capacity, against what can be worked out by hand."""

from math import hypot, pi, sqrt
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.design.bay import Bay
from keel.design.document import Design
from keel.design.shell import Corner, CylinderShell, ProfileShell
from keel.design.workshop import Workshop
from keel.solid.build import build
from keel.studies.space.fit import fit_to_bay
from keel.studies.space.resize import changed, directions, resized, size_along, size_for, stretched
from keel.tests.samples import SADDLE, STEP, WEDGE, box, profile

TOUCHING = {"mm": 0.0}
SIDES = dict.fromkeys(("rear", "front", "right", "left", "floor", "roof"), TOUCHING)
ROOM = {"length_mm": 900.0, "width_mm": 500.0, "height_mm": 400.0, "sides": SIDES}


def bay(**more: Any) -> Bay:
    """A bay whose sides may be touched."""
    return Bay.model_validate(ROOM | more)


def slope(start: float, end: float, along: str = "y") -> dict[str, Any]:
    """A lid line that falls along an axis."""
    place = {"kind": "slope", "id": "s", "name": "lid", "blocked": "roof", "clearance": TOUCHING}
    return place | {"along": along, "start_mm": start, "end_mm": end}


def fitted(shell: CylinderShell | ProfileShell, space: Bay) -> CylinderShell | ProfileShell:
    """The shell as it is fitted to a bay."""
    fields = fit_to_bay(Design(shell=shell, bay=space), Workshop())
    assert fields is not None
    found = changed(shell, fields)
    assert isinstance(found, CylinderShell | ProfileShell)
    return found


class Cylinders(TestCase):
    """As wide as the room, and no wider."""

    def test_in_an_empty_bay(self) -> None:
        """Along each axis: across the smaller of two sizes, as long as the third."""
        for axis, across, run in (("x", 400, 900), ("y", 400, 500), ("z", 500, 400)):
            found = fitted(CylinderShell(axis=axis, diameter_mm=100, run_mm=100, thickness_mm=2), bay())
            assert isinstance(found, CylinderShell)
            self.assertAlmostEqual(found.diameter_mm, across, delta=0.05)
            self.assertAlmostEqual(found.run_mm, run, delta=0.05)

    @given(st.floats(300, 400), st.floats(40, 250))
    @settings(max_examples=15, deadline=None)
    def test_under_a_falling_lid(self, high: float, low: float) -> None:
        """The circle that touches floor, side and lid: its middle is as far from each."""
        fall = (high - low) / 500
        radius = min(high / (1 + fall + hypot(1, fall)), 250)
        found = fitted(
            CylinderShell(axis="x", diameter_mm=80, run_mm=100, thickness_mm=2), bay(keep_outs=[slope(high, low)])
        )
        assert isinstance(found, CylinderShell)
        self.assertAlmostEqual(found.diameter_mm, 2 * radius, delta=2 * radius * 0.004)
        self.assertLessEqual(found.diameter_mm, 2 * radius + 0.02)

    def test_dishes_reach_out(self) -> None:
        """What bulges beyond the rims has to go in too, but for half a millimetre by which its facets stand out."""
        shell = CylinderShell(axis="x", diameter_mm=300, run_mm=300, dish_mm=40, thickness_mm=2)
        found = fitted(shell, bay())
        assert isinstance(found, CylinderShell)
        low, high = (getattr(build(found).bounds, end)[0] for end in ("low", "high"))
        self.assertGreaterEqual(low, -0.5)
        self.assertLessEqual(high, 900.5)
        self.assertGreater(high - low, 880)


class Profiles(TestCase):
    """Outlines stretched into what is free."""

    def test_a_wedge_under_a_lid(self) -> None:
        """Under a lid that falls to the floor a right-angled wedge takes nearly all of the room."""
        wedge = profile([(0, 0), (100, 0), (0, 100)], 100, 2.0, "x")
        found = fitted(wedge, bay(keep_outs=[slope(400, 0)]))
        assert isinstance(found, ProfileShell)
        across, up = (max(getattr(c, name) for c in found.corners) for name in ("across_mm", "up_mm"))
        self.assertGreater(across * up / 2, 0.95 * 500 * 400 / 2)
        self.assertAlmostEqual(found.run_mm, 900, delta=0.05)
        # No corner lies over the lid's line.
        for corner in found.corners:
            y, z = corner.across_mm + found.y_mm, corner.up_mm + found.z_mm
            self.assertLessEqual(z, 400 - 0.8 * y + 0.02)

    def test_the_proportions_stay(self) -> None:
        """Every corner keeps its share of width and height; joints and order stay."""
        for shell in (STEP, SADDLE, WEDGE):
            found = fitted(shell, bay())
            assert isinstance(found, ProfileShell)
            self.assertEqual([c.joint for c in found.corners], [c.joint for c in shell.corners])
            for name in ("across_mm", "up_mm"):
                was, now = ([getattr(c, name) for c in s.corners] for s in (shell, found))
                shares = [[(v - min(values)) / (max(values) - min(values)) for v in values] for values in (was, now)]
                for one, other in zip(*shares, strict=True):
                    self.assertAlmostEqual(one, other, places=6)

    @given(st.floats(0.4, 2.5), st.floats(0.4, 2.5))
    def test_a_rolled_edge_keeps_its_share(self, across: float, up: float) -> None:
        """Its rise in proportion to its chord, about the lowest, leftmost place."""
        corners = (
            Corner(across_mm=50, up_mm=30, bow_mm=20),
            Corner(across_mm=350, up_mm=30),
            Corner(across_mm=350, up_mm=230, bow_mm=15),
            Corner(across_mm=50, up_mm=230),
        )
        shell = ProfileShell(corners=corners, run_mm=300, thickness_mm=2, bend_radius_mm=0)
        found = stretched(shell, across, up)
        self.assertEqual((found[0]["across_mm"], found[0]["up_mm"]), (50, 30))
        self.assertAlmostEqual(float(found[2]["across_mm"]), 50 + 300 * across)  # type: ignore[arg-type]
        self.assertAlmostEqual(float(found[2]["up_mm"]), 30 + 200 * up)  # type: ignore[arg-type]
        self.assertAlmostEqual(float(found[0]["bow_mm"]), 20 * across)  # type: ignore[arg-type]
        self.assertAlmostEqual(float(found[2]["bow_mm"]), 15 * across)  # type: ignore[arg-type]
        self.assertEqual((found[1]["bow_mm"], found[3]["bow_mm"]), (0.0, 0.0))


def brimful(shell: Any) -> float:
    """What a shell holds [L]."""
    return build(shell).brimful_l


class Sizes(TestCase):
    """What a size has to be for a capacity."""

    def test_a_boxs(self) -> None:
        """Inside by inside by inside."""
        shell = box(800, 400, 350)
        for direction, others in (("length", 394 * 344), ("width", 794 * 344), ("height", 794 * 394)):
            found = size_for(shell, direction, 120.0, brimful)  # type: ignore[arg-type]
            self.assertAlmostEqual(found or 0, 120e6 / others + 6, places=4)

    def test_a_cylinders(self) -> None:
        """π d²/4 times its length; its diameter goes with the root."""
        shell = CylinderShell(axis="z", diameter_mm=300, run_mm=500, thickness_mm=2)
        self.assertEqual(directions(shell), ["height", "diameter"])
        run = size_for(shell, "height", 50.0, brimful)
        self.assertAlmostEqual((run or 0) - 4, 50e6 / (pi * 148**2), delta=0.5)
        across = size_for(shell, "diameter", 50.0, brimful)
        self.assertAlmostEqual((across or 0) - 4, sqrt(4 * 50e6 / pi / 496), delta=0.3)

    @given(st.sampled_from([STEP, SADDLE, WEDGE]), st.sampled_from(["length", "width", "height"]), st.floats(0.7, 1.6))
    @settings(max_examples=25, deadline=None)
    def test_a_profiles(self, shell: ProfileShell, direction: Any, share: float) -> None:
        """Set to it the shell holds what was wanted, and is as large along that direction as said."""
        wanted = share * brimful(shell)
        size = size_for(shell, direction, wanted, brimful)
        assert size is not None
        found = changed(shell, resized(shell, direction, size))
        self.assertAlmostEqual(brimful(found) / wanted, 1.0, delta=2e-5)
        self.assertAlmostEqual(size_along(found, direction), size, places=5)
