"""How a load on a rigid tank is shared by what holds it."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.solid.polyhedron import Array

MOST_ROUNDS = 60
HAIR = 1e-9
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
    place; one-sided contacts by an active set. In a plane it is the elastic bolt group.
    """
    if not springs:
        return Shared(np.zeros(0), False)
    places = np.array([spring.at for spring in springs]) - at
    ways = np.array([spring.along for spring in springs])
    spread = max(1.0, float(np.abs(places).max()))
    wrenches = np.hstack([ways, np.cross(places, ways) / spread])
    wanted = np.concatenate([load, np.zeros(3)])
    one_way = np.array([spring.one_way for spring in springs])
    active = np.ones(len(springs), dtype=bool)
    forces = np.zeros(len(springs))
    for _ in range(MOST_ROUNDS):
        held = wrenches[active]
        moved = np.linalg.lstsq(held.T @ held, wanted, rcond=1e-9)[0] if active.any() else np.zeros(6)
        pressed = -(wrenches @ moved)
        forces = np.where(active, pressed, 0.0)
        size = max(1.0, float(np.abs(pressed).max()))
        pulls = active & one_way & (pressed < -HAIR * size)
        if pulls.any():
            active[int(np.argmin(np.where(pulls, pressed, 0.0)))] = False
            continue
        pressed_in = ~active & (pressed > HAIR * size) & _is_settled(wrenches, moved, wanted, active)
        if not pressed_in.any():
            break
        active[int(np.argmax(np.where(pressed_in, pressed, 0.0)))] = True
    forces = np.where(one_way, np.maximum(forces, 0.0), forces)
    left = wanted + wrenches.T @ forces
    return Shared(forces, bool(np.abs(left).max() <= LEFT_SHARE * max(1.0, float(np.linalg.norm(load)))))


def _is_settled(wrenches: Array, moved: Array, wanted: Array, active: Array) -> bool:
    """Whether those that are active hold the load: only then does a movement say what else is pressed on."""
    held = wrenches[active]
    return bool(np.abs(held.T @ (held @ moved) - wanted).max() <= LEFT_SHARE * max(1.0, float(np.abs(wanted).max())))
