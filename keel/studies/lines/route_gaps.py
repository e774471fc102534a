"""How near every run comes to what is hot, moves, is sharp or rubs, and where."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations, pairwise
from typing import Literal

import numpy as np
from manifold3d import RayHit

from keel.analysis.parts import LINES, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.lines import Lines
from keel.design.workshop import HouseRules
from keel.routes.nearness import Near, near_line
from keel.solid.polyhedron import Array
from keel.solid.proximity import nearest
from keel.solid.solids import Solids
from keel.studies.lines.crossings import CROSSINGS, Crossing
from keel.studies.lines.run_shapes import RUN_SHAPES, RunShape
from keel.studies.lines.surroundings import HOT, SURROUNDINGS, Sheet, Surroundings, Thing, line_mesh
from keel.studies.result import Point

Danger = Literal["heat", "moves", "ground", "rear", "metal", "edge", "tank", "line"]
AT_ENDS_MM = 60.0
"""So near its ends a run lies in the part that it is joined to."""
AT_PORT_MM = 2.0
SHOWN_MM = 400.0
"""What is further away is nobody's neighbour."""
IN_MM = 1.0
"""A run that lies less deep in the tank only touches it."""


@dataclass(frozen=True, slots=True)
class RouteGap:
    """A run and one of its neighbours.

    Attributes
    ----------
    gap_mm : float
        Between their surfaces; below nothing where they meet.
    start, end : Point
        On the run's middle, and on the neighbour.
    """

    run: str
    name: str
    beside: str
    beside_name: str
    danger: Danger
    gap_mm: float
    needed_mm: float
    start: Point
    end: Point

    @property
    def is_short(self) -> bool:
        """Nearer than it may."""
        return self.gap_mm < self.needed_mm - 1e-6


def route_gaps(
    lines: Lines,
    shapes: Sequence[RunShape],
    about: Surroundings,
    through: Sequence[Crossing],
    solids: Solids,
    rules: HouseRules,
) -> list[RouteGap]:
    """The neighbours of every run that isn't all in the tank.

    Parameters
    ----------
    lines : Lines
        Runs.
    shapes : sequence of RunShape
        As they lie.
    about : Surroundings
        What stands about them.
    through : sequence of Crossing
        The sheets that they go through by a hole.
    solids : Solids
        The tank.
    rules : HouseRules
        How far a line stays off what it rubs on, and off edges.

    Returns
    -------
    list of RouteGap
        Run by run, the nearest first, up to 400 mm away.
    """
    outside = [shape for shape in shapes if not shape.inside]
    found: dict[str, list[RouteGap]] = {shape.id: [] for shape in outside}
    for shape in outside:
        passed = {(one.panel, one.hole) for one in through if one.id == shape.id and one.way is not None}
        found[shape.id] += _to_things(shape, about, {panel for panel, _ in passed}, rules)
        found[shape.id] += _to_edges(shape, about.sheets, passed, rules)
        found[shape.id] += _to_tank(shape, solids, rules)
    for a, b in combinations(outside, 2):
        gap = _between(a, b, rules)
        if gap is not None:
            found[a.id].append(gap)
    sleeved = {run.id for run in lines.runs if run.sleeved}
    return [
        gap if shape.id not in sleeved or gap.danger not in ("metal", "edge", "line", "tank") else _bare(gap)
        for shape in outside
        for gap in sorted(found[shape.id], key=lambda one: one.gap_mm - one.needed_mm)
    ]


def _bare(gap: RouteGap) -> RouteGap:
    """The same of a run in a sleeve: it may touch."""
    return replace(gap, needed_mm=0.0)


def _gap(
    shape: RunShape, beside: str, name: str, danger: Danger, near: Near, needed: float, thick: float = 0.0
) -> RouteGap:
    return RouteGap(
        run=shape.id,
        name=shape.name,
        beside=beside,
        beside_name=name,
        danger=danger,
        gap_mm=near.distance - shape.outside_mm / 2 - thick,
        needed_mm=needed,
        start=Point.of(near.on_line),
        end=Point.of(near.on_other),
    )


def _danger(thing: Thing) -> Danger:
    if thing.kind in HOT:
        return "heat"
    kinds: dict[str, Danger] = {"moving at full travel": "moves", "ground": "ground", "rear impact zone": "rear"}
    return kinds.get(thing.kind, "metal")


def _to_things(shape: RunShape, about: Surroundings, passed: set[str], rules: HouseRules) -> Iterator[RouteGap]:
    middle = trimmed(shape.line, AT_ENDS_MM, AT_ENDS_MM)
    nearer = {thing.key: near for thing, near in about.near(middle)} if middle is not None else {}
    for thing, near in about.near(shape.line):
        danger = _danger(thing)
        if near.distance > SHOWN_MM or (danger == "metal" and thing.key in passed):
            continue
        if danger == "metal" and thing.key in nearer and near.distance > 0:
            near = nearer[thing.key]
        elif danger == "metal" and thing.key not in nearer and near.distance > 0:
            continue
        yield _gap(shape, thing.key, thing.name, danger, near, rules.rub_mm if danger == "metal" else thing.needed_mm)


def _to_edges(
    shape: RunShape, sheets: Sequence[Sheet], passed: set[tuple[str, str]], rules: HouseRules
) -> Iterator[RouteGap]:
    """To the nearest edge of every sheet, its holes' edges among them, but not of a hole that it goes through."""
    line = trimmed(shape.line, AT_ENDS_MM, AT_ENDS_MM)
    if line is None:
        return
    low, high = line.min(axis=0), line.max(axis=0)
    for sheet in sheets:
        if (np.maximum(sheet.low - high, low - sheet.high) > SHOWN_MM).any():
            continue
        rims = [(tuple(sheet.low[sheet.others]), tuple(sheet.high[sheet.others]), "")]
        rims += [(hole.low, hole.high, hole.name) for hole in sheet.holes if (sheet.key, hole.name) not in passed]
        nears = [near_line(line, _rim(sheet, start, end)) for start, end, _ in rims]
        best = min(nears, key=lambda one: one.distance)
        if best.distance <= SHOWN_MM:
            yield _gap(shape, f"{sheet.key}-edge", f"edge of {sheet.name}", "edge", best, rules.edge_mm)


def _rim(sheet: Sheet, low: tuple[float, ...], high: tuple[float, ...]) -> Array:
    """A rectangle in a sheet as a closed line."""
    first, second = sheet.others
    ring = np.full((5, 3), (sheet.low[sheet.axis] + sheet.high[sheet.axis]) / 2)
    ring[:, first] = [low[0], high[0], high[0], low[0], low[0]]
    ring[:, second] = [low[1], low[1], high[1], high[1], low[1]]
    return ring


def _to_tank(shape: RunShape, solids: Solids, rules: HouseRules) -> Iterator[RouteGap]:
    """To the tank, but for where a run comes out of it."""
    line = trimmed(shape.line, *(AT_ENDS_MM if on else 0.0 for on in shape.on_tank))
    whole = trimmed(shape.line, *(AT_PORT_MM if on else 0.0 for on in shape.on_tank))
    if line is None or whole is None:
        return
    deep = in_solid(whole, solids)
    if deep is not None:
        near = Near(0.0, deep, deep)
    else:
        found = nearest(line_mesh(line), solids.outer_mesh)
        near = Near(found.distance, found.start, found.end)
    if near.distance <= SHOWN_MM:
        yield _gap(shape, "tank", "the tank", "tank", near, rules.rub_mm)


def in_solid(line: Array, solids: Solids) -> Array | None:
    """Where a line lies in the tank, shape (3,); None where it doesn't [mm].

    Parameters
    ----------
    line : ndarray, shape (n, 3)
        Points joined by straights [mm].
    solids : Solids
        The tank.

    Returns
    -------
    ndarray or None
        The first such place; a line that only grazes a corner isn't in it.
    """
    box = solids.bounds
    if (np.maximum(np.array(box.low) - line.max(axis=0), line.min(axis=0) - np.array(box.high)) > 0).any():
        return None
    walls = [a + hit.distance * (b - a) for a, b in pairwise(line) for hit in _hits(a, b, solids)]
    if _is_in(line[0], solids):
        return np.asarray(line[0])
    far = [a for a, b in zip(walls[::2], [*walls[1::2], line[-1]], strict=False) if np.linalg.norm(b - a) > IN_MM]
    return np.asarray(far[0]) if far else None


def _hits(a: Array, b: Array, solids: Solids) -> list[RayHit]:
    return sorted(solids.outer.ray_cast(list(a), list(b)), key=lambda hit: hit.distance)


def _is_in(spot: Array, solids: Solids) -> bool:
    """By how often the way up out of the tank passes its skin."""
    return len(_hits(spot, np.array([*spot[:2], solids.bounds.high[2] + 1.0]), solids)) % 2 == 1


def _between(a: RunShape, b: RunShape, rules: HouseRules) -> RouteGap | None:
    """Two runs, but for their ends: those may meet in a part."""
    lines = [trimmed(one.line, AT_ENDS_MM, AT_ENDS_MM) for one in (a, b)]
    if lines[0] is None or lines[1] is None:
        return None
    low, high = (
        [line.min(axis=0) for line in lines if line is not None],
        [line.max(axis=0) for line in lines if line is not None],
    )
    if (np.maximum(low[0] - high[1], low[1] - high[0]) > SHOWN_MM).any():
        return None
    near = near_line(lines[0], lines[1])
    return _gap(a, b.id, b.name, "line", near, rules.rub_mm, b.outside_mm / 2) if near.distance <= SHOWN_MM else None


def trimmed(line: Array, start_mm: float, end_mm: float) -> Array | None:
    """A line without so much of either end; None where nothing is left of it.

    Parameters
    ----------
    line : ndarray, shape (n, 3)
        Points [mm].
    start_mm, end_mm : float
        What is cut off, along it.

    Returns
    -------
    ndarray or None
        The rest, shape (m, 3).
    """
    sizes = np.linalg.norm(np.diff(line, axis=0), axis=1)
    gone = np.concatenate([[0.0], np.cumsum(sizes)])
    first, last = start_mm, gone[-1] - end_mm
    if last - first <= 0:
        return None
    ends = [[np.interp(at, gone, line[:, axis]) for axis in range(3)] for at in (first, last)]
    within = line[(gone > first) & (gone < last)]
    return np.vstack([ends[0], within, ends[1]])


ROUTE_GAPS = study(route_gaps, LINES, RUN_SHAPES, SURROUNDINGS, CROSSINGS, SOLIDS, RULES)
