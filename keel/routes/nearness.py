"""How near a line in space comes to boxes, to round bars and to other lines, and where."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
TINY = 1e-12
GOLDEN_STEPS = 40
"""A bracket shrinks by 0.618 each: a metre to some millionths of a millimetre."""
GOLDEN = (5**0.5 - 1) / 2


@dataclass(frozen=True, slots=True)
class Near:
    """Where a line is nearest to something.

    Attributes
    ----------
    distance : float
        Between them; zero where the line goes into it [mm].
    on_line, on_other : ndarray, shape (3,)
        The two places [mm].
    """

    distance: float
    on_line: Array
    on_other: Array


def near_boxes(line: Array, lows: Array, highs: Array) -> list[Near]:
    """The nearest place of a line to each of several upright boxes.

    Parameters
    ----------
    line : ndarray, shape (n, 3)
        Points joined by straights, two at least [mm].
    lows, highs : ndarray, shape (m, 3)
        Corners of the boxes [mm].

    Returns
    -------
    list of Near
        One a box.

    Notes
    -----
    Along a straight the squared distance to a box is convex, and its slope is made of straight pieces that meet where a
    coordinate passes a face: the piece on which the slope crosses zero is found, and on it the crossing by proportion.
    """
    starts, ways = line[:-1, None, :], np.diff(line, axis=0)[:, None, :]
    with np.errstate(divide="ignore", invalid="ignore"):
        passes = np.concatenate([(lows - starts) / ways, (highs - starts) / ways], axis=2)
    passes = np.sort(np.clip(np.nan_to_num(passes, nan=0.0, posinf=1.0, neginf=0.0), 0.0, 1.0), axis=2)
    ends = np.zeros((*passes.shape[:2], 1))
    at = np.concatenate([ends, passes, ends + 1.0], axis=2)
    spots = starts[:, :, None, :] + at[..., None] * ways[:, :, None, :]
    off = spots - np.clip(spots, lows[:, None, :], highs[:, None, :])
    slopes = (off * ways[:, :, None, :]).sum(axis=3)
    best = _where_rising(at, slopes)
    places = starts + best[..., None] * ways
    onto = np.clip(places, lows, highs)
    apart = np.linalg.norm(places - onto, axis=2)
    first = apart.argmin(axis=0)
    return [Near(float(apart[k, j]), places[k, j], onto[k, j]) for j, k in enumerate(first)]


def _where_rising(at: Array, slopes: Array) -> Array:
    """Where a slope that never falls passes zero, by proportion between its breaks; else the end that is lower."""
    behind = np.argmax(slopes >= 0, axis=2)
    never, always = (slopes < 0).all(axis=2), behind == 0
    before = np.maximum(behind - 1, 0)

    def pick(values: Array, index: NDArray[np.intp]) -> Array:
        return np.asarray(np.take_along_axis(values, index[..., None], axis=2)[..., 0])

    s0, s1, t0, t1 = pick(slopes, before), pick(slopes, behind), pick(at, before), pick(at, behind)
    share = np.where(s1 - s0 > TINY, -s0 / np.maximum(s1 - s0, TINY), 1.0)
    found = t0 + share * (t1 - t0)
    return np.where(never, 1.0, np.where(always, 0.0, found))


def near_bar(line: Array, middle: Array, axis: int, run_mm: float, radius_mm: float) -> Near:
    """The nearest place of a line to a round bar along an axis.

    Parameters
    ----------
    line : ndarray, shape (n, 3)
        Points joined by straights, two at least [mm].
    middle : ndarray, shape (3,)
        Middle of the bar's low end [mm].
    axis : int
        Along which it runs: 0, 1 or 2.
    run_mm, radius_mm : float
        Its length and radius.

    Returns
    -------
    Near
        Distance to a convex thing is convex along a straight: the least is bracketed by the golden section.
    """
    across = [way for way in range(3) if way != axis]

    def onto(spots: Array) -> Array:
        found = spots.copy()
        found[:, axis] = np.clip(spots[:, axis], middle[axis], middle[axis] + run_mm)
        off = spots[:, across] - middle[across]
        far = np.linalg.norm(off, axis=1, keepdims=True)
        found[:, across] = middle[across] + off * np.minimum(1.0, radius_mm / np.maximum(far, TINY))
        return found

    starts, ways = line[:-1], np.diff(line, axis=0)

    def apart(t: Array) -> Array:
        spots = starts + t[:, None] * ways
        return np.asarray(np.linalg.norm(spots - onto(spots), axis=1))

    low, high = np.zeros(len(starts)), np.ones(len(starts))
    best = low if not ways.any() else _least(apart, low, high)
    first = int(apart(best).argmin())
    place = starts[first] + best[first] * ways[first]
    other = onto(place[None, :])[0]
    return Near(float(np.linalg.norm(place - other)), place, other)


def _least(convex: Callable[[Array], Array], low: Array, high: Array) -> Array:
    """Where convex functions are least, each between its two ends, by the golden section."""
    a, b = high - GOLDEN * (high - low), low + GOLDEN * (high - low)
    at_a, at_b = convex(a), convex(b)
    for _ in range(GOLDEN_STEPS):
        lower = at_a <= at_b
        low, high = np.where(lower, low, a), np.where(lower, b, high)
        fresh = np.where(lower, high - GOLDEN * (high - low), low + GOLDEN * (high - low))
        at_fresh = convex(fresh)
        a, b = np.where(lower, fresh, b), np.where(lower, a, fresh)
        at_a, at_b = np.where(lower, at_fresh, at_b), np.where(lower, at_a, at_fresh)
    return (low + high) / 2


def near_plane(line: Array, normal: Array, offset: float) -> Near:
    """The nearest place of a line to all that lies beyond a plane.

    Parameters
    ----------
    line : ndarray, shape (n, 3)
        Points [mm].
    normal : ndarray, shape (3,)
        Of unit length, into what lies beyond.
    offset : float
        Of the plane along it [mm].

    Returns
    -------
    Near
        The nearest point is one of the line's own.
    """
    short = offset - line @ normal
    first = int(short.argmin())
    distance = max(0.0, float(short[first]))
    return Near(distance, line[first], line[first] + distance * normal)


def pieces_in_box(line: Array, low: Array, high: Array) -> Array:
    """Ends of the pieces of a line that lie in an upright box.

    Parameters
    ----------
    line : ndarray, shape (n, 3)
        Points joined by straights [mm].
    low, high : ndarray, shape (3,)
        Corners of the box [mm].

    Returns
    -------
    ndarray, shape (m, 3)
        Two for each piece; none where it doesn't come in.
    """
    starts, ways = line[:-1], np.diff(line, axis=0)
    enter, leave = in_slabs(starts, ways, low, high)
    enter, leave = enter.clip(0.0), leave.clip(max=1.0)
    kept = enter <= leave
    firsts = starts[kept] + enter[kept, None] * ways[kept]
    lasts = starts[kept] + leave[kept, None] * ways[kept]
    return np.asarray(np.stack([firsts, lasts], axis=1).reshape(-1, 3))


def in_slabs(starts: Array, ways: Array, lows: Array, highs: Array) -> tuple[Array, Array]:
    """Where straights come into upright boxes and leave them, as shares of their way.

    Parameters
    ----------
    starts, ways : ndarray, shape (..., 3)
        Where each begins, and how it goes [mm].
    lows, highs : ndarray, shape (..., 3)
        Corners of the boxes [mm].

    Returns
    -------
    ndarray, ndarray
        Shape (...); one that never comes in leaves before it comes.

    References
    ----------
    The slabs between opposite faces: T. L. Kay, J. T. Kajiya, Ray Tracing Complex Scenes (1986).
    """
    with np.errstate(divide="ignore", invalid="ignore"):
        a, b = (lows - starts) / ways, (highs - starts) / ways
    still, within = ways == 0, (starts >= lows) & (starts <= highs)
    enter = np.where(still, np.where(within, -np.inf, np.inf), np.minimum(a, b)).max(axis=-1)
    leave = np.where(still, np.where(within, np.inf, -np.inf), np.maximum(a, b)).min(axis=-1)
    return enter, leave


def near_line(line: Array, other: Array) -> Near:
    """The nearest places of two lines.

    Parameters
    ----------
    line, other : ndarray, shape (n, 3) and (m, 3)
        Points joined by straights, two at least [mm].

    Returns
    -------
    Near
        Of all pairs of straights.

    Notes
    -----
    Nearest places of two straights: the feet of their common normal where both lie within, else those with one end
    held (closed form, each clipped once after the other).
    """
    p, d1 = line[:-1, None, :], np.diff(line, axis=0)[:, None, :]
    q, d2 = other[None, :-1, :], np.diff(other, axis=0)[None, :, :]
    r = p - q
    a, e = (d1 * d1).sum(axis=2), (d2 * d2).sum(axis=2)
    b, c, f = (d1 * d2).sum(axis=2), (d1 * r).sum(axis=2), (d2 * r).sum(axis=2)
    a, e = np.broadcast_to(a, b.shape), np.broadcast_to(e, b.shape)
    square = a * e - b * b
    s = np.where(square > TINY * a * e, np.clip((b * f - c * e) / np.maximum(square, TINY), 0.0, 1.0), 0.0)
    t = np.clip((b * s + f) / np.maximum(e, TINY), 0.0, 1.0)
    s = np.clip((b * t - c) / np.maximum(a, TINY), 0.0, 1.0)
    on_line, on_other = p + s[..., None] * d1, q + t[..., None] * d2
    apart = np.linalg.norm(on_line - on_other, axis=2)
    k, j = np.unravel_index(int(apart.argmin()), apart.shape)
    return Near(float(apart[k, j]), on_line[k, j], on_other[k, j])
