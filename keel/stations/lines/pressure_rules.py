"""What is wrong with flows and pressures."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import ports_of
from keel.design.line_parts import LinePart
from keel.findings.finding import Finding, saying
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.flows import FLOWS
from keel.studies.lines.injection import FEEDS, Feed, FeedMode
from keel.studies.lines.stretches import STRETCHES
from keel.studies.lines.suction import INLETS, Inlet
from keel.studies.lines.surplus import SURPLUSES

_lines = saying("lines")
NOTHING_LPH = 0.01


def modes_have_answers(tank: TankAnalysis) -> Iterator[Finding]:
    """Every mode can run at all."""
    flows, modes = tank[FLOWS], tank[LINE_MODES]
    for place in flows.unsettled:
        yield _lines(
            "lines.unsettled",
            modes[place].id,
            "stop",
            "{mode}: no flow and pressure found that agree",
            "Nothing about this mode is judged: more is asked of the line than pressures can be found for.",
            mode=modes[place].name,
        )
    for place in flows.unfed:
        if modes[place].failure:
            continue
        yield _lines(
            "lines.unfed",
            modes[place].id,
            "stop",
            "{mode}: {drawn_lph} drawn, and no pump or no way brings all of it",
            "The engine gets less than it burns: it leans out and stops.",
            mode=modes[place].name,
            drawn_lph=modes[place].draws_lph,
        )


def pumps_are_within_their_cards(tank: TankAnalysis) -> Iterator[Finding]:
    """No pump is counted beyond its table."""
    modes = tank[LINE_MODES]
    for part, places in tank[FLOWS].beyond.items():
        found = tank.design.lines.part(part)
        is_electric = found is None or found.does.kind == "pump"
        mode = modes[places[0]]
        yield _lines(
            "lines.beyond",
            part,
            "stop",
            "{name}: its curves don't reach {at_v}, less what its wires take, in {mode}"
            if is_electric
            else "{name}: its curves don't reach {speed_rpm} in {mode}",
            "It is counted as giving nothing there: nothing is read beyond a maker's table.",
            name=found.name if found else part,
            at_v=mode.voltage_v,
            speed_rpm=mode.engine_rpm,
            mode=mode.name,
        )


def feeds_have_their_pressure(tank: TankAnalysis) -> Iterator[Finding]:
    """Every rail has what its regulator is set to, every carburettor what its needle bears."""
    for feed in tank[FEEDS]:
        yield from _short(tank, feed)
        yield from _needle(feed)


def _asked(feed: Feed) -> list[FeedMode]:
    """Modes that have to suffice."""
    return [row for row in feed.modes if not row.failure]


def _short(tank: TankAnalysis, feed: Feed) -> Iterator[Finding]:
    off = tank.workshop.rules.short_kpa
    known = [row for row in _asked(feed) if row.wanted_kpa is not None and row.kpa is not None]
    below = [((row.wanted_kpa or 0.0) - (row.kpa or 0.0), row) for row in known]
    short, row = max(below, key=lambda pair: pair[0], default=(0.0, None))
    if row is not None and short > off and row.drawn_lph > NOTHING_LPH:
        yield _lines(
            "lines.short",
            feed.part,
            "stop",
            "{name} in {mode}: {rail_kpa}, set to {set_kpa}, limit {off_kpa} below",
            "With {drawn_lph} drawn and filters due for a swap the pumps don't keep it up: the engine leans out.",
            name=feed.name,
            mode=row.mode,
            rail_kpa=row.kpa or 0.0,
            set_kpa=row.wanted_kpa or 0.0,
            off_kpa=off,
            drawn_lph=row.drawn_lph,
        )


def _needle(feed: Feed) -> Iterator[Finding]:
    for row in _asked(feed):
        if row.kpa is None or feed.least_kpa is None or feed.most_kpa is None:
            continue
        if row.kpa > feed.most_kpa or (row.kpa < feed.least_kpa and row.drawn_lph > NOTHING_LPH):
            yield _lines(
                "lines.needle",
                feed.part,
                "stop",
                "{name} in {mode}: {at_kpa}, limit {least_kpa} to {most_kpa}",
                "Above it its needle or its seals give way and it floods; below it too little comes.",
                name=feed.name,
                mode=row.mode,
                at_kpa=row.kpa,
                least_kpa=feed.least_kpa,
                most_kpa=feed.most_kpa,
            )
            return


def injectors_suffice(tank: TankAnalysis) -> Iterator[Finding]:
    """Injectors give what the engine burns, at the pressure across them."""
    for feed in tank[FEEDS]:
        short = [row for row in _asked(feed) if row.able_lph is not None and row.able_lph < row.drawn_lph]
        worst: FeedMode | None = max(short, key=lambda row: row.drawn_lph - (row.able_lph or 0.0), default=None)
        if worst is not None:
            yield _lines(
                "lines.injectors",
                feed.part,
                "stop",
                "{name} in {mode}: injectors give {able_lph} at {duty_pct} open, the engine burns {drawn_lph}",
                "{across_kpa} stands across them; {needed_kpa} would do. The engine runs lean at full power.",
                name=feed.name,
                mode=worst.mode,
                able_lph=worst.able_lph or 0.0,
                duty_pct=feed.duty_limit,
                drawn_lph=worst.drawn_lph,
                across_kpa=worst.across_kpa or 0.0,
                needed_kpa=feed.across_needed_kpa or 0.0,
            )


def surplus_passes(tank: TankAnalysis) -> Iterator[Finding]:
    """A bypass regulator holds its pressure while all that isn't burnt goes through it."""
    limit = tank.workshop.rules.short_kpa
    for regulator in tank[SURPLUSES]:
        over, row = max(
            ((row.over_kpa, row) for row in regulator.modes if row.over_kpa is not None),
            key=lambda pair: pair[0],
            default=(0.0, None),
        )
        if row is not None and over > limit:
            yield _lines(
                "lines.surplus",
                regulator.part,
                "stop",
                "{name} in {mode}: {back_lph} goes back, pressure {over_kpa} over its setting, limit {limit_kpa}",
                "Regulator and return don't pass the surplus: {rail_kpa} stands at the rail, the engine runs rich.",
                name=regulator.name,
                mode=row.mode,
                back_lph=row.back_lph or 0.0,
                over_kpa=over,
                limit_kpa=limit,
                rail_kpa=row.held_kpa + over,
            )


def lines_bear_their_pressure(tank: TankAnalysis) -> Iterator[Finding]:
    """Every run is rated for more than the most that ever stands in it."""
    for one in tank[STRETCHES]:
        if one.service in ("air", "reference"):
            continue
        when = one.highest_when + (", estimated: its table ends earlier" if one.is_estimated else "")
        unrated = one.rated_kpa is None
        if not unrated and (one.rated_kpa or 0.0) >= one.rating_needed_kpa:
            continue
        yield _lines(
            "lines.unrated" if unrated else "lines.rating",
            one.id,
            "caution" if unrated else "stop",
            "{name}: no rating typed, {needed_kpa} needed, {times} × {highest_kpa}"
            if unrated
            else "{name}: rated {rated_kpa}, limit {needed_kpa}, {times} × {highest_kpa}",
            "That much stands in it: {when}. A hose that bursts sprays fuel on what is hot.",
            name=one.name,
            when=when,
            highest_kpa=one.highest_kpa,
            needed_kpa=one.rating_needed_kpa,
            rated_kpa=one.rated_kpa or 0.0,
            times=f"{tank.workshop.rules.hose_reserve:g}",
        )


def parts_bear_their_pressure(tank: TankAnalysis) -> Iterator[Finding]:
    """No part is used above what it is made for."""
    highest: dict[str, tuple[float, str]] = {}
    runs = {run.id: run for run in tank.design.lines.runs}
    for one in tank[STRETCHES]:
        for end in (runs[one.id].start, runs[one.id].end):
            highest[end.part] = max(highest.get(end.part, (0.0, "")), (one.highest_kpa, one.highest_when))
    for part in tank.design.lines.parts:
        kpa, when = highest.get(part.id, (0.0, ""))
        if _is_open(tank, part):
            kpa, when = _in_any_mode(tank, part)
        if part.rated_kpa is not None and part.rated_kpa < kpa:
            yield _lines(
                "lines.part_rating",
                part.id,
                "stop",
                "{name}: {highest_kpa} in it, limit {rated_kpa}",
                "That much stands in it: {when}. Its seals blow or its body bursts.",
                name=part.name,
                highest_kpa=kpa,
                rated_kpa=part.rated_kpa,
                when=when,
            )


def _is_open(tank: TankAnalysis, part: LinePart) -> bool:
    """A tank elsewhere has its vent; a surge tank is open by its overflow where that is joined."""
    joined = {(end.part, end.port) for run in tank.design.lines.runs for end in (run.start, run.end)}
    return part.does.kind == "other tank" or (part.does.kind == "surge tank" and (part.id, "overflow") in joined)


def _in_any_mode(tank: TankAnalysis, part: LinePart) -> tuple[float, str]:
    """The most that stands in it: its overflow or its vent is open, however hard a pump presses."""
    flows, modes = tank[FLOWS], tank[LINE_MODES]
    found = [
        (kpa, mode.name)
        for port in ports_of(part.does)
        for kpa, mode in zip(flows.kpa(part.id, port) or [], modes, strict=False)
        if kpa is not None
    ]
    return max(found, default=(0.0, ""))


def fuel_stays_liquid(tank: TankAnalysis) -> Iterator[Finding]:
    """At no pump's inlet fuel boils."""
    least = tank.workshop.rules.inlet_margin_kpa
    for inlet in tank[INLETS]:
        rows = [row for row in inlet.modes if row.margin_kpa is not None]
        worst = min(rows, key=lambda row: row.margin_kpa or 0.0, default=None)
        if worst is not None and (worst.margin_kpa or 0.0) < least:
            boils = "" if worst.boils_c is None else " It boils there from {boils_c} on."
            yield _lines(
                "lines.boils",
                inlet.part,
                "stop" if (worst.margin_kpa or 0.0) < 0 else "caution",
                "{name} in {mode}: {margin_kpa} over the fuel's vapour pressure at its inlet, limit {least_kpa}",
                "{inlet_kpa} absolute against {vapour_kpa} (Reid {reid_kpa}): the pump fills with vapour, the engine "
                "starves." + boils,
                name=inlet.name,
                mode=worst.mode,
                margin_kpa=worst.margin_kpa or 0.0,
                least_kpa=least,
                inlet_kpa=worst.inlet_kpa or 0.0,
                vapour_kpa=worst.vapour_kpa,
                reid_kpa=worst.reid_kpa,
                boils_c=worst.boils_c or 0.0,
            )
        yield from _lift(inlet)


def _lift(inlet: Inlet) -> Iterator[Finding]:
    limit = 0.0 if inlet.needs_flooded else inlet.lifts_mm
    if limit is not None and inlet.lift_mm > limit:
        yield _lines(
            "lines.lift",
            inlet.part,
            "stop",
            "{name}: inlet {lift_mm} above the fuel, limit {limit_mm}",
            "It has to be flooded by gravity: it doesn't draw, and runs dry."
            if inlet.needs_flooded
            else "Its card lets it lift no further: it loses its prime as the tank empties.",
            name=inlet.name,
            lift_mm=inlet.lift_mm,
            limit_mm=limit,
        )
