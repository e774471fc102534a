"""The fuel lines: parts where they are put, the hoses and tubes between them, and the modes that they run in."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Bore, Coordinate, Gap, Length, Name, Part, refuse
from keel.design.connections import Adapter, Connection
from keel.design.features import Id
from keel.design.line_functions import Kpa, ports_of
from keel.design.line_parts import LinePart
from keel.design.old_things import MOST_OLD, OldThing
from keel.design.pumps import Flow, Voltage
from keel.reference.compatibility import HoseName
from keel.reference.fuels import FuelName
from keel.reference.hoses import DASH_BORE_MM
from keel.reference.metals import MetalName

MOST_LINE_PARTS, MOST_RUNS, MOST_MODES, MOST_CORNERS, MOST_PASSES = 60, 80, 16, 24, 6
TANK = "tank"
"""What an end names as its part where it is joined to one of the tank's own ports."""


class RunCorner(Part):
    """Where a run turns, in the axes of the bay."""

    x_mm: Coordinate
    y_mm: Coordinate
    z_mm: Coordinate


class Passing(Part):
    """A hole that a run has through a sheet for itself, with a grommet in it."""

    panel: Annotated[str, Field(min_length=1, max_length=40)] = Field(
        description="Panel of the vehicle, or a thin box of the bay, by its id"
    )
    hole_mm: Length | None = Field(default=None, description="Across the hole [mm]; empty: what it needs")


class RunEnd(Part):
    """What a run is joined to at one end, and by what."""

    part: Id = Field(description="A part of the line, or 'tank'")
    port: Annotated[str, Field(min_length=1, max_length=40)] = Field(
        description="Its connection; of the tank, the id of a port"
    )
    connection: Connection | None = Field(default=None, description="What the run has there; empty: made to fit")
    adapter: Adapter | None = Field(default=None, description="Between the two, where they don't fit")
    takes_mm: Gap | None = Field(
        default=None, description="From the port's face to the hose's end [mm]; empty: usual for its size"
    )
    pushed_mm: Gap | None = Field(
        default=None, description="How far a hose is pushed on a tail or a tube [mm]; empty: as far as it should be"
    )


class LineRun(Part):
    """A hose, a tube, or two parts screwed together."""

    id: Id
    name: Name
    kind: Literal["hose", "tube", "direct"] = "hose"
    start: RunEnd
    end: RunEnd
    bore_mm: Bore = Field(default=DASH_BORE_MM[6], description="Bore [mm]")
    hose: HoseName = Field(default="fluoropolymer-lined hose", description="What a hose is made of")
    metal: MetalName = Field(default="stainless 304L", description="What a tube is made of")
    outside_mm: Length | None = Field(default=None, description="Outside of a tube [mm]; empty: its bore and two walls")
    radius_mm: Length | None = Field(
        default=None, description="Radius of its bends, to its middle [mm]; empty: the bender's, or the hose's least"
    )
    moves_mm: Gap = Field(
        default=0, description="How far its ends move against each other: an engine, a dropped tank [mm]"
    )
    rated_kpa: Kpa | None = Field(default=None, description="Pressure that it may be used at [kPa]")
    approval: Annotated[str, Field(max_length=80)] = Field(default="", description="Approval printed on it")
    corners: Annotated[tuple[RunCorner, ...], Field(max_length=MOST_CORNERS, strict=False)] = ()
    passes: Annotated[tuple[Passing, ...], Field(max_length=MOST_PASSES, strict=False)] = ()
    sleeved: bool = Field(default=False, description="In a sleeve all along that bears rubbing")
    length_mm: Length | None = Field(default=None, description="Along it [mm]; empty: by its corners, and 3 % slack")
    fittings_k: Annotated[float, Field(ge=0, le=200)] | None = Field(
        default=None, description="Sum of K; empty: its ends and its corners"
    )


class RunningMode(Part):
    """One way the vehicle runs: how much it draws, at which voltage, how hot, what stands still."""

    id: Id
    name: Name
    case: Id | None = Field(default=None, description="Demand case; empty: the first")
    draw: Annotated[float, Field(ge=0, le=1)] = Field(default=1, description="Fuel drawn, of full power")
    draw_l_per_h: Flow | None = Field(default=None, description="Typed; counts before the share [L/h]")
    manifold_kpa: Annotated[float, Field(ge=-101, le=500)] = Field(
        default=0, description="Pressure in the manifold, over the air's [kPa]"
    )
    voltage_v: Voltage | None = Field(
        default=None, description="At the battery; without wiring, at the pumps [V]; empty: the case's"
    )
    engine_rpm: Annotated[float, Field(ge=0, le=30_000)] = Field(default=3000, description="Speed of the engine [rpm]")
    fuel: FuelName | None = Field(default=None, description="Fuel in the tank then; empty: its case's, or the brief's")
    fuel_c: Annotated[float, Field(ge=-40, le=90)] = Field(default=20, description="Fuel temperature [°C]")
    altitude_m: Annotated[float, Field(ge=-400, le=6000)] = 0
    failure: bool = Field(default=False, description="Something has failed in it: shown, not asked to suffice")
    still: Annotated[tuple[Id, ...], Field(max_length=MOST_LINE_PARTS, strict=False)] = Field(
        default=(), description="Parts that stand still or are shut: pumps, valves, who draws"
    )


class CellFuel(Part):
    """Which fuel one cell of the tank holds, and what keeps another one out."""

    cell: Name
    fuel: FuelName
    label: Annotated[str, Field(max_length=80)] = Field(default="", description="What its filler is labelled with")
    spout_mm: Bore | None = Field(
        default=None, description="Widest spout that goes in at its filler [mm]; empty: not restricted"
    )


class Lines(Part):
    """The path from pickup to engine and back."""

    parts: Annotated[tuple[LinePart, ...], Field(max_length=MOST_LINE_PARTS, strict=False)] = ()
    runs: Annotated[tuple[LineRun, ...], Field(max_length=MOST_RUNS, strict=False)] = ()
    modes: Annotated[tuple[RunningMode, ...], Field(max_length=MOST_MODES, strict=False)] = Field(
        default=(), description="Empty: idle, cruise, full power, hot, low voltage, each pump dead"
    )
    fuels: Annotated[tuple[CellFuel, ...], Field(max_length=8, strict=False)] = Field(
        default=(), description="Where cells hold other fuels than the brief's"
    )
    level: Annotated[float, Field(ge=0, le=1)] = Field(
        default=0.1, description="Share of the rated capacity at which suction is judged"
    )
    reid_kpa: Annotated[float, Field(gt=0, le=150)] | None = Field(
        default=None, description="Reid vapour pressure of the fuel [kPa]; empty: the most that is usual in summer"
    )
    tank_off_mm: Gap = Field(
        default=0, description="How far the tank is moved out before its hoses are undone [mm]; out of its opening"
    )
    approval: Annotated[str, Field(max_length=80)] = Field(default="", description="Approval asked of every hose")
    old: Annotated[tuple[OldThing, ...], Field(max_length=MOST_OLD, strict=False)] = Field(
        default=(), description="What the old tank had on it, and what becomes of each"
    )

    @model_validator(mode="after")
    def _ids_differ(self) -> "Lines":
        for kind in ("parts", "runs", "modes", "old"):
            seen: set[str] = set()
            for place, one in enumerate(getattr(self, kind)):
                if one.id in seen or (kind == "parts" and one.id == TANK):
                    refuse(
                        f"the id '{one.id}' is taken",
                        field=f"{kind}.{place}.id",
                        value=one.id,
                        limit="each id once",
                    )
                seen.add(one.id)
        return self

    @model_validator(mode="after")
    def _ends_are_there(self) -> "Lines":
        parts, taken = {part.id: part for part in self.parts}, dict[tuple[str, str], tuple[str, str]]()
        for place, run in enumerate(self.runs):
            for side in ("start", "end"):
                end: RunEnd = getattr(run, side)
                field = f"runs.{place}.{side}"
                if end.part != TANK:
                    if end.part not in parts:
                        refuse(
                            f"{run.name} is joined to '{end.part}', which isn't there",
                            field=f"{field}.part",
                            value=end.part,
                            limit=f"one of {', '.join([TANK, *parts])}",
                        )
                    known = ports_of(parts[end.part].does)
                    if end.port not in known:
                        refuse(
                            f"{parts[end.part].name} has no connection '{end.port}'",
                            field=f"{field}.port",
                            value=end.port,
                            limit=f"one of {', '.join(known)}",
                        )
                other = taken.setdefault((end.part, end.port), (run.id, side))
                if other != (run.id, side):
                    refuse(
                        f"{run.name} and {other[0]} are both joined to '{end.port}' of {end.part}",
                        field=f"{field}.port",
                        value=end.port,
                        limit="one run at each connection",
                    )
        return self

    def part(self, name: str) -> LinePart | None:
        """A part by its id; None where there is none."""
        return next((part for part in self.parts if part.id == name), None)
