"""Leak tests: how often the verdict is right on 200 simulated tanks, and how long a day of readings takes.

    python bench/leak_tests.py

A tank leaks at random, a quarter of them not at all, half of them above the limit, in random weather and sun. It is
read once a minute for twice the least time, and while the verdict is undecided for twice as long again, three times at
most: as the page asks for. The alternative in the same run: what the gauge alone would say.
"""

import statistics
import sys
from collections import Counter
from dataclasses import fields
from pathlib import Path
from time import perf_counter

import numpy as np

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from keel.design.proof import TestGauge
from keel.design.workshop import HouseRules
from keel.formats.pressures import pressures_csv, read_pressures
from keel.studies.proof.decay import PressureReading, least_minutes
from keel.studies.proof.plan import leak_test
from keel.studies.proof.rig import Rig, Surroundings, Truth, happened, misled, read
from keel.studies.proof.series import SeriesResult, judge_series

TANKS, LONGER, STEPS_A_MIN = 200, (1, 2, 4, 8), 6
DAY_MIN = 24 * 60.0
SAFE_KPA = 20.0


def tank(dice: np.random.Generator, seed: int) -> Rig:
    """Any tank, leak, weather."""
    leak = float(dice.choice([0.0, dice.uniform(0, 0.9), dice.uniform(1.1, 6)], p=[0.25, 0.25, 0.5]))
    around = Surroundings(
        start_c=dice.uniform(12, 28),
        per_h_c=dice.uniform(-1.5, 1.5),
        swing_c=dice.uniform(0, 1),
        sun_c=dice.uniform(2, 8) if dice.random() > 0.7 else 0.0,
        sun_min=(dice.uniform(0, 40), dice.uniform(40, 90)),
        barometer_kpa=dice.uniform(98, 103),
        barometer_per_h_kpa=dice.uniform(-0.08, 0.08),
    )
    return Rig(dice.uniform(20, 120), dice.uniform(5, 10), leak, around, TestGauge(), seed=seed)


def tested(rig: Rig, rules: HouseRules) -> tuple[SeriesResult, float]:
    """What a test of it says in the end, and what really leaked."""
    test = leak_test(rig.volume_l, rules.leak_limit_sccm, rig.gauge, rules)
    start = PressureReading(0.0, rig.pressure_kpa, rig.surroundings.start_c, rig.surroundings.barometer_kpa)
    minutes = 2 * least_minutes(start, test).both
    whole = happened(rig, LONGER[-1] * minutes)
    for times in LONGER:
        steps = round(times * minutes * STEPS_A_MIN) + 1
        truth = Truth(*(getattr(whole, field.name)[:steps] for field in fields(Truth)))
        result = judge_series(read(rig, times * minutes, 60.0, truth), test, SAFE_KPA)
        assert result.decay is not None
        if result.decay.verdict in ("pass", "fail"):
            break
    return result, misled(rig, truth, test).leak_sccm


def verdicts(seed: int) -> tuple[Counter[str], Counter[str]]:
    """How many were right, wrong, left open: corrected, and by the gauge alone."""
    dice, rules = np.random.default_rng(seed), HouseRules()
    corrected, alone = Counter[str](), Counter[str]()
    for number in range(TANKS):
        result, leak = tested(tank(dice, number), rules)
        assert result.decay is not None
        right = "pass" if leak <= rules.leak_limit_sccm else "fail"
        verdict = result.decay.verdict
        corrected["right" if verdict == right else "wrong" if verdict in ("pass", "fail") else "left open"] += 1
        alone["right" if result.decay.uncorrected_verdict == right else "wrong"] += 1
    return corrected, alone


def a_day() -> None:
    """A day at one a second: read from CSV, corrected, judged, made ready for the plot."""
    rig = Rig(84.0, 10.0, 0.5, Surroundings(per_h_c=-0.2, swing_c=0.5))
    content = pressures_csv(read(rig, DAY_MIN, 1.0))
    test = leak_test(84.0, 1.0, rig.gauge, HouseRules())
    times = []
    for _ in range(5):
        begun = perf_counter()
        found = read_pressures(content)
        result = judge_series(found.series, test, SAFE_KPA)
        times.append(perf_counter() - begun)
    print(f"a day at 1 Hz, {result.count} readings: {statistics.median(times):.3f} s (aim below 1 s)")


if __name__ == "__main__":
    total, plain = Counter[str](), Counter[str]()
    for seed in (5, 6, 7, 8, 9, 10):
        corrected, alone = verdicts(seed)
        total, plain = total + corrected, plain + alone
        print(f"seed {seed}: corrected {dict(corrected)}, gauge alone {dict(alone)}")
    share = 100 * total["right"] / total.total()
    print(f"right: corrected {share:.1f} % (aim 98 %), gauge alone {100 * plain['right'] / plain.total():.1f} %")
    a_day()
