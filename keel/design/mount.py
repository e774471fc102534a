"""How the tank is held in the vehicle: straps, feet, stops, what they are bolted to, and the loads they must bear."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import PLAIN, Coordinate, Gap, Length, Name, Part, refuse
from keel.design.bay import Side
from keel.design.features import Id
from keel.design.vehicle import VehicleCorner
from keel.reference.fasteners import BoltGrade, BoltSize
from keel.reference.metals import MetalName

Use = Literal["road", "competition", "rule card"]
Locking = Literal[
    "self-locking nut", "thread locking compound", "lock wire", "tab washer", "castle nut and pin", "none"
]
Found = Literal["frame rail", "tube", "bracket on the frame", "bulkhead", "body sheet"]
BoltState = Literal["new", "reused, sound", "reused, worn"]
Wall = Annotated[float, Field(gt=0, le=50)]
G = Annotated[float, Field(ge=0, le=100)]
MOST_STRAPS, MOST_FEET, MOST_STOPS = 8, 40, 12


class MountLoads(Part):
    """How many times its own weight pulls at a full tank, by direction [g]."""

    forward_g: G = Field(default=8, description="Forward, as in a crash [g]")
    rearward_g: G = Field(default=8, description="Rearward [g]")
    sideways_g: G = Field(default=5, description="To either side [g]")
    up_g: G = Field(default=5, description="Upward [g]")
    down_g: G = Field(default=5, description="Downward [g]")


class SpreadingPlate(Part):
    """A plate behind thin sheet that spreads a bolt's pull."""

    long_mm: Length
    wide_mm: Length
    thickness_mm: Wall
    metal: MetalName = "mild steel"


class Bolting(Part):
    """The bolts of one place, all alike."""

    size: BoltSize = "M8"
    grade: BoltGrade = "8.8"
    count: Annotated[int, Field(ge=1, le=12)] = Field(default=1, description="Bolts at this place")
    locking: Locking = Field(default="self-locking nut", description="What keeps it from coming loose")
    captive: bool = Field(default=False, description="Its nut is fixed to the structure: no second spanner")
    state: BoltState = Field(default="new", description="New, or used before")
    washer_mm: Length | None = Field(default=None, description="Washer, outside diameter [mm]; empty: the usual one")


class Structure(Part):
    """What of the vehicle a bolt goes through."""

    found: Found = Field(default="frame rail", description="What it is")
    metal: MetalName = "mild steel"
    thickness_mm: Wall = Field(default=3.0, description="Metal under the bolt's head or nut [mm]")
    edge_mm: Length = Field(default=25, description="Middle of the hole to the nearest edge [mm]")
    plate: SpreadingPlate | None = Field(default=None, description="Spreading plate; empty: none")
    from_both_sides: bool = Field(default=True, description="A second spanner reaches the other side")


class Bolted(Part):
    """What every bolted place has."""

    bolts: Bolting = Bolting()
    structure: Structure = Structure()
    match_made: bool = Field(
        default=False, description="Marked, drilled or tacked with the tank in place, finished with it out"
    )


class Anchor(Bolted):
    """Where one end of a strap is bolted, in the strap's plane."""

    out_mm: Coordinate = Field(description="Along the strap: y of one that passes across, x of one lengthwise [mm]")
    z_mm: Coordinate = Field(description="Height of the bolt [mm]")


class Strap(Part):
    """A band of metal that is pulled over or under the tank from one anchor to the other."""

    id: Id
    name: Name
    passes: Literal["over", "under"] = Field(default="over", description="Over the tank, or under one that hangs")
    across: Literal["x", "y"] = Field(default="y", description="From right to left (y) or from rear to front (x)")
    at_mm: Coordinate = Field(description="Station: x of one that passes across, y of one lengthwise [mm]")
    low: Anchor = Field(description="Right or rear end")
    high: Anchor = Field(description="Left or front end")
    width_mm: Length = Field(default=30, description="Width [mm]")
    thickness_mm: Wall = Field(default=1.5, description="Thickness [mm]")
    metal: MetalName = "stainless 304L"
    pad_mm: Gap = Field(default=5, description="Pad between strap and tank [mm]")
    loop_mm: Gap = Field(default=55, description="Turned back at each end for its bolt [mm]")
    take_up_mm: Gap = Field(default=25, description="Length in hand for tightening [mm]")
    existing_mm: Length | None = Field(
        default=None, description="A strap that is there already, its whole length [mm]; empty: a new one"
    )

    @model_validator(mode="after")
    def _ends_differ(self) -> "Strap":
        if self.high.out_mm <= self.low.out_mm:
            ends = ("right", "left") if self.across == "y" else ("rear", "front")
            refuse(
                f"the {ends[1]} anchor of {self.name} stands at {self.high.out_mm:g} mm, not beyond the {ends[0]} one "
                f"at {self.low.out_mm:g} mm",
                field="high.out_mm",
                value=self.high.out_mm,
                limit=f"above {self.low.out_mm:g}",
            )
        return self


class Foot(Bolted):
    """A place where the tank, its cradle or its box is bolted down: a foot, a tab, a hole in a flange."""

    id: Id
    name: Name
    x_mm: Coordinate = Field(description="The bolt [mm]")
    y_mm: Coordinate = Field(description="The bolt [mm]")
    z_mm: Coordinate = Field(description="The bolt, where the foot sits on the structure [mm]")
    axis: Literal["x", "y", "z"] = Field(default="z", description="Direction of the bolt")
    structure_at: Literal["low side", "high side"] | None = Field(
        default=None,
        description="Side of the foot that its structure lies on, along the bolt; empty: below, or away from the tank",
    )
    foot_mm: Wall = Field(default=5, description="Thickness of foot, tab or flange [mm]")
    weld_mm: Gap = Field(default=0, description="Length of its weld to the tank [mm]; 0: it isn't welded to it")


class Stop(Bolted):
    """A block or lip on the vehicle that one side of the tank pushes against."""

    id: Id
    name: Name
    side: Side = Field(default="front", description="Which side of the tank it stands at")
    x_mm: Coordinate = Field(description="Middle of its face [mm]")
    y_mm: Coordinate = Field(description="Middle of its face [mm]")
    z_mm: Coordinate = Field(description="Middle of its face [mm]")
    pad_mm: Gap = Field(default=5, description="Pad between it and the tank [mm]")
    arm_mm: Gap = Field(default=25, description="Middle of its face above what it is bolted to [mm]")
    base_mm: Length = Field(default=50, description="Its bolts to the edge it would tip over, away from the tank [mm]")
    wide_mm: Length = Field(default=60, description="How wide its face is [mm]")


class Bearer(Bolted):
    """A tube or bar of a cradle under the tank, or of a cage over it; bolted at both its ends alike."""

    id: Id
    name: Name
    stands: Literal["under", "over"] = Field(default="under", description="Under the tank, or over it as a cage's")
    along: Literal["x", "y"] = Field(default="y", description="The axis that it lies along")
    at_mm: Coordinate = Field(description="Its middle along the other axis [mm]")
    low_mm: Coordinate = Field(description="Where its low end is supported [mm]")
    high_mm: Coordinate = Field(description="Where its high end is supported [mm]")
    shape: Literal["round tube", "square tube", "flat bar"] = "square tube"
    outer_mm: Length = Field(default=25, description="Outside of the tube, or height of the bar [mm]")
    wall_mm: Wall = Field(default=2, description="Wall of the tube, or width of the bar [mm]")
    metal: MetalName = "mild steel"

    @model_validator(mode="after")
    def _can_be(self) -> "Bearer":
        if self.high_mm <= self.low_mm:
            refuse(
                f"{self.name} ends at {self.high_mm:g} mm, not beyond its start at {self.low_mm:g} mm",
                field="high_mm",
                value=self.high_mm,
                limit=f"above {self.low_mm:g}",
            )
        if self.shape != "flat bar" and 2 * self.wall_mm > self.outer_mm:
            refuse(
                f"a {self.wall_mm:g} mm wall is more than half of {self.outer_mm:g} mm",
                field="wall_mm",
                value=self.wall_mm,
                limit=f"at most {self.outer_mm / 2:g}",
            )
        return self


class Bracket(Part):
    """Something that is bracketed to the tank: a pump, a filter, a battery tray."""

    id: Id
    name: Name
    side: Side = Field(default="front", description="Which side of the tank it is on")
    kg: Annotated[float, Field(gt=0, le=500)] = Field(default=1.0, description="Mass that it carries [kg]")
    off_mm: Gap = Field(default=50, description="Its middle off the tank's side [mm]")
    foot_mm: Length = Field(default=80, description="Foot of the bracket on the tank, along the pull [mm]")


class NewWork(Part):
    """A hole, a bend or a flattened edge that is made in a finished tank."""

    id: Id
    name: Name
    kind: Literal["hole", "bend", "flattened edge"] = "hole"
    x_mm: Coordinate = Field(description="Its middle [mm]")
    y_mm: Coordinate = Field(description="Its middle [mm]")
    z_mm: Coordinate = Field(description="Its middle [mm]")
    across_mm: Length = Field(default=8, description="How large it is across [mm]")


class FillerRoute(Part):
    """The opening in the body that the tank is filled through, and the port that it leads to."""

    port: Id
    x_mm: Coordinate = Field(description="Middle of the opening [mm]")
    y_mm: Coordinate = Field(description="Middle of the opening [mm]")
    z_mm: Coordinate = Field(description="Middle of the opening [mm]")
    side: Side = Field(default="left", description="To which side it faces")
    up_deg: Annotated[float, Field(ge=-45, le=90)] = Field(default=30, description="How far it faces up [°]")
    stub_mm: Gap = Field(default=60, description="Pipe behind the opening [mm]")
    overlap_mm: Gap = Field(default=35, description="Hose pushed over each pipe [mm]")


OldMeasureName = Literal[
    "opening from the bay's rear",
    "opening from the bay's right",
    "opening over the bay's floor",
    "pipe behind the opening",
    "outside of that pipe",
    "old fill hose, cut length",
    "old vent hose, cut length",
    "old tank's lid over the bay's floor",
    "old tank to the body, at the narrowest",
]


class OldMeasure(Part):
    """A measurement taken while the old tank was in."""

    name: OldMeasureName
    value_mm: Coordinate


class StructureCut(Part):
    """Something of the vehicle's structure that is cut or bent away for the tank."""

    id: Id
    name: Name
    reinforcement: Annotated[str, Field(max_length=200, pattern=PLAIN)] = Field(
        default="", description="What takes over what it carried"
    )


class Mount(Part):
    """What holds the tank."""

    vehicle: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")] | None = Field(
        default=None, description="Which of the workshop's vehicles it is for"
    )
    corner: VehicleCorner = Field(
        default=VehicleCorner(), description="The bay's rear, right, lower corner in the vehicle's axes"
    )
    use: Use = Field(default="road", description="Which loads count")
    loads: MountLoads | None = Field(default=None, description="Typed from the rule card; empty: the house rule's")
    coating_mm: Annotated[float, Field(ge=0, le=3)] = Field(
        default=0.1, description="Paint or powder on tank and mounts, its thickness on each side [mm]"
    )
    straps: Annotated[list[Strap], Field(max_length=MOST_STRAPS)] = []
    feet: Annotated[list[Foot], Field(max_length=MOST_FEET)] = []
    stops: Annotated[list[Stop], Field(max_length=MOST_STOPS)] = []

    extra_kg: Annotated[float, Field(ge=0, le=2000)] = Field(
        default=0, description="Fittings, pump module, guard: what the tank weighs beyond its metal and fuel [kg]"
    )
    bearers: Annotated[list[Bearer], Field(max_length=MOST_STRAPS)] = []
    filler: FillerRoute | None = Field(default=None, description="Empty: the tank is filled at its own cap")
    old_tank: Literal["none", "in its place", "out"] = Field(
        default="none", description="Whether the old tank, whose place it takes, is still in"
    )
    old_measures: Annotated[tuple[OldMeasure, ...], Field(max_length=20, strict=False)] = Field(
        default=(), description="What can only be measured while it is in"
    )
    stood_on_kg: Annotated[float, Field(gt=0, le=500)] | None = Field(
        default=None, description="Somebody leans, sits or stands on the tank [kg]; empty: nobody does"
    )
    brackets: Annotated[list[Bracket], Field(max_length=MOST_STOPS)] = []
    new_work: Annotated[list[NewWork], Field(max_length=MOST_FEET)] = []
    cuts: Annotated[list[StructureCut], Field(max_length=MOST_STOPS)] = []

    def bolted(self) -> list[Bolted]:
        """Every place that is bolted to the vehicle: both ends of each strap and of each bearer, feet, stops."""
        ends: list[Bolted] = [end for strap in self.straps for end in (strap.low, strap.high)]
        return [*ends, *self.feet, *self.stops, *self.bearers, *self.bearers]

    @model_validator(mode="after")
    def _ids_differ(self) -> "Mount":
        seen: set[str] = set()
        for kind in ("straps", "feet", "stops", "bearers", "brackets", "new_work", "cuts"):
            for place, held in enumerate(getattr(self, kind)):
                if held.id in seen:
                    refuse(
                        f"two mounts have the id '{held.id}'",
                        field=f"{kind}.{place}.id",
                        value=held.id,
                        limit="each id once",
                    )
                seen.add(held.id)
        return self

    @model_validator(mode="after")
    def _rule_card_has_loads(self) -> "Mount":
        if self.use == "rule card" and self.loads is None:
            refuse("the rule card's loads aren't typed", field="loads", value=None, limit="g by direction")
        return self
