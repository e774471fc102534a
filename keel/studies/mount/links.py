"""Every link of every mount where it is loaded most: strap, bolt, sheet, bar, weld."""

from collections.abc import Iterator, Mapping, Sequence

import numpy as np

from keel.design.mount import Bearer, Foot, Mount, Stop, Strap
from keel.reference.metals import METALS
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.taut import tension
from keel.studies.mount.bearers import BearerPlace, bends
from keel.studies.mount.facing import beyond
from keel.studies.mount.fastening import Link, links_of, pried_n, shear_yield_mpa
from keel.studies.mount.load_case import Held, LinkCheck, LoadCase, MountCheck, Way
from keel.studies.mount.straps import StrapPath

THROAT = 0.7
"""Of a fillet weld's leg."""
Strapped = Sequence[tuple[Strap, StrapPath]]


def mount_checks(
    mount: Mount,
    straps: Strapped,
    bearers: Mapping[str, BearerPlace],
    cases: Sequence[LoadCase],
    at: Array,
    solids: Solids,
) -> list[MountCheck]:
    """What every mount bears of what it carries.

    Parameters
    ----------
    mount : Mount
        Feet, stops, bearers.
    straps : sequence of (Strap, StrapPath)
        Straps that lie.
    bearers : mapping of BearerPlace
        Where those lie that touch the tank, by their ids.
    cases : sequence of LoadCase
        Who carries what in each direction.
    at : ndarray, shape (3,)
        Centre of mass [mm].
    solids : Solids
        The shell worked out: its wall.

    Returns
    -------
    list of MountCheck
        Links with the least reserve first.
    """
    found = [MountCheck(s.id, s.name, "strap", _worst(_strap_links(s, p, cases))) for s, p in straps]
    found += [MountCheck(f.id, f.name, "foot", _worst(_foot_links(f, cases, at, solids))) for f in mount.feet]
    found += [MountCheck(s.id, s.name, "stop", _worst(_stop_links(s, cases))) for s in mount.stops]
    return found + [
        MountCheck(b.id, b.name, "bearer", _worst(_bearer_links(b, bearers.get(b.id), cases))) for b in mount.bearers
    ]


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
    axis, side = "xyz".index(foot.axis), beyond(foot, at)
    tank = solids.shell
    throat = THROAT * min(foot.foot_mm, tank.thickness_mm)
    for case, held in _of(foot.id, cases):
        force = np.array([held.force.x, held.force.y, held.force.z])
        pull = max(0.0, float(force[axis] * side))
        across = float(np.linalg.norm(np.delete(force, axis)))
        yield from (("", case.way, link) for link in links_of(foot, pull, across))
        if foot.weld_mm > 0:
            bears = foot.weld_mm * throat * shear_yield_mpa(METALS[tank.metal].welded_yield_mpa)
            yield "", case.way, Link("weld to the tank", held.force_n, bears)


def _stop_links(stop: Stop, cases: Sequence[LoadCase]) -> Iterator[Found]:
    for case, held in _of(stop.id, cases):
        pull = pried_n(held.force_n, stop.arm_mm, stop.base_mm)
        yield from (("", case.way, link) for link in links_of(stop, pull, held.force_n))


def _bearer_links(bearer: Bearer, place: BearerPlace | None, cases: Sequence[LoadCase]) -> Iterator[Found]:
    if place is None:
        return
    for case, held in _of(bearer.id, cases):
        yield "", case.way, bends(bearer, place, held.force_n, is_tipped=case.way not in ("up", "down"))
        if bearer.stands == "over":
            end, share = _nearer_end(bearer, place)
            yield from ((end, case.way, link) for link in links_of(bearer, held.force_n * share, 0.0))


def _nearer_end(bearer: Bearer, place: BearerPlace) -> tuple[str, float]:
    """The end that the tank presses nearer to, and its share of what presses: the lever along the bar."""
    ends = ("right", "left") if bearer.along == "y" else ("rear", "front")
    high = ((place.start_mm + place.end_mm) / 2 - bearer.low_mm) / (bearer.high_mm - bearer.low_mm)
    return (ends[1], high) if high > 0.5 else (ends[0], 1 - high)


def _of(holder: str, cases: Sequence[LoadCase]) -> Iterator[tuple[LoadCase, Held]]:
    return ((case, held) for case in cases for held in case.by if held.holder == holder)
