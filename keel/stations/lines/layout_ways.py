"""The layouts themselves: which parts stand where, and what is joined to what."""

from collections.abc import Callable, Iterator
from itertools import pairwise

from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import PumpDoes, RegulatorDoes
from keel.design.line_parts import LineComponent, LinePart
from keel.design.ports import Port
from keel.stations.lines.kit import CARBURETTOR_KPA, LOW_PRESSURE_KPA, Kit
from keel.stations.lines.sketch import Sketch, beside, port_end
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.tank_side import TANK_PORTS
from keel.studies.result import Words, words

SURGE_L, APART_MM = 1.5, 220.0
Draw = Callable[[Sketch, Kit], None]


def layout_ways(tank: TankAnalysis) -> Iterator[tuple[str, Draw, Words]]:
    yield (
        "Return: regulator behind the rail",
        _return,
        words(
            "What isn't burnt goes back: cool fuel at the rail, air cleared at once. With a reference the pressure "
            "across the injectors stays the same in every mode. All of the pump's flow circulates, its heat with it."
        ),
    )
    yield (
        "Twin rails, joined returns",
        _twin,
        words(
            "Both rails see the same pressure: a vee engine's two banks run alike. Two tees and two hoses more; the "
            "return has to pass what both send back."
        ),
    )
    yield (
        "Regulator at the tank, one line forward",
        _at_tank,
        words(
            "One hose to the engine. The regulator has no reference: pressure across the injectors falls as the "
            "manifold's rises, and the tune has to know it. Fuel stands in the line at idle and warms there."
        ),
    )
    yield (
        "Dead-head: regulator before the rail",
        _dead_head,
        words(
            "Fewest parts, no return. The pump presses to its limit at idle: every hose before the regulator has to "
            "bear that. Air and vapour leave only through the injectors."
        ),
    )
    yield (
        "Regulator in the tank",
        _in_tank,
        words(
            "Pump and regulator hang in the fuel: quiet, cool, one line out. No reference; to change either, the "
            "module comes out."
        ),
    )
    yield (
        "Low pressure, to a carburettor",
        _carburettor,
        words("For a float bowl: a few kilopascals, a dead-head regulator before it. No injectors."),
    )
    yield (
        "Surge tank, fed by a lift pump",
        _surge,
        words(
            "The main pump never draws air. A second pump, more joints, and fuel near people where it stands inside: a "
            "metal box of its own."
        ),
    )
    if len(tank.solids.cells) > 1:
        yield (
            "Fuels apart: one path a cell",
            _apart,
            words(
                "Nothing in common: a pickup, pump, filter and nozzle for each fuel. A valve that is shut is no wall. "
                "Labels and spouts that can't be mistaken."
            ),
        )


def _apart(sketch: Sketch, kit: Kit) -> None:
    """One path a cell, from its own pickup to its own nozzle."""
    lift = kit.lift_pump()
    assert lift is not None
    for number, (cell, port) in enumerate(_by_cell(sketch).items()):
        off = number * APART_MM
        screen = sketch.add(f"screen, {cell}", kit.screen(), beside(sketch.low, 0.0, off, 0.0))
        pump = sketch.add(f"pump, {cell}", lift, beside(sketch.low, 250.0, off, 0.0))
        fine = sketch.add(f"filter, {cell}", kit.filter(), beside(sketch.low, 500.0, off, 0.0))
        nozzle = sketch.add(f"nozzle, {cell}", kit.nozzle(), beside(sketch.low, 900.0, off, 100.0))
        sketch.join(port_end(port), (screen.id, "in"))
        for first, second in pairwise((screen, pump, fine, nozzle)):
            sketch.join((first.id, "out"), (second.id, "in"))


def _by_cell(sketch: Sketch) -> dict[str, Port]:
    """The first pickup of every cell that has one."""
    known = sketch.tank[TANK_PORTS]
    found: dict[str, Port] = {}
    for port in sketch.pickups:
        if port.id in known:
            found.setdefault(known[port.id].cell, port)
    return found


def _feed(sketch: Sketch, kit: Kit) -> tuple[str, str]:
    """From the pickup through the pump: in the tank where it hangs there, else with a screen before it."""
    pump, pickup = kit.pump(), sketch.pickup
    assert pump is not None and pickup is not None
    if isinstance(pump.does, PumpDoes) and pump.does.place == "in the tank":
        at = sketch.start.copy()
        at[2] = sketch.tank.solids.bounds.low[2] + 60.0
        sketch.add("pump 1", pump, at, hangs_in=pickup.id)
        return "pump-1", "out"
    screen = sketch.add("screen", kit.screen(), sketch.low)
    main = sketch.add("pump 1", pump, beside(sketch.low, 340.0, 0.0, 0.0))
    sketch.join(port_end(pickup), (screen.id, "in"))
    sketch.join((screen.id, "out"), (main.id, "in"))
    return main.id, "out"


def _filtered(sketch: Sketch, kit: Kit, start: tuple[str, str], share: float = 0.4) -> tuple[str, str]:
    fine = sketch.add("main filter", kit.filter(), sketch.between(share))
    sketch.join(start, (fine.id, "in"))
    return fine.id, "out"


def _bypass(sketch: Sketch, kit: Kit, start: tuple[str, str], behind_mm: float = 380.0) -> LinePart:
    """A regulator behind the engine and its way back."""
    regulator = sketch.add("regulator", kit.regulator("bypass"), beside(sketch.engine, behind_mm, 0.0, 0.0))
    sketch.join(start, (regulator.id, "in"))
    if sketch.back is not None:
        sketch.join((regulator.id, "return"), port_end(sketch.back))
    return regulator


def _refer(sketch: Sketch, regulator: LinePart, rail: LinePart) -> None:
    if isinstance(regulator.does, RegulatorDoes) and regulator.does.is_referenced:
        sketch.refer(regulator, rail)


def _return(sketch: Sketch, kit: Kit) -> None:
    rail = sketch.add("rail", kit.rail(), sketch.engine)
    sketch.join(_filtered(sketch, kit, _feed(sketch, kit)), (rail.id, "in"))
    _refer(sketch, _bypass(sketch, kit, (rail.id, "out")), rail)


def _twin(sketch: Sketch, kit: Kit) -> None:
    start = _filtered(sketch, kit, _feed(sketch, kit))
    split = sketch.add("tee before the rails", kit.tee(), sketch.between(0.8))
    sketch.join(start, (split.id, "a"))
    merge = sketch.add("tee behind the rails", kit.tee(), beside(sketch.engine, 260.0, 0.0, 0.0))
    rails = []
    for side, off, port in (("left", 120.0, "b"), ("right", -120.0, "c")):
        component = kit.rail()
        half = component.does.model_copy(update={"share": 0.5, "injectors": max(1, _injectors(component) // 2)})
        rail = sketch.add(
            f"{side} rail", component.model_copy(update={"does": half}), beside(sketch.engine, 0.0, off, 0.0)
        )
        sketch.join((split.id, port), (rail.id, "in"))
        sketch.join((rail.id, "out"), (merge.id, "b" if side == "left" else "a"))
        rails.append(rail)
    _refer(sketch, _bypass(sketch, kit, (merge.id, "c"), 460.0), rails[0])


def _injectors(component: LineComponent) -> int:
    return int(getattr(component.does, "injectors", 1))


def _at_tank(sketch: Sketch, kit: Kit) -> None:
    start = _filtered(sketch, kit, _feed(sketch, kit), 0.15)
    regulator = sketch.add("regulator", kit.regulator("bypass", is_referenced=False), sketch.between(0.45))
    sketch.join(start, (regulator.id, "in"))
    if sketch.back is not None:
        sketch.join((regulator.id, "return"), port_end(sketch.back))
    rail = sketch.add("rail", kit.rail(), sketch.engine)
    sketch.join((regulator.id, "out"), (rail.id, "in"))


def _dead_head(sketch: Sketch, kit: Kit) -> None:
    start = _filtered(sketch, kit, _feed(sketch, kit))
    regulator = sketch.add("regulator", kit.regulator("dead-head", set_kpa=_set_kpa(kit)), sketch.between(0.65))
    sketch.join(start, (regulator.id, "in"))
    rail = sketch.add("rail", kit.rail(), sketch.engine)
    sketch.join((regulator.id, "out"), (rail.id, "in"))


def _set_kpa(kit: Kit) -> float:
    """What the design's own regulator is set to."""
    does = kit.regulator("bypass").does
    return does.set_kpa if isinstance(does, RegulatorDoes) else 300.0


def _in_tank(sketch: Sketch, kit: Kit) -> None:
    pump, pickup = kit.pump(), sketch.pickup
    assert pump is not None and pickup is not None
    at = sketch.start.copy()
    at[2] = sketch.tank.solids.bounds.low[2] + 60.0
    hung = pump.model_copy(update={"does": pump.does.model_copy(update={"place": "in the tank"})})
    sketch.add("pump 1", hung, at, hangs_in=pickup.id)
    regulator = sketch.add(
        "regulator", kit.regulator("bypass", is_referenced=False), beside(at, 0.0, 0.0, 120.0), hangs_in=pickup.id
    )
    sketch.join(("pump-1", "out"), (regulator.id, "in"))
    rail = sketch.add("rail", kit.rail(), sketch.engine)
    sketch.join(_filtered(sketch, kit, (regulator.id, "out")), (rail.id, "in"))


def _carburettor(sketch: Sketch, kit: Kit) -> None:
    pump, pickup = kit.lift_pump(), sketch.pickup
    assert pump is not None and pickup is not None
    screen = sketch.add("screen", kit.screen(), sketch.low)
    main = sketch.add("pump 1", pump, beside(sketch.low, 250.0, 0.0, 0.0))
    sketch.join(port_end(pickup), (screen.id, "in"))
    sketch.join((screen.id, "out"), (main.id, "in"))
    regulator = sketch.add("regulator", kit.regulator("dead-head", set_kpa=CARBURETTOR_KPA), sketch.between(0.8))
    sketch.join(_filtered(sketch, kit, (main.id, "out")), (regulator.id, "in"))
    bowl = sketch.add("carburettor", kit.carburettor(), sketch.engine)
    sketch.join((regulator.id, "out"), (bowl.id, "in"))


def _surge(sketch: Sketch, kit: Kit) -> None:
    lift, pump, pickup = kit.lift_pump(), kit.pump("in line"), sketch.pickup
    assert lift is not None and pump is not None and pickup is not None
    screen = sketch.add("screen", kit.screen(), sketch.low)
    first = sketch.add("lift pump", lift, beside(sketch.low, 200.0, 0.0, 0.0))
    sketch.join(port_end(pickup), (screen.id, "in"))
    sketch.join((screen.id, "out"), (first.id, "in"))
    surge = sketch.add("surge tank", kit.surge_tank(_surge_litres(sketch.tank)), beside(sketch.low, 450.0, 0.0, 120.0))
    sketch.join((first.id, "out"), (surge.id, "lift"))
    inline = pump.model_copy(update={"does": pump.does.model_copy(update={"place": "in line"})})
    main = sketch.add("pump 1", inline, beside(sketch.low, 780.0, 0.0, 0.0))
    sketch.join((surge.id, "out"), (main.id, "in"))
    rail = sketch.add("rail", kit.rail(), sketch.engine)
    sketch.join(_filtered(sketch, kit, (main.id, "out"), 0.6), (rail.id, "in"))
    regulator = sketch.add("regulator", kit.regulator("bypass"), beside(sketch.engine, 380.0, 0.0, 0.0))
    sketch.join((rail.id, "out"), (regulator.id, "in"))
    sketch.join((regulator.id, "return"), (surge.id, "return"))
    if sketch.back is not None:
        sketch.join((surge.id, "overflow"), port_end(sketch.back))
    _refer(sketch, regulator, rail)


def _surge_litres(tank: TankAnalysis) -> float:
    """By the brief's dry spell and its first case; else a litre and a half."""
    spell, modes = tank.design.brief.surge, tank[LINE_MODES]
    most = max((mode.draws_lph for mode in modes), default=0.0)
    if spell is None or not most:
        return SURGE_L
    return max(SURGE_L, round(most * spell.uncovered_s / 3600 * (1 + tank.workshop.rules.surge_margin), 1))


def lacking(tank: TankAnalysis, draw: Draw, kit: Kit, sketch: Sketch) -> Words | None:
    """What this design or the library doesn't have for a layout."""
    if sketch.pickup is None:
        return words("The tank has no pickup")
    injected = any(case.rail_kpa > LOW_PRESSURE_KPA for case in tank.design.brief.cases)
    if draw is _carburettor and injected:
        most = max(case.rail_kpa for case in tank.design.brief.cases)
        return words("The engine is injected: the brief asks for {rail_kpa} at the rail", rail_kpa=most)
    if draw not in (_carburettor, _apart) and kit.pump() is None:
        return words("No pump for injection: add one to the brief or the library")
    if draw in (_carburettor, _surge, _apart) and kit.lift_pump() is None:
        return words("No pump for low pressure in brief or library")
    if draw in (_return, _twin, _at_tank, _surge) and sketch.back is None:
        return words("The tank has no return port")
    return None
