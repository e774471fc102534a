"""STL meshes in: ASCII and binary, in the unit that the user says."""

import re
from typing import Literal

import numpy as np

from keel.design.faults import Fault
from keel.reference.units import MM_PER_INCH
from keel.solid.polyhedron import Array, Index, Mesh

StlUnit = Literal["mm", "cm", "m", "in"]
MM_PER: dict[StlUnit, float] = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": MM_PER_INCH}
MOST_TRIANGLES = 200_000
LONGEST_MM = 20_000.0
FINEST_GRID, COARSEST_GRID = 200.0, 4.0
"""Cells along a mesh's longest side that it is thinned by."""
HEADER, RECORD = 84, 50
NUMBER = rb"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?"
VERTEX = re.compile(rb"vertex\s+(\S+)\s+(\S+)\s+(\S+)")


class UnreadableMeshError(ValueError):
    """A file that is no usable STL mesh; `fault` says why."""

    def __init__(self, message: str, value: str | float | int | None, limit: str) -> None:
        super().__init__(message)
        self.fault = Fault(field="file", value=value, limit=limit, message=message)


def read_stl(data: bytes, unit: StlUnit) -> Mesh:
    """A mesh from an STL file.

    Parameters
    ----------
    data : bytes
        ASCII or binary, of at most 200 000 triangles.
    unit : str
        What one unit of the file is: STL files don't say.

    Returns
    -------
    Mesh
        Corners at the same place are one point; triangles without area are left out [mm].

    Raises
    ------
    UnreadableMeshError
        When the file is cut short, holds no numbers where there should be some, is empty or too large.
    """
    corners = _binary(data) if _is_binary(data) else _ascii(data)
    if not len(corners):
        raise UnreadableMeshError("the file holds no triangles", 0, "at least 4 triangles")
    if not np.isfinite(corners).all():
        raise UnreadableMeshError("the file holds coordinates that are no finite numbers", "NaN", "finite numbers")
    corners = corners * MM_PER[unit]
    reach = float(np.abs(corners).max())
    if reach > LONGEST_MM:
        raise UnreadableMeshError(
            f"in {unit} the mesh reaches {reach:.0f} mm from its origin; is that the right unit?",
            round(reach),
            f"{LONGEST_MM:.0f} mm or less",
        )
    return merged(corners)


def merged(corners: Array) -> Mesh:
    """Triangles of shape (n, 3, 3) with corners at the same place made one point.

    Parameters
    ----------
    corners : ndarray
        Corners of each triangle [mm].

    Returns
    -------
    Mesh
        Points once each, and triangles by their numbers.
    """
    points, index = np.unique(corners.reshape(-1, 3), axis=0, return_inverse=True)
    triangles = index.reshape(-1, 3)
    whole = (
        (triangles[:, 0] != triangles[:, 1])
        & (triangles[:, 1] != triangles[:, 2])
        & (triangles[:, 2] != triangles[:, 0])
    )
    if not whole.any():
        raise UnreadableMeshError("no triangle of the file has any area", 0, "triangles with three corners")
    return Mesh(points, triangles[whole])


def _is_binary(data: bytes) -> bool:
    """By the size its count calls for; a text file may begin with 'solid', but so may a binary header."""
    if len(data) >= HEADER:
        count = int.from_bytes(data[80:84], "little")
        if len(data) == HEADER + RECORD * count:
            return True
    return not (data[:512].lstrip()[:5].lower() == b"solid" and b"\x00" not in data[:512])


def _binary(data: bytes) -> Array:
    if len(data) < HEADER:
        raise UnreadableMeshError(
            f"the file is {len(data)} bytes, too short for an STL file", len(data), f"{HEADER} bytes or more"
        )
    count = int.from_bytes(data[80:84], "little")
    _check_count(count)
    wanted = HEADER + RECORD * count
    if len(data) < wanted:
        raise UnreadableMeshError(
            f"the file is cut short: {count} triangles need {wanted} bytes, it has {len(data)}",
            len(data),
            f"{wanted} bytes",
        )
    record = np.dtype([("normal", "<f4", 3), ("corners", "<f4", (3, 3)), ("more", "<u2")])
    return np.frombuffer(data, dtype=record, count=count, offset=HEADER)["corners"].astype(np.float64)


def _ascii(data: bytes) -> Array:
    found = VERTEX.findall(data)
    _check_count(len(found) // 3)
    facets = len(re.findall(rb"\bendfacet\b", data))
    if len(found) % 3 or facets * 3 != len(found):
        raise UnreadableMeshError(
            f"the file is cut short or broken: {len(found)} corners in {facets} whole triangles",
            len(found),
            "three corners a triangle",
        )
    try:
        return np.array(found, dtype="S32").astype(np.float64).reshape(-1, 3, 3)
    except ValueError as error:
        bad = next((w for v in found for w in v if not re.fullmatch(NUMBER, w)), b"")
        shown = bad.decode("latin-1")[:40]
        raise UnreadableMeshError(f"'{shown}' stands where a number should", shown, "a number") from error


def _check_count(count: int) -> None:
    if count > MOST_TRIANGLES:
        raise UnreadableMeshError(
            f"the file has {count} triangles; {MOST_TRIANGLES} are taken. Thin the scan first.",
            count,
            f"{MOST_TRIANGLES} triangles or less",
        )


def thinned(mesh: Mesh, most: int) -> Mesh:
    """A coarser mesh for showing: points within a cell of a grid become one; the grid is as fine as `most` allows.

    Parameters
    ----------
    mesh : Mesh
        Any triangles.
    most : int
        Triangles wanted at most.

    Returns
    -------
    Mesh
        Triangles that have shrunk to nothing are gone.
    """
    if len(mesh.triangles) <= most:
        return mesh
    low = mesh.points.min(axis=0)
    size, cells = float(np.ptp(mesh.points, axis=0).max()), FINEST_GRID
    while True:
        points, triangles = _gridded(mesh, low, size / cells)
        if len(triangles) <= most:
            return Mesh(points, triangles)
        if cells < COARSEST_GRID:  # no surface, but a tangle: some of it is shown
            return Mesh(points, triangles[:: -(-len(triangles) // most)])
        cells *= min(0.8, max(0.5, (most / len(triangles)) ** 0.5))


def _gridded(mesh: Mesh, low: Array, cell: float) -> tuple[Array, Index]:
    """Points within a cell of a grid made one, and the triangles that are left, each once."""
    grid = np.round((mesh.points - low) / cell).astype(np.int64)
    # One number a cell and one a triangle: sorting rows takes twenty times as long.
    _, index = np.unique((grid[:, 0] << 40) | (grid[:, 1] << 20) | grid[:, 2], return_inverse=True)
    sizes = np.bincount(index)
    points = np.stack([np.bincount(index, mesh.points[:, axis]) / sizes for axis in range(3)], axis=1)
    t = np.sort(index[mesh.triangles], axis=1)
    t = t[(t[:, 0] != t[:, 1]) & (t[:, 1] != t[:, 2])]
    _, kept = np.unique((t[:, 0] << 42) | (t[:, 1] << 21) | t[:, 2], return_index=True)
    return points, t[kept]
