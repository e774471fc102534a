"""A flat part: its outline, bend lines and marks, ready to be cut."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from math import atan2, degrees, pi
from typing import Literal

from keel.studies.result import Words

Spot = tuple[float, float]
"""A place on the flat [mm] from its left and its lower edge."""

Direction = Literal["up", "down"]
Grain = Literal["length", "width"]
"""Along which of a flat's sides the sheet's grain, the way it was rolled at the mill, is to run."""
SHARP_DEG, MOST_MARKED = 18.0, 20
"""Corners that turn less are a curve's; more of them aren't marked out one by one."""


@dataclass(frozen=True, slots=True)
class Bend:
    """A bend line on the flat. Up is towards the reader, who sees the inside of the tank."""

    start: Spot
    end: Spot
    direction: Direction
    angle_deg: float
    radius_mm: float
    order: int
    deduction_mm: float


@dataclass(frozen=True, slots=True)
class Roll:
    """A zone to be rolled: from one line on the flat to another. Up is towards the reader, as for a bend.

    `start` to `end` is where it begins, `until` to `stop` where it ends; the radius is the sheet's middle's.
    """

    start: Spot
    end: Spot
    until: Spot
    stop: Spot
    direction: Direction
    angle_deg: float
    radius_mm: float


@dataclass(frozen=True, slots=True)
class Place:
    """Where a piece of a part lies in the tank once it is folded.

    `name` says which piece it is; `base` is a spot in the panel that `matrix`, sixteen figures row by row, takes from
    (u, v, w) of the flat to vehicle axes [mm]; the far face, w = 0, is the tank's outside.
    """

    name: str
    base: Spot
    matrix: list[float]
    turned: bool = False
    """Whether the piece lies turned over: its reader's side is the outside."""
    base_only: bool = False
    """Whether its base alone is the tank's outside: a pan's flanges lie inside the wrapper."""


@dataclass(frozen=True, slots=True)
class Bore:
    """A round hole: a port's own (`bolt` 0), or that of one of its bolts."""

    port: str
    name: str
    middle: Spot
    diameter_mm: float
    bolt: int = 0


@dataclass(frozen=True, slots=True)
class Mark:
    """A line to etch: where another part comes to stand."""

    start: Spot
    end: Spot
    label: str


@dataclass(frozen=True, slots=True)
class FlatPart:
    """One part as it lies flat, its inside face up, datum edges x = 0 and y = 0."""

    name: str
    title: str
    quantity: int
    thickness_mm: float
    length_mm: float
    width_mm: float
    outline: list[Spot]
    bends: list[Bend]
    marks: list[Mark]
    area_mm2: float
    mass_kg: float
    note: Words
    corners: list[Spot]
    """Where its edges meet, before any rounding: what it is marked out from if it is no rectangle or disc."""
    holes: list[list[Spot]]
    """Outlines of what is cut out of it."""
    feature: str | None
    """Id of the feature that it is of; empty for the shell's own."""
    rolls: list[Roll] = field(default_factory=list)
    places: list[Place] = field(default_factory=list)
    """Where each of its pieces lies in the tank."""
    bores: list[Bore] = field(default_factory=list)
    """Round holes, each marked out from its middle."""
    grain: Grain = "length"
    """Which way the sheet's grain is to run, so that it is bent across it."""
    holes_not_drawn: list[str] = field(default_factory=list)
    """Names of ports whose holes it has to have and that aren't among its holes."""

    @property
    def port_middles(self) -> list[Spot]:
        """Middles of the ports' own holes."""
        return [bore.middle for bore in self.bores if not bore.bolt]

    @property
    def warnings(self) -> list[str]:
        """What has to stand on every file of it."""
        names = self.holes_not_drawn
        return [f"DON'T CUT YET: holes not drawn for {', '.join(names)}"] if names else []


def net_of_bores(part: FlatPart) -> FlatPart:
    """A part whose area and mass are those that its round holes leave.

    Parameters
    ----------
    part : FlatPart
        With them still counted in.

    Returns
    -------
    FlatPart
        The same otherwise.
    """
    gone = sum(pi * bore.diameter_mm**2 / 4 for bore in part.bores)
    left = max(0.0, part.area_mm2 - gone)
    return replace(part, area_mm2=left, mass_kg=part.mass_kg * left / part.area_mm2) if gone else part


def middle_of(ring: list[Spot]) -> Spot:
    """The middle of the box round an opening: what it is marked out from [mm].

    Parameters
    ----------
    ring : list of Spot
        Corners [mm].

    Returns
    -------
    Spot
        A place [mm].
    """
    across, up = [x for x, _ in ring], [y for _, y in ring]
    return (min(across) + max(across)) / 2, (min(up) + max(up)) / 2


def sharp_corners(ring: Sequence[Spot]) -> list[Spot]:
    """Corners that a ring is marked out from.

    Parameters
    ----------
    ring : sequence of Spot
        An outline; curves are chords.

    Returns
    -------
    list of Spot
        Those that turn by more than a chord's corner does; none of a ring that has more than anyone would mark out.
    """
    around = zip([ring[-1], *ring[:-1]], ring, [*ring[1:], ring[0]], strict=True)
    found = [here for before, here, after in around if _turn_deg(before, here, after) > SHARP_DEG]
    return found if len(found) <= MOST_MARKED else []


def _turn_deg(before: Spot, here: Spot, after: Spot) -> float:
    first = atan2(here[1] - before[1], here[0] - before[0])
    second = atan2(after[1] - here[1], after[0] - here[0])
    return abs(degrees((second - first + pi) % (2 * pi) - pi))


def polygon_area(outline: list[Spot]) -> float:
    """Area of a simple polygon [mm²], whichever way round it goes (shoelace formula)."""
    twice = 0.0
    for (x0, y0), (x1, y1) in zip(outline, [*outline[1:], outline[0]], strict=True):
        twice += x0 * y1 - x1 * y0
    return abs(twice) / 2


def rectangle(length_mm: float, width_mm: float) -> list[Spot]:
    """Outline of a rectangle from the datum corner, counter-clockwise.

    Parameters
    ----------
    length_mm : float
        Along x [mm].
    width_mm : float
        Along y [mm].

    Returns
    -------
    list of Spot
        Four corners [mm].
    """
    return [(0.0, 0.0), (length_mm, 0.0), (length_mm, width_mm), (0.0, width_mm)]
