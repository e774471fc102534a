"""In which order and passes the bolts of a flange are tightened."""

from collections.abc import Sequence
from itertools import pairwise


def star_order(bolts: int) -> list[int]:
    """Bolts in tightening order, numbered from 1 round the circle: each as far as possible from the last.

    An odd number goes on by (n − 1)/2 each time; an even one to the opposite bolt, then to the one beside it.

    Parameters
    ----------
    bolts : int
        How many.

    Returns
    -------
    list of int
        Each number once.
    """
    if bolts % 2:
        return [n * ((bolts - 1) // 2) % bolts + 1 for n in range(bolts)]
    return [bolt for n in range(bolts // 2) for bolt in (n + 1, n + 1 + bolts // 2)]


def least_jump_deg(order: Sequence[int]) -> float:
    """The least angle between successive bolts of an order [°]."""
    n = len(order)
    return min(360 / n * min((b - a) % n, (a - b) % n) for a, b in pairwise(order))


PASSES = (0.30, 0.60, 1.00)
"""Shares of the full torque, one pass each."""
