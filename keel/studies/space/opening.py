"""Will it go in: can the shell be passed straight through the bay's opening, which way round, and with what off?"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from manifold3d import Manifold

from keel.analysis.parts import BAY, ENVELOPE
from keel.analysis.study import study
from keel.design.bay import SIDES, Bay, Side
from keel.solid.envelope import Envelope
from keel.solid.polyhedron import Array
from keel.solid.shapes import mesh_of
from keel.studies.space.leaning import WORTH_MM, Frame, Passage, best_lean, best_turn, passage, upright


@dataclass(frozen=True, slots=True)
class GoesIn:
    """The answer for one opening.

    Attributes
    ----------
    deep_mm : float
        The bay's depth behind the opening.
    passes, room_mm
        Of `best`: the first of `bare`, or of `ways` where there is none.
    straight : bool
        Whether it goes in standing as it will stand, with everything on.
    off : list of str
        What has to be off on that way.
    ways : list of Passage
        With everything on: one for each end first, and one leaning where none of them passes; the best first.
    bare : list of Passage
        The same with `off` off, or with all off that comes off where that doesn't help either; empty where it goes in
        with everything on, or nothing comes off.
    """

    side: Side
    long_mm: float
    wide_mm: float
    deep_mm: float
    passes: bool
    room_mm: float
    straight: bool
    ways: list[Passage]
    bare: list[Passage]
    off: list[str]

    @property
    def best(self) -> Passage:
        """The way that is recommended, or that comes nearest."""
        return self.bare[0] if self.bare else self.ways[0]


def goes_in(bay: Bay, envelope: Envelope) -> GoesIn | None:
    """Whether a shell passes the bay's opening.

    Parameters
    ----------
    bay : Bay
        Without an opening there is nothing to answer.
    envelope : Envelope
        The shell with its lips and what stands on it.

    Returns
    -------
    GoesIn or None
        A convex opening lets a solid through on a straight path just when it lets the convex hull of its
        silhouette along the path through. Tried as it stands, with each pair of ends leading and turned by any angle,
        and, where none of these passes, leaning by any angle; with everything on, then with all off that comes off.
        Turning on the way is not tried: what is said not to pass may yet be coaxed in, and a way that is longer than
        the bay is deep (`deep_mm`) ends in such a turn.
    """
    opening = bay.opening
    if opening is None:
        return None
    frame = Frame(opening, SIDES.index(opening.side) // 2, _depth(bay, opening.side))
    ways = _ways(_corners(envelope.parts), frame)
    bare: list[Passage] = []
    off: list[str] = []
    loose = [part for part in envelope.at_ports if part.comes_off]
    if loose and not _sure(ways[0]):
        fixed = _corners([part for part in envelope.parts if not any(part is one.solid for one in loose)])
        bare = _ways(fixed, frame)
        if bare[0].passes and (_sure(bare[0]) or not ways[0].passes):
            off, left = _must_be_off(fixed, [(part.name, _corners([part.solid])) for part in loose], frame)
            bare = _ways(left, frame)
        elif ways[0].passes:
            bare = []
        else:
            off = [part.name for part in loose]
    best = bare[0] if bare else ways[0]
    return GoesIn(
        side=opening.side,
        long_mm=opening.long_mm,
        wide_mm=opening.wide_mm,
        deep_mm=frame.deep_mm,
        passes=best.passes,
        room_mm=best.room_mm,
        straight=ways[0].as_it_stands and ways[0].passes,
        ways=ways,
        bare=bare,
        off=off,
    )


def _depth(bay: Bay, side: Side) -> float:
    return (bay.length_mm, bay.width_mm, bay.height_mm)[SIDES.index(side) // 2]


def _sure(way: Passage) -> bool:
    """Whether a way passes without a turn that isn't calculated."""
    return way.passes and not way.turns_inside


def _corners(parts: Sequence[Manifold]) -> Array:
    """Corners of the convex hull round parts, shape (n, 3) [mm]."""
    return mesh_of(Manifold.batch_hull(list(parts))).points


def _must_be_off(fixed: Array, loose: list[tuple[str, Array]], frame: Frame) -> tuple[list[str], Array]:
    """Of what comes off, that without which it doesn't go in as well: the rest is put on again, piece by piece.

    Its names, and the corners of all that is left.
    """
    off = []
    turns = _ways(fixed, frame)[0].turns_inside
    for name, points in loose:
        more = np.vstack([fixed, points])
        way = _ways(more, frame)[0]
        if way.passes and (turns or not way.turns_inside):
            fixed = more
        else:
            off.append(name)
    return off, fixed


def _ways(points: Array, frame: Frame) -> list[Passage]:
    """As it stands, each pair of ends first, and leaning where none of these passes; the best first."""
    standing = passage(points, upright(frame.axis), frame, as_it_stands=True)
    ways = [best_turn(points, axis, frame) for axis in range(3)]
    if standing.passes:
        ways[frame.axis] = standing
    elif not any(way.passes for way in ways):
        lean = best_lean(points, frame)
        if lean.room_mm > max(way.room_mm for way in ways) + WORTH_MM:
            ways.append(lean)
    return sorted(ways, key=lambda way: (not (way.as_it_stands and way.passes), not _sure(way), -way.room_mm))


GOES_IN = study(goes_in, BAY, ENVELOPE)
