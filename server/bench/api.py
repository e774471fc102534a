"""The bench: start a calibration, pour, watch readings come in, keep the curve."""

import secrets
from datetime import datetime, timedelta
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.security import HttpBearer

from keel.design.document import Design
from keel.design.faults import Fault
from keel.design.gauge import Sender
from keel.formats.ports import curve_csv
from keel.formats.table import read_table
from keel.solid.interior import solids_of
from keel.solid.solids import Solids
from keel.studies.gauge.calibration import calculated_ohms, fitted
from server.bench.meters import flow_meter, ohm_meter, pour_seconds
from server.bench.models import Calibration, Reading, hashed
from server.bench.schemas import CalibrationOut, Live, PourIn, ReadingIn, ReadingOut, StartIn, TokenOut
from server.http.errors import ApiError, ErrorOut, refused
from server.jobs.api.designs import own_design
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["bench"])
MOST_READINGS = 500


class Token(HttpBearer):
    """An instrument's token, good for one calibration that isn't closed."""

    def authenticate(self, request: HttpRequest, token: str) -> Calibration | None:
        """The calibration it belongs to."""
        return Calibration.objects.filter(token_hash=hashed(token), closed=False).first()


@router.get("designs/{design_id}/calibrations", response={200: list[CalibrationOut], 404: ErrorOut}, auth=anyone)
def list_calibrations(request: Request, design_id: int) -> list[CalibrationOut]:
    """A design's calibrations, newest first."""
    return [_out(item) for item in own_design(request, design_id).calibrations.select_related("author")]


@router.post(
    "designs/{design_id}/calibrations", response={201: CalibrationOut, 404: ErrorOut, 422: ErrorOut}, auth=writer
)
def start(request: Request, design_id: int, data: StartIn) -> tuple[int, CalibrationOut]:
    """Start measuring a sender of the design's present revision."""
    tank = own_design(request, design_id)
    design = tank.current().design()
    sender = sender_of(design, data.sender)
    if calculated_ohms(sender, solids_of(design), 0.0) is None:
        raise refused("sender", data.sender, "a sender in the tank", f"{sender.name} hangs outside the tank.")
    made = Calibration.objects.create(
        workshop=request.user.workshop,
        tank=tank,
        revision=tank.revision,
        sender=data.sender,
        author=request.user,
        note=data.note,
    )
    return 201, _out(made)


@router.get("calibrations/{calibration_id}", response={200: CalibrationOut, 404: ErrorOut}, auth=anyone)
def read(request: Request, calibration_id: int) -> CalibrationOut:
    """A calibration with what has come in so far."""
    return _out(_own(request, calibration_id))


@router.post(
    "calibrations/{calibration_id}/pour", response={200: CalibrationOut, 404: ErrorOut, 422: ErrorOut}, auth=writer
)
def pour(request: Request, calibration_id: int, data: PourIn) -> CalibrationOut:
    """Pour with the simulated meters: the reading comes in when the pour is over."""
    item = _open(request, calibration_id)
    sender, solids = _truth(item)
    last = item.readings.last()
    now = timezone.now()
    if last is not None and last.at > now:
        raise ApiError(422, "pouring", "A pour is still running; wait until it is over.")
    inside = (last.litres if last else 0.0) + data.litres
    seed = item.pk * 1000 + item.readings.count()
    true = calculated_ohms(sender, solids, inside)
    if true is None:
        raise refused("sender", item.sender, "a sender in the tank", "The sender hangs outside the tank.")
    counted = (last.litres if last else 0.0) + flow_meter(data.litres, seed)
    ohms = ohm_meter(true, sender.ohms_empty, sender.ohms_full, seed)
    _add(
        item,
        counted,
        ohms,
        now + timedelta(seconds=pour_seconds(data.litres)),
        simulated=True,
        source="simulated meters",
    )
    return _out(item)


@router.post(
    "calibrations/{calibration_id}/readings.csv",
    response={200: CalibrationOut, 404: ErrorOut, 422: ErrorOut},
    auth=writer,
)
def readings_in(request: Request, calibration_id: int) -> CalibrationOut:
    """Readings of real instruments from a CSV file with columns litres and ohms; bad rows are named, good ones kept."""
    item = _open(request, calibration_id)
    table = read_table(request.read(), {"litres": "number", "ohms": "number"}, {})
    now = timezone.now()
    problems = list(table.problems)
    for number, row in table.rows.items():
        litres, ohms = float(row["litres"] or 0.0), float(row["ohms"] or 0.0)
        if litres < 0 or ohms < 0:
            column, value = ("litres", litres) if litres < 0 else ("ohms", ohms)
            message = f"row {number}, column {column}: {value:g} must be 0 or more"
            problems.append(Fault(field=f"row {number}, {column}", value=value, limit="0 or more", message=message))
            continue
        _add(item, litres, ohms, now, simulated=False, source="CSV file")
    answer = _out(item)
    answer.problems = problems
    return answer


@router.get("calibrations/{calibration_id}/curve.csv", response={200: bytes, 404: ErrorOut}, auth=anyone)
def curve_out(request: Request, calibration_id: int) -> HttpResponse:
    """The fitted curve as CSV, for a gauge that learns: each row says whether simulated readings are in it."""
    answer = _out(_own(request, calibration_id))
    content = curve_csv(answer.curve, simulated=answer.simulated, units=request.user.reads)
    disposition = f'attachment; filename="calibration-{answer.id}.csv"'
    return HttpResponse(content, content_type="text/csv; charset=utf-8", headers={"Content-Disposition": disposition})


@router.post("calibrations/{calibration_id}/token", response={200: TokenOut, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def make_token(request: Request, calibration_id: int) -> TokenOut:
    """A token for a real instrument; shown once, and the one before stops working."""
    return TokenOut(token=_open(request, calibration_id).new_token())


@router.post("bench/readings", response={200: ReadingIn, 401: ErrorOut, 422: ErrorOut}, auth=Token())
def reading_in(request: HttpRequest, data: ReadingIn) -> ReadingIn:
    """A reading sent by an instrument with its token."""
    item: Calibration = request.auth  # type: ignore[attr-defined]
    _add(item, data.litres, data.ohms, timezone.now(), simulated=False, source="instrument")
    return data


@router.post("calibrations/{calibration_id}/close", response={200: CalibrationOut, 404: ErrorOut}, auth=writer)
def close(request: Request, calibration_id: int) -> CalibrationOut:
    """Keep it as it is: nothing more comes in."""
    item = _own(request, calibration_id)
    item.closed, item.token_hash = True, ""
    item.save(update_fields=["closed", "token_hash"])
    return _out(item)


def _own(request: Request, calibration_id: int) -> Calibration:
    found = Calibration.objects.select_related("author", "tank")
    return get_object_or_404(found, pk=calibration_id, workshop=request.user.workshop)


def _open(request: Request, calibration_id: int) -> Calibration:
    item = _own(request, calibration_id)
    if item.closed:
        raise ApiError(422, "closed", "This calibration is closed; start another.")
    return item


def _add(item: Calibration, litres: float, ohms: float, at: datetime, **more: Any) -> None:
    if item.readings.count() >= MOST_READINGS:
        message = f"A calibration takes {MOST_READINGS} readings."
        raise refused("readings", MOST_READINGS, f"at most {MOST_READINGS}", message)
    Reading.objects.create(calibration=item, litres=litres, ohms=ohms, at=at, **more)


def sender_of(design: Design, name: str) -> Sender:
    """A design's sender by its id; 422 without it."""
    found = next((sender for sender in design.gauge.senders if sender.id == name), None)
    if found is None or design.shell is None:
        raise refused("sender", name, "a sender of this design", f"This design has no sender {name}.")
    return found


def _truth(item: Calibration) -> tuple[Sender, Solids]:
    design = item.tank.revisions.get(number=item.revision).design()
    sender = sender_of(design, item.sender)
    return sender, solids_of(design)


def _out(item: Calibration) -> CalibrationOut:
    sender, solids = _truth(item)
    now = timezone.now()
    everything = list(item.readings.all())
    come = [reading for reading in everything if reading.at <= now]
    answer = fitted(sender, solids, [(reading.litres, reading.ohms) for reading in come])
    compared = answer.readings if answer else []
    beside = {(c.litres, c.ohms): {"calculated_l": c.calculated_l, "off_l": c.off_l} for c in compared}
    return CalibrationOut(
        id=item.pk,
        sender=item.sender,
        sender_name=sender.name,
        revision=item.revision,
        started=item.started,
        author=item.author.name,
        closed=item.closed,
        note=item.note,
        simulated=any(reading.simulated for reading in everything),
        live=_live(sender, solids, everything, now),
        readings=[
            ReadingOut(
                litres=reading.litres,
                ohms=reading.ohms,
                at=reading.at,
                simulated=reading.simulated,
                source=reading.source,
                **beside.get((reading.litres, reading.ohms), {"calculated_l": None, "off_l": None}),
            )
            for reading in come
        ],
        curve=answer.curve if answer else [],
        worst_l=answer.worst_l if answer else None,
        rms_l=answer.rms_l if answer else None,
    )


def _live(sender: Sender, solids: Solids, readings: list[Reading], now: datetime) -> Live | None:
    """The meters in the middle of a pour."""
    running = next((reading for reading in readings if reading.at > now), None)
    if running is None:
        return None
    before = max((r.litres for r in readings if r.at <= now), default=0.0)
    left = (running.at - now).total_seconds()
    share = 1 - min(1.0, left / max(0.1, pour_seconds(running.litres - before)))
    litres = before + share * (running.litres - before)
    true = calculated_ohms(sender, solids, litres) or sender.ohms_empty
    flicker = secrets.randbelow(1000)
    return Live(litres=litres, ohms=ohm_meter(true, sender.ohms_empty, sender.ohms_full, flicker), left_s=left)
