"""A way for a rigid thing to move and tilt in a plane, past what stands there, until it is out."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from heapq import heappop, heappush
from itertools import count, pairwise
from math import cos, hypot, radians, sin
from typing import TypeVar

import numpy as np
import shapely
from shapely import LineString, Polygon, box
from shapely import Point as Spot
from shapely.geometry.base import BaseGeometry

from keel.solid.planes import polygons_of
from keel.solid.tilting.convex import forbidden
from keel.solid.tilting.scene import Piece, spans_of

STEP_DEG = 2.0
"""Angles that are looked at first lie so far apart; between two that nearly join, finer ones."""
FINEST = 9
"""So many halvings of that step."""
LEAST_MM2 = 1e-4
SHRUNK_MM = 1e-4
SPAN_COST, DEG_COST = 4.0, 1.0


Place = tuple[float, float]
Node = TypeVar("Node")


class StoppedError(Exception):
    """Nobody wants the answer any more."""


@dataclass(frozen=True)
class Pose:
    """Where the moving thing is: shifted in the plane and across it [mm], and turned about its own middle [°]."""

    u: float
    v: float
    across: float
    angle_deg: float


@dataclass(frozen=True)
class Found:
    """What came of a search.

    Attributes
    ----------
    way : list of Pose
        From where it begins until it is out; empty where there is none.
    layers : int
        How many angles, of every shift across, were looked at.
    """

    way: list[Pose]
    layers: int

    @property
    def passes(self) -> bool:
        """Whether there is a way."""
        return bool(self.way)


@dataclass(frozen=True)
class _Region:
    """One connected piece of where it may be, at an angle (in finest steps) and a span."""

    span: int
    turn: int
    number: int


@dataclass
class Search:
    """A search.

    Parameters
    ----------
    moving, fixed : sequence of Piece
        What moves, as it begins, and what stands.
    middle : (float, float)
        What it is turned about [mm].
    bounds : (float, float, float, float)
        The plane, as far as it is looked at: low and high of both axes, of where its middle may be [mm].
    is_out : shapely geometry
        Where its middle has to come.
    most_deg : float
        How far it is turned at most either way.
    reach_mm : float
        How far it is shifted across the plane at most.
    step_deg : float
        Angles that are looked at first.
    go_on : callable
        Told the share that is looked at; raises `StoppedError` where nobody wants it any more.
    """

    moving: Sequence[Piece]
    fixed: Sequence[Piece]
    middle: tuple[float, float]
    bounds: tuple[float, float, float, float]
    is_out: BaseGeometry
    most_deg: float = 180.0
    reach_mm: float = 0.0
    step_deg: float = STEP_DEG
    go_on: Callable[[float], None] = field(default=lambda _share: None)

    def __post_init__(self) -> None:
        self._spans = spans_of(self.moving, self.fixed, self.reach_mm)
        self._rings = [piece.ring - self.middle for piece in self.moving]
        self._stand = [piece.ring for piece in self.fixed]
        self._radius = max(float(np.hypot(ring[:, 0], ring[:, 1]).max()) for ring in self._rings)
        self._layers: dict[tuple[int, int], list[Polygon]] = {}
        self._last = round(self.most_deg / self.step_deg) * 2**FINEST
        self._broken: set[tuple[_Region, _Region]] = set()

    def found(self) -> Found:
        """The way out that turns and shifts it least."""
        start = self._start()
        if start is None:
            return Found([], len(self._layers))
        tried = 0
        while True:
            regions = self._regions_to(start)
            if not regions:
                return Found([], len(self._layers))
            way = list(self._poses(regions))
            wrong = self._first_wrong(regions, way)
            tried += 1
            if wrong is None or tried > 12:
                return Found([pose for _, pose in way] if wrong is None else [], len(self._layers))
            self._broken.add(wrong)

    def _angle(self, turn: int) -> float:
        return float(turn * self.step_deg / 2**FINEST)

    def _start(self) -> _Region | None:
        """Where it begins; a hair beside it where it touches."""
        span = next(n for n, one in enumerate(self._spans) if one.low <= 0.0 <= one.high and one.low == one.high)
        here = Spot(self.middle)
        layer = self._layer(span, 0)
        near = [(part.distance(here), n) for n, part in enumerate(layer)]
        least = min(near, default=(1.0, 0))
        return _Region(span, 0, least[1]) if near and least[0] < 10 * SHRUNK_MM else None

    def _layer(self, span: int, turn: int) -> list[Polygon]:
        """The pieces of the plane in which its middle may be, turned so far."""
        key = (span, turn)
        if key not in self._layers:
            angle = radians(self._angle(turn))
            matrix = np.array([[cos(angle), sin(angle)], [-sin(angle), cos(angle)]])
            turned = [ring @ matrix for ring in self._rings]
            taken = shapely.union_all(forbidden(self._stand, turned, self._spans[span].meets))
            low_u, low_v, high_u, high_v = self.bounds
            free = box(low_u, low_v, high_u, high_v).difference(taken.buffer(-SHRUNK_MM, join_style="mitre"))
            parts = [part for part in polygons_of(free) if part.area > LEAST_MM2]
            for part in parts:
                shapely.prepare(part)
            self._layers[key] = parts
            whole = len(self._spans) * (2 * self.most_deg / self.step_deg + 1)
            self.go_on(min(1.0, len(self._layers) / whole))
        return self._layers[key]

    def _regions_to(self, start: _Region) -> list[_Region]:
        """From where it begins to where it is out, by the least turning and shifting (Dijkstra)."""
        best, came = {start: 0.0}, dict[_Region, _Region]()
        ticks = count()
        queue = [(0.0, next(ticks), start)]
        while queue:
            cost, _, here = heappop(queue)
            if cost > best[here]:
                continue
            if self._layer(here.span, here.turn)[here.number].intersects(self.is_out):
                return _back(came, here)
            for after, more in self._neighbours(here):
                if (here, after) not in self._broken and cost + more < best.get(after, np.inf):
                    best[after], came[after] = cost + more, here
                    heappush(queue, (cost + more, next(ticks), after))
        return []

    def _neighbours(self, here: _Region) -> Iterator[tuple[_Region, float]]:
        own = self._layer(here.span, here.turn)[here.number]
        for span in (here.span - 1, here.span + 1):
            if 0 <= span < len(self._spans):
                for number, other in enumerate(self._layer(span, here.turn)):
                    if own.intersects(other):
                        yield _Region(span, here.turn, number), SPAN_COST
        for way in (-1, 1):
            yield from self._turned(here, own, way)

    def _turned(self, here: _Region, own: Polygon, way: int) -> Iterator[tuple[_Region, float]]:
        """What joins at the next angle; where nothing does but something is near, at angles ever nearer."""
        for halved in range(FINEST + 1):
            step = way * 2 ** (FINEST - halved)
            # Only angles of a coarser grid are gone to from a finer one's, so that no angle is reached twice.
            if here.turn % step and halved == 0:
                step = way * (2**FINEST - (here.turn * way) % 2**FINEST)
            turn = here.turn + step
            if abs(turn) > self._last:
                return
            near = False
            for number, other in enumerate(self._layer(here.span, turn)):
                if own.intersects(other):
                    yield _Region(here.span, turn, number), DEG_COST * abs(self._angle(step))
                elif own.distance(other) <= self._radius * radians(abs(self._angle(step))) * 1.05:
                    near = True
            if not near:
                return

    def _poses(self, regions: Sequence[_Region]) -> Iterator[tuple[_Region, Pose]]:
        """From region to region: to where two overlap, there turned or shifted, then on within the next."""
        at = self.middle
        for here, after in pairwise(regions):
            own, other = (
                self._layer(here.span, here.turn)[here.number],
                self._layer(after.span, after.turn)[after.number],
            )
            shared = own.intersection(other)
            target = _middle_of(shared)
            across = self._across(here)
            for spot in _within(own, at, target):
                yield here, Pose(spot[0] - self.middle[0], spot[1] - self.middle[1], across, self._angle(here.turn))
            at = target
            yield (
                after,
                Pose(at[0] - self.middle[0], at[1] - self.middle[1], self._across(after), self._angle(after.turn)),
            )
        last = regions[-1]
        own = self._layer(last.span, last.turn)[last.number]
        target = _middle_of(own.intersection(self.is_out))
        for spot in _within(own, at, target):
            yield (
                last,
                Pose(spot[0] - self.middle[0], spot[1] - self.middle[1], self._across(last), self._angle(last.turn)),
            )

    def _across(self, region: _Region) -> float:
        span = self._spans[region.span]
        return span.low if span.low == span.high else float(np.clip(0.0, span.low, span.high))

    def _first_wrong(
        self, regions: Sequence[_Region], way: Sequence[tuple[_Region, Pose]]
    ) -> tuple[_Region, _Region] | None:
        """The first turn between two regions on which something is met between the two angles."""
        for (here, _), (after, b) in pairwise(way):
            if here.turn == after.turn:
                continue
            spot = Spot(b.u + self.middle[0], b.v + self.middle[1])
            for share in (0.25, 0.5, 0.75):
                turn = here.turn + round(share * (after.turn - here.turn))
                if turn in (here.turn, after.turn):
                    continue
                if not any(part.distance(spot) < 10 * SHRUNK_MM for part in self._layer(here.span, turn)):
                    return here, after
        return None


def _back(came: dict[Node, Node], last: Node) -> list[Node]:
    way = [last]
    while way[-1] in came:
        way.append(came[way[-1]])
    return way[::-1]


def _middle_of(shape: BaseGeometry) -> tuple[float, float]:
    """A place well inside the largest part of what two regions share."""
    parts = polygons_of(shape)
    spot = max(parts, key=lambda part: part.area).representative_point() if parts else shape.representative_point()
    return float(spot.x), float(spot.y)


def _within(region: Polygon, start: Place, end: Place) -> list[Place]:
    """The shortest way within a region: straight, or by its corners (visibility graph)."""
    line = LineString([start, end])
    if region.covers(line) or line.length < SHRUNK_MM or line.difference(region).length < SHRUNK_MM:
        return [start, end]
    simple = region.simplify(0.05)
    corners = [start, end, *(spot for ring in (simple.exterior, *simple.interiors) for spot in ring.coords[:-1])]
    roomy = region.buffer(2 * SHRUNK_MM + 0.06)
    shapely.prepare(roomy)
    best, came = {0: 0.0}, dict[int, int]()
    queue = [(0.0, 0)]
    while queue and queue[0][1] != 1:
        cost, here = heappop(queue)
        if cost > best[here]:
            continue
        for after in range(1, len(corners)):
            more = cost + hypot(corners[after][0] - corners[here][0], corners[after][1] - corners[here][1])
            is_nearer = after != here and more < best.get(after, np.inf)
            if is_nearer and roomy.covers(LineString([corners[here], corners[after]])):
                best[after], came[after] = more, here
                heappush(queue, (more, after))
    return [(float(corners[n][0]), float(corners[n][1])) for n in (_back(came, 1) if 1 in came else (0, 1))]
