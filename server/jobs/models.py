"""Customers, jobs, designs and their revisions."""

from typing import Any

from django.db import models, transaction

from keel.design.document import VERSION, Design
from keel.formats.document import design_from
from server.http.errors import ApiError
from server.workshop.models import Person, Workshop


class Customer(models.Model):
    """Somebody a workshop builds for."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="customers")
    name = models.CharField(max_length=80)
    contact = models.CharField(max_length=200, blank=True)
    note = models.TextField(blank=True)

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["workshop", "name"], name="one_customer_of_a_name")]

    def __str__(self) -> str:
        return self.name


class JobState(models.TextChoices):
    """How far a job is."""

    ENQUIRY = "enquiry"
    DESIGN = "design"
    BUILD = "build"
    DONE = "done"
    SHELVED = "shelved"


class Job(models.Model):
    """Work for a customer: one or more designs."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="jobs")
    number = models.PositiveIntegerField()
    title = models.CharField(max_length=80)
    customer = models.ForeignKey(Customer, on_delete=models.PROTECT, related_name="jobs", null=True, blank=True)
    state = models.CharField(max_length=10, choices=JobState.choices, default=JobState.ENQUIRY)
    note = models.TextField(blank=True)
    changed = models.DateTimeField(auto_now=True)
    guide = models.JSONField(default=dict, blank=True)
    """What to try at each station, by its name: a job to learn on has it."""

    class Meta:
        ordering = ["-changed"]
        constraints = [models.UniqueConstraint(fields=["workshop", "number"], name="one_job_of_a_number")]

    def __str__(self) -> str:
        return f"{self.number} {self.title}"

    @classmethod
    @transaction.atomic
    def opened(cls, workshop: Workshop, **fields: Any) -> "Job":
        """A new job with the workshop's next number."""
        Workshop.objects.select_for_update().get(pk=workshop.pk)
        last = cls.objects.filter(workshop=workshop).aggregate(last=models.Max("number"))["last"]
        return cls.objects.create(workshop=workshop, number=(last or 100) + 1, **fields)


class TankDesign(models.Model):
    """A tank's design: its name and which revision is the present one."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="designs")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="designs")
    name = models.CharField(max_length=80)
    revision = models.PositiveIntegerField(default=0)
    main = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, blank=True, related_name="surge_tanks")

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name

    @classmethod
    @transaction.atomic
    def started(
        cls,
        job: Job,
        name: str,
        design: Design,
        author: Person | None,
        note: str,
        main: "TankDesign | None" = None,
    ) -> "TankDesign":
        """A new design with its first revision; a surge tank names the main tank it belongs to."""
        tank = cls.objects.create(workshop=job.workshop, job=job, name=name, main=main)
        tank.save_revision(design, author, based_on=0, note=note)
        return tank

    @transaction.atomic
    def save_revision(self, design: Design, author: Person | None, based_on: int, note: str = "") -> "Revision":
        """Keep a design as the next revision.

        Raises
        ------
        ApiError
            409 with the present revision when the design was based on an older one.
        """
        present = TankDesign.objects.select_for_update().get(pk=self.pk)
        if present.revision != based_on:
            raise conflict(present.current())
        revision = Revision.objects.create(
            tank=present,
            number=present.revision + 1,
            format_version=VERSION,
            document=design.model_dump(mode="json"),
            author=author,
            note=note,
        )
        self.revision = present.revision = revision.number
        present.save(update_fields=["revision"])
        present.job.save(update_fields=["changed"])
        return revision

    def current(self) -> "Revision":
        """The present revision."""
        return self.revisions.select_related("author").get(number=self.revision)


class Revision(models.Model):
    """A design as it was saved once. Never changed, never removed."""

    tank = models.ForeignKey(TankDesign, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    format_version = models.PositiveIntegerField()
    document = models.JSONField()
    author = models.ForeignKey(Person, on_delete=models.PROTECT, null=True)
    saved = models.DateTimeField(auto_now_add=True)
    note = models.CharField(max_length=120, blank=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["tank", "number"], name="one_revision_of_a_number")]

    def __str__(self) -> str:
        return f"{self.tank} r{self.number}"

    def design(self) -> Design:
        """The design, brought up to the present format."""
        return design_from(self.document)


class Scan(models.Model):
    """A scanned mesh, kept once a workshop; designs name it by its fingerprint."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="scans")
    fingerprint = models.CharField(max_length=64)
    name = models.CharField(max_length=80)
    mesh = models.BinaryField()
    shown = models.BinaryField(default=b"", help_text="Thinned for the drawing, once")
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    kept = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-kept"]
        constraints = [models.UniqueConstraint(fields=["workshop", "fingerprint"], name="one_scan_of_a_fingerprint")]

    def __str__(self) -> str:
        return self.name


def conflict(current: Revision) -> ApiError:
    """The 409 for a save based on an old revision; carries the present one so that both sides can be shown."""
    who = current.author.name if current.author else "somebody"
    return ApiError(
        409,
        "conflict",
        f"{who} saved revision {current.number} meanwhile.",
        current={
            "number": current.number,
            "author": who,
            "saved": current.saved.isoformat(),
            "note": current.note,
            "design": current.design().model_dump(mode="json"),
        },
    )
