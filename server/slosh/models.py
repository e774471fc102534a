"""Laps that a workshop keeps, and studies over them."""

import io

import numpy as np
from django.db import models

from keel.studies.slosh.log import TRACES, Log
from server.jobs.models import TankDesign
from server.workshop.models import Person, Workshop

FUEL = "fuel_l_per_h"
EARLIER_NAMES = {"throttle_fraction": "use"}
"""What a trace was called when older laps were kept."""


class Lap(models.Model):
    """A lap from a logger, brought to even times."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="laps")
    name = models.CharField(max_length=80)
    kept = models.DateTimeField(auto_now_add=True)
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    seconds = models.FloatField()
    notes = models.JSONField(default=list)
    samples = models.BinaryField()

    class Meta:
        ordering = ["-kept"]

    def __str__(self) -> str:
        return self.name

    def log(self) -> Log:
        """As it was read."""
        with np.load(io.BytesIO(bytes(self.samples)), allow_pickle=False) as parts:
            named = {trace: trace if trace in parts else EARLIER_NAMES[trace] for trace in TRACES}
            traces = {trace: parts[name].astype(np.float64) for trace, name in named.items()}
            fuel = parts[FUEL].astype(np.float64) if FUEL in parts else None
            return Log(name=self.name, dt_s=float(parts["dt_s"]), fuel_l_per_h=fuel, **traces)


def packed(log: Log) -> bytes:
    """A log's samples as they are kept."""
    stream = io.BytesIO()
    names = [*TRACES, *([FUEL] if log.fuel_l_per_h is not None else [])]
    traces = {trace: getattr(log, trace).astype(np.float32) for trace in names}
    np.savez_compressed(stream, dt_s=np.float64(log.dt_s), allow_pickle=False, **traces)
    return stream.getvalue()


class Study(models.Model):
    """A design tried again and again with something changed. Design and rules are kept as they were asked with."""

    class State(models.TextChoices):
        """How far it is."""

        RUNNING = "running"
        DONE = "done"
        CANCELLED = "cancelled"

    class Kind(models.TextChoices):
        """What is tried."""

        INSIDES = "insides"
        SEARCH = "search"
        LOWEST = "lowest"

    tank = models.ForeignKey(TankDesign, on_delete=models.CASCADE, related_name="studies")
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    asked = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True, blank=True)
    kind = models.CharField(max_length=10, choices=Kind)
    state = models.CharField(max_length=10, choices=State, default=State.RUNNING)
    design = models.JSONField()
    rules = models.JSONField()
    ask = models.JSONField(null=True, blank=True)
    cases = models.JSONField(default=list)
    currency = models.CharField(max_length=8, blank=True, default="")
    total = models.PositiveIntegerField()

    class Meta:
        ordering = ["-asked"]

    def __str__(self) -> str:
        return f"{self.tank}: {self.kind}, {self.state}"


class StudyRow(models.Model):
    """One try of a study."""

    study = models.ForeignKey(Study, on_delete=models.CASCADE, related_name="rows")
    number = models.PositiveIntegerField()
    trial = models.JSONField()

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["study", "number"], name="one_row_a_case")]

    def __str__(self) -> str:
        return f"{self.study_id}: {self.number}"
