"""Which way round a tank goes through an opening: the best turn and the best lean."""

from dataclasses import dataclass
from math import degrees, pi

import numpy as np
from shapely import multipoints

from keel.compiled import compiled
from keel.design.bay import Opening
from keel.solid.polyhedron import Array

ROUNDING_MM = 1e-6


@dataclass(frozen=True, slots=True)
class Passage:
    """One way round: which end leads, how far the tank leans and to which side, how far it is turned in the opening.

    `room_mm` is the room left on the tighter pair of sides together; below zero it is what is lacking. `deep_mm` is how
    far the tank reaches along the way in; where that is more than the bay is deep it `turns_inside` the opening, and
    whether it can isn't calculated. `outline` is the silhouette as it goes through, about the opening's middle.
    """

    leading: str
    as_it_stands: bool
    leaning_deg: float
    leaning_to: str
    turned_deg: float
    room_mm: float
    deep_mm: float
    passes: bool
    turns_inside: bool
    outline: list[tuple[float, float]]


TURNS = 720
LEADS = ("front or rear", "right or left side", "lid or floor")
COARSE_DEG = 7.5
"""How finely leanings are looked through before the best are followed."""
FOLLOWED = 6
LEAST_LEAN_DEG = 0.1
WORTH_MM = 0.5
"""A leaning that gains less than this isn't worth a line [mm]."""


@dataclass(frozen=True)
class Frame:
    """The opening, the axis it is gone in along, and the bay's depth behind it [mm]."""

    opening: Opening
    axis: int
    deep_mm: float


@dataclass(frozen=True)
class _Stance:
    """How a tank is held in the opening: the way it moves, and the two directions across, each shape (3,)."""

    way: Array
    first: Array
    second: Array


def upright(axis: int) -> _Stance:
    """Moved along an axis, the other two across the opening in their order.

    Parameters
    ----------
    axis : int
        0, 1 or 2: x, y or z.

    Returns
    -------
    _Stance
        A stance with nothing turned.
    """
    first, second = np.delete(np.eye(3), axis, axis=0)
    return _Stance(np.eye(3)[axis], first, second)


def _turned(stance: _Stance, turn: float) -> _Stance:
    c, s = np.cos(turn), np.sin(turn)
    return _Stance(stance.way, c * stance.first - s * stance.second, s * stance.first + c * stance.second)


def best_turn(points: Array, axis: int, frame: Frame) -> Passage:
    """An end first, turned as leaves most room; not at all where that is as good."""
    stance = upright(axis)
    flat = points @ np.column_stack([stance.first, stance.second])
    ring = np.asarray(multipoints(flat).convex_hull.exterior.coords)[:-1]
    turns = np.arange(TURNS) * pi / TURNS
    rooms = _rooms(ring, turns, frame.opening)
    turn = float(turns[int(np.argmax(rooms))]) if rooms[0] < rooms.max() - 1e-9 else 0.0
    if turn:
        fine = turn + np.linspace(-1, 1, 201) * pi / TURNS
        turn = float(fine[int(np.argmax(_rooms(ring, fine, frame.opening)))])
    return passage(points, _turned(stance, turn), frame, turn)


def _rooms(ring: Array, turns: Array, opening: Opening) -> Array:
    """Room left at each turn [mm]: the lesser of that along and that across."""
    c, s = np.cos(turns)[:, None], np.sin(turns)[:, None]
    x, y = ring[:, 0] * c - ring[:, 1] * s, ring[:, 0] * s + ring[:, 1] * c
    return np.asarray(np.minimum(opening.long_mm - np.ptp(x, axis=1), opening.wide_mm - np.ptp(y, axis=1)))


def best_lean(points: Array, frame: Frame) -> Passage:
    """Of all ways to hold it that which leaves most room."""
    opening = frame.opening
    found = _search(points, opening.long_mm, opening.wide_mm, np.radians(COARSE_DEG), FOLLOWED)
    way, first, second = _held(found[0], found[1], found[2])
    return passage(points, _Stance(way, first, second), frame, float(found[2]))


@compiled
def _held(round_: float, up: float, turn: float) -> Array:
    """The way in by its two angles, and the two directions across it, turned: rows, shape (3, 3) [rad]."""
    way = np.array([np.cos(round_) * np.cos(up), np.sin(round_) * np.cos(up), np.sin(up)])
    first = np.array([-np.sin(round_), np.cos(round_), 0.0])
    second = np.array([-np.cos(round_) * np.sin(up), -np.sin(round_) * np.sin(up), np.cos(up)])
    c, s = np.cos(turn), np.sin(turn)
    held = np.empty((3, 3))
    held[0], held[1], held[2] = way, c * first - s * second, s * first + c * second
    return held


@compiled
def _room_held(points: Array, at: Array, long: float, wide: float) -> float:
    """Room left when a body is held by three angles [mm]."""
    held = _held(at[0], at[1], at[2])
    low = np.full(2, np.inf)
    high = np.full(2, -np.inf)
    for p in points:
        for k in range(2):
            across = p[0] * held[k + 1, 0] + p[1] * held[k + 1, 1] + p[2] * held[k + 1, 2]
            low[k], high[k] = min(low[k], across), max(high[k], across)
    return float(min(long - (high[0] - low[0]), wide - (high[1] - low[1])))


@compiled
def _search(points: Array, long: float, wide: float, step: float, followed: int) -> Array:
    """Three angles that leave most room: looked through in steps, the best of them followed with smaller ones."""
    kept = np.full((followed, 4), -np.inf)
    for i in range(int(np.ceil(np.pi / step))):
        for j in range(int(np.ceil(np.pi / step))):
            for k in range(int(np.ceil(np.pi / step))):
                at = np.array([i * step, -np.pi / 2 + j * step, k * step])
                room = _room_held(points, at, long, wide)
                worst = int(np.argmin(kept[:, 3]))
                if room > kept[worst, 3]:
                    kept[worst, :3], kept[worst, 3] = at, room
    for n in range(followed):
        _follow(points, kept[n], long, wide, step)
    return kept[int(np.argmax(kept[:, 3])), :3].copy()


@compiled
def _follow(points: Array, best: Array, long: float, wide: float, step: float) -> None:
    """From a good place to the best near it, in every combination of steps, halved when none gains."""
    while step > 1e-5:
        gained = False
        for code in range(27):
            at = best[:3].copy()
            at[0] += (code % 3 - 1) * step
            at[1] += (code // 3 % 3 - 1) * step
            at[2] += (code // 9 - 1) * step
            room = _room_held(points, at, long, wide)
            if room > best[3] + 1e-9:
                best[:3], best[3], gained = at, room, True
        if not gained:
            step /= 2


def passage(points: Array, held: _Stance, frame: Frame, turn: float = 0.0, as_it_stands: bool = False) -> Passage:
    flat = points @ np.column_stack([held.first, held.second])
    room = float(min(frame.opening.long_mm - np.ptp(flat[:, 0]), frame.opening.wide_mm - np.ptp(flat[:, 1])))
    ring = np.asarray(multipoints(flat).convex_hull.exterior.coords)[:-1]
    ring = ring - (ring.max(axis=0) + ring.min(axis=0)) / 2
    _, side, lead = np.argsort(np.abs(held.way), kind="stable")
    deep = float(np.ptp(points @ held.way))
    return Passage(
        leading=LEADS[lead],
        as_it_stands=as_it_stands,
        leaning_deg=degrees(np.arccos(min(1.0, abs(float(held.way[lead]))))),
        leaning_to=LEADS[side],
        turned_deg=abs((degrees(turn) + 90) % 180 - 90),
        room_mm=room,
        deep_mm=deep,
        passes=room >= 0,
        turns_inside=deep > frame.deep_mm + ROUNDING_MM,
        outline=[(float(x), float(y)) for x, y in ring.tolist()],
    )
