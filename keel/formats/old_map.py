"""Old to new as CSV."""

from collections.abc import Sequence

from keel.formats.table import written
from keel.studies.lines.old_map import OldFate

COLUMNS = ("old", "kind", "did", "fate", "goes_to", "open")


def old_map_csv(things: Sequence[OldFate]) -> bytes:
    """Every old thing and what becomes of it.

    Parameters
    ----------
    things : sequence of OldFate
        As mapped.

    Returns
    -------
    bytes
        CSV: one row a thing.
    """
    rows = [(one.name, one.kind, one.did, one.fate, one.goes_to, one.fault) for one in things]
    return written(COLUMNS, rows, "mm_l")
