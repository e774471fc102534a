"""A base with flanges on any of its four sides, as it lies flat: end pans, U's, trays, plain plates.

Seen from inside the tank, u goes along the base's length from the left flange's free edge, v along its width from the
front flange's. Lengths are to the mould lines, where the outer faces would meet if they were made longer.
"""

from dataclasses import dataclass
from typing import Literal

from keel.studies.sheet.bends import bend_allowance, bend_deduction
from keel.studies.sheet.parts import Bend, Direction, Spot

Side = Literal["left", "right", "front", "back"]
Corner = Literal["square", "closed"]
FACING: dict[Side, tuple[Side, Side]] = {
    "left": ("front", "back"),
    "right": ("front", "back"),
    "front": ("left", "right"),
    "back": ("left", "right"),
}
"""The two sides that a side runs between."""


@dataclass(frozen=True, slots=True)
class Flange:
    """A wall of a pan: its height along its outer face from its mould line [mm], and how far it is turned [°]."""

    height_mm: float
    angle_deg: float = 90.0


@dataclass(frozen=True)
class Pan:
    """A base and its flanges.

    Attributes
    ----------
    length_mm, width_mm : float
        Outside of the base, to its mould lines [mm].
    flanges : dict of Side to Flange
        Those that it has.
    thickness_mm, radius_mm, k
        Sheet, inside radius and the neutral line's place.
    clearance_mm : float
        What a corner's notch is larger than the flanges that meet there [mm].
    corners : str
        `square`: a notch as deep as the flanges and the clearance, whose ends stay apart. `closed`: walls that stop at
        each other's inner face, to be welded, over a relief that is as deep as the bends' zones.
    """

    length_mm: float
    width_mm: float
    flanges: dict[Side, Flange]
    thickness_mm: float
    radius_mm: float
    k: float
    clearance_mm: float = 0.0
    corners: Corner = "square"

    def height(self, side: Side) -> float:
        """Of a side's flange; 0 without one [mm]."""
        flange = self.flanges.get(side)
        return flange.height_mm if flange else 0.0

    def deduction(self, side: Side) -> float:
        """Bend deduction at a side; 0 without a flange [mm]."""
        flange = self.flanges.get(side)
        return bend_deduction(flange.angle_deg, self.radius_mm, self.thickness_mm, self.k) if flange else 0.0

    def zone(self, side: Side) -> float:
        """How wide the zone is that is bent: its allowance; 0 without a flange [mm]."""
        flange = self.flanges.get(side)
        return bend_allowance(flange.angle_deg, self.radius_mm, self.thickness_mm, self.k) if flange else 0.0

    def reach(self, side: Side) -> float:
        """How far a flange stands over the base's mould line on the flat [mm]."""
        return self.height(side) - self.deduction(side)

    @property
    def size_mm(self) -> tuple[float, float]:
        """Length and width of the flat [mm]: Σ legs − Σ BD."""
        return (
            self.length_mm + self.reach("left") + self.reach("right"),
            self.width_mm + self.reach("front") + self.reach("back"),
        )

    def line(self, side: Side) -> float:
        """Where a side's bend line lies on the flat, half a deduction inside its mould line [mm]."""
        near = self.height(side) - self.deduction(side) / 2
        if side in ("left", "front"):
            return near
        return self.size_mm[0 if side == "right" else 1] - near

    def spot(self, face: Side | Literal["base"], along_mm: float, up_mm: float) -> Spot:
        """Where a place of a folded face lies on the flat.

        Parameters
        ----------
        face : str
            The base or a flange.
        along_mm : float
            Along the base's length from its left mould line; on left and right along the width from the front one.
        up_mm : float
            On the base along its width; on a flange along its outer face from its own mould line.

        Returns
        -------
        Spot
            u and v [mm].
        """
        u, v = self.reach("left") + along_mm, self.reach("front") + along_mm
        match face:
            case "base":
                return u, self.reach("front") + up_mm
            case "left":
                return self.height("left") - up_mm, v
            case "right":
                return self.size_mm[0] - self.height("right") + up_mm, v
            case "front":
                return u, self.height("front") - up_mm
        return u, self.size_mm[1] - self.height("back") + up_mm

    def outline(self) -> list[Spot]:
        """Round it counter-clockwise from the front edge's left end [mm]."""
        length, width = self.size_mm
        low, high = self._corner("left", "front"), self._corner("right", "front")
        far, near = self._corner("right", "back"), self._corner("left", "back")
        ring = [
            *[(length - u, v) for u, v in reversed(high)],
            *[(length - u, width - v) for u, v in far],
            *[(u, width - v) for u, v in reversed(near)],
            *low,
        ]
        return ring[-1:] + ring[:-1]

    def _corner(self, end: Side, side: Side) -> list[Spot]:
        """A corner as seen from the low one, from the end flange's free edge to the side flange's."""
        if end not in self.flanges or side not in self.flanges:
            return [(0.0, 0.0)]
        if self.corners == "square":
            u, v = self.height(end) + self.clearance_mm, self.height(side) + self.clearance_mm
            return [(0.0, v), (u, v), (u, 0.0)]
        stop_u, stop_v = self.reach(end) + self.thickness_mm, self.reach(side) + self.thickness_mm
        line_u, line_v = self.height(end) - self.deduction(end) / 2, self.height(side) - self.deduction(side) / 2
        half_u, half_v = self.zone(end) / 2, self.zone(side) / 2
        return [
            (0.0, stop_v),
            (line_u - half_u, stop_v),
            (line_u - half_u, line_v + half_v),
            (line_u + half_u, line_v + half_v),
            (line_u + half_u, line_v - half_v),
            (stop_u, line_v - half_v),
            (stop_u, 0.0),
        ]

    def ends(self, side: Side) -> tuple[float, float]:
        """Where a side's bend line begins and ends along itself, between the notches [mm]."""
        low, high = FACING[side]
        whole = self.size_mm[0 if side in ("front", "back") else 1]

        def notch(other: Side) -> float:
            if other not in self.flanges:
                return 0.0
            if self.corners == "square":
                return self.height(other) + self.clearance_mm
            return self.height(other) - self.deduction(other) / 2 + self.zone(other) / 2

        return notch(low), whole - notch(high)

    def bends(self, direction: Direction, order: dict[Side, int] | None = None) -> list[Bend]:
        """Bend lines, in the order in which they are made.

        Parameters
        ----------
        direction : str
            Towards the reader or away.
        order : dict of Side to int, optional
            When each is made; as they are named where none is given.
        """
        turns = order or {side: turn for turn, side in enumerate(self.flanges, start=1)}
        found = []
        for side, flange in self.flanges.items():
            at, (first, last) = self.line(side), self.ends(side)
            start, end = ((first, at), (last, at)) if side in ("front", "back") else ((at, first), (at, last))
            bend = Bend(start, end, direction, flange.angle_deg, self.radius_mm, turns[side], self.deduction(side))
            found.append(bend)
        return sorted(found, key=lambda bend: bend.order)

    def clear_of_bends_mm(self, face: Side | Literal["base"], middle: Spot, diameter_mm: float) -> float:
        """From a hole's rim to the nearest bend zone that its face has, below zero where it is stretched [mm]."""
        sides = tuple(self.flanges) if face == "base" else (face,)
        across = {side: middle[0 if side in ("left", "right") else 1] for side in sides}
        return min(abs(across[side] - self.line(side)) - self.zone(side) / 2 for side in sides) - diameter_mm / 2

    def gap_mm(self, end: Side, side: Side) -> float:
        """Between an end flange's edge and the inner face of the side flange beside it, square notches at 90° [mm].

        Clearance + BD − t of the side that the edge stands before.
        """
        return self.clearance_mm + self.deduction(side) - self.thickness_mm
