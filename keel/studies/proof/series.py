"""A row of readings of one leak test: corrected one by one, judged by its two ends, and what is odd about it."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot, sqrt

import numpy as np

from keel.reference.units import KELVIN_AT_0_C
from keel.solid.polyhedron import Array
from keel.studies.proof.decay import CM3_PER_L, Decay, LeakTest, PressureReading, judge
from keel.studies.result import Words, words

END_SHARE, LONGEST_END_MIN = 0.03, 5.0
"""Each end is the mean of the readings of so much of the test [share, min], at least one reading."""
FEWEST_TO_SCATTER = 5
BEHIND_MIN = 2.0
"""How long a thermometer in the tank is behind the air round it (house rule)."""
SLOPE_SHARE, LONGEST_SLOPE_MIN = 0.1, 15.0
"""How the temperature goes at either end is taken from so much of the test [share, min]."""
GAP_SHARE, GAP_TIMES = 0.05, 10.0
"""A pause is a gap when it is so much of the test and so many times the usual pause."""
FEWEST_TO_SPLIT = 20
UNSTEADY_TIMES, SLOWS_BY = 1.5, 0.1
"""Two halves differ when their rates lie further apart than so many times what the instruments leave open."""
MOST_POINTS = 600


@dataclass(frozen=True, slots=True)
class Series:
    """Readings in their order.

    Attributes
    ----------
    minute, gauge_kpa, temperature_c, barometer_kpa : ndarray, shape (n,)
        As in `PressureReading`; minutes rise.
    """

    minute: Array
    gauge_kpa: Array
    temperature_c: Array
    barometer_kpa: Array

    def __len__(self) -> int:
        return len(self.minute)

    def part(self, chosen: slice) -> "Series":
        """Some of them."""
        return Series(
            self.minute[chosen], self.gauge_kpa[chosen], self.temperature_c[chosen], self.barometer_kpa[chosen]
        )

    def mean(self) -> PressureReading:
        """The middle of them all as one reading."""
        return PressureReading(*(float(np.mean(each)) for each in self.columns))

    @property
    def columns(self) -> tuple[Array, Array, Array, Array]:
        """Minute, gauge, temperature, barometer."""
        return self.minute, self.gauge_kpa, self.temperature_c, self.barometer_kpa


@dataclass(frozen=True, slots=True)
class Curve:
    """What is drawn of a test: pressure as read and corrected at some of the moments [min, kPa, °C, kPa abs]."""

    minute: list[float]
    gauge_kpa: list[float]
    corrected_kpa: list[float]
    temperature_c: list[float]
    barometer_kpa: list[float]


@dataclass(frozen=True, slots=True)
class SeriesResult:
    """What a row of readings proves.

    Attributes
    ----------
    decay : Decay or None
        By its two ends; None while there is one reading or none.
    start, end : PressureReading or None
        Those ends.
    cautions : list of Words
        What is odd about it.
    stopped : Words or None
        Why the test had to stop: a reading over the safe pressure.
    curve : Curve
        For the plot.
    limit_kpa : list of float
        Where the corrected pressure would stand at each moment of the curve with the largest leak allowed [kPa].
    count : int
        Readings.
    """

    decay: Decay | None
    start: PressureReading | None
    end: PressureReading | None
    cautions: list[Words]
    stopped: Words | None
    curve: Curve
    limit_kpa: list[float]
    count: int


def series_of(readings: list[PressureReading]) -> Series:
    """Readings as a row.

    Parameters
    ----------
    readings : list of PressureReading
        In any order.

    Returns
    -------
    Series
        In the order of their minutes; of two at one moment the first.
    """
    rows = sorted(readings, key=lambda one: one.minute)
    table = np.array([(r.minute, r.gauge_kpa, r.temperature_c, r.barometer_kpa) for r in rows]).reshape(-1, 4)
    keep = np.r_[True, np.diff(table[:, 0]) > 0] if len(table) else np.zeros(0, bool)
    return Series(*table[keep].T)


def all_corrected_kpa(series: Series) -> Array:
    """Every pressure brought to temperature and barometer of the first reading [kPa].

    Parameters
    ----------
    series : Series
        At least one reading.

    Returns
    -------
    ndarray, shape (n,)
        As `corrected_kpa`.

    References
    ----------
    As for `corrected_kpa`.
    """
    kelvin = series.temperature_c + KELVIN_AT_0_C
    absolute = series.gauge_kpa + series.barometer_kpa
    return np.asarray(absolute * kelvin[0] / kelvin - series.barometer_kpa[0])


def judge_series(series: Series, test: LeakTest, safe_kpa: float) -> SeriesResult:
    """What a row of readings proves.

    Parameters
    ----------
    series : Series
        Of one test, its minutes counted from when it was shut.
    test : LeakTest
        Volume, limit, instruments.
    safe_kpa : float
        Pressure that the tank bears [kPa].

    Returns
    -------
    SeriesResult
        By the means of its two ends: a last digit that flickers is no leak. The resolution counts in full all the
        same; on top of it the readings' scatter, what both halves differ by where they lose unlike, and what a
        thermometer is behind by where the temperature goes otherwise at the end than at the start.
    """
    first, last = _ends(series)
    start, end = (first.mean(), last.mean()) if first and last else (None, None)
    halves = _halves(series, test)
    decay, apart = None, 0.0
    if first and last and start and end:
        apart = _apart(halves)
        unsure = hypot(_scatter_sccm(first, last, test), apart / 2, _lag_sccm(series, test) / 2)
        decay = judge(start, end, test, unsure)
    at = _shown(len(series))
    corrected = all_corrected_kpa(series) if len(series) else np.zeros(0)
    drawn = (series.minute, series.gauge_kpa, corrected, series.temperature_c, series.barometer_kpa)
    curve = Curve(*(np.round(each[at], 4).tolist() for each in drawn))
    return SeriesResult(
        decay=decay,
        start=start,
        end=end,
        cautions=[*_gaps(series), *([_unsteady(halves)] if apart else [])],
        stopped=_over(series, safe_kpa),
        curve=curve,
        limit_kpa=_limit_line(series, test, at),
        count=len(series),
    )


def _ends(series: Series) -> tuple[Series | None, Series | None]:
    if len(series) < 2:
        return None, None
    span = float(series.minute[-1] - series.minute[0])
    width = min(span * END_SHARE, LONGEST_END_MIN)
    first = int(np.searchsorted(series.minute, series.minute[0] + width, side="right"))
    last = int(np.searchsorted(series.minute, series.minute[-1] - width, side="left"))
    return series.part(slice(0, max(1, first))), series.part(slice(min(last, len(series) - 1), None))


def _scatter_sccm(first: Series, last: Series, test: LeakTest) -> float:
    """Standard uncertainty of the leak from how readings scatter at both ends; none where they are few."""
    if min(len(first), len(last)) < FEWEST_TO_SCATTER:
        return 0.0
    minutes = float(last.minute.mean() - first.minute.mean())
    errors = [float(np.std(all_corrected_kpa(end), ddof=1)) / sqrt(len(end)) for end in (first, last)]
    return test.volume_l * CM3_PER_L / (float(first.barometer_kpa.mean()) * minutes) * sqrt(sum(e * e for e in errors))


def _lag_sccm(series: Series, test: LeakTest) -> float:
    """What a thermometer that is behind the air leaves: where it is as far behind at both ends nothing [cm³/min]."""
    span = float(series.minute[-1] - series.minute[0])
    width = min(SLOPE_SHARE * span, LONGEST_SLOPE_MIN)
    if len(series) < 2 * FEWEST_TO_SCATTER:
        return 0.0
    count = max(FEWEST_TO_SCATTER, int(np.searchsorted(series.minute, series.minute[0] + width, side="right")))
    count = min(count, len(series) // 2)
    begins, ends = (_slope(series.part(part)) for part in (slice(0, count), slice(-count, None)))
    kelvin = float(series.temperature_c[-1]) + KELVIN_AT_0_C
    kpa = abs(ends - begins) * BEHIND_MIN * float(series.gauge_kpa[-1] + series.barometer_kpa[-1]) / kelvin
    return test.volume_l * CM3_PER_L / (float(series.barometer_kpa[0]) * span) * kpa


def _slope(series: Series) -> float:
    """How the temperature goes on average [K/min], by least squares."""
    at = series.minute - series.minute.mean()
    return float(at @ series.temperature_c / (at @ at))


def _shown(count: int) -> Array:
    """Which of so many readings are drawn."""
    return np.unique(np.linspace(0, max(0, count - 1), min(count, MOST_POINTS)).astype(int))


def _limit_line(series: Series, test: LeakTest, at: Array) -> list[float]:
    if not len(series):
        return []
    per_min = test.limit_sccm * series.barometer_kpa[0] / (test.volume_l * CM3_PER_L)
    first, _ = _ends(series)
    level = float(all_corrected_kpa(first).mean()) if first else float(series.gauge_kpa[0])
    found: list[float] = np.round(level - per_min * (series.minute[at] - series.minute[0]), 4).tolist()
    return found


def _over(series: Series, safe_kpa: float) -> Words | None:
    over = np.flatnonzero(series.gauge_kpa > safe_kpa)
    if not len(over):
        return None
    worst = float(series.gauge_kpa.max())
    said = "Stop: {worst_finekpa} at minute {minute}, limit {safe_finekpa}. Let the air off, look at its panels"
    when = round(float(series.minute[over[0]]), 1)
    return words(said, worst_finekpa=worst, minute=when, safe_finekpa=safe_kpa)


def _gaps(series: Series) -> list[Words]:
    if len(series) < FEWEST_TO_SCATTER:
        return []
    pauses = np.diff(series.minute)
    span, usual = float(series.minute[-1] - series.minute[0]), float(np.median(pauses))
    wide = np.flatnonzero((pauses > GAP_SHARE * span) & (pauses > GAP_TIMES * usual))
    said = "No reading from minute {start} to {end}: what the pressure did meanwhile is not known"
    return [
        words(said, start=round(float(series.minute[n]), 1), end=round(float(series.minute[n + 1]), 1)) for n in wide
    ]


def _halves(series: Series, test: LeakTest) -> list[Decay]:
    """Both halves of a test judged by themselves; none where readings are few."""
    if len(series) < FEWEST_TO_SPLIT:
        return []
    middle = int(np.searchsorted(series.minute, (series.minute[0] + series.minute[-1]) / 2))
    return [_judged(half, test) for half in (series.part(slice(0, middle + 1)), series.part(slice(middle, None)))]


def _judged(series: Series, test: LeakTest) -> Decay:
    first, last = _ends(series)
    assert first is not None and last is not None
    return judge(first.mean(), last.mean(), test)


def _apart(halves: Sequence[Decay]) -> float:
    """How far the rates of both halves lie apart where instruments don't explain it, else 0 [cm³/min].

    A leak slows down as the pressure falls: that much is no sign of anything.
    """
    if len(halves) < 2 or any(half.minutes <= 0 for half in halves):
        return 0.0
    first, second = halves
    expected = UNSTEADY_TIMES * (first.uncertainty_sccm + second.uncertainty_sccm) / 2
    expected += SLOWS_BY * abs(first.leak_sccm)
    apart = abs(first.leak_sccm - second.leak_sccm)
    return apart if apart > expected else 0.0


def _unsteady(halves: Sequence[Decay]) -> Words:
    said = (
        "Leak of the first half {first_sccm}, of the second {second_sccm}: the thermometer doesn't follow the air "
        "inside. Let the tank settle out of sun and draught, and go on"
    )
    return words(said, first_sccm=halves[0].leak_sccm, second_sccm=halves[1].leak_sccm)
