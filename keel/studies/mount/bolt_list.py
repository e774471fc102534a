"""Every bolt of the mount: size, grade, length over its stack, how it is locked, in which order it is tightened."""

from dataclasses import dataclass

from keel.analysis.parts import MOUNT
from keel.analysis.study import study
from keel.design.mount import Bolted, Mount
from keel.studies.mount.fastening import washer_mm
from keel.studies.mount.stack_up import bolt_length_mm, stack_mm


@dataclass(frozen=True, slots=True)
class BoltRow:
    """The bolts of one place.

    Attributes
    ----------
    stack_mm : float
        From head to nut.
    length_mm : float or None
        The shortest as sold that fills its nut; None where none does.
    """

    id: str
    name: str
    count: int
    size: str
    grade: str
    stack_mm: float
    length_mm: float | None
    washer_mm: float
    locking: str
    captive: bool
    state: str
    into: str


def bolt_list(mount: Mount) -> list[BoltRow]:
    """Bolts of all straps, feet and stops.

    Parameters
    ----------
    mount : Mount
        What holds the tank.

    Returns
    -------
    list of BoltRow
        Place by place. A strap's loop is doubled where the bolt goes through.
    """
    rows = list[BoltRow]()
    for strap in mount.straps:
        ends = ("right", "left") if strap.across == "y" else ("rear", "front")
        for key, end, anchor in (("low", ends[0], strap.low), ("high", ends[1], strap.high)):
            rows.append(_row(f"{strap.id}.{key}", f"{strap.name}, {end} end", anchor, 2 * strap.thickness_mm))
    rows += [_row(foot.id, foot.name, foot, foot.foot_mm) for foot in mount.feet]
    for bar in mount.bearers:
        through = bar.outer_mm if bar.shape != "flat bar" else bar.wall_mm
        ends = ("right", "left") if bar.along == "y" else ("rear", "front")
        rows += [_row(f"{bar.id}.{end}", f"{bar.name}, {end} end", bar, through) for end in ends]
    return rows + [_row(stop.id, stop.name, stop, 0.0) for stop in mount.stops]


def _row(key: str, name: str, place: Bolted, held_mm: float) -> BoltRow:
    bolts = place.bolts
    return BoltRow(
        id=key,
        name=name,
        count=bolts.count,
        size=bolts.size,
        grade=bolts.grade,
        stack_mm=stack_mm(place, held_mm),
        length_mm=bolt_length_mm(place, held_mm),
        washer_mm=washer_mm(bolts),
        locking=bolts.locking,
        captive=bolts.captive,
        state=bolts.state,
        into=place.structure.found,
    )


BOLTS_LISTED = study(bolt_list, MOUNT)
