"""What the mounts carry when the vehicle brakes, turns, jumps and lands, and which link is the weakest."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from math import radians, sin

import numpy as np

from keel.analysis.parts import MOUNT, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.mount import Bearer, Foot, Mount, MountLoads, Stop, Strap
from keel.design.workshop import HouseRules
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.mount.bearers import BEARER_PLACES, BearerPlace
from keel.studies.mount.facing import outward
from keel.studies.mount.full_mass import FULL_MASS, G0, FullMass
from keel.studies.mount.links import Strapped, mount_checks
from keel.studies.mount.load_case import WAYS, Held, LoadCase, MountCheck, Way
from keel.studies.mount.resting import Rest, resting_places
from keel.studies.mount.sharing import Spring, shared
from keel.studies.mount.stop_places import STOP_PLACES, StopPlace
from keel.studies.mount.straps import STRAPS, StrapPath
from keel.studies.result import Point

Placed = Mapping[str, BearerPlace]


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
    mount: Mount,
    paths: Sequence[StrapPath],
    bearers: Sequence[BearerPlace],
    stops: Sequence[StopPlace],
    mass: FullMass | None,
    solids: Solids,
    rules: HouseRules,
) -> Loads:
    """What each mount carries in each direction, and what it bears.

    Parameters
    ----------
    mount : Mount
        Straps, feet and stops.
    paths : sequence of StrapPath
        The straps as they lie.
    bearers : sequence of BearerPlace
        Where bearers touch the tank.
    stops : sequence of StopPlace
        How far stops stand off it.
    mass : FullMass or None
        Of the full tank; without it there are no loads.
    solids : Solids
        The shell worked out.
    rules : HouseRules
        Loads by use.

    Returns
    -------
    Loads
        Up, straps that pass over and a cage's bars bear it all where there are any, each by the lever along its axis;
        else the feet do. Down, straps that pass under and a cradle's bearers; else what it sits on, or the feet.
        Sideways and lengthwise feet, stops and, by the tank's tipping about the edge of what it rests on, straps and a
        cage's bars; a cradle's bars bear what it presses on them as it tips. A stop with nothing of the tank before it
        holds nothing. The tank's own weight is not taken off.
    """
    if mass is None or not (mount.straps or mount.feet or mount.stops or mount.bearers):
        return Loads(mass, [], [])
    g, at = loads_of(mount, rules), np.array([mass.at.x, mass.at.y, mass.at.z])
    strapped = [(strap, path) for strap, path in zip(mount.straps, paths, strict=True) if not path.problem]
    placed = {place.id: place for place in bearers}
    before = {place.id for place in stops if place.gap_mm is not None}
    mount = mount.model_copy(update={"stops": [stop for stop in mount.stops if stop.id in before]})
    sits = not strapped or strapped[0][0].passes == "over"
    rests = resting_places(mount, placed, solids, sits)
    cases = [_case(way, g_that_way(g, way), mass.kg, at, mount, strapped, placed, rests) for way in WAYS]
    return Loads(mass, cases, mount_checks(mount, strapped, placed, cases, at, solids))


def g_that_way(loads: MountLoads, way: Way) -> float:
    """How many g count in one direction.

    Parameters
    ----------
    loads : MountLoads
        The loads that count.
    way : Way
        The direction.

    Returns
    -------
    float
        As typed, or by the house rule [g].
    """
    return {
        "forward": loads.forward_g,
        "rearward": loads.rearward_g,
        "to the left": loads.sideways_g,
        "to the right": loads.sideways_g,
        "up": loads.up_g,
        "down": loads.down_g,
    }[way]


def _case(
    way: Way, g: float, kg: float, at: Array, mount: Mount, straps: Strapped, bearers: Placed, rests: Sequence[Rest]
) -> LoadCase:
    load = np.array(WAYS[way]) * kg * G0 * g
    springs = list(_springs(way, mount, straps, bearers, at, rests))
    result = shared(load, at, springs)
    found, places, weights = dict[str, Array](), dict[str, Array](), dict[str, float]()
    for spring, force in zip(springs, result.forces, strict=True):
        holder, weight = spring.holder, abs(float(force))
        found[holder] = found.get(holder, np.zeros(3)) + force * spring.along
        places[holder] = places.get(holder, np.zeros(3)) + weight * spring.at
        weights[holder] = weights.get(holder, 0.0) + weight
    by = [
        Held(holder, float(np.linalg.norm(force)), Point.of(force), Point.of(places[holder] / weights[holder]))
        for holder, force in found.items()
        if holder and np.linalg.norm(force) > 1e-6 * np.linalg.norm(load)
    ]
    is_borne = way == "down" and not springs
    return LoadCase(way, g, kg * G0 * g, is_borne or result.is_held or g == 0, by)


def _springs(
    way: Way, mount: Mount, straps: Strapped, bearers: Placed, at: Array, rests: Sequence[Rest]
) -> Iterator[Spring]:
    """What holds the tank against a load that way."""
    if way in ("up", "down"):
        own = [*_upright(way, mount, straps, bearers, at)]
        yield from own
        if own or (way == "down" and straps):
            return
    else:
        yield from (Spring(stop.id, _place(stop), -outward(stop), one_way=True) for stop in mount.stops)
        yield from _tipping(straps, [bar for bar in mount.bearers if bar.stands == "over"], bearers, rests)
    yield from (spring for foot in mount.feet for spring in _foot_springs(foot))


def _upright(way: Way, mount: Mount, straps: Strapped, bearers: Placed, at: Array) -> Iterator[Spring]:
    """Straps and bars on the side that the load goes to."""
    side, back = ("over" if way == "up" else "under"), -np.array(WAYS[way])
    for strap, path in straps:
        if strap.passes == side:
            yield Spring(strap.id, _middle(strap, path, at), back, one_way=True)
    yield from _pressing([bar for bar in mount.bearers if bar.stands == side], bearers, back)


def _pressing(bars: Sequence[Bearer], places: Placed, way: Array) -> Iterator[Spring]:
    """Bars that touch the tank press on it where they do."""
    for bar in bars:
        if bar.id in places:
            at = places[bar.id].at
            yield Spring(bar.id, np.array([at.x, at.y, at.z]), way, one_way=True)


def _tipping(straps: Strapped, over: Sequence[Bearer], places: Placed, rests: Sequence[Rest]) -> Iterator[Spring]:
    """Straps, a cage's bars, and the places that a tank tips about: what it sits on presses there."""
    holding = [*_pressing(over, places, np.array([0.0, 0.0, -1.0]))]
    for strap, path in straps:
        down = -1.0 if strap.passes == "over" else 1.0
        holding.append(Spring(strap.id, _middle(strap, path, None), np.array([0.0, 0.0, down]), one_way=True))
    if not holding:
        return
    yield from holding
    up = -1.0 if straps and straps[0][0].passes == "under" else 1.0
    yield from (Spring(rest.holder, rest.at, np.array([0.0, 0.0, up]), one_way=True) for rest in rests)


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


MOUNT_LOADS = study(mount_loads, MOUNT, STRAPS, BEARER_PLACES, STOP_PLACES, FULL_MASS, SOLIDS, RULES)
