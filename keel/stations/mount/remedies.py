"""What would hold the tank better."""

from collections.abc import Iterator
from itertools import count
from math import sqrt
from typing import Any

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.bay import Side
from keel.design.mount import Anchor, Bolting, Mount, Stop, Strap
from keel.findings.finding import Finding, Patch, Remedy
from keel.reference.fasteners import BoltSize
from keel.stations.mount.edits import bolted_down, mount_patch
from keel.studies.mount.facing import outward
from keel.studies.mount.fastening import links_of, pried_n
from keel.studies.mount.full_mass import FULL_MASS, G0
from keel.studies.mount.load_case import Way
from keel.studies.mount.loads import g_that_way, loads_of
from keel.studies.mount.stop_places import STOP_PLACES, stop_places
from keel.studies.mount.straps import STRAPS
from keel.studies.result import words

BESIDE_MM, BELOW_MM = 25.0, 15.0
"""First anchors stand so far beside the tank and below its underside."""
AT_SHARES = (0.25, 0.75)
STOP_SIZES: tuple[BoltSize, ...] = ("M8", "M10", "M12")
SIDE_OF: dict[Way, Side] = {"forward": "front", "rearward": "rear", "to the left": "left", "to the right": "right"}


def placed_straps(tank: TankAnalysis) -> list[Strap]:
    """Two straps over the tank, a quarter in from either end."""
    box = tank.solids.bounds
    straps = []
    for number, share in enumerate(AT_SHARES, start=1):
        at = tank.marked(box.low[0] + share * box.size[0])
        ends = (tank.marked(box.low[1] - BESIDE_MM), tank.marked(box.high[1] + BESIDE_MM))
        z = tank.marked(box.low[2] - BELOW_MM)
        low, high = (Anchor(out_mm=end, z_mm=z) for end in ends)
        straps.append(Strap(id=f"strap-{number}", name=f"strap {number}", at_mm=at, low=low, high=high))
    return straps


def against_the_tank(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A stop moved until its pad lies on the tank."""
    mount = tank.design.mount
    place = next(place for place in tank[STOP_PLACES] if place.id == finding.subject)
    stop = next(stop for stop in mount.stops if stop.id == finding.subject)
    if place.gap_mm is None:
        return
    moved = _against(tank, stop, place.gap_mm)
    label = words("Move {name} against the tank, {far_mm}", name=stop.name, far_mm=abs(stop.pad_mm - place.gap_mm))
    yield Remedy(label=label, patch=mount_patch(stops=[moved if one is stop else one for one in mount.stops]))


def _against(tank: TankAnalysis, stop: Stop, gap_mm: float) -> Stop:
    """A stop that is so far off the tank, moved until its pad lies on it."""
    way = outward(stop) * (stop.pad_mm - gap_mm)
    axis = int(np.argmax(np.abs(outward(stop))))
    name = ("x_mm", "y_mm", "z_mm")[axis]
    return stop.model_copy(update={name: tank.marked(getattr(stop, name) + float(way[axis]))})


def held_that_way(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A stop at the side that the tank would slide to."""
    side = next((side for way, side in SIDE_OF.items() if way == finding.subject), None)
    mount = tank.design.mount
    if side is None:
        return
    taken = {strap.id for strap in mount.straps} | {held.id for held in bolted_down(mount)}
    numbers = (n for n in count(1) if f"stop-{n}" not in taken)
    added = stops_at(tank, side, numbers)
    if not added:
        return
    label = words("Put a stop at the {side} side", side=side) if side in ("left", "right") else None
    label = label or words("Put a stop at the {side} end", side=side)
    yield Remedy(label=label, patch=mount_patch(stops=[*mount.stops, *added]))


def stops_at(tank: TankAnalysis, side: Side, numbers: Iterator[int]) -> list[Stop]:
    """A stop on the middle of a side, or one at each quarter where nothing of the tank is at its middle; or none."""
    box, axis = tank.solids.bounds, 1 if side in ("front", "rear") else 0
    middle = _stop_at(tank, side, next(numbers))
    if found := _standing_at(tank, [middle]):
        return found
    name = ("x_mm", "y_mm")[axis]
    near, far = (tank.marked(box.low[axis] + share * box.size[axis]) for share in AT_SHARES)
    other = middle.model_copy(update={"id": f"stop-{next(numbers)}", "name": f"{side} stop 2", name: far})
    return _standing_at(tank, [middle.model_copy(update={"name": f"{side} stop 1", name: near}), other])


def _standing_at(tank: TankAnalysis, stops: list[Stop]) -> list[Stop]:
    """Those with the tank before them, each against it."""
    places = stop_places(stops, tank.solids)
    return [
        _against(tank, stop, place.gap_mm)
        for stop, place in zip(stops, places, strict=True)
        if place.gap_mm is not None
    ]


def _stop_at(tank: TankAnalysis, side: Side, number: int) -> Stop:
    """A stop no higher than a third of the tank's height, with bolts for its load."""
    box = tank.solids.bounds
    axis, high = {"rear": (0, 0), "front": (0, 1), "right": (1, 0), "left": (1, 1)}[side]
    mass = tank[FULL_MASS]
    middle = [(low + up) / 2 for low, up in zip(box.low, box.high, strict=True)]
    place = [mass.at.x, mass.at.y, mass.at.z] if mass else middle
    pad = 5.0
    place[axis] = box.high[axis] + pad if high else box.low[axis] - pad
    place[2] = min(place[2], box.low[2] + box.size[2] / 3)
    x, y, z = (tank.marked(value) for value in place)
    stop = Stop(id=f"stop-{number}", name=f"{side} stop", side=side, x_mm=x, y_mm=y, z_mm=z, pad_mm=pad)
    way = next(way for way, name in SIDE_OF.items() if name == side)
    return stop.model_copy(
        update={"bolts": _bolts_for(stop, load_that_way_n(tank, way), tank.workshop.rules.mount_reserve)}
    )


def load_that_way_n(tank: TankAnalysis, way: Way) -> float:
    """What the full tank pushes with in a direction [N]; zero where its mass isn't known."""
    mass = tank[FULL_MASS]
    return mass.kg * G0 * g_that_way(loads_of(tank.design.mount, tank.workshop.rules), way) if mass else 0.0


def _bolts_for(stop: Stop, load_n: float, limit: float) -> Bolting:
    """The fewest and smallest bolts with which a stop bears a load alone."""
    pull = pried_n(load_n, stop.arm_mm, stop.base_mm)
    for bolts in (Bolting(size=size, count=number) for size in STOP_SIZES for number in (1, 2, 3, 4, 6)):
        if all(link.reserve >= limit for link in links_of(stop.model_copy(update={"bolts": bolts}), pull, load_n)):
            return bolts
    return stop.bolts


def reaching(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Anchors moved so that a strap that is there reaches; or a new strap."""
    path = next((one for one in tank[STRAPS] if one.id == finding.subject), None)
    if path is None or path.existing is None:
        return
    mount, up = tank.design.mount, path.existing.anchors_up_mm
    if up:
        moved = tank.marked(up)

        def lifted(anchor: Anchor) -> Anchor:
            return anchor.model_copy(update={"z_mm": anchor.z_mm + moved})

        straps = [
            one.model_copy(update={"low": lifted(one.low), "high": lifted(one.high)}) if one.id == path.id else one
            for one in mount.straps
        ]
        said = "Both anchors of {name} {up_mm} higher" if moved > 0 else "Both anchors of {name} {up_mm} lower"
        yield Remedy(label=words(said, name=path.name, up_mm=abs(moved)), patch=mount_patch(straps=straps))
    straps = [one.model_copy(update={"existing_mm": None}) if one.id == path.id else one for one in mount.straps]
    label = words("New strap for {name}, cut {cut_mm}", name=path.name, cut_mm=path.cut_mm)
    yield Remedy(label=label, patch=mount_patch(straps=straps))


def captive(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A captive nut."""
    yield Remedy(label=words("Captive nut"), patch=_at_place(tank.design.mount, finding.subject, "captive", True))


def locked(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A nut that locks."""
    patch = _at_place(tank.design.mount, finding.subject, "locking", "self-locking nut")
    yield Remedy(label=words("Self-locking nut"), patch=patch)


def replaced(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A new bolt."""
    yield Remedy(label=words("New bolt"), patch=_at_place(tank.design.mount, finding.subject, "state", "new"))


def _at_place(mount: Mount, key: str, field: str, value: Any) -> Patch:
    """The mount with one field of one place's bolts changed."""

    def updated(place: Any) -> Any:
        return place.model_copy(update={"bolts": place.bolts.model_copy(update={field: value})})

    holder, _, end = key.partition(".")
    if end:
        straps = [
            one.model_copy(update={end: updated(getattr(one, end))}) if one.id == holder else one
            for one in mount.straps
        ]
        return mount_patch(straps=straps)
    name = next(name for name in ("feet", "stops", "bearers") if any(one.id == holder for one in getattr(mount, name)))
    return mount_patch(**{name: [updated(one) if one.id == holder else one for one in getattr(mount, name)]})


def second_strap(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The same strap once more, as far on the other side of the tank's middle."""
    mount = tank.design.mount
    first, box = mount.straps[0], tank.solids.bounds
    axis = 0 if first.across == "y" else 1
    at = tank.marked(box.low[axis] + box.high[axis] - first.at_mm)
    if abs(at - first.at_mm) < sqrt(box.size[axis]):
        at = tank.marked(box.low[axis] + AT_SHARES[1] * box.size[axis])
    taken = {strap.id for strap in mount.straps}
    number = next(n for n in count(2) if f"strap-{n}" not in taken)
    twin = first.model_copy(update={"id": f"strap-{number}", "name": f"strap {number}", "at_mm": at})
    yield Remedy(label=words("Second strap at {at_mm}", at_mm=at), patch=mount_patch(straps=[*mount.straps, twin]))


def without_vehicle(_tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The design is for none."""
    yield Remedy(label=words("Take the vehicle out of this design"), patch={"mount": {"vehicle": None}})
