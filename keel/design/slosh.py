"""What the tank is driven over, and what it is driven with."""

from typing import Annotated, Literal, get_args

from pydantic import Field

from keel.design.base import Part

Kind = Literal[
    "corner to the left", "corner to the right", "braking", "launch", "lane change", "S-bend", "brake and turn", "hill"
]
KINDS: tuple[Kind, ...] = get_args(Kind)
LapName = Literal["Corrie hill climb", "Dry Fork desert stage", "Eelgate harbour in chop"]
LAPS: tuple[LapName, ...] = get_args(LapName)
"""Made-up laps that ship, to try a tank on."""
KeptLap = Annotated[int, Field(ge=1)]
Flow = Annotated[float, Field(ge=0, le=100_000)]


class Manoeuvre(Part):
    """One manoeuvre: how hard, how long, how suddenly."""

    kind: Kind = "corner to the left"
    g: Annotated[float, Field(gt=0, le=4)] = Field(default=0.8, description="How hard [g]; unused on a hill")
    seconds: Annotated[float, Field(gt=0, le=600)] = Field(default=6.0, description="How long it is held [s]")
    ramp_s: Annotated[float, Field(ge=0, le=20)] = Field(default=0.4, description="How long it takes to build up [s]")
    pitch_deg: Annotated[float, Field(ge=-45, le=45)] = Field(default=15.0, description="A hill's slope, nose up [°]")
    again: Annotated[int, Field(ge=1, le=50)] = Field(default=1, description="How many times, one after the other")


class Slosh(Part):
    """A slosh run's setting."""

    over: Literal["manoeuvre", "shipped lap", "kept lap"] = "manoeuvre"
    manoeuvre: Manoeuvre = Manoeuvre()
    lap: LapName = "Corrie hill climb"
    kept_lap: KeptLap | None = Field(default=None, description="Which of the workshop's own laps")
    then_laps: Annotated[tuple[KeptLap, ...], Field(max_length=12, strict=False)] = Field(
        default=(), description="The workshop's own laps that follow it, in order"
    )
    laps: Annotated[int, Field(ge=1, le=60)] = Field(default=1, description="How often the laps are driven")
    fill: Annotated[float, Field(gt=0, le=1)] = Field(default=0.25, description="Share of brimful at the start")
    draw_l_per_h: Flow | None = Field(
        default=None, description="The engine's use at full draw [L/h]; empty means the first demand case's"
    )
    return_l_per_h: Flow = Field(default=0.0, description="Fuel that comes back [L/h]")
    transfer_ratio: Annotated[float, Field(ge=0, le=3)] = Field(
        default=1.0, description="A jet pump's transfer for what drives it; typed, never assumed"
    )
    surge_l: Annotated[float, Field(ge=0, le=1000)] = Field(default=0.0, description="Surge tank [L]; zero for none")
    lift_l_per_h: Flow = Field(default=0.0, description="Lift pump into the surge tank [L/h]")
    lag: bool = Field(default=True, description="The surface lags as the first slosh mode; else it stands at once")
