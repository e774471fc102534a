"""A run as files: the whole of it, and its dry spells."""

import io
from collections.abc import Sequence

import numpy as np

from keel.formats.headings import in_units
from keel.formats.table import written
from keel.reference.quantities import UnitSet
from keel.solid.polyhedron import Array
from keel.studies.slosh.log import Log
from keel.studies.slosh.run import Ran


def run_csv(log: Log, ran: Ran, rooms: Sequence[str], units: UnitSet = "mm_l") -> bytes:
    """A run with its lap, a row a sample: what was felt and held, the inlet's depth, the surge tank.

    Parameters
    ----------
    log : Log
        What was driven.
    ran : Ran
        How the fuel went.
    rooms : sequence of str
        Names of the compartments.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
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
    return _written(heading, table, units)


def spells_csv(ran: Ran) -> bytes:
    """Dry spells, a row each.

    Parameters
    ----------
    ran : Ran
        How the fuel went.

    Returns
    -------
    bytes
        CSV: start and length [s], and the push at that moment [g].
    """
    rows = [[spell.start_s, spell.seconds, spell.forward_g, spell.left_g] for spell in ran.spells]
    return _written(["start_s", "seconds", "forward_g", "left_g"], np.array(rows).reshape(-1, 4), "mm_l")


def _written(heading: Sequence[str], table: Array, units: UnitSet) -> bytes:
    table = table / np.array([in_units(name, units)[1] for name in heading])
    stream = io.StringIO(written(heading, (), units).decode(), newline="")
    stream.seek(0, io.SEEK_END)
    np.savetxt(stream, table, fmt="%.8g", delimiter=",", newline="\r\n")
    return stream.getvalue().encode()
