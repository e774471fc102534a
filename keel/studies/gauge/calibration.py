"""A sender measured in its tank: the curve that fits the readings, against the calculated one."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.design.gauge import Sender
from keel.solid.solids import Solids
from keel.studies.gauge.column import column_of
from keel.studies.gauge.gauge import BREAKPOINTS
from keel.studies.gauge.motion import litres_for_ohms, ohms_for_litres
from keel.studies.gauge.poured_curve import poured_curve


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
    curve = poured_curve(points, sender.ohms_empty, sender.ohms_full)
    if curve is None:
        return Fitted(readings, [], None, None)
    steps = np.linspace(curve.ohms[0], curve.ohms[-1], BREAKPOINTS + 1)
    shown = [CurvePoint(float(x), curve.litres_at(float(x)), litres_for_ohms(sender, column, float(x))) for x in steps]
    off = np.array([reading.off_l for reading in readings])
    return Fitted(readings, shown, float(off[np.argmax(np.abs(off))]), float(np.sqrt((off**2).mean())))


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
