"""A vehicle, measured once and shared by its jobs: wheels, people, structure, panels, what is hot or moves."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Length, Name, Part, refuse
from keel.design.bay import Clearance, Side
from keel.design.features import Id
from keel.reference.metals import MetalName

PartKind = Literal["structure", "hot part", "moving part", "person", "planned part", "scan"]
MOST_PARTS, MOST_PANELS, MOST_GAPS = 60, 30, 20
Load = Annotated[float, Field(ge=0, le=100_000)]
LOADS_AGREE = 0.01
"""Wheel loads and the whole may differ by so much of it."""


class PanelGap(Part):
    """A hole in a panel: where it lies on it, and what closes it."""

    name: Name
    a_mm: Coordinate = Field(description="Low edge along the panel's first axis [mm]")
    b_mm: Coordinate = Field(description="Low edge along its second axis [mm]")
    long_mm: Length = Field(description="Along the first axis [mm]")
    wide_mm: Length = Field(description="Along the second axis [mm]")
    sealed: bool = Field(default=False, description="Closed against fuel and flame")


class VehiclePanel(Part):
    """A bulkhead or a panel, as a plane piece square to an axis. `a`, `b`: the other two axes, in their order."""

    id: Id
    name: Name
    axis: Literal["x", "y", "z"] = Field(default="x", description="The axis it stands square to")
    at_mm: Coordinate = Field(description="Its lower face along that axis [mm]")
    a_mm: Coordinate = Field(description="Low edge along the first of the others [mm]")
    b_mm: Coordinate = Field(description="Low edge along the second [mm]")
    long_mm: Length = Field(description="Along the first [mm]")
    wide_mm: Length = Field(description="Along the second [mm]")
    thickness_mm: Annotated[float, Field(gt=0, le=100)] = 1.0
    metal: MetalName | None = Field(default="mild steel", description="Empty: no metal")
    closes: bool = Field(default=False, description="Fitted after the tank")
    clearance: Clearance = Clearance(kind="cover or body skin")
    gaps: Annotated[list[PanelGap], Field(max_length=MOST_GAPS)] = []


class VehiclePart(Part):
    """A box about something of the vehicle."""

    id: Id
    name: Name
    kind: PartKind = "structure"
    x_mm: Coordinate = Field(description="Rear face [mm]")
    y_mm: Coordinate = Field(description="Right face [mm]")
    z_mm: Coordinate = Field(description="Lower face [mm]")
    length_mm: Length = Field(default=100, description="Size along x [mm]")
    width_mm: Length = Field(default=100, description="Size along y [mm]")
    height_mm: Length = Field(default=100, description="Size along z [mm]")
    travel_x_mm: Coordinate = Field(default=0, description="Moves along x by at most [mm]")
    travel_y_mm: Coordinate = Field(default=0, description="Moves along y by at most [mm]")
    travel_z_mm: Coordinate = Field(default=0, description="Moves along z by at most [mm]")
    shielded: Annotated[tuple[Side, ...], Field(max_length=6, strict=False)] = Field(
        default=(), description="Faces of a hot part that have a shield"
    )
    scan: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")] | None = Field(
        default=None, description="Fingerprint of a kept mesh, for a scan"
    )

    @model_validator(mode="after")
    def _scans_have_a_mesh(self) -> "VehiclePart":
        if self.kind == "scan" and self.scan is None:
            refuse(f"{self.name} is a scan without a file", field="scan", value=None, limit="a scanned mesh")
        return self


class Vehicle(Part):
    """A vehicle in its own axes: x forward, y left, z up, from a datum of its own."""

    id: Annotated[str, Field(max_length=40)] = ""
    name: Name = "Vehicle"
    datum: Name = Field(default="middle of the rear axle, on the ground", description="Where it is measured from")
    rear_axle_mm: Coordinate = Field(default=0, description="Rear axle along x [mm]")
    wheelbase_mm: Length | None = Field(default=None, description="Between the axles [mm]")
    track_front_mm: Length | None = Field(default=None, description="Between the front wheels' middles [mm]")
    track_rear_mm: Length | None = Field(default=None, description="Between the rear wheels' middles [mm]")
    front_left_kg: Load | None = Field(default=None, description="Measured wheel load, without the tank's fuel [kg]")
    front_right_kg: Load | None = Field(default=None, description="Measured wheel load [kg]")
    rear_left_kg: Load | None = Field(default=None, description="Measured wheel load [kg]")
    rear_right_kg: Load | None = Field(default=None, description="Measured wheel load [kg]")
    whole_kg: Load | None = Field(default=None, description="Weighed as a whole [kg]")
    ground_mm: Coordinate | None = Field(default=None, description="Height of the ground [mm]; empty: far away")
    rearmost_mm: Coordinate | None = Field(
        default=None, description="Rearmost structure along x [mm]; empty: no rear zone"
    )
    panels: Annotated[list[VehiclePanel], Field(max_length=MOST_PANELS)] = []
    parts: Annotated[list[VehiclePart], Field(max_length=MOST_PARTS)] = []

    @property
    def wheel_loads_kg(self) -> list[float | None]:
        """Front left, front right, rear left, rear right."""
        return [self.front_left_kg, self.front_right_kg, self.rear_left_kg, self.rear_right_kg]

    @property
    def wheels_kg(self) -> float | None:
        """All four wheel loads together [kg]; empty until each is measured."""
        known = [load for load in self.wheel_loads_kg if load is not None]
        return sum(known) if len(known) == len(self.wheel_loads_kg) else None

    @property
    def loads_agree(self) -> bool:
        """Whether the wheels add up to the whole: they are typed one after the other, so it is said, not refused."""
        if self.wheels_kg is None or self.whole_kg is None:
            return True
        return abs(self.wheels_kg - self.whole_kg) <= LOADS_AGREE * self.whole_kg

    @model_validator(mode="after")
    def _ids_differ(self) -> "Vehicle":
        seen: set[str] = set()
        for kind in ("panels", "parts"):
            for place, one in enumerate(getattr(self, kind)):
                if one.id in seen:
                    refuse(
                        f"two parts of the vehicle have the id '{one.id}'",
                        field=f"{kind}.{place}.id",
                        value=one.id,
                        limit="each id once",
                    )
                seen.add(one.id)
        return self


class VehicleCorner(Part):
    """Where the bay's rear, right, lower corner lies in the vehicle's axes."""

    x_mm: Coordinate = 0
    y_mm: Coordinate = 0
    z_mm: Coordinate = 0
