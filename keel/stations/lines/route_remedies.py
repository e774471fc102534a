"""What puts right where runs lie: a corner further off, a hole of its own, a sleeve, a longer hose."""

from collections.abc import Iterator
from math import ceil

import numpy as np

from keel.analysis.parts import PORTS
from keel.analysis.tank import TankAnalysis
from keel.design.lines import LineRun, Passing, RunCorner
from keel.findings.finding import Finding, Remedy
from keel.solid.polyhedron import Array
from keel.stations.lines.bulkheads import nearest_straight, with_bulkhead
from keel.stations.lines.remedies import with_run
from keel.stations.lines.taken_round import lead_mm, taken_round
from keel.studies.lines.crossings import CROSSINGS
from keel.studies.lines.places import LINE_PLACES, out_of
from keel.studies.lines.route_gaps import ROUTE_GAPS, RouteGap
from keel.studies.lines.slack import SLACKS, length_for
from keel.studies.result import words

NEAR_CORNER_MM = 80.0
"""A corner so near is moved; else one more is put in."""
STEP_MM, MORE_MM = 5.0, 2.0
LEAST_COS = 0.9


def _run(tank: TankAnalysis, finding: Finding) -> LineRun | None:
    name = finding.subject.partition(".")[0]
    return next((run for run in tank.design.lines.runs if run.id == name), None)


def through_a_hole(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A hole of its own with a grommet, or a bulkhead fitting; or a way round."""
    run = _run(tank, finding)
    one = next((one for one in tank[CROSSINGS] if f"{one.id}.{one.panel}"[:80] == finding.subject), None)
    if run is not None and one is not None and not one.hole:
        passes = (*(own for own in run.passes if own.panel != one.panel), Passing(panel=one.panel))
        yield Remedy(
            words("Hole of {hole_mm} in {panel}, with a grommet", hole_mm=one.needed_mm, panel=one.panel_name),
            with_run(tank, run.model_copy(update={"passes": passes})),
        )
    if run is not None and one is not None and run.kind != "direct":
        label = words("Bulkhead fitting in {panel}, {name} in two", panel=one.panel_name, name=run.name)
        yield Remedy(label, with_bulkhead(tank, run, one))
    yield from round_about(tank, finding)


def round_about(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The whole run anew, round all that stands about it."""
    run = _run(tank, finding)
    corners = taken_round(tank, run) if run else None
    if run is not None and corners is not None and corners != run.corners:
        label = words("{name} taken round, with {count} corners", name=run.name, count=len(corners))
        yield Remedy(label, with_run(tank, run.model_copy(update={"corners": corners, "passes": ()})))


def further_off(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A corner moved straight away from what is too near, as far as it has to be."""
    run, gap = _run(tank, finding), _gap_of(tank, finding)
    if run is None or gap is None:
        return
    for way in _ways_off(gap):
        corners, moved = _moved(tank, run, gap, way)
        yield Remedy(
            words("{name}: a corner {by_mm} {toward}", name=run.name, by_mm=moved, toward=_toward(way)),
            with_run(tank, run.model_copy(update={"corners": corners})),
        )
    yield from round_about(tank, finding)


def sleeved(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A sleeve takes the rubbing; and the way further off."""
    run = _run(tank, finding)
    if run is not None:
        label = words("{name} in a sleeve all along", name=run.name)
        yield Remedy(label, with_run(tank, run.model_copy(update={"sleeved": True})))
    yield from further_off(tank, finding)


def led_out(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A corner straight before each port that it leaves askew; and the way round."""
    run = _run(tank, finding)
    way = next((one.way for one in tank[LINE_PLACES].runs if run and one.id == run.id), None)
    if run is None or way is None:
        return
    lead, corners = lead_mm(tank, run), list(run.corners)
    points = np.array([[at.x, at.y, at.z] for at in way])
    for end, here, there, place in ((run.start, 0, 1, 0), (run.end, -1, -2, len(corners) + 1)):
        out = out_of(end, tank.design.lines, tank[PORTS])
        if out is not None and _askew(points[there] - points[here], out):
            x, y, z = (float(one) for one in np.round(points[here] + lead * out))
            corners.insert(place, RunCorner(x_mm=x, y_mm=y, z_mm=z))
    if len(corners) > len(run.corners):
        label = words("{name}: {lead_mm} straight from its ports", name=run.name, lead_mm=lead)
        yield Remedy(label, with_run(tank, run.model_copy(update={"corners": tuple(corners)})))
    yield from round_about(tank, finding)


def _askew(way: Array, out: Array) -> bool:
    long = float(np.linalg.norm(way))
    return long > 0 and float(way @ out) / long < LEAST_COS


def longer(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A hose that is long enough where its ends are furthest apart."""
    run = _run(tank, finding)
    slack = next((one for one in tank[SLACKS] if one.id == finding.subject), None)
    if run is not None and run.kind == "tube":
        yield Remedy(words("A hose in its place"), with_run(tank, run.model_copy(update={"kind": "hose"})))
    elif run is not None and slack is not None:
        long = length_for(slack)
        label = words("{name} {long_mm} long", name=run.name, long_mm=long)
        yield Remedy(label, with_run(tank, run.model_copy(update={"length_mm": long})))


def _gap_of(tank: TankAnalysis, finding: Finding) -> RouteGap | None:
    return next((gap for gap in tank[ROUTE_GAPS] if f"{gap.run}.{gap.beside}"[:80] == finding.subject), None)


def _ways_off(gap: RouteGap) -> list[Array]:
    """Straight away from it along the axis that it is nearest by; where they meet, every way."""
    start, end = (np.array([at.x, at.y, at.z]) for at in (gap.start, gap.end))
    off = start - end
    if float(np.linalg.norm(off)) < 1e-6:
        return [sign * np.eye(3)[axis] for axis in (2, 1, 0) for sign in (1.0, -1.0)]
    axis = int(np.abs(off).argmax())
    return [np.sign(off[axis]) * np.eye(3)[axis]]


def _moved(tank: TankAnalysis, run: LineRun, gap: RouteGap, way: Array) -> tuple[tuple[RunCorner, ...], float]:
    """The run's corners with one of them out of the way, and by how much."""
    start = np.array([gap.start.x, gap.start.y, gap.start.z])
    by = float(ceil((gap.needed_mm - gap.gap_mm + MORE_MM) / STEP_MM) * STEP_MM)
    corners = [np.array([one.x_mm, one.y_mm, one.z_mm]) for one in run.corners]
    near = min(range(len(corners)), key=lambda n: float(np.linalg.norm(corners[n] - start)), default=None)
    if near is not None and float(np.linalg.norm(corners[near] - start)) <= NEAR_CORNER_MM:
        corners[near] = corners[near] + by * way
    else:
        way_now = next(one.way for one in tank[LINE_PLACES].runs if one.id == run.id)
        points = np.array([[at.x, at.y, at.z] for at in way_now])
        corners.insert(nearest_straight(points, start), start + by * way)
    return tuple(RunCorner(x_mm=float(x), y_mm=float(y), z_mm=float(z)) for x, y, z in np.round(corners)), by


def _toward(way: Array) -> str:
    names = (("further forward", "further back"), ("further left", "further right"), ("higher", "lower"))
    axis = int(np.abs(way).argmax())
    return names[axis][0 if way[axis] > 0 else 1]
