"""What the drawing does to a shell, against what the core makes of it."""

from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.design.document import Design
from keel.design.shell import Corner, ProfileShell
from keel.evaluation import evaluate
from keel.analysis.showing import Showing
from keel.solid.build import build
from keel.studies.space.resize import stretched
from keel.tests.samples import STEP, profile
from tests.web.node import call

KINDS = ("wedge", "step", "saddle", "D", "free")


def corners_of(shell: ProfileShell) -> list[dict[str, Any]]:
    """Corners as the screen has them."""
    return [corner.model_dump() for corner in shell.corners]


class Kinds(TestCase):
    """Shells that a choice of kind starts with."""

    def test_every_kind_can_be_made_and_fills_its_bounds(self) -> None:
        """Whatever the proportions, the core makes it, as wide and as high as asked for."""
        sizes = [(600.0, 300.0), (300.0, 300.0), (250.0, 401.0), (900.0, 120.0)]
        asked = [(kind, width, height) for kind in KINDS for width, height in sizes]
        found = call("stations/shell/kinds", [("firstCorners", *one) for one in asked])
        for (kind, width, height), corners in zip(asked, found, strict=True):
            shell = ProfileShell.model_validate({"shape": kind, "corners": corners, "run_mm": 400.0, "thickness_mm": 2.0})
            size = build(shell).body.size
            self.assertAlmostEqual(size[0], width, delta=1.01, msg=f"{kind} {width}x{height}")
            self.assertAlmostEqual(size[2], height, delta=1.01, msg=f"{kind} {width}x{height}")

    def test_turning_one_kind_into_another_keeps_metal_place_and_features(self) -> None:
        """Each kind made of a box with a well stands where the box stood and still has the well."""
        well = {"kind": "well", "id": "w", "name": "well", "a_mm": 20.0, "b_mm": 120.0}
        well |= {"long_mm": 60.0, "wide_mm": 60.0, "deep_mm": 30.0}
        shell = {"kind": "box", "length_mm": 500.0, "width_mm": 360.0, "height_mm": 300.0, "x_mm": 40.0, "y_mm": 30.0}
        shell |= {"z_mm": 20.0, "metal": "5083-H111", "thickness_mm": 3.0, "features": [well]}
        design = Design.model_validate({"shell": shell})
        seen = evaluate(design, None, Showing(remedies=False)).model_dump(mode="json")
        whole = design.model_dump(mode="json")["shell"]
        kinds = ("box", *KINDS, "cylinder standing", "cylinder lying")
        for kind, made in zip(kinds, call("stations/shell/kinds", [("turnedInto", k, whole, seen) for k in kinds]), strict=True):
            other = Design.model_validate({"shell": made}).shell
            assert other is not None
            self.assertEqual((other.metal, other.thickness_mm, len(other.features)), ("5083-H111", 3.0, 1), kind)
            low = build(other.model_copy(update={"features": ()})).body.low
            for found, wanted in zip(low, (40, 30, 20), strict=True):
                self.assertAlmostEqual(found, wanted, delta=0.01, msg=kind)


class Corners(TestCase):
    """Edits of a profile's corners."""

    def test_splitting_an_edge_changes_nothing_yet(self) -> None:
        """The new corner lies on the edge: the tank holds the same."""
        before = build(STEP).brimful_l
        for place, corners in enumerate(call("drawing/outline", [("split", corners_of(STEP), n) for n in range(6)])):
            self.assertEqual(len(corners), 7)
            made = STEP.model_copy(update={"corners": tuple(Corner(**c) for c in corners)})
            self.assertAlmostEqual(build(made).brimful_l, before, places=6, msg=str(place))

    def test_chamfering_takes_the_corner_off(self) -> None:
        """At an outer corner by half the square, at the inner one it adds that; never past the middle of an edge."""
        square = profile([(0, 0), (400, 0), (400, 300), (0, 300)], 500, 2.0)
        cut, far = call(
            "drawing/outline", [("chamfered", corners_of(square), 2, 40), ("chamfered", corners_of(square), 2, 9000)]
        )
        made = square.model_copy(update={"corners": tuple(Corner(**c) for c in cut)})
        outside = build(made).outer.volume() / 500
        self.assertAlmostEqual(outside, 400 * 300 - 40 * 40 / 2, delta=1e-3)
        self.assertEqual((far[2]["across_mm"], far[3]["across_mm"]), (400, 220))
        inner = call("drawing/outline", [("chamfered", corners_of(STEP), 2, 30)])[0]
        more = build(STEP.model_copy(update={"corners": tuple(Corner(**c) for c in inner)})).outer.volume()
        self.assertAlmostEqual((more - build(STEP).outer.volume()) / 500, 30 * 30 / 2, delta=1e-3)

    def test_the_last_three_corners_stay(self) -> None:
        """A triangle loses no corner; anything else loses just that one."""
        triangle = corners_of(profile([(0, 0), (300, 0), (0, 200)], 500, 2.0))
        kept, less = call("drawing/outline", [("without", triangle, 1), ("without", corners_of(STEP), 2)])
        self.assertEqual(kept, triangle)
        self.assertEqual(len(less), 5)

    @given(st.floats(0.4, 2.5), st.sampled_from(["x", "z"]))
    @settings(max_examples=5)
    def test_screen_and_core_stretch_alike(self, factor: float, axis: str) -> None:
        """A dragged face and a remedy that grows the tank move the same corners to the same places."""
        dee = ProfileShell(
            corners=(
                Corner(across_mm=10, up_mm=5),
                Corner(across_mm=180, up_mm=5, bow_mm=100),
                Corner(across_mm=180, up_mm=325),
                Corner(across_mm=10, up_mm=325, bow_mm=-20),
            ),
            run_mm=400,
        )
        names = {"x": "across_mm", "z": "up_mm"}
        values = [getattr(corner, names[axis]) for corner in dee.corners]
        size = (max(values) - min(values)) * factor
        here = call("drawing/outline", [("stretched", dee.model_dump(mode="json"), axis, size)])[0]
        there = stretched(dee, factor if axis == "x" else 1.0, factor if axis == "z" else 1.0)
        for one, other in zip(here, there, strict=True):
            for name in ("across_mm", "up_mm", "bow_mm"):
                self.assertAlmostEqual(one[name], float(other[name]), delta=2e-3)

    def test_sizes_as_the_design_writes_them(self) -> None:
        """Length, width and height of each kind, and the fields that change them."""
        cylinder = {"kind": "cylinder", "axis": "y", "diameter_mm": 200, "run_mm": 500}
        box = {"kind": "box", "length_mm": 1, "width_mm": 2, "height_mm": 3}
        step = STEP.model_dump(mode="json")
        asked = [("writtenSize", shell, axis) for shell in (box, cylinder, step) for axis in "xyz"]
        self.assertEqual(call("drawing/outline", asked), [1, 2, 3, 200, 500, 200, 900, 500, 380])
        fields = call("drawing/outline", [("resizedTo", shell, axis, 77) for shell in (box, cylinder, step) for axis in "xyz"])
        self.assertEqual(
            fields,
            [
                {"length_mm": 77}, {"width_mm": 77}, {"height_mm": 77},
                {"diameter_mm": 77}, {"run_mm": 77}, {"diameter_mm": 77},
                None, {"run_mm": 77}, None,
            ],
        )  # fmt: skip


class KeepOuts(TestCase):
    """Neighbours on the drawing."""

    def test_boxes_and_slopes(self) -> None:
        """A shaft's box about its axis; a slope's blocked side in the one view that sees it fall."""
        shaft = {"kind": "cylinder", "axis": "x", "x_mm": 10, "y_mm": 300, "z_mm": 60, "diameter_mm": 120, "run_mm": 700}
        low, high = {"x": 10, "y": 240, "z": 0}, {"x": 710, "y": 360, "z": 120}
        bay = {"length_mm": 1000, "width_mm": 600, "height_mm": 500}
        slope = {"kind": "slope", "blocked": "roof", "along": "x", "start_mm": 500, "end_mm": 300}
        wall = {"kind": "slope", "blocked": "front", "along": "z", "start_mm": 900, "end_mm": 700}
        box, none, falls, unseen, raked = call(
            "drawing/keepOuts",
            [
                ("boxOf", shaft),
                ("boxOf", slope),
                ("slopePolygon", slope, bay, "x", "z"),
                ("slopePolygon", slope, bay, "y", "z"),
                ("slopePolygon", wall, bay, "x", "z"),
            ],
        )
        self.assertEqual(box, {"low": low, "high": high})
        self.assertIsNone(none)
        self.assertEqual(falls, [[0, 500], [1000, 300], [1000, 500], [0, 500]])
        self.assertIsNone(unseen)
        self.assertEqual(raked, [[900, 0], [700, 500], [1000, 500], [1000, 0]])
