"""The parts folded up against the tank as it was designed: how far the outside of each lies from its place."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import pi

import numpy as np
from shapely import LineString, Polygon, contains_xy
from shapely.geometry.base import BaseGeometry

from keel.analysis.parts import LIP
from keel.analysis.study import study
from keel.design.shell import BoxShell
from keel.solid.box import END_NAMES
from keel.solid.polyhedron import Array
from keel.solid.section import ends_of_box
from keel.solid.solids import Solids
from keel.solid.true_outline import off_arc, off_outline
from keel.studies.result import Point
from keel.studies.sheet.folding import Turn
from keel.studies.sheet.lying import Lying, panel_places, zone_places
from keel.studies.sheet.placing import WRAPPER
from keel.studies.sheet.shell_parts import BARE_SOLIDS, PIECES

PITCH_MM = 40.0
"""Along every edge places are looked at so far apart [mm]."""
STEPS = 8
"""A turn's zone is looked at in so many steps."""
LIMIT_MM = 0.1
"""Further off its place than this a part doesn't fold into the tank [mm] (what a good fitter sees)."""


@dataclass(frozen=True, slots=True)
class FoldedPart:
    """One piece folded: how far the worst of its outside lies from the designed one, and where that is."""

    name: str
    title: str
    piece: str
    off_mm: float
    at: Point
    looked_at: int


@dataclass(frozen=True, slots=True)
class FoldProof:
    """Every piece of the shell folded up, and how far off its place is too far."""

    limit_mm: float
    pieces: list[FoldedPart]


def fold_proof(pieces: Sequence[Lying], solids: Solids, lip_mm: float) -> FoldProof:
    """Fold every part of the shell up and measure it.

    Parameters
    ----------
    pieces : sequence of Lying
        Of the shell's parts, where they lie.
    solids : Solids
        The shell: its outline is taken as it is meant, with true rounds.
    lip_mm : float
        How far the wrapper stands out beyond each end plate [mm].

    Returns
    -------
    FoldProof
        A piece each.
    """
    found = []
    for piece in pieces:
        part, name, places = piece.part, piece.place.name, outside_places(piece)
        off = _off(places, solids, lip_mm, name)
        worst = int(np.argmax(off))
        at = Point.of(places[worst])
        found.append(FoldedPart(part.name, part.title, name, float(off[worst]), at, len(places)))
    return FoldProof(LIMIT_MM, found)


def _off(places: Array, solids: Solids, lip_mm: float, piece: str) -> Array:
    """How far places of a wrapper lie from the outline drawn out, those of an end from its plane [mm].

    What is bent up from a floor or down from a lid lies on the box as it is seen along either level axis.
    """
    section = solids.section
    along, flat = places[:, section.axis], np.delete(places, section.axis, axis=1)
    low, high = section.span
    if piece in END_NAMES[section.axis]:
        return np.asarray(np.minimum(np.abs(along - low), np.abs(along - high)))
    if section.edges:
        off = off_outline(flat, section.edges, section.radii)
    else:
        (left, down), (right, up) = section.extents
        off = off_arc(flat, ((left + right) / 2, (down + up) / 2), (right - left) / 2, 0.0, 2 * pi)
    if piece != WRAPPER and isinstance(solids.shell, BoxShell):
        edges, radii = ends_of_box(solids.shell)
        return np.asarray(np.minimum(off, off_outline(np.delete(places, section.across, axis=1), edges, radii)))
    beyond = np.maximum(np.maximum(low - lip_mm - along, along - high - lip_mm), 0.0)
    return np.asarray(np.hypot(off, beyond))


def outside_places(piece: Lying) -> Array:
    """Places spread over the outside of a piece, shape (n, 3) [mm]: edges, the zones of its turns.

    Of a piece whose base alone is the tank's outside, over that.
    """
    found = []
    panels = piece.panels[:1] if piece.place.base_only else piece.panels
    for panel in panels:
        shape = _without_zones(piece, Polygon(panel.outline))
        spots = _spread(shape)
        if len(spots):
            found.append(panel_places(panel, spots, piece.outside))
    if not piece.place.base_only:
        for panel in piece.panels:
            if panel.turn is not None and panel.parent is not None:
                spots = _over_zone(panel.turn)
                spots = spots[contains_xy(Polygon(piece.part.outline).buffer(1e-6), spots[:, 0], spots[:, 1])]
                found.append(zone_places(piece.panels[panel.parent].matrix, panel.turn, spots, piece.outside))
    return np.concatenate(found)


def _without_zones(piece: Lying, shape: Polygon) -> BaseGeometry:
    left: BaseGeometry = shape
    for panel in piece.panels:
        if panel.turn is not None:
            strip = LineString([panel.turn.start, panel.turn.end]).buffer(panel.turn.zone_mm / 2, cap_style="square")
            left = left.difference(strip)
    return left


def _spread(shape: BaseGeometry) -> Array:
    """Corners and places along the edges, shape (n, 2): between them a flat panel is nowhere further off."""
    found: list[Array] = []
    for polygon in getattr(shape, "geoms", [shape]):
        if not isinstance(polygon, Polygon) or polygon.area < 1.0:
            continue
        for a, b in pairwise(np.array(polygon.exterior.coords)):
            count = 1 + int(np.linalg.norm(b - a) // PITCH_MM)
            found.append(a + np.linspace(0, 1, count, endpoint=False)[:, None] * (b - a))
    return np.concatenate(found) if found else np.empty((0, 2))


def _over_zone(turn: Turn) -> Array:
    """Places over a turn's zone on the flat, shape (n, 2)."""
    start, end = np.array(turn.start), np.array(turn.end)
    along = (end - start) / np.linalg.norm(end - start)
    left = np.array([-along[1], along[0]])
    lengthwise = start + np.linspace(0, 1, 2 + int(np.linalg.norm(end - start) // PITCH_MM))[:, None] * (end - start)
    steps = max(STEPS, int(turn.zone_mm // PITCH_MM))
    across = np.linspace(-0.5, 0.5, steps + 1)[:, None] * turn.zone_mm * left
    return np.asarray((lengthwise[:, None] + across[None]).reshape(-1, 2))


FOLD_PROOF = study(fold_proof, PIECES, BARE_SOLIDS, LIP).at_rest()
