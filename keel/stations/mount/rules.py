"""What is wrong with how the tank is held."""

from collections.abc import Iterator

from keel.analysis.parts import VEHICLE
from keel.analysis.tank import TankAnalysis
from keel.design.mount import Anchor, Bolted, Foot, Mount, Stop
from keel.findings.finding import Finding, saying
from keel.studies.mount.bolt_list import BOLTS_LISTED
from keel.studies.mount.leaned_on import LEANED_ON
from keel.studies.mount.loads import MOUNT_LOADS, LinkCheck, MountCheck
from keel.studies.mount.mounted_gaps import MOUNTED_GAPS
from keel.studies.mount.near_seams import NEAR_SEAMS
from keel.studies.mount.straps import STRAPS

_mount = saying("mount")
FEWEST_STRAPS = 2
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
    return bool(mount.straps or mount.feet or mount.stops)


def held_every_way(tank: TankAnalysis) -> Iterator[Finding]:
    """Something bears the load in each direction."""
    for case in tank[MOUNT_LOADS].cases if _holds_anything(tank) else ():
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
    "weld to the tank": "The foot tears off, and the tank's wall with it.",
}


def link_name(check: MountCheck, link: LinkCheck) -> str:
    """Which link it is, in words."""
    end = f" at the {link.at} end" if link.at else ""
    return check.name if link.name == "strap" else f"{link.name} of {check.name}{end}"


def thin_sheet_is_spread(tank: TankAnalysis) -> Iterator[Finding]:
    """Body sheet gets a spreading plate, or the bolt goes to something stronger."""
    for key, name, place in bolted_places(tank.design.mount):
        structure = place.structure
        thin = structure.found == "body sheet" and structure.thickness_mm < THIN_MM
        if thin and structure.plate is None:
            yield _mount(
                "mount.thin_sheet",
                key,
                "caution",
                "{name} bolted to body sheet {thickness_sheet} thick without a plate, limit {least_sheet}",
                "Thin sheet fatigues round a washer. A frame rail or bulkhead within reach is the stronger structure.",
                name=name,
                thickness_sheet=structure.thickness_mm,
                least_sheet=THIN_MM,
            )


def bolts_can_be_turned(tank: TankAnalysis) -> Iterator[Finding]:
    """Where no second spanner reaches the nut is captive; every nut locks; worn bolts aren't used again."""
    for key, name, place in bolted_places(tank.design.mount):
        bolts = place.bolts
        if not place.structure.from_both_sides and not bolts.captive:
            yield _mount(
                "mount.spanner",
                key,
                "stop",
                "{name}: no second spanner reaches the nut, and it isn't captive",
                "It can't be tightened, and nobody finds out until the tank is in.",
                name=name,
            )
        if bolts.locking == "none":
            yield _mount(
                "mount.locking",
                key,
                "caution",
                "{name}: nothing keeps its bolt from coming loose",
                "Nuts on a tank are shaken on every road; a plain one backs off.",
                name=name,
            )
        if bolts.state == "reused, worn":
            yield _mount(
                "mount.worn",
                key,
                "stop",
                "{name}: its bolt is worn",
                "A worn thread strips at a fraction of the load it is counted with.",
                name=name,
            )


def bolts_are_long_enough(tank: TankAnalysis) -> Iterator[Finding]:
    """A bolt as sold passes its stack and fills its nut."""
    for row in tank[BOLTS_LISTED]:
        if row.length_mm is None:
            yield _mount(
                "mount.bolt_length",
                row.id,
                "caution",
                "{name}: no {size} bolt as sold passes {stack_mm} and its nut",
                "A nut that its bolt doesn't fill strips.",
                name=row.name,
                size=row.size,
                stack_mm=row.stack_mm,
            )


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
            "{name} as it is, {long_mm}, is {off_mm} too short for {cut_mm}"
            if short
            else "{name} as it is, {long_mm}, is {off_mm} too long for {cut_mm}",
            "It can't be closed over the tank." if short else "It bottoms before it presses on the tank.",
            name=path.name,
            long_mm=there.long_mm,
            off_mm=abs(there.short_by_mm),
            cut_mm=path.cut_mm,
        )


def mounts_keep_off(tank: TankAnalysis) -> Iterator[Finding]:
    """No strap runs over a port, and none comes near what is hot, moves or closes."""
    for gap in tank[MOUNTED_GAPS]:
        if gap.on_tank:
            yield _mount(
                "mount.over_port",
                gap.id,
                "stop",
                "{name} runs over {beside}",
                "It can't be laid there, or it crushes what it lies on.",
                name=gap.name,
                beside=gap.beside,
            )
        else:
            yield _mount(
                "mount.gap",
                f"{gap.id}.{gap.beside}"[:80],
                "stop",
                "{name} {gap_mm} from {beside}, limit {needed_mm}",
                "What moves saws through it, what is hot softens its pad, what closes presses on it.",
                name=gap.name,
                beside=gap.beside,
                gap_mm=gap.gap_mm,
                needed_mm=gap.needed_mm,
            )


def panels_bear_who_stands_there(tank: TankAnalysis) -> Iterator[Finding]:
    """A shell that somebody leans on or that carries a bracket isn't bent for good by it."""
    for check in tank[LEANED_ON]:
        if not check.bears:
            yield _mount(
                "mount.leaned_on",
                check.by,
                "stop",
                "{panel} under {name}, {load_n}: {stress_mpa}, limit {allowed_mpa}",
                "It dents for good, and the seam beside the dent cracks later.",
                panel=check.panel.capitalize(),
                load_n=check.load_n,
                name=check.name,
                stress_mpa=check.stress_mpa,
                allowed_mpa=check.allowed_mpa,
            )


def new_work_keeps_off_seams(tank: TankAnalysis) -> Iterator[Finding]:
    """No new hole, bend or flattened edge in what a seam's heat has softened."""
    for near in (tank.get(NEAR_SEAMS) or []) if tank.design.mount.new_work else []:
        if not near.clears:
            yield _mount(
                "mount.near_seam",
                near.id,
                "stop",
                "{name} {off_mm} from the seam of {seam}, limit {needed_mm} (house rule)",
                "The metal beside a seam is soft and holds what the weld left in it: a new edge there starts a crack.",
                name=near.name,
                off_mm=near.off_mm,
                seam=near.seam,
                needed_mm=near.needed_mm,
            )


def cuts_are_reinforced(tank: TankAnalysis) -> Iterator[Finding]:
    """What is cut out of a vehicle's structure has something that takes over what it carried."""
    for cut in tank.design.mount.cuts:
        if not cut.reinforcement.strip():
            yield _mount(
                "mount.cut",
                cut.id,
                "stop",
                "{name} is cut and nothing takes over what it carried",
                "The vehicle gives way there in a crash, or cracks long before one. A licensed trade decides.",
                name=cut.name,
            )


def bolted_places(mount: Mount) -> Iterator[tuple[str, str, Bolted]]:
    """Every place that is bolted to the vehicle: its key, its name, itself."""
    for strap in mount.straps:
        ends: tuple[tuple[str, Anchor], ...] = (("low", strap.low), ("high", strap.high))
        for end, anchor in ends:
            yield f"{strap.id}.{end}", f"{strap.name}, {end_name(strap.across, end)} end", anchor
    down: list[Foot | Stop] = [*mount.feet, *mount.stops]
    yield from ((held.id, held.name, held) for held in down)


def end_name(across: str, end: str) -> str:
    """What an end of a strap is called."""
    names = ("right", "left") if across == "y" else ("rear", "front")
    return names[0] if end == "low" else names[1]
