"""Gaps of what holds the tank, bolts and all: to what is hot, moves or closes, and to what stands on the tank."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import sqrt

import numpy as np
from manifold3d import Manifold
from shapely import LineString

from keel.analysis.parts import BAY, ENVELOPE, MOUNT, RULES
from keel.analysis.study import Maybe, study
from keel.design.bay import Bay
from keel.design.mount import Anchor, Mount, Strap
from keel.design.workshop import HouseRules
from keel.reference.clearances import ClearanceClass
from keel.reference.fasteners import BOLTS
from keel.solid.envelope import Envelope
from keel.solid.neighbours import solid_of_keep_out
from keel.solid.rings import circle
from keel.solid.shapes import drawn_out
from keel.studies.mount.bearers import BEARER_PLACES, BearerPlace
from keel.studies.mount.facing import beyond
from keel.studies.mount.holding_solids import bearer_solid, foot_bolt, stop_solid
from keel.studies.mount.straps import STRAPS, StrapPath
from keel.studies.space.gap import needed_mm

FAR_MM = 400.0
MUST_STAY_OFF: tuple[ClearanceClass, ...] = (
    "moving at full travel", "exhaust, bare", "exhaust, shielded", "cover or body skin", "ground",
)  # fmt: skip
"""What holds the tank may not touch these; the rest may be what it is bolted to."""


@dataclass(frozen=True, slots=True)
class MountedGap:
    """Something that holds the tank and what is too near, or what on the tank it lies on.

    Attributes
    ----------
    gap_mm : float
        Below the needed one; zero where they meet.
    """

    id: str
    name: str
    beside: str
    gap_mm: float
    needed_mm: float
    on_tank: bool


def mounted_gaps(
    mount: Mount,
    paths: Sequence[StrapPath],
    places: Sequence[BearerPlace],
    bay: Bay | None,
    envelope: Envelope,
    rules: HouseRules,
) -> list[MountedGap]:
    """What straps, stops, bearers and bolts come too near to.

    Parameters
    ----------
    mount : Mount
        What holds the tank.
    paths : sequence of StrapPath
        Straps as they lie.
    places : sequence of BearerPlace
        Where bearers touch the tank.
    bay : Bay or None
        With the vehicle's parts.
    envelope : Envelope
        What stands on the tank: nothing may run over it.
    rules : HouseRules
        Clearance by kind.

    Returns
    -------
    list of MountedGap
        Only what is too near.
    """
    found = list[MountedGap]()
    for one in _mounted(mount, paths, places, envelope):
        over = runs_over(one.body, envelope)
        found += [MountedGap(one.id, one.name, name, 0.0, 0.0, on_tank=True) for name in over]
        found += _to_neighbours(one.id, [(one.name, one.body), *one.bolts], bay, rules)
    return found


@dataclass(frozen=True, slots=True)
class _Mounted:
    """One thing that holds the tank, and its bolts by name."""

    id: str
    name: str
    body: Manifold
    bolts: Sequence[tuple[str, Manifold]] = ()


def _mounted(
    mount: Mount, paths: Sequence[StrapPath], places: Sequence[BearerPlace], envelope: Envelope
) -> Iterator[_Mounted]:
    for strap, path in zip(mount.straps, paths, strict=True):
        if not path.problem:
            yield _Mounted(strap.id, strap.name, band_of(strap, path), [*_bolts(strap)])
    for stop in mount.stops:
        yield _Mounted(stop.id, stop.name, stop_solid(stop))
    lie = {place.id: place for place in places}
    for bar in mount.bearers:
        if bar.id in lie:
            yield _Mounted(bar.id, bar.name, bearer_solid(bar, lie[bar.id]))
    middle = np.add(envelope.bounds.low, envelope.bounds.high) / 2
    for foot in mount.feet:
        yield _Mounted(foot.id, f"{foot.name}'s bolt", foot_bolt(foot, beyond(foot, middle)))


def runs_over(body: Manifold, envelope: Envelope) -> list[str]:
    """What stands on the tank where something that holds it is to lie.

    Parameters
    ----------
    body : Manifold
        A strap's band, a stop, a bearer.
    envelope : Envelope
        What stands at ports.

    Returns
    -------
    list of str
        Names, each once.
    """
    return list(dict.fromkeys(part.name for part in envelope.at_ports if (body ^ part.solid).volume() > 1.0))


def _to_neighbours(
    key: str, pieces: list[tuple[str, Manifold]], bay: Bay | None, rules: HouseRules
) -> Iterator[MountedGap]:
    if bay is None:
        return
    for keep_out in bay.keep_outs:
        if keep_out.clearance.kind not in MUST_STAY_OFF:
            continue
        solid, needed = solid_of_keep_out(keep_out, bay), needed_mm(keep_out.clearance, rules)
        if solid is None:
            continue
        gaps = [(float(piece.min_gap(solid, FAR_MM)), name) for name, piece in pieces]
        gap, name = min(gaps)
        if gap < needed:
            yield MountedGap(key, name, keep_out.name, gap, needed, on_tank=False)


def band_of(strap: Strap, path: StrapPath) -> Manifold:
    """A strap as a solid.

    Parameters
    ----------
    strap : Strap
        Width and thickness.
    path : StrapPath
        As it lies.

    Returns
    -------
    Manifold
        Its inner face thickened.
    """
    axis = 0 if strap.across == "y" else 1
    across = "y" if axis == 0 else "x"
    line = LineString([(getattr(spot, across), spot.z) for spot in path.line])
    shape = line.buffer(strap.thickness_mm, cap_style="flat", join_style="mitre")
    half = strap.width_mm / 2
    ring = np.array(shape.exterior.coords)[:-1]
    ring = ring if shape.exterior.is_ccw else ring[::-1]
    return drawn_out(ring, axis, strap.at_mm - half, strap.at_mm + half)


def _bolts(strap: Strap) -> Iterator[tuple[str, Manifold]]:
    """Head, stack and nut at both anchors, upright."""
    ends = ("right", "left") if strap.across == "y" else ("rear", "front")
    for end, anchor in zip(ends, (strap.low, strap.high), strict=True):
        yield f"{strap.name}'s {end} bolt", _bolt(strap, anchor)


def _bolt(strap: Strap, anchor: Anchor) -> Manifold:
    bolt = BOLTS[anchor.bolts.size]
    x, y = (strap.at_mm, anchor.out_mm) if strap.across == "y" else (anchor.out_mm, strap.at_mm)
    under = anchor.structure.thickness_mm + bolt.locking_nut_mm + 3 * bolt.pitch_mm
    return drawn_out(
        circle(bolt.across_flats_mm / sqrt(3.0)) + np.array([x, y]),
        2,
        anchor.z_mm - under,
        anchor.z_mm + bolt.head_mm + 2 * strap.thickness_mm,
    )


MOUNTED_GAPS = study(mounted_gaps, MOUNT, STRAPS, BEARER_PLACES, Maybe(BAY), ENVELOPE, RULES)
