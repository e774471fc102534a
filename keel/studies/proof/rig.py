"""A simulated tank under test: a hidden leak, air that follows sun and weather, instruments with faults."""

from dataclasses import dataclass, field
from math import exp, pi, sin

import numpy as np

from keel.design.proof import TestGauge
from keel.reference.units import KELVIN_AT_0_C
from keel.solid.polyhedron import Array
from keel.studies.proof.decay import CM3_PER_L, LeakTest
from keel.studies.proof.series import Series

STEP_S = 10.0
SHELL_FOLLOWS_MIN, AIR_FOLLOWS_MIN, SENSOR_FOLLOWS_MIN = 18.0, 4.0, 1.5
"""Time constants: sheet after the air round it, air inside after the sheet, thermometer after the air inside."""
MIN_PER_H, S_PER_MIN = 60.0, 60.0
SWING_MIN = 90.0
"""From one swing of the room's temperature to the next: doors, heaters, clouds."""


@dataclass(frozen=True, slots=True)
class Surroundings:
    """Air round the tank and sun on it.

    Attributes
    ----------
    start_c, per_h_c, swing_c : float
        Temperature at the start [°C], how it goes on [K/h], and how it swings about that [K].
    sun_c : float
        How much warmer the sheet gets in the sun [K].
    sun_min : (float, float)
        From when to when the sun is on it [min].
    barometer_kpa, barometer_per_h_kpa : float
        Pressure of the air [kPa abs], and how it goes on [kPa/h].
    """

    start_c: float = 20.0
    per_h_c: float = 0.0
    swing_c: float = 0.0
    sun_c: float = 0.0
    sun_min: tuple[float, float] = (0.0, 0.0)
    barometer_kpa: float = 101.3
    barometer_per_h_kpa: float = 0.0

    def equilibrium_c(self, minute: float) -> float:
        """What the sheet would come to [°C]."""
        sun = self.sun_c if self.sun_min[0] <= minute < self.sun_min[1] else 0.0
        return self.start_c + self.per_h_c * minute / MIN_PER_H + self.swing_c * sin(2 * pi * minute / SWING_MIN) + sun


@dataclass(frozen=True, slots=True)
class Rig:
    """A tank under test.

    Attributes
    ----------
    volume_l, pressure_kpa : float
        Air in it [L], gauge pressure it is shut at [kPa].
    leak_sccm : float
        What it leaks at that pressure.
    surroundings : Surroundings
        Air, sun, weather.
    gauge : TestGauge
        Last digits of the instruments.
    noise_kpa, drift_per_h_kpa, noise_k : float
        What gauge and thermometer flicker by (standard deviation), and how the gauge drifts.
    on_shell : bool
        The thermometer lies on the sheet instead of in the air inside.
    seed : int
        Of the flicker.
    """

    volume_l: float
    pressure_kpa: float
    leak_sccm: float
    surroundings: Surroundings = Surroundings()
    gauge: TestGauge = field(default_factory=TestGauge)
    noise_kpa: float = 0.004
    drift_per_h_kpa: float = 0.0
    noise_k: float = 0.02
    on_shell: bool = False
    seed: int = 0


@dataclass(frozen=True, slots=True)
class Truth:
    """What really happened in a simulated tank, a row a step.

    Attributes
    ----------
    minute, gauge_kpa, air_c, shell_c, sensor_c, barometer_kpa : ndarray, shape (n,)
        Time [min], pressure [kPa], temperatures [°C], barometer [kPa abs].
    """

    minute: Array
    gauge_kpa: Array
    air_c: Array
    shell_c: Array
    sensor_c: Array
    barometer_kpa: Array


def happened(rig: Rig, minutes: float) -> Truth:
    """What happens in a simulated tank.

    Parameters
    ----------
    rig : Rig
        Tank, leak, surroundings.
    minutes : float
        How long [min].

    Returns
    -------
    Truth
        In steps of ten seconds. The leak goes with p (p + 2 p_atm): a capillary's.

    References
    ----------
    As for `limit_at`; temperatures by Newton's law of cooling.
    """
    step = STEP_S / S_PER_MIN
    minute = np.arange(0.0, minutes + step, step)
    around = rig.surroundings
    barometer = around.barometer_kpa + around.barometer_per_h_kpa * minute / MIN_PER_H
    shell, air, sensor = _temperatures(around, minute, step)
    kelvin = air + KELVIN_AT_0_C
    density = (rig.pressure_kpa + barometer[0]) / kelvin[0]
    per_step = around.barometer_kpa / (rig.volume_l * CM3_PER_L * kelvin[0]) * step
    drive0 = rig.pressure_kpa * (rig.pressure_kpa + 2 * barometer[0])
    gauge = np.empty_like(minute)
    for n in range(len(minute)):
        gauge[n] = density * kelvin[n] - barometer[n]
        drive = gauge[n] * (gauge[n] + 2 * barometer[n]) / drive0
        density -= rig.leak_sccm * max(drive, -1.0) * per_step
    return Truth(minute, gauge, air, shell, sensor, barometer)


def _temperatures(around: Surroundings, minute: Array, step: float) -> tuple[Array, Array, Array]:
    """Sheet, air inside, and what a thermometer in it shows, each lagging behind the one before [°C]."""
    rates = [1 - exp(-step / follows) for follows in (SHELL_FOLLOWS_MIN, AIR_FOLLOWS_MIN, SENSOR_FOLLOWS_MIN)]
    now = [around.start_c] * 3
    found = np.empty((3, len(minute)))
    for n, at in enumerate(minute):
        found[:, n] = now
        ahead = (around.equilibrium_c(float(at)), now[0], now[1])
        now = [value + rate * (goal - value) for value, rate, goal in zip(now, rates, ahead, strict=True)]
    return found[0], found[1], found[2]


def read(rig: Rig, minutes: float, every_s: float = 60.0, truth: Truth | None = None) -> Series:
    """What the instruments of a simulated tank show.

    Parameters
    ----------
    rig : Rig
        Tank, leak, surroundings, instruments.
    minutes, every_s : float
        How long [min] and how often [s] it is read.
    truth : Truth, optional
        What happened, where it is known already.

    Returns
    -------
    Series
        With flicker, drift and last digits: the same for the same seed.
    """
    true = truth or happened(rig, minutes)
    at = np.arange(0.0, minutes + 1e-9, every_s / S_PER_MIN)
    dice = np.random.default_rng(rig.seed)
    warm = true.shell_c if rig.on_shell else true.sensor_c
    gauge = np.interp(at, true.minute, true.gauge_kpa) + rig.drift_per_h_kpa * at / MIN_PER_H
    temperature = np.interp(at, true.minute, warm)
    return Series(
        minute=at,
        gauge_kpa=_to_digit(gauge + dice.normal(0, rig.noise_kpa, len(at)), rig.gauge.resolution_kpa),
        temperature_c=_to_digit(temperature + dice.normal(0, rig.noise_k, len(at)), rig.gauge.temperature_resolution_k),
        barometer_kpa=_to_digit(np.interp(at, true.minute, true.barometer_kpa), rig.gauge.barometer_resolution_kpa),
    )


def _to_digit(values: Array, digit: float) -> Array:
    return np.asarray(np.round(np.round(values / digit) * digit, 9)) if digit else values


@dataclass(frozen=True, slots=True)
class Misled:
    """What moved the gauge beside the leak, each as the leak that it looks like [cm³/min]."""

    temperature_sccm: float
    barometer_sccm: float
    gauge_sccm: float
    thermometer_sccm: float
    """Left after the correction: the thermometer was behind the air inside, or lay on the sheet."""
    leak_sccm: float
    """What really leaked, on average."""


def misled(rig: Rig, truth: Truth, test: LeakTest) -> Misled:
    """What moved the gauge in a simulated test, and by how much.

    Parameters
    ----------
    rig : Rig
        The tank.
    truth : Truth
        What happened.
    test : LeakTest
        Volume.

    Returns
    -------
    Misled
        From beginning to end.
    """
    minutes = float(truth.minute[-1] - truth.minute[0])
    start, end = truth.gauge_kpa[0] + truth.barometer_kpa[0], truth.gauge_kpa[-1] + truth.barometer_kpa[-1]
    warm = truth.shell_c if rig.on_shell else truth.sensor_c
    true_ratio = (truth.air_c[0] + KELVIN_AT_0_C) / (truth.air_c[-1] + KELVIN_AT_0_C)
    shown_ratio = (warm[0] + KELVIN_AT_0_C) / (warm[-1] + KELVIN_AT_0_C)
    per_kpa = test.volume_l * CM3_PER_L / (truth.barometer_kpa[0] * minutes)
    return Misled(
        temperature_sccm=float(per_kpa * end * (true_ratio - 1)),
        barometer_sccm=float(per_kpa * (truth.barometer_kpa[-1] - truth.barometer_kpa[0])),
        gauge_sccm=float(-per_kpa * rig.drift_per_h_kpa * minutes / MIN_PER_H),
        thermometer_sccm=float(per_kpa * end * (true_ratio - shown_ratio)),
        leak_sccm=float(per_kpa * (start - end * true_ratio)),
    )
