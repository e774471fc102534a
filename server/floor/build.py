"""How far a tank is: the core's order of work for its present revision, read against the job's log."""

from collections import OrderedDict
from collections.abc import Callable
from datetime import datetime
from threading import Lock
from typing import TypeVar

from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.evaluation import evaluate
from keel.findings.open_items import OpenItem, open_in
from keel.log.commission import points_poured
from keel.log.entries import Received
from keel.log.state import BuildState, build_state
from keel.solid.faults import GeometryError
from keel.studies.build.operation import Traveller
from keel.studies.build.traveller import TRAVELLER
from keel.studies.gauge.gauge import GAUGE_TRUTH
from keel.studies.handover.as_poured import AsPoured, as_poured
from server.jobs.memory import MEMORY
from server.jobs.models import Job, TankDesign
from server.jobs.scans import scans_of

NOTHING = Traveller([], [])


T = TypeVar("T")


def asked_of(tank: TankDesign, ask: Callable[[TankAnalysis], T], nothing: T) -> T:
    """What its present revision says to a question; `nothing` where it has no shape, or none that can be."""
    design, workshop = tank.current().design(), tank.workshop
    if design.shell is None:
        return nothing
    try:
        return ask(TankAnalysis(Asked(design, workshop.document(), scans_of(workshop, design)), MEMORY))
    except GeometryError:
        return nothing


def traveller_of(tank: TankDesign) -> Traveller:
    """The order of work of a design at its present revision; empty where it can't be made."""
    return asked_of(tank, lambda analysis: analysis[TRAVELLER], NOTHING)


_READ: OrderedDict[int, list[Received]] = OrderedDict()
"""Logs as they were read last: they only grow, so only what is new has to be read."""
_READING = Lock()
MOST_READ = 40


def log_of(job: Job) -> list[Received]:
    """All entries of a job, in the order they came in."""
    with _READING:
        known = _READ.get(job.pk, [])
        new = job.log.filter(n__gt=known[-1].n) if known else job.log.all()
        _READ[job.pk] = [*known, *(row.as_received() for row in new)]
        _READ.move_to_end(job.pk)
        while len(_READ) > MOST_READ:
            _READ.popitem(last=False)
        return _READ[job.pk].copy()


def state_of(tank: TankDesign, now: datetime) -> BuildState:
    """How far a tank is."""
    return build_state(traveller_of(tank), log_of(tank.job), now, tank.pk, open_items_of(tank))


_OPEN: OrderedDict[tuple[int, int, int], list[OpenItem]] = OrderedDict()
"""What designs leave open, by design, revision and the version of the workshop's rules."""


def gauges_of(tank: TankDesign, state: BuildState) -> list[AsPoured]:
    """Senders as they were found while fuel was poured."""
    points = points_poured(state.commission)
    if not points:
        return []
    return asked_of(tank, lambda found: as_poured(found[GAUGE_TRUTH], found.design.gauge, found.solids, points), [])


def open_items_of(tank: TankDesign) -> list[OpenItem]:
    """What the present revision of a design leaves open."""
    key = (tank.pk, tank.revision, tank.workshop.version)
    with _READING:
        known = _OPEN.get(key)
    if known is not None:
        return known
    design, workshop = tank.current().design(), tank.workshop
    answer = evaluate(
        design, workshop.document(), Showing(remedies=False, results=()), scans_of(workshop, design), memory=MEMORY
    )
    found = open_in(answer.findings)
    with _READING:
        _OPEN[key] = found
        while len(_OPEN) > MOST_READ:
            _OPEN.popitem(last=False)
    return found
