"""A base and the sides that are bent up from it, laid flat: every side is cut where it stands, then swung down."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from math import degrees
from typing import Literal

import numpy as np
from shapely.affinity import affine_transform
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient
from shapely.ops import unary_union

from keel.reference.test_strip import setback
from keel.solid.facets import Facet
from keel.solid.planes import polygons_of
from keel.solid.polyhedron import Array
from keel.studies.sheet.bends import bend_allowance
from keel.studies.sheet.parts import Bend, Spot

HAIR_MM = 1e-4
"""So far sheet and zones lap, so that they are one."""
FAR_MM = 1e4
LEAST_MM, LEAST_MM2 = 5.0, 1.0
"""A side that hangs on its base by less than this is a plate of its own [mm]."""
SMOOTH_MM = 0.01


@dataclass(frozen=True)
class Side:
    """A flat side where it stands: its plane, from (u, v, w) to vehicle axes, and its sheet in u and v [mm]."""

    facet: Facet
    matrix: Array
    shape: BaseGeometry


@dataclass(frozen=True)
class Folded:
    """A base with its sides as flat shapes with their bends, in the base's u and v; and sides that nothing holds."""

    pieces: list[tuple[Polygon, list[Bend]]] = field(default_factory=list)
    loose: list[tuple[Side, list[Polygon]]] = field(default_factory=list)


def base_and_sides(base: Side, sides: Sequence[Side], thick: float, radius: float, k: float, hangs: bool) -> Folded:
    """Lay a base and its sides flat.

    Parameters
    ----------
    base, sides : Side
        Each cut as it stands, but for what their bends take.
    thick, radius : float
        Of the sheet, and inside radius of its bends [mm].
    k : float
        Place of the neutral line.
    hangs : bool
        Whether the sheet lies within the planes, as a sump's, and its sides are turned towards the reader.

    Returns
    -------
    Folded
        A side's corner beside a bend is cut as deep as the bends' zones: its edge there is free to be welded.

    References
    ----------
    Flat length = outside legs − BD, legs to where the outer faces would meet; between the setbacks the bend's zone is
    as wide as its allowance (as in `bends`).
    """
    hinges = [_Hinge(base, side, thick, radius, k, hangs) for side in sides]
    kept = base.shape
    for hinge in hinges:
        kept = kept.intersection(hinge.before)
    laid = [(hinge, _swung(hinge)) for hinge in hinges]
    zones = [(hinge, zone) for hinge, shape in laid for zone in hinge.zones(kept, shape)]
    whole = unary_union([kept, *(shape for _, shape in laid), *(hinge.rectangle(zone) for hinge, zone in zones)])
    folded = Folded()
    for piece in sorted(polygons_of(whole), key=lambda one: -one.area):
        if piece.intersection(kept).area > LEAST_MM2:
            folded.pieces.append((orient(piece.simplify(SMOOTH_MM)), list(_bends(zones, piece))))
    for hinge, shape in laid:
        alone = [one for one in polygons_of(shape) if not any(one.within(made) for made in _grown(folded))]
        if alone:
            folded.loose.append((hinge.side, [hinge.stood_up(one) for one in alone if one.area > LEAST_MM2]))
    return folded


def _grown(folded: Folded) -> list[BaseGeometry]:
    return [piece.buffer(10 * SMOOTH_MM) for piece, _ in folded.pieces]


def _swung(hinge: "_Hinge") -> BaseGeometry:
    return hinge.laid.intersection(hinge.beyond)


def _bends(zones: Sequence[tuple["_Hinge", tuple[float, float]]], piece: Polygon) -> Iterator[Bend]:
    held = [(hinge, zone) for hinge, zone in zones if piece.buffer(SMOOTH_MM).covers(hinge.rectangle(zone))]
    for number, (hinge, zone) in enumerate(held, start=1):
        start, end = (hinge.spot(along, hinge.allowance / 2 - hinge.setback) for along in zone)
        yield Bend(start, end, hinge.direction, degrees(hinge.turn), hinge.radius, number, hinge.deduction)


class _Hinge:
    """The line that a side is bent up along, on the base's flat.

    Places along it count from its middle, places over it from where the outer faces would meet, outward.
    """

    def __init__(self, base: Side, side: Side, thick: float, radius: float, k: float, hangs: bool) -> None:
        self.side, self.radius, self.turn = side, radius, base.facet.angle(side.facet)
        angle = degrees(self.turn)
        self.setback = setback(angle, radius, thick)
        self.allowance = bend_allowance(angle, radius, thick, k)
        self.deduction = 2 * self.setback - self.allowance
        self.direction: Literal["up", "down"] = "up" if hangs else "down"
        # Outer faces: those on the tank's inside of a recess, those on its outside of a sump.
        reach = 0.0 if hangs else thick
        out, over = base.facet.normal, side.facet.normal
        line = np.cross(out, over)
        line /= np.linalg.norm(line)
        offsets = [base.facet.moved(reach), side.facet.moved(reach), float(line @ base.matrix[:3, 3])]
        self._place = np.linalg.solve(np.array([out, over, line]), np.array(offsets))
        self._along = base.matrix[:3, :2].T @ line
        away = base.matrix[:3, :2].T @ over
        self._over = away / np.linalg.norm(away)
        self._line, up = line, -out - (-out @ over) * over
        self._up = up / np.linalg.norm(up)
        self._at = base.matrix[:3, :2].T @ (self._place - base.matrix[:3, 3])

    def spot(self, along: float, over: float) -> Spot:
        """A place on the base's flat."""
        place = self._at + along * self._along + over * self._over
        return float(place[0]), float(place[1])

    @cached_property
    def before(self) -> Polygon:
        """All of the flat that the base may take."""
        return self._band(-FAR_MM, -self.setback)

    @cached_property
    def beyond(self) -> Polygon:
        """All of the flat that the side may take."""
        return self._band(self.allowance - self.setback, FAR_MM)

    def _band(self, low: float, high: float) -> Polygon:
        return Polygon(
            [self.spot(-FAR_MM, low), self.spot(FAR_MM, low), self.spot(FAR_MM, high), self.spot(-FAR_MM, high)]
        )

    @cached_property
    def _swing(self) -> list[float]:
        """From the side's u and v to the base's, as an affine map."""
        turn = np.outer(self._along, self._line) + np.outer(self._over, self._up)
        linear = turn @ self.side.matrix[:3, :2]
        moved = self._at - self.deduction * self._over + turn @ (self.side.matrix[:3, 3] - self._place)
        return [*(float(value) for value in linear.ravel()), float(moved[0]), float(moved[1])]

    @cached_property
    def laid(self) -> BaseGeometry:
        """The side swung down into the base's plane."""
        return affine_transform(self.side.shape, self._swing)

    def stood_up(self, shape: Polygon) -> Polygon:
        """A shape on the base's flat in the side's own u and v."""
        a, b, c, d, x, y = self._swing
        back = np.linalg.inv(np.array([[a, b], [c, d]]))
        off = -back @ np.array([x, y])
        return affine_transform(shape, [*(float(value) for value in back.ravel()), float(off[0]), float(off[1])])

    def zones(self, base: BaseGeometry, side: BaseGeometry) -> Iterator[tuple[float, float]]:
        """From where to where along the line both base and side have sheet."""
        for low, high in self._stretches(base, -self.setback - HAIR_MM):
            for start, end in self._stretches(side, self.allowance - self.setback + HAIR_MM):
                if min(high, end) - max(low, start) > LEAST_MM:
                    yield max(low, start), min(high, end)

    def rectangle(self, zone: tuple[float, float]) -> Polygon:
        """The zone of a bend, a hair into the sheet on both sides."""
        low, high = -self.setback - 2 * HAIR_MM, self.allowance - self.setback + 2 * HAIR_MM
        return Polygon(
            [self.spot(zone[0], low), self.spot(zone[1], low), self.spot(zone[1], high), self.spot(zone[0], high)]
        )

    def _stretches(self, shape: BaseGeometry, over: float) -> list[tuple[float, float]]:
        cut = LineString([self.spot(-FAR_MM, over), self.spot(FAR_MM, over)]).intersection(shape)
        lines = [one for one in getattr(cut, "geoms", [cut]) if isinstance(one, LineString) and one.length > LEAST_MM]
        ends = [sorted(self._from_middle(spot) for spot in (one.coords[0], one.coords[-1])) for one in lines]
        return [(low, high) for low, high in ends]

    def _from_middle(self, spot: Sequence[float]) -> float:
        return float((np.array(spot[:2]) - self._at) @ self._along)
