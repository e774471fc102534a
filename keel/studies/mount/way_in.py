"""The way in: from outside through the opening to where the tank stands, tilted where that is needed."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from shapely import Polygon, unary_union

from keel.design.bay import Bay
from keel.design.mount import Mount
from keel.solid.envelope import Envelope
from keel.solid.neighbours import Scans
from keel.solid.planes import polygons_of
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.tilting.gaps import Nearest, frames_of
from keel.solid.tilting.scene import Piece
from keel.solid.tilting.search import Found, Pose
from keel.studies.mount.way_question import GoOn, Progress, Question
from keel.studies.mount.way_scene import WayScene, plane_axes

PLAY_MM = 3.0
"""So much room all round is wanted while it goes in: hands, paint."""
MOST_FRAMES = 160
AXES = "xyz"
JOIN_MM = 0.1


@dataclass(frozen=True, slots=True)
class Frame:
    """The tank at one moment of the way: shifted [mm] and turned about its middle [°]."""

    x_mm: float
    y_mm: float
    z_mm: float
    angle_deg: float


@dataclass(frozen=True, slots=True)
class Outline:
    """A piece as it is seen in the plane of the way: across and up there, one coordinate after the other [mm]."""

    name: str
    ring: list[float]


@dataclass(frozen=True, slots=True)
class WayIn:
    """What the search found.

    Attributes
    ----------
    passes : bool
        Whether there is a way.
    tilts_about : str
        Axis that it turns about on the way, seen along which the film is drawn; `across`, `up` are the plane's.
    most_deg : float
        The steepest it stands on the way.
    frames : list of Frame
        From where it stands to outside: the film runs them backwards.
    room_mm : float
        How near it comes to anything on the way beyond the play that is kept; below zero what is lacking.
    moving, fixed : str
        The pair that comes nearest, or that stops it.
    tightest : int
        At which frame.
    off : list of str
        What has to be off while it goes in.
    pieces, stands : list of Outline
        The tank's, as it stands, and what it passes.
    middle : list of float
        What it turns about: across and up in the plane.
    """

    passes: bool
    tilts_about: str
    across: str
    up: str
    most_deg: float
    frames: list[Frame]
    room_mm: float
    moving: str
    fixed: str
    tightest: int
    off: list[str]
    pieces: list[Outline]
    stands: list[Outline]
    middle: list[float]
    play_mm: float
    layers: int


def way_in(
    bay: Bay,
    envelope: Envelope,
    solids: Solids,
    scans: Scans,
    mount: Mount,
    play_mm: float = PLAY_MM,
    go_on: GoOn = lambda _share: None,
) -> WayIn | None:
    """Search the way in.

    Parameters
    ----------
    bay : Bay
        With an opening; without one there is nothing to search.
    envelope : Envelope
        The tank with all that stands on it.
    solids : Solids
        The shell worked out.
    scans : Scans
        Kept meshes; a scan counts as its hull.
    mount : Mount
        Stops and bearers stand in the way, feet that are welded on go in with it, straps are off.
    play_mm : float
        Room that is kept all round [mm].
    go_on : callable
        Told how far it is, from 0 to 1; raises `StoppedError` to stop it.

    Returns
    -------
    WayIn or None
        The way that tilts least, with everything on where that passes, else with as little off as possible. It tilts
        about one axis at a time, of the two that lie in the opening's side, and shifts in all three directions. Where
        nothing passes: by how much the tank is too large all round, and what it meets.
    """
    opening = bay.opening
    if opening is None:
        return None
    scene = WayScene(bay, opening, envelope, solids, scans, mount, play_mm)
    scenes, loose = _Scenes(scene, go_on), scene.comes_off
    off = frozenset(loose)
    whole = scenes.through(frozenset())
    if whole is not None:
        return whole
    bare = scenes.through(off) if loose else None
    if bare is None:
        return scenes.lacking(off)
    for name in loose:
        tried = scenes.through(off - {name})
        if tried is not None:
            off, bare = off - {name}, tried
    return bare


@dataclass
class _Scenes:
    """The same question with this or that off, about one axis or the other."""

    scene: WayScene
    go_on: GoOn

    def __post_init__(self) -> None:
        self._progress = Progress(self.go_on)

    def through(self, off: frozenset[str]) -> WayIn | None:
        """The way that tilts least, of those about either axis; None where there is none."""
        made = [self._through(axis, off) for axis in self.scene.axes]
        return min((way for way in made if way is not None), key=lambda way: way.most_deg, default=None)

    def lacking(self, off: frozenset[str]) -> WayIn:
        """Where there is no way: about either axis, what comes nearest to one."""
        return max((self._lacking(axis, off) for axis in self.scene.axes), key=lambda way: way.room_mm)

    def _through(self, axis: int, off: frozenset[str]) -> WayIn | None:
        question = self.scene.question(axis, off, self._progress)
        found = question.asked(self.scene.play_mm)
        return self._told(axis, off, question, found, self.scene.play_mm) if found.passes else None

    def _lacking(self, axis: int, off: frozenset[str]) -> WayIn:
        play = self.scene.play_mm
        question = self.scene.question(axis, off, self._progress)
        lacking, nearly = question.lacking(play)
        if not nearly.passes:
            # Far too large: the straight way out says what it meets.
            out = Pose(*self.scene.straight_out(axis, question.radius), 0.0, 0.0)
            nearly = Found([Pose(0.0, 0.0, 0.0, 0.0), out], nearly.layers)
        told = self._told(axis, off, question, nearly, play - lacking)
        return replace(told, passes=False, room_mm=-lacking)

    def _told(self, axis: int, off: frozenset[str], asked: Question, found: Found, play: float) -> WayIn:
        first, second = plane_axes(axis)
        frames = frames_of(found.way)
        near = asked.near(frames)
        kept, tightest = _thinned(frames, near)
        spots = [_frame(pose, axis) for pose in kept]
        # On paper x runs to the right and z up, whichever way round the axis has them.
        order = [0, 1] if first < second else [1, 0]
        reach = self.scene.size[axis]
        return WayIn(
            passes=found.passes,
            tilts_about=AXES[axis],
            across=AXES[min(first, second)],
            up=AXES[max(first, second)],
            most_deg=max((abs(pose.angle_deg) for pose in frames), default=0.0),
            frames=spots,
            room_mm=(near.gap_mm if near else reach) - play,
            moving=near.moving if near else "",
            fixed=near.fixed if near else "",
            tightest=tightest,
            off=sorted(off),
            pieces=list(_outlines(asked.moving, order)),
            stands=[
                Outline(piece.name, _flat(piece.ring[:, order]))
                for piece in (*asked.fixed, *asked.holds)
                if _is_seen(piece, asked.moving)
            ],
            middle=[asked.middle[order[0]], asked.middle[order[1]]],
            play_mm=self.scene.play_mm,
            layers=found.layers,
        )


def _frame(pose: Pose, axis: int) -> Frame:
    first, second = plane_axes(axis)
    place = [0.0, 0.0, 0.0]
    place[first], place[second], place[axis] = pose.u, pose.v, pose.across
    return Frame(place[0], place[1], place[2], pose.angle_deg)


def _thinned(frames: Sequence[Pose], near: Nearest | None) -> tuple[list[Pose], int]:
    """At most so many frames, the tightest among them, and which that is."""
    if not frames:
        return [], 0
    step = max(1, -(-len(frames) // MOST_FRAMES))
    tightest = near.frame if near else 0
    kept = sorted({*range(0, len(frames), step), len(frames) - 1, tightest})
    return [frames[n] for n in kept], kept.index(tightest)


def _outlines(pieces: Sequence[Piece], order: Sequence[int]) -> Iterator[Outline]:
    """What each thing looks like as a whole."""
    for name in dict.fromkeys(piece.name for piece in pieces):
        whole = unary_union([Polygon(piece.ring[:, order]).buffer(JOIN_MM) for piece in pieces if piece.name == name])
        for part in polygons_of(whole.buffer(-JOIN_MM)):
            yield Outline(name, _flat(np.array(part.exterior.coords)[:-1]))


def _is_seen(piece: Piece, moving: Sequence[Piece]) -> bool:
    """Whether something of what moves is ever at its height where it stands."""
    return any(piece.low < one.high and piece.high > one.low for one in moving)


def _flat(ring: Array) -> list[float]:
    clipped = np.clip(ring, -20_000, 20_000)
    return [float(value) for value in np.round(clipped, 2).ravel()]
