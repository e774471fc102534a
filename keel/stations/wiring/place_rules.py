"""What is wrong with where wires and devices are: in the tank, in vapour, in heat; what isn't bonded; lamps."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.wiring import Device, Wire
from keel.findings.finding import Finding, Severity, saying
from keel.reference.wires import INSULATIONS
from keel.studies.lines.route_gaps import Danger, RouteGap
from keel.studies.lines.surroundings import SURROUNDINGS
from keel.studies.wiring.bonds import BONDING
from keel.studies.wiring.gaps import WIRE_GAPS
from keel.studies.wiring.lamps import LAMPS, LEVELS
from keel.studies.wiring.pins import PINS
from keel.studies.wiring.runs import WIRE_RUNS

_wiring = saying("wiring")
SPARKS = ("fuse", "relay", "cut-off", "switch", "changeover switch", "level switch", "controller")
"""What a contact opens in, or a wire melts in."""
JOINTS = ("connector", "splice")
RESERVE_OFF = 0.1
"""A low switch may be off the reserve by that share of it (house rule)."""


def _stands(tank: TankAnalysis, wire: Wire) -> tuple[str, str]:
    ends = (tank[WIRE_RUNS].at(end) for end in (wire.start, wire.end))
    first, last = (end.stands if end else "outside" for end in ends)
    return first, last


def wires_in_the_tank_bear_fuel(tank: TankAnalysis) -> Iterator[Finding]:
    """Fuel-proof, held, and through the wall by something that seals."""
    for wire in tank.design.wiring.wires:
        stands = _stands(tank, wire)
        if "in the tank" not in stands:
            continue
        if "outside" in stands:
            yield _wiring(
                "wiring.through_wall",
                wire.id,
                "stop",
                "{wire} goes through the tank's wall without a sealed terminal or plug",
                "Fuel creeps out along its strands, past any grommet: end it at a plug that stands in the wall.",
                wire=wire.name,
            )
        insulation = INSULATIONS[wire.insulation]
        if not insulation.in_fuel:
            yield _wiring(
                "wiring.in_fuel",
                wire.id,
                "stop",
                "{wire} lies in fuel and is covered with {insulation}",
                f"{insulation.why[:1].upper()}{insulation.why[1:]}: only fluoropolymer stays whole in fuel.",
                wire=wire.name,
                insulation="something that nobody knows" if wire.insulation == "not known" else wire.insulation,
            )
        if not wire.supported:
            yield _wiring(
                "wiring.in_tank_loose",
                wire.id,
                "caution",
                "{wire} hangs loose in the tank"
                if wire.supported is False
                else "Say whether {wire} is tied down in the tank",
                "Slosh swings it until it breaks, or lays it into the float's way or the pickup: tie it to the hanger.",
                wire=wire.name,
            )


def no_sparks_in_vapour(tank: TankAnalysis) -> Iterator[Finding]:
    """What can spark stands outside the tank; joints too, where possible."""
    for device in tank.design.wiring.devices:
        if device.stands != "in the tank" or device.sealed:
            continue
        if device.does.kind in SPARKS:
            yield _in_tank(
                device,
                "wiring.spark",
                "stop",
                "{name} stands in the tank and isn't sealed",
                "It sparks as it opens, in vapour: a sealed one by its maker's word, or outside.",
            )
        elif device.does.kind in JOINTS:
            yield _in_tank(
                device,
                "wiring.joint_in_vapour",
                "caution",
                "{name} is a joint in the tank",
                "A joint that comes loose sparks in vapour: one piece of wire from the plug in the wall, or sealed.",
            )


def _in_tank(device: Device, code: str, severity: Severity, title: str, why: str) -> Finding:
    return _wiring(code, device.id, severity, title, why, name=device.name)


_GAP: dict[Danger, tuple[str, Severity, str]] = {
    "heat": ("wiring.heat", "stop", "Its insulation melts and bares the copper beside what is hot."),
    "moves": ("wiring.moving", "stop", "What moves saws through it, or tears it off."),
    "ground": ("wiring.low", "stop", "A stone or a kerb takes it off."),
    "rear": ("wiring.rear", "caution", "It is torn off, live, when somebody runs into the back."),
    "metal": ("wiring.rub", "caution", "It chafes there until the copper touches metal: tie it down, or further off."),
    "edge": ("wiring.edge", "caution", "An edge cuts it: tie it down, or further off."),
    "tank": ("wiring.rub_tank", "caution", "It chafes on the tank until the copper touches it: tie it down."),
    "line": ("wiring.rub", "caution", "They chafe on each other: tie it to the hose."),
}


def wires_keep_off(tank: TankAnalysis) -> Iterator[Finding]:
    """No wire lies in something, or too near to what is hot or moves."""
    wires = {wire.id: wire for wire in tank.design.wiring.wires}
    sheets = {sheet.key for sheet in tank[SURROUNDINGS].sheets}
    for gap in tank[WIRE_GAPS]:
        if gap.gap_mm < 0 and gap.danger in ("metal", "tank"):
            if gap.beside not in sheets:
                yield _lies_in(gap)
            elif not wires[gap.run].grommets:
                yield _wiring(
                    "wiring.no_grommet",
                    f"{gap.run}.{gap.beside}"[:80],
                    "stop",
                    "{wire} goes through {beside} without a grommet",
                    "The edge cuts it, and the sheet is at the battery's -: it burns there.",
                    wire=gap.name,
                    beside=gap.beside_name,
                )
        elif gap.is_short:
            code, severity, why = _GAP[gap.danger]
            yield _wiring(
                code,
                f"{gap.run}.{gap.beside}"[:80],
                severity,
                "{wire} meets {beside}, limit {needed_mm} from it"
                if gap.gap_mm < 0
                else "{wire} {gap_mm} from {beside}, limit {needed_mm}",
                why,
                wire=gap.name,
                beside=gap.beside_name,
                gap_mm=gap.gap_mm,
                needed_mm=gap.needed_mm,
            )


def _lies_in(gap: RouteGap) -> Finding:
    return _wiring(
        "wiring.through",
        f"{gap.run}.{gap.beside}"[:80],
        "stop",
        "{wire} lies in {beside}",
        "It can't lie there: take it round.",
        wire=gap.name,
        beside=gap.beside_name,
    )


def metal_is_bonded(tank: TankAnalysis) -> Iterator[Finding]:
    """Tank and necks are joined to the chassis past every rubber."""
    for piece in tank[BONDING].pieces:
        if piece.joined:
            continue
        part = piece.metal == "part"
        yield _wiring(
            "wiring.unbonded",
            piece.key.replace(":", "-")[:80],
            "note" if part else "stop",
            "{name} isn't bonded to the chassis past {behind}",
            "Fuel that runs through its element charges it; a strap leads that off."
            if part
            else "Fuel that runs charges it; the spark jumps to the nozzle, or to the chassis, in vapour.",
            name=piece.name,
            behind=piece.behind,
        )
    for name in tank[BONDING].loose:
        bond = next(one for one in tank.design.wiring.bonds if one.id == name)
        yield _wiring(
            "wiring.bond_gone",
            bond.id,
            "caution",
            "{name} ends at something that isn't there any more",
            "It bonds nothing: join it, or remove it.",
            name=bond.name,
        )


def lamps_mean_something(tank: TankAnalysis) -> Iterator[Finding]:
    """Every lamp says what it means, and something lights it."""
    for lamp in tank[LAMPS]:
        if lamp.is_whole and not lamp.means:
            yield _wiring(
                "wiring.lamp_unsaid",
                lamp.id,
                "note",
                "Say what {name} means",
                "Whoever drives sees it lit, and has to know what to do.",
                name=lamp.name,
            )
        if lamp.is_whole and not lamp.by and not lamp.others:
            yield _wiring(
                "wiring.lamp_always",
                lamp.id,
                "caution",
                "{name} is lit all the time",
                "Nothing switches it: it says nothing, and drains the battery.",
                name=lamp.name,
            )


def levels_are_set(tank: TankAnalysis) -> Iterator[Finding]:
    """Every level switch has its level, and it is the reserve's where that lamp is meant."""
    lit = {level.id for lamp in tank[LAMPS] for level in lamp.by}
    for level in tank[LEVELS]:
        if level.left_l is None:
            yield _wiring(
                "wiring.no_level",
                level.id,
                "caution",
                "{name} has no level in {tank}",
                "What is left when it switches isn't known: type its height, and put it over the tank.",
                name=level.name,
                tank=level.tank,
            )
        elif (
            level.reserve_l is not None
            and level.id in lit
            and level.closes == "below its level"
            and abs(level.left_l - level.reserve_l) > RESERVE_OFF * level.reserve_l
        ):
            yield _wiring(
                "wiring.reserve",
                level.id,
                "caution",
                "{name} switches at {left_l}, the reserve is {reserve_l}",
                "The lamp comes on too late, or so early that nobody heeds it: move the switch.",
                name=level.name,
                left_l=level.left_l,
                reserve_l=level.reserve_l,
            )


def wires_are_told_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """No two wires have one number; no pin leads nowhere."""
    seen: set[str] = set()
    for wire in tank.design.wiring.wires:
        if wire.name in seen:
            yield _wiring(
                "wiring.same_number",
                wire.id,
                "caution",
                "Two wires are called {wire}",
                "Their labels can't be told apart once the tank is up.",
                wire=wire.name,
            )
        seen.add(wire.name)
    for pin in tank[PINS]:
        if pin.kind in ("connector", "splice") and len(pin.wires) == 1:
            yield _wiring(
                "wiring.pin_open",
                f"{pin.id}.{pin.terminal}"[:80],
                "note",
                "{wire} ends at {name}, {terminal}, and nothing leads on",
                "Nothing comes past it: join the wire of the other side.",
                wire=pin.wires[0].name,
                name=pin.name,
                terminal=pin.terminal,
            )
