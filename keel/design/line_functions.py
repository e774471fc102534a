"""What each part of a fuel line does with flow and pressure, and the connections that its kind may have."""

from itertools import pairwise
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from keel.design.base import Bore, Gap, Part, refuse
from keel.design.features import Id
from keel.design.pumps import Flow, Pressure, PumpCurve, PumpPoint
from keel.reference.hoses import DASH_BORE_MM

Kpa = Annotated[float, Field(ge=0, le=5000)]
Loss = Annotated[float, Field(ge=0, le=1000)]
Micron = Annotated[float, Field(gt=0, le=2000)]
Minutes = Annotated[float, Field(gt=0, le=10_000)]
Tools = Annotated[str, Field(max_length=120)]
Element = Literal["paper", "felt", "glass fibre", "stainless mesh", "brass mesh", "nylon mesh", "sintered bronze"]


class PumpDoes(Part):
    """An electric pump: it gives what its curves have at its voltage."""

    kind: Literal["pump"] = "pump"
    curves: Annotated[tuple[PumpCurve, ...], Field(min_length=1, max_length=6, strict=False)]
    place: Literal["in the tank", "in line"] = "in line"
    check_opens_kpa: Kpa | None = Field(
        default=None, description="Opening pressure of its own check valve [kPa]; empty: it has none"
    )
    current_a: Annotated[float, Field(gt=0, le=200)] | None = Field(default=None, description="Running current [A]")
    loop_ohm: Annotated[float, Field(ge=0, le=10)] | None = Field(
        default=None, description="Its wiring, there and back [Ω]; empty: as drawn at Wiring, else none"
    )
    dead_head_kpa: Kpa | None = Field(
        default=None, description="Most pressure that it makes, its relief valve counted [kPa]; empty: by its curve"
    )
    lifts_mm: Gap | None = Field(default=None, description="Greatest suction lift by its card [mm]")
    noise_db: Annotated[float, Field(ge=0, le=140)] | None = Field(default=None, description="At a metre [dB(A)]")
    minutes_to_replace: Minutes | None = Field(default=None, description="To replace it where it is [min]")
    tools: Tools = Field(default="", description="What replacing it takes")
    fuse: Annotated[str, Field(max_length=40)] = Field(default="", description="Which fuse feeds it")
    relay: Annotated[str, Field(max_length=40)] = Field(default="", description="Which relay switches it")
    switch: Annotated[str, Field(max_length=40)] = Field(default="", description="Which switch or cut-off is before it")
    spare: bool = Field(default=False, description="Stands by; it counts for nothing until it is brought in")
    brought_in: Annotated[str, Field(max_length=120)] = Field(
        default="", description="How a spare is brought in: which switch, valve or plug"
    )


class SpeedCurve(Part):
    """What an engine-driven pump gives at one speed of its own shaft."""

    rpm: Annotated[float, Field(gt=0, le=30_000)]
    points: Annotated[tuple[PumpPoint, ...], Field(min_length=2, max_length=60, strict=False)]


class EnginePumpDoes(Part):
    """A pump on the engine: flow against the speed of its shaft."""

    kind: Literal["engine-driven pump"] = "engine-driven pump"
    curves: Annotated[tuple[SpeedCurve, ...], Field(min_length=1, max_length=8, strict=False)]
    ratio: Annotated[float, Field(gt=0, le=10)] = Field(default=0.5, description="Shaft speed over the engine's")
    needs_flooded: bool = Field(default=True, description="Its inlet has to be under fuel by gravity")
    can_disengage: bool = Field(default=False, description="A clutch or a valve takes it out of work")
    dead_head_kpa: Kpa | None = Field(default=None, description="Most pressure that it makes [kPa]")

    @model_validator(mode="after")
    def _speeds_rise(self) -> "EnginePumpDoes":
        for place, (a, b) in enumerate(pairwise(self.curves), start=1):
            if b.rpm <= a.rpm:
                refuse(
                    f"give the curves from the lowest speed to the highest: {b.rpm:g} follows {a.rpm:g} rpm",
                    field=f"curves.{place}.rpm",
                    value=b.rpm,
                    limit=f"above {a.rpm:g}",
                )
        return self


class FilterDoes(Part):
    """A screen, strainer or filter: it loses a Q + b Q²."""

    kind: Literal["filter"] = "filter"
    stage: Literal["screen", "pre-filter", "main", "commissioning"] = "main"
    fineness_um: Micron | None = Field(default=None, description="What it holds back [µm]")
    area_cm2: Annotated[float, Field(gt=0, le=100_000)] | None = Field(default=None, description="Element's area [cm²]")
    linear: Loss = Field(default=0.02, description="Loss with the flow, clean [kPa per L/h]")
    square: Loss = Field(default=0.0, description="Loss with the flow's square, clean [kPa per (L/h)²]")
    loaded_times: Annotated[float, Field(ge=1, le=100)] = Field(
        default=3, description="Loss when it is due for a swap, over that when clean"
    )
    swap_hours: Annotated[float, Field(gt=0, le=100_000)] | None = Field(default=None, description="Swapped after [h]")
    element: Element = "paper"
    minutes_to_replace: Minutes | None = Field(default=None, description="To replace it where it is [min]")
    tools: Tools = Field(default="", description="What replacing it takes")
    caught: Annotated[str, Field(max_length=200)] = Field(
        default="", description="What was found in it at the last swap"
    )


class CheckDoes(Part):
    """A check valve: one way, above its opening pressure."""

    kind: Literal["check valve"] = "check valve"
    opens_kpa: Kpa = Field(default=5, description="Opening pressure [kPa]")
    square: Loss = Field(default=0.0003, description="Loss with the flow's square [kPa per (L/h)²]")


class ValveDoes(Part):
    """A valve that people open and shut."""

    kind: Literal["isolating valve"] = "isolating valve"
    bore_mm: Bore = Field(default=DASH_BORE_MM[6], description="Bore when open [mm]")
    fittings_k: Loss = Field(default=0.3, description="K of its bore")


class PassageDoes(Part):
    """Something that fuel only passes: a sensor, a tee, a block, a bulkhead."""

    kind: Literal["sensor", "tee", "bulkhead"] = "tee"
    bore_mm: Bore = Field(default=DASH_BORE_MM[6], description="Smallest bore inside [mm]")
    fittings_k: Loss = Field(default=0.6, description="K of its bore, for each branch")


class RailDoes(Part):
    """A rail of injectors, or one of two that share an engine."""

    kind: Literal["rail"] = "rail"
    case: Id | None = Field(default=None, description="Demand case it is drawn by; empty: each mode's own")
    share: Annotated[float, Field(gt=0, le=1)] = Field(default=1, description="Share of the engine's fuel")
    injectors: Annotated[int, Field(ge=1, le=64)] = 4
    rated_l_per_h: Flow = Field(default=25, description="One injector, held open [L/h]")
    rated_kpa: Annotated[float, Field(gt=0, le=2000)] = Field(
        default=300, description="Pressure across it, there [kPa]"
    )
    duty_limit: Annotated[float, Field(gt=0, le=1)] = Field(default=0.85, description="Longest it may be held open")
    bore_mm: Bore = Field(default=11, description="Bore of the rail [mm]")


class UserDoes(Part):
    """A carburettor, a diesel's injection pump, a burner, a delivery nozzle: it draws fuel between two pressures."""

    kind: Literal["carburettor", "injection pump", "delivery nozzle", "burner"] = "carburettor"
    case: Id | None = Field(default=None, description="Demand case it is drawn by; empty: each mode's own")
    share: Annotated[float, Field(gt=0, le=1)] = 1
    least_kpa: Kpa = Field(default=10, description="Least pressure before it [kPa]")
    most_kpa: Kpa = Field(default=45, description="Most pressure that its needle or its seals bear [kPa]")
    return_bore_mm: Bore = Field(default=3, description="Bore of the way back inside it, where it has one [mm]")


class RisePoint(Part):
    """One point of a regulator's table."""

    l_per_h: Flow = Field(description="Flow through it [L/h]")
    kpa: Pressure = Field(description="Pressure over what it is set to, there [kPa]")


class RegulatorDoes(Part):
    """A pressure regulator: what is too much goes back (bypass), or is not let by (dead-head)."""

    kind: Literal["regulator"] = "regulator"
    way: Literal["bypass", "dead-head"] = "bypass"
    set_kpa: Pressure = Field(default=300, description="Set pressure, over its reference [kPa]")
    is_referenced: bool = Field(default=False, description="Its set pressure follows the manifold's, by a hose")
    rises: Annotated[tuple[RisePoint, ...], Field(max_length=30, strict=False)] = Field(
        default=(), description="What the pressure rises by with the flow; empty: nothing within its wide-open loss"
    )
    wide_open: Loss = Field(default=0.0008, description="Loss wide open, with the flow's square [kPa per (L/h)²]")
    fineness_um: Micron | None = Field(default=None, description="Of a filter in the same housing [µm]; empty: none")
    filter_linear: Loss = Field(default=0.0, description="That filter's loss, clean [kPa per L/h]")

    @model_validator(mode="after")
    def _rises_rise(self) -> "RegulatorDoes":
        for place, (a, b) in enumerate(pairwise(self.rises), start=1):
            if b.l_per_h <= a.l_per_h or b.kpa < a.kpa:
                refuse(
                    f"row {place + 1} of the regulator's table: flow must rise and pressure must not fall",
                    field=f"rises.{place}",
                    value=f"{b.l_per_h:g} L/h, {b.kpa:g} kPa",
                    limit=f"above {a.l_per_h:g} L/h, {a.kpa:g} kPa or more",
                )
        return self


class JetDoes(Part):
    """A jet pump: a driving flow through its nozzle moves fuel from one place to another."""

    kind: Literal["jet pump"] = "jet pump"
    ratio: Annotated[float, Field(gt=0, le=20)] = Field(default=1.0, description="Moved over driving flow")
    least_kpa: Kpa = Field(default=20, description="Pressure across the nozzle below which it moves nothing [kPa]")
    nozzle_square: Annotated[float, Field(gt=0, le=1000)] = Field(
        default=0.002, description="Loss of the nozzle with the flow's square [kPa per (L/h)²]"
    )


class SurgeTankDoes(Part):
    """A small tank that is kept full and overflows back to the main one."""

    kind: Literal["surge tank"] = "surge tank"
    volume_l: Annotated[float, Field(gt=0, le=200)] = Field(default=1.5, description="Volume [L]")
    inlet_is_tangential: bool = Field(default=True, description="Lift and return come in along its wall, near the top")
    outlet_is_lowest: bool = Field(default=True, description="Fuel leaves at its lowest point")
    overflow_is_highest: bool = Field(default=True, description="The overflow leaves at its highest point")
    in_box: bool = Field(default=False, description="Stands in a metal box of its own, where people are near")


class OtherTankDoes(Part):
    """Another tank than the one designed here, open to the air."""

    kind: Literal["other tank"] = "other tank"
    level_mm: Gap = Field(default=100, description="Fuel over its outlet, when nearly empty [mm]")


class VentDoes(Part):
    """What stands in the way of the air: canister, vapour valve, roll-over valve, or the open end."""

    kind: Literal["canister", "vapour valve", "roll-over valve", "vent end"] = "roll-over valve"
    bore_mm: Bore = Field(default=8, description="Smallest bore inside [mm]")
    opens_out_kpa: Annotated[float, Field(ge=0, le=50)] = Field(default=0.3, description="Opens outward at [kPa]")
    opens_in_kpa: Annotated[float, Field(ge=0, le=50)] = Field(default=0.3, description="Opens inward at [kPa]")


class CapDoes(Part):
    """A cap or plug: nothing passes."""

    kind: Literal["cap"] = "cap"


Does = Annotated[
    PumpDoes
    | EnginePumpDoes
    | FilterDoes
    | CheckDoes
    | ValveDoes
    | PassageDoes
    | RailDoes
    | UserDoes
    | RegulatorDoes
    | JetDoes
    | SurgeTankDoes
    | OtherTankDoes
    | VentDoes
    | CapDoes,
    Field(discriminator="kind"),
]
THROUGH = ("in", "out")
PORTS_OF: dict[str, tuple[str, ...]] = {
    "tee": ("a", "b", "c"),
    "regulator": ("in", "out", "return", "reference"),
    "rail": ("in", "out", "manifold"),
    "carburettor": ("in", "return"),
    "injection pump": ("in", "return"),
    "delivery nozzle": ("in",),
    "burner": ("in", "return"),
    "jet pump": ("drive", "suction", "out"),
    "surge tank": ("lift", "return", "out", "overflow"),
    "other tank": ("out", "return", "overflow", "vent"),
    "vent end": ("in",),
    "cap": ("in",),
}
"""The names that connections of a kind may have; others have an inlet and an outlet."""


def ports_of(does: Any) -> tuple[str, ...]:
    """Names that a part's connections may have.

    Parameters
    ----------
    does : Does
        What the part does.

    Returns
    -------
    tuple of str
        In the order in which they are shown.
    """
    return PORTS_OF.get(does.kind, THROUGH)
