"""What is cut out of the flats: ports' holes, each on the piece that lies there, and the openings of features."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from shapely.geometry.base import BaseGeometry

from keel.design.ports import Port
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.standing import OUTWARD, aside, surface_at
from keel.studies.sheet.lying import Lying, to_flat
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.opened import opened_part, turned_over
from keel.studies.sheet.openings import Opening
from keel.studies.sheet.parts import Bore, FlatPart, Mark, net_of_bores
from keel.studies.sheet.witness import Landed


def with_holes(
    made: Sheet,
    pieces: Sequence[Lying],
    opened: Sequence[Opening],
    etched: Sequence[Landed],
    solids: Solids,
    ports: Sequence[Port],
) -> Sheet:
    """A shell's flat parts with what features take out of them and the holes of its ports.

    Parameters
    ----------
    made : Sheet
        All parts.
    pieces : sequence of Lying
        All that lie where a port may land: those of the shell, and features' plates.
    opened : sequence of Opening
        What features take out.
    etched : sequence of Landed
        Where what stands inside lands.
    solids : Solids
        The shell worked out: where each port goes through its outside.
    ports : sequence of Port
        Those with a seat have holes: one in the middle, and those of its bolts.

    Returns
    -------
    Sheet
        Pieces of a part whose holes differ are parts of their own, a piece that lay turned over with its inside up;
        so are the pieces that an opening parts. Ports whose hole lands on no part are named on all of the shell's.
    """
    cut = {(one.part, one.piece): one.shape for one in opened}
    marks = {(one.part, one.piece): one.marks for one in etched}
    bores: dict[tuple[str, str], list[Bore]] = {}
    lost = []
    for port in ports:
        if port.seat is None:
            continue
        landed = [(piece, found) for piece in pieces if (found := _bores(piece, solids, port))]
        if not landed:
            lost.append(port.name)
        for piece, found in landed[:1]:
            bores.setdefault((piece.part.name, piece.place.name), []).extend(found)
    parts = [net_of_bores(one) for part in made.parts for one in _pieces(part, bores, cut, marks)]
    return replace(made, parts=[part if part.feature else replace(part, holes_not_drawn=lost) for part in parts])


def _bores(piece: Lying, solids: Solids, port: Port) -> list[Bore]:
    """The holes of a port on a piece; none where its middle doesn't land there."""
    assert port.seat is not None
    middle = surface_at(solids, port)
    if not _looks(piece, middle, np.array(OUTWARD[port.face])):
        return []
    holes = [(0, middle, port.seat.hole_mm)]
    if port.seat.bolts and port.seat.bolt_circle_mm and port.seat.bolt_mm:
        out = np.array(OUTWARD[port.face])
        for number in range(port.seat.bolts):
            deg = port.clock_deg + 360 * number / port.seat.bolts
            spot = middle + port.seat.bolt_circle_mm / 2 * aside(out, deg)
            holes.append((number + 1, spot, port.seat.bolt_mm))
    landed = [(bolt, to_flat(piece, spot), across) for bolt, spot, across in holes]
    return [Bore(port.id, port.name, on.spot, across, bolt) for bolt, on, across in landed if on is not None]


def _looks(piece: Lying, spot: Array, out: Array) -> bool:
    """Whether a place lies on a piece whose outside looks that way there, at least half."""
    on = to_flat(piece, spot)
    if on is None:
        return False
    if on.turn is not None:
        return True
    inward = piece.panels[on.panel].matrix[:3, 2] * (-1 if piece.place.turned else 1)
    return bool(-inward @ out > 0.5)


def _pieces(
    part: FlatPart,
    bores: dict[tuple[str, str], list[Bore]],
    cut: dict[tuple[str, str], BaseGeometry],
    marks: dict[tuple[str, str], list[Mark]],
) -> list[FlatPart]:
    """A part as it is, or its pieces one by one where something is cut out of them."""
    keys = [(part.name, place.name) for place in part.places]
    if not any(key in bores or key in cut or key in marks for key in keys):
        return [part]
    if len(keys) == 1:
        own = replace(part, bores=bores.get(keys[0], []), marks=[*part.marks, *marks.get(keys[0], [])])
        return opened_part(own, cut.get(keys[0]))
    made: list[FlatPart] = []
    for place, key in zip(part.places, keys, strict=True):
        one = replace(
            part,
            name=f"{part.name}-{place.name}",
            title=f"{part.title}, {place.name}",
            quantity=1,
            places=[place],
            bores=bores.get(key, []),
            marks=[*part.marks, *marks.get(key, [])],
        )
        made += [turned_over(each) if place.turned else each for each in opened_part(one, cut.get(key))]
    return made
