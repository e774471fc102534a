"""Gaps of straps and their bolts: to what is hot, moves or closes, and to what stands on the tank."""

from collections.abc import Iterator
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
from keel.studies.mount.straps import STRAPS, StrapPath
from keel.studies.space.gap import needed_mm

FAR_MM = 400.0
MUST_STAY_OFF: tuple[ClearanceClass, ...] = (
    "moving at full travel", "exhaust, bare", "exhaust, shielded", "cover or body skin", "ground",
)  # fmt: skip
"""What a strap or a bolt may not touch; the rest may be what it is bolted to."""


@dataclass(frozen=True, slots=True)
class MountedGap:
    """A strap or its bolt and what is too near, or what of the tank it lies on.

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
    mount: Mount, paths: list[StrapPath], bay: Bay | None, envelope: Envelope, rules: HouseRules
) -> list[MountedGap]:
    """What straps and their bolts come too near to.

    Parameters
    ----------
    mount : Mount
        Straps.
    paths : list of StrapPath
        As they lie.
    bay : Bay or None
        With the vehicle's parts.
    envelope : Envelope
        What stands on the tank: no strap may run over it.
    rules : HouseRules
        Clearance by kind.

    Returns
    -------
    list of MountedGap
        Only what is too near.
    """
    found = list[MountedGap]()
    for strap, path in zip(mount.straps, paths, strict=True):
        if path.problem:
            continue
        found += [
            MountedGap(strap.id, strap.name, name, 0.0, 0.0, on_tank=True) for name in runs_over(strap, path, envelope)
        ]
        pieces = [(strap.name, _band(strap, path)), *_bolts(strap)]
        found += _to_neighbours(strap.id, pieces, bay, rules)
    return found


def runs_over(strap: Strap, path: StrapPath, envelope: Envelope) -> list[str]:
    """What stands on the tank under a strap.

    Parameters
    ----------
    strap : Strap
        Its width and station.
    path : StrapPath
        As it lies.
    envelope : Envelope
        What stands at ports.

    Returns
    -------
    list of str
        Names, each once.
    """
    band = _band(strap, path)
    return list(dict.fromkeys(part.name for part in envelope.at_ports if (band ^ part.solid).volume() > 1.0))


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


def _band(strap: Strap, path: StrapPath) -> Manifold:
    """A strap as a solid: its inner face thickened."""
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


MOUNTED_GAPS = study(mounted_gaps, MOUNT, STRAPS, Maybe(BAY), ENVELOPE, RULES)
