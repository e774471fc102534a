"""Will it go in: can the shell be passed straight through the bay's opening, and which way round?"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import degrees, pi

import numpy as np
from shapely import multipoints

from keel.design.bay import SIDES, Bay, Side
from keel.solid.envelope import Envelope
from keel.solid.polyhedron import Array

TURNS = 720
LEADS = ("front or rear", "right or left side", "lid or floor")


@dataclass(frozen=True, slots=True)
class Passage:
    """One way round: which end leads, how far the tank is turned in the opening, and the room left.

    `room_mm` is the room left on the tighter pair of sides together; below zero it is what is lacking.
    `outline` is the silhouette as it goes through, about the middle of the opening.
    """

    leading: str
    turned_deg: float
    room_mm: float
    passes: bool
    outline: list[tuple[float, float]]


@dataclass(frozen=True, slots=True)
class GoesIn:
    """The answer for one opening; the best way first."""

    side: Side
    long_mm: float
    wide_mm: float
    passes: bool
    room_mm: float
    straight: bool
    """Whether it goes in standing as it will stand."""
    ways: list[Passage]


def goes_in(bay: Bay, envelope: Envelope) -> GoesIn | None:
    """Whether a shell passes the bay's opening.

    Parameters
    ----------
    bay : Bay
        Without an opening there is nothing to answer.
    envelope : Envelope
        The shell with its lips and what stands on it.

    Returns
    -------
    GoesIn or None
        A convex opening lets a solid through on a straight path just when it lets the convex hull of its
        silhouette along the path through. Tried with each pair of ends leading, turned by any angle.
        Tilting on the way is not tried: what is said not to pass may yet be coaxed in.
    """
    opening = bay.opening
    if opening is None:
        return None
    ways = [_best_turn(envelope.mesh.points, axis, opening.long_mm, opening.wide_mm) for axis in range(3)]
    own = SIDES.index(opening.side) // 2
    as_it_stands = _room(_silhouette(envelope.mesh.points, own), 0.0, opening.long_mm, opening.wide_mm)
    if as_it_stands >= 0:
        ways[own] = _passage(_silhouette(envelope.mesh.points, own), own, 0.0, opening.long_mm, opening.wide_mm)
    ways.sort(key=lambda way: (as_it_stands < 0 or way.leading != LEADS[own], -way.room_mm))
    return GoesIn(
        side=opening.side,
        long_mm=opening.long_mm,
        wide_mm=opening.wide_mm,
        passes=ways[0].passes,
        room_mm=ways[0].room_mm,
        straight=as_it_stands >= 0,
        ways=ways,
    )


def _silhouette(points: Array, axis: int) -> Array:
    """Convex hull of the points seen along an axis, shape (k, 2)."""
    flat = np.delete(points, axis, axis=1)
    return np.asarray(multipoints(flat).convex_hull.exterior.coords)[:-1]


def _room(ring: Array, turn: float, long: float, wide: float) -> float:
    return float(_rooms(ring, np.array([turn]), long, wide)[0])


def _rooms(ring: Array, turns: Array, long: float, wide: float) -> Array:
    """Room left at each turn [mm]: the lesser of that along and that across."""
    c, s = np.cos(turns)[:, None], np.sin(turns)[:, None]
    x, y = ring[:, 0] * c - ring[:, 1] * s, ring[:, 0] * s + ring[:, 1] * c
    return np.asarray(np.minimum(long - np.ptp(x, axis=1), wide - np.ptp(y, axis=1)))


def _best_turn(points: Array, axis: int, long: float, wide: float) -> Passage:
    ring = _silhouette(points, axis)
    turns = np.arange(TURNS) * pi / TURNS
    rooms = _rooms(ring, turns, long, wide)
    at = float(turns[int(np.argmax(rooms))])
    turn = at if rooms[0] < rooms.max() - 1e-9 else 0.0
    if turn:
        fine = turn + np.linspace(-1, 1, 201) * pi / TURNS
        turn = float(fine[int(np.argmax(_rooms(ring, fine, long, wide)))])
    return _passage(ring, axis, turn, long, wide)


def _passage(ring: Array, axis: int, turn: float, long: float, wide: float) -> Passage:
    room = _room(ring, turn, long, wide)
    c, s = np.cos(turn), np.sin(turn)
    turned = ring @ np.array([[c, s], [-s, c]])
    turned -= (turned.max(axis=0) + turned.min(axis=0)) / 2
    return Passage(
        leading=LEADS[axis],
        turned_deg=degrees(turn),
        room_mm=room,
        passes=room >= 0,
        outline=_pairs(turned),
    )


def _pairs(ring: Array) -> list[tuple[float, float]]:
    places: Sequence[Sequence[float]] = ring.tolist()
    return [(float(x), float(y)) for x, y in places]
