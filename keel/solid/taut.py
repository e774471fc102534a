"""A band pulled taut over an outline: the shortest way from one place to another round its convex hull."""

from dataclasses import dataclass
from itertools import pairwise
from math import acos, atan2, cos, degrees, hypot, pi, sin, tau
from typing import TypeAlias

import numpy as np
from shapely import MultiPolygon, Point, Polygon, get_coordinates
from shapely.geometry.polygon import orient

from keel.solid.polyhedron import Array

Spot = tuple[float, float]
Outline: TypeAlias = Polygon | MultiPolygon
ROUND_MM = 6.0
"""Corners of an outline closer together than this are one bend: chords of a round [mm]."""
HAIR_MM = 1e-7
FACING = 0.05


class NoBandError(ValueError):
    """The two places and the outline are such that no band is pulled over it."""


@dataclass(frozen=True, slots=True)
class Run:
    """One stretch of a band: straight, or bent round a corner.

    Attributes
    ----------
    long_mm : float
        Along its inner face [mm].
    angle_deg : float
        How far it turns; zero where it is straight.
    radius_mm : float
        Of the bend, along its inner face [mm].
    start, end : (float, float)
        In the plane [mm].
    """

    long_mm: float
    angle_deg: float
    radius_mm: float
    start: Spot
    end: Spot

    @property
    def is_bend(self) -> bool:
        """Whether it turns."""
        return self.angle_deg > 0


@dataclass(frozen=True, slots=True)
class Band:
    """A band pulled taut.

    Attributes
    ----------
    long_mm : float
        Along its inner face, from end to end [mm].
    runs : list of Run
        From one end to the other, straight ones first and last.
    line : ndarray, shape (n, 2)
        Its inner face, rounds as chords [mm].
    lean_deg : (float, float)
        How steep either free end stands, from the horizontal.
    bridged_mm : float
        The widest gap under it, where the outline has a hollow; the pads' thickness where it has none [mm].
    bridged_at : (float, float)
        Where that is, on the outline [mm].
    """

    long_mm: float
    runs: list[Run]
    line: Array
    lean_deg: tuple[float, float]
    bridged_mm: float
    bridged_at: Spot


def band_over(outline: Outline, pad_mm: float, start: Spot, end: Spot) -> Band:
    """The shortest way over an outline with pads all round it, from a place on its left to one on its right.

    Parameters
    ----------
    outline : Polygon or MultiPolygon
        What is held, across and up; its rounds as fine chords [mm].
    pad_mm : float
        Thickness of the pads between it and the band [mm].
    start, end : (float, float)
        Where the band is fastened: the one further left first [mm].

    Returns
    -------
    Band
        Tangent, hull, tangent; every corner of the hull is a round of the pads' thickness more.

    Raises
    ------
    NoBandError
        Where an end lies inside the outline or its pads, or the straight line between them clears it.

    References
    ----------
    The shortest path round a convex body is its tangents and its boundary between them (de Berg et al., Computational
    Geometry, 15); a convex body with all that lies within p of it has the perimeter of the body plus 2 π p (Steiner).
    """
    hull = _hull(outline)
    first, last = _leaving(hull, pad_mm, start, "start"), _arriving(hull, pad_mm, end)
    if _clears(hull, pad_mm, start, end):
        raise NoBandError("the straight line between its ends clears the tank")
    corners = _corners(hull, first, last, (first[1] - last[1]) % tau)
    runs = _runs(corners, pad_mm, start, end)
    gap, at = _widest_gap(outline, corners, pad_mm)
    leans = _lean(runs[0]), _lean(runs[-1])
    return Band(sum(run.long_mm for run in runs), runs, _line(corners, pad_mm, start, end), leans, gap, at)


@dataclass(frozen=True, slots=True)
class _Corner:
    """A corner of the hull that the band passes, and between which normals, clockwise [rad]."""

    at: Spot
    from_rad: float
    turn_rad: float


def _hull(outline: Outline) -> Array:
    """Corners of the convex hull, clockwise, shape (n, 2)."""
    ring: Array = get_coordinates(outline.convex_hull)[:-1]
    area = ring[:-1, 0] @ ring[1:, 1] - ring[:-1, 1] @ ring[1:, 0] + ring[-1, 0] * ring[0, 1] - ring[-1, 1] * ring[0, 0]
    return ring if area < 0 else ring[::-1]


def _leaving(hull: Array, pad: float, place: Spot, which: str) -> tuple[int, float]:
    """Which corner a band from a place first touches with the body on its right, and the normal there [rad]."""
    off = np.array(place) - hull
    far = np.hypot(off[:, 0], off[:, 1])
    if Polygon(hull).distance(Point(place)) <= max(pad, HAIR_MM):
        raise NoBandError(f"the {which} lies inside the tank or its pads")
    # The normal n of a tangent: n · (place − corner) = pad. Of the two the one with the body on the right.
    normals = np.arctan2(off[:, 1], off[:, 0]) - np.arccos(np.clip(pad / far, -1.0, 1.0))
    ways = np.column_stack([np.cos(normals), np.sin(normals)])
    # All of the body lies behind the tangent: its furthest corner is the one that it touches.
    beyond = (ways @ hull.T).max(axis=1) - np.einsum("ij,ij->i", ways, hull)
    corner = int(np.argmin(beyond))
    return corner, float(normals[corner])


def _arriving(hull: Array, pad: float, place: Spot) -> tuple[int, float]:
    """The same at the end: a mirror image of leaving."""
    corner, normal = _leaving(hull * (-1.0, 1.0), pad, (-place[0], place[1]), "end")
    return corner, pi - normal


def _clears(hull: Array, pad: float, start: Spot, end: Spot) -> bool:
    """Whether the body and its pads lie wholly on the right of the straight line between two places."""
    along = np.subtract(end, start)
    normal = np.array([-along[1], along[0]]) / max(float(np.hypot(*along)), HAIR_MM)
    return bool((hull @ normal).max() + pad <= normal @ start)


def _corners(hull: Array, first: tuple[int, float], last: tuple[int, float], wrap: float) -> list[_Corner]:
    """The corners from the first to the last touched, and how far the band turns at each."""
    here, normal = first
    left, found = wrap, list[_Corner]()
    for _ in range(len(hull) + 1):
        after = (here + 1) % len(hull)
        along = hull[after] - hull[here]
        # Clockwise with the body on the right: the normal is the way along turned to the left.
        turn = (normal - atan2(along[0], -along[1])) % tau
        if here == last[0] and (turn > left - 1e-9 or turn > pi):
            turn = left
        turn = 0.0 if turn > pi and turn > left else min(turn, left)
        found.append(_Corner((float(hull[here][0]), float(hull[here][1])), normal, turn))
        normal, left = normal - turn, left - turn
        if here == last[0] and left < 1e-9:
            break
        here = after
    return found


def _runs(corners: list[_Corner], pad: float, start: Spot, end: Spot) -> list[Run]:
    """Straight stretches and bends in turn: chords of one round are one bend."""
    runs, bend = list[Run](), list[_Corner]()
    before, leaves = start, start
    for number, corner in enumerate(corners):
        touches = _off(corner.at, corner.from_rad, pad)
        if bend and hypot(touches[0] - before[0], touches[1] - before[1]) > ROUND_MM:
            runs.append(_bend(bend, leaves, before, pad))
            bend = []
        if not bend:
            runs.append(Run(hypot(touches[0] - before[0], touches[1] - before[1]), 0.0, 0.0, before, touches))
            leaves = touches
        bend.append(corner)
        before = _off(corner.at, corner.from_rad - corner.turn_rad, pad)
        if number == len(corners) - 1:
            runs.append(_bend(bend, leaves, before, pad))
    runs.append(Run(hypot(end[0] - before[0], end[1] - before[1]), 0.0, 0.0, before, end))
    return runs


def _bend(corners: list[_Corner], start: Spot, end: Spot, pad: float) -> Run:
    turned = sum(corner.turn_rad for corner in corners)
    chords = sum(hypot(b.at[0] - a.at[0], b.at[1] - a.at[1]) for a, b in pairwise(corners))
    long = chords + pad * turned
    return Run(long, degrees(turned), long / turned if turned else 0.0, start, end)


def _off(at: Spot, normal: float, pad: float) -> Spot:
    return at[0] + pad * cos(normal), at[1] + pad * sin(normal)


def _line(corners: list[_Corner], pad: float, start: Spot, end: Spot) -> Array:
    """The band as drawn: rounds of the pads as chords within a tenth of a millimetre."""
    step = 2 * acos(max(0.0, 1 - 0.1 / max(pad, 0.2)))
    line = [start]
    for corner in corners:
        count = 1 + int(corner.turn_rad / step)
        line += [_off(corner.at, corner.from_rad - corner.turn_rad * n / count, pad) for n in range(count + 1)]
    return np.array([*line, end])


def _widest_gap(outline: Outline, corners: list[_Corner], pad: float) -> tuple[float, Spot]:
    """How far the outline's metal is under the band at most, between the first and the last corner it touches."""
    starts, ends, outward = _edges(outline)
    widest, at = pad, corners[0].at
    for a, b in pairwise(corners):
        along = np.subtract(b.at, a.at)
        long = float(np.hypot(*along))
        if long < ROUND_MM:
            continue
        normal = np.array([-along[1], along[0]]) / long
        # Only metal that looks at the band: what lies behind other metal, or looks away, isn't under it.
        facing = outward @ normal > FACING
        for spots in (starts[facing], ends[facing]):
            share = (spots - a.at) @ along / long**2
            below = np.where((share > -1e-6) & (share < 1 + 1e-6), (a.at - spots) @ normal, -1.0)
            if len(spots) and below.max() + pad > widest + HAIR_MM:
                worst = int(np.argmax(below))
                widest, at = float(below[worst]) + pad, (float(spots[worst][0]), float(spots[worst][1]))
    return widest, at


def _edges(outline: Outline) -> tuple[Array, Array, Array]:
    """Start and end of every outer edge, and its unit normal outward, each shape (n, 2)."""
    parts = outline.geoms if isinstance(outline, MultiPolygon) else [outline]
    rings = [np.array(orient(part).exterior.coords) for part in parts]
    starts, ends = np.vstack([ring[:-1] for ring in rings]), np.vstack([ring[1:] for ring in rings])
    along = ends - starts
    size = np.maximum(np.linalg.norm(along, axis=1, keepdims=True), HAIR_MM)
    return starts, ends, np.column_stack([along[:, 1], -along[:, 0]]) / size


def _lean(run: Run) -> float:
    """How steep a free end stands [°]."""
    return degrees(atan2(abs(run.end[1] - run.start[1]), abs(run.end[0] - run.start[0])))


def tension(load: float, leans_deg: tuple[float, float]) -> float:
    """Pull along a band that bears a load with both its ends.

    Parameters
    ----------
    load : float
        Square to the horizontal [N].
    leans_deg : (float, float)
        How steep either end stands, from the horizontal.

    Returns
    -------
    float
        The same all along it [N]; infinite where both ends lie flat.

    References
    ----------
    Balance of the vertical: load = T (sin left + sin right).
    """
    rise = sum(sin(lean * pi / 180) for lean in leans_deg)
    return load / rise if rise > 1e-9 else float("inf")
