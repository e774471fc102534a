"""Ports' holes carried from the tank to the flats: each lands on the piece that lies there."""

from collections.abc import Callable, Sequence
from dataclasses import replace

import numpy as np

from keel.design.ports import Port
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.standing import OUTWARD, aside, surface_at
from keel.studies.sheet.lying import Lying, to_flat
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import Bend, Bore, Direction, FlatPart, Mark, Roll, Spot
from keel.studies.sheet.placing import matrix_of


def with_bores(made: Sheet, pieces: Sequence[Lying], solids: Solids, ports: Sequence[Port]) -> Sheet:
    """A shell's flat parts with the holes of its ports.

    Parameters
    ----------
    made : Sheet
        All parts.
    pieces : sequence of Lying
        Those of the shell where they lie.
    solids : Solids
        The shell worked out: where each port goes through its outside.
    ports : sequence of Port
        Those with a seat have holes: one in the middle, and those of its bolts.

    Returns
    -------
    Sheet
        Pieces of a part whose holes differ are parts of their own, a piece that lay turned over with its inside up.
        Ports whose hole lands on no part of the shell are named on all of them.
    """
    found: dict[tuple[str, str], list[Bore]] = {}
    lost = []
    for port in ports:
        if port.seat is None:
            continue
        landed = [(piece, bores) for piece in pieces if (bores := _bores(piece, solids, port))]
        if not landed:
            lost.append(port.name)
        for piece, bores in landed[:1]:
            found.setdefault((piece.part.name, piece.place.name), []).extend(bores)
    parts = [one for part in made.parts for one in _pieces(part, found)]
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


def _pieces(part: FlatPart, found: dict[tuple[str, str], list[Bore]]) -> list[FlatPart]:
    """A part as it is, or its pieces one by one where they have holes."""
    bores = {place.name: found.get((part.name, place.name), []) for place in part.places}
    if not any(bores.values()):
        return [part]
    if len(part.places) == 1:
        return [replace(part, bores=bores[part.places[0].name])]
    made = []
    for place in part.places:
        one = replace(
            part,
            name=f"{part.name}-{place.name}",
            title=f"{part.title}, {place.name}",
            quantity=1,
            places=[place],
            bores=bores[place.name],
        )
        made.append(_turned_over(one) if place.turned else one)
    return made


def _turned_over(part: FlatPart) -> FlatPart:
    """A part as it is seen from its other side, which is its inside."""
    long = part.length_mm

    def over(spot: Spot) -> Spot:
        return long - spot[0], spot[1]

    def ring(spots: Sequence[Spot]) -> list[Spot]:
        return [over(spot) for spot in reversed(spots)]

    other: dict[Direction, Direction] = {"up": "down", "down": "up"}
    flip = np.diag([-1.0, 1.0, -1.0, 1.0])
    flip[0, 3], flip[2, 3] = long, part.thickness_mm
    places = [
        replace(place, base=over(place.base), matrix=(matrix_of(place) @ flip).ravel().tolist(), turned=False)
        for place in part.places
    ]
    return replace(
        part,
        outline=ring(part.outline),
        corners=ring(part.corners),
        holes=[ring(hole) for hole in part.holes],
        bends=[_bend_over(bend, over, other) for bend in part.bends],
        rolls=[
            Roll(over(r.start), over(r.end), over(r.until), over(r.stop), other[r.direction], r.angle_deg, r.radius_mm)
            for r in part.rolls
        ],
        marks=[Mark(over(mark.start), over(mark.end), mark.label) for mark in part.marks],
        bores=[replace(bore, middle=over(bore.middle)) for bore in part.bores],
        places=places,
    )


def _bend_over(bend: Bend, over: Callable[[Spot], Spot], other: dict[Direction, Direction]) -> Bend:
    return replace(bend, start=over(bend.start), end=over(bend.end), direction=other[bend.direction])
