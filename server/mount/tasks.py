"""The search for the way in, on the task queue: it tells how far it is, and stops when nobody wants it."""

import logging
import time
from dataclasses import asdict
from datetime import timedelta

from django.db import InterfaceError, OperationalError, connection
from django.utils import timezone
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob

from keel.analysis.parts import ENVELOPE, SOLIDS
from keel.analysis.tank import Asked, TankAnalysis
from keel.formats.document import design_from
from keel.solid.faults import GeometryError
from keel.solid.tilting.search import StoppedError
from keel.solid.vehicle import bay_in_vehicle
from keel.studies.mount.way_in import way_in
from server.jobs.scans import scans_of
from server.mount.models import WaySearch
from server.slosh.tasks import AGAIN

LOOK_S = 0.4
"""So often a search looks whether it is still wanted."""
GRACE = timedelta(minutes=1)
log = logging.getLogger(__name__)


def enqueue(search: WaySearch) -> None:
    """Put a search on the queue."""
    run_search.defer(search_id=search.pk)


@app.task(queue="studies", name="mount.run_search", retry=AGAIN)
def run_search(search_id: int) -> None:
    """Search, and write down what was found."""
    try:
        search = WaySearch.objects.select_related("tank__job__workshop").filter(pk=search_id).first()
        if search is not None and search.state == WaySearch.State.RUNNING:
            search_way(search)
    finally:
        connection.close()


def search_way(search: WaySearch) -> None:
    """Search now; one that was stopped meanwhile stays as it is."""
    found, problem = None, ""
    try:
        found = _searched(search)
    except StoppedError:
        return
    except GeometryError as error:
        problem = str(error)
    except (OperationalError, InterfaceError):
        raise  # the store went away: it is tried again
    except Exception:
        log.exception("way search %s", search.pk)
        problem = "It could not be worked out; it is logged."
    running = WaySearch.objects.filter(pk=search.pk, state=WaySearch.State.RUNNING)
    running.update(state=WaySearch.State.DONE, finished=timezone.now(), found=found, problem=problem, share=1.0)


def _searched(search: WaySearch) -> dict[str, object] | None:
    design = design_from(search.design)
    workshop = search.tank.job.workshop
    scans = scans_of(workshop, design)
    tank = TankAnalysis(Asked(design, workshop.document(), scans=scans))
    assert design.bay is not None
    vehicle, corner = tank.workshop.vehicle(design.mount.vehicle), design.mount.corner
    bay = bay_in_vehicle(design.bay, vehicle, corner, closed=False)
    watch = _Watch(search.pk)
    way = way_in(bay, tank[ENVELOPE], tank[SOLIDS], scans, design.mount, search.play_mm, watch)
    return None if way is None else asdict(way)


class _Watch:
    """Writes how far a search is, now and then, and stops it where it was cancelled."""

    def __init__(self, search_id: int) -> None:
        self._id, self._next = search_id, time.monotonic()

    def __call__(self, share: float) -> None:
        if time.monotonic() < self._next:
            return
        self._next = time.monotonic() + LOOK_S
        running = WaySearch.objects.filter(pk=self._id, state=WaySearch.State.RUNNING)
        if not running.filter(share__lte=share).update(share=share) and not running.exists():
            raise StoppedError


def mend(search: WaySearch) -> None:
    """Put a search that runs and has no job left on the queue again."""
    if search.state != WaySearch.State.RUNNING or search.asked > timezone.now() - GRACE:
        return
    jobs = ProcrastinateJob.objects.filter(task_name=run_search.name, args__search_id=search.pk)
    if not jobs.filter(status__in=("todo", "doing")).exists():
        enqueue(search)
