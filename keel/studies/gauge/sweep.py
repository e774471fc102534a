"""Where the float goes, and what it meets on its way."""

from functools import lru_cache
from itertools import pairwise
from math import cos, radians, sin

import numpy as np
from manifold3d import Manifold, OpType

from keel.design.gauge import Sender, SwingArm
from keel.solid.solids import Solids
from keel.studies.gauge.column import Column
from keel.studies.gauge.swing import Slide, Swing
from keel.studies.ports.hung_solids import HIT_MM3, names_outside

SWEEP_STEPS = 12


def place_over(sender: Sender, column: Column, solids: Solids, height_mm: float, out_mm: float = 0.0) -> np.ndarray:
    """A place over the inner floor below a sender, in vehicle axes, so far out in its arm's direction."""
    heading = radians(sender.action.heading_deg) if isinstance(sender.action, SwingArm) else 0.0
    return np.array(
        [
            solids.datum[0] + sender.x_mm + out_mm * cos(heading),
            solids.datum[1] + sender.y_mm + out_mm * sin(heading),
            column.line.lowest + column.offset + height_mm,
        ]
    )


def float_path(sender: Sender, motion: Swing | Slide, column: Column, solids: Solids) -> list[np.ndarray]:
    """The float's middle from empty to full."""
    places = []
    for step in range(SWEEP_STEPS + 1):
        needle, out = step / SWEEP_STEPS, 0.0
        if isinstance(motion, Swing):
            out = motion.arm_mm * cos(radians(motion.empty_deg + needle * (motion.full_deg - motion.empty_deg)))
        places.append(place_over(sender, column, solids, motion.height(needle), out))
    return places


def float_meets(
    sweep: list[np.ndarray], radius: float, solids: Solids, obstacles: list[tuple[str, Manifold]]
) -> list[str]:
    """What a float of that radius runs into along its sweep: walls and plates by name, what hangs."""
    start = sweep[0]
    way = _swept(tuple(tuple((place - start).round(6).tolist()) for place in sweep), radius)
    way = way.translate([float(v) for v in start])
    return names_outside(solids, way) + [name for name, solid in obstacles if (way ^ solid).volume() > HIT_MM3]


@lru_cache(maxsize=64)
def _swept(places: tuple[tuple[float, ...], ...], radius: float) -> Manifold:
    """The space that a ball passes through; while something else is dragged it stays the same."""
    ball = Manifold.sphere(radius, 16)
    balls = [ball.translate(list(place)) for place in places]
    way = Manifold.batch_boolean([Manifold.batch_hull([a, b]) for a, b in pairwise(balls)], OpType.Add)
    way.num_tri()  # worked out now, not each time it is used
    return way
