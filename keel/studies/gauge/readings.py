"""What is said of senders: where the needle stands against what is in the tank."""

from dataclasses import dataclass

from keel.studies.result import Point


@dataclass(frozen=True, slots=True)
class NeedlePoint:
    """One position of the needle: where the float is, and what is in the tank."""

    needle: float
    ohms: float
    float_mm: float
    litres: float
    error_l: float
    """True litres less what the needle lets believe: that share of the rated capacity."""


@dataclass(frozen=True, slots=True)
class TruePoint:
    """A true share of the rated capacity, which is what the needle's full means, and where the needle stands then."""

    share: float
    litres: float
    needle: float


@dataclass(frozen=True, slots=True)
class Method:
    """One way of fitting a sender to this depth, with its figures."""

    name: str
    arm_mm: float
    pivot_mm: float
    empty_mm: float
    full_mm: float
    left_at_empty_l: float
    above_full_l: float
    worst_l: float
    fits: bool
    """The float clears floor and roof at both stops."""
    favoured: bool


@dataclass(frozen=True, slots=True)
class Reading:
    """One sender worked out in the cell it hangs in. Heights go up from the inner floor below it [mm]."""

    id: str
    name: str
    cell: str
    kind: str
    depth_mm: float
    empty_mm: float
    full_mm: float
    made_travel_mm: float | None
    arm_mm: float | None
    arm_more_mm: float | None
    pivot_mm: float | None
    brimful_l: float
    rated_l: float
    """What the needle's full means: every error, tenth and printed face counts from it."""
    left_at_empty_l: float
    above_full_l: float
    worst_l: float
    eighths: list[NeedlePoint]
    tenths: list[TruePoint]
    breakpoints: list[NeedlePoint]
    methods: list[Method]
    sweep: list[Point]
    """The float's middle from empty to full, in vehicle axes."""
    pivot: Point | None
    float_mm: float
    meets: list[str]
    """What the float meets on its way."""
    switch_mm: float | None
    """Height of the low-level switch for the reserve, over the lowest place of the cell."""


@dataclass(frozen=True, slots=True)
class Joined:
    """Several senders of one cell on one needle: true tenths of rated, and where it stands."""

    cell: str
    how: str
    rated_l: float
    tenths: list[TruePoint]
    worst_l: float


@dataclass(frozen=True, slots=True)
class GaugeTruth:
    """All senders, and those that are joined."""

    readings: list[Reading]
    joined: list[Joined]
