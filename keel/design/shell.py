"""The shell: the tank's outer sheet-metal body, its kind and its sizes."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Gap, Length, Name, Part, refuse
from keel.design.features import Feature
from keel.reference.metals import MetalName
from keel.reference.plates import Held

WrapAxis = Literal["x", "y"]
LieAxis = Literal["x", "y", "z"]
ProfileKind = Literal["wedge", "step", "saddle", "D", "free"]
PanelName = Annotated[str, Field(max_length=40, pattern=r"^[a-z0-9 ]+$")]
Thickness = Annotated[float, Field(ge=0.3, le=25)]

MOST_CORNERS = 60
MOST_FEATURES = 40


class PanelEdgeHeld(Part):
    """How an edge of a flat panel is held, where that isn't as its joint says."""

    panel: Name = Field(description="The panel, as the list of panels names it")
    beside: Name = Field(description="What it meets at that edge")
    held: Held = Field(description="Whether it can't turn there, or can")


class Body(Part):
    """What every kind of shell has: a place, a metal, thicknesses by panel group, and features.

    The place is that of the local origin: for a box and a cylinder the rear, right, lower corner of
    its bounding box, for a profile the point its corners are measured from.
    """

    x_mm: Coordinate = Field(default=0, description="Rear end of the body [mm]")
    y_mm: Coordinate = Field(default=0, description="Right end of the body [mm]")
    z_mm: Coordinate = Field(default=0, description="Underside of the body [mm]")
    metal: MetalName = "5052-H32"
    thickness_mm: Thickness = Field(default=3.0, description="Sheet thickness of the wrapper [mm]")
    ends_thickness_mm: Thickness | None = Field(
        default=None, description="Sheet thickness of the ends [mm]; empty means the wrapper's"
    )
    features_thickness_mm: Thickness | None = Field(
        default=None, description="Sheet thickness of wells, sumps and reliefs [mm]; empty means the wrapper's"
    )
    features: Annotated[tuple[Feature, ...], Field(max_length=MOST_FEATURES, strict=False)] = ()

    edges: Annotated[tuple[PanelEdgeHeld, ...], Field(max_length=280, strict=False)] = Field(
        default=(), description="Edges of panels that are held otherwise than their joints say"
    )
    swages: Annotated[tuple[PanelName, ...], Field(max_length=70, strict=False)] = Field(
        default=(), description="Panels with a swage or cross-break across their middle"
    )

    @property
    def end_wall_mm(self) -> float:
        """Thickness of the ends [mm]."""
        return self.thickness_mm if self.ends_thickness_mm is None else self.ends_thickness_mm

    @property
    def feature_wall_mm(self) -> float:
        """Thickness of wells, sumps and reliefs [mm]."""
        return self.thickness_mm if self.features_thickness_mm is None else self.features_thickness_mm

    @property
    def fold_mm(self) -> float:
        """Inside radius of what is bent of its sheet [mm]; a rolled shell names none, so that of its thickness."""
        return self.thickness_mm

    @model_validator(mode="after")
    def _feature_ids_differ(self) -> "Body":
        seen: set[str] = set()
        for place, feature in enumerate(self.features):
            if feature.id in seen:
                refuse(
                    f"two features have the id '{feature.id}'",
                    field=f"features.{place}.id",
                    value=feature.id,
                    limit="each id once",
                )
            seen.add(feature.id)
        return self


class BoxShell(Body):
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
    bend_radius_mm: Gap = Field(default=4.5, description="Inside radius of the wrapper's bends [mm]")
    wrap_axis: WrapAxis = Field(default="x", description="The wrapper's bend lines run along this axis")

    @property
    def fold_mm(self) -> float:
        """Inside radius of what is bent of its sheet [mm]."""
        return self.bend_radius_mm

    def walls_mm(self, name: str) -> float:
        """Both walls met along a size of the box [mm]."""
        along = "length_mm" if self.wrap_axis == "x" else "width_mm"
        return 2 * (self.end_wall_mm if name == along else self.thickness_mm)

    @model_validator(mode="after")
    def _walls_leave_room(self) -> "BoxShell":
        outside = self.measured == "outside"
        room = {
            name: getattr(self, name) - (self.walls_mm(name) if outside else 0.0)
            for name in ("length_mm", "width_mm", "height_mm")
        }
        name, inside = min(room.items(), key=lambda item: item[1])
        if inside <= 0:
            size, wall = getattr(self, name), self.walls_mm(name) / 2
            refuse(
                f"a {wall:g} mm wall fills the {name.removesuffix('_mm')}: "
                f"it must be below {size / 2:g} mm, half of {size:g} mm",
                field="thickness_mm",
                value=wall,
                limit=size / 2,
            )
        self._corners_fit(room)
        return self

    def _corners_fit(self, room: dict[str, float]) -> None:
        across = ("height_mm", "width_mm" if self.wrap_axis == "x" else "length_mm")
        name, smallest = min(((name, room[name]) for name in across), key=lambda item: item[1])
        if 2 * self.bend_radius_mm > smallest:
            refuse(
                f"two {self.bend_radius_mm:g} mm bends don't fit in the inside {name.removesuffix('_mm')}: "
                f"the radius may be {smallest / 2:g} mm at most",
                field="bend_radius_mm",
                value=self.bend_radius_mm,
                limit=smallest / 2,
            )


class Corner(Part):
    """A corner of a profile, outside of the metal, and the edge from it to the next corner."""

    across_mm: Coordinate = Field(description="Across the profile: y of one drawn along x, x of one drawn along y [mm]")
    up_mm: Coordinate = Field(description="Height above the body's underside [mm]")
    bow_mm: float = Field(
        default=0, ge=-10_000, le=10_000, description="Rise of the rolled edge to the next corner, outward above 0 [mm]"
    )
    joint: Literal["bend", "weld"] = Field(default="bend", description="Bent round or welded sharp")


class ProfileShell(Body):
    """A closed profile drawn out along x or y, with a flat end plate at each end."""

    kind: Literal["profile"] = "profile"
    shape: ProfileKind = Field(default="free", description="What the profile started as")
    corners: Annotated[tuple[Corner, ...], Field(min_length=2, max_length=MOST_CORNERS, strict=False)] = Field(
        description="Counter-clockwise, across to the right and up"
    )
    run_mm: Length = Field(description="Length of the body along its axis, over the end plates [mm]")
    wrap_axis: WrapAxis = Field(default="y", description="The profile is drawn out along this axis")
    bend_radius_mm: Gap = Field(default=4.5, description="Inside radius of the wrapper's bends [mm]")

    @property
    def fold_mm(self) -> float:
        """Inside radius of what is bent of its sheet [mm]."""
        return self.bend_radius_mm

    @model_validator(mode="after")
    def _ends_leave_room(self) -> "ProfileShell":
        _ends_leave_room(self.run_mm, self.end_wall_mm, "run_mm")
        return self


class CylinderShell(Body):
    """A rolled cylinder, lying or standing, with flat or dished ends."""

    kind: Literal["cylinder"] = "cylinder"
    axis: LieAxis = Field(default="z", description="Standing (z) or lying along x or y")
    diameter_mm: Length = Field(description="Outside diameter [mm]")
    run_mm: Length = Field(description="Length along the axis, over flat ends or between the dishes' rims [mm]")
    dish_mm: Gap = Field(default=0, description="How far each end bulges outward beyond the rim [mm]; 0 is flat")

    @model_validator(mode="after")
    def _walls_leave_room(self) -> "CylinderShell":
        if self.diameter_mm <= 2 * self.thickness_mm:
            refuse(
                f"a {self.thickness_mm:g} mm wall fills the cylinder: it must be below {self.diameter_mm / 2:g} mm",
                field="thickness_mm",
                value=self.thickness_mm,
                limit=self.diameter_mm / 2,
            )
        _ends_leave_room(self.run_mm, self.end_wall_mm, "run_mm")
        if self.dish_mm > self.diameter_mm / 2:
            refuse(
                f"a dish can't bulge further than half the diameter, {self.diameter_mm / 2:g} mm",
                field="dish_mm",
                value=self.dish_mm,
                limit=self.diameter_mm / 2,
            )
        return self


def _ends_leave_room(run_mm: float, wall_mm: float, field: str) -> None:
    if run_mm <= 2 * wall_mm:
        refuse(
            f"two {wall_mm:g} mm ends fill a length of {run_mm:g} mm: it must be above {2 * wall_mm:g} mm",
            field=field,
            value=run_mm,
            limit=2 * wall_mm,
        )


Shell = Annotated[BoxShell | ProfileShell | CylinderShell, Field(discriminator="kind")]
