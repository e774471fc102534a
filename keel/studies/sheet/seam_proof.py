"""Whether every edge of the shell's parts, folded up, meets the part that it is welded to."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from shapely import Polygon, distance, points, prepare

from keel.analysis.study import study
from keel.solid.polyhedron import Array
from keel.studies.result import Point
from keel.studies.sheet.fold_view import facetted
from keel.studies.sheet.lying import Lying, lying, panel_places
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.shell_parts import PIECES, SHELL_PARTS

PITCH_MM = 40.0
"""Along every edge places are looked at so far apart, and as near as half of that to its ends."""
SHORT = 1.6
"""Edges shorter than so many flanges are a notch's, which is filled."""
LEAST_MM = 30.0
STRIP_DEG = 4.0
BESIDES_MM = 0.6
"""Rounds are chords; edges are square to the sheet."""


@dataclass(frozen=True, slots=True)
class OpenEdge:
    """An edge that meets nothing: how far it is off what is nearest, and where [mm]."""

    part: str
    title: str
    piece: str
    long_mm: float
    gap_mm: float
    at: Point


@dataclass(frozen=True, slots=True)
class SeamProof:
    """How many edges were looked at, the widest gap any of them has to weld over, and those that meet nothing."""

    edges: int
    limit_mm: float
    widest_mm: float
    open: list[OpenEdge]


@dataclass(frozen=True)
class _Edge:
    """A free edge of a piece's panel, how long it is [mm], and places along both its faces, shape (2 n, 3) [mm]."""

    piece: int
    place: int
    long_mm: float
    spots: Array


class _Flat:
    """One panel of one piece: how far places are off its metal."""

    def __init__(self, number: int, piece: Lying, place: int) -> None:
        self.piece, self.place = number, place
        self._back, self._thick = piece.backs[place], piece.part.thickness_mm
        self._shape = Polygon(piece.panels[place].outline)
        prepare(self._shape)

    def gaps(self, spots: Array) -> Array:
        """From places, shape (n, 3), to the panel as a plate, shape (n,) [mm]."""
        seen = np.column_stack([spots, np.ones(len(spots))]) @ self._back.T
        aside = distance(points(seen[:, 0], seen[:, 1]), self._shape)
        above = np.maximum(np.maximum(-seen[:, 2], seen[:, 2] - self._thick), 0.0)
        return np.asarray(np.hypot(aside, above))


def seam_proof(pieces: Sequence[Lying], made: Sheet) -> SeamProof:
    """Look along every edge for what it is welded to.

    Parameters
    ----------
    pieces : sequence of Lying
        The shell's own, folded up.
    made : Sheet
        Its parts: their gap and flange.

    Returns
    -------
    SeamProof
        An edge meets another sheet, or its own part's other end, where that is no further off than the gap at the
        ends and the chords of rounds; a free edge that nothing meets is open.
    """
    pieces = [_as_it_rolls(piece) for piece in pieces]
    limit = made.pan_gap_mm * np.sqrt(2.0) + BESIDES_MM
    least = max(LEAST_MM, SHORT * (made.flange_mm or 0.0))
    panels = [_Flat(number, piece, place) for number, piece in enumerate(pieces) for place in range(len(piece.panels))]
    edges = [
        _Edge(number, place, float(np.hypot(*(b - a))), _along(piece, place, a, b))
        for number, piece in enumerate(pieces)
        for place, a, b in _free_edges(piece, least)
    ]
    widest, found = 0.0, list[OpenEdge]()
    for edge, nearer in zip(edges, _off_the_nearest(edges, panels), strict=True):
        worst = int(np.argmax(nearer))
        off = float(nearer[worst])
        widest = max(widest, min(off, float(limit)))
        if off > limit:
            piece = pieces[edge.piece]
            at = Point.of(edge.spots[worst])
            found.append(OpenEdge(piece.part.name, piece.part.title, piece.place.name, edge.long_mm, off, at))
    return SeamProof(len(edges), float(limit), widest, found)


def _off_the_nearest(edges: Sequence[_Edge], panels: Sequence[_Flat]) -> list[Array]:
    """How far each place of each edge is off the nearest panel but its own [mm]: all seen from each panel at once."""
    if not edges:
        return []
    spots = np.vstack([edge.spots for edge in edges])
    count = [len(edge.spots) for edge in edges]
    piece, place = (np.repeat([getattr(edge, name) for edge in edges], count) for name in ("piece", "place"))
    least = np.full(len(spots), np.inf)
    for panel in panels:
        own = (piece == panel.piece) & (place == panel.place)
        least = np.minimum(least, np.where(own, np.inf, panel.gaps(spots)))
    # Each place has two, on either face of the sheet: the nearer one is welded.
    return [off.reshape(2, -1).min(axis=0) for off in np.split(least, np.cumsum(count)[:-1])]


def _as_it_rolls(piece: Lying) -> Lying:
    """A piece whose rolls are so many narrow strips that each is as good as flat."""
    return lying(*facetted(piece.part, piece.place, STRIP_DEG)) if piece.part.rolls else piece


def _free_edges(piece: Lying, least_mm: float) -> Iterator[tuple[int, Array, Array]]:
    """Edges of a piece's panels that lie on the flat's own outline: by panel, from where to where on the flat."""
    whole = Polygon(piece.part.outline).exterior.buffer(1e-6)
    for place, panel in enumerate(piece.panels):
        ring = np.array([*panel.outline, panel.outline[0]])
        for a, b in pairwise(ring):
            middle = (a + b) / 2
            if np.hypot(*(b - a)) >= least_mm and whole.contains(points(*middle)):
                yield place, a, b


def _along(piece: Lying, place: int, a: Array, b: Array) -> Array:
    """Places along an edge on the outside and on the inside, shape (2 n, 3): clear of the turns at its ends."""
    long = float(np.hypot(*(b - a)))
    count = 1 + int(long // PITCH_MM)
    flat = a + ((np.arange(count) + 0.5) / count)[:, None] * (b - a)
    return np.vstack([panel_places(piece.panels[place], flat, w) for w in (0.0, piece.part.thickness_mm)])


SEAM_PROOF = study(seam_proof, PIECES, SHELL_PARTS).at_rest()
