"""Where a strapped tank is pressed against what it sits on, or hangs under: it tips about these places."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi

import numpy as np

from keel.design.mount import Mount
from keel.solid.polyhedron import Array
from keel.solid.shapes import slice_rings
from keel.solid.solids import Solids
from keel.studies.mount.bearers import TOUCH_MM, BearerPlace

DIRECTIONS = (np.arange(16) + 0.5) * pi / 8
"""The resting face is told by what of it is furthest out each way: not by all of a round's chords."""


@dataclass(frozen=True)
class Rest:
    """A place that the tank rests on, and whose it is: a bearer's id, or nobody's."""

    holder: str
    at: Array


def resting_places(mount: Mount, bearers: Mapping[str, BearerPlace], solids: Solids, sits: bool) -> list[Rest]:
    """Outermost places of the face that a tank rests on.

    Parameters
    ----------
    mount : Mount
        Bearers.
    bearers : mapping of BearerPlace
        Where they touch, by their ids.
    solids : Solids
        The shell worked out.
    sits : bool
        Whether straps press it down; else up against what it hangs under.

    Returns
    -------
    list of Rest
        Both ends of the contact of each bearer on that side; without any the furthest corners of the body's lowest, or
        highest, face. A sump hangs free.
    """
    side = "under" if sits else "over"
    on = [(bar, bearers[bar.id]) for bar in mount.bearers if bar.stands == side and bar.id in bearers]
    if on:
        return [
            Rest(bar.id, np.array(_on(bar.along, bar.at_mm, at, place.z_mm)))
            for bar, place in on
            for at in (place.start_mm, place.end_mm)
        ]
    z = solids.body.low[2] if sits else solids.body.high[2]
    rings = slice_rings(solids.outer, 2, z + (TOUCH_MM if sits else -TOUCH_MM))
    if not rings:
        return []
    spots = np.vstack(rings)
    furthest = (spots @ np.vstack([np.cos(DIRECTIONS), np.sin(DIRECTIONS)])).argmax(axis=0)
    corners = spots[np.unique(furthest)]
    return [Rest("", np.array([x, y, z])) for x, y in corners]


def _on(along: str, at_mm: float, spot_mm: float, z_mm: float) -> tuple[float, float, float]:
    return (at_mm, spot_mm, z_mm) if along == "y" else (spot_mm, at_mm, z_mm)
