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
                words("{name} hangs outside the tank", name=sender.name),
                words("Nothing is calculated with it. Move it over the tank."),
            )
    for reading in tank[GAUGE_TRUTH].readings:
        if reading.meets:
            yield _finding(
                "sender.meets",
                reading.id,
                "stop",
                words("The float of {name} runs into {what}", name=reading.name, what=" and ".join(reading.meets)),
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
                    "{name} swings from {empty_mm} to {full_mm} in {depth_mm} of depth",
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
                    "At {needle} of {name} the needle is {error_l} {way}",
                    needle=f"{round(worst.needle * 8)}/8",
                    name=reading.name,
                    error_l=abs(worst.error_l),
                    way="low: more is left" if worst.error_l > 0 else "high: less is left",
                ),
                words(
                    "A lumpy shape does that to any straight gauge. Take the breakpoints to a gauge that learns, "
                    "or the printed face."
                ),
            )
        if reading.left_at_empty_l > RESERVE_SHARE * reading.brimful_l:
            yield _finding(
                "gauge.reserve",
                reading.id,
                "note",
                words("At E of {name} {left_l} is still left", name=reading.name, left_l=reading.left_at_empty_l),
                words("More than {share_pct} of the tank is carried below E.", share_pct=RESERVE_SHARE),
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
                words("{name} sees one lobe only", name=reading.name),
                words(
                    "Below the hump the other lobe's fuel goes unseen: a second sender, in series or averaged, "
                    "or a warning."
                ),
            )


GAUGE_RULES: tuple[Rule, ...] = (senders_hang, needle_tells_the_truth, both_lobes_are_seen)
