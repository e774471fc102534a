"""Puts a made-up log into a job."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from datetime import datetime, timedelta
from math import pi, sin
from typing import Any

from django.utils import timezone

from keel.log.entries import ENTRY, AnyEntry, Received
from keel.log.handover_entries import Poured
from keel.log.proof_entries import ProofBegun, ProofEnded
from keel.studies.build.operation import Operation, Traveller
from keel.studies.handover.first_fill import FIRST_FILL, FillStep
from keel.studies.proof.rig import read
from server.demo.cart_log import Said
from server.floor import photos
from server.floor.build import asked_of, traveller_of
from server.floor.leak_tests import facts_of, found_in, known_of, series_in
from server.floor.leak_tests import keep as keep_readings
from server.floor.log import keep
from server.jobs.models import TankDesign
from server.workshop.models import Person

BENT = 0.06
"""Share of its travel that a made-up sender reads too much at half."""


def load_log(
    tank: TankDesign,
    told: Callable[[Traveller], Iterable[Said]],
    pictures: Mapping[str, Callable[[], bytes]],
) -> None:
    """Write a log as if it had come in over the last days, and keep its photos and readings."""
    people = {person.username: person for person in Person.objects.filter(workshop=tank.workshop)}
    traveller = traveller_of(tank)
    operations = {one.id: one for one in traveller.operations}
    entries = list(told(traveller))
    shown = {photo for said in entries for photo in said.values.get("photos", ())}
    for name, picture in pictures.items():
        if name in shown:
            photos.kept(tank.job, next(iter(people.values())), name, picture())
    today = timezone.now().replace(hour=0, minute=0, second=0, microsecond=0)
    received: list[Received] = []
    for said in entries:
        if said.kind == "readings":
            keep_readings(tank.job, said.values["of"], read(said.values["rig"], said.values["minutes"]), "instrument")
            continue
        n, when = len(received) + 1, _when(today, said)
        document = {"id": f"demo{n}", "kind": said.kind, "design": tank.pk, "revision": tank.revision} | said.values
        entry = ENTRY.validate_python(document | _done(said, operations))
        received.append(Received(n, people[said.who].name, when, when, _with_what_is_known(entry, tank, received)))
        keep(tank.job, received[-1], people[said.who])


def _done(said: Said, operations: Mapping[str, Operation]) -> dict[str, Any]:
    one = operations.get(said.values.get("subject", ""))
    return {"basis": one.basis, "work": one.kind, "amount": one.amount} if said.kind == "done" and one else {}


def _with_what_is_known(entry: AnyEntry, tank: TankDesign, received: Sequence[Received]) -> AnyEntry:
    """What the server adds to a test that begins or ends."""
    if isinstance(entry, ProofBegun):
        return entry.model_copy(update=known_of(entry, tank))
    if isinstance(entry, ProofEnded):
        said = facts_of(received, tank.pk)
        begun = said.proofs[entry.of].entry
        return entry.model_copy(update={"found": found_in(begun, series_in(tank.job, said, entry.of))})
    if isinstance(entry, Poured):
        return entry.model_copy(update={"ohms": _read_while_poured(entry, tank)})
    return entry


def _read_while_poured(entry: Poured, tank: TankDesign) -> dict[str, float]:
    """Senders that read a little too much in the middle of their travel."""
    nothing: list[FillStep] = []
    fills = asked_of(tank, lambda analysis: analysis[FIRST_FILL], nothing)
    needles = [needle for one in fills if f"commission:pour-{one.id}" == entry.subject for needle in one.needles]
    bent = {
        one.sender: one.ohms + BENT * sin(pi * min(1.0, max(0.0, one.share))) * (one.ohms_full - one.ohms_empty)
        for one in needles
    }
    return {sender: round(ohms, 1) for sender, ohms in bent.items()}


def _when(today: datetime, said: Said) -> datetime:
    return today - timedelta(days=said.day) + timedelta(hours=said.hour)
