"""Flat sides of a feature as sheet: plates that are welded together, or a base with its sides bent up from it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from math import sqrt
from typing import Literal

import numpy as np
from manifold3d import Manifold
from shapely import set_precision
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient

from keel.design.features import Sump
from keel.design.workshop import Workshop
from keel.solid.facets import SAME_MM, Faced, Facet, Fold, facets_of, fold_of
from keel.solid.planes import cuts_by, polygons_of, ring_spots
from keel.solid.polyhedron import Array, cross
from keel.solid.solids import AnyShell, Solids
from keel.studies.sheet.let_folded import Side, base_and_sides
from keel.studies.sheet.model import flat_part
from keel.studies.sheet.parts import Bend, FlatPart, Spot, sharp_corners
from keel.studies.sheet.placing import placed

PREFIX = "let-in-"
"""Before a feature's id in the names of its plates: no id is then the name of a part of the shell."""
HAIR_MM = 0.01
"""So far behind a feature's face the tank is looked at."""
FAR_MM = 1e4
LEAST_MM2 = 1.0
SMOOTH_MM = 0.01
GRID_MM = 1e-6


@dataclass(frozen=True)
class Room:
    """The tank as seen from outside, near a feature; and of a sump the body that it hangs under."""

    outer: Manifold
    plain: Manifold | None

    def within(self, shape: BaseGeometry, matrix: Array, thick: float) -> BaseGeometry:
        """What of a plate in a plane the tank has, at both of the plate's faces."""
        faces = HAIR_MM, thick - HAIR_MM
        for there in cuts_by(self.outer, matrix, faces):
            shape = shape.intersection(there)
        for above in [] if self.plain is None else cuts_by(self.plain, matrix, faces):
            shape = shape.difference(above)
        return set_precision(shape, GRID_MM)


def flat_sides(feature: Faced, solids: Solids, room: Room, workshop: Workshop) -> Iterator[FlatPart]:
    """Parts of a feature with flat sides.

    Parameters
    ----------
    feature : Well, Sump, Relief or RoofStep
        With flat sides.
    solids : Solids
        The shell as built.
    room : Room
        The tank near the feature.
    workshop : Workshop
        K factors.

    Yields
    ------
    FlatPart
        Plates with square edges; where sides are bent up from a base, that one part.
    """
    shell, fold = solids.shell, fold_of(feature, solids.body)
    made = _Made(feature, shell, facets_of(feature, solids.body), fold)
    cut = {facet.name: (made.frame(facet), facet) for facet in made.facets}
    shapes = {
        name: room.within(made.between(facet, matrix), matrix, made.thick) for name, (matrix, facet) in cut.items()
    }
    if fold:
        sides = [Side(side, cut[side.name][0], shapes.pop(side.name)) for side in fold.sides]
        base = Side(fold.base, cut[fold.base.name][0], shapes.pop(fold.base.name))
        yield from _bent_up(made, base, sides, workshop)
    for name, shape in shapes.items():
        yield from _welded(made, name, cut[name][0], polygons_of(shape))


@dataclass(frozen=True)
class _Made:
    """A feature as its sheet is made."""

    feature: Faced
    shell: AnyShell
    facets: list[Facet]
    fold: Fold | None

    @property
    def thick(self) -> float:
        return self.shell.feature_wall_mm

    @property
    def hangs(self) -> bool:
        """Whether metal lies within its faces, as a sump's, not beyond them, as a recess's."""
        return isinstance(self.feature, Sump)

    @cached_property
    def middle(self) -> Array:
        """A spot as near to all its sides as may be: what their frames count from."""
        normals, offsets = [one.normal for one in self.facets], [one.offset for one in self.facets]
        return np.asarray(np.linalg.lstsq(np.array(normals), np.array(offsets))[0])

    def frame(self, facet: Facet) -> Array:
        """Where a side's sheet lies."""
        return frame_of(facet, self.middle, -1 if self.hangs else 1)

    def are_bent(self, one: Facet, other: Facet) -> bool:
        """Whether two sides are one sheet."""
        if self.fold is None or self.fold.base.name not in (one.name, other.name):
            return False
        return {one.name, other.name} <= {self.fold.base.name, *(side.name for side in self.fold.sides)}

    def between(self, facet: Facet, matrix: Array) -> Polygon:
        """What of a facet's plane its sheet takes, the others of the feature let be."""
        kept: list[Spot] = [(-FAR_MM, -FAR_MM), (FAR_MM, -FAR_MM), (FAR_MM, FAR_MM), (-FAR_MM, FAR_MM)]
        for other in self.facets:
            if abs(other.normal @ facet.normal) > 1 - SAME_MM or self.are_bent(facet, other):
                continue
            passes = facet.rank > other.rank
            limit = other.moved(0.0 if passes == self.hangs else (-self.thick if self.hangs else self.thick))
            # Edges are square to the sheet: the further out of its two faces decides.
            far = max(0.0, float(other.normal @ matrix[:3, 2]) * self.thick)
            kept = below(kept, other.normal @ matrix[:3, :2], limit - float(other.normal @ matrix[:3, 3]) - far)
        return Polygon(kept)


def frame_of(facet: Facet, near: Array, inward: Literal[-1, 1]) -> Array:
    """From (u, v, w) of a plate to vehicle axes, shape (4, 4): w = 0 its outside, w inward, v up where it stands.

    Its u and v count from the foot of the perpendicular from `near`, shape (3,).
    """
    w = facet.normal * inward
    v = np.array([0.0, 1.0, 0.0]) if abs(w[2]) > 1 - 1e-9 else np.array([0.0, 0.0, 1.0]) - w[2] * w
    v /= sqrt(float(v @ v))
    matrix = np.eye(4)
    matrix[:3, 0], matrix[:3, 1], matrix[:3, 2] = cross(v, w), v, w
    matrix[:3, 3] = near + (facet.offset - facet.normal @ near) * facet.normal
    return matrix


def below(ring: Sequence[Spot], normal: Array, limit: float) -> list[Spot]:
    """What of a convex ring lies where normal · (u, v) is at most a limit (Sutherland and Hodgman's clipping).

    Parameters
    ----------
    ring : sequence of Spot
        Corners [mm].
    normal : ndarray, shape (2,)
        Any but zero.
    limit : float
        [mm times the normal's length]

    Returns
    -------
    list of Spot
        Empty where nothing does.
    """
    kept: list[Spot] = []
    if not ring:
        return kept
    a, b = float(normal[0]), float(normal[1])
    for here, there in pairwise([*ring, ring[0]]):
        left, next_left = limit - a * here[0] - b * here[1], limit - a * there[0] - b * there[1]
        if left >= 0:
            kept.append(here)
        if left * next_left < 0:
            share = left / (left - next_left)
            kept.append((here[0] + share * (there[0] - here[0]), here[1] + share * (there[1] - here[1])))
    return kept


def _welded(made: _Made, side: str, matrix: Array, pieces: Sequence[Polygon]) -> Iterator[FlatPart]:
    """A side as a plate of its own, or as several where something parts it."""
    left = [orient(piece.simplify(SMOOTH_MM)) for piece in pieces if piece.area > LEAST_MM2]
    for number, piece in enumerate(left, start=1):
        yield plate(made.feature, made.shell, side, matrix, piece, number if len(left) > 1 else 0)


def _bent_up(made: _Made, base: Side, sides: Sequence[Side], workshop: Workshop) -> Iterator[FlatPart]:
    """A base with its sides bent up; a side that nothing holds to it is a plate."""
    shell = made.shell
    k = workshop.k_for(shell.metal, made.thick, shell.fold_mm)
    folded = base_and_sides(base, sides, made.thick, shell.fold_mm, k, made.hangs)
    for number, (shape, bends) in enumerate(folded.pieces, start=1):
        numbered = number if len(folded.pieces) > 1 else 0
        yield plate(made.feature, shell, "folded", base.matrix, shape, numbered, bends)
    for side, pieces in folded.loose:
        yield from _welded(made, side.facet.name, side.matrix, pieces)


def plate(
    feature: Faced,
    shell: AnyShell,
    side: str,
    matrix: Array,
    piece: Polygon,
    number: int,
    bends: Sequence[Bend] = (),
) -> FlatPart:
    """A feature's plate, from where it lies.

    Parameters
    ----------
    feature : Well, Sump, Relief or RoofStep
        Whose it is.
    shell : AnyShell
        Its metal.
    side : str
        Which side of the feature.
    matrix : ndarray, shape (4, 4)
        From (u, v, w) to vehicle axes [mm].
    piece : Polygon
        In u and v [mm]; the base's, and what is bent up from it, as they lie flat.
    number : int
        Which of several pieces, 0 of one alone.
    bends : sequence of Bend
        In u and v [mm].
    """
    name = side.replace(" ", "-") + (f"-{number}" if number else "")
    title = f"{feature.name.capitalize()}, {side}" + (f", piece {number}" if number else "")
    low_u, low_v, _, _ = piece.bounds

    def from_datum(spot: Spot) -> Spot:
        return spot[0] - low_u, spot[1] - low_v

    inner = piece.representative_point()
    origin = matrix[:3, 3] + low_u * matrix[:3, 0] + low_v * matrix[:3, 1]
    place = placed(name, from_datum((inner.x, inner.y)), (0.0, 0.0), origin, matrix[:3, 0], matrix[:3, 2])
    return flat_part(
        shell.metal,
        name=f"{PREFIX}{feature.id}-{name}",
        title=title,
        quantity=1,
        thickness_mm=shell.feature_wall_mm,
        outline=ring_spots(piece.exterior),
        corners=sharp_corners(ring_spots(piece.exterior)),
        bends=[replace(bend, start=from_datum(bend.start), end=from_datum(bend.end)) for bend in bends],
        marks=[],
        note="The inside of the tank faces you" + (", this edge up." if abs(matrix[2, 1]) > 0.5 else "."),
        holes=[ring_spots(ring) for ring in piece.interiors],
        feature=feature.id,
        places=[place],
    )
