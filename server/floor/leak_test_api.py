"""Leak tests: readings in from files, instruments and the simulated gauge; what they prove; practice."""

import hashlib
import secrets
from dataclasses import replace
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router, Schema
from ninja.security import HttpBearer
from pydantic import Field, field_validator

from keel.design.base import Name
from keel.design.faults import Fault
from keel.design.proof import MOST_MINUTES, TestGauge
from keel.formats.pressures import pressures_csv, read_pressures
from keel.log.entry import ClientId
from keel.log.facts import Facts
from keel.log.proof_checks import leak_test_of
from keel.log.proof_entries import Kilopascals, barometer_kpa
from keel.studies.proof.decay import PressureReading
from keel.studies.proof.plan import leak_test
from keel.studies.proof.practice import Lesson, Level, hidden_rig, lesson
from keel.studies.proof.rig import happened, misled
from keel.studies.proof.series import Series, SeriesResult, judge_series, series_of
from keel.studies.result import Words
from server.floor import gauges
from server.floor.build import log_of
from server.floor.leak_tests import (
    NO_SAFE_KPA,
    begun_in,
    facts_of,
    keep,
    plan_of,
    refuse_too_many,
    result_of,
    series_in,
)
from server.floor.models import GaugeToken, SimulatedTank
from server.http.errors import ApiError, ErrorOut, refused
from server.jobs.api.designs import own_design
from server.jobs.models import TankDesign
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["leak tests"])
MOST_AT_ONCE = 4000
ANY_TANK_L = 40.0


class ReadingsOut(Schema):
    """A test's readings so far and what they prove."""

    proof: str
    running: bool
    simulated: bool
    instrument: bool
    """Whether a token was given out for it."""
    result: SeriesResult
    latest: PressureReading | None
    problems: list[Fault] = []


class OfTest(Schema):
    """Which test of which design a file belongs to."""

    design: Annotated[int, Field(ge=1, le=2**62)]
    proof: ClientId


class SimulateIn(Schema):
    """What a simulated tank has round it, and its leak where somebody sets it."""

    level: Level = "changing air"
    leak_sccm: Annotated[float, Field(ge=0, le=1000)] | None = None


class GaugeTokenOut(Schema):
    """Shown once."""

    token: str


class SentReading(Schema):
    """One reading of an instrument; without a minute it is of now."""

    minute: Annotated[float, Field(ge=0, le=MOST_MINUTES)] | None = None
    gauge_kpa: Kilopascals
    temperature_c: Annotated[float, Field(ge=-60, le=120)]
    barometer_kpa: float

    @field_validator("barometer_kpa")
    @classmethod
    def _a_barometer(cls, value: float) -> float:
        return barometer_kpa(value)


class SentReadings(Schema):
    """Readings of an instrument, in their order."""

    readings: Annotated[list[SentReading], Field(min_length=1, max_length=MOST_AT_ONCE)]


class TakenOut(Schema):
    """How many were taken; and whether to let the pressure off at once."""

    taken: int
    stop: Words | None


class PracticeIn(Schema):
    """What to practise on: a cell of a design, or any tank."""

    level: Level = "changing air"
    design: int | None = None
    cell: Name = "tank"


class PracticeOut(Schema):
    """A practice test: everything but what it hides."""

    id: int
    level: str
    volume_l: float
    pressure_kpa: float
    limit_sccm: float
    least_min: float
    gauge: TestGauge
    minutes: float
    result: SeriesResult
    latest: PressureReading | None
    lesson: Lesson | None


class GuessIn(Schema):
    """Whether it leaks more than passes, and how much."""

    leaks: bool
    leak_sccm: Annotated[float, Field(ge=0, le=10_000)]


class GaugeBearer(HttpBearer):
    """A gauge's token, good for one leak test."""

    def authenticate(self, _request: HttpRequest, token: str) -> GaugeToken | None:
        """The test it belongs to."""
        return GaugeToken.objects.filter(token_hash=_hashed(token)).select_related("job", "design").first()


@router.get("designs/{design_id}/leak-tests/{proof}", response={200: ReadingsOut, 404: ErrorOut}, auth=anyone)
def read_test(request: Request, design_id: int, proof: str) -> ReadingsOut:
    """All readings of a test so far, corrected and judged."""
    tank = own_design(request, design_id)
    return _out(tank, _said(tank), proof)


@router.get("designs/{design_id}/leak-tests/{proof}/readings.csv", response={200: None, 404: ErrorOut}, auth=anyone)
def readings_out(request: Request, design_id: int, proof: str) -> HttpResponse:
    """All readings of a test as CSV: what is read in again gives the same verdict."""
    tank = own_design(request, design_id)
    content = pressures_csv(series_in(tank.job, _said(tank), proof), request.user.reads)
    name = f"leak-test-{tank.job.number}-{proof}.csv"
    return HttpResponse(
        content, "text/csv; charset=utf-8", headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )


@router.post(
    "leak-tests/readings", response={200: ReadingsOut, 404: ErrorOut, 413: ErrorOut, 422: ErrorOut}, auth=writer
)
def readings_in(request: Request, of: Query[OfTest]) -> ReadingsOut:
    """Readings from a CSV file, sent as it is; rows that can't be are named, the others are kept."""
    tank, proof = own_design(request, of.design), of.proof
    said = _running(tank, proof)
    found = read_pressures(request.read())
    refuse_too_many(tank.job, proof, len(found.series))
    keep(tank.job, proof, found.series, "file")
    answer = _out(tank, said, proof)
    answer.problems = found.problems
    return answer


@router.post(
    "designs/{design_id}/leak-tests/{proof}/token",
    response={200: GaugeTokenOut, 404: ErrorOut, 422: ErrorOut},
    auth=writer,
)
def make_token(request: Request, design_id: int, proof: str) -> GaugeTokenOut:
    """A token for a real gauge; shown once, and the one before stops working."""
    tank = own_design(request, design_id)
    _running(tank, proof)
    token = secrets.token_urlsafe(24)
    known = {"token_hash": _hashed(token), "design": tank}
    GaugeToken.objects.update_or_create(job=tank.job, proof=proof, defaults=known)
    return GaugeTokenOut(token=token)


@router.post("gauge/readings", response={200: TakenOut, 401: ErrorOut, 422: ErrorOut}, auth=GaugeBearer())
def readings_sent(request: HttpRequest, data: SentReadings) -> TakenOut:
    """Readings sent by a gauge with its token; the answer says when to let the pressure off."""
    known: GaugeToken = request.auth  # type: ignore[attr-defined]
    said = _running(known.design, known.proof)
    begun = begun_in(said, known.proof)
    now = max(0.0, (timezone.now() - begun.happened).total_seconds() / 60)
    readings = [
        PressureReading(now if one.minute is None else one.minute, one.gauge_kpa, one.temperature_c, one.barometer_kpa)
        for one in data.readings
    ]
    refuse_too_many(known.job, known.proof, len(readings))
    keep(known.job, known.proof, series_of(readings), "instrument")
    result = result_of(begun.entry, series_in(known.job, said, known.proof))
    return TakenOut(taken=len(readings), stop=result.stopped)


@router.post(
    "designs/{design_id}/leak-tests/{proof}/simulate",
    response={200: ReadingsOut, 404: ErrorOut, 422: ErrorOut},
    auth=writer,
)
def simulate(request: Request, design_id: int, proof: str, data: SimulateIn) -> ReadingsOut:
    """Put a simulated tank behind the gauge of a test that says it is simulated: two of its minutes pass a second."""
    tank = own_design(request, design_id)
    said = _running(tank, proof)
    begun = begun_in(said, proof).entry
    test = leak_test_of(begun)
    if not begun.simulated or begun.gauge is None or test is None:
        raise refused("proof", proof, "a simulated test", "Only a test that was begun as simulated is.")
    rig = hidden_rig(data.level, test.volume_l, begun.pressure_kpa, begun.gauge, secrets.randbelow(2**31))
    if data.leak_sccm is not None:
        rig = replace(rig, leak_sccm=data.leak_sccm)
    if not SimulatedTank.objects.filter(job=tank.job, proof=proof).exists():
        SimulatedTank.objects.create(
            workshop=request.user.workshop,
            job=tank.job,
            proof=proof,
            person=request.user,
            rig=gauges.written(rig),
            limit_sccm=test.limit_sccm,
        )
    return _out(tank, said, proof)


@router.post("practice/leak-tests", response={201: PracticeOut, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def practise(request: Request, data: PracticeIn) -> tuple[int, PracticeOut]:
    """A tank to practise on: as large as a cell of a design, or any."""
    workshop = request.user.workshop.document()
    rules, gauge = workshop.rules, workshop.test_gauges[0]
    volume, pressure, limit = ANY_TANK_L, rules.proof_kpa, rules.leak_limit_sccm
    if data.design is not None:
        plan = plan_of(own_design(request, data.design))
        cell = next((one for one in plan.cells if one.cell == data.cell), None) if plan else None
        if cell is None:
            raise refused("cell", data.cell, "a cell of this design", f"This design has no cell {data.cell}.")
        volume, pressure, limit = cell.volume_l, cell.pressure_kpa, cell.limit_sccm
    rig = hidden_rig(data.level, volume, pressure, gauge, secrets.randbelow(2**31))
    made = SimulatedTank.objects.create(
        workshop=request.user.workshop,
        person=request.user,
        rig=gauges.written(rig),
        limit_sccm=limit,
        answered={"level": data.level},
    )
    return 201, _practice(made)


@router.get("practice/leak-tests/{practice_id}", response={200: PracticeOut, 404: ErrorOut}, auth=anyone)
def read_practice(request: Request, practice_id: int) -> PracticeOut:
    """A practice test as far as it has come."""
    return _practice(_own_practice(request, practice_id))


@router.post(
    "practice/leak-tests/{practice_id}/answer", response={200: PracticeOut, 404: ErrorOut, 422: ErrorOut}, auth=writer
)
def answer(request: Request, practice_id: int, data: GuessIn) -> PracticeOut:
    """Stop it and say whether it leaks and how much: then it shows what it hid."""
    item = _own_practice(request, practice_id)
    if item.minutes is not None:
        raise ApiError(422, "answered", "This one has been answered: begin another.")
    item.minutes = gauges.minutes_so_far(item.started, timezone.now())
    item.answered = (item.answered or {}) | {"leaks": data.leaks, "leak_sccm": data.leak_sccm}
    item.save(update_fields=["minutes", "answered"])
    return _practice(item)


def _said(tank: TankDesign) -> Facts:
    return facts_of(log_of(tank.job), tank.pk)


def _running(tank: TankDesign, proof: str) -> Facts:
    """What stands in the log, where a test still runs; 422 where it is over."""
    said = _said(tank)
    begun_in(said, proof)
    if proof in said.ended:
        raise ApiError(422, "ended", "That leak test is over: begin another.")
    return said


def _out(tank: TankDesign, said: Facts, proof: str) -> ReadingsOut:
    begun = begun_in(said, proof).entry
    series = series_in(tank.job, said, proof)
    return ReadingsOut(
        proof=proof,
        running=proof not in said.ended,
        simulated=begun.simulated,
        instrument=GaugeToken.objects.filter(job=tank.job, proof=proof).exists(),
        result=result_of(begun, series),
        latest=_latest(series),
    )


def _latest(series: Series) -> PressureReading | None:
    return series.part(slice(-1, None)).mean() if len(series) else None


def _own_practice(request: Request, practice_id: int) -> SimulatedTank:
    return get_object_or_404(SimulatedTank, pk=practice_id, workshop=request.user.workshop, proof="")


def _practice(item: SimulatedTank) -> PracticeOut:
    rig = gauges.stored(item.rig)
    rules = item.workshop.document().rules
    so_far = gauges.minutes_so_far(item.started, timezone.now())
    minutes = so_far if item.minutes is None else item.minutes
    test = leak_test(rig.volume_l, item.limit_sccm, rig.gauge, rules)
    series = gauges.shown(rig, minutes)
    result = judge_series(series, test, NO_SAFE_KPA)
    answered = item.answered or {}
    taught = None
    if item.minutes is not None and item.minutes > 0:
        truth = misled(rig, happened(rig, minutes), test)
        taught = lesson(truth, result.decay, item.limit_sccm, answered["leaks"], answered["leak_sccm"])
    return PracticeOut(
        id=item.pk,
        level=answered.get("level", ""),
        volume_l=rig.volume_l,
        pressure_kpa=rig.pressure_kpa,
        limit_sccm=item.limit_sccm,
        least_min=result.decay.least_min.both if result.decay else 0.0,
        gauge=rig.gauge,
        minutes=minutes,
        result=result,
        latest=_latest(series),
        lesson=taught,
    )


def _hashed(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()
