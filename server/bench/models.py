"""Calibrations: senders measured in their tanks, reading by reading."""

import hashlib
import secrets

from django.db import models

from server.jobs.models import TankDesign
from server.workshop.models import Person, Workshop


class Calibration(models.Model):
    """One sender measured once, against the design as it was then."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="calibrations")
    tank = models.ForeignKey(TankDesign, on_delete=models.CASCADE, related_name="calibrations")
    revision = models.PositiveIntegerField()
    sender = models.CharField(max_length=40)
    started = models.DateTimeField(auto_now_add=True)
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    closed = models.BooleanField(default=False)
    note = models.CharField(max_length=200, blank=True)
    token_hash = models.CharField(max_length=64, blank=True)

    class Meta:
        ordering = ["-started"]

    def __str__(self) -> str:
        return f"{self.tank}: {self.sender}"

    def new_token(self) -> str:
        """A token that lets an instrument send readings to this calibration; the one before no longer counts."""
        token = secrets.token_urlsafe(24)
        self.token_hash = hashed(token)
        self.save(update_fields=["token_hash"])
        return token


def hashed(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode()).hexdigest()


class Reading(models.Model):
    """Litres poured in all, and the ohms read then. A simulated one says so for ever."""

    calibration = models.ForeignKey(Calibration, on_delete=models.CASCADE, related_name="readings")
    litres = models.FloatField()
    ohms = models.FloatField()
    at = models.DateTimeField()
    simulated = models.BooleanField()
    source = models.CharField(max_length=40)

    class Meta:
        ordering = ["at", "pk"]

    def __str__(self) -> str:
        return f"{self.litres:g} L, {self.ohms:g} ohm"
