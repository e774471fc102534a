"""A slosh run: a tank over a log, and what is to be said of it."""

from dataclasses import dataclass

import numpy as np

from keel.reference.units import MM3_PER_LITRE
from keel.solid.polyhedron import Array
from keel.studies.slosh import kernel
from keel.studies.slosh.log import Log
from keel.studies.slosh.model import DAMPING_BARE, DAMPING_FOAM, SECONDS_PER_HOUR, Setup, SloshTank

STEP_S = 0.007
"""Longest step of the run [s]."""


@dataclass(frozen=True, slots=True)
class DrySpell:
    """The engine had less than it wanted."""

    start_s: float
    seconds: float
    forward_g: float
    left_g: float
    """Hardest felt meanwhile."""


@dataclass(frozen=True)
class Ran:
    """All of a run, at the log's times.

    Attributes
    ----------
    times_s : ndarray, shape (n,)
    held_l : ndarray, shape (n, compartments)
    planes : ndarray, shape (n, compartments, 4)
        Each surface's upward normal, and the level along it [mm].
    depths_mm : ndarray, shape (n, pickups)
        Of each inlet under the surface; below zero it is dry.
    surge_l : ndarray, shape (n,)
    spells : list of DrySpell
    drawn_l_per_h : ndarray, shape (n,)
        What the engine asked for.
    used_l, missed_l, returned_l, moved_l, spilt_l : float
    """

    times_s: Array
    held_l: Array
    planes: Array
    depths_mm: Array
    surge_l: Array
    spells: list[DrySpell]
    drawn_l_per_h: Array
    used_l: float
    missed_l: float
    returned_l: float
    moved_l: float
    spilt_l: float

    @property
    def dry_s(self) -> float:
        """Dry seconds in all."""
        return sum(spell.seconds for spell in self.spells)


def slosh_run(tank: SloshTank, log: Log, setup: Setup, step_s: float = STEP_S, start: Array | None = None) -> Ran:
    """Run a tank over a log.

    Parameters
    ----------
    tank : SloshTank
        Compartments, openings, pickups.
    log : Log
        What the vehicle does.
    setup : Setup
        Fill, draw, return, surge tank, foam.
    step_s : float
        Longest step [s].
    start : ndarray, shape (compartments,), optional
        What is in each at the start [mm³]; by default the fill on the level.

    Returns
    -------
    Ran

    Notes
    -----
    The surface in each compartment is a plane: no breaking waves, no froth, no splash over a baffle that the plane
    doesn't reach. With lag the plane swings as the first slosh mode does. It errs to the safe side where froth would
    let a pickup breathe later than the plane says, to the unsafe side where froth lets it breathe sooner.
    """
    per_second = MM3_PER_LITRE / SECONDS_PER_HOUR
    drawn = log.drawn(setup.draw_l_per_h)
    steps = max(1, int(np.ceil(log.dt_s / step_s - 1e-9)))
    held, planes, depths, surge, spells, sums = kernel.run(
        tank.packed,
        tank.ways,
        tank.feeds(setup),
        np.ascontiguousarray(log.specific_force),
        np.ascontiguousarray(drawn * per_second),
        np.full(len(log.throttle_fraction), setup.return_l_per_h * per_second),
        tank.level(setup.fill) if start is None else start,
        DAMPING_FOAM if setup.foam else DAMPING_BARE,
        setup.lag,
        log.dt_s / steps,
        steps,
    )
    used, missed, returned, moved, spilt = (float(v) / MM3_PER_LITRE for v in sums)
    return Ran(
        times_s=log.times_s,
        held_l=held / MM3_PER_LITRE,
        planes=planes,
        depths_mm=depths,
        surge_l=surge / MM3_PER_LITRE,
        spells=[_spell(log, float(a), float(b)) for a, b in spells],
        drawn_l_per_h=drawn,
        used_l=used,
        missed_l=missed,
        returned_l=returned,
        moved_l=moved,
        spilt_l=spilt,
    )


def _spell(log: Log, start: float, end: float) -> DrySpell:
    first, last = int(start / log.dt_s), min(len(log.throttle_fraction), int(end / log.dt_s) + 2)
    ahead, left = log.forward_g[first:last], log.left_g[first:last]
    at = int(np.argmax(np.hypot(ahead, left)))
    return DrySpell(start, end - start, float(ahead[at]), float(left[at]))
