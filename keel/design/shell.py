"""The shell: the tank's outer sheet-metal body."""

from typing import Literal

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Gap, Length, Part, refuse
from keel.reference.metals import MetalName

WrapAxis = Literal["x", "y"]


class BoxShell(Part):
    """A box: one wrapper bent round it, an end plate at each end of the wrapper.

    Sizes go over the plates. Where inset end pans leave the wrapper standing out as a lip,
    the lip is beyond `length_mm` (or `width_mm` when wrapped along y); see `keel.solid.box`.
    """

    kind: Literal["box"] = "box"
    measured: Literal["outside", "inside"] = Field(
        default="outside", description="Whether the sizes go over the metal or between it"
    )
    length_mm: Length = Field(description="Size along x [mm]")
    width_mm: Length = Field(description="Size along y [mm]")
    height_mm: Length = Field(description="Size along z [mm]")
    x_mm: Coordinate = Field(default=0, description="Outside of the rear plate [mm]")
    y_mm: Coordinate = Field(default=0, description="Outside of the right plate [mm]")
    z_mm: Coordinate = Field(default=0, description="Underside of the floor [mm]")
    metal: MetalName = "5052-H32"
    thickness_mm: float = Field(default=3.0, ge=0.3, le=25, description="Sheet thickness [mm]")
    bend_radius_mm: Gap = Field(default=4.5, description="Inside radius of the wrapper's bends [mm]")
    wrap_axis: WrapAxis = Field(default="x", description="The wrapper's bend lines run along this axis")

    @model_validator(mode="after")
    def _walls_leave_room(self) -> "BoxShell":
        walls = 2 * self.thickness_mm if self.measured == "outside" else 0.0
        sizes = {name: getattr(self, name) for name in ("length_mm", "width_mm", "height_mm")}
        name, smallest = min(sizes.items(), key=lambda item: item[1])
        if smallest <= walls:
            refuse(
                f"a {self.thickness_mm:g} mm wall fills the {name.removesuffix('_mm')}: "
                f"it must be below {smallest / 2:g} mm, half of {smallest:g} mm",
                field="thickness_mm",
                value=self.thickness_mm,
                limit=smallest / 2,
            )
        self._corners_fit(walls)
        return self

    def _corners_fit(self, walls: float) -> None:
        across = {"height_mm": self.height_mm, "width_mm" if self.wrap_axis == "x" else "length_mm": 0.0}
        for name in across:
            across[name] = getattr(self, name) - walls
        name, smallest = min(across.items(), key=lambda item: item[1])
        if 2 * self.bend_radius_mm > smallest:
            refuse(
                f"two {self.bend_radius_mm:g} mm bends don't fit in the inside {name.removesuffix('_mm')}: "
                f"the radius may be {smallest / 2:g} mm at most",
                field="bend_radius_mm",
                value=self.bend_radius_mm,
                limit=smallest / 2,
            )
