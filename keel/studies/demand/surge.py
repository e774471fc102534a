"""A surge volume: how large, whether it refills, and what a run of dry spells does to it."""

from collections.abc import Sequence
from dataclasses import dataclass

SECONDS_PER_HOUR = 3600.0


@dataclass(frozen=True, slots=True)
class Sizing:
    """A surge volume by rule."""

    volume_l: float
    drawn_l: float
    lift_is_enough: bool | None
    refill_s: float | None
    refilled_in_time: bool | None


@dataclass(frozen=True, slots=True)
class Spells:
    """A surge volume over a run of wet and dry spells."""

    lowest_l: float
    lowest_at_s: float
    full_again_s: float | None
    """When it is full again after its lowest; empty when the run ends before."""
    overflow_l: float


def surge_sizing(
    engine_l_per_h: float,
    uncovered_s: float,
    margin: float,
    lift_l_per_h: float | None = None,
    gap_s: float | None = None,
) -> Sizing:
    """Surge volume for a dry spell, and its refilling.

    Parameters
    ----------
    engine_l_per_h : float
        Net draw of the engine: all return goes to the surge tank [L/h].
    uncovered_s : float
        Longest time that the main pickup is dry [s].
    margin : float
        Share on top of the volume.
    lift_l_per_h, gap_s : float, optional
        Lift pump [L/h] and time to the next dry spell [s].

    Returns
    -------
    Sizing
        V = Q t (1 + margin); refill = Q t / (Q_lift − Q), without the margin.
    """
    drawn = engine_l_per_h / SECONDS_PER_HOUR * uncovered_s
    enough = None if lift_l_per_h is None else lift_l_per_h > engine_l_per_h
    refill = None
    if lift_l_per_h is not None and enough:
        refill = drawn / ((lift_l_per_h - engine_l_per_h) / SECONDS_PER_HOUR)
    in_time = None
    if gap_s is not None and enough is not None:
        in_time = refill is not None and refill < gap_s
    return Sizing(drawn * (1 + margin), drawn, enough, refill, in_time)


def over_spells(
    volume_l: float, engine_l_per_h: float, lift_l_per_h: float, spells: Sequence[tuple[float, bool]]
) -> Spells:
    """What a full surge tank goes through over spells of (seconds, wet).

    While wet the lift pump fills it and the surplus of a full one flows back to the main tank; while
    dry the engine draws it down. Straight lines between changes. An empty one stays empty: the
    engine starves.
    """
    level, at = volume_l, 0.0
    lowest, lowest_at, full_again, overflow = volume_l, 0.0, None, 0.0
    for seconds, wet in spells:
        rate = ((lift_l_per_h if wet else 0.0) - engine_l_per_h) / SECONDS_PER_HOUR
        if rate > 0:
            to_full = (volume_l - level) / rate
            if to_full <= seconds:
                if full_again is None and level < volume_l:
                    full_again = at + to_full
                overflow += rate * (seconds - to_full)
        lasts = min(seconds, level / -rate) if rate < 0 else seconds
        level = min(volume_l, max(0.0, level + rate * seconds))
        if level < lowest:
            lowest, lowest_at, full_again = level, at + lasts, None
        at += seconds
    return Spells(lowest, lowest_at, full_again, overflow)
