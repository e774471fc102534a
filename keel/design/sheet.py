"""How the shell is made from sheet: which parts, where they are closed."""

from typing import Annotated, Literal

from pydantic import Field

from keel.design.base import PLAIN, Coordinate, Gap, Name, Part
from keel.design.features import Id

SeamPlace = Literal["lid", "side", "floor", "corner butt", "corner open"]
BoxScheme = Literal["wrapper and pans", "wrapper and flat ends", "two U's", "tray and lid", "flat plates"]
"""What a box is made of; profiles and cylinders have a wrapper or a roll and ends."""


BUILT_PATH = (
    r"^(shell\.[a-z_]+_mm|shell\.corners\.\d{1,3}\.(across_mm|up_mm)"
    r"|(features|ports)\.[a-z0-9-]{1,40}\.(seat\.)?[a-z_]+_mm)$"
)
PartName = Annotated[str, Field(max_length=80, pattern=PLAIN)]


class PartQuestion(Part):
    """What somebody else is asked about a part that this shop can't make, and what came back."""

    id: Id
    part: PartName = Field(description="Name of the flat part")
    to: Annotated[str, Field(max_length=120, pattern=PLAIN)] = Field(default="", description="Who is asked")
    asked: Annotated[str, Field(max_length=600, pattern=PLAIN)] = ""
    answer: Annotated[str, Field(max_length=2000, pattern=PLAIN)] = Field(default="", description="As it came back")
    can: bool | None = Field(default=None, description="Whether they can make it; empty until they said so")


class AsBuilt(Part):
    """A size that came out otherwise than it was planned; the design has it as it was built."""

    id: Id
    of: Annotated[str, Field(max_length=60, pattern=BUILT_PATH)] = Field(
        description="Which size: a field of the shell, a profile's corner, a feature's or a port's by its id"
    )
    name: Name = Field(description="What people call it")
    planned_mm: Coordinate = Field(description="As it was to be [mm]")
    note: Annotated[str, Field(max_length=400, pattern=PLAIN)] = ""


class SheetScheme(Part):
    """Choices for a box's parts, the wrapper's closing seam and the end pans."""

    scheme: BoxScheme = Field(default="wrapper and pans", description="Which parts a box is made of")
    seam: SeamPlace = Field(default="lid", description="Where the wrapper closes")
    seam_share: float = Field(
        default=0.5,
        ge=0.02,
        le=0.98,
        description="How far along that face it closes: from its rear or right edge, up a side from the floor",
    )
    flange_mm: float | None = Field(
        default=None, gt=0, le=500, description="Outside height of the pans' flanges [mm]; empty means the house rule"
    )
    pan_gap_mm: Gap | None = Field(
        default=None, description="Room left between pan and wrapper on each side [mm]; empty means the house rule"
    )

    sent_out: Annotated[tuple[PartName, ...], Field(max_length=60, strict=False)] = Field(
        default=(), description="Names of flat parts that somebody else bends: this shop's brakes don't count for them"
    )
    cut: Annotated[tuple[PartName, ...], Field(max_length=100, strict=False)] = Field(
        default=(), description="Names of flat parts that are cut already"
    )
    as_built: Annotated[tuple[AsBuilt, ...], Field(max_length=60, strict=False)] = Field(
        default=(), description="Sizes that came out otherwise than planned"
    )
    questions: Annotated[tuple[PartQuestion, ...], Field(max_length=20, strict=False)] = Field(
        default=(), description="What others were asked about parts that this shop can't make"
    )

    @property
    def making(self) -> str:
        """How a box is put together, in one word: the wrapper's seam where it has pans, or what is made otherwise."""
        if self.scheme == "wrapper and pans":
            return self.seam
        return f"{self.seam}, flat ends" if self.scheme == "wrapper and flat ends" else self.scheme
