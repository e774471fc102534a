"""A flat part turned over, moved to its datum edges, or with an opening cut out of it."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

import numpy as np
from shapely import set_precision
from shapely.geometry import LineString, Point, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient

from keel.solid.planes import polygons_of, ring_spots
from keel.solid.polyhedron import Array
from keel.studies.sheet.lying import lying
from keel.studies.sheet.parts import Bend, Direction, FlatPart, Mark, Place, Roll, Spot, sharp_corners
from keel.studies.sheet.placing import matrix_of

LEAST_MM2 = 1.0
GRID_MM = 1e-6
LEAST_MM = 0.5
"""Shorter than this no bend line or mark is left over."""


def opened_part(part: FlatPart, opening: BaseGeometry | None) -> list[FlatPart]:
    """A part with something cut out of it.

    Parameters
    ----------
    part : FlatPart
        One piece of it, or all alike.
    opening : BaseGeometry or None
        In u and v of its flat [mm].

    Returns
    -------
    list of FlatPart
        It, or the pieces that it falls into, the largest first and under its name; each from its own datum edges.
        Bend lines and marks go as far as there is sheet.
    """
    if opening is None:
        return [part]
    # On a grid nothing is left where two edges all but lie on each other.
    left = polygons_of(set_precision(Polygon(part.outline, part.holes).difference(opening), GRID_MM))
    pieces = sorted((orient(one) for one in left if one.area > LEAST_MM2), key=lambda one: -one.area)
    return [_piece(part, piece, number) for number, piece in enumerate(pieces, start=1)]


def _piece(part: FlatPart, sheet: Polygon, number: int) -> FlatPart:
    low_u, low_v, high_u, high_v = sheet.bounds
    outline = ring_spots(sheet.exterior)
    whole = Polygon(outline)
    notched = abs(Polygon(part.outline).area - whole.area) > LEAST_MM2
    bores = [bore for bore in part.bores if sheet.distance(Point(bore.middle)) <= GRID_MM]
    bends = [
        replace(bend, start=start, end=end)
        for bend in part.bends
        for start, end in _where_there_is_sheet(bend.start, bend.end, sheet)
    ]
    cut = replace(
        part,
        name=part.name if number == 1 else f"{part.name}-piece-{number}",
        title=part.title if number == 1 else f"{part.title}, piece {number}",
        length_mm=high_u - low_u,
        width_mm=high_v - low_v,
        outline=outline,
        corners=sharp_corners(outline) if notched else part.corners,
        holes=[ring_spots(ring) for ring in sheet.interiors],
        bends=bends,
        marks=[
            replace(mark, start=start, end=end)
            for mark in part.marks
            for start, end in _where_there_is_sheet(mark.start, mark.end, sheet)
        ],
        bores=bores,
        places=[_placed(part, place, sheet) for place in part.places],
        area_mm2=sheet.area,
        mass_kg=part.mass_kg * sheet.area / part.area_mm2,
    )
    return moved(cut, -low_u, -low_v)


def _placed(part: FlatPart, place: Place, sheet: Polygon) -> Place:
    """Where a piece lies: by the panel that the part's place is of, or by one that is left of it."""
    if sheet.covers(Point(place.base)):
        return place
    panels = lying(part, place).panels
    left = [Polygon(panel.outline).intersection(sheet) for panel in panels]
    most = max(range(len(panels)), key=lambda n: left[n].area)
    # Well within its panel: on a bend's line it would be two panels' spot.
    spot = left[most].representative_point()
    return replace(place, base=(spot.x, spot.y), matrix=panels[most].matrix.ravel().tolist())


def _where_there_is_sheet(start: Spot, end: Spot, sheet: Polygon) -> Iterator[tuple[Spot, Spot]]:
    """The stretches of a line on a sheet, in its own direction."""
    line = LineString([start, end])
    for one in getattr(line.intersection(sheet), "geoms", [line.intersection(sheet)]):
        if isinstance(one, LineString) and one.length > LEAST_MM:
            ends = sorted(
                (one.coords[0], one.coords[-1]), key=lambda spot: np.hypot(spot[0] - start[0], spot[1] - start[1])
            )
            yield (float(ends[0][0]), float(ends[0][1])), (float(ends[1][0]), float(ends[1][1]))


def moved(part: FlatPart, by_u: float, by_v: float) -> FlatPart:
    """A part on another place of its flat.

    Parameters
    ----------
    part : FlatPart
        Any part.
    by_u, by_v : float
        How far everything on it goes [mm].

    Returns
    -------
    FlatPart
        It, lying in the tank where it lay.
    """
    if by_u == by_v == 0.0:
        return part
    back = np.eye(4)
    back[:2, 3] = -by_u, -by_v
    return _carried(part, lambda spot: (spot[0] + by_u, spot[1] + by_v), back, over=False)


def turned_over(part: FlatPart) -> FlatPart:
    """A part as it is seen from its other side, which is its inside; up is then down."""
    long = part.length_mm
    flip = np.diag([-1.0, 1.0, -1.0, 1.0])
    flip[0, 3], flip[2, 3] = long, part.thickness_mm
    return _carried(part, lambda spot: (long - spot[0], spot[1]), flip, over=True)


OTHER: dict[Direction, Direction] = {"up": "down", "down": "up"}


def _carried(part: FlatPart, to: Callable[[Spot], Spot], back: Array, *, over: bool) -> FlatPart:
    """Everything on a part carried elsewhere; `back` leads from there, (u, v, w), to where it was."""

    def ring(spots: Sequence[Spot]) -> list[Spot]:
        return [to(spot) for spot in (reversed(spots) if over else spots)]

    def way(direction: Direction) -> Direction:
        return OTHER[direction] if over else direction

    def bend(one: Bend) -> Bend:
        return replace(one, start=to(one.start), end=to(one.end), direction=way(one.direction))

    def roll(one: Roll) -> Roll:
        spots = to(one.start), to(one.end), to(one.until), to(one.stop)
        return Roll(*spots, way(one.direction), one.angle_deg, one.radius_mm)

    return replace(
        part,
        outline=ring(part.outline),
        corners=ring(part.corners),
        holes=[ring(hole) for hole in part.holes],
        bends=[bend(one) for one in part.bends],
        rolls=[roll(one) for one in part.rolls],
        marks=[Mark(to(mark.start), to(mark.end), mark.label) for mark in part.marks],
        bores=[replace(bore, middle=to(bore.middle)) for bore in part.bores],
        places=[
            replace(
                place,
                base=to(place.base),
                matrix=(matrix_of(place) @ back).ravel().tolist(),
                turned=place.turned != over,
            )
            for place in part.places
        ],
    )
