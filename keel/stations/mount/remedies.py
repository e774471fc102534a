"""What would hold the tank better."""

import json
from collections.abc import Iterator, Sequence
from itertools import count
from math import ceil, sqrt
from typing import Any, get_args

from keel.analysis.parts import ENVELOPE
from keel.analysis.tank import TankAnalysis
from keel.design.bay import Side
from keel.design.mount import Anchor, Bolted, Bolting, Foot, Mount, SpreadingPlate, Stop, Strap
from keel.findings.finding import Finding, Patch, Remedy
from keel.findings.shell_edits import of_gauge
from keel.reference.fasteners import BOLT_YIELD_MPA, BOLTS, BoltGrade, BoltSize
from keel.reference.metals import METALS
from keel.studies.mount.fastening import bolt_yields_n, edge_needed_mm, links_of, washer_mm
from keel.studies.mount.leaned_on import LEANED_ON, PatchCheck
from keel.studies.mount.loads import MOUNT_LOADS, LinkCheck, MountCheck
from keel.studies.mount.mounted_gaps import runs_over
from keel.studies.mount.near_seams import NEAR_SEAMS
from keel.studies.mount.straps import STRAPS, strap_path
from keel.studies.result import words

BESIDE_MM, BELOW_MM = 25.0, 15.0
"""First anchors stand so far beside the tank and below its underside."""
AT_SHARES = (0.25, 0.75)
STEP_MM = 5.0
STOP_SIZES: tuple[BoltSize, ...] = ("M8", "M10", "M12")
SIDE_OF: dict[str, Side] = {"forward": "front", "rearward": "rear", "to the left": "left", "to the right": "right"}


def straps_offer(tank: TankAnalysis) -> Remedy | None:
    """Two straps over the tank, a quarter in from either end."""
    shell = tank.design.shell
    if shell is None or tank.design.mount != Mount():
        return None
    box = tank.solids.bounds
    straps = []
    for number, share in enumerate(AT_SHARES, start=1):
        at = tank.marked(box.low[0] + share * box.size[0])
        ends = (tank.marked(box.low[1] - BESIDE_MM), tank.marked(box.high[1] + BESIDE_MM))
        z = tank.marked(box.low[2] - BELOW_MM)
        low, high = (Anchor(out_mm=end, z_mm=z) for end in ends)
        straps.append(Strap(id=f"strap-{number}", name=f"strap {number}", at_mm=at, low=low, high=high))
    return Remedy(label=words("Two straps"), patch=_patch(tank.design.mount, straps=straps))


def _patch(mount: Mount, **lists: Sequence[Any]) -> Patch:
    """The mount's lists with some changed."""
    return {"mount": {name: [held.model_dump(mode="json") for held in held_] for name, held_ in lists.items()}}


def held_that_way(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A stop at the side that the tank would slide to."""
    side = SIDE_OF.get(finding.subject)
    mount = tank.design.mount
    if side is None:
        return
    taken = {strap.id for strap in mount.straps} | {held.id for held in _bolted_down(mount)}
    number = next(n for n in count(1) if f"stop-{n}" not in taken)
    added = _stop_at(tank, side, number)
    label = words("Put a stop at the {side} side", side=side) if side in ("left", "right") else None
    label = label or words("Put a stop at the {side} end", side=side)
    yield Remedy(label=label, patch=_patch(mount, stops=[*mount.stops, added]))


def _stop_at(tank: TankAnalysis, side: Side, number: int) -> Stop:
    """A stop on the middle of a side, a sixth of the tank's height up."""
    box = tank.solids.bounds
    axis, high = {"rear": (0, 0), "front": (0, 1), "right": (1, 0), "left": (1, 1)}[side]
    mass = tank[MOUNT_LOADS].mass
    middle = [(low + up) / 2 for low, up in zip(box.low, box.high, strict=True)]
    place = [mass.at.x, mass.at.y, mass.at.z] if mass else middle
    pad = 5.0
    place[axis] = box.high[axis] + pad if high else box.low[axis] - pad
    place[2] = min(place[2], box.low[2] + box.size[2] / 3)
    x, y, z = (tank.marked(value) for value in place)
    stop = Stop(id=f"stop-{number}", name=f"{side} stop", side=side, x_mm=x, y_mm=y, z_mm=z, pad_mm=pad)
    way = next(way for way, name in SIDE_OF.items() if name == side)
    load = next((case.load_n for case in tank[MOUNT_LOADS].cases if case.way == way), 0.0)
    return stop.model_copy(update={"bolts": _bolts_for(stop, load, tank.workshop.rules.mount_reserve)})


def _bolts_for(stop: Stop, load_n: float, limit: float) -> Bolting:
    """The fewest and smallest bolts with which a stop bears a load alone."""
    for bolts in (Bolting(size=size, count=number) for size in STOP_SIZES for number in (1, 2, 3, 4, 6)):
        if all(link.reserve >= limit for link in links_of(stop.model_copy(update={"bolts": bolts}), 0.0, load_n)):
            return bolts
    return stop.bolts


def stronger(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """What of the weakest link has to be larger."""
    found = next((check for check in tank[MOUNT_LOADS].mounts if check.id == finding.subject), None)
    if found is None:
        return
    limit = tank.workshop.rules.mount_reserve
    weak = [link for link in found.links if link.reserve < limit]
    if not weak:
        return
    yield from _for_link(tank.design.mount, found, weak[0], limit)
    if len({link.name for link in weak}) > 1:
        yield from _all_at_once(tank.design.mount, found, limit)


def _for_link(mount: Mount, check: MountCheck, link: LinkCheck, limit: float) -> Iterator[Remedy]:
    needed = link.load_n * limit
    if link.name == "strap":
        strap = next(strap for strap in mount.straps if strap.id == check.id)
        yields = METALS[strap.metal].yield_mpa
        wide = STEP_MM * ceil(needed / strap.thickness_mm / yields / STEP_MM)
        thick = ceil(2 * needed / strap.width_mm / yields) / 2
        for label, change in (
            (words("Strap {wide_mm} wide", wide_mm=wide), {"width_mm": wide}),
            (words("Strap {thick_sheet} thick", thick_sheet=thick), {"thickness_mm": thick}),
        ):
            changed = [one.model_copy(update=change) if one is strap else one for one in mount.straps]
            yield Remedy(label=label, patch=_patch(mount, straps=changed))
    elif link.name == "bolt":
        yield from _better_bolts(mount, check, limit / link.reserve)
    elif link.name in ("tear-out", "bearing", "pull-through", "spreading plate"):
        yield from _spread(mount, check, link, limit)
        if link.name == "tear-out":
            yield from _further_in(mount, check, link, limit)


def _changed_places(mount: Mount, check: MountCheck, part: str, change: dict[str, Any]) -> Patch:
    """The mount with the bolts or the structure of one of its mounts changed, at both ends of a strap."""

    def updated(place: Any) -> Any:
        return place.model_copy(update={part: getattr(place, part).model_copy(update=change)})

    if check.kind == "strap":
        straps = [
            one.model_copy(update={"low": updated(one.low), "high": updated(one.high)}) if one.id == check.id else one
            for one in mount.straps
        ]
        return _patch(mount, straps=straps)
    name = "feet" if check.kind == "foot" else "stops"
    return _patch(mount, **{name: [updated(one) if one.id == check.id else one for one in getattr(mount, name)]})


def _bolted_down(mount: Mount) -> list[Foot | Stop]:
    return [*mount.feet, *mount.stops]


def _places(mount: Mount, check: MountCheck) -> list[Any]:
    if check.kind == "strap":
        return [end for strap in mount.straps if strap.id == check.id for end in (strap.low, strap.high)]
    return [one for one in _bolted_down(mount) if one.id == check.id]


def _better_bolts(mount: Mount, check: MountCheck, times: float) -> Iterator[Remedy]:
    """The least size, and the least grade, that bears so many times as much."""
    bolts = _places(mount, check)[0].bolts
    needed_n = bolt_yields_n(bolts) * times
    metric = bolts.size.startswith("M")
    sizes: list[BoltSize] = [size for size in get_args(BoltSize) if size.startswith("M") == metric]
    yields = BOLT_YIELD_MPA[bolts.grade]
    size = next((s for s in sizes if BOLTS[s].stress_area_mm2 * bolts.count * yields >= needed_n), None)
    if size:
        label = words("{size} bolts for {name}", size=size, name=check.name)
        yield Remedy(label=label, patch=_changed_places(mount, check, "bolts", {"size": size}))
    grades: list[BoltGrade] = sorted(
        (grade for grade in get_args(BoltGrade) if grade.startswith("SAE") != metric), key=BOLT_YIELD_MPA.__getitem__
    )
    area = BOLTS[bolts.size].stress_area_mm2 * bolts.count
    grade = next((g for g in grades if BOLT_YIELD_MPA[g] * area >= needed_n), None)
    if grade and not grade.startswith("A"):
        label = words("Bolts of grade {grade} for {name}", grade=grade, name=check.name)
        yield Remedy(label=label, patch=_changed_places(mount, check, "bolts", {"grade": grade}))


def _spread(mount: Mount, check: MountCheck, link: LinkCheck, limit: float) -> Iterator[Remedy]:
    """The smallest square plate that lets everything at the bolt bear its load."""
    place = _places(mount, check)[0]
    plate = spreading_plate(place, link, limit)
    if plate is None:
        return
    label = words(
        "Spreading plate {long_mm} square, {thick_sheet} thick, behind {name}",
        long_mm=plate.long_mm,
        thick_sheet=plate.thickness_mm,
        name=check.name,
    )
    yield Remedy(label=label, patch=_changed_places(mount, check, "structure", {"plate": plate}))


def spreading_plate(place: Bolted, link: LinkCheck, limit: float) -> SpreadingPlate | None:
    """The least square plate of mild steel with which a place bears a link's load.

    Parameters
    ----------
    place : Bolted
        Bolts and structure.
    link : LinkCheck
        What gives.
    limit : float
        The reserve that is wanted.

    Returns
    -------
    SpreadingPlate or None
        None where no plate up to 200 mm and 8 mm does.
    """
    along = link.name in ("pull-through", "spreading plate")
    loads = (link.load_n, 0.0) if along else (0.0, link.load_n * place.bolts.count)
    first = STEP_MM * ceil(2 * washer_mm(place.bolts) / STEP_MM)
    for side in (first + 2 * STEP_MM * n for n in range(16)):
        for thick in (1.5, 2.0, 3.0, 4.0, 5.0, 6.0, 8.0):
            plate = SpreadingPlate(long_mm=side, wide_mm=side, thickness_mm=thick)
            with_it = place.model_copy(update={"structure": place.structure.model_copy(update={"plate": plate})})
            pull, shear = loads
            if link.name == "pull-through":
                pull *= place.bolts.count
            links = [one for one in links_of(with_it, pull, shear) if one.name != "bolt"]
            if all(one.reserve >= limit for one in links):
                return plate
    return None


def _further_in(mount: Mount, check: MountCheck, link: LinkCheck, limit: float) -> Iterator[Remedy]:
    """The hole further from the edge."""
    place = _places(mount, check)[0]
    structure = place.structure
    yields = METALS[structure.metal].yield_mpa
    edge = ceil(edge_needed_mm(link.load_n * limit, structure.thickness_mm, yields, BOLTS[place.bolts.size].hole_mm))
    label = words("Hole of {name} {edge_mm} from the edge", name=check.name, edge_mm=float(edge))
    yield Remedy(label=label, patch=_changed_places(mount, check, "structure", {"edge_mm": float(edge)}))


def _all_at_once(mount: Mount, check: MountCheck, limit: float) -> Iterator[Remedy]:
    """Every link of a mount that is too weak, each as large as it has to be."""
    patched = False
    for link in check.links:
        if link.reserve >= limit:
            continue
        first = next(_for_link(mount, check, link, limit), None)
        if first is None:
            return
        changed = mount.model_dump(mode="json") | first.patch["mount"]
        mount, patched = Mount.model_validate_json(json.dumps(changed)), True
    if patched:
        label = words("Every weak link of {name} at once", name=check.name)
        kinds = {"strap": "straps", "foot": "feet", "stop": "stops"}
        yield Remedy(label=label, patch=_patch(mount, **{kinds[check.kind]: getattr(mount, kinds[check.kind])}))


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
        yield Remedy(label=words(said, name=path.name, up_mm=abs(moved)), patch=_patch(mount, straps=straps))
    straps = [one.model_copy(update={"existing_mm": None}) if one.id == path.id else one for one in mount.straps]
    label = words("New strap for {name}, cut {cut_mm}", name=path.name, cut_mm=path.cut_mm)
    yield Remedy(label=label, patch=_patch(mount, straps=straps))


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
        return _patch(mount, straps=straps)
    name = "feet" if any(one.id == holder for one in mount.feet) else "stops"
    return _patch(mount, **{name: [updated(one) if one.id == holder else one for one in getattr(mount, name)]})


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
    yield Remedy(label=words("Second strap at {at_mm}", at_mm=at), patch=_patch(mount, straps=[*mount.straps, twin]))


def without_vehicle(_tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The design is for none."""
    yield Remedy(label=words("Take the vehicle out of this design"), patch={"mount": {"vehicle": None}})


def thicker_there(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Sheet that bears it."""
    check = next(one for one in tank[LEANED_ON] if one.by == finding.subject)
    gauges = [gauge for gauge in tank.workshop.gauges_of(tank.shell.metal) if gauge >= check.thickness_needed_mm]
    gauge = gauges[0] if gauges else ceil(2 * check.thickness_needed_mm) / 2
    yield Remedy(label=words("{gauge_sheet} sheet", gauge_sheet=gauge), patch={"shell": of_gauge(tank, gauge)})
    mount = tank.design.mount
    if not finding.subject:
        yield Remedy(label=words("Nobody stands on it: a guard or a sign"), patch={"mount": {"stood_on_kg": None}})
        return
    brackets = [
        one.model_copy(update={"foot_mm": float(STEP_MM * ceil(_foot_for(one.foot_mm, check) / STEP_MM))})
        if one.id == finding.subject
        else one
        for one in mount.brackets
    ]
    foot = next(one.foot_mm for one in brackets if one.id == finding.subject)
    label = words("Foot of {name} {foot_mm} long", name=check.name, foot_mm=foot)
    yield Remedy(label=label, patch=_patch(mount, brackets=brackets))


def _foot_for(foot_mm: float, check: PatchCheck) -> float:
    """A foot so long that the load at its end, which falls with it, is borne."""
    return foot_mm * max(1.1, check.stress_mpa / check.allowed_mpa)


def safe_place(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The nearest place on the same face that is far enough from every seam."""
    near = next((one for one in tank[NEAR_SEAMS] if one.id == finding.subject), None)
    if near is None or near.safe is None:
        return
    mount, safe = tank.design.mount, near.safe
    moved = [
        one.model_copy(update={"x_mm": safe.x, "y_mm": safe.y, "z_mm": safe.z}) if one.id == near.id else one
        for one in mount.new_work
    ]
    old = next(one for one in mount.new_work if one.id == near.id)
    by = sqrt((safe.x - old.x_mm) ** 2 + (safe.y - old.y_mm) ** 2 + (safe.z - old.z_mm) ** 2)
    yield Remedy(
        label=words("{name} {by_mm} further on", name=near.name, by_mm=by), patch=_patch(mount, new_work=moved)
    )


def beside_port(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The nearest station, either way, at which it runs over nothing."""
    mount = tank.design.mount
    strap = next(one for one in mount.straps if one.id == finding.subject)
    for off in (STEP_MM * n for n in range(1, 60)):
        for way in (-1.0, 1.0):
            moved = strap.model_copy(update={"at_mm": strap.at_mm + way * off})
            straps = [moved if one is strap else one for one in mount.straps]
            path = strap_path(moved, tank.solids)
            if not path.problem and not runs_over(moved, path, tank[ENVELOPE]):
                label = words("{name} at {at_mm}", name=strap.name, at_mm=moved.at_mm)
                yield Remedy(label=label, patch=_patch(mount, straps=straps))
                return
