"""A box that is tilted round the corner of two corridors, in closed form."""

from dataclasses import dataclass
from math import degrees, pi, radians, sin

from scipy.optimize import brentq, minimize_scalar


@dataclass(frozen=True, slots=True)
class Corner:
    """Two long corridors that meet, seen along the axis that a box tilts about.

    Attributes
    ----------
    first_mm, second_mm : float
        How wide the one is that it comes along, and the one that it turns into.
    walls_deg : float
        Between the two outer walls.
    """

    first_mm: float
    second_mm: float
    walls_deg: float = 90.0

    def longest_mm(self, thick_mm: float) -> tuple[float, float]:
        """The longest box of a thickness that can be tilted round, and how it stands where that is tightest.

        Parameters
        ----------
        thick_mm : float
            Of the box [mm].

        Returns
        -------
        (float, float)
            Length [mm], and the angle between it and the second corridor [°].

        References
        ----------
        The outer side lies across the outer corner at angle a to the first wall and β = 180° − γ − a to the second; the
        inner corner is just touched at L(a) = (w₂ sin a + w₁ sin β − b sin γ)/(sin a sin β); the least over a.
        """
        gamma = radians(self.walls_deg)

        def length(a: float) -> float:
            b = pi - gamma - a
            over = self.second_mm * sin(a) + self.first_mm * sin(b) - thick_mm * sin(gamma)
            return over / (sin(a) * sin(b))

        low, high = 1e-6, pi - gamma - 1e-6
        grid = [low + (high - low) * n / 400 for n in range(401)]
        start = min(grid, key=length)
        step = (high - low) / 400
        bounds = (max(low, start - step), min(high, start + step))
        best = minimize_scalar(length, bounds=bounds, method="bounded", options={"xatol": 1e-10})
        a = float(best.x)
        return float(best.fun), degrees(pi - gamma - a)

    def slides(self, long_mm: float, thick_mm: float) -> bool:
        """Whether a box passes a right corner without tilting: standing square, then sideways."""
        return (long_mm <= self.second_mm and thick_mm <= self.first_mm) or (
            long_mm <= self.first_mm and thick_mm <= self.second_mm
        )

    def passes(self, long_mm: float, thick_mm: float, clearance_mm: float = 0.0) -> bool:
        """Whether a box passes, sliding or tilted, with a clearance all round."""
        long, thick = long_mm + 2 * clearance_mm, thick_mm + 2 * clearance_mm
        return self.slides(long, thick) or long <= self.longest_mm(thick)[0]

    def first_needed_mm(self, long_mm: float, thick_mm: float) -> float:
        """How wide the first corridor has to be for a box to be tilted round [mm]."""

        def short(width: float) -> float:
            return Corner(width, self.second_mm, self.walls_deg).longest_mm(thick_mm)[0] - long_mm

        return float(brentq(short, 1e-3, 10 * (long_mm + thick_mm + self.second_mm), xtol=1e-7))


def rod_limit_mm(first_mm: float, second_mm: float) -> float:
    """The longest rod that is turned round a right corner [mm].

    Parameters
    ----------
    first_mm, second_mm : float
        Widths of the corridors [mm].

    Returns
    -------
    float
        (w₁^⅔ + w₂^⅔)^(3/2).

    References
    ----------
    The ladder problem: the astroid that a rod envelops (any text on the calculus of extremes).
    """
    return float((first_mm ** (2 / 3) + second_mm ** (2 / 3)) ** 1.5)
