"""Straps as DXF, and the mount's bolts as CSV."""

import io
from collections.abc import Sequence

from ezdxf import units
from ezdxf.enums import TextEntityAlignment
from ezdxf.filemanagement import new

from keel.design.mount import Strap
from keel.formats.table import written
from keel.reference.quantities import UnitSet
from keel.studies.mount.bolt_list import BoltRow
from keel.studies.mount.straps import StrapPath

TEXT_MM = 6.0
BOLT_COLUMNS = (
    "place", "quantity", "size", "grade", "stack_mm", "length_mm", "washer_mm", "locking", "nut", "condition", "into",
)  # fmt: skip


def strap_dxf(strap: Strap, path: StrapPath) -> bytes:
    """A strap's strip at full size, laid straight, its outer face down (R2010, millimetres).

    Parameters
    ----------
    strap : Strap
        Width and loops.
    path : StrapPath
        As it lies; without a problem.

    Returns
    -------
    bytes
        DXF text, encoded. CUT is the strip, BEND_UP where each bend begins and ends, BEND_DOWN where the loops begin,
        TEXT what each is. The end at the low anchor is x = 0.
    """
    document = new("R2010", units=units.MM)
    document.header["$MEASUREMENT"] = 1
    for name, colour in (("CUT", 7), ("BEND_UP", 5), ("BEND_DOWN", 1), ("TEXT", 8)):
        document.layers.add(name, color=colour)
    space, wide = document.modelspace(), strap.width_mm

    def across(at: float, layer: str, text: str) -> None:
        space.add_line((at, 0), (at, wide), dxfattribs={"layer": layer})
        entity = space.add_text(text, height=TEXT_MM, dxfattribs={"layer": "TEXT", "rotation": 90})
        entity.set_placement((at - 1, -TEXT_MM), align=TextEntityAlignment.RIGHT)

    space.add_lwpolyline(
        [(0, 0), (path.cut_mm, 0), (path.cut_mm, wide), (0, wide)], close=True, dxfattribs={"layer": "CUT"}
    )
    across(strap.loop_mm, "BEND_DOWN", "loop")
    for number, mark in enumerate(path.marks, start=1):
        across(mark.start_mm, "BEND_UP", f"bend {number} begins")
        across(mark.end_mm, "BEND_UP", f"ends, {mark.angle_deg:.1f} deg, R {mark.radius_mm:.1f}")
    across(path.cut_mm - strap.loop_mm, "BEND_DOWN", "loop")
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode("utf-8")


def bolts_csv(rows: Sequence[BoltRow], units: UnitSet = "mm_l") -> bytes:
    """Every bolt of the mount, a row a place, in a reader's units.

    Parameters
    ----------
    rows : sequence of BoltRow
        The bolt list.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV (UTF-8, comma, header row, dot decimals).
    """
    return written(
        BOLT_COLUMNS,
        [
            [
                row.name,
                row.count,
                row.size,
                row.grade,
                f"{row.stack_mm:.1f}",
                "" if row.length_mm is None else f"{row.length_mm:g}",
                f"{row.washer_mm:g}",
                row.locking,
                "captive" if row.captive else "loose",
                row.state,
                row.into,
            ]
            for row in rows
        ],
        units,
    )
