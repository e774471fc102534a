"""The separate spaces of a tank's inside."""

from collections.abc import Iterator

from manifold3d import Manifold

from keel.design.features import Partition
from keel.solid.faults import wrong
from keel.solid.shapes import mesh_of
from keel.solid.solids import AnyShell, Cell

SLIVER_L = 1e-4
"""A separate space smaller than this is rounding, no cell [L]."""


def cells(shell: AnyShell, inner: Manifold) -> list[Cell]:
    """The separate spaces of the inside; low ends first.

    Parameters
    ----------
    shell : AnyShell
        The shell.
    inner : Manifold
        The inside, with everything taken off that stands in it.

    Returns
    -------
    list of Cell
        Each with its own waterline.
    """
    if inner.is_empty():
        raise wrong("shell", "nothing is left of the inside", 0.0, "some room for fuel")
    parts = inner.decompose()
    if any(part.volume() / 1e6 < -SLIVER_L for part in parts):
        raise wrong(
            "shell.features", "a relief lies wholly inside the tank: nothing passes by there", None, "an open side"
        )
    parts = [part for part in parts if part.volume() / 1e6 > SLIVER_L]
    partitions = [f for f in shell.features if isinstance(f, Partition)]
    axis = "xy".index(partitions[0].axis) if partitions else 0
    parts.sort(key=lambda part: (part.bounding_box()[axis], part.bounding_box()[2]))
    names = list(_cell_names(len(parts), axis))
    return [Cell(name=name, solid=part, mesh=mesh_of(part)) for name, part in zip(names, parts, strict=True)]


def _cell_names(count: int, axis: int) -> Iterator[str]:
    ends = ("rear cell", "front cell") if axis == 0 else ("right cell", "left cell")
    for place in range(count):
        if count == 1:
            yield "tank"
        elif place in (0, count - 1):
            yield ends[0 if place == 0 else 1]
        else:
            yield f"cell {place + 1} of {count}"
