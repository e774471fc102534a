"""The shape of a brake across the bend: what of it a part has to pass."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import radians, sqrt, tan

from keel.design.workshop import Brake
from keel.studies.sheet.bend_order import Obstacle
from keel.studies.sheet.parts import Spot

BEAM_MM: tuple[Spot, ...] = (
    (0.0, 0.0),
    (-30.0, 200.0),
    (-90.0, 305.0),
    (-170.0, 305.0),
    (-220.0, 230.0),
    (-220.0, 140.0),
    (-70.0, 0.0),
)
"""A clamping beam from its end, nose at the origin, that closes a box of `CLOSES_MM`. Others of a like shape are
as much larger as the smallest box that was measured on them [mm]."""
CLOSES_MM = 305.0
TIP_MM = 12.0
"""Half the width of a punch above its tip [mm]."""
MOST_TIP_DEG = 150.0
"""No punch's tip is made for a sharper bend [°]."""
PUNCH_MM, RAM_MM = 120.0, (60.0, 900.0)
"""How tall a punch is, and of the ram above it half the width and how far up it goes: a usual press brake [mm]."""
DEEP_MM, SHOWN_MM, FAR_MM = 300.0, 30.0, 4000.0
"""How far below the sheet a bed, a leaf or a die reaches, how far it is drawn, and how far off a frame is [mm]."""


@dataclass(frozen=True)
class Machine:
    """A brake as a part meets it.

    `tool` is its beam or punch, `under` the bed or the die: they stay where they are. `leaf` goes with the side that is
    lifted; a press brake has none. `free` says how much of the angle the free side makes beside what stays.
    """

    tool: list[Spot]
    under: list[Spot]
    leaf: list[Spot]
    free: float
    frame_mm: float | None

    @property
    def shown(self) -> tuple[list[Spot], list[Spot], list[Spot]]:
        """Tool, what is under the sheet, and leaf, as far down as a picture needs."""
        under, leaf = ([(x, max(y, -SHOWN_MM)) for x, y in outline] for outline in (self.under, self.leaf))
        return self.tool, under, leaf

    @property
    def obstacles(self) -> list[Obstacle]:
        """All of it that a part has to pass."""
        found = [Obstacle.of(outline, self.free) for outline in (self.tool, self.under) if outline]
        if self.leaf:
            found.append(Obstacle.of(self.leaf, 0.0))
        if self.frame_mm is not None:
            back = -self.frame_mm
            frame = [(-FAR_MM, -FAR_MM), (back, -FAR_MM), (back, FAR_MM), (-FAR_MM, FAR_MM)]
            found.append(Obstacle.of(frame, self.free))
        return found


def machine_of(brake: Brake) -> Machine:
    """All of a brake that a part has to pass.

    Parameters
    ----------
    brake : Brake
        Its sizes, and its beam or punch where that was measured.

    Returns
    -------
    Machine
        A folder's beam, bed and leaf, or a press brake's punch with its ram and its die.
    """
    tool, half = list(tool_of(brake)), brake.die_mm / 2
    if brake.kind == "press brake":
        return Machine(tool, _block(-half, half), [], 0.5, brake.throat_mm)
    leaf = _block(0.0, brake.leaf_mm) if brake.leaf_mm else []
    return Machine(tool, _block(-brake.bed_mm, 0.0) if brake.bed_mm else [], leaf, 1.0, brake.throat_mm)


def _block(low: float, high: float) -> list[Spot]:
    return [(low, -DEEP_MM), (high, -DEEP_MM), (high, 0.0), (low, 0.0)]


def tool_of(brake: Brake) -> Sequence[Spot]:
    """A brake's clamping beam or punch: as it was measured, or as its smallest closed box says it is [mm].

    Parameters
    ----------
    brake : Brake
        Its smallest closed box is measured by the shop; a folder that closes none is taken to be twice the usual one.

    Returns
    -------
    sequence of Spot
        An outline, nose or tip at the origin.

    References
    ----------
    Whatever clears a beam clears one twice as large twice as far off: the smallest box goes with its size (derived). As
    the last bend of a square box of side a is made on a press brake, the end of its longer arm, half way along the
    lid, passes over the punch at a √(1 + 1/4) from the tip (derived).
    """
    if brake.beam:
        return [(corner.across_mm, corner.up_mm) for corner in brake.beam]
    closes = brake.smallest_closed_box_mm
    if brake.kind == "press brake":
        foot = TIP_MM * tan(radians(min(brake.most_angle_deg, MOST_TIP_DEG)) / 2)
        return _punch_with_ram(foot) if closes is None else _punch(foot, sqrt(1.25 * closes**2 - TIP_MM**2))
    share = 2.0 if closes is None else closes / CLOSES_MM
    return [(x * share, y * share) for x, y in BEAM_MM]


def _punch(foot: float, tall: float) -> list[Spot]:
    return [(0.0, 0.0), (TIP_MM, foot), (TIP_MM, tall), (-TIP_MM, tall), (-TIP_MM, foot)]


def _punch_with_ram(foot: float) -> list[Spot]:
    half, up = RAM_MM
    tall = PUNCH_MM + foot
    right = [(TIP_MM, foot), (TIP_MM, tall), (half, tall), (half, up)]
    return [(0.0, 0.0), *right, *((-x, y) for x, y in reversed(right))]
