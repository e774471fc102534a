"""Every run as it lies in space: its middle with its corners round, and how thick it is."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import LINES, RULES, WORKSHOP
from keel.analysis.study import study
from keel.design.benders import TubeBender
from keel.design.hoses import HoseStock
from keel.design.lines import TANK, LineRun, Lines
from keel.design.workshop import HouseRules, Workshop
from keel.routes.rounded import Array, rounded
from keel.studies.lines.hose_stock import outside_of_hose, radius_of_hose
from keel.studies.lines.places import LINE_PLACES, LinePlaces
from keel.studies.lines.tube_stock import outside_of, radius_of
from keel.studies.result import Point

CROWDED_MM = 1.0


@dataclass(frozen=True, slots=True)
class RunShape:
    """A run in space.

    Attributes
    ----------
    line : ndarray, shape (n, 3)
        Its middle, arcs as chords; straight from corner to corner where it can't be made as it is drawn [mm].
    outside_mm : float
        Its outside.
    inside : bool
        All of it lies in the tank.
    on_tank : (bool, bool)
        Whether its start and its end are joined to the tank, or to what hangs in it.
    """

    id: str
    name: str
    kind: str
    line: Array
    outside_mm: float
    inside: bool
    on_tank: tuple[bool, bool]

    @property
    def length_mm(self) -> float:
        """Along its middle."""
        return float(np.linalg.norm(np.diff(self.line, axis=0), axis=1).sum())


def run_shapes(lines: Lines, places: LinePlaces, workshop: Workshop) -> list[RunShape]:
    """Every hose and tube in space.

    Parameters
    ----------
    lines : Lines
        Runs.
    places : LinePlaces
        Where they lie.
    workshop : Workshop
        Its hoses and benders.

    Returns
    -------
    list of RunShape
        In the order of the runs; parts that are screwed together are none.
    """
    ways = {way.id: np.array([[at.x, at.y, at.z] for at in way.way]) for way in places.runs}
    hung = {part.id for part in lines.parts if part.hangs_in is not None}
    found = []
    for run in lines.runs:
        if run.id not in ways or run.kind == "direct":
            continue
        ends = (run.start.part, run.end.part)
        found.append(
            RunShape(
                id=run.id,
                name=run.name,
                kind=run.kind,
                line=_line(run, ways[run.id], workshop.hoses, workshop.benders),
                outside_mm=outside_of(run) if run.kind == "tube" else outside_of_hose(run, workshop.hoses),
                inside=all(end in hung for end in ends),
                on_tank=(ends[0] == TANK or ends[0] in hung, ends[1] == TANK or ends[1] in hung),
            )
        )
    return found


def _line(run: LineRun, points: Array, hoses: Sequence[HoseStock], benders: Sequence[TubeBender]) -> Array:
    radius = radius_of(run, benders) if run.kind == "tube" else radius_of_hose(run, hoses)
    try:
        way = rounded(points, radius)
    except ValueError:
        return points
    return points if (way.straights_mm < -CROWDED_MM).any() else way.line()


@dataclass(frozen=True, slots=True)
class RouteShown:
    """A run as it is drawn.

    Attributes
    ----------
    line : list of Point
        Its middle, arcs as chords.
    stands_off_mm : float
        From its middle to a face that it runs along without rubbing.
    """

    id: str
    line: list[Point]
    outside_mm: float
    length_mm: float
    stands_off_mm: float


def routes_shown(shapes: Sequence[RunShape], rules: HouseRules) -> list[RouteShown]:
    """Runs for the drawing.

    Parameters
    ----------
    shapes : sequence of RunShape
        As they lie.
    rules : HouseRules
        How far off they stay.

    Returns
    -------
    list of RouteShown
        In the order of the runs.
    """
    return [
        RouteShown(
            one.id,
            [Point.of(at) for at in one.line],
            one.outside_mm,
            one.length_mm,
            one.outside_mm / 2 + rules.rub_mm,
        )
        for one in shapes
    ]


RUN_SHAPES = study(run_shapes, LINES, LINE_PLACES, WORKSHOP)
ROUTES = study(routes_shown, RUN_SHAPES, RULES)
