"""Plates inside: what they displace, weigh, weld and brace, against sums by hand."""

from unittest import TestCase

import numpy as np
from hypothesis import assume, example, given, settings
from hypothesis import strategies as st
from manifold3d import CrossSection
from shapely.geometry import LineString, Polygon

from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.features import Baffle, Door, Holes, Notch, Partition
from keel.design.ports import Port
from keel.design.shell import BoxShell
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.solid.build import build
from keel.solid.compartments import compartments
from keel.solid.faults import GeometryError
from keel.solid.shapes import slice_rings
from keel.studies.liquid.draining import inside
from keel.studies.strength.panels.fields import braces
from keel.tests.samples import STEP, box, profile


def baffle(at: float = 300, name: str = "b", **more: object) -> Baffle:
    """A 3 mm plate across the tank."""
    return Baffle.model_validate({"id": name, "name": name, "at_mm": at} | more)


def tank(*plates: Baffle | Partition) -> BoxShell:
    """A sharp 600 × 400 × 300 box of 3 mm, 594 × 394 × 294 inside."""
    return box(600, 400, 300, features=plates)


class Plates(TestCase):
    """Volumes, welds and openings."""

    def test_cut_corners_by_hand(self) -> None:
        """A 394 × 294 plate with four corners off by 40: area, volume and the weld that is left."""
        plain = build(tank())
        solids = build(tank(baffle()))
        (cost,) = solids.costs
        area = 394 * 294 - 4 * 40 * 40 / 2
        self.assertAlmostEqual(cost.metal_mm3 / 3, area, delta=12)
        self.assertAlmostEqual(cost.weld_mm, 2 * (394 + 294) - 8 * 40, places=2)
        self.assertAlmostEqual(plain.brimful_l - solids.brimful_l, cost.metal_mm3 / 1e6, places=9)
        self.assertEqual(len(solids.cells), 1)

    def test_gap_over_it(self) -> None:
        """30 mm off the top, corners whole."""
        (cost,) = build(tank(baffle(corner_mm=0.0, top_gap_mm=30.0))).costs
        self.assertAlmostEqual(cost.metal_mm3 / 3, 394 * 264, delta=12)
        self.assertAlmostEqual(cost.weld_mm, 394 + 2 * 264, places=2)

    def test_a_dam_holds_fuel_back(self) -> None:
        """Open at the top only, a plate leaves what is behind it stranded; with open corners nothing is."""
        pickup = Port(id="p", name="p", role="pickup", x_mm=100, y_mm=200)
        for plate, held in ((baffle(corner_mm=0.0, top_gap_mm=30.0), True), (baffle(), False)):
            (cell,) = evaluate(Design(shell=tank(plate), ports=(pickup,)), None, Showing(remedies=False)).shell.drained
            behind = sum(pool.litres for pool in cell.pools if not pool.own)
            self.assertAlmostEqual(behind, 294 * 394 * 264 / 1e6 if held else 0.0, delta=0.003)

    def test_a_plate_without_openings_is_a_partition(self) -> None:
        """Said by name; so is one that its openings swallow, and one outside."""
        for plate, said in (
            (baffle(corner_mm=0.0), "makes it a partition"),
            (baffle(corner_mm=150.0), "leave nothing"),
            (baffle(598), "outside the tank"),
        ):
            with self.assertRaises(GeometryError) as caught:
                build(tank(plate))
            self.assertIn(said, str(caught.exception))

    def test_an_opening_off_its_plate_is_named(self) -> None:
        """In the tunnel of a saddle, beyond the end, under the floor; one that is half on it isn't."""
        outline = [(0, 0), (300, 0), (300, 150), (500, 150), (500, 0), (800, 0), (800, 320), (0, 320)]
        doors = [Door(at_mm=at, wide_mm=80, high_mm=50) for at in (400, 150)]
        notches = [Notch(at_mm=at, wide_mm=60, high_mm=25) for at in (820, 295)]
        holes = [Holes(at_mm=60, up_mm=up, diameter_mm=40, count=3, pitch_mm=60) for up in (100, -30)]
        plate = baffle(200, doors=doors, notches=notches, holes=holes)
        solids = build(profile(outline, 400.0, 2.0, "x", shape="saddle", features=(plate,)))
        self.assertEqual(solids.plates["b"].missed, ("notch 1", "door 1", "hole row 2"))
        (found,) = [f for f in evaluate(Design(shell=solids.shell)).findings if f.code == "baffle.misses"]
        self.assertEqual(found.title.plain(), "Off the plate of b: notch 1, door 1 and hole row 2")

    @settings(max_examples=40, deadline=None)
    @given(
        st.lists(st.tuples(st.sampled_from("xy"), st.integers(15, 170), st.integers(5, 60)), max_size=4, unique=True)
    )
    def test_costs_add_up_over_crossed_plates(self, places: list[tuple[str, int, int]]) -> None:
        """Whatever crosses in a stepped tank, the litres given up and the metal stood in are the same thing."""
        plates = tuple(
            baffle(at, f"b{n}", axis=axis, corner_mm=float(corner)) for n, (axis, at, corner) in enumerate(places)
        )
        try:
            solids = build(STEP.model_copy(update={"features": plates}))
        except GeometryError as error:
            assume(not any(said in str(error) for said in ("another plate", "leave nothing")))
            raise
        given_up = build(STEP).brimful_l - solids.brimful_l
        self.assertAlmostEqual(given_up, sum(cost.metal_mm3 for cost in solids.costs) / 1e6, places=6)
        self.assertAlmostEqual(given_up, -sum(cost.litres for cost in solids.costs), places=6)


class Bracing(TestCase):
    """Plates that are welded to the roof split the panels."""

    def test_what_braces(self) -> None:
        """Only plates square to that axis count, and none with a gap over it."""
        wall = Partition(id="p", name="p", at_mm=500)
        plates = [baffle(200), baffle(300, axis="y"), baffle(350, top_gap_mm=20.0), wall]
        self.assertEqual([at for at, _ in braces(plates, 0, 600, 4.0)], [0, 202, 502, 600])
        self.assertEqual([at for at, _ in braces(plates, 1, 400, 4.0)], [0, 302, 400])

    def test_baffles_are_tried_as_a_remedy(self) -> None:
        """For a floor too thin the fewest that settle it are offered with their price, and do settle it."""
        subject = Design(shell=box(1000, 300, 300, thickness_mm=2.0, metal="5052-H32", bend_radius_mm=4.5))
        finding = next(f for f in evaluate(subject).findings if f.code == "wall.thin")
        offered = [r for r in finding.remedies if "welded to the panels" in r.label.plain()]
        self.assertTrue(offered)
        for remedy in offered:
            after = evaluate(apply(subject, remedy.patch), None, Showing(remedies=False))
            self.assertNotIn("wall.thin", {f.code for f in after.findings})
            assert remedy.change is not None and remedy.change.empty_kg is not None
            self.assertGreater(remedy.change.empty_kg, 0)
            self.assertGreater(remedy.change.weld_m, 0)
            self.assertLess(remedy.change.brimful_l, 0)


class Openings(TestCase):
    """What plates leave open, between which compartments."""

    def test_areas_are_those_of_the_drawing(self) -> None:
        """A notch, a door and a hole: not a hair larger, as the solid is cut."""
        more = {
            "notches": (Notch(at_mm=200, wide_mm=60, high_mm=25),),
            "doors": (Door(at_mm=300, wide_mm=50, high_mm=40),),
        }
        holes = (Holes(at_mm=100, up_mm=150, diameter_mm=30),)
        plate = baffle(200, corner_mm=0.0, holes=holes, **more)
        _, openings = compartments(build(box(600, 400, 300, thickness_mm=3.0, features=(plate,))))
        areas = sorted(Polygon(np.delete(o.ring, o.axis, axis=1)).area for o in openings)
        for area, right in zip(areas, (225 * np.pi, 1500, 2000), strict=True):
            self.assertAlmostEqual(area, right, delta=1e-4)

    @settings(max_examples=30, deadline=None)
    @given(
        st.sampled_from(["box", "saddle", "step"]),
        st.lists(st.tuples(st.sampled_from("xy"), st.integers(12, 66)), min_size=1, max_size=4, unique=True),
        st.integers(10, 60),
        st.integers(0, 40),
    )
    @example("saddle", [("x", 12), ("x", 13), ("x", 14), ("y", 44)], 22, 0)
    def test_every_opening_lies_between_its_own_two(
        self, kind: str, places: list[tuple[str, int]], corner: int, gap: int
    ) -> None:
        """Wherever in it one looks, its two compartments are at its sides; together they are what the plates leave."""
        plates = [
            baffle(at * 10.0 + n * 0.5, f"b{n}", axis=axis, corner_mm=float(corner), top_gap_mm=float(gap))
            for n, (axis, at) in enumerate(sorted(places))
            if all(axis != other or abs(at - there) > 3 for other, there in sorted(places)[:n])
        ]
        shells = {
            "box": box(700, 700, 300),
            "saddle": profile(SADDLE, 700.0, 3.0, "x"),
            "step": profile(STEPPED, 700.0, 3.0),
        }
        try:
            solids = build(shells[kind].model_copy(update={"features": tuple(plates)}))
        except GeometryError:
            assume(False)
        rooms, openings = compartments(solids)
        for opening in openings:
            shape = Polygon(np.delete(opening.ring, opening.axis, axis=1))
            for share in (0.15, 0.5, 0.85):
                for spot in _within(shape, share):
                    for side, room in ((-2.5, opening.first), (2.5, opening.second)):
                        place = np.insert(spot, opening.axis, opening.ring[0, opening.axis] + side)
                        self.assertTrue(inside(rooms[room], place), (opening.baffle, spot))
        for plate in plates:
            way = "xy".index(plate.axis)
            faces = [solids.datum[way] + plate.at_mm + off for off in (-0.01, solids.shell.feature_wall_mm + 0.01)]
            before, behind = (CrossSection(slice_rings(solids.inner, way, face)).area() for face in faces)
            if abs(before - behind) > 1.0:
                continue  # it stands along a wall: what it leaves open there leads nowhere
            found = sum(Polygon(np.delete(o.ring, o.axis, axis=1)).area for o in openings if o.baffle == plate.name)
            whole = solids.plates[plate.id].section.area() - solids.plates[plate.id].left.area()
            crossed = 300.0 * sum(3.1 for other in plates if other.axis != plate.axis)
            self.assertLessEqual(found, whole + 1e-6 * whole)
            self.assertGreaterEqual(found, whole - crossed - 50.0)


def _within(shape: Polygon, share: float) -> list[np.ndarray]:
    """Places in a shape, in every strip of it."""
    left, low, right, high = shape.bounds
    line = LineString([(left + share * (right - left), low - 1), (left + share * (right - left), high + 1)])
    cut = shape.buffer(-0.5).intersection(line)
    return [
        np.array(piece.interpolate(0.5, normalized=True).coords[0])
        for piece in getattr(cut, "geoms", [cut])
        if not piece.is_empty
    ]


SADDLE = [
    (0.0, 0.0),
    (260.0, 0.0),
    (260.0, 120.0),
    (440.0, 120.0),
    (440.0, 0.0),
    (700.0, 0.0),
    (700.0, 300.0),
    (0.0, 300.0),
]
STEPPED = [(0.0, 0.0), (400.0, 0.0), (400.0, 100.0), (700.0, 100.0), (700.0, 300.0), (0.0, 300.0)]
