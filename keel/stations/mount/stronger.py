"""What of a mount's weakest link has to be larger."""

import json
from collections.abc import Iterator
from dataclasses import replace
from math import ceil
from typing import Any, get_args

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.mount import Bolted, Mount, SpreadingPlate, Stop
from keel.findings.finding import Finding, Patch, Remedy
from keel.reference.fasteners import BOLT_YIELD_MPA, BOLTS, BoltGrade, BoltSize
from keel.reference.metals import METALS
from keel.stations.mount.edits import LISTS, bolted_down, mount_patch
from keel.studies.mount.bearers import section_modulus_mm3
from keel.studies.mount.fastening import bolt_yields_n, edge_needed_mm, links_of, pried_n, washer_mm
from keel.studies.mount.load_case import LinkCheck, MountCheck
from keel.studies.mount.loads import MOUNT_LOADS
from keel.studies.result import words

STEP_MM = 5.0
LONGEST_FOOT_MM = 200.0
MOST_STEPS, MOST_BOLTS = 6, 6
TUBES_MM = (20.0, 25.0, 30.0, 35.0, 40.0, 50.0, 60.0, 80.0, 100.0)


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
        yield from _all_at_once(tank, found, limit)


def strengthened(tank: TankAnalysis, mount: Mount) -> tuple[Mount, TankAnalysis]:
    """A mount whose weak links are each made as large as they have to be, and what it then carries.

    Parameters
    ----------
    tank : TankAnalysis
        The tank that it is for.
    mount : Mount
        What is to hold it, in the usual sizes.

    Returns
    -------
    Mount, TankAnalysis
        And the tank held so. Where nothing offered makes a link bear its load, it is left as it is.
    """
    limit = tank.workshop.rules.mount_reserve
    held = _held(tank, mount)
    for _ in range(MOST_STEPS):
        weak = [check for check in held[MOUNT_LOADS].mounts if check.links and check.links[0].reserve < limit]
        before = mount
        for check in weak:
            first = next(_for_link(mount, check, check.links[0], limit), None)
            mount = _with(mount, first.patch) if first else mount
        if mount is before:
            break
        held = _held(tank, mount)
    return mount, held


def _held(tank: TankAnalysis, mount: Mount) -> TankAnalysis:
    design = tank.design.model_copy(update={"mount": mount})
    return TankAnalysis(replace(tank.asked, design=design), tank.memory)


def _with(mount: Mount, patch: Patch) -> Mount:
    return Mount.model_validate_json(json.dumps(mount.model_dump(mode="json") | patch["mount"]))


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
            yield Remedy(label=label, patch=mount_patch(straps=changed))
    elif link.name == "bending":
        yield from _stouter(mount, check, limit / link.reserve)
    elif link.name == "bolt":
        yield from _better_bolts(mount, check, limit / link.reserve)
    elif link.name in ("tear-out", "bearing", "pull-through", "spreading plate"):
        yield from _spread(mount, check, link, limit)
    if check.kind == "stop" and link.name in ("bolt", "pull-through", "spreading plate"):
        yield from _longer_foot(mount, check, link, limit)
    if link.name == "tear-out":
        yield from _further_in(mount, check, link, limit)
    if link.name in ("bolt", "tear-out", "bearing"):
        yield from _more_bolts(mount, check, link, limit)


def _changed_places(mount: Mount, check: MountCheck, part: str, change: dict[str, Any]) -> Patch:
    """The mount with the bolts or the structure of one of its mounts changed, at both ends of a strap."""

    def updated(place: Any) -> Any:
        return place.model_copy(update={part: getattr(place, part).model_copy(update=change)})

    if check.kind == "strap":
        straps = [
            one.model_copy(update={"low": updated(one.low), "high": updated(one.high)}) if one.id == check.id else one
            for one in mount.straps
        ]
        return mount_patch(straps=straps)
    name = LISTS[check.kind]
    return mount_patch(**{name: [updated(one) if one.id == check.id else one for one in getattr(mount, name)]})


def _stouter(mount: Mount, check: MountCheck, times: float) -> Iterator[Remedy]:
    """The next size of tube whose section resists so many times as much."""
    bar = next(one for one in mount.bearers if one.id == check.id)
    wanted = section_modulus_mm3(bar) * times
    for size in TUBES_MM:
        stouter = bar.model_copy(update={"outer_mm": size})
        if size > bar.outer_mm and section_modulus_mm3(stouter) >= wanted:
            bearers = [stouter if one is bar else one for one in mount.bearers]
            label = words("{name} of {outer_mm} {shape}", name=bar.name, outer_mm=size, shape=bar.shape)
            yield Remedy(label=label, patch=mount_patch(bearers=bearers))
            return


def _places(mount: Mount, check: MountCheck) -> list[Any]:
    if check.kind == "strap":
        return [end for strap in mount.straps if strap.id == check.id for end in (strap.low, strap.high)]
    return [one for one in bolted_down(mount) if one.id == check.id]


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
    """The smallest square plate that lets everything at the bolt bear its load; with a longer foot if need be."""
    place = _places(mount, check)[0]
    plate = spreading_plate(place, *_loads(place, link), limit)
    if plate is not None:
        label = words(
            "Spreading plate {long_mm} square, {thick_sheet} thick, behind {name}",
            long_mm=plate.long_mm,
            thick_sheet=plate.thickness_mm,
            name=check.name,
        )
        yield Remedy(label=label, patch=_changed_places(mount, check, "structure", {"plate": plate}))
    elif isinstance(place, Stop):
        yield from _spread_under_a_longer_foot(mount, place, link, limit)


def _spread_under_a_longer_foot(mount: Mount, stop: Stop, link: LinkCheck, limit: float) -> Iterator[Remedy]:
    _, pushed = _loads(stop, link)
    for base in np.arange(stop.base_mm, LONGEST_FOOT_MM, 5 * STEP_MM)[1:].tolist():
        plate = spreading_plate(stop, pried_n(pushed, stop.arm_mm, base), pushed, limit)
        if plate is None:
            continue
        structure = stop.structure.model_copy(update={"plate": plate})
        changed = stop.model_copy(update={"base_mm": base, "structure": structure})
        label = words(
            "Foot of {name} {base_mm} beyond its bolts, on a spreading plate {long_mm} square, {thick_sheet} thick",
            name=stop.name,
            base_mm=base,
            long_mm=plate.long_mm,
            thick_sheet=plate.thickness_mm,
        )
        yield Remedy(label=label, patch=mount_patch(stops=[changed if one is stop else one for one in mount.stops]))
        return


def _loads(place: Bolted, link: LinkCheck) -> tuple[float, float]:
    """What pulls at a place along and across its bolts where a link is loaded so [N]."""
    whole = link.load_n if link.name == "spreading plate" else link.load_n * place.bolts.count
    if link.name in ("pull-through", "spreading plate"):
        pull = link.load_n if place.structure.plate else whole
        return pull, (pull * place.base_mm / place.arm_mm if isinstance(place, Stop) else 0.0)
    return (pried_n(whole, place.arm_mm, place.base_mm) if isinstance(place, Stop) else 0.0), whole


def spreading_plate(place: Bolted, pull_n: float, shear_n: float, limit: float) -> SpreadingPlate | None:
    """The least square plate of mild steel with which the sheet at a place bears a load.

    Parameters
    ----------
    place : Bolted
        Bolts and structure.
    pull_n, shear_n : float
        Along and across its bolts [N].
    limit : float
        The reserve that is wanted.

    Returns
    -------
    SpreadingPlate or None
        None where no plate up to 200 mm and 8 mm does.
    """
    first = STEP_MM * ceil(2 * washer_mm(place.bolts) / STEP_MM)
    for side in (first + 2 * STEP_MM * n for n in range(16)):
        for thick in (1.5, 2.0, 3.0, 4.0, 5.0, 6.0, 8.0):
            plate = SpreadingPlate(long_mm=side, wide_mm=side, thickness_mm=thick)
            with_it = place.model_copy(update={"structure": place.structure.model_copy(update={"plate": plate})})
            links = [one for one in links_of(with_it, pull_n, shear_n) if one.name != "bolt"]
            if all(one.reserve >= limit for one in links):
                return plate
    return None


def _longer_foot(mount: Mount, check: MountCheck, link: LinkCheck, limit: float) -> Iterator[Remedy]:
    """A stop that tips less: its foot reaches further beyond its bolts."""
    stop = next(one for one in mount.stops if one.id == check.id)
    pushed = max(one.load_n for one in check.links if one.name == "tear-out") * stop.bolts.count
    for base in (STEP_MM * n for n in range(1, 1 + round(LONGEST_FOOT_MM / STEP_MM))):
        links = links_of(stop, pried_n(pushed, stop.arm_mm, base), pushed)
        if base > stop.base_mm and all(one.reserve >= limit for one in links if one.name == link.name):
            stops = [one.model_copy(update={"base_mm": base}) if one is stop else one for one in mount.stops]
            label = words("Foot of {name} {base_mm} beyond its bolts", name=stop.name, base_mm=base)
            yield Remedy(label=label, patch=mount_patch(stops=stops))
            return


def _more_bolts(mount: Mount, check: MountCheck, link: LinkCheck, limit: float) -> Iterator[Remedy]:
    """So many bolts that each bears its share, and the sheet round it."""
    bolts = _places(mount, check)[0].bolts
    many = ceil(bolts.count * limit / link.reserve)
    if many <= MOST_BOLTS:
        label = words("{many} bolts for {name}", many=many, name=check.name)
        yield Remedy(label=label, patch=_changed_places(mount, check, "bolts", {"count": many}))


def _further_in(mount: Mount, check: MountCheck, link: LinkCheck, limit: float) -> Iterator[Remedy]:
    """The hole further from the edge."""
    place = _places(mount, check)[0]
    structure = place.structure
    yields = METALS[structure.metal].yield_mpa
    edge = ceil(edge_needed_mm(link.load_n * limit, structure.thickness_mm, yields, BOLTS[place.bolts.size].hole_mm))
    label = words("Hole of {name} {edge_mm} from the edge", name=check.name, edge_mm=float(edge))
    yield Remedy(label=label, patch=_changed_places(mount, check, "structure", {"edge_mm": float(edge)}))


def _all_at_once(tank: TankAnalysis, check: MountCheck, limit: float) -> Iterator[Remedy]:
    """Every link of a mount that is too weak, one after the other, each as large as it then has to be."""
    mount = tank.design.mount
    for _ in range(MOST_STEPS):
        now = next(one for one in _held(tank, mount)[MOUNT_LOADS].mounts if one.id == check.id)
        if now.links[0].reserve >= limit:
            label = words("Every weak link of {name} at once", name=check.name)
            yield Remedy(label=label, patch=mount_patch(**{LISTS[check.kind]: getattr(mount, LISTS[check.kind])}))
            return
        first = next(_for_link(mount, now, now.links[0], limit), None)
        if first is None:
            return
        mount = _with(mount, first.patch)
