"""Whether plates go in, are reached by a torch and a brush, and let through what is drawn."""

import json
from typing import Any
from unittest import TestCase

from keel.evaluation import evaluate
from keel.findings.finding import Finding
from keel.formats.document import read_design

WELL: dict[str, Any] = {"kind": "well", "id": "w", "name": "well", "a_mm": 100, "b_mm": 100, "deep_mm": 90}
SIZES: dict[str, Any] = {"length_mm": 1500, "width_mm": 400, "height_mm": 300, "wrap_axis": "x"}


def plate(name: str, at: float, axis: str = "x", **more: Any) -> dict[str, Any]:
    """A baffle."""
    return {"kind": "baffle", "id": name, "name": name, "axis": axis, "at_mm": at} | more


def found(*features: dict[str, Any], **more: Any) -> dict[str, Finding]:
    """Findings of a long box with those features, by code; the last of each."""
    design = read_design(json.dumps({"shell": SIZES | {"features": list(features)}} | more))
    return {finding.code: finding for finding in evaluate(design).findings}


class Assembly(TestCase):
    """From the ends inward."""

    def test_a_torch_reaches_so_far(self) -> None:
        """The middle plate of 1.5 m lies too far in; the outer ones don't, and the middle is welded first."""
        seen = found(plate("a", 300), plate("b", 750), plate("c", 1200))
        self.assertEqual(seen["inside.torch"].key, "inside.torch:b")
        # The plate stands 750 to 753 mm in: its near face counts from the front.
        self.assertAlmostEqual(seen["inside.torch"].title.values["in_mm"], 747, delta=0.01)
        self.assertEqual(seen["inside.order"].title.values["names"], "b, a, c")
        self.assertNotIn("inside.torch", found(plate("a", 500), plate("c", 1000)))

    def test_crossed_plates_go_in_as_one(self) -> None:
        """A plate lengthwise through two across: joined first; between the two nothing reaches its seams."""
        seen = found(plate("a", 500), plate("b", 1000), plate("long", 200, "y"))
        self.assertEqual(seen["inside.order"].why.values["crossed"], "a, b and long")
        self.assertEqual(seen["inside.shut_in"].key, "inside.shut_in:a:b")
        self.assertNotIn("inside.shut_in", found(plate("a", 500), plate("long", 200, "y")))

    def test_wells_at_both_ends_block_a_plate(self) -> None:
        """One well leaves the other end free; two don't."""
        size = {"long_mm": 120, "wide_mm": 120}
        rear, front = WELL | size, WELL | size | {"id": "v", "name": "front well", "a_mm": 1200}
        self.assertNotIn("inside.put_in", found(rear, plate("a", 750)))
        seen = found(rear, front, plate("a", 750))
        self.assertEqual(seen["inside.put_in"].title.values["what"], "well and front well")

    def test_a_lengthwise_plate_cut_round_a_well(self) -> None:
        """It has metal on both sides of the well: neither end lets it in."""
        middle = WELL | {"a_mm": 700, "b_mm": 140, "long_mm": 120, "wide_mm": 120}
        self.assertEqual(found(middle, plate("long", 200, "y"))["inside.put_in"].key, "inside.put_in:long")


class Reaching(TestCase):
    """Brush and draw."""

    def test_a_brush_goes_through_wide_openings_only(self) -> None:
        """Small corners shut the far room to a brush; a notch wide and high enough opens it."""
        seat = {"kind": "flange", "outer_mm": 150, "hole_mm": 110, "bolts": 6, "bolt_circle_mm": 130, "bolt_mm": 5}
        port = {"id": "h", "name": "hand hole", "role": "spare", "x_mm": 200, "y_mm": 200, "seat": seat}
        narrow = found(plate("a", 750, corner_mm=20), ports=[port])
        self.assertEqual(narrow["inside.brush"].title.values["rooms"], "tank 2")
        notch = {"at_mm": 200, "wide_mm": 60, "high_mm": 30}
        self.assertNotIn("inside.brush", found(plate("a", 750, corner_mm=20, notches=[notch]), ports=[port]))

    def test_the_draw_holds_its_room_down(self) -> None:
        """By hand: h = (Q / C_d A)² / 2 g for a hole of 8 mm; a door that opens outward lets nothing in."""
        brief = {"fuel": "petrol E10", "cases": [{"id": "n", "name": "now", "measured_l_per_h": 300.0}]}
        pickup = {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 200, "y_mm": 200}
        hole = {"at_mm": 200, "up_mm": 20, "diameter_mm": 8}
        given = {"brief": brief, "ports": [pickup]}
        seen = found(plate("a", 750, corner_mm=0, holes=[hole | {"up_mm": 200}, hole]), **given)["inside.starves"]
        area = 3.14159 * 8**2 / 4
        draw = 360 * 1e6 / 3600
        self.assertAlmostEqual(seen.title.values["head_mm"], (draw / (0.62 * area)) ** 2 / (2 * 9806.65), delta=40)
        outward = {"at_mm": 200, "wide_mm": 60, "high_mm": 40, "opens": "ahead"}
        shut = found(plate("a", 750, corner_mm=0, doors=[outward]), **given)["inside.starves"]
        self.assertIn("nothing open", shut.title.text)
        self.assertNotIn("inside.starves", found(plate("a", 750), **given))

    def test_what_lies_higher_runs_down(self) -> None:
        """A plate in the raised part of a step opens over the deep part's foot only: nothing starves for it."""
        corners = [(0, 0), (440, 0), (440, 180), (720, 180), (720, 360), (0, 360)]
        shell = {"kind": "profile", "shape": "step", "run_mm": 400, "wrap_axis": "y"}
        shell["corners"] = [{"across_mm": a, "up_mm": z} for a, z in corners]
        inlet = {"id": "p", "name": "p", "role": "pickup", "x_mm": 150, "y_mm": 200}
        slosh = {"draw_l_per_h": 100.0}
        for at, starves in ((500, False), (300, True)):
            shell["features"] = [plate("a", at, corner_mm=0, top_gap_mm=40)]
            document = {"shell": shell, "ports": [inlet], "slosh": slosh}
            codes = {finding.code for finding in evaluate(read_design(json.dumps(document))).findings}
            self.assertEqual("inside.starves" in codes, starves, at)


class Bracing(TestCase):
    """What plates do for the panels."""

    def test_a_plate_halves_the_floor(self) -> None:
        """By plate theory, ends free to turn: 900 × 600 has β 0.4952, 600 × 450 beside the plate β 0.5034.

        One that stops short braces nothing.
        """
        sizes = {"length_mm": 900, "width_mm": 600, "height_mm": 300, "measured": "outside"}
        design = {"shell": SIZES | sizes | {"features": [plate("a", 448.5)]}}
        (braced,) = evaluate(read_design(json.dumps(design))).inside.bracing
        self.assertEqual((braced.panel, braced.helps), ("floor", True))
        self.assertAlmostEqual(braced.with_kpa / braced.without_kpa, 0.4952 * 600**2 / (0.50343 * 450**2), places=4)
        design["shell"]["features"] = [plate("a", 448.5, top_gap_mm=30)]
        seen = evaluate(read_design(json.dumps(design)))
        self.assertFalse(seen.inside.bracing[0].helps)
        (said,) = [finding for finding in seen.findings if finding.code == "inside.braces_none"]
        self.assertIn("stops short", said.why.plain())

    def test_the_next_plate_halves_the_longest_run(self) -> None:
        """In the middle of the longest space, and beside a pump that hangs there."""
        design: dict[str, Any] = {"shell": SIZES | {"features": [plate("a", 500)]}}
        free = evaluate(read_design(json.dumps(design))).inside.next_plate
        assert free is not None
        self.assertEqual((free.axis, free.at_mm), ("x", 1000))
        design["shell"]["features"].append(free.model_dump(mode="json"))
        share = evaluate(read_design(json.dumps(design))).inside.checks.plates[1].share  # type: ignore[union-attr]
        self.assertAlmostEqual(share, 0.115, delta=0.002)
        design["shell"]["features"].pop()
        pump = {"id": "p", "name": "p", "role": "pickup", "x_mm": 1000, "y_mm": 200, "hangs_across_mm": 60}
        beside = evaluate(read_design(json.dumps(design | {"ports": [pump]}))).inside.next_plate
        assert beside is not None
        self.assertEqual(abs(beside.at_mm - 1000), 45)
