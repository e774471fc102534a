"""A profile from a DXF file: one closed outline of lines and arcs."""

import io
import re
from collections.abc import Iterator
from itertools import pairwise
from math import atan, cos, floor, hypot, isfinite, sin, tan

from ezdxf.document import Drawing
from ezdxf.entities.arc import Arc
from ezdxf.entities.dxfentity import DXFEntity
from ezdxf.entities.lwpolyline import LWPolyline
from ezdxf.entities.polyline import Polyline
from ezdxf.filemanagement import read
from ezdxf.lldxf.const import DXFError
from shapely.geometry import Polygon
from shapely.validation import explain_validity

from keel.design.base import LONGEST_MM
from keel.design.faults import Fault
from keel.design.shell import MOST_CORNERS, Corner
from keel.reference.units import MM_PER_INCH

MM_PER_UNIT = {0: None, 1: MM_PER_INCH, 2: 12 * MM_PER_INCH, 4: 1.0, 5: 10.0, 6: 1000.0}
NAMES = {1: "inches", 2: "feet", 4: "millimetres", 5: "centimetres", 6: "metres"}
MEET_MM = 0.05
"""Ends this near belong together [mm]."""
MOST_BYTES = 5_000_000
MOST_ENTITIES = 2000
"""A drawing with more in it isn't read: its one outline has to be found among them."""
ENTITY = re.compile(rb"^\s*0\r?\n\s*(?:LINE|ARC|CIRCLE|ELLIPSE|SPLINE|LWPOLYLINE|POLYLINE|VERTEX|INSERT)\s*$", re.M)
MOST_BULGE = 20.0
"""An arc of more turn than that of this bulge is a circle with a nick in it."""
FAR_MM = 1e9
LEAST_MM2 = 100.0
CHORDS = 8

Piece = tuple[tuple[float, float], tuple[float, float], float]
"""Start, end and bulge of one edge."""


class UnreadableOutlineError(ValueError):
    """A drawing without a usable outline; `fault` says what is wrong and where."""

    def __init__(self, message: str, value: str | float | int | None, limit: str) -> None:
        super().__init__(message)
        self.fault = Fault(field="file", value=value, limit=limit, message=message)


def read_outline(data: bytes) -> tuple[list[Corner], str]:
    """Corners of the one closed outline in a DXF file.

    Parameters
    ----------
    data : bytes
        DXF text. A closed polyline, or lines and arcs that join end to end. The unit in its header is
        honoured; without one, millimetres are taken.

    Returns
    -------
    corners : list of Corner
        Counter-clockwise, low corner at the origin [mm].
    remark : str
        What was taken: unit and how many edges.

    Raises
    ------
    UnreadableOutlineError
        When there is no outline, several, an open one (with the place of the gap), or one with splines.
    """
    drawing = _drawing(data)
    code = int(drawing.header.get("$INSUNITS", 0))
    scale = MM_PER_UNIT.get(code, 1.0)
    unit = NAMES.get(code, "no unit in the file, taken as millimetres")
    pieces = _pieces(drawing, scale or 1.0)
    if len(pieces) > MOST_CORNERS:
        raise UnreadableOutlineError(
            f"the outline has {len(pieces)} edges; {MOST_CORNERS} are taken", len(pieces), f"{MOST_CORNERS} or less"
        )
    _check(pieces, unit)
    corners = [(start, bulge) for start, _, bulge in pieces]
    if _area(pieces) < 0:
        corners = [(end, -bulge) for _, end, bulge in reversed(pieces)]
    low = min(x for (x, _), _ in corners), min(y for (_, y), _ in corners)
    made = []
    for here, ((x, y), bulge) in enumerate(corners):
        (after_x, after_y), _ = corners[(here + 1) % len(corners)]
        chord = hypot(after_x - x, after_y - y)
        # Counter-clockwise the inside is on the left, so an arc that turns left bulges outward.
        made.append(
            Corner(across_mm=round(x - low[0], 6), up_mm=round(y - low[1], 6), bow_mm=round(bulge * chord / 2, 6))
        )
    return made, f"{len(made)} edges, {unit}"


def _check(pieces: list[Piece], unit: str) -> None:
    """Refuse an outline that no tank can have: too large, a nicked circle, flat, or crossing itself."""
    if len(pieces) < 2:
        raise UnreadableOutlineError("the outline has fewer than two edges", len(pieces), "2 edges or more")
    xs, ys = [x for (x, _), _, _ in pieces], [y for (_, y), _, _ in pieces]
    across = max(max(xs) - min(xs), max(ys) - min(ys))
    if not across <= LONGEST_MM:
        raise UnreadableOutlineError(
            f"the outline is {across:.6g} mm across ({unit}): check the drawing's unit",
            across if isfinite(across) else None,
            f"{LONGEST_MM:g} mm or less",
        )
    for (x, y), _, bulge in pieces:
        if not abs(bulge) <= MOST_BULGE:
            raise UnreadableOutlineError(
                f"the arc at {x:.2f}, {y:.2f} mm goes round nearly all of a circle",
                bulge if isfinite(bulge) else None,
                f"a bulge of {MOST_BULGE:g} or less",
            )
    shape = Polygon([place for piece in pieces for place in _chords(piece)])
    if shape.area < LEAST_MM2:
        raise UnreadableOutlineError(
            f"the outline encloses {shape.area:.1f} mm²: it is a line",
            round(shape.area, 1),
            f"{LEAST_MM2:g} mm² or more",
        )
    if not shape.is_valid:
        raise UnreadableOutlineError(
            f"the outline crosses itself: {explain_validity(shape).replace('[', ' at ').rstrip(']')} mm",
            None,
            "edges that don't cross",
        )


def _chords(piece: Piece) -> Iterator[tuple[float, float]]:
    """Places along an edge from its start, its end left out."""
    (x0, y0), (x1, y1), bulge = piece
    yield x0, y0
    if not bulge:
        return
    turn = 4 * atan(bulge)
    # From the middle of the chord the centre lies to the left by half the chord over the tangent of half the turn.
    off = (1 - bulge * bulge) / (4 * bulge)
    cx, cy = (x0 + x1) / 2 - (y1 - y0) * off, (y0 + y1) / 2 + (x1 - x0) * off
    for n in range(1, CHORDS):
        a = turn * n / CHORDS
        yield cx + (x0 - cx) * cos(a) - (y0 - cy) * sin(a), cy + (x0 - cx) * sin(a) + (y0 - cy) * cos(a)


def _drawing(data: bytes) -> Drawing:
    if len(data) > MOST_BYTES:
        raise UnreadableOutlineError(f"the file is {len(data)} bytes", len(data), f"{MOST_BYTES} bytes or less")
    many = sum(1 for _ in ENTITY.finditer(data))
    if many > MOST_ENTITIES:
        raise UnreadableOutlineError(
            f"there are {many} lines, arcs and the like in the drawing: leave the outline alone in it",
            many,
            f"{MOST_ENTITIES} or less",
        )
    try:
        return read(io.StringIO(data.decode("utf-8", errors="surrogateescape")))
    except (DXFError, ValueError, KeyError, IndexError, AttributeError, TypeError, OverflowError) as error:
        raise UnreadableOutlineError(f"this is no DXF text that can be read: {error}", None, "a DXF file") from error


def _pieces(drawing: Drawing, scale: float) -> list[Piece]:
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


def _area(pieces: list[Piece]) -> float:
    """Signed area, arcs counted: half the cross products and each arc's segment."""
    total = 0.0
    for (x0, y0), (x1, y1), bulge in pieces:
        total += (x0 * y1 - x1 * y0) / 2
        if bulge:
            turn = 4 * atan(bulge)
            radius = hypot(x1 - x0, y1 - y0) / 2 / sin(turn / 2)
            total += radius**2 / 2 * (turn - sin(turn))
    return total
