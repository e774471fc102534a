"""Baffles and partitions as flat shapes: what of their section they fill, clear of the shell by a gap."""

from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from keel.design.features import Baffle, Partition
from keel.solid.planes import polygons_of, shape_of
from keel.solid.solids import Solids

SMOOTH_MM = 0.05
"""Corners closer to a straight line than this are none [mm]."""


def plate_shapes(feature: Baffle | Partition, solids: Solids, gap_mm: float) -> tuple[BaseGeometry, list[Polygon]]:
    """The room a plate stands in and its sheet without flanges.

    Parameters
    ----------
    feature : Baffle or Partition
        One of the shell's.
    solids : Solids
        The shell as built.
    gap_mm : float
        Room left between plate and shell.

    Returns
    -------
    (BaseGeometry, list of Polygon)
        Along the plate and up [mm]; several where something parts it.
    """
    plate = solids.plates[feature.id]
    section, left = plate.whole or (plate.section, plate.left)
    room = shape_of(section).buffer(-gap_mm, join_style="mitre")
    return room, [p.simplify(SMOOTH_MM) for p in polygons_of(shape_of(left).intersection(room)) if p.area > 1.0]
