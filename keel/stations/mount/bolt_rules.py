"""What is wrong with the bolts of a mount and what they sit in."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.mount import Anchor, Bearer, Bolted, Foot, Mount, Stop
from keel.findings.finding import Finding, saying
from keel.studies.mount.bolt_list import BOLTS_LISTED

_mount = saying("mount")
THIN_MM = 1.6
"""Sheet thinner than this gives way round a washer long before the bolt is loaded."""


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


def bolted_places(mount: Mount) -> Iterator[tuple[str, str, Bolted]]:
    """Every place that is bolted to the vehicle: its key, its name, itself."""
    for strap in mount.straps:
        ends: tuple[tuple[str, Anchor], ...] = (("low", strap.low), ("high", strap.high))
        for end, anchor in ends:
            yield f"{strap.id}.{end}", f"{strap.name}, {end_name(strap.across, end)} end", anchor
    down: list[Foot | Stop | Bearer] = [*mount.feet, *mount.stops, *mount.bearers]
    yield from ((held.id, held.name, held) for held in down)


def end_name(across: str, end: str) -> str:
    """What an end of a strap is called."""
    names = ("right", "left") if across == "y" else ("rear", "front")
    return names[0] if end == "low" else names[1]
