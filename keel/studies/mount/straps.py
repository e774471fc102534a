"""A strap's way round the tank: how long it is cut, where it is bent, what must change on one that is there."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import radians

import numpy as np
from scipy.optimize import brentq
from shapely import affinity

from keel.analysis.parts import SOLIDS, STRAPS_DRAWN
from keel.analysis.study import study
from keel.design.mount import Strap
from keel.solid.solids import Solids
from keel.solid.taut import Band, NoBandError, Outline, Run, band_over
from keel.studies.mount.outline import outline_at
from keel.studies.result import Point

FARTHEST_MM = 500.0
"""Anchors are moved no further than that to make an existing strap reach."""
LEAST_TAKE_UP = 0.2
"""Of the length in hand for tightening so much has to be left."""
SAME_MM = 0.5


@dataclass(frozen=True, slots=True)
class BendMark:
    """A bend as it is marked on the straight strip, from the end at its low anchor.

    Attributes
    ----------
    start_mm, end_mm : float
        Where it begins and ends [mm].
    angle_deg, radius_mm : float
        How far it turns, and its inside radius.
    """

    start_mm: float
    end_mm: float
    angle_deg: float
    radius_mm: float


@dataclass(frozen=True, slots=True)
class ExistingStrap:
    """What it takes to use a strap that is there.

    Attributes
    ----------
    long_mm : float
        Its whole length.
    short_by_mm : float
        How much the path needs more than it has with a fifth of its take-up left; below zero it is too long by that.
    anchors_up_mm : float or None
        How far both anchors move up or down so that it reaches with half its take-up; None where that isn't enough.
    """

    long_mm: float
    short_by_mm: float
    anchors_up_mm: float | None


@dataclass(frozen=True, slots=True)
class StrapPath:
    """A strap as it lies.

    Attributes
    ----------
    problem : str
        Why it can't; everything below is zero or empty then.
    path_mm : float
        From anchor to anchor along its inner face.
    cut_mm : float
        With both ends' loops and the take-up.
    outer_mm : float
        So much longer its middle runs in the bends: the take-up has it.
    runs : list of Run
        Straight and bent stretches from the low anchor on.
    marks : list of BendMark
        Bends on the strip.
    leans_deg : list of float
        How steep each leg stands.
    bridged_mm : float
        Widest gap under it; the pad's thickness where it lies on all the way.
    line : list of Point
        Its inner face, to draw.
    handed : bool
        Whether it is not the same from either end.
    """

    id: str
    name: str
    axis: str
    at_mm: float
    problem: str
    path_mm: float
    cut_mm: float
    outer_mm: float
    runs: list[Run]
    marks: list[BendMark]
    leans_deg: list[float]
    bridged_mm: float
    bridged_at: Point | None
    line: list[Point]
    touches: list[Point]
    handed: bool
    existing: ExistingStrap | None


def strap_paths(straps: Sequence[Strap], solids: Solids) -> list[StrapPath]:
    """Every strap's way round the tank at its own station.

    Parameters
    ----------
    straps : sequence of Strap
        As they are drawn.
    solids : Solids
        The shell worked out.

    Returns
    -------
    list of StrapPath
        In their order.
    """
    return [strap_path(strap, solids) for strap in straps]


def strap_path(strap: Strap, solids: Solids) -> StrapPath:
    """One strap's way round the tank: tangent from the anchor, hull of the padded section, tangent to the other.

    Parameters
    ----------
    strap : Strap
        The strap.
    solids : Solids
        The shell worked out.

    Returns
    -------
    StrapPath
        Cut length is the path with both loops and the take-up.
    """
    axis = 0 if strap.across == "y" else 1
    way = 1.0 if strap.passes == "over" else -1.0
    outline = outline_at(solids, axis, strap.at_mm)
    if outline.is_empty:
        return _none(strap, "it passes beside the tank")
    if way < 0:
        outline = affinity.scale(outline, 1.0, -1.0, origin=(0.0, 0.0))
    try:
        band = _band(strap, outline, way, 0.0)
    except NoBandError as error:
        return _none(strap, str(error))
    return _made(strap, band, outline, way)


def _band(strap: Strap, outline: Outline, way: float, up_mm: float) -> Band:
    """The band with both anchors moved up."""
    low, high = ((anchor.out_mm, way * (anchor.z_mm + up_mm)) for anchor in (strap.low, strap.high))
    return band_over(outline, strap.pad_mm, low, high)


def _made(strap: Strap, band: Band, outline: Outline, way: float) -> StrapPath:
    axis = 0 if strap.across == "y" else 1

    def placed(u: float, v: float) -> Point:
        place = np.zeros(3)
        place[axis], place[1 - axis], place[2] = strap.at_mm, u, way * v
        return Point.of(place)

    turned = sum(run.angle_deg for run in band.runs)
    marks = bend_marks(band.runs, strap.loop_mm)
    cut = band.long_mm + 2 * strap.loop_mm + strap.take_up_mm
    other = [(run.long_mm, run.angle_deg) for run in reversed(band.runs)]
    handed = any(
        abs(run.long_mm - long) > SAME_MM or abs(run.angle_deg - angle) > SAME_MM
        for run, (long, angle) in zip(band.runs, other, strict=True)
    )
    hollow = band.bridged_mm > strap.pad_mm + SAME_MM
    return StrapPath(
        id=strap.id,
        name=strap.name,
        axis="xy"[axis],
        at_mm=strap.at_mm,
        problem="",
        path_mm=band.long_mm,
        cut_mm=cut,
        outer_mm=radians(turned) * strap.thickness_mm / 2,
        runs=band.runs,
        marks=marks,
        leans_deg=list(band.lean_deg),
        bridged_mm=band.bridged_mm,
        bridged_at=placed(*band.bridged_at) if hollow else None,
        line=[placed(float(u), float(v)) for u, v in band.line],
        touches=[placed(*band.runs[0].end), placed(*band.runs[-1].start)],
        handed=handed,
        existing=_existing(strap, band, outline, way),
    )


def bend_marks(runs: Sequence[Run], loop_mm: float) -> list[BendMark]:
    """Where a strip is bent, from the end of its first loop.

    Parameters
    ----------
    runs : sequence of Run
        From anchor to anchor.
    loop_mm : float
        What is turned back at the first end [mm].

    Returns
    -------
    list of BendMark
        In order.
    """
    at, marks = loop_mm, list[BendMark]()
    for run in runs:
        if run.is_bend:
            marks.append(BendMark(at, at + run.long_mm, run.angle_deg, run.radius_mm))
        at += run.long_mm
    return marks


def _existing(strap: Strap, band: Band, outline: Outline, way: float) -> ExistingStrap | None:
    if strap.existing_mm is None:
        return None
    has = strap.existing_mm - 2 * strap.loop_mm
    short = band.long_mm + LEAST_TAKE_UP * strap.take_up_mm - has
    long = has - strap.take_up_mm - band.long_mm
    if short <= 0 and long <= 0:
        return ExistingStrap(strap.existing_mm, 0.0, 0.0)
    wanted = has - strap.take_up_mm / 2

    def off(up: float) -> float:
        try:
            return _band(strap, outline, way, up).long_mm - wanted
        except NoBandError:
            return -wanted

    # Anchors nearer to the tank's far side make the path shorter: up for a strap that passes over.
    ends = (0.0, way * FARTHEST_MM if short > 0 else -way * FARTHEST_MM)
    moved = float(brentq(off, *ends, xtol=1e-3)) if off(ends[0]) * off(ends[1]) < 0 else None
    if moved is not None and off(moved) < -SAME_MM:
        moved = None
    return ExistingStrap(strap.existing_mm, short if short > 0 else -long, moved)


def _none(strap: Strap, problem: str) -> StrapPath:
    axis = "x" if strap.across == "y" else "y"
    return StrapPath(
        strap.id, strap.name, axis, strap.at_mm, problem, 0.0, 0.0, 0.0, [], [], [], 0.0, None, [], [], False, None
    )


STRAPS = study(strap_paths, STRAPS_DRAWN, SOLIDS)
