"""What is wrong inside: free runs, openings, what can be put in, welded, brushed, drawn."""

from collections.abc import Iterator
from datetime import timedelta

from keel.analysis.tank import TankAnalysis
from keel.design.features import Baffle, Partition
from keel.findings.finding import Finding, of_station
from keel.findings.fuels import attacked, fuels_of
from keel.reference.compatibility import OF_LINING
from keel.studies.inside.assembly import ASSEMBLY
from keel.studies.inside.bracing import BRACING
from keel.studies.inside.compartment_checks import CHECKS
from keel.studies.result import in_words, words

_finding = of_station("inside")
_inside = of_station("inside")


def lining_bears_it(tank: TankAnalysis) -> Iterator[Finding]:
    """The lining."""
    lining = tank.design.inside.lining
    if lining is None:
        return
    for fuel in fuels_of(tank):
        what, against = f"a lining of {lining}", OF_LINING.get((lining, fuel))
        text = "With it, {why}. The product's label counts."
        yield from attacked(_inside, ("fuel.lining", "", fuel), fuel, what, against, text)


DAYS_A_YEAR = 365.25


HEAD_MOST_MM = 10.0
"""A compartment that the draw holds further down than this is starved."""


def fuel_runs_free(tank: TankAnalysis) -> Iterator[Finding]:
    """No free run longer than the house rule."""
    run, most = tank[CHECKS].longest, tank.workshop.rules.free_run_mm
    if run.mm > most + 1:
        title = words(
            "Unbaffled run {run_mm} {way}, limit {most_mm} (house rule)",
            run_mm=run.mm,
            way="lengthwise" if run.axis == "x" else "across",
            most_mm=most,
        )
        why = words(
            "In a vehicle that moves, fuel hits harder after a longer run and uncovers the pickup for longer; Slosh "
            "shows whether it matters here."
        )
        yield _finding("inside.free_run", "tank", "note", title, why)


def plates_are_open_enough(tank: TankAnalysis) -> Iterator[Finding]:
    """Every baffle's clear area within the house rule."""
    rules = tank.workshop.rules
    for plate in tank[CHECKS].plates:
        if plate.share > rules.clear_most:
            said = "Open area of {name} {clear_pct}, limit {most_pct} (house rule)"
            title = words(said, name=plate.name, clear_pct=plate.share, most_pct=rules.clear_most)
            why = words("So open it slows the fuel little. Smaller openings slow more.")
            yield _finding("baffle.open", plate.id, "note", title, why)
        elif plate.share < rules.clear_least:
            said = "Open area of {name} {clear_pct}, at least {least_pct} (house rule)"
            title = words(said, name=plate.name, clear_pct=plate.share, least_pct=rules.clear_least)
            why = words(
                "Fuel may not come through as fast as it is drawn, and filling takes its time. Give it notches, holes "
                "or larger corners."
            )
            yield _finding("baffle.tight", plate.id, "note", title, why)


def openings_are_on_their_plate(tank: TankAnalysis) -> Iterator[Finding]:
    """No opening beside its plate: over a tunnel, in a wall."""
    for baffle in (feature for feature in tank.shell.features if isinstance(feature, Baffle)):
        missed = tank.solids.plates[baffle.id].missed
        if missed:
            title = words("Off the plate of {name}: {what}", name=baffle.name, what=in_words(missed))
            why = words("Less than half of it lies where the plate is, so it lets little through. Move it along.")
            yield _finding("baffle.misses", baffle.id, "caution", title, why)


def compartments_drain_and_breathe(tank: TankAnalysis) -> Iterator[Finding]:
    """Every compartment's air and fuel get out."""
    for shut in tank[CHECKS].shut:
        what = " and ".join([*(["air"] if shut.traps else []), *(["fuel"] if shut.holds else [])])
        title = words("{room} traps {what}", room=shut.room, what=what)
        ends = " or ".join([*(["top"] if shut.traps else []), *(["bottom"] if shut.holds else [])])
        why = words("No opening reaches its {ends}. Open the plates' corners or feet there.", ends=ends)
        yield _finding("inside.shut", shut.room, "caution", title, why)


def plates_go_in(tank: TankAnalysis) -> Iterator[Finding]:
    """Every plate can be slid in from an end, past what stands there."""
    for plate in tank[ASSEMBLY].blocked:
        by = in_words(plate.by)
        title = words("{name} can't be slid in past {what}", name=plate.name, what=by)
        why = words("From either end something is in its way. Stand it in before {what}, or make it in two.", what=by)
        yield _finding("inside.put_in", plate.id, "caution", title, why)


def seams_can_be_welded(tank: TankAnalysis) -> Iterator[Finding]:
    """A torch reaches every plate's seams from an open end; and the order they are welded in."""
    made, reach = tank[ASSEMBLY], tank.workshop.rules.torch_reach_mm
    for plate in made.beyond:
        said = "{name} {in_mm} from the nearer end, torch reach {reach_mm} (house rule)"
        title = words(said, name=plate.name, in_mm=plate.mm, reach_mm=reach)
        why = words("Move it nearer, plug-weld it from outside, or weld it before the body is closed.")
        yield _finding("inside.torch", plate.id, "caution", title, why)
    for first, second in made.shut_in:
        title = words("Between {first} and {second} nothing reaches the seams", first=first, second=second)
        why = words(
            "A plate that crosses both has seams there that both plates shut in. Plug-weld them from outside, or leave "
            "that piece out."
        )
        yield _finding("inside.shut_in", first, "caution", title, why, second)
    if len(made.order) > 1:
        title = words("Weld the plates in this order: {names}", names=", ".join(made.order))
        crossed = in_words(made.crossed)
        why = words("From the middle outward, each from its nearer end, before the ends go on.")
        if crossed:
            why = words(
                "{crossed} cross: join them first, they go in as one. Then from the middle outward, each from its "
                "nearer end, before the ends go on.",
                crossed=crossed,
            )
        yield _finding("inside.order", "plates", "note", title, why)


def plates_brace(tank: TankAnalysis) -> Iterator[Finding]:
    """Which plate stiffens which panel, and which stiffens none."""
    helping = [braced for braced in tank[BRACING] if braced.helps]
    if helping:
        best = max(helping, key=lambda braced: braced.with_kpa / braced.without_kpa)
        title = words(
            "{name} braces the {panel}: it bears {with_kpa}, without it {without_kpa}",
            name=best.name,
            panel=best.panel,
            with_kpa=best.with_kpa,
            without_kpa=best.without_kpa,
        )
        why = words("A plate welded along a panel splits it into smaller ones. How far fuel runs lists every plate.")
        yield _finding("inside.braces", "plates", "note", title, why)
    for braced in tank[BRACING]:
        if braced.helps:
            continue
        why = words("A panel is as strong as its widest field, and that lies elsewhere. It may still slow the fuel.")
        if braced.stops_short:
            why = words("It stops short of the roof, so no panel is held all the way. It may still slow the fuel.")
        yield _finding("inside.braces_none", braced.id, "note", words("{name} braces no panel", name=braced.name), why)


def a_brush_gets_in(tank: TankAnalysis) -> Iterator[Finding]:
    """Every compartment can be brushed out through a port."""
    rooms = tank[CHECKS].unbrushed
    if rooms:
        said = "No way in for a brush of {brush_mm} (house rule): {rooms}"
        title = words(said, brush_mm=tank.workshop.rules.brush_mm, rooms=in_words(rooms))
        why = words(
            "What can't be brushed can't be cleaned or inspected. Widen an opening from a port's hole on, or put a "
            "cover over it."
        )
        yield _finding("inside.brush", "rooms", "note", title, why)


def draw_gets_through(tank: TankAnalysis) -> Iterator[Finding]:
    """Fuel comes through the plates as fast as it is drawn when the tank is low."""
    for room in tank[CHECKS].starved:
        if room.head_mm <= HEAD_MOST_MM:
            continue
        title = words("Starved compartment, nothing open in its lowest quarter: {room}", room=room.room)
        why = words("What is drawn can't come. Open it lower down.")
        if room.open_mm2 > 0:
            said = "Starved compartment {head_mm} lower than its neighbours, limit {most_mm}: {room}"
            title = words(said, room=room.room, head_mm=room.head_mm, most_mm=HEAD_MOST_MM)
            why = words("When the tank is low, as much is left behind. Open it lower down, or wider.")
        yield _finding("inside.starves", room.room, "caution", title, why)


def a_bag_is_left_whole(tank: TankAnalysis) -> Iterator[Finding]:
    """No plate stands in a bladder."""
    plates = [feature for feature in tank.shell.features if isinstance(feature, Baffle | Partition)]
    if tank.design.inside.bladder is None or not plates:
        return
    named = words("{name} stands where the bladder goes", name=plates[0].name)
    title = words("{many} plates stand where the bladder goes", many=len(plates)) if len(plates) > 1 else named
    why = words("A bag takes the whole box: no plate can stand in it. Baffle it with foam, or leave the bag out.")
    yield _finding("inside.bag_plates", "bladder", "stop", title, why)


def fillings_age(tank: TankAnalysis) -> Iterator[Finding]:
    """Foam and bags have a date; foam is cut clear of what moves."""
    inside = tank.design.inside
    for name, filling in (("foam", inside.foam), ("bladder", inside.bladder)):
        if filling is None:
            continue
        if filling.fitted is None:
            title = words("When the {name} goes in isn't noted", name=name)
            why = words("It ages: write the day down, so that its last one is known.")
        else:
            due = filling.fitted + timedelta(days=round(filling.life_years * DAYS_A_YEAR))
            title = words("The {name} is to be renewed by {due}", name=name, due=due.isoformat())
            why = words(
                "Fitted {fitted}, good for {years} years by its maker.",
                fitted=filling.fitted.isoformat(),
                years=f"{filling.life_years:g}",
            )
        yield _finding("inside.life", name, "note", title, why)
    hangs = [port.name for port in tank.design.ports if port.hangs_across_mm > 0]
    hangs += [sender.name for sender in tank.design.gauge.senders]
    if inside.foam is not None and hangs:
        title = words("Cut the foam clear of {names}", names=", ".join(hangs))
        why = words("Foam in the way of a float's sweep or a pump holds the needle up, or crumbs into the strainer.")
        yield _finding("inside.foam_clear", "foam", "note", title, why)


INSIDE_RULES = (
    fuel_runs_free,
    plates_are_open_enough,
    openings_are_on_their_plate,
    compartments_drain_and_breathe,
    draw_gets_through,
    plates_go_in,
    seams_can_be_welded,
    plates_brace,
    a_brush_gets_in,
    a_bag_is_left_whole,
    fillings_age,
)
