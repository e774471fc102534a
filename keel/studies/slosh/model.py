"""From the tank's solids to what the compiled run takes."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from shapely.geometry import Polygon

from keel.design.document import Design
from keel.design.ports import Port
from keel.design.workshop import HouseRules
from keel.reference.units import MM3_PER_LITRE
from keel.solid.basins import Basins, basins
from keel.solid.compartments import Compartment, Opening
from keel.solid.polyhedron import Array, Waterline
from keel.solid.rings import in_space
from keel.solid.solids import Solids
from keel.studies.demand.demand import demands
from keel.studies.liquid.draining import inside, place_of
from keel.studies.slosh.state import Feeds, Rooms, Ways

DAMPING_BARE, DAMPING_FOAM = 0.05, 0.3
SECONDS_PER_HOUR = 3600.0


@dataclass(frozen=True)
class Setup:
    """What the run is made with besides the tank: shares, litres and litres an hour."""

    fill: float = 0.25
    draw_l_per_h: float = 60.0
    return_l_per_h: float = 0.0
    transfer_ratio: float = 1.0
    surge_l: float = 0.0
    lift_l_per_h: float = 0.0
    foam: bool = False
    lag: bool = True


def setup_of(design: Design, rules: HouseRules) -> Setup:
    """A design's setting with its engine's draw filled in; zero where nothing is known.

    Parameters
    ----------
    design : Design
        The design.
    rules : HouseRules
        House rules.

    Returns
    -------
    Setup
        Fill, draw and return [L/h].
    """
    slosh, cases = design.slosh, demands(design.brief, rules)
    draw = slosh.draw_l_per_h
    if draw is None:
        draw = cases[0].flow_l_per_h if cases else 0.0
    return Setup(
        fill=slosh.fill,
        draw_l_per_h=draw,
        return_l_per_h=slosh.return_l_per_h,
        transfer_ratio=slosh.transfer_ratio,
        surge_l=slosh.surge_l,
        lift_l_per_h=slosh.lift_l_per_h,
        foam=design.inside.foam is not None,
        lag=slosh.lag,
    )


@dataclass(frozen=True)
class SloshTank:
    """A tank ready to be run."""

    solids: Solids
    basins: Basins
    packed: Rooms
    ways: Ways
    pickups: list[Port]
    transfers: list[Port]
    places: Array
    """Pickups' inlets in vehicle axes, shape (n, 3) [mm]."""
    pickup_in: list[int]
    return_in: int
    transfer_places: Array
    transfer_in: list[int]

    @property
    def rooms(self) -> list[Compartment]:
        """The pieces of the compartments that have one pool each."""
        return self.basins.rooms

    @property
    def openings(self) -> list[Opening]:
        """The ways between them."""
        return self.basins.openings

    def only(self, rooms: Sequence[int]) -> tuple[Rooms, list[Opening]]:
        """Some of the pieces, by their numbers, and the ways between them."""
        parts, numbers = self.basins, {room: place for place, room in enumerate(rooms)}
        openings = [
            replace(way, first=numbers[way.first], second=numbers[way.second])
            for way in parts.openings
            if way.first in numbers and way.second in numbers
        ]
        bodies = sorted({parts.body[room] for room in rooms})
        some = replace(
            parts,
            rooms=[parts.rooms[room] for room in rooms],
            body=[bodies.index(parts.body[room]) for room in rooms],
            bodies=[parts.bodies[body] for body in bodies],
            openings=openings,
        )
        return _packed(some), openings

    def feeds(self, setup: Setup) -> Feeds:
        """What is drawn, returned and moved."""
        per_second = MM3_PER_LITRE / SECONDS_PER_HOUR
        return Feeds(
            self.places,
            np.array(self.pickup_in, dtype=np.int64),
            self.return_in,
            self.transfer_places,
            np.array(self.transfer_in, dtype=np.int64),
            setup.transfer_ratio,
            setup.surge_l * MM3_PER_LITRE,
            setup.lift_l_per_h * per_second,
        )

    def level(self, fill: float) -> Array:
        """What is in each compartment with so much of each cell filled, on the level [mm³]."""
        up, held = np.array([0.0, 0.0, 1.0]), np.zeros(len(self.rooms))
        for cell in {room.cell for room in self.rooms}:
            mine = [i for i, room in enumerate(self.rooms) if room.cell == cell]
            lines = [Waterline(self.rooms[i].mesh, up) for i in mine]
            wanted = fill * sum(self.packed.capacity[i] for i in mine)
            low, high = min(x.lowest for x in lines), max(x.lowest + x.depth for x in lines)
            for _ in range(60):
                middle = (low + high) / 2
                if sum(line.volume(min(max(middle - line.lowest, 0.0), line.depth)) for line in lines) < wanted:
                    low = middle
                else:
                    high = middle
            for i, line in zip(mine, lines, strict=True):
                held[i] = line.volume(min(max(high - line.lowest, 0.0), line.depth))
        return held


def slosh_tank(solids: Solids, ports: Sequence[Port]) -> SloshTank | None:
    """Part a tank into compartments and find what is drawn from which; None without a pickup in it.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    ports : sequence of Port
        Ports of the design.

    Returns
    -------
    SloshTank or None
        Bodies of fuel, ways between them, pickups.
    """
    pickups = [(port, place_of(solids, port)) for port in ports if port.role == "pickup" and not port.capped]
    parts = basins(solids, np.array([place for _, place in pickups]).reshape(-1, 3))
    rooms = parts.rooms
    drawn = [(port, place, room) for port, place in pickups if (room := _room_of(rooms, place)) is not None]
    if not drawn:
        return None
    moved = [
        (port, place, room)
        for port in ports
        if port.role == "transfer" and not port.capped
        for place in [place_of(solids, port)]
        if (room := _room_of(rooms, place)) is not None
    ]
    returns = [_room_of(rooms, place_of(solids, port)) for port in ports if port.role == "return" and not port.capped]
    home = next((room for room in returns if room is not None), drawn[0][2])
    return SloshTank(
        solids=solids,
        basins=parts,
        packed=_packed(parts),
        ways=_ways(parts),
        pickups=[port for port, _, _ in drawn],
        transfers=[port for port, _, _ in moved],
        places=np.array([place for _, place, _ in drawn]).reshape(-1, 3),
        pickup_in=[room for _, _, room in drawn],
        return_in=home,
        transfer_places=np.array([place for _, place, _ in moved]).reshape(-1, 3),
        transfer_in=[room for _, _, room in moved],
    )


def _room_of(rooms: Sequence[Compartment], place: Array) -> int | None:
    return next((i for i, room in enumerate(rooms) if inside(room, place)), None)


def _packed(parts: Basins) -> Rooms:
    """Foam is in the way evenly: a compartment holds less, at the same levels, so its normals shrink by that share."""
    rooms, bodies = parts.rooms, parts.bodies
    points = np.vstack([room.mesh.points for room in rooms])
    point_at = _starts([len(room.mesh.points) for room in rooms])
    triangles = np.vstack([room.mesh.triangles + first for room, first in zip(rooms, point_at, strict=False)])
    sizes = np.array([np.ptp(body.mesh.points, axis=0) for body in bodies])
    capacity = np.array([room.mesh.volume_mm3 for room in rooms])
    return Rooms(
        points=np.ascontiguousarray(points),
        point_at=point_at,
        triangles=np.ascontiguousarray(triangles),
        area_vectors=np.vstack([room.mesh.area_vectors * room.mesh.porosity for room in rooms]),
        triangle_at=_starts([len(room.mesh.triangles) for room in rooms]),
        capacity=capacity,
        body=np.array(parts.body, dtype=np.int64),
        lengths=np.ascontiguousarray(np.maximum(sizes[:, :2], 1.0)),
        plan=np.array([body.mesh.volume_mm3 for body in bodies]) / np.maximum(sizes[:, 2], 1.0),
    )


def _ways(parts: Basins) -> Ways:
    """An open face has no plate's name: liquid on both sides of it is one."""
    openings = parts.openings
    planes = np.zeros((len(openings), 2, 3))
    for k, opening in enumerate(openings):
        for row, axis in enumerate(i for i in range(3) if i != opening.axis):
            planes[k, row, axis] = 1.0
    middles = np.array([_centroid(opening) for opening in openings]).reshape(-1, 3)
    return Ways(
        rings=np.vstack([opening.ring for opening in openings]) if openings else np.zeros((0, 3)),
        ring_at=_starts([len(opening.ring) for opening in openings]),
        planes=planes,
        middles=middles,
        spans=np.array([np.linalg.norm(o.ring - m, axis=1).max() for o, m in zip(openings, middles, strict=True)]),
        areas=np.array([Polygon(_flat(opening)).area for opening in openings]),
        sides=np.array([(opening.first, opening.second) for opening in openings], dtype=np.int64).reshape(-1, 2),
        doors=np.array([opening.way for opening in openings], dtype=np.int64),
        cracks=np.array([opening.crack_mm if opening.way else 0.0 for opening in openings]),
        faces=np.array([k for k, opening in enumerate(openings) if not opening.baffle], dtype=np.int64),
    )


def _flat(opening: Opening) -> Array:
    return np.delete(opening.ring, opening.axis, axis=1)


def _centroid(opening: Opening) -> Array:
    middle = Polygon(_flat(opening)).centroid
    return in_space(np.array(middle.coords[0]), opening.axis, opening.ring[0, opening.axis])


def _starts(counts: Sequence[int]) -> np.ndarray:
    return np.concatenate([[0], np.cumsum(counts)]).astype(np.int64)
