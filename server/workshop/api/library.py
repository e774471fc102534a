"""The workshop's pumps, parts and senders, in and out as CSV."""

from django.http import HttpResponse
from ninja import Router, Schema

from keel.design.faults import Fault
from keel.design.gauge import SenderPart
from keel.design.line_parts import LibraryComponent
from keel.design.ports import PortPart
from keel.design.pumps import Pump
from keel.formats.library import pumps_csv, read_pumps, read_senders, senders_csv
from keel.formats.line_library import line_parts_csv, read_line_parts
from keel.formats.part_library import parts_csv, read_parts
from server.http.errors import ErrorOut, refused
from server.workshop.guard import Request, anyone

router = Router(tags=["library"])


class PumpsRead(Schema):
    """Pumps of a file that could be read, and what was wrong with the others."""

    pumps: list[Pump]
    problems: list[Fault]


class PartsRead(Schema):
    """Parts of a file that could be read, and what was wrong with the others."""

    parts: list[PortPart]
    problems: list[Fault]


class SendersRead(Schema):
    """Senders of a file that could be read, and what was wrong with the others."""

    senders: list[SenderPart]
    problems: list[Fault]


class LinePartsRead(Schema):
    """Line parts of a file that could be read, and what was wrong with the others."""

    line_parts: list[LibraryComponent]
    problems: list[Fault]


@router.get("workshop/pumps.csv", response={200: bytes}, auth=anyone)
def pumps_out(request: Request) -> HttpResponse:
    """The workshop's pumps."""
    return _csv(pumps_csv(request.user.workshop.document().pumps, request.user.reads), "pumps.csv")


@router.get("workshop/parts.csv", response={200: bytes}, auth=anyone)
def parts_out(request: Request) -> HttpResponse:
    """The workshop's parts."""
    return _csv(parts_csv(request.user.workshop.document().parts, request.user.reads), "parts.csv")


@router.post("workshop/pumps.csv", response={200: PumpsRead, 422: ErrorOut}, auth=anyone)
def pumps_in(request: Request) -> PumpsRead:
    """Read pumps from a CSV file, the body as it is. Nothing is stored: the settings are saved with them."""
    pumps, problems = read_pumps(_body(request))
    return PumpsRead(pumps=pumps, problems=problems)


@router.post("workshop/parts.csv", response={200: PartsRead, 422: ErrorOut}, auth=anyone)
def parts_in(request: Request) -> PartsRead:
    """Read parts from a CSV file, the body as it is. Nothing is stored: the settings are saved with them."""
    parts, problems = read_parts(_body(request))
    return PartsRead(parts=parts, problems=problems)


@router.get("workshop/line_parts.csv", response={200: bytes}, auth=anyone)
def line_parts_out(request: Request) -> HttpResponse:
    """The workshop's line parts."""
    parts = request.user.workshop.document().line_parts
    return _csv(line_parts_csv(parts, request.user.reads), "line parts.csv")


@router.post("workshop/line_parts.csv", response={200: LinePartsRead, 422: ErrorOut}, auth=anyone)
def line_parts_in(request: Request) -> LinePartsRead:
    """Read line parts from a CSV file, the body as it is. Nothing is stored: the settings are saved with them."""
    parts, problems = read_line_parts(_body(request))
    return LinePartsRead(line_parts=parts, problems=problems)


@router.get("workshop/senders.csv", response={200: bytes}, auth=anyone)
def senders_out(request: Request) -> HttpResponse:
    """The workshop's senders."""
    return _csv(senders_csv(request.user.workshop.document().senders, request.user.reads), "senders.csv")


@router.post("workshop/senders.csv", response={200: SendersRead, 422: ErrorOut}, auth=anyone)
def senders_in(request: Request) -> SendersRead:
    """Read senders from a CSV file, the body as it is. Nothing is stored: the settings are saved with them."""
    senders, problems = read_senders(_body(request))
    return SendersRead(senders=senders, problems=problems)


def _body(request: Request) -> bytes:
    data = request.read()
    if not data:
        raise refused("file", None, "a file", "No file came along.")
    return data


def _csv(content: bytes, name: str) -> HttpResponse:
    disposition = f'attachment; filename="{name}"'
    return HttpResponse(content, content_type="text/csv; charset=utf-8", headers={"Content-Disposition": disposition})
