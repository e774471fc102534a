"""What stands about the lines: neighbours of the bay and the vehicle, and the sheets among them."""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from keel.analysis.parts import BAY, MOUNT, RULES, SCANS, VEHICLE
from keel.analysis.study import Maybe, study
from keel.design.bay import AnyKeepOut, Bay, KeepOut, RoundKeepOut, SlopeKeepOut
from keel.design.mount import Mount
from keel.design.vehicle import Vehicle, VehiclePanel
from keel.design.workshop import HouseRules
from keel.reference.clearances import ClearanceClass
from keel.routes.nearness import Near, near_bar, near_boxes, near_plane, pieces_in_box
from keel.solid.neighbours import Scans, scan_mesh, slope_plane
from keel.solid.polyhedron import Array, Mesh
from keel.solid.proximity import nearest
from keel.solid.vehicle import PREFIX, people_in_bay
from keel.studies.space.gap import needed_mm

SHEET_MM = 12.0
"""A box of the bay that is no thicker counts as sheet: a line may go through a hole in it."""
MOST_KNOWN = 2000
HOT: tuple[ClearanceClass, ...] = ("exhaust, bare", "exhaust, shielded")
ZONES: tuple[ClearanceClass, ...] = ("ground", "rear impact zone")


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole in a sheet: its low and high corner along the sheet's two axes [mm]."""

    name: str
    low: tuple[float, float]
    high: tuple[float, float]
    sealed: bool


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet that a line can go through.

    Attributes
    ----------
    axis : int
        The axis it stands square to.
    metal : bool
        It is of metal.
    closes : bool
        It is fitted after the tank.
    """

    key: str
    name: str
    axis: int
    low: Array
    high: Array
    holes: tuple[Hole, ...] = ()
    metal: bool = True
    closes: bool = False

    @property
    def others(self) -> list[int]:
        """Its own two axes."""
        return [way for way in range(3) if way != self.axis]


@dataclass(frozen=True, slots=True)
class Thing:
    """A neighbour of the lines, and how far they stay off it."""

    key: str
    name: str
    kind: ClearanceClass
    needed_mm: float
    keep_out: AnyKeepOut


@dataclass(frozen=True)
class Surroundings:
    """All of them.

    Attributes
    ----------
    boxes : list of Thing
        Upright boxes, their corners in `lows` and `highs`, shape (n, 3).
    others : list of Thing
        Round bars, slopes, scans.
    """

    boxes: list[Thing]
    lows: Array
    highs: Array
    others: list[Thing]
    sheets: list[Sheet]
    bay: Bay | None = None
    meshes: dict[str, Mesh] = field(default_factory=dict)
    _known: dict[bytes, list[tuple[Thing, Near]]] = field(default_factory=dict, repr=False)
    """What was asked before: while one run is dragged the others lie where they lay."""

    def near(self, line: Array) -> list[tuple[Thing, Near]]:
        """The nearest place of a line to every neighbour.

        Parameters
        ----------
        line : ndarray, shape (n, 3)
            Points joined by straights [mm].

        Returns
        -------
        list of (Thing, Near)
            Boxes first.
        """
        kept = self._known.get(key := line.tobytes())
        if kept is None:
            if len(self._known) >= MOST_KNOWN:
                self._known.clear()
            kept = self._known[key] = self._near(line)
        return kept

    def _near(self, line: Array) -> list[tuple[Thing, Near]]:
        found = list(zip(self.boxes, near_boxes(line, self.lows, self.highs), strict=True)) if self.boxes else []
        return found + [(thing, near) for thing in self.others if (near := self.near_other(thing, line)) is not None]

    def near_other(self, thing: Thing, line: Array) -> Near | None:
        """The nearest place of a line to one of the others; None where its mesh isn't at hand."""
        match thing.keep_out:
            case RoundKeepOut() as bar:
                middle = np.array([bar.x_mm, bar.y_mm, bar.z_mm])
                return near_bar(line, middle, "xyz".index(bar.axis), bar.run_mm, bar.diameter_mm / 2)
            case SlopeKeepOut() as slope if self.bay is not None:
                size = np.array([self.bay.length_mm, self.bay.width_mm, self.bay.height_mm])
                within = pieces_in_box(line, np.zeros(3), size)
                return near_plane(within, *slope_plane(slope, self.bay)) if len(within) else None
        mesh = self.meshes.get(thing.key)
        if mesh is None:
            return None
        found = nearest(line_mesh(line), mesh)
        return Near(found.distance, found.start, found.end)


def surroundings(
    bay: Bay | None, vehicle: Vehicle | None, mount: Mount, rules: HouseRules, scans: Scans
) -> Surroundings:
    """What stands about the lines.

    Parameters
    ----------
    bay : Bay or None
        With the vehicle's parts in it.
    vehicle : Vehicle or None
        Whose panels have holes.
    mount : Mount
        Where the bay's corner lies in the vehicle.
    rules : HouseRules
        Clearances by kind.
    scans : mapping
        Kept meshes.

    Returns
    -------
    Surroundings
        People count as what moves. Cavities that the tank goes into are not among them. A slope is known within the bay
        alone.
    """
    keep_outs = [] if bay is None else [one for one in bay.keep_outs if not getattr(one, "is_cavity", False)]
    keep_outs += people_in_bay(vehicle, mount.corner) if vehicle else []
    things = [Thing(k.id, k.name, k.clearance.kind, needed_mm(k.clearance, rules), k) for k in keep_outs]
    boxes = [thing for thing in things if isinstance(thing.keep_out, KeepOut)]
    corners = [_corners(thing.keep_out) for thing in boxes if isinstance(thing.keep_out, KeepOut)]
    others = [thing for thing in things if thing not in boxes]
    meshes = {one.key: mesh for one in others if (mesh := scan_mesh(one.keep_out, scans)) is not None}
    panels = {f"{PREFIX}{panel.id}"[:40]: panel for panel in (vehicle.panels if vehicle else [])}
    sheets = [
        _sheet(thing, low, high, panels.get(thing.key), mount)
        for thing, (low, high) in zip(boxes, corners, strict=True)
        if thing.key in panels or (thing.kind not in ZONES and (high - low).min() <= SHEET_MM)
    ]
    lows, highs = (np.array([pair[side] for pair in corners]).reshape(-1, 3) for side in (0, 1))
    return Surroundings(boxes, lows, highs, others, sheets, bay, meshes)


def _corners(box: KeepOut) -> tuple[Array, Array]:
    low = np.array([box.x_mm, box.y_mm, box.z_mm])
    return low, low + np.array([box.length_mm, box.width_mm, box.height_mm])


def _sheet(thing: Thing, low: Array, high: Array, panel: VehiclePanel | None, mount: Mount) -> Sheet:
    axis = "xyz".index(panel.axis) if panel else int((high - low).argmin())
    if panel is None:
        return Sheet(thing.key, thing.name, axis, low, high)
    shift = (mount.corner.x_mm, mount.corner.y_mm, mount.corner.z_mm)
    first, second = (shift[way] for way in range(3) if way != axis)
    holes = tuple(
        Hole(
            gap.name,
            (gap.a_mm - first, gap.b_mm - second),
            (gap.a_mm - first + gap.long_mm, gap.b_mm - second + gap.wide_mm),
            gap.sealed,
        )
        for gap in panel.gaps
    )
    return Sheet(thing.key, thing.name, axis, low, high, holes, panel.metal is not None, panel.closes)


def line_mesh(line: Array) -> Mesh:
    """A line as triangles without width, to be held against a surface."""
    count = len(line)
    return Mesh(line, np.array([[n, n + 1, n + 1] for n in range(count - 1)]))


def sheet_of(name: str, sheets: Sequence[Sheet]) -> Sheet | None:
    """A sheet by its id, a vehicle's panel with or without what marks it as one.

    Parameters
    ----------
    name : str
        Its id.
    sheets : sequence of Sheet
        All of them.

    Returns
    -------
    Sheet or None
        None where there is none of that name.
    """
    return next((one for one in sheets if one.key in (name, f"{PREFIX}{name}"[:40])), None)


SURROUNDINGS = study(surroundings, Maybe(BAY), VEHICLE, MOUNT, RULES, SCANS)
