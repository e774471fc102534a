"""A job's log and its photos. Neither is ever changed: the database itself refuses to."""

from django.db import models

from keel.log.entries import ENTRY, Received
from server.jobs.models import Job, TankDesign
from server.workshop.models import Person, Workshop


class LogEntry(models.Model):
    """One entry, in the order they came in."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="log_entries")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="log")
    design = models.ForeignKey(TankDesign, on_delete=models.CASCADE, related_name="log", null=True)
    n = models.PositiveIntegerField(help_text="Its place in the job's log")
    client_id = models.CharField(max_length=40, help_text="Made on the device; sent twice it counts once")
    author = models.ForeignKey(Person, on_delete=models.PROTECT, null=True)
    author_name = models.CharField(max_length=80)
    received = models.DateTimeField(help_text="By the server's clock")
    happened = models.DateTimeField(help_text="When it was written, by the server's clock")
    document = models.JSONField()

    class Meta:
        ordering = ["n"]
        constraints = [
            models.UniqueConstraint(fields=["job", "n"], name="one_entry_of_a_number"),
            models.UniqueConstraint(fields=["job", "client_id"], name="an_entry_counts_once"),
        ]

    def __str__(self) -> str:
        return f"{self.job.number}/{self.n} {self.document['kind']}"

    def as_received(self) -> Received:
        """The entry as the core reads it."""
        entry = ENTRY.validate_python(self.document)
        return Received(self.n, self.author_name, self.received, self.happened, entry)


class Photo(models.Model):
    """A picture as it is kept: made anew from what was sent, without what the camera wrote into it."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="photos")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="photos")
    client_id = models.CharField(max_length=40)
    fingerprint = models.CharField(max_length=64, help_text="Of the kept file: its name under KEEL_HOME")
    wide_px = models.PositiveIntegerField()
    high_px = models.PositiveIntegerField()
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    received = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["job", "client_id"], name="a_photo_counts_once")]

    def __str__(self) -> str:
        return f"{self.job.number} {self.client_id}"


class Pressures(models.Model):
    """Readings of a leak test from an instrument or a file, a lot at a time. Never changed."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="pressures")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="pressures")
    proof = models.CharField(max_length=40, help_text="The entry that began the test")
    source = models.CharField(max_length=20, choices=[(name, name) for name in ("instrument", "file", "simulated")])
    received = models.DateTimeField(auto_now_add=True)
    readings = models.BinaryField(help_text="Minute, gauge, temperature, barometer as doubles, row by row")

    class Meta:
        ordering = ["pk"]
        indexes = [models.Index(fields=["job", "proof"])]

    def __str__(self) -> str:
        return f"{self.job.number} {self.proof} {self.source}"


class GaugeToken(models.Model):
    """Lets a real gauge send readings to one leak test."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="gauge_tokens")
    design = models.ForeignKey(TankDesign, on_delete=models.CASCADE, related_name="gauge_tokens")
    proof = models.CharField(max_length=40)
    token_hash = models.CharField(max_length=64, unique=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "proof"], name="a_token_a_test")]

    def __str__(self) -> str:
        return f"{self.job.number} {self.proof}"


class SimulatedTank(models.Model):
    """The tank behind a simulated gauge: what it hides stays here until the test is over."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="simulated_tanks")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, null=True)
    proof = models.CharField(max_length=40, blank=True, help_text="The test that it stands in for; empty: practice")
    person = models.ForeignKey(Person, on_delete=models.CASCADE)
    rig = models.JSONField()
    limit_sccm = models.FloatField()
    started = models.DateTimeField(auto_now_add=True)
    minutes = models.FloatField(null=True, help_text="How long it lasted in the end")
    answered = models.JSONField(null=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.proof or 'practice'} {self.started:%Y-%m-%d %H:%M}"
