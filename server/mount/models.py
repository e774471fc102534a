"""Searches for the way in."""

from django.db import models

from server.jobs.models import TankDesign
from server.workshop.models import Person


class WaySearch(models.Model):
    """One search. The design is kept as it was asked with."""

    class State(models.TextChoices):
        """How far it is."""

        RUNNING = "running"
        DONE = "done"
        CANCELLED = "cancelled"

    tank = models.ForeignKey(TankDesign, on_delete=models.CASCADE, related_name="way_searches")
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    asked = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True, blank=True)
    state = models.CharField(max_length=10, choices=State, default=State.RUNNING)
    share = models.FloatField(default=0.0)
    design = models.JSONField()
    play_mm = models.FloatField()
    vehicle_version = models.PositiveIntegerField(null=True, blank=True)
    found = models.JSONField(null=True, blank=True)
    problem = models.TextField(blank=True, default="")

    class Meta:
        ordering = ["-asked"]

    def __str__(self) -> str:
        return f"{self.tank}: way in, {self.state}"
