"""Compartments: what baffles make of a cell, and the openings between them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from manifold3d import CrossSection, Manifold, OpType
from shapely import unary_union
from shapely.geometry import Polygon, box
from shapely.geometry.base import BaseGeometry

from keel.design.features import Baffle, Door, Feature
from keel.solid.polyhedron import Array, Mesh
from keel.solid.pots import PotPlace
from keel.solid.rings import in_space
from keel.solid.shapes import block, holds, slice_rings, smooth_mesh
from keel.solid.solids import Solids

HAIR_MM = 1e-4
SMOOTH_MM = 0.05
"""Corners of compartments and openings closer together than this are one [mm]."""
SCRAP_MM3 = 500.0
"""Smaller pieces are crumbs of rounding."""
HUMP_MM = 5.0
"""A floor that rises less than this between two low places parts nothing [mm]."""
SLICES = 31
STEP_OFF_MM = 1.0
"""Beyond a plate's faces, where the compartments on its two sides are looked for [mm]."""


@dataclass(frozen=True)
class Compartment:
    """One space between baffles."""

    name: str
    cell: str
    solid: Manifold
    mesh: Mesh


@dataclass(frozen=True)
class Opening:
    """A way between two compartments: a ring in space, counter-clockwise about the baffle's axis [mm].

    `way` is zero for a plain opening; a door opens only from its first side to its second (+1) or back (−1), once
    the head over it is above `crack_mm`. Over a hump of the floor the whole section is an opening.
    """

    baffle: str
    first: int
    second: int
    ring: Array
    axis: int
    way: int = 0
    crack_mm: float = 0.0
    hump: bool = False
    off_mm: float = STEP_OFF_MM
    """How far to either side its two rooms begin: the plate is that thick [mm]."""


@dataclass(frozen=True)
class _Part:
    """Where a cell is parted: by a plate, or over a hump of its floor, where there is nothing."""

    name: str
    axis: int
    middle: float
    half: float
    doors: tuple[Door, ...] = ()
    hump: bool = False
    open: CrossSection | None = None
    """What the plate leaves open by the drawing: the solid is cut a hair larger."""


def compartments(solids: Solids, humps: bool = True) -> tuple[list[Compartment], list[Opening]]:
    """Part the cells at their baffles.

    Parameters
    ----------
    solids : Solids
        The shell worked out; its cells have the baffles' metal taken out and their openings left.
    humps : bool
        Whether a hump of the floor parts them too, in its middle.

    Returns
    -------
    compartments : list of Compartment
        Cell by cell, from the rear, then from the right. What stands in the openings themselves, as thick as the
        plate, is in none of them.
    openings : list of Opening
        What each baffle leaves open, piece by piece: cut in the middle of the plate.
    """
    parts = [_part(solids, feature) for feature in solids.shell.features if isinstance(feature, Baffle)]
    parts += _humps(solids, parts) if humps else []
    cuts = [_cut(solids, part) for part in parts]
    cuts += [_shut_off(place) for place in solids.pots]
    found: list[Compartment] = []
    for cell in solids.cells:
        if not cuts:
            found.append(Compartment(cell.name, cell.name, cell.solid, cell.mesh))
            continue
        whole = Manifold.batch_boolean([cell.solid, *cuts], OpType.Subtract)
        pieces = [piece for piece in whole.decompose() if piece.volume() > SCRAP_MM3]
        pieces.sort(key=_from_rear)
        names = _names(cell.name, pieces, solids.pots)
        for name, piece in zip(names, pieces, strict=True):
            mesh = replace(smooth_mesh(piece), porosity=cell.mesh.porosity)
            found.append(Compartment(name, cell.name, piece, mesh))
    openings = [opening for part in parts for opening in _openings(solids, part, parts, found)]
    openings += [opening for place in solids.pots for opening in _pot_openings(solids, place, found)]
    return found, openings


def _names(cell: str, pieces: Sequence[Manifold], pots: Sequence[PotPlace]) -> list[str]:
    """A name for each piece of a cell: that of the pot it lies in, else the cell's with a number where it is parted."""
    inside = [next((place.pot.name for place in pots if _lies_in(piece, place)), None) for piece in pieces]
    free = inside.count(None)
    numbers = iter(range(1, free + 1))
    return [name or (cell if free == 1 else f"{cell} {next(numbers)}") for name in inside]


def _lies_in(piece: Manifold, place: PotPlace) -> bool:
    low, high = place.box.low, place.box.high
    x0, y0, _, x1, y1, top = piece.bounding_box()
    return bool(low[0] < x0 and low[1] < y0 and x1 < high[0] and y1 < high[1] and top < high[2] + HAIR_MM)


def _shut_off(place: PotPlace) -> Manifold:
    """A pot's walls without its doors, and a hair under its rim: what parts its inside from the rest."""
    inside = place.column(place.inside).trim_by_plane([0.0, 0.0, -1.0], -(place.rim - HAIR_MM))
    return place.column(place.outside) - inside


def _pot_openings(solids: Solids, place: PotPlace, rooms: Sequence[Compartment]) -> list[Opening]:
    """Over the rim both ways, through doors as they are hung."""
    found = []
    for cell in solids.cells:
        over = CrossSection(slice_rings(cell.solid, 2, place.rim + HAIR_MM)) ^ CrossSection([place.inside])
        for ring in over.to_polygons():
            rim = in_space(ring, 2, place.rim)
            found += _opening(place.pot.name, rim, _spot_in(rim, 2), 2, STEP_OFF_MM, rooms)
    for door in place.pot.doors:
        ring, axis, inward = place.door_ring(door)
        step = place.wall / 2 + STEP_OFF_MM
        way = int(inward) if door.flap else 0
        found += _opening(place.pot.name, ring, _spot_in(ring, axis), axis, step, rooms, way, door.crack_mm)
    return found


def _from_rear(piece: Manifold) -> tuple[float, float]:
    box = piece.bounding_box()
    return round(box[0] + box[3], 3), round(box[1] + box[4], 3)


def _part(solids: Solids, baffle: Baffle) -> _Part:
    axis = "xy".index(baffle.axis)
    thick = baffle.wall_mm(solids.shell.feature_wall_mm)
    plate, middle = solids.plates.get(baffle.id), solids.datum[axis] + baffle.at_mm + thick / 2
    left_open = None if plate is None else plate.section - plate.left
    return _Part(baffle.name, axis, middle, thick / 2, baffle.doors, open=left_open)


def _humps(solids: Solids, plates: Sequence[_Part]) -> list[_Part]:
    """Where the floor rises between two low places, all the way across: the fuel of either side is its own.

    A saddle's lobes are such; one surface through both would let fuel through the tunnel.
    """
    if solids.shell.kind != "profile" and not any(map(_shapes_the_floor, solids.shell.features)):
        return []
    found = []
    for axis in (0, 1):
        low, high = solids.inner_body.low[axis], solids.inner_body.high[axis]
        places = np.linspace(low, high, SLICES + 2)[1:-1]
        floor = _floors(solids, axis, places)
        sides = np.maximum(np.minimum.accumulate(floor), np.minimum.accumulate(floor[::-1])[::-1])
        rise = floor - sides
        if rise.max() <= HUMP_MM:
            continue
        top = places[rise >= rise.max() - 0.5]
        middle = float((top[0] + top[-1]) / 2)
        if not any(plate.axis == axis and top[0] - 1 <= plate.middle <= top[-1] + 1 for plate in plates):
            found.append(_Part("the hump of the floor", axis, middle, 0.0, hump=True))
    return found


def _shapes_the_floor(feature: Feature) -> bool:
    """Whether a feature can make the floor rise or fall; a well let into the lid leaves it alone."""
    return feature.kind in ("relief", "sump") or (feature.kind == "well" and feature.face != "roof")


def _floors(solids: Solids, axis: int, places: Array) -> Array:
    """The lowest inside height in planes square to an axis, shape (n,): a section's corners lie on the mesh's edges."""
    found = np.full(len(places), np.inf)
    for cell in solids.cells:
        start = cell.mesh.corners.reshape(-1, 3)
        end = cell.mesh.corners[:, [1, 2, 0]].reshape(-1, 3)
        along = end[:, axis] - start[:, axis]
        # Each edge comes twice, there and back: once is enough.
        steep = along > 1e-9
        share = (places[:, None] - start[steep, axis]) / along[steep]
        height = start[steep, 2] + share * (end[steep, 2] - start[steep, 2])
        found = np.minimum(found, np.where((share >= 0) & (share <= 1), height, np.inf).min(axis=1))
    return np.where(np.isinf(found), solids.inner_body.low[2], found)


def _cut(solids: Solids, part: _Part) -> Manifold:
    low = [v - 1.0 for v in solids.bounds.low]
    high = [v + 1.0 for v in solids.bounds.high]
    low[part.axis], high[part.axis] = part.middle - part.half - HAIR_MM, part.middle + part.half + HAIR_MM
    return block((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def _openings(solids: Solids, part: _Part, parts: Sequence[_Part], rooms: Sequence[Compartment]) -> list[Opening]:
    axis, middle, off = part.axis, part.middle, part.half + STEP_OFF_MM
    crossing, found = _strips([other for other in parts if other.axis != axis]), []
    for cell in solids.cells:
        rings = slice_rings(cell.solid, axis, middle)
        if part.open is not None:
            rings = (CrossSection(rings) ^ part.open).to_polygons()
        for shape in _pieces(rings, crossing):
            spot = in_space(np.array(shape.representative_point().coords[0]), axis, middle)
            door = next((d for d in part.doors if _behind(d, solids, spot, axis)), None)
            opens = 0 if door is None else (1 if door.opens == "ahead" else -1)
            crack = door.crack_mm if door else 0.0
            outline = np.array(shape.simplify(SMOOTH_MM).exterior.coords)[:-1]
            corners = in_space(outline, axis, middle)
            found += _opening(part.name, corners, spot, axis, off, rooms, opens, crack, part.hump)
    return found


def _strips(parts: Sequence[_Part]) -> BaseGeometry:
    """Where plates stand, in a plane that they cross."""
    far = 1e5
    return unary_union([box(p.middle - p.half - HAIR_MM, -far, p.middle + p.half + HAIR_MM, far) for p in parts])


def _pieces(rings: Sequence[Array], crossing: BaseGeometry) -> Iterator[Polygon]:
    """Outlines of what is open, parted where other plates cross: two plates open at their crossing make four ways."""
    for ring in rings:
        drawn = Polygon(ring)
        if not drawn.exterior.is_ccw:
            continue
        # A ring that touches itself is still an opening: it comes as the pieces between the places where it does.
        shape = drawn if drawn.is_valid else drawn.buffer(0)
        left = _without_slits(shape.difference(crossing) if crossing.intersects(shape) else shape)
        yield from (piece for piece in getattr(left, "geoms", [left]) if piece.area >= 1.0)


def _without_slits(shape: BaseGeometry) -> BaseGeometry:
    """Parted where it is thinner than rounding: along a round wall a slit joins what is open at a plate's ends."""
    if shape.convex_hull.area - shape.area < SMOOTH_MM:
        return shape
    return shape.buffer(-SMOOTH_MM, join_style="mitre").buffer(SMOOTH_MM, join_style="mitre")


def _spot_in(ring: Array, axis: int) -> Array:
    """A place inside a ring that is square to an axis."""
    flat = Polygon(np.delete(ring, axis, axis=1)).representative_point()
    return in_space(np.array(flat.coords[0]), axis, float(ring[0, axis]))


def _opening(
    name: str,
    ring: Array,
    spot: Array,
    axis: int,
    off: float,
    rooms: Sequence[Compartment],
    way: int = 0,
    crack: float = 0.0,
    hump: bool = False,
) -> list[Opening]:
    """A ring, and a spot in it, as the way between the compartments on its two sides; none where one is no other."""
    first, second = (room_at(rooms, spot, axis, side) for side in (-off, off))
    if first is None or second is None or first == second:
        return []
    return [Opening(name, first, second, ring, axis, way, crack, hump, off)]


def _behind(door: Door, solids: Solids, spot: Array, axis: int) -> bool:
    """Whether an opening at a spot is the one that a door hangs over."""
    along, up = spot[1 - axis] - solids.datum[1 - axis] - door.at_mm, spot[2] - solids.inner_body.low[2] - door.up_mm
    return bool(abs(along) <= door.wide_mm / 2 and 0 <= up <= door.high_mm)


def room_at(rooms: Sequence[Compartment], spot: Array, axis: int, off: float) -> int | None:
    """Which room lies so far off a spot along an axis; None for none."""
    place = spot.copy()
    place[axis] += off + 1.7e-5
    for number, room in enumerate(rooms):
        box = room.solid.bounding_box()
        if not all(box[i] <= place[i] <= box[i + 3] for i in range(3)):
            continue
        if holds(room.solid, place + np.array([1e-5, 1e-5, 0.0])):
            return number
    return None
