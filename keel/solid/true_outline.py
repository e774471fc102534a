"""How far places lie from an outline as it is meant: straight edges and true arcs, no chords."""

from collections.abc import Sequence
from math import atan2, pi

import numpy as np

from keel.solid.polygon import Edge, rounding, trim_of
from keel.solid.polyhedron import Array


def off_outline(places: Array, edges: Sequence[Edge], radii: Sequence[float]) -> Array:
    """How far places lie from a closed outline, shape (n,) [mm].

    Parameters
    ----------
    places : ndarray, shape (n, 2)
        In the outline's plane [mm].
    edges : sequence of Edge
        The outline, its corners sharp.
    radii : sequence of float
        Radius at the start of each edge [mm]; 0 leaves the corner sharp.

    Returns
    -------
    ndarray
        To the nearest place of it [mm].
    """
    trims = [trim_of(edges, here, radius) for here, radius in enumerate(radii)]
    found = np.full(len(places), np.inf)
    for here, e in enumerate(edges):
        if e.centre is not None:
            found = np.minimum(found, off_arc(places, e.centre, e.radius, _angle(e), e.turn))
        else:
            along = (np.array(e.end) - e.start) / e.chord
            after = (here + 1) % len(edges)
            start, end = e.start + along * trims[here], e.end - along * trims[after]
            found = np.minimum(found, _off_piece(places, start, end))
        if trims[here] > 0:
            centre, start_rad, turn = rounding(edges, here, trims[here], radii[here])
            found = np.minimum(found, off_arc(places, centre, radii[here], start_rad, turn))
    return found


def _angle(e: Edge) -> float:
    assert e.centre is not None
    return atan2(e.start[1] - e.centre[1], e.start[0] - e.centre[0])


def _off_piece(places: Array, start: Array, end: Array) -> Array:
    along = end - start
    share = np.clip(((places - start) @ along) / max(float(along @ along), 1e-12), 0, 1)
    return np.asarray(np.linalg.norm(places - start - share[:, None] * along, axis=1))


def off_arc(places: Array, centre: tuple[float, float], radius: float, start: float, turn: float) -> Array:
    """How far places lie from an arc, shape (n,) [mm].

    Parameters
    ----------
    places : ndarray, shape (n, 2)
        In its plane [mm].
    centre : (float, float)
        Of the arc [mm].
    radius : float
        Of the arc [mm].
    start, turn : float
        Where it begins and how far it turns, counter-clockwise above zero [rad].

    Returns
    -------
    ndarray
        To the arc, or to the nearer of its ends [mm].
    """
    off = places - np.array(centre)
    way = 1.0 if turn > 0 else -1.0
    past = (way * (np.arctan2(off[:, 1], off[:, 0]) - start)) % (2 * pi)
    ends = [np.array([np.cos(at), np.sin(at)]) * radius for at in (start, start + turn)]
    to_ends = np.minimum(*(np.linalg.norm(off - end, axis=1) for end in ends))
    return np.asarray(np.where(past <= abs(turn), np.abs(np.linalg.norm(off, axis=1) - radius), to_ends))
