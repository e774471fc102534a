"""Studies on the task queue: each part is a job of its own, for as many workers as there are."""

import logging
from dataclasses import asdict, replace
from datetime import timedelta

from asgiref.sync import sync_to_async
from django.db import InterfaceError, OperationalError, connection
from django.utils import timezone
from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob
from procrastinate.exceptions import ConnectorException
from pydantic import TypeAdapter

from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.formats.document import design_from
from keel.trials.trial import Case, Trial, tried
from server.slosh.laps import log_for
from server.slosh.models import Study, StudyRow

PART = 4
"""Cases a job."""
AGAIN = RetryStrategy(
    max_attempts=8, exponential_wait=2, retry_exceptions=[OperationalError, InterfaceError, ConnectorException]
)
"""The store went away: a part is tried again, later each time."""
GRACE = timedelta(minutes=1)
"""A study this young may still be on its way to the queue."""
log = logging.getLogger(__name__)
WORKSHOP = TypeAdapter(Workshop)


def enqueue(study: Study) -> None:
    """Put a study's parts on the queue."""
    for first in range(0, study.total, PART):
        run_part.defer(study_id=study.pk, first=first)


@app.task(queue="studies", name="slosh.run_part", retry=AGAIN)
def run_part(study_id: int, first: int) -> None:
    """Try a few cases of a study; those that are there already, from a worker that died, are left alone."""
    try:
        study = Study.objects.select_related("tank__job__workshop").filter(pk=study_id).first()
        if study is not None:
            _run(study, first)
    finally:
        connection.close()


def _run(study: Study, first: int) -> None:
    made = set(study.rows.values_list("number", flat=True))
    numbers = [n for n in range(first, min(first + PART, study.total)) if n not in made]
    design, rules = design_from(study.design), WORKSHOP.validate_python(study.rules, strict=False)
    for number in numbers:
        try:
            trial = asdict(_tried(study, design, rules, Case(**study.cases[number])))
        except StoppedError:
            return
        StudyRow.objects.bulk_create([StudyRow(study=study, number=number, trial=trial)], ignore_conflicts=True)
    _close_if_done(study)


def _close_if_done(study: Study) -> None:
    if study.rows.count() >= study.total:
        running = Study.objects.filter(pk=study.pk, state=Study.State.RUNNING)
        running.update(state=Study.State.DONE, finished=timezone.now())


class StoppedError(Exception):
    """A study was stopped while one of its cases was being tried."""


def _go_on(study: Study) -> None:
    if not Study.objects.filter(pk=study.pk, state=Study.State.RUNNING).exists():
        raise StoppedError


def _tried(study: Study, design: Design, rules: Workshop, case: Case) -> Trial:
    start_l = study.ask["down_to_l"] if study.ask else None
    _go_on(study)
    try:
        driven = log_for(study.tank.job.workshop, design)
        lowest = study.kind != Study.Kind.SEARCH
        return tried(case, design, rules, driven, start_l, lowest=lowest, before_each=lambda: _go_on(study))
    except (OperationalError, InterfaceError, StoppedError):
        raise  # the store went away and the part is tried again, or nobody wants it any more
    except Exception:
        # One case that goes wrong must not take the others with it.
        log.exception("study %s: %s", study.pk, case.name)
        return replace(Trial(case.name, case.choice, case.patch), problem="it could not be worked out; it is logged")


@app.periodic(cron="* * * * *")
@app.task(queue="studies", queueing_lock="slosh.take_up", pass_context=True, name="slosh.take_up")
async def take_up(context: JobContext, timestamp: int) -> None:
    """Give the jobs of workers that died to those that live."""
    del timestamp
    manager = context.app.job_manager
    for job in await manager.get_stalled_jobs():
        await manager.retry_job(job)
    await sync_to_async(_mend_apart)()


def _mend_apart() -> None:
    """In a thread of its own, which has a connection of its own."""
    try:
        mend()
    finally:
        connection.close()


def mend() -> int:
    """Put the missing parts of studies on the queue that run and have no job left; how many studies that were.

    A part that failed for good, or was lost with the store, would otherwise leave its study running for ever.
    """
    alone = 0
    old = Study.objects.filter(state=Study.State.RUNNING, asked__lt=timezone.now() - GRACE)
    for study in old:
        jobs = ProcrastinateJob.objects.filter(task_name=run_part.name, args__study_id=study.pk)
        if jobs.filter(status__in=("todo", "doing")).exists():
            continue
        alone += 1
        made = set(study.rows.values_list("number", flat=True))
        for first in range(0, study.total, PART):
            if not set(range(first, min(first + PART, study.total))) <= made:
                run_part.defer(study_id=study.pk, first=first)
        _close_if_done(study)
    return alone
