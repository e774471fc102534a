"""Parts of the line and what they stand too near to, or in."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import cos, radians, sin

import numpy as np
from manifold3d import Manifold

from keel.analysis.parts import LINES, SOLIDS
from keel.analysis.study import study
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.solid.neighbours import solid_of_keep_out
from keel.solid.polyhedron import Array
from keel.solid.shapes import block
from keel.solid.solids import Solids
from keel.studies.lines.crossings import stands_in
from keel.studies.lines.surroundings import HOT, SURROUNDINGS, Surroundings, Thing

ROOM_MM = 1.0
"""What stands less deep in another only touches it: a part is bolted to what it stands on."""


@dataclass(frozen=True, slots=True)
class PartGap:
    """A part that is too near to something.

    Attributes
    ----------
    gap_mm : float
        Between them; zero where they meet.
    """

    id: str
    name: str
    beside: str
    beside_name: str
    hot: bool
    gap_mm: float
    needed_mm: float


def part_gaps(lines: Lines, about: Surroundings, solids: Solids) -> list[PartGap]:
    """What parts of the line stand in, and what hot or moving things they are too near to.

    Parameters
    ----------
    lines : Lines
        Parts; what hangs in the tank is not asked.
    about : Surroundings
        What stands about them. A scan is only a surface, and not asked.
    solids : Solids
        The tank.

    Returns
    -------
    list of PartGap
        Only what is too near; metal may be touched.
    """
    found = []
    for part in lines.parts:
        if part.hangs_in is not None:
            continue
        low, high = _round(part)
        solid: Manifold | None = None
        fitted = {sheet.key for sheet in about.sheets if part.does.kind == "bulkhead" and stands_in(part, sheet)}
        for thing, near in zip(about.boxes, _apart(low, high, about.lows, about.highs), strict=True):
            if thing.key not in fitted and near <= _needed(thing):
                solid = solid or solid_of(part)
                found += _gap(part, solid, thing, solid_of_keep_out(thing.keep_out, about.bay) if about.bay else None)
        for thing in about.others:
            other = solid_of_keep_out(thing.keep_out, about.bay) if about.bay else None
            solid = solid or solid_of(part)
            found += _gap(part, solid, thing, other)
        solid = solid or solid_of(part)
        if (shrunk(part) ^ solids.outer).volume() > 0:
            found.append(PartGap(part.id, part.name, "tank", "the tank", False, 0.0, 0.0))
    return found


def solid_of(part: LinePart, less_mm: float = 0.0) -> Manifold:
    """A part's outline as a solid: turned as it is put, so much smaller all round."""
    size = (
        (part.across_mm, part.across_mm, part.long_mm)
        if part.stands
        else (part.long_mm, part.across_mm, part.across_mm)
    )
    half = [max(0.5, one / 2 - less_mm) for one in size]
    turned = block((-half[0], -half[1], -half[2]), (half[0], half[1], half[2])).rotate([0.0, 0.0, part.heading_deg])
    return turned.translate([part.x_mm, part.y_mm, part.z_mm])


def shrunk(part: LinePart) -> Manifold:
    """A part less what may touch."""
    return solid_of(part, ROOM_MM)


def _round(part: LinePart) -> tuple[Array, Array]:
    """Corners of the upright box round a part."""
    turn = radians(part.heading_deg)
    along, aside = (part.across_mm, part.across_mm) if part.stands else (part.long_mm, part.across_mm)
    tall = part.long_mm if part.stands else part.across_mm
    c, s = abs(cos(turn)), abs(sin(turn))
    half = np.array([c * along + s * aside, s * along + c * aside, tall]) / 2
    middle = np.array([part.x_mm, part.y_mm, part.z_mm])
    return middle - half, middle + half


def _apart(low: Array, high: Array, lows: Array, highs: Array) -> Sequence[float]:
    gaps = np.maximum(np.maximum(lows - high, low - highs), 0.0)
    found: list[float] = np.linalg.norm(gaps, axis=1).tolist()
    return found


def _needed(thing: Thing) -> float:
    """Metal may be touched."""
    return thing.needed_mm if thing.kind in HOT or thing.kind == "moving at full travel" else 0.0


def _gap(part: LinePart, solid: Manifold, thing: Thing, other: Manifold | None) -> list[PartGap]:
    needed = _needed(thing)
    if other is None:
        return []
    gap = float(solid.min_gap(other, needed + ROOM_MM)) if needed else 0.0
    if needed and gap >= needed:
        return []
    if not needed and (shrunk(part) ^ other).volume() <= 0:
        return []
    return [PartGap(part.id, part.name, thing.key, thing.name, thing.kind in HOT, gap, needed)]


PART_GAPS = study(part_gaps, LINES, SURROUNDINGS, SOLIDS)
