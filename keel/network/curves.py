"""Curves of straight lines between points, many at once."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Curve:
    """Straight lines between points whose places rise; level beyond both ends."""

    places: tuple[float, ...]
    values: tuple[float, ...]

    @staticmethod
    def of(places: Sequence[float], values: Sequence[float]) -> "Curve":
        """From any two rows of the same length.

        Raises
        ------
        ValueError
            Where there is no point, or places don't rise.
        """
        if not places or len(places) != len(values):
            raise ValueError(f"{len(places)} places and {len(values)} values make no curve")
        if any(b <= a for a, b in pairwise(places)):
            raise ValueError("the places of a curve rise from point to point")
        return Curve(tuple(map(float, places)), tuple(map(float, values)))

    def at(self, place: float) -> float:
        """Its value there."""
        return float(np.interp(place, self.places, self.values))


NOTHING = Curve((0.0,), (0.0,))


@dataclass(frozen=True)
class Curves:
    """Curves of unlike lengths beside each other: places and values, shape (..., points)."""

    places: Array
    values: Array

    @staticmethod
    def stacked(curves: Sequence[Sequence[Curve]]) -> "Curves":
        """Rows of curves; the shorter ones go on level."""
        most = max(len(curve.places) for row in curves for curve in row) + 1

        def padded(curve: Curve) -> tuple[list[float], list[float]]:
            more = most - len(curve.places)
            beyond = [curve.places[-1] + 1.0 + n for n in range(more)]
            return [*curve.places, *beyond], [*curve.values, *(curve.values[-1],) * more]

        both = np.array([[padded(curve) for curve in row] for row in curves])
        return Curves(both[..., 0, :], both[..., 1, :])

    def at(self, place: Array) -> tuple[Array, Array]:
        """Values and slopes.

        Parameters
        ----------
        place : ndarray, shape (...)
            One for each curve.

        Returns
        -------
        ndarray, ndarray
            Both of the same shape; beyond an end the slope is zero.
        """
        after = (self.places <= place[..., None]).sum(axis=-1)
        last = self.places.shape[-1] - 1
        low, high = np.clip(after - 1, 0, last)[..., None], np.clip(after, 0, last)[..., None]
        a, b = (np.take_along_axis(self.places, n, -1)[..., 0] for n in (low, high))
        first, second = (np.take_along_axis(self.values, n, -1)[..., 0] for n in (low, high))
        slope = np.where(b > a, (second - first) / np.where(b > a, b - a, 1.0), 0.0)
        return np.where(b > a, first + slope * (place - a), first), slope
