"""The brief: what the tank has to do."""

from typing import Annotated, Literal

from pydantic import Field

from keel.design.base import Name, Note, Part
from keel.design.features import Id
from keel.design.pumps import MOST_PUMPS, FittedPump, Pressure, Voltage
from keel.reference.engines import EngineKind
from keel.reference.fuels import FuelName

Share = Annotated[float, Field(gt=0, le=1)]
Seconds = Annotated[float, Field(gt=0, le=86_400)]
FlowRate = Annotated[float, Field(gt=0, le=100_000)]


class DemandCase(Part):
    """What an engine asks for in one case: now, later, or one running mode."""

    id: Id
    name: Name
    engine: EngineKind = "petrol, naturally aspirated"
    fuel: FuelName | None = Field(default=None, description="Empty means the brief's fuel")
    power_kw: Annotated[float, Field(gt=0, le=10_000)] | None = Field(default=None, description="At full throttle [kW]")
    bsfc_kg_per_kwh: Annotated[float, Field(ge=0.1, le=2)] | None = Field(
        default=None, description="Typed; empty means the middle of the usual range [kg/kWh]"
    )
    measured_l_per_h: FlowRate | None = Field(
        default=None, description="A measured figure at full power: it counts before any calculation [L/h]"
    )
    duty: Share = Field(default=1.0, description="Fraction of full power, averaged over the run")
    rail_kpa: Pressure = Field(default=300, description="Pressure the pumps work against [kPa]")
    supply_v: Voltage = Field(default=13.5, description="Voltage at the pumps, running [V]")
    low_v: Voltage = Field(default=11.5, description="Lowest voltage it has to run on [V]")


class Basis(Part):
    """Where the target capacity comes from."""

    kind: Literal["run time", "range", "stint"]
    case: Id | None = Field(default=None, description="Demand case that it burns by; empty means the first")
    hours: Annotated[float, Field(gt=0, le=1000)] | None = Field(default=None, description="Run time [h]")
    range_km: Annotated[float, Field(gt=0, le=50_000)] | None = None
    per_100km_l: Annotated[float, Field(gt=0, le=1000)] | None = Field(default=None, description="[L/100 km]")
    stint_min: Annotated[float, Field(gt=0, le=10_000)] | None = Field(
        default=None, description="Between fuel stops [min]"
    )
    reserve: Annotated[float, Field(ge=0, le=1)] = Field(default=0.1, description="Kept in hand, as a share on top")


class Surge(Part):
    """How long the pickup runs dry, and what refills the surge volume."""

    uncovered_s: Seconds = Field(description="Longest time that the main pickup is dry [s]")
    gap_s: Seconds | None = Field(default=None, description="Time to the next dry spell [s]")
    lift_l_per_h: FlowRate | None = Field(default=None, description="Lift pump at no pressure [L/h]")
    case: Id | None = Field(default=None, description="Demand case; empty means the first")


CardSubject = Literal[
    "rated capacity at most",
    "brimful capacity at most",
    "rated capacity at least",
    "fuel mass at most",
    "full mass at most",
    "wall thickness at least",
    "fuel share of vehicle at most",
]


class CardRule(Part):
    """A limit typed from a rulebook or the customer."""

    id: Id
    rule: Annotated[str, Field(min_length=1, max_length=80)] = Field(description="Its name in the rulebook")
    subject: CardSubject
    limit: Annotated[float, Field(gt=0, le=100_000)]


class Brief(Part):
    """Fuel, how much of it and how fast, and whose rules count."""

    fuel: FuelName = Field(default="petrol E10", description="What the tank will hold")
    target_l: float | None = Field(
        default=None, gt=0, le=100_000, description="Rated capacity asked for [L]; a named figure counts before a basis"
    )
    is_surge_tank: bool = Field(default=False, description="Fed by a lift pump, its overflow back to a main tank")
    reason: Note = Field(default="", description="Where the target comes from, in the customer's words")
    basis: Basis | None = None
    vehicle_kg: Annotated[float, Field(gt=0, le=1_000_000)] | None = Field(
        default=None, description="Vehicle without fuel [kg]"
    )
    cases: Annotated[tuple[DemandCase, ...], Field(max_length=8, strict=False)] = ()
    pumps: Annotated[tuple[FittedPump, ...], Field(max_length=MOST_PUMPS, strict=False)] = ()
    surge: Surge | None = None
    card: Annotated[tuple[CardRule, ...], Field(max_length=40, strict=False)] = ()
