"""How a float moves: on an arm about its pivot, or in a tube."""

from dataclasses import dataclass
from math import asin, degrees, radians, sin

from keel.design.gauge import SwingArm


@dataclass(frozen=True, slots=True)
class Swing:
    """An arm about its pivot: the float's height is pivot + arm · sin θ."""

    arm_mm: float
    pivot_mm: float
    empty_deg: float
    full_deg: float

    def height(self, needle: float) -> float:
        """Float's middle at a share of the needle's travel; θ is linear in it [mm]."""
        angle = radians(self.empty_deg + needle * (self.full_deg - self.empty_deg))
        return self.pivot_mm + self.arm_mm * sin(angle)

    def needle(self, height_mm: float) -> float:
        """Where the needle stands with the float at a height; it stays at its stops beyond them."""
        reach = (height_mm - self.pivot_mm) / self.arm_mm
        angle = degrees(asin(min(1.0, max(-1.0, reach))))
        return min(1.0, max(0.0, (angle - self.empty_deg) / (self.full_deg - self.empty_deg)))


@dataclass(frozen=True, slots=True)
class Slide:
    """A float in a tube: height and needle go straight with each other."""

    empty_mm: float
    full_mm: float

    def height(self, needle: float) -> float:
        """Float's middle at a share of the needle's travel [mm]."""
        return self.empty_mm + needle * (self.full_mm - self.empty_mm)

    def needle(self, height_mm: float) -> float:
        """Where the needle stands with the float at a height."""
        return min(1.0, max(0.0, (height_mm - self.empty_mm) / (self.full_mm - self.empty_mm)))


def made_travel_mm(arm: SwingArm) -> float:
    """Travel that a sender as delivered is made for: H0 = R0 (sin full − sin empty) [mm], plane geometry."""
    return arm.made_arm_mm * (sin(radians(arm.full_stop_deg)) - sin(radians(arm.empty_stop_deg)))


def swing_for(arm: SwingArm, empty_mm: float, full_mm: float) -> Swing:
    """Arm and pivot that take the float from one height to the other between the same stops.

    R = R0 · H / H0; the pivot stands at z_full − R sin(full).

    References
    ----------
    Derived from the arm's geometry: the same stops and resistor, another height.
    """
    radius = arm.made_arm_mm * (full_mm - empty_mm) / made_travel_mm(arm)
    return Swing(radius, full_mm - radius * sin(radians(arm.full_stop_deg)), arm.empty_stop_deg, arm.full_stop_deg)
