"""What a fuel path is made of: each element says what flow and pressures at its two ends have to do with each other."""

from abc import abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from keel.network.curves import NOTHING, Array, Curve, Curves
from keel.network.friction import pipe_loss, velocity
from keel.reference.units import STANDARD_GRAVITY

Given = Mapping[str, Any]
"""Figures of elements of one kind, each of shape (modes, elements), and their `Curves`."""
STEEL_ROUGH_MM = 0.0015
"""Drawn tube and smooth-bore hose."""


OPEN_LEAST = 1e-12
"""Loss with the flow's square that keeps a wide way's equation from being flat [kPa per (L/h)²]."""


@dataclass(frozen=True)
class Fuel:
    """What flows: density [kg/L] and viscosity [mm²/s], each of shape (modes,)."""

    density: Array
    viscosity: Array


@dataclass(frozen=True)
class State:
    """Flow, pressures at start and end, each of shape (modes, elements), and what shut ones let by [L/h per kPa]."""

    flow: Array
    before: Array
    behind: Array
    fuel: Fuel
    leak: float

    @property
    def fall(self) -> Array:
        """Pressure before less pressure behind."""
        return self.before - self.behind


@dataclass(frozen=True)
class Residual:
    """What is left of each equation, and how that changes with the flow and with either pressure."""

    left: Array
    by_flow: Array
    by_before: Array
    by_behind: Array

    def or_else(self, other: "Residual") -> "Residual":
        """The lesser of two that are each zero or more, one of them zero."""
        return self.where(self.left < other.left, other)

    def where(self, first: NDArray[np.bool_], other: "Residual") -> "Residual":
        """Itself where it is said, else the other."""
        pairs = zip(
            (self.left, self.by_flow, self.by_before, self.by_behind),
            (other.left, other.by_flow, other.by_before, other.by_behind),
            strict=True,
        )
        return Residual(*(np.where(first, one, another) for one, another in pairs))


def shut(state: State) -> Residual:
    """Nothing passes but the leak."""
    one = np.ones_like(state.flow)
    return Residual(state.flow - state.leak * state.fall, one, -state.leak * one, state.leak * one)


@dataclass(frozen=True)
class Element:
    """Something between two joints, from `start` to `end` as it is meant to flow."""

    id: str
    start: str
    end: str

    @abstractmethod
    def figures(self, modes: int) -> Mapping[str, Any]:
        """What is given of it: numbers, one a mode, or a curve a mode."""

    @staticmethod
    @abstractmethod
    def residual(given: Given, state: State) -> Residual:
        """Zero where flow and pressures of elements of this kind agree."""


@dataclass(frozen=True)
class Pipe(Element):
    """A hose or tube with its fittings, that rises by so much from start to end."""

    bore_mm: float = 8.0
    length_m: float = 1.0
    fittings: float = 0.0
    rough_mm: float = STEEL_ROUGH_MM
    rise_mm: float = 0.0

    def figures(self, modes: int) -> Mapping[str, Any]:
        """Sizes."""
        names = ("bore_mm", "length_m", "fittings", "rough_mm", "rise_mm")
        return {name: np.full(modes, getattr(self, name)) for name in names}

    @staticmethod
    def residual(given: Given, state: State) -> Residual:
        """Its fall is its column's and what it loses."""
        density, viscosity = state.fuel.density[:, None], state.fuel.viscosity[:, None]
        sizes = (given["bore_mm"], given["length_m"], given["fittings"])
        lost, slope = pipe_loss(state.flow, *sizes, density, viscosity, given["rough_mm"])
        column = density * STANDARD_GRAVITY * given["rise_mm"] / 1e3
        one = np.ones_like(state.flow)
        return Residual(state.fall - column - lost, -slope, one, -one)


@dataclass(frozen=True)
class Resistance(Element):
    """A filter, strainer, sensor or jet: it loses a Q + b Q|Q|."""

    linear: float | Array = 0.0
    square: float | Array = 0.0

    def figures(self, modes: int) -> Mapping[str, Any]:
        """Both, the same in all modes or one for each."""
        return {name: np.broadcast_to(getattr(self, name), modes) for name in ("linear", "square")}

    @staticmethod
    def residual(given: Given, state: State) -> Residual:
        """Its fall is what it loses."""
        speed, one = np.abs(state.flow), np.ones_like(state.flow)
        lost = given["linear"] * state.flow + given["square"] * state.flow * speed
        return Residual(state.fall - lost, -given["linear"] - 2 * given["square"] * speed, one, -one)


@dataclass(frozen=True)
class Valve(Element):
    """Open or shut, mode by mode; open it loses the K of its bore."""

    bore_mm: float = 8.0
    fittings: float = 0.3
    is_open: Sequence[bool] = ()

    def figures(self, modes: int) -> Mapping[str, Any]:
        """Sizes, and whether it is open."""
        sizes = {name: np.full(modes, getattr(self, name)) for name in ("bore_mm", "fittings")}
        return sizes | {"is_open": np.array(self.is_open, dtype=bool)}

    @staticmethod
    def residual(given: Given, state: State) -> Residual:
        """Losing what its bore does, or passing nothing but the leak."""
        density = state.fuel.density[:, None]
        each = given["fittings"] * density / 2 * velocity(np.ones_like(state.flow), given["bore_mm"]) ** 2 + OPEN_LEAST
        speed, one = np.abs(state.flow), np.ones_like(state.flow)
        through = Residual(state.fall - each * state.flow * speed, -2 * each * speed, one, -one)
        return through.where(given["is_open"], shut(state))


@dataclass(frozen=True)
class Pump(Element):
    """Gives what its curve has at the rise of pressure, none beyond it; one that stands still passes nothing."""

    curves: Sequence[Curve | None] = ()
    """Flow [L/h] by rise [kPa], mode by mode, ending at zero; None: it stands still."""

    def figures(self, modes: int) -> Mapping[str, Any]:
        """Its curves."""
        return {"curves": [curve or NOTHING for curve in self.curves]}

    @staticmethod
    def residual(given: Given, state: State) -> Residual:
        """Its flow is its curve's."""
        gives, slope = given["curves"].at(-state.fall)
        left = state.flow - gives - state.leak * state.fall
        return Residual(left, np.ones_like(left), slope - state.leak, state.leak - slope)


@dataclass(frozen=True)
class CheckValve(Element):
    """One way, above its opening pressure: it loses that and k Q²."""

    opens_kpa: float = 0.0
    square: float = 0.0

    def figures(self, modes: int) -> Mapping[str, Any]:
        """Both."""
        return {"opens_kpa": np.full(modes, self.opens_kpa), "square": np.full(modes, self.square)}

    @staticmethod
    def residual(given: Given, state: State) -> Residual:
        """Shut, or losing what it loses."""
        speed, one = np.abs(state.flow), np.ones_like(state.flow)
        lost = given["opens_kpa"] + given["square"] * state.flow * speed
        return shut(state).or_else(Residual(lost - state.fall, 2 * given["square"] * speed, -one, one))


@dataclass(frozen=True)
class BypassRegulator(Element):
    """Holds the pressure before it at its set pressure over its reference, and what its curve rises over that.

    Wide open, what is behind it comes through: before it then stands that and c Q².
    """

    set_kpa: float = 300.0
    rises: Curve = NOTHING
    wide_open: float = 0.0
    reference_kpa: Array = field(default_factory=lambda: np.zeros(1))

    def figures(self, modes: int) -> Mapping[str, Any]:
        """What it holds, mode by mode."""
        return {
            "held_kpa": np.broadcast_to(self.set_kpa + self.reference_kpa, modes),
            "wide_open": np.full(modes, self.wide_open),
            "rises": [self.rises] * modes,
        }

    @staticmethod
    def residual(given: Given, state: State) -> Residual:
        """Shut below what it holds; else holding that."""
        speed, one = np.abs(state.flow), np.ones_like(state.flow)
        above, slope = given["rises"].at(state.flow)
        held, through = given["held_kpa"] + above, state.behind + given["wide_open"] * state.flow * speed
        wide = through > held
        growth = np.where(wide, 2 * given["wide_open"] * speed, slope)
        kept = Residual(np.where(wide, through, held) - state.before, growth, -one, np.where(wide, one, 0.0))
        return shut(state).or_else(kept)


@dataclass(frozen=True)
class DeadHeadRegulator(Element):
    """Lets by what holds the pressure behind it at its set pressure over its reference; nothing comes back."""

    set_kpa: float = 300.0
    wide_open: float = 0.0
    reference_kpa: Array = field(default_factory=lambda: np.zeros(1))

    def figures(self, modes: int) -> Mapping[str, Any]:
        """What it holds, mode by mode."""
        held = np.broadcast_to(self.set_kpa + self.reference_kpa, modes)
        return {"held_kpa": held, "wide_open": np.full(modes, self.wide_open)}

    @staticmethod
    def residual(given: Given, state: State) -> Residual:
        """Shut above its set pressure, wide open far below it, holding it between."""
        speed, one = np.abs(state.flow), np.ones_like(state.flow)
        over, lost = state.behind - given["held_kpa"], given["wide_open"] * state.flow * speed - state.fall
        wide = lost > over
        growth = np.where(wide, 2 * given["wide_open"] * speed, 0.0)
        return shut(state).or_else(Residual(np.where(wide, lost, over), growth, np.where(wide, -one, 0.0), one))


def stacked(elements: Sequence[Element], modes: int) -> Given:
    """Figures of elements of one kind beside each other."""
    each = [one.figures(modes) for one in elements]
    given: dict[str, Any] = {}
    for name, first in each[0].items():
        rows = [figures[name] for figures in each]
        if isinstance(first, list):
            given[name] = Curves.stacked([[row[mode] for row in rows] for mode in range(modes)])
        else:
            given[name] = np.column_stack(rows)
    return given
