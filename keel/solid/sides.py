"""One side of a shell's metal while features are made in it: what is put on, what is cut off, each piece apart."""

from collections.abc import Sequence

import numpy as np
from manifold3d import Manifold, OpType

from keel.solid.box import Cuboid
from keel.solid.polyhedron import Array
from keel.solid.shapes import bounds_of


class Hull:
    """The inside of a drawn-out convex outline; one that isn't convex holds nothing for certain."""

    def __init__(self, ring: Array, axis: int, span: tuple[float, float]) -> None:
        self._across, self._axis, self._span = [i for i in range(3) if i != axis], axis, span
        along = np.roll(ring, -1, axis=0) - ring
        turns = along[:, 0] * np.roll(along, -1, axis=0)[:, 1] - along[:, 1] * np.roll(along, -1, axis=0)[:, 0]
        normals = np.column_stack([along[:, 1], -along[:, 0]]) / np.linalg.norm(along, axis=1, keepdims=True)
        self._normals = np.hstack([np.minimum(normals, 0), np.maximum(normals, 0)])
        self._offsets = np.einsum("ij,ij->i", normals, ring) + 1e-9
        self._convex = bool(np.all(turns > -1e-9))

    def holds(self, box: Cuboid) -> bool:
        """Whether a box lies inside or on the edge: along each side's normal, its furthest corner does."""
        (start, end), (u, v) = self._span, self._across
        if not self._convex or box.low[self._axis] < start - 1e-9 or box.high[self._axis] > end + 1e-9:
            return False
        return bool((self._normals @ (box.low[u], box.low[v], box.high[u], box.high[v]) <= self._offsets).all())


class Side:
    """One side of the metal: a body, what is put on and what is cut off, each piece kept apart."""

    def __init__(self, body: Manifold, hull: Hull | None) -> None:
        self._body, self._hull = body, hull
        self._on: list[_Piece] = []
        self._off: list[_Piece] = []
        self._boxes: list[Cuboid] = []

    def holds(self, box: Cuboid) -> bool:
        """Whether a box lies in the plain body, clear of the boxes of everything done to it so far."""
        return self._hull is not None and not any(meet(box, other) for other in self._boxes) and self._hull.holds(box)

    def cut_unseen(self, solid: Manifold, about: Cuboid) -> None:
        """Take a solid away that `holds` was true of; a box about it."""
        self._off.append((solid, about))
        self._boxes.append(about)

    def put_on(self, solid: Manifold) -> Manifold:
        """Add a solid; gives what of it is new."""
        box = bounds_of(solid)
        new = Manifold.batch_boolean([solid, self._body, *_meeting(box, self._on)], OpType.Subtract)
        self._on.append((solid, box))
        self._boxes.append(box)
        return new

    def cut(self, solid: Manifold) -> Manifold:
        """Take a solid away; gives what of it was there."""
        box = bounds_of(solid)
        there = Manifold.batch_boolean([self._body, *_meeting(box, self._on)], OpType.Add) ^ solid
        earlier = _meeting(box, self._off)
        self.cut_unseen(solid, box)
        return Manifold.batch_boolean([there, *earlier], OpType.Subtract) if earlier else there

    def whole(self) -> Manifold:
        """The body with everything done to it."""
        return _made(self._body, [solid for solid, _ in self._on], [solid for solid, _ in self._off])

    def within(self, box: Cuboid, but: Sequence[Manifold] = ()) -> Manifold:
        """The body with what was done to it in a box, but for some cuts; elsewhere it may be as it was."""
        off = [solid for solid in _meeting(box, self._off) if not any(solid is one for one in but)]
        return _made(self._body, _meeting(box, self._on), off)


_Piece = tuple[Manifold, Cuboid]
"""A solid and the box round it."""


def _made(body: Manifold, on: list[Manifold], off: list[Manifold]) -> Manifold:
    solid = Manifold.batch_boolean([body, *on], OpType.Add) if on else body
    return Manifold.batch_boolean([solid, *off], OpType.Subtract) if off else solid


def meet(a: Cuboid, b: Cuboid) -> bool:
    """Whether two boxes have more than a face in common.

    Parameters
    ----------
    a, b : Cuboid
        [mm]

    Returns
    -------
    bool
        False of two that only touch.
    """
    (ax, ay, az), (bx, by, bz) = a.low, b.low
    (au, av, aw), (bu, bv, bw) = a.high, b.high
    return ax < bu and bx < au and ay < bv and by < av and az < bw and bz < aw


def _meeting(box: Cuboid, others: list[_Piece]) -> list[Manifold]:
    """Those whose bounding boxes meet a box."""
    return [solid for solid, about in others if meet(box, about)]
