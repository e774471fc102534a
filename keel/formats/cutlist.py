"""The cut list as CSV."""

from collections.abc import Mapping

from keel.formats.quantities import sentence_text
from keel.formats.table import written
from keel.reference.quantities import UnitSet
from keel.studies.liquid.strapping import StrappingRow
from keel.studies.sheet.model import Sheet

COLUMNS = (
    "part", "quantity", "metal", "thickness_mm", "flat_length_mm", "flat_width_mm",
    "bends", "grain_along", "area_m2_each", "mass_kg_each", "note",
)  # fmt: skip


def cut_list_csv(made: Sheet, *, metal: str, units: UnitSet = "mm_l") -> bytes:
    """The flat parts, a row each, as CSV in a reader's units (UTF-8, comma, header row, dot decimals).

    Parameters
    ----------
    made : Sheet
        The sheet scheme worked out.
    metal : str
        As people call it.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
    rows = [
        [
            part.name,
            part.quantity,
            metal,
            f"{part.thickness_mm:g}",
            f"{part.length_mm:.2f}",
            f"{part.width_mm:.2f}",
            len(part.bends),
            part.grain,
            f"{part.area_mm2 / 1e6:.4f}",
            f"{part.mass_kg:.3f}",
            ". ".join([*part.warnings, sentence_text(part.note, units)]),
        ]
        for part in made.parts
    ]
    return written(COLUMNS, rows, units)


def strapping_csv(tables: Mapping[str, list[StrappingRow]], units: UnitSet = "mm_l") -> bytes:
    """Strapping tables as CSV, a cell after the other: level over its lowest inner point, litres, share of brimful.

    Parameters
    ----------
    tables : mapping
        Rows by the cell's name.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
    cells = [
        [cell, f"{row.level_mm:.2f}", f"{row.volume_l:.4f}", f"{row.fraction:.6f}"]
        for cell, rows in tables.items()
        for row in rows
    ]
    return written(("cell", "level_mm", "volume_l", "fraction"), cells, units)
