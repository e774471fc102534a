"""The flat sides of wells, sumps, reliefs and roof steps as faces that pressure bears on."""

from collections.abc import Iterator
from functools import lru_cache

import numpy as np

from keel.design.features import Relief, RoofStep, Sump, Well
from keel.solid.box import Cuboid, Triple
from keel.solid.facets import Faced, Facet, facets_of, fold_of, is_flat_sided
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.strength.panels.faces import Face, Frame
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import BEND, WELD, edge_at

CLEAR_MM, WITHIN_MM, PARALLEL = 1.0, 1e-6, 1e-9
OVER_ALL = 1e6
LEAST_CORNERS = 3
FEATURES_KEPT = 512


def let_in_faces(solids: Solids, loads: Loads) -> Iterator[Face]:
    """Every flat side of what is let into a shell, let down from it or cut off it.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    loads : Loads
        What presses on it.

    Yields
    ------
    Face
        As the rectangle round it, which errs safe. An edge to a side that is bent up with it is clamped, all others
        are welded from one side.
    """
    for feature in solids.shell.features:
        if isinstance(feature, Well | Sump | Relief | RoofStep) and is_flat_sided(feature):
            yield from _sides(feature, solids, loads)


def _sides(feature: Faced, solids: Solids, loads: Loads) -> Iterator[Face]:
    for name, joint, frame, sides in _rectangles(feature, solids.body):
        edge = edge_at("its edges", joint)
        yield Face(
            name=f"{feature.name}, {name}",
            what=feature.kind,
            sides=sides,
            axes=(-1, -1),
            edges=(edge, edge, edge, edge),
            thickness_mm=solids.shell.feature_wall_mm,
            pressed=loads.bump(),
            frames=(frame,),
        )


Side = tuple[str, str, Frame, tuple[float, float]]


@lru_cache(maxsize=FEATURES_KEPT)
def _rectangles(feature: Faced, body: Cuboid) -> list[Side]:
    """Every flat side: its name, how it is joined, where it lies, how large it is."""
    facets, fold = facets_of(feature, body), fold_of(feature, body)
    room, found = _room(feature, body), list[Side]()
    for facet in facets:
        corners = _corners(facet, facets, room)
        if len(corners) < LEAST_CORNERS:
            continue
        frame, sides = _rectangle(corners, facet.normal if isinstance(feature, Sump) else -facet.normal)
        is_base = fold is not None and facet.name == fold.base.name and len(fold.sides) == len(facets) - 1
        if min(sides) > CLEAR_MM:
            found.append((facet.name, BEND if is_base else WELD, frame, sides))
    return found


def _room(feature: Faced, body: Cuboid) -> list[tuple[Array, float]]:
    """Half spaces of the body; a sump hangs below it."""
    found = []
    for axis in range(3):
        low = -OVER_ALL if isinstance(feature, Sump) and axis == 2 else body.low[axis]
        found += [(np.eye(3)[axis], body.high[axis]), (-np.eye(3)[axis], -low)]
    return found


def _corners(facet: Facet, facets: list[Facet], room: list[tuple[Array, float]]) -> Array:
    """Corners of one side of a convex space within the body: where it meets two other planes, inside all others."""
    planes = [(one.normal, one.offset) for one in facets if one is not facet] + room
    normals, offsets = np.array([plane[0] for plane in planes]), np.array([plane[1] for plane in planes])
    a, b = np.triu_indices(len(planes), 1)
    three = np.stack([np.broadcast_to(facet.normal, (len(a), 3)), normals[a], normals[b]], axis=1)
    meet = np.abs(np.linalg.det(three)) > PARALLEL
    right = np.stack([np.full(len(a), facet.offset), offsets[a], offsets[b]], axis=1)[meet]
    spots = np.linalg.solve(three[meet], right[..., None])[..., 0]
    return np.asarray(spots[(spots @ normals.T <= offsets + WITHIN_MM).all(axis=1)])


def _rectangle(corners: Array, out: Array) -> tuple[Frame, tuple[float, float]]:
    """The rectangle round some corners in their plane, its first side level."""
    level = np.cross([0.0, 0.0, 1.0], out)
    first = level / np.linalg.norm(level) if np.linalg.norm(level) > PARALLEL else np.array([1.0, 0.0, 0.0])
    second = np.cross(out, first)
    along, up = corners @ first, corners @ second
    corner = along.min() * first + up.min() * second + float(corners[0] @ out) * out
    frame = Frame(_triple(corner), _triple(first), _triple(second), _triple(out))
    return frame, (float(np.ptp(along)), float(np.ptp(up)))


def _triple(place: Array) -> Triple:
    x, y, z = (float(value) for value in place)
    return x, y, z
