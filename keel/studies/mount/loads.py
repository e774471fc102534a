"""What the mounts carry when the vehicle brakes, turns, jumps and lands, and which link is the weakest."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import radians, sin
from typing import Literal

import numpy as np

from keel.analysis.parts import MOUNT, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.bay import SIDES
from keel.design.mount import Foot, Mount, MountLoads, Stop, Strap
from keel.design.workshop import HouseRules
from keel.reference.metals import METALS
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.taut import tension
from keel.studies.mount.fastening import Link, links_of, shear_yield_mpa
from keel.studies.mount.full_mass import FULL_MASS, G0, FullMass
from keel.studies.mount.sharing import Spring, shared
from keel.studies.mount.straps import STRAPS, StrapPath
from keel.studies.result import Point

Way = Literal["forward", "rearward", "to the left", "to the right", "up", "down"]
WAYS: dict[Way, tuple[float, float, float]] = {
    "forward": (1, 0, 0),
    "rearward": (-1, 0, 0),
    "to the left": (0, 1, 0),
    "to the right": (0, -1, 0),
    "up": (0, 0, 1),
    "down": (0, 0, -1),
}
THROAT = 0.7
"""Of a fillet weld's leg."""


@dataclass(frozen=True, slots=True)
class Held:
    """What one mount carries of a load: its force on the tank [N], and where."""

    holder: str
    force_n: float
    force: Point
    at: Point


@dataclass(frozen=True, slots=True)
class LoadCase:
    """One direction.

    Attributes
    ----------
    load_n : float
        Mass × g.
    is_held : bool
        Whether something bears it.
    by : list of Held
        Those that carry any of it.
    """

    way: Way
    g: float
    load_n: float
    is_held: bool
    by: list[Held]


@dataclass(frozen=True, slots=True)
class LinkCheck:
    """One link of a mount where it is loaded most.

    Attributes
    ----------
    at : str
        Which end of a strap; empty for others.
    """

    name: str
    at: str
    way: Way
    load_n: float
    bears_n: float
    reserve: float


@dataclass(frozen=True, slots=True)
class MountCheck:
    """A strap, a foot or a stop: its links, the weakest first; none where it carries nothing."""

    id: str
    name: str
    kind: Literal["strap", "foot", "stop"]
    links: list[LinkCheck]


@dataclass(frozen=True, slots=True)
class Loads:
    """All cases, and every mount."""

    mass: FullMass | None
    cases: list[LoadCase]
    mounts: list[MountCheck]


def loads_of(mount: Mount, rules: HouseRules) -> MountLoads:
    """The loads that count: the rule card's, or the house rule's for the use.

    Parameters
    ----------
    mount : Mount
        What it is used for.
    rules : HouseRules
        House rules.

    Returns
    -------
    MountLoads
        g by direction.
    """
    if mount.use == "rule card" and mount.loads is not None:
        return mount.loads
    along, aside, upright = (
        (rules.competition_lengthwise_g, rules.competition_sideways_g, rules.competition_vertical_g)
        if mount.use == "competition"
        else (rules.road_lengthwise_g, rules.road_sideways_g, rules.road_vertical_g)
    )
    return MountLoads(forward_g=along, rearward_g=along, sideways_g=aside, up_g=upright, down_g=upright)


def mount_loads(
    mount: Mount, paths: Sequence[StrapPath], mass: FullMass | None, solids: Solids, rules: HouseRules
) -> Loads:
    """What each mount carries in each direction, and what it bears.

    Parameters
    ----------
    mount : Mount
        Straps, feet and stops.
    paths : sequence of StrapPath
        The straps as they lie.
    mass : FullMass or None
        Of the full tank; without it there are no loads.
    solids : Solids
        The shell worked out.
    rules : HouseRules
        Loads by use.

    Returns
    -------
    Loads
        Up, straps that pass over bear it all where there are any, each by the lever along its axis; else the feet do.
        Down, straps that pass under; else what it sits on, or the feet. Sideways and lengthwise feet, stops and, by the
        tank's tipping about its lower edge, straps. The tank's own weight is not taken off.
    """
    if mass is None or not (mount.straps or mount.feet or mount.stops):
        return Loads(mass, [], [])
    g, at = loads_of(mount, rules), np.array([mass.at.x, mass.at.y, mass.at.z])
    strapped = [(strap, path) for strap, path in zip(mount.straps, paths, strict=True) if not path.problem]
    cases = [_case(way, _g(g, way), mass.kg, at, mount, strapped, solids) for way in WAYS]
    return Loads(mass, cases, _checks(mount, strapped, cases, at, solids))


def _g(loads: MountLoads, way: Way) -> float:
    return {
        "forward": loads.forward_g,
        "rearward": loads.rearward_g,
        "to the left": loads.sideways_g,
        "to the right": loads.sideways_g,
        "up": loads.up_g,
        "down": loads.down_g,
    }[way]


Strapped = Sequence[tuple[Strap, StrapPath]]


def _case(way: Way, g: float, kg: float, at: Array, mount: Mount, straps: Strapped, solids: Solids) -> LoadCase:
    load = np.array(WAYS[way]) * kg * G0 * g
    springs = list(_springs(way, mount, straps, at, solids))
    result = shared(load, at, springs)
    found = dict[str, Array]()
    places = dict[str, Array]()
    for spring, force in zip(springs, result.forces, strict=True):
        found[spring.holder] = found.get(spring.holder, np.zeros(3)) + force * spring.along
        places[spring.holder] = spring.at
    by = [
        Held(holder, float(np.linalg.norm(force)), Point.of(force), Point.of(places[holder]))
        for holder, force in found.items()
        if holder and np.linalg.norm(force) > 1e-6 * np.linalg.norm(load)
    ]
    rests = way == "down" and not springs
    return LoadCase(way, g, kg * G0 * g, rests or result.is_held or g == 0, by)


def _springs(way: Way, mount: Mount, straps: Strapped, at: Array, solids: Solids) -> Iterator[Spring]:
    """What holds the tank against a load that way."""
    if way in ("up", "down"):
        passes = "over" if way == "up" else "under"
        own = [(strap, path) for strap, path in straps if strap.passes == passes]
        for strap, path in own:
            yield Spring(strap.id, _middle(strap, path, at), -np.array(WAYS[way]), one_way=True)
        if own or (way == "down" and straps):
            return
        yield from (spring for foot in mount.feet for spring in _foot_springs(foot))
        return
    for stop in mount.stops:
        yield Spring(stop.id, _place(stop), -_outward(stop), one_way=True)
    yield from (spring for foot in mount.feet for spring in _foot_springs(foot))
    if not straps:
        return
    for strap, path in straps:
        down = -1.0 if strap.passes == "over" else 1.0
        yield Spring(strap.id, _middle(strap, path, None), np.array([0.0, 0.0, down]), one_way=True)
    # It tips about its lower edge: what it sits on presses there.
    low, high = solids.bounds.low, solids.bounds.high
    edge = low[2] if straps[0][0].passes == "over" else high[2]
    up = 1.0 if straps[0][0].passes == "over" else -1.0
    for x in (low[0], high[0]):
        for y in (low[1], high[1]):
            yield Spring("", np.array([x, y, edge]), np.array([0.0, 0.0, up]), one_way=True)


def _middle(strap: Strap, path: StrapPath, at: Array | None) -> Array:
    """Where the pull of both legs together acts; across, with the load where both legs are taken to pull alike."""
    first, second = path.touches
    rises = [sin(radians(lean)) for lean in path.leans_deg]
    share = rises[1] / max(sum(rises), 1e-9)
    place = np.array([first.x, first.y, first.z]) * (1 - share) + np.array([second.x, second.y, second.z]) * share
    if at is not None:
        place["xy".index(strap.across)] = at["xy".index(strap.across)]
    return place


def _foot_springs(foot: Foot) -> Iterator[Spring]:
    yield from (Spring(foot.id, _place(foot), way) for way in np.eye(3))


def _place(held: Foot | Stop) -> Array:
    return np.array([held.x_mm, held.y_mm, held.z_mm])


def _outward(stop: Stop) -> Array:
    """From the tank towards the stop."""
    side = SIDES.index(stop.side)
    return np.asarray(np.eye(3)[side // 2] * (1.0 if side % 2 else -1.0))


def _checks(mount: Mount, straps: Strapped, cases: Sequence[LoadCase], at: Array, solids: Solids) -> list[MountCheck]:
    found = [MountCheck(s.id, s.name, "strap", _worst(_strap_links(s, p, cases))) for s, p in straps]
    found += [MountCheck(f.id, f.name, "foot", _worst(_foot_links(f, cases, at, solids))) for f in mount.feet]
    return found + [MountCheck(s.id, s.name, "stop", _worst(_stop_links(s, cases))) for s in mount.stops]


Found = tuple[str, Way, Link]


def _worst(links: Iterator[Found]) -> list[LinkCheck]:
    """Each link where it has least reserve, the weakest first."""
    least: dict[tuple[str, str], LinkCheck] = {}
    for end, way, link in links:
        key = (end, link.name)
        if link.load_n > 0 and (key not in least or link.reserve < least[key].reserve):
            least[key] = LinkCheck(link.name, end, way, link.load_n, link.bears_n, link.reserve)
    return sorted(least.values(), key=lambda link: link.reserve)


def _strap_links(strap: Strap, path: StrapPath, cases: Sequence[LoadCase]) -> Iterator[Found]:
    ends = ("right", "left") if strap.across == "y" else ("rear", "front")
    leans = (path.leans_deg[0], path.leans_deg[1])
    for case, held in _of(strap.id, cases):
        pull = tension(held.force_n, leans)
        bears = strap.width_mm * strap.thickness_mm * METALS[strap.metal].yield_mpa
        yield "", case.way, Link("strap", pull, bears)
        for end, anchor in zip(ends, (strap.low, strap.high), strict=True):
            yield from ((end, case.way, link) for link in links_of(anchor, pull, 0.0))


def _foot_links(foot: Foot, cases: Sequence[LoadCase], at: Array, solids: Solids) -> Iterator[Found]:
    axis = "xyz".index(foot.axis)
    # The structure lies beyond the foot, seen from the tank: a force on the tank that way pulls at the bolt.
    beyond = 1.0 if _place(foot)[axis] > at[axis] else -1.0
    tank = solids.shell
    throat = THROAT * min(foot.foot_mm, tank.thickness_mm)
    for case, held in _of(foot.id, cases):
        force = np.array([held.force.x, held.force.y, held.force.z])
        pull = max(0.0, float(force[axis] * beyond))
        across = float(np.linalg.norm(np.delete(force, axis)))
        yield from (("", case.way, link) for link in links_of(foot, pull, across))
        if foot.weld_mm > 0:
            bears = foot.weld_mm * throat * shear_yield_mpa(METALS[tank.metal].welded_yield_mpa)
            yield "", case.way, Link("weld to the tank", held.force_n, bears)


def _stop_links(stop: Stop, cases: Sequence[LoadCase]) -> Iterator[Found]:
    for case, held in _of(stop.id, cases):
        yield from (("", case.way, link) for link in links_of(stop, 0.0, held.force_n))


def _of(holder: str, cases: Sequence[LoadCase]) -> Iterator[tuple[LoadCase, Held]]:
    return ((case, held) for case in cases for held in case.by if held.holder == holder)


MOUNT_LOADS = study(mount_loads, MOUNT, STRAPS, FULL_MASS, SOLIDS, RULES)
