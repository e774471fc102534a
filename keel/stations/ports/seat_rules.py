"""Whether seats lie flat, apart, and their rings turn."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, of_station
from keel.studies.ports.reach import CLOSING_SEAM, CROWDS, LANDINGS
from keel.studies.result import words

_finding = of_station("ports")
TAB_ROOM_DEG = 25.0
"""Room on either side of a lock ring's stop for a drift and the hand that holds it [°]."""


def seats_land(tank: TankAnalysis) -> Iterator[Finding]:
    """Every seat sits on flat sheet, far enough from bends and seams."""
    rules = tank.workshop.rules
    for land in tank[LANDINGS]:
        port = next(p for p in tank.design.ports if p.id == land.id)
        hole = port.seat.hole_mm / 2 if port.seat else 0.0
        if not land.on_sheet or land.flat_mm < hole:
            yield _finding(
                "port.off_face",
                land.id,
                "stop",
                words("The hole of {name} runs off the flat of the {face}", name=land.name, face=land.face),
                words(
                    "Flat sheet reaches {flat_mm} round its middle, the hole {hole_mm}.",
                    flat_mm=land.flat_mm,
                    hole_mm=hole,
                ),
            )
        elif land.flat_mm < land.needed_mm - 0.5:
            yield _finding(
                "port.land",
                land.id,
                "caution",
                words("{name} has too little flat sheet round it", name=land.name),
                words(
                    "It needs {needed_mm} round its middle with {land_mm} left for the weld (house rule); the "
                    "{face} is flat "
                    "for {flat_mm}.",
                    needed_mm=land.needed_mm,
                    land_mm=rules.land_mm,
                    face=land.face,
                    flat_mm=land.flat_mm,
                ),
            )
        if land.seam_mm is not None and land.by == CLOSING_SEAM and land.seam_mm < 0:
            yield _finding(
                "port.on_seam",
                land.id,
                "stop",
                words("{name} sits on the closing seam", name=land.name),
                words("A hole through a seam opens it, and its ring can't lie flat on the bead. Move one of them."),
            )
        elif land.seam_mm is not None and land.seam_mm < rules.land_mm:
            yield _finding(
                "port.seam",
                land.id,
                "caution",
                words("{name} is welded too near {by}", name=land.name, by=land.by),
                words(
                    "{gap_mm} between them, {land_mm} is the house rule: two welds that near crack between.",
                    gap_mm=max(0.0, land.seam_mm),
                    land_mm=rules.land_mm,
                ),
            )


def ports_keep_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """Seats don't overlap, and hand and spanner have room."""
    for crowd in tank[CROWDS]:
        yield _finding(
            "port.room",
            f"{crowd.first}+{crowd.second}",
            "caution",
            words("No room for hand and spanner between {first} and {second}", first=crowd.first, second=crowd.second),
            words(
                "{apart_mm} from middle to middle, they need {needed_mm}.",
                apart_mm=crowd.apart_mm,
                needed_mm=crowd.needed_mm,
            ),
        )


def lock_rings_turn(tank: TankAnalysis) -> Iterator[Finding]:
    """A lock ring is turned home by its tabs: the hose must not lie over the place where it stops."""
    for port in tank.design.ports:
        if port.seat is None or port.seat.kind != "lock ring" or port.capped:
            continue
        if port.stop_deg is None:
            yield _finding(
                "port.stop",
                port.id,
                "note",
                words("Where the lock ring of {name} comes home isn't said", name=port.name),
                words("Mark its stop, so that the ring that is welded in turns it the right way round."),
            )
        elif port.hose_deg is not None and _between_deg(port.stop_deg, port.hose_deg) < TAB_ROOM_DEG:
            yield _finding(
                "port.stop",
                port.id,
                "caution",
                words("The hose of {name} lies over its lock ring's stop", name=port.name),
                words(
                    "{between_deg} between them; the tab has to be tapped home there: leave {room_deg}.",
                    between_deg=_between_deg(port.stop_deg, port.hose_deg),
                    room_deg=TAB_ROOM_DEG,
                ),
            )


def _between_deg(a: float, b: float) -> float:
    return abs((a - b + 180) % 360 - 180)
