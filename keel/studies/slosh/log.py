"""What the vehicle does over time: accelerations at even times, made from a form or taken from a logger."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.reference.units import STANDARD_GRAVITY
from keel.solid.polyhedron import Array

MM_PER_M = 1000.0
TRACES = ("forward_g", "left_g", "up_g", "throttle_fraction", "pitch_deg")


@dataclass(frozen=True)
class Log:
    """Accelerations of the vehicle.

    Attributes
    ----------
    name : str
    dt_s : float
        From one sample to the next [s].
    forward_g, left_g, up_g : ndarray, shape (n,)
        Accelerating, turning left, thrown upward [g].
    throttle_fraction : ndarray, shape (n,)
        Share of full draw.
    pitch_deg : ndarray, shape (n,)
        Nose up, for a hill [°].
    fuel_l_per_h : ndarray, shape (n,), optional
        What was burnt, where that was logged; NaN where it wasn't, and `throttle_fraction` counts [L/h].
    """

    name: str
    dt_s: float
    forward_g: Array
    left_g: Array
    up_g: Array
    throttle_fraction: Array
    pitch_deg: Array
    fuel_l_per_h: Array | None = None

    @property
    def times_s(self) -> Array:
        """Times of the samples [s]."""
        return np.asarray(np.arange(len(self.forward_g)) * self.dt_s, dtype=np.float64)

    @property
    def specific_force(self) -> Array:
        """What the fuel feels, in vehicle axes, shape (n, 3) [mm/s²]."""
        pitch = np.radians(self.pitch_deg)
        g = np.column_stack(
            [-np.sin(pitch) - self.forward_g, -self.left_g, -np.cos(pitch) - self.up_g],
        )
        return np.asarray(g * STANDARD_GRAVITY * MM_PER_M)

    def drawn(self, full_l_per_h: float) -> Array:
        """What the engine draws, with so much at full draw, shape (n,) [L/h]."""
        by_use = self.throttle_fraction * full_l_per_h
        if self.fuel_l_per_h is None:
            return by_use
        return np.where(np.isnan(self.fuel_l_per_h), by_use, self.fuel_l_per_h)

    def repeated(self, times: int) -> "Log":
        """The same so many times over, one after the other."""
        return joined([self] * times)


def joined(logs: Sequence[Log]) -> Log:
    """Logs one after the other, under the names of all that differ.

    Parameters
    ----------
    logs : sequence of Log
        At least one.

    Returns
    -------
    Log
        One log.

    Raises
    ------
    ValueError
        When they are sampled differently.
    """
    first = logs[0]
    if any(log.dt_s != first.dt_s for log in logs):
        raise ValueError("logs that are joined are sampled alike")
    if len(logs) == 1:
        return first
    traces = {name: np.concatenate([getattr(log, name) for log in logs]) for name in TRACES}
    fuel = None
    if any(log.fuel_l_per_h is not None for log in logs):
        unknown = [np.full(len(log.throttle_fraction), np.nan) for log in logs]
        known = [u if log.fuel_l_per_h is None else log.fuel_l_per_h for u, log in zip(unknown, logs, strict=True)]
        fuel = np.concatenate(known)
    name = ", then ".join(dict.fromkeys(log.name for log in logs))
    return Log(name=name, dt_s=first.dt_s, fuel_l_per_h=fuel, **traces)


def still(name: str, seconds: float, dt_s: float = 0.02) -> Log:
    """Nothing happens, for so long.

    Parameters
    ----------
    name : str
        Its name.
    seconds : float
        How long [s].
    dt_s : float
        Between samples [s].

    Returns
    -------
    Log
        A log of zeros.
    """
    count = max(2, round(seconds / dt_s) + 1)
    zeros = np.zeros(count)
    return Log(name, dt_s, zeros, zeros.copy(), zeros.copy(), np.ones(count), zeros.copy())
