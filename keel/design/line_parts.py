"""Parts of a fuel line: what each is, its connections, and where it is put."""

from typing import Annotated

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Length, Name, Part, refuse
from keel.design.connections import Connection
from keel.design.features import Id
from keel.design.line_functions import Does, Kpa, ports_of
from keel.design.ports import Angle
from keel.reference.compatibility import SealName
from keel.reference.fuels import FuelName
from keel.reference.metals import MetalName

MOST_PORTS_OF_A_PART = 8


class PartConnection(Connection):
    """One of a part's connections."""

    id: Annotated[str, Field(max_length=20)]
    capped: bool = Field(default=False, description="Closed blind")


class LineComponent(Part):
    """What a part of the line is, wherever it is put."""

    does: Does
    connections: Annotated[tuple[PartConnection, ...], Field(max_length=MOST_PORTS_OF_A_PART, strict=False)] = ()
    long_mm: Length = Field(default=120, description="From inlet to outlet [mm]")
    across_mm: Length = Field(default=50, description="Width, all round [mm]")
    rated_kpa: Kpa | None = Field(default=None, description="Pressure that it may be used at [kPa]")
    metal: MetalName | None = Field(default=None, description="Metal that fuel touches")
    seals: Annotated[tuple[SealName, ...], Field(max_length=4, strict=False)] = Field(
        default=(), description="Rubbers that fuel touches inside"
    )
    fuels: Annotated[tuple[FuelName, ...], Field(max_length=7, strict=False)] = Field(
        default=(), description="Fuels that its maker names; empty: not known"
    )
    approval: Annotated[str, Field(max_length=80)] = Field(default="", description="Approval that it carries")
    kg: Annotated[float, Field(gt=0, le=500)] | None = None
    price: Annotated[float, Field(ge=0, le=1e6)] | None = Field(default=None, description="As bought")

    @model_validator(mode="after")
    def _connections_are_its_own(self) -> "LineComponent":
        known, seen = ports_of(self.does), set[str]()
        for place, one in enumerate(self.connections):
            if one.id not in known or one.id in seen:
                wrong = "is there twice" if one.id in seen else f"isn't one that a {self.does.kind} has"
                refuse(
                    f"the connection '{one.id}' {wrong}",
                    field=f"connections.{place}.id",
                    value=one.id,
                    limit=f"each once of {', '.join(known)}",
                )
            seen.add(one.id)
        return self

    def connection(self, name: str) -> PartConnection | None:
        """One of its connections; None where it has none of that name."""
        return next((one for one in self.connections if one.id == name), None)


class LibraryComponent(LineComponent):
    """A part of lines in the workshop's library."""

    name: Name


class LinePart(LineComponent):
    """A part where it is put. Its middle, in the axes of the bay."""

    id: Id
    name: Name
    x_mm: Coordinate
    y_mm: Coordinate
    z_mm: Coordinate
    hangs_in: Id | None = Field(
        default=None, description="Port of the tank that it hangs in: what isn't joined of it is in the fuel"
    )
    heading_deg: Angle = Field(default=0, description="Way from inlet to outlet, from forward to the left [°]")
    upright: bool = Field(default=False, description="Its way from inlet to outlet is upward")
    board: Annotated[str, Field(max_length=80)] = Field(
        default="", description="Removable board that it is mounted on; empty: none"
    )
    part: Annotated[str, Field(max_length=80)] = Field(default="", description="Which part of the shop's library it is")

    @property
    def stands(self) -> bool:
        """Its length is its height."""
        return self.upright or self.does.kind == "surge tank"
