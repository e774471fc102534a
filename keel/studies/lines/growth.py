"""What each demand case outgrows of the line, and what of that is worth building in now."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keel.analysis.parts import BRIEF, LINES, WORKSHOP
from keel.analysis.study import study
from keel.design.brief import Brief
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, Lines
from keel.design.workshop import Prices, Workshop
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.injection import FEEDS, Feed, FeedMode
from keel.studies.lines.modes import Mode
from keel.studies.lines.stretches import STRETCHES, Stretch
from keel.studies.result import Words, words

HOLDS_KPA = 1.0


@dataclass(frozen=True, slots=True)
class BuiltIn:
    """What is worth building in while the sheet is flat.

    Attributes
    ----------
    what : Words
        In words.
    now_h, later_h : float or None
        Work, now and in a finished tank; None where the shop's times aren't typed.
    now_price, later_price : float or None
        Work and what is bought, in the workshop's money; None where a price isn't typed.
    pays_from : float or None
        How likely the case has to be for building it in to cost less: now's share of later's.
    """

    what: Words
    now_h: float | None
    later_h: float | None
    now_price: float | None
    later_price: float | None
    pays_from: float | None


@dataclass(frozen=True, slots=True)
class LineOutgrown:
    """A part of the line that a case outgrows.

    Attributes
    ----------
    now, then : Words
        What it does in the first case, and in that one.
    part_price : float or None
        What is outgrown costs that much; None where its price isn't typed.
    build_in : BuiltIn or None
        Worth building in now; None: nothing of it is in the tank, and it costs later what it costs now.
    """

    case: str
    part: str
    name: str
    now: Words
    then: Words
    part_price: float | None
    build_in: BuiltIn | None


def line_growth(
    lines: Lines,
    brief: Brief,
    modes: Sequence[Mode],
    flows: LineFlows,
    fed: Sequence[Feed],
    ways: Sequence[Stretch],
    workshop: Workshop,
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
    workshop : Workshop
        Times and prices.

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
        found += list(_pressure(lines, case.name, fed, base, place, workshop))
        found += list(_bores(lines, case.name, flows, ways, base, place, workshop))
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
                None,
            )


def _pressure(
    lines: Lines, case: str, fed: Sequence[Feed], base: int, place: int, workshop: Workshop
) -> Iterator[LineOutgrown]:
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
                _port(words("an empty pump seat and a blind port"), workshop, more_now=1),
            )


def _port(what: Words, workshop: Workshop, more_now: int) -> BuiltIn:
    """So many more ports now, or one in a finished tank, which has to be emptied, made gas-free and proved anew."""
    prices = workshop.prices
    port_h = None if prices.minutes_per_port is None else prices.minutes_per_port / 60
    now_h = None if port_h is None else more_now * port_h
    later_h = None if port_h is None else workshop.rules.reopen_h + port_h
    now, later = _cost(now_h, more_now, prices), _cost(later_h, 1, prices)
    return BuiltIn(what, now_h, later_h, now, later, now / later if now is not None and later else None)


def _cost(hours: float | None, fittings: int, prices: Prices) -> float | None:
    if hours is None or prices.per_hour is None or prices.per_fitting is None:
        return None
    return hours * prices.per_hour + fittings * prices.per_fitting


def _holds(row: FeedMode) -> bool:
    return row.kpa is not None and row.wanted_kpa is not None and row.kpa >= row.wanted_kpa - HOLDS_KPA


def _pumps_named(pumps: Sequence[LinePart]) -> str:
    return pumps[0].name if len(pumps) == 1 else f"{len(pumps)} pumps"


def _bores(
    lines: Lines,
    case: str,
    flows: LineFlows,
    ways: Sequence[Stretch],
    base: int,
    place: int,
    workshop: Workshop,
) -> Iterator[LineOutgrown]:
    at_tank = {run.id for run in lines.runs if TANK in (run.start.part, run.end.part)}
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
                _port(
                    words("its port of {needed_sheet} bore", needed_sheet=way.bore_mm * (then / way.limit_ms) ** 0.5),
                    workshop,
                    more_now=0,
                )
                if way.id in at_tank
                else None,
            )


LINE_GROWTH = study(line_growth, LINES, BRIEF, LINE_MODES, FLOWS, FEEDS, STRETCHES, WORKSHOP)
