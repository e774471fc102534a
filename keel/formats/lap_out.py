"""A run as files: the whole of it, and its dry spells."""

import io
from collections.abc import Sequence

import numpy as np

from keel.formats.table import written
from keel.solid.polyhedron import Array
from keel.studies.slosh.log import Log
from keel.studies.slosh.run import Ran


def run_csv(log: Log, ran: Ran, rooms: Sequence[str]) -> bytes:
    """A run with its lap, a row a sample: what was felt and held, the inlet's depth, the surge tank."""
    heading = [
        "time_s",
        "forward_g",
        "left_g",
        "up_g",
        "drawn_l_per_h",
        *(f"{room}_l" for room in rooms),
        "inlet_mm",
        "surge_l",
    ]
    table = np.column_stack(
        [
            ran.times_s,
            log.forward_g,
            log.left_g,
            log.up_g,
            ran.drawn_l_per_h,
            ran.held_l,
            ran.depths_mm.max(axis=1),
            ran.surge_l,
        ]
    )
    return _written(heading, table)


def spells_csv(ran: Ran) -> bytes:
    """Dry spells, a row each."""
    rows = [[spell.start_s, spell.seconds, spell.forward_g, spell.left_g] for spell in ran.spells]
    return _written(["start_s", "seconds", "forward_g", "left_g"], np.array(rows).reshape(-1, 4))


def _written(heading: Sequence[str], table: Array) -> bytes:
    stream = io.StringIO(written(heading, ()).decode(), newline="")
    stream.seek(0, io.SEEK_END)
    np.savetxt(stream, table, fmt="%.8g", delimiter=",", newline="\r\n")
    return stream.getvalue().encode()
