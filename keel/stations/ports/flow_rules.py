"""Whether air leaves, fuel comes in, and what is drawn lets go of nothing."""

from collections.abc import Iterator

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.ports import Port, VentPath
from keel.design.workshop import HouseRules
from keel.findings.finding import Finding, saying
from keel.solid.polyhedron import Array
from keel.studies.liquid.draining import place_of
from keel.studies.ports.filling import FILL_RUNS, FillRun

_say = saying("ports")
LEAN_MOST_DEG = 10.0
NEAR_PICKUP_MM = 120.0
"""A return nearer to the pickup blows its bubbles into it."""
LOW_MM = 2.0
"""A drain this little above the lowest place still empties the tank [mm]."""
OUTLET = {
    "outside": "end outside the body",
    "below_people": "end below and away from people",
    "away_from_exhaust": "end away from the exhaust",
    "falls_away": "fall away without a low loop, or have a drain",
}


def air_path(tank: TankAnalysis) -> Iterator[Finding]:
    """The way of the air: valve upright, outlet where it harms nobody, no low loop."""
    for port in tank.design.ports:
        if port.role == "vent" and port.vent is not None:
            yield from _outlet(port, port.vent)


def _outlet(port: Port, vent: VentPath) -> Iterator[Finding]:
    wrong = [said for field, said in OUTLET.items() if getattr(vent, field) is False]
    unseen = [said for field, said in OUTLET.items() if getattr(vent, field) is None]
    if wrong:
        title, what = "Outlet of {name} must {what}", " and ".join(wrong)
        why = "Fuel vapour explodes, and overflow has to go where it harms nobody. Local code outranks this."
        yield _say("vent.route", port.id, "stop", title, why, name=port.name, what=what)
    elif unseen:
        title, why = "{count} of {all} questions about the outlet of {name} not answered", "It must {what}."
        count, of = str(len(unseen)), str(len(OUTLET))
        what = "; ".join(unseen)
        yield _say("vent.unchecked", port.id, "note", title, why, name=port.name, what=what, count=count, all=of)
    if vent.rollover and vent.lean_deg > LEAN_MOST_DEG:
        yield _say(
            "vent.lean",
            port.id,
            "stop",
            "Roll-over valve of {name} {lean_deg} off upright, limit {most_deg}",
            "Its ball shuts by its own weight: leaning it shuts late or never.",
            name=port.name,
            lean_deg=vent.lean_deg,
            most_deg=LEAN_MOST_DEG,
        )


def low_and_returned(tank: TankAnalysis) -> Iterator[Finding]:
    """The drain is at the low point; returns end under the surface, away from the pickup; spare ports are shut."""
    pickups = [place_of(tank.solids, port) for port in tank.design.ports if port.role == "pickup"]
    lowest = min(float(cell.mesh.points[:, 2].min()) for cell in tank.solids.cells)
    for port in tank.design.ports:
        place = place_of(tank.solids, port)
        if port.role == "drain" and place[2] > lowest + LOW_MM:
            title = "{name} {up_mm} above the lowest place, limit {most_mm}"
            why = "Water and dirt gather below it and stay. Put it at the low point as the tank is mounted."
            up = float(place[2]) - lowest
            yield _say("drain.high", port.id, "caution", title, why, name=port.name, up_mm=up, most_mm=LOW_MM)
        if port.role == "return":
            yield from _return_of(tank, port, place, pickups)
        if port.role == "spare" and not port.capped:
            why = "A port that waits for later is closed blind, with a plug that the fuel doesn't attack."
            yield _say("port.open", port.id, "stop", "{name} is not closed", why, name=port.name)


def _return_of(tank: TankAnalysis, port: Port, here: Array, pickups: list[Array]) -> Iterator[Finding]:
    floor, roof = tank.solids.inner_body.low[2], tank.solids.inner_body.high[2]
    up, half = float(here[2]) - floor, (roof - floor) / 2
    if up > half:
        title = "{name} ends {up_mm} above the floor, at most {half_mm} (half depth)"
        why = "Falling fuel froths and gives off vapour: lead it down under the surface."
        yield _say("return.high", port.id, "caution", title, why, name=port.name, up_mm=up, half_mm=half)
    near = min((float(np.linalg.norm(here - p)) for p in pickups), default=None)
    if near is not None and near < NEAR_PICKUP_MM:
        title, why = "{name} {near_mm} from the pickup, at least {least_mm}", "Its bubbles and heat go to the pump."
        yield _say("return.near", port.id, "caution", title, why, name=port.name, near_mm=near, least_mm=NEAR_PICKUP_MM)


def fills_and_draws(tank: TankAnalysis) -> Iterator[Finding]:
    """The tank fills without spitting back, in the time wanted, and draws without sucking itself in."""
    for cell, run in tank[FILL_RUNS].items():
        if run.held_back_by != "no vent":
            yield from _filling(cell, run, tank.workshop.rules)


def _filling(cell: str, run: FillRun, rules: HouseRules) -> Iterator[Finding]:
    if run.shuts_off:
        yield _say(
            "fill.back_pressure",
            cell,
            "caution",
            "Back pressure {peak_kpa} while the {cell} is filled, limit {limit_kpa} (house rule)",
            "Above it a nozzle shuts off or the neck spits back. A larger vent lets the air by.",
            peak_kpa=run.peak_kpa,
            cell=cell,
            limit_kpa=rules.back_pressure_kpa,
        )
    if run.wanted_s is not None and run.seconds > run.wanted_s * 1.001:
        values: dict[str, float | str] = {"cell": cell, "taken_s": run.seconds, "wanted_s": run.wanted_s}
        title, why = "Filling the {cell} takes {taken_s}, limit {wanted_s} (as wanted)", "A vent of {bore_mm} would do."
        if run.vent_for_wanted_mm:
            values["bore_mm"] = run.vent_for_wanted_mm
        else:
            why = "The {held} holds it back most: with an open vent it still takes {open_s}."
            values |= {"held": run.held_back_by, "open_s": run.open_vent_s}
        yield _say("fill.slow", cell, "caution", title, why, **values)
    if run.vacuum_kpa is not None and run.vacuum_kpa > rules.vent_vacuum_kpa:
        yield _say(
            "draw.vacuum",
            cell,
            "stop",
            "Vacuum {vac_kpa} at {draw_lph}, limit {limit_kpa} (house rule)",
            "Flat panels suck in and the pump starves. Give the {cell} a larger vent.",
            cell=cell,
            draw_lph=run.drawn_l_per_h or 0.0,
            vac_kpa=run.vacuum_kpa,
            limit_kpa=rules.vent_vacuum_kpa,
        )
