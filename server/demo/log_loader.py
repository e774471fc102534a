"""Puts a made-up log into a job."""

from collections.abc import Callable, Iterable, Mapping
from datetime import datetime, timedelta

from django.utils import timezone

from keel.log.entries import ENTRY, Received
from server.demo.cart_log import Said
from server.floor import photos
from server.floor.build import traveller_of
from server.floor.log import keep
from server.jobs.models import TankDesign
from server.workshop.models import Person


def load_log(tank: TankDesign, entries: Iterable[Said], pictures: Mapping[str, Callable[[], bytes]]) -> None:
    """Write a log as if it had come in over the last days, and keep its photos."""
    people = {person.username: person for person in Person.objects.filter(workshop=tank.workshop)}
    for name, picture in pictures.items():
        photos.kept(tank.job, next(iter(people.values())), name, picture())
    operations = {one.id: one for one in traveller_of(tank).operations}
    today = timezone.now().replace(hour=0, minute=0, second=0, microsecond=0)
    for n, said in enumerate(entries, start=1):
        when = _when(today, said)
        document = {"id": f"demo{n}", "kind": said.kind, "design": tank.pk, "revision": tank.revision} | said.values
        one = operations.get(said.values.get("subject", ""))
        if said.kind == "done" and one:
            known = {"basis": one.basis, "revision": tank.revision, "work": one.kind, "amount": one.amount}
            document |= known
        person = people[said.who]
        keep(tank.job, Received(n, person.name, when, when, ENTRY.validate_python(document)), person)


def _when(today: datetime, said: Said) -> datetime:
    return today - timedelta(days=said.day) + timedelta(hours=said.hour)
