"""Which way a part is to lie on its sheet: bends go across the grain, where they crack last."""

from collections.abc import Iterator
from math import hypot

from keel.studies.sheet.parts import FlatPart, Grain, Spot

SAME_MM = 1e-6


def grain_of(part: FlatPart) -> Grain:
    """Along which of its sides a part's grain is to run.

    Parameters
    ----------
    part : FlatPart
        Any.

    Returns
    -------
    Grain
        Across most of its bends' and rolls' length; along the longer side where there are none, or as many either way.

    References
    ----------
    Rolled sheet bears a smaller radius bent across the way it was rolled than along it: mill tables give both.
    """
    level, upright = bent_along(part)
    if abs(level - upright) > SAME_MM:
        return "width" if level > upright else "length"
    return "length" if part.length_mm >= part.width_mm else "width"


def bent_along(part: FlatPart) -> tuple[float, float]:
    """How much is bent along a part's length, and how much along its width [mm]."""
    along = [(abs(b[0] - a[0]), abs(b[1] - a[1])) for a, b in _lines(part)]
    long = [hypot(*way) for way in along]
    level = sum(size for way, size in zip(along, long, strict=True) if way[0] >= way[1])
    return level, sum(long) - level


def _lines(part: FlatPart) -> Iterator[tuple[Spot, Spot]]:
    yield from ((bend.start, bend.end) for bend in part.bends)
    yield from ((roll.start, roll.end) for roll in part.rolls)
