"""What keeps a mount from harming the tank: pads, covers, room for the coating, and what is masked."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from shapely import Point as Spot

from keel.analysis.parts import MOUNT, PORTS, SHELL, SOLIDS
from keel.analysis.study import study
from keel.design.mount import Bearer, Bolted, Foot, Mount, Stop, Strap
from keel.design.ports import Port
from keel.reference.fasteners import BOLTS
from keel.reference.metals import METALS
from keel.solid.solids import AnyShell, Solids
from keel.studies.mount.outline import outline_at
from keel.studies.mount.straps import STRAPS, StrapPath
from keel.studies.result import Words, words

BESIDE_MM = 5.0
"""A pad is wider than its strap by that much on either side [mm]."""
NEAR_MM = 30.0
"""The end of a bolt nearer to the tank than this is covered: the tank moves on its pads [mm]."""


@dataclass(frozen=True, slots=True)
class PadRow:
    """A pad or a cover: where it goes, what it is, how large, and why.

    Attributes
    ----------
    long_mm, wide_mm, thick_mm : float or None
        None for what is bought by the piece.
    """

    id: str
    place: str
    what: str
    long_mm: float | None
    wide_mm: float | None
    thick_mm: float | None
    note: Words


@dataclass(frozen=True, slots=True)
class CoatedHole:
    """A hole that a coating makes smaller: as drilled, and as it is left.

    Attributes
    ----------
    drill_mm : float
        Before coating, so that the bolt still passes.
    """

    id: str
    place: str
    bolt: str
    hole_mm: float
    drill_mm: float


@dataclass(frozen=True, slots=True)
class Masked:
    """What is masked, and against which coat."""

    place: str
    what: str
    against: str


@dataclass(frozen=True, slots=True)
class Protection:
    """Pads and covers, holes with room for the coating, and the masking list."""

    pads: list[PadRow]
    holes: list[CoatedHole]
    masked: list[Masked]


def protection(
    mount: Mount, paths: Sequence[StrapPath], solids: Solids, shell: AnyShell, ports: Sequence[Port]
) -> Protection:
    """Pads, covers, coating allowances and masking of a mount.

    Parameters
    ----------
    mount : Mount
        Straps, feet, stops, and the coating's thickness.
    paths : sequence of StrapPath
        The straps as they lie.
    solids : Solids
        The shell worked out.
    shell : AnyShell
        Its metal.
    ports : sequence of Port
        Their threads and faces are masked.

    Returns
    -------
    Protection
        A hole is drilled larger by twice the coating's thickness; threads and sealing faces are masked instead.
    """
    pads = [*_strap_pads(mount, paths), *_stop_pads(mount.stops), *_bearer_pads(mount.bearers)]
    pads += [*_isolated(mount, shell), *_covers(mount, solids)]
    return Protection(pads, list(_holes(mount)), list(_masking(mount, ports)))


def _strap_pads(mount: Mount, paths: Sequence[StrapPath]) -> Iterator[PadRow]:
    for strap, path in zip(mount.straps, paths, strict=True):
        if path.problem or strap.pad_mm == 0:
            continue
        contact = sum(run.long_mm for run in path.runs[1:-1])
        note = words("Bonded to the strap, not to the tank, and open at both ends, so that water runs out.")
        if path.bridged_at is not None:
            note = words(
                "A block of the hollow's shape under it, {deep_mm} deep, its top falling to both sides.",
                deep_mm=path.bridged_mm - strap.pad_mm,
            )
        what = "closed-cell rubber that fuel doesn't swell"
        yield PadRow(strap.id, strap.name, what, contact, strap.width_mm + 2 * BESIDE_MM, strap.pad_mm, note)


def _stop_pads(stops: Sequence[Stop]) -> Iterator[PadRow]:
    for stop in stops:
        if stop.pad_mm > 0:
            note = words("Held on the stop. A gap at its foot lets water out.")
            yield PadRow(stop.id, stop.name, "hard rubber", None, stop.wide_mm, stop.pad_mm, note)


def _bearer_pads(bearers: Sequence[Bearer]) -> Iterator[PadRow]:
    for bar in bearers:
        note = words("Bonded to the bar. Cut short of the tank's seams, so that they dry.")
        yield PadRow(bar.id, bar.name, "closed-cell rubber that fuel doesn't swell", None, bar.outer_mm, 5.0, note)


def _isolated(mount: Mount, shell: AnyShell) -> Iterator[PadRow]:
    """Aluminium and steel are kept apart where water stands between them."""
    own = METALS[shell.metal].family
    for foot in mount.feet:
        if METALS[foot.structure.metal].family != own:
            note = words(
                "{own} on {other} corrodes in the wet. A plastic sheet under the foot, a sleeve on the bolt.",
                own=shell.metal,
                other=foot.structure.metal,
            )
            yield PadRow(foot.id, foot.name, "isolating sheet and sleeve", None, None, None, note)


def _covers(mount: Mount, solids: Solids) -> Iterator[PadRow]:
    """Bolt ends that the tank could chafe on."""
    for key, name, place in _anchors(mount):
        strap, end = place
        axis = 0 if strap.across == "y" else 1
        outline = outline_at(solids, axis, strap.at_mm)
        anchor = strap.low if end == "low" else strap.high
        off = outline.distance(Spot(anchor.out_mm, anchor.z_mm)) if not outline.is_empty else NEAR_MM
        if off < NEAR_MM:
            note = words("Its bolt ends {off_mm} from the tank.", off_mm=off)
            yield PadRow(key, name, "domed nut or cap", None, None, None, note)


def _anchors(mount: Mount) -> Iterator[tuple[str, str, tuple[Strap, str]]]:
    for strap in mount.straps:
        ends = ("right", "left") if strap.across == "y" else ("rear", "front")
        for key, end in zip(("low", "high"), ends, strict=True):
            yield f"{strap.id}.{key}", f"{strap.name}, {end} end", (strap, key)


def _holes(mount: Mount) -> Iterator[CoatedHole]:
    coat = 2 * mount.coating_mm
    for key, name, place in _bolted(mount):
        hole = BOLTS[place.bolts.size].hole_mm
        yield CoatedHole(key, name, place.bolts.size, hole, hole + coat)


def _bolted(mount: Mount) -> Iterator[tuple[str, str, Bolted]]:
    for key, name, (strap, end) in _anchors(mount):
        yield key, name, strap.low if end == "low" else strap.high
    down: list[Foot | Stop | Bearer] = [*mount.feet, *mount.stops, *mount.bearers]
    yield from ((held.id, held.name, held) for held in down)


def _masking(mount: Mount, ports: Sequence[Port]) -> Iterator[Masked]:
    for port in ports:
        if port.seat is None:
            continue
        what = {
            "boss": "thread: plug it",
            "flange": "sealing face and bolt holes",
            "lock ring": "ring's groove and stop",
            "neck": "bead and bore",
        }[port.seat.kind]
        yield Masked(port.name, what, "paint and lining" if port.seat.kind != "neck" else "paint")
    for foot in mount.feet:
        yield Masked(foot.name, "underside where it is bonded to the frame, and its hole", "paint")
    if ports:
        yield Masked("bonding point", "bare metal round the strap's screw", "paint")


PROTECTION = study(protection, MOUNT, STRAPS, SOLIDS, SHELL, PORTS)
