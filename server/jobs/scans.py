"""Kept scans: meshes too large for a design document, by their fingerprint."""

import hashlib
import io
from functools import lru_cache

import numpy as np

from keel.design.bay import ScanKeepOut
from keel.design.document import Design
from keel.formats.stl import StlUnit, read_stl, thinned
from keel.solid.polyhedron import Mesh
from server.jobs.models import Scan
from server.workshop.models import Person, Workshop

SHOWN_TRIANGLES = 4000


def keep_scan(workshop: Workshop, author: Person, name: str, unit: StlUnit, data: bytes) -> Scan:
    """Read an STL file and keep its mesh; the same mesh is kept once a workshop.

    Raises
    ------
    UnreadableMeshError
        When the file is no usable mesh.
    """
    mesh = read_stl(data, unit)
    packed = _packed(mesh)
    fingerprint = hashlib.sha256(packed).hexdigest()
    found = Scan.objects.filter(workshop=workshop, fingerprint=fingerprint).first()
    if found is None:
        kept = {"name": name, "mesh": packed, "shown": _packed(thinned(mesh, SHOWN_TRIANGLES)), "author": author}
        found, _ = Scan.objects.get_or_create(workshop=workshop, fingerprint=fingerprint, defaults=kept)
    return found


def mesh_of(scan: Scan) -> Mesh:
    """The kept mesh [mm]."""
    return _unpacked(scan.fingerprint, bytes(scan.mesh))


def shown_of(scan: Scan) -> Mesh:
    """The kept mesh as the drawing shows it, thinned when it was kept."""
    if not scan.shown:  # kept before they were thinned once
        scan.shown = _packed(thinned(mesh_of(scan), SHOWN_TRIANGLES))
        scan.save(update_fields=["shown"])
    return _unpacked(f"shown {scan.fingerprint}", bytes(scan.shown))


def scans_of(workshop: Workshop, design: Design) -> dict[str, Mesh]:
    """The scans that a design refers to and the workshop has."""
    wanted = {k.scan for k in design.bay.keep_outs if isinstance(k, ScanKeepOut)} if design.bay else set()
    if design.mount.vehicle:
        vehicle = workshop.document().vehicle(design.mount.vehicle)
        wanted |= {part.scan for part in vehicle.parts if part.scan} if vehicle else set()
    if not wanted:
        return {}
    found = Scan.objects.filter(workshop=workshop, fingerprint__in=wanted)
    return {scan.fingerprint: mesh_of(scan) for scan in found}


def _packed(mesh: Mesh) -> bytes:
    stream = io.BytesIO()
    np.savez_compressed(
        stream, points=mesh.points.astype(np.float32), triangles=mesh.triangles.astype(np.int32), allow_pickle=False
    )
    return stream.getvalue()


@lru_cache(maxsize=8)
def _unpacked(fingerprint: str, packed: bytes) -> Mesh:
    del fingerprint
    with np.load(io.BytesIO(packed), allow_pickle=False) as parts:
        return Mesh(parts["points"].astype(np.float64), parts["triangles"].astype(np.int64))
