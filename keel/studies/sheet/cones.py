"""What is rolled or tapers, flat: cone frustums, and walls between a rectangle and a smaller one over it."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import asin, cos, hypot, pi, sin

import numpy as np

from keel.solid.polyhedron import Array


@dataclass(frozen=True, slots=True)
class Sector:
    """A cone frustum's flat: a sector of a ring, symmetric about its middle line [mm]."""

    slant_mm: float
    outer_radius_mm: float
    inner_radius_mm: float
    angle_rad: float

    @property
    def outer_chord_mm(self) -> float:
        """Between the two ends of the outer arc; its widest where the sector passes half a turn."""
        return 2 * self.outer_radius_mm * sin(self.angle_rad / 2)

    @property
    def inner_chord_mm(self) -> float:
        """Between the two ends of the inner arc."""
        return 2 * self.inner_radius_mm * sin(self.angle_rad / 2)

    @property
    def wide_mm(self) -> float:
        """Of the box round it, across the middle line."""
        return 2 * self.outer_radius_mm if self.angle_rad >= pi else self.outer_chord_mm

    @property
    def deep_mm(self) -> float:
        """Of the box round it, along the middle line: from the arc's middle to its lowest corner."""
        half = self.angle_rad / 2
        radius = self.inner_radius_mm if cos(half) >= 0 else self.outer_radius_mm
        return self.outer_radius_mm - radius * cos(half)

    @property
    def area_mm2(self) -> float:
        """Between the arcs."""
        return self.angle_rad / 2 * (self.outer_radius_mm**2 - self.inner_radius_mm**2)


def frustum_flat(big_mm: float, small_mm: float, height_mm: float, thickness_mm: float) -> Sector:
    """A cone frustum of sheet, flat.

    Parameters
    ----------
    big_mm, small_mm : float
        Outside diameters of its rims; the edges are square to the sheet [mm].
    height_mm : float
        Between the outer rims along the axis [mm].
    thickness_mm : float
        Of the sheet [mm].

    Returns
    -------
    Sector
        Radii from where the middles of the sheet would meet.

    Raises
    ------
    ValueError
        Where the rims are alike: that is a cylinder.

    References
    ----------
    Rolled sheet keeps its length at half thickness. s = √((R − r)² + h²), sin α = (R − r)/s; a middle radius is the
    outside one less t/2 cos α; the sector's radii are those over sin α, its angle 2π sin α (derived).
    """
    if big_mm <= small_mm:
        raise ValueError("the rims of a cone differ: the first is the larger")
    less = (big_mm - small_mm) / 2
    slant = hypot(less, height_mm)
    half = asin(less / slant)
    big, small = ((across - thickness_mm * cos(half)) / 2 for across in (big_mm, small_mm))
    return Sector(slant, big / sin(half), small / sin(half), 2 * pi * sin(half))


@dataclass(frozen=True, slots=True)
class TaperedWall:
    """The side wall between two level rectangles, flat: panels between corner edges, the first edge again last.

    `bottom` and `top` have the ends of the corner edges, shape (5, 2) [mm]; `turns` the bend at each of the four
    corner edges [rad], the seam's included.
    """

    bottom: Array
    top: Array
    turns: Array

    @property
    def area_mm2(self) -> float:
        """Of all panels."""
        ring = np.vstack([self.bottom, self.top[::-1]])
        x, y = ring.T
        return float(abs(x @ np.roll(y, -1) - y @ np.roll(x, -1))) / 2


def tapered_wall_flat(bottom: Sequence[float], top: Sequence[float], height_mm: float) -> TaperedWall:
    """Unfold the wall between two rectangles whose sides are parallel, the seam at their first corner.

    Parameters
    ----------
    bottom, top : sequence of float, shape (4,)
        x0, y0, x1, y1 of each [mm]; corners go (x0, y0), (x1, y0), (x1, y1), (x0, y1).
    height_mm : float
        Between them [mm].

    Returns
    -------
    TaperedWall
        The bottom end of the seam at the origin, its top end on +y, the panels following towards +x. Without
        thickness: the sheet's own is taken off at each bend.

    References
    ----------
    Each panel is flat, so it is laid out from the lengths of its sides and of the diagonal from its top corner to
    the next bottom corner, by triangles (derived).
    """
    low, high = _corners(bottom, 0.0), _corners(top, height_mm)
    bottoms = [np.zeros(2)]
    tops = [np.array([0.0, float(np.linalg.norm(high[0] - low[0]))])]
    for i in range(4):
        j = (i + 1) % 4
        bottoms.append(_right_of(bottoms[-1], tops[-1], _far(low[i], low[j]), _far(high[i], low[j])))
        tops.append(_right_of(bottoms[-1], tops[-1], _far(low[j], high[j]), _far(high[i], high[j])))
    normals = [np.cross(low[(i + 1) % 4] - low[i], high[i] - low[i]) for i in range(4)]
    units = [normal / np.linalg.norm(normal) for normal in normals]
    turns = np.arccos(np.clip([float(units[i - 1] @ units[i]) for i in range(4)], -1, 1))
    return TaperedWall(np.array(bottoms), np.array(tops), turns)


def _corners(rectangle: Sequence[float], up: float) -> Array:
    x0, y0, x1, y1 = rectangle
    return np.array([(x0, y0, up), (x1, y0, up), (x1, y1, up), (x0, y1, up)])


def _far(a: Array, b: Array) -> float:
    return float(np.linalg.norm(b - a))


def _right_of(first: Array, second: Array, from_first: float, from_second: float) -> Array:
    """The place so far from two places, to the right of the way from the first to the second."""
    along = second - first
    base = float(np.linalg.norm(along))
    unit = along / base
    on = (from_first**2 - from_second**2 + base**2) / (2 * base)
    off = np.sqrt(max(0.0, from_first**2 - on**2))
    return np.asarray(first + on * unit + off * np.array([unit[1], -unit[0]]))
