"""The seams of a tank in the order in which they are walked, each with the spots that are looked at first."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from keel.analysis.parts import SOLIDS
from keel.analysis.study import study
from keel.solid.polyhedron import Array
from keel.solid.solids import Cell, Solids
from keel.studies.proof.seam_paths import BESIDE_MM, SEAM_PATHS, Seam, SeamKind, SeamLine
from keel.studies.result import Point, Words, words

TURN_DEG = 30.0
"""A seam that turns by more has a corner there: stitches start and stop at it."""
NEAR_MM = 25.0
"""Spots nearer to each other than this are looked at as one."""
REACHES_MM = 20.0
STEP_MM = 5.0
SHOWN_DIGITS = 2


@dataclass(frozen=True, slots=True)
class Spot:
    """Where on a seam to look first, and why: so far along it [mm]."""

    at_mm: float
    place: Point
    why: Words


@dataclass(frozen=True, slots=True)
class WalkSeam:
    """A seam as it is walked.

    Attributes
    ----------
    id, name, kind
        As of the seam.
    length_mm : float
        Along all its lines [mm].
    lines : list of list of Point
        Where it runs.
    cells : list of str
        Cells that it shuts.
    spots : list of Spot
        Where to look first.
    uneven : Words or None
        Parts of unlike thickness that it joins.
    """

    id: str
    name: str
    kind: SeamKind
    length_mm: float
    lines: list[list[Point]]
    cells: list[str]
    spots: list[Spot]
    uneven: Words | None


def walk(seams: Sequence[Seam], solids: Solids) -> list[WalkSeam]:
    """The seams in the order in which they are walked.

    Parameters
    ----------
    seams : sequence of Seam
        In that order.
    solids : Solids
        Cells.

    Returns
    -------
    list of WalkSeam
        Spots are ends and corners, where a bead starts and stops, and places where another seam meets this one.
    """
    return [
        WalkSeam(
            id=seam.id,
            name=seam.name,
            kind=seam.kind,
            length_mm=seam.length_mm,
            lines=[[Point.of(spot) for spot in np.round(line.points, SHOWN_DIGITS)] for line in seam.lines],
            cells=_cells(seam, solids),
            spots=_spots(seam, [other for other in seams if other is not seam]),
            uneven=seam.uneven,
        )
        for seam in seams
    ]


def _cells(seam: Seam, solids: Solids) -> list[str]:
    if len(solids.cells) == 1:
        return [solids.cells[0].name]
    spots = np.vstack([np.vstack([line.points, (line.points[1:] + line.points[:-1]) / 2]) for line in seam.lines])
    found = [cell.name for cell in solids.cells if _touches(cell, spots)]
    return found or [cell.name for cell in solids.cells]


def _touches(cell: Cell, spots: Array) -> bool:
    """Whether a cell's box reaches some of the spots."""
    low, high = cell.mesh.points.min(axis=0) - REACHES_MM, cell.mesh.points.max(axis=0) + REACHES_MM
    return bool(((spots >= low) & (spots <= high)).all(axis=1).any())


def _spots(seam: Seam, others: Sequence[Seam]) -> list[Spot]:
    found: list[Spot] = []
    for spot in [*_crossings(seam, others), *_own(seam)]:
        if all(_apart(spot.place, one.place) > NEAR_MM for one in found):
            found.append(spot)
    return sorted(found, key=lambda spot: spot.at_mm)


def _apart(a: Point, b: Point) -> float:
    return float(np.hypot(np.hypot(a.x - b.x, a.y - b.y), a.z - b.z))


def _own(seam: Seam) -> Iterator[Spot]:
    """Ends and corners of a seam; one that closes without a corner starts and stops somewhere on itself."""
    before = 0.0
    for line in seam.lines:
        along = before + np.r_[0.0, np.cumsum(np.linalg.norm(np.diff(line.points, axis=0), axis=1))]
        closed = bool(np.allclose(line.points[0], line.points[-1]))
        if not closed:
            yield Spot(float(along[0]), Point.of(line.points[0]), words("Start of the bead"))
            yield Spot(float(along[-1]), Point.of(line.points[-1]), words("End of the bead"))
        corners = [] if line.is_round else _corners(line.points, closed)
        for n in corners:
            yield Spot(float(along[n]), Point.of(line.points[n]), words("Corner: stitches start and stop here"))
        if closed and not corners:
            yield Spot(float(along[0]), Point.of(line.points[0]), words("Start and end of the bead, wherever they are"))
        before = float(along[-1])


def _corners(points: Array, closed: bool) -> list[int]:
    """Where a line turns sharply: at one vertex, or in a round no longer than a bend; the round's middle."""
    ways = np.diff(points, axis=0)
    ways = ways / np.maximum(np.linalg.norm(ways, axis=1, keepdims=True), 1e-9)
    turns = np.degrees(np.arccos(np.clip(np.einsum("ij,ij->i", ways[:-1], ways[1:]), -1, 1)))
    around = np.degrees(np.arccos(np.clip(float(ways[-1] @ ways[0]), -1, 1))) if closed else 0.0
    found, turned, begun = [], 0.0, 0
    for n, turn in enumerate(turns, start=1):
        short = float(np.linalg.norm(points[n] - points[n - 1])) < NEAR_MM
        turned, begun = (turned + turn, begun) if short and turned else (turn, n)
        if turned > TURN_DEG:
            found.append((begun + n) // 2)
            turned = 0.0
    return found + ([0] if around > TURN_DEG else [])


def _crossings(seam: Seam, others: Sequence[Seam]) -> Iterator[Spot]:
    """Where another seam ends at this one, or a partition passes behind it."""
    for other in others:
        for line in other.lines:
            met = [found for spot in _that_may_meet(other, line) if (found := _met(seam, spot)) is not None]
            for near in sorted(met)[: 1 if other.kind == "partition" else None]:
                yield Spot(near[1], Point.of(near[2]), words("Crossing of the {seam}", seam=other.name))


def _that_may_meet(other: Seam, line: SeamLine) -> Iterator[Array]:
    if other.kind != "partition":
        yield from (line.points[0], line.points[-1])
        return
    for a, b in pairwise(line.points):
        yield from (
            a + share * (b - a) for share in np.arange(0.0, 1.0, STEP_MM / max(STEP_MM, float(np.linalg.norm(b - a))))
        )


def _met(seam: Seam, spot: Array) -> tuple[float, float, tuple[float, ...]] | None:
    """How near a seam passes a spot, how far along, and where; None where it doesn't."""
    before, best = 0.0, (BESIDE_MM, 0.0, spot)
    for line in seam.lines:
        starts, ways = line.points[:-1], np.diff(line.points, axis=0)
        long = np.linalg.norm(ways, axis=1)
        shares = np.clip(np.einsum("ij,ij->i", spot - starts, ways) / np.maximum(long, 1e-9) ** 2, 0, 1)
        feet = starts + shares[:, None] * ways
        off = np.linalg.norm(feet - spot, axis=1)
        n = int(np.argmin(off))
        if off[n] < best[0]:
            best = (float(off[n]), before + float(long[:n].sum() + shares[n] * long[n]), feet[n])
        before += float(long.sum())
    return (best[0], best[1], tuple(map(float, best[2]))) if best[0] < BESIDE_MM else None


WALK = study(walk, SEAM_PATHS, SOLIDS).at_rest()
"""The seams as they are walked."""
