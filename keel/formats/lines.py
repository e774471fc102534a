"""Joints of the lines, bend tables of their tubes and cut lengths of their hoses as CSV."""

from collections.abc import Sequence

from keel.formats.cells import said
from keel.formats.table import written
from keel.reference.quantities import UnitSet
from keel.studies.lines.hoses import HoseCut
from keel.studies.lines.joints import Joint
from keel.studies.lines.tubes import TubeMade

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


def _short(tube: TubeMade, place: int) -> str:
    return "yes" if tube.short[place] else "no"


BEND_COLUMNS = ("step", "do", "feed_mm", "turn_deg", "angle_deg", "set_deg", "straight_mm", "short")


def bends_csv(tube: TubeMade, units: UnitSet = "mm_l") -> bytes:
    """How a tube is made, step by step: cut, bent, trimmed, squared.

    Parameters
    ----------
    tube : TubeMade
        With its bend table.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV: feeds from the tube's start, turns right-handed looking along the feed, the straight before each bend.
    """
    rows = [("1", "cut rough", said(tube.rough_mm), *[""] * 5)]
    for number, bend in enumerate(tube.bends):
        figures = (bend.feed_mm, bend.rotation_deg, bend.angle_deg, bend.set_deg, tube.straights_mm[number])
        rows.append((str(number + 2), "bend", *(said(round(one, 3)) for one in figures), _short(tube, number)))
    done = len(tube.bends) + 2
    ends = ("", "", "", said(round(tube.straights_mm[-1], 3)), _short(tube, -1))
    rows.append((str(done), "trim", said(round(tube.cut_mm, 3)), *ends))
    rows.append((str(done + 1), "square both ends", *[""] * 6))
    return written(BEND_COLUMNS, rows, units)


HOSE_COLUMNS = (
    "hose", "stock", "bore_mm", "way_mm", "cut_mm", "first_end_deg", "first_takes_mm", "last_end_deg", "last_takes_mm",
    "clocking_deg", "radius_mm", "least_radius_mm",
)  # fmt: skip


def hoses_csv(hoses: Sequence[HoseCut], units: UnitSet = "mm_l") -> bytes:
    """How every hose is cut and ended.

    Parameters
    ----------
    hoses : sequence of HoseCut
        As cut.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV: one row a hose; an end's angle is its elbow's, 0 a straight one.
    """
    rows = []
    for one in hoses:
        first, last = one.ends
        ends = [said(value) for end in (first, last) for value in (end.elbow_deg, end.takes_mm)]
        clocking = "" if one.clocking_deg is None else said(one.clocking_deg)
        sizes = [said(value) for value in (one.bore_mm, one.route_mm, one.cut_mm)]
        radii = [said(one.radius_mm), said(one.least_radius_mm)]
        rows.append((one.name, one.stock or one.hose, *sizes, *ends, clocking, *radii))
    return written(HOSE_COLUMNS, rows, units)
