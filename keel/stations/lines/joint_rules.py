"""What is wrong with joints: what doesn't fit, what is left open, what lost its partner."""

from collections.abc import Iterator

from keel.analysis.parts import PORTS
from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import JetDoes, RegulatorDoes, ports_of
from keel.design.line_parts import LinePart
from keel.design.lines import TANK
from keel.design.ports import opened
from keel.findings.finding import Finding, saying
from keel.reference.connections import CLAMPED
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.circuits import CIRCUITS, REFERENCES
from keel.studies.lines.flows import FLOWS
from keel.studies.lines.joints import JOINTS
from keel.studies.lines.old_map import led_by_old
from keel.studies.lines.places import LINE_PLACES
from keel.studies.lines.stretches import STRETCHES
from keel.studies.lines.tank_side import TANK_PORTS, fuels_by_cell
from keel.studies.lines.ways import ENDS
from keel.studies.result import words

_lines = saying("lines")
MAY_STAY_OPEN = {"other tank", "rail", "surge tank"}
LEFT_OPEN = {"manifold", "reference", "vent"}
"""Connections that carry no fuel: judged by what they are for."""


def joints_fit(tank: TankAnalysis) -> Iterator[Finding]:
    """Both sides of every joint go together."""
    for joint in tank[JOINTS]:
        if joint.why is None:
            continue
        why = joint.why
        yield Finding(
            code="lines.joint",
            subject=joint.run,
            detail=joint.side,
            key=f"lines.joint:{joint.run}:{joint.side}",
            severity="stop",
            station="lines",
            title=words("{run} at {part}: " + why.text, run=joint.run_name, part=joint.part_name, **why.values),
            why=words("A joint whose halves don't belong together leaks fuel, some of them only once it shakes."),
        )


def joints_are_known(tank: TankAnalysis) -> Iterator[Finding]:
    """Every joint has a standard and a size."""
    unknown = [joint for joint in tank[JOINTS] if not joint.part_side and joint.port not in REFERENCES]
    if unknown:
        first = unknown[0]
        yield _lines(
            "lines.unknown_joint",
            first.part if first.part != TANK else first.port,
            "caution",
            "{count} of {all} joints without a standard, {part} among them",
            "Nobody can buy the end that fits, or see that it doesn't: measure thread and cone, and type them.",
            count=len(unknown),
            all=len(tank[JOINTS]),
            part=first.part_name,
        )


def no_tape_on_threads(tank: TankAnalysis) -> Iterator[Finding]:
    """Fuel threads get no tape."""
    for joint in tank[JOINTS]:
        if joint.sealant:
            yield _lines(
                "lines.tape",
                joint.run,
                "stop",
                "{run} at {part}: tape or paste on {thread}",
                "Shreds of it block injectors and jets. Cones and O-rings need none; a taper thread gets a fuel-proof "
                "liquid sealant, or is changed for an O-ring boss.",
                run=joint.run_name,
                part=joint.part_name,
                thread=joint.part_side or "its thread",
            )


def clamped_tubes_are_beaded(tank: TankAnalysis) -> Iterator[Finding]:
    """A hose on plain tube slides off under pressure."""
    limit = tank.workshop.rules.beaded_above_kpa
    highest = {one.id: one.highest_kpa for one in tank[STRETCHES]}
    for joint in tank[JOINTS]:
        if not joint.part_side.endswith("plain tube") or joint.run not in highest:
            continue
        if highest[joint.run] > limit:
            yield _lines(
                "lines.bead",
                joint.run,
                "stop",
                "{run} on plain tube of {part}: {highest_kpa} in it, limit {limit_kpa}",
                "Without a bead or a flare the clamp holds it by friction alone, and it slides off.",
                run=joint.run_name,
                part=joint.part_name,
                highest_kpa=highest[joint.run],
                limit_kpa=limit,
            )


def nothing_is_left_open(tank: TankAnalysis) -> Iterator[Finding]:
    """Every connection that isn't joined is capped."""
    lines = tank.design.lines
    joined = {(end.part, end.port) for run in lines.runs for end in (run.start, run.end)}
    kept = led_by_old(lines)
    for part in lines.parts:
        if part.hangs_in is not None:
            continue
        open_ones = [one for one in _open(part) if (part.id, one) not in joined and f"{part.id}.{one}" not in kept]
        if open_ones:
            yield _lines(
                "lines.open",
                part.id,
                "stop",
                "{name}: {ports} neither joined nor capped",
                "Fuel or air comes out of it, or in.",
                name=part.name,
                ports=" and ".join(f"'{one}'" for one in open_ones),
            )


def _open(part: LinePart) -> list[str]:
    """Connections that a part has and that aren't closed."""
    known = [one.id for one in part.connections] or list(ports_of(part.does))
    capped = {one.id for one in part.connections if one.capped}
    return [one for one in known if one not in capped and one not in LEFT_OPEN]


def tank_ports_are_joined(tank: TankAnalysis) -> Iterator[Finding]:
    """Every port of the tank that fuel goes through has its line, once there are lines."""
    lines = tank.design.lines
    if not lines.runs:
        return
    joined = {end.port for run in lines.runs for end in (run.start, run.end) if end.part == TANK}
    hung = {part.hangs_in for part in lines.parts}
    kept = led_by_old(lines)
    for port in opened(tank[PORTS], "pickup", "return", "transfer", "spare", "overflow"):
        if port.id not in joined and port.id not in hung and f"{TANK}.{port.id}" not in kept:
            yield _lines(
                "lines.port_open",
                port.id,
                "stop",
                "{name} of the tank: no line and no cap",
                "It has to be joined, or closed blind, before there is fuel in the tank.",
                name=port.name,
            )


def tank_ports_are_there(tank: TankAnalysis) -> Iterator[Finding]:
    """No line ends at a port that is gone, closed, or outside the tank."""
    ports = {port.id: port for port in tank[PORTS]}
    for run in tank.design.lines.runs:
        for end in (run.start, run.end):
            if end.part != TANK or (end.port in tank[TANK_PORTS] and not ports[end.port].capped):
                continue
            gone = "is closed blind" if end.port in tank[TANK_PORTS] else "isn't there"
            yield _lines(
                "lines.port_gone",
                run.id,
                "stop",
                "{name}: its port '{port}' of the tank {gone}",
                "Nothing flows in it: join it to another port, or open this one again at Ports.",
                name=run.name,
                port=ports[end.port].name if end.port in ports else end.port,
                gone=gone,
            )


def references_are_joined(tank: TankAnalysis) -> Iterator[Finding]:
    """A referenced regulator has its hose to the manifold, one that isn't has none."""
    lines = tank.design.lines
    joined = {(end.part, end.port): run for run in lines.runs for end in (run.start, run.end)}
    for part in lines.parts:
        if not isinstance(part.does, RegulatorDoes):
            continue
        run = joined.get((part.id, "reference"))
        if part.does.is_referenced and run is None:
            yield _lines(
                "lines.reference",
                part.id,
                "stop",
                "{name}: follows the manifold's pressure, no hose to it",
                "Its setting stays at {set_kpa} whatever the manifold does: lean under boost, rich at idle.",
                name=part.name,
                set_kpa=part.does.set_kpa,
            )
        if run is not None and not any(end.port == "manifold" for end in (run.start, run.end)):
            yield _lines(
                "lines.reference_end",
                part.id,
                "stop",
                "{name}: its reference hose doesn't end at the manifold",
                "It follows the pressure of wherever it ends.",
                name=part.name,
            )


def references_are_short(tank: TankAnalysis) -> Iterator[Finding]:
    """A regulator that follows the manifold stands near it."""
    limit = tank.workshop.rules.reference_mm
    lines, long = tank.design.lines, {way.id: way.length_mm for way in tank[LINE_PLACES].runs}
    for run in lines.runs:
        if {run.start.port, run.end.port} != set(REFERENCES) or long.get(run.id, 0.0) <= limit:
            continue
        yield _lines(
            "lines.reference_long",
            run.id,
            "caution",
            "{name}: {long_mm} long, limit {limit_mm}",
            "The regulator hears of the manifold late: lean when the throttle opens. Put it near the engine, or do "
            "without a reference.",
            name=run.name,
            long_mm=long[run.id],
            limit_mm=limit,
        )


def jets_are_driven(tank: TankAnalysis) -> Iterator[Finding]:
    """A jet pump moves fuel in every mode that the engine runs in."""
    modes, flows = tank[LINE_MODES], tank[FLOWS]
    for part in tank.design.lines.parts:
        flow = flows.part(part.id)
        if not isinstance(part.does, JetDoes) or flow is None:
            continue
        rows = zip(modes, flow.moved_lph, strict=True)
        dead = [mode.name for mode, moved in rows if not moved and not mode.failure]
        if dead:
            yield _lines(
                "lines.jet",
                part.id,
                "stop",
                "{name}: moves nothing in {count} of {all} modes, {mode} first",
                "Less than {least_kpa} drives it there: its lobe keeps its fuel, and the pickup runs dry.",
                name=part.name,
                count=len(dead),
                all=len(modes),
                mode=dead[0],
                least_kpa=part.does.least_kpa,
            )


def fuels_stay_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """No way leads from one fuel to another."""
    for circuit in tank[CIRCUITS]:
        if circuit.joins:
            yield _lines(
                "lines.two_fuels",
                circuit.parts[0] if circuit.parts else "",
                "stop",
                "{fuels} are joined: {way}",
                "A valve that is shut is no wall: it is left open or leaks one day, and an engine gets the wrong fuel. "
                "Two fuels have no line in common.",
                fuels=" and ".join(dict.fromkeys(circuit.fuels.values())),
                way=" – ".join(circuit.joins),
            )


def the_right_fuel_arrives(tank: TankAnalysis) -> Iterator[Finding]:
    """Nobody who draws gets a fuel that it isn't for."""
    for circuit in tank[CIRCUITS]:
        held = circuit.fuels_over(mode.fuel for mode in tank[LINE_MODES])
        for part in tank.design.lines.parts:
            if part.id not in circuit.parts or part.does.kind not in ENDS or not part.fuels:
                continue
            wrong = next((fuel for fuel in held if fuel not in part.fuels), None)
            if wrong is not None:
                yield _lines(
                    "lines.wrong_fuel",
                    part.id,
                    "stop",
                    "{name}: gets {fuel}, it is for {wanted}",
                    "An engine on the wrong fuel stops or burns out, and whoever is filled from it may find out in "
                    "the air.",
                    name=part.name,
                    fuel=wrong,
                    wanted=" or ".join(part.fuels),
                )


def fuels_are_told_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """Where cells hold unlike fuels each filler says which, and the other's spout doesn't go in."""
    fuels = fuels_by_cell(tank.design.lines, tank.solids, tank.design.brief.fuel)
    if len(set(fuels.values())) < 2:
        return
    said = {one.cell: one for one in tank.design.lines.fuels}
    for cell, fuel in fuels.items():
        one = said.get(cell)
        if one is None or not one.label:
            yield _lines(
                "lines.label",
                cell,
                "stop",
                "{cell}, {fuel}: no label at its filler, limit 1 each of {count}",
                "Somebody fills the wrong cell in the dark.",
                cell=cell,
                fuel=fuel,
                count=len(fuels),
            )
    spouts = {cell: one.spout_mm for cell, one in said.items() if cell in fuels}
    if len(set(spouts.values())) < len(fuels) or None in spouts.values():
        yield _lines(
            "lines.spout",
            "",
            "caution",
            "{count} fillers take the same spout, limit 1 each",
            "Necks as wide as each other let either fuel in: narrow one with a plate that only its own spout passes.",
            count=len(fuels),
        )


def parts_are_joined_to_the_tank(tank: TankAnalysis) -> Iterator[Finding]:
    """No part stands alone."""
    lines = tank.design.lines
    for name in tank[FLOWS].loose:
        part = lines.part(name)
        if part is not None and part.does.kind not in ("cap", *CLAMPED):
            yield _lines(
                "lines.loose",
                name,
                "stop",
                "{name}: no way to a tank",
                "Nothing flows in it, and none of its pressures is worked out: draw the line that it belongs to.",
                name=part.name,
            )
