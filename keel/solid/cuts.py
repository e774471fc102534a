"""What each kind of feature takes from a shell or adds to it, and what it costs in weld."""

from functools import lru_cache
from math import pi

import numpy as np
from manifold3d import CrossSection, Manifold

from keel.design.features import Feature, Relief, RoofStep, Sump, Well
from keel.solid.box import Cuboid
from keel.solid.polyhedron import Array
from keel.solid.rings import circle
from keel.solid.shapes import block, drawn_out, frame_along

BEYOND_MM = 50.0
"""How far a roof step runs on past the faces it is made in [mm]."""
ABOVE_MM = 1.0
"""How far a recess runs on past its mouth [mm]."""

FACE_AXIS: dict[str, tuple[int, bool]] = {
    "rear": (0, False),
    "front": (0, True),
    "right": (1, False),
    "left": (1, True),
    "floor": (2, False),
    "roof": (2, True),
}


def _ring(long: float, wide: float, round_: bool) -> Array:
    """A rectangle or a circle about the origin [mm]."""
    if round_:
        return circle(long / 2)
    return np.array([(-long / 2, -wide / 2), (long / 2, -wide / 2), (long / 2, wide / 2), (-long / 2, wide / 2)])


def _frustum(low: Array, low_w: float, high: Array, high_w: float) -> Manifold:
    """The solid between two rings at two heights."""
    return Manifold.hull_points(np.vstack([_at(low, low_w), _at(high, high_w)]))


def _at(ring: Array, w: float) -> Array:
    """A ring at a height, shape (k, 3)."""
    places = np.empty((len(ring), 3))
    places[:, :2], places[:, 2] = ring, w
    return places


@lru_cache(maxsize=512)
def _recess(long: float, wide: float, deep: float, slope: float, wall: float, round_: bool) -> Manifold:
    """A recess from w = −deep up through its mouth at w = 0, grown by a wall but at the mouth.

    A side that leans in by `slope` over the depth moves out by wall · √(1 + (slope/deep)²) at any height, and
    leans on for a little above the mouth. While one thing is dragged, the others keep their recess.
    """
    lean = slope / deep
    more = wall * np.sqrt(1 + lean**2)

    def ring(w: float) -> Array:
        return _ring(long + 2 * (more + lean * w), wide + 2 * (more + lean * w), round_)

    return _frustum(ring(-deep - wall), -deep - wall, ring(ABOVE_MM), ABOVE_MM)


def well_cut(well: Well, frame: Array, wall: float) -> Manifold:
    """The space a well takes, grown by a wall into the tank.

    Parameters
    ----------
    well : Well
        The well.
    frame : ndarray, shape (3, 4)
        `well_frame` of its body.
    wall : float
        How far it is grown [mm].

    Returns
    -------
    Manifold
        Convex, running on a little past its mouth.
    """
    round_ = well.form == "round"
    wide = well.long_mm if round_ else well.wide_mm
    return _recess(well.long_mm, wide, well.deep_mm, well.slope_mm, wall, round_).transform(frame)


def well_frame(well: Well, body: Cuboid) -> Array:
    """Turns a recess about its mouth's middle into its place in the body.

    Parameters
    ----------
    well : Well
        Whose mouth it is.
    body : Cuboid
        The body without features [mm].

    Returns
    -------
    ndarray, shape (3, 4)
        A rigid motion; the third direction leads out of the mouth.
    """
    axis, high = FACE_AXIS[well.face]
    wide = well.long_mm if well.form == "round" else well.wide_mm
    first, second = [i for i in range(3) if i != axis]
    frame = frame_along(axis, 1.0 if high else -1.0)
    frame[first, 3] = body.low[first] + well.a_mm + well.long_mm / 2
    frame[second, 3] = body.low[second] + well.b_mm + wide / 2
    frame[axis, 3] = body.high[axis] if high else body.low[axis]
    return frame


def well_piece(well: Well, body: Cuboid, wall: float, from_face: float) -> tuple[Cuboid, float]:
    """What of a well lies further than so far below its face: the box round it, and its volume [mm³]."""
    axis, high = FACE_AXIS[well.face]
    round_ = well.form == "round"
    wide = well.long_mm if round_ else well.wide_mm
    half, volume = _piece(well.long_mm, wide, well.deep_mm, well.slope_mm, wall, from_face, round_)
    low_end, high_end = list(body.low), list(body.high)
    first, second = [i for i in range(3) if i != axis]
    for way, middle, out in (
        (first, well.a_mm + well.long_mm / 2, half[0]),
        (second, well.b_mm + wide / 2, half[1]),
    ):
        low_end[way], high_end[way] = body.low[way] + middle - out, body.low[way] + middle + out
    reach = well.deep_mm + wall
    if high:
        low_end[axis], high_end[axis] = body.high[axis] - reach, body.high[axis] - from_face
    else:
        low_end[axis], high_end[axis] = body.low[axis] + from_face, body.low[axis] + reach
    return Cuboid((low_end[0], low_end[1], low_end[2]), (high_end[0], high_end[1], high_end[2])), volume


@lru_cache(maxsize=512)
def _piece(
    long: float, wide: float, deep: float, slope: float, wall: float, from_face: float, round_: bool
) -> tuple[tuple[float, float], float]:
    """Half the size of a well's piece where it is widest; a prismatoid holds depth/6 · (top + 4 · middle + bottom)."""
    lean = slope / deep
    more = wall * np.sqrt(1 + lean**2)
    levels = (-from_face, -(from_face + deep + wall) / 2, -(deep + wall))
    sizes = [(long + 2 * (more + lean * w), wide + 2 * (more + lean * w)) for w in levels]
    top, middle, bottom = (a * b * (pi / 4 if round_ else 1.0) for a, b in sizes)
    volume = (deep + wall - from_face) / 6 * (top + 4 * middle + bottom)
    half = _ring(*sizes[0], round_).max(axis=0)
    return (float(half[0]), float(half[1])), float(volume)


def sump_solid(sump: Sump, body: Cuboid, wall: float, up: float) -> Manifold:
    """A sump let down, shrunk by a wall.

    Parameters
    ----------
    sump : Sump
        The sump.
    body : Cuboid
        The body without features [mm].
    wall : float
        How far it is shrunk [mm].
    up : float
        How far it runs up above the body's underside [mm].

    Returns
    -------
    Manifold
        Its space.
    """
    round_ = sump.form == "round"
    wide = sump.long_mm if round_ else sump.wide_mm
    lean = sump.slope_mm / sump.deep_mm
    less = wall * np.sqrt(1 + lean**2)
    deep = sump.deep_mm - wall
    mouth = _ring(sump.long_mm - 2 * less, wide - 2 * less, round_)
    bottom = _ring(sump.long_mm - 2 * (less + lean * deep), wide - 2 * (less + lean * deep), round_)
    solid = _frustum(bottom, -deep, mouth, 0.0)
    if up > 0:
        solid += Manifold.extrude(CrossSection([mouth]), up)
    middle = (body.low[0] + sump.a_mm + sump.long_mm / 2, body.low[1] + sump.b_mm + wide / 2, body.low[2])
    return solid.translate(list(middle))


def relief_cut(relief: Relief, body: Cuboid, wall: float) -> Manifold:
    """The space a relief takes, grown by a wall all round.

    Parameters
    ----------
    relief : Relief
        A box or a cylinder.
    body : Cuboid
        The body without features [mm].
    wall : float
        How far it is grown [mm].

    Returns
    -------
    Manifold
        Convex.
    """
    low = [body.low[0] + relief.x_mm - wall, body.low[1] + relief.y_mm - wall, body.low[2] + relief.z_mm - wall]
    size = [relief.length_mm + 2 * wall, relief.width_mm + 2 * wall, relief.height_mm + 2 * wall]
    if relief.form == "box":
        return Manifold.cube(size).translate(low)
    axis = "xyz".index(relief.form)
    first, second = [i for i in range(3) if i != axis]
    radius = min(size[first], size[second]) / 2
    middle = np.array([low[first] + size[first] / 2, low[second] + size[second] / 2])
    return drawn_out(middle + circle(radius), axis, low[axis], low[axis] + size[axis])


def step_cut(step: RoofStep, body: Cuboid, wall: float) -> Manifold:
    """What a lowered roof takes off, grown by a wall.

    Parameters
    ----------
    step : RoofStep
        The step.
    body : Cuboid
        The body without features [mm].
    wall : float
        How far it is grown [mm].

    Returns
    -------
    Manifold
        A box that runs on past the faces it is made in.
    """
    low = [v - BEYOND_MM for v in body.low]
    high = [v + BEYOND_MM for v in body.high]
    low[2] = body.high[2] - step.drop_mm - wall
    axis, far = FACE_AXIS[step.side]
    if far:
        low[axis] = body.high[axis] - step.reach_mm - wall
    else:
        high[axis] = body.low[axis] + step.reach_mm + wall
    return block((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def weld_of(feature: Feature, body: Cuboid, box: Cuboid) -> float:
    """Weld a feature adds [mm]: its mouth and its upright corners. What a plate adds is its own affair."""
    length, width, height = box.size
    match feature:
        case Well() | Sump():
            if feature.form == "round":
                return 2 * pi * feature.long_mm + feature.deep_mm
            mouth = 2 * (feature.long_mm + feature.wide_mm)
            slant = float(np.hypot(feature.deep_mm, np.sqrt(2) * feature.slope_mm))
            return mouth - _open_edges(feature, body) + 4 * slant
        case Relief():
            return 2 * (length + width + height)
        case RoofStep():
            return 2 * (width if feature.side in ("front", "rear") else length)
        case _:
            return 0.0


def _open_edges(feature: Well | Sump, body: Cuboid) -> float:
    """Length of a well's mouth that runs along the edge of its face and needs no seam of its own [mm]."""
    axis = FACE_AXIS[feature.face][0] if isinstance(feature, Well) else 2
    first, second = [i for i in range(3) if i != axis]
    a, b = body.size[first], body.size[second]
    along = sum(feature.wide_mm for edge in (feature.a_mm, a - feature.a_mm - feature.long_mm) if edge <= 1e-6)
    return along + sum(feature.long_mm for edge in (feature.b_mm, b - feature.b_mm - feature.wide_mm) if edge <= 1e-6)
