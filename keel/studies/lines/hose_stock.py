"""The hose by the metre that a run is cut from, and what its card says of it."""

from collections.abc import Sequence

from keel.design.hoses import HoseStock
from keel.design.lines import LineRun

SAME_BORE_MM = 0.3
USUAL_RADII = 8.0
"""Tightest bend of a hose whose card isn't known, in bores (house rule)."""
USUAL_WALL_MM = 3.5


def stock_of(run: LineRun, hoses: Sequence[HoseStock]) -> HoseStock | None:
    """The hose by the metre that a run is cut from; None where the shop knows none."""
    fits = [one for one in hoses if one.hose == run.hose and abs(one.bore_mm - run.bore_mm) <= SAME_BORE_MM]
    return min(fits, key=lambda one: abs(one.bore_mm - run.bore_mm), default=None)


def least_radius_of(run: LineRun, hoses: Sequence[HoseStock]) -> float:
    """Tightest bend of a hose to its middle: its card's, or the usual one [mm]."""
    stock = stock_of(run, hoses)
    return (stock.least_radius_mm if stock else None) or USUAL_RADII * run.bore_mm


def radius_of_hose(run: LineRun, hoses: Sequence[HoseStock]) -> float:
    """Radius of a hose's bends, to its middle: typed, or its tightest [mm].

    Parameters
    ----------
    run : LineRun
        A hose.
    hoses : sequence of HoseStock
        The shop's, with their cards.

    Returns
    -------
    float
        To the hose's middle [mm].
    """
    return run.radius_mm or least_radius_of(run, hoses)


def outside_of_hose(run: LineRun, hoses: Sequence[HoseStock]) -> float:
    """Outside of a hose: its card's, or its bore and two usual walls [mm]."""
    stock = stock_of(run, hoses)
    return (stock.outside_mm if stock else None) or run.bore_mm + 2 * USUAL_WALL_MM
