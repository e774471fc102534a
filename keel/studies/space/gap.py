"""A distance from the tank to what shares its space."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from keel.design.bay import Clearance
from keel.design.workshop import HouseRules
from keel.reference.clearances import ClearanceClass
from keel.solid.box import Axis
from keel.solid.polyhedron import Array
from keel.studies.result import Point

TOUCH_MM = 1e-6
"""Rounding that is not a fault [mm]."""


@dataclass(frozen=True, slots=True)
class Gap:
    """The nearest gap from the shell to one neighbour."""

    neighbour: str
    kind: Literal["side", "keep-out"]
    key: str
    axis: Axis
    toward: Literal[-1, 1]
    gap_mm: float
    needed_mm: float
    rule: Literal["house rule", "typed"]
    clearance_kind: ClearanceClass
    start: Point
    end: Point

    @property
    def short_mm(self) -> float:
        """By how much the gap is too small [mm]; zero or less when it clears."""
        return self.needed_mm - self.gap_mm

    @property
    def clears(self) -> bool:
        """Whether the gap is as wide as it has to be."""
        return self.short_mm <= TOUCH_MM


def needed_mm(clearance: Clearance, rules: HouseRules) -> float:
    """Least gap for a clearance [mm]: the typed one, else the house rule of its kind.

    Parameters
    ----------
    clearance : Clearance
        Kind, and the gap typed for it.
    rules : HouseRules
        House rules.

    Returns
    -------
    float
        Gap [mm].
    """
    return clearance.mm if clearance.mm is not None else rules.clearances_mm[clearance.kind]


def _rule(clearance: Clearance) -> Literal["house rule", "typed"]:
    return "house rule" if clearance.mm is None else "typed"


def gap_to(
    name: str,
    kind: Literal["side", "keep-out"],
    key: str,
    distance: float,
    start: list[float],
    end: list[float],
    clearance: Clearance,
    rules: HouseRules,
    *,
    axis: int | None = None,
    high: bool | None = None,
    way: "Array | None" = None,
) -> Gap:
    """The gap between two nearest places, along the axis that it is longest on unless one is said."""
    towards = np.array(end) - np.array(start) if way is None else way
    if axis is None:
        axis = int(np.argmax(np.abs(towards)))
    if high is None:
        high = bool(towards[axis] >= 0)
    return Gap(
        neighbour=name,
        kind=kind,
        key=key,
        axis=axis_name(axis),
        toward=1 if high else -1,
        gap_mm=distance,
        needed_mm=needed_mm(clearance, rules),
        rule=_rule(clearance),
        clearance_kind=clearance.kind,
        start=Point.of(start),
        end=Point.of(end),
    )


def axis_name(index: int) -> Axis:
    """Its name by its number."""
    names: tuple[Axis, ...] = ("x", "y", "z")
    return names[index]
