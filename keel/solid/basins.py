"""Basins: compartments in pieces of one pool each, whichever way the vehicle leans, and all ways between them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from shapely.geometry import Polygon, box

from keel.solid.compartments import Compartment, Opening, compartments, room_at
from keel.solid.parting import Cut, drains_of, parted
from keel.solid.polyhedron import Array
from keel.solid.rings import in_space
from keel.solid.solids import Solids

KEPT_SHARE = 1e-3
"""One surface may misplace this share of a cell."""
STEP_OFF_MM = 0.1
"""Beyond an open face, where the pieces on its two sides are looked for [mm]."""
LEAST_FACE_MM2 = 1.0
FAR_MM = 1e6


@dataclass(frozen=True)
class Basins:
    """A tank parted for the slosh run.

    Attributes
    ----------
    rooms : list of Compartment
        The pieces, compartment by compartment.
    body : list of int
        Which compartment each is a piece of: pieces of one swing together.
    bodies : list of Compartment
        The compartments as plates make them.
    openings : list of Opening
        Plates' openings and the pieces' open faces.
    left_mm3 : float
        The most that one surface through a piece still misplaces [mm³].
    """

    rooms: list[Compartment]
    body: list[int]
    bodies: list[Compartment]
    openings: list[Opening]
    left_mm3: float


def basins(solids: Solids, inlets: Array) -> Basins:
    """Part a tank's compartments until each piece has one pool.

    Parameters
    ----------
    solids : Solids
        The tank.
    inlets : ndarray, shape (n, 3)
        Where fuel is drawn [mm].

    Returns
    -------
    Basins
    """
    bodies, through_plates = compartments(solids, humps=False)
    whole = {cell.name: cell.mesh.volume_mm3 for cell in solids.cells}
    drains = np.vstack([inlets, *(drains_of(way.ring, way.axis, way.off_mm) for way in through_plates)])
    rooms, body, cuts, left = list[Compartment](), list[int](), list[list[Cut]](), 0.0
    for number, space in enumerate(bodies):
        found = parted(space.solid, KEPT_SHARE * whole[space.cell], drains)
        pieces = sorted(found.pieces, key=lambda piece: tuple(piece.mesh.points.mean(axis=0).round(3)))
        for name, piece in zip(_names(space.name, len(pieces)), pieces, strict=True):
            mesh = replace(piece.mesh, porosity=space.mesh.porosity)
            rooms.append(Compartment(name, space.cell, piece.solid, mesh))
        body += [number] * len(pieces)
        cuts.append(found.cuts)
        left = max(left, found.left_mm3)
    if len(rooms) == len(bodies):
        return Basins(rooms, body, bodies, through_plates, left)
    openings = [part for way in through_plates for part in _placed(way, [*cuts[way.first], *cuts[way.second]], rooms)]
    openings += [part for own in cuts for cut in own for part in _open_faces(cut, own, rooms)]
    return Basins(rooms, body, bodies, openings, left)


def _names(name: str, count: int) -> list[str]:
    between = "." if name[-1].isdigit() else " "
    return [name] if count == 1 else [f"{name}{between}{number + 1}" for number in range(count)]


def _open_faces(cut: Cut, cuts: Sequence[Cut], rooms: Sequence[Compartment]) -> Iterator[Opening]:
    for ring in cut.rings:
        if Polygon(ring).exterior.is_ccw:
            face = Opening("", 0, 0, in_space(ring, cut.axis, cut.at), cut.axis, off_mm=STEP_OFF_MM)
            yield from _placed(face, cuts, rooms)


def _placed(way: Opening, cuts: Sequence[Cut], rooms: Sequence[Compartment]) -> Iterator[Opening]:
    """A way in parts where cuts cross it, each between the pieces on its two sides."""
    flat = Polygon(np.delete(way.ring, way.axis, axis=1))
    for part in _parted(flat if flat.is_valid else flat.buffer(0), way.axis, cuts):
        ring = in_space(np.array(part.exterior.coords)[:-1], way.axis, way.ring[0, way.axis])
        spot = in_space(np.array(part.representative_point().coords[0]), way.axis, way.ring[0, way.axis])
        first, second = (room_at(rooms, spot, way.axis, side) for side in (-way.off_mm, way.off_mm))
        if first is not None and second is not None and first != second:
            yield replace(way, first=first, second=second, ring=ring)


def _parted(face: Polygon, axis: int, cuts: Sequence[Cut]) -> Iterator[Polygon]:
    """A face along the strips between planes that cross it."""
    strips = [box(-FAR_MM, -FAR_MM, FAR_MM, FAR_MM)]
    for other in (i for i in range(3) if i != axis):
        places = sorted({cut.at for cut in cuts if cut.axis == other})
        edges = [-FAR_MM, *places, FAR_MM]
        across = other - (other > axis)
        low, high = (edges[:-1], edges[1:])
        bands = [
            box(a, -FAR_MM, b, FAR_MM) if across == 0 else box(-FAR_MM, a, FAR_MM, b)
            for a, b in zip(low, high, strict=True)
        ]
        strips = [strip.intersection(band) for strip in strips for band in bands]
    for strip in strips:
        left = face.intersection(strip)
        for part in getattr(left, "geoms", [left]):
            if isinstance(part, Polygon) and part.area >= LEAST_FACE_MM2:
                yield part
