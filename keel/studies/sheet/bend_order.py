"""In which order a part's bends can be made on a brake: a search over states, the part against machine and itself.

The section across the brake: the sheet lies at y = 0, the bend at the origin, what is clamped towards −x. Every bend is
made upward: for one that goes down the part is turned over. The part counts as the line of its outside legs; bends made
before stand at their angle, the others are flat.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import ceil, radians
from typing import Literal

import numpy as np
from shapely.geometry import Polygon

from keel.compiled import compiled
from keel.solid.polyhedron import Array

STEP_DEG, STEP_RAD = 5.0, radians(5.0)
"""A bend is looked at every so many degrees on its way [°]."""
GRAZE_MM = 0.1
"""A part that lies less deep in a machine than this only touches [mm]."""
TOUCH_MM4 = 1.0
"""Pieces of the part cross where each has the other's ends this far to both sides: areas multiplied."""
Way = Literal["low", "high"]
WAYS: tuple[Way, ...] = ("low", "high")
"""Which end lies clamped behind the nose: that with the lower leg numbers, or the other."""


@dataclass(frozen=True, slots=True)
class Bent:
    """One bend of an order: its number along the flat, counted from 0, and which end is clamped."""

    bend: int
    way: Way


@dataclass(frozen=True)
class Obstacle:
    """A piece of a machine that a part has to pass, as its own place sees it.

    `rings` are its outlines, shape (k, 2) [mm]. `free` says how much of a bend's angle the free side makes as this
    piece sees it, the clamped side making the rest the other way: 1 where the clamped side lies still, as on a folder's
    bed; 0 beside its leaf, which goes with the free side; a half where both sides rise, as on a press brake.
    """

    rings: list[Array]
    free: float

    @classmethod
    def of(cls, outline: Sequence[tuple[float, float]], free: float) -> "Obstacle":
        """From an outline [mm]; as deep as a graze counts as clear."""
        eroded = Polygon(outline).buffer(-GRAZE_MM)
        shapes = [eroded] if isinstance(eroded, Polygon) else list(eroded.geoms)
        return cls([np.array(shape.exterior.coords)[:-1] for shape in shapes if not shape.is_empty], free)

    def is_met_by(self, line: Array) -> bool:
        """Whether a part, as a line of shape (n, 2) [mm], lies deeper in it than a graze."""
        return any(bool(line_meets(line, ring)) for ring in self.rings)


def looks(
    legs_mm: Sequence[float],
    angles_deg: Sequence[float],
    made: frozenset[int],
    bend: int,
    way: Way,
    free: float = 1.0,
) -> Iterator[Array]:
    """The part on the brake while a bend is made, look by look: lines of shape (n + 1, 2) [mm].

    Parameters
    ----------
    legs_mm : sequence of float, shape (n,)
        Outside legs.
    angles_deg : sequence of float, shape (n - 1,)
        Turned through; above zero upward.
    made : frozenset of int
        Bends made before.
    bend : int
        The one being made; one that goes down with the part turned over.
    way : str
        Which end is clamped.
    free : float
        How much of the angle the free side makes, as an `Obstacle` has it.
    """
    legs, turns, place, whole = _on_machine(legs_mm, angles_deg, made, bend, way)
    clamped = _chain([legs[i] for i in range(place, -1, -1)], [turns[i] for i in range(place - 1, -1, -1)], -1.0)
    lifted = _chain(list(legs[place + 1 :]), list(turns[place + 1 :]), 1.0)
    steps = max(1, ceil(np.degrees(whole) / STEP_DEG))
    for step in range(steps + 1):
        turned = min(step * STEP_RAD, whole)
        yield np.vstack([(clamped @ _turn((free - 1) * turned))[::-1], (lifted @ _turn(free * turned))[1:]])


def _turn(angle: float) -> Array:
    cos, sin = np.cos(angle), np.sin(angle)
    return np.array([[cos, sin], [-sin, cos]])


def _on_machine(
    legs_mm: Sequence[float], angles_deg: Sequence[float], made: frozenset[int], bend: int, way: Way
) -> tuple[Array, Array, int, float]:
    """Legs, turns made before, which bend and its angle [rad], the clamped end first and the bend upward."""
    over = -1.0 if angles_deg[bend] < 0 else 1.0
    turns = np.array([over * radians(angle) if n in made else 0.0 for n, angle in enumerate(angles_deg)])
    legs, whole = np.array(legs_mm, dtype=np.float64), radians(abs(angles_deg[bend]))
    if way == "high":
        return legs[::-1].copy(), turns[::-1].copy(), len(turns) - 1 - bend, whole
    return legs, turns, bend, whole


def _chain(legs: Sequence[float], turns: Sequence[float], way: float) -> Array:
    """Corners of a chain of legs from the origin along ±x, each turn towards +y above zero, shape (n + 1, 2)."""
    place, heading = np.zeros(2), 0.0
    places = [place]
    for number, leg in enumerate(legs):
        place = place + leg * np.array([way * np.cos(heading), np.sin(heading)])
        places.append(place)
        if number < len(turns):
            heading += turns[number]
    return np.array(places)


class Search:
    """Which orders of bends a brake can make of a part; each state is looked at once.

    Parameters
    ----------
    obstacles : sequence of Obstacle
        The machine.
    legs_mm : sequence of float, shape (n,)
        Outside legs of the section [mm].
    angles_deg : sequence of float, shape (n - 1,)
        Turned through at each bend, above zero upward [°].
    """

    def __init__(self, obstacles: Sequence[Obstacle], legs_mm: Sequence[float], angles_deg: Sequence[float]) -> None:
        self.obstacles, self.legs, self.angles = list(obstacles), list(legs_mm), list(angles_deg)
        self._known: dict[tuple[frozenset[int], int], Way | None] = {}
        self._leads: dict[frozenset[int], int] = {}

    def way_of(self, made: frozenset[int], bend: int) -> Way | None:
        """Which end can be clamped for a bend after others; None where neither can."""
        key = (made, bend)
        if key not in self._known:
            self._known[key] = next((way for way in WAYS if self._is_clear(made, bend, way)), None)
        return self._known[key]

    def _is_clear(self, made: frozenset[int], bend: int, way: Way) -> bool:
        legs, turns, place, whole = _on_machine(self.legs, self.angles, made, bend, way)
        steps = max(1, ceil(np.degrees(whole) / STEP_DEG))
        if meets_itself(legs, turns, place, whole, steps):
            return False
        return not any(
            strikes(legs, turns, place, whole, steps, ring, obstacle.free)
            for obstacle in self.obstacles
            for ring in obstacle.rings
        )

    def count(self, made: frozenset[int] = frozenset()) -> int:
        """How many orders there are from a state on."""
        if len(made) == len(self.angles):
            return 1
        if made not in self._leads:
            self._leads[made] = sum(self.count(made | {bend}) for bend, _ in self._next(made))
        return self._leads[made]

    def _next(self, made: frozenset[int]) -> Iterator[tuple[int, Way]]:
        for bend in range(len(self.angles)):
            if bend not in made and (way := self.way_of(made, bend)) is not None:
                yield bend, way

    def orders(self, made: frozenset[int] = frozenset()) -> Iterator[list[Bent]]:
        """Every order from a state on, in the order of their numbers."""
        if len(made) == len(self.angles):
            yield []
            return
        for bend, way in self._next(made):
            if self.count(made | {bend}):
                for rest in self.orders(made | {bend}):
                    yield [Bent(bend, way), *rest]


@compiled
def line_meets(line: Array, ring: Array) -> bool:
    """Whether a line of corners, shape (n, 2), meets the inside of a ring, shape (k, 2).

    Parameters
    ----------
    line, ring : ndarray
        Corners [mm].
    """
    low_x, high_x, low_y, high_y = ring[:, 0].min(), ring[:, 0].max(), ring[:, 1].min(), ring[:, 1].max()
    for i in range(len(line)):
        if low_x < line[i, 0] < high_x and low_y < line[i, 1] < high_y and _is_inside(line[i, 0], line[i, 1], ring):
            return True
    for i in range(len(line) - 1):
        if max(line[i, 0], line[i + 1, 0]) < low_x or min(line[i, 0], line[i + 1, 0]) > high_x:
            continue
        if max(line[i, 1], line[i + 1, 1]) < low_y or min(line[i, 1], line[i + 1, 1]) > high_y:
            continue
        for j in range(len(ring)):
            k = j + 1 if j + 1 < len(ring) else 0
            if _cross(line[i], line[i + 1], ring[j], ring[k]):
                return True
    return False


@compiled
def _is_inside(x: float, y: float, ring: Array) -> bool:
    """By the crossings of a ray to the right."""
    inside = False
    for j in range(len(ring)):
        k = j + 1 if j + 1 < len(ring) else 0
        (ax, ay), (bx, by) = (ring[j, 0], ring[j, 1]), (ring[k, 0], ring[k, 1])
        if (ay > y) != (by > y) and x < ax + (y - ay) / (by - ay) * (bx - ax):
            inside = not inside
    return inside


@compiled
def _cross(a: Array, b: Array, c: Array, d: Array) -> bool:
    """Whether two pieces of line cross."""
    return _side(a, b, c) * _side(a, b, d) < 0.0 and _side(c, d, a) * _side(c, d, b) < 0.0


@compiled
def _side(a: Array, b: Array, c: Array) -> float:
    return float((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]))


@compiled
def _corners(legs: Array, turns: Array, first: int, count: int, way: int) -> Array:
    """Corners of legs from a bend on along ±x, shape (count + 1, 2): `way` −1 goes down their numbers, 1 up."""
    places = np.zeros((count + 1, 2))
    heading, leg = 0.0, first
    for n in range(count):
        places[n + 1, 0] = places[n, 0] + way * legs[leg] * np.cos(heading)
        places[n + 1, 1] = places[n, 1] + legs[leg] * np.sin(heading)
        between = leg if way > 0 else leg - 1
        if 0 <= between < len(turns):
            heading += turns[between]
        leg += way
    return places


@compiled
def _turned(line: Array, angle: float) -> Array:
    cos, sin = np.cos(angle), np.sin(angle)
    out = np.empty_like(line)
    for n in range(len(line)):
        out[n, 0] = line[n, 0] * cos - line[n, 1] * sin
        out[n, 1] = line[n, 0] * sin + line[n, 1] * cos
    return out


@compiled
def strikes(legs: Array, turns: Array, bend: int, whole: float, steps: int, ring: Array, free: float) -> bool:
    """Whether a part strikes a piece of a machine while a bend is made, looked at step by step.

    Parameters
    ----------
    legs : ndarray, shape (n,)
        Outside legs, the clamped end first [mm].
    turns : ndarray, shape (n - 1,)
        Of the bends made before, 0 of the others [rad].
    bend : int
        The one being made.
    whole : float
        How far it is turned, upward [rad].
    steps : int
        Looks on the way, but for the first.
    ring : ndarray, shape (k, 2)
        An outline of the piece [mm].
    free : float
        How much of the angle the free side makes, as the piece sees it.

    Returns
    -------
    bool
        True once it does.
    """
    clamped = _corners(legs, turns, bend, bend + 1, -1)
    lifted = _corners(legs, turns, bend + 1, len(legs) - bend - 1, 1)
    for step in range(steps + 1):
        turned = min(step * STEP_RAD, whole)
        if (step == 0 or free < 1.0) and line_meets(_turned(clamped, (free - 1.0) * turned), ring):
            return True
        if (step == 0 or free > 0.0) and line_meets(_turned(lifted, free * turned), ring):
            return True
    return False


@compiled
def meets_itself(legs: Array, turns: Array, bend: int, whole: float, steps: int) -> bool:
    """Whether the part's free side runs through its clamped side while a bend is made; parameters as of `strikes`."""
    clamped = _corners(legs, turns, bend, bend + 1, -1)
    lifted = _corners(legs, turns, bend + 1, len(legs) - bend - 1, 1)
    for step in range(steps + 1):
        line = _turned(lifted, min(step * STEP_RAD, whole))
        for i in range(len(clamped) - 1):
            for j in range(len(line) - 1):
                if i + j > 0 and _run_through(clamped[i], clamped[i + 1], line[j], line[j + 1]):
                    return True
    return False


@compiled
def _run_through(a: Array, b: Array, c: Array, d: Array) -> bool:
    """Whether two pieces of line cross by more than a touch."""
    first, second = _side(a, b, c) * _side(a, b, d), _side(c, d, a) * _side(c, d, b)
    return first < -TOUCH_MM4 and second < -TOUCH_MM4
