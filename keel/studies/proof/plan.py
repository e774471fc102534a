"""The leak test of every cell, before it starts: what it bears, at which pressure, how long, with which limiter."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil, floor

from keel.analysis.parts import PROOF, SOLIDS, WORKSHOP
from keel.analysis.study import study
from keel.design.proof import Limiter, Proof, ProofMethod, TestGauge
from keel.design.workshop import HouseRules, Workshop
from keel.reference.metals import METALS, MetalName
from keel.reference.units import MM3_PER_LITRE, MM3_PER_M3, STANDARD_GRAVITY
from keel.solid.solids import Cell, Solids
from keel.studies.proof.bearing import WALL_PANELS
from keel.studies.proof.decay import LeakTest, LeastMinutes, PressureReading, Resolution, least_minutes
from keel.studies.proof.wall import TestPanel
from keel.studies.strength.panels.panel import OVER, PanelEdge, edge_at
from keel.studies.strength.plate_bending import large_deflection_mm, panel_stress_mpa

WATER_MM_PER_KPA = 102.0
"""Water at 20 °C: 1000/(998.2 · 9.80665) m of it make a kilopascal, to 0.2 %."""
WATER_KG_PER_M3 = 998.2
PLAN_C, PLAN_BAROMETER_KPA = 20.0, 101.325
"""What a test is planned with before anything is read: a room, standard air."""
LIMITER_OVER = 1.1
STEP_KPA, STEP_MIN = 0.1, 5.0
LONGER = 2.0
"""A test as long as this many times the least decides a leak of half the limit."""
MOST_BARS, SHOWN_PANELS = 6, 8
LOWER = (0.75, 0.5, 0.25)


@dataclass(frozen=True, slots=True)
class Braced:
    """What one bar more across the weakest panel makes of a cell: where it goes, what the cell bears then."""

    bars: int
    panel: str
    long_mm: float
    safe_kpa: float


@dataclass(frozen=True, slots=True)
class Lower:
    """A test at lower pressure: the same hole loses less, so it takes longer to see."""

    pressure_kpa: float
    limit_sccm: float
    least_min: float
    bow_mm: float


@dataclass(frozen=True, slots=True)
class CellPlan:
    """How one cell is tested.

    Attributes
    ----------
    cell : str
        Its name.
    neighbours : list of str
        Cells that stand open meanwhile.
    volume_l : float
        Air in it, hoses and gauge counted, parts and foam not [L].
    panels : list of TestPanel
        Those of its walls that bear least, the weakest first.
    safe_kpa, safe_vacuum_kpa : float
        What it bears without bars [kPa]; pressure never above the workshop's cap.
    is_capped : bool
        Whether the cap, not a panel, sets the safe pressure.
    braced : list of Braced
        What bars would change, one after the other.
    cap_kpa, bears_kpa : float
        The workshop's cap; what the cell bears with the bars that the plan has [kPa].
    pressure_kpa, limiter_kpa, column_mm : float
        Test pressure, where the limiter opens [kPa], and how high a water column stands then [mm].
    bow_mm : float
        How far the weakest panel bows at the test pressure [mm], its stretching counted.
    deepest_mm : float
        How deep under water its lowest seam may lie: deeper, water is pressed in instead of air out [mm].
    hold_down_n : float
        What holds the empty tank under water [N].
    limit_sccm : float
        Leak that passes at that pressure.
    least_min : LeastMinutes
        How long readings have to last.
    minutes : float
        Planned.
    lower : list of Lower
        What lower pressures would take.
    """

    cell: str
    neighbours: list[str]
    volume_l: float
    panels: list[TestPanel]
    safe_kpa: float
    safe_vacuum_kpa: float
    is_capped: bool
    braced: list[Braced]
    cap_kpa: float
    bears_kpa: float
    pressure_kpa: float
    limiter_kpa: float
    column_mm: float
    bow_mm: float
    deepest_mm: float
    hold_down_n: float
    limit_sccm: float
    least_min: LeastMinutes
    minutes: float
    lower: list[Lower]


@dataclass(frozen=True, slots=True)
class PlanRules:
    """House rules that the figures come from.

    Attributes
    ----------
    stress_share : float
        Share of the as-welded yield that a panel may reach.
    limit_sccm, known_kpa : float
        Leak that passes at the useful test pressure and above, and that pressure [kPa].
    length_factor : float
        Last digits of the gauge that the largest leak has to let off.
    """

    stress_share: float
    limit_sccm: float
    known_kpa: float
    length_factor: float


@dataclass(frozen=True, slots=True)
class ProofPlan:
    """How a tank is tested: each cell by itself, its neighbours open, with so many bars clamped on."""

    method: ProofMethod
    limiter: Limiter
    braces: int
    gauge: TestGauge
    gauges: list[TestGauge]
    """All that the workshop has."""
    submerged_min: float
    on_paper_min: float
    """How long the methods that only watch have to last [min]."""
    rules: PlanRules
    cells: list[CellPlan]


def limit_at(limit_sccm: float, known_kpa: float, pressure_kpa: float, barometer_kpa: float) -> float:
    """The leak that a hole has at another pressure [cm³/min].

    Parameters
    ----------
    limit_sccm : float
        What it leaks at `known_kpa`.
    known_kpa, pressure_kpa : float
        Both pressures over the air's [kPa].
    barometer_kpa : float
        The air's [kPa abs].

    Returns
    -------
    float
        In the ratio of p (p + 2 p_atm); never more than at `known_kpa`, so that a high test is no milder.

    References
    ----------
    Viscous flow of a gas through a capillary (Poiseuille), as leaks of this size flow: Q ∝ p₁² − p₂².
    """

    def drive(gauge: float) -> float:
        return gauge * (gauge + 2 * barometer_kpa)

    return limit_sccm * min(1.0, drive(pressure_kpa) / drive(known_kpa))


def water_column_mm(pressure_kpa: float) -> float:
    """Height of water that holds a pressure [mm].

    Parameters
    ----------
    pressure_kpa : float
        Pressure [kPa].

    Returns
    -------
    float
        102 mm for each kilopascal.

    References
    ----------
    Hydrostatics, water of 998.2 kg/m³ (20 °C).
    """
    return WATER_MM_PER_KPA * pressure_kpa


def proof_plan(walls: Sequence[TestPanel], solids: Solids, proof: Proof, workshop: Workshop) -> ProofPlan:
    """How every cell is tested.

    Parameters
    ----------
    walls : sequence of TestPanel
        What its walls bear.
    solids : Solids
        Cells.
    proof : Proof
        As typed.
    workshop : Workshop
        House rules and gauges.

    Returns
    -------
    ProofPlan
        What isn't typed comes from the house rules and from what the tank bears.
    """
    gauge = workshop.test_gauge(proof.gauge)
    names = [cell.name for cell in solids.cells]
    metal, rules = solids.shell.metal, workshop.rules
    displaced, mass = (
        solids.outer.volume() / MM3_PER_M3,
        solids.metal_mm3 / MM3_PER_M3 * METALS[metal].density_kg_per_m3,
    )
    lift = max(0.0, displaced * WATER_KG_PER_M3 - mass) * STANDARD_GRAVITY
    plans = [
        _Cell(
            cell, [name for name in names if name != cell.name], walls, proof, workshop.rules, gauge, metal, lift
        ).plan()
        for cell in solids.cells
    ]
    return ProofPlan(
        method=proof.method,
        limiter=proof.limiter,
        braces=proof.braces,
        gauge=gauge,
        gauges=workshop.test_gauges,
        submerged_min=rules.submerged_min,
        on_paper_min=rules.on_paper_min,
        rules=PlanRules(rules.stress_share, rules.leak_limit_sccm, rules.proof_least_kpa, rules.decay_length_factor),
        cells=plans,
    )


class _Cell:
    """One cell's plan in the making."""

    def __init__(
        self,
        cell: Cell,
        neighbours: list[str],
        walls: Sequence[TestPanel],
        proof: Proof,
        rules: HouseRules,
        gauge: TestGauge,
        metal: MetalName,
        lift_n: float,
    ) -> None:
        self.cell, self.neighbours, self.proof, self.rules, self.gauge = cell, neighbours, proof, rules, gauge
        self.allowed_mpa = rules.stress_share * METALS[metal].welded_yield_mpa
        self.lift_n = lift_n
        self.panels = [panel for panel in walls if cell.name in panel.cells] or list(walls)
        held = cell.mesh.volume_mm3 if proof.foam_in else cell.mesh.volume_mm3 / cell.mesh.porosity
        self.volume_l = max(0.0, held / MM3_PER_LITRE - proof.parts_l) + proof.hoses_l

    def plan(self) -> CellPlan:
        cap, least = self.rules.proof_cap_kpa, self.panels[0].safe_kpa
        safe = min(cap, least)
        braced = self._braced(cap)
        bears = (
            safe if not self.proof.braces or not braced else braced[min(self.proof.braces, len(braced)) - 1].safe_kpa
        )
        pressure = self.proof.pressure_kpa or min(self.rules.proof_kpa, down(bears, STEP_KPA))
        limiter = self.proof.limiter_kpa or min(bears, LIMITER_OVER * pressure)
        limit, times = self._limit(pressure), self._least(pressure)
        return CellPlan(
            cell=self.cell.name,
            neighbours=self.neighbours,
            volume_l=self.volume_l,
            panels=self.panels[:SHOWN_PANELS],
            safe_kpa=safe,
            safe_vacuum_kpa=min(PLAN_BAROMETER_KPA, *(panel.vacuum_kpa for panel in self.panels)),
            is_capped=least > cap,
            braced=braced,
            cap_kpa=cap,
            bears_kpa=bears,
            pressure_kpa=pressure,
            limiter_kpa=limiter,
            column_mm=water_column_mm(limiter),
            bow_mm=self._bow(pressure),
            deepest_mm=water_column_mm(pressure),
            hold_down_n=self.lift_n,
            limit_sccm=limit,
            least_min=times,
            minutes=self.proof.minutes or _up(LONGER * times.both, STEP_MIN),
            lower=[self._lower(share * pressure) for share in LOWER],
        )

    def _limit(self, pressure: float) -> float:
        known = self.rules.proof_least_kpa or pressure
        return limit_at(self.rules.leak_limit_sccm, known, pressure, PLAN_BAROMETER_KPA)

    def _least(self, pressure: float) -> LeastMinutes:
        start = PressureReading(0.0, pressure, PLAN_C, PLAN_BAROMETER_KPA)
        return least_minutes(start, leak_test(self.volume_l, self._limit(pressure), self.gauge, self.rules))

    def _lower(self, pressure: float) -> Lower:
        return Lower(pressure, self._limit(pressure), self._least(pressure).both, self._bow(pressure))

    def _bow(self, pressure: float) -> float:
        weakest = self.panels[0]
        return large_deflection_mm(weakest.bow_mm * pressure, weakest.thickness_mm)

    def _braced(self, cap: float) -> list[Braced]:
        """A bar across the middle of the weakest panel, then of the next weakest: each halves a panel's longer side."""
        panels, found = list(self.panels), list[Braced]()
        while len(found) < MOST_BARS and panels[0].safe_kpa < cap and _takes_a_bar(panels[0]):
            weakest = panels.pop(0)
            panels = sorted([*panels, self._halved(weakest)], key=lambda panel: panel.safe_kpa)
            across = min(weakest.first_mm, weakest.second_mm)
            found.append(Braced(len(found) + 1, weakest.name, across, min(cap, panels[0].safe_kpa)))
        return found

    def _halved(self, panel: TestPanel) -> TestPanel:
        """What a bar across its middle leaves of a panel: it goes on over the bar, so that it can't turn there."""
        sides, by_first = (panel.first_mm, panel.second_mm), panel.first_mm >= panel.second_mm
        first, second = (sides[0] / 2, sides[1]) if by_first else (sides[0], sides[1] / 2)
        low, high, foot, head = panel.edges
        bar = edge_at("bar", OVER)
        halves = (
            [(low, bar, foot, head), (bar, high, foot, head)]
            if by_first
            else [(low, high, foot, bar), (low, high, bar, head)]
        )
        worst = min(halves, key=lambda edges: self._bears(first, second, panel.thickness_mm, edges))
        bears = self._bears(first, second, panel.thickness_mm, worst)
        return replace(panel, first_mm=first, second_mm=second, edges=list(worst), safe_kpa=bears)

    def _bears(self, first: float, second: float, thick: float, edges: Sequence[PanelEdge]) -> float:
        low, high, foot, head = (edge.held for edge in edges)
        return self.allowed_mpa * thick**2 / panel_stress_mpa(1.0, first, second, 1.0, (low, high, foot, head))


def _takes_a_bar(panel: TestPanel) -> bool:
    """Whether a bar can be clamped across it from outside."""
    return bool(panel.edges) and not panel.round and panel.what != "partition"


def leak_test(volume_l: float, limit_sccm: float, gauge: TestGauge, rules: HouseRules) -> LeakTest:
    """A test as readings are judged by it.

    Parameters
    ----------
    volume_l, limit_sccm : float
        Air in the tank [L], leak that passes [cm³/min].
    gauge : TestGauge
        Last digits of its instruments.
    rules : HouseRules
        How many of the gauge's digits the largest leak has to let off.

    Returns
    -------
    LeakTest
        What `judge` goes by.
    """
    digits = Resolution(gauge.resolution_kpa, gauge.temperature_resolution_k, gauge.barometer_resolution_kpa)
    return LeakTest(volume_l, limit_sccm, digits, rules.decay_length_factor)


def down(value: float, step: float) -> float:
    """A value rounded down to a step, and never to nothing.

    Parameters
    ----------
    value, step : float
        In one unit, above zero.

    Returns
    -------
    float
        A multiple of the step; the value itself where it is less than one.
    """
    return max(floor(value / step + 1e-9) * step, min(value, step))


def _up(value: float, step: float) -> float:
    return ceil(value / step - 1e-9) * step


PROOF_PLAN = study(proof_plan, WALL_PANELS, SOLIDS, PROOF, WORKSHOP)
"""How every cell is tested."""
