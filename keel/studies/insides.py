"""What the baffles leave: how far fuel runs free, how open each plate is, what can't drain or breathe."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from shapely.geometry import Polygon

from keel.design.features import Baffle
from keel.design.ports import DRAWS, Port
from keel.solid.build import Solids
from keel.solid.compartments import Compartment, Opening, compartments
from keel.solid.polyhedron import Array
from keel.solid.shapes import slice_rings
from keel.studies.draining import inside, place_of

NEAR_MM = 4.0
"""An opening that comes this near to a compartment's top or bottom lets its air or fuel out [mm]."""
BESIDE_MM = 15.0
"""A plate keeps this far from what hangs in the tank [mm]."""
TRIED_MM = 200


@dataclass(frozen=True, slots=True)
class FreeRun:
    """The longest way in one direction that fuel runs without meeting a plate."""

    room: str
    axis: Literal["x", "y"]
    mm: float


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


def insides(solids: Solids, ports: Sequence[Port]) -> Insides:
    """Free runs, clear areas, and what can't drain or breathe."""
    rooms, openings = compartments(solids)
    axes: tuple[Literal["x", "y"], ...] = ("x", "y")
    found = [
        Room(room.name, room.mesh.volume_mm3 / 1e6, *(float(np.ptp(room.mesh.points[:, i])) for i in (0, 1)))
        for room in rooms
    ]
    runs = [
        FreeRun(room.name, axis, mm)
        for room in found
        for axis, mm in zip(axes, (room.along_mm, room.across_mm), strict=True)
    ]
    baffles = [feature for feature in solids.shell.features if isinstance(feature, Baffle)]
    places = [(port.role, place_of(solids, port)) for port in ports if not port.capped]
    shut = [kept for i, room in enumerate(rooms) if baffles and (kept := _shut(i, room, openings, places))]
    return Insides(
        rooms=found,
        longest=max(runs, key=lambda run: run.mm),
        plates=[Clear(baffle.id, baffle.name, _share(solids, baffle, openings)) for baffle in baffles],
        shut=shut,
    )


def _share(solids: Solids, baffle: Baffle, openings: Sequence[Opening]) -> float:
    """Openings against the whole section, which is that beside the plate."""
    axis = "xy".index(baffle.axis)
    beside = solids.datum[axis] + baffle.at_mm - 0.5
    face = sum(
        Polygon(ring).area * (1 if Polygon(ring).exterior.is_ccw else -1)
        for cell in solids.cells
        for ring in slice_rings(cell.solid, axis, beside)
    )
    clear = sum(Polygon(np.delete(o.ring, o.axis, axis=1)).area for o in openings if o.baffle == baffle.name)
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


def clear_place(ports: Sequence[Port], axis: Literal["x", "y"], wanted: float) -> float:
    """The place nearest to the wanted one where a plate clears what hangs from the ports [mm]."""
    taken = [(port.x_mm if axis == "x" else port.y_mm, port.hangs_across_mm / 2 + BESIDE_MM) for port in ports]
    for off in range(0, TRIED_MM, 5):
        for at in (wanted - off, wanted + off):
            if all(abs(at - place) > half for place, half in taken):
                return at
    return wanted
