"""`manage.py load_demo`: the demo workshop, once. What is there already is left alone."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from keel.formats.document import design_from
from server.demo import saltmarsh
from server.demo.log_loader import load_log
from server.demo.pictures import PICTURES
from server.demo.vehicles import VEHICLES
from server.jobs.models import Customer, Job, TankDesign
from server.workshop.models import MeasuredVehicle, Person, Workshop


class Command(BaseCommand):
    """Loads the demo workshop when it isn't there yet."""

    help = "Load the demo workshop, unless it is there already."

    def add_arguments(self, parser: CommandParser) -> None:
        """`--migrate` brings the database up to date first: one start instead of two."""
        parser.add_argument("--migrate", action="store_true")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Migrate if asked to, then load."""
        if options["migrate"]:
            call_command("migrate", interactive=False, verbosity=0)
        self._load(verbose=options["verbosity"] > 0)

    @transaction.atomic
    def _load(self, verbose: bool) -> None:
        """Everything in one go, or nothing."""
        if Workshop.objects.filter(name=saltmarsh.WORKSHOP).exists():
            return
        workshop = Workshop.objects.create(name=saltmarsh.WORKSHOP, rules=saltmarsh.RULES)
        for username, name, role in saltmarsh.PEOPLE:
            person = Person(workshop=workshop, username=username, name=name, role=role)
            person.set_password(saltmarsh.PASSWORD)
            person.save()
        author = Person.objects.get(username=saltmarsh.PEOPLE[0][0])
        for name, contact, note in saltmarsh.CUSTOMERS:
            Customer.objects.create(workshop=workshop, name=name, contact=contact, note=note)
        keys = {
            name: MeasuredVehicle.objects.create(workshop=workshop, document_json=document).key
            for name, document in VEHICLES.items()
        }
        for entry in saltmarsh.JOBS:
            self._load_job(workshop, author, entry, keys.get(entry.get("vehicle", "")))
        if verbose:
            self.stdout.write("  demo workshop loaded")

    def _load_job(self, workshop: Workshop, author: Person, entry: dict[str, Any], vehicle: str | None) -> None:
        job = Job.opened(
            workshop,
            title=entry["title"],
            customer=workshop.customers.get(name=entry["customer"]),
            state=entry["state"],
            note=entry["note"],
            guide=entry.get("guide", {}),
        )
        for name, document in entry["designs"]:
            mounted = document.get("mount")
            design = document | {"mount": mounted | {"vehicle": vehicle}} if mounted and vehicle else document
            tank = TankDesign.started(job, name, design_from(design), author, note="measured and sketched")
            if "log" in entry:
                load_log(tank, entry["log"], PICTURES)
