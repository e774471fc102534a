"""Boxes with everything in them, against the same tank counted cube by cube."""

import random
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any
from unittest import TestCase

import numpy as np

from keel.analysis.showing import Showing
from keel.design.attitude import Attitude, specific_force
from keel.design.document import Design
from keel.design.features import Baffle, Feature, Notch, Partition, Relief, RoofStep, Sump, Well
from keel.design.ports import Port
from keel.design.shell import BoxShell
from keel.evaluation import evaluate
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.polyhedron import Array
from keel.solid.solids import Cell, Solids
from keel.studies.liquid.draining import drained, inside
from keel.studies.liquid.strapping import strapping_table
from keel.tests.grid import LITRES, PITCH_MM, Bools, Grid, counted_plate, grid_of
from keel.tests.samples import box

ALONG_AN_AXIS = (
    Attitude(),
    Attitude(forward_g=1, up_g=-1),
    Attitude(forward_g=-1, up_g=-1),
    Attitude(left_g=1, up_g=-1),
    Attitude(left_g=-1, up_g=-1),
    Attitude(up_g=-2),
)
"""The fuel on the floor, and held against each wall and the roof."""
UP = np.array([0.0, 0.0, 1.0])
HAIR_L = 2e-2
"""Openings are cut a fiftieth of a millimetre larger than they are typed, and inlets stand as much off their cube."""


class Chance:
    """Draws whole cubes from a seed."""

    def __init__(self, seed: int) -> None:
        self._rng = random.Random(seed)
        self.pick, self.uniform, self.random = self._rng.choice, self._rng.uniform, self._rng.random

    def mm(self, least: int, most: int) -> float:
        """A length of so many cubes."""
        return self._rng.randint(least, max(least, most)) * PITCH_MM

    def features(self, size: tuple[float, float, float]) -> list[Feature]:
        """One to four features of a box of that size; of sumps one: two that meet have a wall between them."""
        long, wide, high = (int(mm / PITCH_MM) for mm in size)
        made = [self._feature(f"f{n}", long, wide, high) for n in range(self._rng.randint(1, 4))]
        sumps = [feature for feature in made if isinstance(feature, Sump)]
        return [feature for feature in made if feature not in sumps[1:]]

    def _feature(self, name: str, long: int, wide: int, high: int) -> Feature:
        named = {"id": name, "name": name}
        a, b = self.mm(2, long - 14), self.mm(2, wide - 14)
        mouth: dict[str, Any] = {"a_mm": a, "b_mm": b, "long_mm": self.mm(5, 12), "wide_mm": self.mm(5, 12)}
        axis = self.pick("xy")
        along, across = (wide, long) if axis == "x" else (long, wide)
        plate = named | {"axis": axis, "at_mm": self.mm(3, across - 4)}
        notch = Notch(at_mm=self.mm(4, along - 5), wide_mm=self.pick((20.0, 40.0, 60.0)), high_mm=self.mm(1, 6))
        kinds: list[Feature] = [
            Well(**named, **mouth, deep_mm=self.mm(2, high // 2)),
            Sump(**named, **mouth, deep_mm=self.mm(3, 7)),
            RoofStep(
                **named,
                side=self.pick(("front", "rear", "left", "right")),
                reach_mm=self.mm(4, 12),
                drop_mm=self.mm(3, high // 2),
            ),
            Partition(**plate),
            Baffle(**plate, corner_mm=0, flange_mm=0, notches=(notch,)),
            self._relief(named, long, wide, high),
        ]
        return self.pick(kinds)

    def _relief(self, named: dict[str, Any], long: int, wide: int, high: int) -> Relief:
        """A box off an edge or a corner."""
        size = {"length_mm": self.mm(5, long), "width_mm": self.mm(4, 12), "height_mm": self.mm(4, high // 2)}
        low = {"x_mm": self.mm(-3, long - 6), "y_mm": self.pick((-20.0, (wide - 6) * PITCH_MM))}
        return Relief(**named, **size, **low, z_mm=self.pick((0.0, (high - 5) * PITCH_MM)))


@dataclass(frozen=True)
class Twin:
    """A tank worked out, and counted."""

    shell: BoxShell
    solids: Solids
    grid: Grid

    def stays(self, cell: Bools, attitude: Attitude, chance: Chance, off_mm: float) -> tuple[list[float], list[float]]:
        """Fuel and air that stay in a cell with a pickup and a vent anywhere in it: worked out, and counted [L].

        Each opening lies so far off the middle of its cube, towards where it draws from.
        """
        up = up_in(attitude)
        cubes = np.argwhere(cell)
        found = [cubes[int(chance.random() * len(cubes))] for _ in range(2)]
        ports = list[Port]()
        for role, cube, off in zip(("pickup", "vent"), found, (-off_mm, off_mm), strict=True):
            x, y, z = ((cube - np.array(self.grid.datum) + 0.5) * PITCH_MM + off * up).tolist()
            ports.append(Port(id=role, name=role, role=role, x_mm=x, y_mm=y, z_mm=z))
        (one,) = [each for each in drained(self.solids, ports, attitude) if each.stranded_l is not None]
        assert one.stranded_l is not None and one.trapped_l is not None
        counts = [self.grid.left(cell, [tuple(cube)], way) for cube, way in zip(found, (up, -up), strict=True)]
        return [one.stranded_l, one.trapped_l], counts


def up_in(attitude: Attitude) -> Array:
    """Against the force that the fuel feels, a unit."""
    force = specific_force(attitude)
    return -force / float(np.linalg.norm(force))


def twins(count: int, seed: int) -> Iterator[tuple[Twin, Chance]]:
    """Boxes in sheet as thick as a cube, with features at random; those that can't be made are passed over."""
    chance = Chance(seed)
    while count:
        size = chance.mm(30, 60), chance.mm(25, 45), chance.mm(16, 32)
        place = {"x_mm": chance.mm(-9, 9), "y_mm": chance.mm(-9, 9), "z_mm": chance.mm(0, 9)}
        shell = box(*size, thickness_mm=PITCH_MM, features=tuple(chance.features(size)), **place)
        try:
            solids = build(shell)
        except GeometryError:
            continue
        yield Twin(shell, solids, grid_of(shell)), chance
        count -= 1


def centre(cell: Cell) -> Array:
    """Middle of all that a cell holds [mm]."""
    line = cell.mesh.along(UP)
    return line.centroid(line.depth)


class Counted(TestCase):
    """Worked out and counted: the same."""

    def test_cells_and_their_centres(self) -> None:
        """Every cell holds what its cubes hold, and is centred where they are; what each feature takes adds up."""
        for twin, _ in twins(40, 3):
            found = sorted(cell.mesh.volume_mm3 / 1e6 for cell in twin.solids.cells)
            counts = sorted(float(cell.sum()) * LITRES for cell in twin.grid.cells())
            self.assertEqual(len(found), len(counts), twin.shell)
            np.testing.assert_allclose(found, counts, atol=HAIR_L, err_msg=str(twin.shell))
            taken = sum(cost.litres for cost in twin.solids.costs)
            self.assertAlmostEqual(twin.solids.body_inner_l + taken, twin.grid.litres, delta=HAIR_L)
            moments = sum(centre(cell) * cell.mesh.volume_mm3 for cell in twin.solids.cells)
            middle = moments / (twin.solids.brimful_l * 1e6)
            np.testing.assert_allclose(middle, twin.grid.middles().mean(axis=0), atol=0.1, err_msg=str(twin.shell))

    def test_litres_at_every_level(self) -> None:
        """Whichever wall it lies on, each layer of cubes adds what is in it."""
        for twin, _ in twins(14, 4):
            if len(twin.solids.cells) > 1:
                continue
            for attitude in ALONG_AN_AXIS:
                up = up_in(attitude)
                line = twin.solids.cells[0].mesh.along(up)
                for row in strapping_table(line, PITCH_MM):
                    self.assertAlmostEqual(row.volume_l, twin.grid.below(row.level_mm, up), delta=HAIR_L)

    def test_what_stays_along_an_axis(self) -> None:
        """Pools behind walls and plates, and pockets of air, with pickup and vent anywhere."""
        kept = 0
        for twin, chance in twins(25, 5):
            for cell in twin.grid.cells():
                found, counts = twin.stays(cell, chance.pick(ALONG_AN_AXIS), chance, 4.99)
                np.testing.assert_allclose(found, counts, atol=HAIR_L, err_msg=repr(twin.shell.features))
                kept += sum(litres > 1 for litres in counts)
        self.assertGreater(kept, 25)

    def test_what_stays_on_a_slope(self) -> None:
        """Tilted, braking and turning at once: within what a staircase of cubes can tell."""
        for twin, chance in twins(24, 6):
            push = {"forward_g": chance.uniform(-1, 1), "left_g": chance.uniform(-1, 1)}
            attitude = Attitude(pitch_deg=chance.uniform(-25, 25), roll_deg=chance.uniform(-25, 25), **push)
            for cell in twin.grid.cells():
                found, counts = twin.stays(cell, attitude, chance, 0.0)
                within = 0.03 * float(cell.sum()) * LITRES
                np.testing.assert_allclose(found, counts, atol=within, err_msg=f"{twin.shell} {attitude}")

    def test_what_a_sender_reads(self) -> None:
        """At every eighth of its needle the litres are those of the layers under its float, arm or tube."""
        arm = {"kind": "swing arm", "made_arm_mm": 90.0, "empty_deg": -40.0, "full_deg": 45.0, "float_mm": 20.0}
        read = 0
        for twin, chance in twins(40, 10):
            x, y = chance.mm(3, 25) + 5, chance.mm(3, 20) + 5
            floor = twin.grid.floor_at(x, y)
            if floor is None or len(twin.solids.cells) > 1:
                continue
            action = chance.pick((arm, {"kind": "tube"}))
            sender = {"id": "s", "name": "s", "x_mm": x, "y_mm": y, "action": action}
            subject = Design.model_validate({"shell": twin.shell.model_dump(), "gauge": {"senders": [sender]}})
            for reading in evaluate(subject, None, Showing(remedies=False, results=("gauge",))).gauge.truth.readings:
                for point in reading.eighths:
                    counted = twin.grid.litres_under(floor + point.float_mm)
                    self.assertAlmostEqual(point.litres, counted, delta=HAIR_L, msg=f"{twin.shell} {sender}")
                    self.assertAlmostEqual(point.error_l, counted - point.needle * reading.rated_l, delta=HAIR_L)
                for tenth in reading.tenths:
                    self.assertAlmostEqual(tenth.litres, tenth.share * reading.rated_l, places=6)
                read += 1
        self.assertGreater(read, 12)

    def test_plates_and_their_welds(self) -> None:
        """A plate's sheet is that of its cubes, and it is welded where those meet a wall: not along an opening."""
        seen = 0
        for twin, _ in twins(120, 9):
            costs = {cost.id: cost for cost in twin.solids.costs}
            for plate in (f for f in twin.shell.features if isinstance(f, Partition | Baffle)):
                count = counted_plate(twin.shell, plate)
                cost = costs[plate.id]
                self.assertAlmostEqual(cost.metal_mm3, count.area_mm2 * PITCH_MM, delta=HAIR_L * 1e6, msg=twin.shell)
                self.assertAlmostEqual(cost.weld_mm, count.weld_mm, delta=0.5, msg=twin.shell)
                seen += 1
        self.assertGreater(seen, 60)

    def test_where_a_port_may_open(self) -> None:
        """A place is in a cell where a cube of it is."""
        rng = np.random.default_rng(8)
        for twin, _ in twins(15, 7):
            shape = np.array(twin.grid.room.shape)
            for cube in rng.integers(0, shape, size=(60, 3)):
                place = (cube - np.array(twin.grid.datum) + 0.5) * PITCH_MM + np.array(twin.grid.origin_mm)
                found = any(inside(cell, place) for cell in twin.solids.cells)
                self.assertEqual(found, bool(twin.grid.room[tuple(cube)]), (twin.shell, place))
