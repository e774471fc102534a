"""Where runs go through sheet: the hole that is there or is asked for, and what guards its edge."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import acos, degrees

import numpy as np

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.lines import LineRun, Lines, Passing, WayThrough
from keel.reference.connections import SIZES, Size
from keel.solid.polyhedron import Array
from keel.studies.lines.run_shapes import RUN_SHAPES, RunShape
from keel.studies.lines.surroundings import SURROUNDINGS, Hole, Sheet, Surroundings, sheet_of
from keel.studies.result import Point

GROMMET_MM = 3.0
"""Rubber between a line and the edge of its hole (house rule)."""
SLANT_DEG = 30.0
"""A grommet bears a line that goes through so far off square (house rule)."""
BOARD_MARGIN_MM = 12.0
"""What a removable board laps over its opening all round, for its seal and screws (house rule)."""


BOLT_ROOM_MM = 0.5


@dataclass(frozen=True, slots=True)
class Crossing:
    """A run through a sheet.

    Attributes
    ----------
    hole : str
        The gap of the sheet that it goes through; empty: a hole of its own, or none.
    way : str
        How it gets through; empty: no hole is there for it.
    hole_mm, needed_mm : float
        Across that hole, and what the run asks for.
    edge_mm : float
        From the run to the hole's edge, on the nearest side; of a hole of its own as if it sat in its middle.
    off_square_deg : float
        How far off square to the sheet it goes through.
    sealed : bool
        The gap is closed.
    """

    run: str
    name: str
    panel: str
    panel_name: str
    at: Point
    axis: str
    hole: str
    way: WayThrough | None
    hole_mm: float
    needed_mm: float
    edge_mm: float
    off_square_deg: float
    sealed: bool
    outside_mm: float
    along_mm: float


def crossings(lines: Lines, shapes: Sequence[RunShape], about: Surroundings) -> list[Crossing]:
    """Every place where a run goes through a sheet.

    Parameters
    ----------
    lines : Lines
        Runs, with the holes that they have for themselves.
    shapes : sequence of RunShape
        As they lie.
    about : Surroundings
        Sheets with their holes.

    Returns
    -------
    list of Crossing
        Run by run. A run that has a hole of its own in a sheet goes through that wherever it meets it first.
    """
    runs = {run.id: run for run in lines.runs}
    found: list[Crossing] = []
    for shape in shapes:
        if shape.inside:
            continue
        for sheet in about.sheets:
            found += _through(runs[shape.id], shape, sheet, about.sheets)
    return found


def hole_for(outside_mm: float, bore_mm: float, way: WayThrough) -> float:
    """Across the hole that a run asks for [mm].

    Parameters
    ----------
    outside_mm, bore_mm : float
        Of the run.
    way : str
        How it gets through.

    Returns
    -------
    float
        A grommet's seat; the thread of a bulkhead fitting with half a millimetre of room; a board's opening.
    """
    if way == "bulkhead fitting":
        return bulkhead_size(bore_mm).diameter_mm + BOLT_ROOM_MM
    return outside_mm + 2 * (GROMMET_MM if way == "grommet" else BOARD_MARGIN_MM)


def bulkhead_size(bore_mm: float) -> Size:
    """The bulkhead fitting for a run: its flare's size by the bore."""
    return min(SIZES["37° flare"].values(), key=lambda one: abs(one.bore_mm - bore_mm))


def _through(run: LineRun, shape: RunShape, sheet: Sheet, sheets: Sequence[Sheet]) -> Iterator[Crossing]:
    own = [one for one in run.passes if sheet_of(one.panel, sheets) is sheet]
    for at, way, along in _meets(shape.line, sheet):
        u, v = (float(at[axis]) for axis in sheet.others)
        hole = next((one for one in sheet.holes if _within(one, u, v)), None)
        passing = own.pop(0) if own and hole is None else None
        yield _crossing(run, shape, sheet, at, abs(float(way[sheet.axis])), along, hole, passing)


def _meets(line: Array, sheet: Sheet) -> Iterator[tuple[Array, Array, float]]:
    """Where a line passes the middle of a sheet: the place, the way, how far along."""
    middle = (sheet.low[sheet.axis] + sheet.high[sheet.axis]) / 2
    steps = np.diff(line, axis=0)
    sizes = np.linalg.norm(steps, axis=1)
    gone = np.concatenate([[0.0], np.cumsum(sizes)])
    side = line[:, sheet.axis] - middle
    for n in np.flatnonzero((side[:-1] < 0) != (side[1:] < 0)):
        share = side[n] / (side[n] - side[n + 1])
        at = line[n] + share * steps[n]
        if all(sheet.low[axis] <= at[axis] <= sheet.high[axis] for axis in sheet.others):
            yield at, steps[n] / sizes[n], float(gone[n] + share * sizes[n])


def _within(hole: Hole, u: float, v: float) -> bool:
    return hole.low[0] <= u <= hole.high[0] and hole.low[1] <= v <= hole.high[1]


def _crossing(
    run: LineRun,
    shape: RunShape,
    sheet: Sheet,
    at: Array,
    square: float,
    along: float,
    hole: Hole | None,
    passing: Passing | None,
) -> Crossing:
    way: WayThrough | None = "grommet" if hole else passing.way if passing else None
    needed = hole_for(shape.outside_mm, run.bore_mm, way or "grommet")
    u, v = (float(at[axis]) for axis in sheet.others)
    if hole:
        across = min(hole.high[0] - hole.low[0], hole.high[1] - hole.low[1])
        edge = min(u - hole.low[0], hole.high[0] - u, v - hole.low[1], hole.high[1] - v) - shape.outside_mm / 2
    else:
        across = (passing.hole_mm if passing else None) or needed
        edge = (across - shape.outside_mm) / 2
    return Crossing(
        run=run.id,
        name=run.name,
        panel=sheet.key,
        panel_name=sheet.name,
        at=Point.of(at),
        axis="xyz"[sheet.axis],
        hole=hole.name if hole else "",
        way=way,
        hole_mm=across,
        needed_mm=needed,
        edge_mm=edge,
        off_square_deg=degrees(acos(min(1.0, square))),
        sealed=bool(hole and hole.sealed),
        outside_mm=shape.outside_mm,
        along_mm=along,
    )


CROSSINGS = study(crossings, LINES, RUN_SHAPES, SURROUNDINGS)
