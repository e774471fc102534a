"""How far stops stand off the tank that they are to hold."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import SOLIDS, STOPS_DRAWN
from keel.analysis.study import study
from keel.design.mount import Stop
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.mount.facing import outward

FAR_MM = 20_000.0
HAIR_MM = 1e-3


@dataclass(frozen=True, slots=True)
class StopPlace:
    """How far the middle of a stop's face is off the tank [mm]: below zero within it; None with nothing before it."""

    id: str
    gap_mm: float | None


def stop_places(stops: Sequence[Stop], solids: Solids) -> list[StopPlace]:
    """How far each stop is off the tank, square to its face.

    Parameters
    ----------
    stops : sequence of Stop
        As they are drawn.
    solids : Solids
        The shell worked out.

    Returns
    -------
    list of StopPlace
        In their order.
    """
    return [StopPlace(stop.id, _gap(stop, solids)) for stop in stops]


def _gap(stop: Stop, solids: Solids) -> float | None:
    way = outward(stop)
    # A face that lies on the tank counts as outside.
    face = np.array([stop.x_mm, stop.y_mm, stop.z_mm]) + HAIR_MM * way
    before = _hits(solids, face, -way)
    if len(before) % 2:
        return -min(_hits(solids, face, way)) - HAIR_MM
    return min(before) - HAIR_MM if before else None


def _hits(solids: Solids, start: Array, way: Array) -> list[float]:
    """How far along a ray it goes through the tank's outside [mm]."""
    end = start + FAR_MM * way
    return [hit.distance * FAR_MM for hit in solids.outer.ray_cast(list(start), list(end))]


STOP_PLACES = study(stop_places, STOPS_DRAWN, SOLIDS)
