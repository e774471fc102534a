"""Whether a surge tank is full again each time the pickup comes out."""

from dataclasses import dataclass

import numpy as np

from keel.studies.slosh.run import Ran

FULL = 0.999
"""A surge tank with this share in it counts as full."""


@dataclass(frozen=True, slots=True)
class Refill:
    """What a surge tank went through over a run."""

    lowest_l: float
    lowest_at_s: float
    full_again_s: float | None
    """When it was full again after its lowest; empty when the run ends before."""
    dips: int
    """How often every inlet came out of the fuel."""
    not_full: int
    """How many of those began before it was full again."""


def refill(ran: Ran, surge_l: float) -> Refill | None:
    """How a surge tank kept up over a run; None without one.

    Parameters
    ----------
    ran : Ran
        The run.
    surge_l : float
        The surge tank [L].

    Returns
    -------
    Refill or None
        Lowest level and how long it took to fill again.
    """
    if surge_l <= 0:
        return None
    dry = np.concatenate([[False], ran.depths_mm.max(axis=1) <= 0])
    starts = np.flatnonzero(dry[1:] & ~dry[:-1])
    full = ran.surge_l >= FULL * surge_l
    lowest = int(np.argmin(ran.surge_l))
    again = np.flatnonzero(full[lowest:])
    return Refill(
        lowest_l=float(ran.surge_l[lowest]),
        lowest_at_s=float(ran.times_s[lowest]),
        full_again_s=float(ran.times_s[lowest + again[0]]) if len(again) else None,
        dips=len(starts),
        not_full=int((~full[starts]).sum()),
    )
