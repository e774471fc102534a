"""Where fuel is drawn, air gets out and fuel comes in, and what stands up over the shell there."""

from typing import Annotated, Literal

from pydantic import Field

from keel.design.base import Coordinate, Gap, Name, Part

PortRole = Literal["pickup", "vent", "filler", "fitting"]
MOST_PORTS = 40


class Port(Part):
    """One opening. Its place is measured from the body's rear, right, lower corner."""

    id: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
    name: Name
    role: PortRole = "fitting"
    x_mm: Coordinate = Field(description="From the rear [mm]")
    y_mm: Coordinate = Field(description="From the right [mm]")
    z_mm: Coordinate | None = Field(
        default=None,
        description="Height of the opening itself: the pickup's inlet, the vent's inner end [mm]; empty means 5 mm "
        "off the floor there for a pickup, flush under the lid there for the others",
    )
    stands_mm: Gap = Field(default=0, description="Height of what stands on the lid there: valve, neck, hose bend [mm]")
    across_mm: Gap = Field(default=60, description="Width of what stands there, all round [mm]")
