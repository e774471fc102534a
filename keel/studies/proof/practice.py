"""Practising a leak test: a tank nobody knows the leak of, and afterwards how near the guess was and what misled."""

from dataclasses import dataclass
from random import Random
from typing import Literal

from keel.design.proof import TestGauge
from keel.studies.proof.decay import Decay
from keel.studies.proof.rig import Misled, Rig, Surroundings
from keel.studies.result import Words, words

Level = Literal["still air", "changing air", "sun and weather"]
LEVELS: tuple[Level, ...] = ("still air", "changing air", "sun and weather")
TIGHT_SHARE = 0.4
NEAR_SHARE, NEAR_SCCM = 0.25, 0.3
WORTH_SCCM = 0.15
"""What moved the gauge by less isn't told."""


def hidden_rig(level: Level, volume_l: float, pressure_kpa: float, gauge: TestGauge, seed: int) -> Rig:
    """A tank to practise on.

    Parameters
    ----------
    level : Level
        How much goes on round it.
    volume_l, pressure_kpa : float
        Air in it [L], pressure it is shut at [kPa].
    gauge : TestGauge
        It is read from.
    seed : int
        The same seed hides the same leak.

    Returns
    -------
    Rig
        Tight two times in five; else with a leak from a fifth of what usually passes to six times that.
    """
    dice = Random(seed)
    leak = 0.0 if dice.random() < TIGHT_SHARE else dice.choice((dice.uniform(0.2, 0.8), dice.uniform(1.3, 6.0)))
    place = LEVELS.index(level)
    around = Surroundings(
        start_c=round(dice.uniform(14, 26), 1),
        per_h_c=dice.choice((-1, 1)) * dice.uniform(0.6, 2.0) if place else 0.0,
        swing_c=dice.uniform(0.2, 0.9) if place else 0.0,
        sun_c=dice.uniform(3, 9) if place == 2 else 0.0,
        sun_min=(dice.uniform(5, 40), dice.uniform(50, 110)),
        barometer_kpa=round(dice.uniform(98.5, 102.8), 2),
        barometer_per_h_kpa=dice.uniform(-0.12, 0.12) if place == 2 else 0.0,
    )
    on_shell = place == 2 and dice.random() < 0.5
    drift = dice.choice((-1, 1)) * dice.uniform(0.0, 0.02) if place == 2 else 0.0
    return Rig(volume_l, pressure_kpa, leak, around, gauge, drift_per_h_kpa=drift, on_shell=on_shell, seed=seed % 2**32)


@dataclass(frozen=True, slots=True)
class Lesson:
    """What a practice test teaches.

    Attributes
    ----------
    leak_sccm, leaks : float, bool
        What really leaked, and whether that is more than passes.
    was_right, was_near : bool
        Whether the guess was: leaks or not, and how much.
    off_sccm : float
        How far the guess was off.
    told : list of Words
        What moved the gauge beside the leak, largest first; whether the test was long enough.
    """

    leak_sccm: float
    leaks: bool
    was_right: bool
    was_near: bool
    off_sccm: float
    told: list[Words]


def lesson(truth: Misled, decay: Decay | None, limit_sccm: float, leaks: bool, guess_sccm: float) -> Lesson:
    """How near a guess was, and what misled.

    Parameters
    ----------
    truth : Misled
        What really happened.
    decay : Decay or None
        What the readings said.
    limit_sccm : float
        Leak that passes.
    leaks : bool
        Whether it leaks more than that, as guessed.
    guess_sccm : float
        How much, as guessed.

    Returns
    -------
    Lesson
        Near is within a quarter of the leak, or 0.3 scc/min.
    """
    off = guess_sccm - truth.leak_sccm
    really = truth.leak_sccm > limit_sccm
    return Lesson(
        leak_sccm=truth.leak_sccm,
        leaks=really,
        was_right=leaks == really,
        was_near=abs(off) <= max(NEAR_SCCM, NEAR_SHARE * truth.leak_sccm),
        off_sccm=off,
        told=[*_effects(truth), *_length(decay)],
    )


def _effects(truth: Misled) -> list[Words]:
    said = {
        "The air inside {way}: to the gauge alone it looked like {effect_sccm}": (
            truth.temperature_sccm,
            "temperature",
        ),
        "The barometer {way}: to the gauge alone it looked like {effect_sccm}": (truth.barometer_sccm, "barometer"),
        "The gauge itself drifted {way}: {effect_sccm}, which no correction takes out": (truth.gauge_sccm, "gauge"),
        "The thermometer {way}: {effect_sccm} are left after the correction": (truth.thermometer_sccm, "thermometer"),
    }
    ways = {
        "temperature": ("cooled", "warmed"),
        "barometer": ("rose", "fell"),
        "gauge": ("down", "up"),
        "thermometer": ("stayed warmer than the air inside", "stayed colder than the air inside"),
    }
    found = []
    for text, (effect, what) in sorted(said.items(), key=lambda item: -abs(item[1][0])):
        if abs(effect) >= WORTH_SCCM:
            found.append(words(text, effect_sccm=effect, way=ways[what][0 if effect > 0 else 1]))
    return found or [words("Nothing but the leak moved the gauge by much")]


def _length(decay: Decay | None) -> list[Words]:
    if decay is None:
        return [words("Without two readings nothing is known")]
    if decay.verdict == "too short":
        said = "{lasted_min} were too short for this gauge and volume, at least {least_min}"
        return [words(said, lasted_min=decay.minutes, least_min=decay.least_min.both)]
    if decay.verdict == "undecided":
        said = "The readings said {leak_sccm} ± {open_sccm}, which doesn't decide: go on for longer"
        return [words(said, leak_sccm=decay.leak_sccm, open_sccm=decay.uncertainty_sccm)]
    return []
