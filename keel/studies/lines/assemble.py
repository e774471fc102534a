"""A circuit as a network: what each part is between its connections."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from keel.design.line_parts import (
    CheckDoes,
    EnginePumpDoes,
    FilterDoes,
    JetDoes,
    LinePart,
    OtherTankDoes,
    PassageDoes,
    PumpDoes,
    RailDoes,
    RegulatorDoes,
    SurgeTankDoes,
    UserDoes,
    ValveDoes,
    ports_of,
)
from keel.design.lines import TANK, LineRun, Lines, RunEnd
from keel.network.curves import Array, Curve
from keel.network.elements import (
    OPEN_LEAST,
    BypassRegulator,
    CheckValve,
    DeadHeadRegulator,
    Element,
    Fuel,
    Pipe,
    Pump,
    Resistance,
    Valve,
)
from keel.network.solve import Network
from keel.reference.fittings import ENTRY_K, EXIT_K
from keel.reference.fuels import FUELS, FuelName
from keel.reference.units import STANDARD_GRAVITY
from keel.studies.lines.circuits import Circuit
from keel.studies.lines.modes import Mode
from keel.studies.lines.places import LinePlaces, leading_out
from keel.studies.lines.pump_curves import pump_curve
from keel.studies.lines.tank_side import TankPort

AT_C = 15.0
"""Temperature that densities are given at."""
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


def fuel_in(name: FuelName, modes: Sequence[Mode]) -> Fuel:
    """Density at each mode's temperature; viscosity at 20 °C, the one that is known."""
    fuel = FUELS[name]
    warmer = np.array([mode.fuel_c - AT_C for mode in modes])
    density = fuel.density_kg_per_l * np.exp(-fuel.expansion_per_k * warmer)
    return Fuel(density, np.full(len(modes), fuel.viscosity_mm2_per_s))


def assemble(
    lines: Lines,
    circuit: Circuit,
    places: LinePlaces,
    tank: Mapping[str, TankPort],
    modes: Sequence[Mode],
    loaded: bool = False,
) -> Assembly:
    """A circuit as a network.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    circuit : Circuit
        Which of them.
    places : LinePlaces
        Lengths, heights.
    tank : mapping of str to TankPort
        Where it meets the tank.
    modes : sequence of Mode
        What runs, what is drawn.
    loaded : bool
        Filters as they are when they are due for a swap.

    Returns
    -------
    Assembly
        Pressures over the air's. Without a tank anywhere nothing of it is held.
    """
    return _Assembler(lines, circuit, places, tank, modes, loaded).made


class _Assembler:
    """Adds part after part, run after run."""

    def __init__(
        self,
        lines: Lines,
        circuit: Circuit,
        places: LinePlaces,
        tank: Mapping[str, TankPort],
        modes: Sequence[Mode],
        loaded: bool,
    ) -> None:
        self.lines, self.tank, self.modes, self.loaded = lines, tank, modes, loaded
        self.count = len(modes)
        self.height = {(one.part, one.port): one.at.z for one in places.connections}
        self.joined = {(one.part, one.port): one.joined for one in places.connections}
        self.ways = {way.id: way for way in places.runs}
        self.out = leading_out(lines)
        self.made = Assembly(fuel=fuel_in(circuit.fuel or "petrol E10", modes))
        for part in lines.parts:
            if part.id in circuit.parts:
                self._part(part)
        for run in lines.runs:
            if run.id in circuit.runs and run.id in self.ways:
                self._run(run)

    def _add(self, *elements: Element) -> None:
        self.made.elements.extend(elements)

    def _still(self, part: LinePart) -> list[bool]:
        return [part.id in mode.still for mode in self.modes]

    def _head(self, depth_mm: float) -> Array:
        """Pressure under fuel [kPa]; none above it."""
        return np.asarray(self.made.fuel.density * STANDARD_GRAVITY * max(0.0, depth_mm) / 1e3)

    def _at(self, part: LinePart, port: str) -> str:
        """The joint of a part's connection. Of one that hangs in the tank what isn't joined is in the fuel, and what
        leads out goes up to its port.
        """
        joint = self.made.gauges[part.id, port] = f"{part.id}.{port}"
        hung = self.tank.get(part.hangs_in) if part.hangs_in else None
        if hung is None:
            return joint
        if not self.joined.get((part.id, port)):
            self.made.held[joint] = self._head(hung.surface_z_mm - part.z_mm)
        elif (part.id, port) in self.out:
            outer = self.made.gauges[part.id, port] = f"{joint}.at port"
            rise = hung.flange_z_mm - part.z_mm
            self._add(Pipe(f"{joint}.up", joint, outer, hung.bore_mm, max(abs(rise) / 1e3, 1e-3), 0.0, rise_mm=rise))
        return joint

    def _pipe(self, name: str, start: str, end: str, bore: float, k: float, rise: float = 0.0) -> Pipe:
        return Pipe(name, start, end, bore_mm=bore, length_m=PASSAGE_M, fittings=k, rise_mm=rise)

    def _run(self, run: LineRun) -> None:
        way = self.ways[run.id]
        start, end = (
            self._end(part, port) for part, port in ((run.start.part, run.start.port), (run.end.part, run.end.port))
        )
        rise = way.rise_mm
        if self._is_overflow(run):
            # Air follows down an overflow: it helps nothing by falling.
            rise = max(0.0, rise) if self._overflows(run.start) else min(0.0, rise)
        self._add(
            Pipe(f"run.{run.id}", start, end, run.bore_mm, max(way.length_mm / 1e3, 1e-3), way.fittings_k, rise_mm=rise)
        )

    def _overflows(self, end: RunEnd) -> bool:
        """Whether fuel leaves a surge tank there."""
        port = self.tank.get(end.port) if end.part == TANK else None
        part = self.lines.part(end.part)
        if port is not None:
            return port.role == "overflow"
        return end.port == "overflow" and part is not None and part.does.kind == "surge tank"

    def _is_overflow(self, run: LineRun) -> bool:
        return any(self._overflows(end) for end in (run.start, run.end))

    def _end(self, part: str, port: str) -> str:
        if part != TANK:
            return self.made.gauges.get((part, port), f"{part}.{port}")
        joint = f"{TANK}.{port}"
        if (TANK, port) not in self.made.gauges:
            self.made.gauges[TANK, port] = joint
            if port in self.tank:
                self._tank_port(self.tank[port], joint)
        return joint

    def _tank_port(self, port: TankPort, joint: str) -> None:
        """From the fuel up its tube to what the line is joined to."""
        if port.brim_z_mm is not None:
            self._brimful(port, joint, port.brim_z_mm)
            return
        opening = f"{joint}.opening"
        self.made.held[opening] = self._head(port.surface_z_mm - port.opening_z_mm)
        length = max(abs(port.drop_mm) / 1e3, 1e-3)
        k = ENTRY_K + EXIT_K
        self._add(Pipe(f"port.{port.id}", opening, joint, port.bore_mm, length, k, rise_mm=port.drop_mm))

    def _brimful(self, port: TankPort, joint: str, brim: float) -> None:
        """A port of a tank that is itself a surge tank: full to its brim, what is too much leaves by the overflow."""
        inside, length = f"{TANK}.inside", max(abs(port.drop_mm) / 1e3, 1e-3)
        if (TANK, "inside") not in self.made.gauges:
            self.made.gauges[TANK, "inside"] = inside
            self.made.held[f"{TANK}.stored"] = np.zeros(self.count)
            self._add(CheckValve(f"{TANK}.stored", f"{TANK}.stored", inside))
        if port.role == "overflow":
            self._add(CheckValve(f"{TANK}.overflow", inside, joint))
            return
        rise = port.flange_z_mm - brim
        self._add(Pipe(f"port.{port.id}", inside, joint, port.bore_mm, length, ENTRY_K + EXIT_K, rise_mm=rise))

    def _part(self, part: LinePart) -> None:
        """Caps and what only air passes add nothing."""
        add = getattr(self, BY_KIND.get(part.does.kind, ""), None)
        if add is not None:
            add(part, part.does)

    def _filter(self, part: LinePart, does: FilterDoes) -> None:
        times = does.loaded_times if self.loaded else 1.0
        joints = self._gated(part, self._at(part, "in")), self._at(part, "out")
        self._add(Resistance(part.id, *joints, linear=does.linear * times, square=does.square * times + OPEN_LEAST))

    def _gated(self, part: LinePart, inlet: str) -> str:
        """The joint behind a part's inlet, which lets nothing by in modes that it is blocked in."""
        blocked = self._still(part)
        if not any(blocked):
            return inlet
        behind = f"{part.id}.gate"
        self._add(Valve(f"{part.id}.gated", inlet, behind, fittings=0.0, is_open=[not one for one in blocked]))
        return behind

    def _check(self, part: LinePart, does: CheckDoes) -> None:
        joints = self._gated(part, self._at(part, "in")), self._at(part, "out")
        self._add(CheckValve(part.id, *joints, opens_kpa=does.opens_kpa, square=does.square))

    def _pump(self, part: LinePart, does: PumpDoes | EnginePumpDoes) -> None:
        """One that stands still passes nothing; nor does a spare, until it is brought in."""
        inlet, outlet = self._at(part, "in"), self._at(part, "out")
        spare = isinstance(does, PumpDoes) and does.spare
        curves: list[Curve | None] = []
        for place, (mode, still) in enumerate(zip(self.modes, self._still(part), strict=True)):
            curve = None if still or spare else pump_curve(does, mode.voltage_v, mode.engine_rpm)
            if curve is None and not still and not spare:
                self.made.beyond.setdefault(part.id, []).append(place)
            curves.append(curve)
        opens = does.check_opens_kpa if isinstance(does, PumpDoes) else None
        if opens is None:
            self._add(Pump(part.id, inlet, outlet, curves))
            return
        self._add(Pump(part.id, inlet, f"{part.id}.before check", curves))
        self._add(CheckValve(f"{part.id}.check", f"{part.id}.before check", outlet, opens, CHECK_SQUARE))

    def _valve(self, part: LinePart, does: ValveDoes) -> None:
        is_open = [not still for still in self._still(part)]
        self._add(Valve(part.id, self._at(part, "in"), self._at(part, "out"), does.bore_mm, does.fittings_k, is_open))

    def _passage(self, part: LinePart, does: PassageDoes) -> None:
        ports = [port for port in ports_of(does) if self.joined.get((part.id, port))] or list(ports_of(does))
        middle = f"{part.id}.middle"
        for port in ports:
            joint = self._at(part, port)
            self._add(self._pipe(f"{part.id}.{port}", joint, middle, does.bore_mm, does.fittings_k / 2))

    def _rail(self, part: LinePart, does: RailDoes) -> None:
        middle = f"{part.id}.middle"
        self.made.gauges[part.id, "rail"] = middle
        for port in ("in", "out"):
            if self.joined.get((part.id, port)):
                self._add(self._pipe(f"{part.id}.{port}", self._at(part, port), middle, does.bore_mm, 0.3))
        self.made.drawn[middle] = self._draws(part, does)

    def _user(self, part: LinePart, does: UserDoes) -> None:
        joint = self._at(part, "in")
        self.made.gauges[part.id, "rail"] = joint
        self.made.drawn[joint] = self._draws(part, does)
        if self.joined.get((part.id, "return")):
            back = self._at(part, "return")
            self._add(self._pipe(f"{part.id}.return", joint, back, does.return_bore_mm, 1.0))

    def _draws(self, part: LinePart, does: RailDoes | UserDoes) -> Array:
        flows = [mode.draws_lph if does.case is None else mode.by_case_lph.get(does.case, 0.0) for mode in self.modes]
        running = ~np.array(self._still(part))
        return np.asarray(np.array(flows) * does.share * running)

    def _regulator(self, part: LinePart, does: RegulatorDoes) -> None:
        reference = np.array([mode.manifold_kpa if does.is_referenced else 0.0 for mode in self.modes])
        inlet, chamber = self._at(part, "in"), f"{part.id}.chamber"
        linear = does.filter_linear * (self.loaded * 2 + 1)
        self._add(Resistance(f"{part.id}.in", inlet, chamber, linear=linear, square=OPEN_LEAST))
        self.made.gauges[part.id, "chamber"] = chamber
        out = self._at(part, "out")
        if does.way == "dead-head":
            self._add(DeadHeadRegulator(part.id, chamber, out, does.set_kpa, does.wide_open, reference))
            return
        rises = Curve.of([row.l_per_h for row in does.rises], [row.kpa for row in does.rises]) if does.rises else None
        if self.joined.get((part.id, "out")):
            self._add(Resistance(f"{part.id}.out", chamber, out, square=OPEN_LEAST))
        back = self._at(part, "return")
        more = {} if rises is None else {"rises": rises}
        self._add(
            BypassRegulator(
                part.id, chamber, back, set_kpa=does.set_kpa, wide_open=does.wide_open, reference_kpa=reference, **more
            )
        )

    def _jet(self, part: LinePart, does: JetDoes) -> None:
        self.made.jets[part.id] = does
        joints = self._at(part, "drive"), self._at(part, "out")
        self._add(Resistance(part.id, *joints, square=does.nozzle_square))
        self.made.gauges[part.id, "suction"] = f"{part.id}.suction"

    def _surge_tank(self, part: LinePart, _does: SurgeTankDoes) -> None:
        """Its fuel is at the air's pressure or above: what is lacking comes out of it, what is too much overflows."""
        inside, stored = f"{part.id}.inside", f"{part.id}.stored"
        self.made.gauges[part.id, "inside"] = inside
        top = self.height[part.id, "overflow"]
        self.made.held[stored] = np.zeros(self.count)
        self._add(CheckValve(f"{part.id}.stored", stored, inside))
        for port in ("lift", "return"):
            rise = top - self.height[part.id, port]
            self._add(self._pipe(f"{part.id}.{port}", self._at(part, port), inside, 12.0, EXIT_K, rise))
        fall = self.height[part.id, "out"] - top
        self._add(self._pipe(f"{part.id}.out", inside, self._at(part, "out"), 12.0, ENTRY_K, fall))
        self._add(CheckValve(f"{part.id}.overflow", inside, self._at(part, "overflow")))

    def _other_tank(self, part: LinePart, does: OtherTankDoes) -> None:
        for port in ports_of(does):
            if self.joined.get((part.id, port)):
                self.made.held[self._at(part, port)] = self._head(does.level_mm if port == "out" else 0.0)


BY_KIND = {
    "pump": "_pump",
    "engine-driven pump": "_pump",
    "filter": "_filter",
    "check valve": "_check",
    "isolating valve": "_valve",
    "sensor": "_passage",
    "tee": "_passage",
    "bulkhead": "_passage",
    "rail": "_rail",
    "carburettor": "_user",
    "injection pump": "_user",
    "delivery nozzle": "_user",
    "burner": "_user",
    "regulator": "_regulator",
    "jet pump": "_jet",
    "surge tank": "_surge_tank",
    "other tank": "_other_tank",
}
"""Which method adds a part, by what it does."""
