"""Joints of the lines as CSV."""

from collections.abc import Sequence

from keel.formats.cells import said
from keel.formats.table import written
from keel.reference.quantities import UnitSet
from keel.studies.lines.joints import Joint

COLUMNS = ("run", "end", "part", "port", "part_side", "line_side", "seal", "adapter", "bore_mm", "fits")


def joints_csv(joints: Sequence[Joint], units: UnitSet = "mm_l") -> bytes:
    """Every joint in a reader's units.

    Parameters
    ----------
    joints : sequence of Joint
        Of the whole line.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV: one row a joint.
    """
    rows = [
        (
            one.run_name,
            one.side,
            one.part_name,
            one.port,
            one.part_side,
            one.line_side,
            one.seal,
            one.adapter,
            said(one.bore_mm),
            "yes" if one.fits else "no",
        )
        for one in joints
    ]
    return written(COLUMNS, rows, units)
