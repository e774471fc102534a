"""What plates that are welded across a face make of it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise, product

from keel.design.features import Baffle, Feature, Partition
from keel.solid.solids import Solids
from keel.studies.strength.panels.bearing import bears_kpa, rectangle
from keel.studies.strength.panels.faces import Face
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import OVER, Panel, PanelEdge, edge_at


def braces(features: Sequence[Feature], axis: int, size_mm: float, wall_mm: float) -> list[tuple[float, str]]:
    """Where plates brace the sheet along x (0) or y (1): their middles from the low end [mm] and names, with both ends.

    Parameters
    ----------
    features : sequence of Feature
        The shell's.
    axis : int
        0 or 1: x or y.
    size_mm : float
        Of the body along it [mm].
    wall_mm : float
        Sheet of features that name none [mm].

    Returns
    -------
    list of tuple[float, str]
        In order from the low end.
    """
    plates = [f for f in features if isinstance(f, Partition) or (isinstance(f, Baffle) and f.top_gap_mm == 0)]
    inner = sorted((f.middle_mm(wall_mm), f.name) for f in plates if "xy".index(f.axis) == axis)
    return [(0.0, ""), *inner, (size_mm, "")]


@dataclass(frozen=True, slots=True)
class Field:
    """What plates leave of a face: from where along both its sides [mm], how long, and how it is held."""

    low: tuple[float, float]
    sides: tuple[float, float]
    edges: tuple[PanelEdge, PanelEdge, PanelEdge, PanelEdge]


def fields_of(
    face: Face, solids: Solids, plates: Sequence[Feature], span: tuple[float, float] | None = None
) -> list[Field]:
    """The fields between the plates that a face is welded to.

    Parameters
    ----------
    face : Face
        With the axes that its sides lie along.
    solids : Solids
        The shell worked out.
    plates : sequence of Feature
        What stands in it.
    span : (float, float), optional
        From where to where the face reaches along its first side [mm]; all of it where none is named.

    Returns
    -------
    list of Field
        One, where no plate meets it.
    """
    along = [
        list(_between(plates, axis, size, edges, solids.shell.feature_wall_mm, span if number == 0 else None))
        for number, (axis, size, edges) in enumerate(
            zip(face.axes, face.sides, (face.edges[:2], face.edges[2:]), strict=True)
        )
    ]
    return [Field((a, b), (wide, tall), (*first, *second)) for (a, wide, first), (b, tall, second) in product(*along)]


def worst_field(
    face: Face, solids: Solids, plates: Sequence[Feature], loads: Loads, span: tuple[float, float] | None = None
) -> Panel:
    """Of the fields between the plates that a face is welded to, the one that bears least."""
    fields = fields_of(face, solids, plates, span)
    least = min(fields, key=lambda field: bears_kpa(face, field.sides, field.edges, solids.shell, loads))
    return rectangle(face, least.sides, least.edges, solids.shell, loads)


def _between(
    plates: Sequence[Feature],
    axis: int,
    size_mm: float,
    ends: Sequence[PanelEdge],
    wall_mm: float,
    span: tuple[float, float] | None,
) -> Iterator[tuple[float, float, tuple[PanelEdge, PanelEdge]]]:
    """Where along one side each field begins between braces, how long it is, and how it is held at its two ends."""
    low, high = span or (0.0, size_mm)
    places = braces(plates, axis, size_mm, wall_mm) if axis in (0, 1) else [(0.0, ""), (size_mm, "")]
    inner = [(at, name) for at, name in places[1:-1] if low < at < high]
    for (a, before), (b, after) in pairwise([(low, ""), *inner, (high, "")]):
        if a == b:
            continue
        held = (edge_at(before, OVER) if before else ends[0], edge_at(after, OVER) if after else ends[1])
        yield a, b - a, held
