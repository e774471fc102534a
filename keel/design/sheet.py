"""How the shell is made from sheet: which parts, where they are closed."""

from typing import Literal

from pydantic import Field

from keel.design.base import Gap, Part

SeamPlace = Literal["lid", "side", "floor", "corner butt", "corner open"]
BoxScheme = Literal["wrapper and pans", "wrapper and flat ends", "two U's", "tray and lid", "flat plates"]
"""What a box is made of; profiles and cylinders have a wrapper or a roll and ends."""


class SheetScheme(Part):
    """Choices for a box's parts, the wrapper's closing seam and the end pans."""

    scheme: BoxScheme = Field(default="wrapper and pans", description="Which parts a box is made of")
    seam: SeamPlace = Field(default="lid", description="Where the wrapper closes")
    flange_mm: float | None = Field(
        default=None, gt=0, le=500, description="Outside height of the pans' flanges [mm]; empty means the house rule"
    )
    pan_gap_mm: Gap | None = Field(
        default=None, description="Room left between pan and wrapper on each side [mm]; empty means the house rule"
    )

    @property
    def making(self) -> str:
        """How a box is put together, in one word: the wrapper's seam where it has pans, or what is made otherwise."""
        if self.scheme == "wrapper and pans":
            return self.seam
        return f"{self.seam}, flat ends" if self.scheme == "wrapper and flat ends" else self.scheme
