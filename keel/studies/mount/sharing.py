"""How a load on a rigid tank is shared by what holds it."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from keel.solid.polyhedron import Array

MOST_ROUNDS = 60
HAIR = 1e-8
AT_REST, CLOSE = 1e-7, 1e-3
"""Shares of the load: what is left once the tank is at rest, and how far the same without the hair may be off."""
LEFT_SHARE = 0.05
"""A load is held where no more of it, or of its moment over the holders' spread, is left: friction bears that much."""


@dataclass(frozen=True)
class Spring:
    """One direction in which something holds the tank.

    Attributes
    ----------
    holder : str
        Id of what it belongs to.
    at : ndarray, shape (3,)
        Where it holds [mm].
    along : ndarray, shape (3,)
        Unit vector: which way it can press on the tank.
    one_way : bool
        Whether it presses only that way: a stop, a band.
    """

    holder: str
    at: Array
    along: Array
    one_way: bool = False


@dataclass(frozen=True)
class Shared:
    """Each spring's force on the tank along its direction [N], and whether the load is held."""

    forces: Array
    is_held: bool


def shared(load: Array, at: Array, springs: Sequence[Spring]) -> Shared:
    """Share a load.

    Parameters
    ----------
    load : ndarray, shape (3,)
        Force on the tank [N].
    at : ndarray, shape (3,)
        Where it acts [mm].
    springs : sequence of Spring
        All alike stiff; the tank is rigid.

    Returns
    -------
    Shared
        What can only press is left out where it would have to pull.

    References
    ----------
    Equilibrium of a rigid body on springs, K q = F, each spring's force −w · q, with w its wrench about the load's
    place; one-sided contacts by Newton's method on their energy. In a plane it is the elastic bolt group.
    """
    if not springs:
        return Shared(np.zeros(0), False)
    places = np.array([spring.at for spring in springs]) - at
    ways = np.array([spring.along for spring in springs])
    spread = max(1.0, float(np.abs(places).max()))
    wrenches = np.hstack([ways, np.cross(places, ways) / spread])
    wanted = np.concatenate([load, np.zeros(3)])
    one_way = np.array([spring.one_way for spring in springs])
    forces = _pressed(wrenches, one_way, _moved(wrenches, one_way, wanted))
    left = wanted + wrenches.T @ forces
    return Shared(forces, bool(np.abs(left).max() <= LEFT_SHARE * max(1.0, float(np.linalg.norm(load)))))


def _pressed(wrenches: Array, one_way: NDArray[np.bool_], moved: Array) -> Array:
    """Each spring's force once the tank has moved: what can only press doesn't pull."""
    forces = -(wrenches @ moved)
    return np.where(one_way, np.maximum(forces, 0.0), forces)


def _moved(wrenches: Array, one_way: NDArray[np.bool_], wanted: Array) -> Array:
    """Where the tank comes to rest: least energy, by Newton's method; a hair of stiffness holds what nothing does."""
    moved, hair = np.zeros(len(wanted)), HAIR * np.eye(len(wanted))
    active, size = np.ones(len(wrenches), dtype=bool), float(np.abs(wanted).max())
    for _ in range(MOST_ROUNDS):
        held = wrenches[active]
        rest = np.linalg.solve(held.T @ held + hair, wanted)
        moved = moved + _best_share(wrenches, one_way, wanted, moved, rest - moved) * (rest - moved)
        left = wanted + wrenches.T @ _pressed(wrenches, one_way, moved) - HAIR * moved
        if np.abs(left).max() <= AT_REST * size:
            break
        active = ~one_way | (wrenches @ moved < 0)
    held = wrenches[~one_way | (wrenches @ moved < -HAIR * np.abs(moved).max())]
    bare = np.asarray(np.linalg.lstsq(held.T @ held, wanted, rcond=HAIR)[0], dtype=np.float64)
    near = np.abs(_pressed(wrenches, one_way, bare) - _pressed(wrenches, one_way, moved)).max()
    return bare if near <= CLOSE * size else moved


def _best_share(wrenches: Array, one_way: NDArray[np.bool_], wanted: Array, moved: Array, step: Array) -> float:
    """How far along a step energy is least: its slope there only grows, and is straight between contacts."""

    def slope(share: float) -> float:
        there = moved + share * step
        return float(step @ (HAIR * there - wanted - wrenches.T @ _pressed(wrenches, one_way, there)))

    now, moves = wrenches @ moved, wrenches @ step
    with np.errstate(divide="ignore", invalid="ignore"):
        meets = -now[one_way] / moves[one_way]
    knots = [0.0, *sorted(meets[np.isfinite(meets) & (meets > 0)])]
    low = 0
    while low + 1 < len(knots) and slope(knots[low + 1]) < 0:
        low += 1
    start = knots[low]
    end = knots[low + 1] if low + 1 < len(knots) else start + max(1.0, start)
    first, last = slope(start), slope(end)
    return float(start - first * (end - start) / (last - first)) if last != first else float(start)
