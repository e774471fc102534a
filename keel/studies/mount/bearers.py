"""Tubes and bars of a cradle or a cage: what they bear in bending."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import pi

import numpy as np
from shapely import box

from keel.analysis.parts import BEARERS_DRAWN, SOLIDS
from keel.analysis.study import study
from keel.design.mount import Bearer
from keel.reference.metals import METALS
from keel.solid.solids import Solids
from keel.studies.mount.fastening import Link
from keel.studies.mount.outline import outline_at
from keel.studies.result import Point

TOUCH_MM = 0.5
"""What of the tank is no further than this from the bar's face lies on it, or on its pad."""
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


@dataclass(frozen=True, slots=True)
class BearerPlace:
    """Where a bearer touches the tank.

    Attributes
    ----------
    z_mm : float
        The face that the tank lies on, or that presses on it.
    start_mm, end_mm : float
        From where to where along the bearer.
    at : Point
        In the middle of that.
    """

    id: str
    z_mm: float
    start_mm: float
    end_mm: float
    at: Point


def bearer_places(bearers: Sequence[Bearer], solids: Solids) -> list[BearerPlace]:
    """Where the bearers touch the tank, each against what of it is lowest or highest at its own station.

    Parameters
    ----------
    bearers : sequence of Bearer
        As they are drawn.
    solids : Solids
        The shell worked out.

    Returns
    -------
    list of BearerPlace
        Without those that the tank isn't over, or under, between their supports.
    """
    return [place for bearer in bearers if (place := _place(bearer, solids)) is not None]


def _place(bearer: Bearer, solids: Solids) -> BearerPlace | None:
    axis = "xy".index(bearer.along)
    low, high = solids.bounds.low, solids.bounds.high
    floor, roof = low[2] - 1, high[2] + 1
    section = outline_at(solids, 1 - axis, bearer.at_mm).intersection(box(bearer.low_mm, floor, bearer.high_mm, roof))
    if section.is_empty:
        return None
    under = bearer.stands == "under"
    face = section.bounds[1 if under else 3]
    near = (floor, face + TOUCH_MM) if under else (face - TOUCH_MM, roof)
    start, _, end, _ = section.intersection(box(bearer.low_mm, near[0], bearer.high_mm, near[1])).bounds
    if end - start <= LEAST_CONTACT_MM:
        return None
    middle = np.array([0.0, 0.0, face])
    middle[axis], middle[1 - axis] = (start + end) / 2, bearer.at_mm
    return BearerPlace(bearer.id, face, start, end, Point.of(middle))


def bends(bearer: Bearer, place: BearerPlace, load_n: float, *, is_tipped: bool = False) -> Link:
    """A bearer under what of the tank lies on it.

    Parameters
    ----------
    bearer : Bearer
        Span, section, metal.
    place : BearerPlace
        Where the tank lies on it.
    load_n : float
        Spread along where it lies [N].
    is_tipped : bool
        Whether the tank may press at one end of that alone.

    Returns
    -------
    Link
        What bends it to the yield beside a weld.

    References
    ----------
    A beam on two supports under a load spread over c in the middle of its span L: M = W (2 L − c)/8. Aside of the
    middle, or with a gap within c, it bends less. At one place a from an end: M = W a (L − a)/L.
    """
    span = bearer.high_mm - bearer.low_mm
    arm = (2 * span - (place.end_mm - place.start_mm)) / 8
    if is_tipped:
        ends = (place.start_mm - bearer.low_mm, place.end_mm - bearer.low_mm)
        arm = max(arm, *(end * (span - end) / span for end in ends))
    return Link("bending", load_n, METALS[bearer.metal].welded_yield_mpa * section_modulus_mm3(bearer) / arm)


BEARER_PLACES = study(bearer_places, BEARERS_DRAWN, SOLIDS)
