"""What is wrong with how the tank is held."""

from collections.abc import Iterator

from keel.analysis.parts import VEHICLE
from keel.analysis.tank import TankAnalysis
from keel.design.vehicle import LOADS_AGREE
from keel.findings.finding import Finding, saying
from keel.studies.mount.bearers import BEARER_PLACES
from keel.studies.mount.load_case import LinkCheck, MountCheck
from keel.studies.mount.loads import MOUNT_LOADS
from keel.studies.mount.stop_places import STOP_PLACES
from keel.studies.mount.straps import STRAPS

_mount = saying("mount")
FEWEST_STRAPS = 2
STOP_SLACK_MM = 2.0
THIN_MM = 1.6
"""Sheet thinner than this gives way round a washer long before the bolt is loaded."""
BRIDGED_MM = 15.0


def vehicle_is_kept(tank: TankAnalysis) -> Iterator[Finding]:
    """The vehicle that the tank is for is one of the workshop's."""
    named = tank.design.mount.vehicle
    if named is not None and tank[VEHICLE] is None:
        yield _mount(
            "mount.no_vehicle",
            "",
            "stop",
            "The vehicle of this design isn't in the workshop any more",
            "Gaps to its panels, its exhaust and the ground aren't judged.",
        )


def wheel_loads_add_up(tank: TankAnalysis) -> Iterator[Finding]:
    """Four wheels carry what the whole weighs."""
    vehicle = tank[VEHICLE]
    if vehicle is not None and not vehicle.loads_agree:
        yield _mount(
            "mount.wheel_loads",
            "",
            "stop",
            "Wheel loads of {name} add up to {wheels_kg}, weighed as a whole {whole_kg}, limit {within_pct} apart",
            "One of the five was misread, or a wheel stood beside its scale: weigh again on level ground.",
            name=vehicle.name,
            wheels_kg=vehicle.wheels_kg or 0.0,
            whole_kg=vehicle.whole_kg or 0.0,
            within_pct=LOADS_AGREE,
        )


def straps_lie_on(tank: TankAnalysis) -> Iterator[Finding]:
    """Every strap can be pulled round the tank."""
    for path in tank[STRAPS]:
        if path.problem:
            yield _mount(
                "mount.path",
                path.id,
                "stop",
                "{name} can't be pulled round the tank: {problem}",
                "A strap that doesn't lie on the tank all round holds nothing.",
                name=path.name,
                problem=path.problem,
            )


def bearers_touch(tank: TankAnalysis) -> Iterator[Finding]:
    """Every bearer has the tank on it, or is on the tank."""
    touching = {place.id for place in tank[BEARER_PLACES]}
    for bar in tank.design.mount.bearers:
        if bar.id not in touching:
            yield _mount(
                "mount.bearer",
                bar.id,
                "stop",
                "{name} at {at_mm} has nothing of the tank {side} it between its supports",
                "It carries nothing there.",
                name=bar.name,
                at_mm=bar.at_mm,
                side="over" if bar.stands == "under" else "under",
            )


def stops_touch(tank: TankAnalysis) -> Iterator[Finding]:
    """Every stop stands off the tank by its pad and no more."""
    for stop, place in zip(tank.design.mount.stops, tank[STOP_PLACES], strict=True):
        if place.gap_mm is not None and abs(place.gap_mm - stop.pad_mm) <= STOP_SLACK_MM:
            continue
        if place.gap_mm is None:
            said = "{name} has nothing of the tank before its face"
        elif place.gap_mm < 0:
            said = "{name} stands {deep_mm} within the tank"
        else:
            said = "{name} stands {gap_mm} off the tank, its pad is {pad_mm}"
        yield _mount(
            "mount.stop",
            stop.id,
            "stop",
            said,
            "The tank gathers way before it is stopped, or the stop bears on it all the time.",
            name=stop.name,
            gap_mm=place.gap_mm or 0.0,
            deep_mm=-(place.gap_mm or 0.0),
            pad_mm=stop.pad_mm,
        )


def enough_straps(tank: TankAnalysis) -> Iterator[Finding]:
    """One strap lets the tank swing about it."""
    mount = tank.design.mount
    if mount.straps and len(mount.straps) < FEWEST_STRAPS and not mount.feet:
        yield _mount(
            "mount.one_strap",
            "",
            "stop",
            "{count} strap, limit {least} or more",
            "The tank swings about a single strap and works its way out from under it.",
            count=len(mount.straps),
            least=FEWEST_STRAPS,
        )


def _holds_anything(tank: TankAnalysis) -> bool:
    """Whether there are loads to work out at all."""
    mount = tank.design.mount
    return bool(mount.straps or mount.feet or mount.stops or mount.bearers)


def held_every_way(tank: TankAnalysis) -> Iterator[Finding]:
    """Something bears the load in each direction."""
    if not _holds_anything(tank):
        return
    if tank[MOUNT_LOADS].mass is None:
        yield _mount(
            "mount.no_mass",
            "",
            "caution",
            "Loads on the mounts aren't judged: the empty mass isn't known",
            "Its sheet parts can't be made as they are, see Sheet; until then nobody knows what the mounts bear.",
        )
    for case in tank[MOUNT_LOADS].cases:
        if not case.is_held:
            yield _mount(
                "mount.unheld",
                case.way,
                "stop",
                "What holds the tank {way} lets it turn: {load_n} at {pull_g}"
                if case.by
                else "Nothing holds the tank {way}: {load_n} at {pull_g}",
                "Straps press the tank down; friction under them isn't counted on. It slides, and tears its hoses off.",
                way=case.way,
                load_n=case.load_n,
                pull_g=case.g,
            )


def links_bear(tank: TankAnalysis) -> Iterator[Finding]:
    """No link of a mount yields below the house rule's reserve."""
    limit = tank.workshop.rules.mount_reserve
    for check in tank[MOUNT_LOADS].mounts if _holds_anything(tank) else ():
        weak = next((link for link in check.links if link.reserve < limit), None)
        if weak:
            yield _mount(
                "mount.weak",
                check.id,
                "stop",
                "{link} bears {reserve} times its load, limit {limit} (house rule): {load_n} {way}, {bears_n} to yield",
                WHY[weak.name],
                link=link_name(check, weak).capitalize(),
                reserve=round(weak.reserve, 2),
                limit=limit,
                load_n=weak.load_n,
                bears_n=weak.bears_n,
                way=weak.way,
            )


WHY = {
    "strap": "A strap that stretches lets the tank lift, and the next bump tears it.",
    "bolt": "The bolt stretches or shears, and that end of the tank is free.",
    "tear-out": "The bolt tears out through the edge of the sheet.",
    "bearing": "The hole is drawn long, the joint works, and the bolt comes loose.",
    "pull-through": "The washer is drawn through the sheet with the bolt still whole.",
    "spreading plate": "The plate dishes round its washer and the sheet follows.",
    "bending": "The bar gives way in the middle and the tank's floor bears on what is under it.",
    "weld to the tank": "The foot tears off, and the tank's wall with it.",
}


def link_name(check: MountCheck, link: LinkCheck) -> str:
    """Which link it is, in words."""
    end = f" at the {link.at} end" if link.at else ""
    return check.name if link.name == "strap" else f"{link.name} of {check.name}{end}"


def hollows_are_filled(tank: TankAnalysis) -> Iterator[Finding]:
    """Where a strap passes over a hollow it presses on two edges only."""
    for path in tank[STRAPS]:
        if path.bridged_at is not None and path.bridged_mm > BRIDGED_MM:
            yield _mount(
                "mount.hollow",
                path.id,
                "note",
                "{name} bridges a hollow {deep_mm} deep, limit {most_mm}",
                "It presses on the two edges alone: a block of the hollow's shape, or a station beside it.",
                name=path.name,
                deep_mm=path.bridged_mm,
                most_mm=BRIDGED_MM,
            )


def existing_straps_reach(tank: TankAnalysis) -> Iterator[Finding]:
    """A strap that is there already reaches with some of its take-up left."""
    for path in tank[STRAPS]:
        there = path.existing
        if there is None or there.short_by_mm == 0:
            continue
        short = there.short_by_mm > 0
        yield _mount(
            "mount.existing",
            path.id,
            "stop" if short else "caution",
            "{name} as it is, {long_mm}, is {off_mm} too short: at least {limit_mm}, a fifth of its take-up left"
            if short
            else "{name} as it is, {long_mm}, is {off_mm} too long: at most {limit_mm}, all of its take-up left",
            "It can't be closed over the tank." if short else "It bottoms before it presses on the tank.",
            name=path.name,
            long_mm=there.long_mm,
            off_mm=abs(there.short_by_mm),
            limit_mm=there.long_mm + there.short_by_mm,
        )
