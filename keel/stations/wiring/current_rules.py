"""What is wrong with ways, currents, sizes, fuses and contacts."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.wiring import Wire
from keel.findings.finding import Finding, saying
from keel.reference.wires import FUSES_A
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.wiring.runs import WIRE_RUNS
from keel.studies.wiring.supply import PUMP_SUPPLIES, STOPPINGS
from keel.studies.wiring.wired import WIRED, FuseFigures, LoadFigures
from keel.wiring.fuses import LEAST_TIMES, MOST_TIMES

_wiring = saying("wiring")
RELAY_FROM_A = 5.0
"""A pump that draws more is switched by a relay, not by a switch or a cut-off (house rule)."""
NEARLY = 1e-6


def there_is_a_battery(tank: TankAnalysis) -> Iterator[Finding]:
    """Current comes from somewhere, once."""
    batteries = [one.name for one in tank.design.wiring.devices if one.does.kind == "battery"]
    if not batteries and tank.design.wiring.wires:
        yield _wiring(
            "wiring.no_battery",
            "",
            "stop",
            "No battery is drawn",
            "Nothing is fed, and nothing about the wires is judged.",
        )
    if len(batteries) > 1:
        yield _wiring(
            "wiring.batteries",
            "",
            "stop",
            "{count} batteries are drawn, and only {first} is counted",
            "Draw battery and alternator as one.",
            count=len(batteries),
            first=batteries[0],
        )


def poles_stay_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """Nothing joins + and - without a load between."""
    if tank[WIRED].is_short:
        yield _wiring(
            "wiring.short",
            "",
            "stop",
            "The battery's + and - are joined without a load between",
            "The wire glows within a second and lights what is beside it: find the wire that is joined wrongly.",
        )


def wires_end_somewhere(tank: TankAnalysis) -> Iterator[Finding]:
    """No wire ends at something that was removed."""
    for name in tank[WIRE_RUNS].gone:
        wire = next(one for one in tank.design.wiring.wires if one.id == name)
        yield _wiring(
            "wiring.gone",
            wire.id,
            "stop",
            "{wire} ends at something that isn't there any more",
            "A bare end that is live touches metal, and the spark finds vapour: join it, or remove it.",
            wire=wire.name,
        )


def pumps_are_wired(tank: TankAnalysis) -> Iterator[Finding]:
    """Every electric pump has its wires."""
    wired = {one.id for one in tank[WIRED].loads if one.of == "pump"}
    for part in tank.design.lines.parts:
        if part.does.kind == "pump" and part.id not in wired:
            yield _wiring(
                "wiring.unwired",
                part.id,
                "caution",
                "No wire is joined to {name}",
                "At Lines it counts as fed without any loss of voltage.",
                name=part.name,
            )


def ways_are_whole(tank: TankAnalysis) -> Iterator[Finding]:
    """Every load is joined to both poles when everything is closed."""
    if tank[WIRED].is_short:
        return
    for load in tank[WIRED].loads:
        for whole, end in ((load.is_fed, "+"), (load.is_earthed, "-")):
            if not whole:
                yield _wiring(
                    "wiring.open",
                    f"{load.id}.{'feed' if end == '+' else 'return'}"[:80],
                    "stop",
                    "No way from {name} to the battery's {end}",
                    "It never runs; at Lines a pump counts as fed without any loss of voltage.",
                    name=_named(load),
                    end=end,
                )


def _named(load: LoadFigures) -> str:
    return f"the coil of {load.name}" if load.kind == "coil" else load.name


def currents_are_known(tank: TankAnalysis) -> Iterator[Finding]:
    """Nothing is judged by a current that nobody knows."""
    for load in tank[WIRED].loads:
        if load.current_a is None:
            yield _wiring(
                "wiring.no_current",
                load.id,
                "stop",
                "No current is known for {name}",
                "Its wires and its fuse are chosen as if it drew none: type its running current at Lines.",
                name=load.name,
            )


def little_is_lost(tank: TankAnalysis) -> Iterator[Finding]:
    """No load loses more of the voltage than the house allows."""
    most = tank.workshop.rules.wire_drop_v
    for load in tank[WIRED].loads:
        if load.drop_v is not None and load.drop_v > most + NEARLY:
            yield _wiring(
                "wiring.drop",
                load.id,
                "caution",
                "{name} loses {drop_v} in wires and contacts, limit {most_v}",
                "A pump at its wires' end turns slower and gives less: what is left of its flow is at Lines."
                if load.of == "pump"
                else "It works badly, or not when the battery is low.",
                name=_named(load),
                drop_v=round(load.drop_v, 2),
                most_v=most,
            )


def wires_bear_their_current(tank: TankAnalysis) -> Iterator[Finding]:
    """No wire carries more for good than it may where it lies."""
    for wire in tank[WIRED].wires:
        if wire.current_a is not None and wire.current_a > wire.carries_a + NEARLY:
            yield _wiring(
                "wiring.thin",
                wire.id,
                "stop",
                "{wire}, {area_wire}, carries {current_a}, limit {limit_a} where it lies",
                "Its insulation softens and bares the copper: thicker, or out of the heat.",
                wire=wire.name,
                area_wire=wire.area_mm2,
                current_a=wire.current_a,
                limit_a=wire.carries_a,
            )


def wires_are_fused(tank: TankAnalysis) -> Iterator[Finding]:
    """A fuse stands at the source of every wire, and blows before the wire is hurt."""
    far = tank.workshop.rules.unfused_mm
    if tank[WIRED].is_short:
        return
    for wire in tank[WIRED].wires:
        if wire.side == "feed" and wire.fuse_a is None and wire.unfused_mm > far + NEARLY:
            yield _wiring(
                "wiring.no_fuse",
                wire.id,
                "stop",
                "{wire}: {length_mm} from the battery without a fuse, limit {far_mm}",
                "Chafed through on the frame it carries all that the battery gives, and burns: fuse it at the battery.",
                wire=wire.name,
                length_mm=wire.unfused_mm,
                far_mm=far,
            )
        elif wire.fuse_a is not None and wire.fuse_a > wire.carries_a + NEARLY and wire.side != "signal":
            yield _wiring(
                "wiring.fuse_over",
                wire.id,
                "stop",
                "Fuse {fuse_a} before {wire}, {area_wire}, limit {limit_a} where it lies",
                "The wire melts before the fuse does: a smaller fuse, or a thicker wire.",
                wire=wire.name,
                fuse_a=wire.fuse_a,
                area_wire=wire.area_mm2,
                limit_a=wire.carries_a,
            )


def fuses_suit_their_current(tank: TankAnalysis) -> Iterator[Finding]:
    """1.25 to 1.5 times what flows, or the next on the shelf."""
    for fuse in tank[WIRED].fuses:
        if fuse.rating_a is None and fuse.current_a > 0:
            yield _fuse("wiring.fuse_none", fuse, "stop", "No fuse on the shelf bears {current_a}: {name}", FUSES_A[-1])
        elif fuse.rating_a is not None and fuse.current_a > 0:
            least = LEAST_TIMES * fuse.current_a
            enough = min((size for size in FUSES_A if size >= least - NEARLY), default=FUSES_A[-1])
            if fuse.rating_a < least - NEARLY:
                text = "{name}, {rating_a}, for {current_a} running, at least {limit_a}"
                yield _fuse("wiring.fuse_small", fuse, "caution", text, least)
            elif fuse.rating_a > max(MOST_TIMES * fuse.current_a, enough) + NEARLY:
                text = "{name}, {rating_a}, for {current_a} running, at most {limit_a}"
                limit = max(MOST_TIMES * fuse.current_a, enough)
                yield _fuse("wiring.fuse_large", fuse, "caution", text, limit)


_FUSE_WHY = {
    "wiring.fuse_none": "Share what it feeds between two fuses.",
    "wiring.fuse_small": "It blows one hot day with nothing wrong, and the engine stops.",
    "wiring.fuse_large": "A pump that is stuck draws less than that, and cooks without blowing it.",
}


def _fuse(code: str, fuse: FuseFigures, severity: str, text: str, limit: float) -> Finding:
    return _wiring(
        code,
        fuse.id,
        "stop" if severity == "stop" else "caution",
        text,
        _FUSE_WHY[code],
        name=fuse.name,
        rating_a=fuse.rating_a or 0.0,
        current_a=fuse.current_a,
        limit_a=limit,
    )


def contacts_bear_their_current(tank: TankAnalysis) -> Iterator[Finding]:
    """No contact, output or pin carries more than it is made for."""
    for one in tank[WIRED].contacts:
        if one.current_a > one.rating_a + NEARLY:
            yield _wiring(
                "wiring.contact",
                f"{one.id}.{one.terminal}"[:80].replace(" ", "-"),
                "stop",
                "{name}, {terminal}: {current_a}, limit {limit_a}",
                "Its contact welds shut, so that a cut-off no longer cuts, or burns away, so that the pump stops.",
                name=one.name,
                terminal=one.terminal,
                current_a=one.current_a,
                limit_a=one.rating_a,
            )


def pumps_have_relays(tank: TankAnalysis) -> Iterator[Finding]:
    """A pump's current doesn't go through the switch on the dash."""
    figures = tank[WIRED]
    kinds = {one.id: one for one in tank.design.wiring.devices if one.does.kind in ("switch", "cut-off")}
    by_current = {one.id: one.current_a for one in figures.contacts}
    relayed = {one.id for one in tank[PUMP_SUPPLIES] if any(link.kind == "relay" for link in one.through)}
    for load in figures.loads:
        current = load.current_a or 0.0
        if load.of != "pump" or current <= RELAY_FROM_A or load.id in relayed:
            continue
        ends = {end.id for wire in _wires_of(tank, load) for end in (wire.start, wire.end) if end.of == "device"}
        for device in kinds.values():
            if device.id in ends and by_current.get(device.id, 0.0) >= current - NEARLY:
                yield _wiring(
                    "wiring.no_relay",
                    f"{load.id}.{device.id}"[:80],
                    "caution",
                    "{current_a} of {pump} go through {device} itself: no relay",
                    "Its long way and its contact take voltage, and the contact burns: let it switch a relay's coil.",
                    current_a=current,
                    pump=load.name,
                    device=device.name,
                )


def _wires_of(tank: TankAnalysis, load: LoadFigures) -> list[Wire]:
    return [wire for wire in tank.design.wiring.wires if wire.id in load.wires]


def pumps_stop_by_themselves(tank: TankAnalysis) -> Iterator[Finding]:
    """In a crash, and when the engine stands, every pump stops."""
    for one in tank[STOPPINGS]:
        if not one.in_crash and not one.without_engine:
            yield _wiring(
                "wiring.no_cut_off",
                one.id,
                "stop",
                "{name} runs on after a crash: no cut-off in its feed or in its relay's",
                "A torn hose is fed until the battery is flat, and the fire with it.",
                name=one.name,
            )
        elif not one.in_crash:
            yield _wiring(
                "wiring.no_crash_cut_off",
                one.id,
                "caution",
                "{name} stops in a crash only once the engine does: {by}",
                "While the engine still turns a torn hose is fed. An inertia cut-off stops the pump at once.",
                name=one.name,
                by=", ".join(one.without_engine),
            )
        if one.in_crash and not one.without_engine and not one.by_controller:
            yield _wiring(
                "wiring.no_stall_cut_off",
                one.id,
                "caution",
                "{name} runs on when the engine stands: only {by} stops it",
                "A hose torn without a crash is fed until somebody thinks of the switch: an oil-pressure cut-off, or "
                "the controller's output, in its relay's coil.",
                name=one.name,
                by=", ".join(one.in_crash),
            )
        if one.without_engine and not one.primes:
            yield _wiring(
                "wiring.no_prime",
                one.id,
                "note",
                "Say how {name} runs before the engine does: {by} is open then",
                "Without a way past it the engine never starts; one that stays closed stops nothing.",
                name=one.name,
                by=", ".join(one.without_engine),
            )


def pumps_are_on_in_some_mode(tank: TankAnalysis) -> Iterator[Finding]:
    """No pump waits for an output that never comes on."""
    modes = tank[LINE_MODES]
    for one in tank[PUMP_SUPPLIES]:
        if one.is_whole and modes and not any(one.on):
            part = tank.design.lines.part(one.id)
            if part is not None and not getattr(part.does, "spare", False):
                yield _wiring(
                    "wiring.never_on",
                    one.id,
                    "stop",
                    "{name} is on in none of the {count} running modes",
                    "At Lines it counts as on in all of them: lower the output's threshold, or add the mode.",
                    name=one.name,
                    count=len(modes),
                )
