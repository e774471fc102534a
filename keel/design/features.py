"""Features of a shell: what is let in, let down, cut off, walled off or stood inside.

Places are measured from the rear, right, lower corner of the body's bounding box, so that a
feature moves with its tank. Sizes are those seen from outside; the metal displaces inward.
"""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Gap, Length, Name, Part, refuse

Face = Literal["roof", "floor", "front", "rear", "left", "right"]
FACES: tuple[Face, ...] = ("roof", "floor", "front", "rear", "left", "right")
Id = Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]


class Named(Part):
    """A feature has an id that stays and a name that people use."""

    id: Id
    name: Name


class Sheeted(Named):
    """A feature of sheet that stands inside."""

    thickness_mm: Annotated[float, Field(ge=0.3, le=25)] | None = Field(
        default=None, description="[mm]; empty means that of the features"
    )

    def wall_mm(self, usual: float) -> float:
        """Its own thickness, or else the usual one of the shell's features [mm]."""
        return usual if self.thickness_mm is None else self.thickness_mm


class Tabs(Part):
    """Tabs on a plate's edges through slots in the shell: it finds its place, and is welded from outside too."""

    wide_mm: Length = Field(default=20, description="Along the edge [mm]")
    pitch_mm: Length = Field(default=150, description="From the middle of one to the next, about [mm]")

    @model_validator(mode="after")
    def _stand_apart(self) -> "Tabs":
        if self.pitch_mm < 2 * self.wide_mm:
            refuse(
                f"tabs {self.wide_mm:g} mm wide every {self.pitch_mm:g} mm leave less between slots than they take",
                field="pitch_mm",
                value=self.pitch_mm,
                limit=f"at least {2 * self.wide_mm:g}",
            )
        return self


class Standing(Sheeted):
    """A plate square to x or y."""

    axis: Literal["x", "y"] = Field(default="x", description="The plate stands square to this axis")
    at_mm: Length = Field(description="Rear or right face of the plate [mm]")
    flange_mm: Gap | None = Field(
        default=None, description="Outside height of its flanges [mm]; 0 for a flat plate, empty means the house rule"
    )

    tabs: Tabs | None = Field(default=None, description="Instead of flanges tabs that go through the shell")

    def flange(self, usual: float) -> float:
        """Outside height of its flanges [mm]: its own, or else the usual one; 0 for a flat plate."""
        return 0.0 if self.tabs else usual if self.flange_mm is None else self.flange_mm

    def middle_mm(self, usual: float) -> float:
        """Where the middle of its sheet stands [mm]; sheet as thick as usual where it names none."""
        return self.at_mm + self.wall_mm(usual) / 2


class Sided(Named):
    """A feature that is let in, let down or cut off: its own sheet closes the shell again."""

    folded: bool = Field(
        default=False, description="Flat sides are bent up from one sheet where they meet its base, not welded on"
    )


class Well(Sided):
    """A recess let into a face, with straight or sloped sides, or round.

    On roof and floor `a` is x and `b` is y; on front and rear `a` is y and `b` is z; on left and
    right `a` is x and `b` is z.
    """

    kind: Literal["well"] = "well"
    face: Face = "roof"
    form: Literal["box", "round"] = "box"
    a_mm: Coordinate = Field(description="Low edge of the mouth along the face's first axis [mm]")
    b_mm: Coordinate = Field(description="Low edge of the mouth along the face's second axis [mm]")
    long_mm: Length = Field(description="Mouth along the first axis; the diameter of a round one [mm]")
    wide_mm: Length = Field(description="Mouth along the second axis; not used by a round one [mm]")
    deep_mm: Length = Field(description="Depth below the outermost plane of that face [mm]")
    slope_mm: Gap = Field(default=0, description="How far each side leans in by the bottom [mm]")
    drain: bool = Field(default=False, description="A tube leads rain out of it")


class Sump(Sided):
    """A small volume let down below the floor and open to the tank."""

    kind: Literal["sump"] = "sump"
    form: Literal["box", "round"] = "box"
    a_mm: Coordinate = Field(description="Rear edge [mm]")
    b_mm: Coordinate = Field(description="Right edge [mm]")
    long_mm: Length = Field(description="Along x at the floor; the diameter of a round one [mm]")
    wide_mm: Length = Field(description="Along y at the floor; not used by a round one [mm]")
    deep_mm: Length = Field(description="How far it hangs below the body's underside [mm]")
    slope_mm: Gap = Field(default=0, description="How far each side leans in by the bottom [mm]")


class Relief(Sided):
    """A box or cylinder cut away to clear something that passes by."""

    kind: Literal["relief"] = "relief"
    form: Literal["box", "x", "y", "z"] = Field(default="box", description="A box, or a cylinder along that axis")
    x_mm: Coordinate
    y_mm: Coordinate
    z_mm: Coordinate
    length_mm: Length = Field(description="Along x [mm]")
    width_mm: Length = Field(description="Along y [mm]")
    height_mm: Length = Field(description="Along z [mm]; a cylinder fills the box across its axis as a circle")


class RoofStep(Sided):
    """The roof lowered over the whole width, from one side inward."""

    kind: Literal["roof step"] = "roof step"
    side: Literal["front", "rear", "left", "right"] = "front"
    reach_mm: Length = Field(description="How far it goes in from that side [mm]")
    drop_mm: Length = Field(description="How far the roof is lowered [mm]")


class Partition(Standing):
    """A plate without openings, square to x or y: it makes cells."""

    kind: Literal["partition"] = "partition"


class Notch(Part):
    """A notch in a baffle's foot: it drains, and lets a brush through."""

    at_mm: Coordinate = Field(description="Its middle, along the plate from its rear or right end [mm]")
    wide_mm: Length
    high_mm: Length = Field(description="Above the inner floor [mm]")


class Holes(Part):
    """A row of round holes in a baffle."""

    at_mm: Coordinate = Field(description="Middle of the first, along the plate from its rear or right end [mm]")
    up_mm: Coordinate = Field(description="Middles above the tank's underside [mm]")
    diameter_mm: Length
    count: Annotated[int, Field(ge=1, le=60)] = 1
    pitch_mm: Length = 100


class Door(Part):
    """A flap over an opening in a baffle: fuel passes one way only."""

    at_mm: Coordinate = Field(description="Its middle, along the plate from its rear or right end [mm]")
    up_mm: Gap = Field(default=6, description="Its lower edge above the inner floor [mm]")
    wide_mm: Length
    high_mm: Length
    opens: Literal["ahead", "back"] = Field(default="ahead", description="Towards the front or left, or the other way")
    crack_mm: Gap = Field(default=5, description="Head of fuel that opens it [mm]")


class Baffle(Standing):
    """A plate with openings, square to x or y and welded all round what is left of its edge: it slows the fuel."""

    kind: Literal["baffle"] = "baffle"
    corner_mm: Gap = Field(default=40, description="Legs of its cut-off corners [mm]")
    top_gap_mm: Gap = Field(default=0, description="Room over it, under the roof [mm]")
    hem_mm: Gap = Field(default=0, description="Depth of a hem along its upper edge, where that is free [mm]; 0: none")
    notches: Annotated[tuple[Notch, ...], Field(max_length=12, strict=False)] = ()
    holes: Annotated[tuple[Holes, ...], Field(max_length=12, strict=False)] = ()
    doors: Annotated[tuple[Door, ...], Field(max_length=12, strict=False)] = ()


class PotDoor(Part):
    """An opening in the middle of one of a pot's sides; with a flap, fuel passes inward only."""

    side: Literal["front", "rear", "left", "right"] = "rear"
    up_mm: Gap = Field(default=0, description="Its lower edge above the inner floor [mm]")
    wide_mm: Length
    high_mm: Length
    flap: bool = True
    crack_mm: Gap = Field(default=5, description="Head of fuel that opens the flap [mm]")


class Pot(Sheeted):
    """A box or a tube that stands on the floor, open above: it keeps fuel round a pickup."""

    kind: Literal["pot"] = "pot"
    form: Literal["box", "round"] = "box"
    a_mm: Coordinate = Field(description="Rear edge [mm]")
    b_mm: Coordinate = Field(description="Right edge [mm]")
    long_mm: Length = Field(description="Along x, outside; the diameter of a round one [mm]")
    wide_mm: Length = Field(description="Along y, outside; not used by a round one [mm]")
    high_mm: Length = Field(description="Its rim above the inner floor [mm]")
    hem_mm: Gap = Field(default=0, description="Depth of a hem round the rim of a box, outward [mm]; 0: none")
    doors: Annotated[tuple[PotDoor, ...], Field(max_length=8, strict=False)] = ()


Feature = Annotated[Well | Sump | Relief | RoofStep | Partition | Baffle | Pot, Field(discriminator="kind")]
