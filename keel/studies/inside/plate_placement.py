"""Where a plate can stand clear of what stands, hangs and swings in a tank."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import cos, radians, sin
from typing import Literal

from keel.design.document import Design
from keel.design.features import Partition, Pot
from keel.design.gauge import Sender, SwingArm
from keel.solid.solids import Solids
from keel.studies.gauge.column import column_of
from keel.studies.gauge.motion import motion_of
from keel.studies.gauge.swing import Swing

Axis = Literal["x", "y"]
AXES: tuple[Axis, ...] = ("x", "y")
BESIDE_MM = 15.0
"""A plate keeps this far from what hangs in the tank [mm]."""
SEAT_MM = 18.0
"""Its weld keeps this far from a seat's edge: the usual land, and the plate's own thickness [mm]."""
STEP_MM = 30.0
"""It stands no nearer to an upright face between the ends [mm]."""
APART_MM = 60.0
"""Nor to another plate that is offered with it, where there is room for that [mm]."""
TRIED_MM, FAR_MM = 400, 1e6


@dataclass(frozen=True, slots=True)
class Taken:
    """What is taken along either axis, from where to where, from the rear and from the right side [mm]."""

    along: dict[Axis, list[tuple[float, float]]]

    def clear_place(self, axis: Axis, wanted: float) -> float:
        """The place nearest to the wanted one where nothing is; the wanted one where there is none near [mm]."""
        for off in range(0, TRIED_MM, 5):
            for at in (wanted - off, wanted + off):
                if all(not low < at < high for low, high in self.along[axis]):
                    return at
        return wanted

    def clear_places(self, axis: Axis, wanted: Sequence[float]) -> list[float]:
        """The same for several plates in a row, that don't crowd one another [mm]."""
        apart = min([APART_MM, *((b - a) / 2 for a, b in pairwise(wanted))])
        spans, found = list(self.along[axis]), list[float]()
        for at in wanted:
            found.append(Taken({axis: spans}).clear_place(axis, at))
            spans.append((found[-1] - apart, found[-1] + apart))
        return sorted(found)


def taken_by(design: Design, solids: Solids, brush_mm: float) -> Taken:
    """What pots, hangers, ports' seats and senders' floats take of the room for plates.

    Parameters
    ----------
    design : Design
        With a shell.
    solids : Solids
        It worked out: an arm is as long as its depth asks for.
    brush_mm : float
        Between a plate and a wall a brush has to pass, or what lies there is never cleaned.

    Returns
    -------
    Taken
        Stretches along each axis.
    """
    arms = {sender.id: _arm_mm(sender, solids) for sender in design.gauge.senders}
    off = max(BESIDE_MM, brush_mm + solids.shell.feature_wall_mm + solids.shell.thickness_mm)
    ends = [[(-FAR_MM, off), (size - off, FAR_MM)] for size in solids.body.size[:2]]
    return Taken(
        {
            axis: [*ends[n], *_beside_walls(solids, axis, off), *_steps(solids, n), *_spans(design, arms, axis)]
            for n, axis in enumerate(AXES)
        }
    )


def _beside_walls(solids: Solids, axis: Axis, off: float) -> Iterator[tuple[float, float]]:
    for wall in solids.shell.features:
        if isinstance(wall, Partition) and wall.axis == axis:
            yield wall.at_mm - off, wall.at_mm + off


def _steps(solids: Solids, axis: int) -> Iterator[tuple[float, float]]:
    """Upright faces between the ends: beside one a plate shuts in a sliver, and opens to next to nothing."""
    section, size = solids.section, solids.body.size[axis]
    if section.axis == 2 or section.across != axis:
        return
    for edge in section.edges:
        (first, low), (last, high) = edge.start, edge.end
        at = (first + last) / 2 - solids.datum[axis]
        if abs(last - first) < abs(high - low) / 10 and STEP_MM < at < size - STEP_MM:
            yield at - STEP_MM, at + STEP_MM


def _arm_mm(sender: Sender, solids: Solids) -> float:
    found = column_of(solids, sender)
    motion = motion_of(sender, found[1]) if found else None
    return motion.arm_mm if isinstance(motion, Swing) else 0.0


def _spans(design: Design, arms: dict[str, float], axis: Axis) -> Iterator[tuple[float, float]]:
    for pot in (f for f in (design.shell.features if design.shell else ()) if isinstance(f, Pot)):
        wide = pot.long_mm if axis == "x" or pot.form == "round" else pot.wide_mm
        low = pot.a_mm if axis == "x" else pot.b_mm
        yield low - BESIDE_MM, low + wide + BESIDE_MM
    for port in design.ports:
        place = port.x_mm if axis == "x" else port.y_mm
        half = max(port.hangs_across_mm / 2 + BESIDE_MM, port.seat.outer_mm / 2 + SEAT_MM if port.seat else 0.0)
        yield place - half, place + half
    for sender in design.gauge.senders:
        place, reach, half = sender.x_mm if axis == "x" else sender.y_mm, 0.0, BESIDE_MM
        if isinstance(sender.action, SwingArm):
            heading = radians(sender.action.heading_deg)
            reach = arms[sender.id] * (cos(heading) if axis == "x" else sin(heading))
            half += sender.action.float_mm / 2
        yield min(place, place + reach) - half, max(place, place + reach) + half
