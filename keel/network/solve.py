"""Flows and pressures of a whole network in all its running modes, by Newton's method on all of them at once."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import groupby

import numpy as np
from numpy.typing import NDArray

from keel.network.curves import Array
from keel.network.elements import Element, Fuel, Given, Residual, State, stacked

LEAKS = (1.0, 1e-1, 1e-2, 1e-4, 1e-11)
"""What shut elements let by [L/h per kPa], less and less: the first makes all of it smooth, the last is nothing."""
FROM_NEAR = LEAKS[2:]
"""Enough from where a network like it came to rest."""
MOST_STEPS = 60
SETTLED = 1e-11
SHORTEST = 2.0**-12
VACUUM_KPA = 101.325
GOOD_ENOUGH = 1e-9
"""Left of the largest figure, where a mode counts as settled."""


@dataclass(frozen=True)
class Network:
    """Elements between joints.

    Attributes
    ----------
    elements : sequence of Element
        Each between two joints, by their names.
    held_kpa : mapping of str to ndarray, shape (modes,)
        Joints whose pressure is given: a tank's.
    drawn_lph : mapping of str to ndarray, shape (modes,)
        What is drawn at joints: an engine's.
    fuel : Fuel
        What flows in each mode.
    """

    elements: Sequence[Element]
    held_kpa: Mapping[str, Array]
    drawn_lph: Mapping[str, Array]
    fuel: Fuel

    @property
    def joints(self) -> list[str]:
        """All joints, in the order in which they are named."""
        return list(dict.fromkeys(name for one in self.elements for name in (one.start, one.end)))


@dataclass(frozen=True)
class Settled:
    """What came out.

    Attributes
    ----------
    pressures_kpa, flows_lph : dict of str to ndarray, shape (modes,)
        By joint, by element.
    is_settled : ndarray of bool, shape (modes,)
        Whether everything agrees; where not, none was found.
    is_fed : ndarray of bool, shape (modes,)
        Whether no joint is drawn below a vacuum: where one is, more is asked of the network than can come.
    is_dry : ndarray of bool, shape (modes,)
        Whether something is drawn where nothing leads to.
    left : ndarray, shape (modes,)
        The most that is left of any equation [L/h or kPa].
    """

    pressures_kpa: dict[str, Array]
    flows_lph: dict[str, Array]
    is_settled: NDArray[np.bool_]
    is_fed: NDArray[np.bool_]
    is_dry: NDArray[np.bool_]
    left: Array


@dataclass(frozen=True)
class _Kind:
    """Elements of one kind: their rows among all unknowns, and those of their joints (of a given one: beyond all)."""

    residual: type[Element]
    given: Given
    rows: NDArray[np.intp]
    start: NDArray[np.intp]
    end: NDArray[np.intp]


class Equations:
    """First the balance of every free joint, then what every element asks."""

    def __init__(self, network: Network) -> None:
        self.fuel, self.modes = network.fuel, len(network.fuel.density)
        self.free = [name for name in network.joints if name not in network.held_kpa]
        self.given = [name for name in network.joints if name in network.held_kpa]
        self.elements = sorted(network.elements, key=lambda one: type(one).__name__)
        self.count = len(self.free) + len(self.elements)
        self.held = np.column_stack([*(network.held_kpa[name] for name in self.given), np.zeros(self.modes)])
        drawn = [network.drawn_lph.get(name, np.zeros(self.modes)) for name in self.free]
        self.drawn = np.column_stack([np.zeros((self.modes, 0)), *drawn])
        self.kinds = list(self._kinds())
        self.balance = self._balance()

    def _kinds(self) -> Iterator[_Kind]:
        place = {name: n for n, name in enumerate(self.free)}
        place |= {name: self.count + n for n, name in enumerate(self.given)}
        row = len(self.free)
        for kind, group in groupby(self.elements, key=type):
            alike = list(group)
            start, end = (np.array([place[getattr(one, at)] for one in alike]) for at in ("start", "end"))
            yield _Kind(kind, stacked(alike, self.modes), np.arange(row, row + len(alike)), start, end)
            row += len(alike)

    def _balance(self) -> Array:
        """What a unit of each element's flow takes from its start and brings to its end, shape (elements, n)."""
        found = np.zeros((len(self.elements), self.count + len(self.given) + 1))
        for kind in self.kinds:
            places = kind.rows - len(self.free)
            found[places, kind.start], found[places, kind.end] = -1.0, 1.0
        return found

    def found(self, at: Array, leak: float) -> list[Residual]:
        """What every kind of element says of a state, kind by kind."""
        all_ = np.concatenate([at, self.held], axis=1)
        return [
            kind.residual.residual(
                kind.given, State(at[:, kind.rows], all_[:, kind.start], all_[:, kind.end], self.fuel, leak)
            )
            for kind in self.kinds
        ]

    def left(self, at: Array, found: Sequence[Residual]) -> Array:
        """What is left of every equation, shape (modes, n)."""
        joints = len(self.free)
        left = np.empty((self.modes, self.count))
        left[:, :joints] = at[:, joints:] @ self.balance[:, :joints] - self.drawn
        for kind, one in zip(self.kinds, found, strict=True):
            left[:, kind.rows] = one.left
        return left

    def change(self, found: Sequence[Residual]) -> Array:
        """How that changes with the unknowns, shape (modes, n, n)."""
        joints = len(self.free)
        change = np.zeros((self.modes, self.count, self.count + len(self.given) + 1))
        change[:, :joints, joints : self.count] = self.balance[:, :joints].T
        for kind, one in zip(self.kinds, found, strict=True):
            change[:, kind.rows, kind.rows] = one.by_flow
            change[:, kind.rows, kind.start] = one.by_before
            change[:, kind.rows, kind.end] = one.by_behind
        return change[:, :, : self.count]


def settle(network: Network, near: Settled | None = None) -> Settled:
    """Flows and pressures of a network at rest in each of its modes.

    Parameters
    ----------
    network : Network
        What is joined to what.
    near : Settled, optional
        What came out of one with the same elements and somewhat other flows: the search begins there.

    Returns
    -------
    Settled
        Modes are independent of each other. Between elements that are shut pressure is what their leaks leave. What no
        joint of a given pressure is joined to has no pressure (nan) and no flow.

    References
    ----------
    Flows and pressures as unknowns at once: E. Todini, S. Pilati, A Gradient Algorithm for the Analysis of Pipe
    Networks (1988). Valves that are open or shut as complementarities, by a semismooth Newton method with a line
    search; shut ones leak at first, less and less (a continuation).
    """
    joined, apart = _islands(network)
    modes = len(network.fuel.density)
    equations = Equations(replace(network, elements=joined))
    at, left, good = _state(equations, near)
    pressures = dict(zip(equations.free, at.T, strict=False)) | {
        name: np.asarray(held) for name, held in network.held_kpa.items()
    }
    fed = np.asarray((at[:, : len(equations.free)] > -VACUUM_KPA).all(axis=1))
    flows = {one.id: at[:, len(equations.free) + n] for n, one in enumerate(equations.elements)}
    cut = {joint for one in apart for joint in (one.start, one.end)}
    dry = np.zeros(modes, dtype=bool)
    for joint in cut:
        dry |= network.drawn_lph.get(joint, np.zeros(modes)) > 0
    pressures |= {joint: np.full(modes, np.nan) for joint in cut}
    flows |= {one.id: np.zeros(modes) for one in apart}
    return Settled(pressures, flows, good, fed, dry, left)


def _state(equations: Equations, near: Settled | None) -> tuple[Array, Array, NDArray[np.bool_]]:
    """Where it comes to rest; what is left of any equation, and whether that is little, in each mode."""
    if near is not None and near.is_settled.all():
        known = [near.pressures_kpa[name] for name in equations.free]
        start = np.column_stack([*known, *(near.flows_lph[one.id] for one in equations.elements)])
        at, left, good = _descended(equations, start, FROM_NEAR)
        if good.all() and np.abs(at - start).max() <= _size(start).max():
            return at, left, good
    anywhere = np.ones((equations.modes, equations.count))
    anywhere[:, : len(equations.free)] = equations.held[:, :1]
    return _descended(equations, anywhere, LEAKS)


def _descended(equations: Equations, at: Array, leaks: Sequence[float]) -> tuple[Array, Array, NDArray[np.bool_]]:
    for leak in leaks:
        at = _newton(equations, at, leak)
    left = np.abs(equations.left(at, equations.found(at, LEAKS[-1]))).max(axis=1, initial=0.0)
    return at, left, left <= GOOD_ENOUGH * _size(at)


def _size(at: Array) -> Array:
    return np.asarray(1.0 + np.abs(at).max(axis=1, initial=0.0))


def _islands(network: Network) -> tuple[list[Element], list[Element]]:
    """Elements that a joint of a given pressure is joined to, and the others."""
    reached, beside = set(network.held_kpa), dict[str, list[str]]()
    for one in network.elements:
        beside.setdefault(one.start, []).append(one.end)
        beside.setdefault(one.end, []).append(one.start)
    waiting = list(reached)
    while waiting:
        found = [joint for joint in beside.get(waiting.pop(), []) if joint not in reached]
        reached.update(found)
        waiting += found
    joined = [one for one in network.elements if one.start in reached]
    return joined, [one for one in network.elements if one.start not in reached]


def _newton(equations: Equations, at: Array, leak: float) -> Array:
    found = equations.found(at, leak)
    left = equations.left(at, found)
    norm = np.linalg.norm(left, axis=1)
    for _ in range(MOST_STEPS):
        going = norm > SETTLED * _size(at)
        if not going.any():
            break
        step = np.where(going[:, None], _steps(equations.change(found), left), 0.0)
        share = np.ones(equations.modes)
        while True:
            there = at - share[:, None] * step
            found = equations.found(there, leak)
            left = equations.left(there, found)
            after = np.linalg.norm(left, axis=1)
            worse = going & ~(after <= (1 - 1e-4 * share) * norm) & (share > SHORTEST)
            if not worse.any():
                break
            share = np.where(worse, share / 2, share)
        at, norm = there, after
    return at


def _steps(change: Array, left: Array) -> Array:
    """Newton's step, mode by mode; the shortest where it isn't the only one."""
    try:
        return np.asarray(np.linalg.solve(change, left[:, :, None])[:, :, 0])
    except np.linalg.LinAlgError:
        return np.array([np.linalg.lstsq(a, b, rcond=1e-13)[0] for a, b in zip(change, left, strict=True)])
