"""Parting a space where fuel can stay behind: pieces that have one pool whichever way the vehicle leans.

A space in which fuel can lie apart (behind a step, a hump, a sump's rim) has no one surface. It is cut by planes
square to the vehicle's axes, through the places where its pools join, until what any leaning still parts is small.
The cuts are open faces: fuel passes them as it passes any opening.
"""

from dataclasses import dataclass

import numpy as np
from manifold3d import CrossSection, Manifold

from keel.solid.misplacing import OFF_FACE_MM, SMOOTH_MM, UPS, misplaced
from keel.solid.polyhedron import Array, Mesh
from keel.solid.pools import NUDGE_MM
from keel.solid.shapes import slice_rings, smooth_mesh

SCRAP_MM3 = 500.0
"""Smaller pieces are crumbs of rounding."""
MOST_PIECES = 24


@dataclass(frozen=True)
class Cut:
    """A plane square to an axis at which a space was parted, and the rings of the open face that it left there [mm]."""

    axis: int
    at: float
    rings: list[Array]


@dataclass(frozen=True)
class Piece:
    """A part of a space, and its surface."""

    solid: Manifold
    mesh: Mesh


@dataclass(frozen=True)
class Parted:
    """A space in pieces.

    Attributes
    ----------
    pieces : list of Piece
    cuts : list of Cut
        The planes, in the order in which they were laid.
    left_mm3 : float
        The most that is still misplaced in a piece in one of the leans looked at [mm³].
    """

    pieces: list[Piece]
    cuts: list[Cut]
    left_mm3: float


def parted(solid: Manifold, least_mm3: float, drains: Array | None = None) -> Parted:
    """Part a space until in no lean one surface through it would misplace much.

    Parameters
    ----------
    solid : Manifold
        One connected space.
    least_mm3 : float
        What may be misplaced [mm³].
    drains : ndarray, shape (n, 3), optional
        Places in the space by which liquid leaves it [mm]; places elsewhere are passed over.

    Returns
    -------
    Parted

    Notes
    -----
    Of the three planes square to the axes through the place where the pools of the worst lean join, the one with the
    smallest open face that parts them is taken: a sump's mouth rather than two walls up to the lid.
    """
    todo, done, cuts = [_piece(solid)], list[Piece](), list[Cut]()
    drains = np.zeros((0, 3)) if drains is None else drains
    left = 0.0
    while todo:
        piece = todo.pop()
        pools, joints = misplaced(piece.mesh, UPS, drains)
        worst = int(np.argmax(pools))
        if pools[worst] <= least_mm3 or len(todo) + len(done) + 1 >= MOST_PIECES:
            left = max(left, float(pools[worst]))
            done.append(piece)
            continue
        cut, halves = _best_cut(piece, joints[worst], UPS[worst : worst + 1], least_mm3, drains)
        if cut is None:
            left = max(left, float(pools[worst]))
            done.append(piece)
            continue
        cuts.append(cut)
        drains = np.vstack(
            [drains, *(drains_of(np.insert(ring, cut.axis, cut.at, axis=1), cut.axis) for ring in cut.rings)]
        )
        todo += halves
    return Parted(done, cuts, left)


def drains_of(ring: Array, axis: int, off: float = OFF_FACE_MM) -> Array:
    """Places just beyond both sides of an opening, a hair within its corners, shape (2 n, 3) [mm]."""
    middle = ring.mean(axis=0)
    out = middle - ring
    within = ring + OFF_FACE_MM * out / np.maximum(np.linalg.norm(out, axis=1, keepdims=True), OFF_FACE_MM)
    step = np.zeros(3)
    step[axis] = off
    return np.vstack([within - step, within + step])


def _best_cut(piece: Piece, joint: Array, up: Array, least_mm3: float, drains: Array) -> tuple[Cut | None, list[Piece]]:
    """The plane through a place with the smallest face, of those that part the pools of a direction.

    Where none of the three does, the one that leaves the least misplaced: the next cut may do it then.
    """
    best: tuple[Cut | None, list[Piece]] = (None, [])
    least = (np.inf, np.inf)
    low, high = piece.mesh.points.min(axis=0), piece.mesh.points.max(axis=0)
    for axis in range(3):
        at = float(joint[axis])
        if not low[axis] + SMOOTH_MM < at < high[axis] - SMOOTH_MM:
            continue
        halves = _split(piece.solid, axis, at)
        if len(halves) < 2:
            continue
        worst = max(float(misplaced(half.mesh, up, drains)[0][0]) for half in halves)
        face = _open_face(piece.solid, axis, at)
        price = (max(worst, least_mm3), float(face.area()))
        if price < least:
            least, best = price, (Cut(axis, at, face.to_polygons()), halves)
    return best


def _open_face(solid: Manifold, axis: int, at: float) -> CrossSection:
    """What is open through a plane that may lie in a wall of the space: on both its sides."""
    behind, ahead = (CrossSection(slice_rings(solid, axis, at + off)) for off in (-NUDGE_MM, NUDGE_MM))
    return behind ^ ahead


def _split(solid: Manifold, axis: int, at: float) -> list[Piece]:
    normal = [0.0, 0.0, 0.0]
    normal[axis] = 1.0
    sides = solid.split_by_plane(normal, at)
    parts = [part for side in sides for part in side.decompose() if part.volume() > SCRAP_MM3]
    return [_piece(part) for part in parts]


def _piece(solid: Manifold) -> Piece:
    return Piece(solid, smooth_mesh(solid))
