"""The bay: the measured space, in vehicle axes (x forward, y left, z up)."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Gap, Length, Name, Part, refuse
from keel.reference.clearances import ClearanceClass

Side = Literal["rear", "front", "right", "left", "floor", "roof"]
SIDES: tuple[Side, ...] = ("rear", "front", "right", "left", "floor", "roof")
"""Low and high side of x, then of y, then of z."""

MOST_KEEP_OUTS = 40


class Clearance(Part):
    """How far the tank stays away: by kind of neighbour, or by a typed distance."""

    kind: ClearanceClass = Field(default="hard metal", description="What the neighbour is")
    mm: Gap | None = Field(default=None, description="Typed distance [mm]; empty means the house rule")


class Sides(Part):
    """A clearance for each side of the bay."""

    rear: Clearance = Clearance()
    front: Clearance = Clearance()
    right: Clearance = Clearance()
    left: Clearance = Clearance()
    floor: Clearance = Clearance(kind="pad-mounted face")
    roof: Clearance = Clearance(kind="cover or body skin")


class KeepOut(Part):
    """A box in or near the bay that the tank has to stay clear of."""

    id: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
    name: Name
    x_mm: Coordinate = Field(description="Rear face [mm]")
    y_mm: Coordinate = Field(description="Right face [mm]")
    z_mm: Coordinate = Field(description="Lower face [mm]")
    length_mm: Length = Field(description="Size along x [mm]")
    width_mm: Length = Field(description="Size along y [mm]")
    height_mm: Length = Field(description="Size along z [mm]")
    clearance: Clearance = Clearance()


class Bay(Part):
    """The space the tank must live in. Its rear, right, lower corner is x = y = z = 0."""

    datum: Name = Field(default="rear, right, lower corner", description="Where the measuring starts, in words")
    length_mm: Length = Field(description="Size along x, rear to front [mm]")
    width_mm: Length = Field(description="Size along y, right to left [mm]")
    height_mm: Length = Field(description="Size along z, floor to roof [mm]")
    sides: Sides = Sides()
    keep_outs: Annotated[list[KeepOut], Field(max_length=MOST_KEEP_OUTS)] = []

    @model_validator(mode="after")
    def _ids_differ(self) -> "Bay":
        seen: set[str] = set()
        for place, keep_out in enumerate(self.keep_outs):
            if keep_out.id in seen:
                refuse(
                    f"two keep-outs have the id '{keep_out.id}'",
                    field=f"keep_outs.{place}.id",
                    value=keep_out.id,
                    limit="each id once",
                )
            seen.add(keep_out.id)
        return self
