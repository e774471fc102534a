"""Which way what holds the tank faces."""

import numpy as np

from keel.design.bay import SIDES
from keel.design.mount import Foot, Stop
from keel.solid.polyhedron import Array


def outward(stop: Stop) -> Array:
    """From the tank towards a stop.

    Parameters
    ----------
    stop : Stop
        The side of the tank that it stands at.

    Returns
    -------
    ndarray, shape (3,)
        Along an axis, of length 1.
    """
    side = SIDES.index(stop.side)
    return np.asarray(np.eye(3)[side // 2] * (1.0 if side % 2 else -1.0))


def beyond(foot: Foot, at: Array) -> float:
    """Which way along its bolt a foot's structure lies: a force on the tank that way pulls at the bolt.

    Parameters
    ----------
    foot : Foot
        Typed, or below an upright bolt, or away from the tank.
    at : ndarray, shape (3,)
        The tank's middle [mm].

    Returns
    -------
    float
        1 or −1.
    """
    if foot.structure_at is not None:
        return 1.0 if foot.structure_at == "high side" else -1.0
    if foot.axis == "z":
        return -1.0
    place = foot.x_mm if foot.axis == "x" else foot.y_mm
    return 1.0 if place > at["xy".index(foot.axis)] else -1.0
