"""Where every joint of the line is: what is hot under it, and whether an eye gets to it."""

from dataclasses import dataclass
from functools import cache
from math import pi

import numpy as np
from numpy.typing import NDArray

from keel.analysis.parts import LINES, SOLIDS
from keel.analysis.study import study
from keel.design.lines import LineRun, Lines
from keel.routes.nearness import in_slabs
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.lines.places import LINE_PLACES, LinePlaces
from keel.studies.lines.surroundings import HOT, SURROUNDINGS, ZONES, Surroundings
from keel.studies.result import Point

DRIPS_MM = 30.0
"""What leaks runs so far aside as it drips (house rule)."""
EYE_MM, CLOSE_MM = 400.0, 25.0
"""From how far a joint is looked at, and what of that is the joint itself (house rule)."""
SIGHTS = 60
LEAST_SIGHT = 0.05


@dataclass(frozen=True, slots=True)
class JointPlace:
    """A joint outside the tank.

    Attributes
    ----------
    over : str
        What is hot under it; empty: nothing.
    over_mm : float
        How far under it.
    sees, sees_open : float
        Share of the ways that an eye may look from which it is seen; and with what closes after the tank taken off.
    """

    run: str
    name: str
    side: str
    at: Point
    over: str
    over_mm: float
    sees: float
    sees_open: float


def joint_places(lines: Lines, places: LinePlaces, about: Surroundings, solids: Solids) -> list[JointPlace]:
    """Every joint outside the tank.

    Parameters
    ----------
    lines : Lines
        Runs and parts.
    places : LinePlaces
        Where they lie.
    about : Surroundings
        What is hot, and what stands in the way of an eye.
    solids : Solids
        The tank, that also does.

    Returns
    -------
    list of JointPlace
        Run by run, start before end.
    """
    hung = {part.id for part in lines.parts if part.hangs_in is not None}
    ways = {way.id: way.way for way in places.runs}
    shut = frozenset(sheet.key for sheet in about.sheets if sheet.closes)
    found = []
    for run in lines.runs:
        if run.id not in ways:
            continue
        for side, end, spot in (("start", run.start, ways[run.id][0]), ("end", run.end, ways[run.id][-1])):
            if end.part in hung and not _leads_out(run, hung):
                continue
            at = np.array([spot.x, spot.y, spot.z])
            over, drop = _over(at, about)
            seen = [seen_from(at, about, solids, without) for without in (frozenset[str](), shut)]
            found.append(JointPlace(run.id, run.name, side, spot, over, drop, *seen))
    return found


def _leads_out(run: LineRun, hung: set[str]) -> bool:
    return (run.start.part in hung) != (run.end.part in hung)


def _over(at: Array, about: Surroundings) -> tuple[str, float]:
    """The nearest hot thing that drips would fall on."""
    best, name = np.inf, ""
    for thing, low, high in zip(about.boxes, about.lows, about.highs, strict=True):
        if thing.kind not in HOT or high[2] > at[2]:
            continue
        aside = np.maximum(np.maximum(low[:2] - at[:2], at[:2] - high[:2]), 0.0)
        if float(np.linalg.norm(aside)) <= DRIPS_MM and at[2] - high[2] < best:
            best, name = float(at[2] - high[2]), thing.name
    for thing in about.others:
        if thing.kind not in HOT:
            continue
        line = np.array([at, at - [0.0, 0.0, 2000.0]])
        near = about.near_other(thing, line)
        if near is not None and near.distance <= DRIPS_MM and at[2] - near.on_line[2] < best:
            best, name = float(at[2] - near.on_line[2]), thing.name
    return name, best if name else 0.0


@cache
def _looks() -> Array:
    """Directions evenly all round, shape (n, 3), of unit length (a golden spiral)."""
    n = np.arange(SIGHTS) + 0.5
    up, turn = 1 - 2 * n / SIGHTS, pi * (1 + 5**0.5) * n
    flat = np.sqrt(1 - up**2)
    return np.stack([flat * np.cos(turn), flat * np.sin(turn), up], axis=1)


def seen_from(at: Array, about: Surroundings, solids: Solids, without: frozenset[str] = frozenset()) -> float:
    """From what share of the ways an eye sees a place.

    Parameters
    ----------
    at : ndarray, shape (3,)
        The place [mm].
    about : Surroundings
        What hides it.
    solids : Solids
        The tank, that also does.
    without : frozenset of str
        Keys of what is taken off.

    Returns
    -------
    float
        From nothing to 1.
    """
    looks = _looks()
    kept = [n for n, thing in enumerate(about.boxes) if thing.key not in without and thing.kind not in ZONES]
    starts, ends = at + CLOSE_MM * looks, at + EYE_MM * looks
    hidden = _boxes_hide(starts, ends, about.lows[kept], about.highs[kept]) if kept else np.zeros(len(looks), bool)
    for n in np.flatnonzero(~hidden):
        hidden[n] = bool(solids.outer.ray_cast(list(starts[n]), list(ends[n])))
    return float(1 - hidden.mean())


def _boxes_hide(starts: Array, ends: Array, lows: Array, highs: Array) -> NDArray[np.bool_]:
    """Which straights pass any of several boxes."""
    enter, leave = in_slabs(starts[:, None], (ends - starts)[:, None], lows[None], highs[None])
    return np.asarray(((enter <= leave) & (leave >= 0) & (enter <= 1)).any(axis=1))


JOINT_PLACES = study(joint_places, LINES, LINE_PLACES, SURROUNDINGS, SOLIDS).at_rest()
