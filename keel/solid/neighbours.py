"""Keep-outs and the bay's outline as solids."""

from collections.abc import Mapping

import numpy as np
from manifold3d import Manifold
from shapely.geometry import MultiPolygon, Polygon, box

from keel.design.bay import SIDES, AnyKeepOut, Bay, KeepOut, RoundKeepOut, SlopeKeepOut
from keel.solid.faults import wrong
from keel.solid.polyhedron import Array, Mesh
from keel.solid.rings import circle
from keel.solid.shapes import block, drawn_out

FAR_MM = 20_000.0
Scans = Mapping[str, Mesh]
"""Kept scans by their fingerprint."""


def solid_of_keep_out(keep_out: AnyKeepOut, bay: Bay) -> Manifold | None:
    """A keep-out as a solid; None for a scan, which is only a surface.

    Parameters
    ----------
    keep_out : AnyKeepOut
        Any keep-out of the bay.
    bay : Bay
        The bay it stands in.

    Returns
    -------
    Manifold or None
        In vehicle axes [mm].
    """
    match keep_out:
        case KeepOut():
            low = (keep_out.x_mm, keep_out.y_mm, keep_out.z_mm)
            high = (low[0] + keep_out.length_mm, low[1] + keep_out.width_mm, low[2] + keep_out.height_mm)
            return block(low, high)
        case RoundKeepOut():
            axis = "xyz".index(keep_out.axis)
            place = (keep_out.x_mm, keep_out.y_mm, keep_out.z_mm)
            middle = np.array([place[i] for i in range(3) if i != axis])
            return drawn_out(
                middle + circle(keep_out.diameter_mm / 2), axis, place[axis], place[axis] + keep_out.run_mm
            )
        case SlopeKeepOut():
            return slope_solid(keep_out, bay)
    return None


def slope_plane(slope: SlopeKeepOut, bay: Bay) -> tuple[Array, float]:
    """The plane of a slope: its unit normal into the blocked side, and its offset along that [mm].

    Parameters
    ----------
    slope : SlopeKeepOut
        A slope of the bay.
    bay : Bay
        The bay it stands in.

    Returns
    -------
    (ndarray, float)
        Normal of shape (3,), offset [mm].
    """
    side = SIDES.index(slope.blocked)
    axis, out = side // 2, 1.0 if side % 2 else -1.0
    along = "xyz".index(slope.along)
    run = (bay.length_mm, bay.width_mm, bay.height_mm)[along]
    normal = np.zeros(3)
    normal[axis] = out
    normal[along] = -out * (slope.end_mm - slope.start_mm) / run
    size = float(np.linalg.norm(normal))
    return normal / size, out * slope.start_mm / size


def slope_solid(slope: SlopeKeepOut, bay: Bay) -> Manifold:
    """What lies beyond a slope, as far as the bay and its surroundings go."""
    normal, offset = slope_plane(slope, bay)
    size = (bay.length_mm, bay.width_mm, bay.height_mm)
    around = block((-size[0], -size[1], -size[2]), (2 * size[0], 2 * size[1], 2 * size[2]))
    return around.trim_by_plane(list(normal), offset)


def outline_pieces(bay: Bay) -> list[tuple[Polygon, Manifold]]:
    """What a bay's profile cuts off its box: pieces of the box outside the outline.

    Parameters
    ----------
    bay : Bay
        With a profile, or none.

    Returns
    -------
    list of tuple[Polygon, Manifold]
        Each piece's outline and solid; empty without a profile.

    Raises
    ------
    GeometryError
        When the outline crosses itself.
    """
    if bay.profile is None:
        return []
    axis = 0 if bay.profile.axis == "x" else 1
    outline = Polygon([(p.across_mm, p.up_mm) for p in bay.profile.points])
    if not outline.is_valid or outline.area < 1:
        raise wrong("bay.profile.points", "the bay's outline crosses itself or is empty", None, "a simple outline")
    across = bay.width_mm if axis == 0 else bay.length_mm
    run = bay.length_mm if axis == 0 else bay.width_mm
    rest = box(0, 0, across, bay.height_mm).difference(outline)
    pieces = rest.geoms if isinstance(rest, MultiPolygon) else [rest]
    found = []
    for piece in pieces:
        if not isinstance(piece, Polygon) or piece.area < 1:
            continue
        ring = np.array(piece.exterior.coords)[:-1]
        if not piece.exterior.is_ccw:
            ring = ring[::-1]
        found.append((piece, drawn_out(ring, axis, 0.0, run)))
    return found


def scan_mesh(keep_out: AnyKeepOut, scans: Scans) -> Mesh | None:
    """The mesh of a scan where it stands in the bay; None when it isn't at hand.

    Parameters
    ----------
    keep_out : AnyKeepOut
        A scan, or any other.
    scans : Scans
        Meshes by the scan's name.

    Returns
    -------
    Mesh or None
        In vehicle axes [mm].
    """
    if keep_out.kind != "scan" or keep_out.scan not in scans:
        return None
    mesh = scans[keep_out.scan]
    return Mesh(mesh.points + np.array([keep_out.x_mm, keep_out.y_mm, keep_out.z_mm]), mesh.triangles)
