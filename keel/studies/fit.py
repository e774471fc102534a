"""Fit to bay: the largest box shell that clears everything."""

from typing import Any, TypedDict

from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.design.workshop import Workshop
from keel.solid.box import Cuboid, flange_of, solid_of
from keel.studies.clearance import free_box, largest_spaces


class Placement(TypedDict):
    """Where a shell is and how large, as fields of the design [mm]."""

    x_mm: float
    y_mm: float
    z_mm: float
    length_mm: float
    width_mm: float
    height_mm: float


def fit_to_bay(design: Design, workshop: Workshop) -> Placement | None:
    """The largest box, of the design's metal, radius and wrap, that clears the bay.

    Parameters
    ----------
    design : Design
        Its shell tells thickness, radius, wrap axis and how sizes are measured; where
        there is none yet, the defaults of `BoxShell` do.
    workshop : Workshop
        House rules for clearances and flanges.

    Returns
    -------
    dict or None
        The fields of the shell to set, or None without a bay, or when nothing that can be bent fits.
    """
    if design.bay is None:
        return None
    like = design.shell or BoxShell(length_mm=1000, width_mm=1000, height_mm=1000)
    best: Placement | None = None
    most = 0.0
    for space in largest_spaces(design.bay, workshop.rules):
        if space.volume_mm3 <= most:
            break
        shell = _shell_in(space, like, design, workshop)
        if shell is None:
            continue
        volume = solid_of(shell, design.sheet.seam, design.sheet.flange_mm, workshop.rules).volume_mm3
        if volume > most:
            most, best = volume, placement(shell)
    return best


def first_shell(placed: Placement) -> dict[str, Any]:
    """A whole shell, every default written out, for a design that has none yet."""
    return BoxShell.model_validate(placed).model_dump()


def placement(shell: BoxShell) -> Placement:
    """The fields of a shell that say where it is and how large [mm]."""
    return Placement(
        x_mm=shell.x_mm,
        y_mm=shell.y_mm,
        z_mm=shell.z_mm,
        length_mm=shell.length_mm,
        width_mm=shell.width_mm,
        height_mm=shell.height_mm,
    )


def _shell_in(space: Cuboid, like: BoxShell, design: Design, workshop: Workshop) -> BoxShell | None:
    lip = flange_of(like, design.sheet.flange_mm, workshop.rules) - like.thickness_mm
    lips = (lip, 0.0, 0.0) if like.wrap_axis == "x" else (0.0, lip, 0.0)
    walls = 2 * like.thickness_mm if like.measured == "inside" else 0.0
    low = [space.low[i] + lips[i] for i in range(3)]
    sizes = [space.size[i] - 2 * lips[i] - walls for i in range(3)]
    try:
        return BoxShell.model_validate(
            like.model_dump()
            | Placement(
                x_mm=low[0],
                y_mm=low[1],
                z_mm=low[2],
                length_mm=sizes[0],
                width_mm=sizes[1],
                height_mm=sizes[2],
            )
        )
    except ValueError:
        return None


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
    """`slide_into` along one axis of a design's free bay; unchanged where no bay is known."""
    if design.bay is None:
        return position_mm
    free = free_box(design.bay, workshop.rules)
    return slide_into(position_mm, overall_mm, free.low[axis], free.high[axis])
