"""A profile worked out: the metal's outside and inside as rings, rounds as chords of the same area."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import atan2, ceil, cos, hypot, pi, sin, sqrt, tan

import numpy as np

from keel.design.shell import Corner
from keel.solid.polyhedron import Array
from keel.solid.rings import Place, chords

TANGENT = 0.02
"""Directions closer than this [rad] run into each other without a corner."""


class ShapeError(ValueError):
    """An outline that can't be made; `corner` is the corner at fault, counted from zero."""

    def __init__(self, message: str, corner: int | None = None, value: float | None = None, limit: float | None = None):
        super().__init__(message)
        self.corner, self.value, self.limit = corner, value, limit


@dataclass(frozen=True)
class Edge:
    """One edge of an outline, straight or an arc.

    `centre` is None for a straight one; `turn` is the angle gone through, counter-clockwise above zero.
    """

    start: Place
    end: Place
    centre: Place | None = None
    radius: float = 0.0
    turn: float = 0.0

    @property
    def chord(self) -> float:
        """From end to end [mm]."""
        return hypot(self.end[0] - self.start[0], self.end[1] - self.start[1])

    @property
    def length(self) -> float:
        """Along the edge [mm]."""
        return self.radius * abs(self.turn) if self.centre else self.chord

    def heading(self, at_end: bool) -> float:
        """Direction of travel at one end [rad]."""
        straight = atan2(self.end[1] - self.start[1], self.end[0] - self.start[0])
        return straight + (self.turn / 2 if at_end else -self.turn / 2)


def edge(start: Place, end: Place, bow: float) -> Edge:
    """An edge between two places; `bow` is its rise to the right of travel [mm], which is outward."""
    span = hypot(end[0] - start[0], end[1] - start[1])
    if not bow or not span:
        return Edge(start, end)
    turn = 4 * atan2(2 * abs(bow), span) * (1 if bow > 0 else -1)
    radius = span / 2 / sin(abs(turn) / 2)
    along = ((end[0] - start[0]) / span, (end[1] - start[1]) / span)
    left = (-along[1], along[0])
    reach = radius * cos(turn / 2) * (1 if bow > 0 else -1)
    middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
    return Edge(start, end, (middle[0] + left[0] * reach, middle[1] + left[1] * reach), radius, turn)


def reach_of(e: Edge) -> list[Place]:
    """Start of an edge and, of an arc, the places where it reaches furthest left, right, up and down.

    Parameters
    ----------
    e : Edge
        A straight edge or an arc.

    Returns
    -------
    list of Place
        Places [mm].
    """
    if e.centre is None:
        return [e.start]
    start = atan2(e.start[1] - e.centre[1], e.start[0] - e.centre[0])
    low, high = sorted((start, start + e.turn))
    quarters = range(ceil(low / (pi / 2)), int(high // (pi / 2)) + 1)
    return [e.start] + [
        (e.centre[0] + e.radius * cos(q * pi / 2), e.centre[1] + e.radius * sin(q * pi / 2)) for q in quarters
    ]


def edges_of(corners: Sequence[Corner]) -> list[Edge]:
    """The edges of a profile in their order, the one from the last corner to the first at the end."""
    places = [(c.across_mm, c.up_mm) for c in corners]
    following = [*places[1:], places[0]]
    return [edge(a, b, c.bow_mm) for a, b, c in zip(places, following, corners, strict=True)]


def inset(edges: Sequence[Edge], wall: float) -> list[Edge]:
    """An outline with every edge moved inward by a wall; corners are where moved neighbours meet.

    Parameters
    ----------
    edges : sequence of Edge
        Counter-clockwise, closed.
    wall : float
        How far [mm].

    Returns
    -------
    list of Edge
        As many edges, in the same order.

    Raises
    ------
    ShapeError
        When an arc is tighter than the wall, neighbours no longer meet, or an edge is eaten up.
    """
    corners = [_meeting(edges[here - 1], e, wall, here) for here, e in enumerate(edges)]
    moved = []
    for here, e in enumerate(edges):
        start, end = corners[here], corners[(here + 1) % len(corners)]
        made = _between(e, start, end, wall, here)
        if _turned_back(e, made):
            raise ShapeError(f"a {wall:g} mm wall eats up the edge after corner {here + 1}", here, wall)
        moved.append(made)
    return moved


def _between(e: Edge, start: Place, end: Place, wall: float, here: int) -> Edge:
    if e.centre is None:
        return Edge(start, end)
    radius = e.radius - wall if e.turn > 0 else e.radius + wall
    if radius <= 0:
        raise ShapeError(
            f"the roll after corner {here + 1} has an outside radius of {e.radius:g} mm, "
            f"it must be above the wall of {wall:g} mm",
            here,
            e.radius,
            wall,
        )
    a = atan2(start[1] - e.centre[1], start[0] - e.centre[0])
    b = atan2(end[1] - e.centre[1], end[0] - e.centre[0])
    turn = (b - a) % (2 * pi) if e.turn > 0 else -((a - b) % (2 * pi))
    return Edge(start, end, e.centre, radius, turn)


def _turned_back(was: Edge, now: Edge) -> bool:
    if now.centre is not None:
        return abs(now.turn - was.turn) > pi
    along = (was.end[0] - was.start[0]) * (now.end[0] - now.start[0])
    return along + (was.end[1] - was.start[1]) * (now.end[1] - now.start[1]) <= 0


def _meeting(before: Edge, after: Edge, wall: float, here: int) -> Place:
    """Where two neighbours meet once both have moved to the left by a wall."""
    corner, arriving, leaving = after.start, before.heading(True), after.heading(False)
    bend = (leaving - arriving + pi) % (2 * pi) - pi
    if abs(bend) < TANGENT:
        return corner[0] - sin(leaving) * wall, corner[1] + cos(leaving) * wall
    if abs(abs(bend) - pi) < 1e-3:
        raise ShapeError(f"the profile turns straight back at corner {here + 1}", here)
    if before.centre is None and after.centre is None:
        reach = wall * tan(bend / 2)
        x = corner[0] - sin(arriving) * wall - cos(arriving) * reach
        return x, corner[1] + cos(arriving) * wall - sin(arriving) * reach
    return _nearest_crossing(_moved(before, wall), _moved(after, wall), corner, here)


def _moved(e: Edge, wall: float) -> Edge:
    if e.centre is None:
        heading = e.heading(False)
        shift = (-sin(heading) * wall, cos(heading) * wall)
        return Edge((e.start[0] + shift[0], e.start[1] + shift[1]), (e.end[0] + shift[0], e.end[1] + shift[1]))
    return Edge(e.start, e.end, e.centre, e.radius - wall if e.turn > 0 else e.radius + wall, e.turn)


def _nearest_crossing(a: Edge, b: Edge, near: Place, here: int) -> Place:
    found = _line_circle(a, b) if a.centre is None else _line_circle(b, a) if b.centre is None else _circles(a, b)
    if not found:
        raise ShapeError(f"the edges on either side of corner {here + 1} no longer meet inside the metal", here)
    return min(found, key=lambda p: hypot(p[0] - near[0], p[1] - near[1]))


def _line_circle(line: Edge, arc: Edge) -> list[Place]:
    assert arc.centre is not None
    heading = line.heading(False)
    dx, dy = cos(heading), sin(heading)
    px, py = line.start[0] - arc.centre[0], line.start[1] - arc.centre[1]
    foot = -(px * dx + py * dy)
    square = arc.radius**2 - (px * dy - py * dx) ** 2
    if square < 0:
        return []
    return [(line.start[0] + dx * s, line.start[1] + dy * s) for s in (foot - sqrt(square), foot + sqrt(square))]


def _circles(a: Edge, b: Edge) -> list[Place]:
    assert a.centre is not None and b.centre is not None
    dx, dy = b.centre[0] - a.centre[0], b.centre[1] - a.centre[1]
    apart = hypot(dx, dy)
    if apart == 0:
        return []
    along = (apart**2 + a.radius**2 - b.radius**2) / (2 * apart)
    square = a.radius**2 - along**2
    if square < 0:
        return []
    off = sqrt(square)
    middle = (a.centre[0] + dx / apart * along, a.centre[1] + dy / apart * along)
    return [(middle[0] + w * dy / apart * off, middle[1] - w * dx / apart * off) for w in (1, -1)]


def turn_at(edges: Sequence[Edge], corner: int) -> float:
    """How far the outline turns at a corner [rad]: left above zero.

    Parameters
    ----------
    edges : sequence of Edge
        Counter-clockwise, closed.
    corner : int
        Number of the edge that starts there.

    Returns
    -------
    float
        Within ±π [rad].
    """
    bend = edges[corner].heading(False) - edges[corner - 1].heading(True)
    return (bend + pi) % (2 * pi) - pi


def rounded(edges: Sequence[Edge], radii: Sequence[float]) -> Array:
    """A ring of points: arcs and rounded corners become chords that enclose the same area.

    Parameters
    ----------
    edges : sequence of Edge
        A closed outline.
    radii : sequence of float, shape (n,)
        Radius at the start of each edge [mm]; 0 leaves the corner sharp. Only a corner between two
        straight edges is rounded.

    Returns
    -------
    ndarray, shape (k, 2)
        Counter-clockwise.

    Raises
    ------
    ShapeError
        When two rounds meet on an edge that is too short for both.
    """
    trims = [trim_of(edges, here, radius) for here, radius in enumerate(radii)]
    ring: list[Place] = []
    for here, e in enumerate(edges):
        after = (here + 1) % len(edges)
        if trims[here] + trims[after] > e.length + 1e-9:
            raise ShapeError(
                f"the bends at corners {here + 1} and {after + 1} need {trims[here] + trims[after]:.1f} mm, "
                f"the edge between them has {e.length:.1f} mm",
                here,
                radii[here],
                e.length,
            )
        ring += _corner(edges, here, trims[here], radii[here])
        if e.centre is not None:
            start = atan2(e.start[1] - e.centre[1], e.start[0] - e.centre[0])
            ring += chords(e.centre, e.radius, start, e.turn)[1:-1]
    return np.array(ring)


def trim_of(edges: Sequence[Edge], corner: int, radius: float) -> float:
    """What a rounded corner takes from the edges on either side.

    Parameters
    ----------
    edges : sequence of Edge
        A closed outline.
    corner : int
        The edge that begins there.
    radius : float
        0 leaves it sharp [mm].

    Returns
    -------
    float
        Along each of them [mm]; beside an arc nothing.
    """
    if not radius or edges[corner].centre or edges[corner - 1].centre:
        return 0.0
    return radius * tan(abs(turn_at(edges, corner)) / 2)


def _corner(edges: Sequence[Edge], corner: int, trim: float, radius: float) -> list[Place]:
    if trim < 1e-9:
        return [edges[corner].start]
    centre, start, turn = rounding(edges, corner, trim, radius)
    return chords(centre, radius, start, turn)


def rounding(edges: Sequence[Edge], corner: int, trim: float, radius: float) -> tuple[Place, float, float]:
    """The arc that rounds a corner.

    Parameters
    ----------
    edges : sequence of Edge
        A closed outline.
    corner : int
        The edge that begins there.
    trim, radius : float
        What it takes from either edge, and its radius [mm].

    Returns
    -------
    (float, float), float, float
        Its centre [mm], where it begins and how far it turns [rad].
    """
    at = edges[corner].start
    bend, arriving = turn_at(edges, corner), edges[corner - 1].heading(True)
    way = 1 if bend > 0 else -1
    start = (at[0] - cos(arriving) * trim, at[1] - sin(arriving) * trim)
    centre = (start[0] - sin(arriving) * radius * way, start[1] + cos(arriving) * radius * way)
    return centre, arriving - way * pi / 2, bend
