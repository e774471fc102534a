"""Baffles that cross: each is slotted half way, the later one lowered onto the earlier."""

from dataclasses import dataclass

from shapely.affinity import translate
from shapely.geometry import LineString, box
from shapely.geometry.base import BaseGeometry

from keel.design.features import Baffle
from keel.solid.planes import shape_of
from keel.solid.solids import Solids

FAR_MM = 1e4
SAME_MM = 1e-6


@dataclass(frozen=True)
class Slot:
    """What is cut out of a baffle for one that crosses it: along the plate and up [mm].

    `slot` goes right through it; `flanges` is the band in which it has no flange, since the other's plate, or the
    other's own flange, is there.
    """

    slot: BaseGeometry
    flanges: BaseGeometry


def slots(baffle: Baffle, solids: Solids, gap_mm: float, usual_flange_mm: float) -> list[Slot]:
    """What baffles that cross another cut out of it.

    Parameters
    ----------
    baffle : Baffle
        The one that is slotted.
    solids : Solids
        The shell as built.
    gap_mm : float
        How much wider than the other's sheet a slot is [mm].
    usual_flange_mm : float
        Outside height of flanges where a baffle names none [mm].

    Returns
    -------
    list of Slot
        Of two that cross the one that was first in the list is slotted from above, the later one from below. The
        later one's flanges go through, the earlier one's stop short of them.
    """
    baffles = [one for one in solids.shell.features if isinstance(one, Baffle)]
    here = next(place for place, one in enumerate(baffles) if one.id == baffle.id)
    found = []
    for place, other in enumerate(baffles):
        if other.axis == baffle.axis:
            continue
        first = here < place
        earlier, later = (baffle, other) if first else (other, baffle)
        middle = _half_way(earlier, later, solids)
        if middle is None:
            continue
        start, end = _across(other, solids)
        start, end = start - gap_mm / 2, end + gap_mm / 2
        slot = box(start, middle, end, FAR_MM) if first else box(start, -FAR_MM, end, middle)
        reach = other.flange(usual_flange_mm)
        # Flanges stand out to the front of a plate square to x, to the right of one square to y.
        before, after = (reach, 0.0) if other.axis == "y" else (0.0, reach)
        band = box(start - before, -FAR_MM, end + after, FAR_MM) if first else box(start, -FAR_MM, end, FAR_MM)
        found.append(Slot(slot, band))
    return found


def _half_way(earlier: Baffle, later: Baffle, solids: Solids) -> float | None:
    """Half way up the line that two baffles share; None where they don't cross."""
    spans = []
    for one, other in ((earlier, later), (later, earlier)):
        plate = solids.plates.get(one.id)
        if plate is None:
            return None
        at = sum(_across(other, solids)) / 2
        left = shape_of((plate.whole or (plate.section, plate.left))[1])
        line = left.intersection(LineString([(at, -FAR_MM), (at, FAR_MM)]))
        spans.append(translate(line, -at))
    shared = spans[0].intersection(spans[1])
    if shared.length <= SAME_MM:
        return None
    _, low, _, high = shared.bounds
    return float(low + high) / 2


def _across(baffle: Baffle, solids: Solids) -> tuple[float, float]:
    """From where to where a baffle's sheet stands along its own axis [mm]."""
    start = solids.datum["xy".index(baffle.axis)] + baffle.at_mm
    return start, start + baffle.wall_mm(solids.shell.feature_wall_mm)
