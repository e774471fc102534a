"""The vehicle about the bay, as the drawing shows it."""

from dataclasses import dataclass

from keel.analysis.parts import MOUNT, VEHICLE
from keel.analysis.study import study
from keel.design.mount import Mount
from keel.design.vehicle import Vehicle
from keel.solid.vehicle import panel_box, swept_box
from keel.studies.result import Point


@dataclass(frozen=True, slots=True)
class ShownHole:
    """A gap of a panel."""

    name: str
    low: Point
    high: Point
    sealed: bool


@dataclass(frozen=True, slots=True)
class ShownPart:
    """A part of the vehicle in the bay's axes [mm]; of a moving one the box round all its travel.

    Attributes
    ----------
    after : bool
        Whether it is fitted after the tank.
    """

    id: str
    name: str
    kind: str
    low: Point
    high: Point
    after: bool
    holes: list[ShownHole]


@dataclass(frozen=True, slots=True)
class VehicleShown:
    """The vehicle that a tank is for."""

    name: str
    parts: list[ShownPart]
    ground_mm: float | None
    rearmost_mm: float | None
    axles_mm: list[float]


def vehicle_shown(vehicle: Vehicle | None, mount: Mount) -> VehicleShown | None:
    """A vehicle's panels and parts where they stand about the bay.

    Parameters
    ----------
    vehicle : Vehicle or None
        None where the design is for none.
    mount : Mount
        Where the bay's corner lies in it.

    Returns
    -------
    VehicleShown or None
        In the bay's axes.
    """
    if vehicle is None:
        return None
    corner = mount.corner
    shift = (corner.x_mm, corner.y_mm, corner.z_mm)
    found: list[ShownPart] = []
    for panel in vehicle.panels:
        low, size = panel_box(panel, shift)
        axis = "xyz".index(panel.axis)
        first, second = [way for way in range(3) if way != axis]
        holes = []
        for gap in panel.gaps:
            start, end = list(low), [a + b for a, b in zip(low, size, strict=True)]
            start[first], end[first] = gap.a_mm - shift[first], gap.a_mm + gap.long_mm - shift[first]
            start[second], end[second] = gap.b_mm - shift[second], gap.b_mm + gap.wide_mm - shift[second]
            holes.append(ShownHole(gap.name, Point.of(start), Point.of(end), gap.sealed))
        high = [a + b for a, b in zip(low, size, strict=True)]
        found.append(ShownPart(panel.id, panel.name, "panel", Point.of(low), Point.of(high), panel.closes, holes))
    for part in vehicle.parts:
        low, size = swept_box(part, shift)
        high = [a + b for a, b in zip(low, size, strict=True)]
        found.append(ShownPart(part.id, part.name, part.kind, Point.of(low), Point.of(high), False, []))
    axles = [vehicle.rear_axle_mm - shift[0]]
    axles += [vehicle.rear_axle_mm + vehicle.wheelbase_mm - shift[0]] if vehicle.wheelbase_mm else []
    return VehicleShown(
        vehicle.name,
        found,
        None if vehicle.ground_mm is None else vehicle.ground_mm - shift[2],
        None if vehicle.rearmost_mm is None else vehicle.rearmost_mm - shift[0],
        axles,
    )


VEHICLE_SHOWN = study(vehicle_shown, VEHICLE, MOUNT)
