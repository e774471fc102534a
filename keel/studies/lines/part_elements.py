"""What each part of a line is between its connections."""

import numpy as np

from keel.design.line_functions import (
    CheckDoes,
    EnginePumpDoes,
    FilterDoes,
    JetDoes,
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
from keel.design.line_parts import LinePart
from keel.network.curves import Array, Curve
from keel.network.elements import (
    OPEN_LEAST,
    BypassRegulator,
    CheckValve,
    DeadHeadRegulator,
    Pump,
    Resistance,
    Valve,
)
from keel.reference.fittings import ENTRY_K, EXIT_K
from keel.studies.lines.assembly import CHECK_SQUARE, HOUSED_TIMES, Joints
from keel.studies.lines.pump_curves import pump_curve


class PartElements(Joints):
    """Adds parts, kind by kind."""

    def add_part(self, part: LinePart) -> None:
        """Caps and what only air passes add nothing."""
        add = getattr(self, BY_KIND.get(part.does.kind, ""), None)
        if add is not None:
            add(part, part.does)

    def _filter(self, part: LinePart, does: FilterDoes) -> None:
        times = np.where(self.loaded, does.loaded_times, 1.0)
        joints = self.gated(part, self.at(part, "in")), self.at(part, "out")
        self.add(Resistance(part.id, *joints, linear=does.linear * times, square=does.square * times + OPEN_LEAST))

    def _check(self, part: LinePart, does: CheckDoes) -> None:
        joints = self.gated(part, self.at(part, "in")), self.at(part, "out")
        self.add(CheckValve(part.id, *joints, opens_kpa=does.opens_kpa, square=does.square))

    def _pump(self, part: LinePart, does: PumpDoes | EnginePumpDoes) -> None:
        """One that stands still passes nothing; nor does a spare, until it is brought in."""
        inlet, outlet = self.at(part, "in"), self.at(part, "out")
        spare = isinstance(does, PumpDoes) and does.spare
        curves: list[Curve | None] = []
        for place, (mode, still) in enumerate(zip(self.modes, self.still(part), strict=True)):
            curve = None if still or spare else pump_curve(does, mode.voltage_v, mode.engine_rpm)
            if curve is None and not still and not spare:
                self.made.beyond.setdefault(part.id, []).append(place)
            curves.append(curve)
        opens = does.check_opens_kpa if isinstance(does, PumpDoes) else None
        if opens is None:
            self.add(Pump(part.id, inlet, outlet, curves))
            return
        self.add(Pump(part.id, inlet, f"{part.id}.before check", curves))
        self.add(CheckValve(f"{part.id}.check", f"{part.id}.before check", outlet, opens, CHECK_SQUARE))

    def _valve(self, part: LinePart, does: ValveDoes) -> None:
        is_open = [not still for still in self.still(part)]
        self.add(Valve(part.id, self.at(part, "in"), self.at(part, "out"), does.bore_mm, does.fittings_k, is_open))

    def _passage(self, part: LinePart, does: PassageDoes) -> None:
        ports = [port for port in ports_of(does) if self.joined.get((part.id, port))] or list(ports_of(does))
        middle = f"{part.id}.middle"
        for port in ports:
            joint = self.at(part, port)
            self.add(self.passage(f"{part.id}.{port}", joint, middle, does.bore_mm, does.fittings_k / 2))

    def _rail(self, part: LinePart, does: RailDoes) -> None:
        middle = f"{part.id}.middle"
        self.made.gauges[part.id, "rail"] = middle
        for port in ("in", "out"):
            if self.joined.get((part.id, port)):
                self.add(self.passage(f"{part.id}.{port}", self.at(part, port), middle, does.bore_mm, 0.3))
        self.made.drawn[middle] = self._draws(part, does)

    def _user(self, part: LinePart, does: UserDoes) -> None:
        joint = self.at(part, "in")
        self.made.gauges[part.id, "rail"] = joint
        self.made.drawn[joint] = self._draws(part, does)
        if self.joined.get((part.id, "return")):
            back = self.at(part, "return")
            self.add(self.passage(f"{part.id}.return", joint, back, does.return_bore_mm, 1.0))

    def _draws(self, part: LinePart, does: RailDoes | UserDoes) -> Array:
        flows = [mode.draws_lph if does.case is None else mode.by_case_lph.get(does.case, 0.0) for mode in self.modes]
        running = ~np.array(self.still(part))
        return np.asarray(np.array(flows) * does.share * running)

    def _regulator(self, part: LinePart, does: RegulatorDoes) -> None:
        reference = np.array([mode.manifold_kpa if does.is_referenced else 0.0 for mode in self.modes])
        inlet, chamber = self.at(part, "in"), f"{part.id}.chamber"
        linear = does.filter_linear * np.where(self.loaded, HOUSED_TIMES, 1.0)
        self.add(Resistance(f"{part.id}.in", inlet, chamber, linear=linear, square=OPEN_LEAST))
        self.made.gauges[part.id, "chamber"] = chamber
        out = self.at(part, "out")
        if does.way == "dead-head":
            self.add(DeadHeadRegulator(part.id, chamber, out, does.set_kpa, does.wide_open, reference))
            return
        rises = Curve.of([row.l_per_h for row in does.rises], [row.kpa for row in does.rises]) if does.rises else None
        if self.joined.get((part.id, "out")):
            self.add(Resistance(f"{part.id}.out", chamber, out, square=OPEN_LEAST))
        back = self.at(part, "return")
        more = {} if rises is None else {"rises": rises}
        self.add(
            BypassRegulator(
                part.id, chamber, back, set_kpa=does.set_kpa, wide_open=does.wide_open, reference_kpa=reference, **more
            )
        )

    def _jet(self, part: LinePart, does: JetDoes) -> None:
        self.made.jets[part.id] = does
        joints = self.at(part, "drive"), self.at(part, "out")
        self.add(Resistance(part.id, *joints, square=does.nozzle_square))
        self.made.gauges[part.id, "suction"] = f"{part.id}.suction"

    def _surge_tank(self, part: LinePart, _does: SurgeTankDoes) -> None:
        """Its fuel is at the air's pressure or above: what is lacking comes out of it, what is too much overflows."""
        inside, stored = f"{part.id}.inside", f"{part.id}.stored"
        self.made.gauges[part.id, "inside"] = inside
        top = self.height[part.id, "overflow"]
        self.made.held[stored] = np.zeros(self.count)
        self.add(CheckValve(f"{part.id}.stored", stored, inside))
        for port in ("lift", "return"):
            rise = top - self.height[part.id, port]
            self.add(self.passage(f"{part.id}.{port}", self.at(part, port), inside, 12.0, EXIT_K, rise))
        fall = self.height[part.id, "out"] - top
        self.add(self.passage(f"{part.id}.out", inside, self.at(part, "out"), 12.0, ENTRY_K, fall))
        self.add(CheckValve(f"{part.id}.overflow", inside, self.at(part, "overflow")))

    def _other_tank(self, part: LinePart, does: OtherTankDoes) -> None:
        for port in ports_of(does):
            if self.joined.get((part.id, port)):
                self.made.held[self.at(part, port)] = self.head(does.level_mm if port == "out" else 0.0)


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
