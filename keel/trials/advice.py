"""What to vary next when nothing that was tried runs through."""

from collections.abc import Sequence

from keel.studies.result import Words, words
from keel.trials.search import Ask
from keel.trials.trial import Trial, favoured

CALLED = {
    "surge_l": "the surge tank",
    "pot_mm": "the pot",
    "sump_deep_mm": "the sump's depth",
    "door_mm": "the doors' width",
    "plates_across": "the number of baffles across",
    "plates_along": "the number of baffles lengthwise",
    "corner_mm": "the corners' legs",
    "notch_mm": "the notches' width",
    "plate_at_mm": "the first baffle's place",
}
"""Ways to vary a tank, the one that helps most against dry spells first."""


def advice(ask: Ask, trials: Sequence[Trial]) -> Words | None:
    """What came nearest and what to vary next; None where something runs through, or nothing can be made.

    A way whose best try lies at the upper end of its range is to be taken further; else the first that wasn't varied.

    Parameters
    ----------
    ask : Ask
        What was varied.
    trials : sequence of Trial
        What came of it.

    Returns
    -------
    Words or None
        A sentence.
    """
    best = favoured(trials, ask.least)
    if best is None or best.runs_through:
        return None
    nearest = words("Nearest came {nearest_s} dry, in {many} spells. ", nearest_s=best.dry_s, many=best.spells)
    for way, name in CALLED.items():
        span = getattr(ask, way)
        if span is not None and span.high > span.low and best.choice.get(way) == span.high:
            return _then(nearest, words("{name} is at the end of what was tried: go further.", name=name.capitalize()))
    fresh = [name for way, name in CALLED.items() if getattr(ask, way) is None]
    if ask.places is None:
        fresh.insert(0, "the pickup's place")
    if not fresh:
        return _then(nearest, words("All has been varied: ask for less, or bridge it with a larger surge tank."))
    return _then(nearest, words("Vary {name} next.", name=fresh[0]))


def _then(one: Words, other: Words) -> Words:
    return words(one.text + other.text, **one.values, **other.values)
