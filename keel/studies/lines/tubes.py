"""Rigid tubes as they are made: the bend table of each, by the shop's own bender."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import LINES, PORTS, WORKSHOP
from keel.analysis.study import study
from keel.design.benders import TubeBender
from keel.design.lines import LineRun, Lines
from keel.design.ports import Port
from keel.design.workshop import Workshop
from keel.routes.rounded import Array, Rounded, rounded
from keel.routes.tube import Bend, bend_table, carried_out
from keel.studies.lines.places import LINE_PLACES, LinePlaces, off_straight, out_of
from keel.studies.lines.tube_stock import bender_of, outside_of, radius_of


@dataclass(frozen=True, slots=True)
class TubeMade:
    """A tube as it is made.

    Attributes
    ----------
    outside_mm, radius_mm : float
        Its outside, and the radius of its bends.
    bender : str
        What it is bent on; empty: the shop has none for it, and springback isn't known.
    straights_mm : list of float
        Between its bends; below nothing where they run into each other.
    short : list of bool
        Which straights are shorter than the least grip.
    bends : list of Bend
        In the order in which they are made.
    cut_mm, rough_mm : float
        Its finished length along it, and of the piece that it is bent from.
    off_mm : float
        How far the table, fed, turned and bent step by step, misses its corners.
    turns_back : bool
        It turns back on itself: there is no table.
    askew_deg : list of float
        How far off straight it leaves its two ports.
    """

    id: str
    name: str
    outside_mm: float
    radius_mm: float
    bender: str
    straights_mm: list[float]
    least_grip_mm: float
    short: list[bool]
    bends: list[Bend]
    cut_mm: float
    rough_mm: float
    off_mm: float
    turns_back: bool
    askew_deg: list[float]


def tubes_made(lines: Lines, ports: Sequence[Port], places: LinePlaces, workshop: Workshop) -> list[TubeMade]:
    """Every rigid tube.

    Parameters
    ----------
    lines : Lines
        Runs.
    ports : sequence of Port
        The tank's: which way they face.
    places : LinePlaces
        Where runs lie.
    workshop : Workshop
        Its benders.

    Returns
    -------
    list of TubeMade
        In the order of the runs.

    References
    ----------
    As for `keel.routes.tube.bend_table`.
    """
    ways = {way.id: np.array([[at.x, at.y, at.z] for at in way.way]) for way in places.runs}
    return [
        _made(run, ways[run.id], workshop.benders, [out_of(end, lines, ports) for end in (run.start, run.end)])
        for run in lines.runs
        if run.kind == "tube" and run.id in ways
    ]


def _made(run: LineRun, points: Array, benders: Sequence[TubeBender], facing: Sequence[Array | None]) -> TubeMade:
    outside, radius, bender = outside_of(run), radius_of(run, benders), bender_of(run, benders)
    grip = bender.grip_mm if bender else 0.0
    strip = [(one.angle_deg, one.back_deg) for one in bender.springback] if bender else []
    name = bender.name if bender else ""
    try:
        way = rounded(points, radius)
    except ValueError:
        return TubeMade(run.id, run.name, outside, radius, name, [], grip, [], [], 0.0, 0.0, 0.0, True, [])
    table = bend_table(points, radius, outside, bender_grip_mm=grip, springback=strip)
    return TubeMade(
        id=run.id,
        name=run.name,
        outside_mm=outside,
        radius_mm=radius,
        bender=name,
        straights_mm=table.straights_mm,
        least_grip_mm=table.least_grip_mm,
        short=table.short,
        bends=table.bends,
        cut_mm=table.cut_mm,
        rough_mm=table.rough_mm,
        off_mm=float(
            np.abs(carried_out(table, radius, points[0], way.ways[0], _first_normal(way)) - way.corners).max()
        ),
        turns_back=False,
        askew_deg=[off_straight(way, out, last) for out, last in zip(facing, (False, True), strict=True)],
    )


def _first_normal(way: Rounded) -> Array:
    """Of the first bend's plane; of a straight tube any will do."""
    if not len(way.angles):
        return np.array([0.0, 0.0, 1.0])
    normal = np.cross(way.ways[0], way.ways[1])
    return np.asarray(normal / np.linalg.norm(normal))


TUBES = study(tubes_made, LINES, PORTS, LINE_PLACES, WORKSHOP)
