"""What of a design is to be shown."""

from typing import Annotated

from pydantic import Field

from keel.design.attitude import Attitude
from keel.design.base import Coordinate, Part


class Showing(Part):
    """What of a design is to be shown: fill, attitude, cuts; none of it belongs to the design."""

    fill_fraction: Annotated[float, Field(ge=0, le=1)] | None = Field(
        default=None, description="Share of brimful; empty means the rated capacity"
    )
    attitude: Attitude = Attitude()
    cut_x_mm: Coordinate | None = Field(default=None, description="Where the end view is cut; empty means the middle")
    cut_y_mm: Coordinate | None = Field(default=None, description="Where the elevation is cut; empty means the middle")
    results: Annotated[tuple[str, ...], Field(max_length=50, strict=False)] | None = Field(
        default=None, description='What is wanted: stations, or single results ("bay.gaps"); empty means everything'
    )
    mark_mm: Annotated[float, Field(gt=0, le=100)] = Field(
        default=1.0, description="Step of the sizes that remedies and the fit offer [mm]: what the reader marks out by"
    )
    remedies: bool = Field(
        default=True, description="Whether studies at rest are run and remedies tried; not in a drag"
    )
