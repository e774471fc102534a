"""What is wrong with senders and needles."""

from collections.abc import Iterator
from itertools import product

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, Rule, of_station
from keel.findings.fuels import fuels_of
from keel.studies.gauge.gauge import GAUGE_TRUTH
from keel.studies.liquid.draining import LEVEL
from keel.studies.result import words

_finding = of_station("gauge")
_gauge = of_station("gauge")


def senders_bear_it(tank: TankAnalysis) -> Iterator[Finding]:
    """Every sender is listed for the fuels asked for, where it has a list."""
    for sender, fuel in product(tank.design.gauge.senders, fuels_of(tank)):
        if sender.fuels and fuel not in sender.fuels:
            yield _gauge(
                "fuel.sender",
                sender.id,
                "stop",
                words("{sender} isn't made for {fuel}", sender=sender.name, fuel=fuel),
                words("Its float soaks or its track corrodes: the needle lies before it stops."),
                fuel,
            )


LIES_SHARE = 0.08
"""An error of more than this share of brimful is remarked on."""


RESERVE_SHARE = 0.10
"""More than this share left at E is remarked on."""


def senders_hang(tank: TankAnalysis) -> Iterator[Finding]:
    """Every sender is in the tank, and its float meets nothing."""
    told = {reading.id for reading in tank[GAUGE_TRUTH].readings}
    for sender in tank.design.gauge.senders:
        if sender.id not in told:
            yield _finding(
                "sender.outside",
                sender.id,
                "stop",
                words("{name} is outside the tank", name=sender.name),
                words("Nothing is calculated with it. Move it over the tank."),
            )
    for reading in tank[GAUGE_TRUTH].readings:
        if reading.meets:
            yield _finding(
                "sender.meets",
                reading.id,
                "stop",
                words("Float of {name} runs into {what}", name=reading.name, what=" and ".join(reading.meets)),
                words(
                    "It sticks there and the needle with it. Turn the arm, move the sender, or take a smaller float."
                ),
            )
        if reading.full_mm > reading.depth_mm or reading.empty_mm < 0:
            yield _finding(
                "sender.stops",
                reading.id,
                "stop",
                words(
                    "Float of {name} travels from {empty_mm} to {full_mm}, depth {depth_mm}",
                    name=reading.name,
                    empty_mm=reading.empty_mm,
                    full_mm=reading.full_mm,
                    depth_mm=reading.depth_mm,
                ),
                words("One of its stops lies beyond floor or roof: the needle never gets there."),
            )


def needle_tells_the_truth(tank: TankAnalysis) -> Iterator[Finding]:
    """The needle's error, and what is left at E."""
    for reading in tank[GAUGE_TRUTH].readings:
        worst = max(reading.eighths, key=lambda mark: abs(mark.error_l))
        if abs(worst.error_l) > LIES_SHARE * reading.brimful_l:
            yield _finding(
                "gauge.lies",
                reading.id,
                "note",
                words(
                    "Needle of {name} {error_l} too {way} at {needle}, limit {limit_l} ({limit_pct} of brimful)",
                    needle=f"{round(worst.needle * 8)}/8",
                    name=reading.name,
                    error_l=abs(worst.error_l),
                    way="low" if worst.error_l > 0 else "high",
                    limit_l=LIES_SHARE * reading.brimful_l,
                    limit_pct=LIES_SHARE,
                ),
                words(
                    "{left} is left than it shows; a lumpy shape does that to any straight gauge. Take the breakpoints "
                    "to a gauge that learns, or the printed face.",
                    left="More" if worst.error_l > 0 else "Less",
                ),
            )
        if reading.left_at_empty_l > RESERVE_SHARE * reading.brimful_l:
            yield _finding(
                "gauge.reserve",
                reading.id,
                "note",
                words(
                    "{left_l} left at E of {name}, limit {limit_l} ({limit_pct} of brimful)",
                    name=reading.name,
                    left_l=reading.left_at_empty_l,
                    limit_l=RESERVE_SHARE * reading.brimful_l,
                    limit_pct=RESERVE_SHARE,
                ),
                words("The vehicle is refuelled too early, and that fuel is carried for nothing."),
            )


def both_lobes_are_seen(tank: TankAnalysis) -> Iterator[Finding]:
    """One sender can't see two lobes."""
    pools = {cell.cell: sum(not pool.own for pool in cell.pools) for cell in tank[LEVEL]}
    for reading in tank[GAUGE_TRUTH].readings:
        same = [r for r in tank[GAUGE_TRUTH].readings if r.cell == reading.cell]
        if len(same) == 1 and pools.get(reading.cell):
            yield _finding(
                "gauge.one_eye",
                reading.id,
                "caution",
                words("{name} measures one lobe only", name=reading.name),
                words(
                    "Below the hump the other lobe's fuel goes unseen: a second sender, in series or averaged, "
                    "or a warning."
                ),
            )


GAUGE_RULES: tuple[Rule, ...] = (senders_hang, needle_tells_the_truth, both_lobes_are_seen)
