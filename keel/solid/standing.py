"""What stands out from the shell at a port: a body, and the hose on it that bends over to one side."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from manifold3d import Manifold

from keel.design.features import Face
from keel.design.ports import HoseBend, Port
from keel.solid.box import Triple
from keel.solid.polyhedron import Array, Mesh
from keel.solid.rings import circle
from keel.solid.shapes import manifold_of
from keel.solid.solids import Solids

OUTWARD: dict[str, Triple] = {
    "roof": (0.0, 0.0, 1.0), "floor": (0.0, 0.0, -1.0),
    "front": (1.0, 0.0, 0.0), "rear": (-1.0, 0.0, 0.0),
    "left": (0.0, 1.0, 0.0), "right": (0.0, -1.0, 0.0),
}  # fmt: skip
"""Which way is out, by face."""
PARTS_KEPT = 256
STEP_DEG = 5.0
"""A bend is so fine that its chords lie within 0.1 % of its radius."""


@dataclass(frozen=True)
class StandingPart:
    """One thing that stands out: the port's body, or the hose on it."""

    port: str
    name: str
    solid: Manifold
    comes_off: bool
    """Whether it can be taken off to get the tank in: hoses, and what is screwed or bolted in."""


def stands_out(port: Port) -> bool:
    """Whether anything stands out from the shell at a port.

    Parameters
    ----------
    port : Port
        Any port.

    Returns
    -------
    bool
        True when it has a height or a hose.
    """
    return bool(port.across_mm and port.stands_mm) or port.bend is not None


def standing(solids: Solids, port: Port) -> list[StandingPart]:
    """What stands out at a port.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    port : Port
        Its body is a cylinder square to its face, from the sheet there. The hose goes on from the body's far end,
        bends towards `hose_deg` (forward where that isn't said) and runs on straight.
    """
    out = np.array(OUTWARD[port.face])
    root = surface_at(solids, port)
    far = root + port.stands_mm * out
    parts = []
    if port.stands_mm and port.across_mm:
        body = _body(port.face, port.stands_mm, port.across_mm).translate(list(root))
        parts.append(
            StandingPart(port.id, port.name, body, comes_off=port.seat is not None and port.seat.kind != "neck")
        )
    if port.bend is not None:
        hose = _hose(port.face, port.bend, port.hose_deg or 0.0).translate(list(far))
        parts.append(StandingPart(port.id, f"the hose at {port.name}", hose, comes_off=True))
    return parts


@lru_cache(maxsize=PARTS_KEPT)
def _body(face: Face, stands_mm: float, across_mm: float) -> Manifold:
    """A port's body with its foot at zero: what moves with the shell keeps its shape."""
    out = np.array(OUTWARD[face])
    return _swept([np.zeros(3), stands_mm * out], [out, out], aside(out, 0.0), across_mm / 2)


@lru_cache(maxsize=PARTS_KEPT)
def _hose(face: Face, bend: HoseBend, hose_deg: float) -> Manifold:
    """A hose with its root at zero."""
    out = np.array(OUTWARD[face])
    return _bent(bend, np.zeros(3), out, aside(out, hose_deg))


def surface_at(solids: Solids, port: Port) -> Array:
    """Where a port's middle goes through the outside of the shell, shape (3,) [mm].

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    port : Port
        In an upright face without a typed height it is just under the top of the shell there; one
        beside the shell is where its face would be.

    Returns
    -------
    ndarray
        In vehicle axes [mm].
    """
    place = np.array(solids.datum) + np.array([port.x_mm, port.y_mm, port.z_mm or 0.0])
    out = np.array(OUTWARD[port.face])
    axis, high = int(np.argmax(np.abs(out))), out.max() > 0
    if axis < 2 and port.z_mm is None:
        place[2] = lid_height(solids, place[0], place[1], solids.datum[2]) - port.across_mm / 2
    begin, end = place.copy(), place.copy()
    begin[axis] = solids.bounds.high[axis] + 1.0 if high else solids.bounds.low[axis] - 1.0
    end[axis] = solids.datum[axis] if high else solids.bounds.high[axis] + 1.0
    hits = solids.outer.ray_cast(list(begin), list(end))
    beside = solids.body.high[axis] if high else solids.datum[axis]
    place[axis] = hits[0].position[axis] if hits else beside
    return np.asarray(place)


def lid_height(solids: Solids, x: float, y: float, z: float) -> float:
    """Height of the outside straight above a place [mm]; the place's own where nothing is above.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    x : float
        Forward [mm].
    y : float
        Left [mm].
    z : float
        Up [mm].

    Returns
    -------
    float
        Height in vehicle axes [mm].
    """
    hits = solids.outer.ray_cast([x, y, solids.bounds.high[2] + 1.0], [x, y, z])
    return float(hits[0].position[2]) if hits else z


def aside(out: Array, deg: float) -> Array:
    """A direction in a face: from forward, or from up on a face that looks fore or aft, counter-clockwise from out.

    Parameters
    ----------
    out : ndarray, shape (3,)
        Which way is out.
    deg : float
        How far round [°].

    Returns
    -------
    ndarray
        A unit vector, shape (3,).
    """
    start = np.array([0.0, 0.0, 1.0]) if abs(out[0]) > 0.5 else np.array([1.0, 0.0, 0.0])
    turn = np.radians(deg)
    return np.asarray(start * np.cos(turn) + np.cross(out, start) * np.sin(turn))


def _bent(bend: HoseBend, root: Array, out: Array, side: Array) -> Manifold:
    """A hose from a root, its middle on an arc towards one side, then straight on."""
    turns = np.radians(np.linspace(0.0, bend.turns_deg, max(2, round(bend.turns_deg / STEP_DEG) + 1)))
    middles = [root + bend.radius_mm * ((1 - np.cos(t)) * side + np.sin(t) * out) for t in turns]
    ways = [np.cos(t) * out + np.sin(t) * side for t in turns]
    if bend.run_mm:
        middles.append(middles[-1] + bend.run_mm * ways[-1])
        ways.append(ways[-1])
    return _swept(middles, ways, side, bend.outer_mm / 2)


def _swept(middles: Sequence[Array], ways: Sequence[Array], side: Array, radius: float) -> Manifold:
    """A round drawn along middles, square to the way at each; `side` lies in the plane in which it bends."""
    square = np.cross(ways[0], side)
    ring = circle(radius)
    rings = [
        m + ring[:, :1] * np.cross(square, way) + ring[:, 1:] * square for m, way in zip(middles, ways, strict=True)
    ]
    count, n = len(rings), len(ring)
    here, after = np.arange(n), np.roll(np.arange(n), -1)
    fan = np.stack([np.zeros(n - 2, int), here[1:-1], here[2:]], axis=1)
    faces = [fan[:, ::-1], fan + (count - 1) * n]
    for k in range(count - 1):
        a, b, c, d = here + k * n, after + k * n, here + (k + 1) * n, after + (k + 1) * n
        faces += [np.stack([a, b, d], axis=1), np.stack([a, d, c], axis=1)]
    solid = manifold_of(Mesh(np.vstack(rings), np.vstack(faces)))
    return solid if solid.volume() > 0 else manifold_of(Mesh(np.vstack(rings), np.vstack(faces)[:, ::-1]))
