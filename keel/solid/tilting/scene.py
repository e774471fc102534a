"""What moves and what stands, told in the plane of the tilt: pieces with an outline there and a span across it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TypeAlias

import numpy as np
from manifold3d import Manifold
from numpy.typing import NDArray
from shapely import MultiPolygon, Polygon, box, unary_union

from keel.solid.planes import polygons_of
from keel.solid.polyhedron import Array
from keel.solid.rings import ring_area
from keel.solid.tilting.convex import convex_pieces

Meets: TypeAlias = NDArray[np.bool_]
FAR_MM = 30_000.0
TURNS = {
    0: ((0.0, 1, 0), (0, 0, 1), (1, 0, 0)),
    1: ((0.0, 0, 1), (1, 0, 0), (0, 1, 0)),
    2: ((1.0, 0, 0), (0, 1, 0), (0, 0, 1)),
}
"""Rows turn x, y, z into the plane's two axes and the one it tilts about: each is a rotation."""
MOST_SPANS = 10


@dataclass(frozen=True)
class Piece:
    """A convex outline in the plane, and from where to where it reaches across it [mm]."""

    name: str
    ring: Array
    low: float
    high: float


def pieces_of(name: str, solid: Manifold, axis: int, cuts: Sequence[float] = ()) -> list[Piece]:
    """A solid as convex pieces seen along an axis.

    Parameters
    ----------
    name : str
        What it is called where it is in the way.
    solid : Manifold
        Any [mm].
    axis : int
        0, 1 or 2: what it tilts about.
    cuts : sequence of float
        Where it is cut across the axis: each part then has its own outline, which encloses it [mm].

    Returns
    -------
    list of Piece
        They cover the solid.
    """
    turned = solid.transform(np.column_stack([np.array(TURNS[axis]), np.zeros(3)]))
    low, high = turned.bounding_box()[2], turned.bounding_box()[5]
    edges = [low, *sorted(cut for cut in cuts if low + 1e-3 < cut < high - 1e-3), high]
    found: list[Piece] = []
    for start, end in pairwise(edges):
        part = turned
        if len(edges) > 2:
            part = turned.trim_by_plane([0.0, 0.0, 1.0], start).trim_by_plane([0.0, 0.0, -1.0], -end)
        rings = [np.asarray(ring, dtype=np.float64) for ring in part.project().to_polygons()]
        outline = unary_union([Polygon(ring) for ring in rings if ring_area(ring) > 0])
        found += [Piece(name, ring, start, end) for ring in convex_pieces(MultiPolygon(polygons_of(outline)))]
    return found


def wall_with_hole(
    name: str, at: float, inward: float, thick: float, hole: tuple[float, float, float, float], upright: bool
) -> list[Piece]:
    """A wall across the plane with a hole in it.

    Parameters
    ----------
    name : str
        What it is called.
    at, inward, thick : float
        Where its inner face is along its own axis, which way the inside lies (1 or −1), how thick it is [mm].
    hole : (float, float, float, float)
        From where to where along the wall, and across the plane [mm].
    upright : bool
        Whether the wall's axis is the plane's first one.

    Returns
    -------
    list of Piece
        Both sides of the hole, and what is beyond it across the plane.
    """
    low, high = sorted((at, at - inward * thick))
    start, end, near, far = hole

    def piece(a: float, b: float, under: float, over: float) -> Piece:
        shape = box(low, a, high, b) if upright else box(a, low, b, high)
        return Piece(name, np.array(shape.exterior.coords)[:-1], under, over)

    whole = (-FAR_MM, FAR_MM)
    return [
        piece(-FAR_MM, start, *whole),
        piece(end, FAR_MM, *whole),
        piece(start, end, -FAR_MM, near),
        piece(start, end, far, FAR_MM),
    ]


def rectangle(name: str, low: Sequence[float], high: Sequence[float], span: tuple[float, float]) -> Piece:
    """An upright rectangle of the plane.

    Parameters
    ----------
    name : str
        What it is called.
    low, high : sequence of float, shape (2,)
        Two of its corners [mm].
    span : (float, float)
        From where to where it reaches across the plane [mm].

    Returns
    -------
    Piece
        Counter-clockwise.
    """
    return Piece(name, np.array([(low[0], low[1]), (high[0], low[1]), (high[0], high[1]), (low[0], high[1])]), *span)


@dataclass(frozen=True)
class Span:
    """How far the moving thing is shifted across the plane, and which pieces meet there.

    Attributes
    ----------
    low, high : float
        From where to where it is shifted [mm].
    meets : ndarray of bool, shape (fixed, moving)
        Which are at the same height.
    """

    low: float
    high: float
    meets: Meets


def spans_of(moving: Sequence[Piece], fixed: Sequence[Piece], reach_mm: float) -> list[Span]:
    """The shifts across the plane, in stretches along which the same pieces meet.

    Parameters
    ----------
    moving, fixed : sequence of Piece
        What moves and what stands.
    reach_mm : float
        How far it is shifted at most either way [mm].

    Returns
    -------
    list of Span
        In order; the one without a shift by itself. Where there are more than ten, those that are most alike are taken
        together, with all that meets in either: what is found then is still free, but a way may be missed.
    """
    lows, highs = np.array([p.low for p in moving]), np.array([p.high for p in moving])
    under, over = np.array([p.low for p in fixed]), np.array([p.high for p in fixed])

    def meets(shift: float) -> Meets:
        return np.asarray((under[:, None] < highs + shift - 1e-6) & (over[:, None] > lows + shift + 1e-6))

    events = np.concatenate([(under[:, None] - highs).ravel(), (over[:, None] - lows).ravel(), [0.0]])
    inside = sorted({round(float(e), 6) for e in events if -reach_mm < e < reach_mm})
    edges = [-reach_mm, *inside, reach_mm]
    spans: list[Span] = []
    for low, high in pairwise(edges):
        if high - low > 1e-6:
            spans.append(Span(low, high, meets((low + high) / 2)))
        if abs(high) < 1e-9:
            spans.append(Span(0.0, 0.0, meets(0.0)))
    return _fewer(spans)


def _fewer(spans: list[Span]) -> list[Span]:
    """Neighbours in which the same meets are one; then those most alike, until there are few."""
    spans = list(_merged(spans))
    while len(spans) > MOST_SPANS:
        pairs = [
            n for n in range(len(spans) - 1) if spans[n].low < spans[n].high and spans[n + 1].low < spans[n + 1].high
        ]
        if not pairs:
            break
        n = min(pairs, key=lambda n: int(np.logical_xor(spans[n].meets, spans[n + 1].meets).sum()))
        joined = Span(spans[n].low, spans[n + 1].high, np.logical_or(spans[n].meets, spans[n + 1].meets))
        spans[n : n + 2] = [joined]
    return spans


def _merged(spans: Sequence[Span]) -> Iterator[Span]:
    held: Span | None = None
    for span in spans:
        single = span.low == span.high
        if held is not None and not single and held.low < held.high and (held.meets == span.meets).all():
            held = Span(held.low, span.high, held.meets)
            continue
        if held is not None:
            yield held
        held = span
    if held is not None:
        yield held
