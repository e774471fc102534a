"""What pumps give: their curves at a voltage or a speed, and the most they can press to."""

from collections.abc import Sequence
from itertools import pairwise

import numpy as np

from keel.design.line_functions import EnginePumpDoes, PumpDoes
from keel.design.pumps import PumpPoint
from keel.network.curves import NOTHING, Curve

SHUT_OFF_KPA = 0.5
"""A table that ends before its pump gives nothing is followed by a fall within that: nothing is extrapolated."""


def curve_at(tables: Sequence[tuple[float, Sequence[PumpPoint]]], at: float) -> Curve | None:
    """Flow against rise of pressure, between tables by a straight line at equal pressure.

    Parameters
    ----------
    tables : sequence of (float, sequence of PumpPoint)
        A voltage or a speed each, rising, with its points.
    at : float
        The voltage or speed wanted.

    Returns
    -------
    Curve or None
        Ends at zero; None where the tables don't reach, or there is none.

    References
    ----------
    Straight lines in both, nothing beyond a table's last point: the only thing a maker's table says for sure.
    """
    places = [place for place, _ in tables]
    if not places or not places[0] - 1e-9 <= at <= places[-1] + 1e-9:
        return None
    curves = [_whole(points) for _, points in tables]
    high = next(n for n, place in enumerate(places) if place >= at - 1e-9)
    if high == 0 or abs(places[high] - at) < 1e-9:
        return curves[high]
    low, up = curves[high - 1], curves[high]
    share = (at - places[high - 1]) / (places[high] - places[high - 1])
    kpa = sorted({*low.places, *up.places})
    return Curve.of(kpa, [(1 - share) * low.at(one) + share * up.at(one) for one in kpa])


BETWEEN = 6
"""Places between two points of a card at which the voltage behind the wires is worked out: it bends between them."""


def pressures_of(does: PumpDoes) -> list[float]:
    """Every pressure that a pump's tables have a point at, and some between.

    Parameters
    ----------
    does : PumpDoes
        Its card.

    Returns
    -------
    list of float
        Rising [kPa]; the ends at which it gives nothing among them.
    """
    points = sorted({kpa for curve in does.curves for kpa in _whole(curve.points).places})
    between = [np.linspace(a, b, BETWEEN, endpoint=False).tolist() for a, b in pairwise(points)]
    return [kpa for some in between for kpa in some] + points[-1:]


def _whole(points: Sequence[PumpPoint]) -> Curve:
    kpa, flows = [point.kpa for point in points], [point.l_per_h for point in points]
    if flows[-1] > 0:
        kpa, flows = [*kpa, kpa[-1] + SHUT_OFF_KPA], [*flows, 0.0]
    return Curve.of(kpa, flows)


def pump_curve(does: PumpDoes | EnginePumpDoes, voltage_v: float, engine_rpm: float) -> Curve | None:
    """What a pump gives in a mode.

    Parameters
    ----------
    does : PumpDoes or EnginePumpDoes
        Its card.
    voltage_v, engine_rpm : float
        At the pump [V]; of the engine [rpm].

    Returns
    -------
    Curve or None
        None where its card doesn't reach. Below its slowest curve an engine-driven pump moves less in proportion to
        its speed, and leaks back as much as it does there: it leaks by its pressure, however slowly it turns.
    """
    if isinstance(does, PumpDoes):
        return curve_at([(curve.voltage_v, curve.points) for curve in does.curves], voltage_v)
    tables = [(curve.rpm, curve.points) for curve in does.curves]
    speed = engine_rpm * does.ratio
    if speed < tables[0][0]:
        slowest = _whole(tables[0][1])
        less = slowest.values[0] * (1 - max(0.0, speed) / tables[0][0])
        return Curve(slowest.places, tuple(max(0.0, flow - less) for flow in slowest.values)) if speed > 0 else NOTHING
    return curve_at(tables, speed)


def dead_head_kpa(does: PumpDoes | EnginePumpDoes) -> tuple[float, bool]:
    """The most that a pump presses to with everything shut, and whether that is estimated [kPa].

    Parameters
    ----------
    does : PumpDoes or EnginePumpDoes
        Its card.

    Returns
    -------
    (float, bool)
        As typed; else where its highest curve gives nothing; else that curve's last straight line carried on to no
        flow, which overstates it: a pump's curve falls the steeper the nearer it is to its end.
    """
    if does.dead_head_kpa is not None:
        return does.dead_head_kpa, False
    found = [_ends(curve.points) for curve in does.curves]
    return max(kpa for kpa, _ in found), any(estimated for _, estimated in found)


def _ends(points: Sequence[PumpPoint]) -> tuple[float, bool]:
    flows = np.array([point.l_per_h for point in points])
    if flows[-1] == 0:
        return next(point.kpa for point in points if point.l_per_h == 0), False
    a, b = points[-2], points[-1]
    falls = (a.l_per_h - b.l_per_h) / (b.kpa - a.kpa)
    return (b.kpa + b.l_per_h / falls if falls > 0 else 2 * b.kpa), True
