"""Lines and arcs of a drawing, joined end to end."""

from itertools import pairwise
from math import floor, hypot, isfinite, tan

from ezdxf.document import Drawing
from ezdxf.entities.arc import Arc
from ezdxf.entities.dxfentity import DXFEntity
from ezdxf.entities.lwpolyline import LWPolyline
from ezdxf.entities.polyline import Polyline

from keel.design.faults import Fault

FAR_MM = 1e9


class UnreadableOutlineError(ValueError):
    """A drawing without a usable outline; `fault` says what is wrong and where."""

    def __init__(self, message: str, value: str | float | int | None, limit: str) -> None:
        super().__init__(message)
        self.fault = Fault(field="file", value=value, limit=limit, message=message)


MEET_MM = 0.05
"""Ends this near belong together [mm]."""
Piece = tuple[tuple[float, float], tuple[float, float], float]
"""Start, end and bulge of one edge."""


def pieces_of(drawing: Drawing, scale: float) -> list[Piece]:
    """The edges of the one closed outline, in order."""
    closed: list[list[Piece]] = []
    loose: list[Piece] = []
    for entity in drawing.modelspace():
        if isinstance(entity, LWPolyline | Polyline):
            run = _polyline(entity, scale)
            if run and _meet(run[0][0], run[-1][1]):
                closed.append(run)
            else:
                loose += run
        else:
            loose += _single(entity, scale)
    _finite([*loose, *(piece for run in closed for piece in run)])
    if loose:
        closed.append(_joined(loose))
    if not closed:
        raise UnreadableOutlineError("there are no lines, arcs or polylines in the drawing", 0, "one closed outline")
    if len(closed) > 1:
        raise UnreadableOutlineError(
            f"there are {len(closed)} outlines; leave one in the drawing", len(closed), "one closed outline"
        )
    return [piece for piece in closed[0] if not _meet(piece[0], piece[1])]


def _finite(pieces: list[Piece]) -> None:
    for start, end, bulge in pieces:
        if not all(isfinite(v) and abs(v) < FAR_MM for v in (*start, *end)) or not isfinite(bulge):
            raise UnreadableOutlineError("a corner of the drawing lies nowhere", None, "coordinates that are numbers")


def _single(entity: DXFEntity, scale: float) -> list[Piece]:
    """The edge that a line or an arc is; nothing for texts, points and dimensions."""
    kind = entity.dxftype()
    if kind == "LINE":
        start, end = entity.dxf.start, entity.dxf.end
        return [((start.x * scale, start.y * scale), (end.x * scale, end.y * scale), 0.0)]
    if isinstance(entity, Arc):
        return [_arc(entity, scale)]
    if kind == "CIRCLE":
        raise UnreadableOutlineError("a circle is no profile: choose the cylinder instead", kind, "lines and arcs")
    if kind in ("SPLINE", "ELLIPSE"):
        at = _anywhere(entity, scale)
        raise UnreadableOutlineError(
            f"the outline has a {kind.lower()}{at}; only lines and arcs are taken", kind, "lines and arcs"
        )
    return []


def _anywhere(entity: DXFEntity, scale: float) -> str:
    if not entity.dxf.hasattr("center"):
        return ""
    centre = entity.dxf.center
    return f" about {centre.x * scale:.1f}, {centre.y * scale:.1f} mm"


def _polyline(entity: LWPolyline | Polyline, scale: float) -> list[Piece]:
    if isinstance(entity, LWPolyline):
        places = [((x * scale, y * scale), b) for x, y, b in entity.get_points("xyb")]
        shut = bool(entity.closed)
    else:
        spots = [(v.dxf.location, v.dxf.get("bulge", 0.0)) for v in entity.vertices]
        places = [((p.x * scale, p.y * scale), b) for p, b in spots]
        shut = bool(entity.is_closed)
    run = [(a, b, bulge) for (a, bulge), (b, _) in pairwise(places)]
    if shut and len(places) > 1:
        run.append((places[-1][0], places[0][0], places[-1][1]))
    return run


def _arc(entity: Arc, scale: float) -> Piece:
    start, end = entity.start_point, entity.end_point
    turn = (entity.dxf.end_angle - entity.dxf.start_angle) % 360
    centre = entity.dxf.center
    if not (0.01 < turn < 359.9 and entity.dxf.radius > 0):
        raise UnreadableOutlineError(
            f"the arc about {centre.x * scale:.2f}, {centre.y * scale:.2f} mm is a whole circle, or nothing",
            round(turn, 3),
            "an arc between two ends",
        )
    bulge = tan(turn * 0.017453292519943295 / 4)
    return (start.x * scale, start.y * scale), (end.x * scale, end.y * scale), bulge


def _joined(loose: list[Piece]) -> list[Piece]:
    """Loose edges end to end; each may be the wrong way round."""
    ends = _Ends(loose)
    run = [ends.take(0)]
    while not (len(run) > 1 and _meet(run[-1][1], run[0][0])):
        after = ends.next_to(run[-1][1])
        if after is None:
            break
        run.append(after)
    rest = ends.rest()
    if not _meet(run[-1][1], run[0][0]):
        x, y = run[-1][1]
        gap = min((_apart((x, y), p) for piece in rest or [run[0]] for p in piece[:2]), default=0.0)
        raise UnreadableOutlineError(
            f"the outline is open at {x:.2f}, {y:.2f} mm: the nearest end is {gap:.2f} mm away",
            round(gap, 3),
            f"ends within {MEET_MM:g} mm",
        )
    if rest:
        x, y = rest[0][0]
        raise UnreadableOutlineError(
            f"there is more than one outline: another edge starts at {x:.2f}, {y:.2f} mm",
            len(rest),
            "one closed outline",
        )
    return run


class _Ends:
    """Edges found by where they end: squares as wide as ends may be apart, each looked up with its neighbours."""

    def __init__(self, pieces: list[Piece]) -> None:
        self._left = dict(enumerate(pieces))
        self._squares = dict[tuple[int, int], set[int]]()
        for number, piece in self._left.items():
            for place in piece[:2]:
                self._squares.setdefault(self._square(place), set()).add(number)

    def _square(self, place: tuple[float, float]) -> tuple[int, int]:
        return floor(place[0] / MEET_MM), floor(place[1] / MEET_MM)

    def take(self, number: int) -> Piece:
        """An edge, which is used up."""
        piece = self._left.pop(number)
        for place in piece[:2]:
            self._squares[self._square(place)].discard(number)
        return piece

    def next_to(self, end: tuple[float, float]) -> Piece | None:
        """The edge that begins nearest to a place, turned so that it does; None where none meets it."""
        x, y = self._square(end)
        near = {n for i in (x - 1, x, x + 1) for j in (y - 1, y, y + 1) for n in self._squares.get((i, j), ())}
        meeting = [n for n in near if any(_meet(end, place) for place in self._left[n][:2])]
        if not meeting:
            return None
        best = min(meeting, key=lambda n: min(_apart(end, place) for place in self._left[n][:2]))
        start, stop, bulge = self.take(best)
        return (start, stop, bulge) if _apart(end, start) <= _apart(end, stop) else (stop, start, -bulge)

    def rest(self) -> list[Piece]:
        """What is left."""
        return list(self._left.values())


def _meet(a: tuple[float, float], b: tuple[float, float]) -> bool:
    return _apart(a, b) <= MEET_MM


def _apart(a: tuple[float, float], b: tuple[float, float]) -> float:
    return hypot(a[0] - b[0], a[1] - b[1])
