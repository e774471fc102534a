"""Hems: a free edge turned back on itself, which is stiff and cuts nobody."""

from dataclasses import dataclass
from math import pi

from keel.reference.metals import METALS, MetalName
from keel.studies.sheet.parts import Bend, Direction, Spot

HEM_DEG = 180.0
SAME_DEG = 1e-6


@dataclass(frozen=True)
class Hem:
    """An open hem on sheet of a thickness [mm].

    Attributes
    ----------
    deep_mm : float
        From the finished edge to the sheet's own edge, along the outside.
    radius_mm : float
        Inside; the hem stands open by twice that.
    turned_mm : float
        What of the depth is round: radius and thickness.
    allowance_mm : float
        Length of the neutral line round it.
    """

    deep_mm: float
    radius_mm: float
    turned_mm: float
    allowance_mm: float

    @property
    def can_be(self) -> bool:
        """Whether anything straight is left of it."""
        return self.deep_mm > self.turned_mm

    @property
    def extra_mm(self) -> float:
        """How far the flat reaches past the finished edge."""
        return self.allowance_mm + self.deep_mm - 2 * self.turned_mm

    @property
    def line_mm(self) -> float:
        """How far past the finished edge its bend line lies."""
        return self.allowance_mm / 2 - self.turned_mm

    def bend(self, start: Spot, end: Spot, direction: Direction, order: int) -> Bend:
        """Its bend; the deduction counts from legs to the finished edge."""
        return Bend(start, end, direction, HEM_DEG, self.radius_mm, order, 2 * self.turned_mm - self.allowance_mm)


def hem_of(deep_mm: float, thickness_mm: float, metal: MetalName, k: float) -> Hem:
    """A hem as tight as a metal lets it be.

    Parameters
    ----------
    deep_mm, thickness_mm : float
        Of the hem and of the sheet [mm].
    metal : MetalName
        Its least radius, a factor of the thickness.
    k : float
        Place of the neutral line.

    Returns
    -------
    Hem
        Open by twice its radius: pressed flat, most sheet of tanks cracks.

    References
    ----------
    Half a turn of the neutral line: π (r + K t). Its legs end at the finished edge, r + t past the bend's middle
    (derived).
    """
    radius = METALS[metal].bend_radius_least * thickness_mm
    return Hem(deep_mm, radius, radius + thickness_mm, pi * (radius + k * thickness_mm))


def is_hem(bend: Bend) -> bool:
    """Whether a bend turns an edge back on itself.

    Parameters
    ----------
    bend : Bend
        Any.

    Returns
    -------
    bool
        By its angle.
    """
    return bend.angle_deg > HEM_DEG - SAME_DEG
