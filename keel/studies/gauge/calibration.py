"""A sender measured in its tank: the curve that fits the readings, against the calculated one."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.design.gauge import Sender
from keel.solid.solids import Solids
from keel.studies.gauge.column import column_of
from keel.studies.gauge.gauge import BREAKPOINTS
from keel.studies.gauge.motion import litres_for_ohms, ohms_for_litres

LEAST_POINTS = 3


@dataclass(frozen=True, slots=True)
class Compared:
    """One reading beside what was calculated for its ohms."""

    litres: float
    ohms: float
    calculated_l: float
    off_l: float


@dataclass(frozen=True, slots=True)
class CurvePoint:
    """Ohms and litres of the fitted curve, and the litres calculated."""

    ohms: float
    litres: float
    calculated_l: float


@dataclass(frozen=True, slots=True)
class Fitted:
    """The fitted curve; empty with fewer than three readings."""

    readings: list[Compared]
    curve: list[CurvePoint]
    worst_l: float | None
    rms_l: float | None


def monotone(values: Sequence[float]) -> list[float]:
    """The rising sequence nearest to some values in least squares: neighbours that fall are pooled (isotonic)."""
    pools: list[tuple[float, int]] = []
    for value in values:
        pools.append((value, 1))
        while len(pools) > 1 and pools[-2][0] > pools[-1][0]:
            (b, m), (a, n) = pools.pop(), pools.pop()
            pools.append(((a * n + b * m) / (n + m), n + m))
    return [mean for mean, count in pools for _ in range(count)]


def fitted(sender: Sender, solids: Solids, points: Sequence[tuple[float, float]]) -> Fitted | None:
    """Fit a curve of litres to ohms.

    Parameters
    ----------
    sender : Sender
        Its ohms at empty and full say which way they run.
    solids : Solids
        The tank it hangs in.
    points : sequence of (float, float)
        Litres poured in all, and ohms read.

    Returns
    -------
    Fitted or None
        None when the sender hangs in no cell. The curve goes through the readings made to rise, straight
        between them, at even steps of the ohms that were read; it is not carried on beyond them.
    """
    found = column_of(solids, sender)
    if found is None:
        return None
    column = found[1]
    readings = []
    for litres, ohms in sorted(points):
        calculated = litres_for_ohms(sender, column, ohms)
        readings.append(Compared(litres, ohms, calculated, litres - calculated))
    if len(readings) < LEAST_POINTS:
        return Fitted(readings, [], None, None)
    way = 1.0 if sender.ohms_full > sender.ohms_empty else -1.0
    rising = np.array(monotone([way * reading.ohms for reading in readings]))
    litres_read = np.array([reading.litres for reading in readings])
    steps = np.linspace(rising[0], rising[-1], BREAKPOINTS + 1)
    curve = [
        CurvePoint(
            way * float(x), float(np.interp(x, rising, litres_read)), litres_for_ohms(sender, column, way * float(x))
        )
        for x in steps
    ]
    off = np.array([reading.off_l for reading in readings])
    return Fitted(readings, curve, float(off[np.argmax(np.abs(off))]), float(np.sqrt((off**2).mean())))


def calculated_ohms(sender: Sender, solids: Solids, litres: float) -> float | None:
    """Ohms that a sender should read with so much in its cell; None when it hangs in none.

    Parameters
    ----------
    sender : Sender
        Any sender.
    solids : Solids
        The shell worked out.
    litres : float
        In all on the level [L].

    Returns
    -------
    float or None
        Resistance [Ω].
    """
    found = column_of(solids, sender)
    return None if found is None else ohms_for_litres(sender, found[1], litres)
