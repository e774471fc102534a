"""From the filler neck to the opening in the body: fall, cut lengths, overlap; room for hand, nozzle and an eye."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import asin, cos, degrees, radians, sin

import numpy as np
from manifold3d import Manifold

from keel.analysis.parts import BAY, MOUNT, PORTS, SOLIDS, VEHICLE
from keel.analysis.study import Maybe, study
from keel.design.bay import Bay
from keel.design.mount import FillerRoute, Mount
from keel.design.ports import Port
from keel.design.vehicle import Vehicle, VehicleCorner, VehiclePanel
from keel.solid.neighbours import solid_of_keep_out
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.standing import OUTWARD, surface_at
from keel.solid.vehicle import panel_box
from keel.studies.result import Point

SLACK = 1.03
HAND_MM, HAND_DEEP_MM = (110.0, 70.0), 120.0
"""What a hand passes to the wrist, and how far it reaches round the nozzle."""
NOZZLE_LONG_MM = 250.0
"""So much of a nozzle and its handle stands out of the opening."""
SPOUT_MM = 150.0
"""So far in a spout goes: the pipe behind the opening is straight that far."""
EYE_MM = 400.0
SIGHT_DEG = 45.0
"""An eye within this of the opening's axis sees the rising fuel."""
SIGHTS = 24
FAR_MM = 600.0


@dataclass(frozen=True, slots=True)
class Filler:
    """The way of the fuel in, from the body to the tank.

    Attributes
    ----------
    straight_mm : float
        From the neck's rim to the pipe at the opening.
    fall_deg : float
        Towards the tank, from the horizontal; below zero it climbs.
    hose_mm, vent_mm : float
        Cut lengths of fill hose and vent hose.
    turn_neck_deg, turn_opening_deg : float
        How far the hose bends at either end.
    hand_mm, nozzle_mm : float
        Nearest thing to the hand's room and to the nozzle.
    hand_at, nozzle_at : str
        What that is.
    sees : float
        Share of the places of an eye about the opening from which its rim is seen.
    bare_to : str
        Whom no metal without a gap stands between the hose and; empty where everybody is covered.
    """

    port: str
    name: str
    neck: Point
    opening: Point
    straight_mm: float
    fall_deg: float
    hose_mm: float
    vent_mm: float
    turn_neck_deg: float
    turn_opening_deg: float
    overlap_mm: float
    hand_mm: float
    hand_at: str
    nozzle_mm: float
    nozzle_at: str
    sees: float
    bare_to: str


def filler_route(
    mount: Mount, ports: Sequence[Port], solids: Solids, bay: Bay | None, vehicle: Vehicle | None
) -> Filler | None:
    """The filler's route.

    Parameters
    ----------
    mount : Mount
        The opening in the body, and which port it leads to.
    ports : sequence of Port
        The neck among them.
    solids : Solids
        The shell worked out.
    bay : Bay or None
        What stands about, the vehicle's parts among it.
    vehicle : Vehicle or None
        People, and metal between them and the fuel.

    Returns
    -------
    Filler or None
        None without a route, or where its port is gone. The hose runs straight between the two pipes; its cut length is
        that and 3 % slack, with the overlap at either end.
    """
    route = mount.filler
    port = None if route is None else next((one for one in ports if one.id == route.port), None)
    if route is None or port is None:
        return None
    out = np.array(OUTWARD[port.face])
    neck = surface_at(solids, port) + port.stands_mm * out
    opening, axis = np.array([route.x_mm, route.y_mm, route.z_mm]), axis_of(route)
    pipe = opening - route.stub_mm * axis
    way = pipe - neck
    long = float(np.linalg.norm(way))
    along = way / max(long, 1e-9)
    stands = [] if bay is None else [(k.name, s) for k in bay.keep_outs if (s := solid_of_keep_out(k, bay)) is not None]
    hand, nozzle = _nearest(_hand(opening, axis), stands), _nearest(_nozzle(opening, axis), stands)
    return Filler(
        port=port.id,
        name=port.name,
        neck=Point.of(neck),
        opening=Point.of(opening),
        straight_mm=long,
        fall_deg=degrees(asin(max(-1.0, min(1.0, float(along[2]))))),
        hose_mm=long * SLACK + 2 * route.overlap_mm,
        vent_mm=(long + route.stub_mm) * SLACK + 2 * route.overlap_mm,
        turn_neck_deg=_between(along, out),
        turn_opening_deg=_between(along, axis),
        overlap_mm=route.overlap_mm,
        hand_mm=hand[0],
        hand_at=hand[1],
        nozzle_mm=nozzle[0],
        nozzle_at=nozzle[1],
        sees=_sight(opening, axis, stands),
        bare_to=_uncovered(neck, pipe, vehicle, mount.corner),
    )


def axis_of(route: FillerRoute) -> Array:
    """Which way the opening faces, unit vector: outward to its side, leaning up."""
    out, up = np.array(OUTWARD[route.side]), radians(route.up_deg)
    if route.side in ("roof", "floor"):
        return out
    return np.asarray(cos(up) * out + sin(up) * np.array([0.0, 0.0, 1.0]))


def _between(a: Array, b: Array) -> float:
    return degrees(float(np.arccos(np.clip(a @ b, -1.0, 1.0))))


def _rod(start: Array, axis: Array, long: float, wide: tuple[float, float]) -> Manifold:
    """A straight bar from a place along an axis."""
    aside = np.cross(axis, [0.0, 0.0, 1.0])
    aside = np.array([0.0, 1.0, 0.0]) if np.linalg.norm(aside) < 1e-6 else aside / np.linalg.norm(aside)
    up = np.cross(aside, axis)
    corners = [
        start + far * axis + u * wide[0] / 2 * aside + v * wide[1] / 2 * up
        for far in (0.0, long)
        for u in (-1, 1)
        for v in (-1, 1)
    ]
    return Manifold.hull_points(np.array(corners))


def _hand(opening: Array, axis: Array) -> Manifold:
    return _rod(opening, axis, HAND_DEEP_MM, HAND_MM)


def _nozzle(opening: Array, axis: Array) -> Manifold:
    return _rod(opening, axis, NOZZLE_LONG_MM, (60.0, 60.0))


def _nearest(solid: Manifold, stands: Sequence[tuple[str, Manifold]]) -> tuple[float, str]:
    """How near the nearest of what stands about comes, and what it is."""
    return min(((float(solid.min_gap(one, FAR_MM)), name) for name, one in stands), default=(FAR_MM, ""))


def _sight(opening: Array, axis: Array, stands: Sequence[tuple[str, Manifold]]) -> float:
    """From what share of a ring of eyes about the opening's axis nothing hides it."""
    aside = np.cross(axis, [0.0, 0.0, 1.0])
    aside = np.array([0.0, 1.0, 0.0]) if np.linalg.norm(aside) < 1e-6 else aside / np.linalg.norm(aside)
    up = np.cross(aside, axis)
    start, seen = opening + 1.0 * axis, 0
    for n in range(SIGHTS):
        turn, lean = 2 * np.pi * n / SIGHTS, radians(SIGHT_DEG) * (0.4 if n % 2 else 1.0)
        eye = opening + EYE_MM * (cos(lean) * axis + sin(lean) * (np.cos(turn) * aside + np.sin(turn) * up))
        seen += not any(solid.ray_cast(list(start), list(eye)) for _, solid in stands)
    return seen / SIGHTS


def _uncovered(neck: Array, pipe: Array, vehicle: Vehicle | None, corner: VehicleCorner) -> str:
    """The first person between whom and the hose no metal panel stands; a gap that isn't sealed counts as none."""
    if vehicle is None:
        return ""
    shift = np.array([corner.x_mm, corner.y_mm, corner.z_mm])
    for person in vehicle.parts:
        if person.kind != "person":
            continue
        size = np.array([person.length_mm, person.width_mm, person.height_mm])
        middle = np.array([person.x_mm, person.y_mm, person.z_mm]) + size / 2 - shift
        for share in (0.0, 0.25, 0.5, 0.75, 1.0):
            spot = neck + share * (pipe - neck)
            if not any(_stops(panel, spot, middle, shift) for panel in vehicle.panels if panel.metal is not None):
                return person.name
    return ""


def _stops(panel: VehiclePanel, spot: Array, middle: Array, shift: Array) -> bool:
    """Whether a panel's metal stands across the straight line between two places."""
    axis = "xyz".index(panel.axis)
    low, size = panel_box(panel, (float(shift[0]), float(shift[1]), float(shift[2])))
    travel = middle[axis] - spot[axis]
    if abs(travel) < 1e-9:
        return False
    share = (low[axis] - spot[axis]) / travel
    if not 0 < share < 1:
        return False
    at = spot + share * (middle - spot)
    first, second = [way for way in range(3) if way != axis]
    if not (
        low[first] <= at[first] <= low[first] + size[first] and low[second] <= at[second] <= low[second] + size[second]
    ):
        return False
    u, v = at[first] + shift[first], at[second] + shift[second]
    return not any(
        not gap.sealed and gap.a_mm <= u <= gap.a_mm + gap.long_mm and gap.b_mm <= v <= gap.b_mm + gap.wide_mm
        for gap in panel.gaps
    )


FILLER = study(filler_route, MOUNT, PORTS, SOLIDS, Maybe(BAY), VEHICLE)
