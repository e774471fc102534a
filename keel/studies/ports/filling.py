"""Filling and drawing: how fast fuel goes in, and what the air does meanwhile."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from keel.analysis.parts import FILLING, FUEL, PORTS, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.ports import Filling, NeckPath, Port, Valve, VentPath
from keel.design.workshop import HouseRules
from keel.reference.fuels import FUELS, FuelName
from keel.solid.solids import Solids
from keel.studies.demand.demand import MOST_DRAWN
from keel.studies.liquid.capacity import CAPACITY, Capacity
from keel.studies.ports.streams import Balance, air_out, balance, drawing_vacuum_kpa, held_back_kpa, jug_kpa
from keel.studies.ports.vent_paths import level_rows, neck_of, vents_by_cell

BORES_MM = (3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 14.0, 16.0, 20.0, 25.0, 32.0, 38.0, 42.0, 51.0, 57.0, 63.0)
"""Sizes that necks and vents come in [mm]."""
Restraint = Literal["neck", "nozzle", "neck's valves", "vent", "vent's valves"]


@dataclass(frozen=True, slots=True)
class FillPoint:
    """The tank at one moment of its filling."""

    seconds: float
    litres: float
    level_mm: float
    tank_kpa: float


@dataclass(frozen=True, slots=True)
class Other:
    """What another size of one thing in the way would bring."""

    what: Restraint
    size: float
    """A bore [mm]; of valves the pressure that opens them all [kPa]."""
    seconds: float


@dataclass(frozen=True, slots=True)
class FillRun:
    """Filling from empty to the rated capacity."""

    seconds: float
    l_per_s: float
    peak_kpa: float
    open_vent_s: float
    """With nothing in the air's way."""
    held_back_by: Restraint | Literal["no vent"]
    """That whose next size would save most time."""
    shuts_off: bool
    """The nozzle clicks off, or the neck spits back, before the tank is full."""
    others: list[Other]
    vent_for_wanted_mm: float | None
    wanted_s: float | None
    vacuum_kpa: float | None
    """While fuel is drawn at the given rate."""
    drawn_l_per_h: float | None
    points: list[FillPoint]


@dataclass(frozen=True)
class _Way:
    """All that fuel and air pass while a tank is filled."""

    filling: Filling
    neck: NeckPath
    vents: Sequence[VentPath]
    density_kg_per_l: float

    @property
    def bore_mm(self) -> float:
        """The mouth: the neck, or the nozzle in it where that is the smaller."""
        return self.neck.bore_mm if self.is_jug else min(self.neck.bore_mm, self.filling.nozzle_bore_mm)

    @property
    def is_jug(self) -> bool:
        return self.filling.supply == "jug"

    @property
    def drive_kpa(self) -> float:
        """What is left of the drive behind the neck's flaps and checks."""
        drive = jug_kpa(self.filling.head_mm, self.density_kg_per_l) if self.is_jug else self.filling.supply_kpa
        return max(0.0, drive - self.neck.opening_kpa)

    def stream(self, vented: bool = True) -> Balance:
        """The steady stream; without a vent in the air's way where that is asked."""
        return balance(self.drive_kpa, self.bore_mm, self.density_kg_per_l, self.vents if vented else None)

    def seconds(self, litres: float, vented: bool = True) -> float:
        """How long so much takes."""
        stream = self.stream(vented).l_per_s
        return litres / stream if stream > 1e-9 else float("inf")

    def with_size(self, what: Restraint, size: float) -> "_Way":
        """With one thing in the way of another size; of valves the first opens at it, the others don't count."""
        match what:
            case "neck":
                return replace(self, neck=self.neck.model_copy(update={"bore_mm": size}))
            case "nozzle":
                return replace(self, filling=self.filling.model_copy(update={"nozzle_bore_mm": size}))
            case "neck's valves":
                valves = (Valve(name="all", opens_kpa=size),)
                return replace(self, neck=self.neck.model_copy(update={"valves": valves}))
            case "vent":
                return replace(self, vents=_first_of(self.vents, size))
        wanted = {"opens_kpa": size, "valves": ()}
        return replace(self, vents=[vent.model_copy(update=wanted) for vent in self.vents])

    def sizes(self) -> dict[Restraint, float]:
        """What there is in the way, and its size."""
        found: dict[Restraint, float] = {"neck": self.neck.bore_mm}
        if not self.is_jug:
            found["nozzle"] = self.filling.nozzle_bore_mm
        if self.neck.opening_kpa:
            found["neck's valves"] = self.neck.opening_kpa
        if self.vents:
            found["vent"] = self.vents[0].bore_mm
        if self.vents and self.vents[0].opening_kpa:
            found["vent's valves"] = self.vents[0].opening_kpa
        return found


def fill_run(
    filling: Filling,
    neck: NeckPath,
    vents: Sequence[VentPath],
    density_kg_per_l: float,
    rows: Sequence[tuple[float, float]],
    shuts_off_kpa: float,
    drawn_l_per_h: float | None,
) -> FillRun:
    """Fill a tank to its rated capacity.

    Parameters
    ----------
    filling : Filling
        Jug or nozzle, and the time wanted.
    neck : NeckPath
        Its bore, of which a nozzle's own counts where it is the smaller, and its flaps and checks.
    vents : sequence of VentPath
        Ways out for the air.
    density_kg_per_l : float
        The fuel's [kg/L].
    rows : sequence of (float, float)
        Level over the lowest place [mm] and litres, rising, the last at rated capacity.
    shuts_off_kpa : float
        Back pressure at which a nozzle shuts off or a neck spits.
    drawn_l_per_h : float, optional
        Most that is drawn, for the vacuum [L/h].

    Returns
    -------
    FillRun
        With the time for the next sizes of each thing in the way, of valves for half the pressure that opens them and
        none; that whose next size saves most is what holds it back.
    """
    way, litres = _Way(filling, neck, vents, density_kg_per_l), rows[-1][1]
    now, taken, open_s = way.stream(), way.seconds(litres), way.seconds(litres, vented=False)
    vent_for = None
    if filling.wanted_s is not None and vents and open_s <= filling.wanted_s:
        wanted = litres / filling.wanted_s
        vent_for = _vent_bore(wanted, held_back_kpa(way.drive_kpa, wanted, way.bore_mm, density_kg_per_l), vents)
    flowing, others = now.l_per_s > 1e-9, _others(way, litres)
    return FillRun(
        seconds=taken if flowing else -1.0,
        l_per_s=now.l_per_s,
        peak_kpa=now.tank_kpa,
        open_vent_s=open_s,
        held_back_by=_held_back_by(others) if vents else "no vent",
        shuts_off=now.tank_kpa > shuts_off_kpa,
        others=[other for other in others if other.seconds < float("inf")],
        vent_for_wanted_mm=vent_for,
        wanted_s=filling.wanted_s,
        vacuum_kpa=_finite(drawing_vacuum_kpa(drawn_l_per_h, tuple(vents))) if drawn_l_per_h else None,
        drawn_l_per_h=drawn_l_per_h,
        points=_points(rows, now) if flowing else [],
    )


def _others(way: _Way, litres: float) -> list[Other]:
    """The next two sizes of each thing in the way; of valves half the pressure and none."""
    found = []
    for what, size in way.sizes().items():
        for other in [size / 2, 0.0] if "valves" in what else _larger(size):
            found.append(Other(what, other, way.with_size(what, other).seconds(litres)))
    return found


def _held_back_by(others: Sequence[Other]) -> Restraint:
    """That whose next size would save most."""
    first = {other.what: other.seconds for other in reversed(others)}
    return min(first, key=lambda what: first[what])


def _finite(value: float) -> float | None:
    return value if value < float("inf") else None


def _larger(bore: float) -> list[float]:
    return [size for size in BORES_MM if size > bore * 1.001][:2]


def _first_of(vents: Sequence[VentPath], bore: float) -> list[VentPath]:
    """The vents with the first one's bore changed."""
    return [vents[0].model_copy(update={"bore_mm": bore}), *vents[1:]]


def _vent_bore(l_per_s: float, tank_kpa: float, vents: Sequence[VentPath]) -> float | None:
    """The least bore of the first vent that lets so much air out at a pressure, to a twentieth of a millimetre [mm]."""
    low, high = 0.5, 200.0
    if air_out(tank_kpa, _first_of(vents, high)) < l_per_s:
        return None
    while high - low > 0.05:
        middle = (low + high) / 2
        if air_out(tank_kpa, _first_of(vents, middle)) < l_per_s:
            low = middle
        else:
            high = middle
    return high


def _points(rows: Sequence[tuple[float, float]], stream: Balance) -> list[FillPoint]:
    return [FillPoint(litres / stream.l_per_s, litres, level, stream.tank_kpa) for level, litres in rows]


def fill_runs(
    solids: Solids,
    ports: Sequence[Port],
    filling: Filling,
    fuel: FuelName,
    held: Capacity,
    rules: HouseRules,
    drawn_l_per_h: float | None,
) -> dict[str, FillRun]:
    """Filling of each cell that has a filler."""
    vents, density = vents_by_cell(solids, ports), FUELS[fuel].density_kg_per_l
    return {
        cell.cell: fill_run(
            filling,
            neck_of(solids, ports, cell.cell),
            [port.vent or VentPath() for port in vents[cell.cell]],
            density,
            level_rows(solids, cell.cell, cell.rated_l),
            rules.back_pressure_kpa,
            drawn_l_per_h,
        )
        for cell in held.cells
        if cell.cell in vents
    }


FILL_RUNS = study(fill_runs, SOLIDS, PORTS, FILLING, FUEL, CAPACITY, RULES, MOST_DRAWN)
