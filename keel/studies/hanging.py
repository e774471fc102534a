"""What hangs from ports inside the tank."""

import numpy as np
from manifold3d import Manifold

from keel.design.ports import Port
from keel.solid.build import Solids
from keel.solid.envelope import lid_height
from keel.solid.polygon import circle
from keel.solid.shapes import drawn_out

LIFT_MM = 0.5
"""What hangs is taken this much shorter and thinner, so that touching isn't meeting [mm]."""


def hanging(solids: Solids, port: Port) -> Manifold | None:
    """What hangs from a port in the roof, as an upright cylinder from the sheet's underside; None without a size."""
    if port.face != "roof" or port.hangs_mm <= LIFT_MM or port.hangs_across_mm <= 2 * LIFT_MM:
        return None
    x, y = solids.datum[0] + port.x_mm, solids.datum[1] + port.y_mm
    top = lid_height(solids, x, y, solids.datum[2])
    under = top - solids.shell.thickness_mm - LIFT_MM
    ring = np.array([x, y]) + circle(port.hangs_across_mm / 2 - LIFT_MM)
    bottom = top - port.hangs_mm + LIFT_MM
    return drawn_out(ring, 2, bottom, under) if bottom < under else None
