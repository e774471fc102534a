"""A profile from a DXF file: one closed outline of lines and arcs."""

import io
import re
from collections.abc import Iterator
from math import atan, cos, hypot, isfinite, sin

from ezdxf.document import Drawing
from ezdxf.filemanagement import read
from ezdxf.lldxf.const import DXFError
from shapely.geometry import Polygon
from shapely.validation import explain_validity

from keel.design.base import LONGEST_MM
from keel.design.shell import MOST_CORNERS, Corner
from keel.formats.outline_pieces import Piece, UnreadableOutlineError, pieces_of
from keel.reference.units import MM_PER_INCH

MM_PER_UNIT = {0: None, 1: MM_PER_INCH, 2: 12 * MM_PER_INCH, 4: 1.0, 5: 10.0, 6: 1000.0}
NAMES = {1: "inches", 2: "feet", 4: "millimetres", 5: "centimetres", 6: "metres"}
MOST_BYTES = 5_000_000
MOST_ENTITIES = 2000
"""A drawing with more in it isn't read: its one outline has to be found among them."""
ENTITY = re.compile(rb"^\s*0\r?\n\s*(?:LINE|ARC|CIRCLE|ELLIPSE|SPLINE|LWPOLYLINE|POLYLINE|VERTEX|INSERT)\s*$", re.M)
MOST_BULGE = 20.0
"""An arc of more turn than that of this bulge is a circle with a nick in it."""
LEAST_MM2 = 100.0
CHORDS = 8


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
    pieces = pieces_of(drawing, scale or 1.0)
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
