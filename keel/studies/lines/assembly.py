"""A network being put together from a circuit: its joints, what is given at them, what stands for what."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from keel.design.line_functions import (
    JetDoes,
)
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.network.curves import Array
from keel.network.elements import (
    Element,
    Fuel,
    Pipe,
    Valve,
)
from keel.network.solve import Network
from keel.reference.fuels import FUELS, FuelName
from keel.reference.units import STANDARD_GRAVITY
from keel.studies.lines.circuits import Circuit
from keel.studies.lines.modes import Mode
from keel.studies.lines.places import LinePlaces, leading_out
from keel.studies.lines.tank_side import TankPort

AT_C = 15.0
USUAL: FuelName = "petrol E10"
"""In a circuit that isn't joined to any tank."""
"""Temperature that densities are given at."""
HOUSED_TIMES = 3.0
"""What a filter in a regulator's housing loses when it is due for a swap, over that when clean."""
PASSAGE_M = 0.03
"""Length of a passage inside a part."""
CHECK_SQUARE = 0.0003
"""Loss of a pump's own check valve, with the flow's square, where only its opening is known [kPa per (L/h)²]."""


@dataclass
class Assembly:
    """A circuit's network, and what of it stands for what.

    Attributes
    ----------
    gauges : dict of (part, connection) to str
        Which joint's pressure is that connection's.
    jets : dict of str to JetDoes
        Jet pumps, by their part: what they move follows from what drives them.
    beyond : dict of str to list of int
        Modes in which a pump's card doesn't reach, by its part.
    """

    elements: list[Element] = field(default_factory=list)
    held: dict[str, Array] = field(default_factory=dict)
    drawn: dict[str, Array] = field(default_factory=dict)
    gauges: dict[tuple[str, str], str] = field(default_factory=dict)
    jets: dict[str, JetDoes] = field(default_factory=dict)
    beyond: dict[str, list[int]] = field(default_factory=dict)
    fuel: Fuel = field(default_factory=lambda: Fuel(np.zeros(0), np.zeros(0)))

    def network(self) -> Network:
        """The whole of it."""
        return Network(self.elements, self.held, self.drawn, self.fuel)


def fuel_in(circuit: Circuit, modes: Sequence[Mode]) -> Fuel:
    """Each mode's fuel, its density at the mode's temperature; viscosity at 20 °C, the one that is known."""
    fuels = [FUELS[circuit.fuel_then(mode.fuel) or USUAL] for mode in modes]
    warmer = np.array([mode.fuel_c - AT_C for mode in modes])
    density = np.array([fuel.density_kg_per_l for fuel in fuels])
    density *= np.exp(-np.array([fuel.expansion_per_k for fuel in fuels]) * warmer)
    return Fuel(density, np.array([fuel.viscosity_mm2_per_s for fuel in fuels]))


class Joints:
    """Joints of parts and of the tank, in every mode.

    Parameters
    ----------
    lines, circuit, places, tank, modes, loaded
        As for `keel.studies.lines.assemble.assemble`.
    """

    def __init__(
        self,
        lines: Lines,
        circuit: Circuit,
        places: LinePlaces,
        tank: Mapping[str, TankPort],
        modes: Sequence[Mode],
        loaded: Sequence[bool],
    ) -> None:
        self.lines, self.tank, self.modes = lines, tank, modes
        self.loaded = np.array(loaded or [False] * len(modes))
        self.count = len(modes)
        self.height = {(one.part, one.port): one.at.z for one in places.connections}
        self.joined = {(one.part, one.port): one.joined for one in places.connections}
        self.ways = {way.id: way for way in places.runs}
        self.out = leading_out(lines)
        self.made = Assembly(fuel=fuel_in(circuit, modes))

    def add(self, *elements: Element) -> None:
        self.made.elements.extend(elements)

    def still(self, part: LinePart) -> list[bool]:
        return [part.id in mode.still or part.id in mode.off for mode in self.modes]

    def head(self, depth_mm: float) -> Array:
        """Pressure under fuel [kPa]; none above it."""
        return np.asarray(self.made.fuel.density * STANDARD_GRAVITY * max(0.0, depth_mm) / 1e3)

    def at(self, part: LinePart, port: str) -> str:
        """The joint of a part's connection. Of one that hangs in the tank what isn't joined is in the fuel, and what
        leads out goes up to its port.
        """
        joint = self.made.gauges[part.id, port] = f"{part.id}.{port}"
        hung = self.tank.get(part.hangs_in) if part.hangs_in else None
        if hung is None:
            return joint
        if not self.joined.get((part.id, port)):
            self.made.held[joint] = self.head(hung.surface_z_mm - part.z_mm)
        elif (part.id, port) in self.out:
            outer = self.made.gauges[part.id, port] = f"{joint}.at port"
            rise = hung.flange_z_mm - part.z_mm
            self.add(Pipe(f"{joint}.up", joint, outer, hung.bore_mm, max(abs(rise) / 1e3, 1e-3), 0.0, rise_mm=rise))
        return joint

    def passage(self, name: str, start: str, end: str, bore: float, k: float, rise: float = 0.0) -> Pipe:
        return Pipe(name, start, end, bore_mm=bore, length_m=PASSAGE_M, fittings=k, rise_mm=rise)

    def gated(self, part: LinePart, inlet: str) -> str:
        """The joint behind a part's inlet, which lets nothing by in modes that it is blocked in."""
        blocked = self.still(part)
        if not any(blocked):
            return inlet
        behind = f"{part.id}.gate"
        self.add(Valve(f"{part.id}.gated", inlet, behind, fittings=0.0, is_open=[not one for one in blocked]))
        return behind
