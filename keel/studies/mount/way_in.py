"""The way in: from outside through the opening to where the tank stands, tilted where that is needed."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from manifold3d import Manifold, OpType
from shapely import Polygon, box, unary_union

from keel.design.bay import SIDES, Bay, Opening
from keel.solid.envelope import Envelope
from keel.solid.neighbours import Scans, outline_pieces, scan_mesh, solid_of_keep_out
from keel.solid.planes import polygons_of
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.solid.tilting.gaps import Nearest, frames_of
from keel.solid.tilting.scene import FAR_MM, TURNS, Piece, pieces_of, rectangle, wall_with_hole
from keel.solid.tilting.search import Found, Pose
from keel.studies.mount.way_question import TANK, GoOn, Plane, Progress, Question

PLAY_MM = 3.0
"""So much room all round is wanted while it goes in: hands, paint."""
SLABS = 6
WALL_MM = 2.0
"""The panel with the opening is taken to be so thick."""
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
    scene = _Scenes(bay, opening, envelope, solids, scans, play_mm, go_on)
    loose = list(dict.fromkeys(part.name for part in envelope.at_ports if part.comes_off))
    whole = scene.best(frozenset())
    if whole.passes or not loose:
        return whole
    bare = scene.best(frozenset(loose))
    if not bare.passes:
        return bare
    off = set(loose)
    for name in loose:
        tried = scene.best(frozenset(off - {name}))
        if tried.passes:
            off, bare = off - {name}, tried
    return bare


@dataclass
class _Scenes:
    """The same question with this or that off, about one axis or the other."""

    bay: Bay
    opening: Opening
    envelope: Envelope
    solids: Solids
    scans: Scans
    play_mm: float
    go_on: GoOn

    def __post_init__(self) -> None:
        self._side = SIDES.index(self.opening.side)
        self._size = (self.bay.length_mm, self.bay.width_mm, self.bay.height_mm)
        self._kept: dict[frozenset[str], WayIn] = {}
        self._progress = Progress(self.go_on)

    def best(self, off: frozenset[str]) -> WayIn:
        """The way that tilts least, of those about either axis; else what comes nearest."""
        if off not in self._kept:
            axes = [axis for axis in range(3) if axis != self._side // 2]
            made = [self._about(axis, off) for axis in axes]
            passing = [way for way in made if way.passes]
            if passing:
                self._kept[off] = min(passing, key=lambda way: way.most_deg)
            else:
                self._kept[off] = max(made, key=lambda way: way.room_mm)
        return self._kept[off]

    def _about(self, axis: int, off: frozenset[str]) -> WayIn:
        moving, fixed = self._moving(axis, off), list(self._fixed(axis))
        rings = np.vstack([piece.ring for piece in moving])
        low, high = rings.min(axis=0), rings.max(axis=0)
        middle = (float(low[0] + high[0]) / 2, float(low[1] + high[1]) / 2)
        radius = float(np.linalg.norm(high - low)) / 2 + self.play_mm
        question = Question(moving, fixed, middle, self._plane(axis, middle, radius), self._reach(axis), self._progress)
        found = question.asked(self.play_mm)
        if found.passes:
            return self._told(axis, off, question, found, self.play_mm)
        lacking, nearly = question.lacking(self.play_mm)
        if not nearly.passes:
            # Far too large: the straight way out says what it meets.
            nearly = Found([Pose(0.0, 0.0, 0.0, 0.0), self._straight_out(axis, radius)], nearly.layers)
        told = self._told(axis, off, question, nearly, self.play_mm - lacking)
        return replace(told, passes=False, room_mm=-lacking)

    def _straight_out(self, axis: int, radius: float) -> Pose:
        """Outside the opening, as it stands."""
        own, high = self._side // 2, self._side % 2
        far = (self._size[own] + 2 * radius) * (1.0 if high else -1.0)
        return Pose(far, 0.0, 0.0, 0.0) if own == _plane_axes(axis)[0] else Pose(0.0, far, 0.0, 0.0)

    def _moving(self, axis: int, off: frozenset[str]) -> list[Piece]:
        bare = len(self.envelope.parts) - len(self.envelope.at_ports)
        tank = Manifold.batch_boolean(self.envelope.parts[:bare], OpType.Add)
        found = pieces_of(TANK, tank, axis, self._cuts(axis))
        for part in self.envelope.at_ports:
            if part.name not in off:
                found += pieces_of(part.name, part.solid, axis)
        return found

    def _cuts(self, axis: int) -> list[float]:
        """Where the shell's outline changes along an axis: none for what is drawn out along it."""
        shell = self.solids
        outside = {"sump", "well", "relief", "roof step"}
        cuts = [
            end for cost in shell.costs if cost.kind in outside for end in (cost.box.low[axis], cost.box.high[axis])
        ]
        if shell.section.axis == axis:
            cuts += list(shell.section.span)
        else:
            low, high = shell.bounds.low[axis], shell.bounds.high[axis]
            cuts += list(np.linspace(low, high, SLABS + 1)[1:-1])
        return cuts

    def _fixed(self, axis: int) -> Iterator[Piece]:
        yield from self._walls(axis)
        for keep_out in self.bay.keep_outs:
            solid = solid_of_keep_out(keep_out, self.bay)
            mesh = scan_mesh(keep_out, self.scans)
            if solid is None and mesh is not None and not getattr(keep_out, "is_cavity", False):
                solid = Manifold.hull_points(np.ascontiguousarray(mesh.points))
            if solid is not None and not solid.is_empty():
                yield from pieces_of(keep_out.name, solid, axis)
        for _, solid in outline_pieces(self.bay):
            yield from pieces_of("the bay's side", solid, axis)

    def _walls(self, axis: int) -> Iterator[Piece]:
        """The bay's sides, the one with the opening as a panel with a hole; outside it nothing stands."""
        first, second = _plane_axes(axis)
        own, high = self._side // 2, self._side % 2
        size, opening = self._size, self.opening
        along = second if own == first else first
        holes = _hole(opening, own)
        at, inward = (size[own], -1.0) if high else (0.0, 1.0)
        name = f"the opening in the {opening.side}"
        hole = (*holes[along], *holes[axis])
        yield from wall_with_hole(name, at, inward, WALL_MM, hole, upright=own == first)
        # The other sides end at that panel.
        ends = {own: (-FAR_MM, size[own] + WALL_MM) if high else (-WALL_MM, FAR_MM)}
        for place, side in enumerate(SIDES):
            if place == self._side:
                continue
            low = [ends.get(way, (-FAR_MM, FAR_MM))[0] for way in range(3)]
            top = [ends.get(way, (-FAR_MM, FAR_MM))[1] for way in range(3)]
            if place % 2:
                low[place // 2] = size[place // 2]
            else:
                top[place // 2] = 0.0
            yield rectangle(
                f"the {side} of the bay", (low[first], low[second]), (top[first], top[second]), (low[axis], top[axis])
            )

    def _reach(self, axis: int) -> float:
        return self._size[axis]

    def _plane(self, axis: int, middle: tuple[float, float], radius: float) -> Plane:
        """How far the plane is looked at, and where the tank's middle is out."""
        first, second = _plane_axes(axis)
        own, high = self._side // 2, self._side % 2
        more = 2 * radius + 100.0
        low = [min(0.0, middle[0]) - more, min(0.0, middle[1]) - more]
        top = [max(self._size[first], middle[0]) + more, max(self._size[second], middle[1]) + more]
        at = 0 if own == first else 1
        beyond = radius + WALL_MM + 1.0
        out_low, out_top = list(low), list(top)
        if high:
            out_low[at] = self._size[own] + beyond
            top[at] = max(top[at], out_low[at] + 50.0)
            out_top[at] = top[at]
        else:
            out_top[at] = -beyond
            low[at] = min(low[at], out_top[at] - 50.0)
            out_low[at] = low[at]
        return Plane((low[0], low[1], top[0], top[1]), box(out_low[0], out_low[1], out_top[0], out_top[1]))

    def _told(self, axis: int, off: frozenset[str], asked: Question, found: Found, play: float) -> WayIn:
        first, second = _plane_axes(axis)
        frames = frames_of(found.way)
        near = asked.near(frames)
        kept, tightest = _thinned(frames, near)
        spots = [_frame(pose, axis) for pose in kept]
        # On paper x runs to the right and z up, whichever way round the axis has them.
        order = [0, 1] if first < second else [1, 0]
        reach = self._reach(axis)
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
                for piece in asked.fixed
                if _is_seen(piece, asked.moving)
            ],
            middle=[asked.middle[order[0]], asked.middle[order[1]]],
            play_mm=self.play_mm,
            layers=found.layers,
        )


def _plane_axes(axis: int) -> tuple[int, int]:
    """The two axes that a plane square to a third is told by, in the scene's order."""
    rows = np.array(TURNS[axis])
    return int(np.argmax(rows[0])), int(np.argmax(rows[1]))


def _hole(opening: Opening, own: int) -> dict[int, tuple[float, float]]:
    """From where to where the opening is, by axis."""
    first, second = [way for way in range(3) if way != own]
    return {
        first: (opening.a_mm, opening.a_mm + opening.long_mm),
        second: (opening.b_mm, opening.b_mm + opening.wide_mm),
    }


def _frame(pose: Pose, axis: int) -> Frame:
    first, second = _plane_axes(axis)
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
