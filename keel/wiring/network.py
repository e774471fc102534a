"""Wires and contacts as a network of resistances: what is where at which potential, and which fuse is before what."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from heapq import heappop, heappush
from itertools import count
from math import inf

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
LEAST_OHM = 1e-6


@dataclass(frozen=True, slots=True)
class Branch:
    """A wire or a closed contact.

    Attributes
    ----------
    id : str
        Which one; several branches may be of the same.
    start, end : str
        The terminals that it joins.
    ohm : float
        Its resistance.
    fuse_a : float or None
        What it lets by for good, where it is a fuse.
    """

    id: str
    start: str
    end: str
    ohm: float = LEAST_OHM
    fuse_a: float | None = None


Pair = tuple[str, str]
"""The terminals that a load draws its current from and gives it back at."""


@dataclass(frozen=True)
class Responses:
    """What one ampere of each load does.

    Attributes
    ----------
    volts : ndarray, shape (loads, loads)
        What the first loses of its voltage for each ampere of the second [V/A]: on the diagonal a load's own way.
    amperes : ndarray, shape (branches, loads)
        What flows in a branch, from its start to its end, for each ampere of a load [A/A].
    """

    volts: Array
    amperes: Array


def responses(branches: Sequence[Branch], pairs: Sequence[Pair], poles: Pair) -> Responses:
    """What loads do to each other and to the wires, which with their currents adds up to everything.

    Parameters
    ----------
    branches : sequence of Branch
        Wires and closed contacts.
    pairs : sequence of Pair
        Loads. Both their terminals have to be joined to a pole.
    poles : Pair
        The source's terminals: they stay where they are.

    Returns
    -------
    Responses
        Branches that no pole is joined to carry nothing.

    Raises
    ------
    KeyError
        Where a load's terminal is joined to no pole.

    References
    ----------
    Kirchhoff's current law at each terminal: the Laplacian of the conductances times the potentials is what is fed in;
    resistances are linear, so currents superpose.
    """
    joined = reached(branches, poles)
    free = {node: place for place, node in enumerate(sorted(joined - set(poles)))}
    # One place more stands for both poles: they are held.
    held = len(free)
    places = {**free, **dict.fromkeys(poles, held)}
    live = [n for n, branch in enumerate(branches) if branch.start in joined]
    starts = np.array([places[branches[n].start] for n in live], dtype=int)
    ends = np.array([places[branches[n].end] for n in live], dtype=int)
    conductances = np.array([1 / max(branches[n].ohm, LEAST_OHM) for n in live])
    laplacian = np.zeros((held + 1, held + 1))
    for one, other, sign in ((starts, starts, 1), (ends, ends, 1), (starts, ends, -1), (ends, starts, -1)):
        np.add.at(laplacian, (one, other), sign * conductances)
    fed_in = np.zeros((held + 1, len(pairs)))
    for load, (plus, minus) in enumerate(pairs):
        fed_in[places[plus], load] -= 1.0
        fed_in[places[minus], load] += 1.0
    volts = np.zeros_like(fed_in)
    volts[:held] = np.linalg.solve(laplacian[:held, :held], fed_in[:held])
    amperes = np.zeros((len(branches), len(pairs)))
    amperes[live] = conductances[:, None] * (volts[starts] - volts[ends])
    lost = [volts[places[minus]] - volts[places[plus]] for plus, minus in pairs]
    return Responses(np.array(lost).reshape(len(pairs), len(pairs)), amperes)


def reached(branches: Iterable[Branch], starts: Iterable[str]) -> set[str]:
    """Terminals that branches join to some others.

    Parameters
    ----------
    branches : iterable of Branch
        Wires and closed contacts.
    starts : iterable of str
        Where it begins.

    Returns
    -------
    set of str
        The starts among them.
    """
    beside: dict[str, list[str]] = {}
    for branch in branches:
        beside.setdefault(branch.start, []).append(branch.end)
        beside.setdefault(branch.end, []).append(branch.start)
    found = set(starts)
    waiting = list(found)
    while waiting:
        for other in beside.get(waiting.pop(), ()):
            if other not in found:
                found.add(other)
                waiting.append(other)
    return found


def largest_fuse(branches: Iterable[Branch], source: str) -> dict[str, float]:
    """How much can come to a terminal for good, before a fuse on its way blows.

    Parameters
    ----------
    branches : iterable of Branch
        Wires and closed contacts, fuses among them.
    source : str
        The pole that current comes from.

    Returns
    -------
    dict of str to float
        By terminal [A]: of all ways there the one whose smallest fuse is the largest; infinite where a way has none.

    References
    ----------
    The widest path: Dijkstra's search with the smallest width along a way in place of its length.
    """
    beside: dict[str, list[tuple[str, float]]] = {}
    for branch in branches:
        width = inf if branch.fuse_a is None else branch.fuse_a
        beside.setdefault(branch.start, []).append((branch.end, width))
        beside.setdefault(branch.end, []).append((branch.start, width))
    found: dict[str, float] = {}
    order = count()
    waiting = [(-inf, next(order), source)]
    while waiting:
        width, _, node = heappop(waiting)
        if node in found:
            continue
        found[node] = -width
        for other, limit in beside.get(node, ()):
            if other not in found:
                heappush(waiting, (max(width, -limit), next(order), other))
    return found
