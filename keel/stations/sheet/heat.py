"""How near a shell's welds come to what is hot."""

from collections.abc import Sequence
from typing import Protocol

import numpy as np
from manifold3d import Manifold

from keel.analysis.parts import BAY
from keel.analysis.tank import TankAnalysis
from keel.solid.neighbours import solid_of_keep_out
from keel.studies.result import Point

HOT = ("exhaust, bare", "exhaust, shielded")
FAR_MM = 5000.0
THIN_MM = 0.05


class Line(Protocol):
    """A straight seam."""

    @property
    def start(self) -> Point: ...

    @property
    def end(self) -> Point: ...


def from_heat_mm(tank: TankAnalysis, seams: Sequence[Line]) -> float | None:
    """The least gap from any of some seams to what is hot.

    Parameters
    ----------
    tank : TankAnalysis
        The bay says what stands there.
    seams : sequence of Line
        In vehicle axes [mm].

    Returns
    -------
    float or None
        Between the seam's middle line and the hot part [mm]; None where there is nothing hot.
    """
    bay = tank.get(BAY)
    hot = [] if bay is None else [k for k in bay.keep_outs if k.clearance.kind in HOT]
    solids = [solid for k in hot if bay is not None and (solid := solid_of_keep_out(k, bay)) is not None]
    if not solids or not seams:
        return None
    return min(float(solid.min_gap(_rod(seam), FAR_MM)) for solid in solids for seam in seams)


def _rod(seam: Line) -> Manifold:
    """A seam as a solid that is next to nothing wide."""
    ends = np.array([(spot.x, spot.y, spot.z) for spot in (seam.start, seam.end)])
    aside = THIN_MM / 2 * np.vstack([np.eye(3), -np.eye(3)])
    return Manifold.hull_points(np.vstack([end + aside for end in ends]))
