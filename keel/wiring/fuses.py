"""The fuse at the source of a wire."""

from collections.abc import Iterable
from dataclasses import dataclass

from keel.reference.wires import FUSES_A

LEAST_TIMES, MOST_TIMES = 1.25, 1.5
"""Of the running current: below it blows for nothing, above it lets a fault burn (house rule)."""


@dataclass(frozen=True, slots=True)
class Fuse:
    """The fuse of a wire.

    Attributes
    ----------
    rating_a : float
        The smallest on the shelf that bears the running current with its margin.
    is_close : bool
        It is at most half as much again as the running current.
    spares_wire : bool
        It blows before the wire is hurt.
    """

    rating_a: float
    is_close: bool
    spares_wire: bool

    @property
    def is_good(self) -> bool:
        """Both."""
        return self.is_close and self.spares_wire


def fuse_for(current_a: float, may_carry_a: float, fuses: Iterable[float] = FUSES_A) -> Fuse | None:
    """The fuse for a running current.

    Parameters
    ----------
    current_a : float
        Running.
    may_carry_a : float
        What the wire may carry for good.
    fuses : iterable of float
        On the shelf [A].

    Returns
    -------
    Fuse or None
        None where no fuse is large enough.
    """
    rating = min((one for one in fuses if one >= LEAST_TIMES * current_a - 1e-9), default=None)
    if rating is None:
        return None
    return Fuse(rating, rating <= MOST_TIMES * current_a + 1e-9, rating <= may_carry_a + 1e-9)
