"""The curve of a sender from what was poured and read: what the face shows against what is in the tank."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

EIGHTHS = 8
LEAST_POINTS = 3
MIN_PER_H = 60.0


@dataclass(frozen=True, slots=True)
class PouredCurve:
    """Litres against ohms: straight between the points, flat beyond the first and the last.

    Attributes
    ----------
    litres, ohms : list of float
        Rising litres, and ohms that run one way: readings that ran back are pooled.
    rises : bool
        More ohms are more litres.
    """

    litres: list[float]
    ohms: list[float]
    rises: bool

    def litres_at(self, ohms: float) -> float:
        """What is in the tank when the sender reads so [L]; where it stands still over several, the least of them."""
        way = 1.0 if self.rises else -1.0
        read, known = way * ohms, [way * one for one in self.ohms]
        place = bisect_left(known, read)
        if place == len(known):
            return self.litres[-1]
        if place == 0 or known[place] == read:
            return self.litres[place]
        share = (read - known[place - 1]) / (known[place] - known[place - 1])
        return self.litres[place - 1] + share * (self.litres[place] - self.litres[place - 1])

    def ohms_at(self, litres: float) -> float:
        """What the sender reads with so much in the tank [Ω]."""
        return float(np.interp(litres, self.litres, self.ohms))


@dataclass(frozen=True, slots=True)
class FaceTruth:
    """An even face on a real curve, eighth by eighth.

    Attributes
    ----------
    true_l : list of float
        In the tank when the needle stands on each eighth [L].
    error_l : list of float
        What the face shows less that [L].
    largest_l : float
        Of them by size, with its sign [L].
    """

    true_l: list[float]
    error_l: list[float]
    largest_l: float


def monotone(values: Sequence[float]) -> list[float]:
    """The rising sequence nearest to some values in least squares: neighbours that fall are pooled (isotonic).

    Parameters
    ----------
    values : sequence of float
        In their order.

    Returns
    -------
    list of float
        As many, none less than the one before.
    """
    pools: list[tuple[float, int]] = []
    for value in values:
        pools.append((value, 1))
        while len(pools) > 1 and pools[-2][0] > pools[-1][0]:
            (b, m), (a, n) = pools.pop(), pools.pop()
            pools.append(((a * n + b * m) / (n + m), n + m))
    return [mean for mean, count in pools for _ in range(count)]


def poured_curve(points: Sequence[tuple[float, float]], ohms_empty: float, ohms_full: float) -> PouredCurve | None:
    """The curve through what was poured and read.

    Parameters
    ----------
    points : sequence of (float, float)
        Litres in the tank, and ohms read.
    ohms_empty, ohms_full : float
        By the sender's card: which way they run [Ω].

    Returns
    -------
    PouredCurve or None
        None of fewer than three points.
    """
    if len(points) < LEAST_POINTS:
        return None
    litres, ohms = zip(*sorted(points), strict=True)
    way = 1.0 if ohms_full > ohms_empty else -1.0
    return PouredCurve(list(litres), [way * one for one in monotone([way * one for one in ohms])], way > 0)


def face_truth(curve: PouredCurve, capacity_l: float, ohms_empty: float, ohms_full: float) -> FaceTruth:
    """What a face that is even in litres tells, with a needle that is even in ohms.

    Parameters
    ----------
    curve : PouredCurve
        The sender as it is.
    capacity_l : float
        What full says [L].
    ohms_empty, ohms_full : float
        At the ends of the needle's travel [Ω].

    Returns
    -------
    FaceTruth
        At the nine eighths.
    """
    shares = [n / EIGHTHS for n in range(EIGHTHS + 1)]
    true = [curve.litres_at(ohms_empty + share * (ohms_full - ohms_empty)) for share in shares]
    error = [share * capacity_l - held for share, held in zip(shares, true, strict=True)]
    return FaceTruth(true, error, max(error, key=abs))


def lamp_minutes(lit_l: float, stranded_l: float, l_per_h: float) -> float:
    """How long the engine runs once the lamp is lit.

    Parameters
    ----------
    lit_l : float
        In the tank when it lights [L].
    stranded_l : float
        That the pickup doesn't reach [L].
    l_per_h : float
        What the engine burns [L/h].

    Returns
    -------
    float
        Zero or more [min].
    """
    return max(0.0, lit_l - stranded_l) / l_per_h * MIN_PER_H
