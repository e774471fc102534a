"""Ways of fitting a sender to a depth, side by side."""

from dataclasses import replace
from math import radians, sin

from keel.design.gauge import Sender, SwingArm
from keel.studies.gauge.column import Column
from keel.studies.gauge.motion import marks_of
from keel.studies.gauge.readings import Method
from keel.studies.gauge.swing import Swing, swing_for


def fitting_methods(arm: SwingArm, sender: Sender, column: Column, rated_l: float) -> list[Method]:
    """Each way with its figures; the favoured one is the truest of those whose float clears floor and roof.

    Parameters
    ----------
    arm : SwingArm
        As delivered: arm and stops.
    sender : Sender
        Where it hangs and what its marks are.
    column : Column
        The cell under it.
    rated_l : float
        What the needle's full means [L].

    Returns
    -------
    list of Method
        A new arm and pivot, and the arm as supplied hung for full, for empty and for half way.

    References
    ----------
    R = R0 · H / H0 (`swing_for`); as supplied the pivot stands at a mark less R0 · sin of that stop: derived.
    """
    empty, full = marks_of(sender, column)
    hung = full - arm.made_arm_mm * sin(radians(arm.full_stop_deg))
    stood = empty - arm.made_arm_mm * sin(radians(arm.empty_stop_deg))
    pivots = {
        "as supplied, true at full": hung,
        "as supplied, true at empty": stood,
        "as supplied, halfway": (hung + stood) / 2,
    }
    swings = {name: Swing(arm.made_arm_mm, at, arm.empty_stop_deg, arm.full_stop_deg) for name, at in pivots.items()}
    found = [
        _method(name, swing, arm.float_mm / 2, column, rated_l)
        for name, swing in {"new arm and pivot": swing_for(arm, empty, full), **swings}.items()
    ]
    best = min((abs(method.worst_l) for method in found if method.fits), default=0.0)
    return [replace(method, favoured=method.fits and abs(method.worst_l) <= best) for method in found]


def _method(name: str, swing: Swing, float_radius_mm: float, column: Column, rated_l: float) -> Method:
    low, high = swing.height(0), swing.height(1)
    errors = [column.litres(swing.height(n / 8)) - n / 8 * rated_l for n in range(9)]
    return Method(
        name=name,
        arm_mm=swing.arm_mm,
        pivot_mm=swing.pivot_mm,
        empty_mm=low,
        full_mm=high,
        left_at_empty_l=column.litres(low),
        above_full_l=column.brimful_l - column.litres(high),
        worst_l=max(errors, key=abs),
        fits=low >= float_radius_mm - 1e-6 and high <= column.depth_mm - float_radius_mm + 1e-6,
        favoured=False,
    )
