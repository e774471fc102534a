"""A vehicle's parts as keep-outs of the bay that lies in it."""

from collections.abc import Iterator, Mapping

from keel.design.bay import AnyKeepOut, Bay, Clearance, KeepOut, ScanKeepOut, Side
from keel.design.vehicle import Vehicle, VehicleCorner, VehiclePanel, VehiclePart
from keel.reference.clearances import CLEARANCE_MM, ClearanceClass

PREFIX = "vehicle-"
Clearances = Mapping[ClearanceClass, float]
FAR_MM = 6_000.0
"""How far ground and rear zone reach about the bay [mm]."""
DEEP_MM = 2_000.0
CLASS_OF: dict[str, ClearanceClass] = {
    "structure": "hard metal",
    "hot part": "exhaust, shielded",
    "moving part": "moving at full travel",
    "planned part": "hard metal",
}
FACES: dict[Side, tuple[int, int]] = {
    "rear": (0, 0), "front": (0, 1), "right": (1, 0), "left": (1, 1), "floor": (2, 0), "roof": (2, 1),
}  # fmt: skip


def bay_in_vehicle(
    bay: Bay,
    vehicle: Vehicle | None,
    corner: VehicleCorner,
    clearances_mm: Clearances = CLEARANCE_MM,
    *,
    closed: bool = True,
) -> Bay:
    """A bay with all of the vehicle that the tank has to clear, as keep-outs of its own.

    Parameters
    ----------
    bay : Bay
        As measured.
    vehicle : Vehicle or None
        What it lies in; None changes nothing.
    corner : VehicleCorner
        Where its corner lies in the vehicle.
    clearances_mm : mapping
        The house rule's, by kind of neighbour.
    closed : bool
        Whether panels that are fitted after the tank are there.

    Returns
    -------
    Bay
        Of a moving part the box round both ends of its travel. A hot part's faces without a shield stand out by the
        difference of the two clearances. Ground and rear zone are slabs. People aren't among them.
    """
    if vehicle is None:
        return bay
    return bay.model_copy(
        update={"keep_outs": [*bay.keep_outs, *in_bay(vehicle, corner, clearances_mm, closed=closed)]}
    )


def in_bay(
    vehicle: Vehicle, corner: VehicleCorner, clearances_mm: Clearances = CLEARANCE_MM, *, closed: bool = True
) -> list[AnyKeepOut]:
    """Keep-outs of a vehicle in the bay's axes, their ids beginning with `vehicle-`."""
    shift = (corner.x_mm, corner.y_mm, corner.z_mm)
    found: list[AnyKeepOut] = [_of_panel(panel, shift) for panel in vehicle.panels if closed or not panel.closes]
    found += [kept for part in vehicle.parts for kept in _of_part(part, shift, clearances_mm)]
    return found + list(_zones(vehicle, shift))


def people_in_bay(vehicle: Vehicle, corner: VehicleCorner) -> list[KeepOut]:
    """Room that people take, in the bay's axes: what moves there doesn't stand still.

    Parameters
    ----------
    vehicle : Vehicle
        With its people.
    corner : VehicleCorner
        Where the bay's corner lies in it.

    Returns
    -------
    list of KeepOut
        A box each.
    """
    shift = (corner.x_mm, corner.y_mm, corner.z_mm)
    moving = Clearance(kind="moving at full travel")
    return [
        _box(part.id, part.name, *swept_box(part, shift), moving) for part in vehicle.parts if part.kind == "person"
    ]


Shift = tuple[float, float, float]


def panel_box(panel: VehiclePanel, shift: Shift = (0.0, 0.0, 0.0)) -> tuple[list[float], list[float]]:
    """Where a panel is.

    Parameters
    ----------
    panel : VehiclePanel
        In the vehicle's axes.
    shift : (float, float, float)
        Where the axes begin that it is told in [mm].

    Returns
    -------
    list of float, list of float
        Low corner and size [mm].
    """
    axis = "xyz".index(panel.axis)
    first, second = [way for way in range(3) if way != axis]
    low, size = [0.0] * 3, [0.0] * 3
    low[axis], size[axis] = panel.at_mm, panel.thickness_mm
    low[first], size[first] = panel.a_mm, panel.long_mm
    low[second], size[second] = panel.b_mm, panel.wide_mm
    return [value - by for value, by in zip(low, shift, strict=True)], size


def _box(
    key: str, name: str, low: list[float], size: list[float], clearance: Clearance, *, planned: bool = False
) -> KeepOut:
    x, y, z = low
    length, width, height = size
    return KeepOut.model_construct(
        kind="box", id=f"{PREFIX}{key}"[:40], name=name, clearance=clearance, planned=planned,
        x_mm=x, y_mm=y, z_mm=z, length_mm=length, width_mm=width, height_mm=height,
    )  # fmt: skip


def _of_panel(panel: VehiclePanel, shift: Shift) -> KeepOut:
    return _box(panel.id, panel.name, *panel_box(panel, shift), panel.clearance)


def swept_box(part: VehiclePart, shift: Shift = (0.0, 0.0, 0.0)) -> tuple[list[float], list[float]]:
    """The box round a part at both ends of its travel.

    Parameters
    ----------
    part : VehiclePart
        In the vehicle's axes.
    shift : (float, float, float)
        Where the axes begin that it is told in [mm].

    Returns
    -------
    list of float, list of float
        Low corner and size [mm].
    """
    place, size = (part.x_mm, part.y_mm, part.z_mm), (part.length_mm, part.width_mm, part.height_mm)
    travel = (part.travel_x_mm, part.travel_y_mm, part.travel_z_mm)
    low = [at + min(0.0, way) - by for at, way, by in zip(place, travel, shift, strict=True)]
    return low, [long + abs(way) for long, way in zip(size, travel, strict=True)]


def _of_part(part: VehiclePart, shift: Shift, clearances_mm: Clearances) -> Iterator[AnyKeepOut]:
    if part.kind == "person":
        return
    low, size = swept_box(part, shift)
    if part.kind == "scan":
        assert part.scan is not None
        x, y, z = (at - by for at, by in zip((part.x_mm, part.y_mm, part.z_mm), shift, strict=True))
        yield ScanKeepOut(id=f"{PREFIX}{part.id}"[:40], name=part.name, scan=part.scan, x_mm=x, y_mm=y, z_mm=z)
        return
    if part.kind == "hot part":
        more = clearances_mm["exhaust, bare"] - clearances_mm["exhaust, shielded"]
        low, size = _with_bare_faces(part, low, size, max(0.0, more))
    clearance = Clearance(kind=CLASS_OF[part.kind])
    yield _box(part.id, part.name, low, size, clearance, planned=part.kind == "planned part")


def _with_bare_faces(
    part: VehiclePart, low: list[float], size: list[float], more: float
) -> tuple[list[float], list[float]]:
    """A hot part's box, further out where no shield stands."""
    low, size = list(low), list(size)
    for face, (axis, high) in FACES.items():
        if face not in part.shielded:
            size[axis] += more
            low[axis] -= 0.0 if high else more
    return low, size


def _zones(vehicle: Vehicle, shift: Shift) -> Iterator[KeepOut]:
    if vehicle.ground_mm is not None:
        low = [-FAR_MM, -FAR_MM, vehicle.ground_mm - shift[2] - DEEP_MM]
        yield _box("ground", "ground", low, [2 * FAR_MM, 2 * FAR_MM, DEEP_MM], Clearance(kind="ground"))
    if vehicle.rearmost_mm is not None:
        low = [vehicle.rearmost_mm - shift[0] - DEEP_MM, -FAR_MM, -FAR_MM]
        size = [DEEP_MM, 2 * FAR_MM, 2 * FAR_MM]
        yield _box("rear", "rearmost structure", low, size, Clearance(kind="rear impact zone"))
