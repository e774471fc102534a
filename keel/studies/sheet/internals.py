"""What stands inside as flat parts: baffles and partitions as pans with flanges or tabs; and pots."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import atan2, hypot, pi, tan

import numpy as np
from shapely import prepare
from shapely.geometry import LineString, Polygon, box
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient
from shapely.ops import unary_union

from keel.design.document import Design
from keel.design.features import Baffle, Partition, Pot
from keel.design.workshop import Workshop
from keel.reference.test_strip import setback
from keel.solid.planes import polygons_of, ring_spots
from keel.solid.solids import Solids
from keel.studies.sheet.bends import bend_deduction
from keel.studies.sheet.hems import Hem, hem_of, is_hem
from keel.studies.sheet.laps import Slot, slots
from keel.studies.sheet.model import flat_part
from keel.studies.sheet.parts import Bend, FlatPart, Spot
from keel.studies.sheet.placing import placed
from keel.studies.sheet.plate_shapes import SMOOTH_MM, plate_shapes
from keel.studies.sheet.pot_strip import PREFIX, pot_strip
from keel.studies.sheet.tabs import Tab, with_tabs

ON_RIM_MM = 0.1
LEAST_FLANGE_EDGE_MM = 25.0
"""A flange shorter than this along its bend isn't worth a fold; a rolled rim is made of shorter chords [mm]."""
SLIT_MM, HAIR_MM, FAR_MM = 1.0, 0.01, 1e4
"""How wide a slit beside a flange is; a hair of overlap; beyond every plate [mm]."""


@dataclass(frozen=True)
class _Fold:
    """How the shop folds a flange on a plate [mm]."""

    thickness: float
    radius: float
    flange: float
    deduction: float
    clearance: float

    @property
    def reach(self) -> float:
        """How far a flange stands over the plate's edge on the flat."""
        return self.flange - self.deduction

    @property
    def stretched(self) -> float:
        """How far in from the plate's edge its flange's bend reaches on the flat."""
        return setback(90, self.radius, self.thickness)


def internal_parts(solids: Solids, tabs: Sequence[Tab], design: Design, workshop: Workshop) -> list[FlatPart]:
    """Flat parts of everything that stands inside.

    Parameters
    ----------
    solids : Solids
        The shell as built, without a bag.
    tabs : sequence of Tab
        Of plates, through the shell.
    design, workshop
        Pan gap, K factors, house rules.

    Returns
    -------
    list of FlatPart
        In the order of the features. A plate that a hump parts is several parts; an edge on a round, or one that is
        an opening's, has no flange.
    """
    found: list[FlatPart] = []
    costs = {cost.id: cost for cost in solids.costs}
    for feature in solids.shell.features:
        if isinstance(feature, Baffle | Partition):
            own = [tab for tab in tabs if tab.plate == feature.id]
            found += _plate_parts(feature, solids, own, design, workshop)
        elif isinstance(feature, Pot):
            found.append(pot_strip(feature, solids.shell, costs[feature.id], workshop))
    return found


def _plate_parts(
    feature: Baffle | Partition, solids: Solids, tabs: Sequence[Tab], design: Design, workshop: Workshop
) -> Iterator[FlatPart]:
    shell = solids.shell
    t, r, rules = feature.wall_mm(shell.feature_wall_mm), shell.fold_mm, workshop.rules
    k = workshop.k_for(shell.metal, t, r)
    deduction = bend_deduction(90, r, t, k)
    fold = _Fold(t, r, feature.flange(rules.flange_mm), deduction, rules.notch_clearance_mm)
    gap = rules.pan_gap_mm if design.sheet.pan_gap_mm is None else design.sheet.pan_gap_mm
    room, pieces = plate_shapes(feature, solids, gap)
    laps = slots(feature, solids, gap, rules.flange_mm) if isinstance(feature, Baffle) else []
    for number, piece in enumerate(pieces, start=1):
        flat, bends = _folded(piece, room.boundary, fold) if fold.reach > 0 else (piece, [])
        if isinstance(feature, Baffle) and feature.hem_mm and feature.top_gap_mm:
            flat, bends = _hemmed(flat, bends, piece, hem_of(feature.hem_mm, t, shell.metal, k), fold)
        sheet = with_tabs(_slotted(flat, piece, laps, fold), tabs)
        yield _plate_part(feature, solids, number if len(pieces) > 1 else 0, sheet, bends)


def _slotted(flat: Polygon, piece: Polygon, laps: Sequence[Slot], fold: _Fold) -> Polygon:
    """A plate's flat with the slots for those that cross it, its flanges out of their way and slit off beside it."""
    left: BaseGeometry = flat
    rim = piece.difference(piece.buffer(-fold.stretched, join_style="mitre"))
    for lap in laps:
        left = left.difference(lap.slot).difference(lap.flanges.difference(piece))
        if fold.reach > 0:
            low, _, high, _ = lap.flanges.bounds
            narrow = high - low < LEAST_FLANGE_EDGE_MM / 2
            spans = [(low, high)] if narrow else [(low, low + SLIT_MM), (high - SLIT_MM, high)]
            slits = [box(start, -FAR_MM, end, FAR_MM) for start, end in spans]
            left = left.difference(unary_union(slits).intersection(rim))
    return max(polygons_of(left), key=lambda one: one.area)


def _plate_part(
    feature: Baffle | Partition, solids: Solids, number: int, flat: Polygon, bends: Sequence[Bend]
) -> FlatPart:
    low_x, low_y = flat.bounds[0], flat.bounds[1]
    axis, start = "xy".index(feature.axis), solids.datum["xy".index(feature.axis)] + feature.at_mm
    t = feature.wall_mm(solids.shell.feature_wall_mm)
    # Seen from the front, y and z run as u and v do; from the right side, x and z.
    along, inward = np.eye(3)[1 - axis], np.eye(3)[axis] * (1 if axis == 0 else -1)
    origin = along * low_x + np.array([0.0, 0.0, low_y]) + np.eye(3)[axis] * (start if axis == 0 else start + t)
    inner, name = flat.representative_point(), PREFIX + feature.id + (f"-piece-{number}" if number else "")
    facing = "front" if feature.axis == "x" else "right"
    return flat_part(
        solids.shell.metal,
        name=name,
        title=feature.name.capitalize() + (f", piece {number}" if number else ""),
        quantity=1,
        thickness_mm=t,
        outline=ring_spots(flat.exterior),
        bends=[_moved(bend, low_x, low_y) for bend in bends],
        marks=[],
        note=f"Its {facing} faces you; " + _edges(feature, bends),
        holes=[ring_spots(ring) for ring in flat.interiors],
        feature=feature.id,
        places=[placed(name, (inner.x - low_x, inner.y - low_y), (0.0, 0.0), origin, along, inward)],
    )


def _edges(feature: Baffle | Partition, bends: Sequence[Bend]) -> str:
    """What becomes of a plate's edges."""
    said = []
    if any(not is_hem(bend) for bend in bends):
        said.append("the flanges come towards you")
    elif feature.tabs:
        said.append("its tabs go through the shell")
    else:
        said.append("it is welded on its edge")
    if any(is_hem(bend) for bend in bends):
        said.append("the hem is turned towards you first")
    return ", ".join(said) + "."


def _folded(piece: Polygon, rim: BaseGeometry, fold: _Fold) -> tuple[Polygon, list[Bend]]:
    """A plate with a flange along every straight edge that meets the shell."""
    ring = ring_spots(piece.exterior)
    if not piece.exterior.is_ccw:
        ring.reverse()
    sides = list(zip(ring, [*ring[1:], ring[0]], strict=True))
    near_rim = rim.buffer(ON_RIM_MM)
    prepare(near_rim)
    flanged = [_takes_flange(a, b, near_rim, fold) for a, b in sides]
    strips: list[Polygon] = []
    slits: list[Polygon] = []
    bends: list[tuple[float, Spot, Spot]] = []
    for n, (a, b) in enumerate(sides):
        if not flanged[n]:
            continue
        start, end = _trimmed(sides, flanged, n, -1, fold), _trimmed(sides, flanged, n, 1, fold)
        if _length(a, b) - start - end < LEAST_FLANGE_EDGE_MM:
            continue
        first, last = _along(a, b, start), _along(b, a, end)
        strips.append(
            # A hair of overlap: what only touches doesn't join.
            Polygon(
                [
                    _out(first, a, b, -0.01),
                    _out(last, a, b, -0.01),
                    _out(last, a, b, fold.reach),
                    _out(first, a, b, fold.reach),
                ]
            )
        )
        line = -fold.deduction / 2
        bends.append((_length(first, last), _out(first, a, b, line), _out(last, a, b, line)))
        # Beside the next flange it is slit off; beside a free edge the bend runs out over that.
        slits += [_slit(first, a, b, -1.0, fold)] if start > 0 else []
        slits += [_slit(last, a, b, 1.0, fold)] if end > 0 else []
    joined = unary_union([piece, *strips]).difference(unary_union(slits))
    flat = max(polygons_of(joined), key=lambda p: p.area).simplify(SMOOTH_MM / 2)
    bends = [(long, *_run_out(start, end, flat, fold)) for long, start, end in bends]
    bends.sort(key=lambda bend: -bend[0])
    return flat, [
        Bend(start, end, "up", 90, fold.radius, order, fold.deduction) for order, (_, start, end) in enumerate(bends, 1)
    ]


def _hemmed(flat: Polygon, bends: Sequence[Bend], piece: Polygon, hem: Hem, fold: _Fold) -> tuple[Polygon, list[Bend]]:
    """A plate with its free upper edge turned back towards the reader, first of all; clear of the bends beside it."""
    ring = ring_spots(orient(piece).exterior)
    high = piece.bounds[3]
    edges = [(a, b) for a, b in pairwise([*ring, ring[0]]) if min(a[1], b[1]) > high - SMOOTH_MM]
    a, b = max(edges, key=lambda edge: _length(*edge), default=((0.0, 0.0), (0.0, 0.0)))
    aside = (fold.stretched if fold.reach > 0 else 0.0) + fold.thickness
    if not hem.can_be or _length(a, b) - 2 * aside < LEAST_FLANGE_EDGE_MM:
        return flat, list(bends)
    first, last = _along(a, b, aside), _along(b, a, aside)
    corners = [_out(first, a, b, -HAIR_MM), _out(last, a, b, -HAIR_MM)]
    strip = Polygon([*corners, _out(last, a, b, hem.extra_mm), _out(first, a, b, hem.extra_mm)])
    beside = replace(fold, radius=hem.turned_mm - fold.thickness)
    slits = [_slit(first, a, b, -1.0, beside), _slit(last, a, b, 1.0, beside)]
    sheet = unary_union([flat, strip]).difference(unary_union(slits))
    turned = hem.bend(_out(first, a, b, hem.line_mm), _out(last, a, b, hem.line_mm), "up", 1)
    later = [replace(bend, order=bend.order + 1) for bend in bends]
    return max(polygons_of(sheet), key=lambda one: one.area), [turned, *later]


def _slit(end: Spot, a: Spot, b: Spot, way: float, fold: _Fold) -> Polygon:
    """Beside a flange's end, from its bend outward, on the side that the way along the edge leads to."""
    beside = _along(end, (end[0] + way * (b[0] - a[0]), end[1] + way * (b[1] - a[1])), SLIT_MM)
    inner = [_out(spot, a, b, -fold.stretched) for spot in (end, beside)]
    return Polygon([*inner, *(_out(spot, a, b, HAIR_MM) for spot in (beside, end))])


def _run_out(start: Spot, end: Spot, flat: Polygon, fold: _Fold) -> tuple[Spot, Spot]:
    """A bend line made longer to where the plate ends, where that is near."""
    long = _length(start, end)
    further = [_along(start, end, -2 * fold.stretched), _along(start, end, long + 2 * fold.stretched)]
    line = LineString(further).intersection(flat)
    for one in getattr(line, "geoms", [line]):
        if isinstance(one, LineString) and one.distance(LineString([start, end])) == 0.0:
            near = min(one.coords, key=lambda spot: _length(further[0], (spot[0], spot[1])))
            far = max(one.coords, key=lambda spot: _length(further[0], (spot[0], spot[1])))
            return (float(near[0]), float(near[1])), (float(far[0]), float(far[1]))
    return start, end


def _takes_flange(a: Spot, b: Spot, near_rim: BaseGeometry, fold: _Fold) -> bool:
    """Whether an edge is straight, long enough, and lies along the shell."""
    if _length(a, b) < LEAST_FLANGE_EDGE_MM + fold.deduction:
        return False
    side = LineString([a, b])
    return bool(near_rim.covers(side) or side.difference(near_rim).length < ON_RIM_MM)


def _trimmed(sides: list[tuple[Spot, Spot]], flanged: list[bool], side: int, step: int, fold: _Fold) -> float:
    """How far a flange stops short of the next one on its way round, past what rounds the corner between them [mm]."""
    turned, here, between = 0.0, side, 0.0
    while between < fold.flange:
        after = (here + step) % len(sides)
        turned += _turn(sides[here], sides[after]) if step > 0 else _turn(sides[after], sides[here])
        if flanged[after]:
            return _trim(turned, fold)
        between += _length(*sides[after])
        here = after
    return 0.0


def _trim(turn: float, fold: _Fold) -> float:
    """How far a flange stops short of its neighbour's [mm].

    At a corner that turns outward the two ends fold towards each other: the bend's deduction and the notch's
    clearance, as for a pan. At one that turns inward they overlap on the flat: E tan(turn/2), and a thickness.
    """
    if turn > 0:
        return max(fold.deduction + fold.clearance, fold.thickness)
    return fold.reach * tan(min(-turn, 0.9 * pi) / 2) + fold.thickness


def _turn(before: tuple[Spot, Spot], after: tuple[Spot, Spot]) -> float:
    """From one side to the next, left above zero [rad]."""
    (ax, ay), (bx, by) = before
    (cx, cy), (dx, dy) = after
    u, v = (bx - ax, by - ay), (dx - cx, dy - cy)
    return atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1])


def _length(a: Spot, b: Spot) -> float:
    return hypot(b[0] - a[0], b[1] - a[1])


def _along(a: Spot, b: Spot, by: float) -> Spot:
    """So far from the first of two places towards the second."""
    long = _length(a, b)
    return a[0] + by * (b[0] - a[0]) / long, a[1] + by * (b[1] - a[1]) / long


def _out(place: Spot, a: Spot, b: Spot, by: float) -> Spot:
    """A place moved outward from a side that has the plate on its left."""
    long = _length(a, b)
    return place[0] + by * (b[1] - a[1]) / long, place[1] - by * (b[0] - a[0]) / long


def _moved(bend: Bend, low_x: float, low_y: float) -> Bend:
    start = bend.start[0] - low_x, bend.start[1] - low_y
    end = bend.end[0] - low_x, bend.end[1] - low_y
    return Bend(start, end, bend.direction, bend.angle_deg, bend.radius_mm, bend.order, bend.deduction_mm)
