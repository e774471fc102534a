"""A run parted by a bulkhead fitting where it goes through sheet."""

from typing import Any

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.connections import Connection
from keel.design.line_functions import PassageDoes
from keel.design.line_parts import LineComponent, LinePart, PartConnection
from keel.design.lines import LineRun, RunEnd
from keel.findings.finding import Patch
from keel.reference.connections import CLAMPED
from keel.solid.polyhedron import Array
from keel.stations.lines.remedies import lines_patch
from keel.studies.lines.crossings import Crossing, bulkhead_size
from keel.studies.lines.places import LINE_PLACES
from keel.studies.lines.run_shapes import RUN_SHAPES
from keel.studies.lines.surroundings import SURROUNDINGS, sheet_of

LONG_MM, ACROSS_MM = 55.0, 26.0
SAME_BORE_MM = 1.5


def with_bulkhead(tank: TankAnalysis, run: LineRun, crossing: Crossing) -> Patch:
    """A patch that parts a run by a bulkhead fitting, square to the sheet, corners and ends shared out.

    Parameters
    ----------
    tank : TankAnalysis
        The design.
    run : LineRun
        One of its runs.
    crossing : Crossing
        Where it goes through a sheet.

    Returns
    -------
    Patch
        With the shop's fitting of that bore, else a plain one; of the design's lines.
    """
    at = np.array([crossing.at.x, crossing.at.y, crossing.at.z])
    key = _fresh(tank, f"through-{crossing.panel.removeprefix('vehicle-')}")
    part = _fitting(tank, run, crossing, key, _heading(tank, run, crossing))
    before, behind = _corners_beside(tank, run, at)
    own = sheet_of(crossing.panel, tank[SURROUNDINGS].sheets)
    kept = tuple(one for one in run.passes if sheet_of(one.panel, tank[SURROUNDINGS].sheets) is not own)
    common = {"passes": kept, "length_mm": None}
    first = run.model_copy(update=common | {"end": RunEnd(part=key, port="in"), "corners": before})
    second = run.model_copy(
        update=common
        | {
            "id": _fresh(tank, f"{run.id}-2"),
            "name": f"{run.name}, beyond {crossing.panel_name}"[:80],
            "start": RunEnd(part=key, port="out"),
            "corners": behind,
        }
    )
    runs: list[LineRun] = []
    for one in tank.design.lines.runs:
        runs += [first, second] if one.id == run.id else [one]
    return lines_patch(parts=[*tank.design.lines.parts, part], runs=runs)


def _fresh(tank: TankAnalysis, wanted: str) -> str:
    """An id that nothing has."""
    lines = tank.design.lines
    taken = {part.id for part in lines.parts} | {run.id for run in lines.runs}
    names = [wanted[:36], *(f"{wanted[:36]}-{n}" for n in range(2, 100))]
    return next(name for name in names if name not in taken)


def _fitting(tank: TankAnalysis, run: LineRun, crossing: Crossing, key: str, heading: float) -> LinePart:
    known = [
        one
        for one in tank.workshop.line_parts
        if isinstance(one.does, PassageDoes)
        and one.does.kind == "bulkhead"
        and abs(one.does.bore_mm - run.bore_mm) <= SAME_BORE_MM
        and not any(end.standard in CLAMPED for end in one.connections)
    ]
    fields: dict[str, Any] = _plain(run)
    if known:
        fields = {name: getattr(known[0], name) for name in LineComponent.model_fields} | {"part": known[0].name}
    return LinePart(
        id=key,
        name=f"fitting in {crossing.panel_name}"[:80],
        x_mm=float(round(crossing.at.x)),
        y_mm=float(round(crossing.at.y)),
        z_mm=float(round(crossing.at.z)),
        heading_deg=heading,
        upright=crossing.axis == "z",
        **fields,
    )


def _plain(run: LineRun) -> dict[str, Any]:
    name, size = bulkhead_size(run.bore_mm)
    flare = Connection(size=name).model_dump()
    return {
        "does": PassageDoes(kind="bulkhead", bore_mm=size.bore_mm),
        "connections": tuple(PartConnection(id=port, **flare) for port in ("in", "out")),
        "long_mm": LONG_MM,
        "across_mm": ACROSS_MM,
    }


def _heading(tank: TankAnalysis, run: LineRun, crossing: Crossing) -> float:
    """Along the sheet's axis, the way that the run goes there."""
    line = next(shape.line for shape in tank[RUN_SHAPES] if shape.id == run.id)
    at = np.array([crossing.at.x, crossing.at.y, crossing.at.z])
    n = nearest_straight(line, at)
    ahead, left = (line[n + 1] - line[n])[:2]
    ways = {"x": 0.0 if ahead >= 0 else 180.0, "y": 90.0 if left >= 0 else 270.0}
    return ways.get(crossing.axis, 0.0)


def _corners_beside(tank: TankAnalysis, run: LineRun, at: Array) -> tuple[tuple[Any, ...], tuple[Any, ...]]:
    """A run's corners before and behind a place on its way."""
    way = next(one.way for one in tank[LINE_PLACES].runs if one.id == run.id)
    points = np.array([[one.x, one.y, one.z] for one in way])
    place = nearest_straight(points, at)
    return run.corners[:place], run.corners[place:]


def nearest_straight(points: Array, at: Array) -> int:
    """Which straight of a way a place lies on, or is nearest to."""
    a, steps = points[:-1], np.diff(points, axis=0)
    share = np.clip(((at - a) * steps).sum(axis=1) / np.maximum((steps * steps).sum(axis=1), 1e-9), 0, 1)
    return int(np.linalg.norm(a + share[:, None] * steps - at, axis=1).argmin())
