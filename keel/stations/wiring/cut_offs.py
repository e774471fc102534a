"""What stops pumps that run on: a cut-off as near to them as stops every one that lacks it."""

from collections.abc import Iterator
from dataclasses import dataclass

from keel.analysis.tank import TankAnalysis
from keel.design.wiring import CutOffDoes, Device, Wire, WireEnd, Wiring
from keel.findings.finding import Finding, Remedy
from keel.stations.wiring.remedies import wiring_patch
from keel.studies.result import words
from keel.studies.wiring.state import Case, state_of, terminal
from keel.studies.wiring.supply import STOPPINGS, Stopping
from keel.studies.wiring.wired import WIRED

STALL = "wiring.no_stall_cut_off"
BESIDE_MM, CONTACT_A, MARGIN = 60.0, 10.0, 1.5


@dataclass(frozen=True, slots=True)
class Place:
    """A wire that a cut-off may go into: what its opening stops, and how much goes dead with it."""

    wire: Wire
    stops: set[str]
    by_coils: bool
    goes_dead: int


def cut_off_added(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A cut-off in what feeds the relays' coils, or in the pumps' own feed where they have none."""
    in_stall = finding.code == STALL
    lacking = {one.id for one in tank[STOPPINGS] if _lacks(one, in_stall)}
    places = [one for one in _places(tank.design.wiring, lacking) if finding.subject in one.stops]
    if not places:
        return
    best = max(places, key=lambda one: (one.by_coils, len(one.stops), -one.goes_dead))
    called = "oil-pressure cut-off" if in_stall else "inertia cut-off"
    wiring = _with_cut_off(tank.design.wiring, best.wire, called, _does(tank, best, in_stall))
    label = words("Oil-pressure cut-off in {wire}" if in_stall else "Inertia cut-off in {wire}", wire=best.wire.name)
    yield Remedy(label, wiring_patch(devices=wiring.devices, wires=wiring.wires))


def _lacks(one: Stopping, in_stall: bool) -> bool:
    return not (one.without_engine or one.by_controller) if in_stall else not one.in_crash


def _places(wiring: Wiring, pumps: set[str]) -> Iterator[Place]:
    """Wires without which pumps stop, and nothing is dark that has to be seen."""
    whole = {changed: state_of(wiring, Case(changed=changed)).fed for changed in (False, True)}
    seen = {device.id for device in wiring.devices if device.does.kind in ("gauge", "lamp")}
    relays = {device.id for device in wiring.devices if device.does.kind == "relay"}
    for wire in wiring.wires:
        rest = wiring.model_copy(update={"wires": tuple(one for one in wiring.wires if one.id != wire.id)})
        still = {changed: state_of(rest, Case(changed=changed)).fed for changed in whole}
        dead = {end for changed, fed in whole.items() for end in fed - still[changed]}
        stops = {
            pump
            for pump in pumps
            if terminal("pump", pump, "+") in dead
            and all(terminal("pump", pump, "+") not in fed for fed in still.values())
        }
        if not stops or any(terminal("device", name, "+") in dead for name in seen):
            continue
        coils = any(terminal("device", name, "coil +") in dead for name in relays)
        thick = any(terminal("device", name, "in") in dead for name in relays)
        yield Place(wire, stops, by_coils=coils and not thick, goes_dead=len(dead))


def _does(tank: TankAnalysis, place: Place, in_stall: bool) -> CutOffDoes:
    drawn = sum(one.current_a or 0.0 for one in tank[WIRED].loads if one.id in place.stops)
    rating = CONTACT_A if place.by_coils else max(CONTACT_A, MARGIN * drawn)
    opens = {"opens": "without oil pressure", "primes": "the starter's signal past it"} if in_stall else {}
    return CutOffDoes.model_validate({"rating_a": rating} | opens)


def _with_cut_off(wiring: Wiring, wire: Wire, called: str, does: CutOffDoes) -> Wiring:
    """The wire as two, with the cut-off between."""
    taken = {device.id for device in wiring.devices} | {one.id for one in wiring.wires}
    name = next(f"cut-off-{n}" for n in range(1, 99) if f"cut-off-{n}" not in taken)
    more = next(f"w{n}" for n in range(1, 199) if f"w{n}" not in taken)
    beside = next((one for one in wiring.devices if one.id in (wire.start.id, wire.end.id)), wiring.devices[0])
    x, y, z = beside.x_mm, beside.y_mm + BESIDE_MM, beside.z_mm
    device = Device(id=name, name=called, does=does, x_mm=x, y_mm=y, z_mm=z)
    cut = {"corners": ()}
    first = wire.model_copy(update={"end": WireEnd(id=name, terminal="in")} | cut)
    second = wire.model_copy(update={"id": more, "name": more.upper(), "start": WireEnd(id=name, terminal="out")} | cut)
    wires = (*(one for one in wiring.wires if one.id != wire.id), first, second)
    return wiring.model_copy(update={"devices": (*wiring.devices, device), "wires": wires})
