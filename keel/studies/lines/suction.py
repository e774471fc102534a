"""Whether fuel stays liquid at every pump's inlet: its absolute pressure there against its vapour pressure."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import networkx as nx
from scipy.optimize import brentq

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.line_functions import EnginePumpDoes, OtherTankDoes, SurgeTankDoes
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, Lines
from keel.network.friction import velocity
from keel.reference.fuels import FUELS
from keel.reference.vapour import REID_KPA, atmosphere_kpa, vapour_kpa
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.circuits import CIRCUITS, Circuit
from keel.studies.lines.flows import LOADED_FLOWS, LineFlows
from keel.studies.lines.modes import Mode
from keel.studies.lines.places import LINE_PLACES, Key, LinePlaces
from keel.studies.lines.services import PUMPS, is_spare, open_ways
from keel.studies.lines.tank_side import TANK_PORTS, TankPort

COLDEST_C, HOTTEST_C = -40.0, 120.0


@dataclass(frozen=True, slots=True)
class InletMode:
    """A pump's inlet in one mode.

    Attributes
    ----------
    inlet_kpa : float or None
        Absolute pressure where fuel moves at the inlet's velocity.
    reid_kpa : float
        Reid vapour pressure that it is judged with: typed, or the most that is usual of a fuel in summer.
    vapour_kpa : float
        At which it boils, at that temperature.
    margin_kpa : float or None
        The one less the other.
    boils_c : float or None
        The temperature at which there is no margin left.
    """

    mode: str
    inlet_kpa: float | None
    reid_kpa: float
    vapour_kpa: float
    margin_kpa: float | None
    boils_c: float | None


@dataclass(frozen=True, slots=True)
class Inlet:
    """A pump's inlet in every mode.

    Attributes
    ----------
    lift_mm : float
        From the fuel's surface up to it; below zero it is flooded.
    needs_flooded : bool
        Whether the pump's card asks that it is.
    """

    part: str
    name: str
    lift_mm: float
    lifts_mm: float | None
    needs_flooded: bool
    modes: list[InletMode]


def inlets(
    lines: Lines,
    found: Sequence[Circuit],
    places: LinePlaces,
    tank: Mapping[str, TankPort],
    flows: LineFlows,
    modes: Sequence[Mode],
) -> list[Inlet]:
    """Every pump that doesn't stand by.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    found : sequence of Circuit
        Their fuels.
    places : LinePlaces
        Where inlets lie.
    tank : mapping of str to TankPort
        The fuel's surfaces.
    flows : LineFlows
        With filters as they are before a swap.
    modes : sequence of Mode
        Temperature and altitude.

    Returns
    -------
    list of Inlet
        The bore of an inlet is that of its connection; a pump hung in the tank has none to speak of.
    """
    heights = {(one.part, one.port): one.at.z for one in places.connections}
    ways, shown = open_ways(lines), []
    for part in lines.parts:
        circuit = next((one for one in found if part.id in one.parts), None)
        if part.does.kind not in PUMPS or is_spare(part) or circuit is None or circuit.fuel is None:
            continue
        drawn = nx.node_connected_component(ways, (part.id, "in")) | {(TANK, part.hangs_in or "")}
        surfaces = list(_surfaces(lines, drawn, heights, tank))
        height = part.z_mm if part.hangs_in else heights[part.id, "in"]
        does = part.does
        shown.append(
            Inlet(
                part=part.id,
                name=part.name,
                lift_mm=height - min(surfaces, default=height),
                lifts_mm=getattr(does, "lifts_mm", None),
                needs_flooded=isinstance(does, EnginePumpDoes) and does.needs_flooded,
                modes=_in_modes(part, circuit, lines.reid_kpa, flows, modes),
            )
        )
    return shown


def _surfaces(
    lines: Lines, drawn: set[Key], heights: Mapping[Key, float], tank: Mapping[str, TankPort]
) -> Iterator[float]:
    """Heights of the fuel that a pump draws from: of the tank, of a surge tank kept full, of another tank."""
    for key, port in drawn:
        if key == TANK and port in tank:
            yield tank[port].brim_z_mm or tank[port].surface_z_mm
            continue
        part = lines.part(key)
        if part is not None and isinstance(part.does, SurgeTankDoes):
            yield heights[key, "overflow"]
        elif part is not None and isinstance(part.does, OtherTankDoes):
            yield heights[key, port] + part.does.level_mm


def _in_modes(
    part: LinePart, circuit: Circuit, typed_kpa: float | None, flows: LineFlows, modes: Sequence[Mode]
) -> list[InletMode]:
    none: list[float | None] = [None] * len(modes)
    kpa, flow = flows.kpa(part.id, "in") or none, flows.part(part.id)
    connection = part.connection("in")
    through = flow.flow_lph if flow else none
    found = []
    for mode, gauge, lph in zip(modes, kpa, through, strict=True):
        fuel = circuit.fuel_then(mode.fuel)
        assert fuel is not None
        reid = typed_kpa if typed_kpa and fuel == circuit.fuel else REID_KPA[fuel]
        boils = vapour_kpa(reid, mode.fuel_c)
        if gauge is None or lph is None:
            found.append(InletMode(mode.name, None, reid, boils, None, None))
            continue
        speed = float(velocity(lph, connection.bore)) if connection and not part.hangs_in else 0.0  # type: ignore[arg-type]
        static = atmosphere_kpa(mode.altitude_m) + gauge - FUELS[fuel].density_kg_per_l * speed**2 / 2
        found.append(InletMode(mode.name, static, reid, boils, static - boils, boils_at(reid, static)))
    return found


def boils_at(reid_kpa: float, kpa: float) -> float | None:
    """The temperature at which fuel of a Reid pressure boils at an absolute pressure [°C].

    Returns
    -------
    float or None
        None where it doesn't below 120 °C, or does at any temperature.
    """
    if not vapour_kpa(reid_kpa, COLDEST_C) < kpa < vapour_kpa(reid_kpa, HOTTEST_C):
        return None
    return float(brentq(lambda celsius: vapour_kpa(reid_kpa, celsius) - kpa, COLDEST_C, HOTTEST_C, xtol=1e-6))


INLETS = study(inlets, LINES, CIRCUITS, LINE_PLACES, TANK_PORTS, LOADED_FLOWS, LINE_MODES)
