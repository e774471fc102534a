"""Workshops and the people in them. Every other row belongs to a workshop."""

from django.contrib.auth.models import AbstractUser
from django.db import models

from keel.design.vehicle import Vehicle
from keel.design.workshop import Workshop as WorkshopRules
from keel.reference.quantities import UNIT_SETS, UnitSet


class Workshop(models.Model):
    """A workshop with its rules and machines, as the core's document."""

    name = models.CharField(max_length=80)
    rules = models.JSONField(default=dict)
    version = models.PositiveIntegerField(default=1)

    def __str__(self) -> str:
        return self.name

    def settings(self) -> WorkshopRules:
        """House rules, machines, stock and library; what was never set has its default."""
        return WorkshopRules.model_validate(self.rules)

    def document(self) -> WorkshopRules:
        """All of that with the vehicles, for the core."""
        measured = [vehicle.measured() for vehicle in self.vehicles.all()]
        return self.settings().model_copy(update={"vehicles": measured})


class MeasuredVehicle(models.Model):
    """A vehicle as the core's document, kept once and shared by the jobs that are for it."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="vehicles")
    version = models.PositiveIntegerField(default=1)
    changed = models.DateTimeField(auto_now=True)
    document_json = models.JSONField()

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return str(self.document_json.get("name", ""))

    @property
    def key(self) -> str:
        """How designs name it."""
        return f"vehicle-{self.pk}"

    def measured(self) -> Vehicle:
        """As the core has it."""
        return Vehicle.model_validate(self.document_json | {"id": self.key})


class Role(models.TextChoices):
    """What a person may do."""

    OWNER = "owner"
    FABRICATOR = "fabricator"
    VIEWER = "viewer"


class Units(models.TextChoices):
    """Units a person reads and types."""

    MM_L = "mm_l"
    IN_USGAL = "in_usgal"
    IN_IMPGAL = "in_impgal"


class Theme(models.TextChoices):
    """Light, dark, or as the device says."""

    SYSTEM = "system"
    LIGHT = "light"
    DARK = "dark"


class Person(AbstractUser):
    """Somebody who signs in; belongs to one workshop."""

    workshop = models.ForeignKey(Workshop, on_delete=models.PROTECT, related_name="people")
    role = models.CharField(max_length=12, choices=Role.choices, default=Role.VIEWER)
    name = models.CharField(max_length=80)
    units = models.CharField(max_length=12, choices=Units.choices, default=Units.MM_L)
    trades = models.JSONField(default=list, blank=True, help_text="What it may do beyond what anybody who builds may")
    theme = models.CharField(max_length=8, choices=Theme.choices, default=Theme.SYSTEM)

    def __str__(self) -> str:
        return self.name or self.username

    @property
    def reads(self) -> UnitSet:
        """The set of units it reads."""
        return next((units for units in UNIT_SETS if units == self.units), "mm_l")
