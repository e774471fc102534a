"""Ways to feed the pumps, side by side with this design's figures."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from keel.analysis.tank import TankAnalysis
from keel.design.line_parts import LinePart
from keel.design.wiring import Wiring
from keel.findings.finding import Patch
from keel.stations.wiring.sketch import At, Sketch
from keel.studies.result import Words, words
from keel.studies.wiring.runs import WIRE_RUNS
from keel.studies.wiring.state import Case, end_of, state_of
from keel.studies.wiring.supply import PUMP_SUPPLIES
from keel.studies.wiring.wired import WIRED, Wired

Draw = Callable[[Sketch], None]
COPPER_KG_PER_MM2_M = 8.96e-3
FEED, SWITCHED, SIGNAL, BACK = "red", "yellow", "blue", "black"
WITHOUT_OIL = {"opens": "without oil pressure", "primes": "the starter's signal past it"}
POWER_A = 30.0
MOST_PUMPS = 5
"""One plug has pins for no more, and for the low switch."""
BATTERY, EARTH, MAIN_FUSE, IGNITION, CUT_OFF, STALL, CONTROLLER, CHANGEOVER, GAUGE, LAMP = range(10)
"""Places on the board beside the engine; then one each for every pump's fuse, relay and cut-off."""
FUSES, RELAYS, CUT_OFFS = (LAMP + 1 + MOST_PUMPS * n for n in range(3))


@dataclass(frozen=True, slots=True)
class FeedWay:
    """One way to feed the pumps.

    Attributes
    ----------
    patch : Patch
        The wiring as it would be; bonds stay.
    wires : int
        To be made.
    metres, copper_kg : float
        Of wire, and the copper in it.
    drop_v : float or None
        The most that a pump loses.
    thickest_mm2 : float
        Of all wires.
    live_m : float
        Wire that is still live once the cut-off has opened.
    at_once : int
        Pumps that the worst single failure takes.
    """

    title: str
    patch: Patch
    chosen: bool
    wires: int
    metres: float
    copper_kg: float
    drop_v: float | None
    thickest_mm2: float
    live_m: float
    at_once: int
    means: Words
    favoured: bool
    why: Words | None


def feed_ways(tank: TankAnalysis) -> list[FeedWay]:
    """Every way to feed this design's pumps.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of FeedWay
        Empty without a pump, and with more than one plug has pins for. The figures favour the one in which a single
        failure takes the fewest pumps; of equals that which leaves least wire live after a crash, then that with least
        copper.
    """
    sketch = Sketch(tank)
    if not sketch.pumps or len(sketch.pumps) + len(sketch.spares) > MOST_PUMPS:
        return []
    found = [_shown(tank, *way) for way in ways(tank)]
    best = min(found, key=lambda one: (one.at_once, round(one.live_m, 1), one.copper_kg))
    why = words(
        "{live_m} of wire live after a crash, {drop_v} lost, {copper_kg} of copper",
        live_m=best.live_m,
        drop_v=round(best.drop_v or 0.0, 2),
        copper_kg=best.copper_kg,
    )
    return [replace(one, favoured=True, why=why) if one is best else one for one in found]


def ways(tank: TankAnalysis) -> Iterator[tuple[str, Draw, Words]]:
    """Names, how each is drawn, and what it means."""
    yield (
        "Relay by the battery, cut-off in its coil",
        lambda sketch: _drawn(sketch, by_tank=False),
        words("The wire to the tank is dead as soon as the cut-off opens; all of it is thick."),
    )
    yield (
        "Relay by the tank, cut-off in its coil",
        lambda sketch: _drawn(sketch, by_tank=True),
        words("The thick wire stays live as far as the tank: its fuse has to stand at the battery."),
    )
    yield (
        "Relay by the battery, cut-off in the pump's own feed",
        lambda sketch: _drawn(sketch, by_tank=False, in_feed=True),
        words("A relay that sticks doesn't keep the pump running; the cut-off carries all of its current."),
    )
    if len(Sketch(tank).pumps) > 1:
        yield (
            "A controller stages the pumps, cut-off in the relays' coils",
            lambda sketch: _drawn(sketch, by_tank=False, staged=True),
            words("The second pump runs only when it is needed: less heat into the fuel at idle."),
        )


def _drawn(sketch: Sketch, *, by_tank: bool, in_feed: bool = False, staged: bool = False) -> None:
    """Battery, switched feed, what opens by itself, every pump's fuse and relay, signals, earths.

    A controller sees by itself that the engine stands.
    """
    battery = sketch.add("battery", "battery", {"kind": "battery"}, sketch.beside_engine(BATTERY))
    earth = sketch.add("earth-1", "earth by the battery", {"kind": "earth point"}, sketch.beside_engine(EARTH))
    tank_earth = sketch.add("earth-2", "earth by the tank", {"kind": "earth point"}, sketch.beside_tank(0))
    sketch.wire(("device", battery, "-"), ("device", earth, "earth"), BACK, area_mm2=10.0, length_mm=300.0)
    fuse = sketch.add("fuse-0", "ignition fuse", {"kind": "fuse"}, sketch.beside_engine(MAIN_FUSE))
    sketch.wire(("device", battery, "+"), ("device", fuse, "in"), FEED, length_mm=150.0)
    ignition = sketch.add("ignition", "ignition switch", {"kind": "switch"}, sketch.beside_engine(IGNITION))
    sketch.wire(("device", fuse, "out"), ("device", ignition, "in"), FEED)
    switched: At = ("device", ignition, "out")
    coil = switched if in_feed else _cut_off(sketch, switched, ("cut-off", "inertia cut-off", CUT_OFF))
    if not staged:
        coil = _cut_off(sketch, coil, ("stall", "oil-pressure cut-off", STALL), **WITHOUT_OIL)
    plug = sketch.plug()
    coils = _coils(sketch, coil, staged, (earth, tank_earth))
    for place, pump in enumerate([*sketch.pumps, *sketch.spares]):
        _fed(sketch, pump, place, coils[place], plug, (battery, earth, tank_earth), by_tank=by_tank, in_feed=in_feed)
    _signals(sketch, switched, plug, tank_earth)


def _cut_off(sketch: Sketch, feed: At, called: tuple[str, str, int], **does: str) -> At:
    """What opens by itself in a feed; where that goes on."""
    key, name, place = called
    sketch.add(key, name, {"kind": "cut-off"} | does, sketch.beside_engine(place))
    sketch.wire(feed, ("device", key, "in"), SWITCHED)
    return ("device", key, "out")


def _coils(sketch: Sketch, feed: At, staged: bool, earths: tuple[str, str]) -> list[At]:
    """Where each pump's relay has its feed from; of spares by a changeover switch."""
    found: list[At] = [feed] * len(sketch.pumps)
    if staged:
        outputs = [{"from_draw": None if n == 0 else 0.5} for n in range(min(4, len(sketch.pumps)))]
        does = {"kind": "controller", "outputs": outputs}
        name = sketch.add("controller", "pump controller", does, sketch.beside_engine(CONTROLLER))
        sketch.wire(feed, ("device", name, "+"), SWITCHED)
        sketch.wire(("device", name, "-"), ("device", earths[0], "earth"), BACK)
        found = [("device", name, f"out {min(n, 3) + 1}") for n in range(len(sketch.pumps))]
    if not sketch.spares:
        return found
    change = sketch.add(
        "changeover", "pump changeover", {"kind": "changeover switch"}, sketch.beside_engine(CHANGEOVER)
    )
    sketch.wire(found[0], ("device", change, "in"), SWITCHED)
    return [("device", change, "a"), *found[1:], *([("device", change, "b")] * len(sketch.spares))]


def _fed(
    sketch: Sketch,
    pump: LinePart,
    place: int,
    coil: At,
    plug: str | None,
    ends: tuple[str, str, str],
    *,
    by_tank: bool,
    in_feed: bool,
) -> None:
    battery, earth, tank_earth = ends
    number = place + 1
    fuse = sketch.add(
        f"fuse-{number}", f"fuse of {pump.name}"[:80], {"kind": "fuse"}, sketch.beside_engine(FUSES + place)
    )
    at = sketch.beside_tank(number) if by_tank else sketch.beside_engine(RELAYS + place)
    relay = sketch.add(f"relay-{number}", f"relay of {pump.name}"[:80], {"kind": "relay"}, at)
    sketch.wire(("device", battery, "+"), ("device", fuse, "in"), FEED, length_mm=150.0)
    sketch.wire(("device", fuse, "out"), ("device", relay, "in"), FEED, long=by_tank)
    sketch.wire(coil, ("device", relay, "coil +"), SWITCHED, long=by_tank)
    sketch.wire(("device", relay, "coil -"), ("device", tank_earth if by_tank else earth, "earth"), BACK)
    out: At = ("device", relay, "out")
    if in_feed:
        does = {"kind": "cut-off", "rating_a": POWER_A}
        cut = sketch.add(
            f"cut-off-{number}", f"inertia cut-off of {pump.name}"[:80], does, sketch.beside_engine(CUT_OFFS + place)
        )
        sketch.wire(out, ("device", cut, "in"), FEED)
        out = ("device", cut, "out")
    inside = pump.hangs_in is not None
    if inside and plug is not None:
        plus, minus = sketch.pin(), sketch.pin()
        sketch.wire(out, ("device", plug, plus), FEED, long=not by_tank)
        sketch.wire(("device", plug, plus), ("pump", pump.id, "+"), FEED, insulation="fluoropolymer")
        sketch.wire(("pump", pump.id, "-"), ("device", plug, minus), BACK, insulation="fluoropolymer")
        sketch.wire(("device", plug, minus), ("device", tank_earth, "earth"), BACK)
    else:
        sketch.wire(out, ("pump", pump.id, "+"), FEED, long=not by_tank)
        sketch.wire(("pump", pump.id, "-"), ("device", tank_earth, "earth"), BACK)


def _signals(sketch: Sketch, switched: At, plug: str | None, tank_earth: str) -> None:
    """The gauge with its sender, and the low-level lamp with its switch."""
    senders = sketch.tank.design.gauge.senders
    if not senders:
        return
    gauge = sketch.add("gauge", "fuel gauge", {"kind": "gauge"}, sketch.beside_engine(GAUGE))
    sketch.wire(switched, ("device", gauge, "+"), SWITCHED)
    sketch.wire(("device", gauge, "-"), ("device", "earth-1", "earth"), BACK)
    sketch.wire(("device", gauge, "sender"), ("sender", senders[0].id, "signal"), SIGNAL, long=True)
    sketch.wire(("sender", senders[0].id, "-"), ("device", tank_earth, "earth"), BACK)
    height = sketch.reserve_mm()
    if height is None:
        return
    low = sketch.add(
        "low-switch",
        "low-level switch",
        {"kind": "level switch", "height_mm": height},
        sketch.by_sender(),
        stands="in the tank" if plug else "in the tank's wall",
        sealed=True,
    )
    means = "down to the reserve: refuel"
    lamp = sketch.add("low-lamp", "low-level lamp", {"kind": "lamp", "means": means}, sketch.beside_engine(LAMP))
    sketch.wire(switched, ("device", lamp, "+"), SWITCHED)
    if plug is None:
        sketch.wire(("device", lamp, "-"), ("device", low, "in"), SIGNAL, long=True)
        sketch.wire(("device", low, "out"), ("device", tank_earth, "earth"), BACK)
        return
    there, back = sketch.pin(), sketch.pin()
    sketch.wire(("device", lamp, "-"), ("device", plug, there), SIGNAL, long=True)
    sketch.wire(("device", plug, there), ("device", low, "in"), SIGNAL, insulation="fluoropolymer")
    sketch.wire(("device", low, "out"), ("device", plug, back), BACK, insulation="fluoropolymer")
    sketch.wire(("device", plug, back), ("device", tank_earth, "earth"), BACK)


def _shown(tank: TankAnalysis, title: str, draw: Draw, means: Words) -> FeedWay:
    sketch = Sketch(tank)
    draw(sketch)
    drawn = sketch.wiring()
    laid = tank.of(tank.design.model_copy(update={"wiring": drawn}))
    figures: Wired = laid[WIRED]
    drops = [one.drop_v for one in figures.loads if one.of == "pump" and one.drop_v is not None]
    return FeedWay(
        title=title,
        patch={"wiring": drawn.model_dump(mode="json", include={"devices", "wires"})},
        chosen=(drawn.devices, drawn.wires) == (tank.design.wiring.devices, tank.design.wiring.wires),
        wires=len(drawn.wires),
        metres=sum(one.length_mm for one in figures.wires) / 1e3,
        copper_kg=sum(one.length_mm / 1e3 * one.area_mm2 for one in figures.wires) * COPPER_KG_PER_MM2_M,
        drop_v=max(drops, default=None),
        thickest_mm2=max((one.area_mm2 for one in figures.wires), default=0.0),
        live_m=_live(laid, drawn),
        at_once=_at_once(laid),
        means=means,
        favoured=False,
        why=None,
    )


def _live(laid: TankAnalysis, wiring: Wiring) -> float:
    """Wire that current still reaches once every cut-off has opened [m]."""
    out = [device.id for device in wiring.devices if device.does.kind == "cut-off"]
    state = state_of(wiring, Case(out=out))
    fed = state.fed - state.earthed
    return sum(laid[WIRE_RUNS].length_m(wire.id) for wire in wiring.wires if end_of(wire.start) in fed)


def _at_once(laid: TankAnalysis) -> int:
    """Pumps that run, and stop with one fuse, relay, or plug; what all of them share is shared in every way."""
    by_device: dict[str, int] = {}
    for supply in laid[PUMP_SUPPLIES]:
        for link in supply.through:
            if link.kind in ("fuse", "relay") and any(supply.on):
                by_device[link.id] = by_device.get(link.id, 0) + 1
    return max((count for key, count in by_device.items() if key != "fuse-0"), default=0)
