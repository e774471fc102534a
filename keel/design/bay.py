"""The bay: the measured space, in vehicle axes (x forward, y left, z up)."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Gap, Length, Name, Part, refuse, with_kind
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


class Neighbour(Part):
    """What every keep-out has."""

    id: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
    name: Name
    clearance: Clearance = Clearance()
    planned: bool = Field(default=False, description="Not fitted yet: room is held for it")


class KeepOut(Neighbour):
    """A box in or near the bay that the tank has to stay clear of."""

    kind: Literal["box"] = "box"
    x_mm: Coordinate = Field(description="Rear face [mm]")
    y_mm: Coordinate = Field(description="Right face [mm]")
    z_mm: Coordinate = Field(description="Lower face [mm]")
    length_mm: Length = Field(description="Size along x [mm]")
    width_mm: Length = Field(description="Size along y [mm]")
    height_mm: Length = Field(description="Size along z [mm]")


class RoundKeepOut(Neighbour):
    """A cylinder: a shaft, a pipe, a silencer."""

    kind: Literal["cylinder"] = "cylinder"
    axis: Literal["x", "y", "z"] = "x"
    x_mm: Coordinate = Field(description="Middle of its low end [mm]")
    y_mm: Coordinate = Field(description="Middle of its low end [mm]")
    z_mm: Coordinate = Field(description="Middle of its low end [mm]")
    diameter_mm: Length
    run_mm: Length = Field(description="Length along its axis [mm]")


class SlopeKeepOut(Neighbour):
    """Everything beyond a leaning plane: a lid line, a raked firewall.

    The plane is measured at both ends of the bay along `along`, as a place on the axis of the blocked side.
    """

    kind: Literal["slope"] = "slope"
    blocked: Side = Field(default="roof", description="On which side of the plane nothing may be")
    along: Literal["x", "y", "z"] = Field(default="x", description="The axis along which the plane falls")
    start_mm: Coordinate = Field(description="Where the plane is at the low end of the bay along that axis [mm]")
    end_mm: Coordinate = Field(description="Where it is at the bay's high end [mm]")

    @model_validator(mode="after")
    def _axes_differ(self) -> "SlopeKeepOut":
        if self.along == "xyz"[SIDES.index(self.blocked) // 2]:
            refuse(
                f"a plane that blocks the {self.blocked} can't fall along {self.along}",
                field="along",
                value=self.along,
                limit="another axis than that of the blocked side",
            )
        return self


class ScanKeepOut(Neighbour):
    """A scanned part or cavity: a triangle mesh that is kept beside the design."""

    kind: Literal["scan"] = "scan"
    scan: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")] = Field(description="Fingerprint of the kept mesh")
    is_cavity: bool = Field(default=False, description="The tank goes inside it, instead of staying out of it")
    x_mm: Coordinate = Field(default=0, description="Moved along x by [mm]")
    y_mm: Coordinate = Field(default=0, description="Moved along y by [mm]")
    z_mm: Coordinate = Field(default=0, description="Moved along z by [mm]")


AnyKeepOut = Annotated[KeepOut | RoundKeepOut | SlopeKeepOut | ScanKeepOut, Field(discriminator="kind")]


class Opening(Part):
    """The rectangle in one side of the bay that the tank has to go in through.

    On roof and floor `a` is x and `b` is y; on front and rear y and z; on left and right x and z.
    """

    side: Side = "roof"
    a_mm: Coordinate = Field(description="Low edge along the side's first axis [mm]")
    b_mm: Coordinate = Field(description="Low edge along the side's second axis [mm]")
    long_mm: Length = Field(description="Along the first axis [mm]")
    wide_mm: Length = Field(description="Along the second axis [mm]")


class ProfilePoint(Part):
    """A corner of the bay's profile [mm]."""

    across_mm: Coordinate
    up_mm: Coordinate


class BayProfile(Part):
    """The bay's true outline across one axis, where it isn't a rectangle."""

    axis: Literal["x", "y"] = Field(default="y", description="The outline is the same all along this axis")
    points: Annotated[tuple[ProfilePoint, ...], Field(min_length=3, max_length=60, strict=False)]
    clearance: Clearance = Clearance()


class Bay(Part):
    """The space the tank must live in. Its rear, right, lower corner is x = y = z = 0."""

    datum: Name = Field(default="rear, right, lower corner", description="Where the measuring starts, in words")
    length_mm: Length = Field(description="Size along x, rear to front [mm]")
    width_mm: Length = Field(description="Size along y, right to left [mm]")
    height_mm: Length = Field(description="Size along z, floor to roof [mm]")
    sides: Sides = Sides()
    keep_outs: Annotated[list[AnyKeepOut], Field(max_length=MOST_KEEP_OUTS)] = []
    opening: Opening | None = Field(default=None, description="What the tank goes in through; empty means open")
    profile: BayProfile | None = Field(default=None, description="Empty means a plain box")

    @model_validator(mode="before")
    @classmethod
    def _a_keep_out_is_a_box_unless_it_says(cls, document: Any) -> Any:
        return with_kind(document, "keep_outs")

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
