"""Moving a span along an axis so that it lies in the free bay."""

from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.studies.space.clearance import free_box


def slide_into(position_mm: float, size_mm: float, low_mm: float, high_mm: float) -> float:
    """Move a span as little as possible so that it lies between two limits.

    Parameters
    ----------
    position_mm, size_mm : float
        Low end and length of the span [mm].
    low_mm, high_mm : float
        The limits [mm]. A span longer than the room between them starts at the low one.

    Returns
    -------
    float
        The span's new low end [mm].
    """
    return max(low_mm, min(position_mm, high_mm - size_mm))


def slid_into_bay(design: Design, workshop: Workshop, axis: int, position_mm: float, overall_mm: float) -> float:
    """`slide_into` along one axis of a design's free bay; unchanged where no bay is known.

    Parameters
    ----------
    design : Design
        The design.
    workshop : Workshop
        House rules, machines and stock.
    axis : int
        0, 1 or 2: x, y or z.
    position_mm : float
        Low end of the body [mm].
    overall_mm : float
        Its size with all that stands out [mm].

    Returns
    -------
    float
        Low end [mm].
    """
    if design.bay is None:
        return position_mm
    free = free_box(design.bay, workshop.rules)
    return slide_into(position_mm, overall_mm, free.low[axis], free.high[axis])
