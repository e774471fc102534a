"""What of a mount harms the tank, the vehicle or what is beside it."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, saying
from keel.studies.mount.leaned_on import LEANED_ON
from keel.studies.mount.mounted_gaps import MOUNTED_GAPS
from keel.studies.mount.near_seams import NEAR_SEAMS

_mount = saying("mount")


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
