"""Laps that a workshop keeps."""

import io

import numpy as np
from django.db import models

from keel.studies.slosh.log import Log
from server.workshop.models import Person, Workshop

TRACES = ("forward_g", "left_g", "up_g", "use", "pitch_deg")


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
            return Log(self.name, float(parts["dt_s"]), *(parts[trace].astype(np.float64) for trace in TRACES))


def packed(log: Log) -> bytes:
    """A log's samples as they are kept."""
    stream = io.BytesIO()
    traces = {trace: getattr(log, trace).astype(np.float32) for trace in TRACES}
    np.savez_compressed(stream, dt_s=np.float64(log.dt_s), allow_pickle=False, **traces)
    return stream.getvalue()
