"""Openings that plates are tried with: notches in the foot, and a door towards the pickup."""

from typing import Any

from keel.design.document import Design
from keel.solid.box import Triple

NOTCH_HIGH_MM, DOOR_HIGH_MM = 25.0, 50.0
SPREAD = (0.2, 0.5, 0.8)
"""Where notches stand along a plate, against its length."""
DOOR_SHARE, NOTCH_MM = 0.4, 40.0
"""A door's width against the plate's length, and a notch's, where nothing else is asked."""


def feet(plate: dict[str, Any], size: Triple, wide_mm: float = NOTCH_MM) -> list[dict[str, float]]:
    """Three notches in a plate's foot; none of no width."""
    long = _long(plate, size)
    return [{"at_mm": round(long * share), "wide_mm": wide_mm, "high_mm": NOTCH_HIGH_MM} for share in SPREAD if wide_mm]


def door_towards(
    design: Design, plate: dict[str, Any], size: Triple, wide_mm: float | None = None
) -> list[dict[str, Any]]:
    """A flap on the floor that lets fuel through towards the first pickup only; none of no width.

    It stands opposite the pickup, as far as it keeps its own width from the plate's ends.
    """
    wide = DOOR_SHARE * _long(plate, size) if wide_mm is None else wide_mm
    pickup = next((port for port in design.ports if port.role == "pickup" and not port.capped), None)
    if pickup is None or not wide:
        return []
    along, across = (pickup.x_mm, pickup.y_mm) if plate["axis"] == "x" else (pickup.y_mm, pickup.x_mm)
    at = min(max(across, wide), max(wide, _long(plate, size) - wide))
    opens = "ahead" if plate["at_mm"] < along else "back"
    return [{"at_mm": round(at), "up_mm": 0.0, "wide_mm": round(wide), "high_mm": DOOR_HIGH_MM, "opens": opens}]


def _long(plate: dict[str, Any], size: Triple) -> float:
    return size[1] if plate["axis"] == "x" else size[0]
