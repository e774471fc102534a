"""Where runs go through sheet: by a hole with a grommet, by a bulkhead fitting, by a removable board."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import acos, degrees
from typing import Literal

import numpy as np

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.line_functions import PassageDoes
from keel.design.line_parts import LinePart
from keel.design.lines import LineRun, Lines, Passing
from keel.reference.connections import SIZES, Size
from keel.solid.polyhedron import Array
from keel.studies.lines.places import place_of_connection
from keel.studies.lines.run_shapes import RUN_SHAPES, RunShape
from keel.studies.lines.surroundings import SURROUNDINGS, Hole, Sheet, Surroundings, sheet_of
from keel.studies.result import Point

WayThrough = Literal["grommet", "bulkhead fitting", "removable board"]
GROMMET_MM = 3.0
"""Rubber between a line and the edge of its hole (house rule)."""
SLANT_DEG = 30.0
"""A grommet bears a line that goes through so far off square (house rule)."""
THREAD_ROOM_MM = 0.5


@dataclass(frozen=True, slots=True)
class Crossing:
    """A run through a sheet, or a bulkhead fitting in one.

    Attributes
    ----------
    id : str
        Of the run or the part.
    hole : str
        The gap of the sheet that it goes through; empty: a hole of its own, or none.
    way : str or None
        How it gets through; None: no hole is there for it.
    hole_mm, needed_mm : float
        Across that hole, and what is asked for.
    edge_mm : float
        From a run to the hole's edge, on the nearest side; of a hole of its own as if it sat in its middle.
    off_square_deg : float
        How far off square to the sheet it goes through.
    sealed : bool
        The gap is closed.
    along_mm : float
        From a run's start.
    """

    id: str
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
    along_mm: float


def crossings(lines: Lines, shapes: Sequence[RunShape], about: Surroundings) -> list[Crossing]:
    """Every place where a run goes through a sheet, and every bulkhead fitting in one.

    Parameters
    ----------
    lines : Lines
        Runs, with the holes that they have for themselves; parts.
    shapes : sequence of RunShape
        Runs as they lie.
    about : Surroundings
        Sheets with their holes.

    Returns
    -------
    list of Crossing
        Run by run, then fittings. A run that has a hole of its own in a sheet goes through it where it meets it first.
    """
    runs = {run.id: run for run in lines.runs}
    found: list[Crossing] = []
    for shape in shapes:
        if not shape.inside:
            for sheet in about.sheets:
                found += _through(runs[shape.id], shape, sheet, about.sheets)
    for part in lines.parts:
        if isinstance(part.does, PassageDoes) and part.does.kind == "bulkhead" and part.hangs_in is None:
            found += [_fitted(part, part.does, sheet) for sheet in about.sheets if stands_in(part, sheet)]
    return found


def grommet_hole_mm(outside_mm: float) -> float:
    """Across the hole that a run asks for, with a grommet [mm].

    Parameters
    ----------
    outside_mm : float
        Across the run [mm].

    Returns
    -------
    float
        Across the hole [mm].
    """
    return outside_mm + 2 * GROMMET_MM


def bulkhead_size(bore_mm: float) -> tuple[str, Size]:
    """The bulkhead fitting for a run: its flare's size by the bore.

    Parameters
    ----------
    bore_mm : float
        Of the run [mm].

    Returns
    -------
    str, Size
        The nearest size's name, and what it measures.
    """
    return min(SIZES["37° flare"].items(), key=lambda one: abs(one[1].bore_mm - bore_mm))


def stands_in(part: LinePart, sheet: Sheet) -> bool:
    """Whether a fitting's ends lie on either side of a sheet, within it."""
    a, b = (place_of_connection(part, port) for port in ("in", "out"))
    middle = (sheet.low[sheet.axis] + sheet.high[sheet.axis]) / 2
    at = (a + b) / 2
    within = all(sheet.low[axis] <= at[axis] <= sheet.high[axis] for axis in sheet.others)
    return within and bool((a[sheet.axis] < middle) != (b[sheet.axis] < middle))


def _fitted(part: LinePart, does: PassageDoes, sheet: Sheet) -> Crossing:
    way = place_of_connection(part, "out") - place_of_connection(part, "in")
    square = abs(float(way[sheet.axis])) / float(np.linalg.norm(way))
    at = np.array([part.x_mm, part.y_mm, part.z_mm])
    hole = _hole_at(sheet, at)
    needed = bulkhead_size(does.bore_mm)[1].diameter_mm + THREAD_ROOM_MM
    return Crossing(
        id=part.id,
        name=part.name,
        panel=sheet.key,
        panel_name=sheet.name,
        at=Point.of(at),
        axis="xyz"[sheet.axis],
        hole=hole.name if hole else "",
        way="removable board" if part.board else "bulkhead fitting",
        hole_mm=_across(hole) if hole else needed,
        needed_mm=needed,
        edge_mm=0.0,
        off_square_deg=degrees(acos(min(1.0, square))),
        sealed=bool(hole and hole.sealed),
        along_mm=0.0,
    )


def _across(hole: Hole) -> float:
    return min(hole.high[0] - hole.low[0], hole.high[1] - hole.low[1])


def _hole_at(sheet: Sheet, at: Array) -> Hole | None:
    u, v = (float(at[axis]) for axis in sheet.others)
    return next((one for one in sheet.holes if _within(one, u, v)), None)


def _through(run: LineRun, shape: RunShape, sheet: Sheet, sheets: Sequence[Sheet]) -> Iterator[Crossing]:
    own = [one for one in run.passes if sheet_of(one.panel, sheets) is sheet]
    for at, way, along in _meets(shape.line, sheet):
        hole = _hole_at(sheet, at)
        passing = own.pop(0) if own and hole is None else None
        yield _crossing(shape, sheet, at, abs(float(way[sheet.axis])), along, hole, passing)


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
    shape: RunShape, sheet: Sheet, at: Array, square: float, along: float, hole: Hole | None, passing: Passing | None
) -> Crossing:
    needed = grommet_hole_mm(shape.outside_mm)
    across = _across(hole) if hole else (passing.hole_mm if passing else None) or needed
    edge = (across - shape.outside_mm) / 2
    if hole:
        u, v = (float(at[axis]) for axis in sheet.others)
        edge = min(u - hole.low[0], hole.high[0] - u, v - hole.low[1], hole.high[1] - v) - shape.outside_mm / 2
    return Crossing(
        id=shape.id,
        name=shape.name,
        panel=sheet.key,
        panel_name=sheet.name,
        at=Point.of(at),
        axis="xyz"[sheet.axis],
        hole=hole.name if hole else "",
        way="grommet" if hole or passing else None,
        hole_mm=across,
        needed_mm=needed,
        edge_mm=edge,
        off_square_deg=degrees(acos(min(1.0, square))),
        sealed=bool(hole and hole.sealed),
        along_mm=along,
    )


CROSSINGS = study(crossings, LINES, RUN_SHAPES, SURROUNDINGS)
