"""Manoeuvres from a form, and laps that ship."""

import numpy as np

from keel.design.slosh import LAPS, LapName, Manoeuvre
from keel.solid.polyhedron import Array
from keel.studies.slosh.log import Log

DT_S = 0.02
FLAT = 0.3
"""An S-bend is held for longer than a wave: its sine to this power."""
SETTLE_S = 1.0
"""On the level before it begins [s]."""


def log_of(manoeuvre: Manoeuvre) -> Log:
    """The accelerations of a manoeuvre at 50 Hz, with a second on the level before and after.

    Corners and brakes build up and die away along half a cosine; lane changes and S-bends are whole waves.

    Parameters
    ----------
    manoeuvre : Manoeuvre
        Kind, strength and length.

    Returns
    -------
    Log
        Accelerations [g].
    """
    m = manoeuvre
    total = 2 * SETTLE_S + m.seconds + 2 * m.ramp_s
    t = np.asarray(np.arange(round(total / DT_S) + 1) * DT_S - SETTLE_S, dtype=np.float64)
    zeros = np.zeros(len(t))
    hold = _held(t, m)
    wave = np.where((t >= 0) & (t <= m.seconds), np.sin(2 * np.pi * t / m.seconds), 0.0)
    ahead, left, pitch = zeros, zeros, zeros
    if m.kind == "corner to the left":
        left = m.g * hold
    elif m.kind == "corner to the right":
        left = -m.g * hold
    elif m.kind == "braking":
        ahead = -m.g * hold
    elif m.kind == "launch":
        ahead = m.g * hold
    elif m.kind == "lane change":
        left = m.g * wave
    elif m.kind == "S-bend":
        left = m.g * np.sign(wave) * np.abs(wave) ** FLAT
    elif m.kind == "brake and turn":
        early = np.clip(1 - t / max(m.seconds, 1e-6), 0, 1)
        ahead, left = -m.g * hold * early, m.g * hold * (1 - early)
    else:
        pitch = m.pitch_deg * hold
    log = Log(m.kind, DT_S, ahead + zeros, left + zeros, zeros.copy(), np.ones(len(t)), pitch + zeros)
    return log.repeated(m.again) if m.again > 1 else log


def _held(t: Array, m: Manoeuvre) -> Array:
    """From zero to one over the ramp, held, and back."""
    if m.ramp_s == 0:
        return np.where((t >= 0) & (t <= m.seconds), 1.0, 0.0)
    up = np.clip(t / m.ramp_s, 0, 1)
    down = np.clip((t - m.ramp_s - m.seconds) / m.ramp_s, 0, 1)
    return np.asarray((1 - np.cos(np.pi * up)) / 2 - (1 - np.cos(np.pi * down)) / 2)


def demo_lap(name: LapName) -> Log:
    """One of the made-up laps, always the same.

    Parameters
    ----------
    name : LapName
        Which one.

    Returns
    -------
    Log
        Accelerations [g].
    """
    seconds, seed = {LAPS[0]: (62.0, 11), LAPS[1]: (180.0, 23), LAPS[2]: (120.0, 37)}[name]
    t = np.asarray(np.arange(round(seconds / DT_S) + 1) * DT_S, dtype=np.float64)
    rng = np.random.default_rng(seed)
    zeros = np.zeros(len(t))
    if name == LAPS[0]:
        left = _corners(t, rng, 15, 1.25)
        ahead = 0.45 - 1.5 * np.abs(np.gradient(np.abs(left), DT_S)).clip(0, 0.8)
        return Log(name, DT_S, ahead, left, 0.06 * _rough(t, rng, 9.0), (ahead > 0) * 0.8 + 0.2, zeros + 6.0)
    if name == LAPS[1]:
        left, ahead = _corners(t, rng, 24, 0.6), 0.15 * _rough(t, rng, 0.2)
        return Log(name, DT_S, ahead, left, (0.25 * _rough(t, rng, 2.2)).clip(-0.6, 1.2), zeros + 0.7, zeros)
    roll, heave = 0.16 * _rough(t, rng, 0.2), 0.12 * _rough(t, rng, 0.3)
    return Log(name, DT_S, 0.06 * _rough(t, rng, 0.25), roll, heave, zeros + 0.6, 3.0 * _rough(t, rng, 0.2))


def _corners(t: Array, rng: np.random.Generator, count: int, hardest: float) -> Array:
    """So many bends either way, each a smooth hump."""
    left = np.zeros(len(t))
    for middle in np.linspace(2.0, t[-1] - 2.0, count):
        wide, way = rng.uniform(0.8, 2.4), rng.choice([-1.0, 1.0])
        left += way * rng.uniform(0.5, 1.0) * hardest * np.exp(-(((t - middle) / wide) ** 4))
    return left


def _rough(t: Array, rng: np.random.Generator, hertz: float) -> Array:
    """A rough ride about a frequency: a few waves side by side, of rms one."""
    total = np.zeros(len(t))
    for share in np.linspace(0.5, 1.6, 9):
        total += np.sin(2 * np.pi * hertz * share * t + rng.uniform(0, 2 * np.pi))
    return np.asarray(total / np.sqrt(4.5))
