"""What each demand case outgrows of the line, and what of that is worth building in now."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keel.analysis.parts import BRIEF, LINES
from keel.analysis.study import study
from keel.design.brief import Brief
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.injection import FEEDS, Feed, FeedMode
from keel.studies.lines.modes import LINE_MODES, Mode
from keel.studies.lines.stretches import STRETCHES, Stretch
from keel.studies.result import Words, words

HOLDS_KPA = 1.0
REOPEN_H = 6.0
"""Emptied, made gas-free, welded, proved anew and filled: a later port in a finished tank (house rule) [h]."""


@dataclass(frozen=True, slots=True)
class LineOutgrown:
    """A part of the line that a case outgrows.

    Attributes
    ----------
    now, then : Words
        What it does in the first case, and in that one.
    later : float or None
        What replacing it later costs, in the workshop's money; None where a price isn't typed.
    worth : Words
        What to build in now, and what that costs against later.
    """

    case: str
    part: str
    name: str
    now: Words
    then: Words
    later: float | None
    worth: Words


def line_growth(
    lines: Lines,
    brief: Brief,
    modes: Sequence[Mode],
    flows: LineFlows,
    fed: Sequence[Feed],
    ways: Sequence[Stretch],
) -> list[LineOutgrown]:
    """Every part that the first case's full power suffices for and another case's doesn't.

    Parameters
    ----------
    lines : Lines
        Parts.
    brief : Brief
        The cases.
    modes : sequence of Mode
        Each case's full power among them.
    flows : LineFlows
        What flows, clean.
    fed : sequence of Feed
        Rails.
    ways : sequence of Stretch
        Runs.

    Returns
    -------
    list of LineOutgrown
        Case by case.
    """
    first = brief.cases[0].name if brief.cases else ""
    found = []
    for case in brief.cases[1:]:
        place = _full_power(modes, case.name)
        base = _full_power(modes, first)
        if place is None or base is None:
            continue
        found += list(_injectors(lines, case.name, fed, base, place))
        found += list(_pressure(lines, case.name, fed, base, place))
        found += list(_bores(case.name, flows, ways, base, place))
    return found


def _full_power(modes: Sequence[Mode], case: str) -> int | None:
    """The mode in which a case draws most, nothing standing still."""
    known = [n for n, mode in enumerate(modes) if mode.case == case and not mode.still]
    return max(known, key=lambda n: modes[n].draws_lph, default=None)


def _price(lines: Lines, part: str) -> float | None:
    found = lines.part(part)
    return found.price if found else None


def _injectors(lines: Lines, case: str, fed: Sequence[Feed], base: int, place: int) -> Iterator[LineOutgrown]:
    for feed in fed:
        now, then = feed.modes[base], feed.modes[place]
        if now.able_lph is None or then.able_lph is None:
            continue
        if now.able_lph >= now.drawn_lph and then.able_lph < then.drawn_lph:
            yield LineOutgrown(
                case,
                feed.part,
                f"injectors of {feed.name}",
                words("{able_lph} for {drawn_lph}", able_lph=now.able_lph, drawn_lph=now.drawn_lph),
                words("{able_lph} for {drawn_lph}", able_lph=then.able_lph, drawn_lph=then.drawn_lph),
                _price(lines, feed.part),
                words("Nothing in the tank changes: larger injectors, when that case comes."),
            )


def _pressure(lines: Lines, case: str, fed: Sequence[Feed], base: int, place: int) -> Iterator[LineOutgrown]:
    pumps = [part for part in lines.parts if part.does.kind == "pump"]
    for feed in fed:
        now, then = feed.modes[base], feed.modes[place]
        if _holds(now) and not _holds(then) and then.wanted_kpa is not None and pumps:
            yield LineOutgrown(
                case,
                pumps[0].id,
                _pumps_named(pumps),
                words("{now_kpa} at {feed}", now_kpa=now.kpa or 0.0, feed=feed.name),
                words(
                    "{then_kpa} at {feed}, set {set_kpa}",
                    then_kpa=then.kpa or 0.0,
                    set_kpa=then.wanted_kpa,
                    feed=feed.name,
                ),
                pumps[0].price,
                words(
                    "An empty pump seat and a blind port now; later the tank is emptied, made gas-free, welded and "
                    "proved anew: {later_h} more.",
                    later_h=REOPEN_H,
                ),
            )


def _holds(row: FeedMode) -> bool:
    return row.kpa is not None and row.wanted_kpa is not None and row.kpa >= row.wanted_kpa - HOLDS_KPA


def _pumps_named(pumps: Sequence[LinePart]) -> str:
    return pumps[0].name if len(pumps) == 1 else f"{len(pumps)} pumps"


def _bores(case: str, flows: LineFlows, ways: Sequence[Stretch], base: int, place: int) -> Iterator[LineOutgrown]:
    for way in ways:
        flow = flows.run(way.id)
        if flow is None or way.limit_ms is None:
            continue
        now, then = (abs(flow.velocity_ms[n] or 0.0) for n in (base, place))
        if now <= way.limit_ms < then:
            yield LineOutgrown(
                case,
                way.id,
                way.name,
                words("{now_ms}", now_ms=now),
                words("{then_ms}, limit {limit_ms}", then_ms=then, limit_ms=way.limit_ms),
                None,
                words(
                    "A bore of {needed_sheet} now costs a size of hose and ends, later all of it again.",
                    needed_sheet=way.bore_mm * (then / way.limit_ms) ** 0.5,
                ),
            )


LINE_GROWTH = study(line_growth, LINES, BRIEF, LINE_MODES, FLOWS, FEEDS, STRETCHES)
