"""The ways to keep an engine fed while the main pickup is dry, with this design's figures."""

from dataclasses import dataclass, replace
from math import pi

from keel.analysis.parts import BRIEF, RULES, SOLIDS, only
from keel.analysis.study import Maybe, study
from keel.design.brief import Brief, Surge
from keel.design.document import Design
from keel.design.features import Baffle
from keel.design.ports import drawing
from keel.design.workshop import HouseRules
from keel.reference.metals import METALS
from keel.reference.units import MM3_PER_LITRE, MM3_PER_M3
from keel.solid.solids import Solids
from keel.studies.demand.demand import Demand, case_of, demands
from keel.studies.demand.surge import Sizing, surge_sizing
from keel.studies.ports.reach import reaches
from keel.studies.result import Words, words

WALL_MM = 2.5
SLENDER = 2.2
"""A surge tank stands this many times as high as it is wide: tall, so that its outlet stays covered."""
POT_CLEAR_MM = 5.0
"""Between what hangs in a pot and its wall [mm]."""
POT_ROOM_MM = 25.0
"""Room over a pot inside the tank, for fuel and return to get in."""


@dataclass(frozen=True, slots=True)
class SurgeMethod:
    """One way, with what it costs in this design."""

    name: str
    holds_l: float
    lasts_s: float
    joints: int
    hoses: int
    metal_kg: float
    possible: bool
    favoured: bool
    why: Words


@dataclass(frozen=True, slots=True)
class SurgeAnswer:
    """A surge volume for a demand case, and the methods side by side."""

    case: str
    engine_l_per_h: float
    sizing: Sizing
    methods: list[SurgeMethod]


def surge_answer(brief: Brief, solids: Solids | None, design: Design, rules: HouseRules) -> SurgeAnswer | None:
    """Size the surge volume of a brief and set the methods side by side; None without dry time or a demand.

    The figures favour the way with the fewest joints that lasts the dry spell and can be had in this design: a sump
    whose trap doors are there, a pot where what draws from it goes in and reaches its foot, else a tank outside; a
    second pickup never by itself.

    Parameters
    ----------
    brief : Brief
        The brief.
    solids : Solids, optional
        The shell worked out; None before there is one.
    design : Design
        The design.
    rules : HouseRules
        House rules.

    Returns
    -------
    SurgeAnswer or None
        Each method with its volume, and which one the figures favour.
    """
    surge = brief.surge
    case = case_of(brief, surge.case) if surge else None
    demand = next((d for d in demands(brief, rules) if case and d.id == case.id), None)
    if surge is None or demand is None:
        return None
    sizing = surge_sizing(demand.flow_l_per_h, surge.uncovered_s, rules.surge_margin, surge.lift_l_per_h, surge.gap_s)
    return SurgeAnswer(demand.name, demand.flow_l_per_h, sizing, _methods(demand, surge, sizing, solids, design, rules))


def _methods(
    demand: Demand, surge: Surge, sizing: Sizing, solids: Solids | None, design: Design, rules: HouseRules
) -> list[SurgeMethod]:
    per_second = demand.flow_l_per_h / 3600
    ways = [
        _sump(solids, design, per_second),
        _pot(solids, design, rules, sizing.volume_l, per_second),
        _tank_outside(design, sizing.volume_l, per_second),
        _pickups(len(drawing(design.ports))),
    ]
    best = next((way.name for way in ways if way.possible and way.lasts_s >= surge.uncovered_s), "")
    return [replace(way, favoured=way.name == best) for way in ways]


def _sump(solids: Solids | None, design: Design, per_second: float) -> SurgeMethod:
    held = sum(cost.litres for cost in solids.costs if cost.kind == "sump") if solids else 0.0
    features = design.shell.features if design.shell else []
    doors = any(feature.doors for feature in features if isinstance(feature, Baffle))
    return SurgeMethod(
        name="baffled sump with trap doors",
        holds_l=held,
        lasts_s=held / per_second,
        joints=0,
        hoses=0,
        metal_kg=0.0,
        possible=held > 0 and doors,
        favoured=False,
        why=_of_sump(held, held / per_second, doors),
    )


def _pot(solids: Solids | None, design: Design, rules: HouseRules, need_l: float, per_second: float) -> SurgeMethod:
    tall = cylinder_for(need_l)[1]
    depth = solids.inner_body.size[2] if solids else 0.0
    pot_tall = min(tall, max(depth - POT_ROOM_MM, 1.0))
    across = (4 * need_l * MM3_PER_LITRE / (pi * pot_tall)) ** 0.5
    no_pot = _no_pot(solids, design, rules, tall, across)
    said = "{across_mm} across and {tall_mm} high inside; fewer joints, none outside; out only through the tank's top"
    return SurgeMethod(
        name="in-tank surge pot",
        holds_l=need_l,
        lasts_s=need_l / per_second,
        joints=2,
        hoses=1,
        metal_kg=_cylinder_kg(design, need_l),
        possible=no_pot is None,
        favoured=False,
        why=no_pot or words(said, across_mm=across, tall_mm=pot_tall),
    )


def _tank_outside(design: Design, need_l: float, per_second: float) -> SurgeMethod:
    across, tall = cylinder_for(need_l)
    said = (
        "{across_mm} across and {tall_mm} high; easy to add later; its joints and hoses want a metal box where people "
        "share the air"
    )
    return SurgeMethod(
        name="external surge tank",
        holds_l=need_l,
        lasts_s=need_l / per_second,
        joints=10,
        hoses=5,
        metal_kg=_cylinder_kg(design, need_l),
        possible=True,
        favoured=False,
        why=words(said, across_mm=across, tall_mm=tall),
    )


def _pickups(present: int) -> SurgeMethod:
    said = "{count} now; holds nothing back: it only helps while one of them is wet, which a run over time has to show"
    return SurgeMethod(
        name="several pickups",
        holds_l=0.0,
        lasts_s=0.0,
        joints=2 * max(1, 2 - present),
        hoses=1,
        metal_kg=0.0,
        possible=True,
        favoured=False,
        why=words(said, count=present),
    )


def _cylinder_kg(design: Design, litres: float) -> float:
    """Metal of the upright cylinder with both its ends [kg]."""
    across, tall = cylinder_for(litres)
    metal = design.shell.metal if design.shell else "5052-H32"
    return (pi * across * tall + pi / 2 * across**2) * WALL_MM * METALS[metal].density_kg_per_m3 / MM3_PER_M3


def _of_sump(sump_l: float, lasts_s: float, doors: bool) -> Words:
    if sump_l <= 0:
        return words("the shell has no sump yet: let one down at Shell")
    if not doors:
        return words("its sump holds {sump_l}, but no trap doors keep it there: hang some at Inside", sump_l=sump_l)
    return words("its sump holds {sump_l}, {lasts_s} at full draw; no pump more", sump_l=sump_l, lasts_s=lasts_s)


def _no_pot(solids: Solids | None, design: Design, rules: HouseRules, tall: float, across: float) -> Words | None:
    """Why a pot can't be had in this design."""
    if solids is None:
        return words("there is no tank yet to stand it in")
    length, width, depth = solids.inner_body.size
    if depth < tall / SLENDER + POT_ROOM_MM:
        need = tall / SLENDER + POT_ROOM_MM
        return words("the tank is {depth_mm} deep inside: a pot needs {need_mm}", depth_mm=depth, need_mm=need)
    if across > min(length, width):
        return words("it would be {across_mm} across: there is no room for it", across_mm=across)
    for port in drawing(design.ports):
        if port.hangs_across_mm + 2 * POT_CLEAR_MM > across:
            return words(
                "{name} is {wide_mm} wide: it doesn't go into a pot of {across_mm}",
                name=port.name,
                wide_mm=port.hangs_across_mm,
                across_mm=across,
            )
    short = next((reach for reach in reaches(solids, design.ports, rules) if reach.short_mm > 0), None)
    if short is not None:
        return words("{name} stops {short_mm} short of its foot", name=short.name, short_mm=short.short_mm)
    return None


def cylinder_for(litres: float) -> tuple[float, float]:
    """Diameter and height of an upright cylinder of that volume, a little over twice as high as wide [mm]."""
    across = (4 * litres * MM3_PER_LITRE / (pi * SLENDER)) ** (1 / 3)
    return across, SLENDER * across


def slender_box_for(litres: float) -> tuple[float, float]:
    """Side and height of an upright box of that volume, square across, as slender as the cylinder [mm]."""
    across = (litres * MM3_PER_LITRE / SLENDER) ** (1 / 3)
    return across, SLENDER * across


SURGE = study(surge_answer, BRIEF, Maybe(SOLIDS), only("shell?", "ports"), RULES)
