"""What holds the tank as solids: what of it stands in the way while the tank goes in, and what goes in with it."""

from math import sqrt

import numpy as np
from manifold3d import Manifold

from keel.design.mount import Bearer, Foot, Stop
from keel.reference.fasteners import BOLTS
from keel.solid.polyhedron import Array
from keel.solid.rings import circle
from keel.solid.shapes import block, drawn_out
from keel.solid.solids import Solids
from keel.studies.mount.bearers import BearerPlace
from keel.studies.mount.facing import outward
from keel.studies.mount.fastening import washer_mm

LEAST_MM = 0.5


def stop_solid(stop: Stop) -> Manifold:
    """A stop as a block behind its face.

    Parameters
    ----------
    stop : Stop
        Its face's middle, which stands off the tank by the pad.

    Returns
    -------
    Manifold
        As deep as its foot, as wide as its face, from what it is bolted to as far above the face's middle.
    """
    way = outward(stop)
    half = np.full(3, stop.wide_mm / 2)
    if stop.side not in ("floor", "roof"):
        half[2] = max(stop.arm_mm, LEAST_MM)
    half[np.abs(way) > 0] = stop.base_mm / 2
    middle = np.array([stop.x_mm, stop.y_mm, stop.z_mm]) + way * stop.base_mm / 2
    return _block(middle - half, middle + half)


def bearer_solid(bearer: Bearer, place: BearerPlace) -> Manifold:
    """A bearer as a bar.

    Parameters
    ----------
    bearer : Bearer
        Its section from outside.
    place : BearerPlace
        Where it touches the tank.

    Returns
    -------
    Manifold
        A round tube counts as a square one.
    """
    axis = "xy".index(bearer.along)
    under = bearer.stands == "under"
    face = place.z_mm
    wide = bearer.wall_mm if bearer.shape == "flat bar" else bearer.outer_mm
    low, high = np.zeros(3), np.zeros(3)
    low[axis], high[axis] = bearer.low_mm, bearer.high_mm
    low[1 - axis], high[1 - axis] = bearer.at_mm - wide / 2, bearer.at_mm + wide / 2
    low[2], high[2] = (face - bearer.outer_mm, face) if under else (face, face + bearer.outer_mm)
    return _block(low, high)


def foot_solid(foot: Foot, beyond: float, solids: Solids, lifted_mm: float) -> Manifold:
    """A foot that is welded to the tank: from its bolt's washer to its weld at the nearest place of the tank's bounds.

    Parameters
    ----------
    foot : Foot
        Bolt, thickness, weld.
    beyond : float
        Which way along the bolt its structure lies: 1 or −1.
    solids : Solids
        The shell worked out.
    lifted_mm : float
        Its face towards the structure is taken to lie so far off it: the two touch where the tank stands [mm].

    Returns
    -------
    Manifold
        Convex.
    """
    axis = "xyz".index(foot.axis)
    bolt = np.array([foot.x_mm, foot.y_mm, foot.z_mm])
    # In the order in which a ring is drawn out along the axis.
    first, second = [(axis + 1) % 3, (axis + 2) % 3]
    at = np.clip(bolt, solids.bounds.low, solids.bounds.high)
    off = (at - bolt)[[first, second]]
    far = float(np.linalg.norm(off))
    aside = np.array([-off[1], off[0]]) / far if far > LEAST_MM else np.array([1.0, 0.0])
    weld = [at[[first, second]] + aside * share * foot.weld_mm for share in (-0.5, 0.5)]
    spots = np.vstack([circle(washer_mm(foot.bolts) / 2) + bolt[[first, second]], *weld])
    thick = sorted(bolt[axis] - beyond * np.array([lifted_mm, max(foot.foot_mm, lifted_mm + LEAST_MM)]))
    points = np.zeros((2 * len(spots), 3))
    points[:, first], points[:, second] = np.tile(spots[:, 0], 2), np.tile(spots[:, 1], 2)
    points[:, axis] = np.repeat(thick, len(spots))
    return Manifold.hull_points(points)


def foot_bolt(foot: Foot, beyond: float) -> Manifold:
    """The bolt of a foot: its head on the foot, its nut beyond the structure.

    Parameters
    ----------
    foot : Foot
        Bolt, thickness, structure.
    beyond : float
        Which way along the bolt its structure lies: 1 or −1.

    Returns
    -------
    Manifold
        As wide as head and nut over their corners.
    """
    bolt, axis = BOLTS[foot.bolts.size], "xyz".index(foot.axis)
    place = (foot.x_mm, foot.y_mm, foot.z_mm)
    across = [place[n] for n in range(3) if n != axis]
    head = place[axis] - beyond * (foot.foot_mm + bolt.head_mm)
    nut = place[axis] + beyond * (foot.structure.thickness_mm + bolt.locking_nut_mm + 3 * bolt.pitch_mm)
    return drawn_out(circle(bolt.across_flats_mm / sqrt(3.0)) + np.array(across), axis, min(head, nut), max(head, nut))


def _block(low: Array, high: Array) -> Manifold:
    return block((low[0], low[1], low[2]), (high[0], high[1], high[2]))
