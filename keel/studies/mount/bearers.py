"""Tubes and bars of a cradle or a cage: what they bear in bending."""

from math import pi

import numpy as np

from keel.design.mount import Bearer
from keel.reference.metals import METALS
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.mount.fastening import Link

LEAST_CONTACT_MM = 1.0


def section_modulus_mm3(bearer: Bearer) -> float:
    """How a bearer's section resists bending [mm³].

    Parameters
    ----------
    bearer : Bearer
        Its shape.

    Returns
    -------
    float
        Elastic section modulus.

    References
    ----------
    Square tube (a⁴ − b⁴)/(6 a), round tube π (D⁴ − d⁴)/(32 D), flat bar on edge w h²/6 (any book on strength).
    """
    outer, wall = bearer.outer_mm, bearer.wall_mm
    inner = max(0.0, outer - 2 * wall)
    if bearer.shape == "square tube":
        return (outer**4 - inner**4) / (6 * outer)
    if bearer.shape == "round tube":
        return pi * (outer**4 - inner**4) / (32 * outer)
    return wall * outer**2 / 6


def bearer_middle(bearer: Bearer, solids: Solids) -> Array | None:
    """Where the tank presses on a bearer, shape (3,) [mm]; None where it doesn't lie on it at all."""
    axis = "xy".index(bearer.along)
    contact = _contact(bearer, solids)
    if contact is None:
        return None
    low, high = solids.bounds.low, solids.bounds.high
    place = np.zeros(3)
    place[axis], place[1 - axis] = sum(contact) / 2, bearer.at_mm
    place[2] = low[2] if bearer.stands == "under" else high[2]
    return place


def _contact(bearer: Bearer, solids: Solids) -> tuple[float, float] | None:
    """From where to where the tank lies on it, between its supports [mm]."""
    axis = "xy".index(bearer.along)
    low, high = solids.bounds.low, solids.bounds.high
    if not low[1 - axis] <= bearer.at_mm <= high[1 - axis]:
        return None
    start, end = max(bearer.low_mm, low[axis]), min(bearer.high_mm, high[axis])
    return (start, end) if end - start > LEAST_CONTACT_MM else None


def bends(bearer: Bearer, solids: Solids, load_n: float) -> Link:
    """A bearer under what of the tank lies on it.

    Parameters
    ----------
    bearer : Bearer
        Span, section, metal.
    solids : Solids
        Where the tank lies on it.
    load_n : float
        Spread along where it lies [N].

    Returns
    -------
    Link
        What bends it to the yield beside a weld.

    References
    ----------
    A beam on two supports under a load spread over c in the middle of its span L: M = W (2 L − c)/8.
    """
    span = bearer.high_mm - bearer.low_mm
    start, end = _contact(bearer, solids) or (0.0, 0.0)
    arm = (2 * span - (end - start)) / 8
    return Link("bending", load_n, METALS[bearer.metal].welded_yield_mpa * section_modulus_mm3(bearer) / arm)
