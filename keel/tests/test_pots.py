"""Pots that keep fuel round a pickup, and the flat parts of what stands inside."""

import json
from math import pi
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from keel.design.document import Design
from keel.design.workshop import StockSheet, Workshop
from keel.evaluation import evaluate
from keel.formats.document import read_design
from keel.formats.dxf import part_dxf
from keel.solid.build import build
from keel.solid.compartments import compartments
from keel.solid.faults import GeometryError
from keel.solid.interior import solids_of
from keel.studies.sheet.bends import bend_deduction
from keel.studies.sheet.parts import FlatPart, polygon_area
from keel.studies.slosh.manoeuvres import demo_lap
from keel.studies.slosh.model import Setup, slosh_tank
from keel.studies.slosh.run import slosh_run

T, R = 3.0, 4.5
POT: dict[str, Any] = {
    "kind": "pot",
    "id": "pot",
    "name": "pot",
    "a_mm": 200,
    "b_mm": 120,
    "long_mm": 160,
    "wide_mm": 120,
    "high_mm": 150,
    "doors": [{"side": "rear", "wide_mm": 60, "high_mm": 40}, {"side": "front", "wide_mm": 60, "high_mm": 40}],
}
PLATE: dict[str, Any] = {"kind": "baffle", "id": "plate", "name": "plate", "at_mm": 150}


def tank(*features: dict[str, Any]) -> Design:
    """A box of 600 × 400 × 300 in 3 mm sheet with a pickup in it."""
    shell = {"length_mm": 600, "width_mm": 400, "height_mm": 300, "thickness_mm": T, "bend_radius_mm": R}
    ports = [{"id": "p", "name": "pickup", "role": "pickup", "x_mm": 280, "y_mm": 180}]
    return read_design(json.dumps({"shell": shell | {"features": list(features)}, "ports": ports}))


def part(design: Design, name: str) -> FlatPart:
    """One flat part."""
    sheet = evaluate(design).sheet.unfolded
    assert sheet is not None
    return next(p for p in sheet.parts if p.name == f"inside-{name}")


class Pots(TestCase):
    """Their room, their openings, what they do."""

    def test_room_rim_and_doors(self) -> None:
        """The room inside holds what its sides say; the rim lets both ways, the flaps inward only."""
        solids = solids_of(tank(POT))
        rooms, openings = compartments(solids)
        self.assertEqual([room.name for room in rooms], ["pot", "tank"])
        self.assertAlmostEqual(rooms[0].mesh.volume_mm3, 154 * 114 * 150, delta=5)
        ways = {(o.first, o.second, o.axis, o.way) for o in openings}
        self.assertEqual(ways, {(0, 1, 2, 0), (1, 0, 0, 1), (0, 1, 0, -1)})
        metal = (160 * 120 - 154 * 114) * 150 - 2 * 60 * 40 * T
        self.assertAlmostEqual(solids.costs[0].metal_mm3, metal, delta=1)

    @given(st.floats(60, 180), st.floats(40, 250), st.sampled_from(["box", "round"]))
    def test_nothing_is_lost(self, long: float, high: float, form: str) -> None:
        """What the pot takes and what it parts add up to the tank without it."""
        whole = solids_of(tank()).inner.volume()
        sides = {"form": form, "long_mm": long, "wide_mm": 100, "high_mm": high, "doors": []}
        solids = solids_of(tank(POT | sides))
        rooms, _ = compartments(solids)
        held = sum(room.mesh.volume_mm3 for room in rooms)
        self.assertAlmostEqual(held + solids.costs[0].metal_mm3, whole, delta=2e-5 * whole)
        self.assertEqual(len(rooms), 2)

    def test_it_bridges_a_lap(self) -> None:
        """On a lap that empties the pickup without it, the pot keeps it wet; no fuel is made or lost."""
        lap, setup = demo_lap("Corrie hill climb"), Setup(fill=0.2)
        dry = []
        for features in ((), (POT,)):
            ready = slosh_tank(solids_of(tank(*features)), tank().ports)
            assert ready is not None
            ran = slosh_run(ready, lap, setup)
            dry.append(ran.dry_s)
            self.assertAlmostEqual(ran.held_l[0].sum() - ran.held_l[-1].sum(), ran.used_l, delta=1e-6)
        self.assertGreater(dry[0], 5)
        self.assertLess(dry[1], 0.5)

    def test_a_flap_keeps_what_an_opening_lets_out(self) -> None:
        """The same pot without flaps runs dry for longer."""
        held = [door | {"flap": False} for door in POT["doors"]]
        runs = []
        for pot in (POT, POT | {"doors": held}):
            ready = slosh_tank(solids_of(tank(pot)), tank().ports)
            assert ready is not None
            runs.append(slosh_run(ready, demo_lap("Corrie hill climb"), Setup(fill=0.1)).dry_s)
        self.assertLess(runs[0], runs[1])

    def test_what_cannot_be(self) -> None:
        """Outside the tank, shut by the roof, in a plate's way, a door too wide or too high: each by its field."""
        for features, field in (
            ([POT | {"a_mm": 900}], "shell.features.0.high_mm"),
            ([POT | {"high_mm": 295}], "shell.features.0.high_mm"),
            ([POT, PLATE | {"at_mm": 250}], "shell.features.1.at_mm"),
            ([POT, POT | {"id": "pot-2", "a_mm": 300}], "shell.features.1"),
            ([POT | {"doors": [{"wide_mm": 118, "high_mm": 30}]}], "shell.features.0.doors.0.wide_mm"),
            ([POT | {"doors": [{"wide_mm": 30, "high_mm": 150}]}], "shell.features.0.doors.0.high_mm"),
            ([POT | {"long_mm": 6}], "shell.features.0"),
        ):
            with self.subTest(field), self.assertRaises(GeometryError) as caught:
                solids_of(tank(*features))
            self.assertEqual(caught.exception.fault.field, field)


class InternalParts(TestCase):
    """Flats of baffles and pots."""

    def test_a_plate_of_another_sheet(self) -> None:
        """Its own thickness is looked for in stock, and it has to lie on a sheet of that."""
        thick = PLATE | {"thickness_mm": 4.0, "id": "wrapper"}
        shop = Workshop(stock=[StockSheet(length_mm=2000, width_mm=1000, metal="5052-H32", thickness_mm=T)])
        found = {f.key: f for f in evaluate(tank(thick), shop).findings}
        self.assertEqual(found["stock.none:4"].title.values["thickness_sheet"], 4.0)
        small = StockSheet(length_mm=300, width_mm=300, metal="5052-H32", thickness_mm=4.0)
        shop = shop.model_copy(update={"stock": [*shop.stock, small]})
        self.assertIn("stock.size:inside-wrapper", {f.key for f in evaluate(tank(thick), shop).findings})

    def test_a_baffle_is_a_pan(self) -> None:
        """Inside less the gap all round, and a flange less the bend's deduction on each side; corners left open."""
        flange = Workshop().rules.flange_mm
        over = 2 * (flange - bend_deduction(90, R, T, Workshop().k_for("5052-H32")))
        flat = part(tank(PLATE), "plate")
        self.assertAlmostEqual(flat.length_mm, 400 - 2 * T - 1 + over, delta=0.05)
        self.assertAlmostEqual(flat.width_mm, 300 - 2 * T - 1 + over, delta=0.05)
        self.assertEqual([bend.direction for bend in flat.bends], ["up"] * 4)
        plain = part(tank(PLATE | {"flange_mm": 0}), "plate")
        legs = (400 - 2 * T - 1) * (300 - 2 * T - 1)
        self.assertEqual(plain.bends, [])
        self.assertAlmostEqual(polygon_area(plain.outline), legs - 2 * 39**2, delta=200)

    def test_openings_are_cut(self) -> None:
        """Holes are rings of their own on the flat and in the DXF; a notch breaks the foot's flange in two."""
        holes = {"at_mm": 100, "up_mm": 150, "diameter_mm": 40, "count": 3, "pitch_mm": 100}
        flat = part(
            tank(PLATE | {"holes": [holes], "notches": [{"at_mm": 200, "wide_mm": 60, "high_mm": 30}]}), "plate"
        )
        self.assertEqual(len(flat.holes), 3)
        for hole in flat.holes:
            self.assertAlmostEqual(polygon_area(hole), pi * 20**2, delta=2)
        self.assertEqual(len(flat.bends), 5)
        drawn = part_dxf(flat, title="t", thickness_mm=T, metal="m").decode()
        self.assertEqual(drawn.count("\nLWPOLYLINE\n"), 4)

    def test_a_rolled_rim_has_no_flange(self) -> None:
        """In a cylinder the plate is a disc, welded on its edge."""
        shell = {"kind": "cylinder", "axis": "x", "diameter_mm": 300, "run_mm": 600, "thickness_mm": T}
        design = read_design(json.dumps({"shell": shell | {"features": [PLATE | {"corner_mm": 0, "top_gap_mm": 20}]}}))
        self.assertEqual(part(design, "plate").bends, [])

    def test_a_pot_is_a_strip(self) -> None:
        """Round its middle line, doors cut out; the mass in the tally is that of the flats."""
        k = Workshop().k_for("5052-H32")
        flat = part(tank(POT), "pot")
        self.assertAlmostEqual(flat.length_mm, 2 * 160 + 2 * 120 - T - 3 * bend_deduction(90, R, T, k), delta=1e-6)
        self.assertEqual(flat.width_mm, 150)
        self.assertAlmostEqual(flat.area_mm2, flat.length_mm * 150 - 2 * 60 * 40, delta=1e-3)
        tube = part(tank(POT | {"form": "round", "doors": []}), "pot")
        self.assertAlmostEqual(tube.length_mm, pi * (160 - T))
        with_pot, without = evaluate(tank(POT)).shell.figures, evaluate(tank()).shell.figures
        assert with_pot is not None and without is not None
        self.assertAlmostEqual((with_pot.empty_kg or 0) - (without.empty_kg or 0), flat.mass_kg)

    def test_nothing_is_left_out(self) -> None:
        """What is unfolded isn't said to be missing."""
        well = {"kind": "well", "id": "w", "name": "well", "a_mm": 400, "b_mm": 100, "long_mm": 100, "wide_mm": 100}
        found = evaluate(tank(POT, PLATE, well | {"deep_mm": 40})).findings
        self.assertNotIn("sheet.features", {finding.code for finding in found})

    def test_flanges_stay_apart(self) -> None:
        """Round a step's inner corner the flanges don't overlap on the flat: its area is that of its pieces."""
        corners = [(0, 0), (300, 0), (300, 150), (500, 150), (500, 300), (0, 300)]
        shell = {
            "kind": "profile",
            "shape": "step",
            "wrap_axis": "x",
            "run_mm": 500,
            "corners": [{"across_mm": x, "up_mm": y} for x, y in corners],
            "thickness_mm": T,
        }
        plate = PLATE | {"corner_mm": 0, "top_gap_mm": 0, "holes": [{"at_mm": 100, "up_mm": 80, "diameter_mm": 60}]}
        design = read_design(json.dumps({"shell": shell | {"features": [plate]}}))
        flat = part(design, "plate")
        assert design.shell is not None
        face = build(design.shell).plates["plate"].left.area()
        strips = polygon_area(flat.outline) - face - pi * 30**2
        reach = Workshop().rules.flange_mm - flat.bends[0].deduction_mm
        along = sum(((b.end[0] - b.start[0]) ** 2 + (b.end[1] - b.start[1]) ** 2) ** 0.5 for b in flat.bends)
        self.assertEqual(len(flat.bends), 6)
        # The plate stands half a millimetre off all round; beside each flange's end it is slit as deep as its bend.
        slits = 2 * len(flat.bends) * 1.0 * (T + design.shell.bend_radius_mm)
        self.assertAlmostEqual(strips, along * reach - 0.5 * 1600 - slits, delta=25)
