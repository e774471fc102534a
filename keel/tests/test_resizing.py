"""Shells made larger and smaller: only what was asked for changes, and litres come out as wanted."""

from typing import Any, get_args
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.solids import AnyShell
from keel.studies.space.resize import Direction, changed, directions, resized, size_along, size_for, stretched
from keel.studies.space.shift_into_bay import slide_into
from keel.tests.samples import WEDGE, box, lengths, shells


def litres(shell: AnyShell) -> float:
    return float(build(shell).inner.volume()) / 1e6


def sizes(shell: AnyShell) -> dict[str, float]:
    return {name: size_along(shell, name) for name in directions(shell)}


class OneWay(TestCase):
    """One size at a time."""

    @settings(max_examples=30)
    @given(shells(), st.floats(0.7, 1.6), st.integers(0, 2))
    def test_only_that_way(self, shell: AnyShell, times: float, which: int) -> None:
        """The body is as large as asked along it, and as it was along the others."""
        ways = directions(shell)
        way = ways[which % len(ways)]
        before = sizes(shell)
        try:
            after_shell = changed(shell, resized(shell, way, before[way] * times))
            after = sizes(after_shell)
            body = build(after_shell.model_copy(update={"features": ()})).body.size
        except (GeometryError, ValidationError):
            assume(False)
        for name, size in after.items():
            wanted = before[name] * times if name == way else before[name]
            self.assertAlmostEqual(size, wanted, delta=0.02 * wanted if isinstance(shell, ProfileShell) else 1e-6)
        if isinstance(shell, BoxShell) and shell.measured == "outside":
            for size, name in zip(body, ("length", "width", "height"), strict=True):
                self.assertAlmostEqual(size, after[name], delta=1e-6)

    def test_what_each_kind_can_do(self) -> None:
        """A box three ways; a cylinder along its axis and across it."""
        self.assertEqual(directions(box()), ["length", "width", "height"])
        for axis, along in (("x", "length"), ("y", "width"), ("z", "height")):
            shell = CylinderShell.model_validate(
                {"kind": "cylinder", "axis": axis, "diameter_mm": 300.0, "run_mm": 500.0, "thickness_mm": 2.0}
            )
            self.assertEqual(directions(shell), [along, "diameter"])
            self.assertEqual((size_along(shell, along), size_along(shell, "diameter")), (500.0, 300.0))  # type: ignore[arg-type]
            self.assertEqual(resized(shell, "diameter", 320.0), {"diameter_mm": 320.0})
            self.assertEqual(resized(shell, along, 640.0), {"run_mm": 640.0})  # type: ignore[arg-type]
        self.assertEqual(set(get_args(Direction)), {"length", "width", "height", "diameter"})


class Profiles(TestCase):
    """Corners stretched about the lowest, leftmost place."""

    @given(st.floats(0.5, 2.0), st.floats(0.5, 2.0))
    def test_every_corner(self, across: float, up: float) -> None:
        """By the factors, from the foot; joints stay."""
        corners = stretched(WEDGE, across, up)
        foot = min(c.across_mm for c in WEDGE.corners), min(c.up_mm for c in WEDGE.corners)
        for was, now in zip(WEDGE.corners, corners, strict=True):
            self.assertAlmostEqual(float(now["across_mm"]) - foot[0], (was.across_mm - foot[0]) * across, delta=1e-9)
            self.assertAlmostEqual(float(now["up_mm"]) - foot[1], (was.up_mm - foot[1]) * up, delta=1e-9)
            self.assertEqual(now["joint"], was.joint)

    @given(st.floats(0.5, 2.0))
    def test_a_rolled_edge_keeps_its_shape(self, times: float) -> None:
        """Stretched alike both ways its rise grows with its chord; along its chord alone with that."""
        corners: list[dict[str, Any]] = [
            {"across_mm": 0.0, "up_mm": 0.0, "bow_mm": 20.0}, {"across_mm": 400.0, "up_mm": 0.0},
            {"across_mm": 400.0, "up_mm": 300.0, "bow_mm": -15.0}, {"across_mm": 0.0, "up_mm": 300.0},
        ]  # fmt: skip
        shell = ProfileShell.model_validate(
            {"kind": "profile", "run_mm": 500.0, "thickness_mm": 2.0, "corners": corners}
        )
        for factors, bows in (((times, times), (times, times)), ((times, 1.0), (times, times)), ((1.0, times), (1, 1))):
            found = stretched(shell, *factors)
            self.assertAlmostEqual(float(found[0]["bow_mm"]), 20.0 * bows[0])
            self.assertAlmostEqual(float(found[2]["bow_mm"]), -15.0 * bows[1])


class Wanted(TestCase):
    """A size for so many litres."""

    @settings(max_examples=20)
    @given(lengths(300, 900), lengths(200, 500), lengths(150, 400), st.floats(0.6, 1.7), st.integers(0, 2))
    def test_a_box_for_so_many_litres(self, long: float, wide: float, high: float, times: float, which: int) -> None:
        """What is found holds them; by hand: inside sizes times each other, sharp corners."""
        shell = box(long, wide, high, thickness_mm=2.0)
        way = directions(shell)[which]
        wanted = litres(shell) * times
        found = size_for(shell, way, wanted, litres)
        assert found is not None
        inside = {"length": long - 4, "width": wide - 4, "height": high - 4}
        others = [size for name, size in inside.items() if name != way]
        self.assertAlmostEqual(found, wanted * 1e6 / (others[0] * others[1]) + 4, delta=0.05 + 1e-4 * found)
        self.assertAlmostEqual(litres(changed(shell, resized(shell, way, found))), wanted, delta=0.002 * wanted)

    def test_what_no_size_holds(self) -> None:
        """Far more than the largest shell holds: none."""
        self.assertIsNone(size_for(box(), "length", 1e7, litres))


class Sliding(TestCase):
    """A span into a room."""

    @given(st.floats(-500, 500), st.floats(1, 400), st.floats(-300, 0), st.floats(1, 600))
    def test_as_little_as_possible(self, at: float, size: float, low: float, room: float) -> None:
        """Inside it stays; else it touches the nearer end; too long, it begins at the low one."""
        high = low + room
        found = slide_into(at, size, low, high)
        if size > room:
            self.assertEqual(found, low)
        else:
            self.assertTrue(low - 1e-9 <= found <= high - size + 1e-9)
            if low <= at <= high - size:
                self.assertEqual(found, at)
            else:
                self.assertIn(found, (low, high - size))
