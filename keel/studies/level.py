"""Level and litres of a box on the level, exact at every row."""

from dataclasses import dataclass
from math import asin, sqrt

from keel.reference.units import MM3_PER_LITRE
from keel.solid.box import BoxSolid

STRAPPING_ROWS = 20


@dataclass(frozen=True, slots=True)
class StrappingRow:
    """Litres at a level above the inner floor."""

    level_mm: float
    volume_l: float
    fraction: float


def _corner_loss_below(radius: float, height: float) -> float:
    """Area outside a quarter round at the foot of a wall, below a height [mm²]."""
    if height >= radius:
        return radius * radius * (1 - asin(1) / 2)
    drop = radius - height
    arc = 0.5 * (radius * radius * (asin(1) - asin(drop / radius)) - drop * sqrt(radius * radius - drop * drop))
    return radius * height - arc


def volume_below(solid: BoxSolid, level_mm: float) -> float:
    """Litres below a level surface in a box shell.

    Parameters
    ----------
    solid : BoxSolid
        The shell worked out.
    level_mm : float
        Height above the inner floor [mm]; held between floor and roof.

    Returns
    -------
    float
        Volume [L]: the rectangle less what each bend's quarter round takes below the level.
        A corner that is welded instead of bent is the one at the lid.
    """
    height = solid.inner.size[2]
    level = min(max(level_mm, 0.0), height)
    whole = _corner_loss_below(solid.radius, solid.radius) if solid.radius else 0.0
    lost = 2 * _corner_loss_below(solid.radius, level) if solid.radius else 0.0
    if solid.radius and level > height - solid.radius:
        lost += (2 - solid.sharp_corners) * (whole - _corner_loss_below(solid.radius, height - level))
    section = solid.inner.size[solid.across] * level - lost
    return solid.inner.size[solid.wrap] * section / MM3_PER_LITRE


def level_for(solid: BoxSolid, volume_l: float) -> float:
    """Height above the inner floor at which a box shell holds a volume [mm].

    The inverse of `volume_below`, to machine precision (bisection on a rising function).
    """
    low, high = 0.0, solid.inner.size[2]
    if volume_l >= volume_below(solid, high):
        return high
    while True:
        middle = (low + high) / 2
        if middle in (low, high):
            return middle
        if volume_below(solid, middle) < volume_l:
            low = middle
        else:
            high = middle


def strapping_table(solid: BoxSolid, rows: int = STRAPPING_ROWS) -> list[StrappingRow]:
    """Level → litres at evenly spaced levels from the inner floor to the roof."""
    height, full = solid.inner.size[2], volume_below(solid, solid.inner.size[2])
    levels = [height * step / rows for step in range(rows + 1)]
    volumes = [volume_below(solid, level) for level in levels]
    return [
        StrappingRow(level_mm=level, volume_l=volume, fraction=volume / full)
        for level, volume in zip(levels, volumes, strict=True)
    ]
