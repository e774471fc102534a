"""Every joint of the line: both its sides by name, what seals it, and whether they fit."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from keel.analysis.parts import LINES, PORTS
from keel.analysis.study import study
from keel.design.connections import Adapter, Connection
from keel.design.lines import LineRun, Lines, RunEnd
from keel.design.ports import Port
from keel.reference.connections import CLAMPED, DASH_BORES_MM, Standard
from keel.studies.lines.mating import Mismatch, hose_fits, mate_of, mismatch, named
from keel.studies.lines.places import connection_at
from keel.studies.result import Words, words

BORE_SLACK_MM = 0.8
"""Ends are made for hoses whose bore is that near to a dash size's."""


@dataclass(frozen=True, slots=True)
class Joint:
    """Where a run meets a part.

    Attributes
    ----------
    part_side, line_side : str
        What either has, as people ask for it; empty: not known.
    seal : str
        What makes it tight, and of which rubber.
    adapter : str
        The piece between; empty: none.
    fits : bool
        False where `why` says what doesn't.
    fault : str
        Which kind of misfit; empty: none.
    bore_mm : float or None
        Smallest bore in it.
    """

    run: str
    run_name: str
    side: Literal["start", "end"]
    part: str
    part_name: str
    port: str
    part_side: str
    line_side: str
    seal: str
    adapter: str
    special: bool
    fits: bool
    fault: str
    why: Words | None
    bore_mm: float | None
    sealant: bool


def joints(lines: Lines, ports: Sequence[Port]) -> list[Joint]:
    """Every joint, run by run; of two parts screwed together there is one.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    ports : sequence of Port
        The tank's.

    Returns
    -------
    list of Joint
        Hose to hose end isn't one of them: an end is made up with its hose.
    """
    return [joint for run in lines.runs for joint in _of_run(run, lines, ports)]


def _of_run(run: LineRun, lines: Lines, ports: Sequence[Port]) -> list[Joint]:
    sides = [(run.start, "start"), (run.end, "end")]
    known = [connection_at(end, lines, ports) for end, _ in sides]
    if run.kind == "direct":
        one, other = known
        wrong = _screwed(run.start.adapter, one, other)
        return [_joint(run, "start", run.start, lines, ports, one, other, wrong)]
    found = []
    for (end, side), part_side in zip(sides, known, strict=True):
        line_side, wrong = _line_side(run, end, part_side)
        found.append(_joint(run, "start" if side == "start" else "end", end, lines, ports, part_side, line_side, wrong))
    return found


def _screwed(adapter: Adapter | None, one: Connection | None, other: Connection | None) -> Mismatch | None:
    """Why two parts don't go on each other, or on the adapter between them."""
    if one is None or other is None:
        return None
    if adapter is None:
        return mismatch(one, other)
    return mismatch(adapter.part_side, one) or mismatch(adapter.line_side, other)


def _line_side(run: LineRun, end: RunEnd, part_side: Connection | None) -> tuple[Connection | None, Mismatch | None]:
    """What the run has at an end, and why it doesn't fit the part or its adapter."""
    facing = part_side
    if end.adapter is not None:
        wrong = _on(end.adapter.part_side, part_side)
        if wrong is not None:
            return end.connection, wrong
        facing = end.adapter.line_side
    if facing is None:
        return end.connection, None
    if end.connection is not None:
        return end.connection, _on(end.connection, facing)
    if facing.standard in CLAMPED:
        return None, None if hose_fits(run.bore_mm, facing) else _no_grip(run, facing)
    made = mate_of(facing)
    return made, None if _is_made(run.bore_mm, facing.standard, made) else _no_end(run, made)


def _on(one: Connection, other: Connection | None) -> Mismatch | None:
    if other is None:
        return None
    if one.standard in CLAMPED and other.standard in CLAMPED and one.sized == other.sized:
        # A short piece of hose joins two equal tails.
        return None
    return mismatch(one, other)


def _is_made(bore_mm: float, standard: Standard, end: Connection) -> bool:
    """Whether hose ends of a size come for a hose of a bore: of dash sizes the same and its neighbours."""
    if standard == "O-ring boss" or end.size in DASH_BORES_MM:
        # A size has at least its bore in the table, and less than the next size's.
        least = sorted(DASH_BORES_MM.values())
        place = max(bisect_right(least, bore_mm + 0.05) - 1, 0)
        return abs(least.index(DASH_BORES_MM[end.size]) - place) <= 1
    return abs(end.bore - bore_mm) <= max(BORE_SLACK_MM, 0.4 * bore_mm)


def _no_grip(run: LineRun, on: Connection) -> Mismatch:
    why = words(
        "a {bore_sheet} hose on {tail} of {across_sheet}: it doesn't grip, or splits",
        bore_sheet=run.bore_mm,
        tail=named(on),
        across_sheet=on.sized.diameter_mm,
    )
    return Mismatch("size", why)


def _no_end(run: LineRun, end: Connection) -> Mismatch:
    why = words("no end {end} is made for a {bore_sheet} hose", end=named(end), bore_sheet=run.bore_mm)
    return Mismatch("size", why)


def _joint(
    run: LineRun,
    side: Literal["start", "end"],
    end: RunEnd,
    lines: Lines,
    ports: Sequence[Port],
    part_side: Connection | None,
    line_side: Connection | None,
    wrong: Mismatch | None,
) -> Joint:
    part = lines.part(end.part)
    port = next((one for one in ports if one.id == end.port), None)
    sealed = part_side or line_side
    rubber = next((one.seal for one in (part_side, line_side) if one and one.seal), None)
    clamped = sealed is not None and sealed.standard in CLAMPED
    bores = [one.bore for one in (part_side, line_side) if one] + ([end.adapter.bore] if end.adapter else [])
    return Joint(
        run=run.id,
        run_name=run.name,
        side=side,
        part=end.part,
        part_name=part.name if part else port.name if port else end.port,
        port=end.port,
        part_side=named(part_side) if part_side else "",
        line_side=named(line_side) if line_side else "hose and clamp" if clamped else "",
        seal="" if sealed is None else f"{sealed.seals_by}, {rubber}" if rubber and not clamped else sealed.seals_by,
        adapter=f"{named(end.adapter.part_side)} to {named(end.adapter.line_side)}" if end.adapter else "",
        special=end.adapter is not None and end.adapter.special,
        fits=wrong is None,
        fault=wrong.fault if wrong else "",
        why=wrong.why if wrong else None,
        bore_mm=min(bores, default=None),
        sealant=any(one.sealant for one in (part_side, line_side) if one),
    )


JOINTS = study(joints, LINES, PORTS)
