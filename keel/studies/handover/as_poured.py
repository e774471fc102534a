"""A sender as it was found while fuel was poured: its face, its eighths and its breakpoints told by the real curve."""

from dataclasses import dataclass, replace

from keel.design.gauge import Gauge, Sender
from keel.solid.solids import Solids
from keel.studies.gauge.column import Column, column_of
from keel.studies.gauge.gauge import BREAKPOINTS
from keel.studies.gauge.poured_curve import EIGHTHS, PouredCurve, poured_curve
from keel.studies.gauge.readings import GaugeTruth, NeedlePoint, Reading, TruePoint

TENTHS = 10
NONE_L = 0.01


@dataclass(frozen=True, slots=True)
class AsPoured:
    """A sender as it is, beside what was calculated.

    Attributes
    ----------
    reading : Reading
        As calculated, but needle, litres and errors by the real curve.
    points : list of (float, float)
        Litres poured in all, and ohms read.
    calculated_l : list of float
        What the calculation takes each of those ohms for [L].
    """

    reading: Reading
    points: list[tuple[float, float]]
    calculated_l: list[float]


def as_poured(
    truth: GaugeTruth, gauge: Gauge, solids: Solids, points: dict[str, list[tuple[float, float]]]
) -> list[AsPoured]:
    """Every sender that was read at three levels or more.

    Parameters
    ----------
    truth : GaugeTruth
        As calculated.
    gauge : Gauge
        Senders.
    solids : Solids
        The tank.
    points : dict of str to list of (float, float)
        By sender: litres poured in all, and ohms read.

    Returns
    -------
    list of AsPoured
        In the order of the senders.
    """
    found = []
    for reading in truth.readings:
        sender = next(one for one in gauge.senders if one.id == reading.id)
        taken = sorted(points.get(reading.id, []))
        curve = poured_curve(_from_empty(taken, sender), sender.ohms_empty, sender.ohms_full)
        column = column_of(solids, sender)
        if curve is None or column is None:
            continue
        span = sender.ohms_empty, sender.ohms_full
        known = sorted((one.ohms, one.litres) for one in reading.breakpoints)
        found.append(
            AsPoured(_corrected(reading, curve, column[1], span), taken, [_between(known, ohms) for _, ohms in taken])
        )
    return found


def _from_empty(taken: list[tuple[float, float]], sender: Sender) -> list[tuple[float, float]]:
    """Where nobody read it empty its card's ohms stand for none: never more in the tank than there may be."""
    return taken if taken and taken[0][0] <= NONE_L else [(0.0, sender.ohms_empty), *taken]


def _between(known: list[tuple[float, float]], ohms: float) -> float:
    """Straight between the calculated breakpoints, flat beyond them."""
    rises = known[-1][1] >= known[0][1]
    litres, read = zip(*sorted((litres, at) for at, litres in known), strict=True)
    return PouredCurve(list(litres), list(read), rises).litres_at(ohms)


def _corrected(reading: Reading, curve: PouredCurve, column: Column, span: tuple[float, float]) -> Reading:
    eighths = _points(curve, column, span, reading.rated_l, EIGHTHS)
    tenths = []
    for n in range(TENTHS + 1):
        litres = reading.rated_l * n / TENTHS
        tenths.append(TruePoint(n / TENTHS, litres, (curve.ohms_at(litres) - span[0]) / (span[1] - span[0])))
    return replace(
        reading,
        left_at_empty_l=eighths[0].litres,
        above_full_l=reading.brimful_l - eighths[-1].litres,
        worst_l=max((one.error_l for one in eighths), key=abs),
        eighths=eighths,
        tenths=tenths,
        breakpoints=_points(curve, column, span, reading.rated_l, BREAKPOINTS),
    )


def _points(
    curve: PouredCurve, column: Column, span: tuple[float, float], rated_l: float, steps: int
) -> list[NeedlePoint]:
    found = []
    for n in range(steps + 1):
        needle = n / steps
        ohms = span[0] + needle * (span[1] - span[0])
        litres = curve.litres_at(ohms)
        found.append(NeedlePoint(needle, ohms, column.height(litres), litres, litres - needle * rated_l))
    return found
