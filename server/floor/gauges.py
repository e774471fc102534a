"""Stand-ins for a gauge on a tank: a simulated tank whose minutes pass in seconds."""

from dataclasses import asdict
from datetime import datetime
from typing import Any

from keel.design.proof import TestGauge
from keel.studies.proof.rig import Rig, Surroundings, read
from keel.studies.proof.series import Series

MINUTES_A_SECOND = 2.0
"""Nobody waits for a simulated hour."""
EVERY_S = 60.0
LONGEST_MIN = 24 * 60.0


def written(rig: Rig) -> dict[str, Any]:
    """A rig as it is stored."""
    return asdict(rig) | {"gauge": rig.gauge.model_dump(mode="json")}


def stored(document: dict[str, Any]) -> Rig:
    """A rig as it was stored."""
    around = document["surroundings"]
    around = Surroundings(**(around | {"sun_min": tuple(around["sun_min"])}))
    return Rig(**(document | {"surroundings": around, "gauge": TestGauge.model_validate(document["gauge"])}))


def minutes_so_far(started: datetime, now: datetime) -> float:
    """How many simulated minutes have passed: as many as somebody lets, a day at most."""
    return min(LONGEST_MIN, max(0.0, (now - started).total_seconds() * MINUTES_A_SECOND))


def shown(rig: Rig, minutes: float) -> Series:
    """What the simulated gauge has shown so far."""
    return read(rig, minutes, EVERY_S)
