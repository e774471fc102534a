"""Pressure decay between two readings: corrected for temperature and barometer, and how sure that is."""

from dataclasses import dataclass
from math import sqrt
from typing import Literal

from keel.reference.units import KELVIN_AT_0_C

CM3_PER_L = 1000.0
Verdict = Literal["pass", "fail", "too short", "undecided", "contradiction"]
LONGEST_TIMES = 20.0
"""A test that would have to last more than so many times as long isn't waited for."""
COVERAGE = 2.0
"""U = 2 u: about 95 of a hundred."""


@dataclass(frozen=True, slots=True)
class PressureReading:
    """What gauge, thermometer and barometer showed at one moment.

    Attributes
    ----------
    minute : float
        Since the test began [min].
    gauge_kpa, temperature_c, barometer_kpa : float
        Pressure over that of the air round the tank [kPa], temperature of the air inside [°C], barometer [kPa abs].
    """

    minute: float
    gauge_kpa: float
    temperature_c: float
    barometer_kpa: float

    @property
    def kelvin(self) -> float:
        """Absolute temperature [K]."""
        return self.temperature_c + KELVIN_AT_0_C


@dataclass(frozen=True, slots=True)
class Resolution:
    """The last digit of each instrument: of gauge and barometer [kPa], of the thermometer [K]."""

    gauge_kpa: float
    temperature_k: float = 0.0
    barometer_kpa: float = 0.0


@dataclass(frozen=True, slots=True)
class LeakTest:
    """What is tested, with what.

    Attributes
    ----------
    volume_l : float
        Free volume of air, hoses and gauge included [L].
    limit_sccm : float
        Most leak that passes [cm³/min of air at the pressure of the air round the tank].
    resolution : Resolution
        Of the instruments.
    length_factor : float
        The pressure that the largest leak allowed lets off has to be so many times the gauge's last digit.
    """

    volume_l: float
    limit_sccm: float
    resolution: Resolution
    length_factor: float = 3.0


@dataclass(frozen=True, slots=True)
class LeastMinutes:
    """How long a test has to last [min]: for the gauge to see the limit, and for the uncertainty to fit under it."""

    by_gauge: float
    by_uncertainty: float

    @property
    def both(self) -> float:
        """The longer of the two [min]."""
        return max(self.by_gauge, self.by_uncertainty)


@dataclass(frozen=True, slots=True)
class Decay:
    """What two readings say.

    Attributes
    ----------
    minutes : float
        Between them [min].
    corrected_kpa : float
        The second pressure brought to temperature and barometer of the first [kPa].
    leak_sccm, uncorrected_sccm : float
        Air lost [cm³/min at the barometer of the start], and what the gauge alone would say.
    uncertainty_sccm : float
        Expanded, U = 2 u [cm³/min].
    temperature_share : float
        How much of u² the two temperatures bring.
    least_min : LeastMinutes
        How long it has to last.
    verdict, uncorrected_verdict : Verdict
        What it proves, and what the gauge alone would make of it.
    decided_min : float or None
        How long the test has to last in all to decide, if it goes on like this [min]: U falls as the test grows. None
        where it has decided, or never will.
    """

    minutes: float
    corrected_kpa: float
    leak_sccm: float
    uncorrected_sccm: float
    uncertainty_sccm: float
    temperature_share: float
    least_min: LeastMinutes
    verdict: Verdict
    uncorrected_verdict: Verdict
    decided_min: float | None


def corrected_kpa(start: PressureReading, end: PressureReading) -> float:
    """A pressure brought to temperature and barometer of the start [kPa].

    Parameters
    ----------
    start, end : PressureReading
        Two readings of one closed volume.

    Returns
    -------
    float
        p₂corr = (p₂ + p_atm2) · T₁/T₂ − p_atm1.

    References
    ----------
    The law of ideal gases at a constant volume.
    """
    return (end.gauge_kpa + end.barometer_kpa) * start.kelvin / end.kelvin - start.barometer_kpa


def judge(start: PressureReading, end: PressureReading, test: LeakTest, scatter_sccm: float = 0.0) -> Decay:
    """What two readings of a closed tank prove.

    Parameters
    ----------
    start, end : PressureReading
        First and last; the last comes after the first.
    test : LeakTest
        Volume, limit, instruments.
    scatter_sccm : float
        Standard uncertainty that readings' scatter adds [cm³/min].

    Returns
    -------
    Decay
        "too short" before all else; then "contradiction" where air seems to have come in, "pass" or "fail" where the
        whole of leak ± U lies on one side of the limit, else "undecided".

    Raises
    ------
    ValueError
        When the last reading doesn't come after the first.

    References
    ----------
    Joint Committee for Guides in Metrology, Guide to the Expression of Uncertainty in Measurement (JCGM 100:2008),
    5.1.2 (law of propagation) and 4.3.7 (even spread of a last digit); leak from the loss of pressure: EN 1779.
    """
    minutes = end.minute - start.minute
    if minutes <= 0:
        raise ValueError(f"the last reading, minute {end.minute:g}, has to come after the first, {start.minute:g}")
    corrected = corrected_kpa(start, end)
    per_kpa = test.volume_l * CM3_PER_L / (start.barometer_kpa * minutes)
    leak = per_kpa * (start.gauge_kpa - corrected)
    plain = per_kpa * (start.gauge_kpa - end.gauge_kpa)
    variances = _variances(start, end, test, minutes)
    spread = sum(variances) + scatter_sccm**2
    uncertainty = COVERAGE * sqrt(spread)
    least = least_minutes(start, test)
    verdict = _verdict(leak, uncertainty, test.limit_sccm) if minutes >= least.both else "too short"
    return Decay(
        minutes=minutes,
        corrected_kpa=corrected,
        leak_sccm=leak,
        uncorrected_sccm=plain,
        uncertainty_sccm=uncertainty,
        temperature_share=(variances[2] + variances[3]) / spread if spread else 0.0,
        least_min=least,
        verdict=verdict,
        uncorrected_verdict="too short" if minutes < least.by_gauge else _plain_verdict(plain, test.limit_sccm),
        decided_min=_decided_min(verdict, minutes, abs(test.limit_sccm - leak), uncertainty, least.both),
    )


def least_minutes(start: PressureReading, test: LeakTest) -> LeastMinutes:
    """How long a test has to last, known before it starts [min].

    Parameters
    ----------
    start : PressureReading
        As it will begin.
    test : LeakTest
        Volume, limit, instruments.

    Returns
    -------
    LeastMinutes
        Δt ≥ k · V · resolution/(p_atm · limit); and until U, with no leak and no change of temperature or barometer,
        is as small as the limit.

    References
    ----------
    As for `judge`; the factor k = 3 is a house rule.
    """
    volume = test.volume_l * CM3_PER_L
    by_gauge = test.length_factor * volume * test.resolution.gauge_kpa / (start.barometer_kpa * test.limit_sccm)
    still = PressureReading(start.minute + 1.0, start.gauge_kpa, start.temperature_c, start.barometer_kpa)
    over_a_minute = COVERAGE * sqrt(sum(_variances(start, still, test, 1.0)))
    return LeastMinutes(by_gauge, over_a_minute / test.limit_sccm)


def _variances(start: PressureReading, end: PressureReading, test: LeakTest, minutes: float) -> list[float]:
    """What each reading's last digit adds to u² of the leak: both pressures, temperatures, barometers."""
    per_kpa = test.volume_l * CM3_PER_L / (start.barometer_kpa * minutes)
    ratio, absolute = start.kelvin / end.kelvin, end.gauge_kpa + end.barometer_kpa
    lost = start.gauge_kpa - corrected_kpa(start, end)
    gauge, warmth, weather = test.resolution.gauge_kpa, test.resolution.temperature_k, test.resolution.barometer_kpa
    by_reading = [
        (1.0, gauge),
        (ratio, gauge),
        (absolute / end.kelvin, warmth),
        (absolute * ratio / end.kelvin, warmth),
        (1.0 - lost / start.barometer_kpa, weather),
        (ratio, weather),
    ]
    return [(per_kpa * sensitivity * digit) ** 2 / 12 for sensitivity, digit in by_reading]


def _verdict(leak: float, uncertainty: float, limit: float) -> Verdict:
    if leak + uncertainty < 0:
        return "contradiction"
    if leak + uncertainty <= limit:
        return "pass"
    return "fail" if leak - uncertainty > limit else "undecided"


def _decided_min(verdict: Verdict, minutes: float, margin: float, uncertainty: float, least: float) -> float | None:
    if verdict == "too short":
        return least
    if verdict != "undecided" or margin < uncertainty / LONGEST_TIMES:
        return None
    return minutes * uncertainty / margin


def _plain_verdict(leak: float, limit: float) -> Verdict:
    return "pass" if leak <= limit else "fail"
