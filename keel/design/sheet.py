"""How the shell is made from sheet: one wrapper and two inset end pans."""

from typing import Literal

from pydantic import Field

from keel.design.base import Gap, Part

SeamPlace = Literal["lid", "side", "floor", "corner butt", "corner open"]


class SheetScheme(Part):
    """Choices for the wrapper's closing seam and the end pans."""

    seam: SeamPlace = Field(default="lid", description="Where the wrapper closes")
    flange_mm: float | None = Field(
        default=None, gt=0, le=500, description="Outside height of the pans' flanges [mm]; empty means the house rule"
    )
    pan_gap_mm: Gap | None = Field(
        default=None, description="Room left between pan and wrapper on each side [mm]; empty means the house rule"
    )
