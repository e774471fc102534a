"""What the baffles leave: how far fuel runs free, how open each plate is, what can't drain or breathe."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from shapely.geometry import Polygon, box

from keel.analysis.parts import PORTS, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.features import Baffle
from keel.design.ports import DRAWS, Port, drawing
from keel.design.workshop import HouseRules
from keel.reference.flow import DISCHARGE
from keel.reference.units import MM3_PER_LITRE, STANDARD_GRAVITY
from keel.solid.compartments import Compartment, Opening, compartments
from keel.solid.polyhedron import Array
from keel.solid.rings import ring_area
from keel.solid.shapes import slice_rings
from keel.solid.solids import Solids
from keel.solid.standing import lid_height
from keel.studies.demand.demand import MOST_DRAWN
from keel.studies.liquid.draining import inside, place_of

NEAR_MM = 4.0
"""An opening that comes this near to a compartment's top or bottom lets its air or fuel out [mm]."""
LOW_SHARE = 0.25
"""A tank is low when so much of its height is left."""
SECONDS_PER_HOUR = 3600.0


Parted = tuple[list[Compartment], list[Opening]]
"""Compartments and the openings between them."""


@dataclass(frozen=True, slots=True)
class FreeRun:
    """The longest way in one direction that fuel runs without meeting a plate."""

    room: str
    axis: Literal["x", "y"]
    mm: float
    middle_mm: float
    """From the body's rear or right side."""


@dataclass(frozen=True, slots=True)
class Clear:
    """How much of its face a baffle leaves open."""

    id: str
    name: str
    share: float


@dataclass(frozen=True, slots=True)
class Shut:
    """A compartment whose top or bottom nothing lets out."""

    room: str
    traps: bool
    """Air, at its top."""
    holds: bool
    """Fuel, at its bottom."""


@dataclass(frozen=True, slots=True)
class Starved:
    """A compartment that is drawn from: how much lower the draw holds it when the tank is low."""

    room: str
    open_mm2: float
    head_mm: float


@dataclass(frozen=True, slots=True)
class Room:
    """One space between plates: what it holds, and how far fuel runs in it."""

    name: str
    litres: float
    along_mm: float
    across_mm: float


@dataclass(frozen=True, slots=True)
class Insides:
    """The inside in figures."""

    rooms: list[Room]
    longest: FreeRun
    plates: list[Clear]
    shut: list[Shut]
    unbrushed: list[str]
    """Compartments that a brush can't get into, through ports' holes and plates' openings."""
    starved: list[Starved]


def insides(
    solids: Solids, ports: Sequence[Port], brush_mm: float, draw_l_per_h: float, parted: Parted | None = None
) -> Insides:
    """What the inside leaves of the fuel's way.

    Parameters
    ----------
    solids : Solids
        The tank.
    ports : sequence of Port
        What is drawn through, and what a brush goes in by.
    brush_mm : float
        How wide an opening a brush needs [mm].
    draw_l_per_h : float
        Most that is drawn [L/h].
    parted : tuple, optional
        `compartments(solids)`, where it is known already.

    Returns
    -------
    Insides
        Free runs, clear areas, what can't drain, breathe or be brushed, and what the draw holds down:
        h = (Q / (C_d A))² / 2 g through what lies low of the openings.
    """
    rooms, openings = parted or compartments(solids)
    axes: tuple[Literal["x", "y"], ...] = ("x", "y")
    found = [
        Room(room.name, room.mesh.volume_mm3 / 1e6, *(float(np.ptp(room.mesh.points[:, i])) for i in (0, 1)))
        for room in rooms
    ]
    runs = [
        FreeRun(room.name, axis, float(high - low), float(low + high) / 2 - solids.datum[place])
        for room in rooms
        for place, axis in enumerate(axes)
        for low, high in [(room.mesh.points[:, place].min(), room.mesh.points[:, place].max())]
    ]
    baffles = [feature for feature in solids.shell.features if isinstance(feature, Baffle)]
    places = [(port.role, place_of(solids, port)) for port in ports if not port.capped]
    shut = [kept for i, room in enumerate(rooms) if baffles and (kept := _shut(i, room, openings, places))]
    return Insides(
        rooms=found,
        longest=max(runs, key=lambda run: run.mm),
        plates=[Clear(baffle.id, baffle.name, _share(solids, baffle, openings)) for baffle in baffles],
        shut=shut,
        unbrushed=_unbrushed(solids, ports, rooms, openings, brush_mm) if len(rooms) > 1 else [],
        starved=[
            _starved(number, rooms, openings, draw_l_per_h)
            for number, room in enumerate(rooms)
            if any(not o.hump and number in (o.first, o.second) for o in openings)
            and any(inside(room, place_of(solids, port)) for port in drawing(ports))
        ],
    )


def _unbrushed(
    solids: Solids, ports: Sequence[Port], rooms: Sequence[Compartment], openings: Sequence[Opening], brush_mm: float
) -> list[str]:
    """Compartments that can't be reached from a hole wide enough; none where there are no such holes yet."""
    holes = [port for port in ports if port.seat and port.seat.hole_mm >= brush_mm]
    reached = {i for i, room in enumerate(rooms) if any(inside(room, _mouth(solids, port)) for port in holes)}
    wide = [(o.first, o.second) for o in openings if not Polygon(_flat(o)).buffer(-brush_mm / 2).is_empty]
    for _ in rooms:
        reached |= {b for pair in wide for a, b in (pair, pair[::-1]) if a in reached}
    return [room.name for i, room in enumerate(rooms) if i not in reached] if holes else []


def _mouth(solids: Solids, port: Port) -> Array:
    """A place just inside a port's hole."""
    place = place_of(solids, port)
    if port.face == "roof":
        lid = lid_height(solids, float(place[0]), float(place[1]), solids.datum[2])
        return np.array([place[0], place[1], lid - solids.shell.thickness_mm - 1.0])
    return place


def _starved(number: int, rooms: Sequence[Compartment], openings: Sequence[Opening], draw_l_per_h: float) -> Starved:
    """What the draw does to the compartment it is drawn from, through what is open of its lower part inward.

    Neighbours that lie wholly over that part have run out into it by then: nothing is held back.
    """
    room, beside = rooms[number], [o for o in openings if number in (o.first, o.second)]
    low, high = float(room.mesh.points[:, 2].min()), float(room.mesh.points[:, 2].max())
    level, area = low + LOW_SHARE * (high - low), 0.0
    others = [rooms[o.first + o.second - number] for o in beside]
    if all(float(other.mesh.points[:, 2].min()) >= level for other in others):
        return Starved(room.name, 0.0, 0.0)
    for o in beside:
        inward = (o.second == number and o.way >= 0) or (o.first == number and o.way <= 0)
        if inward and o.axis != 2:
            ring = Polygon(_flat(o))
            left, _, right, _ = ring.bounds
            area += ring.intersection(box(left, low - 1, right, level)).area
    speed = draw_l_per_h * MM3_PER_LITRE / SECONDS_PER_HOUR / (DISCHARGE * area) if area else float("inf")
    return Starved(room.name, area, speed**2 / (2 * STANDARD_GRAVITY * 1000))


def _flat(opening: Opening) -> Array:
    return np.delete(opening.ring, opening.axis, axis=1)


def _share(solids: Solids, baffle: Baffle, openings: Sequence[Opening]) -> float:
    """Openings against the whole section, which is that beside the plate."""
    axis = "xy".index(baffle.axis)
    beside = solids.datum[axis] + baffle.at_mm - 0.5
    face = sum(ring_area(ring) for cell in solids.cells for ring in slice_rings(cell.solid, axis, beside))
    clear = sum(abs(ring_area(_flat(o))) for o in openings if o.baffle == baffle.name)
    return clear / face if face > 0 else 1.0


def _shut(
    number: int, room: Compartment, openings: Sequence[Opening], places: Sequence[tuple[str, Array]]
) -> Shut | None:
    low, high = float(room.mesh.points[:, 2].min()), float(room.mesh.points[:, 2].max())
    heights = [o.ring[:, 2] for o in openings if number in (o.first, o.second)]
    here = {role for role, place in places if inside(room, place)}
    traps = all(h.max() < high - NEAR_MM for h in heights) and "vent" not in here
    holds = all(h.min() > low + NEAR_MM for h in heights) and not here & {"drain", *DRAWS}
    return Shut(room.name, traps, holds) if traps or holds else None


def compartment_checks(
    solids: Solids, ports: Sequence[Port], rules: HouseRules, drawn_l_per_h: float | None, parted: Parted
) -> Insides:
    """The same by the house rules; nothing is held down where nothing is drawn."""
    return insides(solids, ports, rules.brush_mm, drawn_l_per_h or 0.0, parted)


COMPARTMENTS = study(compartments, SOLIDS).keeping(12)
CHECKS = study(compartment_checks, SOLIDS, PORTS, RULES, MOST_DRAWN, COMPARTMENTS)
