"""In which order a part's bends can be made on a folder: a search over states, the part against beam and itself.

The section across the folder: the sheet lies on the bed, y = 0, from the nose of the clamping beam at the origin
towards −x; the leaf lifts what lies beyond the nose, and the part counts as the line of its outside legs. Bends made
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
"""A part that lies less deep in the beam than this only touches [mm]."""
Way = Literal["low", "high"]
WAYS: tuple[Way, ...] = ("low", "high")
"""Which end lies clamped behind the nose: that with the lower leg numbers, or the other."""


@dataclass(frozen=True, slots=True)
class Bent:
    """One bend of an order: its number along the flat, counted from 0, and which end is clamped."""

    bend: int
    way: Way


class Folder:
    """A folder's clamping beam seen from its end.

    Parameters
    ----------
    beam_mm : sequence of (x, y)
        Its outline, nose at the origin, grown by what the sheet's thickness needs [mm].
    """

    def __init__(self, beam_mm: Sequence[tuple[float, float]]) -> None:
        eroded = Polygon(beam_mm).buffer(-GRAZE_MM)
        shapes = [eroded] if isinstance(eroded, Polygon) else list(eroded.geoms)
        self.beams = [np.array(shape.exterior.coords)[:-1] for shape in shapes if not shape.is_empty]

    def strikes(self, line: Array) -> bool:
        """Whether a part, as a line of shape (n, 2) [mm], lies deeper in the beam than a graze."""
        return any(bool(line_meets(line, beam)) for beam in self.beams)


def looks(
    legs_mm: Sequence[float], angles_deg: Sequence[float], made: frozenset[int], bend: int, way: Way
) -> Iterator[Array]:
    """The part on the folder while a bend is made, look by look: lines of shape (n + 1, 2) [mm].

    Parameters
    ----------
    legs_mm : sequence of float, shape (n,)
        Outside legs.
    angles_deg : sequence of float, shape (n - 1,)
        Turned through; above zero upward.
    made : frozenset of int
        Bends made before.
    bend : int
        The one being made.
    way : str
        Which end is clamped.
    """
    if way == "high":
        count = len(angles_deg)
        legs_mm, angles_deg = list(legs_mm)[::-1], list(angles_deg)[::-1]
        made, bend = frozenset(count - 1 - one for one in made), count - 1 - bend
    turns = [radians(angle) if number in made else 0.0 for number, angle in enumerate(angles_deg)]
    clamped = _chain([legs_mm[i] for i in range(bend, -1, -1)], [turns[i] for i in range(bend - 1, -1, -1)], -1.0)
    free = _chain(list(legs_mm[bend + 1 :]), turns[bend + 1 :], 1.0)
    whole = angles_deg[bend]
    steps = max(1, ceil(abs(whole) / STEP_DEG))
    for step in range(steps + 1):
        turned = radians(min(step * STEP_DEG, abs(whole)) * (1 if whole > 0 else -1))
        cos, sin = np.cos(turned), np.sin(turned)
        lifted = free @ np.array([[cos, sin], [-sin, cos]])
        yield np.vstack([clamped[::-1], lifted[1:]])


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
    """Which orders of bends a folder can make of a part; each state is looked at once.

    Parameters
    ----------
    folder : Folder
        The machine.
    legs_mm : sequence of float, shape (n,)
        Outside legs of the section [mm].
    angles_deg : sequence of float, shape (n - 1,)
        Turned through at each bend, above zero upward [°].
    """

    def __init__(self, folder: Folder, legs_mm: Sequence[float], angles_deg: Sequence[float]) -> None:
        self.folder, self.legs, self.angles = folder, list(legs_mm), list(angles_deg)
        self._known: dict[tuple[frozenset[int], int], Way | None] = {}
        self._leads: dict[frozenset[int], int] = {}

    def way_of(self, made: frozenset[int], bend: int) -> Way | None:
        """Which end can be clamped for a bend after others; None where neither can."""
        key = (made, bend)
        if key not in self._known:
            self._known[key] = next((way for way in WAYS if self._is_clear(made, bend, way)), None)
        return self._known[key]

    def _is_clear(self, made: frozenset[int], bend: int, way: Way) -> bool:
        turns = np.array([radians(angle) if n in made else 0.0 for n, angle in enumerate(self.angles)])
        legs = np.array(self.legs, dtype=np.float64)
        if way == "high":
            legs, turns, place = legs[::-1].copy(), turns[::-1].copy(), len(turns) - 1 - bend
        else:
            place = bend
        steps = max(1, ceil(abs(self.angles[bend]) / STEP_DEG))
        whole = radians(self.angles[bend])
        return not any(strikes(legs, turns, place, whole, steps, beam) for beam in self.folder.beams)

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
    for i in range(len(line)):
        if _is_inside(line[i, 0], line[i, 1], ring):
            return True
    for i in range(len(line) - 1):
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
def strikes(legs: Array, turns: Array, bend: int, whole: float, steps: int, beam: Array) -> bool:
    """Whether a part strikes a beam while a bend is made, looked at step by step: as `looks`, the low end clamped.

    Parameters
    ----------
    legs : ndarray, shape (n,)
        Outside legs [mm].
    turns : ndarray, shape (n - 1,)
        Of the bends made before, 0 of the others [rad].
    bend : int
        The one being made.
    whole : float
        How far it is turned [rad].
    steps : int
        Looks on the way, but for the first.
    beam : ndarray, shape (k, 2)
        A ring [mm].

    Returns
    -------
    bool
        True once it does.
    """
    clamped = np.zeros((bend + 2, 2))
    heading = 0.0
    for n in range(bend + 1):
        clamped[n + 1, 0] = clamped[n, 0] - legs[bend - n] * np.cos(heading)
        clamped[n + 1, 1] = clamped[n, 1] + legs[bend - n] * np.sin(heading)
        if n < bend:
            heading += turns[bend - 1 - n]
    if line_meets(clamped, beam):
        return True
    free = np.zeros((len(legs) - bend, 2))
    lifted = np.zeros((len(legs) - bend, 2))
    heading = 0.0
    for n in range(len(legs) - bend - 1):
        free[n + 1, 0] = free[n, 0] + legs[bend + 1 + n] * np.cos(heading)
        free[n + 1, 1] = free[n, 1] + legs[bend + 1 + n] * np.sin(heading)
        if bend + 1 + n < len(turns):
            heading += turns[bend + 1 + n]
    for step in range(steps + 1):
        turned = min(step * STEP_RAD, abs(whole)) * (1.0 if whole > 0 else -1.0)
        cos, sin = np.cos(turned), np.sin(turned)
        for n in range(len(free)):
            lifted[n, 0] = free[n, 0] * cos - free[n, 1] * sin
            lifted[n, 1] = free[n, 0] * sin + free[n, 1] * cos
        if line_meets(lifted, beam):
            return True
    return False
