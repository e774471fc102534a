"""Pots: walls that stand on the floor and keep fuel round a pickup, open above."""

from dataclasses import dataclass
from math import pi

import numpy as np
from manifold3d import CrossSection, Manifold

from keel.design.features import Pot, PotDoor
from keel.solid.box import Cuboid
from keel.solid.facets import FACE_AXIS
from keel.solid.faults import wrong
from keel.solid.plates import FAR_MM
from keel.solid.polyhedron import Array
from keel.solid.rings import circle
from keel.solid.shapes import block, slice_rings

OPEN_SHARE = 0.05
"""A pot under a roof that leaves less than this of it open is shut."""


@dataclass(frozen=True)
class Walls:
    """A pot's walls before the shell trims them, doors cut out, and what they take in weld [mm]."""

    solid: Manifold
    weld_mm: float


@dataclass(frozen=True)
class PotPlace:
    """Where a pot stands in vehicle axes: its outline outside and inside, and the heights of floor and rim [mm]."""

    pot: Pot
    outside: Array
    inside: Array
    box: Cuboid
    wall: float
    floor: float

    @property
    def rim(self) -> float:
        """Height of its rim [mm]."""
        return self.box.high[2]

    def column(self, ring: Array) -> Manifold:
        """What stands within a ring, from below the floor up to the rim."""
        low = self.box.low[2] - FAR_MM
        return Manifold.extrude(CrossSection([ring]), self.rim - low).translate([0.0, 0.0, low])

    def door_block(self, door: PotDoor) -> Manifold:
        """A block through the wall where a door is."""
        axis, far = FACE_AXIS[door.side]
        across = 1 - axis
        middle = [(a + b) / 2 for a, b in zip(self.box.low, self.box.high, strict=True)]
        low, high = list(middle), list(middle)
        low[axis], high[axis] = (
            (middle[axis], self.box.high[axis] + 1.0) if far else (self.box.low[axis] - 1.0, middle[axis])
        )
        low[across], high[across] = middle[across] - door.wide_mm / 2, middle[across] + door.wide_mm / 2
        low[2], high[2] = self.floor + door.up_mm, self.floor + door.up_mm + door.high_mm
        return block((low[0], low[1], low[2]), (high[0], high[1], high[2]))

    def door_ring(self, door: PotDoor) -> tuple[Array, int, float]:
        """A door's opening in the middle of its wall, the axis square to it, and which way is inward."""
        axis, far = FACE_AXIS[door.side]
        across = 1 - axis
        at = (self.box.high[axis] - self.wall / 2) if far else (self.box.low[axis] + self.wall / 2)
        middle = (self.box.low[across] + self.box.high[across]) / 2
        half, low = door.wide_mm / 2, self.floor + door.up_mm
        ring = np.zeros((4, 3))
        ring[:, axis] = at
        ring[:, across] = (middle - half, middle + half, middle + half, middle - half)
        ring[:, 2] = (low, low, low + door.high_mm, low + door.high_mm)
        return ring, axis, -1.0 if far else 1.0


def place_of_pot(pot: Pot, body: Cuboid, room: Cuboid, wall: float) -> PotPlace:
    """A pot in vehicle axes.

    Parameters
    ----------
    pot : Pot
        Its place counts from the body's rear, right, lower corner, its rim from the inner floor.
    body, room : Cuboid
        The boxes round the outside and the inside of the plain body [mm].
    wall : float
        Thickness where the pot names none [mm].
    """
    thick = pot.wall_mm(wall)
    wide = pot.long_mm if pot.form == "round" else pot.wide_mm
    low = (body.low[0] + pot.a_mm, body.low[1] + pot.b_mm)
    middle = np.array([low[0] + pot.long_mm / 2, low[1] + wide / 2])
    box = Cuboid((*low, room.low[2]), (low[0] + pot.long_mm, low[1] + wide, room.low[2] + pot.high_mm))
    if pot.form == "round":
        outside, inside = middle + circle(pot.long_mm / 2), middle + circle(max(pot.long_mm / 2 - thick, 0.01))
    else:
        half = np.array([(-1, -1), (1, -1), (1, 1), (-1, 1)]) / 2
        outside = middle + half * (pot.long_mm, wide)
        inside = middle + half * (max(pot.long_mm - 2 * thick, 0.01), max(wide - 2 * thick, 0.01))
    return PotPlace(pot, outside, inside, box, thick, room.low[2])


def walls_of(place: PotPlace, inner: Manifold, where: str) -> Walls:
    """A pot's walls as a solid that reaches below the floor.

    Parameters
    ----------
    place : PotPlace
        Where it stands.
    inner : Manifold
        The inside as it is so far.
    where : str
        Path of the feature in the design, for errors.

    Raises
    ------
    GeometryError
        For a pot that its walls fill, that stands outside the tank or is shut by its roof, and for a door that its
        wall has no room for.
    """
    pot, thick = place.pot, place.wall
    least = pot.long_mm if pot.form == "round" else min(pot.long_mm, pot.wide_mm)
    if least <= 2 * thick + 1:
        raise wrong(where, f"a {thick:g} mm wall fills {pot.name}", least, f"above {2 * thick + 1:g} mm")
    within = CrossSection([place.inside])
    over = CrossSection(slice_rings(inner, 2, place.rim + 1e-3)) ^ within
    if over.area() < OPEN_SHARE * within.area():
        raise wrong(
            f"{where}.high_mm",
            f"{pot.name} stands outside the tank, or the roof shuts it",
            pot.high_mm,
            "room over its rim",
        )
    for number, door in enumerate(pot.doors):
        _check_door(place, door, f"{where}.doors.{number}")
    solid = place.column(place.outside) - place.column(place.inside)
    for door in pot.doors:
        solid -= place.door_block(door)
    # One seam round its foot, and the one that closes a folded box or a rolled tube.
    foot = pi * pot.long_mm if pot.form == "round" else 2 * (pot.long_mm + pot.wide_mm)
    return Walls(solid, foot + pot.high_mm)


def _check_door(place: PotPlace, door: PotDoor, where: str) -> None:
    pot = place.pot
    if door.up_mm + door.high_mm >= pot.high_mm:
        raise wrong(
            f"{where}.high_mm",
            f"a door reaches over the rim of {pot.name}",
            door.high_mm,
            f"below {pot.high_mm - door.up_mm:g} mm",
        )
    side = pot.wide_mm if door.side in ("front", "rear") else pot.long_mm
    room = 0.8 * pot.long_mm if pot.form == "round" else side - 2 * place.wall
    if door.wide_mm >= room:
        raise wrong(
            f"{where}.wide_mm", f"a door is too wide for its side of {pot.name}", door.wide_mm, f"below {room:g} mm"
        )
