"""Rules of the ports: reach, holes, lands, room, air, drain and return."""

from collections.abc import Iterator

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, Rule, of_station
from keel.solid.polyhedron import Array
from keel.studies.liquid.draining import place_of
from keel.studies.ports.filling import FILL_RUNS
from keel.studies.ports.reach import CLOSING_SEAM, CROWDS, HUNG, LANDINGS, REACHES
from keel.studies.result import words

ROUNDING_MM = 0.05
LEAN_MOST_DEG = 10.0
HIGH_SHARE = 0.01
"""More air than this share of brimful is remarked on when the tank stands on a slope."""
TAB_ROOM_DEG = 25.0
"""Room on either side of a lock ring's stop for a drift and the hand that holds it [°]."""
NEAR_PICKUP_MM = 120.0
"""A return nearer to the pickup blows its bubbles into it."""


_finding = of_station("ports")


def hangers_reach(tank: TankAnalysis) -> Iterator[Finding]:
    """Every hanger reaches the floor; the second measurement agrees."""
    for reach in tank[REACHES]:
        if reach.agrees is False:
            yield _finding(
                "reach.mismatch",
                reach.id,
                "stop",
                words(
                    "{name}: measured {second_mm}, calculated {depth_mm}",
                    name=reach.name,
                    second_mm=reach.second_mm or 0.0,
                    depth_mm=reach.depth_mm,
                ),
                words("Two measurements that don't agree: cut nothing before you know which is right."),
            )
        if reach.short_mm > ROUNDING_MM:
            yield _finding(
                "reach.short",
                reach.id,
                "stop",
                words("{name} stops {short_mm} short of the floor", name=reach.name, short_mm=reach.short_mm),
                words(
                    "The tank is {depth_mm} deep there from flange seat to floor, it is made for {made_mm}. "
                    "What lies below it can't be drawn.",
                    depth_mm=reach.depth_mm,
                    made_mm=reach.made_for_mm,
                ),
            )
        elif reach.too_long_mm > ROUNDING_MM:
            yield _finding(
                "reach.long",
                reach.id,
                "stop",
                words(
                    "{name} stays {over_mm} too long, cut as far as it may be",
                    name=reach.name,
                    over_mm=reach.too_long_mm,
                ),
                words(
                    "Made for {made_mm}, the tank is {depth_mm} deep there, with bracket and tube at their least.",
                    made_mm=reach.made_for_mm,
                    depth_mm=reach.depth_mm,
                ),
            )
        elif reach.short_mm < -ROUNDING_MM and reach.agrees is None:
            yield _finding(
                "reach.cut",
                reach.id,
                "note",
                words("{name} has to be cut by {more_mm}", name=reach.name, more_mm=-reach.short_mm),
                words(
                    "Made for {made_mm}, the tank is {depth_mm} deep there. Measure once more in the finished opening, "
                    "another way, and type it before the first cut.",
                    made_mm=reach.made_for_mm,
                    depth_mm=reach.depth_mm,
                ),
            )


def parts_go_in(tank: TankAnalysis) -> Iterator[Finding]:
    """What hangs passes its hole and meets nothing inside."""
    for item in tank[HUNG]:
        if item.passes is False:
            yield _finding(
                "port.hole",
                item.id,
                "stop",
                words(
                    "{name} doesn't go through its hole: {widest_mm} through {hole_mm}",
                    name=item.name,
                    widest_mm=item.widest_mm,
                    hole_mm=item.hole_mm or 0.0,
                ),
                words("Its widest measure on the way in is more than the hole. Find a larger ring or a slimmer part."),
            )
        if item.meets:
            yield _finding(
                "port.meets",
                item.id,
                "stop",
                words("{name} meets {what} inside", name=item.name, what=" and ".join(item.meets)),
                words("It can't be put in, or rubs through. Move one of them."),
            )


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


def air_path(tank: TankAnalysis) -> Iterator[Finding]:
    """The way of the air: valve upright, outlet where it harms nobody, no low loop."""
    asked = {
        "outside": "ends outside the body",
        "below_people": "ends below and away from people",
        "away_from_exhaust": "ends away from the exhaust",
        "falls_away": "falls away without a low loop, or has a drain",
    }
    for port in tank.design.ports:
        vent = port.vent
        if port.role != "vent" or vent is None:
            continue
        wrong = [said for field, said in asked.items() if getattr(vent, field) is False]
        open_ = [said for field, said in asked.items() if getattr(vent, field) is None]
        if wrong:
            yield _finding(
                "vent.route",
                port.id,
                "stop",
                words("{name}: it must be so that it {what}", name=port.name, what="; ".join(wrong)),
                words("Fuel vapour explodes, and overflow has to go where it harms nobody. Local code outranks this."),
            )
        elif open_:
            yield _finding(
                "vent.unchecked",
                port.id,
                "note",
                words(
                    "{name}: {count} things about its way out are not looked at yet", name=port.name, count=len(open_)
                ),
                words("Say whether it {what}.", what="; ".join(open_)),
            )
        if vent.rollover and vent.lean_deg > LEAN_MOST_DEG:
            yield _finding(
                "vent.lean",
                port.id,
                "stop",
                words(
                    "Roll-over valve of {name} {lean_deg} off upright, limit {most_deg}",
                    name=port.name,
                    lean_deg=vent.lean_deg,
                    most_deg=LEAN_MOST_DEG,
                ),
                words("Its ball shuts by its own weight: leaning it shuts late or never."),
            )


def low_and_returned(tank: TankAnalysis) -> Iterator[Finding]:
    """The drain is at the low point; returns end under the surface, away from the pickup; spare ports are shut."""
    pickups = [place_of(tank.solids, port) for port in tank.design.ports if port.role == "pickup"]
    lowest = min(float(cell.mesh.points[:, 2].min()) for cell in tank.solids.cells)
    for port in tank.design.ports:
        place = place_of(tank.solids, port)
        if port.role == "drain" and place[2] > lowest + 2.0:
            yield _finding(
                "drain.high",
                port.id,
                "caution",
                words("{name} is {up_mm} above the lowest place", name=port.name, up_mm=float(place[2]) - lowest),
                words("Water and dirt gather below it and stay. Put it at the low point as the tank is mounted."),
            )
        if port.role == "return":
            yield from _return_of(tank, port.id, port.name, place, pickups)
        if port.role == "spare" and not port.capped:
            yield _finding(
                "port.open",
                port.id,
                "stop",
                words("{name} is not closed", name=port.name),
                words("A port that waits for later is closed blind, with a plug that the fuel doesn't attack."),
            )


def _return_of(tank: TankAnalysis, name_id: str, name: str, here: Array, pickups: list[Array]) -> Iterator[Finding]:
    middle = (tank.solids.inner_body.low[2] + tank.solids.inner_body.high[2]) / 2
    if here[2] > middle:
        yield _finding(
            "return.high",
            name_id,
            "caution",
            words("{name} ends above half full", name=name),
            words("Falling fuel froths and gives off vapour: lead it down under the surface."),
        )
    near = min((float(np.linalg.norm(here - p)) for p in pickups), default=None)
    if near is not None and near < NEAR_PICKUP_MM:
        yield _finding(
            "return.near",
            name_id,
            "caution",
            words("{name} blows on the pickup, {near_mm} away", name=name, near_mm=near),
            words(
                "Its bubbles and heat go straight to the pump; keep {least_mm} between them.", least_mm=NEAR_PICKUP_MM
            ),
        )


def fills_and_draws(tank: TankAnalysis) -> Iterator[Finding]:
    """The tank fills without spitting back, in the time wanted, and draws without sucking itself in."""
    rules = tank.workshop.rules
    for cell, run in tank[FILL_RUNS].items():
        if run.held_back_by == "no vent":
            continue
        if run.shuts_off:
            yield _finding(
                "fill.back_pressure",
                cell,
                "caution",
                words(
                    "Back pressure {peak_kpa} while the {cell} is filled, limit {limit_kpa} (house rule)",
                    peak_kpa=run.peak_kpa,
                    cell=cell,
                    limit_kpa=rules.back_pressure_kpa,
                ),
                words("Above it a nozzle shuts off or the neck spits back. A larger vent lets the air by."),
            )
        if run.wanted_s is not None and run.seconds > run.wanted_s * 1.001:
            yield _finding(
                "fill.slow",
                cell,
                "caution",
                words(
                    "Filling the {cell} takes {taken_s}, wanted is {wanted_s}",
                    cell=cell,
                    taken_s=run.seconds,
                    wanted_s=run.wanted_s,
                ),
                words("A vent of {bore_mm} would do.", bore_mm=run.vent_for_wanted_mm)
                if run.vent_for_wanted_mm
                else words(
                    "The {held} holds it back most: with an open vent it still takes {open_s}.",
                    held=run.held_back_by,
                    open_s=run.open_vent_s,
                ),
            )
        if run.vacuum_kpa is not None and run.vacuum_kpa > rules.vent_vacuum_kpa:
            yield _finding(
                "draw.vacuum",
                cell,
                "stop",
                words(
                    "Drawing {draw_lph} pulls {vac_kpa} of vacuum",
                    draw_lph=run.drawn_l_per_h or 0.0,
                    vac_kpa=run.vacuum_kpa,
                ),
                words(
                    "{limit_kpa} is the house rule: flat panels suck in and the pump starves. Give it a larger vent.",
                    limit_kpa=rules.vent_vacuum_kpa,
                ),
            )


PORT_RULES: tuple[Rule, ...] = (
    hangers_reach,
    parts_go_in,
    seats_land,
    ports_keep_apart,
    lock_rings_turn,
    air_path,
    low_and_returned,
    fills_and_draws,
)
