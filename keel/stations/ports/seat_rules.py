"""Whether seats lie flat, apart, and their rings turn."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, saying
from keel.studies.ports.landing import CLOSING_SEAM, CROWDS, LANDINGS, Landing

_say = saying("ports")
TAB_ROOM_DEG = 25.0
"""Room on either side of a lock ring's stop for a drift and the hand that holds it [°]."""


def seats_land(tank: TankAnalysis) -> Iterator[Finding]:
    """Every seat sits on flat sheet, far enough from bends and seams."""
    ports = {port.id: port for port in tank.design.ports}
    for land in tank[LANDINGS]:
        seat = ports[land.id].seat
        found = (
            _flat_sheet(land, seat.hole_mm / 2 if seat else 0.0, tank.workshop.rules.land_mm),
            _welds(land, tank.workshop.rules.land_mm),
        )
        yield from (finding for finding in found if finding is not None)


def _flat_sheet(land: Landing, hole_mm: float, land_mm: float) -> Finding | None:
    values: dict[str, float | str] = {"name": land.name, "face": land.face, "flat_mm": land.flat_mm}
    if not land.on_sheet or land.flat_mm < hole_mm:
        title = "Hole of {name} runs off the flat of the {face}: flat to {flat_mm} round its middle, hole {hole_mm}"
        why = "A ring can't be welded tight across a bend. Move it in, or choose a smaller one."
        return _say("port.off_face", land.id, "stop", title, why, hole_mm=hole_mm, **values)
    if land.flat_mm < land.needed_mm - 0.5:
        title = "Flat sheet round {name} {flat_mm}, at least {needed_mm} (house rule)"
        why = "{land_mm} of it is for the weld; a bead on the bend of the {face} cracks."
        return _say("port.land", land.id, "caution", title, why, needed_mm=land.needed_mm, land_mm=land_mm, **values)
    return None


def _welds(land: Landing, land_mm: float) -> Finding | None:
    if land.seam_mm is None or land.seam_mm >= land_mm:
        return None
    if land.by == CLOSING_SEAM and land.seam_mm < 0:
        title = "{name} sits on the closing seam"
        why = "A hole through a seam opens it, and its ring can't lie flat on the bead. Move one of them."
        return _say("port.on_seam", land.id, "stop", title, why, name=land.name)
    title = "Weld of {name} {gap_mm} from {by}, at least {land_mm} (house rule)"
    why = "Two welds that near crack between."
    gap = max(0.0, land.seam_mm)
    return _say("port.seam", land.id, "caution", title, why, name=land.name, by=land.by, gap_mm=gap, land_mm=land_mm)


def ports_keep_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """Seats don't overlap, and hand and spanner have room."""
    for crowd in tank[CROWDS]:
        yield _say(
            "port.room",
            f"{crowd.first}+{crowd.second}",
            "caution",
            "{first} and {second} {apart_mm} apart, at least {needed_mm} for hand and spanner",
            "What can't be turned home leaks. Move one of them along.",
            first=crowd.first,
            second=crowd.second,
            apart_mm=crowd.apart_mm,
            needed_mm=crowd.needed_mm,
        )


def lock_rings_turn(tank: TankAnalysis) -> Iterator[Finding]:
    """A lock ring is turned home by its tabs: the hose must not lie over the place where it stops."""
    for port in tank.design.ports:
        if port.seat is None or port.seat.kind != "lock ring" or port.capped:
            continue
        if port.stop_deg is None:
            title = "Stop of {name}'s lock ring not stated"
            why = "Mark it, so that the ring that is welded in turns it the right way round."
            yield _say("port.stop", port.id, "note", title, why, name=port.name)
        elif port.hose_deg is not None and _between_deg(port.stop_deg, port.hose_deg) < TAB_ROOM_DEG:
            yield _say(
                "port.stop",
                port.id,
                "caution",
                "Hose of {name} {between_deg} from its lock ring's stop, at least {room_deg}",
                "The tab has to be tapped home there.",
                name=port.name,
                between_deg=_between_deg(port.stop_deg, port.hose_deg),
                room_deg=TAB_ROOM_DEG,
            )


def _between_deg(a: float, b: float) -> float:
    return abs((a - b + 180) % 360 - 180)
