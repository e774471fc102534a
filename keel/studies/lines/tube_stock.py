"""The tube that a run is made of, and what it is bent on."""

from collections.abc import Sequence

from keel.design.benders import TubeBender
from keel.design.lines import LineRun
from keel.reference.connections import TUBE_WALL_MM

SAME_OUTSIDE_MM = 0.3
USUAL_RADII = 3.0
"""Radius of a bend where no bender is known, in outside diameters (house rule)."""


def outside_of(run: LineRun) -> float:
    """Outside of a tube: typed, or its bore and two usual walls [mm]."""
    return run.bore_mm + 2 * TUBE_WALL_MM if run.outside_mm is None else run.outside_mm


def bender_of(run: LineRun, benders: Sequence[TubeBender]) -> TubeBender | None:
    """The bender for a tube's outside; of several the one nearest to the radius that is typed."""
    fits = [one for one in benders if abs(one.outside_mm - outside_of(run)) <= SAME_OUTSIDE_MM]
    return min(fits, key=lambda one: abs(one.radius_mm - (run.radius_mm or one.radius_mm)), default=None)


def radius_of(run: LineRun, benders: Sequence[TubeBender]) -> float:
    """Radius of a tube's bends, to its middle: typed, its bender's, or the usual one [mm].

    Parameters
    ----------
    run : LineRun
        A tube.
    benders : sequence of TubeBender
        The shop's.

    Returns
    -------
    float
        To the tube's middle [mm].
    """
    bender = bender_of(run, benders)
    return run.radius_mm or (bender.radius_mm if bender else USUAL_RADII * outside_of(run))
