"""Writing into a job's log: in order, once, and only what may be written."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction
from django.utils import timezone

from keel.log.entries import (
    Accepted,
    Added,
    AnyEntry,
    Checked,
    Corrected,
    Done,
    Moved,
    Overridden,
    Paused,
    Received,
    Skipped,
    Started,
)
from keel.log.facts import facts
from keel.log.gates import GateState
from keel.log.handover_checks import why_not_poured
from keel.log.handover_entries import ClosedAgain, Poured
from keel.log.plan import in_the_way, planned, prerequisites
from keel.log.proof_checks import OfProof, why_not_begun, why_not_of_proof
from keel.log.proof_entries import (
    GaugeRead,
    LeakFound,
    LeakRepaired,
    ProofBegun,
    ProofEnded,
    ProofFound,
    SeamWalked,
)
from keel.log.standing import standing
from keel.log.state import BuildState, OperationState, build_state
from keel.studies.build.operation import Traveller
from server.floor.build import log_of, open_items_of, traveller_of
from server.floor.leak_tests import facts_of, found_in, known_of, plan_of, series_in
from server.floor.leak_tests import keep as keep_readings
from server.floor.models import LogEntry
from server.floor.schemas import Written
from server.http.errors import refused
from server.jobs.models import Job, TankDesign
from server.workshop.models import Person

OF_A_DESIGN = (Started, Paused, Done, Skipped, Accepted, Added, Moved, Checked, Overridden)
"""About operations and gates: without a design there are none that could forbid it."""


class Log:
    """A job's log, open for writing by one person at a time.

    Parameters
    ----------
    job : Job
        Whose.
    person : Person
        Who writes.
    sent : datetime, optional
        The device's clock when it sent: by it the waiting time of an entry is known, however wrong the clock.
    """

    def __init__(self, job: Job, person: Person, sent: datetime | None) -> None:
        self.job, self.person, self.sent = job, person, sent
        self.now = timezone.now()
        self.received: list[Received] = []
        self.numbers: dict[str, int] = {}
        self.designs: set[int] = set()
        self.tanks: dict[int, TankDesign] = {}
        self.travellers: dict[int, Traveller] = {}

    @transaction.atomic
    def bring_in(self, log: Sequence[Received]) -> int:
        """A log from a file, into a job that has none: in its order, with its times, told who brought it.

        Raises
        ------
        ApiError
            422 when the job has a log, or several designs and the file doesn't say of which.
        """
        Job.objects.select_for_update().get(pk=self.job.pk)
        if self.job.log.exists():
            raise refused(
                "log", self.job.log.count(), "a job without a log", "This job has a log: none is put into it."
            )
        tanks = list(self.job.designs.all())
        ours, only = {tank.pk for tank in tanks}, tanks[0].pk if len(tanks) == 1 else None
        ignored = standing(log).ignored
        kept = [one for one in log if one.n not in ignored]
        for n, one in enumerate(kept, start=1):
            design = one.entry.design if one.entry.design in ours else only
            entry = one.entry.model_copy(update={"design": None if one.entry.design is None else design})
            author = f"{one.author}, brought in by {self.person.name}"[:80]
            keep(self.job, replace(one, n=n, author=author, entry=entry), None)
        return len(kept)

    @transaction.atomic
    def write(self, entries: Sequence[AnyEntry]) -> list[Written]:
        """Each entry in turn: kept, there already, or refused with the reason."""
        Job.objects.select_for_update().get(pk=self.job.pk)
        self.received = log_of(self.job)
        self.designs = set(self.job.designs.values_list("pk", flat=True))
        self.numbers = {one.entry.id: one.n for one in self.received}
        return [self._one(entry) for entry in entries]

    def _one(self, entry: AnyEntry) -> Written:
        there = self.numbers.get(entry.id)
        if there is not None:
            return Written(id=entry.id, n=there, refused=None)
        why_not = self._why_not(entry)
        if why_not is not None:
            return Written(id=entry.id, n=None, refused=why_not)
        entry = self._with_basis(entry)
        received = Received(
            n=self.received[-1].n + 1 if self.received else 1,
            author=self.person.name,
            received=self.now,
            happened=self._happened(entry.at),
            entry=entry,
        )
        keep(self.job, received, self.person)
        self.received.append(received)
        self.numbers[entry.id] = received.n
        return Written(id=entry.id, n=received.n, refused=None)

    def _happened(self, at: datetime | None) -> datetime:
        """By the server's clock: as long before now as it waited on the device."""
        if at is None or self.sent is None:
            return self.now
        return self.now - max(timedelta(), _aware(self.sent) - _aware(at))

    def _why_not(self, entry: AnyEntry) -> str | None:
        if entry.design is not None and entry.design not in self.designs:
            return "There is no such design in this job."
        if isinstance(entry, OF_A_DESIGN) and entry.design is None:
            return "It doesn't say which design of the job it is about."
        if isinstance(entry, Corrected) and entry.of not in self.numbers:
            return "There is no such entry to correct."
        if entry.photos and (missing := self._not_here(entry)):
            return f"{missing} photos of it aren't here yet."
        checked = _CHECKED.get(type(entry))
        return checked(self, entry) if checked is not None else None

    def _not_here(self, entry: AnyEntry) -> int:
        """How many of its photos haven't come."""
        return len(set(entry.photos) - set(self.job.photos.values_list("client_id", flat=True)))

    def _why_not_done(self, entry: Done) -> str | None:
        """An operation behind a shut gate, before what it needs, or for another trade."""
        state = self._state(entry.design)
        one = next((one for one in state.operations if one.operation.id == entry.subject), None)
        if one is None:
            return None
        if one.operation.by and one.operation.by not in self.person.trades:
            return f"{one.operation.title.plain()} is for a {one.operation.by}: {self.person.name} isn't listed as one."
        shut = [gate for gate in state.gates if gate.gate.id in one.shut]
        if one.away:
            return f"{', '.join(one.away)} was sent out and isn't back and right yet."
        return _shut(shut[0]) if shut else _waits(one, state)

    def _why_not_passed(self, entry: Overridden) -> str | None:
        """A gate that nobody passes unmet."""
        firm = next((one for one in self._traveller(entry.design).gates if one.id == entry.subject and one.firm), None)
        return None if firm is None else f"“{firm.title.plain()}”: nobody passes that gate unmet."

    def _why_not_poured(self, entry: Poured) -> str | None:
        """More than the cell holds, or less than was in it at an earlier step."""
        why = why_not_poured(entry, self._traveller(entry.design), facts(standing(self.received).entries, entry.design))
        return None if why is None else f"Not taken: {why.plain()}."

    def _why_not_closed(self, entry: ClosedAgain) -> str | None:
        """Nobody answers beforehand for what isn't open yet."""
        is_open = any(one.key == entry.subject for one in self._state(entry.design).ledger)
        return None if is_open else "There is no such open item."

    def _why_not_begun(self, entry: ProofBegun) -> str | None:
        if entry.design is None:
            return "It doesn't say which design of the job it is about."
        plan = plan_of(self._tank(entry.design))
        if plan is None:
            return "The design has no shape: there is nothing to test."
        rules = self._tank(entry.design).workshop.document().rules
        why = why_not_begun(entry, plan, self._state(entry.design), rules)
        return None if why is None else f"The leak test can't begin: {why.plain()}."

    def _why_not_of_proof(self, entry: OfProof) -> str | None:
        said = facts_of(self.received, entry.design)
        seams = {one.cell: one.seams for one in self._traveller(entry.design).tests}
        why = why_not_of_proof(entry, said, seams)
        return None if why is None else f"Not taken: {why.plain()}."

    def _why_not_moved(self, entry: Moved) -> str | None:
        traveller = self._traveller(entry.design)
        changes = facts(standing(self.received).entries, entry.design).plan
        why = in_the_way(planned(traveller, changes), prerequisites(traveller), entry.subject, entry.after)
        return None if why is None else f"It can't be moved there: {why.plain()}."

    def _with_basis(self, entry: AnyEntry) -> AnyEntry:
        """What is written is written of the design as it is now, what is done is done on its parts as they are."""
        if entry.design is None:
            return entry
        known: dict[str, Any] = {"revision": self._tank(entry.design).revision}
        if isinstance(entry, ProofBegun):
            return entry.model_copy(update=known | known_of(entry, self._tank(entry.design)))
        if isinstance(entry, ProofEnded):
            return entry.model_copy(update=known | {"found": self._found(entry)})
        if isinstance(entry, ClosedAgain):
            told = {one.key: one.what.plain() for one in self._state(entry.design).ledger}
            return entry.model_copy(update=known | {"said": told.get(entry.subject, "")})
        if not isinstance(entry, Done | Accepted):
            return entry.model_copy(update=known)
        found = next((one for one in self._traveller(entry.design).operations if one.id == entry.subject), None)
        known |= {"basis": found.basis if found else {}}
        if found and isinstance(entry, Done):
            known |= {"work": found.kind, "amount": found.amount}
        return entry.model_copy(update=known)

    def _found(self, entry: ProofEnded) -> ProofFound | None:
        """What a test's readings prove as it ends; simulated ones are kept from then on."""
        said = facts_of(self.received, entry.design)
        begun = said.proofs[entry.of].entry
        series = series_in(self.job, said, entry.of)
        if begun.simulated and len(series):
            keep_readings(self.job, entry.of, series, "simulated")
        return found_in(begun, series)

    def _tank(self, design: int) -> TankDesign:
        if design not in self.tanks:
            self.tanks[design] = self.job.designs.select_related("workshop").get(pk=design)
        return self.tanks[design]

    def _traveller(self, design: int | None) -> Traveller:
        if design is None:
            return Traveller([], [])
        if design not in self.travellers:
            self.travellers[design] = traveller_of(self._tank(design))
        return self.travellers[design]

    def _state(self, design: int | None) -> BuildState:
        left = open_items_of(self._tank(design)) if design is not None else ()
        return build_state(self._traveller(design), self.received, self.now, design, left)


_CHECKED: dict[type, Callable[[Log, Any], str | None]] = {
    Done: Log._why_not_done,
    Overridden: Log._why_not_passed,
    Moved: Log._why_not_moved,
    Poured: Log._why_not_poured,
    ClosedAgain: Log._why_not_closed,
    ProofBegun: Log._why_not_begun,
    **dict.fromkeys((GaugeRead, SeamWalked, LeakFound, LeakRepaired, ProofEnded), Log._why_not_of_proof),
}
"""By the kind of entry, what may forbid it."""


def keep(job: Job, received: Received, person: Person | None) -> LogEntry:
    """Store an entry as it came in."""
    return LogEntry.objects.create(
        workshop_id=job.workshop_id,
        job=job,
        design_id=received.entry.design,
        n=received.n,
        client_id=received.entry.id,
        author=person,
        author_name=received.author,
        received=received.received,
        happened=received.happened,
        document=received.entry.model_dump(mode="json"),
    )


def _aware(when: datetime) -> datetime:
    return when if when.tzinfo else timezone.make_aware(when)


def _shut(gate: GateState) -> str:
    lacks = "; ".join(lack.plain() for lack in gate.lacks)
    return f"The gate “{gate.gate.title.plain()}” is shut: {lacks}."


def _waits(one: OperationState, state: BuildState) -> str | None:
    if not one.waits_for:
        return None
    titles = {other.operation.id: other.operation.title.plain() for other in state.operations}
    return f"First: {titles.get(one.waits_for[0], one.waits_for[0])}."
