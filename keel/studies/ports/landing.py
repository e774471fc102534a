"""Whether a seat lands on flat sheet, clear of bends, seams and its neighbours."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import cos, hypot, pi, sin

from keel.analysis.parts import PORTS, RULES, SEAM, SOLIDS
from keel.analysis.study import study
from keel.design.features import Face
from keel.design.ports import Port
from keel.design.workshop import HouseRules
from keel.solid.facets import FACE_AXIS
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.liquid.draining import place_of

RING = 24
HAIR_MM = 1e-5
"""Beside the place, so that no ray runs along an edge [mm]."""
CLOSING_SEAM = "the closing seam"
FLAT_MM = 0.05
"""SheetPlane that stays within this of the middle counts as flat [mm]."""


@dataclass(frozen=True, slots=True)
class Landing:
    """The sheet round a port's seat."""

    id: str
    name: str
    face: Face
    flat_mm: float
    """Radius of sheet that is flat round its middle."""
    needed_mm: float
    on_sheet: bool
    seam_mm: float | None
    """From its edge to the nearest seam or plate weld on that face."""
    by: str


@dataclass(frozen=True, slots=True)
class Crowd:
    """Two ports whose seats and spanner room overlap."""

    first: str
    second: str
    apart_mm: float
    needed_mm: float


def landings(solids: Solids, ports: Sequence[Port], rules: HouseRules, seam: str) -> list[Landing]:
    """The sheet round every seat: flat, and far enough from bends, seams and plates."""
    return [_landing(solids, port, port.seat.outer_mm / 2, rules, seam) for port in ports if port.seat]


def _landing(solids: Solids, port: Port, radius: float, rules: HouseRules, seam: str) -> Landing:
    needed = radius + rules.land_mm
    place = place_of(solids, port)
    sheet_at = _probe(solids, port.face, place)
    middle = sheet_at(0.0, 0.0)
    gap, by = _to_weld(solids, port, seam)
    return Landing(
        id=port.id,
        name=port.name,
        face=port.face,
        flat_mm=0.0 if middle is None else _flat_radius(sheet_at, middle, needed),
        needed_mm=needed,
        on_sheet=middle is not None,
        seam_mm=None if gap is None else gap - radius,
        by=by,
    )


SheetPlane = tuple[float, float, float]
"""How far out the sheet is, and how it slopes along the face's two axes."""


Probe = Callable[[float, float], SheetPlane | None]


def _probe(solids: Solids, face: Face, place: Array) -> Probe:
    """What asks for the sheet on a face so far from a place along the face's axes."""
    axis, high = FACE_AXIS[face]
    u, v = (i for i in range(3) if i != axis)
    outside, beyond = [float(value) for value in place], [float(value) for value in place]
    outside[axis] = solids.bounds.high[axis] + 1.0 if high else solids.bounds.low[axis] - 1.0
    beyond[axis] = solids.bounds.low[axis] - 1.0 if high else solids.bounds.high[axis] + 1.0
    middle = outside[u] + HAIR_MM, outside[v] + HAIR_MM
    ray_cast = solids.outer.ray_cast

    def sheet_at(first: float, second: float) -> SheetPlane | None:
        outside[u] = beyond[u] = middle[0] + first
        outside[v] = beyond[v] = middle[1] + second
        hits = ray_cast(outside, beyond)
        if not hits:
            return None
        hit = min(hits, key=lambda found: abs(found.position[axis] - outside[axis]))
        normal = hit.normal
        level = float(normal[axis])
        steep = (-float(normal[u]) / level, -float(normal[v]) / level) if level else (0.0, 0.0)
        return float(hit.position[axis]), *steep

    return sheet_at


def _flat_radius(sheet_at: Probe, middle: SheetPlane, enough: float) -> float:
    """Radius of sheet that lies in one plane round a place, by halving, to half a millimetre [mm].

    A lid that slopes is as flat as a level one. What is flat for more than `enough` isn't looked at further.
    """
    height, first, second = middle

    def flat(radius: float) -> bool:
        for n in range(RING):
            off = (radius * cos(2 * pi * n / RING), radius * sin(2 * pi * n / RING))
            there = sheet_at(*off)
            if there is None or abs(there[0] - height - first * off[0] - second * off[1]) > FLAT_MM:
                return False
        return True

    if flat(enough):
        return enough
    low, high = 0.0, enough
    while high - low > 0.5:
        radius = (low + high) / 2
        low, high = (radius, high) if flat(radius) else (low, radius)
    return low


def _to_weld(solids: Solids, port: Port, seam: str) -> tuple[float | None, str]:
    """From a port's middle to the nearest plate's weld under it, or the closing seam of a box's lid or floor [mm]."""
    if port.face not in ("roof", "floor"):
        return None, ""
    at = (port.x_mm, port.y_mm)
    found: list[tuple[float, str]] = []
    for feature in solids.shell.features:
        if feature.kind in ("partition", "baffle"):
            wide = feature.wall_mm(solids.shell.feature_wall_mm)
            where = at["xy".index(feature.axis)]
            found.append((max(feature.at_mm - where, where - feature.at_mm - wide, 0.0), feature.name))
    if solids.shell.kind == "box" and seam.partition(",")[0] == ("lid" if port.face == "roof" else "floor"):
        across = 1 - solids.section.axis
        found.append((abs(at[across] - solids.body.size[across] / 2), CLOSING_SEAM))
    return min(found, default=(None, ""))


def crowds(solids: Solids, ports: Sequence[Port]) -> list[Crowd]:
    """Ports of one face that run into each other: seats, what stands there, room for hand and spanner."""
    found = []
    for place, one in enumerate(ports):
        for other in ports[place + 1 :]:
            if one.face != other.face:
                continue
            a, b = place_of(solids, one), place_of(solids, other)
            across = [i for i in range(3) if i != FACE_AXIS[one.face][0]]
            apart = hypot(*(float(a[i] - b[i]) for i in across))
            first, second = _half(one), _half(other)
            rooms = [first + second] if first and second else []
            rooms += [port.spanner_mm + half for port, half in ((one, second), (other, first)) if port.spanner_mm]
            needed = max(rooms, default=0.0)
            if apart < needed - 1e-6:
                found.append(Crowd(one.name, other.name, apart, needed))
    return found


def _half(port: Port) -> float:
    """How far from its middle a port's seat, or what stands there, takes up its face [mm]."""
    body = port.across_mm / 2 if port.stands_mm else 0.0
    return max(body, port.seat.outer_mm / 2 if port.seat else 0.0)


LANDINGS = study(landings, SOLIDS, PORTS, RULES, SEAM)
CROWDS = study(crowds, SOLIDS, PORTS)
