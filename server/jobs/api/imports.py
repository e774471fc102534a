"""Things in: scans as STL, profiles as DXF, buying lists as CSV."""

from typing import Annotated

from ninja import Query, Router, Schema
from pydantic import Field

from keel.design.base import PLAIN
from keel.design.buying import BuyingLine
from keel.design.faults import Fault
from keel.design.shell import Corner
from keel.formats.buying import read_buying
from keel.formats.outline import read_outline
from keel.formats.stl import StlUnit
from server.http.errors import ErrorOut, not_yours, refused
from server.jobs.models import Scan
from server.jobs.scans import keep_scan, mesh_of, shown_of
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["imports"])


class ScanQuery(Schema):
    """What an STL file doesn't say of itself."""

    unit: StlUnit
    name: Annotated[str, Field(min_length=1, max_length=80, pattern=PLAIN)] = "scan"


class ScanOut(Schema):
    """A kept scan: its fingerprint, sizes, and a thinned picture of it (coordinates and corners in threes)."""

    fingerprint: str
    name: str
    triangles: int
    low_mm: list[float]
    high_mm: list[float]
    shown_points: list[float]
    shown_triangles: list[int]


class OutlineOut(Schema):
    """A profile read from a drawing."""

    corners: list[Corner]
    remark: str


@router.post("scans", response={200: ScanOut, 413: ErrorOut, 422: ErrorOut}, auth=writer)
def upload_scan(request: Request, query: Query[ScanQuery]) -> ScanOut:
    """Keep a scanned part or cavity. The body is the STL file as it is."""
    return _scan_out(keep_scan(request.user.workshop, request.user, query.name, query.unit, _file(request)))


@router.get("scans/{fingerprint}", response={200: ScanOut, 404: ErrorOut}, auth=anyone)
def get_scan(request: Request, fingerprint: str) -> ScanOut:
    """A kept scan of the workshop."""
    found = Scan.objects.filter(workshop=request.user.workshop, fingerprint=fingerprint).first()
    if found is None:
        raise not_yours()
    return _scan_out(found)


@router.post("outline", response={200: OutlineOut, 413: ErrorOut, 422: ErrorOut}, auth=writer)
def read_profile(request: Request) -> OutlineOut:
    """A profile's corners from a DXF drawing. The body is the file as it is; nothing is stored."""
    corners, remark = read_outline(_file(request))
    return OutlineOut(corners=corners, remark=remark)


class BuyingRead(Schema):
    """Lines of a buying list that could be read, and what was wrong with the others."""

    lines: list[BuyingLine]
    problems: list[Fault]


@router.post("buying.csv", response={200: BuyingRead, 413: ErrorOut, 422: ErrorOut}, auth=writer)
def read_buying_list(request: Request) -> BuyingRead:
    """What a buying list in CSV says of its lines. The body is the file as it is; nothing is stored."""
    lines, problems = read_buying(_file(request))
    return BuyingRead(lines=lines, problems=problems)


def _file(request: Request) -> bytes:
    data = request.read()
    if not data:
        raise refused("file", None, "a file", "No file came along.")
    return data


def _scan_out(scan: Scan) -> ScanOut:
    mesh = mesh_of(scan)
    shown = shown_of(scan)
    return ScanOut(
        fingerprint=scan.fingerprint,
        name=scan.name,
        triangles=len(mesh.triangles),
        low_mm=mesh.points.min(axis=0).tolist(),
        high_mm=mesh.points.max(axis=0).tolist(),
        shown_points=shown.points.round(1).ravel().tolist(),
        shown_triangles=shown.triangles.ravel().tolist(),
    )
