"""What the pickup can't reach and what air can't get out, cell by cell, in an attitude."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import inf
from typing import Literal, Protocol

import numpy as np
from manifold3d import Manifold

from keel.analysis.parts import PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.attitude import Attitude, specific_force
from keel.design.ports import BREATHES, DRAWS, Port, drawing, opened
from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Array, Mesh, Waterline
from keel.solid.pools import Pool, Pools, jittered_points
from keel.solid.solids import Cell, Solids
from keel.solid.standing import lid_height
from keel.studies.result import Point, flat


@dataclass(frozen=True, slots=True)
class Remainder:
    """One pool of fuel that stays, or one pocket of air.

    `faces` has the walls that it touches as triangles: coordinates x, y, z one after the other [mm].
    """

    kind: Literal["fuel", "air"]
    cell: str
    litres: float
    level_mm: float
    own: bool
    place: Point
    faces: list[float]


@dataclass(frozen=True, slots=True)
class Drained:
    """One cell drained to its pickup and filled to its vent, in one attitude.

    `usable_l` and `stranded_l` are empty without a pickup in the cell, `trapped_l` without a vent or filler.
    `from_l` is what was in it to begin with.
    """

    cell: str
    brimful_l: float
    from_l: float
    stranded_l: float | None
    usable_l: float | None
    trapped_l: float | None
    pools: list[Remainder]
    pockets: list[Remainder]


OFF_FLOOR_MM = 5.0
"""A pickup's inlet stands this far off the floor where nothing else is typed [mm] (house rule)."""
ON_FLOOR_MM = 1.0
"""How far over the floor a sock or a sprung sleeve draws from it [mm]."""
BESIDE_MM = 0.1
"""So far beside a plate the shell's own floor is looked for [mm]."""
FLUSH_MM = 1e-3
"""How far under the lid's inside an opening flush with it is taken [mm]."""


def place_of(solids: Solids, port: Port) -> Array:
    """A port's opening in vehicle axes, shape (3,) [mm]; outside the tank where it has no floor or lid to go by.

    An inlet on a hanger that is too short for its tank hangs above the floor by what is missing.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    port : Port
        Any port.

    Returns
    -------
    ndarray
        Shape (3,) [mm].
    """
    x, y, z = solids.datum[0] + port.x_mm, solids.datum[1] + port.y_mm, solids.datum[2]
    if port.z_mm is not None:
        return np.array([x, y, z + port.z_mm])
    span = span_at(solids, x, y) if port.role != "drain" else _beside_plates(solids, x, y)
    return np.array([x, y, z if span is None else _follows(solids, port, *span)])


def span_at(solids: Solids, x: float, y: float) -> tuple[float, float] | None:
    """Heights of floor and lid at a place, from the lowest to the highest that is open there [mm].

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    x : float
        Forward [mm].
    y : float
        Left [mm].

    Returns
    -------
    (float, float) or None
        Floor and lid in vehicle axes [mm]; None outside the tank.
    """
    low, high = solids.bounds.low[2] - 1.0, solids.bounds.high[2] + 1.0
    hits = [hit.position[2] for hit in solids.inner.ray_cast([x + 1e-5, y + 1e-5, low], [x + 1e-5, y + 1e-5, high])]
    return (min(hits), max(hits)) if hits else None


def _beside_plates(solids: Solids, x: float, y: float) -> tuple[float, float] | None:
    """Floor and lid as the shell has them, where a plate stands at a place: beside it, not through its holes [mm]."""
    places = [(x, y)]
    for plate in solids.plates.values():
        low_x, low_y, _, high_x, high_y, _ = plate.slab.bounding_box()
        across = high_x - low_x < high_y - low_y
        if across and low_x - BESIDE_MM < x < high_x + BESIDE_MM:
            places = [(side, v) for side in (low_x - BESIDE_MM, high_x + BESIDE_MM) for _, v in places]
        elif not across and low_y - BESIDE_MM < y < high_y + BESIDE_MM:
            places = [(u, side) for side in (low_y - BESIDE_MM, high_y + BESIDE_MM) for u, _ in places]
    spans = [span for place in places if (span := span_at(solids, *place)) is not None]
    return (min(low for low, _ in spans), max(high for _, high in spans)) if spans else None


class Space(Protocol):
    """A closed space: a cell, or a compartment of one."""

    @property
    def solid(self) -> Manifold:
        """The space as a solid."""
        ...

    @property
    def mesh(self) -> Mesh:
        """Its surface."""
        ...


def inside(cell: Space, place: Array) -> bool:
    """Whether a place lies in a space, or within a hair of it: a ray upward leaves it once more than it enters.

    Parameters
    ----------
    cell : Space
        A space with its mesh.
    place : ndarray
        Shape (3,) [mm].

    Returns
    -------
    bool
        True inside.
    """
    above = cell.solid.bounding_box()[5] + 1.0
    return any(len(cell.solid.ray_cast(list(p), [p[0], p[1], above])) % 2 == 1 for p in jittered_points(place))


def _follows(solids: Solids, port: Port, floor: float, lid: float) -> float:
    """Height of an opening that follows floor or lid [mm]."""
    if port.role not in DRAWS:
        return floor + FLUSH_MM if port.role == "drain" else lid - FLUSH_MM
    off = inlet_off_mm(port)
    return floor + off + max(0.0, short_by_mm(solids, port, floor))


def inlet_off_mm(port: Port) -> float:
    """How far off the floor a pickup's inlet stands where it reaches [mm].

    Parameters
    ----------
    port : Port
        A pickup.

    Returns
    -------
    float
        Height [mm].
    """
    resting = port.hanger is not None and (port.hanger.kind == "sock" or port.hanger.sprung)
    return ON_FLOOR_MM if resting else OFF_FLOOR_MM


def seat_height(solids: Solids, port: Port) -> float:
    """Height of the plane that a port in the roof is seated on: the sheet there and its ring [mm].

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    port : Port
        A port in the roof.

    Returns
    -------
    float
        In vehicle axes [mm].
    """
    x, y = solids.datum[0] + port.x_mm, solids.datum[1] + port.y_mm
    lid = lid_height(solids, x, y, solids.datum[2])
    return lid + ((port.seat.plate_mm or 0.0) if port.seat else 0.0)


def short_by_mm(solids: Solids, port: Port, floor: float) -> float:
    """Depth from a hanger's seat to the floor less what it is made for: below zero it has to be cut [mm].

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    port : Port
        A port with a hanger.
    floor : float
        Height of the floor under it [mm].

    Returns
    -------
    float
        Length [mm]; above zero it doesn't reach.
    """
    if port.hanger is None or port.hanger.remote:
        return 0.0
    return seat_height(solids, port) - floor - port.hanger.made_for_mm - port.hanger.extend_mm


def places_in(solids: Solids, cell: Cell, ports: Sequence[Port]) -> list[Array]:
    """Places of those ports that open into a cell."""
    places = [place_of(solids, port) for port in ports]
    return [place for place in places if inside(cell, place)]


def drained(
    solids: Solids, ports: Sequence[Port], attitude: Attitude, levels: Sequence[float] | None = None
) -> list[Drained]:
    """Drain every cell from brimful, or from a level, to its pickups, and fill it to its vents.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    ports : sequence of Port
        Pickups, vents and fillers count; several pickups or vents in a cell work together.
    attitude : Attitude
        How the vehicle stands and moves, held steady.
    levels : sequence of float, optional
        How high each cell's one surface stands over its lowest place, along the force felt [mm]; by default brimful.

    Returns
    -------
    list of Drained
        One for each cell. Air stays where it can't get to the vent; without a vent, to the filler. The
        filler is taken as sealed round the nozzle, the air as not compressed.
    """
    force = specific_force(attitude)
    tops = [inf] * len(solids.cells) if levels is None else levels
    return [_drained(solids, cell, ports, force, top) for cell, top in zip(solids.cells, tops, strict=True)]


def _drained(solids: Solids, cell: Cell, ports: Sequence[Port], force: Array, top: float) -> Drained:
    brimful = cell.mesh.volume_mm3 / MM3_PER_LITRE
    held = brimful if top == inf else cell.mesh.along(-force).volume(top) / MM3_PER_LITRE
    pools = _left(cell, places_in(solids, cell, drawing(ports)), -force, top)
    breathes, fills = opened(ports, *BREATHES), opened(ports, "filler")
    outlets = places_in(solids, cell, breathes) or places_in(solids, cell, fills)
    pockets = _left(cell, outlets, force)
    stranded = None if pools is None else sum(pool.litres for pool in pools)
    return Drained(
        cell=cell.name,
        brimful_l=brimful,
        from_l=held,
        stranded_l=stranded,
        usable_l=None if stranded is None else held - stranded,
        trapped_l=None if pockets is None else sum(pocket.litres for pocket in pockets),
        pools=pools or [],
        pockets=pockets or [],
    )


def _left(cell: Cell, places: list[Array], up: Array, top: float = inf) -> list[Remainder] | None:
    """What stays behind with some outlets of what lay below a level; None without an outlet."""
    if not places:
        return None
    tree = Pools(cell.mesh.along(up))
    kind: Literal["fuel", "air"] = "fuel" if up[2] > 0 else "air"
    levels = {round(float(place @ tree.line.up - tree.line.lowest), 6) for place in places}
    return [
        _remainder(tree.line, pool, kind, cell.name, round(pool.level_mm, 6) in levels)
        for pool in (pool.up_to(top, tree.line) for pool in tree.stranded(*places))
    ]


def _remainder(line: Waterline, pool: Pool, kind: Literal["fuel", "air"], cell: str, own: bool) -> Remainder:
    faces = line.below(pool.level_mm, pool.triangles)
    middle = faces.reshape(-1, 3).mean(axis=0) if len(faces) else np.zeros(3)
    return Remainder(
        kind=kind,
        cell=cell,
        litres=pool.volume_mm3 / MM3_PER_LITRE,
        level_mm=pool.level_mm,
        own=own,
        place=Point.of(middle),
        faces=flat(faces),
    )


def level_drained(solids: Solids, ports: Sequence[Port]) -> list[Drained]:
    """Every cell drained at rest on the level."""
    return drained(solids, ports, Attitude())


def ports_outside(solids: Solids, ports: Sequence[Port]) -> set[str]:
    """Ids of ports that open into no cell."""
    places = {port.id: place_of(solids, port) for port in ports}
    return {name for name, place in places.items() if not any(inside(cell, place) for cell in solids.cells)}


LEVEL = study(level_drained, SOLIDS, PORTS)
PORTS_OUTSIDE = study(ports_outside, SOLIDS, PORTS)
