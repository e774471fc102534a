"""Heat that pumps put into the fuel, and what running fewer of them saves."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import networkx as nx

from keel.analysis.parts import BRIEF, RULES
from keel.analysis.study import study
from keel.design.brief import Brief
from keel.design.line_functions import OtherTankDoes, PumpDoes, RailDoes, UserDoes
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.design.workshop import HouseRules
from keel.reference.fuels import FUELS, HEAT_CAPACITY_KJ_PER_KG_K
from keel.studies.lines.as_wired import LINE_MODES, LINES_WIRED
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.injection import draws
from keel.studies.lines.modes import Mode
from keel.studies.lines.services import is_spare, open_ways
from keel.studies.liquid.capacity import CAPACITY, Capacity

W_PER_KPA_LPH = 1 / 3600
"""A pressure times a flow as power: kPa · L/h = J/h."""


@dataclass(frozen=True, slots=True)
class HeatMode:
    """Heat in one mode.

    Attributes
    ----------
    electric_w : float
        What the pumps draw.
    used_w : float
        Of it, what leaves with the engine's fuel as pressure.
    heat_w : float
        The rest: all of it is in the fuel.
    warms_k : float or None
        How fast it warms what is in the tank at the level that suction is judged at, a minute; None where fuel goes to
        another tank, whose size isn't known.
    """

    mode: str
    electric_w: float
    used_w: float
    heat_w: float
    warms_k: float | None


@dataclass(frozen=True, slots=True)
class Stage:
    """When a pump has to come on, and what leaving it off until then saves.

    Attributes
    ----------
    on_at_lph : float
        What may be drawn before it is needed, by those before it less the margin.
    saves_w : float
        Its electrical power.
    """

    part: str
    name: str
    on_at_lph: float
    on_at_share: float | None
    saves_w: float


@dataclass(frozen=True, slots=True)
class Heat:
    """Mode by mode, and pump by pump. `unknown`: pumps whose current isn't typed."""

    modes: list[HeatMode]
    stages: list[Stage]
    unknown: list[str]


def heat(
    lines: Lines, flows: LineFlows, modes: Sequence[Mode], brief: Brief, held: Capacity, rules: HouseRules
) -> Heat:
    """Heat into the fuel.

    Parameters
    ----------
    lines : Lines
        Pumps with their current.
    flows : LineFlows
        What goes through them, clean.
    modes : sequence of Mode
        Voltage and draw.
    brief : Brief
        The fuel.
    held : Capacity
        What the tank holds.
    rules : HouseRules
        The pumps' margin.

    Returns
    -------
    Heat
        A pump whose current isn't typed counts as none, and is named.

    References
    ----------
    First law: electrical power less the hydraulic power p Q that goes to the engine stays in the fuel, whether lost in
    the pump or throttled in the regulator.
    """
    pumps = [part for part in lines.parts if isinstance(part.does, PumpDoes) and not is_spare(part)]
    users = [part for part in lines.parts if isinstance(part.does, RailDoes | UserDoes)]
    mass = held.rated_l * lines.level * FUELS[brief.fuel].density_kg_per_l
    elsewhere = any(isinstance(part.does, OtherTankDoes) for part in lines.parts)
    rows = []
    for place, mode in enumerate(modes):
        electric = sum(_watts(part.does, mode) for part in pumps if part.id not in [*mode.still, *mode.off])
        used = 0.0
        for part in users:
            kpa = (flows.kpa(part.id, "rail") or [None] * len(modes))[place]
            used += max(0.0, kpa or 0.0) * draws(part, part.does, mode) * W_PER_KPA_LPH  # type: ignore[arg-type]
        warmth = max(0.0, electric - used)
        warms = warmth * 60 / 1e3 / (mass * HEAT_CAPACITY_KJ_PER_KG_K) if mass > 0 and not elsewhere else None
        rows.append(HeatMode(mode.name, electric, used, warmth, warms))
    unknown = [part.name for part in pumps if isinstance(part.does, PumpDoes) and part.does.current_a is None]
    return Heat(rows, _stages(lines, flows, modes, rules), unknown)


def _watts(does: object, mode: Mode) -> float:
    return (does.current_a or 0.0) * mode.voltage_v if isinstance(does, PumpDoes) else 0.0


def _stages(lines: Lines, flows: LineFlows, modes: Sequence[Mode], rules: HouseRules) -> list[Stage]:
    """Pumps that feed side by side, in their order: each comes on where those before it, less the margin, end."""
    full = max(range(len(modes)), key=lambda n: modes[n].draws_lph, default=None)
    if full is None:
        return []
    most = modes[full].draws_lph
    return [stage for group in _side_by_side(lines) for stage in _staged(group, flows, modes[full], full, most, rules)]


def _side_by_side(lines: Lines) -> Iterator[list[LinePart]]:
    """Pumps whose outlets lead into each other; one that stands alone, or behind another, is never staged."""
    ways, grouped = open_ways(lines), set[str]()
    pumps = [part for part in lines.parts if isinstance(part.does, PumpDoes) and not is_spare(part)]
    for pump in pumps:
        joined = nx.node_connected_component(ways, (pump.id, "out"))
        group = [part for part in pumps if (part.id, "out") in joined]
        if len(group) > 1 and pump.id not in grouped:
            grouped |= {part.id for part in group}
            yield group


def _staged(
    group: Sequence[LinePart], flows: LineFlows, mode: Mode, place: int, most_lph: float, rules: HouseRules
) -> Iterator[Stage]:
    before = 0.0
    for part in group:
        flow, on = flows.part(part.id), before / (1 + rules.pump_margin)
        yield Stage(part.id, part.name, on, on / most_lph if most_lph else None, _watts(part.does, mode))
        before += (flow.flow_lph[place] or 0.0) if flow else 0.0


HEAT = study(heat, LINES_WIRED, FLOWS, LINE_MODES, BRIEF, CAPACITY, RULES)
