"""What moves and what stands on the way in, about one axis, with this or that off."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from manifold3d import Manifold, OpType
from shapely import box

from keel.design.bay import SIDES, Bay, Opening
from keel.design.mount import Mount
from keel.solid.envelope import Envelope
from keel.solid.neighbours import Scans, outline_pieces, scan_mesh, solid_of_keep_out
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.tilting.scene import FAR_MM, TURNS, Piece, pieces_of, rectangle, wall_with_hole
from keel.studies.mount.bearers import bearer_places
from keel.studies.mount.facing import beyond, outward
from keel.studies.mount.holding_solids import bearer_solid, foot_solid, stop_solid
from keel.studies.mount.way_question import TANK, Plane, Progress, Question

SLABS = 6
WALL_MM = 2.0
"""The panel with the opening is taken to be so thick."""


@dataclass(frozen=True)
class WayScene:
    """The bay, the tank that goes into it, and what holds it there.

    Stops and bearers stand in the way like anything else. Where the tank lies on one, or nearer to it than the play
    that is kept, it is taken to stand back by what lacks. Feet that are welded to the tank go in with it. Straps are
    off.
    """

    bay: Bay
    opening: Opening
    envelope: Envelope
    solids: Solids
    scans: Scans
    mount: Mount
    play_mm: float

    @property
    def _side(self) -> int:
        return SIDES.index(self.opening.side)

    @property
    def size(self) -> tuple[float, float, float]:
        """Of the bay [mm]."""
        return self.bay.length_mm, self.bay.width_mm, self.bay.height_mm

    @property
    def axes(self) -> list[int]:
        """The two that it may tilt about: those that lie in the opening's side."""
        return [axis for axis in range(3) if axis != self._side // 2]

    @property
    def comes_off(self) -> list[str]:
        """What can be off while it goes in: first what stands at ports, then what is bolted to the vehicle."""
        ports = [part.name for part in self.envelope.at_ports if part.comes_off]
        return list(dict.fromkeys([*ports, *self.holding]))

    @property
    def holding(self) -> list[str]:
        """Stops and bearers by name."""
        return [stop.name for stop in self.mount.stops] + [bar.name for bar in self.mount.bearers]

    def question(self, axis: int, off: frozenset[str], progress: Progress) -> Question:
        """The scene about one axis.

        Parameters
        ----------
        axis : int
            0, 1 or 2: what it may tilt about.
        off : frozenset of str
            What is off, by name.
        progress : Progress
            Told how far the search is.

        Returns
        -------
        Question
            To be asked.
        """
        moving = self._moving(axis, off)
        stands, holds = list(self._fixed(axis)), list(self._holds(axis, off))
        rings = np.vstack([piece.ring for piece in moving])
        low, high = rings.min(axis=0), rings.max(axis=0)
        middle = (float(low[0] + high[0]) / 2, float(low[1] + high[1]) / 2)
        radius = float(np.linalg.norm(high - low)) / 2 + self.play_mm
        plane = self._plane(axis, middle, radius)
        return Question(moving, stands, holds, middle, radius, plane, self.size[axis], progress)

    def straight_out(self, axis: int, radius: float) -> tuple[float, float]:
        """How far it is shifted in the plane to stand outside the opening, as it stands [mm]."""
        own, high = self._side // 2, self._side % 2
        far = (self.size[own] + 2 * radius) * (1.0 if high else -1.0)
        return (far, 0.0) if own == plane_axes(axis)[0] else (0.0, far)

    def _moving(self, axis: int, off: frozenset[str]) -> list[Piece]:
        bare = len(self.envelope.parts) - len(self.envelope.at_ports)
        tank = Manifold.batch_boolean(self.envelope.parts[:bare], OpType.Add)
        found = pieces_of(TANK, tank, axis, self._cuts(axis))
        for part in self.envelope.at_ports:
            if part.name not in off:
                found += pieces_of(part.name, part.solid, axis)
        middle = np.add(self.solids.bounds.low, self.solids.bounds.high) / 2
        for foot in self.mount.feet:
            if foot.weld_mm > 0:
                solid = foot_solid(foot, beyond(foot, middle), self.solids, self.play_mm)
                found += pieces_of(foot.name, solid, axis)
        return found

    def _cuts(self, axis: int) -> list[float]:
        """Where the shell's outline changes along an axis: none for what is drawn out along it."""
        shell = self.solids
        outside = {"sump", "well", "relief", "roof step"}
        cuts = [
            end for cost in shell.costs if cost.kind in outside for end in (cost.box.low[axis], cost.box.high[axis])
        ]
        if shell.section.axis == axis:
            cuts += list(shell.section.span)
        else:
            low, high = shell.bounds.low[axis], shell.bounds.high[axis]
            cuts += list(np.linspace(low, high, SLABS + 1)[1:-1])
        return cuts

    def _holds(self, axis: int, off: frozenset[str]) -> Iterator[Piece]:
        """Stops and bearers that are on."""
        for stop in self.mount.stops:
            if stop.name not in off:
                yield from pieces_of(stop.name, self._set_back(stop_solid(stop), outward(stop)), axis)
        places = {place.id: place for place in bearer_places(self.mount.bearers, self.solids)}
        for bar in self.mount.bearers:
            if bar.name not in off and bar.id in places:
                way = np.array([0.0, 0.0, -1.0 if bar.stands == "under" else 1.0])
                yield from pieces_of(bar.name, self._set_back(bearer_solid(bar, places[bar.id]), way), axis)

    def _set_back(self, solid: Manifold, way: Array) -> Manifold:
        lacks = self.play_mm - self.envelope.gap_to(solid, self.play_mm)
        return solid.translate(list(way * lacks)) if lacks > 0 else solid

    def _fixed(self, axis: int) -> Iterator[Piece]:
        yield from self._walls(axis)
        for keep_out in self.bay.keep_outs:
            solid = solid_of_keep_out(keep_out, self.bay)
            mesh = scan_mesh(keep_out, self.scans)
            if solid is None and mesh is not None and not getattr(keep_out, "is_cavity", False):
                solid = Manifold.hull_points(np.ascontiguousarray(mesh.points))
            if solid is not None and not solid.is_empty():
                yield from pieces_of(keep_out.name, solid, axis)
        for _, solid in outline_pieces(self.bay):
            yield from pieces_of("the bay's side", solid, axis)

    def _walls(self, axis: int) -> Iterator[Piece]:
        """The bay's sides, the one with the opening as a panel with a hole; outside it nothing stands."""
        first, second = plane_axes(axis)
        own, high = self._side // 2, self._side % 2
        size, opening = self.size, self.opening
        along = second if own == first else first
        holes = _hole(opening, own)
        at, inward = (size[own], -1.0) if high else (0.0, 1.0)
        name = f"the opening in the {opening.side}"
        hole = (*holes[along], *holes[axis])
        yield from wall_with_hole(name, at, inward, WALL_MM, hole, upright=own == first)
        # The other sides end at that panel.
        ends = {own: (-FAR_MM, size[own] + WALL_MM) if high else (-WALL_MM, FAR_MM)}
        for place, side in enumerate(SIDES):
            if place == self._side:
                continue
            low = [ends.get(way, (-FAR_MM, FAR_MM))[0] for way in range(3)]
            top = [ends.get(way, (-FAR_MM, FAR_MM))[1] for way in range(3)]
            if place % 2:
                low[place // 2] = size[place // 2]
            else:
                top[place // 2] = 0.0
            yield rectangle(
                f"the {side} of the bay", (low[first], low[second]), (top[first], top[second]), (low[axis], top[axis])
            )

    def _plane(self, axis: int, middle: tuple[float, float], radius: float) -> Plane:
        """How far the plane is looked at, and where the tank's middle is out."""
        first, second = plane_axes(axis)
        own, high = self._side // 2, self._side % 2
        more = 2 * radius + 100.0
        low = [min(0.0, middle[0]) - more, min(0.0, middle[1]) - more]
        top = [max(self.size[first], middle[0]) + more, max(self.size[second], middle[1]) + more]
        at = 0 if own == first else 1
        far = radius + WALL_MM + 1.0
        out_low, out_top = list(low), list(top)
        if high:
            out_low[at] = self.size[own] + far
            top[at] = max(top[at], out_low[at] + 50.0)
            out_top[at] = top[at]
        else:
            out_top[at] = -far
            low[at] = min(low[at], out_top[at] - 50.0)
            out_low[at] = low[at]
        return Plane((low[0], low[1], top[0], top[1]), box(out_low[0], out_low[1], out_top[0], out_top[1]))


def plane_axes(axis: int) -> tuple[int, int]:
    """The two axes that a plane square to a third is told by, in the scene's order."""
    rows = np.array(TURNS[axis])
    return int(np.argmax(rows[0])), int(np.argmax(rows[1]))


def _hole(opening: Opening, own: int) -> dict[int, tuple[float, float]]:
    """From where to where the opening is, by axis."""
    first, second = [way for way in range(3) if way != own]
    return {
        first: (opening.a_mm, opening.a_mm + opening.long_mm),
        second: (opening.b_mm, opening.b_mm + opening.wide_mm),
    }
