"""Whether air leaves, fuel comes in, and what is drawn lets go of nothing."""

from collections.abc import Iterator

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, of_station
from keel.solid.polyhedron import Array
from keel.studies.liquid.draining import place_of
from keel.studies.ports.filling import FILL_RUNS
from keel.studies.result import words

_finding = of_station("ports")
LEAN_MOST_DEG = 10.0
NEAR_PICKUP_MM = 120.0
"""A return nearer to the pickup blows its bubbles into it."""


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
