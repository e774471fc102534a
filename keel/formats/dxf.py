"""Flat parts as DXF: millimetres, one file a part, layers CUT, BEND_UP, BEND_DOWN, ETCH, TEXT."""

import io

from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.filemanagement import new

from keel.studies.sheet.parts import FlatPart

LAYERS: dict[str, int] = {"CUT": 7, "BEND_UP": 5, "BEND_DOWN": 1, "ETCH": 3, "TEXT": 8}
"""Layer names and their colour numbers."""

TEXT_HEIGHT_MM = 8.0
GRAIN = "<- grain ->"
"""Written along the way that the sheet's grain is to run."""


def part_dxf(part: FlatPart, *, title: str, thickness_mm: float, metal: str) -> bytes:
    """One flat part as a DXF file (R2010, millimetres).

    Parameters
    ----------
    part : FlatPart
        Outline [mm]; the inside of the tank faces the reader.
    title : str
        Design's name, for the text on the part.
    thickness_mm, metal
        For the text on the part.

    Returns
    -------
    bytes
        UTF-8 text; the outline and each opening are closed polylines on layer CUT, round holes circles, bend centre
        lines lie on BEND_UP (towards the reader) and BEND_DOWN. The grain's way is written on TEXT.
    """
    document = _empty_document()
    space = document.modelspace()
    for ring in (part.outline, *part.holes):
        space.add_lwpolyline(ring, close=True, dxfattribs={"layer": "CUT"})
    for bore in part.bores:
        space.add_circle(bore.middle, bore.diameter_mm / 2, dxfattribs={"layer": "CUT"})
        if not bore.bolt:
            _write(document, bore.name, bore.middle, TEXT_HEIGHT_MM / 2)
    for bend in part.bends:
        space.add_line(bend.start, bend.end, dxfattribs={"layer": f"BEND_{bend.direction.upper()}"})
        _write(document, f"{bend.order}", bend.start, TEXT_HEIGHT_MM / 2)
    for mark in part.marks:
        space.add_line(mark.start, mark.end, dxfattribs={"layer": "ETCH"})
    middle = part.length_mm / 2, part.width_mm / 2
    lines = [title, f"{part.title} x{part.quantity}", f"{metal} {thickness_mm:g} mm - inside face up"]
    lines += part.warnings
    turned = 90.0 if part.grain == "width" else 0.0
    _write(document, GRAIN, (middle[0], middle[1] + 3 * TEXT_HEIGHT_MM), TEXT_HEIGHT_MM / 2, turned)
    for row, line in enumerate(lines):
        _write(document, line, (middle[0], middle[1] - 1.6 * TEXT_HEIGHT_MM * row), TEXT_HEIGHT_MM)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode("utf-8")


def _empty_document() -> Drawing:
    document = new("R2010", units=units.MM)
    document.header["$MEASUREMENT"] = 1
    for name, colour in LAYERS.items():
        document.layers.add(name, color=colour)
    return document


def _write(document: Drawing, text: str, at: tuple[float, float], height: float, turned_deg: float = 0.0) -> None:
    entity = document.modelspace().add_text(text, height=height, dxfattribs={"layer": "TEXT"})
    entity.dxf.rotation = turned_deg
    entity.set_placement(at, align=TextEntityAlignment.MIDDLE_CENTER)
